package lane.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lane.convergence.Kind;
import lane.estimate.Band;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Tally;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** What families and inputs say of an uncertainty, and how it flows into verdicts: the drying of a felt on three meshes. */
class DoubtsTest {
    private static final Unit K = Unit.of("K").forInterval();
    private static final List<String> FAMILY = List.of("coarse", "medium", "fine");
    private static final Map<String, Double> SIZES = Map.of("coarse", 0.4, "medium", 0.2, "fine", 0.1);
    private static final Map<String, String> ONE =
            Map.of("coarse", "felt", "medium", "felt", "fine", "felt", "warm", "felt");

    private static Outcome number(double v, Uncertainty u) {
        return new Tally(new Estimate(v, K, u), null, null, "", Provenance.EMPTY);
    }

    private static Outcome number(double v) {
        return number(v, Uncertainty.NONE);
    }

    private static Crossing on(Map<String, Outcome> outcomes, Map<String, Double> sizes, Doubts doubts) {
        return new Crossing(outcomes, "rig", List.of("fine"), FAMILY, ONE, sizes, doubts, Map.of());
    }

    private static CheckResult judge(Rule rule, Doubts doubts, Map<String, Outcome> outcomes) {
        return new Check("c", "r", rule, List.of("fine")).doubting(doubts).judge(on(outcomes, SIZES, doubts));
    }

    /** 10 + h^2 on the meshes; the rig says 9.9. */
    private static Map<String, Outcome> felt() {
        Map<String, Outcome> all = new LinkedHashMap<>();
        SIZES.forEach((lane, h) -> all.put(lane, number(10 + h * h)));
        all.put("rig", number(9.9, Uncertainty.ofHalf(Uncertainty.Source.MEASURED, 0.03)));
        return all;
    }

    @Test
    void theMeshesOfAFamilySayHowWellANumberIsKnown() {
        var rule = new AgainstDatum(Norm.L2, Scale.ABSOLUTE, 0.12, "");
        CheckResult made = judge(rule, Doubts.USUAL, felt());
        CheckResult.Lane fine = Objects.requireNonNull(made.lanes().get("fine"));
        // E = 10.01 - 9.9; the index's half-width 1.25 (10.04 - 10.01) / (2^2 - 1) = 0.0125.
        assertThat(fine.difference()).isCloseTo(0.11, within(1e-12));
        assertThat(fine.half()).isCloseTo(Math.hypot(0.0125, 0.03), within(1e-10));
        assertThat(made.verdict()).isEqualTo(Verdict.UNDECIDED);
        assertThat(made.why())
                .contains("monotone over 3 meshes, observed order 2")
                .contains("0.0125");
        Refined refined = Objects.requireNonNull(fine.evidence().refined());
        assertThat(refined.lanes()).containsExactly("fine", "medium", "coarse");
        assertThat(refined.convergence().extrapolated()).isCloseTo(10, within(1e-10));
        Budget budget = fine.evidence().budget();
        assertThat(budget.rows()).extracting(Budget.Row::component).containsExactly("numerical", "measured");
        assertThat(budget.combined()).isCloseTo(fine.half() / 2, within(1e-12));
        assertThat(budget.share(budget.rows().get(1)))
                .isCloseTo(0.03 * 0.03 / (0.03 * 0.03 + 0.0125 * 0.0125), within(1e-9));
        // A coarser mesh has no family below it.
        assertThat(made.lanes().get("medium").evidence().refined()).isNull();
        // Without it only the rig's counts.
        CheckResult plain = judge(rule, Doubts.USUAL.counting(false), felt());
        assertThat(plain.lanes().get("fine").half()).isCloseTo(0.03, within(1e-12));
    }

    @Test
    void twoMeshesCountWhereAnOrderIsStated() {
        Map<String, Outcome> two = felt();
        two.remove("coarse");
        var rule = new AgainstDatum(Norm.L2, Scale.ABSOLUTE, 0.12, "");
        assertThat(judge(rule, Doubts.USUAL, two).lanes().get("fine").evidence().refined())
                .isNull();
        CheckResult made = judge(rule, Doubts.USUAL.ofOrder(2.0), two);
        // 3 (10.04 - 10.01) / 3.
        assertThat(made.lanes().get("fine").half()).isCloseTo(Math.hypot(0.03, 0.03), within(1e-10));
        assertThat(made.why()).contains("two meshes, order 2").contains("2 was stated");
    }

    @Test
    void sizesCanBeStatedForTimeSteps() {
        Map<String, Double> steps = Map.of("coarse", 8.0, "medium", 4.0, "fine", 2.0);
        var doubts = new Doubts(null, null, null, steps, List.of(), null);
        Map<String, Double> same = Map.of("coarse", 0.1, "medium", 0.1, "fine", 0.1);
        var rule = new AgainstDatum(Norm.L2, Scale.ABSOLUTE, 0.12, "");
        Check check = new Check("c", "r", rule, List.of("fine")).doubting(doubts);
        assertThat(check.judge(on(felt(), same, doubts))
                        .lanes()
                        .get("fine")
                        .evidence()
                        .refined()
                        .convergence()
                        .order())
                .isCloseTo(2, within(1e-9));
        // Meshes of one size say nothing, and that is told.
        CheckResult none = check.doubting(Doubts.USUAL).judge(on(felt(), same, Doubts.USUAL));
        assertThat(none.why()).contains("No numerical uncertainty: Two meshes have the size 0.1");
    }

    @Test
    void inputsComeFromSensitivitiesOrFromRunsWithAChange() {
        Map<String, Outcome> all = felt();
        all.put("warm", number(10.31));
        var doubts = Doubts.USUAL
                .counting(false)
                .with(List.of(
                        new Doubts.Input("conductivity", 0.02, 1.5, "", null),
                        // 0.3 K for 5 K of warmer air, known to 0.5 K.
                        new Doubts.Input("air", 0.5, null, "warm", 5.0)));
        CheckResult made = judge(new AgainstDatum(Norm.L2, Scale.UNCERTAINTY, 2, ""), doubts, all);
        CheckResult.Lane fine = made.lanes().get("fine");
        double u = Math.sqrt(0.03 * 0.03 + 0.03 * 0.03 + 0.015 * 0.015);
        assertThat(fine.evidence().budget().rows())
                .extracting(Budget.Row::component)
                .containsExactly("conductivity", "air", "measured");
        assertThat(fine.evidence().budget().combined()).isCloseTo(u, within(1e-12));
        assertThat(fine.allowed()).isCloseTo(2 * u, within(1e-12));
        assertThat(made.verdict()).isEqualTo(Verdict.OUT);
        assertThat(made.why()).contains("E = 0.11 K, u_val = 0.045 K; |E| is greater than 2 u_val.");
        // k of three instead of that of 95 %.
        CheckResult wide = judge(new AgainstDatum(Norm.L2, Scale.ABSOLUTE, 0.12, ""), doubts.covering(3.0), all);
        assertThat(wide.lanes().get("fine").half()).isGreaterThan(2.9 * Math.hypot(0.03, 0.03));
        assertThatThrownBy(() -> new Doubts.Input("air", 0.5, null, "", 5.0))
                .hasMessageContaining("needs a sensitivity");
        var lost = Doubts.USUAL.with(List.of(new Doubts.Input("air", 0.5, null, "gone", 5.0)));
        assertThatThrownBy(() -> judge(new AgainstDatum(Norm.L2, Scale.RANGE, 1, ""), lost, all))
                .hasMessageContaining("which is no lane of the study");
    }

    private static Profile curve(double h) {
        double[] x = new double[21];
        double[] y = new double[21];
        Arrays.setAll(x, i -> i / 20.0);
        Arrays.setAll(y, i -> 5 * x[i] + h * h * (1 + x[i]));
        return new Profile(x, y, List.of(), "height", Unit.of("m"), K, false, 21, "", Provenance.EMPTY);
    }

    @Test
    void aCurveHasAnUncertaintyAtEachPlace() {
        Map<String, Outcome> all = new LinkedHashMap<>();
        SIZES.forEach((lane, h) -> all.put(lane, curve(h)));
        Profile rig = curve(0);
        double[] half = new double[21];
        Arrays.fill(half, 0.004);
        all.put("rig", rig.banded(List.of(new Band(Uncertainty.Source.MEASURED, half))));
        CheckResult made = judge(new AgainstDatum(Norm.LINF, Scale.ABSOLUTE, 0.04, ""), Doubts.USUAL, all);
        CheckResult.Lane fine = made.lanes().get("fine");
        Refined refined = Objects.requireNonNull(fine.evidence().refined());
        assertThat(refined.convergence().order()).isCloseTo(2, within(1e-9));
        // At the end the difference is 0.02, the numerical half-width 1.25 times it.
        assertThat(fine.half()).isCloseTo(Math.hypot(0.025, 0.004), within(1e-9));
        assertThat(made.verdict()).isEqualTo(Verdict.UNDECIDED);
        assertThat(fine.evidence().budget().rows())
                .extracting(Budget.Row::component)
                .containsExactly("numerical", "measured");
        CheckResult wide = judge(new AgainstDatum(Norm.LINF, Scale.ABSOLUTE, 0.05, ""), Doubts.USUAL, all);
        assertThat(wide.verdict()).isEqualTo(Verdict.WITHIN);
        CheckResult converges = judge(new Converges(0.01, false), Doubts.USUAL, all);
        assertThat(converges.lanes().get("fine").difference()).isCloseTo(0.025, within(1e-9));
        assertThat(converges.verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(converges.why()).contains("differ in sign at 0 % of the places");
    }

    @Test
    void convergenceIsAVerdictOfItsOwn() {
        CheckResult made = judge(new Converges(0.002, false), Doubts.USUAL, felt());
        assertThat(made.verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(made.why()).contains("extrapolated 10 K").contains("observed order 2");
        // It is no difference that an uncertainty would add to.
        assertThat(made.lanes().get("fine").evidence().budget().rows()).isEmpty();
        assertThat(made.lanes()).containsOnlyKeys("fine", "medium");
        assertThat(judge(new Converges(0.01, true), Doubts.USUAL, felt()).verdict())
                .isEqualTo(Verdict.OUT);
        Map<String, Outcome> grows = felt();
        grows.put("coarse", number(10.05));
        CheckResult none = judge(new Converges(0.002, false), Doubts.USUAL, grows);
        assertThat(none.lanes().get("fine").evidence().refined().convergence().kind())
                .isEqualTo(Kind.DIVERGENT);
        assertThat(none.verdict()).isEqualTo(Verdict.OUT);
        assertThat(none.why()).contains("do not shrink");
        Map<String, Outcome> one = felt();
        one.remove("coarse");
        one.remove("medium");
        assertThat(judge(new Converges(0.002, false), Doubts.USUAL, one).why()).contains("a coarser run of its family");
    }

    @Test
    void theOrderOfTheErrorAgainstAnExactDatum() {
        Map<String, Outcome> all = felt();
        all.put("rig", number(10));
        CheckResult made = judge(new Accuracy(2, 0.1, ""), Doubts.USUAL, all);
        assertThat(made.verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(made.lanes().get("fine").value()).isCloseTo(2, within(1e-9));
        assertThat(judge(new Accuracy(3, 0.5, ""), Doubts.USUAL, all).verdict()).isEqualTo(Verdict.OUT);
        Map<String, Outcome> curves = new LinkedHashMap<>();
        SIZES.forEach((lane, h) -> curves.put(lane, curve(h)));
        curves.put("rig", curve(0));
        assertThat(judge(new Accuracy(2, 0.1, ""), Doubts.USUAL, curves)
                        .lanes()
                        .get("fine")
                        .value())
                .isCloseTo(2, within(1e-9));
        assertThatThrownBy(() -> new Accuracy(0, 0.1, "")).hasMessageContaining("positive number");
    }

    @Test
    void aDecisionIsTold() {
        var d = new Decision(true, "the probe was known to read high", "R. Ahlers", "2026-11-30");
        assertThat(d.words()).isEqualTo("Accepted by R. Ahlers, 2026-11-30: the probe was known to read high");
        assertThat(new Decision(false, "", "", "").words()).isEqualTo("Noted.");
    }
}
