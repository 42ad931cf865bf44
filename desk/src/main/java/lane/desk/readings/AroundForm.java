package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.desk.Lengths;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.AroundOf;
import lane.reading.AroundOf.Along;
import lane.reading.Reading;
import lane.station.Shell;
import lane.station.Station;
import lane.unit.Unit;
import org.kordamp.ikonli.feather.Feather;

/** Numbers around a shell. */
public final class AroundForm implements AskForm {
    @Override
    public String word() {
        return "around";
    }

    @Override
    public Class<AroundOf> type() {
        return AroundOf.class;
    }

    @Override
    public String group() {
        return "Profiles";
    }

    @Override
    public Feather icon() {
        return Feather.ACTIVITY;
    }

    @Override
    public List<Maker> makers() {
        return List.of(
                new Maker("Around a shell", NewReading::lacksNumber, NewReading::around, Shell.class::isInstance));
    }

    @Override
    public List<Node> tools(Session session, Reading reading) {
        var ask = (AroundOf) reading.ask();
        List<Node> out = new ArrayList<>();
        out.add(Ui.choice(
                "reading-along",
                List.of(Along.values()),
                ask.along(),
                a -> a == Along.AT ? "value at positions" : a.word(),
                x -> NewReading.change(
                        session,
                        reading.asking(ask.taking(x, x == Along.AT ? List.of(middle(session, ask)) : List.of())))));
        out.addAll(Choices.quantity(
                session,
                ask.quantity(),
                q -> NewReading.change(session, reading.in("").asking(ask.of(ask.station(), q)))));
        out.addAll(Choices.station(
                session,
                ask.station(),
                x -> x.shape() instanceof Shell,
                k -> NewReading.change(session, reading.asking(ask.of(k, ask.quantity())))));
        out.add(places(session, reading, ask));
        return out;
    }

    /** At which angles, and where along the axis. */
    private static Node places(Session session, Reading reading, AroundOf ask) {
        TextField angles = Ui.numbers(
                "around-angles",
                degrees(ask),
                "deg",
                all -> NewReading.change(session, reading.asking(ask.angles(all, "deg"))));
        angles.setPromptText(ask.samples() + " even");
        angles.setPrefWidth(210);
        var box = new VBox(6, Ui.row(8, Ui.left("Angles, °", 96, "second"), angles));
        if (ask.along() == Along.AT) {
            Lengths lengths = Lengths.of(session);
            TextField positions = Ui.numbers(
                    "around-positions",
                    ask.positions().stream().map(lengths::shown).toList(),
                    lengths.symbol(),
                    all -> NewReading.change(
                            session,
                            reading.asking(ask.taking(
                                    Along.AT, all.stream().map(lengths::metres).toList()))));
            positions.setPrefWidth(210);
            box.getChildren().add(Ui.row(8, Ui.left("Positions, " + lengths.symbol(), 96, "second"), positions));
        }
        box.getChildren()
                .add(Ui.label("such as 0, 45, 90 or 0 to 345 step 15; blank for even angles", "small", "muted"));
        box.setStyle("-fx-padding: 8;");
        var form = new CustomMenuItem(box, false);
        String words = Ui.count(
                        ask.angles().isEmpty() ? ask.samples() : ask.angles().size(), "angle")
                + (ask.along() == Along.AT ? ", " + Ui.count(ask.positions().size(), "position") : "");
        var menu = Named.menuButton(words);
        menu.setId("around-places");
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(Region.USE_PREF_SIZE);
        menu.getItems().add(form);
        return menu;
    }

    private static List<Double> degrees(AroundOf ask) {
        Unit unit = Unit.of(ask.angleUnit());
        Unit shown = Unit.of("deg");
        return ask.angleUnit().equals("deg")
                ? ask.angles()
                : ask.angles().stream().map(a -> shown.fromSi(unit.toSi(a))).toList();
    }

    /** Half way between the shell's ends, to begin with. */
    private static double middle(Session session, AroundOf ask) {
        return session.study()
                .station(ask.station())
                .map(Station::shape)
                .filter(Shell.class::isInstance)
                .map(Shell.class::cast)
                .map(s -> s.from() != null && s.to() != null ? (s.from() + s.to()) / 2 : 0.0)
                .orElse(0.0);
    }
}
