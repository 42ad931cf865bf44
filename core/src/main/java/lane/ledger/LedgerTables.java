package lane.ledger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Figures;
import lane.check.Check;
import lane.check.CheckResult;
import lane.estimate.Estimate;
import lane.ledger.LedgerTable.Cell;
import lane.ledger.LedgerTable.Column;
import lane.ledger.LedgerTable.Num;
import lane.ledger.LedgerTable.Row;
import lane.ledger.LedgerTable.Text;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Source;
import lane.unit.Unit;

/** The tables for people and programs that a study's results give: lanes beside each other, checks, and the points of curves. */
public final class LedgerTables {
    private LedgerTables() {}

    /** Readings by lane, then checks. */
    public static List<LedgerTable> of(Results results, Ledger ledger) {
        List<LedgerTable> out = new ArrayList<>();
        out.add(comparison(results, ledger));
        if (!results.study().checks().isEmpty()) {
            out.add(checks(results));
        }
        return out;
    }

    /** A number of a reading in one line. */
    private record Item(String of, String item, String what, String unit) {}

    /** A row a number of a reading, a column a lane; what no lane has a number for fills no line. */
    private static LedgerTable comparison(Results results, Ledger ledger) {
        Map<Item, Map<String, Ledger.Line>> rows = new LinkedHashMap<>();
        for (Ledger.Line l : ledger.lines()) {
            if (l.stop().equals("reading") && !Double.isNaN(l.value())) {
                rows.computeIfAbsent(new Item(l.of(), l.item(), l.what(), l.unit()), k -> new LinkedHashMap<>())
                        .put(l.source(), l);
            }
        }
        // That every lane found cells everywhere fills no line.
        rows.entrySet()
                .removeIf(e -> e.getKey().what.equals("coverage")
                        && e.getValue().values().stream().allMatch(l -> l.value() == 1));
        List<Source> lanes = results.study().sources().stream()
                .filter(s -> rows.values().stream().anyMatch(r -> r.containsKey(s.id())))
                .toList();
        List<Column> columns = new ArrayList<>(List.of(
                new Column("reading", "Reading", "what was read", false),
                new Column("what", "Number", "which number of it", false),
                new Column("unit", "Unit", "of the numbers in the line", false)));
        List<Boolean> doubted = new ArrayList<>();
        for (Source s : lanes) {
            columns.add(new Column(s.id(), s.name(), "value of the lane " + s.name(), true));
            boolean stated = rows.values().stream()
                    .anyMatch(r -> r.containsKey(s.id()) && r.get(s.id()).uncertainty() > 0);
            doubted.add(stated);
            if (stated) {
                columns.add(new Column(
                        s.id() + "_uncertainty",
                        "± " + s.name(),
                        "half-width of the expanded uncertainty of the lane " + s.name(),
                        true));
            }
        }
        List<Row> out = new ArrayList<>();
        rows.forEach((item, of) -> {
            Figures figures = Figures.of(
                    of.values().stream().mapToDouble(Ledger.Line::value).toArray(),
                    of.values().stream()
                            .mapToDouble(Ledger.Line::uncertainty)
                            .filter(u -> u > 0)
                            .min()
                            .orElse(0));
            List<Cell> cells = new ArrayList<>(List.of(
                    new Text(item.item), new Text(item.what), new Text(item.unit.equals("1") ? "" : item.unit)));
            for (int i = 0; i < lanes.size(); i++) {
                Ledger.Line l = of.get(lanes.get(i).id());
                cells.add(l == null ? new Num(Double.NaN, "") : new Num(l.value(), figures.plain(l.value())));
                if (doubted.get(i)) {
                    cells.add(
                            l == null || !(l.uncertainty() > 0) ? new Num(Double.NaN, "") : brief(l.uncertainty(), 2));
                }
            }
            out.add(new Row(cells));
        });
        return new LedgerTable("comparison", "Comparison", columns, out);
    }

    private static Num brief(double v, int digits) {
        return new Num(v, Double.isNaN(v) ? "" : Figures.of(v, digits).plain(v));
    }

    /** A row a lane of each check that was judged or compared. */
    private static LedgerTable checks(Results results) {
        List<Column> columns = List.of(
                new Column("check", "Check", "key of the check in the study", false),
                new Column("reading", "Reading", "what was read", false),
                new Column("measure", "Measure", "how the difference is measured", false),
                new Column("lane", "Lane", "which lane", false),
                new Column("value", "Value", "of the lane", true),
                new Column("datum", "Datum", "what it is compared with", false),
                new Column("datum_value", "Datum's value", "of the datum", true),
                new Column(
                        "difference", "Difference", "value less datum, or the measure of the curves' difference", true),
                new Column("unit", "Unit", "of value and datum; of differences of temperatures the degree", false),
                new Column("relative", "Relative", "difference as a share of the check's scale", true),
                new Column("uncertainty", "Uncertainty", "half-width that the verdict counts with", true),
                new Column("tolerance", "Tolerance", "what is allowed", false),
                new Column("verdict", "Verdict", "within, out, undecided, no data; blank for lanes not judged", false),
                new Column("accepted", "Accepted", "who accepted the deviation, when and why", false));
        List<Row> rows = new ArrayList<>();
        for (Check check : results.study().checks()) {
            CheckResult result = results.checks().get(check.id());
            if (result == null) {
                continue;
            }
            String reading =
                    results.study().reading(check.reading()).map(Reading::name).orElse(check.reading());
            String accepted = check.decision() == null ? "" : check.decision().words();
            result.lanes().forEach((lane, l) -> rows.add(check(results, check, result, reading, lane, l, accepted)));
            if (result.lanes().values().stream().allMatch(l -> l.verdict() == null)) {
                Map<String, String> told = Map.of(
                        "check", check.id(),
                        "reading", reading,
                        "measure", check.rule().measure(),
                        "tolerance", check.rule().allowance(result.unit()),
                        "verdict", result.verdict().word(),
                        "accepted", accepted);
                List<Cell> cells = columns.stream()
                        .<Cell>map(
                                c -> c.number() ? new Num(Double.NaN, "") : new Text(told.getOrDefault(c.name(), "")))
                        .toList();
                rows.add(new Row(cells));
            }
        }
        return new LedgerTable("checks", "Checks", columns, rows);
    }

    private static Row check(
            Results results,
            Check check,
            CheckResult result,
            String reading,
            String lane,
            CheckResult.Lane l,
            String accepted) {
        Unit unit = l.unit();
        Unit apart = unit.difference();
        boolean number = l.curve() == null && !Double.isNaN(l.value());
        double value = number ? unit.fromSi(l.value()) : Double.NaN;
        double datum = number && check.rule().comparesWithDatum()
                ? results.outcome(check.reading(), result.datum()).numbers().stream()
                        .findFirst()
                        .map(Estimate::value)
                        .map(unit::fromSi)
                        .orElse(Double.NaN)
                : Double.NaN;
        double difference = apart.fromSi(l.difference());
        Figures both = Figures.of(new double[] {value, datum}, Math.abs(difference) / 100);
        return new Row(List.of(
                new Text(check.id()),
                new Text(reading),
                new Text(l.curve() == null ? "difference" : l.what()),
                new Text(name(results, lane)),
                new Num(value, Double.isNaN(value) ? "" : both.plain(value)),
                new Text(check.rule().comparesWithDatum() ? name(results, result.datum()) : ""),
                new Num(datum, Double.isNaN(datum) ? "" : both.plain(datum)),
                brief(difference, 4),
                new Text(unit.label().equals("1") ? "" : unit.label()),
                brief(l.relative(), 3),
                l.half() == 0 ? new Num(Double.NaN, "") : brief(apart.fromSi(l.half()), 2),
                new Text(check.rule().allowance(unit)),
                new Text(l.verdict() == null ? "" : l.verdict().word()),
                new Text(l.verdict() == null ? "" : accepted)));
    }

    private static String name(Results results, String id) {
        return results.study().source(id).map(Source::name).orElse(id);
    }

    /** The points of a reading's curves, one lane after the other; no rows where there is no curve. */
    public static LedgerTable curve(Results results, Reading reading) {
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
        List<Row> rows = new ArrayList<>();
        for (Source source : results.study().sources()) {
            Profile p = results.outcome(reading.id(), source.id()).curve().orElse(null);
            if (p == null) {
                continue;
            }
            Unit unit = results.shown(reading.id(), p.unit());
            double[] below = p.uncertainty();
            double[] above = p.upwards();
            double[] xyz = p.places();
            for (int i = 0; i < p.size(); i++) {
                List<Cell> row = new ArrayList<>(List.of(
                        new Text(source.name()),
                        whole(p.abscissaUnit().fromSi(p.abscissa()[i])),
                        new Text(p.abscissaUnit().symbol()),
                        whole(unit.fromSi(p.value()[i])),
                        new Text(unit.label()),
                        whole(below.length == 0 ? Double.NaN : unit.differenceFromSi(below[i])),
                        whole(above.length == 0 ? Double.NaN : unit.differenceFromSi(above[i]))));
                for (int d = 0; d < 3; d++) {
                    row.add(whole(xyz.length == 0 ? Double.NaN : xyz[3 * i + d]));
                }
                rows.add(new Row(row));
            }
        }
        return new LedgerTable("profile-" + reading.id(), reading.name(), columns, rows);
    }

    /** Points are for programs. */
    private static Num whole(double v) {
        return new Num(v, Double.isNaN(v) ? "" : Double.toString(v));
    }
}
