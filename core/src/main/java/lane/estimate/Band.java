package lane.estimate;

/**
 * An uncertainty along a curve.
 *
 * @param source where it comes from
 * @param below half-width downwards at each sample in SI units; NaN or 0 where none is stated
 * @param above the same upwards; the same array where it is the same both ways
 * @param k coverage factor of the half-widths
 */
public record Band(Uncertainty.Source source, double[] below, double[] above, double k) {
    /** The same both ways, with the usual factor. */
    public Band(Uncertainty.Source source, double[] half) {
        this(source, half, half, Uncertainty.USUAL);
    }

    /** The root of squares of two bands of one curve, of the kind of the first. */
    public Band and(Band other) {
        return new Band(source, both(below, other.below), both(above, other.above), Math.max(k, other.k));
    }

    private static double[] both(double[] a, double[] b) {
        double[] out = new double[a.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = Double.isNaN(a[i]) ? b[i] : Double.isNaN(b[i]) ? a[i] : Math.hypot(a[i], b[i]);
        }
        return out;
    }
}
