package lane.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.reading.Balance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Tally;
import lane.trail.Trail;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

class DifferenceTest {
    private static final Unit M = Unit.of("m");

    private static Profile profile(double[] x, double[] y, boolean formula, double... half) {
        return new Profile(x, y, half, "radius", M, Unit.of("m/s"), formula, x.length, "", Trail.EMPTY);
    }

    @Test
    void normsOfAKnownDifference() {
        Profile datum = profile(new double[] {0, 1, 2, 3}, new double[] {0, 10, 20, 30}, false);
        Profile curve = profile(new double[] {0, 1, 2, 3}, new double[] {1, 10, 18, 30}, false);
        Difference d = Difference.of(curve, datum);
        assertThat(d.value()).containsExactly(1, 0, -2, 0);
        assertThat(d.l1()).isEqualTo(0.75);
        assertThat(d.l2()).isCloseTo(Math.sqrt(1.25), within(1e-15));
        assertThat(d.linf()).isEqualTo(2);
        assertThat(d.linfAt()).isEqualTo(2);
        assertThat(d.bias()).isEqualTo(-0.25);
        assertThat(d.scale(Check.Scale.RANGE)).isEqualTo(30);
        assertThat(d.scale(Check.Scale.MEAN)).isEqualTo(15);
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

    @Test
    void absentValuesAreLeftOutAndNotTakenAsZero() {
        Profile datum = profile(new double[] {0, 1, 2}, new double[] {1, 1, 1}, false);
        Profile curve = profile(new double[] {0, 1, 2}, new double[] {1, Double.NaN, 1}, false);
        assertThat(Difference.of(curve, datum).abscissa()).containsExactly(0, 2);
        assertThatThrownBy(() -> Difference.of(profile(new double[] {7, 8}, new double[] {1, 1}, false), datum))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("in common");
        assertThatThrownBy(() -> Difference.of(profile(new double[] {0, 2, 1}, new double[] {1, 1, 1}, false), datum))
                .hasMessageContaining("back and forth");
        Profile warm = new Profile(
                new double[] {0},
                new double[] {0},
                new double[0],
                "radius",
                M,
                Unit.of("K"),
                false,
                1,
                "",
                Trail.EMPTY);
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
        return new Tally(v, u, Unit.of("mN m"), Map.of(), "", "", Trail.EMPTY);
    }

    private static CheckResult judge(
            Check.Scale scale, double tolerance, String datum, Map<String, Outcome> outcomes, String... judged) {
        return Judge.judge(
                new Check("c", "r", Check.Norm.L2, scale, tolerance, datum, List.of(judged)),
                outcomes,
                "theory",
                List.of("fine"));
    }

    @Test
    void tolerancesAreSharesOfTheDatumOrNumbersInTheReadingsUnit() {
        var outcomes = new LinkedHashMap<String, Outcome>();
        outcomes.put("coarse", tally(0.030, Double.NaN));
        outcomes.put("fine", tally(0.0202, Double.NaN));
        outcomes.put("theory", tally(0.020, Double.NaN));
        outcomes.put("rig", tally(0.0205, 0.0002));
        assertThat(judge(Check.Scale.MEAN, 0.01 + 1e-12, "", outcomes).verdict())
                .isEqualTo(Verdict.WITHIN);
        assertThat(judge(Check.Scale.MEAN, 0.005, "", outcomes).verdict()).isEqualTo(Verdict.OUT);
        assertThat(judge(Check.Scale.ABSOLUTE, 0.21, "", outcomes).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(judge(Check.Scale.ABSOLUTE, 0.4, "rig", outcomes).verdict()).isEqualTo(Verdict.UNDECIDED);
        assertThat(judge(Check.Scale.MEAN, 0.05, "", outcomes, "fine", "coarse").verdict())
                .isEqualTo(Verdict.OUT);
        assertThat(judge(Check.Scale.MEAN, 0.05, "", outcomes)
                        .lanes()
                        .get("coarse")
                        .verdict())
                .isNull();
        assertThat(judge(Check.Scale.MEAN, 0.05, "", outcomes).why())
                .contains("Difference 1.00 %")
                .contains("no uncertainty stated");
    }

    @Test
    void whatIsMissingIsSaid() {
        var outcomes = new LinkedHashMap<String, Outcome>();
        outcomes.put("fine", new Outcome.Absent("no field", "There is no field \"T\" here."));
        outcomes.put("theory", tally(1, 0));
        assertThat(judge(Check.Scale.MEAN, 1, "", outcomes).verdict()).isEqualTo(Verdict.NO_DATA);
        assertThat(judge(Check.Scale.MEAN, 1, "", outcomes).why()).contains("no field \"T\"");
        outcomes.put("fine", tally(1, 0));
        outcomes.remove("theory");
        assertThat(judge(Check.Scale.MEAN, 1, "", outcomes).verdict()).isEqualTo(Verdict.NO_DATA);
        assertThat(judge(Check.Scale.MEAN, 1, "", outcomes).why()).contains("theory");
    }

    @Test
    void aResidualIsJudgedByItsMagnitudeAgainstTheLargestTerm() {
        var terms = List.of(new Balance.Term("in", "a", 10), new Balance.Term("out", "b", -9.9));
        var b = new Balance(terms, 0.1, 10, 0, Unit.of("kg/s"), "", Trail.EMPTY);
        assertThat(judge(Check.Scale.MEAN, 0.011, "", Map.of("fine", b)).verdict())
                .isEqualTo(Verdict.WITHIN);
        assertThat(judge(Check.Scale.MEAN, 0.009, "", Map.of("fine", b)).verdict())
                .isEqualTo(Verdict.OUT);
        assertThatThrownBy(() -> judge(Check.Scale.MEAN, -1, "", Map.of("fine", b)))
                .isInstanceOf(LaneException.class);
    }
}
