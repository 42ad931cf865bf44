package lane.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Provenance;
import lane.reading.Balance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Tally;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CheckTest {
    private static Tally tally(double v, double u, String unit) {
        return new Tally(
                new Estimate(v, Unit.of(unit), Uncertainty.ofHalf(Uncertainty.Source.MEASURED, u)),
                Map.of(),
                "",
                "",
                Provenance.EMPTY);
    }

    private static Check check(Norm norm, Scale scale, double tolerance, String... judged) {
        return new Check("c", "r", norm, scale, tolerance, "", List.of(judged));
    }

    private static CheckResult judge(Check check, Map<String, Outcome> outcomes) {
        List<String> judged = check.judged().isEmpty() ? List.of("run") : check.judged();
        return check.rule().judge(new Crossing(outcomes, "datum", judged, List.of("coarse", "run")));
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
                check(Norm.L2, Scale.MEAN, percent / 100),
                Map.of("datum", tally(10, ud, "N"), "run", tally(10 + d, u, "N")));
        assertThat(r.verdict()).isEqualTo(verdict);
        assertThat(r.lanes().get("run").difference()).isCloseTo(d, within(1e-14));
        assertThat(r.lanes()).doesNotContainKey("datum");
    }

    @Test
    void anAbsoluteToleranceIsInTheReadingsUnitAndTemperaturesDifferInKelvin() {
        Check half = check(Norm.L2, Scale.ABSOLUTE, 0.5);
        Map<String, Outcome> warm = new LinkedHashMap<>();
        warm.put("datum", tally(300, Double.NaN, "degC"));
        warm.put("run", tally(300.4, Double.NaN, "degC"));
        assertThat(judge(half, warm).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(judge(half, warm).why()).contains("0.4 K").contains("tolerance 0.5 K");
        Map<String, Outcome> long_ = Map.of("datum", tally(1, 0, "mm"), "run", tally(1.0004, 0, "mm"));
        assertThat(judge(half, long_).verdict()).isEqualTo(Verdict.WITHIN);
        Map<String, Outcome> longer = Map.of("datum", tally(1, 0, "mm"), "run", tally(1.0006, 0, "mm"));
        assertThat(judge(half, longer).verdict()).isEqualTo(Verdict.OUT);
    }

    @Test
    void unitsThatDoNotCompareAndMissingLanesGiveNoDataWithTheReason() {
        Check c = check(Norm.L2, Scale.MEAN, 0.01);
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
        Check c = check(Norm.L2, Scale.MEAN, 0.01, "a", "b");
        Map<String, Outcome> o = new LinkedHashMap<>();
        o.put("datum", tally(10, 0, "N"));
        o.put("a", tally(10.01, 0, "N"));
        o.put("b", tally(10.2, 0, "N"));
        o.put("c", tally(99, 0, "N"));
        CheckResult r = judge(c, o);
        assertThat(r.verdict()).isEqualTo(Verdict.OUT);
        assertThat(r.lanes().get("a").verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(r.lanes().get("c").verdict()).isNull();
        assertThat(r.why()).contains("Difference 2 %");
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
                Provenance.EMPTY);
        CheckResult r = judge(by(new Closure(0.03, false)), Map.of("run", b));
        assertThat(r.verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(judge(by(new Closure(0.02, false)), Map.of("run", b)).verdict())
                .isEqualTo(Verdict.OUT);
        assertThat(judge(by(new Closure(0.11, true)), Map.of("run", b)).verdict())
                .isEqualTo(Verdict.WITHIN);
        assertThat(judge(by(new Closure(0.09, true)), Map.of("run", b)).verdict())
                .isEqualTo(Verdict.OUT);
        assertThat(r.datum()).isEmpty();
        assertThat(r.why()).contains("Residual −2.44 % of the largest term");
        assertThat(judge(by(new Closure(0.1, false)), Map.of("run", tally(1, 0, "N")))
                        .why())
                .contains("no residual");
    }

    private static Check by(Rule rule) {
        return new Check("c", "r", rule, List.of());
    }

    @Test
    void aShareOfADatumOfZeroHasNoMeaningAndSaysWhatToDo() {
        for (double v : new double[] {0, 1e-9}) {
            CheckResult r =
                    judge(check(Norm.L2, Scale.MEAN, 0.01), Map.of("datum", tally(0, 0, "N"), "run", tally(v, 0, "N")));
            assertThat(r.verdict()).isEqualTo(Verdict.NO_DATA);
            assertThat(r.why()).contains("zero").contains("no meaning").contains("absolute tolerance");
        }
        CheckResult absolute = judge(
                check(Norm.L2, Scale.ABSOLUTE, 0.01), Map.of("datum", tally(0, 0, "N"), "run", tally(0.005, 0, "N")));
        assertThat(absolute.verdict()).isEqualTo(Verdict.WITHIN);
        var flat = curve(5, 5, 5, 5);
        CheckResult range = judge(check(Norm.L2, Scale.RANGE, 0.01), Map.of("datum", flat, "run", curve(5, 5, 5, 6)));
        assertThat(range.verdict()).isEqualTo(Verdict.NO_DATA);
        assertThat(range.why()).contains("of the datum's range").contains("absolute tolerance");
        assertThat(judge(check(Norm.L2, Scale.LARGEST, 0.2), Map.of("datum", flat, "run", curve(5, 5, 5, 6)))
                        .verdict())
                .isEqualTo(Verdict.WITHIN);
    }

    private static Profile curve(double... y) {
        double[] x = {0, 1, 2, 3};
        return new Profile(x, y, List.of(), "s", Unit.of("m"), Unit.of("m/s"), false, 4, "", Provenance.EMPTY);
    }

    @Test
    void noDifferenceWithAStatedUncertaintyTellsTheUncertainty() {
        CheckResult r = judge(
                check(Norm.L2, Scale.MEAN, 0.01), Map.of("datum", tally(10, 0.05, "N"), "run", tally(10, 0, "N")));
        assertThat(r.why()).contains("Difference 0 %").contains("uncertainty 0.5 %");
        assertThat(r.verdict()).isEqualTo(Verdict.WITHIN);
    }

    @ParameterizedTest
    @CsvSource({
        "5, 0, WITHIN, lies in the band 4 to 6 N",
        "6.5, 0, OUT, lies outside of the band",
        "5.9, 0.2, UNDECIDED, uncertainty 0.2 N",
        "6.1, 0.2, UNDECIDED, lies outside",
        "6.3, 0.2, OUT, lies outside",
        "5.7, 0.2, WITHIN, lies in",
        "3.9, 0, OUT, 3.9 N lies outside",
        "6, 0, WITHIN, lies in"
    })
    void aBandNeedsNoDatum(double v, double u, Verdict verdict, String words) {
        CheckResult r = judge(by(new WithinBand(4.0, 6.0, "N")), Map.of("run", tally(v, u, "N")));
        assertThat(r.verdict()).isEqualTo(verdict);
        assertThat(r.why()).contains(words);
        assertThat(r.datum()).isEmpty();
    }

    @Test
    void aBandHoldsForEveryValueOfACurveInItsOwnUnit() {
        assertThat(judge(by(new WithinBand(null, 40.0, "km/h")), Map.of("run", curve(1, 5, 11, 2)))
                        .verdict())
                .isEqualTo(Verdict.WITHIN);
        CheckResult out = judge(by(new WithinBand(null, 36.0, "km/h")), Map.of("run", curve(1, 5, 11, 2)));
        assertThat(out.verdict()).isEqualTo(Verdict.OUT);
        assertThat(out.why()).contains("11 m/s");
        assertThat(judge(by(new WithinBand(1.0, null, "K")), Map.of("run", curve(1, 5, 11, 2)))
                        .why())
                .contains("cannot be compared");
        assertThatThrownBy(() -> new WithinBand(2.0, 1.0, "")).hasMessageContaining("holds nothing");
        assertThatThrownBy(() -> new WithinBand(null, null, "")).hasMessageContaining("holds nothing");
    }

    @ParameterizedTest
    @CsvSource({
        // coarse, medium, run, tolerance, verdict
        "1, 1.5, 1.6, 0.1, WITHIN",
        "1, 1.5, 1.6, 0.05, OUT",
        "1, 1.1, 1.3, 0.5, OUT",
        "1.6, 1.5, 1.5, 0, WITHIN"
    })
    void aTrendLooksAtTheLastChangesOverTheFamily(
            double coarse, double medium, double fine, double tolerance, Verdict verdict) {
        Map<String, Outcome> o = new LinkedHashMap<>();
        o.put("coarse", tally(coarse, 0, "N"));
        o.put("medium", tally(medium, 0, "N"));
        o.put("run", tally(fine, 0, "N"));
        var on = new Crossing(o, "", List.of("run"), List.of("coarse", "medium", "run"));
        CheckResult r = new Trend(tolerance, false).judge(on);
        assertThat(r.verdict()).isEqualTo(verdict);
        assertThat(r.why()).contains("Last change").contains("over 3 runs");
        assertThat(new Trend(0.1, false)
                        .judge(new Crossing(o, "", List.of("coarse"), List.of("coarse")))
                        .why())
                .contains("coarser run");
    }

    @Test
    void aProfileIsJudgedByTheNormAskedFor() {
        double[] x = {0, 1, 2, 3};
        var datum = new Profile(
                x,
                new double[] {0, 10, 20, 30},
                List.of(),
                "s",
                Unit.of("m"),
                Unit.of("m/s"),
                false,
                4,
                "",
                Provenance.EMPTY);
        var run = new Profile(
                x,
                new double[] {0, 10, 20, 33},
                List.of(),
                "s",
                Unit.of("m"),
                Unit.of("m/s"),
                false,
                4,
                "",
                Provenance.EMPTY);
        Map<String, Outcome> o = Map.of("datum", datum, "run", run);
        assertThat(judge(check(Norm.L1, Scale.RANGE, 0.0167), o).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(judge(check(Norm.L1, Scale.RANGE, 0.0166), o).verdict()).isEqualTo(Verdict.OUT);
        assertThat(judge(check(Norm.L2, Scale.RANGE, 0.0409), o).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(judge(check(Norm.L2, Scale.RANGE, 0.0408), o).verdict()).isEqualTo(Verdict.OUT);
        assertThat(judge(check(Norm.LINF, Scale.RANGE, 0.11), o).verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(judge(check(Norm.LINF, Scale.LARGEST, 0.099), o).verdict()).isEqualTo(Verdict.OUT);
        assertThat(judge(check(Norm.LINF, Scale.RANGE, 0.2), o)
                        .lanes()
                        .get("run")
                        .curve()
                        .linfAt())
                .isEqualTo(3);
    }

    private static Profile curve(double[] value, double[] half) {
        double[] x = new double[value.length];
        for (int i = 0; i < x.length; i++) {
            x[i] = i;
        }
        return new Profile(
                x,
                value,
                half.length == 0
                        ? List.of()
                        : List.of(new lane.estimate.Band(Uncertainty.Source.MEASURED, half, half, 2)),
                "x",
                Unit.of("m"),
                Unit.of("K"),
                false,
                value.length,
                "",
                Provenance.EMPTY);
    }

    private static CheckResult pointwise(double[] difference, double[] half, double tolerance) {
        return judge(
                new Check("c", "r", Norm.LINF, Scale.ABSOLUTE, tolerance, "", List.of("run")),
                Map.of("datum", curve(new double[difference.length], half), "run", curve(difference, new double[0])));
    }

    /** One bad sensor far from the largest difference does not excuse it, and one with a large uncertainty does not spoil the rest. */
    @Test
    void aPointwiseCheckUsesTheUncertaintyAtItsPlace() {
        // The largest difference has hardly any uncertainty: it is out, whatever the others have.
        CheckResult out = pointwise(new double[] {0.1, 0.9, 0.1}, new double[] {2, 0.05, 2}, 0.5);
        assertThat(out.verdict()).isEqualTo(Verdict.OUT);
        assertThat(out.why()).contains("Difference 0.9 K, uncertainty 0.05 K");
        // The smaller difference at another place is the one that is surely out.
        CheckResult other = pointwise(new double[] {0.8, 0.9}, new double[] {0.01, 1}, 0.5);
        assertThat(other.verdict()).isEqualTo(Verdict.OUT);
        assertThat(other.why()).contains("Another place decides: 0.8 K with an uncertainty of 0.01 K");
        assertThat(other.lanes().get("run").difference()).isEqualTo(0.9);
        // All are within with their own, though the largest of the uncertainties beside the largest difference would
        // not be.
        assertThat(pointwise(new double[] {0.4, 0.1}, new double[] {0.05, 0.35}, 0.5)
                        .verdict())
                .isEqualTo(Verdict.WITHIN);
        // Nobody is surely out, but one may be.
        assertThat(pointwise(new double[] {0.4, 0.1}, new double[] {0.05, 0.45}, 0.5)
                        .verdict())
                .isEqualTo(Verdict.UNDECIDED);
        assertThat(pointwise(new double[] {0.4, Double.NaN}, new double[0], 0.5).verdict())
                .isEqualTo(Verdict.WITHIN);
    }

    @Test
    void aBandIsKeptByEachPointWithItsOwnUncertainty() {
        Rule band = new WithinBand(0.0, 1.0, "K");
        double[] half = {0.3, 0.01, 0.3};
        assertThat(verdict(band, curve(new double[] {0.5, 0.98, 0.5}, half))).isEqualTo(Verdict.WITHIN);
        assertThat(verdict(band, curve(new double[] {0.9, 0.98, 0.5}, half))).isEqualTo(Verdict.UNDECIDED);
        assertThat(verdict(band, curve(new double[] {0.9, 1.02, 1.1}, half))).isEqualTo(Verdict.OUT);
    }

    private static Verdict verdict(Rule rule, Profile curve) {
        return rule.judge(new Crossing(Map.of("run", curve), "", List.of("run"), List.of("run")))
                .verdict();
    }
}
