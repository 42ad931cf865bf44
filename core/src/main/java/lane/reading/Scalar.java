package lane.reading;

import lane.estimate.Estimate;

/**
 * One of the numbers of an answer, as a line of the ledger.
 *
 * @param what which number it is: a tally, a term, a residual, an extreme
 * @param relative to the answer's own scale, as a share; NaN where that has no meaning
 * @param remark sign convention, or how it was made
 */
public record Scalar(String what, Estimate estimate, double relative, String remark) {
    public Scalar(String what, Estimate estimate, String remark) {
        this(what, estimate, Double.NaN, remark);
    }
}
