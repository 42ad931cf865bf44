package lane.desk.checks;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.base.Figures;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Verdict;
import lane.desk.Chosen;
import lane.desk.LaneColumns;
import lane.desk.LaneStrip;
import lane.desk.Marks;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.estimate.Estimate;
import lane.mesh.Point;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.picture.Ticks;
import lane.reading.AskKind;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.study.Source;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Rows of the board: what is checked, a cell a lane, then order, uncertainty, tolerance and verdict. */
final class BoardRow {
    /** Room for the longest verdict. */
    private static final double VERDICT = 92;

    private static final double ORDER = 42;
    private static final double DOUBT = 78;
    private static final double ALLOWED = 104;

    private final Session session;
    private final List<Source> sources;
    private final List<LaneStyle> styles;

    BoardRow(Session session) {
        this.session = session;
        sources = session.study().sources();
        styles = LaneStyle.of(sources, session.palette());
    }

    HBox head() {
        var lanes = new LaneStrip(sources.size(), i -> {
            var band = new Region();
            band.setMinSize(Ui.CHIP, 2.5);
            band.setMaxSize(Ui.CHIP, 2.5);
            band.setStyle("-fx-background-color: " + Palette.css(styles.get(i).colour()) + ";");
            var box = new VBox(5, band, Ui.cell(sources.get(i).name(), 112, "small", "muted"));
            box.setMinWidth(Ui.PITCH);
            return box;
        });
        HBox row = Ui.row(
                0,
                Ui.left("", 36),
                Ui.left("Reading", Ui.LANES_AT - 36, "small", "muted"),
                new LaneColumns(session, lanes));
        row.getChildren()
                .addAll(
                        Ui.cell("order", ORDER, "small", "muted"),
                        Ui.cell("uncertainty", DOUBT, "small", "muted"),
                        Ui.cell("tolerance", ALLOWED, "small", "muted"),
                        Ui.left("", 6),
                        Ui.left("verdict", VERDICT, "small", "muted"));
        row.getStyleClass().addAll("table-row", "paper");
        row.setAlignment(javafx.geometry.Pos.BOTTOM_LEFT);
        return row;
    }

    Node row(Check check, @Nullable CheckResult result) {
        Reading reading = session.study().reading(check.reading()).orElse(null);
        boolean profile = reading != null && reading.curve();
        String name = reading == null ? check.reading() + " (deleted)" : reading.name();
        String word = reading == null ? "" : AskKind.ALL.of(reading.ask()).word();
        boolean plain = !profile && check.rule().comparesWithDatum();
        String unit = result == null || !result.unit().known()
                ? ""
                : ", " + result.unit().symbol();
        String said = check.decision() == null ? "" : check.decision().accepted() ? "accepted, " : "noted, ";
        // The unit goes before what may be long.
        String kind = said + word + unit + (plain ? "" : ", " + check.rule().measure());
        String against = result == null
                        || result.datum().isBlank()
                        || result.datum().equals(session.study().datum())
                ? ""
                : ", against "
                        + session.study()
                                .source(result.datum())
                                .map(Source::name)
                                .orElse(result.datum());
        boolean open = check.id().equals(session.selected(Chosen.CHECK));
        var arrow = Ui.icon(
                open
                        ? org.kordamp.ikonli.feather.Feather.CHEVRON_DOWN
                        : org.kordamp.ikonli.feather.Feather.CHEVRON_RIGHT);
        HBox mark = Ui.row(0, arrow);
        mark.setMinWidth(36);
        mark.setStyle("-fx-padding: 0 0 0 13;");
        var words = new VBox(
                Ui.left(name, Ui.LANES_AT - 40, "second", open ? "strong" : "label"),
                Ui.left(kind + against, Ui.LANES_AT - 40, "small", "muted"));
        if (check.decision() != null) {
            Tip.on(words, check.decision().words());
        }
        words.setMinWidth(Ui.LANES_AT - 36);
        words.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        double most = result == null ? 0 : most(result);
        var lanes = new LaneStrip(
                sources.size(),
                i -> linked(cell(check, result, sources.get(i), styles.get(i), most), check, result, sources.get(i)));
        lanes.setMinHeight(35);
        HBox row = Ui.row(0, mark, words, new LaneColumns(session, lanes));
        row.getChildren().addAll(order(result), doubt(result), allowed(check, result), Ui.left("", 6), verdict(result));
        row.setId("check-" + check.id());
        row.getStyleClass().add("board-row");
        if (open) {
            row.getStyleClass().add("selected");
        }
        row.setFocusTraversable(true);
        row.setAccessibleText(name + ", "
                + (result == null ? "not computed" : result.verdict().word()));
        Runnable toggle = () -> {
            session.select(Chosen.CHECK, open ? "" : check.id());
        };
        row.setOnMouseClicked(e -> toggle.run());
        row.setOnKeyPressed(e -> {
            if (e.getCode() == javafx.scene.input.KeyCode.ENTER || e.getCode() == javafx.scene.input.KeyCode.SPACE) {
                toggle.run();
            }
        });
        return row;
    }

    /** The observed order of the judged lane's family. */
    private static Node order(@Nullable CheckResult result) {
        String text = result == null
                ? ""
                : result.lanes().values().stream()
                        .filter(l -> l.verdict() != null && l.evidence().refined() != null)
                        .map(l -> java.util.Objects.requireNonNull(l.evidence().refined())
                                .convergence())
                        .map(c -> Double.isNaN(c.order())
                                ? c.kind().word()
                                : Figures.of(c.order(), 3).whole(c.order()))
                        .findFirst()
                        .orElse("");
        return Ui.cell(text, ORDER, "small", text.isEmpty() || Character.isDigit(text.charAt(0)) ? "label" : "ochre");
    }

    /** The half-width that the verdict counts with. */
    private static Node doubt(@Nullable CheckResult result) {
        String text = result == null
                ? ""
                : result.lanes().values().stream()
                        .filter(l -> l.verdict() != null && l.half() > 0)
                        .map(l -> "±" + two(l.unit().differenceFromSi(l.half())))
                        .findFirst()
                        .orElse("");
        return Ui.cell(text, DOUBT, "small");
    }

    /** Whether there is no unit to be told. */
    private static boolean one(Unit unit) {
        return !unit.known() || unit.symbol().equals("1");
    }

    private static String two(double v) {
        return Figures.of(v, 2).whole(v);
    }

    private Node allowed(Check check, @Nullable CheckResult result) {
        HBox box = Ui.row(0);
        box.setMinWidth(ALLOWED);
        box.setMaxWidth(ALLOWED);
        box.setAlignment(javafx.geometry.Pos.CENTER_RIGHT);
        Node own = RuleForm.ALL
                .of(check.rule())
                .inPlace(check, result, rule -> session.edit("Change check", s -> s.with(check.by(rule))))
                .orElseGet(() -> Ui.cell(
                        check.rule().allowance(result == null ? Unit.UNKNOWN : result.unit()), ALLOWED, "second"));
        box.getChildren().add(own);
        return box;
    }

    private static Node verdict(@Nullable CheckResult result) {
        HBox box = Ui.row(0);
        if (result != null) {
            box.getChildren().add(Marks.verdictWord(result.verdict()));
        }
        box.setMinWidth(VERDICT);
        box.setMaxWidth(VERDICT);
        return box;
    }

    /** The half height of all thumbnails of a row, so that they can be compared. */
    private static double most(CheckResult result) {
        double most = 0;
        for (CheckResult.Lane l : result.lanes().values()) {
            if (l.curve() != null) {
                most = Math.max(most, Math.max(l.curve().linf(), 1.4 * zero(l.allowed())));
            }
        }
        return most;
    }

    private Node cell(Check check, @Nullable CheckResult result, Source source, LaneStyle style, double most) {
        HBox box = Ui.row(2);
        box.setMinWidth(Ui.PITCH);
        box.setMaxWidth(Ui.PITCH);
        box.setStyle("-fx-padding: 0 16 0 0;");
        box.setAlignment(javafx.geometry.Pos.CENTER_RIGHT);
        boolean off = session.study().off().contains(source.id());
        boolean judged =
                result != null && result.lanes().get(source.id()) instanceof CheckResult.Lane l && l.verdict() != null;
        // What a verdict rests on is shown even where its lane is switched off.
        if (result == null || off && !judged) {
            return box;
        }
        if (off) {
            box.getChildren().add(Ui.label("off", "small", "muted"));
        }
        if (source.id().equals(result.datum())) {
            boolean has = !(session.results().outcome(check.reading(), source.id()) instanceof Outcome.Absent);
            var flag = Ui.smallIcon(org.kordamp.ikonli.feather.Feather.FLAG);
            String value = session.results().outcome(check.reading(), source.id()).numbers().stream()
                    .findFirst()
                    .map(t -> Ticks.number(t.shown(), sixth(t)))
                    .orElse("");
            var texts = new VBox(Ui.cell(value, 104, "second"), line(flag, has ? "datum" : "no datum"));
            box.getChildren().add(texts);
            return box;
        }
        CheckResult.Lane lane = result.lanes().get(source.id());
        if (lane == null) {
            box.getChildren().add(Ui.label("no data", "small", "muted"));
            return box;
        }
        String tone = lane.verdict() == Verdict.OUT ? "brick" : lane.verdict() == Verdict.UNDECIDED ? "ochre" : "label";
        String weight = lane.verdict() != null ? "strong" : "label";
        boolean absolute = !(lane.scale() > 0) || absolute(check);
        String share = absolute
                ? Ticks.brief(lane.unit().differenceFromSi(lane.difference()))
                        + (one(lane.unit())
                                ? ""
                                : " " + lane.unit().difference().symbol())
                : percent(100 * lane.relative()) + " %";
        if (lane.curve() != null) {
            box.getChildren()
                    .addAll(
                            Thumbnail.of(lane.curve(), style, most, zero(lane.allowed())),
                            Ui.spring(),
                            whole(Ui.label(share, "second", tone, weight)));
        } else {
            String value = Double.isNaN(lane.value())
                    ? ""
                    : lane.value() == 0 ? "0" : Ticks.number(lane.unit().fromSi(lane.value()), sixth(lane));
            box.getChildren()
                    .add(new VBox(
                            Ui.cell(value, 110, "second", weight),
                            Ui.cell(
                                    lane.relative() > 0 ? "+" + share : share,
                                    110,
                                    "small",
                                    lane.verdict() == null ? "muted" : tone)));
        }
        return box;
    }

    /** A cell with the way to its station in the picture, seen while the pointer is on it. */
    private Node linked(Node cell, Check check, @Nullable CheckResult result, Source source) {
        boolean run =
                source instanceof Source.Simulation && session.results().runs().containsKey(source.id());
        Reading reading = session.study().reading(check.reading()).orElse(null);
        if (!run || reading == null || reading.stations().isEmpty()) {
            return cell;
        }
        var pin = Ui.iconButton(
                org.kordamp.ikonli.feather.Feather.MAP_PIN,
                "Show in the picture of " + source.name(),
                () -> inPicture(reading, result, source));
        pin.setId("pin-" + check.id() + "-" + source.id());
        pin.getStyleClass().add("cell-pin");
        pin.setVisible(false);
        pin.setFocusTraversable(false);
        var all = new javafx.scene.layout.StackPane(cell, pin);
        javafx.scene.layout.StackPane.setAlignment(pin, javafx.geometry.Pos.CENTER_LEFT);
        all.setMinWidth(Ui.PITCH);
        all.setMaxWidth(Ui.PITCH);
        all.setOnMouseEntered(e -> pin.setVisible(true));
        all.setOnMouseExited(e -> pin.setVisible(false));
        return all;
    }

    /** The station in the picture of a lane; of a curve with the place of its largest difference. */
    private void inPicture(Reading reading, @Nullable CheckResult result, Source source) {
        CheckResult.Lane lane = result == null ? null : result.lanes().get(source.id());
        Point place = null;
        if (lane != null && lane.curve() != null) {
            double at = lane.curve().linfAt();
            place = session.results()
                    .outcome(reading.id(), source.id())
                    .curve()
                    .map(p -> nearest(p, at))
                    .orElse(null);
        }
        session.select(Chosen.STATION, reading.stations().getFirst());
        session.showPlace(new Session.Mark(place == null ? reading.name() : "largest difference", place, source.id()));
    }

    private static @Nullable Point nearest(Profile p, double at) {
        int best = -1;
        for (int i = 0; i < p.size() && p.places().length == 3 * p.size(); i++) {
            double d = Math.abs(p.abscissa()[i] - at);
            best = best < 0 || d < Math.abs(p.abscissa()[best] - at) ? i : best;
        }
        return best < 0 ? null : new Point(p.places()[3 * best], p.places()[3 * best + 1], p.places()[3 * best + 2]);
    }

    /** Beside a small picture there is room for two digits of a small one. */
    private static String percent(double v) {
        return Figures.of(v, Math.abs(v) < 0.1 ? 2 : 3).whole(v);
    }

    private static Node whole(javafx.scene.control.Label label) {
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    private static HBox line(Node icon, String text) {
        HBox box = Ui.row(4, icon, Ui.label(text, "small", "muted"));
        box.setAlignment(javafx.geometry.Pos.CENTER_RIGHT);
        return box;
    }

    /** Five digits are enough on the board. */
    private static double sixth(Estimate t) {
        double v = Math.abs(t.shown());
        return t.uncertainty().stated()
                ? t.unit().differenceFromSi(t.uncertainty().half())
                : Math.pow(10, Math.floor(Math.log10(v)) - 3);
    }

    private static double sixth(CheckResult.Lane l) {
        return Math.pow(10, Math.floor(Math.log10(Math.abs(l.unit().fromSi(l.value())))) - 3);
    }

    private static double zero(double v) {
        return Double.isNaN(v) ? 0 : v;
    }

    private static boolean absolute(Check check) {
        return check.rule().allowance(Unit.UNKNOWN).indexOf('%') < 0;
    }
}
