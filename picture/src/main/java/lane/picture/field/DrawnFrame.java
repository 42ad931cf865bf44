package lane.picture.field;

import java.util.Optional;
import lane.mesh.Point;

/**
 * A drawn field picture with what lies behind each pixel.
 *
 * @param argb pixels row by row
 * @param keys what {@link Visibility} found at each pixel
 * @param first number of the first triangle of each surface in the scene, and of all
 * @param band value at each pixel in SI units where values are drawn in bands, NaN where there is none; else empty
 */
public record DrawnFrame(
        int width, int height, int[] argb, long[] keys, int[] first, float[] band, Camera camera, Scene scene) {
    /**
     * What lies under a pixel.
     *
     * @param face of the part
     * @param place on the face, exact for the pixel's centre
     */
    public record Hit(int surface, String name, int face, Point place) {}

    /** The nearest surface under a pixel, seen through transparent ones only where nothing opaque is. */
    public Optional<Hit> at(int x, int y) {
        int surface = x < 0 || y < 0 || x >= width || y >= height ? -1 : surface(y * width + x);
        if (surface < 0) {
            return Optional.empty();
        }
        Scene.Surface s = scene.surfaces().get(surface);
        int triangle = triangle(y * width + x);
        return Optional.of(new Hit(surface, s.name(), s.face()[triangle], onTriangle(s, triangle, x + 0.5, y + 0.5)));
    }

    /** The surface at a pixel; -1 for none. */
    int surface(int pixel) {
        if (keys[pixel] == Visibility.NOTHING) {
            return -1;
        }
        int number = (int) keys[pixel];
        int s = 0;
        while (number >= first[s + 1]) {
            s++;
        }
        return s;
    }

    /** The triangle of the surface at a pixel that has one. */
    int triangle(int pixel) {
        return (int) keys[pixel] - first[surface(pixel)];
    }

    /** The value under a pixel, in SI units; NaN where there is none. */
    public double value(int x, int y) {
        int surface = surface(y * width + x);
        if (surface < 0 || scene.surfaces().get(surface).value().length == 0) {
            return Double.NaN;
        }
        Scene.Surface s = scene.surfaces().get(surface);
        int t = triangle(y * width + x);
        if (!s.byNode()) {
            return s.value()[s.face()[t]];
        }
        Point p = onTriangle(s, t, x + 0.5, y + 0.5);
        Point[] c = {corner(s, 3 * t), corner(s, 3 * t + 1), corner(s, 3 * t + 2)};
        Point n = c[1].minus(c[0]).cross(c[2].minus(c[0]));
        double sum = 0;
        for (int k = 0; k < 3; k++) {
            Point side = c[(k + 2) % 3].minus(c[(k + 1) % 3]);
            double share = side.cross(p.minus(c[(k + 1) % 3])).dot(n) / n.dot(n);
            sum += share * s.value()[s.corners()[3 * t + k]];
        }
        return sum;
    }

    /** The ray through the pixel meets the triangle's plane in double precision; the depths are only floats. */
    private Point onTriangle(Scene.Surface s, int t, double px, double py) {
        Point a = corner(s, 3 * t);
        Point b = corner(s, 3 * t + 1);
        Point c = corner(s, 3 * t + 2);
        Point n = b.minus(a).cross(c.minus(a));
        Point f = camera.forward();
        Point o = camera.place(px, py, 0, width, height);
        double down = n.dot(f);
        return down == 0 ? a : o.plus(f.times(n.dot(a.minus(o)) / down));
    }

    private static Point corner(Scene.Surface s, int i) {
        int n = 3 * s.corners()[i];
        return new Point(s.xyz()[n], s.xyz()[n + 1], s.xyz()[n + 2]);
    }
}
