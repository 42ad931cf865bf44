package lane.station;

import lane.base.LaneException;
import lane.mesh.Point;

/** Where to look: the same place in every lane. */
public sealed interface Station {
    /** Stable key within the study. */
    String id();

    /** For people. */
    String name();

    Station named(String other);

    /**
     * A straight line from A to B.
     *
     * @param abscissa what profiles on it are drawn against
     */
    record Line(String id, String name, Point a, Point b, Sampling sampling, Abscissa abscissa) implements Station {
        public Line {
            if (a.equals(b)) {
                throw new LaneException("Line \"" + name + "\" has both ends at one place; move one of them.");
            }
        }

        public double length() {
            return b.minus(a).norm();
        }

        @Override
        public Line named(String other) {
            return new Line(id, other, a, b, sampling, abscissa);
        }

        public Line between(Point newA, Point newB) {
            return new Line(id, name, newA, newB, sampling, abscissa);
        }

        /** What its placement depends on: the line without its name and key. */
        public Line geometry() {
            return new Line("", "", a, b, sampling, abscissa);
        }
    }

    /** A boundary part that each run has under this name. */
    record OnPart(String id, String name, String part) implements Station {
        @Override
        public OnPart named(String other) {
            return new OnPart(id, other, part);
        }
    }
}
