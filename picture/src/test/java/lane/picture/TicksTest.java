package lane.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.font.FontRenderContext;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import lane.base.Figures;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Axes of any range: round numbers in it, not too many, all different as they are written; and signs that the fonts have. */
class TicksTest {
    @ParameterizedTest
    @ValueSource(ints = {3, 5, 8, 12})
    void ticksAreRoundInsideAndFew(int most) {
        var random = new Random(most);
        for (int trial = 0; trial < 3000; trial++) {
            double size = Math.pow(10, random.nextInt(40) - 20);
            double least = size * (random.nextDouble() - 0.5);
            double greatest = least + size * (0.01 + random.nextDouble());
            double[] ticks = Ticks.of(least, greatest, most);
            String what = "from " + least + " to " + greatest;
            assertThat(ticks.length).as(what).isBetween(1, most + 1);
            double span = greatest - least;
            for (int i = 0; i < ticks.length; i++) {
                assertThat(ticks[i]).as(what).isBetween(least - 1e-8 * span, greatest + 1e-8 * span);
                if (i > 0) {
                    double step = ticks[i] - ticks[i - 1];
                    // One, two or five times a power of ten.
                    double first = step / Math.pow(10, Math.floor(Math.log10(step) + 1e-9));
                    assertThat(Math.min(Math.abs(first - 1), Math.min(Math.abs(first - 2), Math.abs(first - 5))))
                            .as("%s, step %s", what, step)
                            .isCloseTo(0, within(1e-6));
                    assertThat(ticks[i] / step - Math.rint(ticks[i] / step))
                            .as(what)
                            .isCloseTo(0, within(1e-6));
                }
            }
            // No room is wasted: with the next finer step there would be too many.
            if (ticks.length > 1) {
                assertThat(span / (ticks[1] - ticks[0])).as(what).isGreaterThan(most / 2.51 - 1);
            }
        }
    }

    @Test
    void ticksThatDifferAreWrittenDifferentlyAndReadBack() {
        var random = new Random(8);
        for (int trial = 0; trial < 2000; trial++) {
            double size = Math.pow(10, random.nextInt(16) - 8);
            double least = size * (20 * random.nextDouble() - 10);
            double greatest = least + size * (0.05 + random.nextDouble());
            double[] ticks = Ticks.of(least, greatest, 8);
            Set<String> written = new HashSet<>();
            for (double t : ticks) {
                String text = Ticks.text(t, least, greatest);
                assertThat(written.add(text))
                        .as("%s of %s to %s twice", text, least, greatest)
                        .isTrue();
                assertThat(read(text)).as(text).isCloseTo(t, within(1e-6 * (greatest - least)));
            }
        }
    }

    /** A number as the window writes it, read as people read it. */
    private static double read(String text) {
        String plain = text.replace("\u202f", "").replace('−', '-').replace(" ", "");
        int times = plain.indexOf("×10");
        if (times < 0) {
            times = plain.indexOf("·10");
        }
        if (times < 0) {
            return Double.parseDouble(plain);
        }
        var power = new StringBuilder();
        for (char c : plain.substring(times + 3).toCharArray()) {
            int digit = "⁰¹²³⁴⁵⁶⁷⁸⁹".indexOf(c);
            power.append(digit >= 0 ? String.valueOf(digit) : c == '⁻' ? "-" : String.valueOf(c));
        }
        return Double.parseDouble(plain.substring(0, times)) * Math.pow(10, Integer.parseInt(power.toString()));
    }

    @Test
    void noRangeIsATickAlone() {
        assertThat(Ticks.of(3, 3, 8)).containsExactly(3);
        assertThat(Ticks.of(3, Double.POSITIVE_INFINITY, 8)).hasSize(1);
        assertThat(Ticks.of(Double.NaN, 4, 8)).hasSize(1);
        assertThat(Ticks.of(-1, 1, 4)).contains(0.0);
    }

    /** What a font lacks is drawn from another, often as wide as two letters, or as a box. */
    @Test
    void fontsHaveEverySignOfANumberAndItsUnit() {
        var numbers = new StringBuilder();
        var random = new Random(2);
        for (int i = 0; i < 500; i++) {
            double v = random.nextGaussian() * Math.pow(10, random.nextInt(30) - 15);
            numbers.append(Figures.of(v, 6).whole(v))
                    .append(Figures.within(v, Math.abs(v) / 300).whole(v));
        }
        String signs = numbers + "±°²³µ·×−–…≤≥Δπ√∞";
        for (var font : new java.awt.Font[] {Fonts.sans(12), Fonts.semibold(12)}) {
            assertThat(font.canDisplayUpTo(signs))
                    .as("%s lacks %s", font.getFontName(), lacking(font, signs))
                    .isEqualTo(-1);
            var context = new FontRenderContext(null, true, true);
            double apart = font.getStringBounds("12\u202f345", context).getWidth()
                    - font.getStringBounds("12345", context).getWidth();
            assertThat(apart).isBetween(0.5, font.getStringBounds("0", context).getWidth());
        }
    }

    private static String lacking(java.awt.Font font, String signs) {
        int at = font.canDisplayUpTo(signs);
        return at < 0 ? "" : "U+" + Integer.toHexString(signs.charAt(at));
    }
}
