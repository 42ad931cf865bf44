package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Values;
import lane.formats.DatasetReader;
import lane.formats.grid.Dataset;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Fields of one mesh on another, and convergence, by the command line alone: a kiln's bed of clay, with numbers known by hand. */
class TransferVerbTest extends VerbCase {
    private static Field field(Mesh mesh, String name, Field.At at, int components) {
        double[] x = at == Field.At.NODE ? mesh.xyz() : lane.transfer.MeshTransfer.centres(mesh);
        double[] v = new double[x.length / 3 * components];
        Arrays.setAll(v, i -> {
            int p = 3 * (i / components);
            return (1 + i % components) * (2 + x[p] + 3 * x[p + 1] - x[p + 2]);
        });
        return new Field(name, at, components, Unit.UNKNOWN, Values.of(v));
    }

    private Mesh brick(String name, CellShape shape, int n, double... size) {
        Mesh mesh = BoxMesh.of(shape, new int[] {n, n, n}, size, shape == CellShape.VOXEL ? 0 : 0.2, n);
        List<Field> fields = List.of(
                field(mesh, "moisture", Field.At.NODE, 1),
                field(mesh, "drift", Field.At.NODE, 3),
                field(mesh, "heat", Field.At.CELL, 1));
        VtkXmlWriter.writeGrid(folder.resolve(name), mesh, fields, Options.DEFAULT);
        return mesh;
    }

    @Test
    void aFieldIsTakenToAnotherMeshAndKeepsItsIntegral() throws Exception {
        brick("old.vtu", CellShape.TETRAHEDRON, 4, 2, 1, 1);
        Mesh fresh = brick("new.vtu", CellShape.POLYHEDRON, 3, 2, 1, 1);
        JsonNode made = json(
                "transfer",
                file("old.vtu"),
                file("new.vtu"),
                "--fields",
                "moisture,heat",
                "--conservative",
                "--to",
                "cells",
                "--out",
                file("out.vtu"),
                "--json");
        assertThat(made.path("overlapVolume").asDouble()).isCloseTo(2, within(1e-12));
        assertThat(made.path("uncoveredVolume").asDouble()).isCloseTo(0, within(1e-12));
        JsonNode moisture = made.path("fields").get(0);
        assertThat(moisture.path("name").asText()).isEqualTo("moisture");
        assertThat(moisture.path("targets").asInt()).isEqualTo(27);
        assertThat(moisture.path("outside").asInt()).isZero();
        assertThat(moisture.path("largestChange").isNull()).isTrue();
        // 2 + x + 3y - z over 2 x 1 x 1: twice its value at the middle, 4.
        for (String key : List.of("integralSource", "integralOverlap", "integralTarget")) {
            assertThat(moisture.path(key).asDouble()).as(key).isCloseTo(8, within(1e-11));
        }
        JsonNode heat = made.path("fields").get(1);
        assertThat(heat.path("integralTarget").asDouble())
                .isCloseTo(heat.path("integralSource").asDouble(), within(1e-11));
        Dataset read = DatasetReader.read(Path.of(file("out.vtu")), Work.QUIET);
        assertThat(read.mesh().cellCount()).isEqualTo(fresh.cellCount());
        assertThat(read.fields()).extracting(Field::name).containsExactlyInAnyOrder("moisture", "heat", "covered");
        assertThat(read.fields().getFirst().at()).isEqualTo(Field.At.CELL);
        // In words.
        assertThat(run("transfer", file("old.vtu"), file("new.vtu"), "--fields", "moisture", "--out", file("out.vtu")))
                .isZero();
        assertThat(out).contains("common volume 2").contains("moisture: 64 nodes, all with values");
    }

    @Test
    void vectorsGoOverAndWallsAreImposed() throws Exception {
        brick("old.vtu", CellShape.HEXAHEDRON, 3, 1, 1, 1);
        Mesh fresh = brick("new.vtu", CellShape.VOXEL, 4, 1, 1, 2);
        Files.createDirectories(folder.resolve("new-parts"));
        Mesh floor = new PartBuilder(fresh).whole("skin").surface();
        int[] low = java.util.stream.IntStream.range(0, floor.cellCount())
                .filter(f -> {
                    double z = 0;
                    for (int k = 0; k < 4; k++) {
                        z += floor.xyz()[3 * floor.nodes()[floor.begin(f) + k] + 2];
                    }
                    return z == 0;
                })
                .toArray();
        VtkXmlWriter.writeSurface(folder.resolve("new-parts/hearth.vtp"), floor.only(low), List.of(), Options.DEFAULT);
        JsonNode made = json(
                "transfer",
                file("old.vtu"),
                file("new.vtu"),
                "--fields",
                "drift",
                "--zero-on",
                "hearth",
                "--out",
                file("out.vtu"),
                "--json");
        JsonNode drift = made.path("fields").get(0);
        assertThat(drift.path("outside").asInt()).isEqualTo(50);
        assertThat(made.path("overlapVolume").asDouble()).isCloseTo(1, within(1e-12));
        assertThat(made.path("uncoveredVolume").asDouble()).isCloseTo(1, within(1e-12));
        // The largest on the floor: 2 + 1 + 3 in a corner, of a vector (1, 2, 3) times it.
        assertThat(drift.path("largestChange").asDouble()).isCloseTo(6 * Math.sqrt(14), within(1e-9));
        assertThat(drift.path("integralSource")).hasSize(3);
        assertThat(drift.path("integralOverlap").get(2).asDouble()).isCloseTo(3 * 3.5, within(1e-9));
        Field read = DatasetReader.read(Path.of(file("out.vtu")), Work.QUIET).fields().stream()
                .filter(f -> f.name().equals("drift"))
                .findFirst()
                .orElseThrow();
        assertThat(read.values().get(0)).isZero();
        assertThat(read.values().get(3 * (fresh.nodeCount() - 1))).isNaN();
        json(
                "transfer",
                file("old.vtu"),
                file("new.vtu"),
                "--fields",
                "heat",
                "--outside",
                "-7",
                "--out",
                file("out.vtu"),
                "--json");
        JsonNode both = json(
                "transfer",
                file("old.vtu"),
                file("new.vtu"),
                "--fields",
                "drift,heat",
                "--zero-on",
                "hearth",
                "--out",
                file("out.vtu"),
                "--json");
        assertThat(both.path("fields").get(0).path("largestChange").isNumber()).isTrue();
        assertThat(both.path("fields").get(1).path("largestChange").isNull()).isTrue();
        assertThat(err).contains("\"heat\" has its values in cells, so nothing was imposed on it.");
        assertThat(run("transfer", file("old.vtu"), file("new.vtu"), "--zero-on", "roof", "--out", file("o.vtu")))
                .isEqualTo(3);
        assertThat(err).contains("no part \"roof\"; its parts are hearth.");
        assertThat(run("transfer", file("old.vtu"), file("new.vtu"), "--fields", "moist", "--out", file("o.vtu")))
                .isEqualTo(3);
        assertThat(err).contains("no field \"moist\"").contains("moisture, drift, heat");
        assertThat(run("transfer", file("old.vtu"), file("new.vtu"), "--out", file("o.csv")))
                .isEqualTo(3);
        assertThat(err).contains(".vtu or .xdmf");
        assertThat(run("transfer", file("old.vtu"), file("new.vtu"), "--outside", "near", "--out", file("o.vtu")))
                .isEqualTo(3);
        assertThat(err).contains("absent, nearest:DISTANCE or a number");
    }

    @Test
    void coordinatesInOtherUnitsAndSeveralTimes() throws Exception {
        Mesh one = brick("t_1.vtu", CellShape.HEXAHEDRON, 2, 1000, 1000, 1000);
        brick("new.vtu", CellShape.WEDGE, 2, 1, 1, 1);
        Files.writeString(
                folder.resolve("dry.pvd"),
                "<?xml version=\"1.0\"?><VTKFile type=\"Collection\" version=\"1.0\"><Collection>"
                        + "<DataSet timestep=\"0\" file=\"t_1.vtu\"/><DataSet timestep=\"30\" file=\"t_1.vtu\"/>"
                        + "</Collection></VTKFile>");
        JsonNode made = json(
                "transfer",
                file("dry.pvd"),
                file("new.vtu"),
                "--fields",
                "heat",
                "--conservative",
                "--all-times",
                "--length-source",
                "mm",
                "--length-target",
                "m",
                "--out",
                file("out.vtu"),
                "--json");
        assertThat(made.path("times")).hasSize(2);
        assertThat(made.path("times").get(1).path("time").asDouble()).isEqualTo(30);
        assertThat(made.path("times").get(1).path("overlapVolume").asDouble()).isCloseTo(1, within(1e-12));
        Dataset read = DatasetReader.read(Path.of(file("out.pvd")), Work.QUIET);
        assertThat(read.times()).containsExactly(0.0, 30.0);
        assertThat(one.cellCount()).isEqualTo(8);
        assertThat(run("transfer", file("dry.pvd"), file("new.vtu"), "--length-source", "mm", "--out", file("o.vtu")))
                .isEqualTo(3);
        assertThat(err).contains("for both meshes");
    }

    @Test
    void convergenceFromThreeNumbers() throws Exception {
        // 5 + 0.3 h^2, by hand: sizes 1, 1.5, 2.
        JsonNode made = json("converge", "--h", "1,1.5,2", "--values", "5.3,5.675,6.2", "--json");
        assertThat(made.path("kind").asText()).isEqualTo("monotone");
        assertThat(made.path("order").asDouble()).isCloseTo(2, within(1e-9));
        assertThat(made.path("extrapolated").asDouble()).isCloseTo(5, within(1e-9));
        assertThat(made.path("relativeError").asDouble()).isCloseTo(0.375 / 5.3, within(1e-12));
        assertThat(made.path("gci").asDouble()).isCloseTo(1.25 * 0.3 / 5.3, within(1e-9));
        assertThat(made.path("asymptoticRatio").asDouble()).isCloseTo(5.3 / 5.675, within(1e-9));
        JsonNode negative =
                json("converge", "--h", "1,1.5,2", "--values", "-5.3,-5.675,-6.2", "--exact", "-5", "--json");
        assertThat(negative.path("order").asDouble()).isCloseTo(2, within(1e-9));
        assertThat(negative.path("exactOrder").asDouble()).isCloseTo(2, within(1e-9));
        JsonNode cells = json(
                "converge", "--cells", "8000,1000", "--dimension", "3", "--values", "1,1.3", "--order", "1", "--json");
        assertThat(cells.path("kind").asText()).isEqualTo("two meshes");
        assertThat(cells.path("gci").asDouble()).isCloseTo(0.9, within(1e-9));
        assertThat(cells.path("asymptoticRatio").isNull()).isTrue();
        JsonNode grows = json("converge", "--h", "1,2,4", "--values", "1,2,2.5", "--json");
        assertThat(grows.path("kind").asText()).isEqualTo("divergent");
        assertThat(grows.path("order").isNull()).isTrue();
        assertThat(run("converge", "--h", "2,1,4", "--values", "5,4,8")).isZero();
        assertThat(out).contains("order").contains("safety factor 1.25");
        assertThat(err).contains("do not come finest first");
        assertThat(run("converge", "--h", "1,x", "--values", "5,4")).isEqualTo(3);
        assertThat(err).contains("\"x\" is none");
        assertThat(run("converge", "--values", "5,4")).isEqualTo(3);
        assertThat(err).contains("Give the sizes with --h");
        assertThat(run("converge", "--cells", "5,4", "--values", "5,4")).isEqualTo(3);
        assertThat(err).contains("--dimension: 1, 2 or 3");
    }
}
