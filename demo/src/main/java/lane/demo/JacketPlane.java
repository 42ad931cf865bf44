package lane.demo;

import java.nio.file.Path;
import java.util.List;
import java.util.function.IntFunction;
import lane.field.Field;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * The (r, z) solution as it is: a plane mesh of quads that stands for the full turn. The file's x runs along the axis and
 * its y is the radius, so that velocities have an axial, a radial and a swirl component, in this order.
 */
final class JacketPlane {
    private final JacketSolver flow;
    private final int nr;
    private final int nz;

    JacketPlane(JacketSolver flow) {
        this.flow = flow;
        nr = flow.r.length - 1;
        nz = flow.z.length - 1;
    }

    /** Writes {@code NAME.vtu} and its parts {@code NAME-parts/PART.vtp}. */
    void write(Path folder, String name) {
        grid(folder.resolve(name + ".vtu"));
        Path parts = folder.resolve(name + "-parts");
        rim(parts.resolve("inlet.vtp"), nr, j -> new double[] {flow.z[0], flow.r[j]}, null);
        rim(parts.resolve("outlet.vtp"), nr, j -> new double[] {flow.z[nz], flow.r[j]}, null);
        wall(parts.resolve("rotor.vtp"), true);
        wall(parts.resolve("shell.vtp"), false);
    }

    /** Writes one of the walls with its shear. */
    void wall(Path file, boolean rotor) {
        int j = rotor ? 0 : nr;
        rim(file, nz, i -> new double[] {flow.z[i], flow.r[j]}, i -> shear(i, rotor));
    }

    /** Writes the plane with its fields. */
    void grid(Path file) {
        int n = (nz + 1) * (nr + 1);
        double[] xyz = new double[3 * n];
        float[] velocity = new float[3 * n];
        float[] pressure = new float[n];
        float[] temperature = new float[n];
        int[] nodes = new int[4 * nz * nr];
        for (int i = 0; i <= nz; i++) {
            for (int j = 0; j <= nr; j++) {
                int at = i * (nr + 1) + j;
                xyz[3 * at] = flow.z[i];
                xyz[3 * at + 1] = flow.r[j];
                velocity[3 * at] = (float) flow.axial[j];
                velocity[3 * at + 2] = (float) flow.swirl[i][j];
                pressure[at] = (float) flow.pressure[i][j];
                temperature[at] = (float) flow.temperature[i][j];
                if (i < nz && j < nr) {
                    int c = 4 * (i * nr + j);
                    nodes[c] = at;
                    nodes[c + 1] = at + nr + 1;
                    nodes[c + 2] = at + nr + 2;
                    nodes[c + 3] = at + 1;
                }
            }
        }
        VtkXmlWriter.writeGrid(
                file,
                Mesh.uniform(xyz, CellShape.QUAD, nodes),
                List.of(
                        new Field("velocity", Field.At.NODE, 3, Unit.of("m/s"), new Values.Floats(velocity)),
                        new Field("pressure", Field.At.NODE, 1, Unit.of("Pa"), new Values.Floats(pressure)),
                        new Field("temperature", Field.At.NODE, 1, Unit.of("K"), new Values.Floats(temperature))),
                VtkXmlWriter.Options.UNPACKED);
    }

    private double[] shear(int i, boolean rotor) {
        return new double[] {flow.axialShear(rotor), 0, flow.swirlShear(Math.max(i, 1), rotor)};
    }

    private static void rim(Path file, int n, IntFunction<double[]> place, @Nullable IntFunction<double[]> shear) {
        double[] xyz = new double[3 * (n + 1)];
        double[] tau = new double[shear == null ? 0 : xyz.length];
        int[] nodes = new int[2 * n];
        for (int i = 0; i <= n; i++) {
            System.arraycopy(place.apply(i), 0, xyz, 3 * i, 2);
            if (shear != null) {
                System.arraycopy(shear.apply(i), 0, tau, 3 * i, 3);
            }
            if (i < n) {
                nodes[2 * i] = i;
                nodes[2 * i + 1] = i + 1;
            }
        }
        List<Field> fields = shear == null
                ? List.of()
                : List.of(new Field("wallShear", Field.At.NODE, 3, Unit.of("Pa"), Values.of(tau)));
        VtkXmlWriter.writeSurface(
                file, Mesh.uniform(xyz, CellShape.LINE, nodes), fields, VtkXmlWriter.Options.UNPACKED);
    }
}
