package lane.station;

import java.util.Arrays;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Unit;

/**
 * What curves on a station are drawn against, and the places where a theory is computed that needs no run.
 *
 * @param word what the abscissa is
 * @param unit its SI unit
 */
public record CurveAxis(String word, Unit unit) {
    private static final int SAMPLES = 201;

    /** @throws LaneException when the station carries no curve */
    public static CurveAxis of(Station station) {
        return switch (station) {
            case Station.Path p ->
                new CurveAxis(p.abscissa().word(), p.abscissa().unit());
            case Station.CutCurve c ->
                switch (c.against()) {
                    case LENGTH -> new CurveAxis("length along the curve", Unit.of("m"));
                    case COORDINATE -> new CurveAxis("coordinate along the direction", Unit.of("m"));
                    case SHARE -> new CurveAxis("share of the piece's extent", Unit.ONE);
                };
            case Station.Sweep _ -> new CurveAxis("length along the axis", Unit.of("m"));
            case Station.Shell _ -> new CurveAxis("angle about the axis", Unit.of("rad"));
            case Station.Points _ -> new CurveAxis("number of the point", Unit.ONE);
            default ->
                throw new LaneException("The " + station.word() + " \"" + station.name()
                        + "\" carries no curve; choose a line, a cut curve, a sweep, a shell or points.");
        };
    }

    /** Places along a station, and the abscissa there. @param arc what a theory calls {@code s} */
    public record Samples(double[] xyz, double[] arc, double[] abscissa) {}

    /** @throws LaneException for a cut curve by length or coordinate, which only a run knows */
    public static Samples samples(Station station, Axis axis) {
        return switch (station) {
            case Station.Path p -> {
                PathSamples s = PathSamples.of(p);
                yield new Samples(s.xyz(), s.arc(), p.abscissa().of(s.arc(), p.length(), s.xyz(), axis));
            }
            case Station.Sweep w -> {
                double[] at = new double[w.count()];
                Arrays.setAll(at, w::place);
                yield at(at, i -> w.axis().place(w.ring(), 0, at[i]));
            }
            case Station.Shell h -> {
                double[] at = new double[360];
                Arrays.setAll(at, i -> Math.toRadians(i + h.seam()));
                double middle = h.from() != null && h.to() != null ? (h.from() + h.to()) / 2 : 0;
                yield at(at, i -> h.axis().place(h.radius(), at[i], middle));
            }
            case Station.CutCurve c
            when c.against() == Station.Extent.SHARE -> {
                double[] at = new double[SAMPLES];
                Arrays.setAll(at, i -> (double) i / (SAMPLES - 1));
                yield at(at, i -> c.point());
            }
            case Station.Points p -> {
                double[] at = new double[p.points().size()];
                Arrays.setAll(at, i -> i + 1);
                yield at(at, p.points()::get);
            }
            default ->
                throw new LaneException(
                        "The extent of " + station.word() + " \"" + station.name()
                                + "\" is known to runs only; draw it against the share of its extent to compare with a formula.");
        };
    }

    private static Samples at(double[] at, java.util.function.IntFunction<Point> place) {
        double[] xyz = new double[3 * at.length];
        for (int i = 0; i < at.length; i++) {
            Point p = place.apply(i);
            xyz[3 * i] = p.x();
            xyz[3 * i + 1] = p.y();
            xyz[3 * i + 2] = p.z();
        }
        return new Samples(xyz, at, at);
    }
}
