package lane.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceIntegral;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.PartEdit;
import lane.field.Run;
import lane.field.Treatment;
import lane.field.Turn;
import lane.field.Values;
import lane.measure.Area;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Force;
import lane.measure.Loads;
import lane.measure.Loads.On;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.measure.Moment;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.provenance.Provenance;
import lane.quantity.Component;
import lane.quantity.Quantity;
import lane.reading.BalanceOf.Term;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.Placement;
import lane.station.Placer;
import lane.station.Sampling;
import lane.station.Shape;
import lane.station.Station;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A ring of radius 1 to 2 m and length 3 m, as a plane mesh and as a wedge, against integrals over the full turn. */
class TurnTest {
    private static final Axis SKEW = new Axis(new Point(0.3, -1, 2), new Point(1, 2, 2), new Point(0, 1, 0));
    private static final List<Quantity> QUANTITIES = List.of(
            new Quantity("p", "p", "p", Component.ALL, ""),
            new Quantity("u", "u", "u", Component.ALL, ""),
            new Quantity("ux", "ux", "u", Component.X, ""),
            new Quantity("swirl", "swirl", "u", Component.SWIRL, ""),
            new Quantity("radial", "radial", "u", Component.RADIAL, ""),
            new Quantity("tau", "tau", "tau", Component.ALL, ""));

    /** u = (radial 0, swirl r, axial r + 1), p = axial, tau = swirl 1 at every node; file axes as asked. */
    private static Run meridian(String radius, String along, Axis axis) {
        int r = "xyz".indexOf(radius);
        int h = "xyz".indexOf(along);
        int third = 3 - r - h;
        boolean right = (h + 1) % 3 == r;
        int n = 5;
        double[] xyz = new double[3 * n * n];
        double[] u = new double[3 * n * n];
        double[] p = new double[n * n];
        double[] tau = new double[3 * n * n];
        for (int i = 0; i < n * n; i++) {
            double radial = 1 + (double) (i % n) / (n - 1);
            double axial = 3.0 * (i / n) / (n - 1);
            xyz[3 * i + r] = radial;
            xyz[3 * i + h] = axial;
            u[3 * i + third] = right ? radial : -radial;
            u[3 * i + h] = radial + 1;
            p[i] = axial;
            tau[3 * i + third] = right ? 1 : -1;
        }
        List<Integer> nodes = new ArrayList<>();
        for (int c = 0; c < (n - 1) * (n - 1); c++) {
            int o = c / (n - 1) * n + c % (n - 1);
            nodes.addAll(List.of(o, o + 1, o + n + 1, o + n));
        }
        Mesh mesh = Mesh.uniform(
                xyz, CellShape.QUAD, nodes.stream().mapToInt(i -> i).toArray());
        Run run = run(mesh, u, p, tau, new Turn(radius, along));
        Turn turn = run.stated().turn();
        return turn.apply(run, turn.place(mesh, axis), axis);
    }

    private static Run run(Mesh mesh, double[] u, double[] p, double[] tau, Turn turn) {
        Run run = new Run(
                mesh,
                List.of(
                        new Field("u", Field.At.NODE, 3, Unit.of("m/s"), Values.of(u)),
                        new Field("p", Field.At.NODE, 1, Unit.of("Pa"), Values.of(p)),
                        new Field("tau", Field.At.NODE, 3, Unit.of("Pa"), Values.of(tau))),
                List.of(new PartBuilder(mesh).whole("all")),
                List.of(),
                List.of());
        return Treatment.NONE.withTurn(turn).with(new PartEdit.Split("all", 30)).apply(run);
    }

    /** The same ring as a wedge about z, its faces one cell thick. */
    private static Run wedge(double degrees) {
        Mesh box = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 1, 4}, new double[] {1, 1, 1}, 0, 1);
        double[] x = box.xyz();
        double[] to = new double[x.length];
        double[] u = new double[x.length];
        double[] p = new double[x.length / 3];
        double[] tau = new double[x.length];
        for (int i = 0; i < x.length; i += 3) {
            double r = 1 + x[i];
            double a = Math.toRadians(degrees) * (x[i + 1] - 0.3);
            to[i] = r * Math.cos(a);
            to[i + 1] = r * Math.sin(a);
            to[i + 2] = 3 * x[i + 2];
            u[i] = -r * Math.sin(a);
            u[i + 1] = r * Math.cos(a);
            u[i + 2] = r + 1;
            p[i / 3] = 3 * x[i + 2];
            tau[i] = -Math.sin(a);
            tau[i + 1] = Math.cos(a);
        }
        return run(box.withNodes(to), u, p, tau, Turn.WEDGE);
    }

    /** The part whose mean normal has this radial and axial component. */
    private static Part part(Run run, Axis axis, double radial, double along) {
        EvaluationContext lens = EvaluationContext.of(List.of(), List.of(), axis);
        for (Part part : run.parts()) {
            double[] s = new SurfaceIntegral(
                            run.with(run.fields(), run.parts(), List.of(), lane.field.Stated.NOTHING),
                            List.of(part),
                            lens,
                            Memo.NONE)
                    .of("normal", List.of(), 3, (at, sums) -> {
                        sums[0].add(at.nx, at.n);
                        sums[1].add(at.ny, at.n);
                        sums[2].add(at.nz, at.n);
                    });
            double[] x = part.surface().xyz();
            Point n = new Point(s[0], s[1], s[2]).unit();
            Point out = new Point(x[0], x[1], x[2]).minus(axis.origin());
            out = out.minus(axis.direction().times(out.dot(axis.direction()))).unit();
            if (Math.abs(n.dot(axis.direction()) - along) < 0.02 && Math.abs(n.dot(out) - radial) < 0.02) {
                return part;
            }
        }
        throw new IllegalStateException("no such part among " + run.parts().size());
    }

    private static double read(Run run, Axis axis, Part part, Measure measure) {
        return TallyReader.read(
                        run,
                        List.of(part),
                        measure,
                        EvaluationContext.of(QUANTITIES, List.of(), axis),
                        "",
                        Provenance.EMPTY,
                        Memo.NONE)
                .value();
    }

    @ParameterizedTest
    @CsvSource({"x,y", "y,x", "x,z", "z,x", "y,z", "z,y"})
    void aPlaneRunStandsForTheFullTurn(String radius, String along) {
        check(meridian(radius, along, SKEW), SKEW, 1e-12);
        check(meridian(radius, along, Axis.Z), Axis.Z, 1e-12);
    }

    @Test
    void aWedgeStandsForTheFullTurnUpToItsFacets() {
        // Between chords lies less than between arcs, by the square of the angle.
        check(wedge(10), Axis.Z, 2e-2);
        check(wedge(1), Axis.Z, 2e-4);
    }

    private static void check(Run run, Axis axis, double share) {
        Part outer = part(run, axis, 1, 0);
        Part inner = part(run, axis, -1, 0);
        Part end = part(run, axis, 0, 1);
        near(read(run, axis, outer, new Area()), 2 * Math.PI * 2 * 3, share);
        near(read(run, axis, inner, new Area()), 2 * Math.PI * 3, share);
        near(read(run, axis, end, new Area()), 3 * Math.PI, share);
        // Integral of (r + 1) 2 pi r from 1 to 2, and with it r times the swirl speed r.
        near(read(run, axis, end, new Flow("u", 1, "1", Carried.NOTHING, axis)), 2 * Math.PI * (7.0 / 3 + 1.5), share);
        near(
                read(run, axis, end, new Flow("u", 1, "1", Carried.ANGULAR_MOMENTUM, axis)),
                2 * Math.PI * (31.0 / 5 + 15.0 / 4),
                share);
        near(read(run, axis, end, new Mean("swirl")), 2 * Math.PI * 7 / 3 / (3 * Math.PI), share);
        // A component along a fixed direction across the axis cancels over the turn.
        Point across = axis.quarter();
        var loads = new Loads("p", 0, "tau", On.WALL, On.WALL);
        assertThat(read(run, axis, outer, new Force(loads, across))).isCloseTo(0, within(1e-11));
        near(read(run, axis, end, new Force(loads, axis.direction())), 3 * 3 * Math.PI, share);
        // tau = 1 Pa on the outer wall at radius 2; an axis beside it sees the same couple, and the end's force too.
        near(read(run, axis, outer, new Moment(loads, axis)), 2 * 2 * Math.PI * 2 * 3, share);
        var beside = new Axis(axis.origin().plus(across), axis.zero());
        var pressure = new Loads("p", 0, "", On.WALL, On.WALL);
        // Force 9 pi along the axis, one metre from an axis along zero: (-quarter) x direction . zero = -1.
        near(read(run, axis, end, new Moment(pressure, beside)), -9 * Math.PI, share);
    }

    private static void near(double is, double expected, double share) {
        assertThat(is).isCloseTo(expected, within(share * Math.abs(expected)));
    }

    @Test
    void theRegionIsClosedWithoutTheSidesOfAWedge() {
        for (Run run : List.of(wedge(10), meridian("x", "y", Axis.Z))) {
            List<Part> parts = List.of(
                    part(run, Axis.Z, 1, 0),
                    part(run, Axis.Z, -1, 0),
                    part(run, Axis.Z, 0, 1),
                    part(run, Axis.Z, 0, -1));
            Measure flow = new Flow("u", 1, "1", Carried.NOTHING, Axis.Z);
            List<String> names = parts.stream().map(Part::name).toList();
            var reading = new Reading(
                    "b", "b", "", new BalanceOf(List.of(new Term("through", 1, names, flow)), List.of(), "out"));
            Balance balance = BalanceReader.read(
                    run,
                    reading,
                    s -> List.of(run.part(s)),
                    EvaluationContext.of(QUANTITIES, List.of(), Axis.Z),
                    Provenance.EMPTY,
                    Memo.NONE);
            assertThat(balance.residual()).isCloseTo(0, within(1e-12));
            var open = new Reading(
                    "b",
                    "b",
                    "",
                    new BalanceOf(List.of(new Term("through", 1, names.subList(1, 4), flow)), List.of(), "out"));
            assertThatThrownBy(() -> BalanceReader.read(
                            run,
                            open,
                            s -> List.of(run.part(s)),
                            EvaluationContext.of(QUANTITIES, List.of(), Axis.Z),
                            Provenance.EMPTY,
                            Memo.NONE))
                    .isInstanceOf(LaneException.class)
                    .hasMessageContaining("open");
        }
    }

    @ParameterizedTest
    @CsvSource({"even", "exact"})
    void aLineAnywhereInSpaceReadsTheTurnedRun(String how) {
        Axis axis = SKEW;
        Run run = meridian("z", "x", axis);
        // Straight across the ring and its hole, at an angle of two radians.
        Point a = axis.place(2, 2, 1.2);
        Point b = axis.place(2, 2 + Math.PI, 1.8);
        var line = new Station(
                "l",
                "l",
                new Line(a, b, how.equals("even") ? new Sampling.Even(81) : new Sampling.CellExact(), Abscissa.RADIUS));
        Placement placed = Placer.path(run.locator(), (Shape.Path) line.shape(), axis, Work.QUIET);
        EvaluationContext lens = EvaluationContext.of(QUANTITIES, List.of(), axis);
        Profile swirl = ProfileReader.read(run, placed, line, lens.quantity("swirl"), lens, "", Provenance.EMPTY);
        Profile radial = ProfileReader.read(run, placed, line, lens.quantity("radial"), lens, "", Provenance.EMPTY);
        Profile ux = ProfileReader.read(run, placed, line, lens.quantity("ux"), lens, "", Provenance.EMPTY);
        int found = 0;
        double length = 0;
        for (int i = 0; i < swirl.size(); i++) {
            double r = swirl.abscissa()[i];
            boolean inside = r > 1 + 1e-9 && r < 2 - 1e-9;
            if (placed.cell()[i] < 0) {
                assertThat(r).isLessThan(1 + 1e-9);
                continue;
            }
            found++;
            length += placed.weight()[i];
            if (inside) {
                assertThat(swirl.value()[i]).isCloseTo(r, within(1e-12));
                assertThat(radial.value()[i]).isCloseTo(0, within(1e-12));
                Point p = placed.place(i);
                double angle = axis.angle(p.x(), p.y(), p.z());
                Point around =
                        axis.quarter().times(Math.cos(angle)).minus(axis.zero().times(Math.sin(angle)));
                Point u = around.times(r).plus(axis.direction().times(r + 1));
                assertThat(ux.value()[i]).isCloseTo(u.x(), within(1e-12));
            }
        }
        assertThat(found).isGreaterThan(20);
        if (how.equals("exact")) {
            // Half of the line lies in the ring, radius 1 to 2 on both sides.
            assertThat(length).isCloseTo(((Shape.Path) line.shape()).length() / 2, within(1e-9));
        }
    }

    @Test
    void whatCannotBeIsRefused() {
        assertThatThrownBy(() -> new Turn("x", "x")).hasMessageContaining("two different");
        assertThatThrownBy(() -> new Axis(new Point(0, 0, 0), new Point(0, 0, 1), new Point(0, 0, 3)))
                .hasMessageContaining("angle zero");
        Mesh below = Mesh.uniform(new double[] {0, -1, 0, 1, 0, 0, 0, 1, 0}, CellShape.TRIANGLE, new int[] {0, 1, 2});
        assertThatThrownBy(() -> new Turn("y", "x").place(below, Axis.Z)).hasMessageContaining("negative");
        Run full = run(
                BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 1),
                new double[81],
                new double[27],
                new double[81],
                Turn.WEDGE);
        var about = new Axis(new Point(0.5, 0.5, 0), new Point(0, 0, 1));
        assertThatThrownBy(() -> read(full, about, full.parts().getFirst(), new Area()))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("degrees about the axis");
    }
}
