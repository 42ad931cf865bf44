package lane.desk.readings;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.Region;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Point;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.station.Frame;
import org.jspecify.annotations.Nullable;

/** Rows of the settings of readings: a caption and what is set. */
final class Rows {
    private Rows() {}

    static Node of(String caption, @Nullable Node... nodes) {
        var row = Ui.row(6, Ui.left(caption, 78, "second"));
        for (Node node : Arrays.stream(nodes).filter(Objects::nonNull).toList()) {
            // Where there is little room, words break, and numbers are whole.
            if (node instanceof Label label) {
                label.setWrapText(true);
                label.setMinHeight(Region.USE_PREF_SIZE);
            } else if (node instanceof TextField field) {
                field.setMinWidth(Region.USE_PREF_SIZE);
            }
            row.getChildren().add(node);
        }
        return row;
    }

    static TextField number(String id, double now, Consumer<Double> changed) {
        var field = Ui.number(id, now, changed);
        field.setPrefWidth(78);
        return field;
    }

    /** A number that may be left out. */
    static TextField end(String id, @Nullable Double now, Consumer<Optional<Double>> changed) {
        var field = Ui.numbers(
                id,
                now == null ? List.of() : List.of(now),
                "",
                all -> changed.accept(all.stream().findFirst()));
        field.setPromptText("all");
        field.setPrefWidth(66);
        return field;
    }

    static @Nullable TextField unit(@Nullable String now, String id, Consumer<String> changed) {
        if (now == null) {
            return null;
        }
        var field = Ui.text(id, now, changed);
        field.setPromptText("SI");
        field.setPrefWidth(58);
        return field;
    }

    static Node point(String caption, String id, Point p, Consumer<Point> changed) {
        double[] c = {p.x(), p.y(), p.z()};
        Node[] fields = new Node[3];
        for (int d = 0; d < 3; d++) {
            int at = d;
            var field = Ui.number(id + "-" + "xyz".charAt(d), c[d], v -> {
                double[] next = c.clone();
                next[at] = v;
                changed.accept(new Point(next[0], next[1], next[2]));
            });
            field.setPrefWidth(58);
            fields[d] = field;
        }
        return of(caption, fields);
    }

    /** The frame that directions are in, where there are frames to choose from. */
    static Optional<Node> frame(Session session, String id, String now, Consumer<String> changed) {
        List<String> all = new ArrayList<>(List.of(""));
        session.study().frames().forEach(f -> all.add(f.id()));
        if (!all.contains(now)) {
            all.add(now);
        }
        return all.size() < 2
                ? Optional.empty()
                : Optional.of(of(
                        "In frame",
                        Ui.choice(
                                id,
                                all,
                                now,
                                f -> f.isBlank()
                                        ? "space"
                                        : session.study()
                                                .frame(f)
                                                .map(Frame::name)
                                                .orElse(f),
                                changed)));
    }

    /** Asks something else; what cannot be is told and leaves the reading as it was. */
    static void change(Session session, Reading reading, Supplier<? extends Ask> next) {
        try {
            NewReading.change(session, reading.asking(next.get()));
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
    }
}
