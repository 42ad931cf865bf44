package lane.formats.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Numbers in text are the nearest doubles, to the bit, however they are written. */
class DecimalTest {
    private static double of(String text) {
        return Decimal.of((text + "7").toCharArray(), text.length());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "0",
                "-0",
                "+0.0",
                "-0.0e5",
                ".5",
                "5.",
                "-.5e-3",
                "1e22",
                "1e23",
                "1e-22",
                "1e-23",
                "9007199254740993",
                "0.000000000000000000000000000001",
                "000000000000000000000001.5",
                "123456789012345e22",
                "1e400",
                "1e-400",
                "4.9e-324",
                "1.7976931348623157e308",
                "1E+05",
                "1e0005",
                "1e00005",
                "0.1",
                "0.3",
                "2.2250738585072012e-308",
                "100000000000000000000000",
                "999999999999999",
                "9999999999999999",
                "Infinity",
                "NaN",
                "0x1p3"
            })
    void isWhatThePlatformSays(String text) {
        assertThat(Double.doubleToRawLongBits(of(text)))
                .as(text)
                .isEqualTo(Double.doubleToRawLongBits(Double.parseDouble(text)));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"", "-", ".", "-.", "+.e3", "1e", "1e+", "1.2.3", "--1", "1-", "e5", "1d", "1.5f", "1e5x", "1,5"
            })
    void whatIsNoNumberIsRefused(String text) {
        assertThatThrownBy(() -> of(text)).as(text).isInstanceOf(NumberFormatException.class);
    }

    @Test
    void randomNumbersInEveryLengthAreTheSameToTheBit() {
        var random = new Random(11);
        for (int i = 0; i < 200_000; i++) {
            double v = i % 3 == 0
                    ? Double.longBitsToDouble(random.nextLong())
                    : random.nextGaussian() * Math.pow(10, random.nextInt(40) - 20);
            if (!Double.isFinite(v)) {
                continue;
            }
            String text =
                    switch (i % 4) {
                        case 0 -> Double.toString(v);
                        case 1 -> String.format(Locale.ROOT, "%." + random.nextInt(17) + "e", v);
                        case 2 ->
                            String.format(Locale.ROOT, "%." + random.nextInt(9) + "f", Math.abs(v) < 1e30 ? v : 1);
                        default -> Float.toString((float) v);
                    };
            if (Double.doubleToRawLongBits(of(text)) != Double.doubleToRawLongBits(Double.parseDouble(text))) {
                assertThat(of(text)).as(text).isEqualTo(Double.parseDouble(text));
            }
        }
    }
}
