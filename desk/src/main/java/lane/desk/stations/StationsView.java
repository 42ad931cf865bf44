package lane.desk.stations;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import lane.desk.PictureFile;
import lane.desk.Session;
import lane.desk.SideList;
import lane.desk.Ui;
import lane.desk.View;
import lane.field.Run;
import lane.mesh.Point;
import lane.picture.Ticks;
import lane.picture.field.Annotations;
import lane.picture.field.Frame;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.reading.Lens;
import lane.station.Abscissa;
import lane.station.Placement;
import lane.station.Sampling;
import lane.station.Station;
import lane.study.Source;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** The field picture between the list of stations and the placing card of the selected one. */
public final class StationsView implements View {
    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final SideList list;
    private final FieldPane field = new FieldPane();
    private final HBox tools = Ui.row(10);
    private final PlacingCard card;
    private final VBox tip = new VBox(3);
    private final Set<String> clear = new HashSet<>(Set.of("shell"));
    private String lane = "";
    private String quantity = "";
    private boolean shaded = true;
    private boolean edges;
    private FieldScene scene;
    private Session.Mark shownMark;
    private List<Object> sceneKey = List.of();

    public StationsView(Session session) {
        this.session = session;
        list = new SideList(
                "Stations",
                Ui.button("+ Line", () -> addLine(session), "small-button"),
                Ui.button("+ Part", this::addPart, "small-button"));
        card = new PlacingCard(session);
        tools.getStyleClass().add("toolbar");
        tools.setMinHeight(40);
        tip.getStyleClass().add("tooltip-card");
        tip.setVisible(false);
        tip.setMouseTransparent(true);
        tip.setManaged(false);
        var over = new Pane(tip);
        over.setMouseTransparent(true);
        var middle = new BorderPane(new StackPane(field, over), tools, null, null, null);
        pane.setLeft(list.node());
        pane.setCenter(middle);
        pane.setRight(card.node());
        field.onHover(this::hover);
        field.onMove(
                (a, b) -> selectedLine().ifPresent(l -> session.edit("Move line", s -> s.with(l.between(a, b)), true)),
                () -> session.history().pause());
    }

    @Override
    public Node node() {
        return pane;
    }

    private java.util.Optional<Station.Line> selectedLine() {
        return session.study()
                .station(session.selected("station"))
                .filter(Station.Line.class::isInstance)
                .map(Station.Line.class::cast);
    }

    /** Adds a line through the middle of the first run, across its shortest extent, and selects it. */
    public static void addLine(Session session) {
        var runs = session.results().runs();
        double[] b = runs.isEmpty()
                ? new double[] {0, 1, 0, 1, 0, 1}
                : runs.values().iterator().next().mesh().bounds();
        double y = (b[2] + b[3]) / 2;
        double z = (b[4] + b[5]) / 2;
        List<String> taken =
                session.study().stations().stream().map(Station::id).toList();
        String id = Study.freshId("line", taken);
        session.edit(
                "Add line",
                s -> s.withStations(l -> {
                    l.add(new Station.Line(
                            id,
                            "Line " + (taken.size() + 1),
                            new Point(b[0], y, z),
                            new Point(b[1], y, z),
                            new Sampling.Even(201),
                            Abscissa.ARC));
                    return l;
                }));
        session.select("station", id);
    }

    private void addPart() {
        var have = session.study().stations().stream()
                .filter(Station.OnPart.class::isInstance)
                .map(s -> ((Station.OnPart) s).part())
                .toList();
        String part = session.results().runs().values().stream()
                .flatMap(r -> r.parts().stream())
                .map(p -> p.name())
                .filter(n -> !have.contains(n))
                .findFirst()
                .orElse(null);
        if (part == null) {
            session.say("Every boundary part of the runs is a station already.");
            return;
        }
        String id = Study.freshId(
                part, session.study().stations().stream().map(Station::id).toList());
        session.edit(
                "Add part",
                s -> s.withStations(l -> {
                    l.add(new Station.OnPart(id, part, part));
                    return l;
                }));
        session.select("station", id);
    }

    @Override
    public void refresh() {
        Study study = session.study();
        if (study.station(session.selected("station")).isEmpty()
                && !study.stations().isEmpty()) {
            session.select("station", study.stations().getFirst().id());
        }
        List<SideList.Item> lines = new ArrayList<>();
        List<SideList.Item> parts = new ArrayList<>();
        for (Station s : study.stations()) {
            switch (s) {
                case Station.Line l ->
                    lines.add(new SideList.Item(
                            l.id(),
                            l.name(),
                            l.sampling() instanceof Sampling.Even e ? String.valueOf(e.samples()) : "exact",
                            Feather.MINUS));
                case Station.OnPart p -> parts.add(new SideList.Item(p.id(), p.name(), "", Feather.BOX));
            }
        }
        list.fill(
                List.of(new SideList.Group("Lines", lines), new SideList.Group("Parts", parts)),
                session.selected("station"),
                id -> session.select("station", id));
        List<Source> lanes = study.lanes().stream()
                .filter(s -> session.results().runs().containsKey(s.id()))
                .toList();
        if (session.mark() != null && !session.mark().equals(shownMark)) {
            shownMark = session.mark();
            lane = shownMark.lane();
        }
        if (lanes.stream().noneMatch(s -> s.id().equals(lane))) {
            lane = study.finest().stream()
                    .filter(id -> lanes.stream().anyMatch(s -> s.id().equals(id)))
                    .findFirst()
                    .orElse(lanes.isEmpty() ? "" : lanes.getLast().id());
        }
        List<Quantity> numbers = study.quantities().stream()
                .filter(q -> session.results().runs().values().stream().anyMatch(r -> isNumber(r, q)))
                .toList();
        if (numbers.stream().noneMatch(q -> q.id().equals(quantity))) {
            quantity = numbers.isEmpty() ? "" : numbers.getFirst().id();
        }
        tools(lanes, numbers);
        picture();
        card.refresh();
    }

    private static boolean isNumber(Run run, Quantity q) {
        return run.field(q.field())
                .map(f -> f.components() == 1 || q.take() != Take.ALL)
                .orElse(false);
    }

    private void tools(List<Source> lanes, List<Quantity> numbers) {
        tools.getChildren().clear();
        if (lanes.isEmpty()) {
            tools.getChildren().add(Ui.label("No run to show. Add one at Intake.", "muted"));
            return;
        }
        var laneBox =
                Ui.choice("picture-lane", lanes, session.study().source(lane).orElseThrow(), Source::name, s -> {
                    lane = s.id();
                    refresh();
                });
        laneBox.setPrefWidth(104);
        laneBox.setMinWidth(80);
        tools.getChildren().add(laneBox);
        session.study().quantity(quantity).ifPresent(q -> {
            var box = Ui.choice("picture-quantity", numbers, q, Quantity::name, chosen -> {
                quantity = chosen.id();
                refresh();
            });
            box.setPrefWidth(140);
            box.setMinWidth(100);
            tools.getChildren().add(box);
        });
        tools.getChildren().add(Ui.segments(List.of(true, false), shaded, b -> b ? "shaded" : "flat", b -> {
            shaded = b;
            refresh();
        }));
        tools.getChildren()
                .addAll(clearMenu(), viewMenu(), Ui.spring(), Ui.button("Picture…", this::export, "small-button"));
    }

    private void export() {
        if (scene == null || field.camera() == null) {
            session.say("There is no picture to export yet.");
            return;
        }
        PictureFile.ask(pane.getScene().getWindow(), lane + "-" + quantity + ".png")
                .ifPresent(this::export);
    }

    /** Writes the picture as it is shown; PNG or SVG by the file's name. */
    void export(java.nio.file.Path file) {
        PictureFile.write(session, file, (int) field.getWidth(), (int) field.getHeight(), field::picture, field::paint);
    }

    private Node viewMenu() {
        var menu = new javafx.scene.control.MenuButton("View");
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        var mesh = new javafx.scene.control.CheckMenuItem("Mesh edges");
        mesh.setSelected(edges);
        mesh.setOnAction(e -> {
            edges = mesh.isSelected();
            picture();
        });
        menu.getItems()
                .addAll(
                        item("Fit", field::fit),
                        item("From the front", () -> field.look(0, 0)),
                        item("From above", () -> field.look(0, Math.PI / 2)),
                        mesh);
        return menu;
    }

    private static javafx.scene.control.MenuItem item(String text, Runnable action) {
        var item = new javafx.scene.control.MenuItem(text);
        item.setOnAction(e -> action.run());
        return item;
    }

    private Node clearMenu() {
        var menu = new javafx.scene.control.MenuButton("See-through");
        menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        menu.getStyleClass().add("small-menu");
        Run run = session.results().runs().get(lane);
        if (run != null) {
            for (var part : run.parts()) {
                var item = new javafx.scene.control.CheckMenuItem(part.name());
                item.setSelected(clear.contains(part.name()));
                item.setOnAction(e -> {
                    if (!clear.remove(part.name())) {
                        clear.add(part.name());
                    }
                    picture();
                });
                menu.getItems().add(item);
            }
        }
        return menu;
    }

    private void picture() {
        Run run = session.results().runs().get(lane);
        Quantity q = session.study().quantity(quantity).orElse(null);
        if (run == null) {
            field.show(new FieldPane.Content(null, null, List.of(), null, shaded, edges, session.palette()));
            return;
        }
        Lens lens = Lens.of(
                session.study().quantities(),
                session.study().units(),
                session.study().axis());
        List<Object> key = List.of(System.identityHashCode(run), String.valueOf(q), lens, Set.copyOf(clear));
        if (!key.equals(sceneKey)) {
            scene = FieldScene.of(run, q, lens, clear);
            sceneKey = key;
        }
        List<Annotations.Line> lines = new ArrayList<>();
        for (Station s : session.study().stations()) {
            if (s instanceof Station.Line l) {
                lines.add(line(l));
            }
        }
        Session.Mark mark = session.mark();
        if (mark != null && mark.lane().equals(lane)) {
            // A line of no length is a dot with its name.
            lines.add(new Annotations.Line(mark.name(), mark.place(), mark.place(), List.of(), new boolean[0], true));
        }
        field.show(new FieldPane.Content(
                scene,
                q == null || scene.values().stream().allMatch(java.util.Objects::isNull) ? null : scene.bar(q, shaded),
                lines,
                selectedLine().orElse(null),
                shaded,
                edges,
                session.palette()));
    }

    private Annotations.Line line(Station.Line l) {
        boolean selected = l.id().equals(session.selected("station"));
        List<Point> samples = new ArrayList<>();
        Placement p = session.results()
                .placements()
                .getOrDefault(l.id(), java.util.Map.of())
                .get(lane);
        boolean[] found = new boolean[0];
        boolean fresh = session.results().study().station(l.id()).map(l::equals).orElse(false);
        if (selected && p != null && fresh) {
            int every = Math.max(1, p.size() / 20);
            found = new boolean[(p.size() + every - 1) / every];
            for (int i = 0; i < p.size(); i += every) {
                found[samples.size()] = p.cell()[i] >= 0;
                samples.add(p.place(i));
            }
        }
        return new Annotations.Line(l.name(), l.a(), l.b(), samples, found, selected);
    }

    private void hover(Frame.Hit hit, double[] at) {
        if (hit == null || scene == null || hit.surface() >= scene.values().size()) {
            tip.setVisible(false);
            return;
        }
        var values = scene.values().get(hit.surface());
        var part = scene.run().parts().get(hit.surface());
        Quantity q = session.study().quantity(quantity).orElse(null);
        String value = values == null || q == null
                ? "no value here"
                : Ticks.number(values.unit().fromSi(values.at(part, hit.face(), hit.place())), Double.NaN) + " "
                        + values.unit().label();
        String place = String.format(
                        Locale.ROOT,
                        "x %.2f  y %.2f  z %.2f mm",
                        1000 * hit.place().x(),
                        1000 * hit.place().y(),
                        1000 * hit.place().z())
                .replace('-', '−');
        tip.getChildren()
                .setAll(
                        Ui.row(12, Ui.label(q == null ? "" : q.name(), "section"), Ui.label(value)),
                        Ui.label(
                                "part " + hit.name() + ", face " + hit.face() + ", cell " + part.owner()[hit.face()],
                                "small",
                                "muted"),
                        Ui.label(place, "small", "muted"));
        tip.autosize();
        double x = Math.min(at[0] + 14, field.getWidth() - tip.getWidth() - 4);
        double y = Math.min(at[1] + 14, field.getHeight() - tip.getHeight() - 4);
        tip.relocate(x, y);
        tip.setVisible(true);
    }
}
