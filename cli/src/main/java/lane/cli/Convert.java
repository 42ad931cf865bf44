package lane.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.field.TimeSelector;
import lane.formats.Converted;
import lane.formats.DatasetReader;
import lane.formats.FileKinds;
import lane.formats.grid.Dataset;
import lane.formats.io.FileNames;
import lane.formats.table.CsvWriter;
import lane.formats.table.TableReader;
import lane.reference.Table;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Writes a mesh with fields, or a table, in another format. No study is needed. */
@Command(
        name = "convert",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Write a mesh with its fields as .vtu, .xdmf, .vtp, .stl or .csv (nodes and their values), or a table of any layout"
                        + " as plain .csv. Coordinates and values stay as they are.")
final class Convert implements Callable<Integer> {
    @Parameters(
            index = "0",
            paramLabel = "IN",
            description = "a mesh with fields, or a table, in any format that is read")
    String in = "";

    @Parameters(index = "1", paramLabel = "OUT", description = "the file to write; its ending says the format")
    String to = "";

    @Option(names = "--fields", split = ",", paramLabel = "NAME", description = "only these fields, parted by commas")
    List<String> fields = List.of();

    @Option(names = "--time", paramLabel = "T", description = "the stored time nearest to this; else the last")
    @Nullable
    Double time;

    @Option(
            names = "--all-times",
            description = "every stored time: files OUT-0000.vtu and so on, and OUT.pvd that names them")
    boolean all;

    @Override
    public Integer call() {
        Path from = OneRun.path(in);
        Path out = OneRun.path(to);
        if (time != null && all) {
            throw new LaneException("Give --time for one time or --all-times for all, not both.");
        }
        if (FileKinds.table(from)) {
            table(from, out);
        } else {
            run(from, out);
        }
        return 0;
    }

    private void run(Path from, Path out) {
        Converted.check(out);
        Work work = Progress.on(System.err);
        TimeSelector at = time != null
                ? new TimeSelector.At(time, Double.POSITIVE_INFINITY)
                : all ? new TimeSelector.First() : TimeSelector.LAST;
        Dataset data = DatasetReader.read(from, at, work);
        Path written = out;
        if (!all) {
            Converted.run(data, fields, out);
        } else if (data.times().isEmpty()) {
            throw new LaneException("\"" + in + "\" stores no times; leave --all-times out.");
        } else {
            written = Converted.all(from, data.times(), fields, out, work);
        }
        Progress.end(work);
        List<String> words = new ArrayList<>();
        words.add(Plain.count(data.mesh().nodeCount(), "node") + ", "
                + Plain.count(data.mesh().cellCount(), "cell") + ", "
                + Plain.count(fields.isEmpty() ? data.fields().size() : fields.size(), "field")
                + (all ? ", " + Plain.count(data.times().size(), "time") : ""));
        data.remarks().forEach(r -> words.add("note: " + r));
        words.add(written.toAbsolutePath().normalize().toString());
        Console.lines(String.join("\n", words));
    }

    private void table(Path from, Path out) {
        if (!FileNames.ending(out).equals("csv")) {
            throw new LaneException("A table is written as .csv; \"" + out.getFileName() + "\" ends otherwise.");
        }
        if (!fields.isEmpty() || time != null || all) {
            throw new LaneException("A table has no fields and no stored times; leave these options out.");
        }
        Table table = TableReader.read(from, in);
        CsvWriter.write(out, Converted.table(table));
        List<String> words = new ArrayList<>();
        words.add(Plain.count(table.rows(), "row") + ", "
                + Plain.count(table.headers().size(), "column") + "; "
                + table.layout().words());
        for (int c = 0; c < table.headers().size(); c++) {
            int lost = c < table.found().words().size() ? table.found().words().get(c) : 0;
            if (lost > 0) {
                words.add("note: column " + table.headers().get(c) + ": "
                        + Plain.count(lost, "cell") + (lost == 1 ? " holds words and is" : " hold words and are")
                        + " blank in the copy");
            }
        }
        table.found().dropped().forEach(d -> words.add("note: line " + d.line() + " is left out: " + d.why()));
        table.found().findings().forEach(f -> words.add("note: " + f));
        words.add(out.toAbsolutePath().normalize().toString());
        Console.lines(String.join("\n", words));
    }
}
