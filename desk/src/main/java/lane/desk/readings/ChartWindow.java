package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import javafx.scene.Cursor;
import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import lane.base.LaneException;
import lane.desk.Session;
import lane.history.Settling;
import lane.picture.chart.ChartLayout;
import lane.picture.chart.ProfileChart;
import lane.picture.chart.ReadingChart;
import lane.reading.Ask;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.SettlingOf;
import org.jspecify.annotations.Nullable;

/** The window that a mean is taken over, on the curve that it is taken of; its beginning can be dragged. */
final class ChartWindow {
    private final Session session;
    private final Rectangle shade = new Rectangle();
    private final Line edge = new Line();
    private final Group group = new Group(shade, edge);
    private @Nullable ChartLayout layout;
    private @Nullable Reading reading;
    private @Nullable Profile curve;

    ChartWindow(Session session) {
        this.session = session;
        shade.getStyleClass().add("pine-band");
        shade.setMouseTransparent(true);
        shade.setOpacity(0.45);
        edge.getStyleClass().add("pine-line");
        edge.setStrokeWidth(5);
        edge.setId("settling-edge");
        edge.setCursor(Cursor.H_RESIZE);
        edge.setOnMousePressed(e -> e.consume());
        edge.setOnMouseDragged(e -> {
            place(group.sceneToLocal(e.getSceneX(), e.getSceneY()).getX());
            e.consume();
        });
        edge.setOnMouseReleased(e -> {
            take(group.sceneToLocal(e.getSceneX(), e.getSceneY()).getX());
            e.consume();
        });
        group.setManaged(false);
        hide();
    }

    Node node() {
        return group;
    }

    void hide() {
        group.setVisible(false);
    }

    /** The reading that judges a curve. */
    private static Optional<Reading> judge(Session session, Ask of) {
        return session.study().readings().stream()
                .filter(r -> r.ask() instanceof SettlingOf s && s.of().equals(of))
                .findFirst();
    }

    void over(ReadingChart chart, ChartLayout drawn) {
        hide();
        reading = judge(session, chart.reading().ask()).orElse(null);
        if (reading == null || !(reading.ask() instanceof SettlingOf asked)) {
            return;
        }
        List<Profile> curves =
                chart.curves().stream().map(ProfileChart.Curve::profile).toList();
        for (Profile p : curves) {
            try {
                Settling made = asked.judged(p);
                curve = p;
                layout = drawn;
                shade.setY(drawn.curve().getMinY());
                shade.setHeight(drawn.curve().getHeight());
                edge.setStartY(drawn.curve().getMinY());
                edge.setEndY(drawn.curve().getMaxY());
                place(drawn.pixel(made.from()));
                group.setVisible(true);
                return;
            } catch (LaneException e) {
                // The next lane may have enough of it.
                curve = null;
            }
        }
    }

    private void place(double x) {
        ChartLayout l = layout;
        Profile p = curve;
        if (l == null || p == null) {
            return;
        }
        double low = l.curve().getMinX();
        double high = l.curve().getMaxX();
        double from = Math.clamp(x, low, high);
        double end = Math.clamp(l.pixel(p.abscissa()[p.size() - 1]), low, high);
        edge.setStartX(from);
        edge.setEndX(from);
        shade.setX(Math.min(from, end));
        shade.setWidth(Math.abs(end - from));
    }

    private void take(double x) {
        ChartLayout l = layout;
        Profile p = curve;
        Reading r = reading;
        if (l == null || p == null || r == null || !(r.ask() instanceof SettlingOf s)) {
            return;
        }
        double first = p.abscissa()[0];
        double last = p.abscissa()[p.size() - 1];
        double share = Math.clamp((last - l.across().si(l.place(x))) / (last - first), 0.001, 1);
        // Three digits say where it begins as well as the mouse does.
        double round = Math.max(0.001, Math.round(share * 1000) / 1000.0);
        Rows.change(
                session, r, () -> new SettlingOf(s.of(), round, s.tolerance(), s.scale(), s.scaleUnit(), s.batches()));
    }
}
