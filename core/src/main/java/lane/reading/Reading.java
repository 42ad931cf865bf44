package lane.reading;

import java.util.List;

/** A question asked of every lane. */
public sealed interface Reading {
    /** Stable key within the study. */
    String id();

    /** For people. */
    String name();

    /** Unit of the numbers as shown; blank follows the quantity. */
    String unit();

    /** A quantity along a line. */
    record OfProfile(String id, String name, String station, String quantity, String unit) implements Reading {}

    /** One number over boundary parts. @param stations keys of stations on parts, taken together */
    record OfTally(String id, String name, List<String> stations, Measure measure, String unit) implements Reading {
        public OfTally {
            stations = List.copyOf(stations);
        }
    }

    /**
     * Signed terms and their residual.
     *
     * @param closedBy keys of stations that bound the region besides those of the terms, and let nothing through
     * @param positive which way is positive, in words
     */
    record OfBalance(String id, String name, List<Term> terms, List<String> closedBy, String positive, String unit)
            implements Reading {
        public OfBalance {
            terms = List.copyOf(terms);
            closedBy = List.copyOf(closedBy);
        }
    }

    /** A term of a balance: {@code factor} is +1 or -1 and applied to the measure. */
    record Term(String name, int factor, List<String> stations, Measure measure) {
        public Term {
            stations = List.copyOf(stations);
            if (factor != 1 && factor != -1) {
                throw new lane.base.LaneException("Term \"" + name + "\" has the sign " + factor + "; give 1 or -1.");
            }
        }
    }
}
