package lane.desk.stations;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.base.Kinds;
import lane.desk.Session;
import lane.mesh.Axis;
import lane.station.Shape;
import lane.station.Station;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;

/**
 * How a kind of station is made, listed and set by numbers in the window: one class a kind, found as a service. A kind that
 * says no more than its word can be looked at and read, but not be changed here.
 */
public interface ShapeForm extends Kinds.Kind<Shape> {
    Kinds<Shape, ShapeForm> ALL = Kinds.of(ShapeForm.class);

    /** Heading that it stands under in the list of stations. */
    default String group() {
        return "Others";
    }

    default Feather icon() {
        return Feather.CIRCLE;
    }

    /** What stands beside its name in the list, such as the number of samples. */
    default String note(Shape shape) {
        return "";
    }

    /** Adds one with first numbers that lie in the runs; null where it is not added so. */
    default @Nullable Consumer<Session> maker() {
        return null;
    }

    /** What is lacking for the maker, with the way to it; blank for nothing. */
    default String lacks(Session session) {
        return session.results().runs().isEmpty() ? "no run has been read; add one at Intake" : "";
    }

    /**
     * Its numbers.
     *
     * @param frame that they are in, as it stands in space
     */
    default List<Node> rows(Session session, Station station, Axis frame, boolean cylindrical) {
        return List.of();
    }
}
