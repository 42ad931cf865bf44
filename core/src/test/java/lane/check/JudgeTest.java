package lane.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.reading.Balance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Tally;
import lane.trail.Trail;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class JudgeTest {
    private static Tally tally(double v, double u, String unit) {
        return new Tally(v, u, Unit.of(unit), Map.of(), "", "", Trail.EMPTY);
    }

    private static Check check(Check.Norm norm, Check.Scale scale, double tolerance, String... judged) {
        return new Check("c", "r", norm, scale, tolerance, "", List.of(judged));
    }

    private static CheckResult judge(Check check, Map<String, Outcome> outcomes) {
        return Judge.judge(check, outcomes, "datum", List.of("run"));
    }

    @ParameterizedTest
    @CsvSource({
        // difference, uncertainty of the run, of the datum, tolerance in percent of 10, verdict
        "0.1, NaN, NaN, 1, WITHIN",
        "0.1001, NaN, NaN, 1, OUT",
        "-0.1, NaN, NaN, 1, WITHIN",
        "-0.2, NaN, NaN, 1, OUT",
        "0.05, 0.03, 0.03, 1, WITHIN",
        "0.05, 0.04, 0.04, 1, UNDECIDED",
        "0.15, 0.03, 0.03, 1, OUT",
        "0.15, 0.04, 0.04, 1, UNDECIDED",
        "0, NaN, NaN, 0, WITHIN"
    })
    void aTallyIsJudgedWithBothUncertainties(double d, double u, double ud, double percent, Verdict verdict) {
        CheckResult r = judge(
                check(Check.Norm.L2, Check.Scale.MEAN, percent / 100),
                Map.of("datum", tally(10, ud, "N"), "run", tally(10 + d, u, "N")));
        assertThat(r.verdict()).isEqualTo(verdict);
        assertThat(r.lanes().get("run").difference()).isCloseTo(d, within(1e-14));
        assertThat(r.lanes()).doesNotContainKey("datum");
    }

    @Test
    void anAbsoluteToleranceIsInTheReadingsUnitAndTemperaturesDifferInKelvin() {
        Check half = check(Check.Norm.L2, Check.Scale.ABSOLUTE, 0.5);
        Map<String, Outcome> warm = new LinkedHashMap<>();
        warm.put("datum", tally(300, Double.NaN, "degC"));
        warm.put("run", tally(300.4, Double.NaN, "degC"));
        assertThat(judge(half, warm).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(judge(half, warm).why()).contains("0.400 K").contains("tolerance 0.500 K");
        Map<String, Outcome> long_ = Map.of("datum", tally(1, 0, "mm"), "run", tally(1.0004, 0, "mm"));
        assertThat(judge(half, long_).verdict()).isEqualTo(Verdict.WITHIN);
        Map<String, Outcome> longer = Map.of("datum", tally(1, 0, "mm"), "run", tally(1.0006, 0, "mm"));
        assertThat(judge(half, longer).verdict()).isEqualTo(Verdict.OUT);
    }

    @Test
    void unitsThatDoNotCompareAndMissingLanesGiveNoDataWithTheReason() {
        Check c = check(Check.Norm.L2, Check.Scale.MEAN, 0.01);
        CheckResult mixed = judge(c, Map.of("datum", tally(1, 0, "N"), "run", tally(1, 0, "N m")));
        assertThat(mixed.verdict()).isEqualTo(Verdict.NO_DATA);
        assertThat(mixed.why()).contains("N m");
        CheckResult absent =
                judge(c, Map.of("datum", tally(1, 0, "N"), "run", new Outcome.Absent("x", "It has no part.")));
        assertThat(absent.why()).isEqualTo("It has no part.");
        CheckResult none = judge(c, Map.of("run", tally(1, 0, "N")));
        assertThat(none.verdict()).isEqualTo(Verdict.NO_DATA);
        assertThat(none.why()).contains("datum");
    }

    @Test
    void theWorstOfSeveralJudgedLanesCounts() {
        Check c = check(Check.Norm.L2, Check.Scale.MEAN, 0.01, "a", "b");
        Map<String, Outcome> o = new LinkedHashMap<>();
        o.put("datum", tally(10, 0, "N"));
        o.put("a", tally(10.01, 0, "N"));
        o.put("b", tally(10.2, 0, "N"));
        o.put("c", tally(99, 0, "N"));
        CheckResult r = judge(c, o);
        assertThat(r.verdict()).isEqualTo(Verdict.OUT);
        assertThat(r.lanes().get("a").verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(r.lanes().get("c").verdict()).isNull();
        assertThat(r.why()).contains("Difference 2.00 %");
    }

    @Test
    void aBalanceIsJudgedByItsResidualAndNeedsNoDatum() {
        var b = new Balance(
                List.of(new Balance.Term("in", "in", 4), new Balance.Term("out", "out", -4.1)),
                -0.1,
                4.1,
                0,
                Unit.of("kg/s"),
                "",
                Trail.EMPTY);
        CheckResult r =
                Judge.judge(check(Check.Norm.L2, Check.Scale.MEAN, 0.03), Map.of("run", b), "datum", List.of("run"));
        assertThat(r.verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(Judge.judge(check(Check.Norm.L2, Check.Scale.MEAN, 0.02), Map.of("run", b), "datum", List.of("run"))
                        .verdict())
                .isEqualTo(Verdict.OUT);
        assertThat(r.datum()).isEmpty();
    }

    @Test
    void aProfileIsJudgedByTheNormAskedFor() {
        double[] x = {0, 1, 2, 3};
        var datum = new Profile(
                x,
                new double[] {0, 10, 20, 30},
                new double[0],
                "s",
                Unit.of("m"),
                Unit.of("m/s"),
                false,
                4,
                "",
                Trail.EMPTY);
        var run = new Profile(
                x,
                new double[] {0, 10, 20, 33},
                new double[0],
                "s",
                Unit.of("m"),
                Unit.of("m/s"),
                false,
                4,
                "",
                Trail.EMPTY);
        Map<String, Outcome> o = Map.of("datum", datum, "run", run);
        assertThat(judge(check(Check.Norm.L1, Check.Scale.RANGE, 0.026), o).verdict())
                .isEqualTo(Verdict.WITHIN);
        assertThat(judge(check(Check.Norm.L1, Check.Scale.RANGE, 0.024), o).verdict())
                .isEqualTo(Verdict.OUT);
        assertThat(judge(check(Check.Norm.L2, Check.Scale.RANGE, 0.051), o).verdict())
                .isEqualTo(Verdict.WITHIN);
        assertThat(judge(check(Check.Norm.L2, Check.Scale.RANGE, 0.049), o).verdict())
                .isEqualTo(Verdict.OUT);
        assertThat(judge(check(Check.Norm.LINF, Check.Scale.RANGE, 0.11), o).verdict())
                .isEqualTo(Verdict.WITHIN);
        assertThat(judge(check(Check.Norm.LINF, Check.Scale.LARGEST, 0.099), o).verdict())
                .isEqualTo(Verdict.OUT);
        assertThat(judge(check(Check.Norm.LINF, Check.Scale.RANGE, 0.2), o)
                        .lanes()
                        .get("run")
                        .curve()
                        .linfAt())
                .isEqualTo(3);
    }
}
