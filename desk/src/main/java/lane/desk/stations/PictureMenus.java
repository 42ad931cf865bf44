package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;
import lane.desk.Carry;
import lane.desk.Chosen;
import lane.desk.Named;
import lane.desk.Session;
import lane.field.Part;
import lane.field.Run;
import lane.picture.field.Camera;
import lane.reading.Reading;
import lane.station.Enclosing;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Region;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Within;
import lane.study.PictureNote;
import lane.study.SavedView;
import lane.study.Source;

/** The menus over the field picture. */
final class PictureMenus {
    private final Session session;
    private final PictureState state;
    private final PicturePair pictures;
    private final Runnable changed;

    /** @param changed told when the picture must be made anew */
    PictureMenus(Session session, PictureState state, PicturePair pictures, Runnable changed) {
        this.session = session;
        this.state = state;
        this.pictures = pictures;
        this.changed = changed;
    }

    static MenuItem item(String text, Runnable action) {
        var item = Named.item(text);
        item.setOnAction(e -> action.run());
        return item;
    }

    private CheckMenuItem check(String text, boolean on, Runnable action) {
        var item = Named.checkItem(text);
        item.setSelected(on);
        item.setOnAction(e -> {
            action.run();
            changed.run();
        });
        return item;
    }

    private static MenuButton menu(String text, String id) {
        var menu = Named.menuButton(text);
        menu.setId(id);
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        return menu;
    }

    /** @param ends of the scale as they are now */
    Node colour(java.util.function.Supplier<double[]> ends) {
        MenuButton menu = Colouring.menu(state.colouring, ends, c -> {
            state.colouring = c;
            changed.run();
        });
        menu.getItems().add(check("with light and shadow", state.shaded, () -> state.shaded = !state.shaded));
        return menu;
    }

    /** What is shown: each part whole, see-through or not at all, and surfaces of stations besides the selected one. */
    Node shown() {
        MenuButton menu = menu("Shown", "picture-shown");
        Run run = session.results().runs().get(state.lane);
        for (Part part : run == null ? List.<Part>of() : run.parts()) {
            String name = part.name();
            String now = state.hidden.contains(name) ? ": hidden" : state.clear.contains(name) ? ": see-through" : "";
            var one = Named.menu(name + now);
            one.getItems()
                    .addAll(
                            item("whole", () -> see(name, false, false)),
                            item("see-through", () -> see(name, true, false)),
                            item("hidden", () -> see(name, false, true)));
            menu.getItems().add(one);
        }
        for (Station s : session.study().stations()) {
            if (s.shape() instanceof Shape.Surface && !(s.shape() instanceof OnPart)) {
                menu.getItems()
                        .add(check(
                                s.name(),
                                state.drawn.contains(s.id()),
                                () -> PictureState.toggle(state.drawn, s.id())));
            }
        }
        return menu;
    }

    private void see(String part, boolean through, boolean not) {
        state.clear.remove(part);
        state.hidden.remove(part);
        if (through) {
            state.clear.add(part);
        }
        if (not) {
            state.hidden.add(part);
        }
        changed.run();
    }

    /** What is drawn of a vector field at the selected station, and what is cut away or raised. */
    Node draw() {
        MenuButton menu = menu("Draw", "picture-draw");
        Station chosen =
                session.study().station(session.selected(Chosen.STATION)).orElse(null);
        if (chosen != null) {
            boolean ball = chosen.shape() instanceof Region r && r.within() instanceof Within.Ball;
            boolean spread = chosen.shape() instanceof Points
                    || chosen.shape() instanceof Shape.Path
                    || chosen.shape() instanceof Shape.Surface
                            && !(chosen.shape() instanceof OnPart || chosen.shape() instanceof Enclosing)
                    || ball;
            if (spread) {
                menu.getItems().add(toggle("Streamlines from " + chosen.name(), "streams " + chosen.id()));
            }
            if (spread && !ball) {
                menu.getItems().add(toggle("Arrows on " + chosen.name(), "arrows " + chosen.id()));
            }
            if (chosen.shape() instanceof Section) {
                menu.getItems().add(toggle("Arrows within " + chosen.name(), "within " + chosen.id()));
                menu.getItems().add(toggle(chosen.name() + " as a relief", "relief " + chosen.id()));
                menu.getItems().add(toggle("Cut away what lies before " + chosen.name(), "away " + chosen.id()));
            }
            if (chosen.shape() instanceof Region r && r.within() instanceof Within.InBox) {
                menu.getItems().add(toggle("Cut away what lies in " + chosen.name(), "away " + chosen.id()));
            }
        }
        menu.setDisable(menu.getItems().isEmpty());
        return menu;
    }

    private CheckMenuItem toggle(String word, String what) {
        return check(word, state.options.contains(what), () -> PictureState.toggle(state.options, what));
    }

    /** @param export saves the picture */
    Node view(Runnable export) {
        MenuButton menu = menu("View", "picture-view");
        FieldPane field = pictures.first();
        menu.getItems()
                .addAll(
                        item("Fit", field::fit),
                        item("Fit the station", this::fitStation),
                        item("From the front, −y", () -> field.look(0, 0)),
                        item("From the right, +x", () -> field.look(Math.PI / 2, 0)),
                        item("From the back, +y", () -> field.look(Math.PI, 0)),
                        item("From the left, −x", () -> field.look(-Math.PI / 2, 0)),
                        item("From above, +z", () -> field.look(0, Math.PI / 2)),
                        item("From below, −z", () -> field.look(0, -Math.PI / 2)),
                        item("From a corner", () -> field.look(0.62, 0.42)),
                        views(),
                        new SeparatorMenuItem(),
                        check("Flat, with axes", state.flat, () -> state.flat = !state.flat),
                        beside(),
                        turnAbout(),
                        new SeparatorMenuItem(),
                        check("Mesh edges", state.edges, () -> state.edges = !state.edges),
                        check("Measure", state.measured != null, this::measure),
                        notes(),
                        new SeparatorMenuItem(),
                        item("Save the picture…", export));
        return menu;
    }

    private void measure() {
        state.measured = state.measured == null ? new ArrayList<>() : null;
        pictures.each(p -> p.measure(state.measured != null));
    }

    private MenuItem turnAbout() {
        var menu = Named.menu("Turn about");
        MenuItem picked = item("the place picked last", () -> pictures.each(p -> p.turnAbout(session.picked())));
        picked.setDisable(session.picked() == null);
        menu.getItems().addAll(picked, item("the middle of the picture", () -> pictures.each(p -> p.turnAbout(null))));
        return menu;
    }

    private void fitStation() {
        double[] b = StationBox.of(session, session.selected(Chosen.STATION), state.lane);
        if (b == null) {
            session.say("The station has no place in this lane to look at.");
        } else {
            pictures.first().fit(b);
        }
    }

    /** One other lane beside the shown one, or the difference of both. */
    private Menu beside() {
        var menu = Named.menu("Beside it");
        menu.setId("picture-beside");
        List<Source> others = session.study().lanes().stream()
                .filter(s -> session.results().runs().containsKey(s.id()) && !s.id().equals(state.lane))
                .toList();
        menu.getItems().add(radio("nothing", state.beside.isEmpty(), () -> {
            state.beside = "";
            state.difference = false;
        }));
        for (Source s : others) {
            boolean now = s.id().equals(state.beside);
            menu.getItems().add(radio(s.name(), now && !state.difference, () -> {
                state.beside = s.id();
                state.difference = false;
            }));
        }
        menu.getItems().add(new SeparatorMenuItem());
        for (Source s : others) {
            boolean now = s.id().equals(state.beside);
            menu.getItems().add(radio("the difference to " + s.name(), now && state.difference, () -> {
                state.beside = s.id();
                state.difference = true;
            }));
        }
        return menu;
    }

    private RadioMenuItem radio(String text, boolean on, Runnable action) {
        var item = Named.radioItem(text);
        item.setSelected(on);
        item.setOnAction(e -> {
            action.run();
            changed.run();
        });
        return item;
    }

    private Menu views() {
        var menu = Named.menu("By name");
        for (SavedView v : session.study().views()) {
            menu.getItems().add(item(v.name(), () -> pictures.first()
                    .look(new Camera(
                            v.centre(), v.yaw(), v.pitch(), pictures.first().getHeight() / v.height()))));
        }
        if (!session.study().views().isEmpty()) {
            var forget = Named.menu("Forget");
            for (SavedView v : session.study().views()) {
                forget.getItems()
                        .add(item(
                                v.name(),
                                () -> session.edit(
                                        "Forget view",
                                        s -> s.withViews(l -> {
                                            l.remove(v);
                                            return l;
                                        }))));
            }
            menu.getItems().addAll(new SeparatorMenuItem(), forget);
        }
        menu.getItems().add(item("Keep this view…", this::keepView));
        return menu;
    }

    private void keepView() {
        Camera c = pictures.first().camera();
        if (c == null) {
            return;
        }
        var ask = new javafx.scene.control.TextInputDialog(
                "View " + (session.study().views().size() + 1));
        ask.setTitle("Keep this view");
        ask.setHeaderText(null);
        ask.setContentText("Its name");
        ask.initOwner(pictures.getScene().getWindow());
        ask.showAndWait().ifPresent(name -> keepView(name, c));
    }

    void keepView(String name, Camera c) {
        session.edit(
                "Keep view",
                s -> s.withViews(l -> {
                    l.removeIf(v -> v.name().equals(name));
                    l.add(new SavedView(
                            name,
                            c.centre(),
                            c.yaw(),
                            c.pitch(),
                            pictures.first().getHeight() / c.scale(),
                            state.quantity));
                    return l;
                }));
    }

    /** Notes with live numbers, put where was picked last. */
    private Menu notes() {
        var menu = Named.menu("Notes");
        menu.setId("picture-notes");
        var place = Named.menu("Place a number where was picked last");
        place.setDisable(session.picked() == null);
        for (Reading r : session.study().readings()) {
            if (!r.curve()) {
                place.getItems().add(item(r.name(), () -> note("", r.id())));
            }
        }
        var words = item("Place words there…", () -> {
            var ask = new javafx.scene.control.TextInputDialog("");
            ask.setTitle("A note in the picture");
            ask.setHeaderText(null);
            ask.setContentText("Words");
            ask.initOwner(pictures.getScene().getWindow());
            ask.showAndWait().filter(t -> !t.isBlank()).ifPresent(t -> note(t, ""));
        });
        words.setDisable(session.picked() == null);
        menu.getItems().addAll(place, words);
        for (PictureNote n : session.study().notes()) {
            String name = n.text().isBlank()
                    ? session.study().reading(n.reading()).map(Reading::name).orElse("?")
                    : n.text();
            menu.getItems()
                    .add(item(
                            "Remove " + name,
                            () -> session.edit(
                                    "Remove note",
                                    s -> s.withNotes(l -> {
                                        l.remove(n);
                                        return l;
                                    }))));
        }
        return menu;
    }

    void note(String text, String reading) {
        Carry.note(session, text, reading, session.picked());
    }
}
