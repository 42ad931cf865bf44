package lane.formats.vtk;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import lane.base.Parallel;
import lane.base.Work;
import lane.formats.io.Budget;
import lane.formats.io.FormatError;
import net.jpountz.lz4.LZ4Exception;
import net.jpountz.lz4.LZ4Factory;
import org.tukaani.xz.XZInputStream;

/**
 * Decodes the binary form of a data array: a header with sizes, then the numbers, plain or in packed blocks. Every size is
 * checked against what is really there before anything is allocated.
 */
final class Payload {
    /** How blocks are packed, and by how much they can shrink at most. */
    enum Packing {
        NONE(1),
        ZLIB(1032),
        LZ4(255),
        LZMA(8192);

        private final long most;

        Packing(long most) {
            this.most = most;
        }
    }

    private final ByteOrder order;
    private final boolean wideHeader;
    private final Packing packing;
    private final Budget budget;
    private final Work work;

    Payload(ByteOrder order, boolean wideHeader, Packing packing, Budget budget, Work work) {
        this.order = order;
        this.wideHeader = wideHeader;
        this.packing = packing;
        this.budget = budget;
        this.work = work;
    }

    private long header(ByteBuffer in, String what) {
        if (in.remaining() < (wideHeader ? 8 : 4)) {
            throw new FormatError(what + " is cut off before its size");
        }
        long v = wideHeader ? in.getLong() : in.getInt() & 0xffffffffL;
        if (v < 0) {
            throw new FormatError(what + " gives a negative size");
        }
        return v;
    }

    /** How many bytes of numbers the array that begins at the buffer's position says it holds. */
    long announced(ByteBuffer in, String what) {
        in.order(order);
        long first = header(in, what);
        if (packing == Packing.NONE) {
            return first;
        }
        if (first == 0) {
            return 0;
        }
        long blockSize = header(in, what);
        long lastSize = header(in, what);
        return (first - 1) * blockSize + (lastSize != 0 ? lastSize : blockSize);
    }

    /**
     * Decodes the numbers that begin at the buffer's position; what follows them is left alone.
     *
     * @param room how many numbers there can be, so that a small packed file cannot fill the memory; -1 for unknown
     */
    void decode(ByteBuffer in, Numbers out, long room, String what) {
        in.order(order);
        if (packing == Packing.NONE) {
            long bytes = header(in, what);
            if (bytes > in.remaining()) {
                throw new FormatError(
                        what + " should have " + bytes + " bytes, but the file has only " + in.remaining() + " more");
            }
            ByteBuffer data = in.slice(in.position(), (int) bytes).order(order);
            out.add(data, (int) Math.min(Integer.MAX_VALUE, bytes / out.type.bytes), bytes / out.type.bytes);
            in.position(in.position() + (int) bytes);
            return;
        }
        long blocks = header(in, what);
        if (blocks == 0) {
            return;
        }
        long blockSize = header(in, what);
        long lastSize = header(in, what);
        int width = wideHeader ? 8 : 4;
        if (blocks > in.remaining() / width) {
            throw new FormatError(what + " claims " + blocks + " compressed blocks, more than the file has room for");
        }
        long[] sizes = new long[(int) blocks];
        long sum = 0;
        for (int i = 0; i < sizes.length; i++) {
            sizes[i] = header(in, what);
            sum += sizes[i];
            if (sizes[i] > in.remaining() || sum > in.remaining()) {
                throw new FormatError(
                        what + " is cut off: its compressed blocks need more bytes than the file has left");
            }
        }
        long all = (blocks - 1) * blockSize + (lastSize != 0 ? lastSize : blockSize);
        if (room >= 0 && all > room * out.type.bytes) {
            throw new FormatError(
                    what + " unpacks to " + all + " bytes, but its piece has room for " + room + " numbers");
        }
        budget.take(all);
        // Growing to the claimed total at once is allowed only as far as the file's own size bears it out.
        long borne = Math.min(all, 4 * (sum + 1024));
        int most = (int) Math.min(Integer.MAX_VALUE, borne / out.type.bytes);
        for (int i = 0; i < sizes.length; ) {
            work.poll();
            work.progress("Unpacking " + what, (double) i / sizes.length);
            // Blocks are unpacked on all cores, some megabytes at a time, and appended in their order.
            int from = i;
            int start = in.position();
            long plain = 0;
            while (i < sizes.length && (i == from || plain < BATCH)) {
                long one = i == sizes.length - 1 && lastSize != 0 ? lastSize : blockSize;
                if (one > packing.most * sizes[i] + 64) {
                    throw new FormatError(what + " claims that " + sizes[i] + " compressed bytes hold " + one
                            + ", more than its packing can");
                }
                plain += one;
                in.position(in.position() + (int) sizes[i++]);
            }
            int[] begins = new int[i - from + 1];
            begins[0] = start;
            for (int k = 0; k < i - from; k++) {
                begins[k + 1] = begins[k] + (int) sizes[from + k];
            }
            byte[][] unpacked = new byte[i - from][];
            Parallel.forBlocks(unpacked.length, 4, (block, a, b) -> {
                for (int k = a; k < b; k++) {
                    boolean end = from + k == sizes.length - 1 && lastSize != 0;
                    ByteBuffer packed = in.slice(begins[k], begins[k + 1] - begins[k]);
                    unpacked[k] = unpack(packed, (int) (end ? lastSize : blockSize), what);
                }
            });
            for (byte[] block : unpacked) {
                out.add(ByteBuffer.wrap(block).order(order), most, all / out.type.bytes);
            }
        }
    }

    /** Unpacked bytes that are held besides the array that they go to. */
    private static final long BATCH = 4L << 20;

    private byte[] unpack(ByteBuffer packed, int plain, String what) {
        return switch (packing) {
            case LZ4 -> lz4(packed, plain, what);
            case LZMA -> lzma(packed, plain, what);
            default -> inflate(packed, plain, what);
        };
    }

    private static byte[] bytes(ByteBuffer packed) {
        byte[] in = new byte[packed.remaining()];
        packed.duplicate().get(in);
        return in;
    }

    private static byte[] lz4(ByteBuffer packed, int plain, String what) {
        byte[] out = new byte[plain];
        try {
            int n = LZ4Factory.safeInstance().safeDecompressor().decompress(bytes(packed), out);
            if (n == plain) {
                return out;
            }
        } catch (LZ4Exception e) {
            throw new FormatError(what + " has a damaged lz4 block");
        }
        throw new FormatError(what + " has an lz4 block that ends too early");
    }

    private static byte[] lzma(ByteBuffer packed, int plain, String what) {
        // The dictionary is bounded by what the block can hold, so that a header cannot ask for more.
        try (var in = new XZInputStream(new ByteArrayInputStream(bytes(packed)), 65_536 + plain / 256)) {
            byte[] out = in.readNBytes(plain);
            if (out.length == plain) {
                // Reading on to the end is also what checks the block's sum.
                if (in.read() != -1) {
                    throw new FormatError(what + " has an lzma block that holds more than it declares");
                }
                return out;
            }
        } catch (IOException e) {
            throw new FormatError(what + " has a damaged lzma block");
        }
        throw new FormatError(what + " has an lzma block that ends too early");
    }

    private static byte[] inflate(ByteBuffer packed, int plain, String what) {
        var inflater = new Inflater();
        try {
            inflater.setInput(packed);
            byte[] out = new byte[plain];
            int n = 0;
            while (n < plain) {
                int got = inflater.inflate(out, n, plain - n);
                if (got == 0) {
                    throw new FormatError(what + " has a zlib block that ends after " + n + " of " + plain + " bytes");
                }
                n += got;
            }
            // Only at its own end is the sum of a block checked: values of a damaged one look like any others.
            if (inflater.inflate(new byte[1]) != 0) {
                throw new FormatError(
                        what + " has a zlib block that holds more than the " + plain + " bytes it declares");
            }
            if (!inflater.finished() || inflater.getRemaining() != 0) {
                throw new FormatError(what + " has a zlib block that does not end where it says");
            }
            return out;
        } catch (DataFormatException e) {
            throw new FormatError(what + " has a damaged zlib block");
        } finally {
            inflater.end();
        }
    }

    /**
     * Decodes base64 text up to the first character that is none of it. Padding in the middle is taken as the end of one
     * piece and the start of the next, because sizes and data are often encoded apart.
     *
     * @return the bytes, never more than three quarters of the text
     */
    static ByteBuffer base64(byte[] text, int from, int to) {
        return base64(text, from, to, "");
    }

    /** @param whole what the text is of, when all of it must be base64; empty when it ends where something else begins */
    static ByteBuffer base64(byte[] text, int from, int to, String whole) {
        byte[] out = new byte[(int) ((to - from) * 3L / 4 + 3)];
        int n = 0;
        int bits = 0;
        int have = 0;
        int pad = 0;
        for (int i = from; i < to; i++) {
            int c = text[i];
            if (c == ' ' || c == '\n' || c == '\r' || c == '\t') {
                continue;
            }
            int v = c == '=' ? 0 : sextet(c);
            if (v < 0) {
                if (whole.isEmpty()) {
                    break;
                }
                throw new FormatError(whole + " has a character among its binary numbers that does not belong there");
            }
            if (pad > 0 && c != '=' && !whole.isEmpty()) {
                throw new FormatError(whole + " has binary numbers that end in the middle of a group");
            }
            pad += c == '=' ? 1 : 0;
            bits = bits << 6 | v;
            if (++have == 4) {
                out[n++] = (byte) (bits >> 16);
                out[n++] = (byte) (bits >> 8);
                out[n++] = (byte) bits;
                n -= Math.min(2, pad);
                bits = 0;
                have = 0;
                pad = 0;
            }
        }
        if (have > 0 && !whole.isEmpty()) {
            throw new FormatError(whole + " has binary numbers that are cut off in the middle of a group");
        }
        return ByteBuffer.wrap(out, 0, n).slice();
    }

    private static int sextet(int c) {
        if (c >= 'A' && c <= 'Z') {
            return c - 'A';
        }
        if (c >= 'a' && c <= 'z') {
            return c - 'a' + 26;
        }
        if (c >= '0' && c <= '9') {
            return c - '0' + 52;
        }
        return c == '+' ? 62 : c == '/' ? 63 : -1;
    }
}
