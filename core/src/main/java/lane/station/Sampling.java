package lane.station;

/** How a line is sampled. */
public sealed interface Sampling {
    /**
     * Samples at equal distances, both ends included.
     *
     * @param samples 2 to 1 000 000
     */
    record Even(int samples) implements Sampling {
        public Even {
            if (samples < 2 || samples > 1_000_000) {
                throw new lane.base.LaneException(
                        "A line takes 2 to 1 000 000 samples, not " + samples + "; give a number in that range.");
            }
        }
    }

    /**
     * Cut at every face that the line crosses, three samples a cell (both ends and the middle, Simpson's weights), so
     * that integrals along the line are exact for interpolants up to the third degree along it: all linear shapes whose
     * opposite faces are parallel, and every simplex.
     */
    record CellExact() implements Sampling {}
}
