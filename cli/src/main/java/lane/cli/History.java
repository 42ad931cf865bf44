package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Run;
import lane.formats.FileLibrary;
import lane.formats.table.CsvWriter;
import lane.history.Series;
import lane.reading.Ask;
import lane.reading.HistoryOf;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Study;
import lane.unit.Unit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** A number over all stored times of a run, whose files are read one after the other. */
@Command(
        name = "history",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Take a number over a boundary part, a section, a point or all of a run at each of its stored times.")
final class History implements Callable<Integer> {
    @Parameters(
            paramLabel = "FILE",
            arity = "1..*",
            description = "files of one run: one with several times, one a time, or a pattern with a * for the number")
    List<String> files;

    @Option(
            names = "--over",
            required = true,
            paramLabel = "WHERE",
            description = "part:NAME, section:\"px,py,pz nx,ny,nz\", all, or for a value point:\"x,y,z\"")
    String over;

    @Option(
            names = "--of",
            required = true,
            paramLabel = "FORMULA",
            description = "a field or a formula of fields and places; for a flow a vector")
    String of;

    @Option(names = "--kind", required = true, paramLabel = "KIND", description = "${COMPLETION-CANDIDATES}")
    OneReading.Kind kind;

    @Option(names = "--by", paramLabel = "VALUES", description = "quadrature (the default), size, cells or nodes")
    String by = "quadrature";

    @Option(
            names = "--length",
            paramLabel = "UNIT",
            description = "unit of the files' coordinates, and of those of WHERE; metres where they do not say")
    String length = "";

    @Option(names = "--regions", paramLabel = "ARRAY", description = "an array of cells that names the parts")
    String regions = "";

    @Option(names = "--csv", paramLabel = "OUT", description = "a table to write; - for the console")
    String csv = "";

    @Option(names = "--json", description = "one JSON object in place of words")
    boolean json;

    /** @param why there is no value; blank where there is one */
    private record Row(double time, double value, String why) {}

    private final List<Row> rows = new ArrayList<>();
    private Unit unit = Unit.UNKNOWN;
    private String convention = "";

    @Override
    public Integer call() {
        var asked = new OneReading(over, of, kind, by, length, regions);
        List<Path> paths = together(files.stream().map(OneRun::path).toList());
        Map<Path, FileLibrary> libraries = new HashMap<>();
        Work work = Progress.on(System.err);
        for (Path path : paths) {
            read(asked, path, libraries.computeIfAbsent(OneReading.folder(path), FileLibrary::unproven), work);
        }
        Progress.end(work);
        int before = libraries.values().stream().mapToInt(FileLibrary::known).sum();
        if (before > 0) {
            System.err.println(Plain.count(before, "time") + " of " + rows.size() + " had been read before.");
        }
        timed(paths);
        rows.sort(Comparator.comparingDouble(Row::time));
        told();
        // What was written last counts, where two files hold the same time.
        Series series = Series.of(
                rows.stream().mapToDouble(Row::time).toArray(),
                rows.stream().mapToDouble(Row::value).toArray());
        if (series.size() == 0) {
            throw new LaneException(OneReading.typed(rows.getFirst().why()));
        }
        if (series.repeated() > 0) {
            System.err.println(
                    Plain.count(series.repeated(), "time") + " stood in more than one file; the last counts.");
        }
        if (!csv.isBlank()) {
            table();
        }
        if (json || !csv.equals("-")) {
            Console.lines(json ? json(series) : words(series));
        }
        return 0;
    }

    /** All files of a series as the series: then they share what they share, and what was read of them is kept. */
    private static List<Path> together(List<Path> paths) {
        if (paths.size() < 2) {
            return paths;
        }
        Path folder = OneReading.folder(paths.getFirst());
        return lane.formats.Series.around(paths.getFirst())
                .map(folder::resolve)
                .filter(p -> Set.copyOf(lane.formats.Series.of(p).files())
                        .equals(paths.stream()
                                .map(f -> f.toAbsolutePath().normalize())
                                .collect(java.util.stream.Collectors.toSet())))
                .map(List::of)
                .orElse(paths);
    }

    /** All times of a file or a series. */
    private void read(OneReading asked, Path path, FileLibrary library, Work work) {
        Study study = asked.study(path);
        var evaluator = new Evaluator(library);
        Results last = evaluator.evaluate(study, work);
        last.unread().values().forEach(f -> {
            throw new LaneException(f);
        });
        Run run = last.standing("run").orElseThrow();
        if (rows.isEmpty()) {
            run.remarks().forEach(r -> System.err.println(Plain.line(r)));
        }
        Tally made = null;
        String why = "";
        try {
            made = OneReading.tally(last, "value");
        } catch (LaneException e) {
            why = e.getMessage();
        }
        if (made != null && convention.isBlank()) {
            unit = made.unit();
            convention = asked.convention(made, last);
        }
        if (run.times().size() < 2) {
            rows.add(new Row(run.time(), made == null ? Double.NaN : shown(made.unit(), made.value()), why));
            return;
        }
        Ask number = study.readings().getFirst().ask();
        Results all = evaluator.evaluate(
                study.withReadings(
                        l -> List.of(new Reading("history", "history", "", new HistoryOf(number, "", null, null)))),
                work);
        switch (all.outcome("history", "run")) {
            case Profile p -> {
                if (convention.isBlank()) {
                    unit = p.unit();
                    convention = p.note();
                }
                for (int i = 0; i < p.size(); i++) {
                    boolean there = Double.isFinite(p.value()[i]);
                    rows.add(new Row(p.abscissa()[i], there ? shown(p.unit(), p.value()[i]) : Double.NaN, ""));
                }
                if (p.found() < p.size()) {
                    System.err.println(Plain.line(p.note()));
                }
            }
            case Outcome.Absent a -> run.times().forEach(t -> rows.add(new Row(t, Double.NaN, a.reason())));
            case Outcome o -> throw new IllegalStateException("a history is a curve and not " + o);
        }
    }

    private double shown(Unit own, double si) {
        if (unit.known() && !own.comparable(unit)) {
            throw new LaneException("The files differ in units: one gives " + unit.symbol() + ", another "
                    + own.symbol() + ". Give files of one run.");
        }
        return unit.known() ? unit.fromSi(si) : si;
    }

    /** Times that the files do not say are the last numbers in their names, or else their order. */
    private void timed(List<Path> paths) {
        long without = rows.stream().filter(r -> Double.isNaN(r.time())).count();
        if (without == 0) {
            return;
        }
        if (without < rows.size() || rows.size() != paths.size()) {
            throw new LaneException(
                    "Some of the files say which time they hold and some do not; give those of one run.");
        }
        List<Double> numbers = paths.stream()
                .map(p -> Pattern.compile("\\d+(?:\\.\\d+)?")
                        .matcher(String.valueOf(p.getFileName()).replaceFirst("\\.[^.]*$", ""))
                        .results()
                        .map(MatchResult::group)
                        .reduce((a, b) -> b)
                        .map(Double::valueOf)
                        .orElse(Double.NaN))
                .toList();
        boolean named = numbers.stream().noneMatch(d -> d.isNaN())
                && numbers.stream().distinct().count() == rows.size();
        System.err.println("The files do not say their times; "
                + (named ? "the numbers in their names are taken." : "they are counted from 1 in the order given."));
        for (int i = 0; i < rows.size(); i++) {
            Row r = rows.get(i);
            rows.set(i, new Row(named ? numbers.get(i) : i + 1, r.value(), r.why()));
        }
    }

    /** Why there is no value at some times, once for each reason. */
    private void told() {
        Map<String, List<Row>> why = new LinkedHashMap<>();
        rows.stream().filter(r -> !r.why().isBlank()).forEach(r -> why.computeIfAbsent(r.why(), k -> new ArrayList<>())
                .add(r));
        why.forEach((reason, at) -> System.err.println("No value at " + Plain.count(at.size(), "time") + ", first at "
                + number(at.getFirst().time()) + ": " + Plain.line(reason)));
    }

    private void table() {
        List<List<String>> all = new ArrayList<>();
        all.add(List.of(
                "time", "value" + (unit.known() && !unit.symbol().isBlank() ? " [" + unit.symbol() + "]" : "")));
        rows.forEach(r ->
                all.add(List.of(Double.toString(r.time()), Double.isNaN(r.value()) ? "" : Double.toString(r.value()))));
        if (csv.equals("-")) {
            Console.bytes(CsvWriter.body(all));
        } else {
            CsvWriter.write(OneRun.path(csv), all);
        }
    }

    /** Integral over time by the trapezoid rule, over the time; the value itself where there is one time. */
    private static double mean(Series s) {
        double sum = 0;
        for (int i = 1; i < s.size(); i++) {
            sum += (s.along()[i] - s.along()[i - 1]) * (s.value()[i] + s.value()[i - 1]) / 2;
        }
        return s.size() == 1 ? s.value()[0] : sum / (s.along()[s.size() - 1] - s.along()[0]);
    }

    private static int extreme(Series s, int sign) {
        int best = 0;
        for (int i = 1; i < s.size(); i++) {
            if (sign * s.value()[i] > sign * s.value()[best]) {
                best = i;
            }
        }
        return best;
    }

    private String json(Series s) {
        var mapper = new ObjectMapper();
        ObjectNode line = mapper.createObjectNode();
        ArrayNode times = line.putArray("times");
        ArrayNode values = line.putArray("values");
        for (Row r : rows) {
            times.add(r.time());
            if (Double.isNaN(r.value())) {
                values.addNull();
            } else {
                values.add(r.value());
            }
        }
        line.put("unit", unit.known() ? unit.symbol() : "");
        line.put("mean", mean(s));
        for (int sign : new int[] {-1, 1}) {
            int at = extreme(s, sign);
            ObjectNode one = line.putObject(sign < 0 ? "least" : "greatest");
            one.put("value", s.value()[at]);
            one.put("time", s.along()[at]);
        }
        line.put("convention", convention);
        try {
            return mapper.writeValueAsString(line);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    private String words(Series s) {
        String u = unit.known() ? " " + unit.symbol() : "";
        var out = new StringBuilder();
        out.append(kind).append(" of ").append(of).append(" over ").append(over).append(", ");
        out.append(Plain.count(rows.size(), "time"))
                .append(u.isBlank() ? "" : "," + u)
                .append('\n');
        rows.forEach(r -> out.append(String.format(
                "  %12s  %s%n",
                number(r.time()),
                Double.isNaN(r.value()) ? "no value" : Figures.of(r.value(), 9).plain(r.value()))));
        int least = extreme(s, -1);
        int greatest = extreme(s, 1);
        out.append("  least ")
                .append(number(s.value()[least]))
                .append(u)
                .append(" at ")
                .append(number(s.along()[least]));
        out.append(", greatest ").append(number(s.value()[greatest])).append(u).append(" at ");
        out.append(number(s.along()[greatest]))
                .append(", mean over time ")
                .append(number(mean(s)))
                .append(u)
                .append('\n');
        return out.append("  ").append(convention).append('\n').toString();
    }

    private static String number(double v) {
        return Figures.of(v, 6).plain(v);
    }
}
