package lane.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.Callable;
import lane.base.Plain;
import lane.base.Work;
import lane.formats.io.Version;
import lane.formats.ledger.LedgerReport;
import lane.formats.ledger.Made;
import lane.formats.ledger.Reverify;
import lane.study.Results;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Writes one file of a ledger alone: its pages, its workbook, its tables. */
@Command(
        name = "report",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Compute a study, or a ledger that was written, and write it as one file: .pdf, .html, .xlsx, .md, .tex or .xml"
                        + " (the checks as a test report).",
        exitCodeListHeading = "Exit codes:%n",
        exitCodeList = {
            "0:all checks are within",
            "1:a check is out; or the numbers of a ledger are other ones now, and nothing was written",
            "2:none is out, but something is undecided, has no data or could not be read",
            "3:it could not run"
        })
final class WriteReport implements Callable<Integer> {
    @Parameters(paramLabel = "STUDY", description = "a study file, *.lane.json, or the folder of a ledger")
    String of = "";

    @Option(
            names = "--out",
            required = true,
            split = ",",
            paramLabel = "FILE",
            description = "the file to write, or several; the ending says the format")
    List<Path> out = List.of();

    @Option(
            names = {"-q", "--quiet"},
            description = "no words and no progress; the exit code says it")
    boolean quiet;

    @Override
    public Integer call() {
        // What is typed wrong is told before a large study is computed.
        out.forEach(LedgerReport::format);
        Path at = OneRun.path(of);
        Work work = quiet ? Work.QUIET : Progress.on(System.err);
        Results results = Files.isDirectory(at) ? verified(at, work) : Evaluate.results(at, work.stretch(0, 0.7));
        if (results == null) {
            return 1;
        }
        LedgerReport.write(
                results, out, Made.here(Version.text(), Instant.now()), new StudyFigures(), work.stretch(0.7, 1));
        Progress.end(work);
        if (!quiet) {
            out.forEach(f -> Console.lines(f.toAbsolutePath().normalize().toString()));
        }
        return Report.code(results);
    }

    /** Null when the numbers are not those of the ledger any more: its report would tell others. */
    private @Nullable Results verified(Path folder, Work work) {
        Reverify made = Reverify.of(folder, Reverify.How.PLAIN, work.stretch(0, 0.7));
        int other = made.numbers().different().size() + made.numbers().missing().size();
        if (other == 0) {
            return made.results();
        }
        Progress.end(work);
        System.err.println(Plain.count(other, "number") + " computed now "
                + (other == 1 ? "is not that" : "are not those") + " of the ledger in " + folder
                + ", so nothing was written; ./lane verify tells which and why.");
        return null;
    }
}
