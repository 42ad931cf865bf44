package lane.desk.cases;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;

/** Files of trades far from one another, as their own programs would write them. */
final class OtherTrades {
    private OtherTrades() {}

    /** Speed of a glacier's ice in metres a year, at a height above the bed of 200 m thick ice: Glen's law with n = 3. */
    static double ice(double height) {
        return 40 + 60 * (1 - Math.pow(1 - height / 200, 4));
    }

    /** Two meshes of triangles along 3 km, coordinates in kilometres in x and z, and a borehole's table with a tab between. */
    static void glacier(Path folder) throws IOException {
        for (int n : new int[] {8, 16}) {
            var points = new StringBuilder();
            var u = new StringBuilder();
            var cells = new StringBuilder();
            int nx = 3 * n;
            int count = 0;
            for (int j = 0; j <= n; j++) {
                for (int i = 0; i <= nx; i++) {
                    points.append(line("%.9f 0 %.9f", 3.0 * i / nx, 0.2 * j / n));
                    u.append(line("%.6f 0 0", ice(200.0 * j / n)));
                    if (i < nx && j < n) {
                        int a = i + (nx + 1) * j;
                        cells.append("3 " + a + " " + (a + 1) + " " + (a + nx + 2) + "\n3 " + a + " " + (a + nx + 2)
                                + " " + (a + nx + 1) + "\n");
                        count += 2;
                    }
                }
            }
            int nodes = (nx + 1) * (n + 1);
            Files.writeString(
                    folder.resolve("ice" + n + ".vtk"),
                    "# vtk DataFile Version 2.0\nflowline\nASCII\nDATASET UNSTRUCTURED_GRID\nPOINTS " + nodes
                            + " float\n"
                            + points + "CELLS " + count + " " + 4 * count + "\n" + cells + "CELL_TYPES " + count + "\n"
                            + "5\n".repeat(count) + "POINT_DATA " + nodes + "\nVECTORS ice_velocity float\n" + u);
        }
        var table = new StringBuilder("# Borehole B2, summer; heights above bed\nheight\tv\tsd\nm\tm/yr\tm/yr\n");
        for (int h = 20; h <= 180; h += 20) {
            table.append(line("%d\t%.2f\t2.0", h, ice(h) + (h % 40 == 0 ? 0.6 : -0.6)));
        }
        Files.writeString(folder.resolve("borehole.dat"), table.toString());
    }

    /** Temperature in a row of tubes' gap, in K: falls along x as the gas is cooled. */
    static double gas(double x, double time) {
        return 320 + 180 * Math.exp(-3 * x) * (1 + 0.05 * time);
    }

    /** A tube bundle's gap of 0.8 x 0.1 x 0.05 m, three times of one mesh as a collection, and a spreadsheet's export. */
    static void bundle(Path folder) throws IOException {
        var set = new StringBuilder("<VTKFile type=\"Collection\"><Collection>");
        for (int t = 0; t < 3; t++) {
            int n = 16;
            var points = new StringBuilder();
            var gas = new StringBuilder();
            var cells = new StringBuilder();
            var offsets = new StringBuilder();
            for (int k = 0; k < 2; k++) {
                for (int j = 0; j < 2; j++) {
                    for (int i = 0; i <= n; i++) {
                        points.append(line("%.6f %.6f %.6f", 0.8 * i / n, 0.1 * j, 0.05 * k));
                        gas.append(line("%.6f", gas(0.8 * i / n, t)));
                    }
                }
            }
            for (int i = 0; i < n; i++) {
                int s = n + 1;
                cells.append(i + " " + (i + 1) + " " + (i + 1 + s) + " " + (i + s) + " " + (i + 2 * s) + " "
                        + (i + 1 + 2 * s) + " " + (i + 1 + 3 * s) + " " + (i + 3 * s) + "\n");
                offsets.append(8 * (i + 1) + " ");
            }
            Files.writeString(
                    folder.resolve("gap_" + t + ".vtu"),
                    "<VTKFile type=\"UnstructuredGrid\"><UnstructuredGrid><Piece NumberOfPoints=\"" + 4 * (n + 1)
                            + "\" NumberOfCells=\"" + n + "\"><PointData>" + array("T_gas", "Float32", 1, gas)
                            + "</PointData><Points>" + array("xyz", "Float32", 3, points) + "</Points><Cells>"
                            + array("connectivity", "Int64", 1, cells) + array("offsets", "Int64", 1, offsets)
                            + array("types", "UInt8", 1, "12 ".repeat(n))
                            + "</Cells></Piece></UnstructuredGrid></VTKFile>");
            set.append("<DataSet timestep=\"" + t + "\" file=\"gap_" + t + ".vtu\"/>");
        }
        Files.writeString(folder.resolve("gap.pvd"), set + "</Collection></VTKFile>");
        var table = new StringBuilder(
                "\"Thermocouples, row 3\",,\n\"Position, from inlet [in]\",\"Gas temp [°F]\",Remark\n");
        for (int i = 1; i <= 6; i++) {
            double x = 0.12 * i;
            double kelvin = gas(x, 2) + 1.5;
            table.append(
                    line("%.4f,\"%.2f\",%s", x / 0.0254, kelvin * 1.8 - 459.67, i == 4 ? "\"replaced, new\"" : ""));
        }
        table.append("Average,,\n");
        Files.write(folder.resolve("thermo.csv"), table.toString().getBytes(StandardCharsets.ISO_8859_1));
    }

    static final double LOAD = 120;

    /**
     * Four turns of a helical spring of 40 mm diameter from wire of 5 x 5 mm, in millimetres and newtons: shear stress in MPa by
     * rows of a symmetric tensor, the deflection in mm.
     */
    static void spring(Path folder) throws IOException {
        int n = 160;
        var points = new StringBuilder();
        var stress = new StringBuilder();
        var bend = new StringBuilder();
        var cells = new StringBuilder();
        var offsets = new StringBuilder();
        for (int i = 0; i <= n; i++) {
            double a = 8 * Math.PI * i / n;
            for (int k = 0; k < 4; k++) {
                double r = 20 + (k == 1 || k == 2 ? 2.5 : -2.5);
                double z = 15 * a / (2 * Math.PI) + (k > 1 ? 2.5 : -2.5);
                points.append(line("%.6f %.6f %.6f", r * Math.cos(a), r * Math.sin(a), z));
                bend.append(line("0 0 %.6f", -12.0 * i / n));
            }
            if (i < n) {
                cells.append(4 * i + " " + (4 * i + 1) + " " + (4 * i + 2) + " " + (4 * i + 3) + " " + (4 * i + 4) + " "
                        + (4 * i + 5) + " " + (4 * i + 6) + " " + (4 * i + 7) + "\n");
                offsets.append(8 * (i + 1) + " ");
                // xx xy xz yy yz zz
                stress.append("0 0 310 0 0 0\n");
            }
        }
        String names =
                " ComponentName0=\"S_xx\" ComponentName1=\"S_xy\" ComponentName2=\"S_xz\" ComponentName3=\"S_yy\""
                        + " ComponentName4=\"S_yz\" ComponentName5=\"S_zz\"";
        Files.writeString(
                folder.resolve("spring.vtu"),
                "<VTKFile type=\"UnstructuredGrid\"><UnstructuredGrid><Piece NumberOfPoints=\"" + 4 * (n + 1)
                        + "\" NumberOfCells=\"" + n + "\"><PointData>" + array("U", "Float64", 3, bend)
                        + "</PointData><CellData>" + array("S\"" + names + " x=\"", "Float64", 6, stress)
                        + "</CellData><Points>" + array("xyz", "Float64", 3, points) + "</Points><Cells>"
                        + array("connectivity", "Int32", 1, cells) + array("offsets", "Int32", 1, offsets)
                        + array("types", "UInt8", 1, "12 ".repeat(n))
                        + "</Cells></Piece></UnstructuredGrid></VTKFile>");
    }

    private static String line(String format, Object... values) {
        return String.format(Locale.ROOT, format, values) + "\n";
    }

    private static String array(String name, String type, int components, CharSequence text) {
        return "<DataArray type=\"" + type + "\" Name=\"" + name + "\" NumberOfComponents=\"" + components
                + "\" format=\"ascii\">\n" + text + "</DataArray>\n";
    }
}
