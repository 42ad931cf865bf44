package lane.station;

import java.util.List;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Unit;

/**
 * Where a plane meets boundary parts.
 *
 * @param parts names of boundary parts; empty for all
 * @param against what is drawn along the abscissa
 * @param direction of the coordinate, and from which a closed curve starts
 * @param branch number of the piece, from 1; 0 for all, one after the other
 * @param offsets of the planes along the normal, in metres, where there are several; empty for the one at the point
 */
public record CutCurve(
        Point point,
        Point normal,
        List<String> parts,
        Extent against,
        Point direction,
        int branch,
        List<Double> offsets)
        implements Shape.Curved {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "cut-curve";
        }

        @Override
        public Class<CutCurve> type() {
            return CutCurve.class;
        }
    }

    private static final int SAMPLES = 201;

    /** What a profile over a cut curve is drawn against. */
    public enum Extent {
        /** Length along the curve. */
        LENGTH,
        /** Coordinate along a direction, in metres. */
        COORDINATE,
        /** The same from 0 to 1 over the piece's own extent. */
        SHARE
    }

    public CutCurve {
        offsets = offsets == null ? List.of() : List.copyOf(offsets);
        normal = normal.unit();
        against = against == null ? Extent.LENGTH : against;
        parts = parts == null ? List.of() : List.copyOf(parts);
        direction = direction.unit();
    }

    public CutCurve(Point point, Point normal, List<String> parts, Extent against, Point direction, int branch) {
        this(point, normal, parts, against, direction, branch, List.of());
    }

    /** Points of the planes, in order. */
    public List<Point> planes() {
        return offsets.isEmpty()
                ? List.of(point)
                : offsets.stream().map(o -> point.plus(normal.times(o))).toList();
    }

    @Override
    public Shape through(Axis frame) {
        return new CutCurve(
                frame.out(point),
                frame.outDirection(normal),
                parts,
                against,
                frame.outDirection(direction),
                branch,
                offsets);
    }

    @Override
    public String word() {
        return "cut curve";
    }

    @Override
    public CutCurve moved(Point by) {
        return new CutCurve(point.plus(by), normal, parts, against, direction, branch, offsets);
    }

    @Override
    public CurveAxis drawn() {
        return switch (against) {
            case LENGTH -> new CurveAxis("length along the curve", Unit.of("m"));
            case COORDINATE -> new CurveAxis("coordinate along the direction", Unit.of("m"));
            case SHARE -> new CurveAxis("share of the piece's extent", Unit.ONE);
        };
    }

    @Override
    public CurveAxis.Samples samples(Axis axis) {
        if (against != Extent.SHARE) {
            throw new LaneException("The extent of a cut curve is known to runs only; draw it against the share of its"
                    + " extent to compare with a formula.");
        }
        return CurveAxis.Samples.at(SAMPLES, i -> (double) i / (SAMPLES - 1), i -> point);
    }
}
