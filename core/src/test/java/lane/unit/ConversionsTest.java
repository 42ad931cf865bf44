package lane.unit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import lane.base.LaneException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;
import org.junit.jupiter.params.provider.CsvSource;

/** Conversions against values made from the definitions as exact fractions. */
class ConversionsTest {
    @ParameterizedTest
    @CsvFileSource(resources = "conversions.csv", delimiter = ';')
    void conversions(String kind, String from, double value, String to, double expected) {
        Unit a = Unit.of(from);
        Unit b = Unit.of(to);
        assertThat(a.comparable(b)).as(kind).isTrue();
        assertThat(b.fromSi(a.toSi(value)))
                .isCloseTo(
                        expected,
                        within(2e-12 * Math.max(1e-300, Math.abs(expected))
                                + (kind.equals("temperature") ? 2e-12 * 500 : 0)));
    }

    /** No two of these can be compared with one another: 12 kinds, 66 pairs. */
    @Test
    void unitsOfDifferentKindsAreNeverCompared() {
        String[] kinds = {"m", "kg", "s", "K", "Pa", "N", "J", "W", "m/s", "kg/m3", "Pa s", "1"};
        int pairs = 0;
        for (int i = 0; i < kinds.length; i++) {
            for (int j = i + 1; j < kinds.length; j++) {
                Unit a = Unit.of(kinds[i]);
                Unit b = Unit.of(kinds[j]);
                assertThatThrownBy(() -> a.requireComparable(b, "Here"))
                        .isInstanceOf(LaneException.class)
                        .hasMessageContaining(kinds[i])
                        .hasMessageContaining(kinds[j])
                        .hasMessageContaining("cannot be compared");
                pairs++;
            }
        }
        assertThat(pairs).isEqualTo(66);
    }

    @ParameterizedTest
    @CsvSource({"Hz, rpm", "kHz, rad/s", "Hz, deg/s"})
    void cyclesAreNoAnglesPerTime(String cycles, String angular) {
        assertThat(Unit.of(cycles).comparable(Unit.of(angular))).isFalse();
        assertThat(Unit.of(cycles).comparable(Unit.of("1/s"))).isTrue();
        assertThat(Unit.of(angular).comparable(Unit.of("1/s"))).isTrue();
    }
}
