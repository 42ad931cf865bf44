package lane.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleUnaryOperator;
import lane.check.Meeting.At;
import lane.check.Meeting.Resampling;
import lane.check.Meeting.Weighting;
import lane.estimate.Band;
import lane.estimate.Uncertainty;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** How two curves meet: points, resampling, branches, alignment; and the further measures. */
class MeetingTest {
    private static final Unit M = Unit.of("m");

    private static Profile profile(double[] x, double[] y, double... half) {
        List<Band> bands = half.length == 0 ? List.of() : List.of(new Band(Uncertainty.Source.MEASURED, half));
        return new Profile(x, y, bands, "height", M, Unit.of("K"), false, x.length, "", Provenance.EMPTY);
    }

    private static double[] even(int n, double from, double to) {
        double[] x = new double[n];
        Arrays.setAll(x, i -> from + (to - from) * i / (n - 1));
        return x;
    }

    private static Profile of(double[] x, DoubleUnaryOperator f) {
        return profile(x, Arrays.stream(x).map(f).toArray());
    }

    private static Meeting at(At at, int n, Resampling how) {
        return new Meeting(how, at, n, Weighting.LENGTH, Alignment.NONE);
    }

    @Test
    void pointsOfTheDatumTheCurveOrEvenOnes() {
        Profile curve = of(even(5, 0, 4), x -> 2 * x);
        Profile datum = of(even(3, 1, 5), x -> x);
        assertThat(Difference.of(curve, datum).abscissa()).containsExactly(1, 3);
        Difference own = Difference.of(curve, datum, at(At.CURVE, 0, Resampling.LINEAR));
        assertThat(own.abscissa()).containsExactly(1, 2, 3, 4);
        assertThat(own.value()).containsExactly(1, 2, 3, 4);
        assertThat(own.method()).startsWith("at the curve's points, datum resampled linearly");
        Difference even = Difference.of(curve, datum, at(At.EVEN, 4, Resampling.LINEAR));
        assertThat(even.abscissa()).containsExactly(1, 2, 3, 4);
        assertThat(even.overlapFrom()).isEqualTo(1);
        assertThat(even.overlapTo()).isEqualTo(4);
        // Samples alike: the mean of 1, 2, 3, 4; by length the trapezoid's of 2.5 as well, but not of squares.
        Meeting alike = new Meeting(Resampling.LINEAR, At.CURVE, 0, Weighting.SAMPLES, Alignment.NONE);
        assertThat(Difference.of(curve, datum, alike).l2()).isCloseTo(Math.sqrt(7.5), within(1e-14));
        assertThat(own.l2()).isCloseTo(Math.sqrt((0.5 + 4 + 9 + 8) / 3), within(1e-14));
        assertThatThrownBy(() -> at(At.EVEN, 1, Resampling.LINEAR)).hasMessageContaining("2 or more");
    }

    /** Monotone cubics: third order on a smooth monotone curve, and no overshoot beside a step. */
    @Test
    void cubicsAreOfHigherOrderAndKeepMonotone() {
        double[] errors = new double[3];
        for (int k = 0; k < 3; k++) {
            Profile coarse = of(even(11 << k, 0, 1), Math::exp);
            Profile fine = of(even(301, 0, 1), Math::exp);
            errors[k] = Difference.of(coarse, fine, at(At.DATUM, 0, Resampling.CUBIC))
                    .linf();
        }
        assertThat(Math.log(errors[0] / errors[2]) / Math.log(4)).isGreaterThan(2.8);
        Profile step = profile(even(6, 0, 5), new double[] {0, 0, 0, 1, 1, 1});
        Profile zero = of(even(101, 0, 5), x -> 0);
        double[] v =
                Difference.of(step, zero, at(At.DATUM, 0, Resampling.CUBIC)).value();
        for (int i = 1; i < v.length; i++) {
            assertThat(v[i]).isBetween(v[i - 1] - 1e-15, 1.0);
        }
        // A straight line stays one.
        Profile line = profile(new double[] {0, 0.3, 1, 2}, new double[] {1, 1.6, 3, 5});
        Profile same = of(even(41, 0, 2), x -> 1 + 2 * x);
        assertThat(Difference.of(line, same, at(At.DATUM, 0, Resampling.CUBIC)).linf())
                .isLessThan(1e-14);
    }

    /** Around a section: the upper side there and the lower one back, in the datum the other way round and with other points. */
    @Test
    void branchesAreComparedEachWithTheOneNextToIt() {
        double[] there = even(21, 0, 1);
        double[] back = even(15, 1, 0);
        double[] x = new double[36];
        double[] y = new double[36];
        for (int i = 0; i < 36; i++) {
            x[i] = i < 21 ? there[i] : back[i - 21];
            y[i] = i < 21 ? 3 + x[i] : -2 * x[i];
        }
        double[] dx = {1, 0.65, 0.33, 0, 0.12, 0.5, 0.88};
        double[] dy = new double[7];
        Arrays.setAll(dy, i -> i < 4 ? -2 * dx[i] : 2.5 + dx[i]);
        Difference d = Difference.of(profile(x, y), profile(dx, dy));
        assertThat(d.value()).hasSizeBetween(7, 8);
        assertThat(d.method()).contains("2 branches");
        for (int i = 0; i < d.value().length; i++) {
            boolean upper = d.datum()[i] > 0.5;
            assertThat(d.value()[i]).isCloseTo(upper ? 0.5 : 0, within(1e-12));
        }
        assertThatThrownBy(() -> Difference.of(profile(x, y), profile(dx, dy), at(At.EVEN, 5, Resampling.LINEAR)))
                .hasMessageContaining("do not turn back");
    }

    @Test
    void anAbscissaIsShiftedScaledTurnedAndFitted() {
        Profile datum = of(even(201, 0, 10), Math::sin);
        Profile shifted = of(even(151, 0.75, 9.75), x -> Math.sin(x - 0.5));
        var by = new Alignment(-0.5, null, false, false, false, "probe mounted lower");
        Difference d = Difference.of(shifted, datum, Meeting.USUAL.aligned(by));
        assertThat(d.linf()).isLessThan(2e-3);
        assertThat(d.method()).contains("abscissa shifted by −0.5 m").contains("probe mounted lower");
        var fit = new Alignment(0, null, false, false, true, "");
        Difference best = Difference.of(shifted, datum, Meeting.USUAL.aligned(fit));
        assertThat(best.l2()).isLessThan(1e-3);
        assertThat(best.method()).containsPattern("shifted by −0\\.(5|500\\d*|499\\d*) m, which fits best");
        Profile reversed = of(even(201, 0, 10), x -> Math.sin(10 - x));
        var turn = new Alignment(0, null, true, false, false, "");
        assertThat(Difference.of(reversed, datum, Meeting.USUAL.aligned(turn)).linf())
                .isLessThan(1e-12);
        Profile inches = of(even(201, 0, 10 / 0.0254), x -> Math.sin(0.0254 * x));
        var scale = new Alignment(0, 0.0254, false, false, false, "");
        assertThat(Difference.of(inches, datum, Meeting.USUAL.aligned(scale)).linf())
                .isLessThan(1e-12);
        Profile half = of(even(201, 3, 5), x -> Math.sin(5 * (x - 3)));
        var share = new Alignment(0, null, false, true, false, "");
        assertThat(Difference.of(half, datum, Meeting.USUAL.aligned(share)).linf())
                .isLessThan(1e-12);
        assertThatThrownBy(() -> new Alignment(0, 0.0, false, false, false, "")).hasMessageContaining("not by zero");
    }

    @Test
    void correlationAndTheShareInsideOfTheDatumsUncertainty() {
        double[] x = even(5, 0, 4);
        Profile datum = profile(x, new double[] {0, 1, 2, 3, 4}, 0.2, 0.2, 0.2, 0.2, 0.2);
        Profile curve = profile(x, new double[] {0.1, 1.1, 2.1, 3.5, 4});
        Difference d = Difference.of(curve, datum);
        assertThat(d.inside()).isCloseTo(0.8, within(1e-15));
        assertThat(d.norm(Norm.INSIDE)).isCloseTo(0.2, within(1e-15));
        assertThat(d.norm(Norm.BIAS)).isCloseTo(d.bias(), within(0.0));
        // A straight line of another slope correlates wholly, a turned one not at all.
        assertThat(Difference.of(of(x, v -> 3 * v - 1), datum).correlation()).isCloseTo(1, within(1e-14));
        assertThat(Difference.of(of(x, v -> 4 - v), datum).correlation()).isCloseTo(-1, within(1e-14));
        assertThat(Difference.of(of(x, v -> 7), datum).correlation()).isNaN();
    }

    private static CheckResult judge(AgainstDatum rule, Profile curve, Profile datum) {
        Map<String, Outcome> all = new LinkedHashMap<>();
        all.put("run", curve);
        all.put("rig", datum);
        return new Check("c", "r", rule, List.of("run"))
                .judge(new Crossing(all, "rig", List.of("run"), List.of("run")));
    }

    @Test
    void severalMeasuresTheWorstOfWhichDecides() {
        double[] x = even(5, 0, 4);
        Profile datum = profile(x, new double[] {0, 1, 2, 3, 4}, 0.2, 0.2, 0.2, 0.2, 0.2);
        Profile curve = profile(x, new double[] {0, 1, 2, 3.5, 4});
        var rule = new AgainstDatum(Norm.L1, Scale.RANGE, 0.2, "");
        assertThat(judge(rule, curve, datum).verdict()).isEqualTo(Verdict.WITHIN);
        CheckResult two = judge(
                rule.also(List.of(
                        new Demand(Norm.LINF, Scale.ABSOLUTE, 0.25), new Demand(Norm.CORRELATION, Scale.RANGE, 0.05))),
                curve,
                datum);
        assertThat(two.verdict()).isEqualTo(Verdict.OUT);
        CheckResult.Lane lane = two.lanes().get("run");
        assertThat(lane.evidence().measures()).hasSize(2);
        assertThat(lane.evidence().measures().get(0).verdict()).isEqualTo(Verdict.OUT);
        assertThat(lane.evidence().measures().get(1).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(lane.sentence()).contains("tolerance 0.25 K").contains("Correlation 0.9");
        assertThat(judge(new AgainstDatum(Norm.INSIDE, Scale.RANGE, 0.1, ""), curve, datum)
                        .verdict())
                .isEqualTo(Verdict.OUT);
        assertThat(judge(new AgainstDatum(Norm.INSIDE, Scale.RANGE, 0.1, ""), curve, profile(x, x))
                        .verdict())
                .isEqualTo(Verdict.NO_DATA);
        assertThat(two.why()).contains("tolerance 0.25 K");
    }

    /** |E| within k u_val; at each place of a curve with its own. */
    @ParameterizedTest
    @ValueSource(doubles = {1, 2, 3})
    void aValidationIsAboutErrorAndUncertainty(double k) {
        double[] x = even(3, 0, 2);
        // Standard uncertainties 0.1, 0.1, 0.3; errors 0.15, 0, 0.45.
        Profile datum = profile(x, new double[] {5, 6, 7}, 0.2, 0.2, 0.6);
        Profile curve = profile(x, new double[] {5.15, 6, 7.45});
        CheckResult made = judge(new AgainstDatum(Norm.LINF, Scale.UNCERTAINTY, k, ""), curve, datum);
        assertThat(made.verdict()).isEqualTo(k < 1.5 ? Verdict.OUT : Verdict.WITHIN);
        assertThat(made.why()).contains("u_val").doesNotContain("validated");
        assertThat(judge(new AgainstDatum(Norm.LINF, Scale.UNCERTAINTY, k, ""), curve, profile(x, x))
                        .verdict())
                .isEqualTo(Verdict.NO_DATA);
    }

    @Test
    void aBandAboutTheDatumIsAShareOfItAtEachPlace() {
        double[] x = even(3, 0, 2);
        Profile datum = profile(x, new double[] {1, 10, 100});
        Profile curve = profile(x, new double[] {1.05, 10.2, 108});
        CheckResult made = judge(new AgainstDatum(Norm.LINF, Scale.LOCAL, 0.07, ""), curve, datum);
        assertThat(made.verdict()).isEqualTo(Verdict.OUT);
        assertThat(made.why()).contains("difference is 8 K").contains("tolerance there 7 K");
        assertThat(judge(new AgainstDatum(Norm.LINF, Scale.LOCAL, 0.09, ""), curve, datum)
                        .verdict())
                .isEqualTo(Verdict.WITHIN);
        Profile low = profile(x, new double[] {1.2, 10.2, 101});
        CheckResult elsewhere = judge(new AgainstDatum(Norm.LINF, Scale.LOCAL, 0.07, ""), low, datum);
        assertThat(elsewhere.verdict()).isEqualTo(Verdict.OUT);
        assertThat(elsewhere.why()).contains("difference is 0.2 K").contains("tolerance there 0.07 K");
    }

    @Test
    void twoReadingsOfOneLane() {
        double[] x = even(3, 0, 2);
        Map<String, Outcome> wall = new LinkedHashMap<>();
        wall.put("run", profile(x, new double[] {3, 4, 5}));
        Map<String, Outcome> middle = Map.of("run", profile(x, new double[] {2, 3, 4.5}));
        var rule = new AgainstDatum(Norm.LINF, Scale.ABSOLUTE, 2, "").with("middle");
        assertThat(rule.comparesWithDatum()).isFalse();
        var on = new Crossing(
                wall,
                "",
                List.of("run"),
                List.of("run"),
                Map.of(),
                Map.of(),
                Doubts.USUAL,
                Map.of("middle", new Crossing.Other("Middle line", middle)));
        CheckResult made = new Check("c", "wall", rule, List.of()).judge(on);
        assertThat(made.verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(made.lanes().get("run").difference()).isEqualTo(1);
        assertThat(made.lanes().get("run").what()).contains("\"Middle line\"");
        CheckResult none = new Check("c", "wall", rule.with("edge"), List.of()).judge(on);
        assertThat(none.why()).contains("\"edge\" that it is compared with is not in the study");
    }
}
