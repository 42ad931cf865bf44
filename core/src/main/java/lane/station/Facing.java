package lane.station;

import lane.base.LaneException;
import lane.mesh.Point;

/** Faces whose outward normal is within an angle of a direction. */
public record Facing(Point direction, double within) {
    public Facing {
        direction = direction.unit();
        if (!(within > 0) || within > 180) {
            throw new LaneException("Faces within " + within + " degrees of a direction are none; give 0 to 180.");
        }
    }
}
