package lane.unit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import lane.base.LaneException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class UnitTest {
    @ParameterizedTest
    @CsvSource({
        "mm, m, 0.001",
        "km/h, m/s, 0.2777777777777778",
        "bar, Pa, 1e5",
        "mN m, N m, 0.001",
        "mN·m, J, 0.001",
        "kg/(m3 s), kg m-3 s-1, 1",
        "g/cm^3, kg/m3, 1000",
        "cSt, m2/s, 1e-6",
        "cP, Pa s, 0.001",
        "rpm, rad/s, 0.10471975511965977",
        "kW/m2, W/m2, 1000",
        "deg, rad, 0.017453292519943295",
        "psi, Pa, 6894.757293168361",
        "%, 1, 0.01",
        "L/min, m3/s, 1.6666666666666667e-5",
        "m²/s², m2/s2, 1",
        "N*m, kg m2 s-2, 1",
        "µm, m, 1e-6",
        "m^(1/2), m^(1/2), 1",
        "km^(1/2), m^(1/2), 31.622776601683793",
        "J/(kg K), J/(kg K), 1",
        "W/(m2 degC), W/(m2 K), 1",
        "t, kg, 1000",
        "1/s, Hz, 1",
        "m3/h, m3/s, 2.777777777777778e-4"
    })
    void converts(String from, String to, double factor) {
        Unit a = Unit.of(from);
        Unit b = Unit.of(to);
        assertThat(a.comparable(b)).isTrue();
        assertThat(b.fromSi(a.toSi(1))).isCloseTo(factor, within(1e-14 * factor));
    }

    @ParameterizedTest
    @CsvSource({
        "100 Pa, Pa, 100",
        "10 m, m, 10",
        "1000 kg/m3, kg/m3, 1000",
        "10^3 kg, kg, 1000",
        "1e-3 m, mm, 1",
        "0.5 mm, m, 5e-4",
        "W/(100 m), W/m, 0.01",
        "10^-6, 1, 1e-6",
        "1/(10 s), 1/s, 0.1",
        "15 l/min, L/s, 0.25"
    })
    void digitsOfALeadingNumberAreItsOwn(String from, String to, double factor) {
        assertThat(Unit.of(to).fromSi(Unit.of(from).toSi(1))).isCloseTo(factor, within(1e-14 * factor));
        assertThat(Unit.of(from).comparable(Unit.of(to))).isTrue();
    }

    @ParameterizedTest
    @CsvSource({
        "J/kg K, J K/kg, J/(kg K)",
        "W/m2K, W K/m2, W/(m2 K)",
        "J/kg·K, J K/kg, J/(kg K)",
        "kg/m3 s, kg s/m3, kg/(m3 s)",
        "W/m^2*K, W K/m^2, W/(m^2 K)"
    })
    void aQuotientThatCanBeReadInTwoWaysSaysHowItWasRead(String text, String as, String instead) {
        assertThat(Unit.of(text).doubt().orElseThrow())
                .contains("as " + as + ";")
                .contains("write " + instead + ".");
        assertThat(Unit.of(text).comparable(Unit.of(as))).isTrue();
        assertThat(Unit.of(as).doubt()).isEmpty();
        assertThat(Unit.of(instead).doubt()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"45.20", "-17.3", "21.05", "0.1", "1000.001", "-273.15", "36.6"})
    void aTemperatureKeepsItsDigitsOnTheWayThroughKelvin(double degrees) {
        assertThat(Unit.of("degC").fromSi(Unit.of("degC").toSi(degrees))).isEqualTo(degrees);
        assertThat(Unit.of("degF").fromSi(Unit.of("degF").toSi(degrees))).isEqualTo(degrees);
    }

    @Test
    void aTemperatureIsAPointAndItsDifferenceIsNot() {
        Unit c = Unit.of("degC");
        assertThat(c.toSi(20)).isEqualTo(293.15);
        assertThat(Unit.of("degF").toSi(212)).isCloseTo(373.15, within(1e-9));
        assertThat(c.differenceFromSi(5)).isEqualTo(5);
        assertThat(c.difference().toSi(5)).isEqualTo(5);
        assertThat(c.difference().symbol()).isEqualTo("K");
        assertThat(c.times(Unit.of("m")).toSi(1)).isEqualTo(1);
    }

    @Test
    void rootsAreDifferentDimensions() {
        assertThat(Unit.of("m^(1/2)").comparable(Unit.of("m"))).isFalse();
        assertThat(Unit.of("m^(1/2)").times(Unit.of("m^(1/2)")).comparable(Unit.of("m")))
                .isTrue();
        assertThat(Unit.of("m^(1/2)").dimension()).hasToString("m^1/2");
    }

    @Test
    void theUnknownIsComparableToNothing() {
        assertThat(Unit.of("").known()).isFalse();
        assertThat(Unit.UNKNOWN.comparable(Unit.UNKNOWN)).isFalse();
        assertThatThrownBy(() -> Unit.of("Pa").requireComparable(Unit.UNKNOWN, "The sum"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("without a known unit and one in Pa");
    }

    @ParameterizedTest
    @CsvSource({"kgg", "m/", "(m", "m)", "m^", "m^(1/0)", "5", "0 m", "10-3 m", "foo", "m^(1/7)", "m^9999999"})
    void nonsenseIsRefusedInASentence(String text) {
        assertThatThrownBy(() -> Unit.of(text))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining(text.substring(0, 1));
    }

    @Test
    void noInputBreaksTheParser() {
        var random = new Random(1);
        String letters = "mkgsAKPa()/*^-123. ²°%·";
        for (int i = 0; i < 20_000; i++) {
            var text = new StringBuilder();
            for (int k = random.nextInt(12); k >= 0; k--) {
                text.append(letters.charAt(random.nextInt(letters.length())));
            }
            try {
                assertThat(Unit.of(text.toString()).factor()).isGreaterThanOrEqualTo(0);
            } catch (LaneException e) {
                assertThat(e.getMessage()).endsWith(".");
            }
        }
        assertThatThrownBy(() -> Unit.of("(".repeat(99))).isInstanceOf(LaneException.class);
    }

    @ParameterizedTest
    @CsvSource({
        "kg/m3, m/s, kg/(m2 s), kg s/m4",
        "kg/(m2 s), m2, kg/s, kg/(m4 s)",
        "Pa, m2, Pa m2, Pa/m2",
        "N m, 1, N m, N m",
        "m, m, m2, 1",
        "m s-1, s, m, m/s2",
        "1, s, s, 1/s",
        "mm^(1/2), mm, mm^(1/2) mm, mm^(1/2)/(mm)",
        "m, m-1, 1, m2"
    })
    void productsAndQuotientsAreWrittenShortlyAndReadBack(String a, String b, String product, String quotient) {
        Unit p = Unit.of(a).times(Unit.of(b));
        Unit q = Unit.of(a).over(Unit.of(b));
        assertThat(p.symbol()).isEqualTo(product);
        assertThat(q.symbol()).isEqualTo(quotient);
        for (Unit made : new Unit[] {p, q}) {
            Unit again = Unit.of(made.symbol());
            assertThat(again.dimension()).isEqualTo(made.dimension());
            assertThat(again.factor()).isCloseTo(made.factor(), org.assertj.core.data.Percentage.withPercentage(1e-12));
        }
    }

    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.CsvSource({
        "SI, m/s, 1",
        "SI, Pa, 1",
        "SI, 1, 1",
        "SI, degC, 1",
        "MM, m/s, 1e-3",
        "MM, N, 1",
        "MM, Pa, 1e6",
        "MM, kg/m3, 1e12",
        "MM, J, 1e-3",
        "MM, W, 1e-3",
        "MM, Pa s, 1e6",
        "MM, W/(m K), 1",
        "MM, W/m2, 1e3",
        "MM, m^(1/2), 0.0316227766016838",
        "CGS, N, 1e-5",
        "CGS, J, 1e-7",
        "CGS, Pa, 0.1",
        "CGS, kg/m3, 1e3",
        "CGS, Pa s, 0.1",
        "CGS, m2/s, 1e-4"
    })
    void aSystemGivesTheUnitOfEachDimension(String name, String like, double factor) {
        UnitSystem system =
                name.equals("SI") ? UnitSystem.SI : name.equals("MM") ? UnitSystem.MM_N_TONNE : UnitSystem.CGS;
        Unit unit = system.of(Unit.of(like).dimension());
        assertThat(unit.comparable(Unit.of(like))).isTrue();
        assertThat(unit.factor()).isCloseTo(factor, within(1e-12 * factor));
        // Its symbol reads back as itself.
        assertThat(Unit.of(unit.symbol()).factor()).isCloseTo(unit.factor(), within(1e-12 * factor));
    }

    @Test
    void aSystemNamesShortUnitsAndRefusesWhatIsNone() {
        assertThat(UnitSystem.MM_N_TONNE.of(Unit.of("bar").dimension()).symbol())
                .isEqualTo("MPa");
        assertThat(UnitSystem.MM_N_TONNE.of(Unit.of("m/s").dimension()).symbol())
                .isEqualTo("mm/s");
        assertThat(UnitSystem.CGS.of(Unit.of("N").dimension()).symbol()).isEqualTo("dyn");
        assertThatThrownBy(() -> new UnitSystem("odd", "s", "kg", "s", "K")).hasMessageContaining("unit of length");
    }

    @Test
    void aDifferenceOfTemperaturesIsNoPoint() {
        assertThat(Unit.of("degC").toSi(20)).isEqualTo(293.15);
        assertThat(Unit.of("delta degC").toSi(20)).isEqualTo(20);
        assertThat(Unit.of("Δ°F").toSi(9)).isCloseTo(5, within(1e-15));
        assertThat(Unit.of("W/(m2 degC)").factor()).isEqualTo(1);
    }
}
