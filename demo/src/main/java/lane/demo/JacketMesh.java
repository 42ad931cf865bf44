package lane.demo;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import lane.field.Field;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;

/**
 * The (r, z) solution turned about the axis into a mesh of hexahedra, with a layer of wedges along the shell, and its
 * four boundary parts as surfaces. The rotor and the shell carry the wall shear as the pull of the wall on the oil.
 */
final class JacketMesh {
    private final JacketSolver flow;
    private final int nr;
    private final int nt;
    private final int nz;

    JacketMesh(JacketSolver flow, int around) {
        this.flow = flow;
        nr = flow.r.length - 1;
        nt = around;
        nz = flow.z.length - 1;
    }

    private int node(int i, int k, int j) {
        return (i * nt + k % nt) * (nr + 1) + j;
    }

    private double[] points() {
        double[] xyz = new double[3 * (nz + 1) * nt * (nr + 1)];
        for (int i = 0; i <= nz; i++) {
            for (int k = 0; k < nt; k++) {
                double angle = 2 * Math.PI * k / nt;
                for (int j = 0; j <= nr; j++) {
                    int n = 3 * node(i, k, j);
                    xyz[n] = flow.r[j] * Math.cos(angle);
                    xyz[n + 1] = flow.r[j] * Math.sin(angle);
                    xyz[n + 2] = flow.z[i];
                }
            }
        }
        return xyz;
    }

    Mesh mesh() {
        int hexas = nz * nt * (nr - 1);
        int wedges = 2 * nz * nt;
        byte[] shapes = new byte[hexas + wedges];
        int[] offsets = new int[shapes.length + 1];
        int[] nodes = new int[8 * hexas + 6 * wedges];
        int c = 0;
        int at = 0;
        for (int i = 0; i < nz; i++) {
            for (int k = 0; k < nt; k++) {
                for (int j = 0; j < nr; j++) {
                    int[] low = {node(i, k, j), node(i, k, j + 1), node(i, k + 1, j + 1), node(i, k + 1, j)};
                    int[] high = {
                        node(i + 1, k, j), node(i + 1, k, j + 1), node(i + 1, k + 1, j + 1), node(i + 1, k + 1, j)
                    };
                    if (j < nr - 1) {
                        System.arraycopy(low, 0, nodes, at, 4);
                        System.arraycopy(high, 0, nodes, at + 4, 4);
                        at += 8;
                        shapes[c++] = (byte) CellShape.HEXAHEDRON.ordinal();
                        offsets[c] = at;
                    } else {
                        // The format winds a wedge's first triangle outwards, here towards the inlet.
                        for (int[] t : new int[][] {{0, 2, 1}, {0, 3, 2}}) {
                            for (int v = 0; v < 3; v++) {
                                nodes[at + v] = low[t[v]];
                                nodes[at + 3 + v] = high[t[v]];
                            }
                            at += 6;
                            shapes[c++] = (byte) CellShape.WEDGE.ordinal();
                            offsets[c] = at;
                        }
                    }
                }
            }
        }
        return new Mesh(points(), shapes, offsets, nodes);
    }

    List<Field> fields() {
        int n = (nz + 1) * nt * (nr + 1);
        float[] velocity = new float[3 * n];
        float[] pressure = new float[n];
        float[] temperature = new float[n];
        for (int i = 0; i <= nz; i++) {
            for (int k = 0; k < nt; k++) {
                double angle = 2 * Math.PI * k / nt;
                for (int j = 0; j <= nr; j++) {
                    int at = node(i, k, j);
                    velocity[3 * at] = (float) (-flow.swirl[i][j] * Math.sin(angle));
                    velocity[3 * at + 1] = (float) (flow.swirl[i][j] * Math.cos(angle));
                    velocity[3 * at + 2] = (float) flow.axial[j];
                    pressure[at] = (float) flow.pressure[i][j];
                    temperature[at] = (float) flow.temperature[i][j];
                }
            }
        }
        return List.of(
                new Field("velocity", Field.At.NODE, 3, Unit.of("m/s"), new Values.Floats(velocity)),
                new Field("pressure", Field.At.NODE, 1, Unit.of("Pa"), new Values.Floats(pressure)),
                new Field("temperature", Field.At.NODE, 1, Unit.of("K"), new Values.Floats(temperature)));
    }

    /** Writes {@code NAME.vtu} and its parts {@code NAME-parts/PART.vtp}. */
    void write(Path folder, String name) {
        VtkXmlWriter.writeGrid(folder.resolve(name + ".vtu"), mesh(), fields(), VtkXmlWriter.Options.UNPACKED);
        Path parts = folder.resolve(name + "-parts");
        wall(parts.resolve("rotor.vtp"), true);
        wall(parts.resolve("shell.vtp"), false);
        opening(parts.resolve("inlet.vtp"), 0);
        opening(parts.resolve("outlet.vtp"), nz);
    }

    private void wall(Path file, boolean rotor) {
        int j = rotor ? 0 : nr;
        double[] xyz = new double[3 * (nz + 1) * nt];
        double[] shear = new double[xyz.length];
        int[] nodes = new int[4 * nz * nt];
        double along = flow.axialShear(rotor);
        for (int i = 0; i <= nz; i++) {
            // At the inlet edge the rotor's shear has no finite value; the first value downstream stands for it.
            double around = flow.swirlShear(Math.max(i, 1), rotor);
            for (int k = 0; k < nt; k++) {
                double angle = 2 * Math.PI * k / nt;
                int n = 3 * (i * nt + k);
                xyz[n] = flow.r[j] * Math.cos(angle);
                xyz[n + 1] = flow.r[j] * Math.sin(angle);
                xyz[n + 2] = flow.z[i];
                shear[n] = -around * Math.sin(angle);
                shear[n + 1] = around * Math.cos(angle);
                shear[n + 2] = along;
                if (i < nz) {
                    int q = 4 * (i * nt + k);
                    int next = (k + 1) % nt;
                    nodes[q] = i * nt + k;
                    nodes[q + 1] = rotor ? (i + 1) * nt + k : i * nt + next;
                    nodes[q + 2] = (i + 1) * nt + next;
                    nodes[q + 3] = rotor ? i * nt + next : (i + 1) * nt + k;
                }
            }
        }
        var field = new Field("wallShear", Field.At.NODE, 3, Unit.of("Pa"), Values.of(shear));
        VtkXmlWriter.writeSurface(
                file, Mesh.uniform(xyz, CellShape.QUAD, nodes), List.of(field), VtkXmlWriter.Options.UNPACKED);
    }

    private void opening(Path file, int i) {
        List<int[]> faces = new ArrayList<>();
        for (int k = 0; k < nt; k++) {
            int next = (k + 1) % nt;
            for (int j = 0; j < nr; j++) {
                int a = k * (nr + 1) + j;
                int b = next * (nr + 1) + j;
                if (j < nr - 1) {
                    faces.add(new int[] {a, a + 1, b + 1, b});
                } else {
                    faces.add(new int[] {a, a + 1, b + 1});
                    faces.add(new int[] {a, b + 1, b});
                }
            }
        }
        byte[] shapes = new byte[faces.size()];
        int[] offsets = new int[faces.size() + 1];
        int[] nodes = new int[faces.stream().mapToInt(f -> f.length).sum()];
        for (int f = 0; f < shapes.length; f++) {
            int[] face = faces.get(f);
            shapes[f] = (byte) (face.length == 3 ? CellShape.TRIANGLE : CellShape.QUAD).ordinal();
            for (int v = 0; v < face.length; v++) {
                nodes[offsets[f] + v] = face[i == 0 ? face.length - 1 - v : v];
            }
            offsets[f + 1] = offsets[f] + face.length;
        }
        double[] xyz = java.util.Arrays.copyOfRange(points(), 3 * node(i, 0, 0), 3 * node(i, nt - 1, nr) + 3);
        VtkXmlWriter.writeSurface(
                file, new Mesh(xyz, shapes, offsets, nodes), List.of(), VtkXmlWriter.Options.UNPACKED);
    }
}
