package lane.formats.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.reference.Recipe;
import lane.reference.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Rows of plain numbers are read on a way of their own, and are what they are on the way of all others. */
class PlainRowsTest {
    @TempDir
    Path folder;

    /** A mark for a missing value that nobody writes, and of which the decimal mark decides what it is: rows are then read cell by cell. */
    private static final Recipe SLOWLY =
            new Recipe("", "", "", "", "", "", -1, -1, Recipe.Lines.FOUND, List.of("-987654.321"), List.of());

    private static PlainRows plain(String text, char separator) {
        return PlainRows.of(TableText.of(text.getBytes(StandardCharsets.UTF_8), ""), separator, text, new double[0]);
    }

    private String read(String text, Recipe recipe) throws IOException {
        Path file = folder.resolve("silo.csv");
        Files.writeString(file, text);
        try {
            Table t = TableReader.read(file, "silo.csv", recipe);
            var out = new StringBuilder(
                    t.headers() + " " + t.units() + " " + t.roles() + "\n" + t.layout() + "\n" + t.found() + "\n");
            for (double[] column : t.columns()) {
                out.append(Arrays.toString(column)).append('\n');
            }
            return out.toString();
        } catch (LaneException e) {
            return e.getMessage();
        }
    }

    private static String number(Random r, char mark) {
        return switch (r.nextInt(9)) {
            case 0 -> String.valueOf(r.nextInt(2000) - 1000);
            case 1 -> "" + r.nextInt(9) + mark + (100 + r.nextInt(900));
            case 2 -> "0" + mark + (1 + r.nextInt(99_999));
            case 3 -> "-" + r.nextInt(400) + mark + r.nextInt(10) + (r.nextBoolean() ? "E-0" : "e+1") + r.nextInt(9);
            case 4 -> "" + mark + (10 + r.nextInt(80));
            case 5 -> r.nextInt(50) + "" + mark;
            case 6 -> "+" + r.nextInt(50) + mark + "5D2";
            default -> r.nextInt(100_000) + "" + mark + (1000 + r.nextInt(9000));
        };
    }

    private static String odd(Random r, String gap) {
        return List.of(
                        "# the door was opened",
                        "",
                        "pause",
                        "   ",
                        gap + gap,
                        "Sum" + gap + "12.5" + gap + "7",
                        "1" + gap + "n/a" + gap + "3",
                        "1" + gap + "1.234.567" + gap + "3",
                        "4" + gap + "- 5" + gap + "6",
                        "4" + gap + "5" + gap + "6" + gap + "7" + gap + "8" + gap + "9",
                        "2026-11-30" + gap + "1" + gap + "2",
                        "% a remark",
                        "// a remark")
                .get(r.nextInt(13));
    }

    private static String table(Random r) {
        String gap = List.of(",", ";", "\t", " ", "   ", " ; ", ", ", "|").get(r.nextInt(8));
        char mark = gap.contains(",") || r.nextInt(3) > 0 ? '.' : ',';
        int width = 1 + r.nextInt(5);
        var text = new StringBuilder();
        for (int i = r.nextInt(3); i > 0; i--) {
            text.append("Silo 4, filled again\n");
        }
        if (r.nextInt(5) > 0) {
            for (int c = 0; c < width; c++) {
                text.append(c == 0 ? "" : gap).append("T").append(c).append(r.nextBoolean() ? "[K]" : "");
            }
            text.append('\n');
        }
        boolean trailing = r.nextInt(4) == 0;
        int oddities = r.nextInt(3) == 0 ? 8 : 0;
        for (int row = 1 + r.nextInt(30); row > 0; row--) {
            if (r.nextInt(12) < oddities) {
                text.append(odd(r, gap)).append('\n');
            }
            text.append(r.nextInt(9) == 0 ? "  " : "");
            for (int c = 0; c < width; c++) {
                boolean blank = r.nextInt(25) == 0;
                text.append(c == 0 ? "" : gap).append(blank ? "" : number(r, mark));
            }
            text.append(trailing ? gap : "").append(r.nextInt(9) == 0 ? "  " : "");
            text.append(r.nextInt(40) == 0 ? "\r\n" : "\n");
        }
        return text.toString();
    }

    @Test
    void bothWaysGiveTheSame() throws IOException {
        int read = 0;
        int plain = 0;
        for (int seed = 0; seed < 500; seed++) {
            String text = table(new Random(seed));
            String slow = read(text, SLOWLY);
            assertThat(read(text, Recipe.of("")))
                    .as("table %s:%n%s", seed, text)
                    .isEqualTo(slow);
            read += slow.startsWith("[") ? 1 : 0;
            plain += plain(text, Marks.separator(text.lines().toList())).rows().size();
        }
        assertThat(read).isGreaterThan(330);
        assertThat(plain).isGreaterThan(1_600);
    }

    /** A log whose rows begin with a time, a number or something else, and times. */
    private static String log(Random r) {
        String gap = List.of(",", ";", "\t", " ", " ; ").get(r.nextInt(5));
        char mark = gap.equals(",") || r.nextBoolean() ? '.' : ',';
        int width = 1 + r.nextInt(4);
        int style = r.nextInt(6);
        boolean counted = r.nextInt(4) == 0;
        int oddities = r.nextInt(3) == 0 ? 6 : 0;
        var text = new StringBuilder(counted ? "No" + gap : "").append("t");
        for (int c = 0; c < width; c++) {
            text.append(gap).append("T").append(c);
        }
        text.append('\n');
        for (int row = 0; row < 2 + r.nextInt(30); row++) {
            if (r.nextInt(12) < oddities) {
                text.append(odd(r, gap)).append('\n');
            }
            int s = 86_000 + 40 * row;
            String clock = "%02d:%02d:%02d".formatted(s / 3600 % 24, s / 60 % 60, s % 60);
            int day = 3 + s / 86_400;
            String time =
                    switch (style) {
                        case 0 -> clock;
                        case 1 -> "2026-11-0" + day + " " + clock + ".25";
                        case 2 -> "0" + day + ".11.2026 " + clock;
                        case 3 -> "0" + day + ".11.2026" + gap + clock + ",5";
                        case 4 -> day + "/11/2026 " + clock;
                        default -> "2026-11-0" + day;
                    };
            boolean other = r.nextInt(40) < oddities;
            text.append(counted ? row + gap : "").append(other ? r.nextBoolean() ? "" : "off" : time);
            for (int c = 0; c < width; c++) {
                text.append(gap).append(r.nextInt(25) == 0 ? "" : number(r, mark));
            }
            text.append('\n');
        }
        return text.toString();
    }

    @Test
    void bothWaysGiveTheSameOfLogsWithDatesAndTimes() throws IOException {
        int timed = 0;
        int plain = 0;
        for (int seed = 0; seed < 400; seed++) {
            String text = log(new Random(seed));
            String slow = read(text, SLOWLY);
            assertThat(read(text, Recipe.of(""))).as("log %s:%n%s", seed, text).isEqualTo(slow);
            timed += slow.contains("counted from") ? 1 : 0;
            RowList rows = plain(text, Marks.separator(text.lines().toList())).rows();
            plain += (int) rows.stream()
                    .filter(row -> row instanceof PlainRow p && p.times() != 0)
                    .count();
        }
        assertThat(timed).isGreaterThan(200);
        assertThat(plain).isGreaterThan(2_000);
    }

    private String read(byte[] bytes, Recipe recipe) throws IOException {
        Path file = folder.resolve("silo.csv");
        Files.write(file, bytes);
        try {
            Table t = TableReader.read(file, "silo.csv", recipe);
            var out = new StringBuilder(t.headers() + " " + t.units() + " " + t.found());
            t.columns().forEach(c -> out.append('\n').append(Arrays.toString(c)));
            return out.toString();
        } catch (LaneException e) {
            return e.getMessage();
        }
    }

    /** Whatever the letters are written in and the lines end with; above and between the numbers stand letters of all kinds. */
    @Test
    void encodingsAndLineEndsDoNotMatter() throws IOException {
        var text = new StringBuilder("Füllstand – Silo 4\n\"t [s]\";\"p, oben [mbar]\";\"µ\"\n");
        for (int i = 0; i < 300; i++) {
            text.append(i == 120 ? "Störung\n" : i == 200 ? "\"7\";8;\"neun, zehn\"\n" : "");
            text.append(i)
                    .append(";-1.")
                    .append(1000 + i)
                    .append(";")
                    .append(i % 9 == 0 ? "" : "4")
                    .append("\n");
        }
        String expected = read(text.toString().getBytes(StandardCharsets.UTF_8), SLOWLY);
        assertThat(expected).contains("p, oben").contains("-1.1299");
        List<Charset> sets = List.of(
                StandardCharsets.UTF_8,
                Charset.forName("windows-1252"),
                StandardCharsets.UTF_16,
                StandardCharsets.UTF_16LE,
                StandardCharsets.UTF_16BE);
        for (Charset set : sets) {
            for (String end : List.of("\n", "\r\n", "\r")) {
                for (String mark : set.equals(StandardCharsets.UTF_8) ? List.of("", "\uFEFF") : List.of("")) {
                    byte[] bytes = (mark + text).replace("\n", end).getBytes(set);
                    String how = set + " " + end.replace("\r", "r").replace("\n", "n") + mark.length();
                    assertThat(read(bytes, Recipe.of(""))).as(how).isEqualTo(expected);
                    assertThat(read(bytes, SLOWLY)).as(how).isEqualTo(expected);
                }
            }
        }
        // Most rows are plain, whatever stands in quotation marks elsewhere; not where a line ends within them.
        assertThat(plain(text.toString(), ';').rows()).hasSize(300);
        assertThat(plain(text + "\"1;2;3\n4;5;6\";7;8\n", ';').rows()).isEmpty();
        assertThat(read((text + "\"1;2\n3;4\";7;8\n").getBytes(StandardCharsets.UTF_8), Recipe.of("")))
                .isEqualTo(read((text + "\"1;2\n3;4\";7;8\n").getBytes(StandardCharsets.UTF_8), SLOWLY));
    }

    /** What stands for a missing value and is a number, as loggers write it, is plain as well; also where a column has no other. */
    @Test
    void missingValuesThatAreNumbers() throws IOException {
        List<String> named = List.of(" -999 ", "7", "0", "k.A.");
        List<String> slowly = new ArrayList<>(named);
        slowly.addAll(SLOWLY.missing());
        for (int seed = 0; seed < 300; seed++) {
            var r = new Random(seed);
            String text = table(r);
            for (String mark : List.of("-999", "7", "0", "-0.0", "7.", "+7", "K.a.", "-999")) {
                int at = text.indexOf('\n', r.nextInt(text.length()));
                int cell = at < 0 ? -1 : text.indexOf('1', at);
                text = cell < 0 ? text : text.substring(0, cell) + mark + text.substring(cell + 1);
            }
            assertThat(read(text, skipping(-1, named)))
                    .as("table %s:%n%s", seed, text)
                    .isEqualTo(read(text, skipping(-1, slowly)));
        }
        String last = "a,b,c\n1,2,-999\n3,4,-999\n5,7,\n7,7,-999\n6,-999.0,-999\n";
        assertThat(read(last, skipping(-1, named))).isEqualTo(read(last, skipping(-1, slowly)));
        assertThat(Cells.marks(List.of("-99.9"))).isNull();
        assertThat(Cells.marks(List.of("1e30"))).isNull();
        assertThat(Cells.marks(named)).containsExactly(-999, 7, 0);
    }

    /** A comma with three digits behind it tells nothing; what does may stand in the first rows, in the last, or nowhere. */
    @Test
    void commasWithThreeDigitsBehindThem() throws IOException {
        List<String> cells = List.of(
                "9,002",
                "12,500",
                "1,5",
                "0,125",
                "7",
                "5,",
                ",250",
                "1234,567",
                "3.25",
                "1,000,000",
                "-1,024",
                "2,048e1");
        for (int seed = 0; seed < 600; seed++) {
            var r = new Random(seed);
            var text = new StringBuilder("t;T;p\n");
            int kinds = 2 + r.nextInt(seed % 3 == 0 ? cells.size() - 1 : 5);
            for (int row = 0; row < 3 + r.nextInt(12); row++) {
                for (int c = 0; c < 3; c++) {
                    String cell = r.nextInt(3) > 0 ? cells.get(r.nextInt(2)) : cells.get(r.nextInt(kinds));
                    text.append(c == 0 ? "" : ";").append(cell);
                }
                text.append('\n');
            }
            assertThat(read(text.toString(), Recipe.of("")))
                    .as("table %s:%n%s", seed, text)
                    .isEqualTo(read(text.toString(), SLOWLY));
        }
        assertThat(plain("t;T\n1,5;9,002\n2,5;9,004\n", ';').rows()).hasSize(2);
    }

    private static Recipe skipping(int lines, List<String> missing) {
        return new Recipe("", "", "", "", "", "", lines, -1, Recipe.Lines.FOUND, missing, List.of());
    }

    @Test
    void skippedLinesKeepTheNumbersOfTheOthers() throws IOException {
        String text = "1;2\n5;6\nt;p\n0;1.5\n1;x\n2;3.5\n";
        for (int skip : new int[] {0, 1, 2, 3, 6, 7}) {
            String slow = read(text, skipping(skip, SLOWLY.missing()));
            assertThat(read(text, skipping(skip, List.of()))).as("%d", skip).isEqualTo(slow);
        }
        assertThat(read(text, skipping(2, List.of()))).contains("[t, p]").contains("in line 5");
        assertThat(read(text, skipping(7, List.of()))).contains("fewer than 7 lines");
    }

    /** Rows of another width than the first ones, and single numbers above many columns. */
    @Test
    void rowsOfAnotherWidth() throws IOException {
        for (int first : new int[] {1, 3, 40}) {
            var text = new StringBuilder();
            for (int i = 0; i < 60; i++) {
                int width = i < 2 ? first : 4;
                for (int c = 0; c < width; c++) {
                    text.append(c == 0 ? "" : ",").append(i).append('.').append(c);
                }
                text.append(i % 2 == 0 ? ",\n" : "\n");
            }
            assertThat(read(text.toString(), Recipe.of(""))).isEqualTo(read(text.toString(), SLOWLY));
        }
    }

    /** Over more than one chunk, with lines between them that are none of numbers. */
    @Test
    void linesKeepTheirNumbers() throws IOException {
        var text = new StringBuilder("t [s];p [mbar]\n");
        var lines = new ArrayList<Long>();
        int line = 1;
        for (int i = 0; i < 90_000; i++) {
            if (i % 30_001 == 30_000) {
                text.append("# refilled\nwait;wait\n");
                line += 2;
            }
            text.append(i).append(',').append(5).append(";-1,0").append(i % 10).append('\n');
            lines.add((long) ++line);
        }
        PlainRows found = plain(text.toString(), ';');
        assertThat(IntStream.range(0, lines.size()).mapToObj(found.rows()::line))
                .isEqualTo(lines);
        assertThat(found.rows()).hasSize(lines.size());
        assertThat(found.rows().get(45_678)).containsExactly("45678,5", "-1,08");
        assertThat(found.rest().lines().filter(l -> !l.isEmpty()))
                .containsExactly("t [s];p [mbar]", "# refilled", "wait;wait", "# refilled", "wait;wait");
        Path file = folder.resolve("silo.csv");
        Files.writeString(file, text);
        Table t = TableReader.read(file, "silo.csv");
        assertThat(t.columns().getFirst()[89_999]).isEqualTo(89_999.5);
        assertThat(t.columns().get(1)[45_678]).isEqualTo(-1.08);
        assertThat(t.found().dropped()).extracting(Table.Dropped::line).containsExactly(30_003L, 60_006L);
        // Its first megabyte tells what it is, in whole lines of either encoding.
        for (var set : List.of(StandardCharsets.UTF_8, StandardCharsets.UTF_16)) {
            Files.write(file, text.toString().getBytes(set));
            Table start = TableReader.start(file, "silo.csv", kinds -> Recipe.of(""));
            assertThat(start.headers()).isEqualTo(t.headers());
            assertThat(start.layout().kind()).isEqualTo(t.layout().kind());
            assertThat(start.rows()).isBetween(30_000, 89_000);
            int last = start.rows() - 1;
            assertThat(start.columns().getFirst()[last]).isEqualTo(last + 0.5);
        }
    }

    @Test
    void cellsAreWhatStandsBetween() {
        String text = " 1 ,, -2.5e3 ,\t";
        var row = (PlainRow) plain(text, ',').rows().getFirst();
        assertThat(row).containsExactly("1", "", "-2.5e3", "");
        assertThat(row.value(2)).isEqualTo(-2500);
        assertThat(row.isNumber(1)).isFalse();
        assertThat(row.filled()).isEqualTo(3);
        assertThat(row.first(3)).containsExactly("1", "", "-2.5e3");
        assertThat(plain("  7   8.5 ", ' ').rows().getFirst()).containsExactly("7", "8.5", "");
        for (String none : new String[] {",,", "1,x", "1,2 3", "1,0x3", "1,\u00a02", "1,2e", "1,--2", "nan,1"}) {
            assertThat(plain(none, ',').rows()).as(none).isEmpty();
        }
    }
}
