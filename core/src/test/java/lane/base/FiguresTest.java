package lane.base;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FiguresTest {
    private static String column(double needed, double... values) {
        Figures f = Figures.of(values, needed);
        String text = String.join(" ", Arrays.stream(values).mapToObj(f::text).toList())
                + (f.head().isEmpty() ? "" : " | " + f.head());
        return text.replace('\u202f', ' ');
    }

    @Test
    void aColumnShowsItsDifferences() {
        // What stood there as 3.5e+05 four times.
        assertThat(column(0, 350000.125, 350000.25, 350001.5, 350002))
                .isEqualTo("350 000.125 350 000.250 350 001.500 350 002.000");
        assertThat(column(0, 26.844, 31, 36.143)).isEqualTo("26.844 31.000 36.143");
        assertThat(column(0, 1, 2, 3)).isEqualTo("1 2 3");
        assertThat(column(0, 0, 0)).isEqualTo("0 0");
        assertThat(column(0, Double.NaN, 2.5, -1)).isEqualTo("– 2.5 −1.0");
        assertThat(column(0)).isEmpty();
    }

    @Test
    void powersOfTenStandOnceAndOnlyWhereTheyMust() {
        assertThat(column(0, 2.5e6, 1.25e6)).isEqualTo("2.50 1.25 | 10⁶");
        assertThat(column(0, 999_999, -5)).isEqualTo("999 999 −5");
        assertThat(column(0, 9.9e-5, 1e-6)).isEqualTo("9.9 0.1 | 10⁻⁵");
        assertThat(column(0, 1e-4, 2e-4)).isEqualTo("0.0001 0.0002");
        assertThat(column(0, -3.25e-12)).isEqualTo("−3.25 | 10⁻¹²");
    }

    @Test
    void whatATolerancePartsIsSeen() {
        // Equal to six digits of 20, but a tolerance of 1e-7 asks for more.
        assertThat(column(1e-7, 20.00000011, 40.00000022)).isEqualTo("20.0000001 40.0000002");
        assertThat(column(0.01, 20, 40)).isEqualTo("20.00 40.00");
        // A double has no digits behind its sixteenth.
        assertThat(column(1e-30, 20, 40)).hasSizeLessThan(40);
    }

    @ParameterizedTest
    @CsvSource({
        "0.000012345678, 6, 1.23457·10⁻⁵",
        "1234567, 6, 1.23457·10⁶",
        "12345.678, 6, 12 345.7",
        "1234.5, 3, 1234",
        "0.5, 6, 0.5",
        "-0.000999, 3, −0.000999",
        "100, 3, 100",
        "999999.7, 3, 1 000 000",
        "0, 6, 0"
    })
    void aNumberAloneHasTheDigitsAskedFor(double v, int digits, String text) {
        assertThat(Figures.of(v, digits).whole(v))
                .isEqualTo(text.replace("12 345", "12\u202f345").replace("1 000 000", "1\u202f000\u202f000"));
    }

    @Test
    void anUncertaintyEndsTheDigitsAtItsSecond() {
        assertThat(Figures.within(12.3456, 0.021).whole(12.3456)).isEqualTo("12.346");
        assertThat(Figures.within(0, 0.021).whole(0)).isEqualTo("0.000");
        assertThat(Figures.within(1234567, 5000).whole(1234567)).isEqualTo("1.2346·10⁶");
        assertThat(Figures.within(2.5, Double.NaN).whole(2.5)).isEqualTo("2.5");
    }

    @Test
    void signsStandOnBothSidesAndRoundedZeroHasNone() {
        Figures f = new Figures(2, 0);
        assertThat(f.signed(1.234)).isEqualTo("+1.23");
        assertThat(f.signed(-1.234)).isEqualTo("−1.23");
        assertThat(f.signed(-0.001)).isEqualTo("0.00");
        assertThat(f.signed(0.001)).isEqualTo("0.00");
        assertThat(f.text(Double.NEGATIVE_INFINITY)).isEqualTo("−∞");
    }

    @Test
    void aTerminalGetsWhatItsProgramsRead() {
        assertThat(Figures.of(-1.5e-7, 6).plain(-1.5e-7)).isEqualTo("-1.5e-07");
        assertThat(Figures.of(12345.5, 6).plain(12345.5)).isEqualTo("12345.5");
        Random random = new Random(7);
        for (int i = 0; i < 2000; i++) {
            double v = (random.nextDouble() - 0.5) * Math.pow(10, random.nextInt(60) - 30);
            String text = Figures.of(v, 6).plain(v);
            assertThat(Double.parseDouble(text))
                    .as(text)
                    .isCloseTo(v, org.assertj.core.data.Percentage.withPercentage(1e-3));
        }
    }
}
