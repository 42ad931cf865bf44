package lane.station;

import java.util.List;
import lane.mesh.Axis;
import lane.mesh.Point;

/** Which cells a region takes. */
public sealed interface Within {
    default Within moved(Point by) {
        return this;
    }

    /** The same of whole cells: what is stored belongs to these, so of a box that cuts them to those whose middle lies in it. */
    default Within whole() {
        return this instanceof InBox b ? new InBox(b.box()) : this;
    }

    /** The same as it stands in space, its own numbers being those of a frame. */
    default Within through(Axis frame) {
        return switch (this) {
            case InBox b -> new InBox(b.box().through(frame), b.cut());
            case Cylinder c -> new Cylinder(frame.out(c.axis()), c.radius(), c.from(), c.to());
            case Ball b -> new Ball(frame.out(b.centre()), b.radius());
            case All _, Touching _, Above _ -> this;
        };
    }

    record All() implements Within {}

    /**
     * What lies in a box.
     *
     * @param cut whether cells that the sides pass through count with the part inside; else those whose middle lies in it
     */
    record InBox(Box box, boolean cut) implements Within {
        public InBox(Box box) {
            this(box, false);
        }

        @Override
        public Within moved(Point by) {
            return new InBox(box.moved(by), cut);
        }
    }

    record Cylinder(Axis axis, double radius, double from, double to) implements Within {
        @Override
        public Within moved(Point by) {
            return new Cylinder(axis.moved(by), radius, from, to);
        }
    }

    record Ball(Point centre, double radius) implements Within {
        @Override
        public Within moved(Point by) {
            return new Ball(centre.plus(by), radius);
        }
    }

    /** Cells that touch one of these boundary parts. */
    record Touching(List<String> parts) implements Within {
        public Touching {
            parts = List.copyOf(parts);
        }
    }

    /** Cells where the mean of a quantity over the nodes is greater than a value. */
    record Above(String quantity, double value) implements Within {}
}
