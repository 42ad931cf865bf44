package lane.station;

import lane.mesh.Axis;
import lane.mesh.Point;

/** Cells by the place of their middle, or by a value there. */
public record Region(Within within) implements Shape {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "region";
        }

        @Override
        public Class<Region> type() {
            return Region.class;
        }
    }

    @Override
    public Shape through(Axis frame) {
        return new Region(within.through(frame));
    }

    @Override
    public String word() {
        return "region";
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public String shapedBy() {
        return within instanceof Within.Above a ? a.quantity() : "";
    }

    @Override
    public Region moved(Point by) {
        return new Region(within.moved(by));
    }
}
