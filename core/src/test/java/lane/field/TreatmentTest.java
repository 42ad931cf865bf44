package lane.field;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Memo;
import lane.evaluation.EvaluationContext;
import lane.measure.Area;
import lane.measure.Force;
import lane.measure.Loads;
import lane.measure.Loads.On;
import lane.measure.Mean;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.provenance.Provenance;
import lane.quantity.Component;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.TallyReader;
import lane.unit.Unit;
import lane.unit.UnitSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class TreatmentTest {
    private static double area(Part p) {
        var cell = new Cell(p.surface());
        double sum = 0;
        for (int f = 0; f < p.surface().cellCount(); f++) {
            sum += cell.load(f).measure();
        }
        return sum;
    }

    private static Run box(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {2, 3, 4}, new double[] {1, 2, 3}, 0, 1);
        double[] shear = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < mesh.nodeCount(); i++) {
            shear[3 * i] = 2;
        }
        return new Run(
                mesh,
                List.of(new Field("tau", Field.At.NODE, 3, Unit.UNKNOWN, Values.of(shear))),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of());
    }

    private static Run treated(Run run, PartEdit... edits) {
        return Treatment.NONE.withParts(List.of(edits)).apply(run);
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON", "VOXEL"})
    void aBoxFallsIntoItsSixSidesTheLargestFirst(CellShape shape) {
        Run run = treated(box(shape), new PartEdit.Split("skin", 30));
        assertThat(run.parts()).hasSize(6);
        assertThat(run.parts())
                .extracting(p -> Math.round(1e9 * area(p)) / 1e9)
                .containsExactly(6., 6., 3., 3., 2., 2.);
        assertThat(run.parts())
                .extracting(Part::name)
                .startsWith("skin 1", "skin 2")
                .endsWith("skin 6");
        for (Part p : run.parts()) {
            assertThat(p.owner()).doesNotContain(-1);
            for (int i = 0; i < p.node().length; i++) {
                for (int d = 0; d < 3; d++) {
                    assertThat(run.mesh().xyz()[3 * p.node()[i] + d])
                            .isEqualTo(p.surface().xyz()[3 * i + d]);
                }
            }
        }
        // Joined again they are the whole, closed.
        Run whole = Treatment.NONE
                .withParts(List.of(
                        new PartEdit.Merge(run.parts().stream().map(Part::name).toList(), "all")))
                .apply(run);
        assertThat(area(whole.part("all"))).isCloseTo(22, within(1e-12));
        // A wider angle than any bend leaves it whole.
        assertThat(treated(box(shape), new PartEdit.Split("skin", 91)).parts()).hasSize(1);
    }

    @Test
    void namesRolesAndFieldsOfPartsFollow() {
        Run run = box(CellShape.HEXAHEDRON);
        Part skin = run.parts().getFirst();
        double[] own = new double[skin.surface().cellCount()];
        for (int f = 0; f < own.length; f++) {
            own[f] = f;
        }
        var carrying = new Run(
                run.mesh(),
                run.fields(),
                List.of(skin.with(List.of(new Field("q", Field.At.CELL, 1, Unit.of("W"), Values.of(own))))),
                List.of(),
                List.of());
        Run split = treated(
                carrying,
                new PartEdit.Split("skin", 30),
                new PartEdit.Rename("skin 1", "rotor wall"),
                new PartEdit.Assign("skin 2", Role.INLET),
                new PartEdit.Merge(List.of("skin 3", "skin 4"), "sides"));
        assertThat(split.parts())
                .extracting(Part::name)
                .containsExactly("rotor wall", "skin 2", "sides", "skin 5", "skin 6");
        assertThat(split.part("skin 2").role()).isEqualTo(Role.INLET);
        double sum = 0;
        for (Part p : split.parts()) {
            Field q = p.field("q").orElseThrow();
            assertThat(q.size()).isEqualTo(p.surface().cellCount());
            for (int i = 0; i < q.size(); i++) {
                sum += q.values().get(i);
            }
        }
        assertThat(sum).isEqualTo(own.length * (own.length - 1) / 2.0);
        assertThat(Role.guess("Inlet_duct")).isEqualTo(Role.INLET);
    }

    @Test
    void anEditThatFindsNoPartIsToldAndTheRestGoesOn() {
        Run run = treated(
                box(CellShape.HEXAHEDRON), new PartEdit.Rename("none", "x"), new PartEdit.Rename("skin", "wall"));
        assertThat(run.parts()).extracting(Part::name).containsExactly("wall");
        assertThat(run.remarks()).anyMatch(r -> r.contains("\"none\""));
        assertThatThrownBy(() -> new PartEdit.Rename("a", " ")).isInstanceOf(LaneException.class);
        assertThatThrownBy(() -> new PartEdit.Split("a", 0)).hasMessageContaining("feature angle");
    }

    @Test
    void aWallStressThatActsOnTheFluidTurnsTheForceOfThatRunOnly() {
        Run run = box(CellShape.HEXAHEDRON);
        EvaluationContext lens = EvaluationContext.of(
                List.of(new Quantity("tau", "tau", "tau", Component.ALL, "")),
                List.of(new FieldUnit("tau", "Pa", true)),
                Axis.Z);
        var force = new Force(new Loads("", 0, "tau", On.WALL, On.WALL), new Point(1, 0, 0));
        assertThat(TallyReader.read(run, run.parts(), force, lens, "", Provenance.EMPTY, Memo.NONE)
                        .value())
                .isCloseTo(44, within(1e-10));
        Run said = Treatment.NONE.withOnWall("tau", false).apply(run);
        assertThat(TallyReader.read(said, said.parts(), force, lens, "", Provenance.EMPTY, Memo.NONE)
                        .value())
                .isCloseTo(-44, within(1e-10));
    }

    @Test
    void unitsOfOneRunGoBeforeThoseOfItsSystemAndOfTheStudy() {
        Run run = box(CellShape.HEXAHEDRON);
        Field tau = run.fields().getFirst();
        EvaluationContext lens = EvaluationContext.of(List.of(), List.of(new FieldUnit("tau", "bar", true)), Axis.Z);
        assertThat(lens.unit(run, tau).symbol()).isEqualTo("bar");
        Run tonne = Treatment.NONE.in(UnitSystem.MM_N_TONNE).apply(run);
        assertThat(lens.unit(tonne, tau)).isEqualTo(Unit.of("MPa"));
        Run own =
                Treatment.NONE.in(UnitSystem.MM_N_TONNE).withUnit("tau", "kPa").apply(run);
        assertThat(lens.unit(own, tau).symbol()).isEqualTo("kPa");
        // Of what kind the quantity is nobody knows: then the system cannot tell either.
        assertThat(EvaluationContext.of(List.of(), List.of(), Axis.Z)
                        .unit(tonne, tau)
                        .known())
                .isFalse();
        assertThatThrownBy(() -> Treatment.NONE.inLength("kg")).hasMessageContaining("unit of length");
        assertThatThrownBy(() -> Treatment.NONE.withOrder("u", List.of(0, 0, 1)))
                .isInstanceOf(LaneException.class);
        assertThat(Treatment.NONE.in(UnitSystem.CGS).metres()).isEqualTo(0.01);
        assertThat(Treatment.NONE.withUnit("p", "Pa").withUnit("p", "").units()).isEqualTo(Map.of());
    }

    @Test
    void thePlaneRunsDepthMultipliesItsIntegralsAndNoMean() {
        Mesh mesh =
                Mesh.uniform(new double[] {0, 0, 0, 2, 0, 0, 2, 3, 0, 0, 3, 0}, CellShape.QUAD, new int[] {0, 1, 2, 3});
        Run run = new Run(
                mesh,
                List.of(new Field("p", Field.At.NODE, 1, Unit.of("Pa"), Values.of(1, 1, 3, 3))),
                List.of(new PartBuilder(mesh).whole("rim")),
                List.of(),
                List.of());
        Run deep = Treatment.NONE.withDepth(0.25).apply(run);
        EvaluationContext lens =
                EvaluationContext.of(List.of(new Quantity("p", "p", "p", Component.ALL, "")), List.of(), Axis.Z);
        assertThat(TallyReader.read(run, run.parts(), new Area(), lens, "", Provenance.EMPTY, Memo.NONE)
                        .value())
                .isCloseTo(10, within(1e-14));
        assertThat(TallyReader.read(deep, deep.parts(), new Area(), lens, "", Provenance.EMPTY, Memo.NONE)
                        .value())
                .isCloseTo(2.5, within(1e-14));
        // What a number stands for is said beside it.
        assertThat(TallyReader.read(deep, deep.parts(), new Area(), lens, "", Provenance.EMPTY, Memo.NONE)
                        .scalars()
                        .getFirst()
                        .remark())
                .contains("for a depth of 0.25 m");
        for (Run r : List.of(run, deep)) {
            assertThat(TallyReader.read(r, r.parts(), new Mean("p"), lens, "", Provenance.EMPTY, Memo.NONE)
                            .value())
                    .isCloseTo(2, within(1e-14));
        }
        assertThatThrownBy(() -> Treatment.NONE.withDepth(0)).isInstanceOf(LaneException.class);
    }
}
