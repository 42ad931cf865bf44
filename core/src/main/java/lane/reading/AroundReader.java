package lane.reading;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.cut.Cut;
import lane.cut.Level;
import lane.cut.Slicer;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.QuantityTrail;
import lane.evaluation.SamplePoints;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.station.CurveAxis;
import lane.station.Placement;
import lane.station.Placer;
import lane.station.Resolver;
import lane.station.Shell;
import lane.station.Station;
import lane.unit.Unit;

/**
 * A shell read around its axis: at each angle the mean, least or greatest value along the axis, on the shell laid flat, or
 * the values at stated positions, each at the place itself. Along each cut of the flat shell the values are linear from edge to edge, so means are exact for what the shell carries.
 */
public final class AroundReader {
    private static final Method FLAT = new Method("shell laid flat, cut at each angle", 1);
    private static final Method ALONG = new Method("linear from edge to edge along the axis", 1);

    private AroundReader() {}

    /** @param flat the shell laid flat, x an angle in radians from the seam */
    public static Profile read(
            Run run,
            Station station,
            Cut flat,
            AroundOf reading,
            String unit,
            Quantity quantity,
            EvaluationContext lens,
            Provenance trail) {
        var shell = (Shell) station.shape();
        BoundQuantity ready = BoundQuantity.of(run, quantity, lens).number();
        Unit shown = Outcome.shown(unit, ready.unit(), "Reading on \"" + station.name() + "\"");
        double[] abscissa = reading.radians(shell);
        int n = abscissa.length;
        double[] value = new double[n];
        double[] places = new double[3 * n];
        double seam = Math.toRadians(shell.seam());
        for (int i = 0; i < n; i++) {
            double angle = abscissa[i] - seam;
            double turn = angle - 2 * Math.PI * Math.floor(angle / (2 * Math.PI));
            // The seam itself is read just beside it.
            double at = turn > 2 * Math.PI - 1e-9 ? 1e-9 : Math.max(turn, 1e-9);
            Cut line = Slicer.cut(
                    flat.surface(), Level.plane(flat.surface(), new Point(at, 0, 0), new Point(1, 0, 0)), Work.QUIET);
            Taken taken = one(run, shell, flat, line, ready, reading.along(), abscissa[i]);
            value[i] = taken.value;
            if (Double.isFinite(taken.position)) {
                shell.axis().place(shell.radius(), abscissa[i], taken.position).into(places, 3 * i);
            } else {
                Arrays.fill(places, 3 * i, 3 * i + 3, Double.NaN);
            }
        }
        int found = 0;
        for (double v : value) {
            found += Double.isFinite(v) ? 1 : 0;
        }
        var placed = new LinkedHashMap<String, Object>();
        placed.put("name", station.name());
        placed.put("angles", n);
        if (!reading.angles().isEmpty()) {
            placed.put("stated angles", reading.angles() + " " + reading.angleUnit());
        }
        placed.put("geometry", shell);
        if (!Double.isNaN(flat.coverage())) {
            placed.put("coverage", flat.coverage());
        }
        Provenance full = QuantityTrail.of(trail, ready, lens)
                .then("station", FLAT, "shell \"{name}\" laid flat, {angles} angles", placed)
                .then(
                        "reading",
                        ALONG,
                        "{value} along the axis",
                        Map.of("value", reading.along().word(), "unit", shown.label()));
        return new Profile(
                        abscissa,
                        value,
                        List.of(),
                        reading.drawn(station).word(),
                        reading.drawn(station).unit(),
                        shown,
                        false,
                        found,
                        reading.along().word() + " along the axis at each angle"
                                + (Part.lacking(flat.coverage())
                                        ? ", only " + Part.percent(flat.coverage()) + " of the shell in the run"
                                        : ""),
                        full)
                .covering(flat.coverage())
                .at(places);
    }

    /** The value at each stated angle and position, at the place itself. */
    static Outcome at(Reading reading, AroundOf ask, Station station, ReadingContext on) {
        EvaluationContext lens = on.lens();
        BoundQuantity ready =
                BoundQuantity.of(on.run(), lens.quantity(ask.quantity()), lens).number();
        Unit shown = Outcome.shown(reading.unit(), ready.unit(), "Reading on \"" + station.name() + "\"");
        CurveAxis.Samples all = ask.samples(station, lens.axis());
        int[] asked = IntStream.range(0, all.abscissa().length)
                .filter(i -> !Double.isNaN(all.abscissa()[i]))
                .toArray();
        double[] xyz = new double[3 * asked.length];
        for (int i = 0; i < asked.length; i++) {
            System.arraycopy(all.xyz(), 3 * asked[i], xyz, 3 * i, 3);
        }
        Axis turned = Resolver.meridian(on.run()) ? lens.axis() : null;
        Placement placed = Placer.points(on.run().locator(on.work()), xyz, turned, on.work());
        if (placed.found() == 0) {
            throw new LaneException(
                    Fault.OUTSIDE,
                    "The places asked for on shell \"" + station.name() + "\" lie outside this run; give others.");
        }
        double[] found = ready.values(SamplePoints.samples(on.run(), placed, turned))[0];
        double[] value = new double[all.abscissa().length];
        Arrays.fill(value, Double.NaN);
        for (int i = 0; i < asked.length; i++) {
            value[asked[i]] = found[i];
        }
        CurveAxis drawn = ask.drawn(station);
        Provenance full = QuantityTrail.of(on.trail(), ready, lens)
                .then(
                        "station",
                        ProfileReader.SAMPLED,
                        "shell \"{name}\", {samples} places",
                        Map.of(
                                "name",
                                station.name(),
                                "samples",
                                asked.length,
                                "geometry",
                                station.shape(),
                                "angles",
                                ask.angles().isEmpty() ? ask.samples() + " even" : ask.angles() + " " + ask.angleUnit(),
                                "positions",
                                ask.positions() + " m",
                                "found",
                                placed.found(),
                                "moved",
                                placed.moved() + ", at most " + placed.largestMove() + " m"))
                .then(
                        "reading",
                        ProfileReader.PROFILE,
                        "value at each place",
                        Map.of("interpolation", ready.stand(), "unit", shown.label()));
        return new Profile(
                        all.abscissa(),
                        value,
                        List.of(),
                        drawn.word(),
                        drawn.unit(),
                        shown,
                        false,
                        (int) Arrays.stream(value).filter(Double::isFinite).count(),
                        ready.stand(),
                        full)
                .at(all.xyz());
    }

    /** @param position along the axis that the value belongs to: the middle of what a mean goes over, the place of an extreme */
    private record Taken(double value, double position) {}

    private static Taken one(
            Run run, Shell shell, Cut flat, Cut line, BoundQuantity ready, AroundOf.Along along, double angle) {
        int points = line.surface().nodeCount();
        double[] xyz = new double[3 * points];
        double[] h = new double[points];
        int[] cell = new int[points];
        for (int f = 0; f < line.owner().length; f++) {
            for (int k = 0; k < line.surface().size(f); k++) {
                cell[line.surface().nodes()[line.surface().begin(f) + k]] = flat.owner()[line.owner()[f]];
            }
        }
        for (int i = 0; i < points; i++) {
            h[i] = line.surface().xyz()[3 * i + 1];
            Point p = shell.axis().place(shell.radius(), angle, h[i]);
            xyz[3 * i] = p.x();
            xyz[3 * i + 1] = p.y();
            xyz[3 * i + 2] = p.z();
        }
        double[] v = ready.values(
                        SamplePoints.cut(run, xyz, line.stencil().after(flat.stencil()), null, cell, null, null))[0];
        double sum = 0;
        double length = 0;
        double middle = 0;
        int least = -1;
        int greatest = -1;
        for (int f = 0; f < line.owner().length; f++) {
            int a = line.surface().nodes()[line.surface().begin(f)];
            int b = line.surface().nodes()[line.surface().begin(f) + 1];
            double own = Math.abs(h[b] - h[a]);
            sum += own * (v[a] + v[b]) / 2;
            middle += own * (h[a] + h[b]) / 2;
            length += own;
            for (int end : new int[] {a, b}) {
                if (Double.isNaN(v[end])) {
                    return new Taken(Double.NaN, Double.NaN);
                }
                least = least < 0 || v[end] < v[least] ? end : least;
                greatest = greatest < 0 || v[end] > v[greatest] ? end : greatest;
            }
        }
        if (length == 0) {
            return new Taken(Double.NaN, Double.NaN);
        }
        return switch (along) {
            case MEAN, AT -> new Taken(sum / length, middle / length);
            case LEAST -> new Taken(v[least], h[least]);
            case GREATEST -> new Taken(v[greatest], h[greatest]);
        };
    }
}
