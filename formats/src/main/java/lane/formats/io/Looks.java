package lane.formats.io;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteOrder;

/**
 * What bytes look like, to tell whether those of the next time are the same: 64 bits, found about as fast as memory is read. Two
 * that differ look the same once in 2^64, and nothing is proved against who wants to deceive, for which there is
 * {@link FileHash}. It is the published XXH64; the library of it that is at hand reads one byte at a time, or by what Java takes
 * away.
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

    /** A number that is equal for equal bytes. */
    public static long of(MemorySegment bytes) {
        return of(bytes, 0);
    }

    private static long of(MemorySegment bytes, long seed) {
        long n = bytes.byteSize();
        if (n < 32) {
            return rest(bytes, 0, seed + P5);
        }
        long a = seed + P1 + P2;
        long b = seed + P2;
        long c = seed;
        long d = seed - P1;
        long at = 0;
        for (; at <= n - 32; at += 32) {
            a = round(a, bytes.get(LONG, at));
            b = round(b, bytes.get(LONG, at + 8));
            c = round(c, bytes.get(LONG, at + 16));
            d = round(d, bytes.get(LONG, at + 24));
        }
        return rest(bytes, at, joined(a, b, c, d));
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
