package lane.check;

import java.util.List;

/**
 * A comparison with a verdict.
 *
 * @param id stable key within the study
 * @param reading key of the reading that is judged
 * @param norm how a profile's difference becomes one number; a tally and a balance have one number already
 * @param scale what a relative tolerance refers to
 * @param tolerance a share of the scale, or in the reading's unit if the scale is {@link Scale#ABSOLUTE}
 * @param datum key of the lane compared with; blank takes the study's
 * @param judged keys of the lanes that get a verdict; empty takes the finest run of the study
 */
public record Check(
        String id, String reading, Norm norm, Scale scale, double tolerance, String datum, List<String> judged) {
    public Check {
        judged = List.copyOf(judged);
        if (!(tolerance >= 0) || Double.isInfinite(tolerance)) {
            throw new lane.base.LaneException("A tolerance must be 0 or more; got " + tolerance + ".");
        }
    }

    /** Measures of the difference of two curves. */
    public enum Norm {
        L1("L1", "mean magnitude"),
        L2("L2", "root mean square"),
        LINF("Linf", "largest magnitude");

        private final String symbol;
        private final String word;

        Norm(String symbol, String word) {
            this.symbol = symbol;
            this.word = word;
        }

        public String symbol() {
            return symbol;
        }

        public String word() {
            return word;
        }
    }

    /** What differences are relative to. */
    public enum Scale {
        ABSOLUTE("absolute"),
        RANGE("of the datum's range"),
        LARGEST("of the datum's largest magnitude"),
        MEAN("of the datum's mean magnitude");

        private final String word;

        Scale(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }
}
