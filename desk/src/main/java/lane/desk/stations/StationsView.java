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
import lane.field.Part;
import lane.field.Run;
import lane.picture.Ticks;
import lane.picture.field.Annotations;
import lane.picture.field.Frame;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.reading.Lens;
import lane.station.Placement;
import lane.station.Sampling;
import lane.station.Station;
import lane.study.Laid;
import lane.study.Source;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** The field picture between the list of stations and the placing card of the selected one. */
public final class StationsView implements View {
    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final SideList list;
    private final FieldPane field = new FieldPane();
    private final HBox tools = Ui.row(6);
    private final PlacingCard card;
    private final VBox tip = new VBox(3);
    private final Set<String> clear = new HashSet<>(Set.of("shell"));
    private final Set<String> hidden = new HashSet<>();
    /** What is drawn besides, as a word and the key of the station. */
    private final Set<String> options = new HashSet<>();

    private final FlowShapes flow = new FlowShapes(this::picture);
    private Colouring colouring = Colouring.FIRST;
    /** Stations whose surfaces are shown besides the selected one. */
    private final Set<String> drawn = new HashSet<>();

    private String lane = "";
    private String quantity = "";
    private boolean shaded = true;
    private boolean edges;
    private FieldScene scene;
    private Session.Mark shownMark;
    private List<Object> sceneKey = List.of();

    public StationsView(Session session) {
        this.session = session;
        var add = new javafx.scene.control.MenuButton("+ Add");
        add.setId("add-station");
        add.getStyleClass().add("small-menu");
        add.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        for (NewStation.Kind kind : NewStation.Kind.values()) {
            String word = kind.word();
            add.getItems()
                    .add(item(
                            word.substring(0, 1).toUpperCase(Locale.ROOT) + word.substring(1),
                            () -> NewStation.add(session, kind)));
        }
        add.getItems()
                .add(item(
                        "Sheet from a file…",
                        () -> NewStation.sheet(session, pane.getScene().getWindow())));
        list = new SideList("Stations", add);
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
        field.onPin(p -> NewStation.pin(session, p));
        field.onMove(
                (i, p) -> selected()
                        .ifPresent(st -> session.edit("Move " + st.word(), s -> s.with(Grips.moved(st, i, p)), true)),
                () -> session.history().pause());
    }

    @Override
    public Node node() {
        return pane;
    }

    private java.util.Optional<Station> selected() {
        return session.study().station(session.selected("station"));
    }

    @Override
    public void refresh() {
        Study study = session.study();
        if (study.station(session.selected("station")).isEmpty()
                && !study.stations().isEmpty()) {
            session.select("station", study.stations().getFirst().id());
        }
        list.fill(groups(study), session.selected("station"), id -> session.select("station", id));
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
        Set<String> looked = new HashSet<>(drawn);
        looked.add(session.selected("station"));
        options.forEach(o -> looked.add(o.substring(o.indexOf(' ') + 1)));
        session.look(looked);
        tools(lanes, numbers);
        picture();
        card.refresh();
    }

    private static List<SideList.Group> groups(Study study) {
        var names = List.of("Points and curves", "Surfaces", "Sweeps", "Regions", "Parts");
        List<List<SideList.Item>> items = new ArrayList<>();
        names.forEach(n -> items.add(new ArrayList<>()));
        for (Station s : study.stations()) {
            String note =
                    switch (s) {
                        case Station.Path p ->
                            switch (p.sampling()) {
                                case Sampling.Even e -> String.valueOf(e.samples());
                                case Sampling.Clustered c -> String.valueOf(c.samples());
                                case Sampling.CellExact _ -> "exact";
                            };
                        case Station.Points p -> String.valueOf(p.points().size());
                        case Station.Sweep w -> String.valueOf(w.count());
                        default -> "";
                    };
            int group =
                    switch (s) {
                        case Station.Path _ -> 0;
                        case Station.Points _ -> 0;
                        case Station.CutCurve _ -> 0;
                        case Station.OnPart _ -> 4;
                        case Station.Surface _ -> 1;
                        case Station.Sweep _ -> 2;
                        case Station.Region _ -> 3;
                    };
            Feather icon =
                    switch (s) {
                        case Station.Points _ -> Feather.MAP_PIN;
                        case Station.CutCurve _ -> Feather.SCISSORS;
                        case Station.Path _ -> Feather.MINUS;
                        case Station.Surface _ -> s instanceof Station.OnPart ? Feather.BOX : Feather.LAYERS;
                        case Station.Sweep _ -> Feather.MENU;
                        case Station.Region _ -> Feather.PACKAGE;
                    };
            items.get(group).add(new SideList.Item(s.id(), s.name(), note, icon));
        }
        List<SideList.Group> groups = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            groups.add(new SideList.Group(names.get(i), items.get(i)));
        }
        return groups;
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
        laneBox.setMinWidth(72);
        tools.getChildren().add(laneBox);
        session.study().quantity(quantity).ifPresent(q -> {
            var box = Ui.choice("picture-quantity", numbers, q, Quantity::name, chosen -> {
                quantity = chosen.id();
                refresh();
            });
            box.setPrefWidth(140);
            box.setMinWidth(86);
            tools.getChildren().add(box);
        });
        tools.getChildren().addAll(colourMenu(), clearMenu(), flowMenu(), viewMenu());
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
        var facts = PictureFile.facts(session);
        facts.put("Lane", session.study().source(lane).map(Source::name).orElse(lane));
        facts.put("Station", selected().map(Station::name).orElse("none"));
        facts.put(
                "Quantity",
                session.study().quantity(quantity).map(Quantity::name).orElse("none"));
        if (scene != null) {
            double[] ends = ends();
            facts.put("Range", ends[0] + " to " + ends[1] + " " + scene.unit().label());
            facts.put(
                    "Time",
                    Double.isNaN(scene.run().time())
                            ? "none"
                            : String.valueOf(scene.run().time()));
        }
        PictureFile.write(
                session, file, (int) field.getWidth(), (int) field.getHeight(), field::picture, field::paint, facts);
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
                        item("From the front, −y", () -> field.look(0, 0)),
                        item("From the right, +x", () -> field.look(Math.PI / 2, 0)),
                        item("From the back, +y", () -> field.look(Math.PI, 0)),
                        item("From the left, −x", () -> field.look(-Math.PI / 2, 0)),
                        item("From above, +z", () -> field.look(0, Math.PI / 2)),
                        item("From below, −z", () -> field.look(0, -Math.PI / 2)),
                        item("From a corner", () -> field.look(0.62, 0.42)),
                        mesh,
                        new javafx.scene.control.SeparatorMenuItem(),
                        item("Save the picture…", this::export));
        return menu;
    }

    private static javafx.scene.control.MenuItem item(String text, Runnable action) {
        var item = new javafx.scene.control.MenuItem(text);
        item.setOnAction(e -> action.run());
        return item;
    }

    /** What is shown: each part whole, see-through or not at all, and surfaces of stations besides the selected one. */
    private Node clearMenu() {
        var menu = new javafx.scene.control.MenuButton("Shown");
        menu.setId("picture-shown");
        menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        menu.getStyleClass().add("small-menu");
        Run run = session.results().runs().get(lane);
        for (var part : run == null ? List.<Part>of() : run.parts()) {
            String name = part.name();
            var one = new javafx.scene.control.Menu(
                    name + (hidden.contains(name) ? ": hidden" : clear.contains(name) ? ": see-through" : ""));
            one.getItems()
                    .addAll(
                            item("whole", () -> see(name, false, false)),
                            item("see-through", () -> see(name, true, false)),
                            item("hidden", () -> see(name, false, true)));
            menu.getItems().add(one);
        }
        for (Station s : session.study().stations()) {
            if (s instanceof Station.Surface && !(s instanceof Station.OnPart)) {
                var item = new javafx.scene.control.CheckMenuItem(s.name());
                item.setSelected(drawn.contains(s.id()));
                item.setOnAction(e -> {
                    if (!drawn.remove(s.id())) {
                        drawn.add(s.id());
                    }
                    refresh();
                });
                menu.getItems().add(item);
            }
        }
        return menu;
    }

    private Node colourMenu() {
        var menu = Colouring.menu(colouring, this::ends, c -> {
            colouring = c;
            refresh();
        });
        var light = new javafx.scene.control.CheckMenuItem("with light and shadow");
        light.setSelected(shaded);
        light.setOnAction(e -> {
            shaded = !shaded;
            refresh();
        });
        menu.getItems().add(light);
        return menu;
    }

    /** Ends of the scale as they are shown. */
    private double[] ends() {
        return scene == null
                ? new double[] {0, 1}
                : new double[] {scene.unit().fromSi(scene.least()), scene.unit().fromSi(scene.greatest())};
    }

    /** What is drawn of a vector field at the selected station, and what is cut away or raised by a section. */
    private Node flowMenu() {
        var menu = new javafx.scene.control.MenuButton("Draw");
        menu.setId("picture-draw");
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        Station chosen = selected().orElse(null);
        if (chosen == null) {
            menu.setDisable(true);
            return menu;
        }
        boolean spread = chosen instanceof Station.Points
                || chosen instanceof Station.Path
                || chosen instanceof Station.Surface && !(chosen instanceof Station.OnPart);
        if (spread) {
            menu.getItems().add(toggle("Streamlines from " + chosen.name(), "streams " + chosen.id()));
            menu.getItems().add(toggle("Arrows on " + chosen.name(), "arrows " + chosen.id()));
        }
        if (chosen instanceof Station.Section) {
            menu.getItems().add(toggle("Arrows within " + chosen.name(), "within " + chosen.id()));
            menu.getItems().add(toggle(chosen.name() + " as a relief", "relief " + chosen.id()));
            menu.getItems().add(toggle("Cut away what lies before " + chosen.name(), "away " + chosen.id()));
        }
        menu.setDisable(menu.getItems().isEmpty());
        return menu;
    }

    private javafx.scene.control.CheckMenuItem toggle(String word, String what) {
        var item = new javafx.scene.control.CheckMenuItem(word);
        item.setSelected(options.contains(what));
        item.setOnAction(e -> {
            if (!options.remove(what)) {
                options.add(what);
            }
            picture();
        });
        return item;
    }

    /** The vector field that streamlines and arrows follow: that of the first vector quantity that the run has. */
    private lane.field.Field vector(Run run) {
        return session.study().quantities().stream()
                .map(x -> run.field(x.field()).orElse(null))
                .filter(f -> f != null && f.components() == 3)
                .findFirst()
                .orElse(null);
    }

    /** Shapes that a station adds to the picture. */
    private void shapes(Station s, Laid laid, Run run, List<lane.cut.Cut> out) {
        lane.field.Field v = vector(run);
        if (v == null || run.mesh().dimension() != 3) {
            return;
        }
        for (var kind : FlowShapes.Kind.values()) {
            String what =
                    switch (kind) {
                        case STREAMLINES -> "streams ";
                        case ARROWS -> "arrows ";
                        case TANGENTIAL_ARROWS -> "within ";
                    };
            if (options.contains(what + s.id())) {
                lane.cut.Cut made = flow.of(kind, s, laid, run, v);
                if (made != null) {
                    out.add(made);
                }
            }
        }
    }

    private void see(String part, boolean through, boolean not) {
        clear.remove(part);
        hidden.remove(part);
        if (through) {
            clear.add(part);
        }
        if (not) {
            hidden.add(part);
        }
        refresh();
    }

    private void picture() {
        Run run = session.results().runs().get(lane);
        Quantity q = session.study().quantity(quantity).orElse(null);
        if (run == null) {
            field.show(new FieldPane.Content(null, null, List.of(), List.of(), shaded, edges, session.palette()));
            return;
        }
        Lens lens = Lens.of(
                session.study().quantities(),
                session.study().units(),
                session.study().axis());
        Station chosen = selected().orElse(null);
        List<Part> extra = new ArrayList<>();
        List<Object> shown = new ArrayList<>();
        List<lane.picture.field.Scene.Away> away = new ArrayList<>();
        for (Station s : session.study().stations()) {
            Laid laid = laid(s);
            boolean wanted = s.equals(chosen) || drawn.contains(s.id());
            List<String> carried = q == null ? List.of() : List.of(q.field());
            List<lane.cut.Cut> cuts = new ArrayList<>();
            if (wanted && laid != null && laid.cut() != null && !laid.cut().empty()) {
                cuts.add(laid.cut());
            }
            shapes(s, laid, run, cuts);
            for (lane.cut.Cut cut : cuts) {
                Part part = cut.part(s.name(), run, carried);
                boolean relief =
                        s instanceof Station.Section && options.contains("relief " + s.id()) && cut == cuts.getFirst();
                extra.add(relief ? Reliefs.of((Station.Section) s, cut, part, run, q, lens) : part);
                shown.add(List.of(System.identityHashCode(cut), relief));
            }
            if (s instanceof Station.Section cut && options.contains("away " + s.id())) {
                away.add(new lane.picture.field.Scene.Away(cut.point(), cut.normal()));
            }
        }
        // Parts would hide what stands inside them.
        var how = new FieldScene.Shown(clear, hidden, !extra.isEmpty() && away.isEmpty());
        List<Object> key = List.of(System.identityHashCode(run), String.valueOf(q), lens, how, shown, colouring, away);
        if (!key.equals(sceneKey)) {
            scene = FieldScene.of(
                    run,
                    q,
                    lens,
                    how,
                    extra,
                    colouring,
                    session.study().lanes().stream()
                            .map(x -> session.results().runs().get(x.id()))
                            .filter(r -> r != null && r != run)
                            .toList(),
                    away);
            sceneKey = key;
        }
        List<Annotations.Line> lines = new ArrayList<>();
        for (Station s : session.study().stations()) {
            Annotations.Line line = Drawn.line(s, s.equals(chosen), samples(s), laid(s));
            if (line != null) {
                lines.add(line);
            }
        }
        Session.Mark mark = session.mark();
        if (mark != null && mark.lane().equals(lane)) {
            lines.add(Annotations.Line.dot(mark.name(), mark.place()));
        }
        field.show(new FieldPane.Content(
                scene,
                q == null || scene.values().stream().allMatch(java.util.Objects::isNull) ? null : scene.bar(q, shaded),
                lines,
                chosen == null ? List.of() : Grips.of(chosen),
                shaded,
                edges,
                session.palette()));
    }

    /** What the results know of a station as it stands now in the shown lane; null for nothing. */
    private Laid laid(Station s) {
        boolean fresh = session.results().study().station(s.id()).map(s::equals).orElse(false);
        return fresh
                ? session.results()
                        .laid()
                        .getOrDefault(s.id(), java.util.Map.of())
                        .get(lane)
                : null;
    }

    private Placement samples(Station s) {
        boolean fresh = session.results().study().station(s.id()).map(s::equals).orElse(false);
        return fresh
                ? session.results()
                        .placements()
                        .getOrDefault(s.id(), java.util.Map.of())
                        .get(lane)
                : null;
    }

    private void hover(Frame.Hit hit, double[] at) {
        if (hit == null || scene == null || hit.surface() >= scene.values().size()) {
            tip.setVisible(false);
            return;
        }
        var values = scene.values().get(hit.surface());
        var part = scene.parts().get(hit.surface());
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
                                (part.cut() ? "" : "part ") + hit.name() + ", face " + hit.face() + ", cell "
                                        + part.owner()[hit.face()],
                                "small",
                                "muted"),
                        Ui.label(place, "small", "muted"));
        if (q != null) {
            Lens lens = Lens.of(
                    session.study().quantities(),
                    session.study().units(),
                    session.study().axis());
            for (LanesAt.One one : LanesAt.of(session, hit.place(), q, lens)) {
                tip.getChildren()
                        .add(Ui.row(
                                12,
                                Ui.label(one.lane(), "small"),
                                Ui.spring(),
                                Ui.label(
                                        Double.isNaN(one.value())
                                                ? "outside"
                                                : Ticks.number(one.unit().fromSi(one.value()), Double.NaN) + " "
                                                        + one.unit().label(),
                                        "small",
                                        Double.isNaN(one.value()) ? "muted" : "second")));
            }
        }
        tip.applyCss();
        tip.autosize();
        double x = Math.min(at[0] + 14, field.getWidth() - tip.getWidth() - 4);
        double y = Math.min(at[1] + 14, field.getHeight() - tip.getHeight() - 4);
        tip.relocate(x, y);
        tip.setVisible(true);
    }
}
