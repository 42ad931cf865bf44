package lane.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import lane.formats.cluster.Spread;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Waits again for an evaluation on a cluster that was left. */
@Command(
        name = "attach",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Wait for an evaluation on a cluster that was begun before, give the cluster what is missing of it, and write its ledger.",
        exitCodeListHeading = "Exit codes:%n",
        exitCodeList = {
            "0:all checks are within, or it was told or ended as asked",
            "1:a check is out",
            "2:none is out, but something is undecided, has no data or could not be read",
            "3:it could not run"
        })
final class Attach implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", description = "the folder that evaluate was given as --out")
    private Path out;

    @Option(names = "--stop", description = "end its jobs; what they made stays, and attach goes on from there")
    private boolean stop;

    @Option(names = "--status", description = "tell how far it is and end")
    private boolean status;

    @Option(names = "--json", description = "one JSON object in place of words")
    private boolean json;

    @Option(
            names = {"-q", "--quiet"},
            description = "no words and no progress; the exit code says it")
    private boolean quiet;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        Spread spread = Spread.of(out);
        if (stop || status) {
            if (stop) {
                spread.stop();
            }
            if (!quiet) {
                spec.commandLine().getOut().println(spread.state().text());
            }
            return 0;
        }
        if (spread.state().still()) {
            spread.restart();
        }
        return OnCluster.finish(spec, spread, spread.named(), out, new Evaluate.Told(json, quiet));
    }
}
