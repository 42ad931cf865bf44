package lane.cut;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Sections, isosurfaces and shells against exact areas; planes through nodes, edges and faces lose and double nothing. */
class SlicerTest {
    private static final double[] BOX = {1, 2, 1.5};

    static double area(Mesh m) {
        var cell = new Cell(m);
        double sum = 0;
        for (int f = 0; f < m.cellCount(); f++) {
            sum += cell.load(f).measure();
        }
        return sum;
    }

    private static double[] vector(Mesh m) {
        double[] sum = new double[3];
        double[] n = new double[3];
        for (int f = 0; f < m.cellCount(); f++) {
            Slicer.normal(m.xyz(), m.nodes(), m.begin(f), m.begin(f) + m.size(f), n);
            for (int d = 0; d < 3; d++) {
                sum[d] += n[d] / 2;
            }
        }
        return sum;
    }

    /** Area of the box in a plane, by clipping a large square of the plane with the six sides. */
    private static double exact(Point p, Point normal) {
        Point n = normal.unit();
        Point u = (Math.abs(n.x()) < 0.5 ? new Point(1, 0, 0) : new Point(0, 1, 0))
                .cross(n)
                .unit();
        Point v = n.cross(u);
        var polygon = new java.util.ArrayList<Point>();
        for (int[] c : new int[][] {{1, 1}, {-1, 1}, {-1, -1}, {1, -1}}) {
            polygon.add(p.plus(u.times(10 * c[0])).plus(v.times(10 * c[1])));
        }
        for (int d = 0; d < 3; d++) {
            for (int side = 0; side < 2; side++) {
                var next = new java.util.ArrayList<Point>();
                for (int i = 0; i < polygon.size(); i++) {
                    Point a = polygon.get(i);
                    Point b = polygon.get((i + 1) % polygon.size());
                    double da = side == 0 ? at(a, d) : BOX[d] - at(a, d);
                    double db = side == 0 ? at(b, d) : BOX[d] - at(b, d);
                    if (da >= 0) {
                        next.add(a);
                    }
                    if (da * db < 0) {
                        next.add(a.plus(b.minus(a).times(da / (da - db))));
                    }
                }
                polygon = next;
            }
        }
        Point sum = new Point(0, 0, 0);
        for (int i = 1; i + 1 < polygon.size(); i++) {
            sum = sum.plus(polygon.get(i)
                    .minus(polygon.getFirst())
                    .cross(polygon.get(i + 1).minus(polygon.getFirst())));
        }
        return sum.norm() / 2;
    }

    private static double at(Point p, int d) {
        return d == 0 ? p.x() : d == 1 ? p.y() : p.z();
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"HEXAHEDRON", "VOXEL", "TETRAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void planesInAnyPlaceHaveTheExactArea(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {4, 8, 6}, BOX, 0, 3);
        var random = new Random(7);
        for (int i = 0; i < 60; i++) {
            Point n = new Point(random.nextGaussian(), random.nextGaussian(), random.nextGaussian());
            Point p = new Point(random.nextDouble(), 2 * random.nextDouble(), 1.5 * random.nextDouble());
            // Through nodes, along edges, in faces: whole numbers of cells and directions of the grid.
            if (i % 3 == 1) {
                p = new Point(random.nextInt(5) / 4.0, random.nextInt(9) / 4.0, random.nextInt(7) / 4.0);
            }
            if (i % 3 == 2) {
                p = new Point(random.nextInt(5) / 4.0, random.nextInt(9) / 4.0, random.nextInt(7) / 4.0);
                n = new Point(random.nextInt(3) - 1, random.nextInt(3) - 1, random.nextInt(3) - 1);
                if (n.norm() == 0) {
                    continue;
                }
            }
            Cut cut = PlaneCut.of(mesh, p, n, Work.QUIET);
            double exact = exact(p, n);
            String what = shape + " through " + p + " along " + n;
            Cut again = PlaneCut.of(new lane.mesh.CellLocator(mesh), p, n, Work.QUIET);
            assertThat(again.surface().key()).as(what).isEqualTo(cut.surface().key());
            assertThat(area(cut.surface())).as(what).isCloseTo(exact, within(1e-12 * Math.max(1, exact)));
            // All faces look along the normal: the sum of the area vectors is as long as the area.
            double[] sum = vector(cut.surface());
            assertThat(n.unit().dot(new Point(sum[0], sum[1], sum[2])))
                    .as(what)
                    .isCloseTo(exact, within(1e-12 * Math.max(1, exact)));
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"HEXAHEDRON", "TETRAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void aSectionOfAShakenMeshHasNoGapsAndCarriesLinearFieldsExactly(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {5, 5, 5}, BOX, 0.2, 3);
        Point p = new Point(0.4, 0.9, 0.7);
        Cut cut = PlaneCut.of(mesh, p, new Point(1, 2, -1), Work.QUIET);
        // Every inner edge belongs to two faces, once each way round.
        var edges = new java.util.HashMap<Long, Integer>();
        Mesh m = cut.surface();
        for (int f = 0; f < m.cellCount(); f++) {
            for (int k = 0; k < m.size(f); k++) {
                long a = m.nodes()[m.begin(f) + k];
                long b = m.nodes()[m.begin(f) + (k + 1) % m.size(f)];
                edges.merge(Math.min(a, b) << 32 | Math.max(a, b), a < b ? 1 : -1, Integer::sum);
            }
        }
        edges.forEach((e, times) -> {
            if (times != 0) {
                for (long v : new long[] {e >>> 32, e & 0xffffffffL}) {
                    boolean rim = false;
                    for (int d = 0; d < 3; d++) {
                        double x = m.xyz()[(int) (3 * v + d)];
                        rim |= x < 1e-12 || x > BOX[d] - 1e-12;
                    }
                    assertThat(rim).as("free edge inside").isTrue();
                }
            }
        });
        double[] values = new double[mesh.nodeCount()];
        for (int i = 0; i < values.length; i++) {
            values[i] = 3 * mesh.xyz()[3 * i] - mesh.xyz()[3 * i + 1] + 0.5 * mesh.xyz()[3 * i + 2];
        }
        Values on = cut.stencil().apply(new Field("f", Field.At.NODE, 1, Unit.ONE, Values.of(values)));
        for (int i = 0; i < m.nodeCount(); i++) {
            assertThat(on.get(i))
                    .isCloseTo(3 * m.xyz()[3 * i] - m.xyz()[3 * i + 1] + 0.5 * m.xyz()[3 * i + 2], within(1e-12));
        }
        for (int f = 0; f < m.cellCount(); f++) {
            var owner = new Cell(mesh).load(cut.owner()[f]);
            double[] c = new double[3];
            new Cell(m).load(f);
            var face = new Cell(m).load(f);
            face.centre(c);
            assertThat(owner.nearBox(c[0], c[1], c[2], 1e-9)).isTrue();
        }
    }

    @Test
    void anIsosurfaceOfALinearFieldIsThePlaneAndOneOfASphereConverges() {
        double before = 0;
        for (int n : new int[] {8, 16, 32}) {
            Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {n, n, n}, new double[] {1, 1, 1}, 0, 1);
            double[] plane = new double[mesh.nodeCount()];
            double[] ball = new double[mesh.nodeCount()];
            for (int i = 0; i < plane.length; i++) {
                double x = mesh.xyz()[3 * i];
                double y = mesh.xyz()[3 * i + 1];
                double z = mesh.xyz()[3 * i + 2];
                plane[i] = x + y + z;
                ball[i] = Math.sqrt((x - .5) * (x - .5) + (y - .5) * (y - .5) + (z - .5) * (z - .5));
            }
            Cut flat = Slicer.cut(mesh, Level.of(plane, 1.5), Work.QUIET);
            assertThat(area(flat.surface())).isCloseTo(0.75 * Math.sqrt(3), within(1e-12));
            Cut round = Slicer.cut(mesh, Level.of(ball, 0.37), Work.QUIET);
            double error = Math.abs(area(round.surface()) - 4 * Math.PI * 0.37 * 0.37);
            double[] closed = vector(round.surface());
            assertThat(Math.abs(closed[0]) + Math.abs(closed[1]) + Math.abs(closed[2]))
                    .isLessThan(1e-13);
            if (before > 0) {
                assertThat(Math.log(before / error) / Math.log(2)).isBetween(1.7, 2.4);
            }
            before = error;
        }
    }

    @Test
    void facesWhoseCornersGoUpAndDownTwiceAreJoinedAlikeByBothCells() {
        // Random signs everywhere: every face of the surface must still be closed within the mesh.
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {9, 9, 9}, new double[] {1, 1, 1}, 0.1, 1);
        var random = new Random(5);
        double[] v = random.doubles(mesh.nodeCount(), -1, 1).toArray();
        for (int i = 0; i < v.length; i++) {
            double x = mesh.xyz()[3 * i];
            double y = mesh.xyz()[3 * i + 1];
            double z = mesh.xyz()[3 * i + 2];
            boolean rim = Math.min(Math.min(x, 1 - x), Math.min(Math.min(y, 1 - y), Math.min(z, 1 - z))) < 1e-9;
            v[i] = rim ? -1 : v[i];
        }
        Mesh m = Slicer.cut(mesh, Level.of(v, 0), Work.QUIET).surface();
        assertThat(m.cellCount()).isGreaterThan(500);
        var edges = new java.util.HashMap<Long, Integer>();
        for (int f = 0; f < m.cellCount(); f++) {
            for (int k = 0; k < m.size(f); k++) {
                long a = m.nodes()[m.begin(f) + k];
                long b = m.nodes()[m.begin(f) + (k + 1) % m.size(f)];
                edges.merge(Math.min(a, b) << 32 | Math.max(a, b), 1, Integer::sum);
            }
        }
        assertThat(edges.values()).allMatch(n -> n % 2 == 0);
    }

    static Mesh ring(int around, double inner, double outer, double length) {
        Mesh box = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, around, 5}, new double[] {1, 1, 1}, 0, 1);
        double[] to = new double[box.xyz().length];
        for (int i = 0; i < to.length; i += 3) {
            double r = inner + (outer - inner) * box.xyz()[i];
            // The ends of the ring are not joined; they lie one cell beside angle zero.
            double a = 2 * Math.PI * (box.xyz()[i + 1] + 1.0 / around);
            to[i] = r * Math.cos(a);
            to[i + 1] = r * Math.sin(a);
            to[i + 2] = length * box.xyz()[i + 2];
        }
        return box.withNodes(to);
    }

    @Test
    void sectionsAreLimitedToABoxOrToThePieceThatIsMeant() {
        Mesh mesh = ring(36, 1, 2, 3);
        Cut whole = PlaneCut.of(mesh, new Point(0, 0, 0), new Point(0, 1, 0), Work.QUIET);
        assertThat(area(whole.surface())).isCloseTo(6, within(1e-12));
        Cut right = PlaneCut.nearest(whole, new Point(1.2, 0, 1));
        assertThat(area(right.surface())).isCloseTo(3, within(1e-12));
        assertThat(right.surface().bounds()[0]).isCloseTo(1, within(1e-12));
        Cut box = PlaneCut.within(whole, new double[] {-1.3, 1.45, -1, 1, 0.31, 2}, lane.mesh.Axis.Z);
        assertThat(area(box.surface())).isCloseTo(0.3 * 1.69 + 0.45 * 1.69, within(1e-12));
        Cut none = PlaneCut.within(whole, new double[] {-0.5, 0.5, -1, 1, 0, 3}, lane.mesh.Axis.Z);
        assertThat(none.empty()).isTrue();
        Cut outside = PlaneCut.of(mesh, new Point(0, 5, 0), new Point(0, 1, 0), Work.QUIET);
        assertThat(outside.empty()).isTrue();
    }
}
