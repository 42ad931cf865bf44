package lane.formats.table;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import lane.base.Fault;
import lane.base.LaneException;
import lane.formats.io.FileBytes;
import lane.formats.io.FileErrors;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.formats.io.FileStamp;
import lane.provenance.Provenance;
import lane.reference.Recipe;
import lane.reference.Table;
import org.jspecify.annotations.Nullable;

/**
 * Reads a table of numbers from separated text (comma, semicolon, tab or spaces; decimal point or comma, with or without
 * thousands marks; comment lines that begin with a hash, a percent sign or two slashes; titles before the header; one or two
 * header lines, units in the headers or in a row of their own; columns of words; missing values; sums and footers at the end;
 * UTF-8, UTF-16 or Latin-1) or from a sheet of a workbook. What it found out stands in the table's layout, what it left out
 * and assumed beside it; a recipe for the kind of table overrides it.
 */
public final class TableReader {
    /** Endings of files that hold tables. */
    public static final List<String> ENDINGS = List.of("csv", "txt", "tsv", "dat", "asc", "prn", "xy", "log", "xlsx");

    private static final long MOST_BYTES = 1L << 30;
    private static final Map<String, Character> SEPARATORS =
            Map.of("comma", ',', "semicolon", ';', "tab", '\t', "bar", '|', "space", ' ');
    private static final Pattern SPACES = Pattern.compile("(?<=\\S) ++(?=\\S)|(?<! ) ++$", Pattern.MULTILINE);
    private static final Pattern LEADING = Pattern.compile("(?m)^ ++");

    private TableReader() {}

    /**
     * Reads a table as it is found.
     *
     * @param shown the path as the trail names it
     */
    public static Table read(Path file, String shown) {
        return read(file, shown, Recipe.of(""));
    }

    /** @param recipe overrides what is found */
    public static Table read(Path file, String shown, Recipe recipe) {
        return read(file, shown, recipe, List.of(), Optional::empty).table();
    }

    /**
     * A table and how it was read.
     *
     * @param kinds lines that tell its kind; empty where no recipe asks for them
     */
    public record Read(List<String> kinds, Recipe recipe, Table table) {}

    /**
     * A table as the first recipe says that holds for it, or as it is found where none does.
     *
     * @param ahead the SHA-256 of its bytes where somebody found it; asked for when they are read
     */
    public static Read read(Path file, String shown, List<Recipe> recipes, Supplier<Optional<String>> ahead) {
        return read(file, shown, recipes.isEmpty() ? Recipe.of("") : null, recipes, ahead);
    }

    /** The recipe of several that holds for a table; one that says nothing where there are none, for which its kind is not asked. */
    public static Recipe recipe(List<Recipe> recipes, Path file, List<String> kinds) {
        return recipes.isEmpty()
                ? Recipe.of("")
                : Recipe.among(recipes, file.getFileName().toString(), kinds);
    }

    /** The same for whoever tells no trail: columns of values alone, of which none stands along another, and not its hash. */
    public static Table values(Path file, String shown) {
        return guarded(file, shown, () -> {
            var input = new Provenance.Input(shown, "", FileStamp.of(file).size());
            Recipe found = Recipe.of("");
            return build(rows(file, shown, found), found, false, shown, input, new ArrayList<>());
        });
    }

    private static Read read(
            Path file, String shown, @Nullable Recipe said, List<Recipe> recipes, Supplier<Optional<String>> ahead) {
        return guarded(file, shown, () -> {
            byte[] bytes = workbook(file) ? null : FileBytes.of(file);
            // One core proves what was read while the others look for its numbers.
            CompletableFuture<Provenance.Input> hash = bytes == null
                    ? CompletableFuture.completedFuture(FileHash.of(file, shown))
                    : CompletableFuture.supplyAsync(
                            () -> ahead.get()
                                    .map(sha -> new Provenance.Input(shown, sha, bytes.length))
                                    .orElseGet(() -> FileHash.of(bytes, shown)),
                            r -> Thread.ofPlatform().daemon().start(r));
            Recipe first = said == null ? Recipe.of("") : said;
            Rows rows = bytes == null ? rows(file, shown, first) : rows(bytes, first, shown);
            List<String> kinds = said == null ? kinds(rows) : List.of();
            Recipe known = said == null ? recipe(recipes, file, kinds) : said;
            if (said == null && !asFound(known)) {
                rows = bytes == null ? rows(file, shown, known) : rows(bytes, known, shown);
            }
            Table table = build(rows, known, true, shown, new Provenance.Input(shown, "", 0), new ArrayList<>());
            return new Read(kinds, known, table.from(hash.join()));
        });
    }

    /** A column as a header has it. */
    public record Named(String name, String unit) {}

    /** Name and unit of a column that is written with its unit in brackets; empty for other words. */
    public static Optional<Named> column(String words) {
        return TableHead.named(words.strip());
    }

    /** What parts columns, by the word for it; null for another word. */
    static @Nullable Character separator(String word) {
        return SEPARATORS.get(word);
    }

    /** Whether rows are found by a recipe as by none: it says nothing of what they are written in. */
    private static boolean asFound(Recipe recipe) {
        return recipe.encoding().isBlank()
                && recipe.separator().isBlank()
                && recipe.sheet().isBlank()
                && recipe.skip() <= 0
                && recipe.missing().isEmpty();
    }

    private static Rows rows(Path file, String shown, Recipe recipe) throws IOException {
        return workbook(file) ? SheetRows.read(file, shown, recipe.sheet()) : rows(FileBytes.of(file), recipe, shown);
    }

    private static final int START = 1 << 20;

    /** The same of the first lines alone, a megabyte at most: what kind of table it is. A workbook is read whole. */
    private static Rows start(Path file, String shown, Recipe recipe) throws IOException {
        return workbook(file) ? rows(file, shown, recipe) : start(file, shown, recipe, START);
    }

    private static Rows start(Path file, String shown, Recipe recipe, int most) throws IOException {
        try (var in = Files.newInputStream(file)) {
            byte[] bytes = in.readNBytes(most);
            int end = bytes.length;
            if (end == most) {
                // Not within a line; in UTF-16 the feed has a second byte.
                while (end > 0 && bytes[end - 1] != '\n') {
                    end--;
                }
                end = end == 0 ? most : end % 2 == 1 && bytes[0] + bytes[1] == -3 ? end + 1 : end;
            }
            return rows(Arrays.copyOf(bytes, end), recipe, shown);
        }
    }

    private static final int SOME = 1 << 15;

    /** How many rows of numbers a file of text begins with, as far as some of its first lines tell; what is a mark-up has none. */
    public static int rowsAtStart(Path file) {
        try (var in = Files.newInputStream(file)) {
            String first = new String(in.readNBytes(256), StandardCharsets.ISO_8859_1).strip();
            return first.startsWith("<") || first.startsWith("{") || first.startsWith("\u00ef\u00bb\u00bf<")
                    ? 0
                    : build(
                                    start(file, "", Recipe.of(""), SOME),
                                    Recipe.of(""),
                                    true,
                                    "",
                                    new Provenance.Input("", "", 0),
                                    new ArrayList<>())
                            .rows();
        } catch (IOException | RuntimeException e) {
            return 0;
        }
    }

    /**
     * The first rows of a table, a megabyte at most, and not its hash: enough to tell what it is.
     *
     * @param recipe chooses how it is read, from the lines that tell its kind
     */
    public static Table start(Path file, String shown, Function<List<String>, Recipe> recipe) {
        return guarded(file, shown, () -> {
            Rows rows = start(file, shown, Recipe.of(""));
            TableShape shape = TableShape.of(rows, Cells.of(loosely(rows), List.of()), Recipe.of(""));
            Recipe known = recipe.apply(kinds(rows, shape));
            Rows again = known.equals(Recipe.of("")) ? rows : start(file, shown, known);
            return build(again, known, true, shown, new Provenance.Input(shown, "", 0), new ArrayList<>());
        });
    }

    /** The line that tables of one kind have in common, however they are read: their header. */
    public static String kind(Path file, String shown) {
        return kinds(file, shown).getFirst();
    }

    /** Lines that tell a table's kind: its header, and the line above its first numbers where that is another one. */
    public static List<String> kinds(Path file, String shown) {
        return guarded(file, shown, () -> kinds(rows(file, shown, Recipe.of(""))));
    }

    private static List<String> kinds(Rows rows) {
        return kinds(rows, TableShape.of(rows, Cells.of(loosely(rows), List.of()), Recipe.of("")));
    }

    private static List<String> kinds(Rows rows, TableShape shape) {
        if (shape.first() < 0) {
            return List.of(line(rows, 0));
        }
        String header = shape.header() >= 0 ? line(rows, shape.header()) : rows.above() != null ? rows.aboveText() : "";
        String above = shape.first() > 0 ? line(rows, shape.first() - 1) : header;
        header = header.isEmpty() ? shape.width() + " columns" : header;
        return above.equals(header) || above.isEmpty() ? List.of(header) : List.of(header, above);
    }

    private static String line(Rows rows, int row) {
        String text = rows.text(row);
        return brief(text.strip().replaceAll("\\s+", " "), 400);
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
                    throw new LaneException("The table " + shown + " is larger than 1 GB; cut it into smaller files.");
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

    /** With all lines that begin as a comment does beginning with a #, whatever stood before it. */
    private static String commented(String raw) {
        StringBuilder out = null;
        int kept = 0;
        for (int line = 0; line >= 0 && line < raw.length(); ) {
            int at = line;
            while (at < raw.length() && " \t\f".indexOf(raw.charAt(at)) >= 0) {
                at++;
            }
            int mark = raw.startsWith("%", at) || raw.startsWith("#", at) ? 1 : raw.startsWith("//", at) ? 2 : 0;
            if (mark > 0 && !shares(raw, at)) {
                out = out == null ? new StringBuilder(raw.length()) : out;
                out.append(raw, kept, line).append('#');
                kept = at + mark;
            }
            int end = raw.indexOf('\n', line);
            line = end < 0 ? -1 : end + 1;
        }
        return out == null ? raw : out.append(raw, kept, raw.length()).toString();
    }

    /** Whether what begins with a percent sign is a row of units, of which the first is per cent, and no comment. */
    private static boolean shares(String raw, int at) {
        if (raw.charAt(at) != '%' || at + 1 >= raw.length()) {
            return false;
        }
        if (",;|\t".indexOf(raw.charAt(at + 1)) >= 0) {
            return true;
        }
        // Between spaces only where as many names stand above, and all of it are units.
        String[] words = line(raw, at);
        int before = raw.lastIndexOf('\n', at) - 1;
        String[] above = before < 0 ? new String[0] : line(raw, raw.lastIndexOf('\n', before) + 1);
        return words.length > 1
                && words[0].equals("%")
                && above.length == words.length
                && !above[0].matches("[%#].*|//.*")
                && Arrays.stream(words).allMatch(w -> w.equals("-") || TableShape.readable(w));
    }

    private static String[] line(String raw, int at) {
        int end = raw.indexOf('\n', at);
        return raw.substring(at, Math.min(at + 1000, end < 0 ? raw.length() : end))
                .strip()
                .split("\\s+");
    }

    private static Rows rows(byte[] bytes, Recipe recipe, String shown) {
        TableText all = TableText.of(bytes, recipe.encoding());
        if (all.noise()) {
            throw new LaneException(
                    Fault.DAMAGED,
                    "The table " + shown + " is no text: much of it is no letter of any encoding that is known; give a"
                            + " text file, or a workbook with the ending .xlsx.");
        }
        // Skipped lines become empty ones, so that line numbers stay.
        TableText file = all.skipping(recipe.skip(), shown);
        // Comments of other kinds become those that the CSV library skips; line numbers stay.
        String head = commented(file.head());
        Character said = separator(recipe.separator());
        if (said == null && !recipe.separator().isBlank()) {
            throw new LaneException("The separator \"" + recipe.separator() + "\" is not known; give one of "
                    + String.join(", ", new java.util.TreeSet<>(SEPARATORS.keySet())) + ".");
        }
        char separator = said != null
                ? said
                : Marks.separator(head.lines()
                        .filter(l -> !l.startsWith("#") && !l.isBlank())
                        .limit(Marks.LOOKED_AT)
                        .toList());
        double[] missing = Cells.marks(recipe.missing());
        PlainRows plain = missing == null ? PlainRows.none(file) : PlainRows.of(file, separator, head, missing);
        String rest = commented(plain.rest());
        if (separator == ' ') {
            // Runs of spaces part the columns; a quoted header keeps its own.
            rest = SPACES.matcher(LEADING.matcher(rest).replaceAll("")).replaceAll(" ");
        }
        var others = new RowList();
        try (var csv = de.siegmar.fastcsv.reader.CsvReader.builder()
                .fieldSeparator(separator)
                .commentStrategy(de.siegmar.fastcsv.reader.CommentStrategy.SKIP)
                .commentCharacter('#')
                .skipEmptyLines(true)
                .allowExtraFields(true)
                .allowMissingFields(true)
                .ofCsvRecord(rest)) {
            for (CsvRecord record : csv) {
                List<String> row =
                        record.getFields().stream().map(String::strip).toList();
                // A line of separators alone is as good as a blank one.
                if (separator == '|') {
                    row = barred(row);
                }
                if (row.stream().anyMatch(s -> !s.isEmpty())) {
                    others.add(row, plain.place(record.getStartingLineNumber()));
                }
            }
        } catch (IOException e) {
            throw new LaneException(
                    Fault.NOT_READ, "The table " + shown + " cannot be read: " + e.getMessage() + ".", e);
        }
        RowList rows = RowList.merged(plain.rows(), others).edged();
        if (rows.isEmpty()) {
            throw new LaneException(
                    Fault.DAMAGED, "The table " + shown + " is empty; give a file with a header and rows of numbers.");
        }
        String word = SEPARATORS.entrySet().stream()
                .filter(e -> e.getValue() == separator)
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse("comma");
        // Some programs write the header as the last comment before the numbers.
        long[] at = new long[1];
        String above = commented(head, at);
        return new Rows(
                rows,
                file.encoding(),
                word,
                "",
                List.of(),
                above == null
                        ? null
                        : headed(Marks.split(above, separator).stream()
                                .map(String::strip)
                                .toList()),
                at[0],
                all.lines(Rows.KEPT));
    }

    /** A row between bars has none before the first, and one of dashes is a rule. */
    private static List<String> barred(List<String> row) {
        List<String> inner = row.size() > 1 && row.getFirst().isEmpty() ? row.subList(1, row.size()) : row;
        return inner.stream().allMatch(s -> s.isEmpty() || s.matches(":?-{2,}:?")) ? List.of() : inner;
    }

    /** Without the word that says what follows, as in {@code columns: time speed}. */
    private static List<String> headed(List<String> words) {
        return words.size() > 1 && words.getFirst().matches("[\\p{L} ]+:") ? words.subList(1, words.size()) : words;
    }

    /** The words of the last comment before the first line that is none; null where there is none. */
    private static @Nullable String commented(String text, long[] at) {
        String last = null;
        long n = 0;
        for (String line : text.lines().limit(1000).toList()) {
            n++;
            if (line.startsWith("#")) {
                last = line.replaceFirst("^#+\\s*", "").strip();
                at[0] = n;
            } else if (!line.isBlank()) {
                break;
            }
        }
        return last;
    }

    /** The decimal mark as far as it matters for finding the rows of data. */
    private static boolean loosely(Rows rows) {
        long commas = 0;
        for (RowList.Part part : rows.cells().parts()) {
            if (part.run() != null) {
                commas += part.run().commas();
            } else if (part.one() instanceof PlainRow p) {
                commas += p.commas();
            } else {
                for (String s : part.one()) {
                    Cells.Mark m = Cells.mark(s);
                    commas += m == Cells.Mark.COMMA ? 1 : m == Cells.Mark.POINT ? -1 : 0;
                }
            }
        }
        boolean either = commas == 0
                && !rows.separator().equals("comma")
                && rows.cells().parts().stream()
                        .anyMatch(r -> r.run() != null
                                ? r.run().either()
                                : r.one() instanceof PlainRow p
                                        ? p.either()
                                        : r.one().stream().anyMatch(s -> Cells.mark(s) == Cells.Mark.EITHER));
        return commas > 0 || either;
    }

    private static Table build(
            Rows found, Recipe recipe, boolean along, String shown, Provenance.Input input, List<String> findings) {
        boolean book = !found.sheet().isBlank();
        boolean comma = recipe.decimal().isBlank()
                ? !book && loosely(found)
                : recipe.decimal().equals("comma");
        Cells cells = Cells.of(comma, recipe.missing());
        TableShape shape = TableShape.of(found, cells, recipe);
        if (shape.first() < 0) {
            throw new LaneException(
                    Fault.DAMAGED,
                    "The table " + shown + " has no row of numbers; its first line is \""
                            + brief(String.join(" ", found.cells().getFirst()), 40)
                            + "\". Give one with rows of numbers, or say in which line its data begin.");
        }
        List<RowList.Span> data = found.cells().spans(shape.data());
        if (recipe.decimal().isBlank() && !book) {
            boolean sure = Marks.comma(data, found.separator().equals("comma"), shown, findings);
            if (sure != comma) {
                return build(found, recipe.decided(sure ? "comma" : "point"), along, shown, input, findings);
            }
        }
        var head = new TableHead(found, shape, recipe, findings);
        return new TableColumns(found, shape, head, cells, data, findings)
                .table(recipe, along, comma, input, kinds(found, shape).getFirst());
    }

    static String brief(String s, int most) {
        return s.length() <= most ? s : s.substring(0, most) + "…";
    }
}
