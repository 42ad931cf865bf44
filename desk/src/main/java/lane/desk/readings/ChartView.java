package lane.desk.readings;

import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.scene.Cursor;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.util.Duration;
import lane.desk.Images;
import lane.desk.Session;
import lane.picture.Export;
import lane.picture.Palette;
import lane.picture.Ticks;
import lane.picture.chart.ChartLayout;
import lane.picture.chart.ProfileChart;
import lane.picture.chart.ProfileChart.View;
import lane.picture.chart.ReadingChart;
import lane.reading.Reading;
import lane.study.ChartLook;
import org.jfree.data.Range;
import org.jspecify.annotations.Nullable;

/**
 * A chart in the window: drawn behind it, with a cursor that reads all lanes. The wheel and a box look closer, a drag with the
 * middle button or Shift moves on, a double click shows all again.
 */
final class ChartView {
    private static final int MANY = 60;
    private static final double CLOSER = 1.25;

    private final Session session;
    private final Pane chart = new Pane();
    private final ImageView view = new ImageView();
    private final Line pointer = new Line();
    private final Line now = new Line();
    private final Rectangle box = new Rectangle();
    private final ChartTip tip;
    private final ChartWindow window;
    private final ChartMenu menu;
    private @Nullable ChartLayout layout;
    private @Nullable ReadingChart drawn;
    private View looked = View.ALL;
    private String of = "";
    private double share = ReadingChart.STRIP;
    private long asked;
    private @Nullable Drag drag;
    /** How long a chart of another reading may stand, so that nothing flickers where the next is there at once. */
    private final PauseTransition stale = new PauseTransition(Duration.millis(80));

    /** What a press of the mouse began. */
    private enum Kind {
        BOX,
        PAN,
        DIVIDER,
        LEGEND
    }

    private record Drag(Kind kind, double x, double y, View before, double dx, double dy) {}

    ChartView(Session session) {
        this.session = session;
        window = new ChartWindow(session);
        menu = new ChartMenu(session);
        chart.setId("profile-chart");
        tip = new ChartTip(session);
        chart.getChildren().addAll(view, window.node(), now, pointer, box, tip.node());
        chart.getStyleClass().add("sheet");
        chart.setMinSize(0, 0);
        chart.setFocusTraversable(true);
        chart.setAccessibleText(
                "Chart of the lanes; plus and minus look closer and further, arrows move on, 0 shows all");
        for (Line line : List.of(pointer, now)) {
            line.getStyleClass().add("ink-line");
            line.setVisible(false);
            line.setManaged(false);
            line.setMouseTransparent(true);
        }
        pointer.getStrokeDashArray().setAll(2.0, 3.0);
        now.setId("chart-now");
        box.getStyleClass().add("zoom-box");
        box.setId("chart-box");
        box.setVisible(false);
        box.setManaged(false);
        box.setMouseTransparent(true);
        stale.setOnFinished(e -> view.setImage(null));
        chart.widthProperty().addListener((o, was, is) -> paint());
        chart.heightProperty().addListener((o, was, is) -> paint());
        chart.setOnMouseMoved(this::moved);
        chart.setOnMouseExited(e -> {
            pointer.setVisible(false);
            tip.hide();
        });
        chart.setOnMousePressed(this::pressed);
        chart.setOnMouseDragged(this::dragged);
        chart.setOnMouseReleased(this::released);
        chart.setOnScroll(this::scrolled);
        chart.setOnKeyPressed(e -> {
            switch (e.getCode()) {
                case PLUS, EQUALS, ADD -> closer(CLOSER, 0.5, Double.NaN);
                case MINUS, SUBTRACT -> closer(1 / CLOSER, 0.5, Double.NaN);
                case DIGIT0, NUMPAD0, HOME -> look(View.ALL);
                case LEFT -> moveOn(-0.1);
                case RIGHT -> moveOn(0.1);
                default -> {
                    return;
                }
            }
            e.consume();
        });
        chart.setOnContextMenuRequested(e -> {
            if (layout != null && drawn != null && layout.curve().contains(e.getX(), e.getY())) {
                menu.at(chart, e.getScreenX(), e.getScreenY(), drawn, layout, e.getX(), e.getY(), () -> look(View.ALL));
                e.consume();
            }
        });
    }

    Pane node() {
        return chart;
    }

    @Nullable
    ReadingChart drawn() {
        return drawn;
    }

    double share() {
        return share;
    }

    void show(@Nullable ReadingChart chartNow) {
        drawn = chartNow;
        String id = chartNow == null
                ? ""
                : chartNow.reading().id()
                        + chartNow.look().x()
                        + chartNow.look().y();
        if (!id.equals(of)) {
            of = id;
            looked = View.ALL;
            // What is there belongs to another reading: it tells nothing any more, and is gone where this one takes
            // long.
            layout = null;
            now.setVisible(false);
            window.hide();
            stale.playFromStart();
        }
        paint();
    }

    private void look(View next) {
        looked = next;
        stretch(next);
        paint();
    }

    /** What is there is stretched at once, where it takes a moment to draw hundreds of curves anew. */
    private void stretch(View next) {
        ChartLayout l = layout;
        Range x = next.x();
        if (l == null || x == null || drawn == null || drawn.curves().size() <= MANY || view.getImage() == null) {
            return;
        }
        double grain = view.getImage().getWidth() / chart.getWidth();
        double factor = x.getLength() / Math.abs(l.right() - l.left());
        double plot = l.curve().getX();
        double first = l.left() < l.right() ? x.getLowerBound() : x.getUpperBound();
        double from =
                plot + (first - l.left()) / (l.right() - l.left()) * l.curve().getWidth();
        view.setViewport(new javafx.geometry.Rectangle2D(
                grain * (from - plot * factor),
                0,
                grain * factor * chart.getWidth(),
                view.getImage().getHeight()));
    }

    private void paint() {
        int w = (int) chart.getWidth();
        int h = (int) chart.getHeight();
        pointer.setVisible(false);
        tip.hide();
        ReadingChart of = drawn;
        if (of == null || of.curves().isEmpty() || w < 60 || h < 60) {
            asked++;
            stale.stop();
            view.setImage(null);
            layout = null;
            now.setVisible(false);
            window.hide();
            return;
        }
        // What is asked of the session is asked here; the points of a thousand curves are picked behind the window.
        Map<String, String> words = new HashMap<>();
        words.put(of.reading().id(), what(session, of.reading()));
        of.below().forEach(b -> words.put(b.reading().id(), what(session, b.reading())));
        double strip = share;
        View part = looked;
        Palette palette = session.palette();
        long number = ++asked;
        double scale = chart.getScene() == null || chart.getScene().getWindow() == null
                ? 1
                : chart.getScene().getWindow().getRenderScaleX();
        Thread.ofVirtual().start(() -> {
            if (number != asked) {
                return;
            }
            ProfileChart made = of.chart(r -> words.getOrDefault(r.id(), ""), strip, part, palette);
            var place = new ChartLayout[1];
            BufferedImage image = Export.image(w, h, scale, g -> place[0] = made.paint(g, w, h));
            Image drawn = Images.of(image);
            Platform.runLater(() -> {
                if (number == asked) {
                    stale.stop();
                    layout = place[0];
                    view.setViewport(null);
                    view.setImage(drawn);
                    view.setFitWidth(w);
                    view.setFitHeight(h);
                    over();
                }
            });
        });
    }

    static String what(Session session, Reading of) {
        return AskForm.ALL.of(of.ask()).what(session, of);
    }

    /** What lies over the drawn chart: the time that is looked at, and the window of a mean. */
    private void over() {
        ChartLayout l = Objects.requireNonNull(layout);
        ReadingChart of = Objects.requireNonNull(drawn);
        chart.setAccessibleHelp("shows " + Ticks.brief(l.across().shown(l.left())) + " to "
                + Ticks.brief(l.across().shown(l.right())) + " "
                + ChartTip.unit(l));
        double time = ChartTime.looked(session, of.reading());
        double x = l.pixel(time);
        boolean there =
                Double.isFinite(x) && x >= l.curve().getMinX() && x <= l.curve().getMaxX();
        now.setVisible(there);
        if (there) {
            now.setStartX(x);
            now.setEndX(x);
            now.setStartY(l.curve().getMinY());
            now.setEndY(l.strip().getMaxY());
        }
        window.over(of, l);
    }

    private void moved(MouseEvent e) {
        ChartLayout l = layout;
        if (l != null) {
            chart.setCursor(onLegend(l, e) ? Cursor.MOVE : onDivider(l, e) ? Cursor.V_RESIZE : Cursor.DEFAULT);
        }
        point(e.getX(), e.getY());
    }

    private static boolean onLegend(ChartLayout l, MouseEvent e) {
        Rectangle2D legend = l.legend();
        return legend != null && legend.contains(e.getX(), e.getY());
    }

    private static boolean onDivider(ChartLayout l, MouseEvent e) {
        return l.strip().getHeight() > 0
                && e.getY() > l.plots().getLast().area().getMaxY()
                && e.getY() < l.strip().getMinY();
    }

    private void pressed(MouseEvent e) {
        chart.requestFocus();
        ChartLayout l = layout;
        if (l == null || e.getButton() == MouseButton.SECONDARY) {
            drag = null;
            return;
        }
        Rectangle2D legend = l.legend();
        if (onLegend(l, e) && legend != null) {
            drag = new Drag(
                    Kind.LEGEND, e.getX(), e.getY(), looked, e.getX() - legend.getX(), e.getY() - legend.getY());
        } else if (onDivider(l, e)) {
            drag = new Drag(Kind.DIVIDER, e.getX(), e.getY(), looked, 0, 0);
        } else {
            boolean pan = e.getButton() == MouseButton.MIDDLE || e.isShiftDown();
            drag = new Drag(pan ? Kind.PAN : Kind.BOX, e.getX(), e.getY(), looked, 0, 0);
        }
    }

    private void dragged(MouseEvent e) {
        ChartLayout l = layout;
        Drag d = drag;
        if (l == null || d == null) {
            return;
        }
        pointer.setVisible(false);
        tip.hide();
        switch (d.kind) {
            case DIVIDER -> {
                share = Math.clamp(1 - (e.getY() - 20) / Math.max(1, chart.getHeight() - 60), 0.15, 0.75);
                paint();
            }
            case LEGEND -> {
                box.setX(e.getX() - d.dx);
                box.setY(e.getY() - d.dy);
                Rectangle2D legend = Objects.requireNonNull(l.legend());
                box.setWidth(legend.getWidth());
                box.setHeight(legend.getHeight());
                box.setVisible(true);
            }
            case BOX -> {
                box.setX(Math.min(d.x, e.getX()));
                box.setY(Math.min(d.y, e.getY()));
                box.setWidth(Math.abs(e.getX() - d.x));
                box.setHeight(Math.abs(e.getY() - d.y));
                box.setVisible(box.getWidth() + box.getHeight() > 8);
            }
            case PAN -> {
                double dx = l.place(d.x) - l.place(e.getX());
                double dy =
                        l.plots().getFirst().place(d.y) - l.plots().getFirst().place(e.getY());
                View from = d.before;
                Range x = from.x() == null ? across(l) : from.x();
                Range y = from.y() == null ? up(l) : from.y();
                looked = new View(
                        Range.shift(x, dx, true),
                        from.y() == null && Math.abs(e.getY() - d.y) < 12 ? null : Range.shift(y, dy, true));
                drag = new Drag(Kind.PAN, e.getX(), e.getY(), looked, 0, 0);
                paint();
            }
        }
    }

    private void released(MouseEvent e) {
        Drag d = drag;
        drag = null;
        box.setVisible(false);
        ChartLayout l = layout;
        if (l == null || d == null) {
            return;
        }
        boolean still = Math.abs(e.getX() - d.x) < 4 && Math.abs(e.getY() - d.y) < 4;
        if (d.kind == Kind.LEGEND && !still) {
            Rectangle2D plot = l.curve();
            var spot = new ChartLook.Spot(
                    (e.getX() - d.dx - plot.getX()) / plot.getWidth(),
                    (e.getY() - d.dy - plot.getY()) / plot.getHeight());
            change(c -> c.legendAt(spot));
        } else if (d.kind == Kind.BOX && !still) {
            double a = l.place(Math.min(d.x, e.getX()));
            double b = l.place(Math.max(d.x, e.getX()));
            ChartLayout.Plot plot = l.plots().getFirst();
            boolean inCurve = d.y < plot.area().getMaxY();
            Range y = inCurve && Math.abs(e.getY() - d.y) > 8
                    ? ranged(
                            plot.place(d.y),
                            plot.place(Math.min(e.getY(), plot.area().getMaxY())))
                    : looked.y();
            if (Math.abs(e.getX() - d.x) > 8) {
                look(new View(ranged(a, b), y));
            } else {
                look(new View(looked.x(), y));
            }
        } else if (d.kind == Kind.BOX && e.getClickCount() == 2) {
            look(View.ALL);
        } else if (d.kind == Kind.BOX && still && e.getClickCount() == 1 && drawn != null) {
            ChartTime.choose(session, drawn.reading(), l.across().si(l.place(e.getX())));
        }
    }

    private static Range ranged(double a, double b) {
        return new Range(Math.min(a, b), Math.max(a, b));
    }

    private static Range across(ChartLayout l) {
        return ranged(l.left(), l.right());
    }

    private static Range up(ChartLayout l) {
        double[] y = l.plots().getFirst().y();
        return ranged(y[0], y[1]);
    }

    private void scrolled(ScrollEvent e) {
        ChartLayout l = layout;
        double turn = e.getDeltaY() != 0 ? e.getDeltaY() : e.getDeltaX();
        if (l == null
                || turn == 0
                || !l.curve()
                        .contains(
                                Math.clamp(
                                        e.getX(), l.curve().getMinX(), l.curve().getMaxX()),
                                l.curve().getCenterY())) {
            return;
        }
        double factor = turn > 0 ? CLOSER : 1 / CLOSER;
        Rectangle2D plot = l.curve();
        double at = (e.getX() - plot.getX()) / plot.getWidth();
        boolean upwards = e.isShiftDown() || e.isControlDown();
        closer(
                e.isShiftDown() ? 1 : factor,
                at,
                upwards && plot.contains(plot.getCenterX(), e.getY())
                        ? (plot.getMaxY() - e.getY()) / plot.getHeight()
                        : Double.NaN,
                factor);
        e.consume();
    }

    private void closer(double factor, double at, double up) {
        closer(factor, at, up, factor);
    }

    /** @param up share of the height that stays; NaN where the axis of values is left to the curves */
    private void closer(double factor, double at, double up, double upFactor) {
        ChartLayout l = layout;
        if (l == null) {
            return;
        }
        Range x = zoomed(l.left(), l.right(), factor, at);
        double[] y = l.plots().getFirst().y();
        look(new View(factor == 1 ? looked.x() : x, Double.isNaN(up) ? looked.y() : zoomed(y[0], y[1], upFactor, up)));
    }

    private static Range zoomed(double low, double high, double factor, double at) {
        double stays = low + at * (high - low);
        return ranged(stays - (stays - low) / factor, stays + (high - stays) / factor);
    }

    private void moveOn(double share) {
        ChartLayout l = layout;
        if (l != null) {
            look(new View(Range.shift(across(l), share * (l.right() - l.left()), true), looked.y()));
        }
    }

    private void change(java.util.function.UnaryOperator<ChartLook> edit) {
        if (drawn != null) {
            String id = drawn.reading().id();
            session.edit("Chart", s -> s.with(edit.apply(s.chart(id))));
        }
    }

    private void point(double x, double y) {
        ChartLayout l = layout;
        ReadingChart of = drawn;
        if (l == null
                || of == null
                || !(x >= l.curve().getMinX() && x <= l.curve().getMaxX())) {
            pointer.setVisible(false);
            tip.hide();
            return;
        }
        pointer.setVisible(true);
        pointer.setStartX(x);
        pointer.setEndX(x);
        pointer.setStartY(l.curve().getMinY());
        pointer.setEndY(l.strip().getMaxY());
        tip.show(of, l, x, y, chart.getWidth());
    }
}
