package lane.desk.readings;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.text.Text;
import lane.check.CheckResult;
import lane.desk.LaneColumns;
import lane.desk.LaneStrip;
import lane.desk.Marks;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.picture.LaneStyle;
import lane.picture.Ticks;
import lane.reading.Balance;
import lane.reading.BalanceOf;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** A balance as a stair: signed terms step to and fro from zero down to the residual, a column of steps a lane. */
final class BalancePane implements ReadingPane {
    private static final double ROW = 92;
    private static final double STEP = 24;

    private final Session session;
    private final BorderPane pane = new BorderPane();

    BalancePane(Session session) {
        this.session = session;
    }

    @Override
    public Node show(Reading reading) {
        var top = Ui.row(
                10,
                name(reading),
                Ui.label(((BalanceOf) reading.ask()).positive(), "muted", "small"),
                Ui.spring(),
                Ui.button("Delete", () -> NewReading.delete(session, reading), "small-button"));
        top.getStyleClass().add("toolbar");
        top.setMinHeight(40);
        var scroll = new ScrollPane(stair(reading));
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("sheet");
        pane.setCenter(new BorderPane(scroll, top, null, null, null));
        pane.setRight(Ui.panel(numbers(reading)));
        return pane;
    }

    private Node stair(Reading reading) {
        var field = new Pane();
        List<Source> sources = session.study().sources();
        List<LaneStyle> styles = LaneStyle.of(sources, session.palette());
        double least = 0;
        double greatest = 0;
        double scale = 0;
        double residual = 0;
        for (Source s : sources) {
            if (session.results().outcome(reading.id(), s.id()) instanceof Balance b) {
                double sum = 0;
                for (Balance.Term t : b.terms()) {
                    sum += t.value();
                    least = Math.min(least, sum);
                    greatest = Math.max(greatest, sum);
                }
                scale = Math.max(scale, b.scale());
                residual = Math.max(residual, Math.abs(b.residual()));
            }
        }
        List<BalanceOf.Term> terms = ((BalanceOf) reading.ask()).terms();
        int n = terms.size();
        double wide = Ui.PITCH * sources.size();
        field.setPrefSize(Math.max(wide, 520), n * ROW + 150);
        // The words stay while the lanes move below them.
        var words = new Pane();
        words.setMouseTransparent(true);
        for (int k = 0; k <= n; k++) {
            double y = k * ROW;
            String name = k < n ? terms.get(k).name() : "Residual";
            Text caption = Marks.text(12, y + 14, name, "axis-text");
            caption.setStyle("-fx-font-family: 'Lane Sans SemiBold'; -fx-font-size: 12px; -fx-fill: -ink;");
            String over = k < n
                    ? PartsChoice.words(session, terms.get(k).stations())
                    : "what is left over, on a scale of its own";
            Text note = Marks.text(18 + caption.getLayoutBounds().getWidth() * 1.12, y + 14, over, "axis-text");
            field.getChildren().add(Marks.line(0, y, Math.max(wide, 520), y, "axis-line"));
            words.getChildren().addAll(caption, note);
        }
        double pixels = (Ui.PITCH - 34) / Math.max(1e-300, greatest - least);
        double zero = 12 - least * pixels;
        double most = residual;
        var strip = new LaneStrip(sources.size(), i -> {
            String lane = sources.get(i).id();
            var column = new Pane();
            if (i > 0) {
                column.getChildren().add(Marks.line(-1, 0, -1, n * ROW + 150, "axis-line"));
            }
            if (session.study().off().contains(lane)) {
                return column;
            }
            if (session.results().outcome(reading.id(), lane) instanceof Balance b) {
                steps(column, b, styles.get(i), zero, 0, pixels);
                double t = tolerance(reading, lane);
                residual(column, t, b, styles.get(i), 0, n * ROW, Math.max(most, t));
            } else {
                column.getChildren().add(Marks.text(36, 50, "no terms", "axis-text"));
            }
            return column;
        });
        field.getChildren().add(strip);
        return new StackPane(new LaneColumns(session, field, strip), words);
    }

    private Node name(Reading r) {
        var field = Ui.text("reading-name", r.name(), t -> NewReading.change(session, r.named(t)));
        field.setPrefWidth(190);
        return field;
    }

    private void steps(Pane field, Balance b, LaneStyle style, double zero, double left, double pixels) {
        double sum = 0;
        field.getChildren().add(Marks.line(zero, 24, zero, b.terms().size() * ROW, "grid-line"));
        for (int k = 0; k < b.terms().size(); k++) {
            Balance.Term t = b.terms().get(k);
            double from = zero + sum * pixels;
            sum += t.value();
            double to = zero + sum * pixels;
            double y = k * ROW + 30;
            field.getChildren().add(arrow(from, to, y, STEP, style));
            // The riser leads from one step's end to the next one's start.
            Line riser = new Line(
                    to, y + STEP, to, (k + 1) * ROW + (k + 1 < b.terms().size() ? 30 : 0));
            riser.setStroke(Marks.fx(style.colour()));
            riser.setStrokeWidth(1.2);
            field.getChildren().add(riser);
            Text value = Marks.text(0, y + STEP + 14, Ticks.signed6(b.unit().fromSi(t.value())), "axis-text");
            value.setStyle("-fx-fill: -ink; -fx-font-size: 12px;");
            value.setX(left + Ui.PITCH - 26 - value.getLayoutBounds().getWidth() * 1.05);
            field.getChildren().add(value);
        }
    }

    private static Polygon arrow(double from, double to, double y, double tall, LaneStyle style) {
        double direction = Math.signum(to - from);
        double head = Math.min(7, Math.abs(to - from)) * direction;
        var shape = new Polygon(from, y, to - head, y, to, y + tall / 2, to - head, y + tall, from, y + tall);
        if (style.hollow()) {
            shape.setFill(javafx.scene.paint.Color.TRANSPARENT);
            shape.setStroke(Marks.fx(style.colour()));
        } else {
            shape.setFill(Marks.fx(style.colour()));
        }
        return shape;
    }

    private CheckResult.@Nullable Lane checked(Reading reading, String lane) {
        return session.study().checks().stream()
                .filter(c -> c.reading().equals(reading.id()))
                .findFirst()
                .map(c -> session.results().checks().get(c.id()))
                .map(r -> r.lanes().get(lane))
                .orElse(null);
    }

    private double tolerance(Reading reading, String lane) {
        CheckResult.Lane found = checked(reading, lane);
        return found == null || Double.isNaN(found.allowed()) ? 0 : found.allowed();
    }

    private void residual(
            Pane field, double allowed, Balance b, LaneStyle style, double left, double top, double most) {
        double middle = left + Ui.CHIP / 2;
        double pixels = most > 0 ? 44 / most : 0;
        double t = allowed * pixels;
        if (t > 0) {
            var band = new javafx.scene.shape.Rectangle(middle - t, top + 34, 2 * t, 40);
            band.getStyleClass().add("pine-band");
            field.getChildren()
                    .addAll(
                            band,
                            Marks.line(middle - t, top + 34, middle - t, top + 74, "pine-line"),
                            Marks.line(middle + t, top + 34, middle + t, top + 74, "pine-line"));
        }
        field.getChildren()
                .addAll(
                        Marks.line(middle, top + 28, middle, top + 80, "axis-line"),
                        arrow(middle, middle + b.residual() * pixels, top + 42, STEP, style));
        Text value = Marks.text(
                0,
                top + 96,
                Ticks.signed(b.unit().fromSi(b.residual())) + " " + b.unit().label(),
                "axis-text");
        value.setStyle("-fx-fill: -ink; -fx-font-size: 12px;");
        value.setX(middle - value.getLayoutBounds().getWidth() / 2);
        field.getChildren().add(value);
    }

    private VBox numbers(Reading reading) {
        var box = new VBox(6);
        box.getChildren().add(Ui.label("Does it close?", "title"));
        HBox head = Ui.row(
                0,
                Ui.left("Lane", 82, "small", "muted"),
                Ui.cell("residual", 84, "small", "muted"),
                Ui.cell(
                        ((BalanceOf) reading.ask()).against().equals(BalanceOf.Against.LARGEST)
                                ? "of largest"
                                : "relative",
                        66,
                        "small",
                        "muted"),
                Ui.left("", 8),
                Ui.left("", 66));
        head.getStyleClass().add("table-row");
        box.getChildren().add(head);
        CheckResult result = session.study().checks().stream()
                .filter(c -> c.reading().equals(reading.id()))
                .findFirst()
                .map(c -> session.results().checks().get(c.id()))
                .orElse(null);
        List<LaneStyle> styles = LaneStyle.of(session.study().sources(), session.palette());
        double closure = 0;
        for (int i = 0; i < styles.size(); i++) {
            Source s = session.study().sources().get(i);
            Outcome outcome = session.results().outcome(reading.id(), s.id());
            HBox name = Ui.row(
                    6,
                    Marks.marker(styles.get(i), Marks.fx(session.palette().sheet())),
                    Ui.lane(s.name(), 60, "second"));
            name.setMinWidth(82);
            HBox row = Ui.row(0, name);
            if (outcome instanceof Balance b) {
                closure = Math.max(closure, b.closure());
                row.getChildren()
                        .addAll(
                                Ui.cell(Ticks.signed(b.unit().fromSi(b.residual())), 84, "second"),
                                Ui.cell(Ticks.brief(100 * b.relative()) + " %", 66, "second"),
                                Ui.left("", 8));
                CheckResult.Lane lane = result == null ? null : result.lanes().get(s.id());
                if (lane != null && lane.verdict() != null) {
                    row.getChildren().add(Marks.verdictWord(lane.verdict()));
                }
            } else {
                String why = outcome instanceof Outcome.Absent a ? a.reason() : "";
                var label = Ui.label("no data", "second", "muted");
                Tip.on(label, why);
                row.getChildren().addAll(Ui.spring(), label);
            }
            row.getStyleClass().add("table-row");
            row.setOnMouseClicked(e -> session.show(reading.id(), s.id()));
            box.getChildren().add(row);
        }
        box.getChildren()
                .add(Ui.label(
                        "closed region: area vectors add up to " + Ticks.brief(closure) + " of the area",
                        "small",
                        "muted"));
        box.getChildren().add(new TermsForm(session).of(reading));
        box.getChildren()
                .add(Ui.button(
                        result == null ? "Add a check" : "Open its check",
                        () -> lane.desk.checks.ChecksView.openOrAdd(session, reading.id()),
                        "main"));
        return box;
    }
}
