package lane.desk.checks;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.base.Figures;
import lane.check.AgainstDatum;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Closure;
import lane.check.Norm;
import lane.check.Scale;
import lane.check.Verdict;
import lane.desk.Chosen;
import lane.desk.LaneColumns;
import lane.desk.Marks;
import lane.desk.Nothing;
import lane.desk.Session;
import lane.desk.Ui;
import lane.desk.View;
import lane.estimate.Estimate;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.picture.Ticks;
import lane.reading.Ask;
import lane.reading.AskKind;
import lane.reading.Reading;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** The crossing board: rows are checks, columns are lanes under their chips, then tolerance and verdict. */
public final class ChecksView implements View {
    /** Room for the longest verdict. */
    private static final double VERDICT = 112;

    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final HBox top = Ui.row(12);
    private final VBox rows = new VBox();
    private boolean onlyOpen;

    public ChecksView(Session session) {
        this.session = session;
        top.getStyleClass().add("toolbar");
        top.setMinHeight(40);
        pane.setTop(top);
        var scroll = new ScrollPane(rows);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        pane.setCenter(scroll);
        pane.getStyleClass().add("sheet");
    }

    /** Goes to the check of a reading, or makes one. */
    public static void openOrAdd(Session session, String reading) {
        Check found = session.study().checks().stream()
                .filter(c -> c.reading().equals(reading))
                .findFirst()
                .orElse(null);
        if (found == null) {
            String id = Study.freshId(
                    "check-" + reading,
                    session.study().checks().stream().map(Check::id).toList());
            session.study().reading(reading).ifPresent(r -> add(session, id, r));
        } else {
            session.select(Chosen.CHECK, found.id());
        }
        session.go(5);
    }

    @Override
    public Node node() {
        return pane;
    }

    @Override
    public void refresh() {
        Map<Verdict, Integer> counts = new LinkedHashMap<>();
        for (Verdict v : Verdict.values()) {
            counts.put(v, 0);
        }
        session.results().checks().values().forEach(c -> counts.merge(c.verdict(), 1, Integer::sum));
        top.getChildren()
                .setAll(
                        Ui.label("Checks", "title"),
                        Ui.label(Ui.count(session.study().checks().size(), "check"), "muted", "small"));
        counts.forEach((v, n) -> top.getChildren()
                .add(Ui.row(
                        5,
                        Marks.verdict(v),
                        Ui.label(
                                n + " " + v.word(),
                                "verdict-word",
                                "verdict-" + v.word().replace(' ', '-')))));
        top.getChildren()
                .addAll(
                        Ui.spring(),
                        Ui.button(
                                onlyOpen ? "Show all" : "Show only open ones",
                                () -> {
                                    onlyOpen = !onlyOpen;
                                    refresh();
                                },
                                "small-button"),
                        Nothing.unless(Ui.button("+ Add check", this::add, "small-button"), lacks()));
        rows.getChildren().clear();
        List<Source> sources = session.study().sources();
        List<LaneStyle> styles = LaneStyle.of(sources, session.palette());
        rows.getChildren().add(head(sources, styles));
        for (Check check : session.study().checks()) {
            CheckResult result = session.results().checks().get(check.id());
            if (onlyOpen && result != null && result.verdict() == Verdict.WITHIN) {
                continue;
            }
            rows.getChildren().add(row(check, result, sources, styles));
            if (check.id().equals(session.selected(Chosen.CHECK))) {
                if (!session.trailOf().equals("check " + check.id())) {
                    session.showCheck(check.id(), "");
                }
                rows.getChildren().add(new CheckCard(session).show(check, result));
            }
        }
        if (session.study().checks().isEmpty()) {
            Node empty = session.study().readings().isEmpty()
                    ? Nothing.here(
                            "No check yet",
                            "A check judges a reading: against a datum, a band, a closed balance or a trend. There is no reading to judge"
                                    + " yet.",
                            List.of(new Nothing.Step("Go to Readings", () -> session.go(4))))
                    : Nothing.here(
                            "No check yet",
                            "A check judges a reading: against a datum, a band, a closed balance or a trend. Its verdict is within, out or"
                                    + " undecided.",
                            session.study().readings().stream()
                                    .limit(6)
                                    .map(r -> new Nothing.Step("Check " + r.name(), () -> openOrAdd(session, r.id())))
                                    .toList());
            rows.getChildren().add(empty);
        }
    }

    /** What is lacking for a check, with the way to it. */
    private String lacks() {
        return session.study().readings().isEmpty()
                ? "A check judges a reading; there is none yet. Add one at Readings."
                : "";
    }

    private void add() {
        Reading reading = session.study().readings().stream()
                .filter(r -> session.study().checks().stream()
                        .noneMatch(c -> c.reading().equals(r.id())))
                .findFirst()
                .orElse(
                        session.study().readings().isEmpty()
                                ? null
                                : session.study().readings().getFirst());
        if (reading == null) {
            return;
        }
        String id = Study.freshId(
                "check-" + reading.id(),
                session.study().checks().stream().map(Check::id).toList());
        add(session, id, reading);
    }

    /** A check of the kind that suits what the answer is made of. */
    private static void add(Session session, String id, Reading reading) {
        var rule = reading.ask().form() == Ask.Form.TERMS
                ? new Closure(0.01, false)
                : new AgainstDatum(Norm.L2, Scale.RANGE, 0.01, "");
        session.edit(
                "Add check",
                s -> s.withChecks(l -> {
                    l.add(new Check(id, reading.id(), rule, List.of()));
                    return l;
                }));
        session.select(Chosen.CHECK, id);
    }

    private HBox head(List<Source> sources, List<LaneStyle> styles) {
        HBox lanes = Ui.row(0);
        for (int i = 0; i < sources.size(); i++) {
            var band = new Region();
            band.setMinSize(Ui.CHIP, 2.5);
            band.setMaxSize(Ui.CHIP, 2.5);
            band.setStyle("-fx-background-color: " + Palette.css(styles.get(i).colour()) + ";");
            var box = new VBox(5, band, Ui.cell(sources.get(i).name(), 112, "small", "muted"));
            box.setMinWidth(Ui.PITCH);
            lanes.getChildren().add(box);
        }
        HBox row = Ui.row(
                0,
                Ui.left("", 36),
                Ui.left("Reading", Ui.LANES_AT - 36, "small", "muted"),
                new LaneColumns(session, lanes));
        row.getChildren()
                .addAll(
                        Ui.cell("tolerance", 84, "small", "muted"),
                        Ui.left("", 22),
                        Ui.left("verdict", VERDICT, "small", "muted"));
        row.getStyleClass().addAll("table-row", "paper");
        row.setAlignment(javafx.geometry.Pos.BOTTOM_LEFT);
        return row;
    }

    private Node row(Check check, @Nullable CheckResult result, List<Source> sources, List<LaneStyle> styles) {
        Reading reading = session.study().reading(check.reading()).orElse(null);
        boolean profile = reading != null && reading.curve();
        String name = reading == null ? check.reading() + " (deleted)" : reading.name();
        String word = reading == null ? "" : AskKind.ALL.of(reading.ask()).word();
        boolean plain = !profile && check.rule().comparesWithDatum();
        String kind = plain ? word : word + ", " + check.rule().measure();
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
        words.setMinWidth(Ui.LANES_AT - 36);
        words.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        HBox lanes = Ui.row(0);
        lanes.setMinHeight(35);
        HBox row = Ui.row(0, mark, words, new LaneColumns(session, lanes));
        double most = result == null ? 0 : most(result);
        for (int i = 0; i < sources.size(); i++) {
            lanes.getChildren().add(cell(check, result, sources.get(i), styles.get(i), most));
        }
        row.getChildren()
                .addAll(
                        Ui.cell(check.rule().allowance(result == null ? Unit.UNKNOWN : result.unit()), 84, "second"),
                        Ui.left("", 22),
                        verdict(result));
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
            boolean has =
                    !(session.results().outcome(check.reading(), source.id()) instanceof lane.reading.Outcome.Absent);
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
                ? Ticks.brief(lane.unit().differenceFromSi(lane.difference())) + " "
                        + lane.unit().difference().symbol()
                : percent(100 * lane.relative()) + " %";
        if (lane.curve() != null) {
            box.getChildren()
                    .addAll(
                            Thumbnail.of(lane.curve(), style, most, zero(lane.allowed())),
                            Ui.spring(),
                            whole(Ui.label(share, "second", tone, weight)));
        } else {
            String value = lane.value() == 0 ? "0" : Ticks.number(lane.unit().fromSi(lane.value()), sixth(lane));
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
