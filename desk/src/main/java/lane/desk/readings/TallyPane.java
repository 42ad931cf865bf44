package lane.desk.readings;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import lane.base.Plain;
import lane.check.Check;
import lane.check.CheckResult;
import lane.desk.Carry;
import lane.desk.LaneColumns;
import lane.desk.LaneStrip;
import lane.desk.ManyRows;
import lane.desk.Marks;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.desk.checks.DatumMenu;
import lane.estimate.Estimate;
import lane.formula.Type;
import lane.picture.LaneStyle;
import lane.picture.Ticks;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.Scalar;
import lane.reading.Several;
import lane.reading.Tally;
import lane.study.Source;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** A tally: one mark a lane on a common axis under the lane's chip, the values beneath, the sign in words. */
final class TallyPane implements ReadingPane {
    private static final double TALL = 250;

    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final AgainstForm against;
    /** What the lanes answer, in units that they share. */
    private Map<String, List<Estimate>> told = Map.of();

    TallyPane(Session session) {
        this.session = session;
        against = new AgainstForm(session);
    }

    @Override
    public Node show(Reading reading) {
        told = session.results().numbers(reading.id());
        List<Source> sources = session.study().sources();
        List<LaneStyle> styles = LaneStyle.of(sources, session.palette());
        Check check = session.study().checks().stream()
                .filter(c -> c.reading().equals(reading.id()))
                .findFirst()
                .orElse(null);
        CheckResult result = check == null ? null : session.results().checks().get(check.id());
        String datumId = check == null || check.rule().datum().isBlank()
                ? session.study().datum()
                : check.rule().datum();
        Estimate datum = number(datumId);
        var top = Ui.row(
                10,
                name(reading),
                Ui.label(
                        reading.stations().isEmpty()
                                ? reading.ask().curve().isPresent() ? "" : "of the lane as a whole"
                                : "over " + PartsChoice.words(session, reading.stations()),
                        "muted",
                        "small"),
                Ui.spring());
        if (OverTime.times(session) && !reading.ask().overTime()) {
            var over = Ui.button("Over time", () -> OverTime.history(session, reading), "small-button");
            over.setId("over-time");
            top.getChildren().add(over);
        }
        top.getChildren().add(Ui.button("Delete", () -> NewReading.delete(session, reading), "small-button"));
        top.getStyleClass().add("toolbar");
        top.setMinHeight(40);
        var body = new VBox();
        body.getStyleClass().add("sheet");
        body.getChildren().add(marks(reading, sources, styles, datum, result));
        body.getChildren().add(rowOf("Value", sources, s -> value(number(s.id())), true));
        // An answer of several numbers has the others beneath the one that is judged.
        List<String> names = reading.numbers();
        for (int i = 1; i < names.size(); i++) {
            int at = i;
            String what = names.get(i)
                    .substring(Math.min(names.get(i).length(), reading.name().length()))
                    .strip();
            body.getChildren()
                    .add(rowOf(
                            what + in(sources, at),
                            remark(reading, sources, at),
                            sources,
                            s -> value(number(s.id(), at)),
                            false));
        }
        body.getChildren()
                .add(rowOf(
                        datum == null
                                ? "Difference, no datum"
                                : "Difference from "
                                        + session.study()
                                                .source(datumId)
                                                .map(Source::name)
                                                .orElse(""),
                        sources,
                        s -> datum != null && s.id().equals(datumId)
                                ? "datum"
                                : datum != null && number(s.id()) instanceof Estimate t
                                        ? Ticks.signed(t.unit().differenceFromSi(t.value() - datum.value()))
                                        : "–",
                        false));
        body.getChildren()
                .add(rowOf(
                        "The same in %",
                        sources,
                        s -> s.id().equals(datumId)
                                ? ""
                                // A share of a temperature depends on where its scale begins.
                                : datum != null
                                                && Type.of(1, datum.unit()).points() == 0
                                                && datum.value() != 0
                                                && number(s.id()) instanceof Estimate t
                                        ? Ticks.signed(100 * (t.value() - datum.value()) / Math.abs(datum.value()))
                                        : "–",
                        false));
        body.getChildren()
                .add(rowOf(
                        "Uncertainty, plus or minus",
                        sources,
                        s -> number(s.id()) instanceof Estimate t
                                        && t.uncertainty().stated()
                                ? Ticks.brief(t.unit()
                                        .differenceFromSi(t.uncertainty().half()))
                                : "not stated",
                        false));
        var scroll = new ScrollPane(body);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("sheet");
        pane.setCenter(new BorderPane(scroll, top, null, null, null));
        pane.setRight(Ui.panel(numbers(reading, sources, styles, result)));
        return pane;
    }

    private Node name(Reading reading) {
        var field = Ui.text("reading-name", reading.name(), t -> NewReading.change(session, reading.named(t)));
        field.setPrefWidth(190);
        return field;
    }

    private Node marks(
            Reading reading,
            List<Source> sources,
            List<LaneStyle> styles,
            @Nullable Estimate datum,
            @Nullable CheckResult result) {
        var field = new Pane();
        field.setMinHeight(TALL + 36);
        field.setPrefHeight(TALL + 36);
        Unit unit = session.results().unit(reading.id());
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        double t = datum == null || result == null
                ? Double.NaN
                : result.lanes().values().stream()
                        .mapToDouble(CheckResult.Lane::allowed)
                        .findFirst()
                        .orElse(Double.NaN);
        for (Source s : session.study().lanes()) {
            if (number(s.id()) instanceof Estimate v) {
                double u = v.uncertainty().stated() ? v.uncertainty().half() : 0;
                least = Math.min(least, v.value() - u);
                greatest = Math.max(greatest, v.value() + u);
            }
        }
        if (least > greatest) {
            field.getChildren().add(Marks.text(24, 40, "No lane answers this reading.", "axis-text"));
            return field;
        }
        if (!Double.isNaN(t)) {
            least = Math.min(least, Objects.requireNonNull(datum).value() - t);
            greatest = Math.max(greatest, datum.value() + t);
        }
        // One number alone stands in the middle of a range that can be read.
        double size = Math.max(Math.abs(least), Math.abs(greatest));
        double spread = greatest - least > 1e-9 * size ? greatest - least : size == 0 ? 1 : 0.1 * size;
        double low = unit.fromSi(least - 0.12 * spread);
        double high = unit.fromSi(greatest + 0.12 * spread);
        double wide = Ui.PITCH * sources.size();
        // The axis stays while the lanes move below it.
        var axis = new Pane();
        axis.setMouseTransparent(true);
        var cover = new Rectangle(0, 0, 50, TALL + 14);
        cover.getStyleClass().add("sheet-cover");
        cover.visibleProperty().bind(session.lanesAt().greaterThan(0));
        axis.getChildren().add(cover);
        for (double v : Ticks.of(low, high, 7)) {
            double y = y(v, low, high);
            field.getChildren().add(Marks.line(52, y, Math.max(wide, 52), y, "grid-line"));
            axis.getChildren().add(Marks.text(8, y, Ticks.text(v, low, high), "axis-text"));
        }
        if (datum != null) {
            double y = y(unit.fromSi(datum.value()), low, high);
            if (!Double.isNaN(t)) {
                double y0 = y(unit.fromSi(datum.value() + t), low, high);
                double y1 = y(unit.fromSi(datum.value() - t), low, high);
                var band = new Rectangle(52, y0, Math.max(0, wide - 52), y1 - y0);
                band.getStyleClass().add("pine-band");
                field.getChildren()
                        .addAll(
                                band,
                                Marks.line(52, y0, wide, y0, "pine-line"),
                                Marks.line(52, y1, wide, y1, "pine-line"));
            }
            Line zero = Marks.line(52, y, wide, y, "ink-line");
            zero.setStrokeWidth(2.2);
            field.getChildren().add(zero);
        }
        var strip = new LaneStrip(sources.size(), i -> {
            double x = Ui.CHIP / 2;
            var column = new Pane();
            if (i > 0) {
                column.getChildren().add(Marks.line(-1, 8, -1, TALL + 10, "grid-line"));
            }
            boolean off = session.study().off().contains(sources.get(i).id());
            if (!off && number(sources.get(i).id()) instanceof Estimate v) {
                mark(column, v, styles.get(i), x, unit, low, high);
            }
            Text name = Marks.text(x, TALL + 22, sources.get(i).name(), "axis-text");
            name.setX(x - name.getLayoutBounds().getWidth() / 2);
            column.getChildren().add(name);
            return column;
        });
        field.getChildren().add(strip);
        field.setPrefWidth(wide);
        return new StackPane(new LaneColumns(session, field, strip), axis);
    }

    private void mark(Pane field, Estimate v, LaneStyle style, double x, Unit unit, double low, double high) {
        double y = y(unit.fromSi(v.value()), low, high);
        if (v.uncertainty().stated()) {
            double half = v.uncertainty().half();
            double y0 = y(unit.fromSi(v.value() + half), low, high);
            double y1 = y(unit.fromSi(v.value() - half), low, high);
            for (Line l :
                    List.of(new Line(x, y0, x, y1), new Line(x - 8, y0, x + 8, y0), new Line(x - 8, y1, x + 8, y1))) {
                l.setStroke(Marks.fx(style.colour()));
                l.setStrokeWidth(1.5);
                field.getChildren().add(l);
            }
        }
        Node marker = Marks.marker(style, Marks.fx(session.palette().sheet()));
        marker.setLayoutX(x - (style.corners() == 2 ? 1.1 : 0));
        marker.setLayoutY(y - (style.corners() == 2 ? 5 : 0));
        field.getChildren().add(marker);
    }

    private static double y(double v, double low, double high) {
        return 12 + TALL * (high - v) / (high - low);
    }

    /** The unit of one of several numbers, to stand behind its word. */
    private String in(List<Source> sources, int at) {
        return sources.stream()
                .map(s -> number(s.id(), at))
                .filter(Objects::nonNull)
                .map(e -> e.unit().known() && !e.unit().equals(Unit.ONE)
                        ? ", " + e.unit().symbol()
                        : "")
                .findFirst()
                .orElse("");
    }

    /** What is said of one of several numbers: its sign, or how it was made. */
    private String remark(Reading reading, List<Source> sources, int at) {
        return sources.stream()
                .map(s -> session.results().outcome(reading.id(), s.id()))
                .filter(o ->
                        o instanceof Several several && at - 1 < several.named().size())
                .map(o -> ((Several) o).named().get(at - 1).remark())
                .findFirst()
                .orElse("");
    }

    private Node rowOf(
            String name, List<Source> sources, java.util.function.Function<Source, String> value, boolean strong) {
        return rowOf(name, "", sources, value, strong);
    }

    private Node rowOf(
            String name,
            String remark,
            List<Source> sources,
            java.util.function.Function<Source, String> value,
            boolean strong) {
        var cells = new LaneStrip(sources.size(), i -> {
            var label = Ui.cell(value.apply(sources.get(i)), Ui.PITCH, strong ? "section" : "second");
            label.setAlignment(javafx.geometry.Pos.CENTER);
            label.setStyle("-fx-padding: 0 " + (Ui.PITCH - Ui.CHIP) + " 0 0;");
            return label;
        });
        var caption = Ui.label(name, "small", "muted");
        caption.setStyle("-fx-padding: 2 0 0 10;");
        if (!remark.isBlank()) {
            Tip.on(caption, remark);
        }
        var box = new VBox(caption, new LaneColumns(session, cells));
        box.getStyleClass().add("rule");
        box.setMinHeight(38);
        return box;
    }

    private VBox numbers(Reading reading, List<Source> sources, List<LaneStyle> styles, @Nullable CheckResult result) {
        var box = new VBox(6);
        Unit unit = session.results().unit(reading.id());
        box.getChildren().add(Ui.row(8, Ui.label("Numbers", "title"), Ui.label(unit.label(), "small", "muted")));
        List<String> names = sources.stream().map(Source::name).toList();
        Node datum = DatumMenu.of(session, reading.id());
        box.getChildren().addAll(ManyRows.of(session, "lane-numbers", reading.id(), "lane", names, datum, i -> {
            Source s = sources.get(i);
            Outcome outcome = session.results().outcome(reading.id(), s.id());
            HBox row = Ui.row(
                    8,
                    Marks.marker(styles.get(i), Marks.fx(session.palette().sheet())),
                    Ui.lane(s.name(), 70, "second"));
            if (outcome instanceof Outcome.Absent a) {
                var why = Ui.label(a.brief(), "second", "muted");
                Tip.on(why, a.reason());
                row.getChildren().addAll(Ui.spring(), why);
            } else {
                row.getChildren().addAll(Ui.spring(), Ui.label(value(number(s.id())), "second"));
                CheckResult.Lane lane = result == null ? null : result.lanes().get(s.id());
                if (lane != null && lane.verdict() != null) {
                    row.getChildren().add(Marks.verdictWord(lane.verdict()));
                }
            }
            row.getStyleClass().add("table-row");
            row.setOnMouseClicked(e -> session.show(reading.id(), s.id()));
            session.carry().from(row, reading.id());
            return row;
        }));
        box.getChildren().add(against.show(reading));
        String which = sign(reading, sources);
        if (!which.isBlank()) {
            var head = Ui.label("Sign", "title");
            head.setStyle("-fx-padding: 12 0 0 0;");
            var sign = Ui.label(which + ".", "second");
            sign.setWrapText(true);
            sign.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
            box.getChildren().addAll(head, sign);
            reading.ask().flipped().ifPresent(other -> {
                var flip = Ui.button(
                        "Flip the sign", () -> NewReading.change(session, reading.asking(other)), "small-button");
                flip.setId("flip");
                Tip.on(flip, "What counts as positive is turned round; the reading keeps it so.");
                box.getChildren().add(flip);
            });
        }
        notes(reading, sources, box);
        pieces(reading, sources, box);
        settings(reading, box);
        if (result != null && !result.why().isBlank()) {
            var why = Ui.label(result.why(), "second", "muted");
            why.setWrapText(true);
            why.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
            box.getChildren().add(why);
        }
        var picture = Ui.button("Show in the picture", () -> inPicture(reading), "small-button");
        picture.setId("in-picture");
        Tip.on(picture, "Puts a note with the number as it is now into the picture, with its arrow where it has one.");
        box.getChildren().add(picture);
        var judge = Ui.button(
                result == null ? "Add a check" : "Open its check",
                () -> lane.desk.checks.ChecksView.openOrAdd(session, reading.id()),
                "main");
        judge.setId("add-check");
        box.getChildren().add(judge);
        return box;
    }

    private void settings(Reading r, VBox box) {
        var head = Ui.label("Settings", "title");
        head.setStyle("-fx-padding: 12 0 0 0;");
        box.getChildren().add(head);
        AskForm.ALL.of(r.ask()).settings(session, r, box);
        var unit = Ui.text("tally-unit", r.unit(), u -> NewReading.change(session, r.in(u)));
        unit.setPromptText("follows");
        unit.setMaxWidth(90);
        box.getChildren().add(Ui.row(6, Ui.left("Unit", 78, "second"), unit));
    }

    /** What a lane answered; null where it gives no number. */
    private @Nullable Estimate number(String lane) {
        return number(lane, 0);
    }

    private @Nullable Estimate number(String lane, int which) {
        List<Estimate> all = told.getOrDefault(lane, List.of());
        return which < all.size() ? all.get(which) : null;
    }

    private static String value(@Nullable Estimate number) {
        if (number == null) {
            return "–";
        }
        // An uncertainty of round-off does not call for as many digits.
        double least = 1e-7 * Math.abs(number.shown());
        double half = number.unit().differenceFromSi(number.uncertainty().told());
        return Ticks.number(number.shown(), half > 0 && half < least ? least : half);
    }

    /** A note at what the reading is taken over, whose number stays true; one that is there is gone to. */
    private void inPicture(Reading reading) {
        boolean there =
                session.study().notes().stream().anyMatch(n -> n.reading().equals(reading.id()));
        if (!there) {
            Carry.note(session, "", reading.id(), null);
        }
        session.go(2);
    }

    /** As the answers say it, which know what they were taken over; before there are any, as the measure does. */
    private String sign(Reading reading, List<Source> sources) {
        return sources.stream()
                .map(s -> session.results().outcome(reading.id(), s.id()))
                .map(o -> o instanceof Tally t ? t.sign() : "")
                .filter(w -> !w.isBlank())
                .findFirst()
                .orElseGet(() -> AskForm.ALL.of(reading.ask()).sign(reading));
    }

    /** Notes longer than these would push the settings out of sight. */
    private static final int NOTES = 4;

    /** What the numbers were taken over and how, once for all lanes of which it is the same. */
    private void notes(Reading reading, List<Source> sources, VBox box) {
        var lanes = new java.util.LinkedHashMap<String, List<String>>();
        for (Source s : sources) {
            String note =
                    switch (session.results().outcome(reading.id(), s.id())) {
                        case Tally t -> t.note();
                        case Several t -> t.note();
                        default -> "";
                    };
            if (!note.isBlank()) {
                // Meshes of a family differ in how many there are, which Stations tells.
                String alike = note.replaceAll(", \\d+ (faces|cells)", "");
                lanes.computeIfAbsent(alike, n -> new java.util.ArrayList<>()).add(s.name());
            }
        }
        lanes.entrySet().stream()
                .limit(NOTES)
                .forEach(
                        e -> said(lanes.size() == 1 ? e.getKey() : Plain.names(e.getValue()) + ": " + e.getKey(), box));
    }

    private static void said(String text, VBox box) {
        var label = Ui.label(text, "small", "muted");
        label.setWrapText(true);
        label.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        box.getChildren().add(label);
    }

    /** How well a number is integrated, where it is not exactly so. */
    private void quadrature(Reading reading, Source s, VBox box) {
        session.results().scalars(reading.id(), s.id()).stream()
                .filter(x -> x.what().equals(Tally.QUADRATURE))
                .findFirst()
                .ifPresent(q -> {
                    said(
                            s.name() + ": integrated to ± "
                                    + Ticks.brief(shown(reading, q).shown()) + " "
                                    + shown(reading, q).unit().label(),
                            box);
                    Tip.on(box.getChildren().getLast(), q.remark());
                });
    }

    private Estimate shown(Reading reading, Scalar one) {
        return one.estimate()
                .in(session.results().shown(reading.id(), one.estimate().unit()));
    }

    private void pieces(Reading reading, List<Source> sources, VBox under) {
        var box = new VBox();
        for (Source s : sources) {
            // What stands in rows of its own is not said again.
            quadrature(reading, s, box);
            List<Scalar> all = session.results().scalars(reading.id(), s.id()).stream()
                    .filter(x -> !x.what().equals(Tally.QUADRATURE))
                    .filter(x -> !(session.results().outcome(reading.id(), s.id()) instanceof Several several)
                            || !several.named().contains(x))
                    .toList();
            boolean several = session.results().outcome(reading.id(), s.id()) instanceof Several;
            int first = several ? 0 : 1;
            if (all.size() > first + 1) {
                String text = all.subList(first, all.size()).stream()
                        .map(x -> x.what().replaceAll(" part$", "") + " "
                                + Ticks.brief(shown(reading, x).shown()))
                        .collect(java.util.stream.Collectors.joining(", "));
                said(s.name() + ": " + text, box);
            }
        }
        under.getChildren().addAll(ManyRows.few(box.getChildren(), "lane"));
    }
}
