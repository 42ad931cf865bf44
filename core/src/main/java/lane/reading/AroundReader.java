package lane.reading;

import java.util.Map;
import lane.base.Parallel;
import lane.base.Work;
import lane.cut.Cut;
import lane.cut.Level;
import lane.cut.Slicer;
import lane.field.Field;
import lane.field.Run;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.station.Station;
import lane.trail.Trail;
import lane.unit.Unit;

/**
 * A shell read around its axis: at each angle the mean, least or greatest value along the axis, on the shell laid flat.
 * Along each cut of the flat shell the values are linear from edge to edge, so means are exact for what the shell carries.
 */
public final class AroundReader {
    private AroundReader() {}

    /** @param flat the shell laid flat, x an angle in radians from the seam */
    public static Profile read(
            Run run,
            Station.Shell shell,
            Cut flat,
            Reading.OfAround reading,
            Quantity quantity,
            Lens lens,
            Trail trail) {
        Field field = lens.onMesh(run, quantity);
        lens.requireNumber(quantity, field);
        Unit stored = lens.unit(run, field);
        Unit natural = Outcome.shown(quantity.unit(), stored, "Quantity \"" + quantity.name() + "\"");
        Unit shown = Outcome.shown(reading.unit(), natural, "Reading on \"" + shell.name() + "\"");
        int n = reading.samples();
        double[] abscissa = new double[n];
        double[] value = new double[n];
        int c = field.components();
        boolean plain = c == 1 && quantity.take() == Take.ALL;
        Parallel.forBlocks(n, 8, (block, from, to) -> {
            for (int i = from; i < to; i++) {
                double angle = 2 * Math.PI * i / n;
                // The seam itself is read just beside it.
                double at = Math.max(angle, 1e-9);
                Cut line = Slicer.cut(
                        flat.surface(),
                        Level.plane(flat.surface(), new Point(at, 0, 0), new Point(1, 0, 0)),
                        Work.QUIET);
                abscissa[i] = angle + Math.toRadians(shell.seam());
                value[i] =
                        one(run, shell, flat, line, field, stored, plain, quantity, lens, reading.along(), abscissa[i]);
            }
        });
        int found = 0;
        for (double v : value) {
            found += Double.isFinite(v) ? 1 : 0;
        }
        Trail full = trail.then(
                        "source", "field " + field.name() + ", " + field.at().word(), Map.of("unit", stored.label()))
                .then(
                        "quantity",
                        quantity.name(),
                        Map.of("take", quantity.take().word()))
                .then(
                        "station",
                        "shell \"" + shell.name() + "\" laid flat, " + n + " angles",
                        Map.of("geometry", shell.geometry().toString()))
                .then("reading", reading.along().word() + " along the axis", Map.of("unit", shown.label()));
        return new Profile(
                abscissa,
                value,
                new double[0],
                "angle about the axis",
                Unit.of("rad"),
                shown,
                false,
                found,
                reading.along().word() + " along the axis at each angle",
                full);
    }

    private static double one(
            Run run,
            Station.Shell shell,
            Cut flat,
            Cut line,
            Field field,
            Unit stored,
            boolean plain,
            Quantity quantity,
            Lens lens,
            Reading.Along along,
            double angle) {
        int c = field.components();
        double sum = 0;
        double length = 0;
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        double[] v = new double[c];
        double[] two = new double[2];
        double[] h = new double[2];
        for (int f = 0; f < line.owner().length; f++) {
            for (int k = 0; k < 2; k++) {
                int node = line.surface().nodes()[line.surface().begin(f) + k];
                h[k] = line.surface().xyz()[3 * node + 1];
                java.util.Arrays.fill(v, 0);
                if (field.at() == Field.At.CELL) {
                    int cell = flat.owner()[line.owner()[f]];
                    for (int d = 0; d < c; d++) {
                        v[d] = field.values().get(cell * c + d);
                    }
                } else {
                    for (int e = line.stencil().start()[node];
                            e < line.stencil().start()[node + 1];
                            e++) {
                        int on = line.stencil().node()[e];
                        for (int g = flat.stencil().start()[on];
                                g < flat.stencil().start()[on + 1];
                                g++) {
                            double w =
                                    line.stencil().share()[e] * flat.stencil().share()[g];
                            for (int d = 0; d < c; d++) {
                                v[d] += w * field.values().get(flat.stencil().node()[g] * c + d);
                            }
                        }
                    }
                }
                for (int d = 0; d < c; d++) {
                    v[d] = stored.toSi(v[d]);
                }
                Point p = shell.axis().place(shell.radius(), angle, h[k]);
                two[k] = plain ? v[0] : quantity.take().of(v, p.x(), p.y(), p.z(), lens.axis());
                least = Math.min(least, two[k]);
                greatest = Math.max(greatest, two[k]);
            }
            double own = Math.abs(h[1] - h[0]);
            sum += own * (two[0] + two[1]) / 2;
            length += own;
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
