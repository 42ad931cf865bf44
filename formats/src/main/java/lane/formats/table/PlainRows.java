package lane.formats.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import lane.base.Parallel;

/**
 * The rows of plain numbers in a text, found on all cores.
 *
 * @param rows in order
 * @param lines of each, counted from 1
 * @param rest the text with blank lines in their places
 */
record PlainRows(List<PlainRow> rows, List<Long> lines, String rest) {
    private static final int CHUNK = 1 << 19;
    private static final int LOOKED_AT = 200;
    private static final int CELLS = 5000;

    /** @param text with line feeds alone between lines, and with no comment that does not begin with a # */
    static PlainRows of(String text, char separator) {
        // Within quotation marks a line may end, and rows between bars have rules of their own.
        if (separator == '|' || text.indexOf('"') >= 0) {
            return new PlainRows(List.of(), List.of(), text);
        }
        char mark = separator != ',' && commas(text.lines(), separator) > 0 ? ',' : '.';
        int[] begin = chunks(text);
        var found = new Chunk[begin.length - 1];
        Parallel.forBlocks(found.length, 1, (c, a, b) -> {
            found[c] = new Chunk(text, begin[c], begin[c + 1], separator, mark);
            found[c].lines();
        });
        List<PlainRow> rows = new ArrayList<>();
        List<Long> lines = new ArrayList<>();
        var rest = new StringBuilder();
        long before = 0;
        for (Chunk chunk : found) {
            rows.addAll(chunk.rows);
            for (int line : chunk.places) {
                lines.add(before + line);
            }
            before += chunk.line;
            rest.append(chunk.rest);
        }
        return new PlainRows(rows, lines, rest.toString());
    }

    /** Puts the rows among others in the order of their lines. */
    void into(List<List<String>> others, List<Long> theirs) {
        if (rows.isEmpty()) {
            return;
        }
        var all = new ArrayList<List<String>>(rows.size() + others.size());
        var places = new ArrayList<Long>(rows.size() + others.size());
        int r = 0;
        for (int o = 0; o <= others.size(); o++) {
            long until = o < others.size() ? theirs.get(o) : Long.MAX_VALUE;
            while (r < rows.size() && lines.get(r) < until) {
                all.add(rows.get(r));
                places.add(lines.get(r++));
            }
            if (o < others.size()) {
                all.add(others.get(o));
                places.add(theirs.get(o));
            }
        }
        others.clear();
        others.addAll(all);
        theirs.clear();
        theirs.addAll(places);
    }

    private static int commas(Stream<String> lines, char separator) {
        return lines.filter(l -> !l.isBlank() && !l.startsWith("#"))
                .limit(LOOKED_AT)
                .flatMap(l -> Marks.split(l, separator).stream())
                .limit(CELLS)
                .mapToInt(s -> switch (Cells.mark(s.strip())) {
                    case COMMA -> 1;
                    case POINT -> -1;
                    case NONE, EITHER -> 0;
                })
                .sum();
    }

    /** Where chunks of whole lines begin, and the end. */
    private static int[] chunks(String text) {
        var out = new ArrayList<Integer>();
        int at = 0;
        while (at < text.length()) {
            out.add(at);
            int end = text.length() - at > CHUNK ? text.indexOf('\n', at + CHUNK) : -1;
            at = end < 0 ? text.length() : end + 1;
        }
        out.add(text.length());
        return out.stream().mapToInt(i -> i).toArray();
    }

    /** What is found in some lines by one thread. */
    private static final class Chunk {
        private final String text;
        /** Where in it the chunk begins. */
        private final int start;
        /** The chunk's letters, which are looked at many times. */
        private final char[] letters;

        private final char separator;
        private final char mark;
        private final Digits digits = new Digits();
        final List<PlainRow> rows = new ArrayList<>();
        final List<Integer> places = new ArrayList<>();
        final StringBuilder rest = new StringBuilder();
        int line;

        private double[] values = new double[64];
        private int n;
        private int sure;
        private int unsure;

        Chunk(String text, int from, int to, char separator, char mark) {
            this.text = text;
            start = from;
            letters = new char[to - from];
            text.getChars(from, to, letters, 0);
            this.separator = separator;
            this.mark = mark;
        }

        void lines() {
            int at = 0;
            while (at < letters.length) {
                int end = at;
                while (end < letters.length && letters[end] != '\n') {
                    end++;
                }
                line++;
                if (plain(at, end)) {
                    double[] own = Arrays.copyOf(values, n);
                    rows.add(new PlainRow(text, start + at, start + end, separator, mark, own, sure, unsure));
                    places.add(line);
                } else {
                    rest.append(letters, at, end - at);
                }
                rest.append('\n');
                at = end + 1;
            }
        }

        /** Reads a line; false where it is no row of plain numbers and blanks. */
        private boolean plain(int from, int to) {
            n = 0;
            sure = 0;
            unsure = 0;
            int numbers = 0;
            int at = separator == ' ' ? skip(from, to) : from;
            while (at <= to) {
                int end = blanks(at, to);
                if (n == values.length) {
                    values = Arrays.copyOf(values, 2 * n);
                }
                if (end == to || letters[end] == separator) {
                    values[n++] = Double.NaN;
                } else {
                    end = number(end, to);
                    if (end < 0) {
                        return false;
                    }
                    values[n++] = digits.value();
                    numbers++;
                    end = blanks(end, to);
                    if (end < to && letters[end] != separator) {
                        return false;
                    }
                }
                at = separator == ' ' && end < to ? skip(end, to) : end + 1;
            }
            return numbers > 0;
        }

        /** Of commas only those are plain that can be nothing but the decimal mark. Returns where it ends; -1 where it is none. */
        private int number(int from, int to) {
            int end = digits.take(letters, from, to, mark);
            if (end < 0) {
                return -1;
            }
            boolean surely = digits.surelyDecimal();
            sure += surely ? 1 : 0;
            unsure += !surely && digits.marked() ? 1 : 0;
            return surely || !digits.marked() || mark == '.' ? end : -1;
        }

        /** Behind blanks that part nothing. */
        private int blanks(int from, int to) {
            int i = from;
            while (i < to && (letters[i] == ' ' || letters[i] == '\t') && letters[i] != separator) {
                i++;
            }
            return i;
        }

        private int skip(int from, int to) {
            int i = from;
            while (i < to && letters[i] == ' ') {
                i++;
            }
            return i;
        }
    }
}
