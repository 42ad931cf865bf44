package lane.mesh;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Rules and shape functions against what is known of polynomials on the reference domains. */
class RulesTest {
    private static double factorial(int n) {
        double f = 1;
        for (int i = 2; i <= n; i++) {
            f *= i;
        }
        return f;
    }

    /** Integral of r^a s^b t^c over the reference domain, in closed form. */
    private static double exact(CellShape shape, int a, int b, int c) {
        double cube = 1.0 / ((a + 1) * (b + 1) * (c + 1.0));
        double triangle = factorial(a) * factorial(b) / factorial(a + b + 2);
        return switch (shape.corners()) {
            case VERTEX -> a + b + c == 0 ? 1 : 0;
            case LINE -> b + c == 0 ? 1.0 / (a + 1) : 0;
            case QUAD, PIXEL -> c == 0 ? 1.0 / ((a + 1) * (b + 1)) : 0;
            case TRIANGLE -> c == 0 ? triangle : 0;
            case TETRAHEDRON -> factorial(a) * factorial(b) * factorial(c) / factorial(a + b + c + 3);
            case WEDGE -> triangle / (c + 1);
            // The square at height t has sides of 1 - t: t^c (1 - t)^(a + b + 2) / ((a + 1) (b + 1)).
            case PYRAMID -> factorial(c) * factorial(a + b + 2) / factorial(a + b + c + 3) / ((a + 1) * (b + 1));
            default -> cube;
        };
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            mode = EnumSource.Mode.EXCLUDE,
            names = {"POLYLINE", "POLYGON", "POLYHEDRON"})
    void aRuleIsExactForEveryPolynomialOfItsDegree(CellShape shape) {
        for (int degree = 0; degree <= 20; degree += degree < 8 ? 1 : 4) {
            Quadrature rule = Quadrature.of(shape, degree);
            for (int a = 0; a <= degree; a++) {
                for (int b = 0; a + b <= degree && shape.dimension() > 1 || b == 0; b++) {
                    for (int c = 0; a + b + c <= degree && shape.dimension() > 2 || c == 0; c++) {
                        double sum = 0;
                        for (int q = 0; q < rule.size(); q++) {
                            double[] p = rule.points();
                            sum += rule.weights()[q]
                                    * Math.pow(p[3 * q], a)
                                    * Math.pow(p[3 * q + 1], b)
                                    * Math.pow(p[3 * q + 2], c);
                        }
                        if (shape != CellShape.VERTEX || a == 0) {
                            assertThat(sum)
                                    .as("%s of degree %d: r^%d s^%d t^%d", shape, degree, a, b, c)
                                    .isCloseTo(exact(shape, a, b, c), within(2e-15 * (1 + rule.size() / 50.0)));
                        }
                    }
                }
            }
        }
    }

    /** A rule whose points lie outside, or that takes some away from others, would make a sum of positive values negative. */
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            mode = EnumSource.Mode.EXCLUDE,
            names = {"POLYLINE", "POLYGON", "POLYHEDRON"})
    void pointsLieInsideAndWeightsArePositive(CellShape shape) {
        for (int degree : new int[] {0, 1, 2, 3, 4, 5, 7, 11, 20}) {
            Quadrature rule = Quadrature.of(shape, degree);
            assertThat(Arrays.stream(rule.weights()).min().orElse(0))
                    .as("%s of degree %d", shape, degree)
                    .isPositive();
            for (int q = 0; q < rule.size(); q++) {
                double r = rule.points()[3 * q];
                double s = rule.points()[3 * q + 1];
                double t = rule.points()[3 * q + 2];
                double room =
                        switch (shape.corners()) {
                            case TRIANGLE, WEDGE -> 1 - r - s;
                            case TETRAHEDRON -> 1 - r - s - t;
                            case PYRAMID -> 1 - t - Math.max(r, s);
                            default -> 1 - Math.max(r, Math.max(s, t));
                        };
                assertThat(Math.min(room, Math.min(r, Math.min(s, t))))
                        .as("%s of degree %d, point %d", shape, degree, q)
                        .isGreaterThanOrEqualTo(0);
            }
        }
    }

    @Test
    void whatHasNoRuleIsSaid() {
        assertThatThrownBy(() -> Quadrature.of(CellShape.HEXAHEDRON, 21)).hasMessageContaining("no rule of degree 21");
        assertThatThrownBy(() -> Quadrature.of(CellShape.HEXAHEDRON, -1)).hasMessageContaining("no rule of degree -1");
        assertThatThrownBy(() -> Quadrature.of(CellShape.POLYHEDRON, 2)).hasMessageContaining("POLYHEDRON");
        assertThat(Quadrature.of(CellShape.HEXAHEDRON27, 3)).isSameAs(Quadrature.of(CellShape.HEXAHEDRON, 3));
    }

    /** The nodes of a shape on its reference domain, from corners and the middles that they have. */
    private static double[][] places(CellShape shape) {
        double[][] corners =
                switch (shape.corners()) {
                    case VERTEX -> new double[][] {{0, 0, 0}};
                    case LINE -> new double[][] {{0, 0, 0}, {1, 0, 0}};
                    case TRIANGLE -> new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}};
                    case QUAD -> new double[][] {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}};
                    case PIXEL -> new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {1, 1, 0}};
                    case TETRAHEDRON -> new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
                    case WEDGE -> new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {0, 0, 1}, {1, 0, 1}, {0, 1, 1}};
                    case PYRAMID -> new double[][] {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}, {0, 0, 1}};
                    case VOXEL ->
                        new double[][] {
                            {0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {1, 1, 0}, {0, 0, 1}, {1, 0, 1}, {0, 1, 1}, {1, 1, 1}
                        };
                    case HEXAHEDRON ->
                        new double[][] {
                            {0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0}, {0, 0, 1}, {1, 0, 1}, {1, 1, 1}, {0, 1, 1}
                        };
                    default -> throw new IllegalArgumentException(shape.word());
                };
        double[][] all = Arrays.copyOf(corners, shape.nodes());
        int[][] middles = shape.quadratic() ? shape.middles() : new int[0][];
        for (int i = 0; i < middles.length; i++) {
            double[] p = new double[3];
            for (int c : middles[i]) {
                for (int d = 0; d < 3; d++) {
                    p[d] += corners[c][d] / middles[i].length;
                }
            }
            all[corners.length + i] = p;
        }
        return all;
    }

    private static double[] inside(CellShape shape, Random random) {
        while (true) {
            double[] p = {random.nextDouble(), random.nextDouble(), random.nextDouble()};
            boolean in =
                    switch (shape.corners()) {
                        case TRIANGLE, WEDGE -> p[0] + p[1] < 1;
                        case TETRAHEDRON -> p[0] + p[1] + p[2] < 1;
                        case PYRAMID -> Math.max(p[0], p[1]) < 1 - p[2];
                        default -> true;
                    };
            if (in) {
                return p;
            }
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            mode = EnumSource.Mode.EXCLUDE,
            names = {"POLYLINE", "POLYGON", "POLYHEDRON"})
    void aShapeFunctionIsOneAtItsNodeAndNoneAtOthers(CellShape shape) {
        double[][] places = places(shape);
        double[] n = new double[27];
        for (int i = 0; i < places.length; i++) {
            ShapeFunctions.values(shape, places[i][0], places[i][1], places[i][2], n);
            for (int k = 0; k < places.length; k++) {
                assertThat(n[k]).as("%s: function %d at node %d", shape, k, i).isCloseTo(i == k ? 1 : 0, within(1e-14));
            }
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            mode = EnumSource.Mode.EXCLUDE,
            names = {"VERTEX", "POLYLINE", "POLYGON", "POLYHEDRON"})
    void shapeFunctionsSumToOneAndTheirDerivativesToNone(CellShape shape) {
        var random = new Random(shape.ordinal());
        double[] n = new double[27];
        double[] d = new double[81];
        double[] up = new double[27];
        double[] down = new double[27];
        for (int trial = 0; trial < 50; trial++) {
            double[] p = inside(shape, random);
            ShapeFunctions.values(shape, p[0], p[1], p[2], n);
            ShapeFunctions.derivatives(shape, p[0], p[1], p[2], d);
            double sum = 0;
            double[] slopes = new double[3];
            for (int i = 0; i < shape.nodes(); i++) {
                sum += n[i];
                for (int a = 0; a < shape.dimension(); a++) {
                    slopes[a] += d[3 * i + a];
                }
            }
            assertThat(sum).isCloseTo(1, within(1e-13));
            assertThat(slopes).as(shape.word()).containsExactly(new double[3], within(1e-11));
            // Against a difference quotient of second order, whose error falls with the square of its step.
            double step = 1e-5;
            for (int a = 0; a < shape.dimension(); a++) {
                double[] high = p.clone();
                double[] low = p.clone();
                high[a] += step;
                low[a] -= step;
                ShapeFunctions.values(shape, high[0], high[1], high[2], up);
                ShapeFunctions.values(shape, low[0], low[1], low[2], down);
                if (shape.corners() == CellShape.PYRAMID && p[2] > 0.9) {
                    continue;
                }
                for (int i = 0; i < shape.nodes(); i++) {
                    assertThat(d[3 * i + a])
                            .as("%s: function %d along %d at %s", shape, i, a, Arrays.toString(p))
                            .isCloseTo((up[i] - down[i]) / (2 * step), within(1e-6));
                }
            }
        }
    }

    /** What a quadratic shape is for: every polynomial of degree two in the reference coordinates is kept. */
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {
                "LINE3",
                "TRIANGLE6",
                "QUAD8",
                "QUAD9",
                "TETRAHEDRON10",
                "WEDGE15",
                "WEDGE18",
                "HEXAHEDRON20",
                "HEXAHEDRON27"
            })
    void quadraticShapesKeepQuadrics(CellShape shape) {
        var random = new Random(3);
        double[][] places = places(shape);
        double[] n = new double[27];
        for (int trial = 0; trial < 30; trial++) {
            double[] c = random.doubles(10, -1, 1).toArray();
            double[] p = inside(shape, random);
            for (int a = shape.dimension(); a < 3; a++) {
                p[a] = 0;
            }
            ShapeFunctions.values(shape, p[0], p[1], p[2], n);
            double sum = 0;
            for (int i = 0; i < places.length; i++) {
                sum += n[i] * quadric(c, places[i]);
            }
            assertThat(sum).as(shape.word()).isCloseTo(quadric(c, p), within(1e-13));
        }
    }

    private static double quadric(double[] c, double[] p) {
        return c[0]
                + c[1] * p[0]
                + c[2] * p[1]
                + c[3] * p[2]
                + c[4] * p[0] * p[0]
                + c[5] * p[1] * p[1]
                + c[6] * p[2] * p[2]
                + c[7] * p[0] * p[1]
                + c[8] * p[1] * p[2]
                + c[9] * p[2] * p[0];
    }

    /** Halving cells of a smooth integrand divides the error by two to the degree plus one, or more. */
    @ParameterizedTest
    @EnumSource(
            value = CellShape.class,
            names = {"TETRAHEDRON", "HEXAHEDRON", "WEDGE"})
    void theOrderOfTheIntegralIsWhatIsStated(CellShape shape) {
        double whole = Math.pow(Math.exp(1) - 1, 3);
        for (int degree : new int[] {1, 2, 4}) {
            double[] error = new double[2];
            for (int level = 0; level < 2; level++) {
                // Fine enough for the order to show, and not so fine that round-off is all that is left.
                int n = (shape == CellShape.TETRAHEDRON ? 4 : 2) << level;
                Mesh mesh = BoxMesh.of(shape, new int[] {n, n, n}, new double[] {1, 1, 1}, 0, 1);
                var rule = new CellQuadrature(mesh, degree);
                double sum = 0;
                for (int c = 0; c < mesh.cellCount(); c++) {
                    rule.load(c);
                    for (int q = 0; q < rule.size(); q++) {
                        rule.at(q);
                        sum += rule.weight() * Math.exp(rule.x() + rule.y() + rule.z());
                    }
                }
                error[level] = Math.abs(sum - whole);
            }
            double order = Math.log(error[0] / error[1]) / Math.log(2);
            assertThat(order).as("%s by degree %d", shape, degree).isGreaterThan(degree + 0.6);
        }
    }
}
