package lane.formats.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.List;
import lane.reference.Recipe;
import lane.reference.Table;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Logs whose rows have dates and times, of a swimming hall's air. */
class TimeColumnTest {
    @TempDir
    Path folder;

    private Table read(String text, Recipe recipe) throws IOException {
        Path file = folder.resolve("hall.csv");
        Files.write(file, text.getBytes(StandardCharsets.UTF_8));
        return TableReader.read(file, "hall.csv", recipe);
    }

    private Table read(String text) throws IOException {
        return read(text, Recipe.of(""));
    }

    private static Recipe counted(String column, String unit) {
        Recipe r = Recipe.of("");
        return new Recipe(
                r.kind(),
                r.file(),
                r.encoding(),
                r.separator(),
                r.decimal(),
                r.sheet(),
                r.skip(),
                r.headers(),
                r.lines(),
                r.missing(),
                List.of(new Recipe.Column(column, unit, null)));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "2026-03-01 12:00:00      | 2026-03-01 12:00:30      | 2026-03-02 00:00:00.25",
                "2026-03-01T12:00:00Z     | 2026-03-01T12:00:30Z     | 2026-03-02T00:00:00.250Z",
                "2026-03-01T12:00:00+01:00| 2026-03-01T12:00:30+0100 | 2026-03-02T01:00:00.25+02:00",
                "2026/3/1 12:00           | 2026/3/1 12:00:30        | 2026/3/2 0:00:00.25",
                "01.03.2026 12:00:00      | 01.03.2026 12:00:30      | 02.03.2026 00:00:00.25",
                "1.3.26 12:00:00          | 1.3.26 12:00:30          | 2.3.26 0:00:00.250000",
                "3/1/2026 12:00:00 PM     | 3/1/2026 12:00:30 PM     | 3/2/2026 12:00:00.25 AM",
                "01/03/2026 12:00:00      | 01/03/2026 12:00:30      | 02/03/2026 00:00:00.25",
                "01-Mar-2026 12:00:00     | 1 March 2026 12:00:30    | 2-mar-2026 00:00:00.25",
                "12:00:00                 | 12:00:30                 | 00:00:00.25",
                "12:00:00 p.m.            | 12:00:30 PM              | 12:00:00.25am",
                "12:00:00                 | 12:00:30                 | 24:00:00.25",
            })
    void whateverWayTheyAreWrittenSecondsAreCountedFromMidnight(String first, String second, String third)
            throws IOException {
        Table t = read("when;rh [%]\n" + first + ";51.5\n" + second + ";52\n" + third + ";53\n");
        assertThat(t.headers()).containsExactly("when", "rh");
        assertThat(t.columns().getFirst()).containsExactly(43200, 43230, 86400.25);
        assertThat(t.units()).containsExactly("s", "%");
        assertThat(t.roles()).containsExactly(Recipe.Role.ABSCISSA, Recipe.Role.VALUE);
        assertThat(t.found().findings()).hasSize(1).first().asString().startsWith("\"when\" holds ");
    }

    @Test
    void whatWasAssumedIsSaid() throws IOException {
        assertThat(read("t,a\n2026-12-31 23:00:00,1\n2027-01-01 01:00:00,2\n")
                        .found()
                        .findings())
                .containsExactly("\"t\" holds dates and times, counted from 2026-12-31 00:00");
        assertThat(read("t,a\n23:59:59,1\n0:00:01,2\n23:59:59,3\n0:00:02,4\n")
                        .found()
                        .findings())
                .containsExactly(
                        "\"t\" holds times of the day, counted from midnight; where they fall back a new day was"
                                + " taken to begin, 2 times");
        assertThat(read("t,a\n13/1/2026,1\n14/1/2026,2\n").found().findings())
                .containsExactly("\"t\" holds dates, counted from 2026-01-13 00:00, the day before the month");
    }

    /** From the first to the fifth of March, or of March to May's first days: who writes each day leaps by months in the other order. */
    @Test
    void dayAndMonthAreToldByTheStepsBetweenRowsOrNotAtAll() throws IOException {
        Table days = read("d,a\n3/1/2026 8:00,1\n3/1/2026 20:00,2\n3/2/2026 8:00,3\n3/3/2026 8:00,4\n");
        assertThat(days.columns().getFirst()).containsExactly(28800, 72000, 115200, 201600);
        assertThat(days.found().findings().getFirst()).contains("the month before the day");

        Table unclear = read("d,a,b\n3/1/2026,1,7\n4/3/2026,2,8\n");
        assertThat(unclear.columns().getFirst()).containsOnly(Double.NaN);
        assertThat(unclear.roles().getFirst()).isEqualTo(Recipe.Role.IGNORE);
        assertThat(unclear.found().findings().getFirst()).contains("day and month cannot be told apart");
    }

    @Test
    void dateAndTimeInTwoColumnsAreOneTime() throws IOException {
        Table t = read("Datum;Uhrzeit;T in degC\n28.02.2026;23:59:58;31,5\n01.03.2026;00:00:02;31,25\n");
        assertThat(t.columns().get(1)).containsExactly(86398, 86402);
        assertThat(t.columns().get(2)).containsExactly(31.5, 31.25);
        assertThat(t.roles()).containsExactly(Recipe.Role.IGNORE, Recipe.Role.ABSCISSA, Recipe.Role.VALUE);
        assertThat(t.units()).containsExactly("", "s", "degC");
        assertThat(t.found().findings()).contains("\"Uhrzeit\" holds dates and times, counted from 2026-02-28 00:00");
    }

    /** Two columns of words and one of decimal commas: there are more commas that make numbers than semicolons. */
    @Test
    void semicolonsPartTheColumnsWhereEachLineHasAsMany() throws IOException {
        Table t = read("Becken;Zustand;T [degC]\nNord;ok;31,5\nSued;warm;31,25\n");
        assertThat(t.headers()).containsExactly("Becken", "Zustand", "T");
        assertThat(t.columns().get(2)).containsExactly(31.5, 31.25);
    }

    @Test
    void semicolonsWithinACellPartNothing() throws IOException {
        var text = new StringBuilder("n,depth,note\n");
        for (int i = 0; i < 20; i++) {
            text.append(i).append(",2.5,4;5\n");
        }
        Table t = read(text.toString());
        assertThat(t.headers()).containsExactly("n", "depth", "note");
        assertThat(t.columns().get(1)).containsOnly(2.5);
    }

    @Test
    void aTabAtTheEndOfEachLinePartsNothing() throws IOException {
        Table t = read("n,depth,T\t\n1,250,31.5\t\n2,500,31.25\t\n");
        assertThat(t.headers()).containsExactly("n", "depth", "T");
        assertThat(t.columns().get(1)).containsExactly(250, 500);
    }

    @Test
    void aTimeIsCountedInTheUnitThatIsStatedWhereItIsOne() throws IOException {
        String text = "t,a\n2026-03-01 06:00,1\n2026-03-02 06:00,2\n";
        Recipe hours = counted("t", "h");
        assertThat(read(text, hours).columns().getFirst()).containsExactly(6, 30);
        assertThat(read(text, hours).units().getFirst()).isEqualTo("h");
        Recipe metres = counted("t", "m");
        assertThat(read(text, metres).columns().getFirst()).containsExactly(21600, 108000);
        assertThat(read(text, metres).units().getFirst()).isEqualTo("s");
    }

    /** Words are no times because one looks like one, and minutes without hours may be anything. */
    @Test
    void whatIsNoTimeStaysWords() throws IOException {
        for (String column : List.of(
                "10:15\n11:20\n",
                "2026-13-01\n2026-13-02\n",
                "A 12:00:00\nB 12:00:01\n",
                "12:00:05:5\n12:00:06:5\n",
                "1:2:3:4:5\n1:2:3:4:6\n")) {
            String[] two = column.split("\n");
            Table t = read("w;x;y\n" + two[0] + ";1;4\n" + two[1] + ";2;5\n");
            assertThat(t.columns().getFirst()).as(column).containsOnly(Double.NaN);
            assertThat(t.roles().getFirst()).isEqualTo(Recipe.Role.IGNORE);
        }
    }

    @Test
    void aRowWithoutATimeIsMissingAndAFewWordsAreTold() throws IOException {
        var text = new StringBuilder("t,a\n");
        for (int i = 0; i < 30; i++) {
            String time = i == 4 ? "" : i == 9 ? "power cut" : String.format("2026-03-01 00:%02d:00", i);
            text.append(time).append(',').append(i).append('\n');
        }
        Table t = read(text.toString());
        assertThat(t.columns().getFirst()[4]).isNaN();
        assertThat(t.columns().getFirst()[9]).isNaN();
        assertThat(t.columns().getFirst()[29]).isEqualTo(29 * 60);
        assertThat(t.found().findings()).anyMatch(f -> f.startsWith("\"power cut\" in line 11 of \"t\" is no number"));
    }

    /** A sheet holds days as numbers that it shows as dates. */
    @Test
    void aSheetsDatesAreTimesAndItsNumbersNumbers() throws IOException {
        Path file = folder.resolve("hall.xlsx");
        try (var book = new XSSFWorkbook();
                var out = Files.newOutputStream(file)) {
            var sheet = book.createSheet("air");
            var head = sheet.createRow(0);
            String[] names = {"when", "clock", "lasted", "day", "rh [%]", "cost"};
            String[] formats = {
                "yyyy-mm-dd hh:mm:ss.000", "h:mm:ss AM/PM", "[h]:mm:ss", "dd/mm/yyyy", "0.00", "0.00 \"$/day\""
            };
            for (int c = 0; c < names.length; c++) {
                head.createCell(c).setCellValue(names[c]);
            }
            for (int r = 0; r < 3; r++) {
                var row = sheet.createRow(r + 1);
                for (int c = 0; c < names.length; c++) {
                    Cell cell = row.createCell(c);
                    CellStyle style = book.createCellStyle();
                    style.setDataFormat(book.createDataFormat().getFormat(formats[c]));
                    cell.setCellStyle(style);
                    switch (c) {
                        case 0 ->
                            cell.setCellValue(LocalDateTime.of(2026, 3, 1, 23, 59, 59, 500_000_000)
                                    .plusSeconds(r));
                        case 1 -> cell.setCellValue((3600 + r) / 86400.0);
                        case 2 -> cell.setCellValue((100 * 3600 + r) / 86400.0);
                        case 3 -> cell.setCellValue(LocalDateTime.of(2026, 3, 1 + r, 0, 0));
                        default -> cell.setCellValue(45000 + r);
                    }
                }
            }
            book.write(out);
        }
        Table t = TableReader.read(file, "hall.xlsx");
        assertThat(t.columns().get(0)).containsExactly(86399.5, 86400.5, 86401.5);
        assertThat(t.columns().get(3)).containsExactly(0, 86400, 172800);
        assertThat(t.columns().get(1)).containsExactly(3600, 3601, 3602);
        assertThat(t.columns().get(2)).containsExactly(360000, 360001, 360002);
        assertThat(t.columns().get(4)).containsExactly(45000, 45001, 45002);
        assertThat(t.columns().get(5)).containsExactly(45000, 45001, 45002);
    }
}
