package lane.desk.readings;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import lane.base.Kinds;
import lane.desk.Session;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.station.Shape;
import lane.station.Station;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/**
 * How a kind of reading is made, listed and changed in the window: one class a kind, found as a service. A kind whose form
 * says no more than its group is shown by what its answer is made of: as curves, or as one number a lane.
 */
public interface AskForm extends Kinds.Kind<Ask> {
    Kinds<Ask, AskForm> ALL = Kinds.of(AskForm.class);

    /**
     * An entry of "Add" that makes a reading with sensible first choices.
     *
     * @param lacks what is lacking for it, with the way to it; blank for nothing
     * @param here the shapes of stations that it can be read at by itself
     */
    record Maker(String text, Function<Session, String> lacks, Consumer<Session> make, Predicate<Shape> here) {
        /** One that no station offers. */
        public Maker(String text, Function<Session, String> lacks, Consumer<Session> make) {
            this(text, lacks, make, shape -> false);
        }
    }

    /** The entries that make sense at a station which is chosen at Stations. */
    static List<Maker> here(Shape shape) {
        return ALL.all().stream()
                .flatMap(f -> f.makers().stream())
                .filter(m -> m.here().test(shape))
                .toList();
    }

    /** Heading that it stands under in the list of readings. */
    String group();

    /** That of one reading, where a kind may be a curve or a number. */
    default String group(Reading reading) {
        return group();
    }

    default Feather icon() {
        return Feather.HASH;
    }

    default List<Maker> makers() {
        return List.of();
    }

    /** What the tool bar above curves has for it. */
    default List<Node> tools(Session session, Reading reading) {
        return List.of();
    }

    /** What the settings beside numbers have for it. */
    default void settings(Session session, Reading reading, VBox box) {}

    /** What is read, in a few words, for the axis of its values. */
    default String what(Session session, Reading reading) {
        return reading.quantities().stream()
                .findFirst()
                .flatMap(session.study()::quantity)
                .map(lane.quantity.Quantity::name)
                .orElse(reading.name());
    }

    /** What such a reading is called until somebody names it; blank where it is named when it is made and never again. */
    default String name(Study study, Ask ask) {
        return "";
    }

    /** A quantity by its name. */
    static String quantity(Study study, String key) {
        return study.quantity(key).map(Quantity::name).orElse(key);
    }

    /** Stations by their names. */
    static String places(Study study, List<String> stations) {
        return stations.stream()
                .map(s -> study.station(s).map(Station::name).orElse(s))
                .collect(Collectors.joining(", "));
    }

    /** Which way is positive; blank where nobody says. */
    default String sign(Reading reading) {
        return "";
    }

    default ReadingPane pane(Panes panes, Reading reading) {
        return reading.curve()
                ? panes.of(ProfilePane.class, ProfilePane::new)
                : panes.of(TallyPane.class, TallyPane::new);
    }
}
