package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Work;
import lane.evaluation.StoredValues.At;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.measure.Extreme;
import lane.measure.Force;
import lane.measure.Given;
import lane.measure.Heat;
import lane.measure.Integral;
import lane.measure.Loads;
import lane.measure.Newtonian;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Neighbours;
import lane.mesh.Point;
import lane.mesh.Topology;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.Balance;
import lane.reading.BalanceOf;
import lane.reading.ExtentOf;
import lane.reading.FitOf;
import lane.reading.JumpOf;
import lane.reading.LoadOf;
import lane.reading.Outcome;
import lane.reading.PairOf;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.Several;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.reading.TensorOf;
import lane.reading.VectorOf;
import lane.reference.Curve;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Box;
import lane.station.Facing;
import lane.station.Frame;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Station;
import lane.station.Within;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * Readings of several numbers in a tray of 2 x 1 x 0.5 m, from (1, 0, 0): T = 300 + x^2 + 2 y at its nodes, p = 1000 + 40 z - 10 x.
 */
class SeveralTest {
    private static final double VOLUME = 1.0;
    private static final Run RUN = run();

    private static Run run() {
        Mesh flat = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {8, 4, 2}, new double[] {2, 1, 0.5}, 0, 0);
        double[] xyz = flat.xyz().clone();
        for (int i = 0; i < xyz.length; i += 3) {
            xyz[i] += 1;
        }
        Mesh mesh = Mesh.uniform(xyz, CellShape.HEXAHEDRON, flat.nodes());
        double[] t = new double[mesh.nodeCount()];
        double[] p = new double[t.length];
        double[] g = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = 300 + xyz[3 * i] * xyz[3 * i] + 2 * xyz[3 * i + 1];
            p[i] = 1000 + 40 * xyz[3 * i + 2] - 10 * xyz[3 * i];
        }
        java.util.Arrays.setAll(g, i -> p[i] / 100);
        return new Run(
                mesh,
                List.of(
                        new Field("g", Field.At.NODE, 1, Unit.of("mbar"), Values.of(g)),
                        new Field("T", Field.At.NODE, 1, Unit.of("K"), Values.of(t)),
                        new Field("p", Field.At.NODE, 1, Unit.of("Pa"), Values.of(p))),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of(),
                List.of(),
                Double.NaN,
                Stated.NOTHING);
    }

    private static final Library LIBRARY = new Library() {
        @Override
        public Run run(Source.Simulation source, TimeSelector moment, Work work) {
            return RUN;
        }

        @Override
        public Table table(String file, List<Recipe> recipes) {
            throw new LaneException("There is no table.");
        }
    };

    private static Station line(String id, double x0, double x1, double y) {
        return new Station(
                id, id, new Line(new Point(x0, y, 0.25), new Point(x1, y, 0.25), new Sampling.Even(9), Abscissa.ARC));
    }

    private static Station box(String id, double x0, double x1) {
        return new Station(id, id, new Region(new Within.InBox(new Box(new Point(x0, 0, 0), new Point(x1, 1, 0.5)))));
    }

    private static final List<Station> STATIONS = List.of(
            line("near", 1, 3, 0),
            line("far", 1, 3, 1),
            line("short", 1, 2, 0),
            box("left", 1, 2),
            box("right", 2, 3),
            new Station("all", "all", new Region(new Within.All())),
            new Station("top", "top", new OnPart("skin", List.of(), new Facing(new Point(0, 1, 0), 30), null)),
            new Station("skin", "skin", new OnPart("skin")));

    private static Outcome read(Ask ask, String unit, String lane) {
        List<Quantity> quantities = new ArrayList<>(List.of(
                new Quantity("T", "T", "T", "", ""),
                new Quantity("p", "p", "p", "", ""),
                new Quantity("x", "x", "x", "", ""),
                new Quantity("warm", "warm", "T > 306 \"K\"", "", ""),
                new Quantity("c", "c", "1000 \"Pa\"", "", ""),
                new Quantity("jump", "jump", "jump(T)", "", ""),
                new Quantity("step", "step", "jump(g)", "", ""),
                new Quantity("k", "k", "0.5 \"W/(m K)\"", "", ""),
                new Quantity("U", "U", "[y * 4 \"1/s\", 0 * y / 1 \"s\", x * 2 \"1/s\"]", "", ""),
                new Quantity("dU", "dU", "grad(U)", "", ""),
                new Quantity("mu", "mu", "0.5 \"Pa s\"", "", ""),
                new Quantity("nu", "nu", "0.5 \"m2/s\"", "", ""),
                new Quantity("grown", "grown", "exp(6 * x / 1 \"m\")", "", ""),
                new Quantity("x2", "x2", "x * x", "", ""),
                new Quantity("q", "q", "7 \"W/m3\"", "", "")));
        Study study = Study.empty("tray")
                .withSources(l -> List.of(
                        new Source.Simulation("run", "run", "run.vtu", List.of(), "", ""),
                        new Source.Reference(
                                "theory",
                                "theory",
                                Source.Kind.THEORY,
                                List.of(),
                                Map.of(),
                                List.of(new Curve.ByFormula("r", "300 + 3 * x + 5 * x ^ 2", "K")))))
                .withFrames(l -> List.of(new Frame(
                        "tilted",
                        "tilted",
                        "",
                        new Point(1, 0, 0),
                        new Frame.Attitude.Turned(List.of(new Frame.Rotation("y", 30)), false),
                        false,
                        "")))
                .withQuantities(l -> quantities)
                .withStations(l -> STATIONS)
                .withReadings(l -> List.of(new Reading("r", "r", unit, ask)));
        return new Evaluator(LIBRARY).evaluate(study, Work.QUIET).outcome("r", lane);
    }

    private static Outcome read(Ask ask) {
        return read(ask, "", "run");
    }

    private static double number(Outcome o, String what) {
        return ((Several) o).of(what).orElseThrow().value();
    }

    private static PairOf pair(String a, String b, PairOf.How how, PairOf.Match match, PairOf.As as) {
        return new PairOf(a, b, "T", how, match, as);
    }

    @Test
    void twoStationsAgainstEachOther() {
        var less = (Profile)
                read(pair("far", "near", PairOf.How.DIFFERENCE, PairOf.Match.ABSCISSA, PairOf.As.CURVE), "degC", "run");
        assertThat(less.value())
                .hasSize(9)
                .containsExactly(
                        java.util.stream.DoubleStream.generate(() -> 2).limit(9).toArray(), within(1e-10));
        // A difference of temperatures has no point on a scale.
        assertThat(less.unit().fromSi(2)).isEqualTo(2);
        var over = (Profile) read(pair("far", "near", PairOf.How.RATIO, PairOf.Match.ABSCISSA, PairOf.As.CURVE));
        assertThat(over.value()[8]).isCloseTo(311 / 309.0, within(1e-12));
        assertThat(over.unit()).isEqualTo(Unit.ONE);
        var mean = (Tally) read(pair("right", "left", PairOf.How.DIFFERENCE, PairOf.Match.ABSCISSA, PairOf.As.NUMBER));
        // Of x^2 between nodes: its mean and, in both, the same of the straight pieces.
        assertThat(mean.value()).isCloseTo(19 / 3.0 - 7 / 3.0, within(1e-10));
        assertThat(mean.sign()).contains("first station is greater");
        assertThat(mean.trail().toString()).contains("left", "right");
    }

    @Test
    void samplesOfTwoStationsBelongTogetherAsIsSaid() {
        var some = (Profile) read(pair("near", "short", PairOf.How.DIFFERENCE, PairOf.Match.ABSCISSA, PairOf.As.CURVE));
        assertThat(some.found()).isEqualTo(5);
        assertThat(some.value()[4]).isCloseTo(0, within(1e-10));
        assertThat(some.value()[5]).isNaN();
        assertThat(some.note()).contains("4 of 9 samples have no counterpart");
        var shares = (Profile) read(pair("near", "short", PairOf.How.DIFFERENCE, PairOf.Match.SHARE, PairOf.As.CURVE));
        assertThat(shares.found()).isEqualTo(9);
        assertThat(shares.value()[8]).isCloseTo(9 - 4, within(1e-10));
        assertThat(shares.note()).contains("same share of the length");
    }

    private static FitOf fit(String station, int degree, FitOf.Over over, FitOf.Show show, int number) {
        return new FitOf(
                List.of(station), "T", degree, over, over == FitOf.Over.CURVE ? "" : "x", "", null, null, show, number);
    }

    @Test
    void aPolynomialThroughACurve() {
        Outcome made = read(fit("near", 2, FitOf.Over.CURVE, FitOf.Show.COEFFICIENTS, 2));
        // Against the length from x = 1: 301 + 2 s + s^2.
        assertThat(number(made, "constant")).isCloseTo(301, within(1e-9));
        assertThat(number(made, "coefficient 1")).isCloseTo(2, within(1e-9));
        assertThat(made.numbers().getFirst().value()).isCloseTo(1, within(1e-9));
        assertThat(made.unit().label()).isEqualTo("K/m2");
        assertThat(number(made, "R2")).isCloseTo(1, within(1e-12));
        // The best straight line through 9 samples of it leaves s^2 - 2 s + 0.3125 at both ends.
        var left = (Profile) read(fit("near", 1, FitOf.Over.CURVE, FitOf.Show.RESIDUALS, 0));
        assertThat(left.value()[0]).isCloseTo(left.value()[8], within(1e-9)).isPositive();
        assertThat(java.util.Arrays.stream(left.value()).sum()).isCloseTo(0, within(1e-9));
        var fitted = (Profile) read(fit("near", 1, FitOf.Over.CURVE, FitOf.Show.FITTED, 0));
        assertThat(fitted.value()[8] - fitted.value()[0]).isCloseTo(2 * 4, within(1e-9));
    }

    @Test
    void aPolynomialThroughNodesAndCells() {
        Outcome nodes = read(fit("all", 2, FitOf.Over.NODES, FitOf.Show.COEFFICIENTS, 0));
        // 2 y is 1 in the mean, whatever x is; what is left has the deviation of 0, 0.5, 1, 1.5, 2.
        assertThat(number(nodes, "constant")).isCloseTo(301, within(1e-9));
        assertThat(number(nodes, "coefficient 1")).isCloseTo(0, within(1e-9));
        assertThat(number(nodes, "coefficient 2")).isCloseTo(1, within(1e-9));
        assertThat(number(nodes, "residual deviation")).isCloseTo(Math.sqrt(0.5 * 135 / (135 - 3.0)), within(1e-9));
        assertThat(nodes.scalars().getLast().estimate().value()).isEqualTo(135);
        Outcome cells = read(fit("right", 1, FitOf.Over.CELLS, FitOf.Show.COEFFICIENTS, 1));
        assertThat(cells.numbers().getFirst().value()).isCloseTo(5, within(1e-9));
        assertThat(cells.numbers().getFirst().uncertainty().stated()).isTrue();
        var against =
                new FitOf(List.of("all"), "T", 1, FitOf.Over.NODES, "", "", null, null, FitOf.Show.COEFFICIENTS, 0);
        assertThat(((Outcome.Absent) read(against)).reason()).contains("needs a quantity to be fitted against");
        assertThatThrownBy(() -> fit("all", 1, FitOf.Over.NODES, FitOf.Show.COEFFICIENTS, 2))
                .hasMessageContaining("coefficients 0 to 1");
    }

    /** A theory along the line has the coefficients of its own curve. */
    @Test
    void aTheoryIsFittedAlike() {
        Outcome made = read(fit("near", 2, FitOf.Over.CURVE, FitOf.Show.COEFFICIENTS, 0), "", "theory");
        // x = 1 + s: 308 + 13 s + 5 s^2.
        assertThat(number(made, "constant")).isCloseTo(308, within(1e-9));
        assertThat(number(made, "coefficient 1")).isCloseTo(13, within(1e-9));
        assertThat(number(made, "coefficient 2")).isCloseTo(5, within(1e-9));
    }

    private static LoadOf load(String pressure, Point about, LoadOf.Reference reference, LoadOf.Which which) {
        var loads = new Loads(pressure, 0, "", Loads.On.WALL, Loads.On.WALL);
        return new LoadOf(List.of("skin"), loads, about, new Point(1, 0, 0), new Point(0.7, 0, 2), reference, which);
    }

    /** The integral of p n over a closed surface is the volume times the gradient of p, acting at its middle. */
    @Test
    void aLoadInOneReading() {
        var about = new Point(0, 3, -1);
        var reference = new LoadOf.Reference(1.2, 10, 0.5, 2);
        Outcome made = read(load("p", about, reference, LoadOf.Which.COEFFICIENT_ACROSS));
        assertThat(number(made, "along")).isCloseTo(-10 * VOLUME, within(1e-9));
        assertThat(number(made, "across")).isCloseTo(40 * VOLUME, within(1e-9));
        // Along x, across z: the third direction is -y.
        assertThat(number(made, "side")).isCloseTo(0, within(1e-9));
        assertThat(number(made, "magnitude")).isCloseTo(Math.hypot(10, 40), within(1e-9));
        Point arm = new Point(2, 0.5, 0.25).minus(about);
        Point moment = arm.cross(new Point(-10, 0, 40));
        assertThat(number(made, "moment along")).isCloseTo(moment.x(), within(1e-8));
        assertThat(number(made, "moment across")).isCloseTo(moment.z(), within(1e-8));
        assertThat(number(made, "moment side")).isCloseTo(-moment.y(), within(1e-8));
        // The line through the middle of the tray, and on it the point nearest to where moments are taken.
        Point f = new Point(-10, 0, 40).unit();
        Point nearest = new Point(2, 0.5, 0.25).minus(f.times(arm.dot(f)));
        assertThat(number(made, "centre x")).isCloseTo(nearest.x(), within(1e-8));
        assertThat(number(made, "centre y")).isCloseTo(nearest.y(), within(1e-8));
        assertThat(number(made, "centre z")).isCloseTo(nearest.z(), within(1e-8));
        assertThat(made.numbers().getFirst().value()).isCloseTo(40 / 30.0, within(1e-9));
        assertThat(number(made, "coefficient moment")).isCloseTo(-moment.y() / 60, within(1e-9));
        assertThat(made.scalars().toString())
                .contains("positive pushes the wall along (1, 0, 0)", "through (0, 3, -1) m");
    }

    /** In a frame turned by 30 degrees about y, the same load has other components and the same size. */
    @Test
    void loadsAndVectorsStandInFrames() {
        var loads = new Loads("p", 0, "", Loads.On.WALL, Loads.On.WALL);
        // Whose x is (cos 30, 0, -sin 30) in space, and whose z (sin 30, 0, cos 30).
        double c = Math.sqrt(0.75);
        double along = -10 * c - 40 * 0.5;
        double up = -10 * 0.5 + 40 * c;
        var x = new Point(1, 0, 0);
        var z = new Point(0, 0, 1);
        var about = new Point(0.2, 0.3, 0);
        Outcome made = read(new LoadOf(List.of("skin"), loads, about, x, z, null, LoadOf.Which.ALONG, "tilted", null));
        assertThat(number(made, "along")).isCloseTo(along, within(1e-9));
        assertThat(number(made, "across")).isCloseTo(up, within(1e-9));
        assertThat(made.scalars().toString())
                .contains("along (1, 0, 0) in frame \"tilted\"", "(0.2, 0.3, 0) m in frame");
        // The middle of the tray in the frame, whose origin is (1, 0, 0).
        Point middle = new Point(1 * c - 0.25 * 0.5, 0.5, 1 * 0.5 + 0.25 * c);
        Point moment = middle.minus(about).cross(new Point(along, 0, up));
        assertThat(number(made, "moment along")).isCloseTo(moment.x(), within(1e-8));
        assertThat(number(made, "moment across")).isCloseTo(moment.z(), within(1e-8));
        Point f = new Point(along, 0, up).unit();
        Point arm = middle.minus(about);
        Point nearest = middle.minus(f.times(arm.dot(f)));
        assertThat(number(made, "centre x")).isCloseTo(nearest.x(), within(1e-8));
        assertThat(number(made, "centre z")).isCloseTo(nearest.z(), within(1e-8));

        var vector = new VectorOf(List.of("skin"), new Force(loads, x), VectorOf.Which.Z, "tilted", null);
        Outcome turned = read(vector);
        assertThat(turned.numbers().getFirst().value()).isCloseTo(up, within(1e-9));
        assertThat(turned.numbers().get(1).value()).isCloseTo(Math.hypot(10, 40), within(1e-9));
        assertThat(turned.scalars().getFirst().toString()).contains("along x of frame \"tilted\"");
        Outcome other = read(vector.flipped().orElseThrow());
        assertThat(other.numbers().getFirst().value()).isCloseTo(-up, within(1e-9));
        assertThat(other.scalars().getFirst().toString()).contains("pushes the fluid");
        var none = new VectorOf(List.of("skin"), new Force(loads, x), VectorOf.Which.Z, "gone", null);
        assertThat(((Outcome.Absent) read(none)).reason()).contains("There is no frame \"gone\"");
    }

    private static TensorOf tensor(String quantity, TensorOf.Which number, String frame) {
        return new TensorOf(List.of("all"), quantity, false, number, frame, null);
    }

    /** U = (4 y, 0, 2 x): its gradient has 4 in row x and column y, and 2 in row z and column x. */
    @Test
    void tensorsInOneReading() {
        Outcome made = read(tensor("dU", TensorOf.Which.EQUIVALENT, ""));
        double xy = number(made, "xy");
        double yx = number(made, "yx");
        assertThat(Math.max(xy, yx)).isCloseTo(4, within(1e-9));
        assertThat(Math.min(xy, yx)).isCloseTo(0, within(1e-9));
        assertThat(Math.max(number(made, "zx"), number(made, "xz"))).isCloseTo(2, within(1e-9));
        assertThat(number(made, "trace")).isCloseTo(0, within(1e-9));
        // The symmetric part has 2 at xy and 1 at xz: eigenvalues 0 and sqrt(5) with both signs.
        assertThat(number(made, "greatest principal")).isCloseTo(Math.sqrt(5), within(1e-9));
        assertThat(number(made, "middle principal")).isCloseTo(0, within(1e-9));
        assertThat(number(made, "least principal")).isCloseTo(-Math.sqrt(5), within(1e-9));
        assertThat(made.numbers().getFirst().value()).isCloseTo(Math.sqrt(1.5 * 10), within(1e-9));
        Outcome there = read(tensor("dU", TensorOf.Which.XX, "tilted"));
        // What does not depend on the frame stays; x is turned towards -z by 30 degrees.
        assertThat(number(there, "greatest principal")).isCloseTo(Math.sqrt(5), within(1e-9));
        assertThat(number(there, "xx")).isCloseTo(-2 * Math.sqrt(0.75) * 0.5, within(1e-9));
        assertThat(there.scalars().getFirst().remark()).contains("of frame \"tilted\"");
        var whole = new TensorOf(List.of("all"), "dU", true, TensorOf.Which.XX, "", null);
        assertThat(Math.max(number(read(whole), "xy"), number(read(whole), "yx")))
                .isCloseTo(4 * VOLUME, within(1e-9));
        assertThat(((Outcome.Absent) read(tensor("T", TensorOf.Which.XX, ""))).reason())
                .isNotBlank();
        assertThat(((Outcome.Absent) read(tensor("dU", TensorOf.Which.XX, "gone"))).reason())
                .contains("no frame");
    }

    @Test
    void loadsThatCancelHaveNoCentre() {
        Outcome made = read(load("c", new Point(0, 0, 0), null, LoadOf.Which.CENTRE_X));
        assertThat(made.numbers().getFirst().value()).isNaN();
        assertThat(made.scalars().toString()).contains("cancel to round-off");
        assertThat(((Several) made).of("coefficient along")).isEmpty();
        assertThatThrownBy(() -> load("p", new Point(0, 0, 0), null, LoadOf.Which.COEFFICIENT_ALONG))
                .hasMessageContaining("state density, speed, area and length");
        assertThatThrownBy(() -> new LoadOf.Reference(1, 0, 1, 1)).hasMessageContaining("greater than zero");
    }

    private static Heat heat(String conductivity, double value) {
        return new Heat("T", conductivity, value);
    }

    /** T = 300 + x^2 + 2 y: what is conducted out of the tray is what -k times the Laplacian of T makes inside. */
    @Test
    void heatThroughASurface() {
        var through = new TallyOf(List.of("skin"), heat("", 0.5));
        // Of x^2 the gradient in the cells at the ends is that of the straight pieces: 2.25 at x = 1.125 and 5.75.
        var made = (Tally) read(through);
        assertThat(made.unit().label()).isEqualTo("W");
        assertThat(made.sign()).isEqualTo("positive leaves the run");
        assertThat(made.value()).isCloseTo(-0.5 * 2 * VOLUME, within(0.2));
        var byQuantity = (Tally) read(new TallyOf(List.of("skin"), heat("k", 0)));
        assertThat(byQuantity.value()).isCloseTo(made.value(), within(1e-12));
        assertThat(((Outcome.Absent) read(new TallyOf(List.of("skin"), heat("", 0)))).reason())
                .contains("needs a conductivity");
        assertThat(((Outcome.Absent) read(new TallyOf(List.of("skin"), heat("p", 0)))).reason())
                .contains("is used as a conductivity but its unit is Pa");
        assertThat(((Outcome.Absent) read(new TallyOf(List.of("skin"), new Heat("p", "", 1)))).reason())
                .contains("is used as a temperature but its unit is Pa");
    }

    private static Outcome rubbed(String station, Newtonian by, Point along) {
        var loads = new Loads("", 0, "", Loads.On.FLUID, Loads.On.WALL, by);
        return read(new TallyOf(List.of(station), new Force(loads, along)));
    }

    /** U = (4 y, 0, 2 x) 1/s: the fluid rubs the wall above it, of 1 m2, backwards and the ends up and down. */
    @Test
    void viscousForcesFromAGradient() {
        var x = new Point(1, 0, 0);
        var made = (Tally) rubbed("top", new Newtonian("U", "", 0.5), x);
        assertThat(made.value()).isCloseTo(-0.5 * 4 * 1, within(1e-9));
        assertThat(made.unit().label()).isEqualTo("N");
        assertThat(made.note()).contains("first order at walls", "viscosity 0.5 Pa s, stated", "no pressure is named");
        assertThat(made.sign()).isEqualTo("positive pushes the wall along +x");
        assertThat(((Tally) rubbed("top", new Newtonian("U", "mu", 0), x)).value())
                .isCloseTo(made.value(), within(1e-12));
        // Of a linear velocity the stress is the same everywhere, so on a closed surface it cancels.
        assertThat(((Tally) rubbed("skin", new Newtonian("U", "mu", 0), new Point(0, 0, 1))).value())
                .isCloseTo(0, within(1e-9));
        assertThat(((Outcome.Absent) rubbed("top", new Newtonian("U", "nu", 0), x)).reason())
                .contains("kinematic viscosity in m2/s; multiply it by the density");
        assertThat(((Outcome.Absent) rubbed("top", new Newtonian("U", "p", 0), x)).reason())
                .contains("is used as a dynamic viscosity but its unit is Pa");
        assertThat(((Outcome.Absent) rubbed("top", new Newtonian("U", "", 0), x)).reason())
                .contains("need a dynamic viscosity");
        assertThatThrownBy(() -> new Loads("p", 0, "tau", Loads.On.WALL, Loads.On.WALL, new Newtonian("U", "mu", 0)))
                .hasMessageContaining("not from both");
        // In a load, with a pressure: each part by itself.
        var loads = new Loads("p", 0, "", Loads.On.WALL, Loads.On.FLUID, new Newtonian("U", "mu", 0));
        Outcome all = read(
                new LoadOf(List.of("top"), loads, new Point(0, 0, 0), x, new Point(0, 1, 0), null, LoadOf.Which.ALONG));
        assertThat(number(all, "along")).isCloseTo(2, within(1e-9));
        assertThat(number(all, "across")).isCloseTo(-(1000 + 40 * 0.25 - 10 * 2), within(1e-9));
        assertThat(all.scalars().toString()).contains("along, viscous part", "across, pressure part");
    }

    private static double quadrature(Outcome of) {
        return of.numbers().getFirst().uncertainty().half();
    }

    /** What the next rule, or half of the samples, gives differs by about the error that there is. */
    @Test
    void howWellANumberIsIntegratedStandsBesideIt() {
        Outcome made = read(new TallyOf(List.of("all"), new Integral("grown")));
        double error = made.numbers().getFirst().value() - 0.5 * (Math.exp(18) - Math.exp(6)) / 6;
        assertThat(quadrature(made)).isCloseTo(Math.abs(error), within(0.02 * Math.abs(error)));
        assertThat(made.scalars()).anySatisfy(s -> {
            assertThat(s.what()).isEqualTo("quadrature");
            assertThat(s.estimate().value()).isEqualTo(quadrature(made));
        });
        Outcome skin = read(new TallyOf(List.of("skin"), new Integral("grown")));
        double exact = 2 * (1 + 0.5) * (Math.exp(18) - Math.exp(6)) / 6 + 0.5 * (Math.exp(18) + Math.exp(6));
        error = skin.numbers().getFirst().value() - exact;
        assertThat(quadrature(skin)).isCloseTo(Math.abs(error), within(0.02 * Math.abs(error)));
        // A polynomial is exact, and nothing is said.
        Outcome straight = read(new TallyOf(List.of("all"), new Integral("T")));
        assertThat(quadrature(straight)).isNaN();
        assertThat(straight.scalars()).hasSize(1);
        // The trapezoids of nine samples of x^2 differ from those of five by three times their own error, L h^2 f'' /
        // 12.
        Outcome along = read(new TallyOf(List.of("near"), new Integral("x2")));
        assertThat(quadrature(along)).isCloseTo(3 * 2 * 0.0625 * 2 / 12, within(1e-12));
        // Where that is all that is known, no uncertainty is stated, and verdicts count with it all the same.
        var doubt = along.numbers().getFirst().uncertainty();
        assertThat(doubt.stated()).isFalse();
        assertThat(doubt.told()).isNaN();
        assertThat(doubt.counted()).isEqualTo(quadrature(along));
    }

    /** The residual is known as well as its terms are together. */
    @Test
    void termsOfABalanceBringHowWellTheyAreKnown() {
        var made = (Balance) read(
                new BalanceOf(
                        List.of(
                                new BalanceOf.Term("a", 1, List.of("left"), new Integral("grown")),
                                new BalanceOf.Term("b", -1, List.of("right"), new Integral("grown"))),
                        List.of("skin"),
                        ""),
                "",
                "run");
        double a = made.terms().get(0).doubt().half();
        double b = made.terms().get(1).doubt().half();
        assertThat(a).isPositive();
        assertThat(quadrature(made)).isCloseTo(Math.hypot(a, b), within(1e-12 * b));
    }

    @Test
    void aBalanceHasTermsOverCellsAndTypedOnes() {
        var balance = new BalanceOf(
                List.of(
                        new BalanceOf.Term("out", -1, List.of("skin"), heat("", 0.5)),
                        new BalanceOf.Term("made", 1, List.of("left", "right"), new Integral("q")),
                        new BalanceOf.Term("lamp", 1, List.of(), new Given(1.5, "kW", "data sheet of the lamp"))),
                List.of(),
                "positive heats the tray");
        var made = (Balance) read(balance, "W", "run");
        assertThat(made.terms().get(1).value()).isCloseTo(7 * VOLUME, within(1e-12));
        assertThat(made.terms().get(2).value()).isEqualTo(1500);
        assertThat(made.terms().get(2).over()).contains("typed by hand", "data sheet of the lamp");
        assertThat(made.residual()).isCloseTo(made.terms().getFirst().value() + 1507, within(1e-9));
        assertThat(made.trail().toString()).contains("data sheet of the lamp", "left");
        assertThatThrownBy(() -> new Given(1, "W", " ")).hasMessageContaining("needs its source");
        var placed = new BalanceOf(
                List.of(
                        new BalanceOf.Term("out", -1, List.of("skin"), heat("", 0.5)),
                        new BalanceOf.Term("lamp", 1, List.of("skin"), new Given(1.5, "kW", "sheet"))),
                List.of(),
                "");
        assertThat(((Outcome.Absent) read(placed)).reason()).contains("leave the stations out");
    }

    /** T = 300 + x^2 + 2 y at nodes of a grid of 0.25 m: along x the steps grow, along y they are 0.5, along z there are none. */
    @Test
    void jumpsAlongEdges() {
        var ask = new JumpOf(
                List.of("all"), "T", JumpOf.Relative.ABSOLUTE, 0.49, "K", JumpOf.Which.GREATEST, JumpOf.Across.EDGES);
        Outcome made = read(ask);
        assertThat(made.numbers().getFirst().value()).isCloseTo(3 * 3 - 2.75 * 2.75, within(1e-12));
        assertThat(number(made, "place x")).isCloseTo(2.875, within(1e-12));
        // Edges along y: 9 x 4 x 3. Along x those from 1 + k/4 on with 0.5 x + 0.0625 above 0.49, which are all, 8 x 5
        // x 3.
        assertThat(number(made, "count")).isEqualTo(9 * 4 * 3 + 8 * 5 * 3);
        assertThat(number(made, "share")).isCloseTo(228 / (228.0 + 9 * 5 * 2), within(1e-12));
        assertThat(made.scalars().getFirst().remark()).contains("between the ends of an edge");
        // Shapes without a table of edges, and in part of the mesh only.
        for (CellShape shape : List.of(CellShape.POLYHEDRON, CellShape.TETRAHEDRON, CellShape.HEXAHEDRON20)) {
            Mesh mesh = BoxMesh.of(shape, new int[] {2, 1, 1}, new double[] {2, 1, 1}, 0, 0);
            boolean[] in = new boolean[mesh.cellCount()];
            java.util.Arrays.fill(in, true);
            int found = Neighbours.edges(mesh, in).size();
            assertThat(found).isEqualTo(shape == CellShape.TETRAHEDRON ? edgesOfTetrahedra(mesh) : 20);
        }
    }

    private static int edgesOfTetrahedra(Mesh mesh) {
        var all = new java.util.HashSet<List<Integer>>();
        for (int c = 0; c < mesh.cellCount(); c++) {
            for (int a = 0; a < 4; a++) {
                for (int b = 0; b < a; b++) {
                    int p = mesh.nodes()[mesh.begin(c) + a];
                    int q = mesh.nodes()[mesh.begin(c) + b];
                    all.add(List.of(Math.min(p, q), Math.max(p, q)));
                }
            }
        }
        return all.size();
    }

    private static JumpOf jump(JumpOf.Relative relative, double threshold, String unit, JumpOf.Which which) {
        return new JumpOf(List.of("all"), "T", relative, threshold, unit, which);
    }

    /** Between the middles of cells of 0.25 m: half of a face's x along x, 0.5 along y, nothing along z. */
    @Test
    void jumpsBetweenNeighbours() {
        Outcome made = read(jump(JumpOf.Relative.ABSOLUTE, 1010, "mK", JumpOf.Which.COUNT));
        assertThat(number(made, "greatest")).isCloseTo(1.375, within(1e-9));
        assertThat(number(made, "place x")).isCloseTo(2.75, within(1e-12));
        assertThat(number(made, "count")).isEqualTo(3 * 4 * 2);
        assertThat(number(made, "share")).isCloseTo(24 / (56 + 48 + 32.0), within(1e-12));
        assertThat(number(made, "least x")).isCloseTo(2.25, within(1e-12));
        assertThat(number(made, "greatest y")).isCloseTo(0.875, within(1e-12));
        assertThat(((Several) made).of("greatest").orElseThrow().unit().fromSi(1))
                .isEqualTo(1);
        Outcome share = read(jump(JumpOf.Relative.RANGE, 0.1, "", JumpOf.Which.GREATEST));
        // From the middle of the first cell to that of the last: 7.4375 - 0.03125 + ... as the nodes stand.
        double range = (2.75 * 2.75 + 9) / 2 - (1 + 1.25 * 1.25) / 2 + 1.5;
        assertThat(share.numbers().getFirst().value()).isCloseTo(1.375 / range, within(1e-9));
        assertThat(((Outcome.Absent) read(jump(JumpOf.Relative.MEAN, 0, "", JumpOf.Which.COUNT))).reason())
                .contains("depends on where its scale begins");
        assertThatThrownBy(() -> jump(JumpOf.Relative.RANGE, -1, "", JumpOf.Which.COUNT))
                .hasMessageContaining("not negative");
        var field = (Tally) read(new TallyOf(List.of("all"), new Extreme("jump", true)), "degC", "run");
        assertThat(field.value()).isCloseTo(1.375, within(1e-9));
        assertThat(field.unit().fromSi(field.value())).isCloseTo(1.375, within(1e-9));
    }

    /** A file in mbar gives the same jumps as one in Pa: 2.5 Pa along x, 10 Pa along z. */
    @Test
    void jumpsInTheUnitOfTheFile() {
        Outcome made = read(new JumpOf(List.of("all"), "g", JumpOf.Relative.ABSOLUTE, 5, "Pa", JumpOf.Which.GREATEST));
        assertThat(made.numbers().getFirst().value()).isCloseTo(10, within(1e-9));
        assertThat(made.numbers().getFirst().shown()).isCloseTo(0.1, within(1e-11));
        assertThat(number(made, "count")).isEqualTo(8 * 4);
        var field = (Tally) read(new TallyOf(List.of("all"), new Extreme("step", true)), "Pa", "run");
        assertThat(field.estimate().shown()).isCloseTo(10, within(1e-9));
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON", "HEXAHEDRON20"})
    void everyInnerFaceHasTwoCells(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {3, 2, 2}, new double[] {3, 2, 2}, 0.1, 3);
        Neighbours near = Neighbours.of(mesh);
        int faces = 0;
        var cell = new Cell(mesh);
        for (int c = 0; c < mesh.cellCount(); c++) {
            faces += cell.load(c).faces().length;
        }
        assertThat(2 * near.size() + Topology.boundary(mesh).size()).isEqualTo(faces);
        assertThat(near.first()).hasSameSizeAs(near.second());
    }

    @Test
    void whereAConditionHolds() {
        Outcome cells = read(new ExtentOf(List.of("all"), "warm", At.CELLS, ExtentOf.Which.SIZE));
        // Middles of cells: x^2 is taken between nodes.
        int count = 0;
        double least = Double.POSITIVE_INFINITY;
        for (int i = 0; i < 8; i++) {
            double a = 1 + 0.25 * i;
            for (int j = 0; j < 4; j++) {
                if (300 + (a * a + (a + 0.25) * (a + 0.25)) / 2 + 2 * (0.125 + 0.25 * j) > 306) {
                    count += 2;
                    least = Math.min(least, a + 0.125);
                }
            }
        }
        assertThat(number(cells, "count")).isEqualTo(count);
        assertThat(number(cells, "share")).isCloseTo(count / 64.0, within(1e-12));
        assertThat(cells.numbers().getFirst().value()).isCloseTo(count / 64.0 * VOLUME, within(1e-12));
        assertThat(number(cells, "least x")).isCloseTo(least, within(1e-12));
        assertThat(number(cells, "greatest z")).isCloseTo(0.375, within(1e-12));
        assertThat(number(cells, "pieces")).isEqualTo(1);
        Outcome nodes = read(new ExtentOf(List.of("all"), "warm", At.NODES, ExtentOf.Which.GREATEST_X), "mm", "run");
        assertThat(nodes.numbers().getFirst().shown()).isCloseTo(3000, within(1e-9));
        Outcome faces = read(new ExtentOf(List.of("skin"), "", At.CELLS, ExtentOf.Which.SIZE));
        assertThat(faces.numbers().getFirst().value()).isCloseTo(7, within(1e-12));
        assertThat(((Outcome.Absent) read(new ExtentOf(List.of("all"), "T", At.CELLS, ExtentOf.Which.COUNT))).reason())
                .contains("is a number; an extent is that of a condition");
    }
}
