package lane.reading;

import java.util.LinkedHashMap;
import java.util.Map;
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
import lane.mesh.Point;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.station.Shell;
import lane.station.Station;
import lane.unit.Unit;

/**
 * A shell read around its axis: at each angle the mean, least or greatest value along the axis, on the shell laid flat.
 * Along each cut of the flat shell the values are linear from edge to edge, so means are exact for what the shell carries.
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
        int n = reading.samples();
        double[] abscissa = new double[n];
        double[] value = new double[n];
        for (int i = 0; i < n; i++) {
            double angle = 2 * Math.PI * i / n;
            // The seam itself is read just beside it.
            double at = Math.max(angle, 1e-9);
            Cut line = Slicer.cut(
                    flat.surface(), Level.plane(flat.surface(), new Point(at, 0, 0), new Point(1, 0, 0)), Work.QUIET);
            abscissa[i] = angle + Math.toRadians(shell.seam());
            value[i] = one(run, shell, flat, line, ready, reading.along(), abscissa[i]);
        }
        int found = 0;
        for (double v : value) {
            found += Double.isFinite(v) ? 1 : 0;
        }
        var placed = new LinkedHashMap<String, Object>();
        placed.put("name", station.name());
        placed.put("angles", n);
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
                java.util.List.of(),
                "angle about the axis",
                Unit.of("rad"),
                shown,
                false,
                found,
                reading.along().word() + " along the axis at each angle"
                        + (Part.lacking(flat.coverage())
                                ? ", only " + Part.percent(flat.coverage()) + " of the shell in the run"
                                : ""),
                flat.coverage(),
                full);
    }

    private static double one(
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
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (int f = 0; f < line.owner().length; f++) {
            int a = line.surface().nodes()[line.surface().begin(f)];
            int b = line.surface().nodes()[line.surface().begin(f) + 1];
            double own = Math.abs(h[b] - h[a]);
            sum += own * (v[a] + v[b]) / 2;
            length += own;
            least = Math.min(least, Math.min(v[a], v[b]));
            greatest = Math.max(greatest, Math.max(v[a], v[b]));
        }
        if (length == 0) {
            return Double.NaN;
        }
        return switch (along) {
            case MEAN -> sum / length;
            case LEAST -> least;
            case GREATEST -> greatest;
        };
    }
}
