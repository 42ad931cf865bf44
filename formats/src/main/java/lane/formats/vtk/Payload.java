package lane.formats.vtk;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import lane.base.Work;

/**
 * Decodes the binary form of a data array: a header with sizes, then the numbers, plain or in zlib blocks. Every size is
 * checked against what is really there before anything is allocated.
 */
final class Payload {
    /** No zlib stream can shrink data by more than this. */
    private static final long MOST_DEFLATED = 1032;

    private final ByteOrder order;
    private final boolean wideHeader;
    private final boolean zlib;
    private final Work work;

    Payload(ByteOrder order, boolean wideHeader, boolean zlib, Work work) {
        this.order = order;
        this.wideHeader = wideHeader;
        this.zlib = zlib;
        this.work = work;
    }

    private long header(ByteBuffer in, String what) {
        if (in.remaining() < (wideHeader ? 8 : 4)) {
            throw new VtkError(what + " is cut off before its size");
        }
        long v = wideHeader ? in.getLong() : in.getInt() & 0xffffffffL;
        if (v < 0) {
            throw new VtkError(what + " gives a negative size");
        }
        return v;
    }

    /** Decodes the numbers that begin at the buffer's position; what follows them is left alone. */
    void decode(ByteBuffer in, Numbers out, String what) {
        in.order(order);
        if (!zlib) {
            long bytes = header(in, what);
            if (bytes > in.remaining()) {
                throw new VtkError(
                        what + " should have " + bytes + " bytes, but the file has only " + in.remaining() + " more");
            }
            ByteBuffer data = in.slice(in.position(), (int) bytes).order(order);
            out.add(data, (int) Math.min(Integer.MAX_VALUE, bytes / out.type.bytes));
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
            throw new VtkError(what + " claims " + blocks + " compressed blocks, more than the file has room for");
        }
        long[] sizes = new long[(int) blocks];
        long sum = 0;
        for (int i = 0; i < sizes.length; i++) {
            sizes[i] = header(in, what);
            sum += sizes[i];
            if (sizes[i] > in.remaining() || sum > in.remaining()) {
                throw new VtkError(what + " is cut off: its compressed blocks need more bytes than the file has left");
            }
        }
        for (int i = 0; i < sizes.length; i++) {
            work.poll();
            long plain = i == sizes.length - 1 && lastSize != 0 ? lastSize : blockSize;
            if (plain > MOST_DEFLATED * sizes[i] + 64) {
                throw new VtkError(
                        what + " claims that " + sizes[i] + " compressed bytes hold " + plain + ", more than zlib can");
            }
            byte[] block = inflate(in.slice(in.position(), (int) sizes[i]), (int) plain, what);
            in.position(in.position() + (int) sizes[i]);
            long all = (blocks - 1) * blockSize + (lastSize != 0 ? lastSize : blockSize);
            // Growing to the claimed total at once is allowed only as far as the file's own size bears it out.
            long borne = Math.min(all, 4 * (sum + 1024));
            out.add(ByteBuffer.wrap(block).order(order), (int) Math.min(Integer.MAX_VALUE, borne / out.type.bytes));
        }
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
                    throw new VtkError(what + " has a zlib block that ends after " + n + " of " + plain + " bytes");
                }
                n += got;
            }
            return out;
        } catch (DataFormatException e) {
            throw new VtkError(what + " has a damaged zlib block");
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
                break;
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
