package lane.formats;

import java.io.BufferedOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import lane.base.LaneException;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileNames;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.CellShape;
import lane.mesh.Mesh;

/**
 * Saves a run: {@code .vtu} with all its fields, {@code .vtp} with its surface and the fields stored there, {@code .stl} with
 * its surface as triangles. The surface of a solid run is its boundary, turned outwards.
 */
public final class RunWriter {
    private RunWriter() {}

    /** @throws LaneException when the ending is none of these */
    public static void write(Path file, Run run) {
        switch (FileNames.ending(file)) {
            case "vtu" -> VtkXmlWriter.writeGrid(file, run.mesh(), run.fields(), VtkXmlWriter.Options.DEFAULT);
            case "vtp" -> {
                boolean own = run.mesh().dimension() == 2;
                VtkXmlWriter.writeSurface(
                        file, surface(run), own ? run.fields() : List.<Field>of(), VtkXmlWriter.Options.DEFAULT);
            }
            case "xdmf" -> lane.formats.hdf.XdmfWriter.write(file, run.mesh(), run.fields());
            case "stl" -> stl(file, surface(run));
            default ->
                throw new LaneException(
                        "A run is saved as .vtu, .xdmf, .vtp or .stl; \"" + file.getFileName() + "\" ends otherwise.");
        }
    }

    private static Mesh surface(Run run) {
        if (run.mesh().dimension() < 2) {
            throw new LaneException("This run has no surface; save it as .vtu.");
        }
        return run.mesh().dimension() == 2
                ? run.mesh()
                : new PartBuilder(run.mesh()).whole("surface").surface();
    }

    /** Cells with more than three nodes are cut into triangles about their first node. */
    /** Writes a surface as binary STL, in the unit of its coordinates. */
    public static void stl(Path file, Mesh mesh) {
        int count = 0;
        for (int c = 0; c < mesh.cellCount(); c++) {
            count += mesh.shape(c).dimension() == 2 ? mesh.shape(c).rim(mesh.size(c)) - 2 : 0;
        }
        int triangles = count;
        AtomicFile.write(file, raw -> {
            var out = new BufferedOutputStream(raw, 1 << 16);
            ByteBuffer head = ByteBuffer.allocate(84).order(ByteOrder.LITTLE_ENDIAN);
            head.put("surface in metres, Crosscheck Lane".getBytes(StandardCharsets.US_ASCII));
            head.putInt(80, triangles);
            out.write(head.array());
            ByteBuffer one = ByteBuffer.allocate(50).order(ByteOrder.LITTLE_ENDIAN);
            double[] x = mesh.xyz();
            for (int c = 0; c < mesh.cellCount(); c++) {
                CellShape shape = mesh.shape(c);
                if (shape.dimension() != 2) {
                    continue;
                }
                int[] nodes = mesh.nodes();
                int begin = mesh.begin(c);
                for (int k = 1; k + 1 < shape.rim(mesh.size(c)); k++) {
                    int a = 3 * nodes[begin + shape.around(0)];
                    int b = 3 * nodes[begin + shape.around(k)];
                    int d = 3 * nodes[begin + shape.around(k + 1)];
                    one.clear();
                    normal(x, a, b, d, one);
                    for (int corner : new int[] {a, b, d}) {
                        one.putFloat((float) x[corner])
                                .putFloat((float) x[corner + 1])
                                .putFloat((float) x[corner + 2]);
                    }
                    one.putShort((short) 0);
                    out.write(one.array());
                }
            }
            out.flush();
        });
    }

    private static void normal(double[] x, int a, int b, int c, ByteBuffer out) {
        double ux = x[b] - x[a];
        double uy = x[b + 1] - x[a + 1];
        double uz = x[b + 2] - x[a + 2];
        double vx = x[c] - x[a];
        double vy = x[c + 1] - x[a + 1];
        double vz = x[c + 2] - x[a + 2];
        double nx = uy * vz - uz * vy;
        double ny = uz * vx - ux * vz;
        double nz = ux * vy - uy * vx;
        double n = Math.sqrt(nx * nx + ny * ny + nz * nz);
        double by = n > 0 ? 1 / n : 0;
        out.putFloat((float) (nx * by)).putFloat((float) (ny * by)).putFloat((float) (nz * by));
    }
}
