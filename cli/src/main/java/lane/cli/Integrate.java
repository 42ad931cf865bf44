package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.stream.IntStream;
import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Run;
import lane.field.Treatment;
import lane.formats.FileLibrary;
import lane.measure.Area;
import lane.measure.By;
import lane.measure.Flow;
import lane.measure.Integral;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.station.OnPart;
import lane.station.Region;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Within;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** A mean, an integral or a flow over a part, a section or all of a file, by a study of one reading. */
@Command(
        name = "integrate",
        mixinStandardHelpOptions = true,
        versionProvider = Version.Told.class,
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
        Path folder = Objects.requireNonNull(path.toAbsolutePath().normalize().getParent());
        String name = path.toAbsolutePath().normalize().getFileName().toString();
        // What is typed wrong is told before a large file is read.
        Shape shape = shape();
        var station = new Station("where", over, shape);
        var treatment = new Treatment(
                null, length, null, java.util.Map.of(), java.util.Map.of(), java.util.Map.of(), 1.0, null, List.of());
        var source = new Source.Simulation("run", name, name, parts(path, folder), regions, "", treatment);
        Study study = Study.empty(name)
                .withSources(l -> List.of(source))
                .withQuantities(l -> List.of(new Quantity("of", "--of", of, "", "")))
                .withStations(l -> List.of(station))
                .withReadings(l -> List.of(
                        new Reading("value", "--kind " + kind, "", new TallyOf(List.of("where"), measure())),
                        new Reading("size", "size", "", new TallyOf(List.of("where"), new Area()))));
        Results results = new Evaluator(new FileLibrary(folder)).evaluate(study, Work.QUIET);
        results.failures().values().forEach(f -> {
            throw new LaneException(f);
        });
        Tally value = tally(results, "value");
        Tally size = tally(results, "size");
        Run run = Objects.requireNonNull(results.runs().get("run"));
        String convention = convention(value, run);
        Console.lines(json ? json(value, size, convention) : words(value, size, convention));
        return 0;
    }

    /** Surfaces that stand beside the file as its parts, where there is a folder of them. */
    private static List<String> parts(Path file, Path folder) {
        Path beside = folder.resolve(file.getFileName().toString().replaceFirst("\\.[^.]*$", "") + "-parts");
        List<String> out = new ArrayList<>();
        if (Files.isDirectory(beside)) {
            try (var all = Files.list(beside)) {
                all.filter(f -> f.toString().endsWith(".vtp"))
                        .sorted()
                        .forEach(f -> out.add(folder.relativize(f).toString()));
            } catch (java.io.IOException e) {
                return List.of();
            }
        }
        return out;
    }

    private Measure measure() {
        By values = Arrays.stream(By.values())
                .filter(b -> b != By.STORED && b.name().equalsIgnoreCase(by))
                .findFirst()
                .orElseThrow(() -> new LaneException(
                        "Values by \"" + Plain.line(by) + "\" are not known; write quadrature, size, cells or nodes."));
        Measure plain =
                switch (kind) {
                    case mean -> new Mean("of");
                    case integral -> new Integral("of");
                    case flow -> new Flow("of", 1, "1", Flow.Carried.NOTHING, Axis.Z);
                };
        return values == By.QUADRATURE
                ? plain
                : plain.by(values)
                        .orElseThrow(() -> new LaneException("There is no " + kind + " " + values.word() + "; "
                                + (kind == Kind.integral ? "take quadrature or size." : "take quadrature.")));
    }

    private Shape shape() {
        if (over.startsWith("part:")) {
            return new OnPart(over.substring("part:".length()));
        }
        if (over.startsWith("section:")) {
            String[] ends = over.substring("section:".length()).strip().split("[\\s;]+");
            if (ends.length != 2) {
                throw new LaneException("The section \"" + Plain.line(over)
                        + "\" is not understood; write a point and the normal, like section:\"0,0,0.5 0,0,1\".");
            }
            double metres = length.isBlank() ? 1 : lane.unit.Unit.of(length).factor();
            return new Section(point(ends[0]).times(metres), point(ends[1]), null, null);
        }
        if (over.equals("all")) {
            if (kind == Kind.flow) {
                throw new LaneException(
                        "A flow passes through a surface, and all of a run is none; give part:NAME or section:\"px,py,pz nx,ny,nz\".");
            }
            return new Region(new Within.All());
        }
        throw new LaneException("Where \"" + Plain.line(over)
                + "\" is, is not understood; write part:NAME, section:\"px,py,pz nx,ny,nz\" or all.");
    }

    private static Point point(String text) {
        String[] xyz = text.split(",");
        if (xyz.length == 3
                && IntStream.range(0, 3)
                        .allMatch(i -> xyz[i].strip().matches("[-+]?(\\d+\\.?\\d*|\\.\\d+)([eE][-+]?\\d+)?"))) {
            return new Point(Double.parseDouble(xyz[0]), Double.parseDouble(xyz[1]), Double.parseDouble(xyz[2]));
        }
        throw new LaneException("\"" + Plain.line(text)
                + "\" is no point or direction; write three numbers with commas between, like 0,0.5,1.");
    }

    private static Tally tally(Results results, String reading) {
        return switch (results.outcome(reading, "run")) {
            case Tally t -> t;
            case Outcome.Absent a -> throw new LaneException(a.reason());
            case Outcome o -> throw new IllegalStateException("a tally is a number and not " + o);
        };
    }

    /** What the number means, in words: how it is taken, which way is positive, and what was assumed. */
    private String convention(Tally value, Run run) {
        List<String> all = new ArrayList<>();
        all.add(
                switch (kind) {
                    case mean ->
                        by.equalsIgnoreCase("cells") || by.equalsIgnoreCase("nodes") ? "mean" : "mean weighted by size";
                    case integral -> "integral";
                    case flow -> "integral of the vector's component along the normal";
                });
        all.add(value.note() + (kind == Kind.flow ? ", by quadrature" : ""));
        double error =
                value.unit().differenceFromSi(value.estimate().uncertainty().half());
        if (error > 0) {
            all.add("integrated to ± " + lane.base.Figures.of(error, 2).plain(error) + " "
                    + value.unit().symbol() + ", by the difference to the next rule");
        }
        if (!value.sign().isBlank()) {
            all.add(value.sign());
        }
        if (length.isBlank() && !run.stated().length()) {
            all.add("coordinates taken as metres, which the file does not say");
        }
        return String.join("; ", all);
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
