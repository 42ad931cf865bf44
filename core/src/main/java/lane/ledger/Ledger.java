package lane.ledger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Figures;
import lane.check.Budget;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Refined;
import lane.convergence.Convergence;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.Scalar;
import lane.study.Results;
import lane.study.Source;
import lane.unit.Unit;

/**
 * The traceable table: one line a number, each with its trail. It is made of what every answer and every check offers, and
 * knows no kind of them; formats only write it.
 *
 * @param lines in the order of the study
 */
public record Ledger(List<Line> lines) {
    /**
     * One number.
     *
     * @param stop reading or check
     * @param of key of that reading or check in the study
     * @param item name of the reading
     * @param what which number of it: a tally, a term, a residual, a norm
     * @param source key of the lane; blank where the number is none of a lane's
     * @param lane name of the source
     * @param value in the unit shown; NaN where absent
     * @param relative of a difference, as a share; NaN where not defined
     * @param uncertainty half-width in the unit shown; NaN where none is stated
     * @param remark verdict, sign convention or why there is no number
     */
    public record Line(
            String id,
            String stop,
            String of,
            String item,
            String what,
            String source,
            String lane,
            double value,
            String unit,
            double relative,
            double uncertainty,
            String verdict,
            String remark,
            Provenance trail) {}

    public static final List<String> COLUMNS = List.of(
            "id", "stop", "item", "what", "lane", "value", "unit", "relative", "uncertainty", "verdict", "remark");

    /** Collects every number of the results. */
    public static Ledger of(Results results) {
        var made = new Lines(results);
        for (Reading reading : results.study().readings()) {
            for (Source source : results.study().sources()) {
                made.reading(reading, source);
            }
        }
        for (Check check : results.study().checks()) {
            CheckResult result = results.checks().get(check.id());
            if (result != null) {
                made.check(check, result);
            }
        }
        return new Ledger(List.copyOf(made.lines));
    }

    /** The files that the numbers rest on, each once, by path. */
    public Map<String, Provenance.Input> inputs() {
        Map<String, Provenance.Input> all = new LinkedHashMap<>();
        lines.forEach(l -> l.trail().inputs().forEach(i -> all.putIfAbsent(i.path(), i)));
        return all;
    }

    /** Lines while they are collected. */
    private static final class Lines {
        private final Results results;
        private final List<Line> lines = new ArrayList<>();
        /** Key of the reading or check whose numbers are collected, and of the lane. */
        private String of = "";

        private String on = "";

        Lines(Results results) {
            this.results = results;
        }

        void reading(Reading reading, Source source) {
            of = reading.id();
            on = source.id();
            Outcome outcome = results.outcome(reading.id(), source.id());
            if (outcome instanceof Outcome.Absent a) {
                add(
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
                        Provenance.EMPTY);
            }
            for (Scalar s : results.scalars(reading.id(), source.id())) {
                Unit unit = results.shown(reading.id(), s.estimate().unit());
                add(
                        "reading",
                        reading.name(),
                        s.what(),
                        source.name(),
                        unit.fromSi(s.estimate().value()),
                        unit.label(),
                        s.relative(),
                        unit.differenceFromSi(s.estimate().uncertainty().half()),
                        "",
                        s.remark(),
                        outcome.trail());
            }
        }

        void check(Check check, CheckResult result) {
            of = check.id();
            String item =
                    results.study().reading(check.reading()).map(Reading::name).orElse(check.reading());
            for (Map.Entry<String, CheckResult.Lane> e : result.lanes().entrySet()) {
                CheckResult.Lane l = e.getValue();
                on = e.getKey();
                Unit unit = l.unit().difference();
                String from = check.rule().comparesWithDatum()
                        ? " from " + name(result.datum())
                        : l.what().equals("difference") ? " from zero" : "";
                boolean judged = l.verdict() != null;
                add(
                        "check",
                        item,
                        l.what() + from,
                        name(e.getKey()),
                        unit.fromSi(l.difference()),
                        unit.label(),
                        l.relative(),
                        l.half() == 0 ? Double.NaN : unit.fromSi(l.half()),
                        l.verdict() != null ? l.verdict().word() : "",
                        judged ? l.sentence() : "",
                        l.trail());
                if (l.curve() != null) {
                    add(
                            "check",
                            item,
                            "Linf of difference",
                            name(e.getKey()),
                            unit.fromSi(l.curve().linf()),
                            unit.label(),
                            l.scale() > 0 ? l.curve().linf() / l.scale() : Double.NaN,
                            Double.NaN,
                            "",
                            "at " + along(check, e.getKey(), l.curve().linfAt())
                                    + (l.curve().signed() == 0
                                            ? ""
                                            : ", " + (l.curve().signed() > 0 ? "greater" : "less")
                                                    + " than the datum there"),
                            l.trail());
                }
            }
            for (Map.Entry<String, CheckResult.Lane> e : result.lanes().entrySet()) {
                on = e.getKey();
                evidence(item, name(e.getKey()), e.getValue());
            }
            on = "";
            if (check.decision() != null) {
                add(
                        "check",
                        item,
                        "decision",
                        "",
                        Double.NaN,
                        "",
                        Double.NaN,
                        Double.NaN,
                        result.verdict().word(),
                        check.decision().words(),
                        Provenance.EMPTY);
            }
            if (result.lanes().values().stream().allMatch(l -> l.verdict() == null)) {
                add(
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
                        Provenance.EMPTY);
            }
        }

        /** Further measures, what the family's meshes say, and the budget of a judged lane. */
        private void evidence(String item, String lane, CheckResult.Lane l) {
            Unit unit = l.unit().difference();
            for (CheckResult.Measured m : l.evidence().measures()) {
                boolean share = m.norm().share();
                add(
                        "check",
                        item,
                        m.norm().symbol() + (share ? "" : " of difference"),
                        lane,
                        share ? m.difference() : unit.fromSi(m.difference()),
                        share ? "1" : unit.label(),
                        m.scale() > 0 ? m.difference() / m.scale() : Double.NaN,
                        Double.NaN,
                        m.verdict() == null ? "" : m.verdict().word(),
                        m.verdict() == null ? "" : m.sentence(),
                        l.trail());
            }
            Refined refined = l.evidence().refined();
            if (refined == null || l.verdict() == null) {
                return;
            }
            Convergence c = refined.convergence();
            String words = refined.words();
            convergence(item, "observed order", lane, c.order(), "1", words, l);
            if (refined.curve() == null) {
                convergence(
                        item,
                        "extrapolated",
                        lane,
                        l.unit().fromSi(c.extrapolated()),
                        l.unit().label(),
                        words,
                        l);
                convergence(item, "numerical uncertainty", lane, unit.fromSi(c.half()), unit.label(), words, l);
            }
            for (Budget.Row row : l.evidence().budget().rows()) {
                add(
                        "check",
                        item,
                        "standard uncertainty, " + row.component(),
                        lane,
                        unit.fromSi(row.standard()),
                        unit.label(),
                        l.evidence().budget().share(row),
                        Double.NaN,
                        "",
                        "from " + name(row.from()) + "; relative is its share in the square of all",
                        l.trail());
            }
        }

        private void convergence(
                String item, String what, String lane, double value, String unit, String words, CheckResult.Lane l) {
            if (Double.isFinite(value)) {
                add("check", item, what, lane, value, unit, Double.NaN, Double.NaN, "", words, l.trail());
            }
        }

        /** Where, in the unit that the study tells lengths in, or the abscissa's own. */
        private String along(Check check, String lane, double at) {
            Unit unit = results.along(results.outcome(check.reading(), lane)
                    .curve()
                    .map(Profile::abscissaUnit)
                    .orElse(Unit.ONE));
            double v = unit.fromSi(at);
            return Figures.of(v, 9).plain(v) + (unit.label().equals("1") ? "" : " " + unit.label());
        }

        private String name(String id) {
            return results.study().source(id).map(Source::name).orElse(id);
        }

        private void add(
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
                Provenance trail) {
            String id = "N" + (lines.size() + 1);
            lines.add(new Line(
                    id, stop, of, item, what, on, lane, value, unit, relative, uncertainty, verdict, remark, trail));
        }
    }
}
