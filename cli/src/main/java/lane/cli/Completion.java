package lane.cli;

import java.util.concurrent.Callable;
import picocli.AutoComplete;
import picocli.CommandLine.Command;

/** Writes what a shell needs to complete verbs and options. */
@Command(
        name = "completion",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Print what bash and zsh need to complete verbs and options; source it from the shell's start-up file.")
final class Completion implements Callable<Integer> {
    @Override
    public Integer call() {
        Console.lines(AutoComplete.bash("lane", Lane.all()));
        return 0;
    }
}
