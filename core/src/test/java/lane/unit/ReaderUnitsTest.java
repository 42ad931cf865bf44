package lane.unit;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReaderUnitsTest {
    @ParameterizedTest
    @CsvSource({
        "Pa, 35000, kPa, 35",
        "Pa, 9999, Pa, 9999",
        "Pa, 2.5e9, GPa, 2.5",
        "N m, 0.0042, mN m, 4.2",
        "W/m2, 12000, kW/m2, 12",
        "J/(kg K), 40000, kJ/(kg K), 40",
        "Pa s, 1.8e-5, µPa s, 18",
        "m/s, 0.003, mm/s, 3",
        "s, 86400, s, 86400",
        "s, 2e-7, ns, 200",
        // A prefix would be squared, or there is none that anybody writes.
        "m2, 1e-6, m2, 1e-6",
        "m3/s, 1e-5, m3/s, 1e-5",
        "kg/s, 1e-5, kg/s, 1e-5",
        "K, 1e5, K, 1e5",
        "1, 1e5, 1, 1e5",
        "kPa, 5e6, kPa, 5000",
        "mol/m3, 1e5, mol/m3, 1e5",
        "Pa, 0, Pa, 0"
    })
    void thePrefixFollowsTheSizeAndTheValueStays(String unit, double si, String shown, double value) {
        Unit made = ReaderUnits.of(Unit.of(unit), si);
        assertThat(made.symbol()).isEqualTo(shown);
        assertThat(made.fromSi(si)).isCloseTo(value, org.assertj.core.data.Percentage.withPercentage(1e-12));
        assertThat(made.comparable(Unit.of(unit))).isTrue();
    }

    @ParameterizedTest
    @CsvSource({"5e-5, µm", "0.124, mm", "1.9, mm", "2.4, m", "300, m", "12000, km", "0, mm", "NaN, mm"})
    void lengthsHaveTheUnitOfTheirStudy(double across, String unit) {
        assertThat(ReaderUnits.length(across).symbol()).isEqualTo(unit);
    }
}
