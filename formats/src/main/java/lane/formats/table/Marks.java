package lane.formats.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import lane.base.Fault;
import lane.base.LaneException;

/** What stands between the columns and in the numbers of a table, found out from its rows. */
final class Marks {
    /** Lines without comments that tell it. */
    static final int LOOKED_AT = 1000;
    /** Of lines with a thousand cells fewer are enough. */
    static final int LETTERS = 200_000;

    /** In this order where several would do. */
    private static final char[] SEPARATORS = {';', '\t', '|', ',', ' '};

    private static final Pattern BLANKS = Pattern.compile(" +");

    private Marks() {}

    /** The separator that yields the most numbers in lines without comments. */
    static char separator(List<String> lines) {
        List<String> some = new ArrayList<>();
        int letters = 0;
        for (String line : lines) {
            if (!line.isBlank() && some.size() < LOOKED_AT && letters < LETTERS) {
                some.add(line);
                letters += line.length();
            }
        }
        for (char c : SEPARATORS) {
            if (c != ',' && c != ' ' && alike(some, c)) {
                return c;
            }
        }
        char best = ',';
        long most = 0;
        for (char c : SEPARATORS) {
            long score = 0;
            for (String line : some) {
                score += score(line, c);
            }
            if (score > most) {
                most = score;
                best = c;
            }
        }
        return best;
    }

    /** Of ten lines, nine must be parted alike. */
    private static final int MOSTLY = 10;

    /**
     * Whether nearly all lines have as many of a separator that stands in no number and seldom in words: then it is that, also
     * where columns of words leave few numbers, and decimal commas seem to make more of them. The line above the first numbers has
     * as many where it is one of names.
     */
    private static boolean alike(List<String> lines, char separator) {
        Map<Integer, Integer> counts = new HashMap<>();
        int numbers = 0;
        // Programs end lines with a separator, or with blanks.
        boolean ended = true;
        int above = -1;
        int last = -1;
        for (String line : lines) {
            List<String> cells = split(line, separator);
            counts.merge(cells.size(), 1, Integer::sum);
            ended &= cells.getLast().isBlank();
            boolean any = cells.stream().anyMatch(c -> Cells.loose(c.strip()));
            above = any && numbers == 0 ? last : above;
            last = cells.size();
            numbers += any ? 1 : 0;
        }
        int most = counts.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse(1);
        return most > (ended ? 2 : 1)
                && lines.size() > 1
                && 2 * numbers >= lines.size()
                && (above < 0 || above == most)
                && counts.getOrDefault(most, 0) * MOSTLY >= lines.size() * (MOSTLY - 1);
    }

    /** Numbers in a line, or nothing where more of its cells are words. */
    private static int score(String line, char separator) {
        int numbers = 0;
        int words = 0;
        for (String cell : split(line, separator)) {
            String s = cell.strip();
            if (Cells.loose(s) || TimeColumn.is(s)) {
                numbers++;
            } else if (!s.isEmpty()) {
                words++;
            }
        }
        // Whole cells count, and a line in one piece tells nothing about what parts it.
        return numbers == 0 ? 0 : numbers + words > 1 ? 4 * numbers - words : 1;
    }

    /** A line at its separators outside of quotation marks. */
    static List<String> split(String line, char separator) {
        if (separator == ' ' && line.indexOf('"') < 0) {
            return List.of(BLANKS.split(line.strip()));
        }
        var out = new ArrayList<String>();
        var cell = new StringBuilder();
        boolean quoted = false;
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            if (c == '"') {
                quoted = !quoted;
            } else if (c == separator && !quoted) {
                if (separator != ' ' || !cell.isEmpty()) {
                    out.add(cell.toString());
                }
                cell.setLength(0);
            } else {
                cell.append(c);
            }
        }
        out.add(cell.toString());
        return out;
    }

    /**
     * Whether the comma is the decimal mark of rows of data.
     *
     * @param data its rows
     * @param quoted whether a comma can only stand in quotation marks, since it parts the columns
     * @param findings gets a sentence where it can be read in two ways
     * @throws LaneException where the file has both marks
     */
    static boolean comma(List<RowList.Span> data, boolean quoted, String shown, List<String> findings) {
        // The lines in which they stand first.
        long comma = -1;
        long point = -1;
        long either = -1;
        long grouped = -1;
        String[] by = new String[4];
        for (RowList.Span span : data) {
            for (int r = 0; r < span.rows(); r++) {
                PlainRun run = span.part().run();
                if (run != null
                        && known(run.commas(), comma, point)
                        && (!run.unsure() || (run.either() ? comma : grouped) >= 0)) {
                    break;
                }
                List<String> row = span.row(r);
                if (row instanceof PlainRow p
                        && known(p.commas(), comma, point)
                        && (!p.unsure() || (p.either() ? comma : grouped) >= 0)) {
                    continue;
                }
                long line = span.line(r);
                for (String cell : row) {
                    switch (Cells.mark(cell)) {
                        case COMMA -> {
                            comma = comma < 0 ? line : comma;
                            by[0] = by[0] == null ? cell : by[0];
                        }
                        case POINT -> {
                            point = point < 0 ? line : point;
                            by[1] = by[1] == null ? cell : by[1];
                        }
                        case EITHER -> {
                            either = either < 0 ? line : either;
                            by[2] = by[2] == null ? cell : by[2];
                        }
                        case NONE -> {
                            if (grouped < 0 && cell.indexOf('.') >= 0 && Cells.loose(cell)) {
                                grouped = line;
                                by[3] = cell;
                            }
                        }
                    }
                }
            }
        }
        if (comma >= 0 && point >= 0) {
            throw two(shown, by[0], comma, by[1], point);
        }
        if (comma < 0 && point < 0 && either >= 0 && grouped >= 0) {
            throw two(shown, by[2], either, by[3], grouped);
        }
        if (comma < 0 && point < 0 && either >= 0) {
            boolean read = !quoted;
            String s = by[2];
            findings.add("\"" + s + "\" in line " + either + " can be read as " + s.replace(',', '.')
                    + " or as " + s.replace(",", "") + "; it was read as "
                    + (read ? s.replace(',', '.') : s.replace(",", "")) + "; say which decimal mark the file has");
            return read;
        }
        return comma >= 0;
    }

    /** Whether what rows tell about the decimal mark is known from a line before. */
    private static boolean known(long commas, long comma, long point) {
        return commas == 0 || (commas > 0 ? comma : point) >= 0;
    }

    private static LaneException two(String shown, String comma, long line, String point, long other) {
        return new LaneException(
                Fault.DAMAGED,
                "The table " + shown + " has two decimal marks: a comma in \"" + comma + "\" in line " + line
                        + " and a point in \"" + point + "\" in line " + other
                        + "; say which one it is, or mend the file.");
    }
}
