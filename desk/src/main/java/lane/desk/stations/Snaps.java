package lane.desk.stations;

import java.util.function.Consumer;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import lane.desk.Lengths;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.field.Part;
import lane.field.PartPlaces;
import lane.field.Run;
import lane.mesh.Point;
import lane.station.Frame;
import lane.station.Points;
import lane.station.Station;
import org.kordamp.ikonli.feather.Feather;

/** Places that a number can be taken from: middles and ends of parts, origins of frames, points, what was picked last. */
final class Snaps {
    private Snaps() {}

    /**
     * @param id of the number
     * @param taken the place in space
     */
    static MenuButton menu(Session session, String id, Consumer<Point> taken) {
        var menu = Named.menuButton("", Ui.icon(Feather.CROSSHAIR));
        menu.setId("snap-" + id);
        menu.getStyleClass().add("small-menu");
        menu.setAccessibleText("Snap to a place");
        Tip.on(menu, "Snap to a place");
        menu.getItems().add(Named.item("looking"));
        menu.setOnShowing(e -> fill(session, menu, taken));
        return menu;
    }

    private static void fill(Session session, MenuButton menu, Consumer<Point> taken) {
        menu.getItems().clear();
        var lengths = Lengths.of(session);
        if (session.picked() != null) {
            menu.getItems().add(item(lengths, "Picked last", session.picked(), taken));
        }
        for (Frame f : session.study().frames()) {
            try {
                Point origin = session.study().placed(f.id()).origin();
                menu.getItems().add(item(lengths, "Origin of " + f.name(), origin, taken));
            } catch (lane.base.LaneException e) {
                // Its card tells what is wrong with the frame.
            }
        }
        for (Station s : session.study().stations()) {
            if (s.shape() instanceof Points p && p.points().size() == 1) {
                Points placed = (Points) session.placed(s).shape();
                menu.getItems()
                        .add(item(lengths, "Point " + s.name(), placed.points().getFirst(), taken));
            }
        }
        Run run = session.study().finest().stream()
                .map(r -> session.results().runs().get(r))
                .filter(java.util.Objects::nonNull)
                .findFirst()
                .orElse(session.results().runs().values().stream().findFirst().orElse(null));
        for (Part part : run == null ? java.util.List.<Part>of() : run.parts()) {
            var of = Named.menu("Part " + part.name());
            of.getItems().add(item(lengths, "Centre", PartPlaces.centre(part), taken));
            for (int d = 0; d < 3; d++) {
                String axis = "xyz".substring(d, d + 1);
                of.getItems().add(item(lengths, "Least " + axis, PartPlaces.extreme(part, d, false), taken));
                of.getItems().add(item(lengths, "Greatest " + axis, PartPlaces.extreme(part, d, true), taken));
            }
            menu.getItems().add(of);
        }
        menu.getItems().add(item(lengths, "Origin", new Point(0, 0, 0), taken));
    }

    private static MenuItem item(Lengths lengths, String word, Point place, Consumer<Point> taken) {
        var item = Named.item(word + "  (" + lengths.three(place) + ")");
        item.setOnAction(e -> taken.accept(place));
        return item;
    }
}
