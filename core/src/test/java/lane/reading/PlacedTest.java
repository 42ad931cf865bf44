package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceValues;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.Values;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** What formulas know of nodes, cells, faces and parts: a box of 2 x 1 x 3 m in 4 x 2 x 3 cells, T = x at nodes, p = cell number. */
class PlacedTest {
    private static final double CELL = 0.5 * 0.5 * 1;
    private static final Mesh MESH =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 2, 3}, new double[] {2, 1, 3}, 0, 1);
    private static final EvaluationContext NONE = EvaluationContext.of(List.of(), List.of(), Axis.Z);

    private static Run run(List<Field> more, List<Part> parts) {
        double[] t = new double[MESH.nodeCount()];
        for (int i = 0; i < t.length; i++) {
            t[i] = MESH.xyz()[3 * i];
        }
        float[] p = new float[MESH.cellCount()];
        for (int i = 0; i < p.length; i++) {
            p[i] = i;
        }
        var fields = new java.util.ArrayList<>(more);
        fields.add(new Field("T", Field.At.NODE, 1, Unit.of("K"), Values.of(t)));
        fields.add(new Field("p", Field.At.CELL, 1, Unit.of("Pa"), new Values.Floats(p)));
        return new Run(MESH, fields, parts, List.of(), List.of(), List.of(), 0, Stated.NOTHING);
    }

    private static final Run RUN = run(List.of(), List.of(new PartBuilder(MESH).whole("skin")));

    private static Quantity q(String formula) {
        return new Quantity("q", "q", formula, "", "");
    }

    private static Ranges ranges(Run run, String formula) {
        return Ranges.of(run, q(formula), EvaluationContext.of(List.of(q(formula)), List.of(), Axis.Z));
    }

    private static double[] onMesh(String formula) {
        return BoundQuantity.of(RUN, q(formula), NONE).number().onMesh()[0];
    }

    private static SurfaceValues onSkin(String formula) {
        return SurfaceValues.of(RUN, RUN.parts().getFirst(), q(formula), NONE);
    }

    private static void all(double[] values, int count, double expected) {
        assertThat(values).hasSize(count);
        for (double v : values) {
            assertThat(v).isCloseTo(expected, within(1e-15));
        }
    }

    @Test
    void volumesOfCells() {
        all(onMesh("cell_volume"), 24, CELL);
        SurfaceValues skin = onSkin("cell_volume");
        assertThat(skin.byNode()).isFalse();
        all(skin.exact(), 52, CELL);
        // What is made of it and of node values stands in cells, too.
        assertThat(onMesh("T * cell_volume")[0]).isCloseTo(0.25 * CELL, within(1e-15));
        assertThat(skin.unit().dimension()).isEqualTo(Unit.of("m3").dimension());
    }

    @Test
    void areasAndNormalsOfFaces() {
        SurfaceValues area = onSkin("face_area");
        assertThat(Arrays.stream(area.exact()).sum()).isCloseTo(2 * (2 * 1 + 1 * 3 + 2 * 3), within(1e-12));
        assertThat(area.exact())
                .contains(0.25, 0.5)
                .hasSize(RUN.parts().getFirst().surface().cellCount());
        assertThatThrownBy(() -> onMesh("face_area"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("read it on a surface");
        // With something that stands in cells the normal is that of the face: up, down, or level.
        SurfaceValues up = onSkin("normal.z * (1 + 0 * p / (1 \"Pa\"))");
        assertThat(up.byNode()).isFalse();
        Part part = RUN.parts().getFirst();
        var cell = new Cell(part.surface());
        double[] c = new double[3];
        for (int f = 0; f < up.exact().length; f++) {
            cell.load(f).centre(c);
            assertThat(up.exact()[f]).isCloseTo(c[2] < 1e-9 ? -1 : c[2] > 3 - 1e-9 ? 1 : 0, within(1e-15));
        }
    }

    @Test
    void normalsAtNodesAreMeansByArea() {
        SurfaceValues n = onSkin("normal.x + 0 * T / (1 \"K\")");
        assertThat(n.byNode()).isTrue();
        double[] x = RUN.parts().getFirst().surface().xyz();
        int seen = 0;
        for (int i = 0; i < n.exact().length; i++) {
            boolean inside = x[3 * i + 1] > 0.1 && x[3 * i + 1] < 0.9 && x[3 * i + 2] > 0.1 && x[3 * i + 2] < 2.9;
            if (inside) {
                assertThat(n.exact()[i]).isCloseTo(x[3 * i] < 1 ? -1 : 1, within(1e-15));
                seen++;
            } else if (x[3 * i] > 0.1 && x[3 * i] < 1.9) {
                assertThat(n.exact()[i]).isCloseTo(0, within(1e-15));
            }
            if (x[3 * i] == 0 && x[3 * i + 1] == 0 && x[3 * i + 2] == 0) {
                // A corner's three faces have 0.5 (x), 0.5 (y) and 0.25 (z) square metres.
                assertThat(n.exact()[i]).isCloseTo(-0.5 / Math.sqrt(0.25 + 0.25 + 0.0625), within(1e-12));
            }
        }
        assertThat(seen).isEqualTo(4);
    }

    @Test
    void nodeValuesAreMeansWhereCellsAreMeant() {
        double[] v = onMesh("T * 1 \"Pa/K\" + p");
        var cell = new Cell(MESH);
        double[] c = new double[3];
        for (int i = 0; i < v.length; i++) {
            cell.load(i).centre(c);
            assertThat(v[i]).isCloseTo(c[0] + i, within(1e-12));
        }
        assertThat(onMesh("x + 0 * p * 1 \"m/Pa\"")[0]).isCloseTo(0.25, within(1e-15));
        Part skin = RUN.parts().getFirst();
        SurfaceValues faces = onSkin("T * 1 \"Pa/K\" + p");
        var face = new Cell(skin.surface());
        for (int f = 0; f < faces.exact().length; f++) {
            face.load(f).centre(c);
            assertThat(faces.exact()[f]).isCloseTo(c[0] + skin.owner()[f], within(1e-12));
        }
    }

    @Test
    void placesAtNodes() {
        double[] v = onMesh("x + 0 * T * 1 \"m/K\"");
        for (int i = 0; i < v.length; i++) {
            assertThat(v[i]).isEqualTo(MESH.xyz()[3 * i]);
        }
        SurfaceValues skin = onSkin("radius + 0 * T * 1 \"m/K\"");
        double[] x = RUN.parts().getFirst().surface().xyz();
        for (int i = 0; i < skin.exact().length; i++) {
            assertThat(skin.exact()[i]).isCloseTo(Math.hypot(x[3 * i], x[3 * i + 1]), within(1e-15));
        }
    }

    /** A surface that came from a file of its own: its fields stand on it, and some of its nodes are not the run's. */
    @Test
    void fieldsOfAPartStandOnThePart() {
        Part skin = RUN.parts().getFirst();
        int faces = skin.surface().cellCount();
        int nodes = skin.surface().nodeCount();
        double[] byFace = new double[faces];
        double[] byNode = new double[nodes];
        Arrays.setAll(byFace, i -> 100 + i);
        Arrays.setAll(byNode, i -> 1000 + i);
        int[] node = skin.node().clone();
        int[] owner = skin.owner().clone();
        node[3] = -1;
        owner[5] = -1;
        Part own = new Part(
                "own",
                skin.surface(),
                node,
                owner,
                List.of(
                        new Field("f", Field.At.CELL, 1, Unit.of("Pa"), Values.of(byFace)),
                        new Field("n", Field.At.NODE, 1, Unit.of("Pa"), Values.of(byNode))),
                0,
                1,
                skin.role());
        Run run = run(List.of(), List.of(own));
        assertThat(SurfaceValues.of(run, own, q("2 * f"), NONE).exact()).startsWith(200, 202, 204);
        SurfaceValues n = SurfaceValues.of(run, own, q("2 * n"), NONE);
        assertThat(n.byNode()).isTrue();
        assertThat(n.exact()).startsWith(2000, 2002, 2004, 2006);
        // Fields of the run are absent where the part does not touch it.
        double[] t = SurfaceValues.of(run, own, q("T"), NONE).exact();
        assertThat(t[3]).isNaN();
        assertThat(Arrays.stream(t).filter(Double::isNaN).count()).isEqualTo(1);
        double[] p = SurfaceValues.of(run, own, q("p"), NONE).exact();
        assertThat(p[5]).isNaN();
        assertThat(p[6]).isEqualTo(owner[6]);
        double[] both = SurfaceValues.of(run, own, q("f + n"), NONE).exact();
        double mean = 0;
        for (int k = 0; k < 4; k++) {
            mean += (1000 + skin.surface().nodes()[skin.surface().begin(2) + k]) / 4.0;
        }
        assertThat(both[2]).isCloseTo(102 + mean, within(1e-9));
    }

    @Test
    void valuesAreInterpolatedOverAFaceWhereTheyStandAtNodes() {
        Part skin = RUN.parts().getFirst();
        SurfaceValues t = onSkin("T");
        var cell = new Cell(skin.surface());
        double[] c = new double[3];
        for (int f = 0; f < skin.surface().cellCount(); f++) {
            cell.load(f).centre(c);
            assertThat(t.at(skin, f, new lane.mesh.Point(c[0], c[1], c[2]))).isCloseTo(c[0], within(1e-6));
        }
        SurfaceValues p = onSkin("p");
        assertThat(p.at(skin, 4, new lane.mesh.Point(9, 9, 9))).isEqualTo(skin.owner()[4]);
    }

    @Test
    void rangesOverARun() {
        Ranges t = ranges(RUN, "T");
        assertThat(t.least()).isEqualTo(0);
        assertThat(t.greatest()).isEqualTo(2);
        assertThat(t.mean()).isCloseTo(1, within(1e-12));
        assertThat(t.absent()).isZero();
        assertThat(t.stand()).isEqualTo("at nodes");
        Ranges p = ranges(RUN, "p");
        assertThat(p.mean()).isCloseTo(11.5, within(1e-12));
        assertThat(p.stand()).isEqualTo("in cells");
        // Of a vector its magnitude; a mean of squares is no square of means.
        Ranges v = ranges(RUN, "[3 * x, 4 * x, 0 \"m\"]");
        assertThat(v.greatest()).isCloseTo(10, within(1e-12));
        assertThat(v.mean()).isCloseTo(5, within(1e-9));
        assertThat(ranges(RUN, "T ^ 2").mean()).isCloseTo(4 / 3.0, within(1e-12));
    }

    @Test
    void rangesCountWhatIsAbsent() {
        double[] holed = new double[MESH.nodeCount()];
        Arrays.fill(holed, 5);
        holed[7] = Double.NaN;
        holed[9] = Double.POSITIVE_INFINITY;
        Run run = run(List.of(new Field("h", Field.At.NODE, 1, Unit.of("m"), Values.of(holed))), RUN.parts());
        Ranges h = ranges(run, "h");
        assertThat(h.absent()).isEqualTo(2);
        assertThat(h.least()).isEqualTo(5);
        assertThat(h.greatest()).isEqualTo(5);
        Arrays.fill(holed, Double.NaN);
        Ranges none = Ranges.of(
                run(List.of(new Field("h", Field.At.NODE, 1, Unit.of("m"), Values.of(holed))), RUN.parts()),
                q("h"),
                NONE);
        assertThat(none.least()).isNaN();
        assertThat(none.absent()).isEqualTo(holed.length);
    }

    @Test
    void rangesOfWhatLivesOnPartsOnly() {
        Part skin = RUN.parts().getFirst();
        double[] f = new double[skin.surface().cellCount()];
        Arrays.setAll(f, i -> i - 10);
        Part own = skin.with(List.of(new Field("shear", Field.At.CELL, 1, Unit.of("Pa"), Values.of(f))));
        Ranges r = ranges(run(List.of(), List.of(own, new PartBuilder(MESH).whole("bare"))), "shear");
        assertThat(r.least()).isEqualTo(-10);
        assertThat(r.greatest()).isEqualTo(f.length - 11);
        assertThat(r.mean()).isNaN();
        assertThat(r.stand()).isEqualTo("on parts");
        assertThatThrownBy(() -> ranges(RUN, "nothing"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("nothing");
    }
}
