package lane.mesh;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Every shape: linear fields, the inverse map and its edges, measures, quadrature. */
class CellTest {
    private static final double[][] PLACES = {
        {0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}, {0, 0, 1}, {1, 0, 1}, {1, 1, 1}, {0, 1, 1}
    };

    /** A cell of the shape under a random affine map and a shake of its corners. */
    static Mesh single(CellShape shape, double shake, long seed) {
        if (shape.quadratic()) {
            return quadratic(shape, shake, seed);
        }
        int[] corners =
                switch (shape) {
                    case VERTEX -> new int[] {0};
                    case LINE -> new int[] {0, 1};
                    case POLYLINE -> new int[] {0, 1, 2};
                    case TRIANGLE -> new int[] {0, 1, 3};
                    case QUAD, POLYGON -> new int[] {0, 1, 2, 3};
                    case PIXEL -> new int[] {0, 1, 3, 2};
                    case TETRAHEDRON -> new int[] {0, 1, 3, 4};
                    case VOXEL -> new int[] {0, 1, 3, 2, 4, 5, 7, 6};
                    case HEXAHEDRON, POLYHEDRON -> new int[] {0, 1, 2, 3, 4, 5, 6, 7};
                    case WEDGE -> new int[] {0, 3, 1, 4, 7, 5};
                    case PYRAMID -> new int[] {0, 1, 2, 3, 4};
                    default -> throw new IllegalArgumentException(shape.word());
                };
        if (shape == CellShape.POLYHEDRON) {
            return BoxMesh.of(shape, new int[] {1, 1, 1}, new double[] {2, 3, 1.5}, 0, 1);
        }
        var random = new Random(seed);
        double[] xyz = new double[3 * corners.length];
        double flat = shape.dimension() == 2 ? 0 : shake;
        for (int i = 0; i < corners.length; i++) {
            double[] p = PLACES[corners[i]];
            double a = p[0] + shake * (random.nextDouble() - 0.5);
            double b = p[1] + shake * (random.nextDouble() - 0.5);
            double c = p[2] + flat * (random.nextDouble() - 0.5);
            xyz[3 * i] = 3 + 2 * a + 0.3 * b + 0.2 * c;
            xyz[3 * i + 1] = -1 + 0.1 * a + 1.5 * b - 0.4 * c;
            xyz[3 * i + 2] = 0.5 + 0.2 * a + 0.1 * b + 0.9 * c;
        }
        int[] nodes = new int[corners.length];
        java.util.Arrays.setAll(nodes, i -> i);
        return new Mesh(xyz, new byte[] {(byte) shape.ordinal()}, new int[] {0, nodes.length}, nodes);
    }

    /** The cell of its corners with nodes in the middles, all of them moved by a smaller shake. */
    private static Mesh quadratic(CellShape shape, double shake, long seed) {
        Mesh corners = single(shape.corners(), shake, seed);
        int n = corners.nodeCount();
        int[][] middles = shape.middles();
        double[] xyz = java.util.Arrays.copyOf(corners.xyz(), 3 * shape.nodes());
        var random = new Random(seed + 1);
        for (int i = 0; i < middles.length; i++) {
            for (int d = 0; d < 3; d++) {
                for (int c : middles[i]) {
                    xyz[3 * (n + i) + d] += corners.xyz()[3 * c + d] / middles[i].length;
                }
                xyz[3 * (n + i) + d] += 0.1 * shake * (random.nextDouble() - 0.5);
            }
        }
        int[] nodes = new int[shape.nodes()];
        java.util.Arrays.setAll(nodes, i -> i);
        return new Mesh(xyz, new byte[] {(byte) shape.ordinal()}, new int[] {0, nodes.length}, nodes);
    }

    private static double linear(double x, double y, double z) {
        return 2 + 3 * x - 5 * y + 7 * z;
    }

    private static double interpolated(Cell cell) {
        double sum = 0;
        for (int i = 0; i < cell.size(); i++) {
            sum += cell.weights()[i] * linear(cell.x()[3 * i], cell.x()[3 * i + 1], cell.x()[3 * i + 2]);
        }
        return sum;
    }

    /** A random point that is a convex mix of the nodes: inside every convex cell. */
    private static double[] inside(Cell cell, Random random) {
        double[] p = new double[3];
        double sum = 0;
        for (int i = 0; i < cell.size(); i++) {
            double w = random.nextDouble();
            sum += w;
            for (int d = 0; d < 3; d++) {
                p[d] += w * cell.x()[3 * i + d];
            }
        }
        return new double[] {p[0] / sum, p[1] / sum, p[2] / sum};
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            mode = EnumSource.Mode.EXCLUDE,
            names = {"LINE3", "TRIANGLE6", "QUAD8", "QUAD9"})
    void aLinearFieldIsReproducedAtAnyPoint(CellShape shape) {
        var random = new Random(7);
        for (int seed = 0; seed < 20; seed++) {
            Mesh mesh = single(shape, 0.25, seed);
            Cell cell = new Cell(mesh).load(0);
            for (int k = 0; k < 50; k++) {
                double[] p = shape == CellShape.POLYLINE
                        ? new double[] {
                            (cell.x()[0] + cell.x()[3]) / 2,
                            (cell.x()[1] + cell.x()[4]) / 2,
                            (cell.x()[2] + cell.x()[5]) / 2
                        }
                        : inside(cell, random);
                if (shape == CellShape.QUAD || shape == CellShape.PIXEL || shape == CellShape.POLYGON) {
                    // A convex mix of a plane quad's nodes lies in its plane and inside it.
                    assertThat(cell.locate(p[0], p[1], p[2])).isZero();
                }
                double miss = cell.locate(p[0], p[1], p[2]);
                assertThat(miss)
                        .as("%s seed %d", shape, seed)
                        .isLessThan(
                                shape == CellShape.HEXAHEDRON
                                                || shape == CellShape.VOXEL
                                                || shape == CellShape.WEDGE
                                                || shape == CellShape.PYRAMID
                                                || shape.quadratic()
                                        ? 0.2
                                        : 1e-9);
                if (miss == 0) {
                    assertThat(interpolated(cell)).isCloseTo(linear(p[0], p[1], p[2]), within(1e-12 * 50));
                }
            }
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            mode = EnumSource.Mode.EXCLUDE,
            names = {"VERTEX", "POLYLINE", "POLYGON", "POLYHEDRON"})
    void theInverseMapFindsTheReferencePointItCameFrom(CellShape shape) {
        double[] n = new double[27];
        for (int seed = 0; seed < 10; seed++) {
            Cell cell = new Cell(single(shape, 0.2, 100 + seed)).load(0);
            for (int q = 0; q < Quadrature.of(shape, 6).size(); q++) {
                double[] ref = Quadrature.of(shape, 6).points();
                ShapeFunctions.values(shape, ref[3 * q], ref[3 * q + 1], ref[3 * q + 2], n);
                double[] p = new double[3];
                for (int i = 0; i < cell.size(); i++) {
                    for (int d = 0; d < 3; d++) {
                        p[d] += n[i] * cell.x()[3 * i + d];
                    }
                }
                assertThat(cell.locate(p[0], p[1], p[2]))
                        .as("%s seed %d point %d", shape, seed, q)
                        .isZero();
                for (int i = 0; i < cell.size(); i++) {
                    assertThat(cell.weights()[i]).isCloseTo(n[i], within(1e-10));
                }
            }
        }
    }

    /** Quadratic fields on cells whose middles stand in the middle. */
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {
                "LINE3",
                "TRIANGLE6",
                "QUAD8",
                "QUAD9",
                "TETRAHEDRON10",
                "PYRAMID13",
                "WEDGE15",
                "WEDGE18",
                "HEXAHEDRON20",
                "HEXAHEDRON27"
            })
    void aQuadraticFieldIsReproducedByQuadraticShapes(CellShape shape) {
        java.util.function.ToDoubleFunction<double[]> f =
                p -> 1 + p[0] - 2 * p[1] + p[0] * p[0] - 3 * p[0] * p[1] + 0.5 * p[1] * p[2] + 2 * p[2] * p[2];
        Mesh mesh = single(shape, 0, 5);
        Cell cell = new Cell(mesh).load(0);
        double[] n = new double[27];
        double[] d = new double[81];
        for (int q = 0; q < Quadrature.of(shape, 7).size(); q++) {
            double[] ref = Quadrature.of(shape, 7).points();
            double r = ref[3 * q];
            double s = ref[3 * q + 1];
            double t = ref[3 * q + 2];
            ShapeFunctions.values(shape, r, s, t, n);
            double[] p = new double[3];
            double v = 0;
            double one = 0;
            for (int i = 0; i < cell.size(); i++) {
                double[] x = {cell.x()[3 * i], cell.x()[3 * i + 1], cell.x()[3 * i + 2]};
                one += n[i];
                v += n[i] * f.applyAsDouble(x);
                for (int k = 0; k < 3; k++) {
                    p[k] += n[i] * x[k];
                }
            }
            assertThat(one).isCloseTo(1, within(1e-13));
            assertThat(v).isCloseTo(f.applyAsDouble(p), within(1e-11));
            // Derivatives against central differences.
            ShapeFunctions.derivatives(shape, r, s, t, d);
            double[] lo = new double[27];
            double[] hi = new double[27];
            double e = 1e-5;
            for (int k = 0; k < shape.dimension(); k++) {
                ShapeFunctions.values(shape, r - (k == 0 ? e : 0), s - (k == 1 ? e : 0), t - (k == 2 ? e : 0), lo);
                ShapeFunctions.values(shape, r + (k == 0 ? e : 0), s + (k == 1 ? e : 0), t + (k == 2 ? e : 0), hi);
                for (int i = 0; i < cell.size(); i++) {
                    assertThat(d[3 * i + k])
                            .as("%s node %d by %d", shape, i, k)
                            .isCloseTo((hi[i] - lo[i]) / (2 * e), within(2e-7));
                }
            }
        }
    }

    /** A quarter of a ring, curved by its nodes: its area and volume, and points only the curved cell holds. */
    @Test
    void curvedCellsReachWhereTheirCornersDoNot() {
        double[][] places = QuadraticShapes.places(CellShape.HEXAHEDRON27);
        double[] xyz = new double[81];
        for (int i = 0; i < 27; i++) {
            double r = 1 + places[i][0];
            double a = places[i][1] * Math.PI / 2;
            xyz[3 * i] = r * Math.cos(a);
            xyz[3 * i + 1] = r * Math.sin(a);
            xyz[3 * i + 2] = places[i][2];
        }
        int[] nodes = new int[27];
        java.util.Arrays.setAll(nodes, i -> i);
        for (CellShape shape : new CellShape[] {CellShape.HEXAHEDRON27, CellShape.HEXAHEDRON20}) {
            Mesh mesh = Mesh.uniform(
                    java.util.Arrays.copyOf(xyz, 3 * shape.nodes()),
                    shape,
                    java.util.Arrays.copyOf(nodes, shape.nodes()));
            Cell cell = new Cell(mesh).load(0);
            // A parabola through three points of a quarter circle misses it by a percent.
            assertThat(cell.measure()).isCloseTo(0.75 * Math.PI, within(0.03));
            double c = Math.cos(Math.PI / 4);
            assertThat(cell.locate(1.95 * c, 1.95 * c, 0.5)).as(shape.word()).isZero();
            assertThat(cell.locate(1.05 * c, 1.05 * c, 0.5)).isZero();
            assertThat(cell.locate(0.95 * c, 0.95 * c, 0.5)).isGreaterThan(0.03);
            var finder = new CellLocator(mesh).finder();
            assertThat(finder.find(1.95 * c, 1.95 * c, 0.5, 0)).isZero();
        }
        // The faces turn outwards and close the cell: the divergence theorem gives its volume.
        Mesh mesh = Mesh.uniform(xyz, CellShape.HEXAHEDRON27, nodes);
        lane.field.Part skin = new lane.field.PartBuilder(mesh).whole("skin");
        assertThat(skin.surface().shape(0)).isEqualTo(CellShape.QUAD9);
        var rule = new FaceQuadrature(skin.surface(), 4);
        double volume = 0;
        for (int f = 0; f < skin.surface().cellCount(); f++) {
            rule.load(f);
            for (int q = 0; q < rule.size(); q++) {
                rule.at(q);
                volume += (rule.x() * rule.nx() + rule.y() * rule.ny() + rule.z() * rule.nz()) / 3;
            }
        }
        assertThat(volume).isCloseTo(new Cell(mesh).load(0).measure(), within(1e-12));
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON10", "PYRAMID13", "WEDGE15", "WEDGE18", "HEXAHEDRON20", "HEXAHEDRON27"})
    void quadraticCellsAreClosedByTheirFacesTurnedOutwards(CellShape shape) {
        Mesh mesh = single(shape, 0.2, 9);
        lane.field.Part skin = new lane.field.PartBuilder(mesh).whole("skin");
        var rule = new FaceQuadrature(skin.surface(), 6);
        double volume = 0;
        double[] n = new double[3];
        for (int f = 0; f < skin.surface().cellCount(); f++) {
            assertThat(skin.surface().shape(f).quadratic()).isTrue();
            rule.load(f);
            for (int q = 0; q < rule.size(); q++) {
                rule.at(q);
                volume += (rule.x() * rule.nx() + rule.y() * rule.ny() + rule.z() * rule.nz()) / 3;
                n[0] += rule.nx();
                n[1] += rule.ny();
                n[2] += rule.nz();
            }
        }
        assertThat(n).containsExactly(new double[3], within(1e-13));
        assertThat(volume)
                .isCloseTo(
                        Math.abs(new Cell(mesh).load(0).measure()),
                        within(shape == CellShape.PYRAMID13 ? 1e-6 : 1e-11));
    }

    @ParameterizedTest
    @EnumSource(CellShape.class)
    void nodesAndFaceMiddlesAreInside(CellShape shape) {
        Cell cell = new Cell(single(shape, 0, 3)).load(0);
        for (int i = 0; i < cell.size(); i++) {
            assertThat(cell.locate(cell.x()[3 * i], cell.x()[3 * i + 1], cell.x()[3 * i + 2]))
                    .as("node %d", i)
                    .isLessThan(1e-12);
            assertThat(cell.weights()[i]).isCloseTo(1, within(1e-9));
        }
        double[] m = new double[3];
        for (int[] face : cell.faces()) {
            CellMeasures.faceCentre(cell.x(), face, m);
            assertThat(cell.locate(m[0], m[1], m[2])).isLessThan(1e-12);
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {
                "TRIANGLE",
                "QUAD",
                "PIXEL",
                "POLYGON",
                "TETRAHEDRON",
                "VOXEL",
                "HEXAHEDRON",
                "WEDGE",
                "PYRAMID",
                "POLYHEDRON"
            })
    void aPointOutsideIsOutsideByItsDistance(CellShape shape) {
        Cell cell = new Cell(single(shape, 0, 3)).load(0);
        double[] c = new double[3];
        cell.centre(c);
        assertThat(cell.locate(c[0] + 50, c[1], c[2])).isBetween(40.0, 50.0);
        assertThat(cell.locate(c[0], c[1] - 1e6, c[2])).isCloseTo(1e6, within(5.0));
    }

    @Test
    void aFlatOrTangledCellHoldsNoPointItShouldNotAndNeverFails() {
        // A hexahedron pressed flat, one turned inside out, and one with all nodes at one place.
        double[] flat = new double[24];
        double[] inverted = new double[24];
        double[] point = new double[24];
        for (int i = 0; i < 8; i++) {
            for (int d = 0; d < 3; d++) {
                flat[3 * i + d] = d == 2 ? 0 : PLACES[i][d];
                inverted[3 * i + d] = d == 2 ? -PLACES[i][d] : PLACES[i][d];
            }
        }
        int[] nodes = {0, 1, 2, 3, 4, 5, 6, 7};
        assertThat(new Cell(Mesh.uniform(flat, CellShape.HEXAHEDRON, nodes))
                        .load(0)
                        .locate(0.5, 0.5, 0.3))
                .isGreaterThan(0.1);
        assertThat(new Cell(Mesh.uniform(point, CellShape.HEXAHEDRON, nodes))
                        .load(0)
                        .locate(1, 1, 1))
                .isCloseTo(Math.sqrt(3), within(1e-12));
        Cell inside = new Cell(Mesh.uniform(inverted, CellShape.HEXAHEDRON, nodes)).load(0);
        assertThat(inside.measure()).isCloseTo(-1, within(1e-12));
        assertThat(inside.locate(0.25, 0.5, -0.75)).isZero();
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"LINE", "TRIANGLE", "QUAD", "PIXEL", "TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID"})
    void quadratureIntegratesEveryMonomialOfItsDegree(CellShape shape) {
        for (int degree = 0; degree <= 8; degree++) {
            Quadrature rule = Quadrature.of(shape, degree);
            for (int a = 0; a <= degree; a++) {
                for (int b = 0; a + b <= degree && (shape.dimension() > 1 || b == 0); b++) {
                    for (int c = 0; a + b + c <= degree && (shape.dimension() > 2 || c == 0); c++) {
                        double sum = 0;
                        for (int q = 0; q < rule.size(); q++) {
                            double[] p = rule.points();
                            sum += rule.weights()[q]
                                    * Math.pow(p[3 * q], a)
                                    * Math.pow(p[3 * q + 1], b)
                                    * Math.pow(p[3 * q + 2], c);
                        }
                        assertThat(sum)
                                .as("%s degree %d: r^%d s^%d t^%d", shape, degree, a, b, c)
                                .isCloseTo(exact(shape, a, b, c), within(1e-14));
                    }
                }
            }
        }
    }

    /** Integral of r^a s^b t^c over the reference domain, from factorials and the beta function. */
    private static double exact(CellShape shape, int a, int b, int c) {
        return switch (shape) {
            case LINE -> 1.0 / (a + 1);
            case QUAD, PIXEL -> 1.0 / (a + 1) / (b + 1);
            case HEXAHEDRON, VOXEL -> 1.0 / (a + 1) / (b + 1) / (c + 1);
            case TRIANGLE -> f(a) * f(b) / f(a + b + 2);
            case WEDGE -> f(a) * f(b) / f(a + b + 2) / (c + 1);
            case TETRAHEDRON -> f(a) * f(b) * f(c) / f(a + b + c + 3);
            case PYRAMID -> 1.0 / (a + 1) / (b + 1) * f(c) * f(a + b + 2) / f(a + b + c + 3);
            default -> Double.NaN;
        };
    }

    private static double f(int n) {
        return n < 2 ? 1 : n * f(n - 1);
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "VOXEL", "HEXAHEDRON", "WEDGE", "PYRAMID", "POLYHEDRON"})
    void volumesOfAShakenBoxAddUpAndItsBoundaryCloses(CellShape shape) {
        Mesh mesh = BoxMesh.of(shape, new int[] {3, 4, 2}, new double[] {2, 3, 1}, 0.2, 11);
        double volume = 0;
        var cell = new Cell(mesh);
        for (int c = 0; c < mesh.cellCount(); c++) {
            double v = cell.load(c).measure();
            assertThat(v).isPositive();
            volume += v;
        }
        assertThat(volume).isCloseTo(6, within(1e-12));
        Topology.Boundary boundary = Topology.boundary(mesh);
        assertThat(boundary.shared()).isZero();
        double[] n = new double[3];
        double area = 0;
        for (int f = 0; f < boundary.size(); f++) {
            int from = boundary.offsets()[f];
            double[] own = new double[3];
            for (int k = from + 1; k + 1 < boundary.offsets()[f + 1]; k++) {
                CellMeasures.addTriangle(
                        mesh.xyz(), boundary.nodes()[from], boundary.nodes()[k], boundary.nodes()[k + 1], own);
            }
            area += Math.sqrt(own[0] * own[0] + own[1] * own[1] + own[2] * own[2]);
            for (int d = 0; d < 3; d++) {
                n[d] += own[d];
            }
            // Outwards: the face looks away from the middle of the box.
            double[] m = new double[3];
            CellMeasures.faceCentre(
                    mesh.xyz(), java.util.Arrays.copyOfRange(boundary.nodes(), from, boundary.offsets()[f + 1]), m);
            assertThat(own[0] * (m[0] - 1) + own[1] * (m[1] - 1.5) + own[2] * (m[2] - 0.5))
                    .isPositive();
        }
        assertThat(area).isCloseTo(2 * (6 + 2 + 3), within(1e-12));
        assertThat(Math.abs(n[0]) + Math.abs(n[1]) + Math.abs(n[2])).isLessThan(1e-12);
    }

    @Test
    void lengthsAndAreas() {
        assertThat(new Cell(single(CellShape.POLYGON, 0, 1)).load(0).measure())
                .isCloseTo(new Cell(single(CellShape.QUAD, 0, 1)).load(0).measure(), within(1e-12));
        // An arrow-shaped polygon, not convex: 3/4 of the unit square.
        Mesh arrow = new Mesh(
                new double[] {0, 0, 0, 1, 0, 0, 1, 1, 0, 0.5, 0.5, 0, 0, 1, 0},
                new byte[] {(byte) CellShape.POLYGON.ordinal()},
                new int[] {0, 5},
                new int[] {0, 1, 2, 3, 4});
        assertThat(new Cell(arrow).load(0).measure()).isCloseTo(0.75, within(1e-14));
    }
}
