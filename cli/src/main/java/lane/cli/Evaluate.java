package lane.cli;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import lane.base.LaneException;
import lane.base.Work;
import lane.check.CheckResult;
import lane.check.Verdict;
import lane.formats.FileLibrary;
import lane.formats.io.Version;
import lane.formats.ledger.LedgerFormat;
import lane.formats.ledger.LedgerWriter;
import lane.formats.ledger.Made;
import lane.formats.piece.PieceFolder;
import lane.formats.study.StudyJson;
import lane.reading.Reading;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.study.StudyFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Computes a study without a window and writes its ledger. */
@Command(
        name = "evaluate",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Compute a study and write its ledger to a folder.",
        exitCodeListHeading = "Exit codes:%n",
        exitCodeList = {
            "0:all checks are within",
            "1:a check is out",
            "2:none is out, but something is undecided, has no data or could not be read",
            "3:it could not run"
        })
final class Evaluate implements Callable<Integer> {
    @Parameters(paramLabel = "STUDY", description = "a study file, *.lane.json")
    private Path study;

    @Option(names = "--out", required = true, paramLabel = "DIR", description = "folder for the ledger")
    private Path out;

    @Option(
            names = "--formats",
            split = ",",
            paramLabel = "FORMAT",
            description =
                    "further formats beside csv and json: xlsx, pdf, md, tex, html, junit, figures, or all; those that the study"
                            + " keeps if left out, and none of them with csv")
    private List<String> formats = List.of();

    @Option(
            names = "--run",
            paramLabel = "LANE=FILE",
            description = "another file for a run of the study, by its name or key; may be given several times")
    private Map<String, Path> runs = new LinkedHashMap<>();

    @Option(names = "--json", description = "one JSON object in place of words")
    private boolean json;

    @Option(
            names = {"-q", "--quiet"},
            description = "no words and no progress; the exit code says it")
    private boolean quiet;

    @Option(
            names = "--pieces",
            paramLabel = "DIR",
            description =
                    "a folder of answers: what it has is taken where its files are the same, what is computed is put there")
    private Path pieces;

    @Mixin
    private OnCluster cluster;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        Study read = StudyJson.load(study);
        if (cluster.asked()) {
            if (pieces != null) {
                throw new LaneException("On a cluster the answers are kept in " + out.resolve("spread/pieces")
                        + "; leave --pieces out.");
            }
            return cluster.evaluate(spec, study, out, taken(read, runs), formats, new Told(json, quiet));
        }
        Work work = quiet ? Work.QUIET : Progress.on(System.err);
        Set<LedgerFormat> further =
                LedgerFormat.of(formats.isEmpty() ? read.pictures().ledger().formats() : formats);
        Map<String, String> taken = taken(read, runs);
        Path folder = Objects.requireNonNull(study.toAbsolutePath().getParent());
        var library = new FileLibrary(folder);
        if (pieces != null) {
            library.keeping(new PieceFolder(pieces), lane -> Optional.empty());
        }
        if (read.readings().stream().anyMatch(r -> r.ask().overTime())) {
            library.atAllTimes();
        }
        var told = new Told(json, quiet);
        var healths = new Healths();
        // Whether its runs are sound is looked at while their times are read.
        Results results = new Evaluator(library)
                .evaluate(
                        StudyFiles.given(read, taken),
                        work.stretch(0, 0.9),
                        sofar -> healths.look(told.report() ? sofar.runs().values() : List.of(), sofar.study()));
        return written(spec, results, new To(out, study, taken, further), told, healths, work);
    }

    /** Where a ledger is written; as {@link LedgerWriter.To}. */
    record To(Path out, Path study, Map<String, String> runs, Set<LedgerFormat> formats) {}

    /** How what was done is told. */
    record Told(boolean json, boolean quiet) {
        /** Whether all is told in words. */
        boolean report() {
            return !json && !quiet;
        }
    }

    /** Writes the ledger and tells the verdicts. */
    static int written(CommandSpec spec, Results results, To to, Told told, Work work) {
        return written(spec, results, to, told, new Healths(), work);
    }

    private static int written(CommandSpec spec, Results results, To to, Told told, Healths healths, Work work) {
        PrintWriter print = spec.commandLine().getOut();
        List<Path> files = LedgerWriter.write(
                results,
                new LedgerWriter.To(
                        to.out,
                        to.study,
                        to.runs,
                        Made.here(Version.text(), Instant.now()),
                        to.formats,
                        new StudyFigures()),
                work.stretch(0.9, 1));
        Progress.end(work);
        if (told.json) {
            print.println(node(results, files));
        } else if (told.report()) {
            print.print(Report.of(results, healths));
            print.println();
            files.forEach(f -> print.println(f.toAbsolutePath().normalize()));
        }
        print.flush();
        return Report.code(results);
    }

    /** The verdicts, what could not be read, and the files. */
    private static String node(Results results, List<Path> files) {
        ObjectNode root = new ObjectMapper().createObjectNode();
        root.put("study", results.study().name());
        root.put("exitCode", Report.code(results));
        ArrayNode checks = root.putArray("checks");
        results.study().checks().forEach(c -> {
            CheckResult r = results.checks().get(c.id());
            ObjectNode one = checks.addObject();
            one.put("id", c.id());
            one.put(
                    "reading",
                    results.study().reading(c.reading()).map(Reading::name).orElse(c.reading()));
            one.put("verdict", r == null ? Verdict.NO_DATA.word() : r.verdict().word());
            one.put("why", r == null ? "" : r.why());
        });
        ObjectNode failures = root.putObject("notRead");
        results.unread().forEach(failures::put);
        ArrayNode without = root.putArray("withoutNumber");
        Report.without(results).forEach((why, who) -> {
            ObjectNode one = without.addObject();
            one.put("why", why);
            ArrayNode all = one.putArray("readings");
            who.forEach(all::add);
        });
        ArrayNode written = root.putArray("files");
        files.forEach(f -> written.add(f.toAbsolutePath().normalize().toString()));
        return root.toString();
    }

    /** Files that are given for runs, by key of the lane. */
    private static Map<String, String> taken(Study study, Map<String, Path> runs) {
        var out = new LinkedHashMap<String, String>();
        runs.forEach((given, file) -> {
            String name = given.strip();
            Source found = study.sources().stream()
                    .filter(s -> s.id().equals(name) || s.name().equals(name))
                    .findFirst()
                    .orElse(null);
            if (!(found instanceof Source.Simulation)) {
                throw new LaneException(
                        "The study has no run \"" + name + "\" that another file could be given for; its runs are "
                                + study.sources().stream()
                                        .filter(Source.Simulation.class::isInstance)
                                        .map(Source::name)
                                        .collect(Collectors.joining(", "))
                                + ".");
            }
            out.put(found.id(), file.toAbsolutePath().normalize().toString());
        });
        return out;
    }

    static Results results(Path study, Work work) {
        Path folder = Objects.requireNonNull(study.toAbsolutePath().getParent());
        return new Evaluator(new FileLibrary(folder)).evaluate(StudyJson.load(study), work);
    }
}
