package lane.convergence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import lane.base.LaneException;
import lane.convergence.Refinement.Stated;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RefinementTest {

    private static void rounds(double value, double printed, int decimals) {
        assertThat(value).isCloseTo(printed, within(0.5000001 * Math.pow(10, -decimals)));
    }

    /**
     * The three worked examples of Celik et al. (2008), J. Fluids Eng. 130, 078001, table 1: the ratios of sizes
     * from the cells printed there (18000, 8000, 4500 and 18000, 4500, 980 of a plane flow), values, and order, extrapolated value,
     * relative change and index to their printed digits. Distances from the extrapolated value are printed there over the finest.
     */
    @ParameterizedTest
    @CsvSource({
        "1.5, 1.3333333333333333, 6.063, 5.972, 5.863, MONOTONE, 1.53, 6.1685, 1.5, 1.7, 2.2",
        "2.0, 2.142857142857143, 10.7880, 10.7250, 10.6050, MONOTONE, 0.75, 10.8801, 0.6, 0.9, 1.1",
        "2.0, 2.142857142857143, 6.0042, 5.9624, 6.0909, OSCILLATORY, 1.51, 6.0269, 0.7, 0.4, 0.5"
    })
    void workedExamplesOfTheProcedure(
            double r21,
            double r32,
            double fine,
            double medium,
            double coarse,
            Kind kind,
            double order,
            double extrapolated,
            double change,
            double distance,
            double index) {
        Convergence c =
                Refinement.of(new double[] {1, r21, r21 * r32}, new double[] {fine, medium, coarse}, Stated.NOTHING);
        assertThat(c.kind()).isEqualTo(kind);
        rounds(c.order(), order, 2);
        // The paper extrapolates with its rounded order.
        assertThat(c.extrapolated()).isCloseTo(extrapolated, within(1e-3));
        rounds(100 * c.relativeError(), change, 1);
        rounds(100 * Math.abs(c.extrapolated() / fine - 1), distance, 1);
        rounds(100 * c.gci(), index, 1);
        assertThat(c.safety()).isEqualTo(1.25);
    }

    /** The pressure recovery of a supersonic inlet on three meshes as NASA's NPARC Alliance tells it in its tutorial on grid convergence. */
    @Test
    void workedExampleOfAPressureRecovery() {
        Convergence c = Refinement.of(new double[] {1, 2, 4}, new double[] {0.97050, 0.96854, 0.96178}, Stated.NOTHING);
        rounds(c.order(), 1.786170, 6);
        rounds(c.extrapolated(), 0.971300, 6);
        rounds(100 * c.gci(), 0.103083, 6);
        rounds(c.asymptoticRatio(), 0.97050 / 0.96854, 6);
        // The same from sizes in another unit and order.
        Convergence turned =
                Refinement.of(new double[] {12, 3, 6}, new double[] {0.96178, 0.97050, 0.96854}, Stated.NOTHING);
        assertThat(turned.order()).isEqualTo(c.order());
        assertThat(turned.gci()).isEqualTo(c.gci());
    }

    @ParameterizedTest
    @CsvSource({"0.5", "1", "1.37", "2", "3", "4"})
    void manufacturedSequencesGiveTheirOrderAndLimit(double p) {
        double[] h = {0.1, 0.13, 0.21};
        double[] v = Arrays.stream(h).map(s -> 7 - 3 * Math.pow(s, p)).toArray();
        Convergence c = Refinement.of(h, v, Stated.NOTHING);
        assertThat(c.kind()).isEqualTo(Kind.MONOTONE);
        assertThat(c.order()).isCloseTo(p, within(1e-9));
        assertThat(c.extrapolated()).isCloseTo(7, within(1e-9));
        assertThat(c.half()).isCloseTo(1.25 * 3 * Math.pow(0.1, p), within(1e-8));

        double[] many = {0.08, 0.1, 0.13, 0.21, 0.3};
        Convergence five = Refinement.of(
                many, Arrays.stream(many).map(s -> 7 - 3 * Math.pow(s, p)).toArray(), Stated.NOTHING);
        assertThat(five.kind()).isEqualTo(Kind.MONOTONE);
        assertThat(five.order()).isCloseTo(p, within(1e-6));
        assertThat(five.extrapolated()).isCloseTo(7, within(1e-6));
        assertThat(five.half()).isCloseTo(1.25 * 3 * Math.pow(0.08, p), within(1e-5));
        assertThat(five.deviation()).isLessThan(1e-6);
    }

    @Test
    void alternatingSequences() {
        // What the procedure takes as alternating: |change| falls as (r^p + 1) does.
        double p = 1.5;
        double r = 1.7;
        double[] v = {1, 1.02, 1.02 - 0.02 * Math.pow(r, p)};
        Convergence c = Refinement.of(new double[] {1, r, r * r}, v, Stated.NOTHING);
        assertThat(c.kind()).isEqualTo(Kind.OSCILLATORY);
        assertThat(c.order()).isCloseTo(p, within(1e-10));
        assertThat(c.notes()).anyMatch(n -> n.contains("alternate"));
    }

    @Test
    void whatDoesNotConvergeHasNoOrder() {
        for (double[] v : new double[][] {{1, 1.2, 1.3}, {1, 1.2, 1.1}, {1, 1.2, 1.4}, {1, 1.2, 1.2}}) {
            Convergence c = Refinement.of(new double[] {1, 2, 4}, v, Stated.NOTHING);
            assertThat(c.kind()).as(Arrays.toString(v)).isEqualTo(Kind.DIVERGENT);
            assertThat(c.order()).isNaN();
            assertThat(c.extrapolated()).isNaN();
            assertThat(c.half()).isCloseTo(3 * (Arrays.stream(v).max().orElseThrow() - 1), within(1e-12));
        }
        // The same changes shrink where the second refinement was the smaller one.
        assertThat(Refinement.of(new double[] {1, 2, 2.4}, new double[] {1, 1.2, 1.3}, Stated.NOTHING)
                        .kind())
                .isEqualTo(Kind.MONOTONE);
        double[] grows = {1, 1.5, 1.8, 1.9, 1.95};
        assertThat(Refinement.of(new double[] {1, 2, 4, 8, 16}, grows, Stated.NOTHING)
                        .kind())
                .isEqualTo(Kind.DIVERGENT);
    }

    @Test
    void equalValuesAreTooCloseToTell() {
        Convergence c = Refinement.of(new double[] {1, 2, 4}, new double[] {5, 5, 5.5}, Stated.NOTHING);
        assertThat(c.kind()).isEqualTo(Kind.TOO_CLOSE);
        assertThat(c.order()).isNaN();
        assertThat(c.half()).isEqualTo(1.5);
        Convergence none = Refinement.of(new double[] {1, 2, 4, 5}, new double[] {5, 5, 5, 5}, Stated.NOTHING);
        assertThat(none.kind()).isEqualTo(Kind.TOO_CLOSE);
        assertThat(none.gci()).isZero();
    }

    @Test
    void twoMeshesAssumeAnOrder() {
        Convergence c = Refinement.of(new double[] {1, 2}, new double[] {10, 10.3}, Stated.NOTHING);
        assertThat(c.kind()).isEqualTo(Kind.TWO);
        assertThat(c.order()).isEqualTo(2);
        assertThat(c.extrapolated()).isCloseTo(9.9, within(1e-12));
        assertThat(c.half()).isCloseTo(0.3, within(1e-12));
        assertThat(c.gci()).isCloseTo(0.03, within(1e-12));
        assertThat(c.asymptoticRatio()).isNaN();
        assertThat(c.notes()).containsExactly("Two meshes show no order: 2 is assumed, and the safety factor is 3.");
        Convergence first = Refinement.of(new double[] {1, 2}, new double[] {10, 10.3}, new Stated(1, Double.NaN));
        assertThat(first.half()).isCloseTo(0.9, within(1e-12));
    }

    @Test
    void anOrderAboveTheSchemesIsNotCountedUpon() {
        double[] h = {1, 2, 4};
        double[] v = {1 + 1e-3, 1 + 8e-3, 1 + 64e-3};
        assertThat(Refinement.of(h, v, Stated.NOTHING).half()).isCloseTo(1.25e-3, within(1e-10));
        Convergence c = Refinement.of(h, v, new Stated(2, Double.NaN));
        assertThat(c.order()).isCloseTo(3, within(1e-9));
        assertThat(c.half()).isCloseTo(1.25 * 7e-3 / 3, within(1e-10));
        assertThat(c.notes()).anyMatch(n -> n.contains("above the scheme's"));
    }

    @Test
    void scatterOfManyMeshesIsInTheUncertainty() {
        double[] h = {1, 1.3, 1.6, 2, 2.5, 3};
        int covered = 0;
        for (int seed = 0; seed < 60; seed++) {
            var random = new Random(seed);
            double[] v = Arrays.stream(h)
                    .map(s -> 10 + 0.02 * s * s + 0.002 * random.nextGaussian())
                    .toArray();
            Convergence c = Refinement.of(h, v, Stated.NOTHING);
            assertThat(c.deviation()).isGreaterThan(0);
            covered += Math.abs(v[0] - 10) <= c.half() ? 1 : 0;
        }
        assertThat(covered).isGreaterThanOrEqualTo(57);
    }

    @Test
    void anOrderAgainstAnExactValue() {
        double[] h = {0.4, 0.1, 0.2};
        double[] v = Arrays.stream(h).map(s -> 2 + s * s * s).toArray();
        AgainstExact a = AgainstExact.of(h, v, 2);
        assertThat(a.order()).isCloseTo(3, within(1e-11));
        assertThat(a.standardError()).isLessThan(1e-11);
        assertThat(a.between()).hasSize(2);
        assertThat(a.errors()[0]).isCloseTo(1e-3, within(1e-14));
        assertThatThrownBy(() -> AgainstExact.of(h, new double[] {2, 2.5, 2.1}, 2))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("exact one to the last digit");
    }

    @Test
    void wrongInputsAreTold() {
        assertThatThrownBy(() -> Refinement.of(new double[] {1, 2}, new double[] {1}, Stated.NOTHING))
                .hasMessage("There are 2 sizes and 1 value; give as many of one as of the other.");
        assertThatThrownBy(() -> Refinement.of(new double[] {1}, new double[] {1}, Stated.NOTHING))
                .hasMessageContaining("One mesh says nothing");
        assertThatThrownBy(() -> Refinement.of(new double[] {1, -2}, new double[] {1, 2}, Stated.NOTHING))
                .hasMessageContaining("positive number; got −2");
        assertThatThrownBy(() -> Refinement.of(new double[] {1, 1}, new double[] {1, 2}, Stated.NOTHING))
                .hasMessageContaining("Two meshes have the size 1");
        assertThatThrownBy(() -> Refinement.of(new double[] {1, 2}, new double[] {1, Double.NaN}, Stated.NOTHING))
                .hasMessageContaining("The value of size 2 is no number");
        assertThatThrownBy(() -> new Stated(0, Double.NaN)).hasMessageContaining("order of a scheme");
        assertThatThrownBy(() -> new Stated(1, 0.5)).hasMessageContaining("safety factor");
    }
}
