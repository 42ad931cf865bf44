package lane.formats.table;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import lane.base.LaneException;
import lane.base.Parallel;

/**
 * The letters of a table's file, as bytes: only what is no row of plain numbers is ever made a text of.
 *
 * @param bytes in which seven bits are a letter of their own, with line feeds between lines, before which a return may stand
 * @param from where the letters begin
 * @param before lines that stand before them and are left out
 * @param set what the bytes are read by
 * @param encoding of the file, as found or as said
 */
record TableText(byte[] bytes, int from, int before, Charset set, String encoding) {
    private static final int CHUNK = 1 << 19;
    private static final VarHandle EIGHT = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.nativeOrder());
    private static final long ONES = 0x0101010101010101L;
    private static final long HIGH = 0x8080808080808080L;

    static TableText of(byte[] bytes, String said) {
        String encoding = said.isBlank() ? encoding(bytes) : said;
        Charset set = set(bytes, encoding);
        if (encoding.equals("UTF-16") || returnsAlone(bytes)) {
            String text = new String(bytes, set);
            text = text.startsWith("\uFEFF") ? text.substring(1) : text;
            byte[] plain = text.replace("\r\n", "\n").replace('\r', '\n').getBytes(StandardCharsets.UTF_8);
            return new TableText(plain, 0, 0, StandardCharsets.UTF_8, encoding);
        }
        boolean marked = set.equals(StandardCharsets.UTF_8)
                && bytes.length >= 3
                && (bytes[0] & 0xff) == 0xef
                && (bytes[1] & 0xff) == 0xbb
                && (bytes[2] & 0xff) == 0xbf;
        return new TableText(bytes, marked ? 3 : 0, 0, set, encoding);
    }

    /**
     * Without the first lines.
     *
     * @throws LaneException where there are fewer
     */
    TableText skipping(int lines, String shown) {
        int at = from;
        for (int i = 0; i < lines; i++) {
            int end = lineEnd(at);
            if (end == bytes.length) {
                throw new LaneException(
                        "The table " + shown + " has fewer than " + lines + " lines to skip; skip fewer.");
            }
            at = end + 1;
        }
        return lines <= 0 ? this : new TableText(bytes, at, lines, set, encoding);
    }

    /** Where the line that a place is in ends: at its line feed, or at the end of all. */
    int lineEnd(int at) {
        return next(bytes, at, bytes.length, '\n');
    }

    /** Behind the whole lines that fit in so many bytes; of one that does not, behind that. */
    private int linesWithin(int most) {
        if (bytes.length - from <= most) {
            return bytes.length;
        }
        int at = from + most;
        while (at > from && bytes[at - 1] != '\n') {
            at--;
        }
        return at > from ? at : Math.min(bytes.length, lineEnd(from + most) + 1);
    }

    private String text(int begin, int end) {
        String text = new String(bytes, begin, end - begin, set);
        return text.indexOf('\r') < 0 ? text : text.replace("\r\n", "\n");
    }

    /** All of it, with as many empty lines before it as were left out. */
    String text() {
        return "\n".repeat(before) + text(from, bytes.length);
    }

    /** Its first lines: as many as tell what parts columns and decimals, with as many empty ones as were left out. */
    String head() {
        for (int room = 1 << 16; ; room = (int) Math.min(Integer.MAX_VALUE / 2, 4L * room)) {
            int end = linesWithin(room);
            String text = text(from, end);
            if (end == bytes.length || tells(text)) {
                return "\n".repeat(before) + text;
            }
        }
    }

    private static boolean tells(String text) {
        int lines = 0;
        int letters = 0;
        for (String line : (Iterable<String>) text.lines()::iterator) {
            String bare = line.strip();
            if (!bare.isEmpty() && !bare.startsWith("#") && !bare.startsWith("%") && !bare.startsWith("//")) {
                lines++;
                letters += line.length();
            }
        }
        return lines > Marks.LOOKED_AT || letters > Marks.LETTERS;
    }

    /** The first lines of the file, the ones that are left out among them. */
    List<String> lines(int most) {
        int at = Math.min(bytes.length, before == 0 ? from : 0);
        int begin = at;
        for (int i = 0; i < most && at < bytes.length; i++) {
            at = Math.min(bytes.length, lineEnd(at) + 1);
        }
        return text(begin, at).lines().limit(most).toList();
    }

    /** Where chunks of whole lines begin, and the end. */
    int[] chunks() {
        return chunks(bytes, from);
    }

    private static int[] chunks(byte[] bytes, int from) {
        var out = new ArrayList<Integer>();
        int at = from;
        while (at < bytes.length) {
            out.add(at);
            int end = bytes.length - at > CHUNK ? at + CHUNK : bytes.length;
            at = Math.min(bytes.length, next(bytes, end, bytes.length, '\n') + 1);
        }
        out.add(bytes.length);
        return out.stream().mapToInt(i -> i).toArray();
    }

    /** How many lines end in a part. */
    int lineFeeds(int begin, int end) {
        int n = 0;
        int at = begin;
        for (; at <= end - 8; at += 8) {
            // A byte of seven bits is nothing where adding all ones does not carry into its eighth.
            long x = (long) EIGHT.get(bytes, at) ^ '\n' * ONES;
            n += Long.bitCount(~((x & ~HIGH) + ~HIGH | x) & HIGH);
        }
        for (; at < end; at++) {
            n += bytes[at] == '\n' ? 1 : 0;
        }
        return n;
    }

    /** Whether a line of a part begins or ends within quotation marks. */
    boolean quotedOver(int begin, int end) {
        boolean open = false;
        boolean any = false;
        int at = begin;
        for (; at < end; at++) {
            if (!any) {
                at = next(bytes, at, end, '"');
                if (at == end) {
                    return false;
                }
                any = true;
            }
            open ^= bytes[at] == '"';
            if (bytes[at] == '\n') {
                if (open) {
                    return true;
                }
                any = false;
            }
        }
        return open;
    }

    /** The next place of a letter of seven bits; the end where there is none. */
    static int next(byte[] bytes, int begin, int end, char letter) {
        int at = begin;
        for (; at <= end - 8; at += 8) {
            long x = (long) EIGHT.get(bytes, at) ^ letter * ONES;
            if ((x - ONES & ~x & HIGH) != 0) {
                break;
            }
        }
        while (at < end && bytes[at] != letter) {
            at++;
        }
        return at;
    }

    /** Whether lines end with a return and no line feed, as was usual on some machines once. */
    private static boolean returnsAlone(byte[] bytes) {
        var alone = new AtomicBoolean();
        Parallel.forBlocks(bytes.length, CHUNK, (c, begin, end) -> {
            for (int at = next(bytes, begin, end, '\r');
                    at < end && !alone.get();
                    at = next(bytes, at + 1, end, '\r')) {
                if (at + 1 == bytes.length || bytes[at + 1] != '\n') {
                    alone.set(true);
                }
            }
        });
        return alone.get();
    }

    /** Whether among the first characters there are more that nobody writes than slip into a log. */
    boolean noise() {
        String text = text(from, Math.min(bytes.length, from + 4 * 4096));
        int looked = Math.min(text.length(), 4096);
        int odd = 0;
        for (int i = 0; i < looked; i++) {
            char c = text.charAt(i);
            odd += c < ' ' && c != '\t' && c != '\n' && c != '\f' && c != '\u001a' || c == '\uFFFD' ? 1 : 0;
        }
        return odd > 8 && odd > looked / 100;
    }

    private static boolean marked(byte[] bytes) {
        return bytes.length >= 2 && (bytes[0] & 0xff) + (bytes[1] & 0xff) == 0xff + 0xfe;
    }

    private static String encoding(byte[] bytes) {
        if (marked(bytes)
                || bytes.length >= 4
                        && bytes.length % 2 == 0
                        && (bytes[1] == 0 && bytes[3] == 0 || bytes[0] == 0 && bytes[2] == 0)) {
            return "UTF-16";
        }
        // Letters of seven bits alone are the same in all encodings of bytes; lines can be looked at one by one.
        var other = new AtomicBoolean();
        int[] begin = chunks(bytes, 0);
        Parallel.forBlocks(begin.length - 1, 1, (c, a, b) -> {
            if (!other.get() && !sevenBits(bytes, begin[c], begin[c + 1]) && !utf8(bytes, begin[c], begin[c + 1])) {
                other.set(true);
            }
        });
        return other.get() ? "Latin-1" : "UTF-8";
    }

    private static boolean sevenBits(byte[] bytes, int begin, int end) {
        int all = 0;
        for (int i = begin; i < end; i++) {
            all |= bytes[i];
        }
        return all >= 0;
    }

    private static boolean utf8(byte[] bytes, int begin, int end) {
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes, begin, end - begin));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }

    private static Charset set(byte[] bytes, String encoding) {
        return switch (encoding) {
            case "UTF-8" -> StandardCharsets.UTF_8;
            // What most spreadsheets call by this name: it has a euro and quotation marks where Latin-1 has
            // nothing.
            case "Latin-1" -> Charset.forName("windows-1252");
            case "UTF-16" ->
                marked(bytes)
                        ? StandardCharsets.UTF_16
                        : bytes.length > 1 && bytes[1] == 0 ? StandardCharsets.UTF_16LE : StandardCharsets.UTF_16BE;
            default ->
                throw new LaneException(
                        "The encoding \"" + encoding + "\" of a table is not known; give UTF-8, UTF-16 or Latin-1.");
        };
    }
}
