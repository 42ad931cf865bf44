package lane.reading;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** A question asked of every lane. */
public sealed interface Reading {
    /** Stable key within the study. */
    String id();

    /** For people. */
    String name();

    /** Unit of the numbers as shown; blank follows the quantity. */
    String unit();

    default Reading named(String other) {
        return switch (this) {
            case OfProfile p -> new OfProfile(p.id, other, p.station, p.quantity, p.unit);
            case OfSweep s -> new OfSweep(s.id, other, s.station, s.measure, s.unit);
            case OfAround a -> new OfAround(a.id, other, a.station, a.quantity, a.along, a.samples, a.unit);
            case OfTally t -> new OfTally(t.id, other, t.stations, t.measure, t.unit);
            case OfBalance b -> new OfBalance(b.id, other, b.terms, b.closedBy, b.positive, b.unit);
        };
    }

    /** Keys of the stations it looks at, those that close a balance first. */
    default List<String> places() {
        return switch (this) {
            case OfProfile p -> List.of(p.station());
            case OfSweep s -> List.of(s.station());
            case OfAround a -> List.of(a.station());
            case OfTally t -> t.stations();
            case OfBalance b ->
                Stream.concat(b.closedBy().stream(), b.terms().stream().flatMap(t -> t.stations().stream()))
                        .toList();
        };
    }

    /** Keys of the quantities it needs. */
    default Set<String> quantities() {
        return switch (this) {
            case OfProfile p -> Set.of(p.quantity());
            case OfSweep s -> s.measure().quantities();
            case OfAround a -> Set.of(a.quantity());
            case OfTally t -> t.measure().quantities();
            case OfBalance b ->
                b.terms().stream()
                        .flatMap(t -> t.measure().quantities().stream())
                        .collect(Collectors.toUnmodifiableSet());
        };
    }

    /** A quantity along a line. */
    record OfProfile(String id, String name, String station, String quantity, String unit) implements Reading {}

    /** One number at each place of a sweep. */
    record OfSweep(String id, String name, String station, Measure measure, String unit) implements Reading {}

    /** What is taken along the axis at each angle. */
    enum Along {
        MEAN("mean"),
        LEAST("least value"),
        GREATEST("greatest value");

        private final String word;

        Along(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** A quantity around a shell: one number an angle. @param samples number of angles, 360 where left out */
    record OfAround(String id, String name, String station, String quantity, Along along, int samples, String unit)
            implements Reading {
        public OfAround {
            along = along == null ? Along.MEAN : along;
            samples = samples == 0 ? 360 : samples;
            if (samples < 4 || samples > 100_000) {
                throw new lane.base.LaneException(
                        "Around a shell go 4 to 100 000 angles, not " + samples + "; give a number in that range.");
            }
        }
    }

    /** Names by which formulas know its numbers: its own, and of a balance those of its terms; none for a curve. */
    default List<String> numbers() {
        Stream<String> own = curve() ? Stream.empty() : Stream.of(name());
        return this instanceof OfBalance b
                ? Stream.concat(own, b.terms().stream().map(b::numberOf)).toList()
                : own.toList();
    }

    /** Whether the answer is a curve. */
    default boolean curve() {
        return this instanceof OfProfile || this instanceof OfSweep || this instanceof OfAround;
    }

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

        /** The name by which formulas know a term's number. */
        public String numberOf(Term term) {
            return name + ": " + term.name();
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
