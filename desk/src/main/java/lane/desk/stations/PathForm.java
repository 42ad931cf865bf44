package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.IntFunction;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import lane.base.LaneException;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.formats.table.PointsTable;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.station.Abscissa;
import lane.station.Arc;
import lane.station.Line;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Sampling;
import lane.station.Shape;
import lane.station.Station;

/** The numbers of points, lines, arcs and polylines, and how they are sampled. */
final class PathForm extends StationRows {
    private PathForm(Session session, Station station, Axis frame, boolean cylindrical) {
        super(session, station, frame, cylindrical);
    }

    static Node of(Session session, Station station, Axis frame, boolean cylindrical) {
        var form = new PathForm(session, station, frame, cylindrical);
        switch (station.shape()) {
            case Line l -> form.line(l);
            case Arc a -> form.arc(a);
            case Polyline p -> form.polyline(p);
            case Points p -> form.points(p);
            default -> {}
        }
        return form.box;
    }

    private void path(Shape.Path path) {
        heading("Sampling", lengths.brief(path.length()) + " long");
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
                                                : Abscissa.parse(spoken(k))))));
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

    private void line(Line l) {
        point("End A", "A", l.a(), p -> l.between(p, l.b()));
        point("End B", "B", l.b(), p -> l.between(l.a(), p));
        path(l);
    }

    private void arc(Arc a) {
        length("Radius", "radius", a.radius(), v -> arc(a, a.axis(), v, a.along(), a.from(), a.to()));
        length("Along axis", "along", a.along(), v -> arc(a, a.axis(), a.radius(), v, a.from(), a.to()));
        plain("From angle", "from", a.from(), "degrees", v -> arc(a, a.axis(), a.radius(), a.along(), v, a.to()));
        plain("To angle", "to", a.to(), "degrees", v -> arc(a, a.axis(), a.radius(), a.along(), a.from(), v));
        axis(a.axis(), x -> arc(a, x, a.radius(), a.along(), a.from(), a.to()));
        path(a);
    }

    private static Shape arc(Arc a, Axis axis, double radius, double along, double from, double to) {
        return new Arc(axis, radius, along, from, to, a.sampling(), a.abscissa());
    }

    private void polyline(Polyline p) {
        Function<List<Point>, Shape> through = l -> new Polyline(l, p.sampling(), p.abscissa());
        list(p.points(), 2, through, i -> {
            List<Point> next = new ArrayList<>(p.points());
            next.remove(i);
            return through.apply(next);
        });
        path(p);
    }

    private void points(Points p) {
        list(p.points(), 1, p::at, p::without);
        if (!p.from().isBlank()) {
            box.getChildren().add(Ui.label("from " + p.from(), "small", "muted"));
        }
        List<Against> along = new ArrayList<>(List.of(new Against("number of the point", q -> q.along(null))));
        for (Abscissa.Kind k : Abscissa.Kind.values()) {
            if (k != Abscissa.Kind.FORMULA) {
                along.add(new Against(k.word(), q -> q.along(Abscissa.parse(spoken(k)))));
            }
        }
        for (Points.Beside b : p.beside()) {
            along.add(new Against(
                    "column " + b.name() + (b.unit().isBlank() ? "" : ", " + b.unit()), q -> q.against(b.name())));
        }
        Against now = along.stream()
                .filter(a -> a.set.apply(p).drawn().equals(p.drawn()))
                .findFirst()
                .orElseGet(() -> new Against(p.drawn().word(), q -> q));
        if (!along.contains(now)) {
            along.add(now);
        }
        row(
                "Drawn against",
                Ui.choice("points-abscissa", along, now, Against::word, a -> put("Abscissa", () -> a.set.apply(p))));
        box.getChildren().add(nodes(p));
    }

    /** One thing that points can be drawn against. */
    private record Against(String word, java.util.function.UnaryOperator<Points> set) {}

    /** An abscissa as it is chosen here: angles are told in degrees. */
    private static String spoken(Abscissa.Kind kind) {
        String word = kind.name().toLowerCase(java.util.Locale.ROOT);
        return kind == Abscissa.Kind.ANGLE ? word + " [deg]" : word;
    }

    /** More points than a study is to hold one by one. */
    private static final int MANY = 20_000;

    /** Takes the nodes of a lane, or of a part of it, as the points. */
    private Node nodes(Points p) {
        var menu = Named.menuButton("Nodes of a lane");
        menu.setId("points-nodes");
        menu.getStyleClass().add("small-menu");
        menu.setOnShowing(e -> nodes(menu, p));
        nodes(menu, p);
        return menu;
    }

    private void nodes(javafx.scene.control.MenuButton menu, Points p) {
        menu.getItems().clear();
        session.results().runs().forEach((id, run) -> {
            String of = session.study().source(id).map(lane.study.Source::name).orElse(id);
            menu.getItems().add(item(p, "all nodes of " + of, run.mesh()));
            run.parts().forEach(part -> menu.getItems()
                    .add(item(p, "nodes of " + part.name() + " of " + of, part.surface())));
        });
    }

    private javafx.scene.control.MenuItem item(Points p, String words, lane.mesh.Mesh mesh) {
        boolean many = mesh.nodeCount() > MANY;
        var item = Named.item(words + ", " + mesh.nodeCount() + (many ? ": more than " + MANY : ""));
        item.setDisable(many);
        item.setOnAction(e -> put("Points at nodes", () -> {
            List<Point> all = new ArrayList<>();
            for (int i = 0; i < mesh.nodeCount(); i++) {
                double[] x = mesh.xyz();
                all.add(frame.in(new Point(x[3 * i], x[3 * i + 1], x[3 * i + 2])));
            }
            return new Points(all, p.abscissa(), words);
        }));
        return item;
    }

    /** Points one by one where they are few; many are told by their number and come from a table. */
    private void list(List<Point> points, int least, Function<List<Point>, Shape> make, IntFunction<Shape> without) {
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
                                () -> put("Remove point", () -> without.apply(at))));
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
                                () -> table((read, from) -> put("Points from a table", () -> {
                                    Shape made = make.apply(read.points());
                                    return made instanceof Points q
                                            ? new Points(q.points(), q.abscissa(), from, read.beside(), "")
                                            : made;
                                })),
                                "small-button")));
    }

    private void table(java.util.function.BiConsumer<PointsTable.Taken, String> taken) {
        var chooser = new javafx.stage.FileChooser();
        chooser.setTitle("Points from a table with columns x, y, z");
        java.io.File file = chooser.showOpenDialog(box.getScene().getWindow());
        if (file != null) {
            try {
                var read = PointsTable.read(file.toPath());
                taken.accept(read, file.getName());
                if (!read.said().isEmpty()) {
                    session.note(String.join(" ", read.said()));
                }
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

    private TextField coordinate(String id, double metres, Consumer<Double> changed) {
        var field =
                Ui.number("end-" + id, lengths.shown(metres), lengths.symbol(), v -> changed.accept(lengths.metres(v)));
        field.setPrefWidth(76);
        return field;
    }
}
