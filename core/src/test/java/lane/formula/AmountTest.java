package lane.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import lane.base.LaneException;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AmountTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "36.5; mm; 36.5",
                "36,5; mm; 36.5",
                " (30 + 36)/2 ; mm; 33",
                "(30,5 + 1,5)/2; mm; 16",
                "-1.5e-3; m; -0.0015",
                "1 \"in\"; mm; 25.4",
                "1 in; mm; 25.4",
                "-1.5e-3 m; mm; -1.5",
                "2,5 cm; mm; 25",
                "12 cm2; m2; 0.0012",
                "20 degC; K; 293.15",
                "0.5 \"m\" + 20 \"mm\"; mm; 520",
                "2 * pi; 1; 6.283185307179586",
                "max(3, 7); mm; 7",
                "max(3,7); mm; 7",
                "sqrt(16) * 1 \"mm\"; mm; 4",
                "90 \"deg\"; rad; 1.5707963267948966",
                "45 \"deg\"; deg; 45",
                "1 \"bar\"; Pa; 100000",
                "3 \"mm\" / 2 \"mm\"; 1; 1.5",
            })
    void numbersInTheUnitOfTheField(String text, String unit, double expected) {
        assertThat(Amount.of(text, Unit.of(unit))).isCloseTo(expected, within(1e-12 * Math.abs(expected)));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "''; mm; is no number here",
                "1 +; mm; is no number here",
                "radius; mm; only numbers are known",
                "1/0; mm; no finite value",
                "[1, 2, 3]; mm; vector",
                "1 \"kg\"; mm; kg and mm",
                "1 \"blub\"; mm; blub",
                "1 blub; mm; is no number here",
                "1 kg; mm; kg and mm",
                "1 m + 2; mm; is no number here",
            })
    void whatIsNoneIsTold(String text, String unit, String told) {
        assertThatThrownBy(() -> Amount.of(text, Unit.of(unit)))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining(told);
    }

    @Test
    void anUnknownUnitTakesTheNumberAsItStands() {
        assertThat(Amount.of("1 \"mm\"", Unit.UNKNOWN)).isEqualTo(1e-3);
        assertThat(Amount.of("7", Unit.UNKNOWN)).isEqualTo(7);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "0, 45, 90 | 0 45 90",
                "0 45 90 | 0 45 90",
                "1;1.5 \"in\";-3 | 1 38.1 -3",
                "0 to 90 step 45, 100 | 0 45 90 100",
                "0 to 0.3 step 0.1 | 0 0.1 0.2 0.30000000000000004",
                "30 to -30 step -30 | 30 0 -30",
                "1e2 -4.5E-1 | 100 -0.45",
            })
    void severalAtOnce(String text, String expected) {
        double[] all = java.util.Arrays.stream(expected.split(" "))
                .mapToDouble(Double::parseDouble)
                .toArray();
        assertThat(Amounts.of(text, Unit.of("mm")).stream().mapToDouble(v -> v).toArray())
                .usingComparatorWithPrecision(1e-12)
                .containsExactly(all);
    }

    @Test
    void whatIsNoListOfNumbersIsOneSentence() {
        assertThat(Amounts.of(" ", Unit.of("mm"))).isEmpty();
        assertThatThrownBy(() -> Amounts.of("0 to 90 step -5", Unit.of("deg")))
                .hasMessageContaining("a step that leads");
        assertThatThrownBy(() -> Amounts.of("0 to 90 step 0", Unit.of("deg")))
                .hasMessageContaining("a step that leads");
        assertThatThrownBy(() -> Amounts.of("1, two", Unit.of("deg")))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("two");
    }
}
