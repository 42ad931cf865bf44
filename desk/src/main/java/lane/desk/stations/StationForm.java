package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.picture.Ticks;
import lane.quantity.Quantity;
import lane.station.Abscissa;
import lane.station.Frame;
import lane.station.Sampling;
import lane.station.Station;
import lane.station.Station.Box;
import lane.station.Within;

/** The numbers of a station by kind, lengths in millimetres and angles in degrees. */
final class StationForm extends Rows<Station> {
    private final Station it;

    private StationForm(Session session, Station it, Axis frame, boolean cylindrical) {
        super(session, frame, cylindrical);
        this.it = it;
    }

    static Node of(Session session, Station station) {
        Axis frame = Axis.Z;
        String trouble = "";
        try {
            frame = session.study().placed(session.study().inFrame().getOrDefault(station.id(), ""));
        } catch (LaneException e) {
            trouble = e.getMessage();
        }
        boolean round =
                session.study().frameOf(station.id()).map(Frame::cylindrical).orElse(false);
        var form = new StationForm(session, station, frame, round);
        form.frames(trouble);
        switch (station) {
            case Station.Line l -> form.line(l);
            case Station.Arc a -> form.arc(a);
            case Station.Polyline p -> form.polyline(p);
            case Station.Points p -> form.points(p);
            case Station.OnPart p -> form.part(p);
            case Station.Section s -> form.section(s);
            case Station.Isosurface i -> form.isosurface(i);
            case Station.Shell s -> form.shell(s);
            case Station.Sheet s -> form.sheet(s);
            case Station.CutCurve c -> form.cutCurve(c);
            case Station.Sweep s -> form.sweep(s);
            case Station.Region r -> form.region(r);
            case Station.Enclosing e -> form.enclosing(e);
        }
        return form.box;
    }

    @Override
    void put(String what, Supplier<Station> make) {
        session.edit(what, s -> s.with(make.get()));
    }

    /** The frame that the numbers are in, where there are frames to choose from. */
    private void frames(String trouble) {
        boolean placed = !(it instanceof Station.Isosurface || it instanceof Station.Enclosing);
        List<String> all = new ArrayList<>(List.of(""));
        session.study().frames().forEach(f -> all.add(f.id()));
        if (placed && all.size() > 1) {
            row(
                    "In frame",
                    Ui.choice(
                            "station-frame",
                            all,
                            session.study().inFrame().getOrDefault(it.id(), ""),
                            id -> session.study().frame(id).map(Frame::name).orElse("space"),
                            id -> session.edit("Frame of " + it.name(), s -> s.inFrame(it.id(), id))));
        }
        if (!trouble.isEmpty()) {
            var why = Ui.label(trouble, "small", "brick");
            why.setWrapText(true);
            box.getChildren().add(why);
        }
    }

    private void enclosing(Station.Enclosing e) {
        List<Station> regions = session.study().stations().stream()
                .filter(Station.Region.class::isInstance)
                .toList();
        row(
                "Around",
                Ui.choice(
                        "enclosed-region",
                        regions,
                        session.study().station(e.region()).orElse(null),
                        r -> r == null ? "?" : r.name(),
                        r -> put("Enclosed region", () -> new Station.Enclosing(e.id(), e.name(), r.id()))));
        box.getChildren().add(Ui.label("looks out of the region", "small", "muted"));
    }

    private void path(Station.Path path) {
        heading("Sampling", Ticks.brief(1000 * path.length()) + " mm long");
        Sampling now = path.sampling();
        List<String> kinds = List.of("even", "clustered", "every cell");
        String kind = kinds.get(now instanceof Sampling.Even ? 0 : now instanceof Sampling.Clustered ? 1 : 2);
        box.getChildren()
                .add(Ui.row(
                        0,
                        Ui.segments(
                                kinds,
                                kind,
                                k -> k,
                                k -> put(
                                        "Sampling",
                                        () -> path.sampled(
                                                switch (kinds.indexOf(k)) {
                                                    case 0 -> new Sampling.Even(samples(now));
                                                    case 1 ->
                                                        new Sampling.Clustered(samples(now), 5, Sampling.Towards.BOTH);
                                                    default -> new Sampling.CellExact();
                                                },
                                                path.abscissa())))));
        switch (now) {
            case Sampling.Even e ->
                plain(
                        "Samples",
                        "samples",
                        e.samples(),
                        "",
                        v -> path.sampled(new Sampling.Even((int) Math.round(v)), path.abscissa()));
            case Sampling.Clustered c -> {
                plain(
                        "Samples",
                        "samples",
                        c.samples(),
                        "",
                        v -> path.sampled(
                                new Sampling.Clustered((int) Math.round(v), c.ratio(), c.towards()), path.abscissa()));
                plain(
                        "Ratio",
                        "ratio",
                        c.ratio(),
                        "largest to smallest step",
                        v -> path.sampled(new Sampling.Clustered(c.samples(), v, c.towards()), path.abscissa()));
                row(
                        "Closer at",
                        Ui.segments(
                                List.of(Sampling.Towards.values()),
                                c.towards(),
                                t -> t.name().toLowerCase(java.util.Locale.ROOT),
                                t -> put(
                                        "Sampling",
                                        () -> path.sampled(
                                                new Sampling.Clustered(c.samples(), c.ratio(), t), path.abscissa()))));
            }
            case Sampling.CellExact _ -> {}
        }
        row(
                "Drawn against",
                Ui.choice(
                        "abscissa",
                        List.of(Abscissa.Kind.values()),
                        path.abscissa().kind(),
                        Abscissa.Kind::word,
                        k -> put(
                                "Abscissa",
                                () -> path.sampled(
                                        now,
                                        k == Abscissa.Kind.FORMULA
                                                ? Abscissa.of("s / length")
                                                : new Abscissa(k, "", null)))));
        if (path.abscissa().kind() == Abscissa.Kind.FORMULA) {
            var formula = Ui.text(
                    "abscissa-formula",
                    path.abscissa().formula(),
                    t -> put("Abscissa", () -> path.sampled(now, Abscissa.of(t))));
            formula.setPrefWidth(190);
            row("", formula);
            box.getChildren().add(Ui.label("of s, length, x, y, z, radius, angle, axial", "small", "muted"));
        }
    }

    private static int samples(Sampling s) {
        return switch (s) {
            case Sampling.Even e -> e.samples();
            case Sampling.Clustered c -> c.samples();
            case Sampling.CellExact _ -> 201;
        };
    }

    private void line(Station.Line l) {
        point("End A", "A", l.a(), p -> l.between(p, l.b()));
        point("End B", "B", l.b(), p -> l.between(l.a(), p));
        path(l);
    }

    private void arc(Station.Arc a) {
        length("Radius", "radius", a.radius(), v -> arc(a, a.axis(), v, a.along(), a.from(), a.to()));
        length("Along axis", "along", a.along(), v -> arc(a, a.axis(), a.radius(), v, a.from(), a.to()));
        plain("From angle", "from", a.from(), "degrees", v -> arc(a, a.axis(), a.radius(), a.along(), v, a.to()));
        plain("To angle", "to", a.to(), "degrees", v -> arc(a, a.axis(), a.radius(), a.along(), a.from(), v));
        axis(a.axis(), x -> arc(a, x, a.radius(), a.along(), a.from(), a.to()));
        path(a);
    }

    private static Station arc(Station.Arc a, Axis axis, double radius, double along, double from, double to) {
        return new Station.Arc(a.id(), a.name(), axis, radius, along, from, to, a.sampling(), a.abscissa());
    }

    private void polyline(Station.Polyline p) {
        list(p.points(), 2, l -> new Station.Polyline(p.id(), p.name(), l, p.sampling(), p.abscissa()));
        path(p);
    }

    private void points(Station.Points p) {
        list(p.points(), 1, l -> new Station.Points(p.id(), p.name(), l));
    }

    /** Points one by one where they are few; many are told by their number and come from a table. */
    private void list(List<Point> points, int least, Function<List<Point>, Station> make) {
        heading("Points", Ui.count(points.size(), "point"));
        for (int i = 0; i < Math.min(points.size(), 8); i++) {
            int at = i;
            Point p = points.get(i);
            HBox row = Ui.row(
                    4,
                    Ui.cell(String.valueOf(i + 1), 18, "small", "muted"),
                    coordinate(
                            "p" + i + "x",
                            p.x(),
                            v -> put("Move point", () -> make.apply(with(points, at, new Point(v, p.y(), p.z()))))),
                    coordinate(
                            "p" + i + "y",
                            p.y(),
                            v -> put("Move point", () -> make.apply(with(points, at, new Point(p.x(), v, p.z()))))),
                    coordinate(
                            "p" + i + "z",
                            p.z(),
                            v -> put("Move point", () -> make.apply(with(points, at, new Point(p.x(), p.y(), v))))));
            if (points.size() > least) {
                row.getChildren()
                        .add(Ui.iconButton(
                                org.kordamp.ikonli.feather.Feather.X,
                                "Remove this point",
                                () -> put("Remove point", () -> {
                                    List<Point> next = new ArrayList<>(points);
                                    next.remove(at);
                                    return make.apply(next);
                                })));
            }
            box.getChildren().add(row);
        }
        if (points.size() > 8) {
            box.getChildren().add(Ui.label("and " + (points.size() - 8) + " more", "small", "muted"));
        }
        box.getChildren()
                .add(Ui.row(
                        8,
                        Ui.button(
                                "+ Point",
                                () -> put("Add point", () -> {
                                    List<Point> next = new ArrayList<>(points);
                                    Point last = points.getLast();
                                    Point before = points.size() > 1
                                            ? points.get(points.size() - 2)
                                            : last.minus(new Point(0.01, 0, 0));
                                    next.add(last.plus(last.minus(before)));
                                    return make.apply(next);
                                }),
                                "small-button"),
                        Ui.button(
                                "From a table…",
                                () -> table(l -> put("Points from a table", () -> make.apply(l))),
                                "small-button")));
    }

    private void table(Consumer<List<Point>> taken) {
        var chooser = new javafx.stage.FileChooser();
        chooser.setTitle("Points from a table with columns x, y, z");
        java.io.File file = chooser.showOpenDialog(box.getScene().getWindow());
        if (file != null) {
            try {
                taken.accept(lane.formats.table.PointsTable.read(file.toPath()));
            } catch (LaneException e) {
                session.say(e.getMessage());
            }
        }
    }

    private static List<Point> with(List<Point> points, int at, Point p) {
        List<Point> next = new ArrayList<>(points);
        next.set(at, p);
        return next;
    }

    private static TextField coordinate(String id, double metres, Consumer<Double> changed) {
        var field = Ui.number("end-" + id, 1000 * metres, "mm", v -> changed.accept(v / 1000));
        field.setPrefWidth(76);
        return field;
    }

    private void part(Station.OnPart p) {
        List<String> names = session.results().runs().values().stream()
                .flatMap(r -> r.parts().stream())
                .map(x -> x.name())
                .distinct()
                .toList();
        row(
                "Part",
                Ui.choice(
                        "part",
                        names,
                        p.part(),
                        n -> n,
                        n -> put(
                                "Choose part",
                                () -> new Station.OnPart(p.id(), p.name(), n, p.more(), p.facing(), p.box()))));
        row(
                "with",
                partsMenu(
                        "more-parts",
                        names,
                        p.more(),
                        l -> put(
                                "Further parts",
                                () -> new Station.OnPart(p.id(), p.name(), p.part(), l, p.facing(), p.box()))));
        var facing = p.facing();
        row(
                "Faces",
                Ui.segments(
                        List.of(false, true),
                        facing != null,
                        b -> b ? "by direction" : "all",
                        b -> put(
                                "Faces",
                                () -> new Station.OnPart(
                                        p.id(),
                                        p.name(),
                                        p.part(),
                                        p.more(),
                                        b ? new Station.Facing(new Point(0, 0, 1), 30) : null,
                                        p.box()))));
        if (facing != null) {
            direction(
                    "Facing",
                    "facing-",
                    facing.direction(),
                    d -> new Station.OnPart(
                            p.id(), p.name(), p.part(), p.more(), new Station.Facing(d, facing.within()), p.box()));
            plain(
                    "within",
                    "within",
                    facing.within(),
                    "degrees",
                    v -> new Station.OnPart(
                            p.id(), p.name(), p.part(), p.more(), new Station.Facing(facing.direction(), v), p.box()));
        }
        limits(p.box(), b -> new Station.OnPart(p.id(), p.name(), p.part(), p.more(), p.facing(), b));
    }

    /** The box that a section or part is limited to. */
    private void limits(Box now, Function<Box, Station> make) {
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
    private Box around() {
        double[] b = session.results().runs().values().stream()
                .findFirst()
                .map(r -> r.mesh().bounds())
                .orElse(new double[] {0, 1, 0, 1, 0, 1});
        double grow = 1e-3 * Math.max(b[1] - b[0], Math.max(b[3] - b[2], b[5] - b[4]));
        return new Box(
                new Point(b[0] - grow, b[2] - grow, b[4] - grow), new Point(b[1] + grow, b[3] + grow, b[5] + grow));
    }

    private MenuButton partsMenu(String id, List<String> names, List<String> chosen, Consumer<List<String>> changed) {
        var menu = new MenuButton(
                chosen.isEmpty() ? id.equals("curve-parts") ? "all" : "no other" : String.join(" + ", chosen));
        menu.setId(id);
        menu.getStyleClass().add("small-menu");
        menu.setMaxWidth(200);
        for (String name : names) {
            var item = new CheckMenuItem(name);
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

    private void section(Station.Section s) {
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
        limits(s.box(), b -> new Station.Section(s.id(), s.name(), s.point(), s.normal(), b, s.piece()));
        row(
                "Pieces",
                Ui.segments(
                        List.of(false, true),
                        s.piece() != null,
                        b -> b ? "nearest to" : "all",
                        b -> put(
                                "Pieces",
                                () -> new Station.Section(
                                        s.id(), s.name(), s.point(), s.normal(), s.box(), b ? s.point() : null))));
        if (s.piece() != null) {
            point(
                    "Nearest to",
                    "piece-",
                    s.piece(),
                    p -> new Station.Section(s.id(), s.name(), s.point(), s.normal(), s.box(), p));
        }
    }

    /** A menu in which three points give the plane. */
    private MenuButton threePoints(Station.Section s) {
        var menu = new MenuButton("through three points");
        menu.setId("three-points");
        menu.getStyleClass().add("small-menu");
        TextField[] fields = new TextField[3];
        var box = new VBox(6, Ui.label("each as x, y, z in mm, parted by spaces", "small", "muted"));
        for (int i = 0; i < 3; i++) {
            fields[i] = new TextField();
            fields[i].setId("three-points-" + (i + 1));
            fields[i].setPromptText("0 0 60");
            box.getChildren().add(Ui.row(6, Ui.cell(String.valueOf(i + 1), 14, "small", "muted"), fields[i]));
        }
        var make = Ui.button(
                "Put the section there",
                () -> {
                    put(
                            "Section through three points",
                            () -> s.through(millimetres(fields[0]), millimetres(fields[1]), millimetres(fields[2])));
                    menu.hide();
                },
                "main");
        make.setId("three-points-make");
        box.getChildren().add(make);
        box.setStyle("-fx-padding: 8;");
        menu.getItems().add(new javafx.scene.control.CustomMenuItem(box, false));
        return menu;
    }

    private static Point millimetres(TextField field) {
        List<Double> xyz = values(field.getText(), "mm");
        if (xyz.size() != 3) {
            throw new LaneException("\"" + field.getText() + "\" is no point; write three numbers, like 0 0 60.");
        }
        return new Point(xyz.get(0) / 1000, xyz.get(1) / 1000, xyz.get(2) / 1000);
    }

    private List<Quantity> scalars() {
        return session.numbers();
    }

    private void quantity(String now, Function<String, Station> make) {
        row(
                "Quantity",
                Ui.choice(
                        "shaped-by",
                        scalars(),
                        session.study().quantity(now).orElse(null),
                        q -> q == null ? "?" : q.name(),
                        q -> put("Quantity", () -> make.apply(q.id()))));
    }

    private String unitOf(String quantity) {
        return session.study().quantity(quantity).map(Quantity::unit).orElse("");
    }

    private void isosurface(Station.Isosurface i) {
        quantity(i.quantity(), q -> new Station.Isosurface(i.id(), i.name(), q, i.values()));
        String values = String.join("; ", i.values().stream().map(Ui::shortest).toList());
        var field = Ui.text(
                "iso-values",
                values,
                t -> put(
                        "Values",
                        () -> new Station.Isosurface(i.id(), i.name(), i.quantity(), values(t, unitOf(i.quantity())))));
        field.setPrefWidth(130);
        row("Values", field, unit(unitOf(i.quantity())));
        box.getChildren().add(Ui.label("several are parted by semicolons", "small", "muted"));
    }

    private void shell(Station.Shell s) {
        length("Radius", "radius", s.radius(), v -> shell(s, s.axis(), v, s.from(), s.to(), s.seam()));
        row(
                "Length",
                Ui.segments(
                        List.of(false, true),
                        s.from() != null,
                        b -> b ? "from, to" : "all",
                        b -> put(
                                "Length",
                                () -> shell(
                                        s,
                                        s.axis(),
                                        s.radius(),
                                        b ? (Double) 0.0 : null,
                                        b ? (Double) Math.max(1e-3, s.radius()) : null,
                                        s.seam()))));
        if (s.from() != null && s.to() != null) {
            length("from", "from", s.from(), v -> shell(s, s.axis(), s.radius(), v, s.to(), s.seam()));
            length("to", "to", s.to(), v -> shell(s, s.axis(), s.radius(), s.from(), v, s.seam()));
        }
        plain("Seam at", "seam", s.seam(), "degrees", v -> shell(s, s.axis(), s.radius(), s.from(), s.to(), v));
        axis(s.axis(), a -> shell(s, a, s.radius(), s.from(), s.to(), s.seam()));
    }

    private static Station shell(Station.Shell s, Axis axis, double radius, Double from, Double to, double seam) {
        return new Station.Shell(s.id(), s.name(), axis, radius, from, to, seam);
    }

    private void sheet(Station.Sheet s) {
        row("File", Ui.left(s.file(), 190, "second"));
        var unit = Ui.text(
                "sheet-unit",
                s.length(),
                t -> put(
                        "Unit",
                        () -> new Station.Sheet(
                                s.id(), s.name(), s.file(), t, s.by(), s.turned(), s.sampled(), s.in())));
        unit.setPrefWidth(64);
        row("In", unit, unit("unit of its coordinates"));
        point(
                "Moved by",
                "by-",
                s.by(),
                p -> new Station.Sheet(s.id(), s.name(), s.file(), s.length(), p, s.turned(), s.sampled(), s.in()));
        direction(
                "Turned before, degrees about",
                "turned-",
                s.turned(),
                p -> new Station.Sheet(s.id(), s.name(), s.file(), s.length(), s.by(), p, s.sampled(), s.in()));
        row(
                "Values",
                Ui.segments(
                        List.of(false, true),
                        s.sampled(),
                        b -> b ? "at its nodes" : "cut at cells",
                        b -> put(
                                "Values",
                                () -> new Station.Sheet(
                                        s.id(), s.name(), s.file(), s.length(), s.by(), s.turned(), b, s.in()))));
    }

    private void cutCurve(Station.CutCurve c) {
        point(
                "Through",
                "through-",
                c.point(),
                p -> curve(c, p, c.normal(), c.parts(), c.against(), c.direction(), c.branch()));
        direction(
                "Plane square to",
                "normal-",
                c.normal(),
                n -> curve(c, c.point(), n, c.parts(), c.against(), c.direction(), c.branch()));
        List<String> names = session.results().runs().values().stream()
                .flatMap(r -> r.parts().stream())
                .map(x -> x.name())
                .distinct()
                .toList();
        row(
                "On parts",
                partsMenu(
                        "curve-parts",
                        names,
                        c.parts(),
                        l -> put(
                                "Parts",
                                () -> curve(c, c.point(), c.normal(), l, c.against(), c.direction(), c.branch()))));
        row(
                "Against",
                Ui.choice(
                        "against",
                        List.of(Station.Extent.values()),
                        c.against(),
                        e -> switch (e) {
                            case LENGTH -> "length along the curve";
                            case COORDINATE -> "coordinate";
                            case SHARE -> "share of its extent";
                        },
                        e -> put(
                                "Against",
                                () -> curve(c, c.point(), c.normal(), c.parts(), e, c.direction(), c.branch()))));
        direction(
                "Coordinate along",
                "coordinate-",
                c.direction(),
                d -> curve(c, c.point(), c.normal(), c.parts(), c.against(), d, c.branch()));
        String offsets = String.join(
                "; ", c.offsets().stream().map(o -> Ui.shortest(1000 * o)).toList());
        var planes = Ui.text("curve-offsets", offsets, t -> put("Planes", () -> offsets(c, t)));
        planes.setPrefWidth(110);
        planes.setPromptText("this one");
        row("Planes at", planes, unit("mm along the normal"));
        box.getChildren().add(Ui.label("listed 0; 5; 10 or even 0 : 5 : 20 (from : step : to)", "small", "muted"));
        plain(
                "Branch",
                "branch",
                c.branch(),
                "0 for all",
                v -> curve(c, c.point(), c.normal(), c.parts(), c.against(), c.direction(), (int) Math.round(v)));
    }

    private static Station curve(
            Station.CutCurve c, Point p, Point n, List<String> parts, Station.Extent e, Point d, int branch) {
        return new Station.CutCurve(c.id(), c.name(), p, n, parts, e, d, branch, c.offsets());
    }

    /** Offsets from a list, or from first, step and last. */
    private static Station offsets(Station.CutCurve c, String text) {
        List<Double> all;
        if (text.contains(":")) {
            List<Double> three = values(text.replace(':', ';'), "mm");
            double n = three.size() == 3 ? (three.get(2) - three.get(0)) / three.get(1) : Double.NaN;
            if (!(n >= 0) || n > 1000) {
                throw new LaneException(
                        "\"" + text + "\" gives no planes; write first : step : last, like 0 : 5 : 20.");
            }
            all = java.util.stream.IntStream.rangeClosed(0, (int) Math.floor(n + 1e-9))
                    .mapToObj(i -> three.get(0) + i * three.get(1))
                    .toList();
        } else {
            all = values(text, "mm");
        }
        return new Station.CutCurve(
                c.id(),
                c.name(),
                c.point(),
                c.normal(),
                c.parts(),
                c.against(),
                c.direction(),
                c.branch(),
                all.stream().map(v -> v / 1000).toList());
    }

    private void sweep(Station.Sweep s) {
        length(
                "From",
                "from",
                s.from(),
                v -> new Station.Sweep(s.id(), s.name(), s.axis(), v, s.to(), s.count(), s.ring()));
        length(
                "To",
                "to",
                s.to(),
                v -> new Station.Sweep(s.id(), s.name(), s.axis(), s.from(), v, s.count(), s.ring()));
        plain(
                "Places",
                "count",
                s.count(),
                "",
                v -> new Station.Sweep(s.id(), s.name(), s.axis(), s.from(), s.to(), (int) Math.round(v), s.ring()));
        row(
                "Each",
                Ui.segments(
                        List.of(false, true),
                        s.ring() > 0,
                        b -> b ? "a ring" : "a section",
                        b -> put(
                                "Sweep",
                                () -> new Station.Sweep(
                                        s.id(), s.name(), s.axis(), s.from(), s.to(), s.count(), b ? 0.01 : 0))));
        if (s.ring() > 0) {
            length(
                    "Ring radius",
                    "ring",
                    s.ring(),
                    v -> new Station.Sweep(s.id(), s.name(), s.axis(), s.from(), s.to(), s.count(), v));
        }
        axis(s.axis(), a -> new Station.Sweep(s.id(), s.name(), a, s.from(), s.to(), s.count(), s.ring()));
    }

    private void region(Station.Region r) {
        Function<Within, Station> make = w -> new Station.Region(r.id(), r.name(), w);
        List<String> kinds =
                List.of("all cells", "in a box", "in a cylinder", "in a ball", "touching parts", "by value");
        int now =
                switch (r.within()) {
                    case Within.All _ -> 0;
                    case Within.InBox _ -> 1;
                    case Within.Cylinder _ -> 2;
                    case Within.Ball _ -> 3;
                    case Within.Touching _ -> 4;
                    case Within.Above _ -> 5;
                };
        Box around = around();
        Point middle = around.least().plus(around.greatest()).times(0.5);
        double size = around.greatest().minus(around.least()).norm();
        row(
                "Cells",
                Ui.choice(
                        "region-kind",
                        kinds,
                        kinds.get(now),
                        k -> k,
                        k -> put(
                                "Cells",
                                () -> make.apply(
                                        switch (kinds.indexOf(k)) {
                                            case 1 -> new Within.InBox(around);
                                            case 2 ->
                                                new Within.Cylinder(
                                                        session.study().axis(), size / 4, -size, size);
                                            case 3 -> new Within.Ball(middle, size / 4);
                                            case 4 ->
                                                new Within.Touching(session.results().runs().values().stream()
                                                        .flatMap(x -> x.parts().stream())
                                                        .map(p -> p.name())
                                                        .limit(1)
                                                        .toList());
                                            case 5 ->
                                                new Within.Above(
                                                        scalars().stream()
                                                                .map(Quantity::id)
                                                                .findFirst()
                                                                .orElse(""),
                                                        0);
                                            default -> new Within.All();
                                        }))));
        switch (r.within()) {
            case Within.All _ -> {}
            case Within.InBox b -> {
                point(
                        "Least corner",
                        "least-",
                        b.box().least(),
                        p -> make.apply(new Within.InBox(new Box(p, b.box().greatest()))));
                point(
                        "Greatest corner",
                        "greatest-",
                        b.box().greatest(),
                        p -> make.apply(new Within.InBox(new Box(b.box().least(), p))));
            }
            case Within.Cylinder c -> {
                length(
                        "Radius",
                        "radius",
                        c.radius(),
                        v -> make.apply(new Within.Cylinder(c.axis(), v, c.from(), c.to())));
                length("From", "from", c.from(), v -> make.apply(new Within.Cylinder(c.axis(), c.radius(), v, c.to())));
                length("To", "to", c.to(), v -> make.apply(new Within.Cylinder(c.axis(), c.radius(), c.from(), v)));
                axis(c.axis(), a -> make.apply(new Within.Cylinder(a, c.radius(), c.from(), c.to())));
            }
            case Within.Ball b -> {
                point("Centre", "centre-", b.centre(), p -> make.apply(new Within.Ball(p, b.radius())));
                length("Radius", "radius", b.radius(), v -> make.apply(new Within.Ball(b.centre(), v)));
            }
            case Within.Touching t -> {
                List<String> names = session.results().runs().values().stream()
                        .flatMap(x -> x.parts().stream())
                        .map(p -> p.name())
                        .distinct()
                        .toList();
                row(
                        "Parts",
                        partsMenu(
                                "region-parts",
                                names,
                                t.parts(),
                                l -> put("Parts", () -> make.apply(new Within.Touching(l)))));
            }
            case Within.Above a -> {
                quantity(a.quantity(), q -> make.apply(new Within.Above(q, a.value())));
                plain(
                        "above",
                        "above",
                        a.value(),
                        unitOf(a.quantity()),
                        v -> make.apply(new Within.Above(a.quantity(), v)));
            }
        }
    }
}
