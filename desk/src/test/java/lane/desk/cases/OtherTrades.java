package lane.desk.cases;

import java.io.IOException;
import java.nio.charset.Charset;
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

    /** A drying tunnel of 2.4 x 0.6 x 0.5 m in millimetres: the air cools along it by 10 degrees and its humidity rises. */
    static void tunnel(Path folder) throws IOException {
        int[] n = {12, 6, 5};
        var points = new StringBuilder();
        var air = new StringBuilder();
        var wind = new StringBuilder();
        var cells = new StringBuilder();
        int nodes = 0;
        for (int k = 0; k <= n[2]; k++) {
            for (int j = 0; j <= n[1]; j++) {
                for (int i = 0; i <= n[0]; i++) {
                    points.append(200 * i)
                            .append(' ')
                            .append(100 * j)
                            .append(' ')
                            .append(100 * k)
                            .append('\n');
                    air.append(String.format(Locale.ROOT, "%.6f%n", 60 - 10 * i / 12.0 + 2 * j / 6.0));
                    wind.append(String.format(Locale.ROOT, "%.6f 0 0%n", 1.5 + 0.1 * k));
                    nodes++;
                    if (i < n[0] && j < n[1] && k < n[2]) {
                        int a = i + 13 * (j + 7 * k);
                        int b = a + 91;
                        cells.append("8 " + a + " " + (a + 1) + " " + (a + 14) + " " + (a + 13) + " " + b + " "
                                + (b + 1) + " " + (b + 14) + " " + (b + 13) + "\n");
                    }
                }
            }
        }
        Files.writeString(
                folder.resolve("tunnel.vtk"),
                "# vtk DataFile Version 3.0\ntunnel\nASCII\nDATASET UNSTRUCTURED_GRID\nPOINTS " + nodes + " double\n"
                        + points
                        + "CELLS 360 3240\n" + cells + "CELL_TYPES 360\n" + "12\n".repeat(360) + "POINT_DATA " + nodes
                        + "\nSCALARS luft_temp double 1\nLOOKUP_TABLE default\n" + air + "VECTORS wind double\n"
                        + wind);
        Files.write(
                folder.resolve("fuehler.csv"),
                ("Trockner 4;;;\n;;;\nWeg;Lufttemperatur;rel. Feuchte;Bemerkung\nmm;°C;%;\n100;60,6;12,9;ok\n700;58,1;--;ok\n"
                                + "1300;-999;22,7;Kabel\n1900;52,6;27,9;Tür offen\nMittel;57,1;21,2;\n")
                        .getBytes(Charset.forName("windows-1252")));
    }

    /** Degrees Fahrenheit in a tank, of places in metres from its middle: warm above, and warmer on one side. */
    static double water(double x, double z) {
        return 100 + 20 * z + 6 * x;
    }

    /** A square storage tank of 48 x 48 x 72 inches about the middle of its floor, in wedges, and a table of its taps. */
    static void tank(Path folder) throws IOException {
        int n = 6;
        int side = n + 1;
        var points = new StringBuilder();
        var warm = new StringBuilder();
        var cells = new StringBuilder();
        for (int k = 0; k <= n; k++) {
            for (int j = 0; j <= n; j++) {
                for (int i = 0; i <= n; i++) {
                    double x = -24 + 8.0 * i;
                    points.append(line("%.6f %.6f %.6f", x, -24 + 8.0 * j, 12.0 * k));
                    warm.append(line("%.9f", water(0.0254 * x, 0.0254 * 12 * k)));
                    if (i < n && j < n && k < n) {
                        int a = i + side * (j + side * k);
                        int up = side * side;
                        for (int[] t : new int[][] {{a, a + 1, a + 1 + side}, {a, a + 1 + side, a + side}}) {
                            cells.append("6 " + t[0] + " " + t[1] + " " + t[2] + " " + (t[0] + up) + " " + (t[1] + up)
                                    + " " + (t[2] + up) + "\n");
                        }
                    }
                }
            }
        }
        int count = 2 * n * n * n;
        int nodes = side * side * side;
        Files.writeString(
                folder.resolve("tank.vtk"),
                "# vtk DataFile Version 3.0\nhot water tank\nASCII\nDATASET UNSTRUCTURED_GRID\nPOINTS " + nodes
                        + " double\n" + points + "CELLS " + count + " " + 7 * count + "\n" + cells + "CELL_TYPES "
                        + count + "\n" + "13\n".repeat(count) + "POINT_DATA " + nodes
                        + "\nSCALARS T_water double 1\nLOOKUP_TABLE default\n" + warm);
        var taps = new StringBuilder("tap\tx\ty\tz\tbearing\treading\n\tin\tin\tin\tdeg\tdegF\n");
        for (int i = 0; i < 8; i++) {
            double a = Math.toRadians(45 * i);
            double x = 20 * Math.cos(a);
            taps.append(line(
                    "R%d\t%.6f\t%.6f\t36\t%d\t%.2f",
                    i + 1, x, 20 * Math.sin(a), 45 * i, water(0.0254 * x, 0.0254 * 36) + (i % 2 == 0 ? 0.3 : -0.3)));
        }
        Files.writeString(folder.resolve("taps.txt"), taps.toString());
    }

    private static String line(String format, Object... values) {
        return String.format(Locale.ROOT, format, values) + "\n";
    }

    private static String array(String name, String type, int components, CharSequence text) {
        return "<DataArray type=\"" + type + "\" Name=\"" + name + "\" NumberOfComponents=\"" + components
                + "\" format=\"ascii\">\n" + text + "</DataArray>\n";
    }
}
