package lane.picture.field;

/**
 * How surfaces are coloured.
 *
 * @param scale colours of values
 * @param least value at the lower end, {@code greatest} at the upper, in SI units
 * @param shaded true for light and shadow, false for flat colours that can be read against the scale
 * @param edges whether the edges of faces are drawn
 * @param dark theme
 * @param style how values become colours
 */
public record Look(
        ColourScale scale, double least, double greatest, boolean shaded, boolean edges, boolean dark, Style style) {
    public Look(ColourScale scale, double least, double greatest, boolean shaded, boolean edges, boolean dark) {
        this(scale, least, greatest, shaded, edges, dark, Style.SMOOTH);
    }

    /**
     * How values become colours.
     *
     * @param bands number of bands of one colour each, with lines between them; 0 for smooth
     * @param byFace whether a face has one colour, of the mean of its nodes
     * @param log whether the scale is logarithmic, where its ends allow it
     * @param marked whether values outside the ends get colours of their own
     */
    public record Style(int bands, boolean byFace, boolean log, boolean marked) {
        public static final Style SMOOTH = new Style(0, false, false, false);

        public Style {
            if (bands < 0 || bands > 100) {
                throw new lane.base.LaneException(
                        "A scale has 0 to 100 bands, not " + bands + "; give a number in that range.");
            }
        }
    }

    /** Whether the logarithm is used: both ends must be positive. */
    public boolean log() {
        return style.log() && least > 0 && greatest > least;
    }

    /** Where a value lies on the scale, 0 at the lower and 1 at the upper end; outside of these it is outside. */
    public double share(double v) {
        if (log()) {
            return v <= 0 ? -1 : Math.log(v / least) / Math.log(greatest / least);
        }
        double span = greatest - least;
        return span > 0 ? (v - least) / span : 0;
    }

    /** The value at a share of the scale. */
    public double value(double share) {
        return log() ? least * Math.pow(greatest / least, share) : least + share * (greatest - least);
    }

    /** The band of a share; -1 and the number of bands outside. */
    int band(double share) {
        return share < 0 ? -1 : share > 1 ? style.bands() : Math.min(style.bands() - 1, (int) (share * style.bands()));
    }

    /** Below and above the ends, where these are marked. */
    static final int BELOW = 0xFF9A7FB8;

    static final int ABOVE = 0xFFD65C94;

    /** A share beyond the ends by less than this is round-off. */
    private static final double ROUND_OFF = 1e-6;

    /** The colour of a share. */
    public int colour(double share) {
        if (style.marked() && share < -ROUND_OFF) {
            return BELOW;
        }
        if (style.marked() && share > 1 + ROUND_OFF) {
            return ABOVE;
        }
        if (style.bands() > 0) {
            int band = Math.clamp(band(share), 0, style.bands() - 1);
            return scale.colour((band + 0.5) / style.bands());
        }
        return scale.colour(share);
    }
}
