package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import lane.base.Work;
import lane.cut.PlaneCut;
import lane.field.Field;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.measure.Mean;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Box;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Shell;
import lane.station.Station;
import lane.study.Evaluator;
import lane.study.Library;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A silo of 2 by 2 by 4 metres: what of a surface lies in it is a number, and whoever reads it is told when it is not all. */
class CoverageTest {
    private static final Run SILO =
            run(BoxMesh.of(CellShape.TETRAHEDRON, new int[] {4, 4, 8}, new double[] {2, 2, 4}, 0.2, 3));

    private static Run run(Mesh mesh) {
        double[] fill = new double[mesh.nodeCount()];
        for (int i = 0; i < fill.length; i++) {
            fill[i] = 1 + mesh.xyz()[3 * i];
        }
        return new Run(
                mesh,
                List.of(new Field("fill", Field.At.NODE, 1, Unit.ONE, Values.of(fill))),
                List.of(),
                List.of(),
                List.of());
    }

    private static final class Memory implements Library {
        @Override
        public Run run(Source.Simulation source, TimeSelector moment, Work work) {
            return SILO;
        }

        @Override
        public Table table(String file, List<Recipe> recipes) {
            throw new IllegalStateException();
        }
    }

    private static Results read(Shape shape, String formula, Ask ask) {
        Study s = Study.empty("s")
                .withSources(l -> List.of(new Source.Simulation("silo", "silo", "silo", List.of(), "", "f")))
                .withStations(l -> List.of(new Station("s", "cut", shape)))
                .withQuantities(l -> List.of(new Quantity("q", "q", formula, "", "")))
                .withReadings(l -> List.of(new Reading("r", "r", "", ask)));
        return new Evaluator(new Memory()).evaluate(s, Work.QUIET);
    }

    private static double coverage(Outcome of) {
        assertThat(of).as(of instanceof Outcome.Absent a ? a.reason() : "").isNotInstanceOf(Outcome.Absent.class);
        return of.scalars().stream()
                .filter(s -> s.what().equals("coverage"))
                .mapToDouble(s -> s.estimate().value())
                .findFirst()
                .orElse(Double.NaN);
    }

    @ParameterizedTest
    @CsvSource({
        // The box ends in the silo, reaches out of it on one side, on two sides, and looks from afar.
        "0.2, 0.4, 1.7, 1.2, 1",
        "-1, 0.5, 1, 1.5, 0.5",
        "1, 1, 3, 4, 0.16666666666666666",
        "5, 5, 6, 6, NaN",
    })
    void aSectionWithinABoxTellsHowMuchOfTheBoxItFound(double x0, double y0, double x1, double y1, double share) {
        var box = new Box(new Point(x0, y0, -1), new Point(x1, y1, 9), null);
        Outcome made = read(
                        new Section(new Point(0, 0, 1.3), new Point(0, 0, 1), box, null),
                        "fill",
                        new TallyOf(List.of("s"), new Mean("q")))
                .outcome("r", "silo");
        if (Double.isNaN(share)) {
            assertThat(made).isInstanceOf(Outcome.Absent.class);
        } else {
            assertThat(coverage(made)).isCloseTo(share, within(1e-9));
        }
    }

    @Test
    void aPlaneWithoutEndIsAskedForAsFarAsTheRunGoes() {
        Outcome whole = read(
                        new Section(new Point(0, 0, 1.3), new Point(0, 0, 1), null, null),
                        "fill",
                        new TallyOf(List.of("s"), new Mean("q")))
                .outcome("r", "silo");
        assertThat(coverage(whole)).isEqualTo(1);
        double[] open = {0, 1, 0, Double.POSITIVE_INFINITY, 0, 1};
        assertThat(PlaneCut.size(new Point(0, 0, 0.5), new Point(0, 0, 1), null, null, open, Axis.Z))
                .isInfinite();
    }

    @Test
    void theSizeOfAPlaneInABoxIsExactHoweverItStands() {
        double[] cube = {0, 1, 0, 1, 0, 1};
        Point middle = new Point(0.5, 0.5, 0.5);
        // The hexagon across the diagonal of a cube, the rectangle along it, and the line where two planes meet.
        assertThat(PlaneCut.size(middle, new Point(1, 1, 1), null, null, cube, Axis.Z))
                .isCloseTo(0.75 * Math.sqrt(3), within(1e-12));
        assertThat(PlaneCut.size(middle, new Point(1, -1, 0), null, null, cube, Axis.Z))
                .isCloseTo(Math.sqrt(2), within(1e-12));
        assertThat(PlaneCut.size(middle, new Point(1, -1, 0), new Point(0, 0, 1), middle, cube, Axis.Z))
                .isCloseTo(Math.sqrt(2), within(1e-12));
        assertThat(PlaneCut.size(new Point(7, 0, 0), new Point(1, 0, 0), null, null, cube, Axis.Z))
                .isZero();
    }

    @Test
    void aShellThatIsHalfOutsideTellsSoWhereverItIsRead() {
        // Its axis stands in a wall of the silo, so half of it lies outside.
        var shell = new Shell(new Axis(new Point(0, 1, 1), new Point(0, 0, 1)), 0.5, 0.0, 2.0, 0);
        Outcome tally =
                read(shell, "fill", new TallyOf(List.of("s"), new Mean("q"))).outcome("r", "silo");
        assertThat(coverage(tally)).isCloseTo(0.5, within(1e-6));
        Profile around = (Profile) read(shell, "fill", new AroundOf("s", "q", AroundOf.Along.MEAN, 24))
                .outcome("r", "silo");
        assertThat(coverage(around)).isCloseTo(0.5, within(1e-6));
        assertThat(around.note()).contains("% of the shell in the run");
        assertThat(around.found()).isBetween(11, 13);
        // A formula that takes the mean over it says so in its trail.
        Results r = read(shell, "fill - mean(fill over cut)", new TallyOf(List.of("s"), new Mean("q")));
        assertThat(r.outcome("r", "silo").trail().steps().toString())
                .contains("Only 5")
                .contains("of \"cut\" lies in the run");
    }

    @Test
    void aFormulaThatTakesATallyByItsNameTellsWhatThatLacked() {
        var shell = new Shell(new Axis(new Point(0, 1, 1), new Point(0, 0, 1)), 0.5, 0.0, 2.0, 0);
        var plane = new Section(new Point(0, 0, 1.3), new Point(0, 0, 1), null, null);
        Study s = Study.empty("s")
                .withSources(l -> List.of(new Source.Simulation("silo", "silo", "silo", List.of(), "", "f")))
                .withStations(l -> List.of(new Station("s", "cut", shell), new Station("p", "plane", plane)))
                .withQuantities(l ->
                        List.of(new Quantity("q", "q", "fill", "", ""), new Quantity("d", "d", "fill - level", "", "")))
                .withReadings(l -> List.of(
                        new Reading("level", "level", "", new TallyOf(List.of("s"), new Mean("q"))),
                        new Reading("above", "above", "", new TallyOf(List.of("p"), new Mean("d")))));
        Outcome above = new Evaluator(new Memory()).evaluate(s, Work.QUIET).outcome("above", "silo");
        assertThat(coverage(above)).isEqualTo(1);
        assertThat(above.trail().steps().toString())
                .containsPattern("Only 5\\d(\\.\\d+)? ?% of what \"level\" is taken over lies in the run");
    }
}
