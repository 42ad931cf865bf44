package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.reading.Tally;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Study;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** A mean, an integral or a flow over a part, a section or all of a file, by a study of one reading. */
@Command(
        name = "integrate",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Take a mean, an integral or a flow over a boundary part, a section or all of a run.")
final class Integrate implements Callable<Integer> {
    /** What is taken. */
    enum Kind {
        mean,
        integral,
        flow
    }

    @Parameters(paramLabel = "FILE", description = "a mesh with fields, in any open format")
    String file;

    @Option(
            names = "--over",
            required = true,
            paramLabel = "WHERE",
            description = "part:NAME, section:\"px,py,pz nx,ny,nz\" (a point and the normal), or all")
    String over;

    @Option(
            names = "--of",
            required = true,
            paramLabel = "FORMULA",
            description = "a field or a formula of fields and places; for a flow a vector")
    String of;

    @Option(names = "--kind", required = true, paramLabel = "KIND", description = "${COMPLETION-CANDIDATES}")
    Kind kind;

    @Option(
            names = "--by",
            paramLabel = "VALUES",
            description =
                    "whose values: quadrature (the default), size (one value a cell or face, by its size), cells (each counting the same), nodes")
    String by = "quadrature";

    @Option(
            names = "--length",
            paramLabel = "UNIT",
            description = "unit of the file's coordinates, and of those of a section; metres where it does not say")
    String length = "";

    @Option(
            names = "--regions",
            paramLabel = "ARRAY",
            description = "an array of whole numbers in cells that names the parts")
    String regions = "";

    @Option(names = "--json", description = "one JSON object in place of words")
    boolean json;

    @Override
    public Integer call() {
        Path path = OneRun.path(file);
        var asked = new OneReading(over, of, OneReading.Kind.valueOf(kind.name()), by, length, regions);
        // What is typed wrong is told before a large file is read.
        Study study = asked.study(path);
        Results results = new Evaluator(FileLibrary.unproven(OneReading.folder(path))).evaluate(study, Work.QUIET);
        results.unread().values().forEach(f -> {
            throw new LaneException(f);
        });
        Tally value = OneReading.tally(results, "value");
        Tally size = OneReading.tally(results, "size");
        String convention = asked.convention(value, results);
        Console.lines(json ? json(value, size, convention) : words(value, size, convention));
        return 0;
    }

    private static String json(Tally value, Tally size, String convention) {
        var mapper = new ObjectMapper();
        ObjectNode line = mapper.createObjectNode();
        line.put("value", value.unit().known() ? value.unit().fromSi(value.value()) : value.value());
        line.put("unit", value.unit().known() ? value.unit().symbol() : "");
        line.put("measure", size.unit().fromSi(size.value()));
        line.put("convention", convention);
        try {
            return mapper.writeValueAsString(line);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    private String words(Tally value, Tally size, String convention) {
        double shown = value.unit().known() ? value.unit().fromSi(value.value()) : value.value();
        double measured = size.unit().fromSi(size.value());
        return String.format(
                Locale.ROOT,
                "%s of %s over %s: %s %s%n  over %s %s%n  %s%n",
                kind,
                of,
                over,
                Figures.of(shown, 9).plain(shown),
                value.unit().label(),
                Figures.of(measured, 9).plain(measured),
                size.unit().label(),
                convention);
    }
}
