package lane.station;

import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Unit;

/**
 * Sections square to an axis, or rings about it, at even places along it; each gives one number.
 *
 * @param ring radius of the rings; 0 for whole sections
 */
public record Sweep(Axis axis, double from, double to, int count, double ring) implements Shape.Curved {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "sweep";
        }

        @Override
        public Class<Sweep> type() {
            return Sweep.class;
        }
    }

    public Sweep {
        if (count < 2 || count > 10_000 || !(from != to) || !(ring >= 0)) {
            throw new LaneException("A sweep needs 2 to 10 000 places between two different lengths"
                    + " along its axis, and a ring radius that is not negative.");
        }
    }

    public double place(int i) {
        return from + (to - from) * i / (count - 1);
    }

    @Override
    public Shape through(Axis frame) {
        return new Sweep(frame.out(axis), from, to, count, ring);
    }

    @Override
    public String word() {
        return ring > 0 ? "sweep of rings" : "sweep of sections";
    }

    @Override
    public Sweep moved(Point by) {
        return new Sweep(axis.moved(by), from, to, count, ring);
    }

    /** The section or ring at a place. */
    public Shape at(int i) {
        return ring > 0
                ? new Arc(axis, ring, place(i), 0, 360, new Sampling.Even(361), Abscissa.ANGLE)
                : new Section(axis.origin().plus(axis.direction().times(place(i))), axis.direction(), null, null);
    }

    @Override
    public CurveAxis drawn() {
        return new CurveAxis("length along the axis", Unit.of("m"));
    }

    @Override
    public CurveAxis.Samples samples(Axis study) {
        return CurveAxis.Samples.at(count, this::place, i -> axis.place(ring, 0, place(i)));
    }

    @Override
    public Locus locus(Axis study) {
        return Locus.of(axis::along);
    }
}
