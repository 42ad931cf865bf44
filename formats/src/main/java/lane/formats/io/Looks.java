package lane.formats.io;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteOrder;

/**
 * What bytes look like, to tell whether those of the next time are the same: 128 bits, found about as fast as memory is read. It
 * proves nothing against who wants to deceive, for which there is {@link FileHash}. Two runs of the published XXH64 with
 * different seeds; the library of it that is at hand reads one byte at a time, or by what Java takes away.
 */
public final class Looks {
    private static final long P1 = 0x9E3779B185EBCA87L;
    private static final long P2 = 0xC2B2AE3D27D4EB4FL;
    private static final long P3 = 0x165667B19E3779F9L;
    private static final long P4 = 0x85EBCA77C2B2AE63L;
    private static final long P5 = 0x27D4EB2F165667C5L;
    private static final ValueLayout.OfLong LONG = ValueLayout.JAVA_LONG_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);
    private static final ValueLayout.OfInt INT = ValueLayout.JAVA_INT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);

    private Looks() {}

    /** Two numbers that are equal for equal bytes. */
    public record Of(long first, long second) {}

    /** Both in one go: what is mapped is looked up in memory once. */
    public static Of of(MemorySegment bytes) {
        return of(bytes, 0, P3);
    }

    private static Of of(MemorySegment bytes, long first, long second) {
        long n = bytes.byteSize();
        long a = first + P1 + P2;
        long b = first + P2;
        long c = first;
        long d = first - P1;
        long e = second + P1 + P2;
        long f = second + P2;
        long g = second;
        long h = second - P1;
        long at = 0;
        for (; at <= n - 32; at += 32) {
            long v = bytes.get(LONG, at);
            long w = bytes.get(LONG, at + 8);
            long x = bytes.get(LONG, at + 16);
            long y = bytes.get(LONG, at + 24);
            a = round(a, v);
            b = round(b, w);
            c = round(c, x);
            d = round(d, y);
            e = round(e, v);
            f = round(f, w);
            g = round(g, x);
            h = round(h, y);
        }
        return new Of(
                rest(bytes, at, n < 32 ? first + P5 : joined(a, b, c, d)),
                rest(bytes, at, n < 32 ? second + P5 : joined(e, f, g, h)));
    }

    private static long round(long sum, long input) {
        return Long.rotateLeft(sum + input * P2, 31) * P1;
    }

    private static long joined(long a, long b, long c, long d) {
        long h = Long.rotateLeft(a, 1) + Long.rotateLeft(b, 7) + Long.rotateLeft(c, 12) + Long.rotateLeft(d, 18);
        h = (h ^ round(0, a)) * P1 + P4;
        h = (h ^ round(0, b)) * P1 + P4;
        h = (h ^ round(0, c)) * P1 + P4;
        return (h ^ round(0, d)) * P1 + P4;
    }

    /** With what is left of the bytes, less than a block. */
    private static long rest(MemorySegment bytes, long from, long joined) {
        long n = bytes.byteSize();
        long at = from;
        long h = joined;
        h += n;
        for (; at + 8 <= n; at += 8) {
            h = Long.rotateLeft(h ^ round(0, bytes.get(LONG, at)), 27) * P1 + P4;
        }
        if (at + 4 <= n) {
            h = Long.rotateLeft(h ^ (bytes.get(INT, at) & 0xffffffffL) * P1, 23) * P2 + P3;
            at += 4;
        }
        for (; at < n; at++) {
            h = Long.rotateLeft(h ^ (bytes.get(ValueLayout.JAVA_BYTE, at) & 0xffL) * P5, 11) * P1;
        }
        h = (h ^ h >>> 33) * P2;
        h = (h ^ h >>> 29) * P3;
        return h ^ h >>> 32;
    }
}
