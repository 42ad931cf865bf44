package lane.station;

import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;

/**
 * Finds places again on a station that carries a curve. A place belongs to a path or a list of points when it is nearer
 * than a thousandth of the station's extent; along a sweep any place lies by its length along the axis, and around a shell
 * by its angle.
 */
public final class Locus {
    private static final double NEAR = 1e-3;

    private final Station station;
    private final Axis axis;
    private final PathSamples dense;
    private final double[] denseAbscissa;

    private Locus(Station station, Axis axis) {
        this.station = station;
        this.axis = axis;
        boolean angle = station instanceof Station.Path p && p.abscissa().kind() == Abscissa.Kind.ANGLE;
        dense = angle ? PathSamples.of((Station.Path) station) : null;
        denseAbscissa = angle
                ? ((Station.Path) station)
                        .abscissa()
                        .of(dense.arc(), ((Station.Path) station).length(), dense.xyz(), axis)
                : null;
    }

    /**
     * @param axis the study's
     * @throws LaneException when places cannot be found on it
     */
    public static Locus of(Station station, Axis axis) {
        return switch (station) {
            case Station.Path _, Station.Points _, Station.Sweep _, Station.Shell _ -> new Locus(station, axis);
            default ->
                throw new LaneException("Places cannot be found again on the " + station.word() + " \"" + station.name()
                        + "\"; use a line, points, a sweep or a shell.");
        };
    }

    /**
     * How far along the station places lie, in SI units; NaN where they are not on it.
     *
     * @param arc what a theory calls {@code s}
     * @param abscissa what the station's curves are drawn against
     */
    public record Found(double[] arc, double[] abscissa) {}

    /** @param x coordinates of {@code n} places in metres, with {@code y} and {@code z} */
    public Found find(double[] x, double[] y, double[] z, int n) {
        double[] arc = new double[n];
        return switch (station) {
            case Station.Path p -> {
                for (int i = 0; i < n; i++) {
                    arc[i] = !Double.isFinite(x[i] + y[i] + z[i])
                            ? Double.NaN
                            : p instanceof Station.Arc a
                                    ? onArc(a, x[i], y[i], z[i])
                                    : onLines(p.corners(), p.length(), new Point(x[i], y[i], z[i]));
                }
                yield new Found(arc, abscissa(p, arc, x, y, z));
            }
            case Station.Points p -> {
                for (int i = 0; i < n; i++) {
                    arc[i] = Double.isFinite(x[i] + y[i] + z[i])
                            ? nearest(p.points(), new Point(x[i], y[i], z[i]))
                            : Double.NaN;
                }
                yield new Found(arc, arc);
            }
            case Station.Sweep w -> {
                Arrays.setAll(arc, i -> w.axis().along(x[i], y[i], z[i]));
                yield new Found(arc, arc);
            }
            case Station.Shell h -> {
                double seam = Math.toRadians(h.seam());
                Arrays.setAll(arc, i -> {
                    double a = h.axis().angle(x[i], y[i], z[i]) - seam;
                    double turn = a - 2 * Math.PI * Math.floor(a / (2 * Math.PI));
                    // Round-off must not take the seam from the beginning to the end.
                    return seam + (turn > 2 * Math.PI - 1e-9 ? 0 : turn);
                });
                yield new Found(arc, arc);
            }
            default -> throw new IllegalStateException(station.word());
        };
    }

    private double[] abscissa(Station.Path path, double[] arc, double[] x, double[] y, double[] z) {
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
        if (dense == null) {
            return 0;
        }
        int i = Arrays.binarySearch(dense.arc(), s);
        int near = Math.clamp(i < 0 ? -i - 1 : i, 0, dense.size() - 1);
        return 2 * Math.PI * Math.round((denseAbscissa[near] - angle) / (2 * Math.PI));
    }

    private static double onArc(Station.Arc a, double x, double y, double z) {
        double near = NEAR * a.length();
        if (Math.abs(a.axis().along(x, y, z) - a.along()) > near
                || Math.abs(a.axis().radius(x, y, z) - a.radius()) > near) {
            return Double.NaN;
        }
        double span = Math.toRadians(a.to() - a.from());
        double turn = (a.axis().angle(x, y, z) - Math.toRadians(a.from())) * Math.signum(span);
        turn -= 2 * Math.PI * Math.floor(turn / (2 * Math.PI));
        double over = turn - Math.abs(span);
        double slack = near / a.radius();
        // Just before the start is nearly a full turn.
        if (turn > 2 * Math.PI - slack && over > 0) {
            return 0;
        }
        return over > slack ? Double.NaN : Math.min(turn, Math.abs(span)) * a.radius();
    }

    private static double onLines(List<Point> corners, double length, Point p) {
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

    private static double nearest(List<Point> points, Point p) {
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
