package lane.desk.stations;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import lane.base.LaneException;
import lane.desk.Session;
import lane.formats.table.TableReader;
import lane.mesh.Point;
import lane.reference.Table;
import lane.unit.Unit;

/** Points from a table with columns x, y and z, in the units that it states, else in metres. */
final class PointsTable {
    private PointsTable() {}

    static void ask(Session session, Window window, Consumer<List<Point>> taken) {
        var chooser = new FileChooser();
        chooser.setTitle("Points from a table with columns x, y, z");
        java.io.File file = chooser.showOpenDialog(window);
        if (file != null) {
            try {
                taken.accept(read(file.toPath()));
            } catch (LaneException e) {
                session.say(e.getMessage());
            }
        }
    }

    static List<Point> read(Path file) {
        Table table = TableReader.read(file, file.getFileName().toString());
        double[][] xyz = new double[3][];
        for (int d = 0; d < 3; d++) {
            String name = "xyz".substring(d, d + 1);
            String column = table.headers().stream()
                    .filter(n -> n.equalsIgnoreCase(name))
                    .findFirst()
                    .orElseThrow(() -> new LaneException("The table " + file.getFileName() + " has no column \"" + name
                            + "\"; name its columns x, y and z."));
            Unit unit = Unit.of(table.unit(column, ""));
            double[] values = table.column(column);
            xyz[d] = new double[values.length];
            for (int i = 0; i < values.length; i++) {
                xyz[d][i] = unit.known() ? unit.toSi(values[i]) : values[i];
            }
        }
        List<Point> out = new ArrayList<>();
        for (int i = 0; i < xyz[0].length; i++) {
            if (Double.isFinite(xyz[0][i] + xyz[1][i] + xyz[2][i])) {
                out.add(new Point(xyz[0][i], xyz[1][i], xyz[2][i]));
            }
        }
        if (out.isEmpty()) {
            throw new LaneException("The table " + file.getFileName() + " has no row with numbers in x, y and z.");
        }
        return out;
    }
}
