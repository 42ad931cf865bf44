package lane.formats.table;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import lane.base.LaneException;
import lane.formats.FileHash;
import lane.reference.Table;
import lane.trail.Trail;
import lane.unit.Unit;

/**
 * Reads a table of numbers from separated text: comma, semicolon, tab or spaces; decimal point or comma, with or without
 * thousands marks; comment lines that begin with a hash, a percent sign or two slashes; lines of text before the header;
 * one header line, units in brackets in the headers or in a row of their own; missing values; UTF-8, UTF-16 or Latin-1. What
 * it found out stands in the table's recipe.
 */
public final class CsvReader {
    private static final long MOST_BYTES = 512L << 20;
    private static final Pattern UNIT =
            Pattern.compile("^(.*?)\\s*[\\[(]([^\\[\\]()]*(?:\\([^()]*\\)[^\\[\\]()]*)*)[\\])]\\s*$");

    private CsvReader() {}

    /** @param shown the path as the trail names it */
    public static Table read(Path file, String shown) {
        try {
            if (Files.size(file) > MOST_BYTES) {
                throw new LaneException("The table " + shown + " is larger than 512 MB; cut it into smaller files.");
            }
            byte[] bytes = Files.readAllBytes(file);
            Trail.Input input = FileHash.of(file, shown);
            return parse(text(bytes), shown, input);
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        } catch (CsvParseException e) {
            throw new LaneException(
                    "The table " + shown + " cannot be read: " + e.getMessage()
                            + "; look for a quotation mark that is not closed.",
                    e);
        }
    }

    private static String text(byte[] bytes) {
        if (bytes.length >= 2 && (bytes[0] & 0xff) + (bytes[1] & 0xff) == 0xff + 0xfe) {
            // A byte order mark of two bytes.
            return new String(bytes, StandardCharsets.UTF_16);
        }
        if (bytes.length >= 4
                && bytes.length % 2 == 0
                && (bytes[1] == 0 && bytes[3] == 0 || bytes[0] == 0 && bytes[2] == 0)) {
            return new String(bytes, bytes[1] == 0 ? StandardCharsets.UTF_16LE : StandardCharsets.UTF_16BE);
        }
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
            return text.startsWith("\uFEFF") ? text.substring(1) : text;
        } catch (CharacterCodingException e) {
            return new String(bytes, StandardCharsets.ISO_8859_1);
        }
    }

    private static Table parse(String raw, String shown, Trail.Input input) {
        // Comments of other kinds become those that the CSV library skips; line numbers stay.
        String text =
                COMMENT.matcher(raw.replace("\r\n", "\n").replace('\r', '\n')).replaceAll("#");
        char separator = separator(text);
        if (separator == ' ') {
            // Runs of spaces part the columns; a quoted header keeps its own.
            text = SPACES.matcher(LEADING.matcher(text).replaceAll("")).replaceAll(" ");
        }
        List<List<String>> rows = new ArrayList<>();
        List<Long> lines = new ArrayList<>();
        try (var csv = de.siegmar.fastcsv.reader.CsvReader.builder()
                .fieldSeparator(separator)
                .commentStrategy(de.siegmar.fastcsv.reader.CommentStrategy.SKIP)
                .commentCharacter('#')
                .skipEmptyLines(true)
                .allowExtraFields(true)
                .allowMissingFields(true)
                .ofCsvRecord(text)) {
            for (CsvRecord record : csv) {
                rows.add(record.getFields().stream().map(String::strip).toList());
                lines.add(record.getStartingLineNumber());
            }
        } catch (IOException e) {
            throw new LaneException("The table " + shown + " cannot be read: " + e.getMessage() + ".", e);
        }
        if (rows.isEmpty()) {
            throw new LaneException("The table " + shown + " is empty; give a file with a header and rows of numbers.");
        }
        boolean comma = comma(rows, separator);
        rows.replaceAll(row -> row.stream().map(s -> plain(s, comma)).toList());
        int first = 0;
        while (first < rows.size() && !isData(rows.get(first), comma)) {
            first++;
        }
        if (first == rows.size()) {
            throw new LaneException("The table " + shown + " has no row of numbers; its first line is \""
                    + brief(String.join(String.valueOf(separator), rows.getFirst())) + "\".");
        }
        if (first == 0) {
            // Some programs write the header as the last comment before the numbers.
            List<String> said = commented(text, separator, rows.getFirst().size());
            if (said != null) {
                rows.addFirst(said);
                lines.addFirst(Math.max(1, lines.getFirst() - 1));
                first = 1;
            }
        }
        return build(rows, lines, first, separator, comma, shown, input);
    }

    /** The words of the last comment before the first number, when there are as many as columns; else null. */
    private static List<String> commented(String text, char separator, int width) {
        String last = null;
        for (String line : text.lines().limit(1000).toList()) {
            if (line.startsWith("#")) {
                last = line.replaceFirst("^#+\\s*", "").strip();
            } else if (!line.isBlank()) {
                break;
            }
        }
        if (last == null || width < 2) {
            return null;
        }
        String[] words = last.split(separator == ' ' ? "\\s+" : Pattern.quote(String.valueOf(separator)));
        return words.length == width ? Arrays.stream(words).map(String::strip).toList() : null;
    }

    private static Table build(
            List<List<String>> rows,
            List<Long> lines,
            int first,
            char separator,
            boolean comma,
            String shown,
            Trail.Input input) {
        int width = rows.get(first).size();
        boolean unitRow = first >= 2 && rows.get(first - 1).size() == width && isUnits(rows.get(first - 1));
        int headerRow = first - (unitRow ? 2 : 1);
        List<String> headers = new ArrayList<>();
        List<String> units = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            String header = headerRow >= 0 && c < rows.get(headerRow).size()
                    ? rows.get(headerRow).get(c)
                    : "";
            String unit = unitRow ? rows.get(first - 1).get(c).replaceAll("^[\\[(]|[\\])]$", "") : "";
            var m = UNIT.matcher(header);
            if (!unitRow && m.matches() && readable(m.group(2))) {
                header = m.group(1);
                unit = m.group(2);
            }
            header = header.isEmpty() ? "column " + (c + 1) : header;
            String unique = header;
            for (int n = 2; headers.contains(unique); n++) {
                unique = header + " " + n;
            }
            headers.add(unique);
            units.add(unit);
        }
        int count = rows.size() - first;
        List<double[]> columns = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            double[] column = new double[count];
            for (int r = 0; r < count; r++) {
                List<String> row = rows.get(first + r);
                if (row.size() > width) {
                    throw new LaneException("The table " + shown + " has " + row.size() + " values in line "
                            + lines.get(first + r) + " but " + width + " columns; mend that line.");
                }
                column[r] = c < row.size() ? number(row.get(c), comma, shown, lines.get(first + r)) : Double.NaN;
            }
            columns.add(column);
        }
        String word = separator == '\t' ? "tab" : separator == ';' ? "semicolon" : separator == ' ' ? "space" : "comma";
        String recipe = word + " between columns, decimal " + (comma ? "comma" : "point") + ", "
                + (headerRow >= 0 ? "header in line " + lines.get(headerRow) : "no header")
                + (unitRow ? ", units in line " + lines.get(first - 1) : "") + ", " + count + " rows";
        return new Table(headers, units, columns, recipe, input);
    }

    private static char separator(String text) {
        String[] lines = text.lines()
                .filter(l -> !l.isBlank() && !l.startsWith("#"))
                .limit(50)
                .toArray(String[]::new);
        for (char c : new char[] {';', '\t'}) {
            if (lines.length > 0
                    && Arrays.stream(lines).filter(l -> l.indexOf(c) >= 0).count() * 2 > lines.length) {
                return c;
            }
        }
        // A comma that stands between digits only, with spaces elsewhere, is a decimal mark.
        boolean spaced = Arrays.stream(lines)
                                .filter(l -> ROW_OF_SPACES.matcher(l.strip()).matches())
                                .count()
                        * 2
                > lines.length;
        return spaced ? ' ' : ',';
    }

    private static final Pattern COMMENT = Pattern.compile("(?m)^\\s*(?:%|//|#)");
    private static final Pattern SPACES = Pattern.compile("(?<=\\S) +(?=\\S)| +$", Pattern.MULTILINE);
    private static final Pattern LEADING = Pattern.compile("(?m)^ +");
    private static final Pattern NUMBER = Pattern.compile("[-+]?(?:\\d+(?:[.,]\\d*)?|[.,]\\d+)(?:[eEdD][-+]?\\d+)?");
    private static final Pattern ROW_OF_SPACES = Pattern.compile(
            "(?:" + NUMBER.pattern() + "|(?i:nan|inf|-))(?: +(?:" + NUMBER.pattern() + "|(?i:nan|inf|-)))+");
    private static final Pattern DECIMAL_COMMA =
            Pattern.compile("[-+]?\\d+,(?:\\d{1,2}|\\d{4,})(?:[eE][-+]?\\d+)?|[-+]?0,\\d+");
    private static final Pattern POINT_THOUSANDS = Pattern.compile("[-+]?\\d{1,3}(?:\\.\\d{3})+,\\d+");
    private static final Pattern COMMA_THOUSANDS = Pattern.compile("[-+]?\\d{1,3}(?:,\\d{3})+(?:\\.\\d*)?");

    /** Whether the comma is the decimal mark: a number tells that cannot be read with a comma between thousands. */
    private static boolean comma(List<List<String>> rows, char separator) {
        if (separator == ',') {
            return false;
        }
        boolean any = false;
        for (List<String> row : rows) {
            for (String s : row) {
                if (DECIMAL_COMMA.matcher(s).matches()
                        || POINT_THOUSANDS.matcher(s).matches()) {
                    return true;
                }
                if (s.indexOf('.') >= 0 && NUMBER.matcher(s.replace(",", "")).matches()) {
                    return false;
                }
                any |= s.matches("[-+]?\\d+,\\d+");
            }
        }
        return any;
    }

    /** Without thousands marks: points, commas, apostrophes or narrow spaces between groups of three digits. */
    private static String plain(String s, boolean comma) {
        if (comma && POINT_THOUSANDS.matcher(s).matches()) {
            return s.replace(".", "");
        }
        if (!comma && COMMA_THOUSANDS.matcher(s).matches()) {
            return s.replace(",", "");
        }
        return s.matches("[-+]?\\d{1,3}(?:['\u00a0\u202f\u2019]\\d{3})+(?:[.,]\\d*)?")
                ? s.replaceAll("['\u00a0\u202f\u2019]", "")
                : s;
    }

    private static boolean isData(List<String> row, boolean comma) {
        long numbers = row.stream().filter(s -> parse(s, comma) != null).count();
        long words = row.stream()
                .filter(s -> !s.isEmpty() && !missing(s) && parse(s, comma) == null)
                .count();
        return numbers > 0 && words == 0;
    }

    private static boolean isUnits(List<String> row) {
        return row.stream()
                .allMatch(s -> s.isEmpty() || s.equals("-") || readable(s.replaceAll("^[\\[(]|[\\])]$", "")));
    }

    private static boolean readable(String unit) {
        try {
            Unit.of(unit);
            return true;
        } catch (LaneException e) {
            return false;
        }
    }

    private static boolean missing(String s) {
        return s.isEmpty()
                || s.equals("-")
                || s.equalsIgnoreCase("nan")
                || s.equalsIgnoreCase("n/a")
                || s.equalsIgnoreCase("na");
    }

    private static Double parse(String s, boolean comma) {
        try {
            return s.isEmpty() || Character.isLetter(s.charAt(s.length() - 1))
                    ? null
                    // Some programs write the exponent of double precision with a D.
                    : Double.valueOf((comma ? s.replace(',', '.') : s).replaceAll("(?<=\\d)[dD](?=[-+]?\\d)", "e"));
        } catch (NumberFormatException e) {
            return null;
        }
    }

    private static double number(String s, boolean comma, String shown, long line) {
        if (missing(s)) {
            return Double.NaN;
        }
        Double v = parse(s, comma);
        if (v == null) {
            throw new LaneException("The table " + shown + " has \"" + brief(s) + "\" in line " + line
                    + " where a number belongs; mend it or leave it empty.");
        }
        return v;
    }

    private static String brief(String s) {
        return s.length() <= 40 ? s : s.substring(0, 40) + "…";
    }
}
