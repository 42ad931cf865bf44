package lane.formats.table;

import java.io.IOException;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Function;
import java.util.stream.IntStream;
import lane.base.Parallel;
import lane.base.Work;
import lane.provenance.Provenance;
import lane.reference.Recipe;
import lane.reference.Table;
import org.jspecify.annotations.Nullable;

/**
 * Some columns of a long log, looked up before all of it is read and proved, which takes many times as long: what somebody waits
 * for. Only of a file as regular as nearly all long logs are: each line has as many cells as the first row, and in the columns
 * that are asked for a number or what stands for a missing one. Where it is not, there is no first look.
 */
public final class FirstLook {
    private static final int SLICE = 1 << 19;
    private static final int HEAD = 1 << 20;
    /** Most lines end within so many bytes of the next slice. */
    private static final int MORE = 1 << 14;

    private static final VarHandle EIGHT = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final long ONES = 0x0101010101010101L;
    private static final long HIGH = 0x8080808080808080L;

    private final FileChannel in;
    /** Where the rows begin and the file ends. */
    private final long begin;

    private final long end;
    private final char separator;
    private final char mark;
    private final Cells cells;
    private final double[] missing;
    /** Places of the columns that are asked for, in their order in the file. */
    private final int[] places;
    /** Which of them hold dates or times. */
    private final boolean[] timed;
    /** Separators of each line. */
    private int parted;

    private final AtomicBoolean irregular = new AtomicBoolean();
    /** Memory that was touched costs less than new one: as many as threads. */
    private final Queue<byte[]> buffers = new ConcurrentLinkedQueue<>();

    private FirstLook(
            FileChannel in,
            long begin,
            long end,
            char separator,
            boolean comma,
            List<String> missing,
            double[] numbers,
            int[] places) {
        this.in = in;
        this.begin = begin;
        this.end = end;
        this.separator = separator;
        mark = comma ? ',' : '.';
        cells = Cells.of(comma, missing);
        this.missing = numbers;
        this.places = places;
        timed = new boolean[places.length];
    }

    /**
     * The columns alone, as {@link TableReader} reads them; their file's hash is not known.
     *
     * @param shown the path as the trail names it
     * @param recipe chooses how it is read, from the lines that tell its kind
     * @param columns their names
     * @return empty where the lines are not regular
     */
    public static Optional<Table> of(
            Path file, String shown, Function<List<String>, Recipe> recipe, Set<String> columns, Work work) {
        var chosen = new Recipe[1];
        Table head = TableReader.start(file, shown, kinds -> chosen[0] = recipe.apply(kinds));
        Character separator = TableReader.separator(head.layout().separator());
        double[] missing = Cells.marks(chosen[0].missing());
        boolean one = Set.copyOf(head.headers()).size() == head.headers().size();
        if (separator == null
                || separator == '|'
                || missing == null
                || !one
                || !chosen[0].lines().equals(Recipe.Lines.FOUND)
                || !head.headers().containsAll(columns)
                || !head.found().dropped().isEmpty()
                || head.layout().encoding().equals("UTF-16")) {
            return Optional.empty();
        }
        // A sum beneath the rows has a word in their first column, where they have numbers.
        IntStream first =
                Arrays.stream(head.columns().getFirst()).noneMatch(Double::isNaN) ? IntStream.of(0) : IntStream.empty();
        int[] places = IntStream.concat(first, columns.stream().mapToInt(head.headers()::indexOf))
                .sorted()
                .distinct()
                .toArray();
        try (FileChannel in = FileChannel.open(file)) {
            long begin = line(in, head.layout().places().firstData());
            if (begin < 0) {
                return Optional.empty();
            }
            boolean comma = head.layout().decimal().equals("comma");
            List<String> none = chosen[0].missing();
            var look = new FirstLook(in, begin, in.size(), separator, comma, none, missing, places);
            double[][] found = look.columns(work);
            return found == null || !look.alike(head, found)
                    ? Optional.empty()
                    : Optional.of(look.table(head, found, shown));
        } catch (IOException e) {
            // Whoever reads all of it meets the same.
            return Optional.empty();
        }
    }

    /** Where a line begins, counted from 1, within what is looked at first; -1 where it does not. */
    private static long line(FileChannel in, long line) throws IOException {
        byte[] first = new byte[HEAD];
        int n = fill(in, first, 0, 0, HEAD);
        int at = 0;
        for (long l = 1; l < line; l++) {
            at = TableText.next(first, at, n, '\n') + 1;
            if (at >= n) {
                return -1;
            }
        }
        return line < 1 ? -1 : at;
    }

    private static int fill(FileChannel in, byte[] to, int at, long from, int most) throws IOException {
        ByteBuffer part = ByteBuffer.wrap(to, at, most);
        while (part.hasRemaining() && in.read(part, from + part.position() - at) >= 0) {
            // It may give less than there is room for.
        }
        return part.position() - at;
    }

    /** The columns row by row; null where a line is not regular. */
    private double @Nullable [][] columns(Work work) throws IOException {
        if (!first()) {
            return null;
        }
        int n = Math.toIntExact((end - begin + SLICE - 1) / SLICE);
        var found = new Slice[n];
        Parallel.forBlocks(n, 1, (b, i, to) -> {
            work.poll();
            if (!irregular.get()) {
                found[i] = new Slice();
                found[i].read(begin + (long) i * SLICE);
            }
        });
        if (irregular.get()) {
            return null;
        }
        double[][] out = new double[places.length][];
        int rows = Arrays.stream(found).mapToInt(s -> s.rows).sum();
        for (int c = 0; c < places.length; c++) {
            if (timed[c] && !times(found, c)) {
                return null;
            }
        }
        Parallel.forBlocks(places.length, 1, (b, c, to) -> {
            out[c] = new double[rows];
            int at = 0;
            for (Slice s : found) {
                System.arraycopy(s.values[c], 0, out[c], at, s.rows);
                at += s.rows;
            }
        });
        return rows == 0 ? null : out;
    }

    /** What stands in a column of dates and times becomes numbers; false where that takes more than its own words. */
    private boolean times(Slice[] found, int c) {
        List<String> all = new ArrayList<>();
        for (Slice s : found) {
            all.addAll(s.words.get(c));
        }
        double[] seconds = TimeColumn.of("", TimeColumn.Stamps.of(all), cells)
                .filter(t -> t.others() == 0)
                .map(TimeColumn::seconds)
                .orElse(null);
        int at = 0;
        for (Slice s : found) {
            if (seconds != null) {
                System.arraycopy(seconds, at, s.values[c], 0, s.rows);
            }
            at += s.rows;
        }
        return seconds != null;
    }

    /** How the first row is parted is how all are. */
    private boolean first() throws IOException {
        byte[] some = new byte[HEAD];
        int n = fill(in, some, 0, begin, (int) Math.min(HEAD, end - begin));
        int feed = TableText.next(some, 0, n, '\n');
        if (feed == n) {
            return false;
        }
        int to = lineEnd(some, 0, feed);
        parted = separators(some, 0, to);
        String line = new String(some, 0, to, StandardCharsets.ISO_8859_1);
        List<String> row = Marks.split(line, separator);
        for (int c = 0; c < places.length && places[places.length - 1] < row.size(); c++) {
            timed[c] = TimeColumn.is(row.get(places[c]).strip());
        }
        return parted >= places[places.length - 1];
    }

    /** Without a return and, where blanks part the columns, the blanks before it. */
    private int lineEnd(byte[] s, int from, int feed) {
        int to = feed > from && s[feed - 1] == '\r' ? feed - 1 : feed;
        while (separator == ' ' && to > from && s[to - 1] == ' ') {
            to--;
        }
        return to;
    }

    /** How many separators stand in a line: of blanks each run, but not what the line begins with. */
    private int separators(byte[] s, int from, int to) {
        int n = 0;
        if (separator == ' ') {
            for (int i = blanks(s, from, to); i < to; i++) {
                n += s[i] == ' ' && s[i - 1] != ' ' ? 1 : 0;
            }
            return n;
        }
        int at = from;
        for (; at <= to - 8; at += 8) {
            n += Long.bitCount(hits((long) EIGHT.get(s, at)));
        }
        for (; at < to; at++) {
            n += s[at] == separator ? 1 : 0;
        }
        return n;
    }

    /** The highest bit of each of eight bytes that is a separator: adding all ones does not carry into it. */
    private long hits(long eight) {
        long x = eight ^ separator * ONES;
        return ~((x & ~HIGH) + ~HIGH | x) & HIGH;
    }

    /** The same of ends of lines; behind the first there may be others that are none. */
    private static long feeds(long eight) {
        long y = eight ^ '\n' * ONES;
        return y - ONES & ~y & HIGH;
    }

    private static int blanks(byte[] s, int from, int to) {
        int at = from;
        while (at < to && s[at] == ' ') {
            at++;
        }
        return at;
    }

    /** The lines that begin in a part of the file. */
    private final class Slice {
        private final Digits digits = new Digits();
        private double[][] values = new double[places.length][0];
        /** Of the columns of dates and times, as they stand there. */
        private final List<List<String>> words = IntStream.range(0, places.length)
                .<List<String>>mapToObj(c -> new ArrayList<>())
                .toList();

        private int rows;
        /** Where the cells that are asked for begin in the line that was gone through last, and where it ends. */
        private final int[] starts = new int[places.length];

        private int feed;
        /** How many separators stand in it. */
        private int counted;

        void read(long from) {
            byte[] s = buffers.poll();
            s = s == null ? new byte[SLICE + 1 + MORE] : s;
            try {
                // The byte before tells whether a line begins here.
                long at = from == begin ? from : from - 1;
                int own = (int) (Math.min(end, from + SLICE) - at);
                int n = fill(in, s, 0, at, (int) Math.min(own + MORE, end - at));
                int line = from == begin ? 0 : TableText.next(s, 0, n, '\n') + 1;
                while (line < own && !irregular.get()) {
                    scan(s, line, n);
                    while (feed == n && at + n < end) {
                        s = Arrays.copyOf(s, 2 * s.length);
                        int more = fill(in, s, n, at + n, (int) Math.min(s.length - n, end - at - n));
                        if (more == 0) {
                            // It was cut short meanwhile.
                            irregular.set(true);
                            return;
                        }
                        n += more;
                        scan(s, line, n);
                    }
                    int to = lineEnd(s, line, feed);
                    if (to > line || at + feed + 1 < end) {
                        row(s, line, to);
                    }
                    line = feed + 1;
                }
            } catch (IOException e) {
                irregular.set(true);
            } finally {
                buffers.add(s);
            }
        }

        /** Goes through a line, once. */
        private void scan(byte[] s, int from, int n) {
            if (separator == ' ') {
                feed = TableText.next(s, from, n, '\n');
                blank(s, from, lineEnd(s, from, feed));
                return;
            }
            feed = -1;
            counted = 0;
            int at = from;
            for (int c = 0; c < places.length; c++) {
                at = feed < 0 ? on(s, at, n, places[c] - counted) : at;
                starts[c] = at;
            }
            if (feed < 0) {
                on(s, at, n, Integer.MAX_VALUE);
            }
        }

        /** Behind so many more separators, or to the end of a line that has fewer. */
        private int on(byte[] s, int from, int n, int separators) {
            int at = from;
            int left = separators;
            for (; left > 32 && at <= n - 32; at += 32) {
                long a = (long) EIGHT.get(s, at);
                long b = (long) EIGHT.get(s, at + 8);
                long c = (long) EIGHT.get(s, at + 16);
                long d = (long) EIGHT.get(s, at + 24);
                if ((feeds(a) | feeds(b) | feeds(c) | feeds(d)) != 0) {
                    break;
                }
                // One bit of each of four bytes side by side.
                left -= Long.bitCount(hits(a) | hits(b) >>> 1 | hits(c) >>> 2 | hits(d) >>> 3);
            }
            for (; left > 0 && at <= n - 8; at += 8) {
                long eight = (long) EIGHT.get(s, at);
                long feeds = feeds(eight);
                long all = hits(eight);
                int bit = Long.numberOfTrailingZeros(feeds);
                long hits = feeds == 0 ? all : all & (1L << bit) - 1;
                int here = Long.bitCount(hits);
                if (here >= left) {
                    for (; left > 1; left--) {
                        hits &= hits - 1;
                    }
                    counted += separators;
                    return at + Long.numberOfTrailingZeros(hits) / 8 + 1;
                }
                left -= here;
                if (feeds != 0) {
                    feed = at + bit / 8;
                    counted += separators - left;
                    return feed;
                }
            }
            for (; left > 0 && at < n && s[at] != '\n'; at++) {
                left -= s[at] == separator ? 1 : 0;
            }
            counted += separators - left;
            if (left > 0) {
                feed = at;
            }
            return at;
        }

        /** The same where blanks part the columns. */
        private void blank(byte[] s, int from, int to) {
            int at = blanks(s, from, to);
            int c = 0;
            counted = 0;
            while (true) {
                for (; c < places.length && places[c] == counted; c++) {
                    starts[c] = at;
                }
                while (at < to && s[at] != ' ') {
                    at++;
                }
                if (at == to) {
                    return;
                }
                at = blanks(s, at, to);
                counted++;
            }
        }

        private void row(byte[] s, int from, int to) {
            boolean comment = from < to && (s[from] == '#' || s[from] == '%' || s[from] == '/');
            if (comment || counted != parted) {
                irregular.set(true);
                return;
            }
            if (rows == values[0].length) {
                // Most likely the other lines are as long.
                int room = rows == 0 ? SLICE / (to + 1 - from) + 16 : 2 * rows;
                values = Arrays.stream(values).map(v -> Arrays.copyOf(v, room)).toArray(double[][]::new);
            }
            boolean any = false;
            for (int c = 0; c < places.length; c++) {
                if (timed[c]) {
                    String word = word(s, starts[c], to);
                    words.get(c).add(word);
                    any |= !word.isEmpty();
                    continue;
                }
                double v = number(s, starts[c], to);
                values[c][rows] = v;
                any |= !Double.isNaN(v);
            }
            // A line in which nothing stands may be none.
            if (!any) {
                irregular.set(true);
            }
            rows++;
        }

        private String word(byte[] s, int from, int to) {
            int stop = from;
            while (stop < to && s[stop] != separator) {
                stop++;
            }
            return new String(s, from, stop - from, StandardCharsets.ISO_8859_1).strip();
        }

        /** The number of a cell; NaN where none stands there. */
        private double number(byte[] s, int from, int to) {
            int stop = from;
            while (stop < to && s[stop] != separator) {
                stop++;
            }
            int first = from;
            while (first < stop && (s[first] == ' ' || s[first] == '\t')) {
                first++;
            }
            while (stop > first && (s[stop - 1] == ' ' || s[stop - 1] == '\t')) {
                stop--;
            }
            if (first == stop) {
                return Double.NaN;
            }
            if (digits.take(s, first, stop, mark) == stop) {
                double v = digits.value();
                for (double none : missing) {
                    if (v == none) {
                        return Double.NaN;
                    }
                }
                return v;
            }
            if (!cells.missing(new String(s, first, stop - first, StandardCharsets.ISO_8859_1))) {
                irregular.set(true);
            }
            return Double.NaN;
        }
    }

    /** Whether the first rows are what the reader of all reads of them. */
    private boolean alike(Table head, double[][] found) {
        for (int c = 0; c < places.length; c++) {
            double[] known = head.columns().get(places[c]);
            int n = Math.min(known.length, found[c].length);
            if (Arrays.mismatch(known, 0, n, found[c], 0, n) >= 0) {
                return false;
            }
        }
        return true;
    }

    private Table table(Table head, double[][] found, String shown) {
        List<String> headers = new ArrayList<>();
        List<String> units = new ArrayList<>();
        List<Recipe.Role> roles = new ArrayList<>();
        for (int place : places) {
            headers.add(head.headers().get(place));
            units.add(head.units().get(place));
            roles.add(head.roles().get(place));
        }
        return new Table(
                headers,
                units,
                roles,
                List.of(found),
                head.layout(),
                Table.Found.NOTHING,
                new Provenance.Input(shown, "", end));
    }
}
