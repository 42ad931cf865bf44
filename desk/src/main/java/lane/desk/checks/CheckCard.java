package lane.desk.checks;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.IntFunction;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.base.Figures;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Refined;
import lane.desk.Chosen;
import lane.desk.ManyRows;
import lane.desk.Marks;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.picture.LaneStyle;
import lane.picture.Ticks;
import lane.reading.Reading;
import lane.study.Source;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** The evidence and the settings of one check, below its row. */
final class CheckCard {
    /** Ticks beyond which they stand in a list of their own. */
    private static final int MANY = 30;

    private final Session session;

    CheckCard(Session session) {
        this.session = session;
    }

    Node show(Check check, @Nullable CheckResult result) {
        var card = new FlowPane(
                24, 14, why(check, result), settings(check, result), evidence(check, result), doubts(check, result));
        card.setRowValignment(javafx.geometry.VPos.TOP);
        card.setId("check-card");
        card.getStyleClass().add("paper");
        card.setStyle(
                "-fx-padding: 12 16 14 36; -fx-border-color: transparent transparent -hair -teal; -fx-border-width: 0 0 1 3;");
        return card;
    }

    private void change(Check check) {
        session.edit("Change check", s -> s.with(check));
    }

    private Node settings(Check c, @Nullable CheckResult result) {
        var box = new VBox(7, Ui.label("Settings", "title"));
        box.setMinWidth(300);
        var study = session.study();
        study.reading(c.reading()).ifPresent(r -> {
            var reading = Ui.choice("check-reading", study.readings(), r, Reading::name, x -> change(c.of(x.id())));
            reading.setPrefWidth(220);
            var kind = Ui.choice(
                    "check-kind",
                    RuleForm.ALL.all(),
                    RuleForm.ALL.of(c.rule()),
                    RuleForm::title,
                    f -> change(c.by(f.first(r))));
            kind.setPrefWidth(220);
            box.getChildren()
                    .addAll(
                            Ui.row(8, Ui.left("Reading", 72, "second"), reading),
                            Ui.row(8, Ui.left("Judged by", 72, "second"), kind));
        });
        box.getChildren().addAll(RuleForm.ALL.of(c.rule()).rows(session, c, result, rule -> change(c.by(rule))));
        var ticks = new FlowPane(10, 6);
        ticks.setPrefWrapLength(250);
        ticks.setMaxWidth(250);
        List<String> now = c.judged().isEmpty() ? study.judged(c) : c.judged();
        List<Source> may = study.sources().stream()
                .filter(s -> !s.id().equals(result == null ? "" : result.datum()))
                .toList();
        IntFunction<Node> made = i -> {
            Source s = may.get(i);
            var tick = Named.check(s.name());
            tick.setSelected(now.contains(s.id()));
            tick.setMaxWidth(240);
            tick.setOnAction(e -> {
                var next = new ArrayList<>(now);
                if (!next.remove(s.id())) {
                    next.add(s.id());
                }
                change(c.judging(next));
            });
            return tick;
        };
        List<String> names = may.stream().map(Source::name).toList();
        if (may.size() > MANY) {
            var list = new VBox(4);
            list.getChildren().addAll(ManyRows.of(session, "check-judged", c.id(), "lane", names, Ui.label(""), made));
            ticks.getChildren().add(list);
        } else {
            IntStream.range(0, may.size()).mapToObj(made).forEach(ticks.getChildren()::add);
        }
        HBox judged = Ui.row(8, Ui.left("Judged", 72, "second"), ticks);
        judged.setAlignment(javafx.geometry.Pos.TOP_LEFT);
        box.getChildren().add(judged);
        var group = Ui.text("check-group", c.group(), t -> change(c.under(t.strip())));
        group.setPromptText("heading on the board");
        group.setPrefWidth(160);
        box.getChildren().add(Ui.row(8, Ui.left("Group", 72, "second"), group));
        return box;
    }

    /** How well the numbers are known, what that is made of, and what somebody decided. */
    private Node doubts(Check check, @Nullable CheckResult result) {
        var box = new VBox(7, Ui.label("Uncertainty", "title"));
        box.setMinWidth(290);
        box.setMaxWidth(330);
        CheckResult.Lane judged = result == null
                ? null
                : result.lanes().values().stream()
                        .filter(l -> l.verdict() != null)
                        .findFirst()
                        .orElse(null);
        if (judged != null && !judged.evidence().budget().rows().isEmpty()) {
            box.getChildren().add(BudgetTable.of(session, judged));
        }
        box.getChildren().addAll(DoubtsRows.of(session, check, d -> change(check.doubting(d))));
        return box;
    }

    private Node evidence(Check check, @Nullable CheckResult result) {
        var box = new VBox(3, Ui.label("Evidence", "title"));
        box.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        if (result == null) {
            return box;
        }
        boolean curves = result.lanes().values().stream().anyMatch(l -> l.curve() != null);
        HBox head = curves
                ? Ui.row(
                        0,
                        Ui.left("Lane", 80, "small", "muted"),
                        Ui.cell("L1", 74, "small", "muted"),
                        Ui.cell("L2", 74, "small", "muted"),
                        Ui.cell("Linf", 74, "small", "muted"),
                        Ui.cell("at", 60, "small", "muted"),
                        Ui.cell("bias", 78, "small", "muted"))
                : Ui.row(
                        0,
                        Ui.left("Lane", 80, "small", "muted"),
                        Ui.cell("value", 90, "small", "muted"),
                        Ui.cell("difference", 90, "small", "muted"),
                        Ui.cell("uncertainty", 84, "small", "muted"));
        head.getStyleClass().add("table-row");
        Figures values = column(result, l -> l.unit().fromSi(l.value()));
        Figures differences = column(result, l -> l.unit().difference().fromSi(l.difference()));
        List<LaneStyle> styles = LaneStyle.of(session.study().sources(), session.palette());
        List<Source> all = session.study().sources();
        int[] told = IntStream.range(0, all.size())
                .filter(i -> result.lanes().containsKey(all.get(i).id()))
                .toArray();
        List<String> names =
                Arrays.stream(told).mapToObj(i -> all.get(i).name()).toList();
        IntFunction<Node> made = k -> {
            Source s = all.get(told[k]);
            CheckResult.Lane l = Objects.requireNonNull(result.lanes().get(s.id()));
            Unit u = l.unit().difference();
            HBox name = Ui.row(
                    6,
                    Marks.marker(styles.get(told[k]), Marks.fx(session.palette().sheet())),
                    Ui.lane(s.name(), 60, "second"));
            name.setMinWidth(80);
            HBox row = Ui.row(0, name);
            if (l.curve() != null) {
                row.getChildren()
                        .addAll(
                                Ui.cell(Ticks.brief(u.fromSi(l.curve().l1())), 74, "second"),
                                Ui.cell(Ticks.brief(u.fromSi(l.curve().l2())), 74, "second"),
                                Ui.cell(Ticks.signed(u.fromSi(l.curve().signed())), 74, "second"),
                                Ui.cell(place(check, s, l), 60, "second"),
                                Ui.cell(Ticks.signed(u.fromSi(l.curve().bias())), 78, "second"));
            } else {
                row.getChildren()
                        .addAll(
                                Ui.cell(values.whole(l.unit().fromSi(l.value())), 90, "second"),
                                Ui.cell(
                                        (l.difference() > 0 ? "+" : "") + differences.whole(u.fromSi(l.difference())),
                                        90,
                                        "second"),
                                Ui.cell(l.half() == 0 ? "not stated" : Ticks.brief(u.fromSi(l.half())), 84, "second"));
            }
            row.getStyleClass().add("table-row");
            row.setOnMouseClicked(e -> session.showCheck(check.id(), s.id()));
            return row;
        };
        box.getChildren().addAll(ManyRows.of(session, "check-evidence", check.id(), "lane", names, head, made));
        result.lanes().values().stream()
                .filter(l -> l.verdict() != null)
                .findFirst()
                .ifPresent(l -> {
                    more(l, box);
                    Refined refined = l.evidence().refined();
                    if (refined != null && refined.curve() == null) {
                        boolean cells = check.doubts().sizes().isEmpty();
                        box.getChildren()
                                .add(SizeChart.of(
                                        refined,
                                        l.unit(),
                                        cells ? session.results().along(Unit.of("m")) : Unit.UNKNOWN));
                    }
                });
        if (curves) {
            result.lanes().values().stream()
                    .filter(l -> l.curve() != null)
                    .findFirst()
                    .ifPresent(l -> box.getChildren()
                            .add(Ui.label(
                                    "in " + l.unit().difference().symbol() + "; "
                                            + Objects.requireNonNull(l.curve()).method(),
                                    "small",
                                    "muted")));
        }
        CheckCurves.of(session, check).ifPresent(box.getChildren()::add);
        CheckMap.of(session, check, result).ifPresent(box.getChildren()::add);
        return box;
    }

    /** Further measures that were asked for, each with its verdict. */
    private static void more(CheckResult.Lane l, VBox box) {
        for (CheckResult.Measured m : l.evidence().measures()) {
            Unit u = l.unit().difference();
            double shown = m.norm().share() ? m.difference() : u.fromSi(m.difference());
            HBox row = Ui.row(
                    8,
                    Ui.left(m.norm().symbol(), 60, "second"),
                    Ui.cell(Ticks.brief(shown) + (m.norm().share() ? "" : " " + u.symbol()), 90, "second"),
                    Ui.left("allowed " + m.allowance(), 110, "small", "muted"));
            if (m.verdict() != null) {
                row.getChildren().add(Marks.verdictWord(m.verdict()));
            }
            row.getStyleClass().add("table-row");
            box.getChildren().add(row);
        }
    }

    /** Written alike down the column, fine enough that a hundredth of the smallest tolerance can be seen. */
    private static Figures column(CheckResult result, ToDoubleFunction<CheckResult.Lane> of) {
        double allowed = result.lanes().values().stream()
                .mapToDouble(l -> Math.abs(l.unit().difference().fromSi(l.allowed())))
                .filter(a -> a > 0)
                .min()
                .orElse(0);
        return Figures.of(result.lanes().values().stream().mapToDouble(of).toArray(), allowed / 100, 3);
    }

    /** Where the largest difference is, on the profile's axis as drawn. */
    private String place(Check check, Source source, CheckResult.Lane l) {
        return session.results()
                .outcome(check.reading(), source.id())
                .curve()
                .map(p -> Ticks.brief(session.results()
                        .along(p.abscissaUnit())
                        .fromSi(Objects.requireNonNull(l.curve()).linfAt())))
                .orElse("");
    }

    private Node why(Check check, @Nullable CheckResult result) {
        var box = new VBox(8, Ui.label("Why", "title"));
        box.setMinWidth(290);
        box.setMaxWidth(290);
        if (result != null) {
            // A unit stays on the line of its number.
            var text = Ui.label(result.why().replaceAll("(\\d) (?=\\S{1,8}(,|$))", "$1\u00a0"), "second");
            text.setWrapText(true);
            text.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
            var rule = Ui.label(
                    "within if difference plus uncertainty stays inside the tolerance, out if difference less uncertainty "
                            + "is beyond it, else undecided",
                    "small",
                    "muted");
            rule.setWrapText(true);
            rule.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
            box.getChildren().addAll(Marks.verdictWord(result.verdict()), text, rule);
        }
        box.getChildren().addAll(DecisionRows.of(check, d -> change(check.decided(d))));
        box.getChildren()
                .add(new FlowPane(
                        8,
                        6,
                        Ui.button("Open the reading", () -> {
                            session.select(Chosen.READING, check.reading());
                            session.go(4);
                        }),
                        Ui.button(
                                "Delete",
                                () -> session.edit(
                                        "Delete check",
                                        s -> s.withChecks(l -> {
                                            l.removeIf(x -> x.id().equals(check.id()));
                                            return l;
                                        })))));
        return box;
    }
}
