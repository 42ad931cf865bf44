package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.RunHealth;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.field.Values;
import lane.measure.Area;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Integral;
import lane.measure.Length;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.mesh.Axis;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.OnPart;
import lane.station.Section;
import lane.station.Station;
import lane.study.Evaluator;
import lane.study.Library;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** A silo's wall, half a cylinder of 2 m radius and 5 m height, as a surface without thickness; and a plate 3 x 2 m. */
class CurvedSurfaceTest {
    private static final int AROUND = 90;
    private static final double CHORD = 2 * 2 * Math.sin(Math.PI / AROUND / 2);

    /** A grid of quads from two numbers a node to a place. */
    private static Run grid(int nu, int nv, boolean bent) {
        double[] xyz = new double[3 * (nu + 1) * (nv + 1)];
        double[] height = new double[xyz.length / 3];
        double[] flow = new double[xyz.length];
        for (int j = 0; j <= nv; j++) {
            for (int i = 0; i <= nu; i++) {
                int n = i + (nu + 1) * j;
                double a = Math.PI * i / nu;
                xyz[3 * n] = bent ? 2 * Math.cos(a) : 3.0 * i / nu;
                xyz[3 * n + 1] = bent ? 2 * Math.sin(a) : 2.0 * j / nv;
                xyz[3 * n + 2] = bent ? 5.0 * j / nv : 0;
                height[n] = bent ? xyz[3 * n + 2] : xyz[3 * n];
                flow[3 * n] = 1;
            }
        }
        int[] nodes = new int[4 * nu * nv];
        for (int j = 0, k = 0; j < nv; j++) {
            for (int i = 0; i < nu; i++) {
                int n = i + (nu + 1) * j;
                nodes[k++] = n;
                nodes[k++] = n + 1;
                nodes[k++] = n + nu + 2;
                nodes[k++] = n + nu + 1;
            }
        }
        Mesh mesh = Mesh.uniform(xyz, CellShape.QUAD, nodes);
        return new Run(
                mesh,
                List.of(
                        new Field("h", Field.At.NODE, 1, Unit.of("m"), Values.of(height)),
                        new Field("w", Field.At.NODE, 3, Unit.of("m/s"), Values.of(flow))),
                List.of(new PartBuilder(mesh).whole("rim")),
                List.of(),
                List.of());
    }

    private static Results results(Run run, Station station, Reading... readings) {
        var library = new Library() {
            @Override
            public Run run(Source.Simulation source, TimeSelector moment, Work work) {
                return source.treatment().apply(run);
            }

            @Override
            public Table table(String file, List<Recipe> recipes) {
                throw new LaneException("no table");
            }

            @Override
            public Mesh sheet(String file) {
                throw new LaneException("no sheet");
            }
        };
        Study study = Study.empty("s")
                .withSources(l -> List.of(new Source.Simulation("r", "r", "r", List.of(), "", "f")
                        .with(new Treatment(null, "m", null, Map.of(), Map.of(), Map.of(), 10.0, null, List.of()))))
                .withQuantities(l -> List.of(new Quantity("h", "h", "h", "", "")))
                .withStations(l -> List.of(station))
                .withReadings(l -> List.of(readings));
        return new Evaluator(library).evaluate(study, Work.QUIET);
    }

    private static Outcome tally(Run run, Station station, Measure measure) {
        var reading = new Reading("t", "t", "", new TallyOf(List.of(station.id()), measure));
        return results(run, station, reading).outcome("t", "r");
    }

    private static double value(Outcome made) {
        assertThat(made).as(made.toString()).isInstanceOf(Tally.class);
        return ((Tally) made).value();
    }

    private static final Station BELT =
            new Station("belt", "belt", new Section(new Point(0, 0, 2.2), new Point(0, 0, 1), null, null));
    private static final Station RIM = new Station("rim", "rim", new OnPart("rim"));

    @Test
    void aSectionOfACurvedSurfaceIsACurveWithALengthInMetres() {
        Run silo = grid(AROUND, 10, true);
        Outcome length = tally(silo, BELT, new Length());
        assertThat(value(length)).isCloseTo(AROUND * CHORD, within(1e-9));
        assertThat(length.unit().symbol()).isEqualTo("m");
        // Asked for its size it says the same: a depth, which is stated here as 10 m, is none of a surface that bends.
        Outcome size = tally(silo, BELT, new Area());
        assertThat(value(size)).isCloseTo(AROUND * CHORD, within(1e-9));
        assertThat(size.unit().symbol()).isEqualTo("m");
        Outcome integral = tally(silo, BELT, new Integral("h"));
        assertThat(value(integral)).isCloseTo(2.2 * AROUND * CHORD, within(1e-9));
        assertThat(integral.unit().comparable(Unit.of("m2"))).isTrue();
        assertThat(value(tally(silo, BELT, new Mean("h")))).isCloseTo(2.2, within(1e-12));
        Outcome flow = tally(silo, BELT, new Flow("w", 1, "1", Carried.NOTHING, Axis.Z));
        assertThat(((Outcome.Absent) flow).reason()).contains("curve on a curved surface");
        assertThat(value(tally(silo, RIM, new Length()))).isCloseTo(2 * AROUND * CHORD + 10, within(1e-9));
    }

    @Test
    void cutCurvesWorkOnCurvedSurfacesAndNotOnPlates() {
        var cut = new Station(
                "cut",
                "cut",
                new CutCurve(
                        new Point(0, 0, 2.2), new Point(0, 0, 1), List.of(), Extent.LENGTH, new Point(1, 0, 0), 0));
        var reading = new Reading("p", "p", "", new ProfileOf("cut", "h"));
        Outcome made = results(grid(AROUND, 10, true), cut, reading).outcome("p", "r");
        assertThat(made).as(made.toString()).isInstanceOf(Profile.class);
        Profile p = (Profile) made;
        assertThat(java.util.Arrays.stream(p.value()).boxed())
                .allSatisfy(v -> assertThat(v).isCloseTo(2.2, within(1e-12)));
        assertThat(p.abscissa()[p.size() - 1]).isCloseTo(AROUND * CHORD, within(1e-6));
        Outcome plate = results(grid(6, 4, false), cut, reading).outcome("p", "r");
        assertThat(((Outcome.Absent) plate).reason()).contains("this one is plane");
    }

    @Test
    void aPlateHasADepthItsRimALengthAndACurvedSurfaceIsNotCalledPlane() {
        Run plate = grid(6, 4, false);
        assertThat(value(tally(plate, RIM, new Length()))).isCloseTo(10, within(1e-12));
        Outcome area = tally(plate, RIM, new Area());
        assertThat(value(area)).as("for the depth of 10 m").isCloseTo(100, within(1e-9));
        assertThat(area.unit().symbol()).isEqualTo("m2");
        assertThat(RunHealth.of(plate).findings()).anyMatch(f -> f.text().contains("plane mesh"));
        assertThat(RunHealth.of(grid(AROUND, 10, true)).findings())
                .noneMatch(f -> f.text().contains("plane"));
        assertThatThrownBy(() -> {
                    throw new LaneException(((Outcome.Absent) tally(
                                    plate,
                                    new Station("all", "all", new lane.station.Region(new lane.station.Within.All())),
                                    new Length()))
                            .reason());
                })
                .hasMessageContaining("length");
    }

    @Test
    void aWallAndItsRimAreNotAddedUp() {
        Run silo = grid(AROUND, 4, true);
        var lens = lane.evaluation.EvaluationContext.of(List.of(), List.of(), Axis.Z);
        var wall = lane.field.Part.ofCells("wall", silo.mesh());
        assertThatThrownBy(() -> new lane.evaluation.SurfaceIntegral(
                        silo, List.of(silo.part("rim"), wall), lens, lane.base.Memo.NONE))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("areas would be added to lengths");
    }
}
