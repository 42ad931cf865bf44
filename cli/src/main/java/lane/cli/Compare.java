package lane.cli;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.concurrent.Callable;
import lane.base.Plain;
import lane.formats.ledger.LedgerReader;
import lane.ledger.LedgerDiff;
import lane.study.StudyDiff;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

/** Compares two ledgers line by line, such as those before and after a new version of a solver. */
@Command(
        name = "compare",
        mixinStandardHelpOptions = true,
        versionProvider = Version.Told.class,
        description = "Compare two ledgers line by line, such as those before and after a new version of a solver.",
        exitCodeListHeading = "Exit codes:%n",
        exitCodeList = {
            "0:every number of the first is in the second, and the same",
            "1:a number or a verdict is different",
            "2:none is different, but one of the first is missing in the second",
            "3:it could not run"
        })
final class Compare implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BEFORE", description = "the folder of the earlier ledger")
    String before = "";

    @Parameters(index = "1", paramLabel = "AFTER", description = "the folder of the later one")
    String after = "";

    @Mixin
    Alike alike = new Alike();

    @Override
    public Integer call() {
        double tolerance = alike.tolerance();
        LedgerReader.Written one = LedgerReader.read(OneRun.path(before));
        LedgerReader.Written two = LedgerReader.read(OneRun.path(after));
        LedgerDiff diff = LedgerDiff.of(one.ledger(), two.ledger(), tolerance);
        List<String> definitions = one.definitions() == null || two.definitions() == null
                ? List.of()
                : StudyDiff.details(one.definitions(), two.definitions());
        if (alike.json) {
            ObjectNode root = new ObjectMapper().createObjectNode();
            Verify.changes(root.putObject("numbers"), diff);
            definitions.forEach(root.putObject("definitions").putArray("changed")::add);
            root.put("programBefore", one.program());
            root.put("programAfter", two.program());
            Console.lines(root.toString());
        } else if (!alike.quiet) {
            var out = new StringBuilder();
            Verify.numbers(diff, out);
            out.append(
                    definitions.isEmpty()
                            ? "definitions the same\n"
                            : Plain.count(definitions.size(), "definition") + " changed\n");
            definitions.forEach(d -> out.append("  ").append(d).append('\n'));
            if (!one.program().equals(two.program())) {
                out.append(one.program())
                        .append(" wrote the first, ")
                        .append(two.program())
                        .append(" the second\n");
            }
            Console.lines(out.toString());
        }
        return !diff.different().isEmpty() ? 1 : !diff.missing().isEmpty() ? 2 : 0;
    }
}
