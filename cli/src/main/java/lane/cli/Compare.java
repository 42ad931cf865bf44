package lane.cli;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import lane.base.LaneException;
import lane.base.Plain;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileNames;
import lane.formats.ledger.LedgersCompared;
import lane.ledger.LedgerDiff;
import lane.picture.Export;
import lane.picture.Palette;
import lane.picture.chart.MovedPicture;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Compares two ledgers line by line, such as those before and after a new version of a solver. */
@Command(
        name = "compare",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Compare two ledgers line by line, such as those before and after a new version of a solver.",
        exitCodeListHeading = "Exit codes:%n",
        exitCodeList = {
            "0:every number of the first is in the second, and the same",
            "1:a number or a verdict is different",
            "2:none is different, but one of the first is missing in the second",
            "3:it could not run"
        })
final class Compare implements Callable<Integer> {
    private static final int WIDE = 720;

    @Parameters(index = "0", paramLabel = "BEFORE", description = "the folder of the earlier ledger")
    String before = "";

    @Parameters(index = "1", paramLabel = "AFTER", description = "the folder of the later one")
    String after = "";

    @Mixin
    Alike alike = new Alike();

    @Option(names = "--picture", paramLabel = "FILE", description = "draw what moved into this .png or .svg file")
    @Nullable
    Path picture;

    @Override
    public Integer call() {
        if (picture != null && !List.of("png", "svg").contains(FileNames.ending(picture))) {
            throw new LaneException(
                    "What moved is drawn as .png or .svg; \"" + picture.getFileName() + "\" ends otherwise.");
        }
        LedgersCompared made = LedgersCompared.of(OneRun.path(before), OneRun.path(after), alike.tolerance());
        LedgerDiff diff = made.numbers();
        if (alike.json) {
            ObjectNode root = new ObjectMapper().createObjectNode();
            Verify.changes(root.putObject("numbers"), diff);
            made.definitions().forEach(root.putObject("definitions").putArray("changed")::add);
            made.programs().forEach(root.putObject("program").putArray("changed")::add);
            Console.lines(root.toString());
        } else if (!alike.quiet) {
            var out = new StringBuilder();
            Verify.numbers(diff, out);
            out.append(
                    made.definitions().isEmpty()
                            ? "definitions the same\n"
                            : Plain.count(made.definitions().size(), "definition") + " changed\n");
            made.definitions().forEach(d -> out.append("  ").append(d).append('\n'));
            made.programs().forEach(p -> out.append(p).append('\n'));
            Console.lines(out.toString());
        }
        if (picture != null) {
            draw(picture, diff);
        }
        return !diff.different().isEmpty() ? 1 : !diff.missing().isEmpty() ? 2 : 0;
    }

    private static void draw(Path file, LedgerDiff diff) {
        var moved = MovedPicture.of(diff, MovedPicture.MOST);
        int tall = (int) Math.ceil(moved.height());
        AtomicFile.write(file, out -> {
            if (FileNames.ending(file).equals("svg")) {
                Export.svg(WIDE, tall, g -> moved.paint(g, WIDE, tall, Palette.LIGHT), out);
            } else {
                Export.png(Export.image(WIDE, tall, 2, g -> moved.paint(g, WIDE, tall, Palette.LIGHT)), out);
            }
        });
    }
}
