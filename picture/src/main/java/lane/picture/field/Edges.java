package lane.picture.field;

/**
 * The edge functions of a projected triangle: at a pixel each is twice the area between it and an edge, so over the
 * triangle's own they are the weights of the corners. They are exact, as corners are floats.
 */
final class Edges {
    /** Twice the area in square pixels. */
    double area;

    float az;
    float bz;
    float cz;
    /** Pixels that may be covered. */
    int x0;

    int x1;
    int y0;
    int y1;
    /** Edge functions at the place last asked for. */
    double bc;

    double ca;
    double ab;

    private float ax;
    private float ay;
    private float bx;
    private float by;
    private float cx;
    private float cy;
    private double xbc;
    private double ybc;
    private double xca;
    private double yca;
    private double xab;
    private double yab;

    /** The first pixel whose centre is not left of, or above, a coordinate. */
    private static int first(float v) {
        float t = v - 0.5f;
        int i = (int) t;
        return i < t ? i + 1 : Math.max(0, i);
    }

    /** The last pixel whose centre is not right of, or below, a coordinate; -1 where there is none. */
    private static int last(float v) {
        float t = v - 0.5f;
        return t < 0 ? -1 : (int) t;
    }

    /** Without the library's care for NaN and signed zeros, which costs more than the rest; NaN ends at the area. */
    private static float least(float a, float b, float c) {
        float m = a < b ? a : b;
        return m < c ? m : c;
    }

    private static float greatest(float a, float b, float c) {
        float m = a > b ? a : b;
        return m > c ? m : c;
    }

    /** @return whether the triangle has an area */
    boolean load(int[] corners, int t, float[] p, int top, int bottom, int width) {
        if (!load(corners, t, p)) {
            return false;
        }
        x0 = first(least(ax, bx, cx));
        x1 = Math.min(width - 1, last(greatest(ax, bx, cx)));
        y0 = Math.max(top, first(least(ay, by, cy)));
        y1 = Math.min(bottom - 1, last(greatest(ay, by, cy)));
        return true;
    }

    /** The same without the pixels that may be covered. */
    boolean load(int[] corners, int t, float[] p) {
        int a = 3 * corners[3 * t];
        int b = 3 * corners[3 * t + 1];
        int c = 3 * corners[3 * t + 2];
        ax = p[a];
        ay = p[a + 1];
        az = p[a + 2];
        bx = p[b];
        by = p[b + 1];
        bz = p[b + 2];
        cx = p[c];
        cy = p[c + 1];
        cz = p[c + 2];
        double twice = (double) (bx - ax) * (cy - ay) - (double) (by - ay) * (cx - ax);
        if (twice == 0 || Double.isNaN(twice)) {
            return false;
        }
        double sign = twice > 0 ? 1 : -1;
        area = Math.abs(twice);
        xbc = sign * -(cy - by);
        ybc = sign * (cx - bx);
        xca = sign * -(ay - cy);
        yca = sign * (ax - cx);
        xab = sign * -(by - ay);
        yab = sign * (bx - ax);
        return true;
    }

    /** Evaluates the edge functions. */
    void at(double px, double py) {
        bc = ybc * (py - by) + xbc * (px - bx);
        ca = yca * (py - cy) + xca * (px - cx);
        ab = yab * (py - ay) + xab * (px - ax);
    }

    /** Evaluates them, and tells whether the pixel belongs to the triangle. */
    boolean holds(double px, double py) {
        at(px, py);
        return bc >= 0
                && ca >= 0
                && ab >= 0
                && (bc > 0 || Visibility.owns(ybc, -xbc))
                && (ca > 0 || Visibility.owns(yca, -xca))
                && (ab > 0 || Visibility.owns(yab, -xab));
    }

    /** Whether the place last asked for is within half a pixel of a side that is told by its bit. */
    boolean onSide(int sides) {
        return (sides & 1) != 0 && ab < 0.5 * Math.hypot(bx - ax, by - ay)
                || (sides & 2) != 0 && bc < 0.5 * Math.hypot(cx - bx, cy - by)
                || (sides & 4) != 0 && ca < 0.5 * Math.hypot(ax - cx, ay - cy);
    }
}
