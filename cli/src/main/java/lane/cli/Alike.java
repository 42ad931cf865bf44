package lane.cli;

import lane.base.LaneException;
import picocli.CommandLine.Option;

/** How two ledgers are compared, and how that is told. */
final class Alike {
    @Option(
            names = "--tolerance",
            defaultValue = "0",
            paramLabel = "SHARE",
            converter = Share.class,
            description =
                    "share of its magnitude that a number may differ by and still count as the same; 0 if left out")
    private double tolerance;

    @Option(names = "--json", description = "one JSON object in place of words")
    boolean json;

    @Option(
            names = {"-q", "--quiet"},
            description = "no words; the exit code says it")
    boolean quiet;

    /** @throws LaneException for what is no share */
    double tolerance() {
        if (!(tolerance >= 0 && tolerance < 1)) {
            throw new LaneException("A tolerance is a share from 0 to below 1, such as 1e-9; got " + tolerance + ".");
        }
        return tolerance;
    }
}
