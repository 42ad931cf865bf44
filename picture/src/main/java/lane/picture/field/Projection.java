package lane.picture.field;

import lane.mesh.Point;

/**
 * A camera's view of a picture as it is drawn: floats to a node. Each step of it grows or falls with each coordinate, also
 * by round-off, so that the corner of a box that is least in exact numbers is least here.
 */
final class Projection {
    private final Point centre;
    private final Point right;
    private final Point down;
    private final Point forward;
    private final int width;
    private final int height;

    Projection(Camera camera, int width, int height) {
        centre = camera.centre();
        right = camera.right().times(camera.scale());
        down = camera.up().times(-camera.scale());
        forward = camera.forward();
        this.width = width;
        this.height = height;
    }

    /** Pixels to the right. */
    float right(double x, double y, double z) {
        return (float) (width / 2.0 + along(right, x, y, z));
    }

    /** Pixels downwards. */
    float down(double x, double y, double z) {
        return (float) (height / 2.0 + along(down, x, y, z));
    }

    /** Depth, further from the eye where it is greater. */
    float depth(double x, double y, double z) {
        return (float) along(forward, x, y, z);
    }

    private double along(Point d, double x, double y, double z) {
        return (x - centre.x()) * d.x() + (y - centre.y()) * d.y() + (z - centre.z()) * d.z();
    }

    /**
     * Where a box begins and ends to the right.
     *
     * @param b bounds, six to a box
     * @param at where its own begin
     */
    float right(double[] b, int at, boolean end) {
        return right(
                corner(right.x(), b, at, end), corner(right.y(), b, at + 2, end), corner(right.z(), b, at + 4, end));
    }

    float down(double[] b, int at, boolean end) {
        return down(corner(down.x(), b, at, end), corner(down.y(), b, at + 2, end), corner(down.z(), b, at + 4, end));
    }

    float depth(double[] b, int at, boolean end) {
        return depth(
                corner(forward.x(), b, at, end),
                corner(forward.y(), b, at + 2, end),
                corner(forward.z(), b, at + 4, end));
    }

    private static double corner(double grows, double[] b, int at, boolean end) {
        return b[grows > 0 == end ? at + 1 : at];
    }

    /**
     * The first column of pixels whose centres are not left of a place, within the picture. A triangle covers centres from
     * the least of its nodes to before the greatest: one on its right or lower end belongs to its neighbour.
     */
    int column(float right) {
        return cell(right, width);
    }

    /** The first row of pixels whose centres are not above a place, within the picture. */
    int row(float down) {
        return cell(down, height);
    }

    /** No number is treated as zero; triangles with one have no area. */
    private static int cell(float v, int end) {
        float t = v - 0.5f;
        int i = (int) t;
        return Math.clamp(i + (i < t ? 1 : 0), 0, end);
    }
}
