package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import javafx.scene.Node;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.station.Frame;
import lane.station.Station;
import lane.station.Station.Box;
import lane.station.Within;

/** The numbers of a station by kind, lengths in millimetres and angles in degrees. */
final class StationForm extends StationRows {
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
            case Station.Path p -> form.box.getChildren().add(PathForm.of(session, p, frame, round));
            case Station.Points p -> form.box.getChildren().add(PathForm.of(session, p, frame, round));
            case Station.Surface x -> form.box.getChildren().add(SurfaceForm.of(session, x, frame, round));
            case Station.CutCurve c -> form.cutCurve(c);
            case Station.Sweep s -> form.sweep(s);
            case Station.Region r -> form.region(r);
        }
        return form.box;
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
        List<String> names = session.partNames();
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
                List<String> names = session.partNames();
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
