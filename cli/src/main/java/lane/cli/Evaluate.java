package lane.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.formats.ledger.LedgerWriter;
import lane.formats.study.StudyJson;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Study;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Computes a study without a window and writes its ledger. */
@Command(
        name = "evaluate",
        mixinStandardHelpOptions = true,
        versionProvider = Version.Told.class,
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

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        PrintWriter print = spec.commandLine().getOut();
        Work work = Progress.on(System.err);
        Results results = results(study, work);
        Progress.end(work);
        List<Path> files = LedgerWriter.write(results, out, study, Version.text(), Instant.now());
        print.print(Report.of(results));
        print.println();
        files.forEach(f -> print.println(f.toAbsolutePath().normalize()));
        print.flush();
        return Report.code(results);
    }

    static Results results(Path study, Work work) {
        Study read = StudyJson.load(study);
        Path folder = Objects.requireNonNull(study.toAbsolutePath().getParent());
        return new Evaluator(new FileLibrary(folder)).evaluate(read, work);
    }
}
