package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Part;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.formats.DatasetReader;
import lane.formats.FileLibrary;
import lane.formats.Transferred;
import lane.formats.grid.Dataset;
import lane.transfer.Bringing;
import lane.transfer.Common;
import lane.transfer.MeshTransfer;
import lane.transfer.Numbers;
import lane.transfer.Outside;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Brings fields of one mesh onto another and writes that with them. No study is needed. */
@Command(
        name = "transfer",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Bring fields of one mesh onto another, by interpolation or so that their integrals are kept.")
final class TransferFields implements Callable<Integer> {
    /** Where values are wanted. */
    enum To {
        nodes,
        cells
    }

    @Parameters(index = "0", paramLabel = "SOURCE", description = "the mesh with the fields, in any open format")
    String source = "";

    @Parameters(index = "1", paramLabel = "TARGET", description = "the mesh that they are wanted on")
    String target = "";

    @Option(
            names = "--fields",
            split = ",",
            paramLabel = "NAME",
            description = "fields, parted by commas; all if left out")
    List<String> fields = List.of();

    @Option(
            names = "--conservative",
            description = "by the overlap of cells, so that integrals are kept; else interpolated")
    boolean conservative;

    @Option(
            names = "--to",
            paramLabel = "WHERE",
            description = "${COMPLETION-CANDIDATES}; where each field has its values if left out")
    @Nullable
    To to;

    @Option(
            names = "--zero-on",
            split = ",",
            paramLabel = "PART",
            description = "parts of the target whose nodes get zero afterwards")
    List<String> zero = List.of();

    @Option(names = "--impose", paramLabel = "PART=VALUE", description = "the same with another value")
    Map<String, Double> imposed = new LinkedHashMap<>();

    @Option(
            names = "--outside",
            defaultValue = "absent",
            paramLabel = "WHAT",
            description = "what places outside of the source get: absent (the default), nearest:DISTANCE, or a number")
    String outside = "absent";

    @Option(
            names = "--mean",
            description =
                    "with --conservative: cells covered in part take the mean of what is covered, which keeps no integral")
    boolean mean;

    @Option(
            names = "--linear",
            description =
                    "without --conservative: what is stored in cells is linear within each by its gradient, which is exact for"
                            + " linear fields; else constant, as stored")
    boolean linear;

    @Option(
            names = "--overlap",
            description =
                    "what both meshes have in common, for an interpolation of more than 100000 cells (4000 of bent faces), too")
    boolean overlap;

    @Option(
            names = "--time",
            paramLabel = "T",
            description = "the stored time of the source nearest to this; else the last")
    @Nullable
    Double time;

    @Option(
            names = "--all-times",
            description = "every stored time of the source: files OUT-0000.vtu and so on, and OUT.pvd that names them")
    boolean all;

    @Option(
            names = "--length-source",
            paramLabel = "UNIT",
            description = "unit of the source's coordinates, where both differ")
    String sourceLength = "";

    @Option(names = "--length-target", paramLabel = "UNIT", description = "unit of the target's coordinates")
    String targetLength = "";

    @Option(
            names = "--regions",
            paramLabel = "ARRAY",
            description = "an array of whole numbers in cells that names the target's parts")
    String regions = "";

    @Option(names = "--out", required = true, paramLabel = "OUT.vtu", description = "the file to write; .xdmf as well")
    String out = "";

    @Option(names = "--json", description = "one JSON object in place of words")
    boolean json;

    @Override
    public Integer call() {
        // What is typed wrong is told before a large file is read.
        Path file = OneRun.path(out);
        Transferred.check(file);
        Outside beyond = outside();
        if (time != null && all) {
            throw new LaneException("Give --time for one time or --all-times for all, not both.");
        }
        double factor = factor();
        Run to = target();
        var values = new LinkedHashMap<String, Double>();
        zero.forEach(part -> values.put(part.strip(), 0.0));
        imposed.forEach((part, value) -> values.put(part.strip(), value));
        MeshTransfer.To at = this.to == null
                ? MeshTransfer.To.AS_STORED
                : this.to == To.nodes ? MeshTransfer.To.NODES : MeshTransfer.To.CELLS;
        var how = new Bringing(fields, conservative, at, beyond, mean, overlap, values, linear);
        Work work = Progress.on(System.err);
        TimeSelector first = time != null
                ? new TimeSelector.At(time, Double.POSITIVE_INFINITY)
                : all ? new TimeSelector.First() : TimeSelector.LAST;
        Dataset from = DatasetReader.read(OneRun.path(source), first, work.stretch(0, 0.1));
        if (!all) {
            MeshTransfer.Result made = Transferred.one(file, run(from, factor), to, 1, how, work);
            Progress.end(work);
            told(made);
            Console.lines(json ? line(node(made)) : made.words(to.mesh()));
            return 0;
        }
        if (from.times().isEmpty()) {
            throw new LaneException("\"" + source + "\" stores no times; leave --all-times out.");
        }
        series(from, to, factor, how, file, work);
        return 0;
    }

    private void series(Dataset first, Run to, double factor, Bringing how, Path file, Work work) {
        ObjectNode line = new ObjectMapper().createObjectNode();
        var rows = line.putArray("times");
        List<Double> times = first.times();
        Transferred.all(
                file,
                times,
                (t, stretch) -> run(
                        t == times.getFirst()
                                ? first
                                : DatasetReader.read(OneRun.path(source), new TimeSelector.At(t, 0), stretch),
                        factor),
                to,
                1,
                how,
                (t, made) -> {
                    ObjectNode row = node(made);
                    row.put("time", t);
                    if (rows.isEmpty()) {
                        told(made);
                    }
                    rows.add(row);
                    if (!json) {
                        Progress.end(work);
                        Console.lines("time " + Figures.of(t, 9).plain(t) + "\n" + made.words(to.mesh()));
                    }
                },
                work);
        Progress.end(work);
        if (json) {
            Console.lines(line(line));
        }
    }

    private static Run run(Dataset from, double factor) {
        return new Run(
                factor == 1 ? from.mesh() : from.mesh().scaled(factor), from.fields(), List.of(), List.of(), List.of());
    }

    private Outside outside() {
        if (outside.equals("absent")) {
            return new Outside.Absent();
        }
        boolean near = outside.startsWith("nearest:");
        try {
            double v = Double.parseDouble(near ? outside.substring("nearest:".length()) : outside);
            return near ? new Outside.Nearest(v) : new Outside.Value(v);
        } catch (NumberFormatException e) {
            throw new LaneException(
                    "What lies outside is absent, nearest:DISTANCE or a number; \"" + outside + "\" is none of these.",
                    e);
        }
    }

    /** What one unit of the source's coordinates is in the target's. */
    private double factor() {
        if (sourceLength.isBlank() != targetLength.isBlank()) {
            throw new LaneException(
                    "Units of length are given for both meshes, --length-source and --length-target, or for none.");
        }
        if (sourceLength.isBlank()) {
            return 1;
        }
        Unit metre = Unit.of("m");
        for (String unit : List.of(sourceLength, targetLength)) {
            if (!Unit.of(unit).comparable(metre)) {
                throw new LaneException(
                        "Coordinates cannot be in \"" + unit + "\"; give a unit of length, such as mm.");
            }
        }
        return Unit.of(sourceLength).factor() / Unit.of(targetLength).factor();
    }

    /** The target, with its parts where any is asked for. */
    private Run target() {
        Run to = OneRun.read(target);
        if (zero.isEmpty() && imposed.isEmpty()) {
            return to;
        }
        Path path = OneRun.path(target);
        Run run = FileLibrary.unproven(OneReading.folder(path))
                .run(OneReading.source(path, "", regions), TimeSelector.LAST, Work.QUIET);
        if (run.mesh().nodeCount() != to.mesh().nodeCount()) {
            throw new LaneException(
                    "The parts of \"" + target + "\" belong to another mesh than the one it is read as.");
        }
        for (String name : zero) {
            known(run, name);
        }
        imposed.keySet().forEach(name -> known(run, name));
        return new Run(to.mesh(), to.fields(), run.parts(), List.of(), List.of());
    }

    private void known(Run run, String name) {
        if (run.parts().stream().noneMatch(p -> p.name().equals(name.strip()))) {
            throw new LaneException("The target has no part \"" + name + "\"; "
                    + (run.parts().isEmpty()
                            ? "it has none. Parts are surfaces in a folder named after it, "
                                    + OneRun.path(target)
                                            .getFileName()
                                            .toString()
                                            .replaceFirst("\\.[^.]*$", "")
                                    + "-parts, or come from --regions."
                            : "its parts are "
                                    + Plain.names(
                                            run.parts().stream().map(Part::name).toList()) + "."));
        }
    }

    private void told(MeshTransfer.Result made) {
        if (json) {
            // Beside the numbers, which may be read by a program.
            made.notes().forEach(n -> System.err.println(Plain.line(n)));
        }
    }

    private static String line(ObjectNode node) {
        try {
            return new ObjectMapper().writeValueAsString(node);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    private static ObjectNode node(MeshTransfer.Result made) {
        ObjectNode line = new ObjectMapper().createObjectNode();
        var rows = line.putArray("fields");
        for (Numbers n : made.fields()) {
            ObjectNode row = rows.addObject();
            row.put("name", n.field().name());
            row.put("targets", n.values().length / n.field().components());
            row.put("outside", n.outside());
            row.put("largestChange", Double.isNaN(n.largestChange()) ? null : (Double) n.largestChange());
            put(row, "integralSource", n.source());
            put(row, "integralOverlap", n.overlap());
            put(row, "integralTarget", n.target());
        }
        Common c = made.common();
        line.put("overlapVolume", c == null ? null : (Double) c.overlap());
        line.put("uncoveredVolume", c == null ? null : (Double) c.uncovered());
        line.put("partlyCovered", c == null ? null : (Integer) c.partly());
        return line;
    }

    /** A number, or one a component; null for none. */
    private static void put(ObjectNode row, String name, double[] values) {
        if (values.length == 0) {
            row.putNull(name);
        } else if (values.length == 1) {
            row.put(name, values[0]);
        } else {
            var list = row.putArray(name);
            Arrays.stream(values).forEach(list::add);
        }
    }
}
