package lane.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.estimate.Band;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Provenance;
import lane.reading.Balance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Tally;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

class DifferenceTest {
    private static final Unit M = Unit.of("m");

    private static Profile profile(double[] x, double[] y, boolean formula, double... half) {
        List<Band> bands = half.length == 0 ? List.of() : List.of(new Band(Uncertainty.Source.MEASURED, half));
        return new Profile(x, y, bands, "radius", M, Unit.of("m/s"), formula, x.length, "", Provenance.EMPTY);
    }

    @Test
    void normsOfAKnownDifference() {
        Profile datum = profile(new double[] {0, 1, 2, 3}, new double[] {0, 10, 20, 30}, false);
        Profile curve = profile(new double[] {0, 1, 2, 3}, new double[] {1, 10, 18, 30}, false);
        Difference d = Difference.of(curve, datum);
        assertThat(d.value()).containsExactly(1, 0, -2, 0);
        // Ends stand for half a step, the others for a whole one, of three.
        assertThat(d.l1()).isCloseTo(2.5 / 3, within(1e-15));
        assertThat(d.l2()).isCloseTo(Math.sqrt(4.5 / 3), within(1e-15));
        assertThat(d.linf()).isEqualTo(2);
        assertThat(d.linfAt()).isEqualTo(2);
        assertThat(d.signed()).isEqualTo(-2);
        assertThat(d.bias()).isCloseTo(-1.5 / 3, within(1e-15));
        assertThat(d.scale(Scale.RANGE)).isEqualTo(30);
        assertThat(d.scale(Scale.MEAN)).isEqualTo(15);
    }

    @Test
    void theDatumsPointsAreUsedUnlessItIsAFormulaAndNothingIsExtrapolated() {
        Profile few = profile(new double[] {0.5, 1.5, 9}, new double[] {5, 15, 90}, false);
        Profile many = profile(new double[] {2, 1, 0}, new double[] {20, 10, 0}, false);
        assertThat(Difference.of(many, few).abscissa()).containsExactly(0.5, 1.5);
        assertThat(Difference.of(many, few).value()).containsExactly(0, 0);
        assertThat(Difference.of(few, many).abscissa()).containsExactly(2, 1);
        Profile formula = profile(new double[] {0, 2}, new double[] {0, 20}, true);
        assertThat(Difference.of(few, formula).abscissa()).containsExactly(0.5, 1.5);
        assertThat(Difference.of(few, formula).overlapTo()).isEqualTo(1.5);
    }

    /** Two lanes read at the same places are compared place by place, also where the abscissa turns back or begins anew. */
    @Test
    void theSamePlacesMeetEachOther() {
        double[] back = {0, 2, 1, Double.NaN, 0, 2};
        Profile datum = profile(back, new double[] {1, 5, 3, Double.NaN, 10, 50}, false, 0.1, 0.2, 0.3, 0, 0.4, 0.5);
        Profile curve = profile(back, new double[] {1, 6, 3, Double.NaN, 10, 47}, false);
        Difference d = Difference.of(curve, datum);
        assertThat(d.value()).containsExactly(0, 1, 0, 0, -3);
        assertThat(d.uncertainty()).containsExactly(0.1, 0.2, 0.3, 0.4, 0.5);
        assertThat(d.linfAt()).isEqualTo(2);
        assertThat(Arrays.stream(d.weight()).sum()).isCloseTo(1, within(1e-15));
    }

    @Test
    void absentValuesAreLeftOutAndNotTakenAsZero() {
        Profile datum = profile(new double[] {0, 1, 2}, new double[] {1, 1, 1}, false);
        Profile curve = profile(new double[] {0, 1, 2}, new double[] {1, Double.NaN, 1}, false);
        assertThat(Difference.of(curve, datum).abscissa()).containsExactly(0, 2);
        assertThatThrownBy(() -> Difference.of(profile(new double[] {7, 8}, new double[] {1, 1}, false), datum))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("in common");
        double[] zigzag = new double[12];
        Arrays.setAll(zigzag, i -> i % 2);
        assertThatThrownBy(() -> Difference.of(profile(zigzag, new double[12], false), datum))
                .hasMessageContaining("goes back and forth");
        Profile warm = new Profile(
                new double[] {0},
                new double[] {0},
                List.of(),
                "radius",
                M,
                Unit.of("K"),
                false,
                1,
                "",
                Provenance.EMPTY);
        assertThatThrownBy(() -> Difference.of(warm, datum)).hasMessageContaining("K and m/s");
    }

    @Test
    void linearResamplingIsOfSecondOrder() {
        double[] errors = new double[2];
        for (int k = 0; k < 2; k++) {
            int n = k == 0 ? 11 : 21;
            double[] x = new double[n];
            double[] y = new double[n];
            for (int i = 0; i < n; i++) {
                x[i] = (double) i / (n - 1);
                y[i] = Math.sin(3 * x[i]);
            }
            double[] at = new double[400];
            double[] exact = new double[400];
            for (int i = 0; i < 400; i++) {
                at[i] = (i + 0.5) / 400;
                exact[i] = Math.sin(3 * at[i]);
            }
            errors[k] = Difference.of(profile(x, y, false), profile(at, exact, false))
                    .linf();
        }
        assertThat(Math.log(errors[0] / errors[1]) / Math.log(2)).isBetween(1.9, 2.1);
    }

    @Test
    void theVerdictFollowsTheRuleAtItsEdges() {
        assertThat(Verdict.of(0.8, 0.2, 1)).isEqualTo(Verdict.WITHIN);
        assertThat(Verdict.of(-0.8, 0.21, 1)).isEqualTo(Verdict.UNDECIDED);
        assertThat(Verdict.of(1.2, 0.2, 1)).isEqualTo(Verdict.UNDECIDED);
        assertThat(Verdict.of(1.3, 0.2, 1)).isEqualTo(Verdict.OUT);
        assertThat(Verdict.of(1, Double.NaN, 1)).isEqualTo(Verdict.WITHIN);
        assertThat(Verdict.of(Double.NaN, 0, 1)).isEqualTo(Verdict.NO_DATA);
    }

    private static Tally tally(double v, double u) {
        return new Tally(
                new Estimate(v, Unit.of("mN m"), Uncertainty.ofHalf(Uncertainty.Source.MEASURED, u)),
                Map.of(),
                "",
                "",
                Provenance.EMPTY);
    }

    private static CheckResult judge(
            Scale scale, double tolerance, String datum, Map<String, Outcome> outcomes, String... judged) {
        List<String> lanes = judged.length == 0 ? List.of("fine") : List.of(judged);
        return new AgainstDatum(Norm.L2, scale, tolerance, datum)
                .judge(new Crossing(outcomes, "theory", lanes, List.of("coarse", "fine")));
    }

    @Test
    void tolerancesAreSharesOfTheDatumOrNumbersInTheReadingsUnit() {
        var outcomes = new LinkedHashMap<String, Outcome>();
        outcomes.put("coarse", tally(0.030, Double.NaN));
        outcomes.put("fine", tally(0.0202, Double.NaN));
        outcomes.put("theory", tally(0.020, Double.NaN));
        outcomes.put("rig", tally(0.0205, 0.0002));
        assertThat(judge(Scale.MEAN, 0.01 + 1e-12, "", outcomes).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(judge(Scale.MEAN, 0.005, "", outcomes).verdict()).isEqualTo(Verdict.OUT);
        assertThat(judge(Scale.ABSOLUTE, 0.21, "", outcomes).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(judge(Scale.ABSOLUTE, 0.4, "rig", outcomes).verdict()).isEqualTo(Verdict.UNDECIDED);
        assertThat(judge(Scale.MEAN, 0.05, "", outcomes, "fine", "coarse").verdict())
                .isEqualTo(Verdict.OUT);
        assertThat(judge(Scale.MEAN, 0.05, "", outcomes).lanes().get("coarse").verdict())
                .isNull();
        assertThat(judge(Scale.MEAN, 0.05, "", outcomes).why())
                .contains("Difference 1 %")
                .contains("no uncertainty stated");
    }

    @Test
    void whatIsMissingIsSaid() {
        var outcomes = new LinkedHashMap<String, Outcome>();
        outcomes.put("fine", new Outcome.Absent("no field", "There is no field \"T\" here."));
        outcomes.put("theory", tally(1, 0));
        assertThat(judge(Scale.MEAN, 1, "", outcomes).verdict()).isEqualTo(Verdict.NO_DATA);
        assertThat(judge(Scale.MEAN, 1, "", outcomes).why()).contains("no field \"T\"");
        outcomes.put("fine", tally(1, 0));
        outcomes.remove("theory");
        assertThat(judge(Scale.MEAN, 1, "", outcomes).verdict()).isEqualTo(Verdict.NO_DATA);
        assertThat(judge(Scale.MEAN, 1, "", outcomes).why()).contains("theory");
    }

    @Test
    void aResidualIsJudgedByItsMagnitudeAgainstTheLargestTerm() {
        var terms = List.of(new Balance.Term("in", "a", 10), new Balance.Term("out", "b", -9.9));
        var b = new Balance(terms, 0.1, 10, 0, Unit.of("kg/s"), "", Provenance.EMPTY);
        var on = new Crossing(Map.of("fine", b), "theory", List.of("fine"), List.of("fine"));
        assertThat(new Closure(0.011, false).judge(on).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(new Closure(0.009, false).judge(on).verdict()).isEqualTo(Verdict.OUT);
        assertThatThrownBy(() -> new Closure(-1, false)).isInstanceOf(LaneException.class);
    }

    /** One on the first half of a line, zero on the second: the L1 norm is one half however it is sampled. */
    @Test
    void normsWeighSamplesByTheLengthTheyStandFor() {
        double[] x = new double[1100];
        for (int i = 0; i < 1000; i++) {
            x[i] = 0.5 * i / 1000;
        }
        for (int i = 0; i < 100; i++) {
            x[1000 + i] = 0.5 + 0.5 * i / 99;
        }
        double[] zero = new double[x.length];
        double[] half = new double[x.length];
        java.util.Arrays.setAll(half, i -> x[i] < 0.5 ? 1 : 0);
        Difference d = Difference.of(profile(x, half, false), profile(x, zero, false));
        assertThat(d.l1()).isCloseTo(0.5, within(3e-4));
        assertThat(d.l2()).isCloseTo(Math.sqrt(0.5), within(3e-4));
        assertThat(d.bias()).isCloseTo(0.5, within(3e-4));
        assertThat(java.util.Arrays.stream(d.weight()).sum()).isCloseTo(1, within(1e-14));
    }

    /** The trapezoidal rule: the norm of a smooth difference is of second order in the spacing. */
    @Test
    void normsAreOfSecondOrder() {
        double[] errors = new double[2];
        for (int k = 0; k < 2; k++) {
            int n = k == 0 ? 21 : 41;
            double[] x = new double[n];
            double[] y = new double[n];
            for (int i = 0; i < n; i++) {
                double t = (double) i / (n - 1);
                x[i] = t * (0.4 + 0.6 * t);
                y[i] = Math.exp(x[i]);
            }
            errors[k] = Math.abs(Difference.of(profile(x, y, false), profile(x, new double[n], false))
                            .l1()
                    - (Math.E - 1));
        }
        assertThat(Math.log(errors[0] / errors[1]) / Math.log(2)).isBetween(1.9, 2.1);
    }

    @Test
    void aGapStandsForNoLengthAndPointsWeighTheSame() {
        double[] x = {0, 1, 2, 10, 11, 12};
        Profile datum = profile(x, new double[6], false);
        Profile gap = profile(x, new double[] {1, 1, Double.NaN, Double.NaN, 3, 3}, false);
        assertThat(Difference.of(gap, datum).l1()).isCloseTo(2, within(1e-14));
        Profile single = profile(x, new double[] {7, Double.NaN, 1, Double.NaN, 1, Double.NaN}, false);
        assertThat(Difference.of(single, datum).l1()).isCloseTo(3, within(1e-14));
    }
}
