package lane.station;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.station.Frame.Attitude;
import lane.station.Frame.Rotation;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Samples of paths, and frames, against closed forms and rotation matrices. */
class PathsAndFramesTest {
    private static Point random(Random r) {
        return new Point(4 * r.nextDouble() - 2, 4 * r.nextDouble() - 2, 4 * r.nextDouble() - 2);
    }

    private static void near(Point a, Point b, double slack) {
        assertThat(a.minus(b).norm()).as("%s and %s", a, b).isLessThan(slack);
    }

    private static Point at(PathSamples s, int i) {
        return new Point(s.xyz()[3 * i], s.xyz()[3 * i + 1], s.xyz()[3 * i + 2]);
    }

    private static double sum(double[] v) {
        double sum = 0;
        for (double x : v) {
            sum += x;
        }
        return sum;
    }

    @Test
    void evenSamplesMeetBothEndsToTheBit() {
        var random = new Random(2);
        for (int trial = 0; trial < 20; trial++) {
            Point a = random(random);
            Point b = random(random);
            int n = 2 + random.nextInt(50);
            PathSamples s = PathSamples.of(new Line(a, b, new Sampling.Even(n), Abscissa.ARC));
            assertThat(s.size()).isEqualTo(n);
            assertThat(at(s, 0)).isEqualTo(a);
            assertThat(at(s, n - 1)).isEqualTo(b);
            assertThat(s.arc()[n - 1]).isEqualTo(b.minus(a).norm());
            assertThat(sum(s.weight())).isCloseTo(b.minus(a).norm(), within(1e-14));
            for (int i = 1; i < n; i++) {
                assertThat(at(s, i).minus(at(s, i - 1)).norm())
                        .isCloseTo(b.minus(a).norm() / (n - 1), within(1e-14));
            }
        }
    }

    @ParameterizedTest
    @EnumSource(Sampling.Towards.class)
    void clusteredSamplesGrowByOneFactor(Sampling.Towards towards) {
        for (double ratio : new double[] {1, 3, 50, 1e6}) {
            for (int n : new int[] {3, 4, 11, 200}) {
                double[] share = new Sampling.Clustered(n, ratio, towards).shares();
                assertThat(share[0]).isZero();
                assertThat(share[n - 1]).isEqualTo(1);
                double[] gap = new double[n - 1];
                double least = 1;
                double most = 0;
                for (int i = 0; i < gap.length; i++) {
                    gap[i] = share[i + 1] - share[i];
                    least = Math.min(least, gap[i]);
                    most = Math.max(most, gap[i]);
                }
                boolean both = towards == Sampling.Towards.BOTH;
                // With two pieces towards both ends there is no middle one that could be larger.
                if (!both || n % 2 == 0 && n > 3) {
                    assertThat(most / least)
                            .as("%s of %d, %s", ratio, n, towards)
                            .isCloseTo(ratio, within(1e-6 * ratio));
                }
                int first = towards == Sampling.Towards.END ? gap.length - 1 : 0;
                assertThat(gap[first]).isCloseTo(least, within(1e-12));
                if (both) {
                    for (int i = 0; i < gap.length; i++) {
                        assertThat(gap[i]).isCloseTo(gap[gap.length - 1 - i], within(1e-10));
                    }
                }
            }
        }
        assertThatThrownBy(() -> new Sampling.Clustered(2, 3, towards)).hasMessageContaining("at least 3 samples");
        assertThatThrownBy(() -> new Sampling.Clustered(9, 0.5, towards)).hasMessageContaining("ratio of 1 to 1e6");
        assertThatThrownBy(() -> new Sampling.Clustered(9, Double.NaN, towards)).isInstanceOf(LaneException.class);
    }

    @Test
    void samplesOfACorneredPathLieOnItAtTheirLengths() {
        var random = new Random(9);
        for (int trial = 0; trial < 30; trial++) {
            List<Point> corners = new ArrayList<>();
            for (int i = 0; i < 2 + random.nextInt(5); i++) {
                corners.add(random(random));
            }
            var path = new Polyline(corners, new Sampling.Even(37), Abscissa.ARC);
            PathSamples s = PathSamples.of(path);
            double whole = 0;
            for (int i = 1; i < corners.size(); i++) {
                whole += corners.get(i).minus(corners.get(i - 1)).norm();
            }
            assertThat(path.length()).isCloseTo(whole, within(1e-13));
            for (int i = 0; i < s.size(); i++) {
                near(at(s, i), walked(corners, s.arc()[i]), 1e-12);
            }
            assertThat(sum(s.weight())).isCloseTo(whole, within(1e-12));
        }
    }

    /** The place after a length, walked from corner to corner. */
    private static Point walked(List<Point> corners, double arc) {
        double left = arc;
        for (int i = 1; i < corners.size(); i++) {
            Point step = corners.get(i).minus(corners.get(i - 1));
            if (left <= step.norm() || i == corners.size() - 1) {
                return corners.get(i - 1).plus(step.times(Math.min(1, left / step.norm())));
            }
            left -= step.norm();
        }
        throw new IllegalStateException("a path has two corners");
    }

    @Test
    void anArcIsAsLongAsItsAngleAndKeepsItsRadius() {
        var axis = new Axis(new Point(1, -2, 0.5), new Point(1, 1, 2));
        for (double[] angles : new double[][] {{0, 90}, {-30, 200}, {350, 10}, {0, 360}}) {
            var arc = new Arc(axis, 0.7, 0.2, angles[0], angles[1], new Sampling.Even(61), Abscissa.ARC);
            PathSamples s = PathSamples.of(arc);
            double turned = Math.toRadians(Math.abs(angles[1] - angles[0]));
            assertThat(arc.length()).isCloseTo(0.7 * turned, within(1e-13));
            assertThat(s.arc()[60]).isCloseTo(0.7 * turned, within(1e-13));
            for (int i = 0; i < s.size(); i++) {
                Point p = at(s, i);
                assertThat(axis.radius(p.x(), p.y(), p.z())).isCloseTo(0.7, within(1e-13));
                assertThat(axis.along(p.x(), p.y(), p.z())).isCloseTo(0.2, within(1e-13));
            }
            near(at(s, 0), axis.place(0.7, Math.toRadians(angles[0]), 0.2), 1e-13);
            near(at(s, 60), axis.place(0.7, Math.toRadians(angles[1]), 0.2), 1e-13);
        }
    }

    @Test
    void whatIsMovedKeepsItsShape() {
        Point by = new Point(0.3, -4, 7);
        var sampling = new Sampling.Even(9);
        for (Shape.Path path : List.of(
                new Line(new Point(1, 2, 3), new Point(-1, 0, 4), sampling, Abscissa.ARC),
                new Polyline(
                        List.of(new Point(0, 0, 0), new Point(1, 0, 0), new Point(1, 2, 0)), sampling, Abscissa.ARC),
                new Arc(Axis.Z, 2, 0.5, 10, 80, sampling, Abscissa.ARC))) {
            var moved = (Shape.Path) path.moved(by);
            PathSamples a = PathSamples.of(path);
            PathSamples b = PathSamples.of(moved);
            for (int i = 0; i < a.size(); i++) {
                near(at(a, i).plus(by), at(b, i), 1e-13);
                assertThat(b.arc()[i]).isCloseTo(a.arc()[i], within(1e-13));
            }
        }
    }

    @Test
    void aFrameAndItsInverseUndoEachOther() {
        var random = new Random(4);
        for (int trial = 0; trial < 50; trial++) {
            var axis = new Axis(random(random), random(random), random(random));
            Point p = random(random);
            near(axis.out(axis.in(p)), p, 1e-13);
            near(axis.in(axis.out(p)), p, 1e-13);
            near(axis.inverse().out(p), axis.in(p), 1e-13);
            near(axis.outDirection(axis.inDirection(p)), p, 1e-13);
            // Directions are square to each other and of unit length, right-handed.
            near(axis.zero().cross(axis.quarter()), axis.direction(), 1e-13);
            double r = axis.radius(p.x(), p.y(), p.z());
            near(axis.place(r, axis.angle(p.x(), p.y(), p.z()), axis.along(p.x(), p.y(), p.z())), p, 1e-13);
            var within = new Axis(random(random), random(random), random(random));
            near(axis.out(within).out(p), axis.out(within.out(p)), 1e-12);
        }
        assertThatThrownBy(() -> new Axis(new Point(0, 0, 0), new Point(0, 0, 2), new Point(0, 0, -1)))
                .hasMessageContaining("angle zero lies along the axis");
        assertThatThrownBy(() -> new Axis(new Point(0, 0, 0), new Point(0, 0, 0)))
                .isInstanceOf(LaneException.class);
    }

    private static double[][] matrix(String about, double degrees) {
        double c = Math.cos(Math.toRadians(degrees));
        double s = Math.sin(Math.toRadians(degrees));
        return switch (about) {
            case "x" -> new double[][] {{1, 0, 0}, {0, c, -s}, {0, s, c}};
            case "y" -> new double[][] {{c, 0, s}, {0, 1, 0}, {-s, 0, c}};
            default -> new double[][] {{c, -s, 0}, {s, c, 0}, {0, 0, 1}};
        };
    }

    private static double[][] times(double[][] a, double[][] b) {
        double[][] out = new double[3][3];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                for (int k = 0; k < 3; k++) {
                    out[i][j] += a[i][k] * b[k][j];
                }
            }
        }
        return out;
    }

    /** About the parent's directions each matrix comes before those that are there, about the frame's own behind them. */
    @Test
    void stepsOfTurningAreProductsOfMatrices() {
        var random = new Random(8);
        String[] names = {"x", "y", "z"};
        for (int trial = 0; trial < 40; trial++) {
            boolean own = trial % 2 == 0;
            List<Rotation> steps = new ArrayList<>();
            double[][] all = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
            for (int i = 0; i < 1 + random.nextInt(4); i++) {
                var step = new Rotation(names[random.nextInt(3)], 720 * random.nextDouble() - 360);
                steps.add(step);
                double[][] m = matrix(step.about(), step.degrees());
                all = own ? times(all, m) : times(m, all);
            }
            Point origin = random(random);
            Axis axis = new Frame("f", "plate", "", origin, new Attitude.Turned(steps, own), false, "").axis();
            Point p = random(random);
            Point expected = new Point(
                            all[0][0] * p.x() + all[0][1] * p.y() + all[0][2] * p.z(),
                            all[1][0] * p.x() + all[1][1] * p.y() + all[1][2] * p.z(),
                            all[2][0] * p.x() + all[2][1] * p.y() + all[2][2] * p.z())
                    .plus(origin);
            near(axis.out(p), expected, 1e-12);
        }
        assertThatThrownBy(() -> new Rotation("w", 3)).hasMessageContaining("give x, y or z");
        assertThatThrownBy(() -> new Rotation("x", Double.NaN)).isInstanceOf(LaneException.class);
    }

    @Test
    void threePointsMakeAFrame() {
        var random = new Random(6);
        for (int trial = 0; trial < 20; trial++) {
            Point a = random(random);
            Point b = random(random);
            Point c = random(random);
            Axis axis = new Frame("f", "rig", "", a, Frame.through(a, b, c), false, "").axis();
            Point second = axis.in(b);
            assertThat(second.x()).isCloseTo(b.minus(a).norm(), within(1e-12));
            assertThat(Math.abs(second.y()) + Math.abs(second.z())).isLessThan(1e-12);
            Point third = axis.in(c);
            assertThat(third.z()).isCloseTo(0, within(1e-12));
            assertThat(third.y()).isPositive();
        }
        assertThatThrownBy(() -> Frame.through(new Point(0, 0, 0), new Point(1, 1, 1), new Point(3, 3, 3)))
                .hasMessageContaining("lie on one line");
    }

    @Test
    void aBoxHoldsWhatLiesBetweenItsSidesInItsFrame() {
        var turned = new Axis(new Point(5, 0, 0), new Point(0, 1, 1), new Point(1, 0, 0));
        var box = new Box(new Point(-1, 0, 0.5), new Point(1, 2, 3), turned);
        assertThat(box.volume()).isCloseTo(2 * 2 * 2.5, within(1e-14));
        var random = new Random(1);
        int in = 0;
        for (int trial = 0; trial < 500; trial++) {
            Point own = new Point(4 * random.nextDouble() - 2, 4 * random.nextDouble() - 1, 4 * random.nextDouble());
            Point p = turned.out(own);
            boolean expected = Math.abs(own.x()) <= 1 && own.y() >= 0 && own.y() <= 2 && own.z() >= 0.5 && own.z() <= 3;
            assertThat(box.holds(p.x(), p.y(), p.z())).as(own.toString()).isEqualTo(expected);
            in += expected ? 1 : 0;
        }
        assertThat(in).isBetween(50, 250);
    }
}
