package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.scene.control.MenuButton;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.station.Box;
import lane.station.Shape;
import lane.station.Station;
import lane.study.ShapingUnits;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** What the forms of all kinds of stations have in common. */
abstract class StationRows extends FormRows<Shape> {
    /** The station whose shape is changed. */
    final Station station;

    StationRows(Session session, Station station, Axis frame, boolean cylindrical) {
        super(session, frame, cylindrical);
        this.station = station;
    }

    @Override
    void put(String what, Supplier<Shape> make) {
        session.edit(what, s -> s.with(station.shaped(make.get())));
    }

    /** The box that a section or part is limited to. */
    void limits(@Nullable Box now, Function<Box, Shape> make) {
        row(
                "Limited to",
                Ui.segments(
                        List.of(false, true),
                        now != null,
                        b -> b ? "a box" : "nothing",
                        b -> put("Limit", () -> make.apply(b ? around() : null))));
        if (now != null) {
            point("Least corner", "least-", now.least(), p -> make.apply(new Box(p, now.greatest())));
            point("Greatest corner", "greatest-", now.greatest(), p -> make.apply(new Box(now.least(), p)));
        }
    }

    /** The bounds of the first run. */
    Box around() {
        double[] b = session.results().runs().values().stream()
                .findFirst()
                .map(r -> r.mesh().bounds())
                .orElse(new double[] {0, 1, 0, 1, 0, 1});
        double grow = 1e-3 * Math.max(b[1] - b[0], Math.max(b[3] - b[2], b[5] - b[4]));
        return new Box(
                new Point(b[0] - grow, b[2] - grow, b[4] - grow), new Point(b[1] + grow, b[3] + grow, b[5] + grow));
    }

    MenuButton partsMenu(String id, List<String> names, List<String> chosen, Consumer<List<String>> changed) {
        var menu = Named.menuButton(
                chosen.isEmpty() ? id.equals("curve-parts") ? "all" : "no other" : String.join(" + ", chosen));
        menu.setId(id);
        menu.getStyleClass().add("small-menu");
        menu.setMaxWidth(200);
        for (String name : names) {
            var item = Named.checkItem(name);
            item.setSelected(chosen.contains(name));
            item.setOnAction(e -> {
                List<String> next = new ArrayList<>(chosen);
                if (!next.remove(name)) {
                    next.add(name);
                }
                changed.accept(next);
            });
            menu.getItems().add(item);
        }
        return menu;
    }

    List<Quantity> scalars() {
        return session.numbers();
    }

    void quantity(String now, Function<String, Shape> make) {
        row(
                "Quantity",
                Ui.choice(
                        "shaped-by",
                        scalars(),
                        session.study().quantity(now).orElse(null),
                        q -> q == null ? "?" : q.name(),
                        q -> put("Quantity", () -> make.apply(q.id()))));
        ShapingUnits.doubt(session.results(), now).ifPresent(d -> {
            var label = Ui.label(d, "small", "ochre");
            label.setWrapText(true);
            label.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
            box.getChildren().add(label);
        });
    }

    /** Its own, or that of the fields where all lanes agree. */
    String unitOf(String quantity) {
        String own = session.study().quantity(quantity).map(Quantity::unit).orElse("");
        Unit found = own.isBlank() ? ShapingUnits.common(session.results(), quantity) : Unit.UNKNOWN;
        return own.isBlank() && found.known() && !found.equals(Unit.ONE) ? found.symbol() : own;
    }
}
