package lane.formats.table;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import lane.base.Fault;
import lane.base.LaneException;
import lane.formats.io.Budget;
import lane.formats.io.FormatError;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;

/** Rows of a sheet of an Office Open XML workbook. Formulas give the values that were stored with them. */
final class SheetRows {
    private static final int MOST_COLUMNS = 10_000;

    private SheetRows() {}

    /** @param wanted name of the sheet; blank for the first that has numbers */
    static Rows read(Path file, String shown, String wanted) throws IOException {
        inspect(file);
        try (var in = Files.newInputStream(file);
                var book = new ReadableWorkbook(in)) {
            List<Sheet> sheets = book.getSheets().toList();
            List<String> names = sheets.stream().map(Sheet::getName).toList();
            if (!wanted.isBlank() && !names.contains(wanted)) {
                throw new LaneException(
                        Fault.MISSING,
                        "The table " + shown + " has no sheet \"" + wanted + "\"; its sheets are "
                                + String.join(", ", names) + ".");
            }
            for (Sheet sheet : sheets) {
                if (wanted.isBlank() || sheet.getName().equals(wanted)) {
                    Rows rows = rows(sheet, names);
                    boolean numbers = rows.cells().stream()
                            .anyMatch(r -> r.stream().anyMatch(c -> TableReader.parse(c, false) != null));
                    if (numbers || !wanted.isBlank()) {
                        return rows;
                    }
                }
            }
            throw new LaneException(
                    Fault.MISSING,
                    "The table " + shown + " has no sheet with numbers; its sheets are " + String.join(", ", names)
                            + ".");
        } catch (FormatError | LaneException | java.util.concurrent.CancellationException e) {
            throw e;
        } catch (RuntimeException e) {
            String why = e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
            throw new FormatError("it is no sound workbook ("
                    + why.substring(0, Math.min(100, why.length())).replaceAll("\\s+", " ") + ")");
        }
    }

    /** What a workbook unpacks to is known before it is unpacked. */
    private static void inspect(Path file) throws IOException {
        var budget = new Budget(Files.size(file));
        try (var zip = new ZipFile(file.toFile())) {
            for (ZipEntry e : (Iterable<ZipEntry>) zip.stream().map(ZipEntry.class::cast)::iterator) {
                budget.take(Math.max(0, e.getSize()));
            }
        } catch (java.util.zip.ZipException e) {
            throw new FormatError("it is no workbook: " + e.getMessage());
        }
    }

    private static Rows rows(Sheet sheet, List<String> names) throws IOException {
        List<List<String>> cells = new ArrayList<>();
        List<Long> lines = new ArrayList<>();
        try (Stream<Row> rows = sheet.openStream()) {
            rows.forEach(row -> {
                List<String> out = new ArrayList<>();
                for (int c = 0; c < row.getCellCount(); c++) {
                    if (c > MOST_COLUMNS) {
                        throw new FormatError("it has more than " + MOST_COLUMNS + " columns");
                    }
                    out.add(text(row.getCell(c)));
                }
                while (!out.isEmpty() && out.getLast().isEmpty()) {
                    out.removeLast();
                }
                if (!out.isEmpty()) {
                    cells.add(out);
                    lines.add((long) row.getRowNum());
                }
            });
        }
        margin(cells);
        return new Rows(cells, lines, "", "", sheet.getName(), names, null);
    }

    /** A table often begins some columns in. */
    private static void margin(List<List<String>> cells) {
        int empty = Integer.MAX_VALUE;
        for (List<String> row : cells) {
            int n = 0;
            while (n < row.size() && row.get(n).isEmpty()) {
                n++;
            }
            empty = Math.min(empty, n);
        }
        if (empty > 0 && empty < Integer.MAX_VALUE) {
            int from = empty;
            cells.replaceAll(row -> row.subList(from, row.size()));
        }
    }

    private static String text(Cell cell) {
        if (cell == null || cell.getType() == CellType.EMPTY || cell.getType() == CellType.ERROR) {
            return "";
        }
        String raw = cell.getRawValue();
        return switch (cell.getType()) {
            case NUMBER -> raw == null ? "" : raw.strip();
            case FORMULA -> raw == null ? "" : raw.strip();
            default -> cell.getText() == null ? "" : cell.getText().strip();
        };
    }
}
