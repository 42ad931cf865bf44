package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Entry;
import lane.desk.Lengths;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Point;
import lane.station.Station;
import lane.study.Study;

/** Copies of a station at equal distances, named by a pattern in which {@code #} stands for the number. */
final class ArrayForm {
    private final Session session;
    private final Station station;

    ArrayForm(Session session, Station station) {
        this.session = session;
        this.station = station;
    }

    MenuButton button() {
        var menu = Named.menuButton("Array");
        menu.setId("array");
        Lengths lengths = Lengths.of(session);
        TextField count = field("array-count", "5", 56);
        TextField x = field("array-x", "0", 56);
        TextField y = field("array-y", "0", 56);
        TextField z = field("array-z", "10", 56);
        TextField name = field("array-name", station.name() + " #", 180);
        var make = Ui.button(
                "Make copies",
                () -> {
                    try {
                        make(
                                (int) Math.round(number(count)),
                                new Point(
                                        lengths.metres(number(x)),
                                        lengths.metres(number(y)),
                                        lengths.metres(number(z))),
                                name.getText());
                        menu.hide();
                    } catch (LaneException e) {
                        session.say(e.getMessage());
                    }
                },
                "main");
        make.setId("array-make");
        var box = new VBox(
                6,
                Ui.row(6, Ui.left("Copies", 70, "second"), count),
                Ui.row(6, Ui.left("Each by, " + lengths.symbol(), 70, "second"), x, y, z),
                Ui.row(6, Ui.left("Named", 70, "second"), name),
                Ui.label("# stands for the number", "small", "muted"),
                make);
        box.setStyle("-fx-padding: 8;");
        var item = new CustomMenuItem(box, false);
        menu.getItems().add(item);
        return menu;
    }

    private static TextField field(String id, String text, double wide) {
        var field = Entry.of(new TextField(text));
        field.setId(id);
        field.setPrefWidth(wide);
        return field;
    }

    private static double number(TextField field) {
        try {
            return Double.parseDouble(field.getText().strip().replace(',', '.').replace('−', '-'));
        } catch (NumberFormatException e) {
            throw new LaneException("\"" + field.getText() + "\" is no number; write it like 12.5.");
        }
    }

    /** Adds so many copies behind the station, each a step further, in one edit. */
    void make(int copies, Point step, String pattern) {
        if (copies < 1 || copies > 1000) {
            throw new LaneException(
                    "An array takes 1 to 1000 copies, not " + copies + "; give a number in that range.");
        }
        session.edit("Array of " + station.name(), s -> {
            Study next = s.withStations(l -> {
                List<String> taken = new ArrayList<>(l.stream().map(Station::id).toList());
                int at = l.indexOf(station) + 1;
                for (int i = 1; i <= copies; i++) {
                    String name = pattern.contains("#")
                            ? pattern.replace("#", String.valueOf(i + 1))
                            : pattern + " " + (i + 1);
                    String id = Study.freshId(name, taken);
                    taken.add(id);
                    l.add(
                            at++,
                            Objects.requireNonNull(station.moved(step.times(i)))
                                    .keyed(id)
                                    .named(name));
                }
                return l;
            });
            return next;
        });
    }
}
