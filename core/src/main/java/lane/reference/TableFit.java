package lane.reference;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.base.Plain;
import lane.unit.Unit;

/**
 * Which columns of a table could answer a reading. Units that contradict one another rule a column out; what speaks for it is
 * that units are said and agree, that its name is like what is read, and that its rows lie where the reading does.
 */
public final class TableFit {
    /**
     * What is looked for.
     *
     * @param curve whether values along something are wanted, or one number
     * @param names of what is read: the quantity, the reading
     * @param unit of the values, unknown where nobody says
     * @param along unit of the abscissa
     * @param from and {@code to}: where the abscissa lies, in SI units; NaN where that is not known
     */
    public record Wanted(boolean curve, Set<String> names, Unit unit, Unit along, double from, double to) {
        public Wanted {
            names = Set.copyOf(names);
        }
    }

    /**
     * Columns that fit.
     *
     * @param score more is better
     * @param words what speaks for it and what is assumed, for people
     */
    public record Fit(String value, String abscissa, double score, String words) {}

    private TableFit() {}

    /** All pairs of columns that could answer, the best first. */
    public static List<Fit> of(Table table, Wanted wanted) {
        List<Fit> out = new ArrayList<>();
        for (String value : table.headers()) {
            if (!values(table, value) || clash(unit(table, value), wanted.unit)) {
                continue;
            }
            for (String along : table.headers()) {
                if (!along.equals(value)
                        && abscissa(table, along)
                        && !(wanted.curve && clash(unit(table, along), wanted.along))) {
                    fit(table, value, along, wanted, out);
                }
            }
        }
        out.sort(Comparator.comparingDouble(Fit::score).reversed());
        return out;
    }

    /**
     * What a table says of how well a column is known: the columns of uncertainties that stand behind it, or else the first ones;
     * two in a row are downwards and upwards. A share where its unit is one and that of the values is none.
     */
    public static ColumnUncertainty uncertainty(Table table, String value) {
        List<String> unsure = table.with(Recipe.Role.UNCERTAINTY);
        if (unsure.isEmpty()) {
            return ColumnUncertainty.NONE;
        }
        int at = table.headers().indexOf(value);
        List<String> behind = new ArrayList<>();
        for (int i = at + 1;
                i < table.headers().size() && unsure.contains(table.headers().get(i));
                i++) {
            behind.add(table.headers().get(i));
        }
        List<String> own = behind.isEmpty() ? unsure : behind;
        String first = own.getFirst();
        Unit unit = unit(table, first);
        boolean share =
                unit.known() && unit.comparable(Unit.ONE) && !unit(table, value).comparable(Unit.ONE);
        return new ColumnUncertainty(
                share ? ColumnUncertainty.Kind.RELATIVE : ColumnUncertainty.Kind.ABSOLUTE,
                first,
                own.size() == 2 ? own.get(1) : "",
                0,
                "",
                // A standard deviation says by its name that it is one, not twice it.
                first.toLowerCase(Locale.ROOT).matches(".*(sigma|std|stdev|\\bsd\\b|s\\.d\\.|\\bsem\\b).*") ? 1 : 0);
    }

    private static void fit(Table table, String value, String along, Wanted wanted, List<Fit> out) {
        Unit unit = unit(table, value);
        double score = like(value, wanted.names) * 3;
        List<String> words = new ArrayList<>();
        score += said(unit, wanted.unit) ? 2 : 0;
        if (!unit.known()) {
            words.add("the unit of " + value + " is not said");
        }
        int first = table.headers().indexOf(along);
        score += table.roles().get(first) == Recipe.Role.ABSCISSA ? 2 : 0;
        // Who draws up a table puts what it is taken along to the left.
        score -= 0.1 * first;
        if (wanted.curve) {
            Unit x = unit(table, along);
            score += said(x, wanted.along) ? 2 : 0;
            if (!x.known()) {
                words.add("the unit of " + along + " is not said");
            }
            double[] at = table.column(along);
            if (!Double.isNaN(wanted.from) && at.length > 0) {
                double margin = 0.05 * Math.abs(wanted.to - wanted.from);
                double least = Math.min(wanted.from, wanted.to) - margin;
                double greatest = Math.max(wanted.from, wanted.to) + margin;
                int inside = 0;
                for (double v : at) {
                    double si = x.toSi(v);
                    inside += si >= least && si <= greatest ? 1 : 0;
                }
                score += 2.0 * inside / at.length;
                words.addFirst(inside + " of " + Plain.count(at.length, "row") + " lie where the reading does");
            }
        }
        out.add(new Fit(value, along, score, String.join("; ", words)));
    }

    private static boolean values(Table table, String header) {
        Recipe.Role role = table.roles().get(table.headers().indexOf(header));
        return role == Recipe.Role.VALUE && numbers(table, header) > 0;
    }

    private static boolean abscissa(Table table, String header) {
        Recipe.Role role = table.roles().get(table.headers().indexOf(header));
        return (role == Recipe.Role.VALUE || role == Recipe.Role.ABSCISSA) && numbers(table, header) > 0;
    }

    private static int numbers(Table table, String header) {
        int n = 0;
        for (double v : table.column(header)) {
            n += Double.isNaN(v) ? 0 : 1;
        }
        return n;
    }

    private static Unit unit(Table table, String header) {
        String text = table.unit(header, "");
        try {
            return text.isBlank() ? Unit.UNKNOWN : Unit.of(text);
        } catch (LaneException e) {
            return Unit.UNKNOWN;
        }
    }

    private static boolean clash(Unit a, Unit b) {
        return a.known() && b.known() && !a.comparable(b);
    }

    private static boolean said(Unit a, Unit b) {
        return a.known() && b.known() && a.comparable(b);
    }

    /** How like names are: the share of words of one that stand in the other; a symbol counts for the word it begins. */
    static double like(String header, Set<String> names) {
        Set<String> own = words(header);
        double best = 0;
        for (String name : names) {
            Set<String> other = words(name);
            long both = own.stream()
                    .filter(w -> other.stream()
                            .anyMatch(o -> o.equals(w)
                                    || w.length() == 1 && o.startsWith(w)
                                    || o.length() == 1 && w.startsWith(o)))
                    .count();
            best = Math.max(best, own.isEmpty() ? 0 : (double) both / own.size());
        }
        return best;
    }

    private static Set<String> words(String name) {
        String bare = name.replaceAll("[\\[(].*?[\\])]", " ").toLowerCase(Locale.ROOT);
        return Stream.of(bare.split("[^\\p{L}\\p{N}]+"))
                .filter(w -> !w.isBlank())
                .collect(Collectors.toSet());
    }
}
