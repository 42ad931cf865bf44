package lane.desk.stations;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Entry;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.ShownPath;
import lane.desk.Ui;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.station.Enclosing;
import lane.station.Facing;
import lane.station.Isosurface;
import lane.station.OnPart;
import lane.station.Region;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Sheet;
import lane.station.Shell;
import lane.station.Station;
import org.jspecify.annotations.Nullable;

/** The numbers of parts, sections, isosurfaces, shells and sheets. */
final class SurfaceForm extends StationRows {
    private SurfaceForm(Session session, Station station, Axis frame, boolean cylindrical) {
        super(session, station, frame, cylindrical);
    }

    static Node of(Session session, Station station, Axis frame, boolean cylindrical) {
        var form = new SurfaceForm(session, station, frame, cylindrical);
        switch (station.shape()) {
            case OnPart p -> form.part(p);
            case Section s -> form.section(s);
            case Isosurface i -> form.isosurface(i);
            case Shell s -> form.shell(s);
            case Sheet s -> form.sheet(s);
            case Enclosing e -> form.enclosing(e);
            default -> {}
        }
        return form.box;
    }

    private void part(OnPart p) {
        List<String> names = session.partNames();
        row(
                "Part",
                Ui.choice(
                        "part",
                        names,
                        p.part(),
                        n -> n,
                        n -> put("Choose part", () -> new OnPart(n, p.more(), p.facing(), p.box()))));
        row(
                "with",
                partsMenu(
                        "more-parts",
                        names,
                        p.more(),
                        l -> put("Further parts", () -> new OnPart(p.part(), l, p.facing(), p.box()))));
        var facing = p.facing();
        row(
                "Faces",
                Ui.segments(
                        List.of(false, true),
                        facing != null,
                        b -> b ? "by direction" : "all",
                        b -> put(
                                "Faces",
                                () -> new OnPart(
                                        p.part(), p.more(), b ? new Facing(new Point(0, 0, 1), 30) : null, p.box()))));
        if (facing != null) {
            direction(
                    "Facing",
                    "facing-",
                    facing.direction(),
                    d -> new OnPart(p.part(), p.more(), new Facing(d, facing.within()), p.box()));
            plain(
                    "within",
                    "within",
                    facing.within(),
                    "degrees",
                    v -> new OnPart(p.part(), p.more(), new Facing(facing.direction(), v), p.box()));
        }
        limits(p.box(), b -> new OnPart(p.part(), p.more(), p.facing(), b));
    }

    private void section(Section s) {
        point("Through", "through-", s.point(), p -> s.at(p, s.normal()));
        direction("Looks along", "normal-", s.normal(), n -> s.at(s.point(), n));
        List<String> ways = List.of("x", "y", "z", "axis");
        row(
                "Square to",
                Ui.segments(
                        ways,
                        "",
                        w -> w,
                        w -> put(
                                "Turn section",
                                () -> s.at(
                                        s.point(),
                                        switch (w) {
                                            case "x" -> new Point(1, 0, 0);
                                            case "y" -> new Point(0, 1, 0);
                                            case "z" -> new Point(0, 0, 1);
                                            default ->
                                                frame.inDirection(
                                                        session.study().axis().direction());
                                        }))));
        row("or", threePoints(s));
        limits(s.box(), b -> new Section(s.point(), s.normal(), b, s.piece()));
        row(
                "Pieces",
                Ui.segments(
                        List.of(false, true),
                        s.piece() != null,
                        b -> b ? "nearest to" : "all",
                        b -> put("Pieces", () -> new Section(s.point(), s.normal(), s.box(), b ? s.point() : null))));
        if (s.piece() != null) {
            point("Nearest to", "piece-", s.piece(), p -> new Section(s.point(), s.normal(), s.box(), p));
        }
    }

    /** A menu in which three points give the plane. */
    private MenuButton threePoints(Section s) {
        var menu = Named.menuButton("through three points");
        menu.setId("three-points");
        menu.getStyleClass().add("small-menu");
        TextField[] fields = new TextField[3];
        var box = new VBox(6, Ui.label("each as x, y, z in mm, parted by spaces", "small", "muted"));
        for (int i = 0; i < 3; i++) {
            fields[i] = Entry.of(new TextField());
            fields[i].setId("three-points-" + (i + 1));
            fields[i].setPromptText("0 0 60");
            box.getChildren().add(Ui.row(6, Ui.cell(String.valueOf(i + 1), 14, "small", "muted"), fields[i]));
        }
        var make = Ui.button(
                "Put the section there",
                () -> {
                    put(
                            "Section through three points",
                            () -> s.through(place(fields[0]), place(fields[1]), place(fields[2])));
                    menu.hide();
                },
                "main");
        make.setId("three-points-make");
        box.getChildren().add(make);
        box.setStyle("-fx-padding: 8;");
        menu.getItems().add(new javafx.scene.control.CustomMenuItem(box, false));
        return menu;
    }

    private Point place(TextField field) {
        List<Double> xyz = values(field.getText(), lengths.symbol());
        if (xyz.size() != 3) {
            throw new LaneException("\"" + field.getText() + "\" is no point; write three numbers, like 0 0 60.");
        }
        return new Point(lengths.metres(xyz.get(0)), lengths.metres(xyz.get(1)), lengths.metres(xyz.get(2)));
    }

    private void isosurface(Isosurface i) {
        quantity(i.quantity(), q -> new Isosurface(q, i.values()));
        String values = String.join("; ", i.values().stream().map(Ui::shortest).toList());
        var field = Ui.text(
                "iso-values",
                values,
                t -> put("Values", () -> new Isosurface(i.quantity(), values(t, unitOf(i.quantity())))));
        field.setPrefWidth(130);
        row("Values", field, unit(unitOf(i.quantity())));
        box.getChildren().add(Ui.label("several are parted by semicolons", "small", "muted"));
    }

    private void shell(Shell s) {
        length("Radius", "radius", s.radius(), v -> shell(s.axis(), v, s.from(), s.to(), s.seam()));
        row(
                "Length",
                Ui.segments(
                        List.of(false, true),
                        s.from() != null,
                        b -> b ? "from, to" : "all",
                        b -> put(
                                "Length",
                                () -> shell(
                                        s.axis(),
                                        s.radius(),
                                        b ? (Double) 0.0 : null,
                                        b ? (Double) Math.max(1e-3, s.radius()) : null,
                                        s.seam()))));
        if (s.from() != null && s.to() != null) {
            length("from", "from", s.from(), v -> shell(s.axis(), s.radius(), v, s.to(), s.seam()));
            length("to", "to", s.to(), v -> shell(s.axis(), s.radius(), s.from(), v, s.seam()));
        }
        plain("Seam at", "seam", s.seam(), "degrees", v -> shell(s.axis(), s.radius(), s.from(), s.to(), v));
        axis(s.axis(), a -> shell(a, s.radius(), s.from(), s.to(), s.seam()));
    }

    private static Shape shell(Axis axis, double radius, @Nullable Double from, @Nullable Double to, double seam) {
        return new Shell(axis, radius, from, to, seam);
    }

    private void sheet(Sheet s) {
        row("File", ShownPath.of(session, s.file(), 190, "second"));
        var unit = Ui.text(
                "sheet-unit",
                s.length(),
                t -> put("Unit", () -> new Sheet(s.file(), t, s.by(), s.turned(), s.sampled(), s.in())));
        unit.setPrefWidth(64);
        row("In", unit, unit("unit of its coordinates"));
        point("Moved by", "by-", s.by(), p -> new Sheet(s.file(), s.length(), p, s.turned(), s.sampled(), s.in()));
        direction(
                "Turned before, degrees about",
                "turned-",
                s.turned(),
                p -> new Sheet(s.file(), s.length(), s.by(), p, s.sampled(), s.in()));
        row(
                "Values",
                Ui.segments(
                        List.of(false, true),
                        s.sampled(),
                        b -> b ? "at its nodes" : "cut at cells",
                        b -> put("Values", () -> new Sheet(s.file(), s.length(), s.by(), s.turned(), b, s.in()))));
    }

    private void enclosing(Enclosing e) {
        List<Station> regions = session.study().stations().stream()
                .filter(x -> x.shape() instanceof Region)
                .toList();
        row(
                "Around",
                Ui.choice(
                        "enclosed-region",
                        regions,
                        session.study().station(e.region()).orElse(null),
                        r -> r == null ? "?" : r.name(),
                        r -> put("Enclosed region", () -> new Enclosing(r.id()))));
        box.getChildren().add(Ui.label("looks out of the region", "small", "muted"));
    }
}
