package lane.picture.field;

/**
 * Colours the pixels of one thread: values are interpolated over a triangle, then coloured, so that colours are exact for
 * the value at the pixel. What belongs to a triangle is kept from one pixel to the next.
 */
final class Shading {
    private final Scene scene;
    private final Look look;
    private final float[][] projected;
    private final double scale;
    private final double[] light;
    private final double[] lamp;
    private final double toShare;
    private final boolean plainScale;
    private final int ink;
    private final int plain;
    private final int missing;

    private final Edges edges = new Edges();
    private int index = -1;
    private int triangle = -1;
    private Scene.Surface s;
    private double inverse;
    private float va;
    private float vb;
    private float vc;
    private double shade;
    private int flat;
    private boolean coloured;
    /** The value at the pixel last coloured; NaN for none. */
    float value;

    Shading(Scene scene, Camera camera, Look look, float[][] projected) {
        this.scene = scene;
        this.look = look;
        this.projected = projected;
        double span = look.greatest() - look.least();
        toShare = span > 0 ? 1 / span : 0;
        plainScale = !look.log() && look.style().bands() == 0 && !look.style().marked();
        ink = ink(look);
        plain = look.dark() ? 0xFF5B666D : 0xFFB9B4A6;
        missing = look.dark() ? 0xFF3A4248 : 0xFFD9D5CA;
        scale = camera.scale();
        // Lamps stand over the left shoulder and to the right, told by right, down, into the picture.
        double n = Math.sqrt(1 + 0.49 + 0.25);
        light = new double[] {-0.5 / n, -0.7 / n, -1 / n};
        double m = Math.sqrt(1 + 1.44);
        lamp = new double[] {1.2 / m, 0, -1 / m};
    }

    static int ink(Look look) {
        return look.dark() ? 0xFFE7E3D8 : 0xFF1D2730;
    }

    private void load(int surface, int t) {
        index = surface;
        triangle = t;
        s = scene.surfaces().get(surface);
        edges.load(s.corners(), t, projected[surface]);
        inverse = 1 / edges.area;
        coloured = s.value().length > 0;
        int a = s.corners()[3 * t];
        int b = s.corners()[3 * t + 1];
        int c = s.corners()[3 * t + 2];
        if (coloured) {
            boolean one = !s.byNode() || look.style().byFace();
            va = one ? (s.byNode() ? s.mean(t) : s.value()[s.face()[t]]) : s.value()[a];
            vb = one ? va : s.value()[b];
            vc = one ? va : s.value()[c];
        }
        shade = look.shaded() ? edges.shade(light, lamp, scale) : 1;
        flat = shaded(coloured ? missing : plain, shade);
    }

    /** The colour of a triangle at a pixel. */
    int colour(int surface, int t, int x, int y) {
        if (t != triangle || surface != index) {
            load(surface, t);
        }
        edges.at(x + 0.5, y + 0.5);
        double v = Double.NaN;
        int colour = flat;
        if (coloured) {
            v = (edges.bc * va + edges.ca * vb + edges.ab * vc) * inverse;
            if (!Double.isNaN(v)) {
                colour = shaded(
                        plainScale ? look.scale().colour((v - look.least()) * toShare) : look.colour(look.share(v)),
                        shade);
            } else if ((x + y & 7) < 2) {
                // Where a value is missing the surface is hatched, so that it is not taken for one of the scale.
                colour = mix(flat, ink, 90);
            }
        }
        value = (float) v;
        return look.edges() && edges.onSide(s.edge()[t]) ? mix(colour, ink, 110) : colour;
    }

    private static int shaded(int colour, double shade) {
        int s = (int) (256 * shade);
        return 0xFF000000
                | ((colour >> 16 & 255) * s >> 8) << 16
                | ((colour >> 8 & 255) * s >> 8) << 8
                | (colour & 255) * s >> 8;
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
