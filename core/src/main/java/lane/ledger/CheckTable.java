package lane.ledger;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lane.base.Figures;
import lane.check.Check;
import lane.check.CheckResult;
import lane.estimate.Estimate;
import lane.ledger.LedgerTable.Cell;
import lane.ledger.LedgerTable.Column;
import lane.ledger.LedgerTable.Less;
import lane.ledger.LedgerTable.Mark;
import lane.ledger.LedgerTable.Num;
import lane.ledger.LedgerTable.Text;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.TableTemplate;
import lane.unit.Unit;

/** Checks as a table, a line for each lane that was judged or compared. */
final class CheckTable {
    private CheckTable() {}

    /** A row a lane of each check that was judged or compared. */
    static Wide of(Results results, TableTemplate template, Set<String> readings) {
        List<Column> columns = List.of(
                new Column("check", "Check", "key of the check in the study", false),
                new Column("reading", "Reading", "what was read", false),
                new Column("measure", "Measure", "how the difference is measured", false),
                new Column("lane", "Lane", "which lane", false),
                new Column("value", "Value", "of the lane", true),
                new Column("datum", "Datum", "what it is compared with", false),
                new Column("datum_value", "Datum's value", "of the datum", true),
                new Column(
                        "difference",
                        "Difference",
                        "value less datum, or the measure of the curves' difference",
                        true,
                        new Less("value", "datum_value")),
                new Column("unit", "Unit", "of value and datum; of differences of temperatures the degree", false),
                new Column("relative", "Relative", "difference as a share of the check's scale", true),
                new Column("uncertainty", "Uncertainty", "half-width that the verdict counts with", true),
                new Column("tolerance", "Tolerance", "what is allowed", false),
                new Column("verdict", "Verdict", "within, out, undecided, no data; blank for lanes not judged", false),
                new Column("accepted", "Accepted", "who accepted the deviation, when and why", false));
        List<List<Cell>> rows = new ArrayList<>();
        for (Check check : results.study().checks()) {
            CheckResult result = results.checks().get(check.id());
            if (result == null || !readings.contains(check.reading())) {
                continue;
            }
            String reading =
                    results.study().reading(check.reading()).map(Reading::name).orElse(check.reading());
            String accepted = check.decision() == null ? "" : check.decision().words();
            result.lanes()
                    .forEach(
                            (lane, l) -> rows.add(check(results, template, check, result, reading, lane, l, accepted)));
            if (result.lanes().values().stream().allMatch(l -> l.verdict() == null)) {
                Map<String, String> told = Map.of(
                        "check", check.id(),
                        "reading", reading,
                        "measure", check.rule().measure(),
                        "tolerance", check.rule().allowance(template.told(result.unit())),
                        "verdict", result.verdict().word(),
                        "accepted", accepted);
                List<Cell> cells = columns.stream()
                        .<Cell>map(c -> c.number()
                                ? Num.NONE
                                : new Text(
                                        told.getOrDefault(c.name(), ""),
                                        c.name().equals("accepted") ? accepted(accepted) : Mark.NONE))
                        .toList();
                rows.add(cells);
            }
        }
        return new Wide(
                template.name(),
                template.name(),
                "",
                columns.stream().map(c -> new Wide.Column(c, true)).toList(),
                rows);
    }

    private static List<Cell> check(
            Results results,
            TableTemplate template,
            Check check,
            CheckResult result,
            String reading,
            String lane,
            CheckResult.Lane l,
            String accepted) {
        Unit unit = template.told(l.unit());
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
        return List.of(
                new Text(check.id()),
                new Text(reading),
                new Text(l.curve() == null ? "difference" : l.what()),
                new Text(LedgerTables.name(results, lane)),
                new Num(value, Double.isNaN(value) ? "" : both.plain(value), typed(results, check.reading(), lane)),
                new Text(check.rule().comparesWithDatum() ? LedgerTables.name(results, result.datum()) : ""),
                new Num(
                        datum,
                        Double.isNaN(datum) ? "" : both.plain(datum),
                        typed(results, check.reading(), result.datum())),
                NumberTable.brief(difference, 4),
                new Text(unit.label().equals("1") ? "" : unit.label()),
                NumberTable.brief(l.relative(), 3),
                l.half() == 0 ? Num.NONE : NumberTable.brief(apart.fromSi(l.half()), 2),
                new Text(check.rule().allowance(unit)),
                new Text(l.verdict() == null ? "" : l.verdict().word()),
                new Text(l.verdict() == null ? "" : accepted, accepted(l.verdict() == null ? "" : accepted)));
    }

    private static Mark accepted(String words) {
        return words.isBlank() ? Mark.NONE : Mark.ACCEPTED;
    }

    private static Mark typed(Results results, String reading, String lane) {
        Outcome outcome = results.outcome(reading, lane);
        return outcome.trail().typed() ? Mark.TYPED : Mark.NONE;
    }
}
