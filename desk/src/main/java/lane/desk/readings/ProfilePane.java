package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import lane.base.Figures;
import lane.check.Check;
import lane.check.CheckResult;
import lane.desk.ManyRows;
import lane.desk.Marks;
import lane.desk.Nothing;
import lane.desk.PictureFile;
import lane.desk.Session;
import lane.desk.ShownPath;
import lane.desk.Ui;
import lane.desk.checks.DatumMenu;
import lane.picture.Ticks;
import lane.picture.chart.ProfileChart;
import lane.picture.chart.ReadingChart;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.study.Source;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** A profile: the curve over its difference strip, the numbers at the right, and the values under the pointer. */
final class ProfilePane implements ReadingPane {
    /** For the values of all lanes at a place. */
    private static final double ROOM = 244;

    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final HBox tools = Ui.row(10);
    private final ChartView chart;
    private final VBox numbers = new VBox(4);
    private final AgainstForm against;
    private @Nullable Reading reading;
    private List<ProfileChart.Curve> curves = List.of();
    private List<String> curveLanes = List.of();
    private @Nullable ReadingChart drawn;
    /** How far each curve is from the datum, as far as that is known. */
    private List<Optional<ReadingChart.Norms>> norms = List.of();
    /** Whether curves are being compared. */
    private boolean comparing;

    private Unit along = Unit.of("mm");

    ProfilePane(Session session) {
        this.session = session;
        against = new AgainstForm(session);
        chart = new ChartView(session);
        tools.getStyleClass().add("toolbar");
        tools.setMinHeight(40);
        // However much stands in it, it never makes the window wider than it is.
        tools.setMinWidth(0);
        pane.setCenter(new BorderPane(chart.node(), tools, null, null, null));
        pane.setRight(Ui.panel(numbers));
    }

    @Override
    public Node show(Reading shownReading) {
        reading = shownReading;
        ReadingChart now = ReadingChart.of(session.study(), session.results(), shownReading, session.palette());
        comparing = now.uncompared();
        norms = now.curves().stream()
                .map(c -> Optional.ofNullable(c.difference()).map(ReadingChart.Norms::of))
                .toList();
        ReadingChart.Compared found = comparing ? session.compared(now) : null;
        if (found != null) {
            comparing = false;
            norms = found.norms();
            now = found.chart();
        }
        drawn = now;
        curves = now.curves();
        curveLanes = now.lanes();
        if (!curves.isEmpty()) {
            along = now.along();
        }
        tools();
        numbers();
        chart.show(now);
        return pane;
    }

    private void tools() {
        var name = Ui.text(
                "reading-name",
                Objects.requireNonNull(reading).name(),
                t -> NewReading.change(session, Objects.requireNonNull(reading).named(t)));
        name.setPrefWidth(160);
        name.setMinWidth(90);
        // What does not fit into one row goes on in the next.
        var asked = new FlowPane(10, 6);
        asked.setAlignment(Pos.CENTER_LEFT);
        asked.setMinWidth(0);
        asked.setPrefWrapLength(600);
        asked.setStyle("-fx-padding: 6 0 6 0;");
        HBox.setHgrow(asked, Priority.ALWAYS);
        asked.getChildren().add(name);
        asked.getChildren().addAll(AskForm.ALL.of(reading.ask()).tools(session, reading));
        var form = new ChartForm(session, reading);
        asked.getChildren().add(CurveMenu.of(session, reading));
        if (curves.stream().anyMatch(c -> c.difference() != null)) {
            asked.getChildren().add(form.strip());
        }
        asked.getChildren()
                .addAll(
                        form.axes(),
                        form.style(),
                        Nothing.unless(
                                Ui.button("Picture…", this::export, "small-button"),
                                curves.isEmpty()
                                        ? "No lane answers yet, so there is no curve."
                                        : unproved().isPresent() ? "What it was read from is not proved yet." : ""),
                        Ui.button(
                                "Delete",
                                () -> NewReading.delete(session, Objects.requireNonNull(reading)),
                                "small-button"));
        asked.getChildren().forEach(n -> {
            if (n instanceof javafx.scene.control.ComboBox<?> c) {
                c.setPrefWidth(130);
                c.setMinWidth(100);
            } else if (n instanceof javafx.scene.control.MenuButton m) {
                m.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
            } else if (n instanceof javafx.scene.control.Label l) {
                l.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
            }
        });
        tools.getChildren().setAll(asked);
    }

    private @Nullable Check check() {
        return ReadingChart.check(session.study(), Objects.requireNonNull(reading))
                .orElse(null);
    }

    private String datumId() {
        return drawn().datum();
    }

    private double tolerance() {
        return drawn().tolerance();
    }

    private CheckResult.@Nullable Lane checked(String source) {
        Check check = check();
        CheckResult result = check == null ? null : session.results().checks().get(check.id());
        return result == null ? null : result.lanes().get(source);
    }

    private ReadingChart drawn() {
        return Objects.requireNonNull(drawn);
    }

    private void export() {
        if (curves.isEmpty()) {
            session.say("There is no curve to export yet.");
            return;
        }
        ReadingChart made = drawn();
        Reading of = Objects.requireNonNull(reading);
        PictureFile.save(
                session,
                pane.getScene().getWindow(),
                of.id(),
                720,
                560,
                g -> made.figure(g, r -> ChartView.what(session, r), 720, 560, session.palette()));
    }

    private void numbers() {
        numbers.getChildren().clear();
        Check check = check();
        String datum = session.study().source(datumId()).map(Source::name).orElse("");
        HBox head = Ui.row(
                8,
                Ui.label(datum.isBlank() ? "Numbers" : "Difference from the datum", "title"),
                Ui.spring(),
                Ui.button("Copy", this::copy, "small-button"));
        numbers.getChildren().add(head);
        unproved().ifPresent(numbers.getChildren()::add);
        numbers.getChildren()
                .add(DatumMenu.of(session, Objects.requireNonNull(reading).id()));
        HBox columns = Ui.row(
                0,
                Ui.left("Lane", 74, "small", "muted"),
                Ui.cell("L2, %", 58, "small", "muted"),
                Ui.cell("Linf", 66, "small", "muted"),
                Ui.cell("at", 52, "small", "muted"),
                Ui.left("", 52));
        columns.getStyleClass().add("table-row");
        Figures shares = norms((d, unit, at) -> 100 * d.l2() / d.datumRange());
        Figures largest = norms((d, unit, at) -> unit.fromSi(Math.abs(d.signed())));
        Figures places = norms((d, unit, at) -> at.fromSi(d.linfAt()));
        List<String> names = curves.stream().map(ProfileChart.Curve::name).toList();
        Reading of = Objects.requireNonNull(reading);
        var written = new Written(of, datumId(), comparing, shares, largest, places);
        // As they are now: a list makes rows later, too.
        List<ProfileChart.Curve> drawnNow = curves;
        List<String> lanes = curveLanes;
        List<Optional<ReadingChart.Norms>> known = norms;
        numbers.getChildren()
                .addAll(ManyRows.of(
                        session,
                        "lane-norms",
                        of.id(),
                        "lane",
                        names,
                        columns,
                        i -> row(
                                written,
                                drawnNow.get(i),
                                lanes.get(i),
                                known.get(i).orElse(null))));
        if (check != null) {
            CheckResult result = session.results().checks().get(check.id());
            if (result != null) {
                numbers.getChildren().add(Ui.row(8, Marks.verdictWord(result.verdict())));
                var why = Ui.label(result.why(), "second", "muted");
                why.setWrapText(true);
                why.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
                numbers.getChildren().add(why);
            }
        }
        numbers.getChildren()
                .add(Ui.label("L2 is the root mean square as part of the datum's range.", "small", "muted"));
        numbers.getChildren().add(against.show(Objects.requireNonNull(reading)));
        values();
        var judge = Ui.button(
                check == null ? "Add a check" : "Open its check",
                () -> lane.desk.checks.ChecksView.openOrAdd(
                        session, Objects.requireNonNull(reading).id()),
                "main");
        judge.setId("add-check");
        HBox actions = Ui.row(8, judge);
        actions.setStyle("-fx-padding: 12 0 0 0;");
        numbers.getChildren().add(actions);
        List<Node> absent = new ArrayList<>();
        List<Node> beside = new ArrayList<>();
        for (Source s : session.study().lanes()) {
            if (session.results().outcome(Objects.requireNonNull(reading).id(), s.id())
                    instanceof lane.reading.Outcome.Absent a) {
                absent.add(Ui.label(s.name() + ": " + a.reason(), "small", "ochre"));
            }
            session.results()
                    .beside()
                    .getOrDefault(Objects.requireNonNull(reading).id(), Map.of())
                    .getOrDefault(s.id(), List.of())
                    .forEach(x -> beside.add(Ui.label(
                            s.name() + ": " + Ticks.brief(100 * x.estimate().value()) + " % of its places are "
                                    + x.what(),
                            "small",
                            x.estimate().value() > 0 ? "ochre" : "muted")));
        }
        for (List<Node> told : List.of(absent, beside)) {
            told.forEach(t -> ((javafx.scene.control.Label) t).setWrapText(true));
            numbers.getChildren().addAll(ManyRows.few(told, "lane"));
        }
        if (curves.isEmpty()) {
            numbers.getChildren().add(Ui.label("No lane answers yet.", "muted"));
        }
    }

    /** That curves were looked up before their tables were read, while that is so. */
    private Optional<Node> unproved() {
        String id = Objects.requireNonNull(reading).id();
        return session.study().sources().stream()
                .map(s -> session.results().outcome(id, s.id()).trail())
                .filter(t -> !t.proved())
                .findFirst()
                .map(t -> {
                    String file = ShownPath.words(session, t.inputs().getFirst().path(), 40);
                    var told = Ui.label(
                            "A first look: of " + file
                                    + " the columns of this curve alone were read. Until all of it is read"
                                    + " and proved, no check counts it and no ledger holds it.",
                            "small",
                            "ochre");
                    told.setId("first-look");
                    told.setWrapText(true);
                    told.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
                    return told;
                });
    }

    /** How the numbers of a reading's lanes are written. */
    private record Written(
            Reading reading, String datum, boolean comparing, Figures shares, Figures largest, Figures places) {}

    private Node row(Written as, ProfileChart.Curve c, String lane, ReadingChart.@Nullable Norms d) {
        HBox name = Ui.row(
                6, Marks.marker(c.style(), Marks.fx(session.palette().sheet())), Ui.lane(c.name(), 56, "second"));
        name.setMinWidth(74);
        HBox row = Ui.row(0, name);
        if (d == null) {
            String why = lane.equals(as.datum) ? "datum" : as.comparing ? "being compared" : "no datum";
            row.getChildren().add(Ui.label(why, "second", "muted"));
        } else {
            Unit unit =
                    session.results().shown(as.reading.id(), c.profile().unit()).difference();
            Unit at = session.results().along(c.profile().abscissaUnit());
            row.getChildren()
                    .addAll(
                            Ui.cell(as.shares.whole(100 * d.l2() / d.datumRange()), 58, "second"),
                            Ui.cell(
                                    (d.signed() > 0 ? "+" : "") + as.largest.whole(unit.fromSi(d.signed())),
                                    66,
                                    "second"),
                            Ui.cell(as.places.whole(at.fromSi(d.linfAt())), 52, "second"));
            CheckResult.Lane judged = checked(lane);
            if (judged != null && judged.verdict() != null) {
                row.getChildren().add(Ui.row(0, Ui.left("", 6), Marks.verdict(judged.verdict())));
            }
        }
        row.getStyleClass().add("table-row");
        row.setOnMouseClicked(e -> session.show(as.reading.id(), lane));
        return row;
    }

    /** A number of a difference, as shown. */
    private interface Norm {
        double of(ReadingChart.Norms d, Unit unit, Unit at);
    }

    /** How a column of such numbers is written: three digits of their spread. */
    private Figures norms(Norm norm) {
        double[] all = IntStream.range(0, Math.min(norms.size(), curves.size()))
                .filter(i -> norms.get(i).isPresent())
                .mapToDouble(i -> {
                    Profile p = curves.get(i).profile();
                    return norm.of(
                            norms.get(i).orElseThrow(),
                            session.results()
                                    .shown(Objects.requireNonNull(reading).id(), p.unit())
                                    .difference(),
                            session.results().along(p.abscissaUnit()));
                })
                .toArray();
        // The least of them has a digit, too.
        double least = java.util.Arrays.stream(all)
                .map(Math::abs)
                .filter(v -> v > 0)
                .min()
                .orElse(0);
        return Figures.of(all, least, 3);
    }

    /** Values of all lanes at a dozen places: those measured, or evenly along the line. */
    private void values() {
        if (curves.isEmpty()) {
            return;
        }
        Profile measured = curves.stream()
                .filter(c -> c.style().hollow())
                .map(ProfileChart.Curve::profile)
                .findFirst()
                .orElse(curves.getFirst().profile());
        Unit unit = session.results().unit(Objects.requireNonNull(reading).id());
        List<ProfileChart.Curve> some = curves.size() > 5 ? curves.subList(0, 5) : curves;
        int n = measured.size();
        int step = Math.max(1, (n - 1) / 11);
        double[][] values = new double[some.size()][];
        double[] at = IntStream.iterate(0, i -> i < n, i -> i + step)
                .mapToDouble(i -> measured.abscissa()[i])
                .toArray();
        for (int c = 0; c < values.length; c++) {
            ProfileChart.Curve curve = some.get(c);
            values[c] = java.util.Arrays.stream(at)
                    .map(x -> unit.fromSi(Nearest.value(curve, x)))
                    .toArray();
        }
        // All lanes are written alike, so that their differences can be seen.
        double needed = unit.differenceFromSi(tolerance()) / 10;
        Figures figures = Figures.of(
                java.util.Arrays.stream(values)
                        .flatMapToDouble(java.util.Arrays::stream)
                        .toArray(),
                needed,
                some.size() > 3 ? 4 : 6);
        // Over many powers of ten no number of decimals suits all.
        boolean wide = drawn().look().y().scale() == lane.study.ChartLook.Scale.LOG;
        Figures places =
                Figures.of(java.util.Arrays.stream(at).map(along::fromSi).toArray(), 0);
        var inUnit = Ui.text(
                "profile-unit",
                Objects.requireNonNull(reading).unit(),
                u -> NewReading.change(session, Objects.requireNonNull(reading).in(u)));
        inUnit.setPromptText("unit, as fits");
        inUnit.setPrefWidth(92);
        HBox title = Ui.row(
                8,
                Ui.label("Values", "title"),
                Ui.label(headed(figures, unit.label()), "small", "muted"),
                Ui.spring(),
                inUnit);
        title.setStyle("-fx-padding: 12 0 0 0;");
        numbers.getChildren().add(title);
        // A number that is cut short is another one: there are as many lanes as have room.
        double widest = java.util.Arrays.stream(values)
                .flatMapToDouble(java.util.Arrays::stream)
                .mapToObj(v -> written(v, wide, figures))
                .mapToDouble(t -> Marks.wide(t, 12) + 8)
                .max()
                .orElse(0);
        int fit = Math.clamp((long) (ROOM / widest), 1, some.size());
        List<ProfileChart.Curve> few = some.subList(0, fit);
        double width = Math.max(Math.min(76, ROOM / fit), Math.min(widest, ROOM / fit));
        HBox head = Ui.row(
                0,
                Ui.left(
                        headed(
                                places,
                                along.equals(Unit.ONE)
                                        ? curves.getFirst().profile().abscissaName()
                                        : along.symbol()),
                        60,
                        "small",
                        "muted"));
        few.forEach(c -> head.getChildren().add(Ui.cell(c.name(), width, "small", "muted")));
        head.getStyleClass().add("table-row");
        numbers.getChildren().add(head);
        for (int i = 0; i < at.length; i++) {
            HBox row = Ui.row(0, Ui.left(places.text(along.fromSi(at[i])), 60, "second"));
            for (int c = 0; c < fit; c++) {
                row.getChildren().add(Ui.cell(written(values[c][i], wide, figures), width, "second"));
            }
            row.getStyleClass().add("table-row");
            row.setMinHeight(24);
            numbers.getChildren().add(row);
        }
    }

    private static String written(double value, boolean wide, Figures figures) {
        return wide ? Ticks.number(value, Double.NaN) : figures.text(value);
    }

    /** A unit with the power of ten that a column is written in. */
    private static String headed(Figures figures, String unit) {
        return figures.head().isEmpty() ? unit : figures.head() + " " + unit;
    }

    private void copy() {
        var text = new StringBuilder("lane\t" + "abscissa, m\tvalue, SI\n");
        for (ProfileChart.Curve c : curves) {
            for (int i = 0; i < c.profile().size(); i++) {
                text.append(c.name())
                        .append('\t')
                        .append(c.profile().abscissa()[i])
                        .append('\t')
                        .append(c.profile().value()[i])
                        .append('\n');
            }
        }
        var content = new javafx.scene.input.ClipboardContent();
        content.putString(text.toString());
        javafx.scene.input.Clipboard.getSystemClipboard().setContent(content);
        session.note("Copied the points of " + curves.size() + " curves.");
    }
}
