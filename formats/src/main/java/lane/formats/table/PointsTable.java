package lane.formats.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.base.Plain;
import lane.mesh.Point;
import lane.reference.Table;
import lane.station.Points;
import lane.unit.Unit;

/** Points from a table: its columns x, y and z, else its first three; in the units that it states, else in metres. */
public final class PointsTable {
    private PointsTable() {}

    /**
     * What was taken from a table.
     *
     * @param beside the other columns of numbers, those that have one for each point
     * @param said what was assumed and left out, in sentences
     */
    public record Taken(List<Point> points, List<Points.Beside> beside, List<String> said) {
        public Taken {
            points = List.copyOf(points);
            beside = List.copyOf(beside);
            said = List.copyOf(said);
        }
    }

    /** @throws LaneException when it has fewer than three columns of numbers, or no row with all three */
    public static Taken read(Path file) {
        // Points stand along nothing: they may turn back as they like.
        Table table = TableReader.values(file, file.toString());
        List<String> said = new ArrayList<>();
        List<String> columns = new ArrayList<>();
        List<String> bare = new ArrayList<>();
        for (String name : List.of("x", "y", "z")) {
            table.headers().stream()
                    .filter(n -> n.equalsIgnoreCase(name))
                    .findFirst()
                    .ifPresent(columns::add);
        }
        if (columns.size() < 3) {
            if (!columns.isEmpty() || table.headers().size() < 3) {
                throw new LaneException("The table " + file
                        + " does not have the columns x, y and z; name them so, or give three columns without names.");
            }
            columns = table.headers().subList(0, 3);
            said.add("No columns are named x, y and z; the first three of " + file.getFileName() + " are taken.");
        }
        double[][] xyz = new double[3][];
        for (int d = 0; d < 3; d++) {
            Unit unit = Unit.of(table.unit(columns.get(d), ""));
            if (unit.known() && !unit.comparable(Unit.of("m"))) {
                throw new LaneException("Column \"" + columns.get(d) + "\" of " + file + " is in " + unit.label()
                        + ", which is no length; give coordinates.");
            }
            if (!unit.known()) {
                bare.add(columns.get(d));
            }
            double[] values = table.column(columns.get(d));
            xyz[d] = new double[values.length];
            for (int i = 0; i < values.length; i++) {
                xyz[d][i] = unit.known() ? unit.toSi(values[i]) : values[i];
            }
        }
        List<Point> out = new ArrayList<>();
        int[] rows = IntStream.range(0, xyz[0].length)
                .filter(i -> Double.isFinite(xyz[0][i] + xyz[1][i] + xyz[2][i]))
                .toArray();
        for (int i : rows) {
            out.add(new Point(xyz[0][i], xyz[1][i], xyz[2][i]));
        }
        if (out.isEmpty()) {
            throw new LaneException("The table " + file + " has no row with numbers in x, y and z.");
        }
        if (!bare.isEmpty()) {
            said.add("Column" + (bare.size() > 1 ? "s " : " ") + Plain.names(bare) + " of " + file.getFileName()
                    + (bare.size() > 1 ? " state no unit and are" : " states no unit and is") + " taken as metres.");
        }
        table.found().findings().forEach(f -> said.add(file.getFileName() + ": " + f + "."));
        int left = xyz[0].length - out.size() + table.found().dropped().size();
        if (left > 0) {
            said.add(left + (left == 1 ? " row of " : " rows of ") + file.getFileName() + " without three coordinates "
                    + (left == 1 ? "was" : "were") + " left out.");
        }
        return new Taken(out, beside(table, columns, rows, said), said);
    }

    private static List<Points.Beside> beside(Table table, List<String> places, int[] rows, List<String> said) {
        List<Points.Beside> out = new ArrayList<>();
        for (String name : table.headers()) {
            if (places.contains(name)) {
                continue;
            }
            double[] all = table.column(name);
            List<Double> own = Arrays.stream(rows).mapToObj(i -> all[i]).toList();
            long lacking = own.stream().filter(v -> !Double.isFinite(v)).count();
            if (lacking == 0) {
                Unit unit = Unit.of(table.unit(name, ""));
                out.add(new Points.Beside(name, unit.known() ? unit.label() : "", own));
            } else if (lacking < own.size()) {
                said.add("Column \"" + name + "\" lacks " + lacking + (lacking == 1 ? " number" : " numbers")
                        + " and cannot be what points are drawn against.");
            }
        }
        return out;
    }
}
