package lane.desk.stations;

import java.util.List;
import java.util.function.Function;
import javafx.scene.Node;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.station.Box;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.Region;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Sweep;
import lane.station.Within;

/** The numbers of cut curves, sweeps and regions. */
final class OtherForm extends StationRows {
    private OtherForm(Session session, Station station, Axis frame, boolean cylindrical) {
        super(session, station, frame, cylindrical);
    }

    static Node of(Session session, Station station, Axis frame, boolean cylindrical) {
        var form = new OtherForm(session, station, frame, cylindrical);
        switch (station.shape()) {
            case CutCurve c -> form.cutCurve(c);
            case Sweep s -> form.sweep(s);
            case Region r -> form.region(r);
            default -> {}
        }
        return form.box;
    }

    private void cutCurve(CutCurve c) {
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
                        List.of(Extent.values()),
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
                "; ",
                c.offsets().stream().map(o -> Ui.shortest(lengths.shown(o))).toList());
        var planes = Ui.text("curve-offsets", offsets, t -> put("Planes", () -> offsets(c, t)));
        planes.setPrefWidth(110);
        planes.setPromptText("this one");
        row("Planes at", planes, unit(lengths.symbol() + " along the normal"));
        box.getChildren().add(Ui.label("listed 0; 5; 10 or even 0 : 5 : 20 (from : step : to)", "small", "muted"));
        plain(
                "Branch",
                "branch",
                c.branch(),
                "0 for all",
                v -> curve(c, c.point(), c.normal(), c.parts(), c.against(), c.direction(), (int) Math.round(v)));
    }

    private static Shape curve(CutCurve c, Point p, Point n, List<String> parts, Extent e, Point d, int branch) {
        return new CutCurve(p, n, parts, e, d, branch, c.offsets());
    }

    /** Offsets from a list, or from first, step and last. */
    private Shape offsets(CutCurve c, String text) {
        List<Double> all;
        if (text.contains(":")) {
            List<Double> three = values(text.replace(':', ';'), lengths.symbol());
            double n = three.size() == 3 ? (three.get(2) - three.get(0)) / three.get(1) : Double.NaN;
            if (!(n >= 0) || n > 1000) {
                throw new LaneException(
                        "\"" + text + "\" gives no planes; write first : step : last, like 0 : 5 : 20.");
            }
            all = java.util.stream.IntStream.rangeClosed(0, (int) Math.floor(n + 1e-9))
                    .mapToObj(i -> three.get(0) + i * three.get(1))
                    .toList();
        } else {
            all = values(text, lengths.symbol());
        }
        return new CutCurve(
                c.point(),
                c.normal(),
                c.parts(),
                c.against(),
                c.direction(),
                c.branch(),
                all.stream().map(lengths::metres).toList());
    }

    private void sweep(Sweep s) {
        length("From", "from", s.from(), v -> new Sweep(s.axis(), v, s.to(), s.count(), s.ring()));
        length("To", "to", s.to(), v -> new Sweep(s.axis(), s.from(), v, s.count(), s.ring()));
        plain(
                "Places",
                "count",
                s.count(),
                "",
                v -> new Sweep(s.axis(), s.from(), s.to(), (int) Math.round(v), s.ring()));
        row(
                "Each",
                Ui.segments(
                        List.of(false, true),
                        s.ring() > 0,
                        b -> b ? "a ring" : "a section",
                        b -> put("Sweep", () -> new Sweep(s.axis(), s.from(), s.to(), s.count(), b ? 0.01 : 0))));
        if (s.ring() > 0) {
            length("Ring radius", "ring", s.ring(), v -> new Sweep(s.axis(), s.from(), s.to(), s.count(), v));
        }
        axis(s.axis(), a -> new Sweep(a, s.from(), s.to(), s.count(), s.ring()));
    }

    private void region(Region r) {
        Function<Within, Shape> make = w -> new Region(w);
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
                        p -> make.apply(new Within.InBox(new Box(p, b.box().greatest()), b.cut())));
                point(
                        "Greatest corner",
                        "greatest-",
                        b.box().greatest(),
                        p -> make.apply(new Within.InBox(new Box(b.box().least(), p), b.cut())));
                row(
                        "At its sides",
                        Ui.segments(
                                List.of(false, true),
                                b.cut(),
                                cut -> cut ? "cells are cut" : "whole cells",
                                cut -> put("Cells at the sides", () -> make.apply(new Within.InBox(b.box(), cut)))));
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
