package lane.picture.field;

/**
 * A perceptually even colour scale: nine stops of even lightness steps, mixed in OKLab (Ottosson 2020), tabulated.
 */
public enum ColourScale {
    /** Paper to ink: more is darker. */
    SIZE(0xFAEED1, 0xD0DAB5, 0x9FC6A5, 0x6CB1A0, 0x3B999D, 0x1E7D90, 0x106181, 0x1C4666, 0x1B2D48),
    /** Two sides of zero. */
    SIGNED(0x00435A, 0x356B80, 0x6F97A7, 0xACC3CC, 0xEFEFF0, 0xD0BBB1, 0xAB8977, 0x845943, 0x5C2D12);

    private static final int STEPS = 1024;

    @SuppressWarnings("ImmutableEnumChecker")
    private final int[] table = new int[STEPS];

    ColourScale(int... stops) {
        for (int i = 0; i < STEPS; i++) {
            double at = (double) i / (STEPS - 1) * (stops.length - 1);
            int k = (int) Math.min(stops.length - 2, at);
            double[] a = lab(stops[k]);
            double[] b = lab(stops[k + 1]);
            double f = at - k;
            table[i] = rgb(new double[] {a[0] + f * (b[0] - a[0]), a[1] + f * (b[1] - a[1]), a[2] + f * (b[2] - a[2])});
        }
    }

    /** Opaque colour of a share from 0 to 1; outside, that of the nearer end. */
    public int colour(double share) {
        int i = (int) (share * (STEPS - 1) + 0.5);
        return 0xFF000000 | table[Math.max(0, Math.min(STEPS - 1, i))];
    }

    private static double[] lab(int rgb) {
        double r = linear(rgb >> 16 & 255);
        double g = linear(rgb >> 8 & 255);
        double b = linear(rgb & 255);
        double l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
        double m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
        double s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
        return new double[] {
            0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s,
            1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * s,
            0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * s
        };
    }

    private static int rgb(double[] lab) {
        double l = cube(lab[0] + 0.3963377774 * lab[1] + 0.2158037573 * lab[2]);
        double m = cube(lab[0] - 0.1055613458 * lab[1] - 0.0638541728 * lab[2]);
        double s = cube(lab[0] - 0.0894841775 * lab[1] - 1.2914855480 * lab[2]);
        return byteOf(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s) << 16
                | byteOf(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s) << 8
                | byteOf(-0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s);
    }

    private static double cube(double v) {
        return v * v * v;
    }

    private static double linear(int c) {
        double v = c / 255.0;
        return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
    }

    private static int byteOf(double v) {
        double c = v <= 0.0031308 ? 12.92 * v : 1.055 * Math.pow(v, 1 / 2.4) - 0.055;
        return (int) Math.max(0, Math.min(255, Math.round(255 * c)));
    }
}
