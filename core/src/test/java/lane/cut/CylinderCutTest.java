package lane.cut;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import lane.base.Work;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellLocator;
import lane.mesh.CellShape;
import lane.mesh.FaceQuadrature;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.mesh.Roundness;
import lane.station.Shell;
import org.junit.jupiter.api.Test;

/** Shells against the exact cylinder: whatever the size of the cells, wherever they stand, and what is outside is told. */
class CylinderCutTest {
    private static final double[] PLANE = {0, 0, 1};
    private static final double FREE = Double.POSITIVE_INFINITY;

    @Test
    void aShellHasTheAreaOfTheCylinderAndTheSameLaidFlat() {
        for (double radius : new double[] {1.1, 1.25, 1.37, 1.9}) {
            var mesh = new CellLocator(SlicerTest.ring(36, 1, 2, 3), Work.QUIET);
            Cut shell = CylinderCut.of(
                    mesh, Axis.Z, radius, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, Work.QUIET);
            double curved = curved(shell);
            assertThat(curved).as("radius %s", radius).isCloseTo(2 * Math.PI * radius * 3, within(1e-12 * curved));
            assertThat(shell.coverage()).isCloseTo(1, within(1e-12));
            for (int i = 0; i < shell.surface().nodeCount(); i++) {
                double[] x = shell.surface().xyz();
                assertThat(Axis.Z.radius(x[3 * i], x[3 * i + 1], x[3 * i + 2])).isCloseTo(radius, within(1e-12));
            }
            for (double seam : new double[] {0, 0.7, 3.1, -2}) {
                Cut flat = CylinderCut.unrolled(shell, Axis.Z, radius, seam, true);
                assertThat(area(flat.surface())).as("seam %s", seam).isCloseTo(curved, within(1e-12 * curved));
                double[] b = flat.surface().bounds();
                assertThat(b[0]).isCloseTo(0, within(1e-9));
                assertThat(b[1]).isCloseTo(2 * Math.PI * radius, within(1e-9));
                var station = new Shell(Axis.Z, radius, null, null, Math.toDegrees(seam));
                double[] x = flat.surface().xyz();
                for (int i = 0; i < x.length; i += 3) {
                    Point p = station.inSpace(x[i], x[i + 1]);
                    assertThat(Axis.Z.radius(p.x(), p.y(), p.z())).isCloseTo(radius, within(1e-12));
                    assertThat(Axis.Z.along(p.x(), p.y(), p.z())).isEqualTo(x[i + 1]);
                    double turn = Axis.Z.angle(p.x(), p.y(), p.z()) - seam - x[i] / radius;
                    assertThat(Math.IEEEremainder(turn, 2 * Math.PI)).isCloseTo(0, within(1e-9));
                }
                // No face is stretched over the whole width.
                for (int f = 0; f < flat.owner().length; f++) {
                    double least = 1e9;
                    double most = -1e9;
                    for (int k = 0; k < flat.surface().size(f); k++) {
                        double u = flat.surface()
                                .xyz()[3 * flat.surface().nodes()[flat.surface().begin(f) + k]];
                        least = Math.min(least, u);
                        most = Math.max(most, u);
                    }
                    assertThat(most - least).isLessThan(2 * Math.PI * radius / 36 + 1e-9);
                }
            }
            Cut part = CylinderCut.of(mesh, Axis.Z, radius, 0.5, 2.25, Work.QUIET);
            double sum = curved(part);
            assertThat(sum).isCloseTo(curved * 1.75 / 3, within(1e-12 * curved));
        }
    }

    private static double area(Mesh surface) {
        var cell = new Cell(surface);
        double sum = 0;
        for (int f = 0; f < surface.cellCount(); f++) {
            sum += cell.load(f).measure();
        }
        return sum;
    }

    /** Area of the cylinder; all of it looks away from the axis. */
    private static double curved(Cut cut) {
        var rule = new FaceQuadrature(cut.surface(), 4, PLANE);
        double size = cut.surface().modelSize();
        for (int f = 0; f < cut.owner().length; f++) {
            rule.load(f);
            for (int q = 0; q < rule.size(); q++) {
                rule.at(q);
                double[] place = {rule.x(), rule.y(), rule.z()};
                double[] area = {rule.nx(), rule.ny(), rule.nz()};
                cut.round().onto(place, area);
                Axis axis = cut.round().axis();
                Point p = new Point(place[0], place[1], place[2]);
                Point foot = axis.origin().plus(axis.direction().times(axis.along(p.x(), p.y(), p.z())));
                Point away = p.minus(foot).unit();
                assertThat(away.dot(new Point(area[0], area[1], area[2]))).isGreaterThan(-1e-12 * size);
            }
        }
        return cut.round().area(cut.surface(), PLANE);
    }

    /** The unit square in so many squares each way. */
    private static Mesh squares(int n) {
        double[] xyz = new double[3 * (n + 1) * (n + 1)];
        int[] nodes = new int[4 * n * n];
        for (int j = 0; j <= n; j++) {
            for (int i = 0; i <= n; i++) {
                int v = j * (n + 1) + i;
                xyz[3 * v] = i / (double) n;
                xyz[3 * v + 1] = j / (double) n;
                if (i < n && j < n) {
                    int[] around = {v, v + 1, v + n + 2, v + n + 1};
                    System.arraycopy(around, 0, nodes, 4 * (j * n + i), 4);
                }
            }
        }
        return Mesh.uniform(xyz, CellShape.QUAD, nodes);
    }

    @Test
    void theAreaIsThatOfTheCylinderWhateverTheCells() {
        var inclined = new Axis(new Point(0.52, 0.47, 0.5), new Point(1, 2, 0.3));
        for (CellShape shape : List.of(CellShape.HEXAHEDRON, CellShape.TETRAHEDRON, CellShape.WEDGE)) {
            for (int cells : new int[] {1, 3, 8}) {
                Mesh box = BoxMesh.of(shape, new int[] {cells, cells, cells}, new double[] {1, 1, 1}, 0.2, 3);
                var locator = new CellLocator(box, Work.QUIET);
                for (double radius : new double[] {1e-4, 0.02, 0.1, 0.21}) {
                    Cut cut = CylinderCut.of(locator, inclined, radius, -0.1, 0.15, Work.QUIET);
                    double exact = 2 * Math.PI * radius * 0.25;
                    assertThat(curved(cut))
                            .as("%s, %d cells, radius %s", shape, cells, radius)
                            .isCloseTo(exact, within(1e-9 * exact));
                    assertThat(cut.coverage()).isCloseTo(1, within(1e-9));
                }
            }
        }
    }

    @Test
    void whatLiesOutsideIsTold() {
        var locator = new CellLocator(
                BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 4, 4}, new double[] {1, 1, 1}, 0, 1), Work.QUIET);
        var side = new Axis(new Point(0, 0.5, 0), new Point(0, 0, 1));
        Cut half = CylinderCut.of(locator, side, 0.2, -FREE, FREE, Work.QUIET);
        assertThat(half.coverage()).isCloseTo(0.5, within(1e-9));
        Cut high = CylinderCut.of(
                locator, new Axis(new Point(0.5, 0.5, 0), new Point(0, 0, 1)), 0.2, 0.5, 2.5, Work.QUIET);
        assertThat(high.coverage()).isCloseTo(0.25, within(1e-9));
        assertThat(curved(high)).isCloseTo(0.2 * Math.PI, within(1e-9));
        Cut beyond = CylinderCut.of(locator, side, 7, -FREE, FREE, Work.QUIET);
        assertThat(beyond.empty()).isTrue();
        assertThat(beyond.coverage()).isZero();
    }

    @Test
    void inAPlaneRunTheCircleHasItsOwnLength() {
        var locator = new CellLocator(squares(9), Work.QUIET);
        var axis = new Axis(new Point(0.5, 0.5, 0), new Point(0, 0, 1));
        Cut circle = CylinderCut.of(locator, axis, 0.3, -FREE, FREE, Work.QUIET);
        assertThat(curved(circle)).isCloseTo(0.6 * Math.PI, within(1e-9));
        assertThat(circle.coverage()).isCloseTo(1, within(1e-9));
        Cut cut = CylinderCut.of(
                locator, new Axis(new Point(0.5, 1, 0), new Point(0, 0, 1)), 0.3, -FREE, FREE, Work.QUIET);
        assertThat(cut.coverage()).isCloseTo(0.5, within(1e-9));
        Cut small = CylinderCut.of(
                locator, new Axis(new Point(0.48, 0.51, 3), new Point(0, 0, -1)), 1e-3, -FREE, FREE, Work.QUIET);
        assertThat(curved(small)).isCloseTo(2e-3 * Math.PI, within(1e-12));
    }

    @Test
    void inAPlaneRunAlongTheAxisItIsLinesOnEachSideThatHasCells() {
        var locator = new CellLocator(squares(3), Work.QUIET);
        // Both lines lie in the middle row of cells.
        var inner = new Axis(new Point(7, 0.5, 0), new Point(-1, 0, 0));
        Cut both = CylinderCut.of(locator, inner, 0.01, 6.25, FREE, Work.QUIET);
        assertThat(curved(both)).isCloseTo(1.5, within(1e-12));
        assertThat(both.coverage()).isCloseTo(1, within(1e-12));
        var rim = new Axis(new Point(0, 0, 0), new Point(1, 0, 0));
        Cut one = CylinderCut.of(locator, rim, 0.4, -1, 1, Work.QUIET);
        assertThat(curved(one)).isCloseTo(1, within(1e-12));
        assertThat(one.coverage()).isCloseTo(0.5, within(1e-12));
    }

    @Test
    void aChordsPieceOfAreaIsMovedOntoTheCylinder() {
        // The middle of a side of a regular hexagon of radius 2: the area vector of the side is 2 along x a unit
        // height.
        var round = new Roundness(Axis.Z, 2);
        double[] place = {Math.sqrt(3), 0, 0.7};
        double[] area = {1, 0.4, 0.3};
        round.onto(place, area);
        assertThat(place).containsExactly(new double[] {2, 0, 0.7}, within(1e-15));
        assertThat(area).containsExactly(new double[] {2 / Math.sqrt(3), 0, 0}, within(1e-15));
    }
}
