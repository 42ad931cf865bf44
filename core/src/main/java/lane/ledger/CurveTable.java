package lane.ledger;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import lane.base.Figures;
import lane.ledger.LedgerTable.Cell;
import lane.ledger.LedgerTable.Column;
import lane.ledger.LedgerTable.Less;
import lane.ledger.LedgerTable.Mark;
import lane.ledger.LedgerTable.Num;
import lane.reading.Between;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Source;
import lane.study.TableTemplate;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Curves as tables: their points one lane after the other, or lanes beside each other at the same abscissas. */
final class CurveTable {
    private CurveTable() {}

    /** The points of a reading's curves, one lane after the other; no rows where there is no curve. */
    static LedgerTable points(Results results, Reading reading) {
        List<Column> columns = List.of(
                new Column("lane", "lane", "which lane", false),
                new Column("abscissa", "abscissa", "along the curve", true),
                new Column("abscissa unit", "abscissa unit", "of the abscissa", false),
                new Column("value", "value", "of the curve", true),
                new Column("unit", "unit", "of the values", false),
                new Column(
                        "uncertainty", "uncertainty", "half-width below the value; empty where none is stated", true),
                new Column("uncertainty upwards", "uncertainty upwards", "half-width above the value", true),
                new Column("x [m]", "x [m]", "place of the point; empty where it has none", true),
                new Column("y [m]", "y [m]", "place of the point", true),
                new Column("z [m]", "z [m]", "place of the point", true));
        List<PointRows.Lane> lanes = new ArrayList<>();
        for (Source source : results.study().sources()) {
            results.outcome(reading.id(), source.id())
                    .curve()
                    .ifPresent(p ->
                            lanes.add(new PointRows.Lane(source.name(), p, results.shown(reading.id(), p.unit()))));
        }
        return new LedgerTable(LedgerTables.CURVE + reading.id(), reading.name(), "", columns, new PointRows(lanes));
    }

    /** A lane's curve and the unit that it is told in. */
    private record Drawn(Source source, Profile curve, Unit unit, boolean grows) {
        Drawn(Source source, Profile curve, Unit unit) {
            this(source, curve, unit, Between.grows(curve.abscissa()));
        }

        double at(double abscissa) {
            return unit.fromSi(there(curve.value(), abscissa));
        }

        double half(double abscissa) {
            double[] below = curve.uncertainty();
            return below.length == 0 ? Double.NaN : unit.differenceFromSi(there(below, abscissa));
        }

        private double there(double[] value, double at) {
            return grows ? Between.sought(curve.abscissa(), value, at) : Between.between(curve.abscissa(), value, at);
        }

        /** Whether its difference from another one can be told. */
        boolean meets(@Nullable Drawn datum) {
            return datum != null && !source.equals(datum.source) && unit.equals(datum.unit);
        }
    }

    /** Lanes beside each other at even abscissas from the first to the last that any has; empty where no lane has a curve. */
    static Optional<Wide> beside(Results results, Reading reading, TableTemplate template) {
        List<Drawn> lanes = new ArrayList<>();
        double from = Double.POSITIVE_INFINITY;
        double to = Double.NEGATIVE_INFINITY;
        for (Source s : results.study().sources()) {
            Profile p = results.outcome(reading.id(), s.id()).curve().orElse(null);
            if (p == null) {
                continue;
            }
            lanes.add(new Drawn(s, p, template.told(results.shown(reading.id(), p.unit()))));
            for (double a : p.abscissa()) {
                from = Double.isFinite(a) ? Math.min(from, a) : from;
                to = Double.isFinite(a) ? Math.max(to, a) : to;
            }
        }
        if (from > to) {
            return Optional.empty();
        }
        Drawn datum = LedgerTables.datum(results)
                .flatMap(d -> lanes.stream().filter(l -> l.source.equals(d)).findFirst())
                .orElse(null);
        Profile first = lanes.getFirst().curve;
        Unit along = template.told(results.along(first.abscissaUnit()));
        List<Wide.Column> columns = new ArrayList<>();
        columns.add(new Wide.Column(
                new Column("abscissa", title(first.abscissaName(), along), "along the curve", true), true));
        lanes.forEach(l -> head(l, datum, columns));
        return Optional.of(new Wide(
                "along-" + reading.id(),
                template.title().isBlank() || template.readings().size() != 1 ? reading.name() : template.title(),
                "Values are linear between the points of each curve; the points themselves are in the file of the profile.",
                columns,
                rows(lanes, datum, along, even(from, to, template.places()))));
    }

    private static double[] even(double from, double to, int places) {
        int n = to > from ? places : 1;
        double[] out = new double[n];
        for (int i = 0; i < n; i++) {
            out[i] = i == 0 ? from : i == n - 1 ? to : from + i * (to - from) / (n - 1);
        }
        return out;
    }

    private static void head(Drawn l, @Nullable Drawn datum, List<Wide.Column> columns) {
        String id = l.source.id();
        String name = l.source.name();
        columns.add(new Wide.Column(
                new Column(id, title(name, l.unit), "value of the lane " + name + ", linear between its points", true),
                true));
        columns.add(new Wide.Column(
                new Column(
                        id + "_uncertainty",
                        "± " + name,
                        "half-width of the expanded uncertainty of the lane " + name,
                        true),
                l.curve.uncertainty().length > 0));
        if (datum != null && l.meets(datum)) {
            columns.add(new Wide.Column(
                    new Column(
                            id + "_difference",
                            title(name + " − " + datum.source.name(), l.unit.difference()),
                            "value of the lane " + name + " less that of " + datum.source.name(),
                            true,
                            new Less(id, datum.source.id())),
                    false));
        }
    }

    private static List<List<Cell>> rows(List<Drawn> lanes, @Nullable Drawn datum, Unit along, double[] abscissas) {
        Figures places = Figures.of(Arrays.stream(abscissas).map(along::fromSi).toArray(), 0, 4);
        // One number of decimals for all, so that lanes can be compared.
        Figures figures = Figures.of(
                lanes.stream()
                        .flatMapToDouble(l -> Arrays.stream(abscissas).map(l::at))
                        .toArray(),
                0);
        List<List<Cell>> rows = new ArrayList<>();
        for (double abscissa : abscissas) {
            List<Cell> row = new ArrayList<>();
            double a = along.fromSi(abscissa);
            row.add(new Num(a, places.plain(a)));
            for (Drawn l : lanes) {
                double v = l.at(abscissa);
                Mark mark = l.curve.trail().typed() ? Mark.TYPED : Mark.NONE;
                row.add(Double.isNaN(v) ? Num.NONE : new Num(v, figures.plain(v), mark));
                row.add(NumberTable.brief(l.half(abscissa), 2));
                if (datum != null && l.meets(datum)) {
                    row.add(NumberTable.brief(v - datum.at(abscissa), 3));
                }
            }
            rows.add(row);
        }
        return rows;
    }

    private static String title(String name, Unit unit) {
        return unit.label().isBlank() || unit.label().equals("1") ? name : name + " [" + unit.label() + "]";
    }
}
