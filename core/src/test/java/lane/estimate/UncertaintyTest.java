package lane.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import lane.base.LaneException;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class UncertaintyTest {
    /** Values of Student's distribution as printed in the tables of ISO/IEC Guide 98-3, G.2 (95 %). */
    @ParameterizedTest
    @CsvSource({"1, 12.71", "4, 2.78", "9, 2.26", "20, 2.09", "100, 1.984"})
    void theFactorIsStudents(double freedom, double factor) {
        assertThat(Uncertainty.factor(freedom)).isCloseTo(factor, within(0.005));
    }

    @Test
    void componentsCombineByTheRootOfSquaresAndKeepTheirNames() {
        var rig = Uncertainty.ofHalf(Uncertainty.Source.MEASURED, 6);
        var mesh = Uncertainty.ofHalf(Uncertainty.Source.NUMERICAL, 8);
        Uncertainty both = rig.and(mesh);
        assertThat(both.half()).isEqualTo(10);
        assertThat(both.standard())
                .containsEntry(Uncertainty.Source.MEASURED, 3.0)
                .containsEntry(Uncertainty.Source.NUMERICAL, 4.0);
        assertThat(both.and(Uncertainty.NONE)).isEqualTo(both);
        assertThat(rig.times(-0.5).half()).isEqualTo(3);
    }

    /** Welch and Satterthwaite: two means of ten batches with the same scatter have 18 degrees of freedom together. */
    @Test
    void degreesOfFreedomCombine() {
        var one = Uncertainty.ofStandard(Uncertainty.Source.SAMPLING, 1, 9);
        assertThat(one.half()).isCloseTo(2.262, within(5e-4));
        assertThat(one.and(one).freedom()).isCloseTo(18, within(1e-12));
        assertThat(one.and(Uncertainty.ofHalf(Uncertainty.Source.MEASURED, 1e-9))
                        .freedom())
                .isCloseTo(9, within(1e-6));
    }

    @Test
    void noneIsNotZero() {
        assertThat(Uncertainty.ofHalf(Uncertainty.Source.MEASURED, 0).stated()).isFalse();
        assertThat(Uncertainty.NONE.half()).isNaN();
        assertThat(new Estimate(3, Unit.of("m")).uncertainty().stated()).isFalse();
        assertThatThrownBy(() -> new Uncertainty(Map.of(), 0, 1)).isInstanceOf(LaneException.class);
    }
}
