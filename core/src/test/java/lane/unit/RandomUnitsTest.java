package lane.unit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Locale;
import java.util.Random;
import lane.base.LaneException;
import org.junit.jupiter.api.Test;

/** Units that are put together at random, written in the ways that people write them, against their factors. */
class RandomUnitsTest {
    private record Part(String text, double factor, int[] dimension) {}

    /** Metre, kilogram, second, ampere, kelvin. */
    private static Part part(String text, double factor, int... dimension) {
        return new Part(text, factor, java.util.Arrays.copyOf(dimension, 7));
    }

    private static final List<Part> PARTS = List.of(
            part("m", 1, 1),
            part("mm", 1e-3, 1),
            part("km", 1e3, 1),
            part("µm", 1e-6, 1),
            part("kg", 1, 0, 1),
            part("g", 1e-3, 0, 1),
            part("s", 1, 0, 0, 1),
            part("ms", 1e-3, 0, 0, 1),
            part("min", 60, 0, 0, 1),
            part("h", 3600, 0, 0, 1),
            part("A", 1, 0, 0, 0, 1),
            part("mA", 1e-3, 0, 0, 0, 1),
            part("K", 1, 0, 0, 0, 0, 1),
            part("N", 1, 1, 1, -2),
            part("kN", 1e3, 1, 1, -2),
            part("Pa", 1, -1, 1, -2),
            part("hPa", 100, -1, 1, -2),
            part("bar", 1e5, -1, 1, -2),
            part("J", 1, 2, 1, -2),
            part("kW", 1e3, 2, 1, -3),
            part("V", 1, 2, 1, -3, -1),
            part("L", 1e-3, 3),
            part("ft", 0.3048, 1),
            part("lb", 0.45359237, 0, 1));

    private record Made(String text, double factor, int[] dimension) {}

    private static Made made(Random random) {
        int above = 1 + random.nextInt(3);
        int below = random.nextInt(3);
        String times = new String[] {" ", "*", "·", " "}[random.nextInt(4)];
        var text = new StringBuilder();
        double factor = 1;
        int[] dimension = new int[7];
        for (int i = 0; i < above + below; i++) {
            boolean over = i >= above;
            Part p = PARTS.get(random.nextInt(PARTS.size()));
            int power = 1 + random.nextInt(3);
            if (i == above) {
                text.append(random.nextBoolean() ? "/" : " / ").append(below > 1 ? "(" : "");
            } else if (i > 0) {
                text.append(times);
            }
            text.append(p.text);
            if (power > 1) {
                String mark = random.nextBoolean() ? "" : random.nextBoolean() ? "^" : "²³";
                text.append(mark.equals("²³") ? String.valueOf("²³".charAt(power - 2)) : mark + power);
            }
            int signed = over ? -power : power;
            factor *= Math.pow(p.factor, signed);
            for (int d = 0; d < 7; d++) {
                dimension[d] += signed * p.dimension[d];
            }
        }
        if (below > 1) {
            text.append(")");
        }
        return new Made(text.toString(), factor, dimension);
    }

    @Test
    void whateverIsPutTogetherHasItsFactorAndDimension() {
        var random = new Random(14);
        for (int trial = 0; trial < 5000; trial++) {
            Made m = made(random);
            Unit unit = Unit.of(m.text);
            assertThat(unit.known()).as(m.text).isTrue();
            assertThat(unit.toSi(1)).as(m.text).isCloseTo(m.factor, within(1e-13 * m.factor));
            int[] sixtieths =
                    java.util.Arrays.stream(m.dimension).map(d -> 60 * d).toArray();
            assertThat(unit.dimension().sixtieths()).as(m.text).containsExactly(sixtieths);
        }
    }

    /** The symbol that a unit shows is read as the same unit. */
    @Test
    void whatIsShownIsReadBack() {
        var random = new Random(15);
        for (int trial = 0; trial < 3000; trial++) {
            Unit a = Unit.of(made(random).text);
            Unit b = Unit.of(made(random).text);
            for (Unit u : List.of(a, a.times(b), a.over(b), a.si(), b.over(a).si())) {
                Unit again = Unit.of(u.symbol());
                assertThat(again.known()).as(u.symbol()).isTrue();
                assertThat(again.dimension()).as(u.symbol()).isEqualTo(u.dimension());
                assertThat(again.toSi(1)).as(u.symbol()).isCloseTo(u.toSi(1), within(1e-12 * u.toSi(1)));
            }
        }
    }

    @Test
    void factorsOfProductsAreProducts() {
        var random = new Random(16);
        for (int trial = 0; trial < 2000; trial++) {
            Made a = made(random);
            Made b = made(random);
            Unit times = Unit.of(a.text).times(Unit.of(b.text));
            Unit over = Unit.of(a.text).over(Unit.of(b.text));
            assertThat(times.toSi(1)).isCloseTo(a.factor * b.factor, within(1e-12 * a.factor * b.factor));
            assertThat(over.toSi(1)).isCloseTo(a.factor / b.factor, within(1e-12 * a.factor / b.factor));
            assertThat(over.times(Unit.of(b.text)).comparable(Unit.of(a.text)))
                    .as("%s over %s", a.text, b.text)
                    .isTrue();
        }
    }

    /** There and back gives the digits that were there, of a temperature scale too. */
    @Test
    void thereAndBackKeepsTheDigitsOfAReading() {
        var random = new Random(17);
        for (String unit : List.of("degC", "degF", "K", "mbar", "psi", "L/min", "kWh", "deg", "%", "µm", "km/h")) {
            Unit u = Unit.of(unit);
            for (int trial = 0; trial < 400; trial++) {
                double read = Double.parseDouble(String.format(Locale.ROOT, "%.3f", 2000 * random.nextDouble() - 300));
                assertThat(u.fromSi(u.toSi(read))).as("%s %s", read, unit).isCloseTo(read, within(2e-13 * 2000));
            }
        }
        assertThat(Unit.of("degC").fromSi(Unit.of("degC").toSi(45.2))).isEqualTo(45.2);
    }

    /** What is no unit is unknown or told in one sentence, and never a unit by chance. */
    @Test
    void anyTextIsAUnitOrASentence() {
        var random = new Random(18);
        String pieces = "mkgsNPaJW/()*^·-0123456789 .²³µ°%[]\"'_!?$qxyz";
        for (int trial = 0; trial < 20_000; trial++) {
            var text = new StringBuilder();
            int n = random.nextInt(14);
            for (int i = 0; i < n; i++) {
                text.append(pieces.charAt(random.nextInt(pieces.length())));
            }
            Throwable e = catchThrowable(() -> {
                Unit u = Unit.of(text.toString());
                if (u.known()) {
                    assertThat(u.toSi(1) - u.toSi(0))
                            .as(text.toString())
                            .isNotNaN()
                            .isNotZero();
                    // Whatever it was taken for can be said again.
                    assertThat(Unit.of(u.symbol()).dimension())
                            .as(text.toString())
                            .isEqualTo(u.dimension());
                }
            });
            if (e != null) {
                assertThat(e).as(text.toString()).isInstanceOf(LaneException.class);
                assertThat(e.getMessage()).as(text.toString()).endsWith(".").hasLineCount(1);
            }
        }
    }
}
