package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.formats.DatasetReader;
import lane.formats.FileLibrary;
import lane.formats.RunWriter;
import lane.formats.grid.Dataset;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileNames;
import lane.mesh.Mesh;
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
        versionProvider = Version.Told.class,
        description = "Bring fields of one mesh onto another, by interpolation or so that their integrals are kept.")
final class TransferFields implements Callable<Integer> {
    /** Below so many cells it takes no time worth a question to find what both meshes have in common. */
    private static final int FEW = 100_000;

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
            names = "--overlap",
            description = "what both meshes have in common, for an interpolation of more than 100000 cells, too")
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
        String ending = FileNames.ending(file);
        if (!ending.equals("vtu") && !ending.equals("xdmf")) {
            throw new LaneException(
                    "The target is written as .vtu or .xdmf; \"" + file.getFileName() + "\" ends otherwise.");
        }
        Outside beyond = outside();
        if (time != null && all) {
            throw new LaneException("Give --time for one time or --all-times for all, not both.");
        }
        double factor = factor();
        Run to = OneRun.read(target);
        Map<String, Part> parts = parts(to);
        Work work = Progress.on(System.err);
        TimeSelector first = time != null
                ? new TimeSelector.At(time, Double.POSITIVE_INFINITY)
                : all ? new TimeSelector.First() : TimeSelector.LAST;
        Dataset from = DatasetReader.read(OneRun.path(source), first, work.stretch(0, 0.1));
        if (!all) {
            MeshTransfer.Result made = transfer(from, to.mesh(), factor, beyond, parts, work);
            RunWriter.write(file, made.run(to));
            Progress.end(work);
            told(made);
            Console.lines(json ? line(node(made)) : words(made, to));
            return 0;
        }
        if (from.times().isEmpty()) {
            throw new LaneException("\"" + source + "\" stores no times; leave --all-times out.");
        }
        series(from, to, factor, beyond, parts, file, work);
        return 0;
    }

    private void series(
            Dataset first, Run to, double factor, Outside beyond, Map<String, Part> parts, Path file, Work work) {
        String name = String.valueOf(file.getFileName());
        String stem = name.substring(0, name.lastIndexOf('.'));
        String ending = name.substring(name.lastIndexOf('.'));
        var mapper = new ObjectMapper();
        ObjectNode line = mapper.createObjectNode();
        var rows = line.putArray("times");
        var collection = new StringBuilder(
                "<?xml version=\"1.0\"?>\n<VTKFile type=\"Collection\" version=\"1.0\">\n<Collection>\n");
        List<Double> times = first.times();
        for (int i = 0; i < times.size(); i++) {
            double share = 1.0 / times.size();
            Work stretch = work.stretch(i * share, (i + 1) * share);
            Dataset from = i == 0
                    ? first
                    : DatasetReader.read(
                            OneRun.path(source), new TimeSelector.At(times.get(i), 0), stretch.stretch(0, 0.1));
            MeshTransfer.Result made = transfer(from, to.mesh(), factor, beyond, parts, stretch.stretch(0.1, 1));
            String one = String.format(Locale.ROOT, "%s-%04d%s", stem, i, ending);
            RunWriter.write(file.resolveSibling(one), made.run(to));
            collection
                    .append("<DataSet timestep=\"")
                    .append(times.get(i))
                    .append("\" file=\"")
                    .append(one.replace("&", "&amp;").replace("\"", "&quot;").replace("<", "&lt;"))
                    .append("\"/>\n");
            ObjectNode row = node(made);
            row.put("time", times.get(i));
            rows.add(row);
            if (i == 0) {
                told(made);
            }
            if (!json) {
                Progress.end(work);
                Console.lines("time " + Figures.of(times.get(i), 9).plain(times.get(i)) + "\n" + words(made, to));
            }
        }
        collection.append("</Collection>\n</VTKFile>\n");
        if (ending.equals(".vtu")) {
            AtomicFile.write(
                    file.resolveSibling(stem + ".pvd"),
                    stream -> stream.write(collection.toString().getBytes(StandardCharsets.UTF_8)));
        }
        Progress.end(work);
        if (json) {
            Console.lines(line(line));
        }
    }

    private MeshTransfer.Result transfer(
            Dataset from, Mesh to, double factor, Outside beyond, Map<String, Part> parts, Work work) {
        Mesh mesh = factor == 1 ? from.mesh() : from.mesh().scaled(factor);
        Run run = new Run(mesh, from.fields(), List.of(), List.of(), List.of());
        List<Field> wanted = fields.isEmpty()
                ? run.fields()
                : fields.stream().map(f -> OneRun.field(run, f.strip())).toList();
        if (wanted.isEmpty()) {
            throw new LaneException("\"" + source + "\" has no field to be transferred.");
        }
        boolean few = mesh.cellCount() <= FEW && to.cellCount() <= FEW;
        boolean alike = mesh.dimension() == to.dimension() && mesh.dimension() > 1;
        MeshTransfer.To at = this.to == null
                ? MeshTransfer.To.AS_STORED
                : this.to == To.nodes ? MeshTransfer.To.NODES : MeshTransfer.To.CELLS;
        var how = new MeshTransfer.Wanted(conservative, at, beyond, mean, conservative || overlap || few && alike);
        MeshTransfer.Result made;
        try {
            made = MeshTransfer.of(run, to, wanted, how, work);
        } catch (LaneException e) {
            if (conservative || overlap || !how.common()) {
                throw e;
            }
            // Nobody asked for what surfaces that bend have in common.
            made = MeshTransfer.of(run, to, wanted, new MeshTransfer.Wanted(false, at, beyond, mean, false), work);
        }
        List<Numbers> numbers = new ArrayList<>();
        List<String> notes = new ArrayList<>(made.notes());
        boolean nodal = made.fields().stream().anyMatch(n -> n.at() == Field.At.NODE);
        for (Numbers n : made.fields()) {
            Numbers now = n;
            // Of cells alone it is refused; beside fields at nodes it is told.
            if (n.at() == Field.At.CELL && nodal && !(zero.isEmpty() && imposed.isEmpty())) {
                notes.add("\"" + n.field().name() + "\" has its values in cells, so nothing was imposed on it.");
                numbers.add(now);
                continue;
            }
            for (String part : zero) {
                now = MeshTransfer.imposed(now, to, List.of(known(parts, part)), 0, work);
            }
            for (var entry : imposed.entrySet()) {
                now = MeshTransfer.imposed(now, to, List.of(known(parts, entry.getKey())), entry.getValue(), work);
            }
            numbers.add(now);
        }
        return new MeshTransfer.Result(numbers, made.common(), made.masks(), notes);
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

    /** The target's parts by name, where any is asked for. */
    private Map<String, Part> parts(Run to) {
        Map<String, Part> out = new LinkedHashMap<>();
        if (zero.isEmpty() && imposed.isEmpty()) {
            return out;
        }
        Path path = OneRun.path(target);
        Run run = new FileLibrary(OneReading.folder(path))
                .run(OneReading.source(path, "", regions), TimeSelector.LAST, Work.QUIET);
        if (run.mesh().nodeCount() != to.mesh().nodeCount()) {
            throw new LaneException(
                    "The parts of \"" + target + "\" belong to another mesh than the one it is read as.");
        }
        run.parts().forEach(p -> out.put(p.name(), p));
        zero.forEach(name -> known(out, name));
        imposed.keySet().forEach(name -> known(out, name));
        return out;
    }

    private Part known(Map<String, Part> parts, String name) {
        Part part = parts.get(name.strip());
        if (part == null) {
            throw new LaneException("The target has no part \"" + name + "\"; "
                    + (parts.isEmpty()
                            ? "it has none. Parts are surfaces in a folder named after it, "
                                    + OneRun.path(target)
                                            .getFileName()
                                            .toString()
                                            .replaceFirst("\\.[^.]*$", "")
                                    + "-parts, or come from --regions."
                            : "its parts are " + String.join(", ", parts.keySet()) + "."));
        }
        return part;
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

    private static String words(MeshTransfer.Result made, Run to) {
        var out = new StringBuilder();
        Common c = made.common();
        if (c != null) {
            String size = to.mesh().dimension() == 2 ? "area" : "volume";
            out.append("common ").append(size).append(' ').append(number(c.overlap()));
            out.append(", of the target uncovered ")
                    .append(number(c.uncovered()))
                    .append('\n');
        }
        for (Numbers n : made.fields()) {
            int targets = n.values().length / n.field().components();
            out.append(n.field().name())
                    .append(": ")
                    .append(Plain.count(targets, n.at() == Field.At.NODE ? "node" : "cell"));
            out.append(
                    n.outside() == 0
                            ? ", all with values"
                            : ", " + n.outside() + " of them ("
                                    + Figures.of(100.0 * n.outside() / targets, 3)
                                            .plain(100.0 * n.outside() / targets)
                                    + " %) without a value");
            out.append('\n');
            out.append("  integral over the source ").append(numbers(n.source()));
            if (n.overlap().length > 0) {
                out.append(", over what is common ").append(numbers(n.overlap()));
            }
            out.append(", over the target ").append(numbers(n.target())).append('\n');
            if (!Double.isNaN(n.largestChange())) {
                out.append("  largest change by imposed values ")
                        .append(number(n.largestChange()))
                        .append('\n');
            }
        }
        made.notes().forEach(note -> out.append("  ").append(note).append('\n'));
        return out.toString();
    }

    private static String numbers(double[] v) {
        return Arrays.stream(v).mapToObj(TransferFields::number).collect(java.util.stream.Collectors.joining(", "));
    }

    private static String number(double v) {
        return Figures.of(v, 9).plain(v);
    }
}
