package lane.station;

import java.util.Arrays;
import java.util.function.IntFunction;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Unit;

/**
 * What curves on a station are drawn against.
 *
 * @param word what the abscissa is
 * @param unit that it is told in; its values are in SI units
 */
public record CurveAxis(String word, Unit unit) {
    /** The abscissa of points, which stand for no length. */
    public static final String NUMBER = "number of the point";

    /** @throws LaneException when the station carries no curve */
    public static CurveAxis of(Station station) {
        return curved(station).drawn();
    }

    private static Shape.Curved curved(Station station) {
        if (station.shape() instanceof Shape.Curved c) {
            return c;
        }
        throw new LaneException("The " + station.word() + " \"" + station.name()
                + "\" carries no curve; choose a line, a cut curve, a sweep, a shell or points.");
    }

    /**
     * Places along a station, and the abscissa there.
     *
     * @param arc what a theory calls {@code s}
     */
    public record Samples(double[] xyz, double[] arc, double[] abscissa) {
        /** Places whose abscissa is the arc as well. */
        static Samples at(int n, IntFunction<Double> abscissa, IntFunction<Point> place) {
            double[] at = new double[n];
            double[] xyz = new double[3 * n];
            Arrays.setAll(at, i -> abscissa.apply(i));
            for (int i = 0; i < n; i++) {
                Point p = place.apply(i);
                xyz[3 * i] = p.x();
                xyz[3 * i + 1] = p.y();
                xyz[3 * i + 2] = p.z();
            }
            return new Samples(xyz, at, at);
        }
    }

    /** @throws LaneException for a cut curve by length or coordinate, which only a run knows */
    public static Samples samples(Station station, Axis axis) {
        return curved(station).samples(axis);
    }
}
