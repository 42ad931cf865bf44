package lane.picture.field;

import java.util.Objects;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * Colours the pixels of one thread: values are interpolated over a triangle, then coloured, so that colours are exact for
 * the value at the pixel. What belongs to a triangle is kept from one pixel to the next.
 */
final class Shading {
    private final Scene scene;
    private final Look look;
    private final float[][] projected;
    private final Point light;
    private final Point lamp;
    private final double least;
    private final double toShare;
    private final boolean plainScale;
    private final boolean withEdges;
    private final int ink;
    private final int plain;
    private final int missing;

    private final Edges edges = new Edges();
    private int index = -1;
    private Scene.@Nullable Surface s;
    private int[] corners = {};
    private float[] values = {};
    private float[] normals = {};
    private boolean byNode;
    private boolean coloured;

    private int triangle = -1;
    /** The value at the first corner and what the others have more. */
    private double first;

    private double second;
    private double third;
    private int shade;
    private int flat;
    /** The value at the pixel last coloured; NaN for none. */
    float value;

    Shading(Scene scene, Camera camera, Look look, float[][] projected) {
        this.scene = scene;
        this.look = look;
        this.projected = projected;
        double span = look.greatest() - look.least();
        least = look.least();
        toShare = span > 0 ? 1 / span : 0;
        plainScale = !look.log() && look.style().bands() == 0 && !look.style().marked();
        withEdges = look.edges();
        ink = ink(look);
        plain = look.dark() ? 0xFF5B666D : 0xFFB9B4A6;
        missing = look.dark() ? 0xFF3A4248 : 0xFFD9D5CA;
        // Lamps stand over the left shoulder and to the right, told by right, down, into the picture.
        double n = Math.sqrt(1 + 0.49 + 0.25);
        light = toward(camera, -0.5 / n, -0.7 / n, -1 / n);
        double m = Math.sqrt(1 + 1.44);
        lamp = toward(camera, 1.2 / m, 0, -1 / m);
    }

    static int ink(Look look) {
        return look.dark() ? 0xFFE7E3D8 : 0xFF1D2730;
    }

    private void surface(int surface) {
        index = surface;
        triangle = -1;
        s = scene.surfaces().get(surface);
        corners = s.corners();
        normals = look.shaded() ? s.geometry().normals() : new float[0];
        values = s.value();
        coloured = values.length > 0;
        byNode = s.byNode() && !look.style().byFace();
    }

    private void load(int t) {
        triangle = t;
        if (coloured && byNode) {
            first = values[corners[3 * t]];
            second = values[corners[3 * t + 1]] - first;
            third = values[corners[3 * t + 2]] - first;
        } else if (coloured) {
            Scene.Surface now = Objects.requireNonNull(s);
            first = now.byNode() ? now.mean(t) : values[now.face()[t]];
            second = 0;
            third = 0;
        }
        shade = look.shaded() ? lit(t) : 256;
        flat = shaded(coloured ? missing : plain, shade);
        if (withEdges) {
            edges.load(corners, t, projected[index]);
        }
    }

    /** 256ths of light on a face. */
    private int lit(int t) {
        double x = normals[3 * t];
        double y = normals[3 * t + 1];
        double z = normals[3 * t + 2];
        // Both sides of a face are lit alike: seen from inside, a part is as readable as from outside.
        double l = x * light.x() + y * light.y() + z * light.z();
        double m = Math.abs(x * lamp.x() + y * lamp.y() + z * lamp.z());
        return Math.min(256, (int) (256 * (0.70 + 0.30 * l * l + 0.10 * m)));
    }

    /** Where a lamp stands that is told by right, down and into the picture. */
    private static Point toward(Camera camera, double right, double down, double into) {
        return camera.right()
                .times(right)
                .plus(camera.up().times(-down))
                .plus(camera.forward().times(into));
    }

    /**
     * The colour of a triangle at a pixel.
     *
     * @param wb weight of the second corner there
     * @param wc of the third
     */
    int colour(int surface, int t, int x, int y, double wb, double wc) {
        if (surface != index) {
            surface(surface);
        }
        if (t != triangle) {
            load(t);
        }
        double v = Double.NaN;
        int colour = flat;
        if (coloured) {
            v = first + wb * second + wc * third;
            if (!Double.isNaN(v)) {
                double share = (v - least) * toShare;
                colour = shaded(plainScale ? look.scale().colour(share) : look.colour(look.share(v)), shade);
            } else if ((x + y & 7) < 2) {
                // Where a value is missing the surface is hatched, so that it is not taken for one of the scale.
                colour = mix(flat, ink, 90);
            }
        }
        value = (float) v;
        if (withEdges) {
            edges.at(x + 0.5, y + 0.5);
            return edges.onSide(Objects.requireNonNull(s).edge()[triangle]) ? mix(colour, ink, 110) : colour;
        }
        return colour;
    }

    /** A colour at so many 256ths of light. */
    private static int shaded(int colour, int light) {
        // Red and blue together: the one's overflow ends where the other begins.
        return 0xFF000000
                | ((colour & 0xFF00FF) * light >>> 8) & 0xFF00FF
                | ((colour & 0x00FF00) * light >>> 8) & 0x00FF00;
    }

    /** Of two colours, {@code share} 256ths of the second. */
    static int mix(int a, int b, int share) {
        int rest = 256 - share;
        return 0xFF000000
                | ((a >> 16 & 255) * rest + (b >> 16 & 255) * share >> 8) << 16
                | ((a >> 8 & 255) * rest + (b >> 8 & 255) * share >> 8) << 8
                | (a & 255) * rest + (b & 255) * share >> 8;
    }
}
