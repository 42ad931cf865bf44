package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.measure.Area;
import lane.measure.Extreme;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Integral;
import lane.measure.Length;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.Balance;
import lane.reading.BalanceOf;
import lane.reading.Conserved;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Box;
import lane.station.Enclosing;
import lane.station.Frame;
import lane.station.Region;
import lane.station.Station;
import lane.station.Within;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Boxes that cut the cells of a pond of 3 x 2 x 1 m: a = 3 + 2 x - y + z at its nodes, and a current that spreads. */
class CuttingBoxTest {
    private static Run run(CellShape shape, double warp) {
        Mesh mesh = BoxMesh.of(shape, new int[] {7, 5, 3}, new double[] {3, 2, 1}, warp, 3);
        double[] a = new double[mesh.nodeCount()];
        double[] u = new double[3 * a.length];
        for (int i = 0; i < a.length; i++) {
            double x = mesh.xyz()[3 * i];
            double y = mesh.xyz()[3 * i + 1];
            double z = mesh.xyz()[3 * i + 2];
            a[i] = 3 + 2 * x - y + z;
            u[3 * i] = 2 * x + y;
            u[3 * i + 1] = 1 - 0.5 * y;
            u[3 * i + 2] = x - z + 4;
        }
        return new Run(
                mesh,
                List.of(
                        new Field("a", Field.At.NODE, 1, Unit.of("kg/m3"), Values.of(a)),
                        new Field("u", Field.At.NODE, 3, Unit.of("m/s"), Values.of(u))),
                List.of(new PartBuilder(mesh).whole("bed")),
                List.of(),
                List.of());
    }

    private static final Box INNER = new Box(new Point(0.31, 0.22, 0.17), new Point(2.2, 1.63, 0.79));

    private static Outcome read(Run run, Box box, String frame, lane.reading.Ask ask) {
        var library = new Library() {
            @Override
            public Run run(Source.Simulation source, TimeSelector moment, Work work) {
                return run;
            }

            @Override
            public Table table(String file, List<Recipe> recipes) {
                throw new LaneException("There is no table.");
            }
        };
        Study study = Study.empty("pond")
                .withSources(l -> List.of(new Source.Simulation("run", "run", "run.vtu", List.of(), "", "")))
                .withQuantities(l -> List.of(
                        new Quantity("a", "a", "a", "", ""),
                        new Quantity("one", "one", "1", "", ""),
                        new Quantity("x", "x", "x", "", ""),
                        new Quantity("root", "root", "sqrt(a / 1 \"kg/m3\")", "", ""),
                        new Quantity("grows", "grows", "div(u)", "", ""),
                        new Quantity("u", "u", "u", "", "")))
                .withFrames(l -> List.of(new Frame(
                        "raft",
                        "raft",
                        "",
                        new Point(1.4, 0.9, 0.4),
                        new Frame.Attitude.Turned(
                                List.of(new Frame.Rotation("z", 33), new Frame.Rotation("x", 12)), false),
                        false,
                        "")))
                .withStations(l -> List.of(
                        new Station("in", "in", frame, new Region(new Within.InBox(box, true))),
                        new Station("whole", "whole", frame, new Region(new Within.InBox(box))),
                        new Station("hull", "hull", new Enclosing("whole")),
                        new Station("around", "around", new Enclosing("in"))))
                .withReadings(l -> List.of(new Reading("r", "r", "", ask)));
        return new Evaluator(library).evaluate(study, Work.QUIET).outcome("r", "run");
    }

    private static Tally tally(Run run, Box box, String frame, String station, Measure measure) {
        Outcome made = read(run, box, frame, new TallyOf(List.of(station), measure));
        assertThat(made).as("%s", made).isInstanceOf(Tally.class);
        return (Tally) made;
    }

    private static final Flow FLOW = new Flow("u", 1, "1", Carried.NOTHING, Axis.Z);

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {
                "TETRAHEDRON",
                "HEXAHEDRON",
                "WEDGE",
                "PYRAMID",
                "POLYHEDRON",
                "VOXEL",
                "TETRAHEDRON10",
                "HEXAHEDRON20"
            })
    void volumesAndFlowsAreThoseOfTheBox(CellShape shape) {
        Run run = run(shape, 0);
        double volume = 1.89 * 1.41 * 0.62;
        assertThat(tally(run, INNER, "", "in", new Integral("one")).value()).isCloseTo(volume, within(1e-12));
        // Of a linear quantity the mean is its value in the middle.
        double middle = 3 + 2 * 1.255 - 0.925 + 0.48;
        double slack = shape == CellShape.PYRAMID ? 1e-7 : 1e-11;
        assertThat(tally(run, INNER, "", "in", new Mean("a")).value()).isCloseTo(middle, within(slack));
        assertThat(tally(run, INNER, "", "around", new Area()).value())
                .isCloseTo(2 * (1.89 * 1.41 + 1.89 * 0.62 + 1.41 * 0.62), within(1e-11));
        // The divergence of the current is 0.5 everywhere.
        assertThat(tally(run, INNER, "", "around", FLOW).value()).isCloseTo(0.5 * volume, within(1e-10));
        assertThat(tally(run, INNER, "", "in", new Integral("x")).value()).isCloseTo(1.255 * volume, within(1e-11));
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "POLYHEDRON"})
    void aBoxOfAFrameMayReachOverTheRun(CellShape shape) {
        Run run = run(shape, 0);
        // All of the raft lies in the pond.
        var small = new Box(new Point(-0.5, -0.4, -0.1), new Point(0.4, 0.3, 0.2));
        double volume = 0.9 * 0.7 * 0.3;
        assertThat(tally(run, small, "raft", "in", new Integral("one")).value()).isCloseTo(volume, within(1e-12));
        assertThat(tally(run, small, "raft", "around", FLOW).value()).isCloseTo(0.5 * volume, within(1e-10));
        // It reaches over all sides of the pond: the boundary of that closes it.
        var large = new Box(new Point(-0.9, -3, -0.3), new Point(0.7, 2, 3));
        Tally size = tally(run, large, "raft", "in", new Integral("one"));
        assertThat(size.note()).contains("cut by its sides", " of it in the run");
        assertThat(size.value()).isBetween(0.5, 5.0);
        assertThat(tally(run, large, "raft", "around", FLOW).value()).isCloseTo(0.5 * size.value(), within(1e-10));
    }

    /** The sides of the box lie in faces of cells and in the boundary of the run. */
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "POLYHEDRON"})
    void sidesMayLieInFaces(CellShape shape) {
        Run run = run(shape, 0);
        var box = new Box(new Point(0, 0.4, 0), new Point(3 * 4 / 7.0, 1.6, 2.0 / 3));
        double volume = 12 / 7.0 * 1.2 * 2 / 3;
        assertThat(tally(run, box, "", "in", new Integral("one")).value()).isCloseTo(volume, within(1e-12));
        assertThat(tally(run, box, "", "around", FLOW).value()).isCloseTo(0.5 * volume, within(1e-10));
        var all = new Box(new Point(0, 0, 0), new Point(3, 2, 1));
        assertThat(tally(run, all, "", "around", new Area()).value()).isCloseTo(22, within(1e-10));
        assertThat(tally(run, all, "", "in", new Integral("one")).value()).isCloseTo(6, within(1e-11));
    }

    @Test
    void aBalanceOfABoxCloses() {
        for (CellShape shape : List.of(CellShape.HEXAHEDRON, CellShape.TETRAHEDRON)) {
            Outcome made = read(
                    run(shape, 0),
                    INNER,
                    "",
                    new BalanceOf(
                            List.of(
                                    new BalanceOf.Term("through", -1, List.of("around"), FLOW),
                                    new BalanceOf.Term("spring", 1, List.of("in"), new Integral("grows"))),
                            List.of(),
                            "positive fills the box"));
            assertThat(made).as("%s", made).isInstanceOf(Balance.class);
            var balance = (Balance) made;
            assertThat(balance.closure()).isLessThan(1e-12);
            assertThat(balance.residual()).isCloseTo(0, within(1e-9));
        }
    }

    /** What a balance is of tells which terms it lacks, and its residual may be compared with what is chosen. */
    @Test
    void aBalanceTellsWhatItLacksAndIsComparedWithWhatIsChosen() {
        Run run = run(CellShape.HEXAHEDRON, 0);
        var through = new BalanceOf.Term("through", -1, List.of("around"), FLOW);
        var spring = new BalanceOf.Term("spring", 1, List.of("in"), new Integral("grows"));
        var half = List.of(through);
        var energy = new BalanceOf(half, List.of(), "", Conserved.ENERGY, BalanceOf.Against.LARGEST);
        var made = (Balance) read(run, INNER, "", energy);
        assertThat(made.missing()).isEqualTo("heat conducted");
        assertThat(made.scalars().getLast().remark())
                .contains("relative to the largest term", "missing: heat conducted");
        assertThat(Conserved.ENERGY.needs(half))
                .extracting(n -> n.what() + " " + n.state())
                .containsExactly(
                        "enthalpy carried THERE", "heat conducted MISSING", "heat made IF_ANY", "stored IF_ANY");
        assertThat(Conserved.MOMENTUM.needs(half).get(1).state()).isEqualTo(Conserved.State.MISSING);
        assertThat(Conserved.UNSAID.needs(half)).isEmpty();
        var both = List.of(through, spring);
        var stated = new BalanceOf(both, List.of(), "", Conserved.MASS, new BalanceOf.Against("", 20));
        var scaled = (Balance) read(run, INNER, "", stated);
        assertThat(scaled.scale()).isEqualTo(20);
        assertThat(scaled.missing()).isEmpty();
        var chosen = new BalanceOf(both, List.of(), "", Conserved.MASS, new BalanceOf.Against("spring", 0));
        var byTerm = (Balance) read(run, INNER, "", chosen);
        assertThat(byTerm.scale()).isEqualTo(Math.abs(byTerm.terms().get(1).value()));
        assertThat(byTerm.scaledBy()).isEqualTo("term \"spring\"");
        var gone = new BalanceOf(both, List.of(), "", Conserved.MASS, new BalanceOf.Against("autumn", 0));
        assertThat(((Outcome.Absent) read(run, INNER, "", gone)).reason())
                .contains("term \"autumn\", which there is not");
    }

    /** What flows out of a region inside of the run does not leave the run. */
    @Test
    void theSignIsThatOfTheRegion() {
        Run run = run(CellShape.HEXAHEDRON, 0);
        assertThat(tally(run, INNER, "", "around", FLOW).sign()).contains("along the surface's normal");
        assertThat(tally(run, INNER, "", "hull", FLOW).sign()).isEqualTo("positive leaves the region");
    }

    @Test
    void whatABoxTakesIsSaid() {
        Run run = run(CellShape.HEXAHEDRON, 0);
        assertThat(tally(run, INNER, "", "in", new Mean("a")).note()).contains("cut by its sides");
        assertThat(tally(run, INNER, "", "whole", new Mean("a")).note()).doesNotContain("cut");
        // The greatest value stands at a node in the box, not at one outside that belongs to a cell in it.
        assertThat(tally(run, INNER, "", "in", new Extreme("x", true)).value()).isCloseTo(15 / 7.0, within(1e-12));
        // No polynomial: how well it is integrated stands beside it.
        Tally root = tally(run, INNER, "", "in", new Mean("root"));
        assertThat(root.estimate().uncertainty().half()).isBetween(1e-12, 1e-4);
        assertThat(((Outcome.Absent) read(run, INNER, "", new TallyOf(List.of("in", "whole"), new Mean("a")))).reason())
                .contains("take it by itself");
        var far = new Box(new Point(9, 9, 9), new Point(10, 10, 10));
        assertThat(((Outcome.Absent) read(run, far, "", new TallyOf(List.of("in"), new Mean("a")))).reason())
                .contains("holds no cell");
        assertThat(((Outcome.Absent) read(run, far, "", new TallyOf(List.of("around"), FLOW))).reason())
                .contains("lies outside this run");
        assertThat(((Outcome.Absent) read(run, INNER, "", new TallyOf(List.of("in"), new Length()))).reason())
                .isNotBlank();
    }

    /** Faces that are bent fall into triangles about their mean in both cells, so nothing is lost between whole and cut cells. */
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "POLYHEDRON"})
    void bentCellsAreCutToo(CellShape shape) {
        double volume = 1.89 * 1.41 * 0.62;
        Run run = run(shape, 0.2);
        assertThat(tally(run, INNER, "", "in", new Integral("one")).value()).isCloseTo(volume, within(1e-11));
        assertThat(tally(run, INNER, "", "around", FLOW).value()).isCloseTo(0.5 * volume, within(1e-10));
    }
}
