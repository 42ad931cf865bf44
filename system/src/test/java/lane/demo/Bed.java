package lane.demo;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;

/** A bed of a greenhouse in a folder, with a study that has every kind of everything. */
final class Bed {
    static final Mesh BED = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {3, 2, 2}, new double[] {2, 1, 0.5}, 0, 7);

    /** Half of a round bed as a plane: x is its radius, y runs along its axis. */
    static final Mesh SLICE = slice();

    private static Mesh slice() {
        double[] xyz = new double[3 * 25];
        int[] corners = new int[4 * 16];
        for (int i = 0; i < 25; i++) {
            xyz[3 * i] = 0.2 * (i % 5);
            xyz[3 * i + 1] = 0.1 * (i / 5);
        }
        for (int i = 0; i < 16; i++) {
            int first = i / 4 * 5 + i % 4;
            corners[4 * i] = first;
            corners[4 * i + 1] = first + 1;
            corners[4 * i + 2] = first + 6;
            corners[4 * i + 3] = first + 5;
        }
        return Mesh.uniform(xyz, CellShape.QUAD, corners);
    }

    private final Path folder;

    Bed(Path folder) {
        this.folder = folder;
    }

    /** The files, written, and the study of them. */
    static ObjectNode in(Path folder) throws IOException {
        return new Bed(folder).bed();
    }

    void run(String name, Mesh mesh, double more) throws IOException {
        double[] wet = new double[mesh.nodeCount()];
        double[] air = new double[3 * mesh.nodeCount()];
        double[] drag = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < wet.length; i++) {
            double x = mesh.xyz()[3 * i];
            double y = mesh.xyz()[3 * i + 1];
            double z = mesh.xyz()[3 * i + 2];
            wet[i] = more + 30 * x + 10 * y * y + 5 * z;
            air[3 * i] = y + 0.1;
            air[3 * i + 1] = 0.3 + x;
            air[3 * i + 2] = 0.2 * z + more / 100;
            drag[3 * i] = 0.01 * wet[i];
            drag[3 * i + 2] = x * y;
        }
        VtkXmlWriter.writeGrid(
                folder.resolve(name),
                mesh,
                List.of(
                        new Field("wet", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(wet)),
                        new Field("air", Field.At.NODE, 3, Unit.UNKNOWN, Values.of(air)),
                        new Field("drag", Field.At.NODE, 3, Unit.UNKNOWN, Values.of(drag))),
                Options.DEFAULT);
    }

    /** Three days of the bed; the one between is what the study looks at. */
    private void days(double more) throws IOException {
        var sets = new StringBuilder();
        for (int day = 0; day < 3; day++) {
            run("day" + day + ".vtu", BED, more + 3 * day);
            sets.append(String.format("<DataSet timestep=\"%d\" file=\"day%d.vtu\"/>", day, day));
        }
        Files.writeString(
                folder.resolve("days.pvd"),
                "<VTKFile type=\"Collection\"><Collection>" + sets + "</Collection></VTKFile>");
    }

    /** A tilted square, in centimetres. */
    void sheet(double height) throws IOException {
        String corners =
                "%1$s\nfacet normal 0 0 1\nouter loop\nvertex %2$s\nvertex %3$s\nvertex %4$s\nendloop\nendfacet\n";
        Files.writeString(
                folder.resolve("net.stl"),
                String.format(corners, "solid net", "40 20 " + height, "150 20 " + height, "150 80 " + (height + 4))
                        + String.format(
                                corners, "", "40 20 " + height, "150 80 " + (height + 4), "40 80 " + (height + 4))
                        + "endsolid net\n");
    }

    void rake(double more) throws IOException {
        Files.writeString(
                folder.resolve("rake.csv"), "depth [m];wetness;depth [cm]\n0;" + more + ";100\n1;4;10\n2;9;0\n");
    }

    ObjectNode bed() throws IOException {
        run("dry.vtu", BED, 12);
        run("round.vtu", SLICE, 16);
        days(14);
        VtkXmlWriter.writeSurface(
                folder.resolve("skin.vtp"), new PartBuilder(BED).whole("skin").surface(), List.of(), Options.DEFAULT);
        sheet(20);
        rake(1);
        try (var in = Objects.requireNonNull(Bed.class.getResourceAsStream("/lane/demo/every-kind.lane.json"))) {
            return (ObjectNode) new ObjectMapper().readTree(in);
        }
    }
}
