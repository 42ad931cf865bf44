package lane.formats.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** Numbers of digits, to the last bit of what the language itself makes of them. */
class DigitsTest {
    private static String digits(Random r, int n) {
        var out = new StringBuilder();
        for (int i = 0; i < n; i++) {
            out.append((char) ('0' + r.nextInt(10)));
        }
        return out.toString();
    }

    @Test
    void everyNumberIsTheNearestDouble() {
        var random = new Random(44);
        int quick = 0;
        for (int trial = 0; trial < 200_000; trial++) {
            int whole = random.nextInt(14);
            int part = random.nextInt(3) == 0 ? -1 : random.nextInt(12);
            if (whole == 0 && part < 1) {
                continue;
            }
            String sign = new String[] {"", "-", "+"}[random.nextInt(3)];
            String power = random.nextInt(4) == 0 ? "e" + (random.nextInt(60) - 30) : "";
            String text = sign + digits(random, whole) + (part < 0 ? "" : "." + digits(random, part)) + power;
            Digits d = Digits.of(text, '.');
            assertThat(d).as(text).isNotNull();
            assertThat(Double.doubleToLongBits(d.value()))
                    .as(text)
                    .isEqualTo(Double.doubleToLongBits(Double.parseDouble(text)));
            // The same with the other mark.
            assertThat(Digits.of(text.replace('.', ','), ',').value()).isEqualTo(d.value());
            quick += power.isEmpty() && whole + part < 16 ? 1 : 0;
        }
        assertThat(quick).isGreaterThan(50_000);
    }

    @Test
    void edges() {
        for (String text : new String[] {
            "0",
            "-0",
            "-0.0",
            "00012.500",
            ".5",
            "7.",
            "9007199254740992",
            "9007199254740993",
            "9007199254740991.5",
            "123456789012345678",
            "1234567890123456789",
            "0.000000000000000001",
            "0.1",
            "0.3",
            "2.675",
            "1e23",
            "4.35e-5"
        }) {
            assertThat(Double.doubleToLongBits(Digits.of(text, '.').value()))
                    .as(text)
                    .isEqualTo(Double.doubleToLongBits(Double.parseDouble(text)));
        }
        for (String none :
                new String[] {"", "-", ".", "+.", "1.2.3", "1e", "1e+", "1,5", "x1", "1 2", "--1", "0x10", "1f"}) {
            assertThat(Digits.of(none, '.')).as(none).isNull();
        }
        assertThat(Digits.of("1.5D+3", '.').value()).isEqualTo(1500);
    }
}
