package lane.fit;

/**
 * A fit that is linear in its coefficients.
 *
 * @param coefficients the constant first
 * @param standardErrors of the coefficients, from the scatter of the samples; NaN where there are no more samples than coefficients
 * @param residualDeviation {@code sqrt(SSR / (n - p))}; NaN where there are no more samples than coefficients
 * @param r2 {@code 1 - SSR / SST}, SST about the mean; NaN where all values are the same
 * @param residuals value less fit at each sample
 */
public record Fit(
        double[] coefficients, double[] standardErrors, double residualDeviation, double r2, double[] residuals) {
    public int samples() {
        return residuals.length;
    }

    /** Samples less coefficients. */
    public int freedom() {
        return residuals.length - coefficients.length;
    }
}
