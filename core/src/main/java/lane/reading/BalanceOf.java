package lane.reading;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.measure.Measure;
import lane.provenance.Provenance;
import lane.station.Region;

/**
 * Signed terms and their residual.
 *
 * @param closedBy keys of stations that bound the region besides those of the terms, and let nothing through
 * @param positive which way is positive, in words
 * @param conserved what it is of, so that it can be told which terms are missing
 * @param against what the residual is compared with
 */
public record BalanceOf(List<Term> terms, List<String> closedBy, String positive, Conserved conserved, Against against)
        implements Ask {
    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "balance";
        }

        @Override
        public Class<BalanceOf> type() {
            return BalanceOf.class;
        }
    }

    /** A term of a balance: {@code factor} is +1 or -1 and applied to the measure. */
    public record Term(String name, int factor, List<String> stations, Measure measure) {
        public Term {
            stations = List.copyOf(stations);
            if (factor != 1 && factor != -1) {
                throw new LaneException("Term \"" + name + "\" has the sign " + factor + "; give 1 or -1.");
            }
        }
    }

    /**
     * What a residual is compared with.
     *
     * @param term name of a term; blank for the largest one
     * @param value a number that is stated instead, in the unit of the balance; 0 for none
     */
    public record Against(String term, double value) {
        public static final Against LARGEST = new Against("", 0);

        public Against {
            term = term == null ? "" : term;
            if (!(value >= 0) || Double.isInfinite(value)) {
                throw new LaneException(
                        "A residual is compared with a number greater than zero; " + value + " is none.");
            }
        }

        /** In words, with the keys of nothing. */
        public String word() {
            return value > 0 ? "the stated scale" : term.isBlank() ? "the largest term" : "term \"" + term + "\"";
        }
    }

    public BalanceOf(List<Term> terms, List<String> closedBy, String positive) {
        this(terms, closedBy, positive, Conserved.UNSAID, Against.LARGEST);
    }

    /** The same with other terms, closed by other stations, in other words. */
    public BalanceOf with(List<Term> all, List<String> closing, String words) {
        return new BalanceOf(all, closing, words, conserved, against);
    }

    public BalanceOf {
        conserved = conserved == null ? Conserved.UNSAID : conserved;
        against = against == null ? Against.LARGEST : against;
        terms = List.copyOf(terms);
        closedBy = List.copyOf(closedBy);
    }

    @Override
    public boolean balances() {
        return true;
    }

    @Override
    public Form form() {
        return Form.TERMS;
    }

    /** Those that close the region first. */
    @Override
    public List<String> stations() {
        return Stream.concat(closedBy.stream(), terms.stream().flatMap(t -> t.stations().stream()))
                .toList();
    }

    @Override
    public Set<String> quantities() {
        return terms.stream().flatMap(t -> t.measure().quantities().stream()).collect(Collectors.toUnmodifiableSet());
    }

    /** The residual under the name of the reading, then the terms under theirs. */
    @Override
    public List<String> numbers(String name) {
        return Stream.concat(Stream.of(name), terms.stream().map(t -> numberOf(name, t)))
                .toList();
    }

    /**
     * The name by which formulas know a term's number.
     *
     * @param name of the reading
     */
    public static String numberOf(String name, Term term) {
        return name + ": " + term.name();
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        Set<String> fields = on.fields(quantities());
        Where where = Where.of(
                stations().stream().distinct().map(s -> on.station(s, reading)).toList(),
                on.places().sheets());
        ReadingContext fresh = on.with(Provenance.EMPTY);
        return BalanceReader.read(
                on.run(),
                reading,
                where,
                // A term over cells bounds nothing.
                s -> on.station(s, reading).shape() instanceof Region ? List.of() : on.surface(s, fields, reading),
                term -> number(term, reading, fresh),
                on.lens(),
                on.trail(),
                on.memo());
    }

    private static Tally number(Term term, Reading reading, ReadingContext on) {
        Outcome made = new TallyOf(term.stations(), term.measure()).read(reading.in(""), on);
        if (made instanceof Tally t) {
            return t;
        }
        throw new LaneException(
                made instanceof Outcome.Absent a
                        ? "Term \"" + term.name() + "\": " + a.reason()
                        : "Term \"" + term.name() + "\" gives no number.");
    }
}
