package lane.formats.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.reference.Recipe;

/** Names and units of a table's columns. */
final class TableHead {
    private static final Pattern UNIT =
            Pattern.compile("^(.*?)\\s*[\\[(]([^\\[\\]()]*(?:\\([^()]*\\)[^\\[\\]()]*)*)[\\])]\\s*$");
    /** A quantity by its unit, as in {@code T / K}; a name and its unit behind a comma; {@code x in mm}. */
    private static final Pattern BEHIND = Pattern.compile("^(.*\\S)(?:\\s+/\\s+|\\s*,\\s+|\\s+in\\s+)(\\S{1,12})$");

    final List<String> names = new ArrayList<>();
    final List<String> units = new ArrayList<>();
    /** The line of the header; 0 for none. */
    final long line;
    /** Whether it is a comment. */
    final boolean commented;

    TableHead(Rows rows, TableShape shape, Recipe recipe, List<String> findings) {
        List<String> above = rows.above();
        commented = shape.header() < 0
                && recipe.headers() != 0
                && recipe.lines().header() >= 0
                && above != null
                && shape.width() > 1
                && above.size() == shape.width();
        line = commented
                ? rows.aboveLine()
                : shape.header() < 0 ? 0 : rows.cells().line(shape.header());
        List<String> header = commented && above != null ? above : row(rows, shape.header());
        List<String> group = spread(row(rows, shape.group()), header);
        List<String> unitRow = row(rows, shape.units());
        if (line == 0 && recipe.headers() != 0 && recipe.lines().header() >= 0) {
            findings.add("no line of names stands above the first data in line "
                    + rows.cells().line(shape.first()) + "; columns are numbered");
        }
        if (shape.units() >= 0
                && recipe.headers() < 0
                && recipe.lines().units() == 0
                && unitRow.stream().allMatch(u -> u.isEmpty() || u.matches("\\p{L}"))) {
            findings.add("line " + rows.cells().line(shape.units()) + " was taken for units ("
                    + String.join(
                            ", ", unitRow.stream().filter(u -> !u.isEmpty()).toList())
                    + "); if these are names, say so");
        }
        int width = Math.max(shape.width(), rows.sheet().isBlank() ? 0 : header.size());
        int unnamed = 0;
        for (int c = 0; c < width; c++) {
            String upper = cell(group, c);
            String name = (upper + " " + cell(header, c)).strip();
            String unit = shape.units() < 0 ? "" : TableShape.bare(cell(unitRow, c));
            if (!unit.isEmpty() && !unit.equals("-") && !unit.equals("--") && !TableShape.readable(unit)) {
                findings.add("\"" + TableReader.brief(unit, 30) + "\" under \"" + TableReader.brief(name, 40)
                        + "\" is no unit that is known");
            }
            unit = unit.equals("-") || unit.equals("--") ? "1" : TableShape.readable(unit) ? unit : "";
            if (shape.units() < 0) {
                Matcher m = UNIT.matcher(name);
                Matcher behind = BEHIND.matcher(name);
                if (m.matches() && m.group(2).strip().equals("-")) {
                    name = m.group(1);
                    unit = "1";
                } else if (m.matches() && TableShape.readable(m.group(2))) {
                    name = m.group(1);
                    unit = m.group(2);
                } else if (behind.matches() && meant(behind.group(2))) {
                    findings.add(
                            "the unit of \"" + TableReader.brief(name, 40) + "\" was taken to be " + behind.group(2));
                    name = behind.group(1);
                    unit = behind.group(2);
                }
            }
            unnamed += name.isEmpty() ? 1 : 0;
            name = name.isEmpty() ? "column " + (c + 1) : name;
            String unique = name;
            for (int n = 2; names.contains(unique); n++) {
                unique = name + " " + n;
            }
            names.add(unique);
            Recipe.Column said = recipe.column(unique);
            units.add(said.unit().isBlank() ? unit : said.unit());
        }
        if (line > 0 && unnamed > 0) {
            findings.add("the header in line " + line + " names " + (width - unnamed) + " of " + width + " columns");
        }
    }

    static Optional<TableReader.Named> named(String words) {
        Matcher m = UNIT.matcher(words);
        return m.matches() && TableShape.readable(m.group(2))
                ? Optional.of(new TableReader.Named(m.group(1), m.group(2)))
                : Optional.empty();
    }

    private static List<String> row(Rows rows, int i) {
        return i < 0 ? List.of() : rows.cells().get(i);
    }

    private static String cell(List<String> row, int c) {
        return c < row.size() ? row.get(c) : "";
    }

    /** A name over several columns holds until the next one, where there is something beneath it. */
    private static List<String> spread(List<String> group, List<String> header) {
        List<String> out = new ArrayList<>();
        String last = "";
        for (int c = 0; c < Math.max(group.size(), group.isEmpty() ? 0 : header.size()); c++) {
            last = cell(group, c).isEmpty() ? last : cell(group, c);
            out.add(!cell(group, c).isEmpty() || !cell(header, c).isEmpty() ? last : "");
        }
        return out;
    }

    /** Whether a word behind a name is its unit: single letters are more often something else, but for these. */
    private static boolean meant(String word) {
        return TableShape.readable(word) && (word.length() > 1 || "KmsNWJVA%1".contains(word));
    }
}
