package lane.formats.table;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import lane.base.Fault;
import lane.base.LaneException;
import lane.formats.io.FileErrors;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.formats.io.FileStamp;
import lane.provenance.Provenance;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Reads a table of numbers from separated text (comma, semicolon, tab or spaces; decimal point or comma, with or without
 * thousands marks; comment lines that begin with a hash, a percent sign or two slashes; lines of text before the header;
 * one header line, units in brackets in the headers or in a row of their own; missing values; UTF-8, UTF-16 or Latin-1) or
 * from a sheet of a workbook. What it found out stands in the table's layout; a recipe for the kind of table overrides it.
 */
public final class TableReader {
    /** Endings of files that hold tables. */
    public static final List<String> ENDINGS = List.of("csv", "txt", "tsv", "dat", "xlsx");

    private static final long MOST_BYTES = 512L << 20;
    private static final Pattern UNIT =
            Pattern.compile("^(.*?)\\s*[\\[(]([^\\[\\]()]*(?:\\([^()]*\\)[^\\[\\]()]*)*)[\\])]\\s*$");
    private static final Map<String, Character> SEPARATORS =
            Map.of("comma", ',', "semicolon", ';', "tab", '\t', "space", ' ');

    private TableReader() {}

    /**
     * Reads a table as it is found.
     *
     * @param shown the path as the trail names it
     */
    public static Table read(Path file, String shown) {
        return read(file, shown, Recipe.of(kind(file, shown)));
    }

    /** @param recipe overrides what is found */
    public static Table read(Path file, String shown, Recipe recipe) {
        return guarded(file, shown, () -> {
            Provenance.Input input = FileHash.of(file, shown);
            Rows rows = workbook(file)
                    ? SheetRows.read(file, shown, recipe.sheet())
                    : rows(Files.readAllBytes(file), recipe, shown);
            return build(rows, recipe, shown, input);
        });
    }

    /** What tables of one kind have in common, however they are read: the line above the first row of numbers. */
    public static String kind(Path file, String shown) {
        return guarded(file, shown, () -> {
            if (workbook(file)) {
                return kind(SheetRows.read(file, shown, ""));
            }
            byte[] bytes = Files.readAllBytes(file);
            return kind(decode(bytes, encoding(bytes)));
        });
    }

    private static boolean workbook(Path file) {
        return FileNames.ending(file).equals("xlsx");
    }

    @FunctionalInterface
    private interface Body<T> {
        T get() throws IOException;
    }

    private static <T> T guarded(Path file, String shown, Body<T> body) {
        return FileErrors.of(file, () -> {
            try {
                if (FileStamp.of(file).size() > MOST_BYTES) {
                    throw new LaneException(
                            "The table " + shown + " is larger than 512 MB; cut it into smaller files.");
                }
                return body.get();
            } catch (IOException e) {
                throw FileHash.unreadable(file, e);
            } catch (CsvParseException e) {
                throw new LaneException(
                        "The table " + shown + " cannot be read: " + e.getMessage()
                                + "; look for a quotation mark that is not closed.",
                        e);
            }
        });
    }

    private static String kind(String text) {
        String before = "";
        String top = "";
        for (String line : text.lines().limit(500).toList()) {
            if (line.isBlank()) {
                continue;
            }
            String[] words = line.strip().split("[;,\\t ]+");
            boolean data = Arrays.stream(words).anyMatch(w -> NUMBER.matcher(w).matches())
                    && Arrays.stream(words)
                            .allMatch(w -> w.isEmpty()
                                    || missing(w)
                                    || NUMBER.matcher(w).matches());
            if (data) {
                return before.isEmpty() ? words.length + " columns" : before;
            }
            before = brief(line.strip().replaceAll("\\s+", " "), 400);
            top = top.isEmpty() ? before : top;
        }
        return top;
    }

    private static String kind(Rows rows) {
        String before = "";
        String top = "";
        for (List<String> row : rows.cells()) {
            if (isData(row, false)) {
                return before.isEmpty() ? row.size() + " columns" : before;
            }
            before = brief(String.join(" | ", row), 400);
            top = top.isEmpty() ? before : top;
        }
        return top;
    }

    private static String encoding(byte[] bytes) {
        if (bytes.length >= 2 && (bytes[0] & 0xff) + (bytes[1] & 0xff) == 0xff + 0xfe) {
            // A byte order mark of two bytes.
            return "UTF-16";
        }
        if (bytes.length >= 4
                && bytes.length % 2 == 0
                && (bytes[1] == 0 && bytes[3] == 0 || bytes[0] == 0 && bytes[2] == 0)) {
            return "UTF-16";
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes));
            return "UTF-8";
        } catch (CharacterCodingException e) {
            return "Latin-1";
        }
    }

    private static String decode(byte[] bytes, String encoding) {
        boolean marked = bytes.length >= 2 && (bytes[0] & 0xff) + (bytes[1] & 0xff) == 0xff + 0xfe;
        Charset set =
                switch (encoding) {
                    case "UTF-8" -> StandardCharsets.UTF_8;
                    case "Latin-1" -> StandardCharsets.ISO_8859_1;
                    case "UTF-16" ->
                        marked
                                ? StandardCharsets.UTF_16
                                : bytes.length > 1 && bytes[1] == 0
                                        ? StandardCharsets.UTF_16LE
                                        : StandardCharsets.UTF_16BE;
                    default ->
                        throw new LaneException("The encoding \"" + encoding
                                + "\" of a table is not known; give UTF-8, UTF-16 or Latin-1.");
                };
        String text = new String(bytes, set);
        text = text.startsWith("\uFEFF") ? text.substring(1) : text;
        return text.replace("\r\n", "\n").replace('\r', '\n');
    }

    private static Rows rows(byte[] bytes, Recipe recipe, String shown) {
        String encoding = recipe.encoding().isBlank() ? encoding(bytes) : recipe.encoding();
        String raw = decode(bytes, encoding);
        if (recipe.skip() > 0) {
            // Skipped lines become empty ones, so that line numbers stay.
            int at = 0;
            for (int i = 0; i < recipe.skip() && at >= 0; i++) {
                at = raw.indexOf('\n', at) + 1;
                if (at == 0) {
                    throw new LaneException(
                            "The table " + shown + " has fewer than " + recipe.skip() + " lines to skip; skip fewer.");
                }
            }
            raw = "\n".repeat(recipe.skip()) + raw.substring(at);
        }
        // Comments of other kinds become those that the CSV library skips; line numbers stay.
        String text = COMMENT.matcher(raw).replaceAll("#");
        Character said = SEPARATORS.get(recipe.separator());
        if (said == null && !recipe.separator().isBlank()) {
            throw new LaneException("The separator \"" + recipe.separator() + "\" is not known; give one of "
                    + String.join(", ", new java.util.TreeSet<>(SEPARATORS.keySet())) + ".");
        }
        char separator = said != null ? said : separator(text);
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
            throw new LaneException(
                    Fault.NOT_READ, "The table " + shown + " cannot be read: " + e.getMessage() + ".", e);
        }
        if (rows.isEmpty()) {
            throw new LaneException(
                    Fault.DAMAGED, "The table " + shown + " is empty; give a file with a header and rows of numbers.");
        }
        String word = separator == '\t' ? "tab" : separator == ';' ? "semicolon" : separator == ' ' ? "space" : "comma";
        // Some programs write the header as the last comment before the numbers.
        return new Rows(rows, lines, encoding, word, "", List.of(), commented(text, separator));
    }

    /** The words of the last comment before the first number; null for none. */
    private static @Nullable List<String> commented(String text, char separator) {
        String last = null;
        for (String line : text.lines().limit(1000).toList()) {
            if (line.startsWith("#")) {
                last = line.replaceFirst("^#+\\s*", "").strip();
            } else if (!line.isBlank()) {
                break;
            }
        }
        return last == null
                ? null
                : Arrays.stream(last.split(separator == ' ' ? "\\s+" : Pattern.quote(String.valueOf(separator))))
                        .map(String::strip)
                        .toList();
    }

    private static Table build(Rows found, Recipe recipe, String shown, Provenance.Input input) {
        boolean comma = recipe.decimal().isBlank()
                ? comma(found.cells(), found.separator())
                : recipe.decimal().equals("comma");
        List<List<String>> rows = new ArrayList<>(found.cells());
        List<Long> lines = new ArrayList<>(found.lines());
        rows.replaceAll(row -> row.stream().map(s -> plain(s, comma)).toList());
        int first = recipe.headers() >= 0 ? Math.min(recipe.headers(), rows.size()) : 0;
        first = firstData(rows, first, recipe.headers() >= 0, comma);
        if (first < 0) {
            throw new LaneException(
                    Fault.DAMAGED,
                    "The table " + shown + " has no row of numbers; its first line is \""
                            + brief(String.join(" ", rows.getFirst()), 40) + "\".");
        }
        int width = rows.get(first).size();
        if (first == 0
                && recipe.headers() != 0
                && found.above() != null
                && width > 1
                && found.above().size() == width) {
            rows.addFirst(found.above());
            lines.addFirst(Math.max(1, lines.getFirst() - 1));
            first = 1;
        }
        boolean unitRow = recipe.headers() >= 0
                ? recipe.headers() == 2 && first >= 2
                : first >= 2 && rows.get(first - 1).size() == width && isUnits(rows.get(first - 1));
        int headerRow = recipe.headers() == 0 ? -1 : first - (unitRow ? 2 : 1);
        List<String> headers = new ArrayList<>();
        List<String> units = new ArrayList<>();
        List<Recipe.Role> roles = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            String header = headerRow >= 0 && c < rows.get(headerRow).size()
                    ? rows.get(headerRow).get(c)
                    : "";
            String unit = unitRow && c < rows.get(first - 1).size()
                    ? rows.get(first - 1).get(c).replaceAll("^[\\[(]|[\\])]$", "")
                    : "";
            unit = readable(unit) ? unit : "";
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
            Recipe.Column said = recipe.column(unique);
            headers.add(unique);
            units.add(said.unit().isBlank() ? unit : said.unit());
            Recipe.Role guess = c == 0 && width > 1 ? Recipe.Role.ABSCISSA : Table.role(unique);
            roles.add(said.role() == null ? guess : said.role());
        }
        if (roles.stream().filter(r -> r == Recipe.Role.ABSCISSA).count() > 1) {
            // Who says which column the others stand along takes it from the one that was only guessed.
            for (int c = 0; c < width; c++) {
                if (roles.get(c) == Recipe.Role.ABSCISSA
                        && recipe.column(headers.get(c)).role() == null) {
                    roles.set(c, Table.role(headers.get(c)));
                }
            }
        }
        int count = rows.size() - first;
        for (int c = 0; c < width; c++) {
            if (recipe.column(headers.get(c)).role() == null && words(rows.subList(first, rows.size()), c, comma)) {
                roles.set(c, Recipe.Role.IGNORE);
            }
        }
        List<double[]> columns = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            double[] column = new double[count];
            boolean ignored = roles.get(c) == Recipe.Role.IGNORE;
            for (int r = 0; r < count; r++) {
                List<String> row = rows.get(first + r);
                if (row.size() > width) {
                    throw new LaneException(
                            Fault.DAMAGED,
                            "The table " + shown + " has " + row.size() + " values in line " + lines.get(first + r)
                                    + " but " + width + " columns; mend that line.");
                }
                column[r] = c >= row.size() || ignored && parse(row.get(c), comma) == null
                        ? Double.NaN
                        : number(row.get(c), comma, shown, lines.get(first + r));
            }
            columns.add(column);
        }
        String words = (found.sheet().isBlank()
                        ? found.separator() + " between columns, decimal " + (comma ? "comma" : "point") + ", "
                                + found.encoding()
                        : "sheet \"" + found.sheet() + "\"")
                + ", " + (headerRow >= 0 ? "header in line " + lines.get(headerRow) : "no header")
                + (unitRow ? ", units in line " + lines.get(first - 1) : "") + ", " + count + " rows";
        var layout = new Table.Layout(
                recipe.kind(),
                found.encoding(),
                found.separator(),
                comma ? "comma" : "point",
                found.sheet(),
                found.sheets(),
                Math.max(0, recipe.skip()),
                headerRow < 0 ? 0 : unitRow ? 2 : 1,
                words);
        return new Table(headers, units, roles, columns, layout, input);
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

    private static final Pattern COMMENT = Pattern.compile("(?m)^[ \\t\\f]*+(?:%|//|#)");
    private static final Pattern SPACES = Pattern.compile("(?<=\\S) ++(?=\\S)|(?<! ) ++$", Pattern.MULTILINE);
    private static final Pattern LEADING = Pattern.compile("(?m)^ ++");
    private static final Pattern NUMBER = Pattern.compile("[-+]?(?:\\d+(?:[.,]\\d*)?|[.,]\\d+)(?:[eEdD][-+]?\\d+)?");
    private static final Pattern ROW_OF_SPACES = Pattern.compile(
            "(?:" + NUMBER.pattern() + "|(?i:nan|inf|-))(?: +(?:" + NUMBER.pattern() + "|(?i:nan|inf|-)))+");
    private static final Pattern DECIMAL_COMMA =
            Pattern.compile("[-+]?\\d+,(?:\\d{1,2}|\\d{4,})(?:[eE][-+]?\\d+)?|[-+]?0,\\d+");
    private static final Pattern POINT_THOUSANDS = Pattern.compile("[-+]?\\d{1,3}(?:\\.\\d{3})+,\\d+");
    private static final Pattern COMMA_THOUSANDS = Pattern.compile("[-+]?\\d{1,3}(?:,\\d{3})+(?:\\.\\d*)?");

    /** Whether the comma is the decimal mark: a number tells that cannot be read with a comma between thousands. */
    private static boolean comma(List<List<String>> rows, String separator) {
        if (separator.equals("comma") || separator.isEmpty()) {
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

    /** Whether a column holds words more often than numbers. */
    private static boolean words(List<List<String>> rows, int c, boolean comma) {
        int balance = 0;
        for (List<String> row : rows) {
            if (c < row.size() && !missing(row.get(c))) {
                balance += parse(row.get(c), comma) == null ? 1 : -1;
            }
        }
        return balance > 0;
    }

    /**
     * The first row of numbers: without any word, or where there is none, or where it is said how many rows of names stand
     * above, with some; -1 for none.
     */
    private static int firstData(List<List<String>> rows, int from, boolean said, boolean comma) {
        for (int i = from; i < rows.size() && !said; i++) {
            if (isData(rows.get(i), comma)) {
                return i;
            }
        }
        for (int i = from; i < rows.size(); i++) {
            if (hasNumber(rows.get(i), comma)) {
                return i;
            }
        }
        return -1;
    }

    private static boolean hasNumber(List<String> row, boolean comma) {
        return row.stream().anyMatch(s -> parse(s, comma) != null);
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

    static @Nullable Double parse(String s, boolean comma) {
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
            throw new LaneException(
                    Fault.DAMAGED,
                    "The table " + shown + " has \"" + brief(s, 40) + "\" in line " + line
                            + " where a number belongs; mend it or leave it empty.");
        }
        return v;
    }

    private static String brief(String s, int most) {
        return s.length() <= most ? s : s.substring(0, most) + "…";
    }
}
