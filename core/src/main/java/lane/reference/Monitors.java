package lane.reference;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.reading.MonitorOf;
import lane.unit.Unit;

/** The columns of a log as what was written down along one of them: a time, or a number of steps. */
public final class Monitors {
    /** Of the rows, the share that must go up for a column to be what the others stand along. */
    private static final double GROWS = 0.9;

    /** What a column is written down as. */
    public record One(String column, String along, MonitorOf ask) {
        /** The answer of a file to the reading of such an ask. */
        public Curve.Columns answer(String reading, String file) {
            return new Curve.Columns(reading, file, along, "", column, "", ColumnUncertainty.NONE);
        }
    }

    private Monitors() {}

    /**
     * @return one for each column of values; empty where no column says where the rows stand
     */
    public static List<One> of(Table table) {
        String along = along(table).orElse(null);
        if (along == null) {
            return List.of();
        }
        Unit unit = unit(table, along);
        String name = bare(along);
        boolean time =
                unit.comparable(Unit.of("s")) || !unit.known() && counts(name).isEmpty() && timely(name);
        String word = time ? "time" : name;
        String in = unit.known() ? unit.symbol() : time ? "s" : "1";
        List<One> out = new ArrayList<>();
        for (int i = 0; i < table.headers().size(); i++) {
            String header = table.headers().get(i);
            if (!header.equals(along)
                    && table.roles().get(i) == Recipe.Role.VALUE
                    && table.ends(i).places().finite() > 1) {
                out.add(new One(header, along, new MonitorOf(bare(header), word, in.isBlank() ? "1" : in)));
            }
        }
        return out;
    }

    /** The column that rows stand along: the one said to be, or one that is called so, or the first that grows. */
    static Optional<String> along(Table table) {
        List<String> said = table.with(Recipe.Role.ABSCISSA);
        if (!said.isEmpty()) {
            return Optional.of(said.getFirst());
        }
        // Names first: of a thousand columns few are looked at.
        return growing(
                        table,
                        h -> timely(bare(h))
                                || unit(table, h).known() && unit(table, h).comparable(Unit.of("s")))
                .or(() -> growing(table, h -> counts(bare(h)).isPresent()))
                .or(() -> growing(table, h -> true));
    }

    private static Optional<String> growing(Table table, Predicate<String> named) {
        return IntStream.range(0, table.headers().size())
                .filter(i -> table.roles().get(i) == Recipe.Role.VALUE
                        && named.test(table.headers().get(i))
                        && grows(table.columns().get(i)))
                .mapToObj(table.headers()::get)
                .findFirst();
    }

    private static boolean timely(String name) {
        return name.toLowerCase(Locale.ROOT)
                .matches(
                        "t|.*\\b(time|zeit|temps|tempo|tiempo|tid|tijd|clock|seconds?)\\b.*|physical[ _-]?time|.*_time|time_.*");
    }

    private static Optional<String> counts(String name) {
        return Optional.of(name).filter(n -> n.toLowerCase(Locale.ROOT)
                .matches(".*(iter|step|cycle|count|schritt|zyklus|row|index|number|\\bnr\\b|\\bno\\b|^n$|^i$|^#$).*"));
    }

    private static boolean grows(double[] column) {
        int up = 0;
        int all = 0;
        double before = Double.NaN;
        for (double v : column) {
            if (Double.isFinite(v)) {
                if (Double.isFinite(before)) {
                    all++;
                    up += v > before ? 1 : 0;
                }
                before = v;
            }
        }
        return all > 0 && up >= GROWS * all;
    }

    private static Unit unit(Table table, String header) {
        try {
            return Unit.of(table.unit(header, ""));
        } catch (LaneException e) {
            return Unit.UNKNOWN;
        }
    }

    /** A header without its unit. */
    private static String bare(String header) {
        String bare = header.replaceAll("\\s*[\\[(][^\\[(]*[\\])]\\s*$", "").strip();
        return bare.isEmpty() ? header : bare;
    }
}
