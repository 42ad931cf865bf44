package lane.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import lane.formats.cluster.PieceTask;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** What a job of a cluster calls. */
@Command(
        name = "work",
        hidden = true,
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Make the pieces of one task of an evaluation on a cluster; its jobs call this.")
final class MakePieces implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", description = "the folder of the plan")
    private Path spread;

    @Option(names = "--attempt", required = true, description = "which array of the plan, from 0")
    private int attempt;

    @Option(names = "--task", required = true, description = "which task of the array, from 0")
    private int task;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        var print = spec.commandLine().getOut();
        int failed = PieceTask.run(spread, attempt, task, line -> {
            print.println(line);
            print.flush();
        });
        return failed == 0 ? 0 : 3;
    }
}
