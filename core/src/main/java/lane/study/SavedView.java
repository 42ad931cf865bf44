package lane.study;

import lane.base.LaneException;
import lane.mesh.Point;

/**
 * A view of the field picture by name.
 *
 * @param centre the place in the middle, in metres
 * @param yaw and {@code pitch}: angles of the view in radians
 * @param height what the picture's height spans, in metres
 * @param quantity key of what it is coloured by; blank for nothing
 */
public record SavedView(String name, Point centre, double yaw, double pitch, double height, String quantity) {
    public SavedView {
        quantity = quantity == null ? "" : quantity;
        if (name.isBlank() || !(height > 0)) {
            throw new LaneException("A view needs a name and a height greater than zero.");
        }
    }
}
