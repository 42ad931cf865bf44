package lane.formats;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Field;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.formats.io.FileNames;
import lane.formats.table.CsvWriter;
import lane.mesh.Mesh;
import lane.reference.Table;

/** Files of one format written as another: a mesh with its fields, or a table. Coordinates and values stay as they are. */
public final class Converted {
    private static final List<String> RUNS = List.of("vtu", "xdmf", "vtp", "stl", "csv");

    private Converted() {}

    /** @throws LaneException when a mesh with fields is not written into a file of that name */
    public static void check(Path file) {
        if (!RUNS.contains(FileNames.ending(file))) {
            throw new LaneException(
                    "A mesh is written as .vtu, .xdmf, .vtp (its surface), .stl (its surface) or .csv (nodes and"
                            + " their values); \"" + file.getFileName() + "\" ends otherwise.");
        }
    }

    /** One time. */
    public static void run(Dataset from, List<String> fields, Path to) {
        Run run = run(from, fields);
        if (FileNames.ending(to).equals("csv")) {
            CsvWriter.write(to, nodes(run));
        } else {
            RunWriter.write(to, run);
        }
    }

    /**
     * Every stored time: a file each, and of .vtu a collection that names them.
     *
     * @return what can be opened
     */
    public static Path all(Path from, List<Double> times, List<String> fields, Path to, Work work) {
        return FilesOverTime.write(
                to,
                times,
                (t, file, w) -> run(DatasetReader.read(from, new TimeSelector.At(t, 0), w), fields, file),
                work);
    }

    private static Run run(Dataset from, List<String> fields) {
        List<Field> kept = new ArrayList<>(from.fields());
        if (!fields.isEmpty()) {
            kept.clear();
            for (String name : fields) {
                List<Field> found = from.fields().stream()
                        .filter(f -> f.name().equals(name.strip()))
                        .toList();
                if (found.isEmpty()) {
                    throw new LaneException("There is no field \"" + name + "\" in the file; it has "
                            + (from.fields().isEmpty()
                                    ? "none."
                                    : Plain.names(from.fields().stream()
                                                    .map(Field::name)
                                                    .toList()) + "."));
                }
                kept.addAll(found);
            }
        }
        return new Run(from.mesh(), kept, List.of(), List.of(), List.of());
    }

    /** A row a node: its place and the values that are stored there. */
    private static List<List<String>> nodes(Run run) {
        Mesh mesh = run.mesh();
        List<Field> at =
                run.fields().stream().filter(f -> f.at() == Field.At.NODE).toList();
        if (at.isEmpty() && !run.fields().isEmpty()) {
            throw new LaneException("All fields of the file are stored in cells, and .csv takes those of nodes;"
                    + " write .vtu, or sample at places.");
        }
        List<List<String>> rows = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of("x", "y", "z"));
        for (Field f : at) {
            String unit = f.unit().known() ? " [" + f.unit().symbol() + "]" : "";
            for (int k = 0; k < f.components(); k++) {
                head.add(f.components() == 1 ? f.name() + unit : f.name() + "." + (k + 1) + unit);
            }
        }
        rows.add(head);
        for (int n = 0; n < mesh.nodeCount(); n++) {
            List<String> row = new ArrayList<>(head.size());
            for (int d = 0; d < 3; d++) {
                row.add(CsvWriter.full(mesh.xyz()[3 * n + d]));
            }
            for (Field f : at) {
                for (int k = 0; k < f.components(); k++) {
                    row.add(CsvWriter.full(f.values().get(n * f.components() + k)));
                }
            }
            rows.add(row);
        }
        return rows;
    }

    /** A table as it was understood: a line of names with their units, then numbers with a point; words stay where they stand. */
    public static List<List<String>> table(Table table) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(table.headers().stream()
                .map(h -> {
                    String unit = table.unit(h, "");
                    return unit.isBlank() ? h : h + " [" + unit + "]";
                })
                .toList());
        for (int r = 0; r < table.rows(); r++) {
            List<String> row = new ArrayList<>();
            for (double[] column : table.columns()) {
                row.add(CsvWriter.full(column[r]));
            }
            rows.add(row);
        }
        return rows;
    }
}
