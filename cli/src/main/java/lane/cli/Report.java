package lane.cli;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Figures;
import lane.base.Plain;
import lane.check.CheckResult;
import lane.check.Verdict;
import lane.field.Run;
import lane.mesh.Finding;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.Scalar;
import lane.study.Results;
import lane.study.ShapingUnits;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;

/** What an evaluation found, for people: readings and checks by lane, and once what has no number and why. */
final class Report {
    private final Results results;
    private final StringBuilder out = new StringBuilder();
    /** References, and of how many readings they know nothing. */
    private final Map<String, Integer> silent = new LinkedHashMap<>();

    private final Healths healths;

    private Report(Results results, Healths healths) {
        this.results = results;
        this.healths = healths;
    }

    /** @param healths of its runs, as far as they were looked at before */
    static String of(Results results, Healths healths) {
        var report = new Report(results, healths);
        report.sources();
        report.readings();
        report.checks();
        report.reasons();
        return report.out.toString();
    }

    /** 0 when all checks are within, 1 when one is out, 2 when something is undecided or has no data. */
    static int code(Results results) {
        boolean missing = !results.unread().isEmpty();
        for (CheckResult c : results.checks().values()) {
            if (c.verdict() == Verdict.OUT) {
                return 1;
            }
            missing |= c.verdict() != Verdict.WITHIN;
        }
        for (Reading reading : results.study().readings()) {
            missing |= results.study().sources().stream()
                    .allMatch(s -> results.outcome(reading.id(), s.id()) instanceof Outcome.Absent);
        }
        return missing ? 2 : 0;
    }

    private void line(String text) {
        out.append(text).append('\n');
    }

    private void sources() {
        line(results.study().name() + ": "
                + Plain.count(results.study().sources().size(), "lane") + ", "
                + Plain.count(results.study().readings().size(), "reading") + ", "
                + Plain.count(results.study().checks().size(), "check"));
        results.unread().forEach((id, sentence) -> line("not read: " + name(id) + ": " + sentence));
        results.inPieces()
                .keySet()
                .forEach(id -> line(
                        "in pieces: " + name(id) + ": " + results.failures().get(id)));
        for (Source source : results.study().sources()) {
            Run run = results.runs().get(source.id());
            if (run != null) {
                for (Finding f : healths.of(run, results.study()).findings()) {
                    if (f.severity() != Finding.Severity.NOTE || f.text().startsWith("unit of length")) {
                        line(f.severity().word() + ": " + source.name() + ": " + f.told());
                    }
                }
            }
        }
        ShapingUnits.doubts(results).forEach(d -> line("warning: " + d));
    }

    private String name(String source) {
        return results.study().source(source).map(Source::name).orElse(source);
    }

    private void readings() {
        for (Reading reading : results.study().readings()) {
            line("");
            Unit shown = results.unit(reading.id());
            line(reading.name() + (shown.known() ? " [" + shown.label() + "]" : ""));
            int width = results.study().sources().stream()
                    .mapToInt(s -> s.name().length())
                    .max()
                    .orElse(0);
            for (Source source : results.study().sources()) {
                Outcome outcome = results.outcome(reading.id(), source.id());
                if (silent(results.study(), reading, source, outcome)) {
                    silent.merge(source.name(), 1, Integer::sum);
                    continue;
                }
                String lane =
                        "  " + source.name() + " ".repeat(width - source.name().length()) + "  ";
                if (outcome instanceof Outcome.Absent absent) {
                    line(lane + "no number: " + absent.brief());
                }
                outcome.curve().ifPresent(p -> line(lane + p.found() + " of " + p.size() + " samples have a value"));
                String first = lane;
                for (Scalar s : results.scalars(reading.id(), source.id())) {
                    if (s.what().equals("coverage") && s.estimate().value() == 1) {
                        continue;
                    }
                    line((outcome.curve().isPresent() ? " ".repeat(lane.length()) : first) + scalar(reading, s));
                    first = " ".repeat(lane.length());
                }
            }
        }
    }

    /** Of a reference that was never said to know anything of a reading. */
    private static boolean silent(Study study, Reading reading, Source source, Outcome outcome) {
        return source instanceof Source.Reference r
                && outcome instanceof Outcome.Absent
                && r.answer(study, reading).isEmpty();
    }

    /** Which readings of which lanes have no number though they were to have one, by the reason. */
    static Map<String, List<String>> without(Results results) {
        Map<String, List<String>> out = new LinkedHashMap<>();
        for (Reading reading : results.study().readings()) {
            for (Source source : results.study().sources()) {
                Outcome outcome = results.outcome(reading.id(), source.id());
                if (outcome instanceof Outcome.Absent absent && !silent(results.study(), reading, source, outcome)) {
                    out.computeIfAbsent(absent.reason(), r -> new ArrayList<>())
                            .add(reading.name() + " of " + source.name());
                }
            }
        }
        return out;
    }

    private String scalar(Reading reading, Scalar s) {
        Unit unit = results.shown(reading.id(), s.estimate().unit());
        boolean own = unit.label().equals(results.unit(reading.id()).label());
        double value = unit.fromSi(s.estimate().value());
        double half = unit.differenceFromSi(s.estimate().uncertainty().told());
        return alike(reading.id(), s.what(), unit, value).plain(value)
                + (half > 0 ? " ± " + Figures.of(half, 3).plain(half) : "")
                + (own || unit.label().isBlank() || unit.label().equals("1") ? "" : " " + unit.label())
                + "  " + s.what();
    }

    /** How a number is written that all lanes tell, so that their differences can be seen. */
    private Figures alike(String reading, String what, Unit unit, double value) {
        double[] all = results.study().sources().stream()
                .flatMap(l -> results.outcome(reading, l.id()).scalars().stream())
                .filter(o -> o.what().equals(what) && o.estimate().unit().comparable(unit))
                .mapToDouble(o -> unit.fromSi(o.estimate().value()))
                .toArray();
        return all.length == 0 ? Figures.of(value, 6) : Figures.of(all, 0);
    }

    private void checks() {
        if (results.study().checks().isEmpty()) {
            return;
        }
        line("");
        out.append(CheckTable.of(results));
        line("");
        results.study().checks().forEach(c -> {
            CheckResult r = results.checks().get(c.id());
            if (r != null && r.verdict() != Verdict.WITHIN) {
                line(r.verdict().word() + ": "
                        + results.study()
                                .reading(c.reading())
                                .map(Reading::name)
                                .orElse(c.reading()) + ": " + r.why());
            }
        });
    }

    private void reasons() {
        if (!silent.isEmpty()) {
            line("");
            silent.forEach((lane, n) -> line(lane + " is not brought to " + Plain.count(n, "reading")));
        }
        Map<String, List<String>> without = without(results);
        if (without.isEmpty()) {
            return;
        }
        line("");
        line("Without a number");
        without.forEach((reason, who) -> line("  " + reason + " ("
                + String.join(", ", who.subList(0, Math.min(4, who.size())))
                + (who.size() > 4 ? " and " + (who.size() - 4) + " more" : "") + ")"));
    }
}
