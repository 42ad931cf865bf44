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
@Command(name = "evaluate", description = "Compute a study and write its ledger to a folder.")
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
        Results results = results(study);
        results.failures().forEach((id, sentence) -> print.println(id + ": " + sentence));
        List<Path> files = LedgerWriter.write(results, out, Version.text(), Instant.now());
        print.print(CheckTable.of(results));
        print.println();
        files.forEach(f -> print.println(f.toAbsolutePath().normalize()));
        print.flush();
        return results.failures().isEmpty() ? 0 : 3;
    }

    static Results results(Path study) {
        Study read = StudyJson.load(study);
        Path folder = Objects.requireNonNull(study.toAbsolutePath().getParent());
        return new Evaluator(new FileLibrary(folder)).evaluate(read, Work.QUIET);
    }
}
