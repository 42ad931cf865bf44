package lane.formats.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.UnaryOperator;
import lane.base.Work;
import lane.reference.Recipe;
import lane.reference.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Columns of long logs of a glass furnace, looked up before the logs are read: the same numbers, or none. */
class FirstLookTest {
    private static final int ROWS = 1_500;
    private static final List<String> NAMES =
            List.of("clock (min)", "crown (degC)", "bottom (degC)", "gas (kg/h)", "port", "level (mm)");

    private static final List<String> REGULAR = log(";", '.', 5);

    @TempDir
    Path folder;

    /** A log of several slices. */
    private static List<String> log(String separator, char mark, int seed) {
        var random = new Random(seed);
        List<String> lines = new ArrayList<>();
        lines.add("# furnace 3, campaign 7");
        lines.add(String.join(separator, NAMES).replace(" (", separator.startsWith(" ") ? "_(" : " ("));
        for (int i = 0; i < ROWS; i++) {
            List<String> cells = List.of(
                    number("%.2f", 0.25 * i, mark),
                    number("%.3f", 1520 + random.nextGaussian(), mark),
                    number("%.6e", 1250 + 30 * random.nextGaussian(), mark),
                    random.nextInt(20) == 0 ? missing(separator) : number("%.1f", -40 * random.nextDouble(), mark),
                    random.nextBoolean() ? "left" : "right".repeat(1 + random.nextInt(1200)),
                    String.valueOf(random.nextInt(100_000)));
            lines.add(String.join(separator, cells));
        }
        return lines;
    }

    private static String missing(String separator) {
        return separator.startsWith(" ") ? "nan" : "";
    }

    private static String number(String form, double v, char mark) {
        return String.format(Locale.ROOT, form, v).replace('.', mark);
    }

    private Path written(List<String> lines, String feed) throws IOException {
        return Files.writeString(folder.resolve("furnace.log"), String.join(feed, lines) + feed);
    }

    private static Optional<Table> look(Path file, String... columns) {
        return FirstLook.of(file, "furnace.log", kinds -> Recipe.of(""), Set.of(columns), Work.QUIET);
    }

    @ParameterizedTest
    @CsvSource({"';', ',', crlf", "',', ., lf", "'TAB', ',', crlf", "' ', ., lf", "'   ', ',', crlf"})
    void itsNumbersAreThoseOfTheWholeTable(String between, char mark, String feed) throws IOException {
        String separator = between.replace("TAB", "\t");
        Path file = written(log(separator, mark, 3), feed.equals("lf") ? "\n" : "\r\n");
        Table all = TableReader.read(file, "furnace.log");
        String clock = all.headers().get(0);
        String gas = all.headers().get(3);
        String level = all.headers().get(5);

        Table some = look(file, clock, gas, level).orElseThrow();

        assertThat(Files.size(file)).isGreaterThan(2L << 20);
        assertThat(some.headers()).containsExactly(clock, gas, level);
        assertThat(look(file, gas).orElseThrow().column(gas)).containsExactly(all.column(gas));
        for (String name : some.headers()) {
            assertThat(some.column(name)).containsExactly(all.column(name));
            assertThat(some.unit(name, "")).isEqualTo(all.unit(name, ""));
        }
        assertThat(some.rows()).isEqualTo(ROWS);
        assertThat(some.input().proved()).isFalse();
        assertThat(all.input().proved()).isTrue();
    }

    /** The log of a campaign: the minutes as they are written, from an hour before midnight on. */
    private static List<String> dated(boolean dates) {
        List<String> lines = log(";", '.', 11);
        lines.set(1, lines.get(1).replace("clock (min)", "clock"));
        for (int i = 2; i < lines.size(); i++) {
            int s = 82_800 + 15 * (i - 2);
            String time = String.format(Locale.ROOT, "%02d:%02d:%02d", s / 3600 % 24, s / 60 % 60, s % 60);
            String day = dates ? String.format(Locale.ROOT, "%02d.11.2026 ", 29 + s / 86_400) : "";
            lines.set(i, lines.get(i).replaceFirst("[^;]*", day + time));
        }
        return lines;
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void itsTimesAreThoseOfTheWholeTable(boolean dates) throws IOException {
        Path file = written(dated(dates), "\n");
        Table all = TableReader.read(file, "furnace.log");

        Table some = look(file, "clock", "gas").orElseThrow();

        assertThat(some.column("clock")).containsExactly(all.column("clock"));
        assertThat(some.column("clock")[ROWS - 1]).isEqualTo(82_800 + 15 * (ROWS - 1));
        assertThat(some.unit("clock", "")).isEqualTo("s");
        assertThat(some.column("gas")).containsExactly(all.column("gas"));
    }

    @Test
    void whereATimeIsNoneFurtherDownNothingIsSeen() throws IOException {
        List<String> lines = dated(true);
        lines.set(1200, lines.get(1200).replaceFirst("[^;]*", "power cut"));
        assertThat(look(written(lines, "\n"), "clock", "gas")).isEmpty();
    }

    /** What the first lines do not tell is met further down. */
    private void nothingIsSeenOf(UnaryOperator<List<String>> changed) throws IOException {
        List<String> lines = changed.apply(new ArrayList<>(REGULAR));
        Path file = written(lines, "\n");

        assertThat(look(file, "clock", "gas")).isEmpty();
    }

    private static UnaryOperator<List<String>> put(int line, String text) {
        return all -> {
            all.add(line, text);
            return all;
        };
    }

    @Test
    void whereALineIsOfAnotherKindNothingIsSeen() throws IOException {
        nothingIsSeenOf(put(ROWS - 10, "# furnace stopped"));
        nothingIsSeenOf(put(ROWS - 10, "7;1;2"));
        nothingIsSeenOf(put(ROWS - 10, "7;1;2;3;left;4;5"));
        nothingIsSeenOf(put(ROWS - 10, ""));
        nothingIsSeenOf(put(ROWS - 10, ";1;2;;left;5"));
        nothingIsSeenOf(put(ROWS + 2, "sum;1;2;3;left;4"));
        List<String> sum = new ArrayList<>(REGULAR);
        sum.add("sum;1;2;3;left;4");
        assertThat(look(written(sum, "\n"), "gas")).isEmpty();
        nothingIsSeenOf(put(ROWS - 10, "8;1;2;3 approx.;left;4"));
        nothingIsSeenOf(put(ROWS - 10, "8;1;2;3,5;left;4"));
        assertThat(look(written(REGULAR, "\n"), "clock", "gas")).as("else").isPresent();
    }

    @Test
    void columnsThatAreNotThereAndWorkbooksHaveNone() throws IOException {
        Path file = written(REGULAR, "\n");
        assertThat(look(file, "clock", "smoke")).isEmpty();
        assertThat(look(
                        Files.write(
                                folder.resolve("old.log"),
                                String.join("\r", REGULAR).getBytes(StandardCharsets.UTF_8)),
                        "clock"))
                .as("returns alone")
                .isEmpty();
    }

    @Test
    void aRecipeCounts() throws IOException {
        List<String> lines = new ArrayList<>(REGULAR);
        lines.set(ROWS - 4, "373.50;1520.5;1250;-999;left;4");
        Path file = written(lines, "\n");
        Recipe missing = new Recipe("", "", "", "", "", "", -1, -1, Recipe.Lines.FOUND, List.of("-999"), List.of());

        Table some = FirstLook.of(file, "furnace.log", kinds -> missing, Set.of("clock", "gas"), Work.QUIET)
                .orElseThrow();

        assertThat(some.column("gas"))
                .containsExactly(TableReader.read(file, "furnace.log", missing).column("gas"));
        assertThat(some.column("gas")[ROWS - 6]).isNaN();
    }
}
