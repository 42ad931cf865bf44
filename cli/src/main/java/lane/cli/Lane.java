package lane.cli;

import lane.base.LaneException;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The command line without a window. Exit codes: 0 done, 1 failed, 2 wrong usage, 3 done but an input was unusable. */
@Command(
        name = "lane",
        subcommands = {Evaluate.class, Describe.class, Sample.class, Picture.class},
        mixinStandardHelpOptions = true,
        description = "Crosscheck Lane: simulation results against theory, measurement and other meshes.")
public final class Lane {
    private Lane() {}

    public static void main(String[] args) {
        System.exit(run(args));
    }

    /** Runs a command and returns the exit code; a wrong input is one sentence on the error stream. */
    public static int run(String... args) {
        return new CommandLine(new Lane())
                .setExecutionExceptionHandler((e, line, parsed) -> {
                    if (e instanceof LaneException) {
                        line.getErr().println(e.getMessage());
                        line.getErr().flush();
                        return 1;
                    }
                    throw e;
                })
                .execute(args);
    }
}
