package lane.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Run;
import lane.formats.table.CsvWriter;
import lane.formats.table.PointsTable;
import lane.mesh.Point;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Placement;
import lane.station.Placer;
import lane.station.Sampling;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Samples fields of a file along a line or at points of a table. No study is needed. */
@Command(
        name = "sample",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Sample fields of a file along a line or at points of a table, into a CSV file.")
final class Sample implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", description = "a mesh with fields, in any open format")
    String file;

    @ArgGroup(multiplicity = "1")
    Where where;

    static final class Where {
        @Option(
                names = "--line",
                paramLabel = "\"x0,y0,z0 x1,y1,z1\"",
                description = "both ends, in the unit of the file's coordinates")
        String line;

        @Option(names = "--points", paramLabel = "TABLE", description = "a table with columns x, y, z")
        String points;
    }

    @Option(names = "--samples", defaultValue = "201", description = "number of samples on the line (${DEFAULT-VALUE})")
    int samples;

    @Option(names = "--exact", description = "cut at every cell crossed instead of sampling evenly")
    boolean exact;

    @Option(
            names = "--fields",
            split = ",",
            paramLabel = "NAME",
            description = "fields, parted by commas; all if left out")
    List<String> fields = List.of();

    @Option(names = "--csv", paramLabel = "OUT", description = "the file to write; the console if left out")
    String csv;

    @Override
    public Integer call() {
        // What is typed wrong is told before a large file is read.
        Line line = where.line == null ? null : line();
        PointsTable.Taken taken = where.points == null ? null : PointsTable.read(Path.of(where.points));
        List<Point> points = taken == null ? List.of() : taken.points();
        if (taken != null) {
            // Beside the numbers, which may be read by a program.
            taken.said().forEach(System.err::println);
        }
        Run run = OneRun.read(file);
        List<Field> wanted = fields.isEmpty()
                ? run.fields()
                : fields.stream().map(f -> OneRun.field(run, f.strip())).toList();
        Placement placed = line != null ? Placer.path(run.locator(), line, Work.QUIET) : points(run, points);
        List<List<String>> rows = rows(placed, wanted, line == null);
        if (csv == null || csv.equals("-")) {
            Console.bytes(CsvWriter.body(rows));
        } else {
            CsvWriter.write(Path.of(csv), rows);
        }
        return 0;
    }

    private static Placement points(Run run, List<Point> points) {
        double[] xyz = new double[3 * points.size()];
        for (int i = 0; i < points.size(); i++) {
            xyz[3 * i] = points.get(i).x();
            xyz[3 * i + 1] = points.get(i).y();
            xyz[3 * i + 2] = points.get(i).z();
        }
        return Placer.points(run.locator(), xyz, Work.QUIET);
    }

    private Line line() {
        String[] ends = where.line.strip().split("[\\s;]+");
        if (ends.length != 2) {
            throw new LaneException(
                    "The line \"" + where.line + "\" is not understood; write both ends as x0,y0,z0 x1,y1,z1.");
        }
        return new Line(
                point(ends[0]),
                point(ends[1]),
                exact ? new Sampling.CellExact() : new Sampling.Even(samples),
                Abscissa.ARC);
    }

    private Point point(String text) {
        String[] xyz = text.split(",");
        try {
            if (xyz.length == 3) {
                return new Point(Double.parseDouble(xyz[0]), Double.parseDouble(xyz[1]), Double.parseDouble(xyz[2]));
            }
        } catch (NumberFormatException e) {
            // Told below, as for too few numbers.
        }
        throw new LaneException("\"" + text + "\" is no point; write three numbers with commas between, like 0,0.5,1.");
    }

    /** A head and a row a sample; for points the abscissa is the length of the way from the first. */
    private static List<List<String>> rows(Placement placed, List<Field> fields, boolean points) {
        List<List<String>> rows = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of("x", "y", "z", "abscissa", "inside"));
        List<double[]> columns = new ArrayList<>();
        for (Field f : fields) {
            for (int c = 0; c < f.components(); c++) {
                head.add(f.components() == 1 ? f.name() : f.name() + "." + component(f.components(), c));
                columns.add(placed.apply(f, c));
            }
        }
        rows.add(head);
        double way = 0;
        for (int i = 0; i < placed.size(); i++) {
            Point p = placed.place(i);
            way += points && i > 0 ? p.minus(placed.place(i - 1)).norm() : 0;
            boolean inside = placed.cell()[i] >= 0;
            List<String> row = new ArrayList<>(List.of(
                    CsvWriter.full(p.x()),
                    CsvWriter.full(p.y()),
                    CsvWriter.full(p.z()),
                    CsvWriter.full(points ? way : placed.arc()[i]),
                    inside ? "1" : "0"));
            for (double[] column : columns) {
                row.add(inside ? CsvWriter.full(column[i]) : "");
            }
            rows.add(row);
        }
        return rows;
    }

    private static String component(int components, int c) {
        return components <= 3 ? "xyz".substring(c, c + 1) : String.valueOf(c);
    }
}
