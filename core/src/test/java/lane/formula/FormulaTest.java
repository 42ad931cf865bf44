package lane.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class FormulaTest {
    private final Given given = new Given();

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "1 + 2 * 3; 7",
                "(1 + 2) * 3; 9",
                "2 ^ 3 ^ 2; 512",
                "-2 ^ 2; -4",
                "2 ^ -1; 0.5",
                "2²; 4",
                "2³ + 1; 9",
                "7 - 4 - 2; 1",
                "16 / 4 / 2; 2",
                "1 − 2; -1",
                "2 · 3 × 4; 24",
                "8 ÷ 2; 4",
                ".5 + 1.; 1.5",
                "1e3 + 2.5E-1; 1000.25",
                "- - 3; 3",
                "if(1 < 2, 10, 20); 10",
                "if(1 ≥ 2, 10, 20); 20",
                "if(1 < 2 and not (2 < 1), 1, 0); 1",
                "if(1 = 2 or 3 != 3, 1, 0); 0",
                "min(3, 1, 2); 1",
                "max(3, 1, 5, 2); 5",
                "mod(7, 3); 1",
                "mod(-1, 3); 2",
                "hypot(3, 4); 5",
                "sqrt(16); 4",
                "cbrt(27); 3",
                "abs(-3); 3",
                "sign(-3); -1",
                "floor(-1.5); -2",
                "ceil(1.2); 2",
                "round(2.5); 2",
                "log10(1000); 3",
                "log2(8); 3",
                "exp(0); 1",
                "gamma(5); 24",
                "4 ^ 0.5; 2",
                "2 ^ 4; 16",
                "27 ^ (1 / 3); 3",
                "pi / pi; 1",
                "p; 200",
                "\"p\" * 2; 400",
                "over * over; 4",
                "time; 2",
                "x + y + z; 12",
                "radius; 5",
                "axial; 5",
                "0.5 * rho * dot(u, u); 3915",
                "norm(u); 3",
                "norm(\"wall shear stress\"); 5",
                "u.x; 1",
                "u.swirl; 0.4",
                "u.radial; 2.2",
                "u.axial; 2",
                "cross(u, [1, 0, 0]).z; -2",
                "dot(normal, u); 2",
                "[1, 2, 3].y; 2",
                "unit(u).x * 3; 1",
                "trace(stress); 9e6",
                "det(identity()); 1",
                "stress.xy; 1e6",
                "sym.xx; 1",
                "sym.yz; 5",
                "sym.zx; 6",
                "invariant(sym, 2); -66",
                "det(sym); 101",
                "double(sym, sym); 168",
                "principal(stress, 2); 3e6",
                "wall_distance * 10; 1",
                "cell_volume ^ (1 / 3); 2",
                "mean(p over rotor); 9",
                "mean(u over rotor + inlet).y; 9",
                "grad(p).z; 3",
                "div(u); 15",
                "curl(u).x; 2",
                "table(\"rake\", 2 \"m\"); 10",
                "table(\"rake\", over / 4); 15",
                "p of fine; 1",
                "p at 0.5; 1",
                "erf(0); 0",
                "component(u, 2); 2",
            })
    void values(String formula, double expected) {
        assertThat(given.one(formula)).isCloseTo(expected, within(1e-12 * Math.max(1, Math.abs(expected))));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "50 \"rpm\"; 5.235987755982989; rpm",
                "sin(30 \"deg\"); 0.5; 1",
                "p / rho; 0.22988505747126436; m2/s2",
                "rho * norm(u) * 6 \"mm\" / mu; 156.6; 1",
                "sqrt(p / rho); 0.4794633014853842; m/s",
                "p * 1 \"m2\"; 200; N",
                "p * 2; 400; Pa",
                "2 \"bar\" + p; 200200; bar",
                "mu * norm(u) / 1 \"mm\"; 300; Pa",
                "angle; 0.9272952180016122; rad",
                "integral(p over rotor); 9; N",
                "integral(rho over oil); 9; kg",
                "integral(p over gap); 9; N/m",
                "flow(rho * u over inlet); 9; kg/s",
                "mean(p over rotor by rho); 9; Pa",
                "grad(T).x; 1; K/m",
                "raw * 2; 14; ''",
                "max(p, 0); 200; Pa",
                "if(p > 0, p, 0); 200; Pa",
                "norm(stress); 5567764.362830022; MPa",
                "principal(stress, 1) * principal(stress, 3); 7000000000000; Pa2",
            })
    void units(String formula, double expected, String unit) {
        assertThat(given.one(formula)).isCloseTo(expected, within(1e-12 * Math.max(1, Math.abs(expected))));
        Unit shown = given.compile(formula).type().unit();
        assertThat(shown.known()).isEqualTo(!unit.isEmpty());
        if (!unit.isEmpty()) {
            assertThat(shown.dimension()).isEqualTo(Unit.of(unit).dimension());
            assertThat(shown.factor()).isCloseTo(Unit.of(unit).factor(), within(1e-15 * shown.factor()));
        }
    }

    @Test
    void temperaturesArePointsOrDifferences() {
        assertThat(given.one("C")).isEqualTo(293.15);
        assertThat(given.compile("C").type().points()).isEqualTo(1);
        assertThat(given.compile("C - T").type().points()).isZero();
        assertThat(given.compile("C - T").type().unit().offset()).isZero();
        assertThat(given.one("(C + T) / 2")).isCloseTo(296.575, within(1e-12));
        assertThat(given.compile("(C + T) / 2").type().points()).isEqualTo(1);
        assertThat(given.compile("(C + T) / 2").type().unit().symbol()).isEqualTo("degC");
        assertThat(given.compile("C + dT").type().points()).isEqualTo(1);
        assertThat(given.one("C + dT")).isCloseTo(298.15, within(1e-12));
        assertThat(given.one("C + 5 \"K\"")).isCloseTo(298.15, within(1e-12));
        assertThat(given.one("if(C > 19 \"degC\", 1, 0)")).isEqualTo(1);
        // The sign belongs to the number on its scale.
        assertThat(given.one("if(C > -300 \"degC\", 1, 0)")).isEqualTo(1);
        assertThat(given.one("if(C < -18 \"degC\", 1, 0)")).isZero();
        assertThat(given.one("-18 \"degC\"")).isCloseTo(255.15, within(1e-12));
        assertThat(given.one("C - -18 \"degC\"")).isCloseTo(38, within(1e-12));
        // The absolute temperature counts in a product.
        assertThat(given.one("C * 1 \"J/K\"")).isCloseTo(293.15, within(1e-12));
        assertThat(given.one("C ^ 4 * 5.670374419e-8 \"W/(m2 K4)\""))
                .isCloseTo(5.670374419e-8 * Math.pow(293.15, 4), within(1e-9));
        assertThat(given.compile("0.25 * C + 0.75 * T").type().points()).isEqualTo(1);
    }

    /** The wrong token and words of the sentence. */
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "p + u.x; 2; 3; kg/",
                "p + rho; 2; 3; cannot be added",
                "p - 3; 2; 3; cannot be subtracted",
                "p < rho; 2; 3; cannot be compared",
                "C + T; 0; 5; neither a temperature nor a difference",
                "2 * C; 0; 5; neither a temperature",
                "C < dT; 2; 3; difference of temperatures",
                "max(C, dT); 7; 9; difference of temperatures",
                "sin(p); 4; 5; without a unit",
                "log(p); 4; 5; divide it by a reference such as 1 \"Pa\"",
                "exp(rho * u.x); 4; 13; without a unit",
                "2 ^ p; 4; 5; exponent",
                "p ^ over; 4; 8; exponent",
                "p ^ 0.123456789; 4; 15; simple fraction",
                "f + omega; 2; 3; 2 * pi",
                "u + p; 2; 3; A vector and a number",
                "u * u; 2; 3; dot(a, b)",
                "p / u; 2; 3; divided by a vector",
                "u ^ 2; 0; 1; dot(a, a)",
                "u.w; 2; 3; no component",
                "p.x; 2; 3; A number has no component",
                "stress.x; 7; 8; no component",
                "pp + 1; 0; 2; is \"p\" meant?",
                "p q; 2; 3; put an operator",
                "2 p; 2; 3; put an operator",
                "2(3); 1; 2; put an operator",
                "p(3); 0; 1; no function \"p\"",
                "sinn(3); 0; 4; no function",
                "3 \"furlongs\"; 2; 12; is no unit",
                "p $ 2; 2; 3; no meaning",
                "1 < 2 < 3; 6; 7; join them",
                "if(p, 1, 2); 3; 4; condition",
                "(1 < 2) + 1; 1; 6; if(condition",
                "if(1 < 2, p, rho); 13; 16; cannot be two values",
                "sqrt(1, 2); 0; 10; 1 argument",
                "dot(p, u); 0; 9; multiply numbers",
                "cross(p, u); 6; 7; takes a vector",
                "trace(u); 6; 7; takes a tensor",
                "invariant(stress, 4); 18; 19; whole number from 1 to 3",
                "mean(p); 0; 7; over station",
                "mean(p over nowhere); 12; 19; no station",
                "mean(p over rotor + oil); 20; 23; taken together",
                "min(u over rotor); 4; 5; not of a vector",
                "flow(p over rotor); 5; 6; vector",
                "flow(u over oil); 12; 15; over a station that is none",
                "max(p over rotor by rho); 20; 23; no weight",
                "sqrt(p over rotor); 7; 11; not taken over",
                "p of coarse; 5; 11; no lane",
                "p at u; 5; 6; in seconds",
                "x in nowhere; 5; 12; no frame",
                "table(\"rack\", 1 \"m\"); 6; 12; no table",
                "table(\"rake\", p); 14; 15; cannot be looked up",
                "table(1, 2); 0; 11; read as table",
                "grad(stress); 5; 11; a number or a vector",
                "div(p); 4; 5; takes a vector",
                "[1, 2]; 0; 6; 3 components",
                "[1 \"m\", 2 \"s\", 0]; 8; 13; cannot be in one vector",
                "1e999; 0; 5; too large",
                "asin(over); 5; 9; without a unit",
                "hypot(p, rho); 9; 12; cannot be taken together",
                "abs(u); 4; 5; takes a number",
                "2 + sqrt(sqrt(sqrt(p))); 4; 23; simple fraction",
            })
    void wrongFormulasUnderlineTheWrongToken(String formula, int from, int to, String words) {
        FormulaException e = catchThrowableOfType(FormulaException.class, () -> given.compile(formula));
        assertThat(e).as(formula).isNotNull();
        assertThat(e.getMessage()).contains(words).endsWith(words.endsWith("?") ? "?" : ".");
        assertThat(formula.substring(e.from(), e.to())).isEqualTo(formula.substring(from, to));
        assertThat(e.unfinished()).isFalse();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "p +",
                "p * (",
                "sqrt(p",
                "mean(p over",
                "mean(p over rotor",
                "\"wall",
                "u.",
                "p of",
                "p at",
                "x in",
                "[1, 2",
                "not",
                "if(1 < 2,",
                "3 \"m/"
            })
    void whatMayGoOnIsUnfinishedAndNotWrong(String formula) {
        FormulaException e = catchThrowableOfType(FormulaException.class, () -> given.compile(formula));
        // "not" alone is a name; it is not there, which typing on may mend as well as any name.
        assertThat(e).isNotNull();
        assertThat(e.unfinished()).as(e.getMessage()).isEqualTo(!formula.equals("not"));
    }

    /** Twelve kinds of values, 66 pairs: none can be added to another, and the sentence names both units and a way out. */
    @Test
    void valuesOfDifferentKindsAreNeverAdded() {
        String[] units = {"m", "kg", "s", "K", "Pa", "N", "J", "W", "m/s", "kg/m3", "Pa s", "mol"};
        int pairs = 0;
        for (int i = 0; i < units.length; i++) {
            for (int j = i + 1; j < units.length; j++) {
                String formula = "3 \"" + units[i] + "\" + 2 \"" + units[j] + "\"";
                FormulaException e = catchThrowableOfType(FormulaException.class, () -> given.compile(formula));
                assertThat(e).as(formula).isNotNull();
                assertThat(formula.substring(e.from(), e.to())).isEqualTo("+");
                assertThat(e.getMessage())
                        .contains(units[i])
                        .contains(units[j])
                        .contains("cannot be added")
                        .containsPattern("multiply|divide|lacks a factor");
                pairs++;
            }
        }
        assertThat(pairs).isEqualTo(66);
    }

    @Test
    void componentsAndPlacesInAFrame() {
        given.frames.put("tilted", given.tilted());
        assertThat(given.si("position in tilted")).containsExactly(4, 5, 2);
        // Its x is the global y, its y the global z, its axis the global x.
        assertThat(given.one("x in tilted")).isEqualTo(4);
        assertThat(given.one("y in tilted")).isEqualTo(5);
        assertThat(given.one("axial in tilted")).isEqualTo(2);
        assertThat(given.one("radius in tilted")).isCloseTo(Math.sqrt(41), within(1e-14));
        assertThat(given.one("(u.x) in tilted")).isEqualTo(2);
        assertThat(given.one("(u.axial) in tilted")).isEqualTo(1);
        assertThat(given.one("(stress.zz) in tilted")).isEqualTo(4e6);
        assertThat(given.si("[1, 0, 0] in tilted")).containsExactly(0, 1, 0);
    }

    @Test
    void definitionsFollowOneAnotherInAnyOrderAndLoopsArePrinted() {
        given.defined("q", "0.5 * rho * speed ^ 2", "")
                .defined("speed", "norm(u)", "")
                .defined("twice", "raw * 2", "mm");
        assertThat(given.one("q + p")).isEqualTo(4115);
        // What has no unit of its own has the one that was given to it.
        assertThat(given.one("twice")).isCloseTo(0.014, within(1e-18));
        given.defined("a", "b + 1", "").defined("b", "c * 2", "").defined("c", "a", "");
        FormulaException e = catchThrowableOfType(FormulaException.class, () -> given.compile("a"));
        assertThat(e.getMessage()).contains("a > b > c > a");
        given.defined("bad", "p + rho", "");
        e = catchThrowableOfType(FormulaException.class, () -> given.compile("2 * bad"));
        assertThat(e.getMessage()).contains("\"bad\" cannot be computed").contains("added");
        assertThat("2 * bad".substring(e.from(), e.to())).isEqualTo("bad");
        given.defined("length", "norm(u)", "m");
        e = catchThrowableOfType(FormulaException.class, () -> given.compile("length"));
        assertThat(e.getMessage()).contains("cannot be shown in m");
    }

    @Test
    void aFieldOfTheNameOfACoordinateStandsBeforeItAndTheCoordinateIsCalled() {
        given.stored("x", "m", 77).stored("sin", "Pa", 5);
        assertThat(given.one("x")).isEqualTo(77);
        assertThat(given.one("x()")).isEqualTo(3);
        assertThat(given.one("sin * sin(pi / 2)")).isEqualTo(5);
    }

    @Test
    void anUnknownUnitIsSaidAndNotGuessed() {
        Compiler.Compiled c = given.compile("raw + p");
        assertThat(c.type().unit().known()).isFalse();
        assertThat(c.notes()).anyMatch(n -> n.contains("\"raw\"")).anyMatch(n -> n.contains("Pa"));
        assertThat(given.compile("p + p").notes()).isEmpty();
    }

    @Test
    void tensorsAgainstPlainLoops() {
        var random = new Random(4);
        for (int trial = 0; trial < 20; trial++) {
            double[] a = random.doubles(9, -1, 1).toArray();
            double[] b = random.doubles(9, -1, 1).toArray();
            double[] v = random.doubles(3, -1, 1).toArray();
            given.stored("a", "1", a).stored("b", "1", b).stored("v", "1", v);
            double[] ab = given.si("dot(a, b)");
            double[] av = given.si("dot(a, v)");
            double[] va = given.si("dot(v, a)");
            double[] s = given.si("symmetric(a)");
            for (int i = 0; i < 3; i++) {
                double sumA = 0;
                double sumB = 0;
                for (int j = 0; j < 3; j++) {
                    double sum = 0;
                    for (int k = 0; k < 3; k++) {
                        sum += a[3 * i + k] * b[3 * k + j];
                    }
                    assertThat(ab[3 * i + j]).isCloseTo(sum, within(1e-14));
                    assertThat(s[3 * i + j]).isCloseTo((a[3 * i + j] + a[3 * j + i]) / 2, within(1e-15));
                    sumA += a[3 * i + j] * v[j];
                    sumB += a[3 * j + i] * v[j];
                }
                assertThat(av[i]).isCloseTo(sumA, within(1e-14));
                assertThat(va[i]).isCloseTo(sumB, within(1e-14));
            }
            // Principal values: their sum, the sum of their products and their product are the invariants.
            given.stored("s", "1", s);
            double p = given.one("principal(s, 1)");
            double q = given.one("principal(s, 2)");
            double r = given.one("principal(s, 3)");
            assertThat(p).isGreaterThanOrEqualTo(q);
            assertThat(q).isGreaterThanOrEqualTo(r);
            assertThat(p + q + r).isCloseTo(given.one("trace(s)"), within(1e-13));
            assertThat(p * q + q * r + r * p).isCloseTo(given.one("invariant(s, 2)"), within(1e-13));
            assertThat(p * q * r).isCloseTo(given.one("det(s)"), within(1e-13));
            double vm = Math.sqrt(((p - q) * (p - q) + (q - r) * (q - r) + (r - p) * (r - p)) / 2);
            assertThat(given.one("equivalent(s)")).isCloseTo(vm, within(1e-13));
            assertThat(given.one("trace(deviator(a))")).isCloseTo(0, within(1e-14));
        }
    }

    @Test
    void whatIsOutsideATableIsAbsent() {
        assertThat(given.one("table(\"rake\", -1 \"mm\")")).isNaN();
        assertThat(given.one("table(\"rake\", 3001 \"mm\")")).isNaN();
        assertThat(given.one("table(\"rake\", 3 \"m\")")).isZero();
    }

    @Test
    void equalStepsAreMadeOnceAndOnlyWhatIsNeededIsLoaded() {
        Program p = given.compile("(u.x + u.y) * (u.x + u.y) + 0 * 1").program();
        assertThat(p.leaves()).hasSize(2);
    }

    @Test
    void blocksGiveTheSameAsOnePlace() {
        Program p = given.stored("w", "1", 0, 0, 0)
                .compile("if(w.x > 0.5, sqrt(w.x) * 2 - w.y, w.z ^ 3)")
                .program();
        Program.Bench bench = p.bench();
        var random = new Random(1);
        double[][] in = new double[p.leaves().size()][];
        for (int i = 0; i < in.length; i++) {
            in[i] = random.doubles(Program.BLOCK).toArray();
        }
        for (int round = 0; round < 2; round++) {
            for (int i = 0; i < in.length; i++) {
                System.arraycopy(in[i], 0, bench.leaf(i), 0, Program.BLOCK);
            }
            bench.run(Program.BLOCK);
            for (int k = 0; k < Program.BLOCK; k++) {
                double[] v = new double[3];
                for (int i = 0; i < in.length; i++) {
                    v[p.leaves().get(i).component()] = in[i][k];
                }
                double expected = v[0] > 0.5 ? Math.sqrt(v[0]) * 2 - v[1] : v[2] * v[2] * v[2];
                assertThat(bench.result(0)[k]).isCloseTo(expected, within(1e-15));
            }
        }
    }

    @Test
    void bombsAreRefused() {
        for (String part : new String[] {"(", "-", "not ", "sqrt(", "[", "2^", "if(1<2,", "p of fine of ", "u."}) {
            FormulaException e = catchThrowableOfType(
                    FormulaException.class, () -> given.compile(part.repeat(9000 / part.length())));
            assertThat(e).as(part).isNotNull();
        }
        for (String chain : new String[] {"1+", "1*", "p of fine ", "1 "}) {
            String text = chain.repeat(9000 / chain.length()) + "1";
            FormulaException e = catchThrowableOfType(FormulaException.class, () -> given.compile(text));
            assertThat(e).as(chain).isNotNull();
        }
        assertThat(catchThrowableOfType(FormulaException.class, () -> given.compile("1".repeat(20_000))))
                .hasMessageContaining("too long");
        assertThat(given.one("1" + "+1".repeat(399))).isEqualTo(400);
        assertThat(given.one("(".repeat(90) + "1" + ")".repeat(90))).isEqualTo(1);
    }

    /** Random texts of the language's own pieces and of any characters: a value or one clear sentence. */
    @Test
    void anyTextGivesAValueOrASentence() {
        String[] pieces = {
            "p",
            "u",
            "stress",
            "T",
            "C",
            "raw",
            "x",
            "rotor",
            "over",
            "by",
            "of",
            "at",
            "in",
            "and",
            "or",
            "not",
            "if",
            "mean",
            "min",
            "max",
            "flow",
            "integral",
            "sqrt",
            "sin",
            "dot",
            "cross",
            "grad",
            "table",
            "(",
            ")",
            "[",
            "]",
            ",",
            ".",
            "+",
            "-",
            "*",
            "/",
            "^",
            "<",
            ">",
            "=",
            "!=",
            "²",
            "1",
            "2.5",
            "1e5",
            "0",
            "\"m/s\"",
            "\"rake\"",
            "\"",
            "°",
            "fine",
            "é",
            "norm",
            "principal",
            "time",
            "normal",
            "\n",
            "\u0000",
            "𝛼",
            "∂"
        };
        long seed = 20261128;
        var random = new Random(seed);
        int good = 0;
        for (int i = 0; i < 20_000; i++) {
            var text = new StringBuilder();
            int n = 1 + random.nextInt(12);
            for (int k = 0; k < n; k++) {
                text.append(
                        random.nextInt(20) == 0
                                ? String.valueOf((char) random.nextInt(0x3000))
                                : pieces[random.nextInt(pieces.length)]);
                text.append(random.nextBoolean() ? " " : "");
            }
            try {
                given.si(text.toString());
                good++;
            } catch (FormulaException e) {
                assertThat(e.getMessage()).as("seed " + seed + ": " + text).matches("(?s).*[.?]");
                assertThat(e.from()).isBetween(0, text.length());
                assertThat(e.to()).isBetween(e.from(), text.length());
            }
        }
        assertThat(good).isGreaterThan(200);
    }
}
