package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.evaluation.CutCurveBranches;
import lane.evaluation.EvaluationContext;
import lane.evaluation.StationResolver;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.PartPlaces;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellMeasures;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Component;
import lane.quantity.Quantity;
import lane.reading.FieldDifference;
import lane.station.Abscissa;
import lane.station.Arc;
import lane.station.Box;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.Enclosing;
import lane.station.Facing;
import lane.station.Frame;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Sheet;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.station.Within;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Frames that stations stand in, and what came with them, against exact answers. */
class FramesTest {
    private static final Point O = new Point(0, 0, 0);

    private static Frame frame(String id, String parent, Point origin, boolean own, Frame.Rotation... steps) {
        return new Frame(id, id, parent, origin, new Frame.Attitude.Turned(List.of(steps), own), false, "");
    }

    private static void close(Point a, Point b) {
        assertThat(a.minus(b).norm()).as(a + " against " + b).isLessThan(1e-12);
    }

    @Test
    void turnsFollowInOrderAboutOuterOrOwnAxes() {
        var z = new Frame.Rotation("z", 90);
        var x = new Frame.Rotation("x", 90);
        // Outer: x goes to y, then about x to z. Own: x goes to y and stays, as the second turn is about it.
        close(frame("a", "", O, false, z, x).axis().zero(), new Point(0, 0, 1));
        close(frame("a", "", O, true, z, x).axis().zero(), new Point(0, 1, 0));
        close(frame("a", "", O, true, z, x).axis().direction(), new Point(1, 0, 0));
        assertThat(frame("a", "", O, true, z, x).words())
                .isEqualTo("turned by 90° about z, then by 90° about x, each of the frame itself");
        // Own turns are outer ones in the other order.
        Axis own = frame("a", "", O, true, new Frame.Rotation("z", 20), new Frame.Rotation("y", 35))
                .axis();
        Axis outer = frame("a", "", O, false, new Frame.Rotation("y", 35), new Frame.Rotation("z", 20))
                .axis();
        close(own.zero(), outer.zero());
        close(own.direction(), outer.direction());
    }

    @Test
    void framesNestAndLoopsAreRefused() {
        Study s = Study.empty("s").withFrames(l -> {
            l.add(frame("a", "", new Point(1, 0, 0), false, new Frame.Rotation("z", 90)));
            l.add(frame("b", "a", new Point(2, 0, 0), false, new Frame.Rotation("x", 90)));
            return l;
        });
        // b's origin is 2 along a's x, which is the global y; its z is a's y turned up: a's -y, so the global x.
        close(s.placed("b").origin(), new Point(1, 2, 0));
        close(s.placed("b").direction(), new Point(1, 0, 0));
        Study loop = s.with(frame("a", "b", O, false));
        assertThatThrownBy(() -> loop.placed("a"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("stands in itself: a in b in a");
        assertThatThrownBy(() -> s.placed("c"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("no frame");
    }

    @Test
    void threePointsGiveOriginXAndThePlane() {
        Frame.Attitude a = Frame.through(new Point(1, 1, 1), new Point(1, 3, 1), new Point(1, 1, 5));
        Axis axis = new Frame("f", "f", "", O, a, false, "").axis();
        close(axis.zero(), new Point(0, 1, 0));
        close(axis.quarter(), new Point(0, 0, 1));
        assertThatThrownBy(() -> Frame.through(O, new Point(1, 1, 1), new Point(2, 2, 2)))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("one line");
    }

    private static List<Station> all() {
        Point a = new Point(0.1, 0.2, 0.3);
        Point b = new Point(0.5, -0.2, 0.7);
        var even = new Sampling.Even(5);
        var box = new Box(O, new Point(1, 2, 3));
        return List.of(
                new Station("1", "1", new Line(a, b, even, Abscissa.RADIUS)),
                new Station("2", "2", new Arc(new Axis(a, b), 2, 1, 10, 50, even, Abscissa.ANGLE)),
                new Station("3", "3", new Polyline(List.of(a, b, O), even, Abscissa.of("s / length"))),
                new Station("4", "4", new Points(List.of(a))),
                new Station("5", "5", new OnPart("p", List.of(), new Facing(a, 20), box)),
                new Station("6", "6", new Section(a, b, box, b)),
                new Station("7", "7", new Shell(new Axis(a, b), 1, null, null, 30)),
                new Station("8", "8", new Sheet("f", "mm", a, b, false)),
                new Station("9", "9", new CutCurve(a, b, List.of(), Extent.LENGTH, a, 0, List.of(0.1, 0.2))),
                new Station("10", "10", new Sweep(new Axis(a, b), 0, 1, 3, 0)),
                new Station("11", "11", new Region(new Within.Ball(a, 1))),
                new Station("12", "12", new Region(new Within.Cylinder(new Axis(a, b), 1, 0, 1))),
                new Station("13", "13", new Region(new Within.InBox(box))));
    }

    /** Whatever frame a station is put in, it stays where it is, and comes back as it was. */
    @Test
    void aStationStaysWhereItIsInAnyFrame() {
        Study s = Study.empty("s")
                .withFrames(l -> {
                    l.add(frame("a", "", new Point(1, 2, 3), false, new Frame.Rotation("y", 33)));
                    l.add(frame("b", "a", new Point(-1, 0, 2), true, new Frame.Rotation("x", 71)));
                    return l;
                })
                .withStations(l -> {
                    l.addAll(all());
                    return l;
                });
        var random = new Random(3);
        double[] p = random.doubles(30, -2, 2).toArray();
        for (Station station : all()) {
            Study in = s.inFrame(station.id(), "b");
            assertThat(in.station(station.id()).orElseThrow().frame()).isEqualTo("b");
            same(in.placed(in.station(station.id()).orElseThrow()), station, p);
            Study back = in.inFrame(station.id(), "a").inFrame(station.id(), "");
            assertThat(back.station(station.id()).orElseThrow().frame()).isEmpty();
            same(back.station(station.id()).orElseThrow(), station, p);
        }
    }

    private static void same(Station one, Station other, double[] at) {
        same(one.shape(), other.shape(), at);
    }

    private static void same(Shape a, Shape b, double[] at) {
        assertThat(a.getClass()).isEqualTo(b.getClass());
        switch (a) {
            case Shape.Path x -> {
                List<Point> there = ((Shape.Path) b).corners();
                for (int i = 0; i < there.size(); i++) {
                    close(x.corners().get(i), there.get(i));
                }
            }
            case Points x -> close(x.points().getFirst(), ((Points) b).points().getFirst());
            case Section x -> {
                close(x.point(), ((Section) b).point());
                close(x.normal(), ((Section) b).normal());
                held(x.box(), ((Section) b).box(), at);
            }
            case OnPart x -> held(x.box(), ((OnPart) b).box(), at);
            case Shell x -> close(x.axis().zero(), ((Shell) b).axis().zero());
            case Sweep x -> close(x.axis().origin(), ((Sweep) b).axis().origin());
            case CutCurve x -> {
                for (int i = 0; i < 2; i++) {
                    close(x.planes().get(i), ((CutCurve) b).planes().get(i));
                }
            }
            case Sheet x -> {
                Mesh file = Mesh.uniform(
                        new double[] {0, 0, 0, 500, 0, 0, 0, 700, 900}, CellShape.TRIANGLE, new int[] {0, 1, 2});
                double[] xyz = x.placed(file).xyz();
                double[] there = ((Sheet) b).placed(file).xyz();
                for (int i = 0; i < xyz.length; i++) {
                    assertThat(xyz[i]).isCloseTo(there[i], within(1e-12));
                }
            }
            case Region x -> {
                if (x.within() instanceof Within.InBox box) {
                    held(box.box(), ((Within.InBox) ((Region) b).within()).box(), at);
                }
            }
            default -> throw new AssertionError("not compared: " + a);
        }
    }

    private static void held(Box a, Box b, double[] at) {
        for (int i = 0; i < at.length; i += 3) {
            assertThat(a.holds(at[i], at[i + 1], at[i + 2])).isEqualTo(b.holds(at[i], at[i + 1], at[i + 2]));
        }
    }

    @Test
    void abscissasByFormulaAndInAFrame() {
        double[] xyz = {1, 0, 0, 0, 1, 0, -1, 0, 0, 0, -1, 0, 1, 0, 0};
        double[] arc = {0, 1, 2, 3, 4};
        assertThat(Abscissa.of("radius * s / length + x").of(arc, 4, xyz, Axis.Z))
                .containsExactly(1, 0.25, -0.5, 0.75, 2);
        assertThat(Abscissa.of("s / 10 \"mm\"").unit()).isEqualTo(Unit.ONE);
        assertThat(Abscissa.of("2 * s").unit().symbol()).isEqualTo("m");
        // An angle goes on over a whole turn.
        double[] angle = Abscissa.ANGLE.of(arc, 4, xyz, Axis.Z);
        assertThat(angle[4]).isCloseTo(2 * Math.PI, within(1e-12));
        var axis = new Axis(new Point(1, 0, 0), new Point(0, 1, 0), new Point(0, 0, 1));
        Shape line = new Line(O, new Point(0, 0, 1), new Sampling.Even(2), Abscissa.X).through(axis);
        // The frame's x is the global z, so points along the frame's z keep their x.
        assertThat(((Line) line).abscissa().of(arc, 4, xyz, Axis.Z)).containsExactly(0, 0, 0, 0, 0);
        for (String wrong : List.of("p", "s +", "s + 1", "u.x", "[s, s, s]", "cell_volume")) {
            assertThatThrownBy(() -> Abscissa.of(wrong)).as(wrong).isInstanceOf(LaneException.class);
        }
        assertThat(Abscissa.parse(Abscissa.of("s ^ 2").text())).isEqualTo(Abscissa.of("s ^ 2"));
        assertThat(Abscissa.parse("RADIUS")).isEqualTo(Abscissa.RADIUS);
    }

    private static Run run(int[] n) {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, n, new double[] {1, 1, 1}, 0.2, 5);
        double[] t = new double[mesh.nodeCount()];
        for (int i = 0; i < t.length; i++) {
            t[i] = 2 * mesh.xyz()[3 * i] - mesh.xyz()[3 * i + 1] + 3 * mesh.xyz()[3 * i + 2];
        }
        return new Run(
                mesh,
                List.of(new Field("T", Field.At.NODE, 1, Unit.of("K"), Values.of(t))),
                List.of(new PartBuilder(mesh).whole("skin")),
                List.of(),
                List.of());
    }

    @Test
    void severalPlanesGiveTheirBranchesInOrder() {
        Run run = run(new int[] {4, 4, 4});
        var curve = new CutCurve(
                O, new Point(0, 0, 1), List.of(), Extent.COORDINATE, new Point(1, 0, 0), 0, List.of(0.7, 0.2, 0.45));
        List<CutCurveBranches.Branch> all =
                CutCurveBranches.of(run, curve, null, EvaluationContext.of(List.of(), List.of(), Axis.Z));
        assertThat(all).hasSize(6);
        double[] z = {0.7, 0.7, 0.2, 0.2, 0.45, 0.45};
        for (int i = 0; i < 6; i++) {
            for (Point p : all.get(i).places()) {
                assertThat(p.z()).isCloseTo(z[i], within(1e-12));
            }
        }
    }

    @Test
    void theSurfaceAroundARegionIsClosedAndBelongsToItsCells() {
        Run run = run(new int[] {4, 4, 4});
        var within = new Within.InBox(new Box(new Point(0.2, 0.2, 0.2), new Point(0.8, 0.8, 1.1)));
        var region = new Station("r", "r", new Region(within));
        Study study = Study.empty("s").withStations(l -> {
            l.add(region);
            l.add(new Station("e", "e", new Enclosing("r")));
            return l;
        });
        Station around = study.station("e").orElseThrow();
        var placed = (Enclosing) study.placed(around).shape();
        var places = new StationResolver(lane.evaluation.SheetFiles.NONE, Memo.NONE);
        EvaluationContext lens = EvaluationContext.of(List.of(), List.of(), Axis.Z);
        Part skin = places.parts(run, "e", placed, java.util.Set.of(), lens, Work.QUIET)
                .getFirst();
        int[] cells = places.cells(run, within, lens);
        // 2 x 2 x 3 cells have 2 (4 + 6 + 6) faces.
        assertThat(cells).hasSize(12);
        assertThat(skin.surface().cellCount()).isEqualTo(32);
        assertThat(java.util.Arrays.stream(skin.owner())).allMatch(o -> java.util.Arrays.binarySearch(cells, o) >= 0);
        double[] sum = new double[3];
        double volume = 0;
        var cell = new Cell(skin.surface());
        double[] c = new double[3];
        for (int f = 0; f < skin.surface().cellCount(); f++) {
            double[] n = CellMeasures.areaVector(cell.load(f));
            cell.centre(c);
            for (int d = 0; d < 3; d++) {
                sum[d] += n[d];
                volume += n[d] * c[d] / 3;
            }
        }
        assertThat(Math.abs(sum[0]) + Math.abs(sum[1]) + Math.abs(sum[2])).isLessThan(1e-13);
        assertThat(volume).as("normals look out").isPositive();
        assertThatThrownBy(() -> study.withStations(l -> {
                            l.removeFirst();
                            return l;
                        })
                        .placed(around))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("not in the study");
    }

    @Test
    void theDifferenceOfTwoMeshesOfOneLinearFieldIsZero() {
        var q = new Quantity("t", "T", "T", Component.ALL, "");
        EvaluationContext lens = EvaluationContext.of(List.of(q), List.of(), Axis.Z);
        Run fine = run(new int[] {6, 5, 7});
        Run coarse = run(new int[] {3, 4, 2});
        FieldDifference.Result d = FieldDifference.difference(fine, coarse, q, lens, Work.QUIET);
        assertThat(d.outside()).isZero();
        Field field = d.run().field(FieldDifference.DIFFERENCE).orElseThrow();
        assertThat(field.size()).isEqualTo(coarse.mesh().nodeCount());
        for (int i = 0; i < field.size(); i++) {
            assertThat(field.values().get(i)).isCloseTo(0, within(1e-12));
        }
        // What stands outside the other run is absent and counted, never zero.
        Mesh moved = coarse.mesh().scaled(2);
        Run large = new Run(
                moved,
                List.of(new Field("T", Field.At.NODE, 1, Unit.of("K"), Values.of(new double[moved.nodeCount()]))),
                List.of(),
                List.of(),
                List.of());
        FieldDifference.Result far = FieldDifference.difference(fine, large, q, lens, Work.QUIET);
        assertThat(far.outside()).isGreaterThan(0.5);
        long absent = 0;
        for (int i = 0; i < moved.nodeCount(); i++) {
            absent += Double.isNaN(far.run().fields().getFirst().values().get(i)) ? 1 : 0;
        }
        assertThat((double) absent / moved.nodeCount()).isEqualTo(far.outside());
    }

    @Test
    void placesOfAPart() {
        Part skin = run(new int[] {3, 3, 3}).parts().getFirst();
        close(PartPlaces.centre(skin), new Point(0.5, 0.5, 0.5));
        assertThat(PartPlaces.normal(skin)).isNull();
        assertThat(PartPlaces.extreme(skin, 1, true).y()).isEqualTo(1);
        assertThat(PartPlaces.extreme(skin, 2, false).z()).isEqualTo(0);
    }
}
