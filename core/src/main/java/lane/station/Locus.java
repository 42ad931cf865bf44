package lane.station;

import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * Finds places again on a station that carries a curve. A place belongs to a path or a list of points when it is nearer
 * than a thousandth of the station's extent; along a sweep any place lies by its length along the axis, and around a shell
 * by its angle.
 */
public interface Locus {
    /** A place is on a curve when it is nearer than this share of the curve's extent. */
    double NEAR = 1e-3;

    /**
     * How far along the station places lie, in SI units; NaN where they are not on it.
     *
     * @param arc what a theory calls {@code s}
     * @param abscissa what the station's curves are drawn against
     */
    record Found(double[] arc, double[] abscissa) {}

    /** @param x coordinates of {@code n} places in metres, with {@code y} and {@code z} */
    Found find(double[] x, double[] y, double[] z, int n);

    /** How far along one place lies; NaN where it is not on it. */
    @FunctionalInterface
    interface One {
        double at(double x, double y, double z);
    }

    /** A locus whose abscissa is the arc as well. */
    static Locus of(One one) {
        return (x, y, z, n) -> {
            double[] arc = arcs(one, x, y, z, n);
            return new Found(arc, arc);
        };
    }

    private static double[] arcs(One one, double[] x, double[] y, double[] z, int n) {
        double[] arc = new double[n];
        Arrays.setAll(arc, i -> Double.isFinite(x[i] + y[i] + z[i]) ? one.at(x[i], y[i], z[i]) : Double.NaN);
        return arc;
    }

    /**
     * @param axis the study's
     * @throws LaneException when places cannot be found on it
     */
    static Locus of(Station station, Axis axis) {
        Locus found = station.shape() instanceof Shape.Curved c ? c.locus(axis) : null;
        if (found == null) {
            throw new LaneException("Places cannot be found again on the " + station.word() + " \"" + station.name()
                    + "\"; use a line, points, a sweep or a shell.");
        }
        return found;
    }

    /** On a path. */
    final class OnPath implements Locus {
        private final Shape.Path path;
        private final Axis axis;
        private final @Nullable PathSamples dense;
        private final double @Nullable [] denseAbscissa;

        OnPath(Shape.Path path, Axis axis) {
            this.path = path;
            this.axis = axis;
            boolean angle = path.abscissa().kind() == Abscissa.Kind.ANGLE;
            dense = angle ? PathSamples.of(path) : null;
            denseAbscissa = dense == null ? null : path.abscissa().of(dense.arc(), path.length(), dense.xyz(), axis);
        }

        @Override
        public Found find(double[] x, double[] y, double[] z, int n) {
            double[] arc = arcs(path::along, x, y, z, n);
            return new Found(arc, abscissa(arc, x, y, z));
        }

        private double[] abscissa(double[] arc, double[] x, double[] y, double[] z) {
            int[] on = java.util.stream.IntStream.range(0, arc.length)
                    .filter(i -> !Double.isNaN(arc[i]))
                    .toArray();
            double[] s = new double[on.length];
            double[] xyz = new double[3 * on.length];
            for (int k = 0; k < on.length; k++) {
                s[k] = arc[on[k]];
                xyz[3 * k] = x[on[k]];
                xyz[3 * k + 1] = y[on[k]];
                xyz[3 * k + 2] = z[on[k]];
            }
            double[] own = path.abscissa().of(s, path.length(), xyz, axis);
            double[] out = new double[arc.length];
            Arrays.fill(out, Double.NaN);
            for (int k = 0; k < on.length; k++) {
                out[on[k]] = own[k] + turns(s[k], own[k]);
            }
            return out;
        }

        /** Whole turns that an angle lacks: along a path it goes on over half a turn. */
        private double turns(double s, double angle) {
            if (dense == null || denseAbscissa == null) {
                return 0;
            }
            int i = Arrays.binarySearch(dense.arc(), s);
            int near = Math.clamp(i < 0 ? -i - 1 : i, 0, dense.size() - 1);
            return 2 * Math.PI * Math.round((denseAbscissa[near] - angle) / (2 * Math.PI));
        }
    }

    static double onLines(List<Point> corners, double length, Point p) {
        double best = NEAR * length;
        double arc = Double.NaN;
        double before = 0;
        for (int i = 0; i + 1 < corners.size(); i++) {
            Point d = corners.get(i + 1).minus(corners.get(i));
            double l = d.norm();
            Point from = p.minus(corners.get(i));
            double f = l == 0 ? 0 : Math.clamp(from.dot(d) / (l * l), 0, 1);
            double off = from.minus(d.times(f)).norm();
            if (off < best) {
                best = off;
                arc = before + f * l;
            }
            before += l;
        }
        return arc;
    }

    static double nearest(List<Point> points, Point p) {
        double extent = points.stream()
                .mapToDouble(q -> q.minus(points.getFirst()).norm())
                .max()
                .orElse(0);
        double best = Math.max(NEAR * extent, 1e-9 * Math.max(1, p.norm()));
        double number = Double.NaN;
        for (int i = 0; i < points.size(); i++) {
            double off = points.get(i).minus(p).norm();
            if (off < best) {
                best = off;
                number = i + 1;
            }
        }
        return number;
    }
}
