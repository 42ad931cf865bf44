package lane.picture.field;

import java.util.Optional;
import lane.mesh.Point;

/**
 * A drawn field picture with what lies behind each pixel.
 *
 * @param argb pixels row by row
 * @param depth metres from the camera's centre plane; infinite where nothing is
 * @param value of the nearest whole surface at each pixel, in SI units; NaN where there is none
 * @param pick surface in the upper bits, triangle in the lower 40; -1 where nothing is
 */
public record Frame(
        int width, int height, int[] argb, float[] depth, long[] pick, float[] value, Camera camera, Scene scene) {
    /** What lies under a pixel. @param face of the part @param place on the face, exact for the pixel's centre */
    public record Hit(int surface, String name, int face, Point place) {}

    /** The nearest surface under a pixel, seen through transparent ones only where nothing opaque is. */
    public Optional<Hit> at(int x, int y) {
        if (x < 0 || y < 0 || x >= width || y >= height || pick[y * width + x] < 0) {
            return Optional.empty();
        }
        long p = pick[y * width + x];
        int surface = (int) (p >> 40);
        int triangle = (int) (p & 0xFFFFFFFFFFL);
        Scene.Surface s = scene.surfaces().get(surface);
        return Optional.of(new Hit(surface, s.name(), s.face()[triangle], onTriangle(s, triangle, x + 0.5, y + 0.5)));
    }

    /** The ray through the pixel meets the triangle's plane in double precision; the depth buffer is only a float. */
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
