package lane.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Locale;
import java.util.Random;
import lane.unit.Dimension;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/**
 * Formulas that are made up at random against what is worked out beside them: value, dimension, order of operations, and that
 * amounts of different kinds are never added.
 */
class RandomFormulasTest {
    /** A formula with what it must give; a dimension of null where it must be refused. */
    private record Made(String text, int rank, double value, Dimension dimension) {
        boolean sound() {
            return dimension != null;
        }
    }

    private static final int SUM = 0;
    private static final int PRODUCT = 1;
    private static final int POWER = 2;
    private static final int OPERAND = 3;

    private final Given given = new Given().stored("width", "mm", 40).stored("load", "kN", 3);

    private static final List<Made> LEAVES = List.of(
            leaf("p", 200, "Pa"),
            leaf("rho", 870, "kg/m3"),
            leaf("mu", 0.1, "Pa s"),
            leaf("over", 2, "m"),
            leaf("omega", 50, "rad/s"),
            leaf("u.y", 2, "m/s"),
            leaf("norm(u)", 3, "m/s"),
            leaf("width", 0.04, "m"),
            leaf("load", 3000, "N"),
            leaf("7", 7, "1"),
            leaf("0.25", 0.25, "1"),
            leaf("3 \"mm\"", 0.003, "m"),
            leaf("2 \"kN\"", 2000, "N"),
            leaf("1.5 \"m2\"", 1.5, "m2"),
            leaf("90 \"s\"", 90, "s"));

    private static Made leaf(String text, double si, String unit) {
        return new Made(text, OPERAND, si, Unit.of(unit).dimension());
    }

    private static String in(Made of, int rank) {
        return of.rank < rank ? "(" + of.text + ")" : of.text;
    }

    private static Made sum(Made a, Made b, boolean minus, String gap) {
        Dimension d = a.sound() && b.sound() && a.dimension.equals(b.dimension) ? a.dimension : null;
        // A bare number without a unit may stand for none of a kind, such as 0; what is said of it is tested elsewhere.
        return new Made(
                in(a, SUM) + gap + (minus ? "-" : "+") + gap + in(b, PRODUCT),
                SUM,
                minus ? a.value - b.value : a.value + b.value,
                d);
    }

    private static Made product(Made a, Made b, boolean over, String gap) {
        Dimension d =
                !a.sound() || !b.sound() ? null : over ? a.dimension.over(b.dimension) : a.dimension.times(b.dimension);
        return new Made(
                in(a, PRODUCT) + gap + (over ? "/" : "*") + gap + in(b, POWER),
                PRODUCT,
                over ? a.value / b.value : a.value * b.value,
                d);
    }

    private Made made(Random random, int depth) {
        if (depth == 0 || random.nextInt(6) == 0) {
            return LEAVES.get(random.nextInt(LEAVES.size()));
        }
        String gap = " ".repeat(random.nextInt(3));
        return switch (random.nextInt(8)) {
            case 0, 1 -> {
                Made a = made(random, depth - 1);
                // Mostly of a kind, so that deep formulas are sound; a product with a number is of the same kind.
                Made b = random.nextInt(8) == 0
                        ? made(random, depth - 1)
                        : product(a, leaf("0.5", 0.5, "1"), random.nextBoolean(), gap);
                yield sum(a, b, random.nextBoolean(), gap);
            }
            case 2, 3, 4 -> product(made(random, depth - 1), made(random, depth - 1), random.nextBoolean(), gap);
            case 5 -> {
                Made a = made(random, depth - 1);
                int n = 2 + random.nextInt(2);
                yield new Made(
                        in(a, OPERAND) + gap + "^" + gap + n,
                        POWER,
                        Math.pow(a.value, n),
                        a.sound() ? a.dimension.power(n, 1) : null);
            }
            case 6 -> {
                Made a = made(random, depth - 1);
                yield new Made("abs(" + a.text + ")", OPERAND, Math.abs(a.value), a.dimension);
            }
            default -> {
                Made a = made(random, depth - 1);
                Made b = product(leaf("2", 2, "1"), a, false, gap);
                boolean most = random.nextBoolean();
                yield new Made(
                        (most ? "max(" : "min(") + a.text + "," + gap + b.text + ")",
                        OPERAND,
                        most ? Math.max(a.value, b.value) : Math.min(a.value, b.value),
                        a.dimension);
            }
        };
    }

    /** Dimensions beyond what a unit can hold, and numbers beyond doubles, are a matter of their own. */
    private static boolean ordinary(Made m) {
        if (!Double.isFinite(m.value) || Math.abs(m.value) > 1e200 || m.value != 0 && Math.abs(m.value) < 1e-200) {
            return false;
        }
        if (m.sound()) {
            for (int sixtieths : m.dimension.sixtieths()) {
                if (Math.abs(sixtieths) > 60 * 20) {
                    return false;
                }
            }
        }
        return m.text.length() < 1500;
    }

    @Test
    void whatIsWorkedOutBesideIsWhatIsComputed() {
        var random = new Random(20);
        int sound = 0;
        int refused = 0;
        for (int trial = 0; trial < 6000; trial++) {
            Made m = made(random, 1 + random.nextInt(5));
            if (!ordinary(m)) {
                continue;
            }
            if (!m.sound()) {
                Throwable e = catchThrowable(() -> given.compile(m.text));
                assertThat(e).as(m.text).isInstanceOf(FormulaException.class);
                assertThat(e.getMessage()).as(m.text).isNotBlank();
                refused++;
                continue;
            }
            // Differences cancel, so what is made of them is compared against what they are made of.
            double v = given.one(m.text);
            assertThat(v).as(m.text).isCloseTo(m.value, within(1e-9 * Math.abs(m.value) + Double.MIN_NORMAL));
            assertThat(given.compile(m.text).type().unit().dimension())
                    .as(m.text)
                    .isEqualTo(m.dimension);
            sound++;
        }
        assertThat(sound).isGreaterThan(3000);
        assertThat(refused).isGreaterThan(200);
    }

    /** What the program writes of a formula is read to the same tree, and gives the same to the bit. */
    @Test
    void whatIsWrittenIsReadBack() {
        var random = new Random(5);
        for (int trial = 0; trial < 2000; trial++) {
            Made m = made(random, 1 + random.nextInt(5));
            if (!ordinary(m)) {
                continue;
            }
            String once = Printer.text(Parser.parse(m.text));
            assertThat(Printer.text(Parser.parse(once))).isEqualTo(once);
            if (m.sound()) {
                assertThat(given.one(once)).as("%s as %s", m.text, once).isEqualTo(given.one(m.text));
            }
        }
    }

    /** The same formula in one block of many places, and place by place. */
    @Test
    void manyPlacesAtOnceAreAsEachAlone() {
        var random = new Random(77);
        for (int trial = 0; trial < 200; trial++) {
            Made m = made(random, 4);
            if (!ordinary(m) || !m.sound()) {
                continue;
            }
            Program program = given.compile(m.text).program();
            int n = 37;
            double[][] in = new double[program.leaves().size()][n];
            for (double[] leaf : in) {
                java.util.Arrays.setAll(leaf, i -> 0.5 + random.nextDouble());
            }
            Program.Bench many = program.bench();
            for (int i = 0; i < in.length; i++) {
                System.arraycopy(in[i], 0, many.leaf(i), 0, n);
            }
            many.run(n);
            Program.Bench one = program.bench();
            for (int k = 0; k < n; k++) {
                for (int i = 0; i < in.length; i++) {
                    one.leaf(i)[0] = in[i][k];
                }
                one.run(1);
                assertThat(one.result(0)[0]).as(m.text).isEqualTo(many.result(0)[k]);
            }
        }
    }

    /** A unit in quotes stands for its factor wherever a formula holds it. */
    @Test
    void theSameAmountInAnotherUnitIsTheSame() {
        var random = new Random(31);
        String[][] alike = {
            {"m", "mm", "in", "km"},
            {"Pa", "bar", "psi", "kN/m2"},
            {"s", "min", "h"},
            {"kg", "g", "t", "lb"},
            {"J", "kWh", "cal"},
            {"m3/h", "L/min", "m3/s"}
        };
        for (String[] units : alike) {
            for (int trial = 0; trial < 20; trial++) {
                Unit from = Unit.of(units[random.nextInt(units.length)]);
                Unit to = Unit.of(units[random.nextInt(units.length)]);
                double value = 0.01 + 100 * random.nextDouble();
                String a = String.format(Locale.ROOT, "%.6e \"%s\"", value, from.symbol());
                double si = from.toSi(Double.parseDouble(String.format(Locale.ROOT, "%.6e", value)));
                assertThat(given.one(a)).as(a).isCloseTo(si, within(1e-14 * si));
                String ratio = "(" + a + ") / (1 \"" + to.symbol() + "\")";
                assertThat(given.one(ratio)).as(ratio).isCloseTo(to.fromSi(si), within(1e-13 * to.fromSi(si)));
                assertThat(given.compile(ratio).type().unit().dimension()).isEqualTo(Dimension.NONE);
            }
        }
    }
}
