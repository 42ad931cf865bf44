package lane.desk.readings;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntFunction;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import lane.base.LaneException;
import lane.desk.ManyRows;
import lane.desk.Marks;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.picture.LaneStyle;
import lane.picture.chart.ReadingChart;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.study.ChartLook;
import lane.study.ChartLook.AxisLook;
import lane.study.ChartLook.Dash;
import lane.study.ChartLook.LaneLook;
import lane.study.ChartLook.Scale;
import lane.study.ChartLook.Spot;
import lane.study.ChartLook.Strip;
import lane.study.ChartLook.TextSize;
import lane.study.Source;

/** How a chart is drawn, in the menus above it. */
final class ChartForm {
    private static final double SHALLOW = 180;

    private static final Spot RIGHT_ABOVE = new Spot(0.72, 0.04);

    /** Colours that can be told apart on light and dark, by name. */
    private static final Map<String, String> COLOURS = colours();

    private final Session session;
    private final String reading;
    private final ChartLook look;

    ChartForm(Session session, Reading reading) {
        this.session = session;
        this.reading = reading.id();
        look = session.study().chart(reading.id());
    }

    private static Map<String, String> colours() {
        Map<String, String> out = new LinkedHashMap<>();
        out.put("usual colour", "");
        out.put("blue", "#2f6fb0");
        out.put("green", "#3a8f4d");
        out.put("orange", "#d9822b");
        out.put("red", "#c0413b");
        out.put("violet", "#8157b0");
        out.put("cyan", "#2aa5a0");
        out.put("brown", "#8f6338");
        out.put("pink", "#cc6aa3");
        out.put("grey", "#7b8085");
        return out;
    }

    private void change(UnaryOperator<ChartLook> edit) {
        try {
            session.edit("Chart", s -> s.with(edit.apply(s.chart(reading))));
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
    }

    /** What stands beneath the curves, in one click. */
    Node strip() {
        var out = Ui.segments(List.of(Strip.values()), look.strip(), Strip::word, s -> change(c -> c.with(s)));
        out.setId("chart-strip");
        return out;
    }

    MenuButton axes() {
        var box = new VBox();
        box.getChildren().add(Ui.label("Abscissa", "title"));
        axis(box, "x", look.x(), e -> change(c -> c.x(e)));
        box.getChildren().add(Ui.label("Values", "title"));
        axis(box, "y", look.y(), e -> change(c -> c.y(e)));
        return Inside.menu("chart-axes", "Axes", box);
    }

    private interface Edit {
        void make(UnaryOperator<AxisLook> edit);
    }

    private void axis(VBox box, String id, AxisLook axis, Edit edit) {
        box.getChildren()
                .add(Rows.of(
                        "Scale",
                        Ui.choice(
                                "chart-" + id + "-scale",
                                List.of(Scale.values()),
                                axis.scale(),
                                Scale::word,
                                s -> edit.make(a -> a.by(s))),
                        toggle(
                                "chart-" + id + "-reversed",
                                "reversed",
                                axis.reversed(),
                                on -> edit.make(a -> a.reversed(on)))));
        box.getChildren()
                .add(Rows.of(
                        "from, to",
                        Rows.end(
                                "chart-" + id + "-from",
                                axis.from(),
                                v -> edit.make(a -> a.between(v.orElse(null), a.to()))),
                        Rows.end(
                                "chart-" + id + "-to",
                                axis.to(),
                                v -> edit.make(a -> a.between(a.from(), v.orElse(null)))),
                        id.equals("y")
                                ? toggle(
                                        "chart-y-shared",
                                        "as all charts in this unit",
                                        axis.shared(),
                                        on -> edit.make(a -> a.sharing(on)))
                                : null));
        var title = Ui.text("chart-" + id + "-title", axis.title(), t -> edit.make(a -> a.titled(t.strip())));
        title.setPromptText("title, as usual");
        var unit = Ui.text("chart-" + id + "-unit", axis.unit(), u -> edit.make(a -> a.in(comparable(id, u.strip()))));
        unit.setPromptText("unit");
        unit.setPrefWidth(70);
        box.getChildren().add(Rows.of("Title", title, unit));
    }

    /** A unit that the axis can be told in. */
    private String comparable(String id, String unit) {
        if (!unit.isBlank()) {
            ReadingChart drawn = ReadingChart.of(
                    session.study(),
                    session.results(),
                    session.study().reading(reading).orElseThrow(),
                    session.palette());
            lane.unit.Unit.of(unit).requireComparable(id.equals("x") ? drawn.along() : drawn.shown(), "The axis");
        }
        return unit;
    }

    private static CheckBox toggle(String id, String word, boolean on, java.util.function.Consumer<Boolean> changed) {
        var button = Named.check(word);
        button.setId(id);
        button.setSelected(on);
        button.setOnAction(e -> changed.accept(button.isSelected()));
        return button;
    }

    MenuButton style() {
        var box = new VBox();
        box.getChildren()
                .add(Rows.of(
                        "Words for",
                        Ui.segments(
                                List.of(TextSize.values()), look.text(), TextSize::word, t -> change(c -> c.with(t)))));
        box.getChildren()
                .add(Rows.of(
                        "Legend",
                        toggle(
                                "chart-legend",
                                "within the chart, to be dragged",
                                look.legend() != null,
                                on -> change(c -> c.legendAt(on ? RIGHT_ABOVE : null)))));
        panels().ifPresent(box.getChildren()::add);
        List<Source> all = session.study().sources();
        List<LaneStyle> styles = LaneStyle.of(all, session.palette());
        int[] on = IntStream.range(0, all.size())
                .filter(i -> !session.study().off().contains(all.get(i).id()))
                .toArray();
        List<String> names = Arrays.stream(on).mapToObj(i -> all.get(i).name()).toList();
        box.getChildren()
                .addAll(shallow(
                        session,
                        "chart-lanes",
                        reading,
                        "lane",
                        names,
                        Ui.label("Lanes", "title"),
                        k -> lane(
                                all.get(on[k]),
                                styles.get(on[k])
                                        .looking(look.lanes().get(all.get(on[k]).id())))));
        var usual = Ui.button(
                "Draw as usual", () -> session.edit("Chart", s -> s.with(ChartLook.of(reading))), "small-button");
        usual.setId("chart-usual");
        box.getChildren().add(usual);
        return Inside.menu("chart-style", "Style", box);
    }

    /** Other readings on the same abscissa, which can stand beneath. */
    private Optional<Node> panels() {
        Reading own = session.study().reading(reading).orElse(null);
        if (own == null) {
            return Optional.empty();
        }
        List<Reading> fit = ReadingChart.alike(
                session.study(),
                session.results(),
                own,
                session.study().readings().stream()
                        .filter(r -> !r.id().equals(reading) && r.ask().form() == Ask.Form.CURVE)
                        .toList());
        if (fit.isEmpty()) {
            return Optional.empty();
        }
        var box = new VBox(4);
        box.getChildren()
                .addAll(shallow(
                        session,
                        "chart-below",
                        reading,
                        "reading",
                        fit.stream().map(Reading::name).toList(),
                        Ui.label("In panels beneath", "title"),
                        k -> below(fit.get(k))));
        return Optional.of(box);
    }

    /** Rows of which two lists fit into a low window, one beneath the other. */
    private static List<Node> shallow(
            Session session, String id, String of, String word, List<String> names, Node head, IntFunction<Node> row) {
        List<Node> all = ManyRows.of(session, id, of, word, names, head, row);
        if (all.getLast() instanceof ListView<?> list) {
            list.setMinHeight(SHALLOW);
            list.setPrefHeight(SHALLOW);
        }
        return all;
    }

    private Node below(Reading other) {
        return toggle(
                "below-" + other.id(),
                other.name(),
                look.below().contains(other.id()),
                on -> change(c -> {
                    List<String> next = new ArrayList<>(c.below());
                    next.remove(other.id());
                    if (on) {
                        next.add(other.id());
                    }
                    return c.below(next);
                }));
    }

    private Node lane(Source source, LaneStyle style) {
        LaneLook now = look.lanes().getOrDefault(source.id(), new LaneLook("", null, 0));
        List<String> colours = new ArrayList<>(COLOURS.keySet());
        if (!now.colour().isBlank() && !COLOURS.containsValue(now.colour())) {
            colours.add(now.colour());
        }
        String word = COLOURS.entrySet().stream()
                .filter(e -> e.getValue().equals(now.colour()))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(now.colour());
        var colour = Ui.choice(
                "colour-" + source.id(),
                colours,
                word,
                w -> w,
                w -> put(source, new LaneLook(COLOURS.getOrDefault(w, w), now.dash(), now.width())));
        colour.setPrefWidth(122);
        var swatch = new Rectangle(12, 12, Marks.fx(style.colour()));
        List<Optional<Dash>> dashes = new ArrayList<>(List.of(Optional.empty()));
        for (Dash d : Dash.values()) {
            dashes.add(Optional.of(d));
        }
        var dash = Ui.choice(
                "dash-" + source.id(),
                dashes,
                Optional.ofNullable(now.dash()),
                d -> d.map(Dash::word).orElse("usual line"),
                d -> put(source, new LaneLook(now.colour(), d.orElse(null), now.width())));
        dash.setPrefWidth(110);
        var width = Ui.number(
                "width-" + source.id(),
                now.width() > 0 ? now.width() : style.width(),
                v -> put(source, new LaneLook(now.colour(), now.dash(), v)));
        width.setPrefWidth(46);
        return Ui.row(6, swatch, Ui.lane(source.name(), 74, "second"), colour, dash, width);
    }

    private void put(Source source, LaneLook next) {
        change(c -> c.lane(source.id(), next));
    }
}
