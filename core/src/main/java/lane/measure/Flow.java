package lane.measure;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.base.LaneException;
import lane.evaluation.BoundQuantity;
import lane.evaluation.Linear;
import lane.evaluation.SurfaceIntegral;
import lane.field.Gather;
import lane.field.Part;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Unit;

/**
 * Flow of a vector quantity through a surface: the integral of {@code factor * (v . n)}, n out of the run (through a surface
 * within it along the surface's own normal), or of that times {@code r * (v around the axis)} when it carries angular
 * momentum.
 *
 * @param vector key of a quantity with three components, taken whole
 * @param factor a constant, for example a density
 * @param factorUnit its unit; blank for a plain number
 */
public record Flow(String vector, double factor, String factorUnit, Carried carried, Axis axis) implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "flow";
        }

        @Override
        public Class<Flow> type() {
            return Flow.class;
        }
    }

    /** What a flow carries along. */
    public enum Carried {
        /** The flux vector alone. */
        NOTHING,
        /** Angular momentum about the axis: the flux times radius times the component around the axis. */
        ANGULAR_MOMENTUM
    }

    public Flow {
        factorUnit = factorUnit == null || factorUnit.isBlank() ? "1" : factorUnit;
        carried = carried == null ? Carried.NOTHING : carried;
        if (axis == null) {
            if (carried != Carried.NOTHING) {
                throw new LaneException(
                        "A flow of angular momentum needs the axis that it turns about; give its origin and direction.");
            }
            axis = Axis.Z;
        }
    }

    @Override
    public String word() {
        return carried == Carried.NOTHING ? "flow of " + vector : "flow of angular momentum with " + vector;
    }

    @Override
    public String sign() {
        return factor < 0 ? "positive enters the run" : "positive leaves the run";
    }

    /** The factor takes the other sign, and the words for the sign follow. */
    @Override
    public Optional<Measure> flipped() {
        return Optional.of(new Flow(vector, -factor, factorUnit, carried, axis));
    }

    @Override
    public Set<String> quantities() {
        return Set.of(vector);
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        surface.needsNormals("flow");
        BoundQuantity bound = surface.ready(vector).vector();
        Unit unit = Unit.of(factorUnit);
        double toSi = unit.toSi(factor) * bound.factor();
        boolean swirl = carried == Carried.ANGULAR_MOMENTUM;
        var sums = new double[1][];
        var sign = new String[1];
        Runnable flow = () -> sums[0] = swirl ? swirl(surface) : surface.linear(vector, new Linear.Through(), false);
        surface.run().gather().each(List.of(flow, () -> sign[0] = sign(surface)));
        double[] s = sums[0];
        Unit si = bound.unit().si();
        Unit whole = unit.si().times(si).times(surface.over());
        Measured made = swirl
                ? new Measured(toSi * bound.factor() * s[0], whole.times(si).times(Unit.of("m")))
                : new Measured(toSi * s[0], whole);
        return made.signed(sign[0]);
    }

    /** The flux times what turns about the axis. */
    private double[] swirl(SurfaceIntegral surface) {
        return surface.of(List.of("flow", axis), List.of(vector), 1, q -> 2 * q[0] + 1, (at, to) -> {
            double[][] v = at.value[0];
            double[] through = at.through(v);
            for (int i = 0; i < at.n; i++) {
                through[i] *= Moment.of(axis, at.x[i], at.y[i], at.z[i], v[0][i], v[1][i], v[2][i]);
            }
            to[0].add(through, at.n);
        });
    }

    /** A surface within the run lets through what neither enters nor leaves it: there its own normal counts. */
    private String sign(SurfaceIntegral surface) {
        Gather gather = surface.run().gather();
        // A piece that a cut misses does not know that it is one.
        List<double[]> all = gather.all(List.of(
                () -> gather.sums("cut", () ->
                        new double[] {surface.parts().stream().filter(Part::cut).count()}),
                () -> gather.whole() && surface.parts().stream().noneMatch(Part::cut)
                        ? new double[4]
                        : surface.geometry()));
        if (all.getFirst()[0] == 0) {
            return sign();
        }
        double[] n = all.getLast();
        Point mean = new Point(n[0], n[1], n[2]);
        boolean flat = mean.norm() > 0.999 * n[3];
        return "positive passes " + (factor < 0 ? "against" : "along") + " the surface's normal"
                + (flat ? ", " + Loads.text(mean.times((factor < 0 ? -1 : 1) / mean.norm())) : "");
    }
}
