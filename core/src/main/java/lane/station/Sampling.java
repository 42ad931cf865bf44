package lane.station;

/** How a path is sampled. */
public sealed interface Sampling {
    private static void check(int samples) {
        if (samples < 2 || samples > 1_000_000) {
            throw new lane.base.LaneException(
                    "A line takes 2 to 1 000 000 samples, not " + samples + "; give a number in that range.");
        }
    }

    /**
     * Samples at equal distances, both ends included.
     *
     * @param samples 2 to 1 000 000
     */
    record Even(int samples) implements Sampling {
        public Even {
            check(samples);
        }

        double[] shares() {
            double[] out = new double[samples];
            java.util.Arrays.setAll(out, i -> (double) i / (samples - 1));
            return out;
        }
    }

    /** Where samples stand closer. */
    enum Towards {
        START,
        END,
        BOTH
    }

    /**
     * Samples whose distances grow by a constant factor from one to the next, closer towards one end or both.
     *
     * @param samples 3 to 1 000 000
     * @param ratio largest distance over the smallest, 1 to 1e6
     */
    record Clustered(int samples, double ratio, Towards towards) implements Sampling {
        public Clustered {
            check(samples);
            if (samples < 3 || !(ratio >= 1) || ratio > 1e6) {
                throw new lane.base.LaneException("Clustered sampling takes at least 3 samples and a ratio of 1 to 1e6,"
                        + " not " + samples + " and " + ratio + ".");
            }
        }

        double[] shares() {
            int pieces = samples - 1;
            double[] gap = new double[pieces];
            for (int i = 0; i < pieces; i++) {
                double f =
                        switch (towards) {
                            case START -> pieces == 1 ? 0 : (double) i / (pieces - 1);
                            case END -> pieces == 1 ? 0 : 1 - (double) i / (pieces - 1);
                            case BOTH -> 1 - Math.abs(2.0 * i / (pieces - 1) - 1);
                        };
                gap[i] = Math.pow(ratio, f);
            }
            double sum = 0;
            for (double g : gap) {
                sum += g;
            }
            double[] out = new double[samples];
            double at = 0;
            for (int i = 0; i < pieces; i++) {
                at += gap[i];
                out[i + 1] = at / sum;
            }
            out[pieces] = 1;
            return out;
        }
    }

    /**
     * Cut at every face that the line crosses, three samples a cell (both ends and the middle, Simpson's weights), so
     * that integrals along the line are exact for interpolants up to the third degree along it: all linear shapes whose
     * opposite faces are parallel, and every simplex.
     */
    record CellExact() implements Sampling {}
}
