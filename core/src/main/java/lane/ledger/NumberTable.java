package lane.ledger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import lane.base.Figures;
import lane.ledger.LedgerTable.Cell;
import lane.ledger.LedgerTable.Column;
import lane.ledger.LedgerTable.Less;
import lane.ledger.LedgerTable.Mark;
import lane.ledger.LedgerTable.Num;
import lane.ledger.LedgerTable.Text;
import lane.study.Results;
import lane.study.Source;
import lane.study.TableTemplate;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** A line for each number of a reading, lanes beside each other; what no lane has a number for fills no line. */
final class NumberTable {
    /** A number of a reading in one line. */
    private record Item(String of, String item, String what, String unit) {}

    /** A number as it is told. */
    private record Told(double value, double half, double relative, String remark, Mark mark) {}

    private final Results results;
    private final TableTemplate template;
    private final List<Source> lanes;
    private final @Nullable Source datum;
    private final List<Wide.Column> columns = new ArrayList<>();

    private NumberTable(Results results, TableTemplate template, List<Source> lanes) {
        this.results = results;
        this.template = template;
        this.lanes = lanes;
        this.datum = LedgerTables.datum(results).filter(lanes::contains).orElse(null);
    }

    static Wide of(Results results, Ledger ledger, TableTemplate template, Set<String> readings) {
        Map<Item, Map<String, Ledger.Line>> rows = new LinkedHashMap<>();
        for (Ledger.Line l : ledger.lines()) {
            if (l.stop().equals("reading") && readings.contains(l.of()) && !Double.isNaN(l.value())) {
                rows.computeIfAbsent(new Item(l.of(), l.item(), l.what(), l.unit()), k -> new LinkedHashMap<>())
                        .put(l.source(), l);
            }
        }
        // That every lane found cells everywhere fills no line.
        rows.entrySet()
                .removeIf(e -> e.getKey().what.equals("coverage")
                        && e.getValue().values().stream().allMatch(l -> l.value() == 1));
        List<Source> lanes =
                LedgerTables.lanes(results, id -> rows.values().stream().anyMatch(r -> r.containsKey(id)));
        var made = new NumberTable(results, template, lanes);
        made.head(rows);
        List<List<Cell>> cells = new ArrayList<>();
        rows.forEach((item, of) -> cells.add(made.row(item, of)));
        return new Wide(Objects.requireNonNull(template.name()), template.name(), "", List.copyOf(made.columns), cells);
    }

    private void head(Map<Item, Map<String, Ledger.Line>> rows) {
        columns.add(new Wide.Column(new Column("reading", "Reading", "what was read", false), true));
        columns.add(new Wide.Column(new Column("what", "Number", "which number of it", false), true));
        columns.add(new Wide.Column(new Column("unit", "Unit", "of the numbers in the line", false), true));
        boolean balances = template.of() == TableTemplate.Content.BALANCES;
        for (Source s : lanes) {
            columns.add(new Wide.Column(new Column(s.id(), s.name(), "value of the lane " + s.name(), true), true));
            columns.add(new Wide.Column(
                    new Column(
                            s.id() + "_uncertainty",
                            "± " + s.name(),
                            "half-width of the expanded uncertainty of the lane " + s.name(),
                            true),
                    any(rows, s, l -> l.uncertainty() > 0)));
            if (datum != null && !datum.equals(s)) {
                columns.add(new Wide.Column(
                        new Column(
                                s.id() + "_difference",
                                s.name() + " − " + datum.name(),
                                "value of the lane " + s.name() + " less that of " + datum.name()
                                        + "; of temperatures in degrees",
                                true,
                                new Less(s.id(), datum.id())),
                        false));
                columns.add(new Wide.Column(
                        new Column(
                                s.id() + "_apart",
                                s.name() + " − " + datum.name() + ", %",
                                "the difference in percent of the magnitude of " + datum.name()
                                        + "; none for temperatures in degC or degF, whose zero is arbitrary",
                                true),
                        false));
            }
            columns.add(new Wide.Column(
                    new Column(
                            s.id() + "_relative",
                            s.name() + ", share",
                            "the number of the lane " + s.name()
                                    + " as a share of its own scale, such as the largest term",
                            true),
                    balances && any(rows, s, l -> !Double.isNaN(l.relative()))));
        }
        columns.add(new Wide.Column(
                new Column(
                        "remark",
                        "Remark",
                        "sign convention, or what was assumed, by the first lane that says any",
                        false),
                false));
    }

    private static boolean any(
            Map<Item, Map<String, Ledger.Line>> rows, Source s, java.util.function.Predicate<Ledger.Line> has) {
        return rows.values().stream().anyMatch(r -> r.containsKey(s.id()) && has.test(r.get(s.id())));
    }

    private List<Cell> row(Item item, Map<String, Ledger.Line> of) {
        Unit own = unit(item, of.keySet());
        Unit unit = template.told(own);
        Map<String, Told> told = new LinkedHashMap<>();
        of.forEach((lane, l) -> told.put(lane, told(l, own, unit)));
        Figures figures = Figures.of(
                told.values().stream().mapToDouble(Told::value).toArray(),
                told.values().stream()
                        .mapToDouble(Told::half)
                        .filter(u -> u > 0)
                        .min()
                        .orElse(0));
        List<Cell> cells = new ArrayList<>(List.of(
                new Text(item.item),
                new Text(item.what),
                new Text(unit.equals(own) ? item.unit.equals("1") ? "" : item.unit : unit.label())));
        Told from = datum == null ? null : told.get(datum.id());
        for (Source s : lanes) {
            Told t = told.get(s.id());
            cells.add(t == null ? Num.NONE : new Num(t.value, figures.plain(t.value), t.mark));
            cells.add(t == null || !(t.half > 0) ? Num.NONE : brief(t.half, 2));
            if (datum != null && !datum.equals(s)) {
                double apart = t == null || from == null ? Double.NaN : t.value - from.value;
                cells.add(brief(apart, 3));
                double scale =
                        from == null || from.value == 0 || unit.offset() != 0 ? Double.NaN : Math.abs(from.value);
                cells.add(brief(100 * apart / scale, 3));
            }
            cells.add(t == null ? Num.NONE : brief(t.relative, 3));
        }
        cells.add(new Text(told.values().stream()
                .map(Told::remark)
                .filter(r -> !r.isBlank())
                .findFirst()
                .orElse("")));
        return cells;
    }

    /** With what its label does not say: whether it is of differences. Of what has none that is known, the numbers stay as they are. */
    private Unit unit(Item item, Set<String> sources) {
        return sources.stream()
                .flatMap(s -> results.scalars(item.of, s).stream())
                .filter(s -> s.what().equals(item.what))
                .map(s -> results.shown(item.of, s.estimate().unit()))
                .filter(u -> u.label().equals(item.unit))
                .findFirst()
                .orElse(Unit.UNKNOWN);
    }

    private static Told told(Ledger.Line l, Unit own, Unit unit) {
        boolean same = unit.equals(own);
        return new Told(
                same ? l.value() : unit.fromSi(own.toSi(l.value())),
                same || !(l.uncertainty() > 0)
                        ? l.uncertainty()
                        : unit.differenceFromSi(l.uncertainty() * own.factor()),
                l.relative(),
                l.remark(),
                l.trail().typed() ? Mark.TYPED : Mark.NONE);
    }

    static Num brief(double v, int digits) {
        return new Num(v, Double.isNaN(v) ? "" : Figures.of(v, digits).plain(v));
    }
}
