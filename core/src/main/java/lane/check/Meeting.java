package lane.check;

import lane.base.LaneException;

/**
 * How two curves meet.
 *
 * @param resampling how a curve is known between its samples
 * @param at where they are compared
 * @param samples number of even ones, for {@link At#EVEN}
 * @param weighting what each point counts in a norm
 * @param align what is done to the abscissa of the curve before
 */
public record Meeting(Resampling resampling, At at, int samples, Weighting weighting, Alignment align) {
    public static final Meeting USUAL = new Meeting(Resampling.LINEAR, At.DATUM, 0, Weighting.LENGTH, Alignment.NONE);

    /** Between samples. */
    public enum Resampling {
        /** Straight lines, of second order in the spacing. */
        LINEAR("linearly"),
        /** Cubics that overshoot no sample (Fritsch and Butland 1984, SIAM J. Sci. Stat. Comput. 5, 300), of third order or better. */
        CUBIC("by monotone cubics");

        private final String word;

        Resampling(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** Where. */
    public enum At {
        /** At the datum's points, or the curve's where the datum is a formula. */
        DATUM,
        /** At the curve's points. */
        CURVE,
        /** At even points of what is common. */
        EVEN
    }

    /** In norms. */
    public enum Weighting {
        /** The length that a point stands for. */
        LENGTH,
        /** All the same. */
        SAMPLES
    }

    public Meeting {
        resampling = resampling == null ? Resampling.LINEAR : resampling;
        at = at == null ? At.DATUM : at;
        weighting = weighting == null ? Weighting.LENGTH : weighting;
        align = align == null ? Alignment.NONE : align;
        if (at == At.EVEN && samples < 2) {
            throw new LaneException("Even points for a comparison are 2 or more; got " + samples + ".");
        }
    }

    public Meeting aligned(Alignment other) {
        return new Meeting(resampling, at, samples, weighting, other);
    }
}
