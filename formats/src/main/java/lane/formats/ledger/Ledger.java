package lane.formats.ledger;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lane.check.Check;
import lane.check.CheckResult;
import lane.reading.Balance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.study.Results;
import lane.study.Source;
import lane.trail.Trail;
import lane.unit.Unit;

/**
 * The traceable table: one line a number, each with its trail.
 *
 * @param lines in the order of the study
 */
public record Ledger(List<Line> lines) {
    /**
     * One number.
     *
     * @param stop reading or check
     * @param item name of the reading
     * @param what which number of it: a tally, a term, a residual, a norm
     * @param lane name of the source
     * @param value in the unit shown; NaN where absent
     * @param relative of a difference, as a share; NaN where not defined
     * @param uncertainty half-width in the unit shown; NaN where none is stated
     * @param remark verdict, sign convention or why there is no number
     */
    public record Line(
            String id,
            String stop,
            String item,
            String what,
            String lane,
            double value,
            String unit,
            double relative,
            double uncertainty,
            String verdict,
            String remark,
            Trail trail) {}

    public static final List<String> COLUMNS = List.of(
            "id", "stop", "item", "what", "lane", "value", "unit", "relative", "uncertainty", "verdict", "remark");

    /** Collects every number of the results. */
    public static Ledger of(Results results) {
        List<Line> lines = new ArrayList<>();
        for (Reading reading : results.study().readings()) {
            for (Source source : results.study().sources()) {
                add(lines, reading, source, results);
            }
        }
        for (var check : results.study().checks()) {
            CheckResult result = results.checks().get(check.id());
            String item =
                    results.study().reading(check.reading()).map(Reading::name).orElse(check.reading());
            if (result == null) {
                continue;
            }
            for (Map.Entry<String, CheckResult.Lane> e : result.lanes().entrySet()) {
                CheckResult.Lane l = e.getValue();
                Unit unit = l.unit().difference();
                String what = l.curve() == null
                        ? "difference from " + datum(results, result)
                        : check.norm().symbol() + " of difference from " + datum(results, result);
                lines.add(new Line(
                        number(lines),
                        "check",
                        item,
                        what,
                        name(results, e.getKey()),
                        unit.fromSi(l.difference()),
                        unit.label(),
                        l.relative(),
                        l.uncertainty() == 0 ? Double.NaN : unit.fromSi(l.uncertainty()),
                        l.verdict() == null ? "" : l.verdict().word(),
                        l.verdict() == null ? "" : result.why(),
                        l.trail()));
                if (l.curve() != null) {
                    lines.add(new Line(
                            number(lines),
                            "check",
                            item,
                            "Linf of difference, at " + l.curve().linfAt() + along(results, check, e.getKey()),
                            name(results, e.getKey()),
                            unit.fromSi(l.curve().linf()),
                            unit.label(),
                            l.curve().linf() / l.curve().datumRange(),
                            Double.NaN,
                            "",
                            "",
                            l.trail()));
                }
            }
            if (result.lanes().values().stream().allMatch(l -> l.verdict() == null)) {
                lines.add(new Line(
                        number(lines),
                        "check",
                        item,
                        "verdict",
                        "",
                        Double.NaN,
                        "",
                        Double.NaN,
                        Double.NaN,
                        result.verdict().word(),
                        result.why(),
                        Trail.EMPTY));
            }
        }
        return new Ledger(lines);
    }

    private static String along(Results results, Check check, String lane) {
        return results.outcome(check.reading(), lane) instanceof Profile p
                        && !p.abscissaUnit().label().equals("1")
                ? " " + p.abscissaUnit().label()
                : "";
    }

    private static String datum(Results results, CheckResult result) {
        return result.datum().isBlank() ? "zero" : name(results, result.datum());
    }

    private static String name(Results results, String id) {
        return results.study().source(id).map(Source::name).orElse(id);
    }

    private static String number(List<Line> lines) {
        return "N" + (lines.size() + 1);
    }

    private static void add(List<Line> lines, Reading reading, Source source, Results results) {
        switch (results.outcome(reading.id(), source.id())) {
            case Outcome.Absent a ->
                lines.add(new Line(
                        number(lines),
                        "reading",
                        reading.name(),
                        "",
                        source.name(),
                        Double.NaN,
                        "",
                        Double.NaN,
                        Double.NaN,
                        "",
                        a.reason(),
                        Trail.EMPTY));
            case Tally t -> {
                Unit unit = results.shown(reading.id(), t.unit());
                lines.add(line(lines, reading, source, "tally", t.value(), unit, t.uncertainty(), t.sign(), t.trail()));
                t.pieces()
                        .forEach((piece, v) -> lines.add(
                                line(lines, reading, source, piece + " part", v, unit, Double.NaN, "", t.trail())));
            }
            case Balance b -> {
                Unit unit = results.shown(reading.id(), b.unit());
                for (Balance.Term term : b.terms()) {
                    lines.add(line(
                            lines,
                            reading,
                            source,
                            "term " + term.name(),
                            term.value(),
                            unit,
                            Double.NaN,
                            b.positive(),
                            b.trail()));
                }
                lines.add(new Line(
                        number(lines),
                        "reading",
                        reading.name(),
                        "residual",
                        source.name(),
                        unit.fromSi(b.residual()),
                        unit.label(),
                        b.relative(),
                        Double.NaN,
                        "",
                        "relative to the largest term; closure " + b.closure(),
                        b.trail()));
            }
            case Profile p -> {
                double least = Double.NaN;
                double greatest = Double.NaN;
                for (double v : p.value()) {
                    least = Double.isNaN(least) || v < least ? v : least;
                    greatest = Double.isNaN(greatest) || v > greatest ? v : greatest;
                }
                Unit unit = results.shown(reading.id(), p.unit());
                lines.add(line(
                        lines,
                        reading,
                        source,
                        "least",
                        least,
                        unit,
                        Double.NaN,
                        p.found() + " of " + p.size() + " samples, " + p.note(),
                        p.trail()));
                lines.add(line(lines, reading, source, "greatest", greatest, unit, Double.NaN, p.note(), p.trail()));
            }
        }
    }

    private static Line line(
            List<Line> lines,
            Reading reading,
            Source source,
            String what,
            double si,
            Unit unit,
            double uncertainty,
            String remark,
            Trail trail) {
        return new Line(
                number(lines),
                "reading",
                reading.name(),
                what,
                source.name(),
                unit.fromSi(si),
                unit.label(),
                Double.NaN,
                unit.differenceFromSi(uncertainty),
                "",
                remark,
                trail);
    }
}
