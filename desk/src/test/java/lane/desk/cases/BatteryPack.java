package lane.desk.cases;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;

/**
 * A battery pack of 1140 x 380 x 95 mm on a cold plate: three meshes, the temperature of the cells in degrees Celsius in each
 * mesh cell, as an exponential rise along the coolant with a mean that a formula knows; and the sheet of a test bench.
 */
final class BatteryPack {
    static final double LONG = 1140;

    private BatteryPack() {}

    /** In degC at a place in mm: 24 at the inlet, 36 far away, and warmer at the top. */
    static double temperature(double x, double z) {
        return 36 - 12 * Math.exp(-x / 400) + 3 * z / 95;
    }

    /** Writes the meshes as XML files with text arrays and the bench's table. */
    static void make(Path folder) throws IOException {
        int n = 1;
        for (String name : new String[] {"pack_A", "pack_B", "pack_C"}) {
            mesh(folder.resolve(name + ".vtu"), 12 * n, 6 * n, 3 * n);
            n *= 2;
        }
        var bench = new StringBuilder("Prüfstand 7\tPack 0815\n\nSensor\tPosition\tTemperatur\tu\n\tcm\t°C\tK\n");
        for (int i = 1; i <= 9; i++) {
            double x = 120.0 * i;
            // The bench reads a fifth of a degree more than nature, with a wiggle of a tenth.
            double t = temperature(x, 47.5) + 0.2 + 0.1 * Math.sin(5.0 * i);
            bench.append(String.format(Locale.GERMANY, "T%02d\t%.1f\t%.2f\t0,3%n", i, x / 10, t));
        }
        Files.writeString(folder.resolve("bench.txt"), bench.toString());
    }

    private static void mesh(Path file, int nx, int ny, int nz) throws IOException {
        var points = new StringBuilder();
        var cells = new StringBuilder();
        var offsets = new StringBuilder();
        var celsius = new StringBuilder();
        var flux = new StringBuilder();
        int across = nx + 1;
        int layer = across * (ny + 1);
        for (int k = 0; k <= nz; k++) {
            for (int j = 0; j <= ny; j++) {
                for (int i = 0; i <= nx; i++) {
                    points.append(String.format(
                            Locale.ROOT, "%.4f %.4f %.4f%n", LONG * i / nx, 380.0 * j / ny, 95.0 * k / nz));
                }
            }
        }
        int count = 0;
        for (int k = 0; k < nz; k++) {
            for (int j = 0; j < ny; j++) {
                for (int i = 0; i < nx; i++) {
                    int a = i + across * j + layer * k;
                    int b = a + layer;
                    cells.append(a + " " + (a + 1) + " " + (a + 1 + across) + " " + (a + across) + " " + b + " "
                            + (b + 1) + " " + (b + 1 + across) + " " + (b + across) + "\n");
                    offsets.append(8 * ++count).append('\n');
                    double x = LONG * (i + 0.5) / nx;
                    double z = 95 * (k + 0.5) / nz;
                    celsius.append(String.format(Locale.ROOT, "%.6f%n", temperature(x, z)));
                    flux.append(String.format(Locale.ROOT, "0 0 %.4f%n", -2.5 * 3 / 0.095));
                }
            }
        }
        int nodes = layer * (nz + 1);
        Files.writeString(
                file,
                "<?xml version=\"1.0\"?>\n<VTKFile type=\"UnstructuredGrid\" version=\"0.1\" byte_order=\"LittleEndian\">\n"
                        + "<UnstructuredGrid>\n<Piece NumberOfPoints=\"" + nodes + "\" NumberOfCells=\"" + count
                        + "\">\n"
                        + "<Points>" + array("Points", "Float64", 3, points) + "</Points>\n<Cells>"
                        + array("connectivity", "Int32", 1, cells) + array("offsets", "Int32", 1, offsets)
                        + array("types", "UInt8", 1, new StringBuilder("12 ".repeat(count))) + "</Cells>\n<CellData>"
                        + array("Cell temp [degC]", "Float64", 1, celsius) + array("q", "Float64", 3, flux)
                        + "</CellData>\n</Piece>\n</UnstructuredGrid>\n</VTKFile>\n");
    }

    private static String array(String name, String type, int components, StringBuilder text) {
        return "<DataArray type=\"" + type + "\" Name=\"" + name + "\" NumberOfComponents=\"" + components
                + "\" format=\"ascii\">\n" + text + "</DataArray>\n";
    }
}
