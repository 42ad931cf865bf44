package lane.desk.stations;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;
import lane.desk.Chosen;
import lane.desk.Named;
import lane.desk.Nothing;
import lane.desk.PictureFile;
import lane.desk.Session;
import lane.desk.SideList;
import lane.desk.Ui;
import lane.desk.View;
import lane.mesh.Point;
import lane.picture.field.DrawnFrame.Hit;
import lane.quantity.Quantity;
import lane.station.Frame;
import lane.station.Station;
import lane.study.Source;
import lane.study.Study;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;

/** The field picture between the list of stations and the placing card of the selected one. */
public final class StationsView implements View {
    /** Before the key of a frame in the list of stations. */
    static final String FRAME = "frame:";

    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final SideList list;
    private final PictureState state = new PictureState();
    private final PicturePair pictures = new PicturePair();
    private final PictureScene scenes;
    private final PictureMenus menus;
    private final HBox tools = Ui.row(6);
    private final PlacingCard card;
    private final PlaceTip tip;
    private Session.@Nullable Mark shownMark;
    private String shownColour = "";

    public StationsView(Session session) {
        this.session = session;
        scenes = new PictureScene(session, state, this::picture);
        menus = new PictureMenus(session, state, pictures, this::refresh);
        tip = new PlaceTip(session);
        var add = Named.menuButton("+ Add");
        add.setId("add-station");
        add.getStyleClass().add("small-menu");
        add.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        add.setOnShowing(e -> add.getItems().setAll(makers()));
        // A menu without items does not open.
        add.getItems().setAll(makers());
        list = new SideList(session, "Stations", "station", add);
        list.whenEmpty(this::nothing);
        card = new PlacingCard(session);
        tools.getStyleClass().add("toolbar");
        tools.setMinHeight(40);
        var over = new Pane(tip);
        over.setMouseTransparent(true);
        var middle = new BorderPane(new StackPane(pictures, over), tools, null, null, null);
        pane.setLeft(list.node());
        pane.setCenter(middle);
        pane.setRight(card.node());
        listen(pictures.first(), 0);
        listen(pictures.second(), 1);
    }

    /** The ways to a station; one that cannot be gone now says why. */
    private List<MenuItem> makers() {
        List<MenuItem> out = new ArrayList<>();
        for (ShapeForm form : ShapeForm.ALL.all()) {
            var maker = form.maker();
            if (maker != null) {
                String word = form.word().replace('-', ' ');
                String title = lane.base.Plain.title(word);
                String lacks = form.lacks(session);
                var item =
                        PictureMenus.item(lacks.isBlank() ? title : title + ": " + lacks, () -> maker.accept(session));
                item.setDisable(!lacks.isBlank());
                out.add(item);
            }
        }
        out.add(PictureMenus.item(
                "Sheet from a file…",
                () -> NewStation.sheet(session, pane.getScene().getWindow())));
        out.add(new javafx.scene.control.SeparatorMenuItem());
        out.add(PictureMenus.item("Frame", () -> NewStation.frame(session)));
        return out;
    }

    /** What a station is, and the first ones to make. */
    private Node nothing() {
        boolean runs = !session.results().runs().isEmpty();
        return Nothing.aside(
                "A station is where all lanes are looked at: a line, a section, a part, a region.",
                runs
                        ? List.of(
                                new Nothing.Step("Add a line", () -> NewStation.line(session)),
                                new Nothing.Step("Add a section", () -> NewStation.section(session)),
                                new Nothing.Step(
                                        "Add a part",
                                        session.partNames().isEmpty()
                                                ? "The runs have no boundary parts; they are made at Intake, on a run's sheet."
                                                : "",
                                        () -> NewStation.part(session)))
                        : List.of(new Nothing.Step("Go to Intake", () -> session.go(1))));
    }

    private void listen(FieldPane field, int slot) {
        field.onHover((hit, at) -> hover(hit, slot, at));
        field.onPin(p -> {
            Point at = scenes.place(slot, p).inSpace();
            session.pick(at);
            NewStation.pin(session, at);
        });
        field.onClick(p -> {
            session.pick(scenes.place(slot, p).inSpace());
            if (state.measured != null) {
                state.measure(p);
                picture();
            }
            tools();
        });
        field.onDrop(p ->
                session.carry().drop(p == null ? null : scenes.place(slot, p).inSpace()));
        field.onMove(
                (i, p) -> selected()
                        .ifPresent(st -> session.edit(
                                "Move " + st.word(),
                                s -> s.with(s.local(Grips.moved(session.placed(st), i, p))),
                                true)),
                () -> session.history().pause());
    }

    @Override
    public Node node() {
        return pane;
    }

    private Optional<Station> selected() {
        return session.study().station(session.selected(Chosen.STATION));
    }

    private Optional<Quantity> quantity() {
        return session.study().quantity(state.quantity);
    }

    @Override
    public void refresh() {
        Study study = session.study();
        if (study.station(session.selected(Chosen.STATION)).isEmpty()
                && study.frame(scenes.frameKey()).isEmpty()
                && !study.stations().isEmpty()) {
            session.select(Chosen.STATION, study.stations().getFirst().id());
        }
        list.fill(groups(study), session.selected(Chosen.STATION), id -> session.select(Chosen.STATION, id));
        List<Source> lanes = lanes();
        if (session.mark() != null && !session.mark().equals(shownMark)) {
            shownMark = session.mark();
            state.lane = shownMark.lane();
        }
        if (lanes.stream().noneMatch(s -> s.id().equals(state.lane))) {
            state.lane = study.finest().stream()
                    .filter(id -> lanes.stream().anyMatch(s -> s.id().equals(id)))
                    .findFirst()
                    .orElse(lanes.isEmpty() ? "" : lanes.getLast().id());
        }
        if (lanes.stream().noneMatch(s -> s.id().equals(state.beside)) || state.beside.equals(state.lane)) {
            state.beside = "";
            state.difference = false;
        }
        String asked = session.selected(Chosen.COLOUR);
        if (!asked.equals(shownColour)) {
            shownColour = asked;
            state.quantity = asked.isBlank() ? state.quantity : asked;
        }
        boolean ofLines = state.quantity.equals(PictureState.TIME) || state.quantity.equals(PictureState.LENGTH);
        List<Quantity> numbers = numbers();
        if (!ofLines && numbers.stream().noneMatch(q -> q.id().equals(state.quantity))) {
            state.quantity = numbers.isEmpty() ? "" : numbers.getFirst().id();
        }
        Set<String> looked = new HashSet<>(state.drawn);
        looked.add(session.selected(Chosen.STATION));
        state.options.forEach(o -> looked.add(o.substring(o.indexOf(' ') + 1)));
        session.look(looked);
        tools();
        picture();
        card.refresh();
    }

    private List<Source> lanes() {
        return session.study().lanes().stream()
                .filter(s -> session.results().runs().containsKey(s.id()))
                .toList();
    }

    private List<Quantity> numbers() {
        return session.numbers();
    }

    private static List<SideList.Group> groups(Study study) {
        Map<String, List<SideList.Item>> groups = new LinkedHashMap<>();
        if (!study.frames().isEmpty()) {
            groups.put("Frames", new ArrayList<>());
        }
        for (Frame f : study.frames()) {
            Objects.requireNonNull(groups.get("Frames"))
                    .add(new SideList.Item(FRAME + f.id(), f.name(), "", Feather.MOVE));
        }
        ShapeForm.ALL.all().forEach(f -> groups.putIfAbsent(f.group(), new ArrayList<>()));
        for (Station s : study.stations()) {
            ShapeForm form = ShapeForm.ALL.of(s.shape());
            Objects.requireNonNull(groups.get(form.group()))
                    .add(new SideList.Item(s.id(), s.name(), form.note(s.shape()), form.icon()));
        }
        return groups.entrySet().stream()
                .map(g -> new SideList.Group(g.getKey(), g.getValue()))
                .toList();
    }

    private void tools() {
        tools.getChildren().clear();
        List<Source> lanes = lanes();
        if (lanes.isEmpty()) {
            boolean some = session.study().sources().stream().anyMatch(Source.Simulation.class::isInstance);
            tools.getChildren()
                    .addAll(
                            Ui.label(
                                    !some
                                            ? "There is no run to show yet."
                                            : session.computing()
                                                    ? "The runs are being read."
                                                    : "No run is switched on and read; see the lanes above, and Intake.",
                                    "muted"),
                            Ui.button("Go to Intake", () -> session.go(1), "small-button"));
            return;
        }
        if (session.cameFrom() == 5) {
            var back = Ui.button("Back to the check", () -> session.go(5), "small-button");
            back.setId("back-to-check");
            tools.getChildren().add(back);
        }
        var laneBox = Ui.choice(
                "picture-lane", lanes, session.study().source(state.lane).orElseThrow(), Source::name, s -> {
                    state.lane = s.id();
                    refresh();
                });
        laneBox.setPrefWidth(104);
        laneBox.setMinWidth(72);
        tools.getChildren().add(laneBox);
        // Numbers of streamlines stand beside the quantities where there are streamlines.
        List<String> keys = new ArrayList<>(numbers().stream().map(Quantity::id).toList());
        if (state.options.stream().anyMatch(o -> o.startsWith("streams "))) {
            keys.addAll(List.of(PictureState.TIME, PictureState.LENGTH));
        }
        if (!state.quantity.isEmpty()) {
            var box = Ui.choice("picture-quantity", keys, state.quantity, this::word, chosen -> {
                state.quantity = chosen;
                refresh();
            });
            box.setPrefWidth(140);
            box.setMinWidth(86);
            tools.getChildren().add(box);
        }
        tools.getChildren().addAll(menus.colour(this::ends), menus.shown(), menus.draw(), menus.view(this::export));
    }

    private String word(String key) {
        return session.study().quantity(key).map(Quantity::name).orElse(key);
    }

    private void export() {
        if (scenes.scene(0) == null || pictures.first().camera() == null) {
            session.say("There is no picture to export yet.");
            return;
        }
        var window = pane.getScene().getWindow();
        PictureSize.ask(window, (int) pictures.getWidth(), (int) pictures.getHeight())
                .ifPresent(size -> PictureFile.ask(window, state.lane + "-" + state.quantity + ".png")
                        .ifPresent(file -> export(file, size)));
    }

    /** Writes the picture as it is shown; PNG or SVG by the file's name. */
    void export(java.nio.file.Path file) {
        export(file, PictureSize.PLAIN);
    }

    void export(java.nio.file.Path file, PictureSize size) {
        var facts = PictureFile.facts(session);
        facts.put("Lane", session.study().source(state.lane).map(Source::name).orElse(state.lane));
        if (!state.beside.isEmpty()) {
            String other =
                    session.study().source(state.beside).map(Source::name).orElse(state.beside);
            facts.put(state.difference ? "Difference to" : "Beside", other);
        }
        facts.put("Station", selected().map(Station::name).orElse("none"));
        facts.put("Quantity", state.quantity.isEmpty() ? "none" : word(state.quantity));
        FieldScene scene = scenes.scene(0);
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
                session,
                file,
                (int) pictures.getWidth(),
                (int) pictures.getHeight(),
                size.pixelsAPoint(pictures.getWidth()),
                size.dpi(pictures.getWidth()),
                pictures::picture,
                pictures::paint,
                facts);
    }

    /** Ends of the scale as they are shown. */
    private double[] ends() {
        FieldScene scene = scenes.scene(0);
        return scene == null
                ? new double[] {0, 1}
                : new double[] {scene.unit().fromSi(scene.least()), scene.unit().fromSi(scene.greatest())};
    }

    private void picture() {
        FieldPane.Content first = scenes.content(0);
        String name = session.study().source(state.lane).map(Source::name).orElse("");
        String other = session.study().source(state.beside).map(Source::name).orElse("");
        boolean two = !state.beside.isEmpty();
        pictures.show(
                first,
                name,
                two ? scenes.content(1) : null,
                state.difference ? name + " less " + other + ", on the mesh of " + other : other);
        scenes.settle();
    }

    private void hover(Hit hit, int slot, double[] at) {
        FieldScene scene = scenes.scene(slot);
        double x = at[0] + (slot == 1 ? pictures.first().getWidth() : 0);
        String name = quantity().map(Quantity::name).orElse(state.quantity);
        tip.show(
                hit,
                scene,
                hit == null ? null : scenes.place(slot, hit.place()),
                quantity().orElse(null),
                slot == 1 && state.difference ? "Δ " + name : name,
                scenes.lens(),
                new double[] {x, at[1]},
                pictures.getWidth(),
                pictures.getHeight());
    }
}
