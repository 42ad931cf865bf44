package lane.formats.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import lane.reference.Recipe;
import lane.reference.Table;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Workbooks that are made up at random: titles, gaps, units, formulas, other sheets; every number is read as it is stored. */
class RandomSheetsTest {
    @TempDir
    Path folder;

    private static final String[] NAMES = {"Height", "crumb warmth", "Feuchte", "mass flow", "pH", "Δp over door", "lid"
    };
    private static final String[][] UNITS = {
        {"mm", "m"}, {"degC", "K"}, {"%"}, {"kg/s", "g/s"}, {"1"}, {"Pa", "mbar"}, {"N", "kN"}
    };

    private record Made(Path file, String sheet, List<String> headers, List<String> units, List<double[]> columns) {}

    private Made made(Random r, int number) throws IOException {
        int columns = 2 + r.nextInt(4);
        int rows = 3 + r.nextInt(20);
        int first = r.nextInt(NAMES.length);
        // In brackets, in a row of their own, or nowhere.
        int where = r.nextInt(3);
        List<String> headers = new ArrayList<>();
        List<String> units = new ArrayList<>();
        List<double[]> values = new ArrayList<>();
        for (int c = 0; c < columns; c++) {
            int k = (first + c) % NAMES.length;
            headers.add(NAMES[k]);
            units.add(UNITS[k][r.nextInt(UNITS[k].length)]);
            values.add(new double[rows]);
        }
        if (where == 1 && units.stream().allMatch("1"::equals)) {
            units.set(0, "mm");
        }
        String name = "Messung " + number;
        try (var book = new XSSFWorkbook()) {
            if (r.nextBoolean()) {
                Sheet about = book.createSheet("About");
                about.createRow(0).createCell(0).setCellValue("Tests of the bakery, by M. Lund");
                about.createRow(3).createCell(2).setCellValue("see the next sheet");
            }
            Sheet sheet = book.createSheet(name);
            CellStyle two = book.createCellStyle();
            two.setDataFormat(book.createDataFormat().getFormat("0.00"));
            int at = 0;
            if (r.nextBoolean()) {
                sheet.createRow(at++).createCell(0).setCellValue("Oven 3, run " + number);
                at += r.nextInt(3);
            }
            Row head = sheet.createRow(at++);
            for (int c = 0; c < columns; c++) {
                head.createCell(c).setCellValue(headers.get(c) + (where == 0 ? " [" + units.get(c) + "]" : ""));
            }
            if (where == 1) {
                Row row = sheet.createRow(at++);
                for (int c = 0; c < columns; c++) {
                    row.createCell(c).setCellValue(units.get(c));
                }
            }
            double along = 10 * r.nextDouble();
            for (int i = 0; i < rows; i++) {
                Row row = sheet.createRow(at++);
                along += 0.1 + r.nextDouble();
                for (int c = 0; c < columns; c++) {
                    double v = c == 0 ? along : r.nextGaussian() * Math.pow(10, r.nextInt(6) - 2);
                    values.get(c)[i] = v;
                    if (c > 0 && i > 1 && r.nextInt(10) == 0) {
                        // A gap: no cell, an empty one, or a word for it.
                        values.get(c)[i] = Double.NaN;
                        switch (r.nextInt(3)) {
                            case 0 -> {}
                            case 1 -> row.createCell(c);
                            default -> row.createCell(c).setCellValue("n/a");
                        }
                        continue;
                    }
                    var cell = row.createCell(c);
                    if (r.nextInt(6) == 0) {
                        cell.setCellFormula(v + "*1");
                        // As a spreadsheet stores what it worked out.
                        cell.setCellValue(v);
                    } else {
                        cell.setCellValue(v);
                    }
                    if (r.nextInt(4) == 0) {
                        // What is shown of it has fewer digits than it has.
                        cell.setCellStyle(two);
                    }
                }
            }
            if (r.nextBoolean()) {
                book.createSheet("Notes").createRow(1).createCell(0).setCellValue("cleaned in May");
            }
            Path file = folder.resolve("book " + number + ".xlsx");
            try (var out = Files.newOutputStream(file)) {
                book.write(out);
            }
            if (where == 2) {
                units.replaceAll(u -> "");
            }
            return new Made(file, name, headers, units, values);
        }
    }

    @Test
    void everyNumberIsReadAsItIsStored() throws IOException {
        var random = new Random(6);
        for (int trial = 0; trial < 40; trial++) {
            Made m = made(random, trial);
            Table t = TableReader.read(m.file, m.file.getFileName().toString());
            String what = "trial " + trial + ": " + t.layout().words() + t.found();
            assertThat(t.layout().sheet()).as(what).isEqualTo(m.sheet);
            assertThat(t.headers()).as(what).isEqualTo(m.headers);
            assertThat(t.units()).as(what).isEqualTo(m.units);
            for (int c = 0; c < m.columns.size(); c++) {
                assertThat(t.columns().get(c)).as("column %d of %s", c, what).containsExactly(m.columns.get(c));
            }
            assertThat(t.found().dropped()).as(what).isEmpty();
            // The sheet may be said, too; one that is not there is told with those that are.
            Table said = TableReader.read(m.file, "book", Recipe.of("").withLayout("", "", "", m.sheet, -1, -1));
            assertThat(said.columns().getFirst()).containsExactly(m.columns.getFirst());
        }
    }
}
