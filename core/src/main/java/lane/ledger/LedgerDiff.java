package lane.ledger;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Figures;
import lane.base.LaneException;
import lane.ledger.Ledger.Line;
import lane.unit.Unit;

/**
 * One ledger compared with another line by line: what is the same to the bit, the same within a tolerance, different, and
 * what only one of them has.
 *
 * @param same number of lines that say the same to the bit
 * @param within those whose numbers differ by no more than the tolerance
 * @param different those that differ by more, or whose verdict is another one
 * @param missing lines that the later one does not have
 * @param added lines that the earlier one does not have
 */
public record LedgerDiff(
        int same, List<Change> within, List<Change> different, List<Change> missing, List<Change> added) {
    public LedgerDiff {
        within = List.copyOf(within);
        different = List.copyOf(different);
        missing = List.copyOf(missing);
        added = List.copyOf(added);
    }

    /**
     * A line that is not the same.
     *
     * @param line as it was; of one that was added, as it is
     * @param before value in the unit in which it is told now; NaN where there was none
     * @param after NaN where there is none
     * @param unit that both are told in
     * @param verdict that it has now
     * @param why as far as it can be told
     */
    public record Change(Line line, double before, double after, String unit, String verdict, String why) {
        /** Item and number in words. */
        public String item() {
            return line.what().isBlank() ? line.item() : line.item() + ", " + line.what();
        }

        /** Whether the verdict is another one, whatever the number. */
        public boolean turned() {
            return !line.verdict().equals(verdict);
        }
    }

    /** Two lines that speak of the same are known by this. */
    private record Key(String stop, String of, String what, String source) {
        static Key of(Line line) {
            // The datum's name is part of the definition, and not of what the number is.
            int from = line.what().indexOf(" from ");
            return new Key(
                    line.stop(),
                    line.of().isBlank() ? line.item() : line.of(),
                    from < 0 ? line.what() : line.what().substring(0, from),
                    line.source().isBlank() ? line.lane() : line.source());
        }
    }

    /**
     * @param tolerance share of the greater magnitude that a number may differ by and still count as the same; 0 for none
     */
    public static LedgerDiff of(Ledger before, Ledger after, double tolerance) {
        Map<Key, Deque<Line>> now = new LinkedHashMap<>();
        after.lines().forEach(l -> now.computeIfAbsent(Key.of(l), k -> new ArrayDeque<>())
                .add(l));
        int same = 0;
        List<Change> within = new ArrayList<>();
        List<Change> different = new ArrayList<>();
        List<Change> missing = new ArrayList<>();
        for (Line was : before.lines()) {
            Deque<Line> found = now.get(Key.of(was));
            Line is = found == null ? null : found.poll();
            if (is == null) {
                missing.add(new Change(was, was.value(), Double.NaN, was.unit(), "", gone(was, after)));
                continue;
            }
            Change change = change(was, is, tolerance);
            if (change == null) {
                same++;
            } else if (change.why().isEmpty()) {
                within.add(new Change(
                        was, change.before(), change.after(), change.unit(), change.verdict(), "within the tolerance"));
            } else {
                different.add(change);
            }
        }
        List<Change> added = new ArrayList<>();
        now.values()
                .forEach(rest -> rest.forEach(l -> added.add(
                        new Change(l, Double.NaN, l.value(), l.unit(), l.verdict(), "it was not there before"))));
        return new LedgerDiff(same, within, different, missing, added);
    }

    static String gone(Line was, Ledger after) {
        String reason = after.lines().stream()
                .filter(l -> l.stop().equals(was.stop())
                        && l.of().equals(was.of())
                        && (l.source().equals(was.source()) || l.source().isBlank())
                        && Double.isNaN(l.value())
                        && !l.remark().isBlank())
                .map(Line::remark)
                .findFirst()
                .orElse("");
        if (!reason.isBlank()) {
            return "there is no number now: " + reason;
        }
        boolean item = after.lines().stream().anyMatch(l -> l.of().equals(was.of()));
        boolean lane = after.lines().stream().anyMatch(l -> l.source().equals(was.source()));
        return !item
                ? "the study has no such " + was.stop() + " any more"
                : !lane && !was.source().isBlank() ? "the study has no such lane any more" : "it is not told any more";
    }

    /** Null for the same; a change without a reason for one within the tolerance. */
    private static @org.jspecify.annotations.Nullable Change change(Line was, Line is, double tolerance) {
        double value = was.value();
        double half = was.uncertainty();
        boolean told = was.unit().equals(is.unit());
        if (!told) {
            try {
                Unit from = Unit.of(was.unit());
                Unit to = Unit.of(is.unit());
                if (from.comparable(to)) {
                    value = to.fromSi(from.toSi(value));
                    half = to.differenceFromSi(half * from.factor());
                }
            } catch (LaneException e) {
                // What is no unit is compared as it stands.
                value = was.value();
            }
        }
        boolean bits = bits(value, is.value()) && bits(half, is.uncertainty());
        boolean near = near(value, is.value(), tolerance) && near(half, is.uncertainty(), tolerance);
        boolean verdict = was.verdict().equals(is.verdict());
        if (bits && told && verdict) {
            return null;
        }
        // Converting costs the last bits.
        boolean close = near || !told && near(value, is.value(), CONVERTED) && near(half, is.uncertainty(), CONVERTED);
        String why = close && verdict ? "" : String.join("; ", reasons(was, is, value, half, tolerance));
        return new Change(was, value, is.value(), is.unit(), is.verdict(), why);
    }

    static final double CONVERTED = 1e-14;
    static final String NO_CAUSE = "files, definitions and methods are the same, so it is the program or the machine";

    static boolean bits(double a, double b) {
        return Double.doubleToLongBits(a) == Double.doubleToLongBits(b) || a == 0 && b == 0;
    }

    static boolean near(double a, double b, double tolerance) {
        return bits(a, b) || Math.abs(a - b) <= tolerance * Math.max(Math.abs(a), Math.abs(b));
    }

    private static List<String> reasons(Line was, Line is, double value, double half, double tolerance) {
        List<String> out = new ArrayList<>();
        if (!was.verdict().equals(is.verdict())) {
            out.add("the verdict was " + word(was.verdict()) + " and is " + word(is.verdict()));
        }
        if (near(value, is.value(), tolerance) && !near(half, is.uncertainty(), tolerance)) {
            out.add("the uncertainty was " + number(half) + " and is " + number(is.uncertainty()));
        }
        List<String> causes = Trails.differ(was.trail(), is.trail());
        out.addAll(causes);
        if (Double.isNaN(is.value()) && !Double.isNaN(value) && !is.remark().isBlank()) {
            out.add("there is no number now: " + is.remark());
        }
        if (causes.isEmpty()) {
            out.add(was.trail().steps().isEmpty() || is.trail().steps().isEmpty() ? "no trail tells why" : NO_CAUSE);
        }
        return out;
    }

    private static String word(String verdict) {
        return verdict.isBlank() ? "none" : verdict;
    }

    private static String number(double v) {
        return Double.isNaN(v) ? "none" : Figures.of(v, 6).plain(v);
    }

    /** Both comparisons as one. */
    public LedgerDiff with(LedgerDiff other) {
        return new LedgerDiff(
                same + other.same,
                joined(within, other.within),
                joined(different, other.different),
                joined(missing, other.missing),
                joined(added, other.added));
    }

    private static List<Change> joined(List<Change> a, List<Change> b) {
        List<Change> all = new ArrayList<>(a);
        all.addAll(b);
        return all;
    }

    /** The same where what differs without a cause has one after all; blank for none. */
    public LedgerDiff because(String cause) {
        if (cause.isBlank()) {
            return this;
        }
        return new LedgerDiff(
                same,
                within,
                different.stream()
                        .map(c -> new Change(
                                c.line, c.before, c.after, c.unit, c.verdict, c.why.replace(NO_CAUSE, cause)))
                        .toList(),
                missing,
                added);
    }
}
