package lane.cut;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.unit.Unit;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Planes that stand anyhow in a box of cells, against the polygon that they cut out of the box itself. */
class RandomSectionsTest {
    private static final double[] SIZE = {1.5, 1, 0.8};

    /** Where the plane meets the edges of the box, in order around the plane's normal. */
    private static List<Point> polygon(Point p, Point n) {
        List<Point> out = new ArrayList<>();
        for (int axis = 0; axis < 3; axis++) {
            int b = (axis + 1) % 3;
            int c = (axis + 2) % 3;
            for (int k = 0; k < 4; k++) {
                double[] from = new double[3];
                from[b] = k % 2 * SIZE[b];
                from[c] = k / 2 * SIZE[c];
                double[] to = from.clone();
                to[axis] = SIZE[axis];
                Point one = new Point(from[0], from[1], from[2]);
                Point two = new Point(to[0], to[1], to[2]);
                double at = n.dot(one.minus(p));
                double end = n.dot(two.minus(p));
                if (at * end < 0) {
                    out.add(one.plus(two.minus(one).times(at / (at - end))));
                }
            }
        }
        if (out.size() < 3) {
            return List.of();
        }
        Point middle = new Point(0, 0, 0);
        for (Point q : out) {
            middle = middle.plus(q.times(1.0 / out.size()));
        }
        Point centre = middle;
        Point u = out.getFirst().minus(centre).unit();
        Point v = n.unit().cross(u);
        out.sort(Comparator.comparingDouble(
                q -> Math.atan2(q.minus(centre).dot(v), q.minus(centre).dot(u))));
        return out;
    }

    /** Twice the area vector. */
    private static Point around(List<Point> corners) {
        Point sum = new Point(0, 0, 0);
        for (int i = 0; i < corners.size(); i++) {
            sum = sum.plus(corners.get(i).cross(corners.get((i + 1) % corners.size())));
        }
        return sum;
    }

    private static List<Point> face(Mesh m, int f) {
        List<Point> out = new ArrayList<>();
        for (int k = m.begin(f); k < m.begin(f) + m.size(f); k++) {
            int at = 3 * m.nodes()[k];
            out.add(new Point(m.xyz()[at], m.xyz()[at + 1], m.xyz()[at + 2]));
        }
        return out;
    }

    private static Point random(Random r) {
        return new Point(r.nextGaussian(), r.nextGaussian(), r.nextGaussian());
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "VOXEL", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void areaNormalPlaceAndValuesAreThoseOfThePlaneInTheBox(CellShape shape) {
        // Sides of bent cells are not plane, but the box is, and so is what a plane cuts out of linear values.
        double shake = shape == CellShape.VOXEL ? 0 : shape == CellShape.TETRAHEDRON ? 0.2 : 0.05;
        Mesh mesh = BoxMesh.of(shape, new int[] {5, 4, 3}, SIZE, shake, 11);
        double[] warm = new double[mesh.nodeCount()];
        for (int i = 0; i < warm.length; i++) {
            warm[i] = linear(mesh.xyz()[3 * i], mesh.xyz()[3 * i + 1], mesh.xyz()[3 * i + 2]);
        }
        var field = new Field("warm", Field.At.NODE, 1, Unit.of("K"), Values.of(warm));
        var random = new Random(shape.ordinal());
        int cuts = 0;
        for (int trial = 0; trial < 60; trial++) {
            Point p = new Point(
                    SIZE[0] * random.nextDouble(), SIZE[1] * random.nextDouble(), SIZE[2] * random.nextDouble());
            Point n = random(random);
            List<Point> expected = polygon(p, n);
            Cut cut = Slicer.cut(mesh, Level.plane(mesh, p, n), Work.QUIET);
            if (expected.isEmpty()) {
                continue;
            }
            cuts++;
            Point sum = new Point(0, 0, 0);
            double area = 0;
            for (int f = 0; f < cut.surface().cellCount(); f++) {
                Point own = around(face(cut.surface(), f)).times(0.5);
                sum = sum.plus(own);
                area += own.norm();
                assertThat(own.dot(n))
                        .as("%s: faces look along the normal", shape)
                        .isGreaterThan(-1e-15);
                assertThat(cut.owner()[f]).isBetween(0, mesh.cellCount() - 1);
            }
            double exact = around(expected).norm() / 2;
            boolean flat = shape == CellShape.TETRAHEDRON || shape == CellShape.VOXEL;
            // Within bent cells a plane is cut by pieces, whose sum is the plane's all the same.
            assertThat(sum.norm())
                    .as("%s, trial %d", shape, trial)
                    .isCloseTo(exact, within(flat ? 1e-12 : 1e-3 * exact));
            assertThat(area).isCloseTo(exact, within(flat ? 1e-12 : 1e-3 * exact));
            assertThat(Math.abs(sum.unit().dot(n.unit()))).isCloseTo(1, within(1e-9));
            Values at = cut.stencil().apply(field);
            for (int i = 0; i < cut.surface().nodeCount(); i++) {
                double[] x = cut.surface().xyz();
                var q = new Point(x[3 * i], x[3 * i + 1], x[3 * i + 2]);
                assertThat(n.unit().dot(q.minus(p)))
                        .as("%s: on the plane", shape)
                        .isCloseTo(0, within(1e-10));
                assertThat(at.get(i)).as("%s: value", shape).isCloseTo(linear(q.x(), q.y(), q.z()), within(1e-9));
            }
        }
        assertThat(cuts).isGreaterThan(40);
    }

    private static double linear(double x, double y, double z) {
        return 290 + 4 * x - 7 * y + 3 * z;
    }

    /** What lies below a plane and what lies above it make up the whole, wherever it stands: here of the rim of a cut. */
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "VOXEL"})
    void aCutIsKeptOnEitherSideOfASecondPlane(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {4, 4, 3}, SIZE, shape == CellShape.VOXEL ? 0 : 0.1, 5);
        var random = new Random(31);
        for (int trial = 0; trial < 40; trial++) {
            Cut cut = Slicer.cut(mesh, Level.plane(mesh, new Point(0.7, 0.5, 0.4), random(random)), Work.QUIET);
            Point q = new Point(0.5 + random.nextDouble() / 2, 0.5, 0.4);
            Point m = random(random).unit();
            double[] level = new double[cut.surface().nodeCount()];
            double[] other = new double[level.length];
            for (int i = 0; i < level.length; i++) {
                double[] x = cut.surface().xyz();
                level[i] = m.dot(new Point(x[3 * i], x[3 * i + 1], x[3 * i + 2]).minus(q));
                other[i] = -level[i];
            }
            double whole = cut.area();
            double parts = Clip.keep(cut, level).area() + Clip.keep(cut, other).area();
            assertThat(parts).as("%s, trial %d", shape, trial).isCloseTo(whole, within(1e-12));
        }
    }
}
