package lane.formats.table;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Plain;
import lane.formats.io.Budget;
import lane.formats.io.FormatError;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;

/** Rows of a sheet of an Office Open XML workbook. Formulas give the values that were stored with them. */
final class SheetRows {
    private static final int MOST_COLUMNS = 10_000;
    private static final int MOST_ROWS = 1 << 20;
    private static final Pattern PLACE = Pattern.compile("([A-Z]{0,3})(\\d{1,9})");
    private static final XMLInputFactory XML = XMLInputFactory.newFactory();

    static {
        XML.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        XML.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    }

    private SheetRows() {}

    /** @param wanted name of the sheet; blank for the first that has numbers */
    static Rows read(Path file, String shown, String wanted) throws IOException {
        try (var book = open(sound(file))) {
            List<Sheet> sheets = book.getSheets().toList();
            List<String> names = sheets.stream().map(Sheet::getName).toList();
            if (!wanted.isBlank() && !names.contains(wanted)) {
                throw new LaneException(
                        Fault.MISSING,
                        "The table " + shown + " has no sheet \"" + wanted + "\"; its sheets are " + Plain.names(names)
                                + ".");
            }
            for (Sheet sheet : sheets) {
                if (wanted.isBlank() || sheet.getName().equals(wanted)) {
                    Rows rows = rows(sheet, names);
                    boolean numbers =
                            rows.cells().stream().anyMatch(r -> r.stream().anyMatch(c -> Cells.loose(c)));
                    if (numbers || !wanted.isBlank()) {
                        return rows;
                    }
                }
            }
            throw new LaneException(
                    Fault.MISSING,
                    "The table " + shown + " has no sheet with numbers; its sheets are " + Plain.names(names) + ".");
        } catch (FormatError | LaneException | java.util.concurrent.CancellationException e) {
            throw e;
        } catch (RuntimeException e) {
            String why = e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
            throw new FormatError("it is no sound workbook ("
                    + why.substring(0, Math.min(100, why.length())).replaceAll("\\s+", " ") + ")");
        }
    }

    private static ReadableWorkbook open(byte[] sound) throws IOException {
        try {
            return new ReadableWorkbook(new ByteArrayInputStream(sound), new ReadingOptions(true, false));
        } catch (org.dhatim.fastexcel.reader.ExcelReaderException e) {
            // One without styles shows no number as a date.
            return new ReadableWorkbook(new ByteArrayInputStream(sound));
        }
    }

    /**
     * The workbook again as its directory has it, unpacked within what its size allows: what the directory says is not believed,
     * and no cell stands where no sheet has room. The reader then meets nothing else.
     */
    private static byte[] sound(Path file) throws IOException {
        var budget = new Budget(Files.size(file));
        var out = new ByteArrayOutputStream();
        try (var zip = new ZipFile(file.toFile());
                var again = new ZipOutputStream(out)) {
            again.setLevel(Deflater.BEST_SPEED);
            for (ZipEntry e : (Iterable<ZipEntry>) zip.stream().map(ZipEntry.class::cast)::iterator) {
                String name = e.getName();
                if (e.isDirectory() || !(name.endsWith(".xml") || name.endsWith(".rels"))) {
                    continue;
                }
                byte[] content = content(zip, e, budget);
                if (name.contains("worksheets/") && name.endsWith(".xml")) {
                    places(content);
                }
                again.putNextEntry(new ZipEntry(name));
                again.write(content);
                again.closeEntry();
            }
        } catch (java.util.zip.ZipException e) {
            throw new FormatError("it is no workbook: " + e.getMessage());
        }
        return out.toByteArray();
    }

    private static byte[] content(ZipFile zip, ZipEntry e, Budget budget) throws IOException {
        var out = new ByteArrayOutputStream();
        try (InputStream in = zip.getInputStream(e)) {
            byte[] block = new byte[1 << 16];
            for (int n = in.read(block); n >= 0; n = in.read(block)) {
                budget.take(n);
                out.write(block, 0, n);
            }
        }
        return out.toByteArray();
    }

    /** @throws FormatError when a cell or row is numbered beyond what the format has room for */
    private static void places(byte[] sheet) {
        try {
            XMLStreamReader xml = XML.createXMLStreamReader(new ByteArrayInputStream(sheet));
            while (xml.hasNext()) {
                if (xml.next() != XMLStreamConstants.START_ELEMENT) {
                    continue;
                }
                String place = xml.getAttributeValue(null, "r");
                boolean cell = xml.getLocalName().equals("c");
                if (place != null && (cell || xml.getLocalName().equals("row"))) {
                    Matcher m = PLACE.matcher(place);
                    if (!m.matches() || column(m.group(1)) > MOST_COLUMNS || Long.parseLong(m.group(2)) > MOST_ROWS) {
                        throw new FormatError("it has a cell at \"" + place.substring(0, Math.min(20, place.length()))
                                + "\"; a sheet is read up to " + MOST_COLUMNS + " columns and " + MOST_ROWS + " rows");
                    }
                }
            }
        } catch (XMLStreamException e) {
            throw new FormatError("a sheet of it is no sound XML");
        }
    }

    private static int column(String letters) {
        int n = 0;
        for (int i = 0; i < letters.length(); i++) {
            n = 26 * n + letters.charAt(i) - 'A' + 1;
        }
        return n;
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
        return new Rows(RowList.of(cells, lines), "", "", sheet.getName(), names, null, 0, List.of());
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
            case NUMBER, FORMULA -> raw == null ? "" : moment(cell, raw.strip());
            default -> cell.getText() == null ? "" : cell.getText().strip();
        };
    }

    private static final Pattern QUOTED = Pattern.compile("\"[^\"]*\"|\\\\.|\\[[^\\]hms]+\\]|_.");

    /** A number of days that the sheet shows as a date or a time, as that; any other number as it is. */
    private static String moment(Cell cell, String raw) {
        String format = cell.getDataFormatString();
        if (format == null || format.equalsIgnoreCase("General")) {
            return raw;
        }
        String bare = QUOTED.matcher(format.toLowerCase(Locale.ROOT)).replaceAll("");
        bare = bare.replace("am/pm", "h").replaceAll(";.*", "");
        boolean date = bare.indexOf('y') >= 0 || bare.indexOf('d') >= 0;
        boolean time = bare.indexOf('h') >= 0 || bare.indexOf('s') >= 0;
        if (!date && !time || bare.indexOf('0') >= 0 && !bare.contains("s.0") || bare.indexOf('#') >= 0) {
            return raw;
        }
        Digits days = Digits.of(raw, '.');
        if (days == null || days.value() < 0 || days.value() > 3e6) {
            return raw;
        }
        // A day has no exact share of a millisecond; nobody writes finer ones in a sheet.
        if (!date) {
            long millis = Math.round(days.value() * 86_400_000);
            return millis / 3_600_000
                    + String.format(
                            Locale.ROOT, ":%02d:%02d.%03d", millis / 60_000 % 60, millis / 1000 % 60, millis % 1000);
        }
        LocalDateTime at = cell.asDate().plusNanos(500_000).truncatedTo(ChronoUnit.MILLIS);
        return !time && at.toLocalTime().equals(LocalTime.MIDNIGHT)
                ? at.toLocalDate().toString()
                : at.format(DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss.SSS", Locale.ROOT));
    }
}
