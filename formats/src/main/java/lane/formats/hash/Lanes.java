package lane.formats.hash;

import static jdk.incubator.vector.VectorOperators.LSHR;
import static jdk.incubator.vector.VectorOperators.REVERSE_BYTES;
import static jdk.incubator.vector.VectorOperators.ROR;
import static jdk.incubator.vector.VectorOperators.XOR;

import java.lang.foreign.MemorySegment;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.HexFormat;
import jdk.incubator.vector.IntVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * SHA-256 (FIPS 180-4) of as many messages as a vector has lanes, a block of each at a time. Java's vectors are still being tried
 * out: only a program that was started with their module may load this. For machines whose words begin with the last byte.
 */
final class Lanes {
    /** Bytes in a block. */
    static final int BLOCK = 64;

    private static final VectorSpecies<Integer> SPECIES = IntVector.SPECIES_PREFERRED;
    /** How many messages there are. */
    static final int COUNT = SPECIES.length();

    private static final VarHandle WORD = MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.BIG_ENDIAN);
    private static final int WORDS = 16;
    private static final int ROUNDS = 64;
    /** The first 32 bits of the fractions of the square roots of the first eight primes. */
    private static final int[] START = new int[8];
    /** Those of the cube roots of the first sixty-four. */
    private static final int[] ROUND = new int[ROUNDS];

    static {
        int n = 0;
        for (int p = 2; n < ROUNDS; p++) {
            int prime = p;
            if (java.util.stream.IntStream.range(2, p).allMatch(d -> prime % d != 0)) {
                if (n < START.length) {
                    START[n] = fraction(Math.sqrt(p));
                }
                ROUND[n++] = fraction(Math.cbrt(p));
            }
        }
    }

    /** For each stage of turning squares over, from which of two rows, one after the other, each place of the two is taken. */
    private static final int[] UPPER = new int[COUNT * Integer.numberOfTrailingZeros(COUNT)];

    private static final int[] LOWER = new int[UPPER.length];

    static {
        for (int size = 1, at = 0; size < COUNT; size *= 2) {
            for (int k = 0; k < COUNT; k++, at++) {
                boolean own = (k & size) == 0;
                UPPER[at] = own ? k : COUNT + k - size;
                LOWER[at] = own ? k + size : COUNT + k;
            }
        }
    }

    /** A double has 52 bits, of which these roots, below seven, leave more than 32 to the fraction. */
    private static int fraction(double root) {
        return (int) (long) ((root - Math.floor(root)) * 0x1p32);
    }

    private final int[] state = new int[START.length * COUNT];
    private final int[] words = new int[ROUNDS * COUNT];

    Lanes() {
        for (int l = 0; l < COUNT; l++) {
            begin(l);
        }
    }

    /** Another message begins in a lane. */
    void begin(int lane) {
        for (int k = 0; k < START.length; k++) {
            state[k * COUNT + lane] = START[k];
        }
    }

    /** The hash of a message whose last block, filled up as the standard says, was added. */
    String end(int lane) {
        byte[] out = new byte[4 * START.length];
        for (int k = 0; k < START.length; k++) {
            WORD.set(out, 4 * k, state[k * COUNT + lane]);
        }
        return HexFormat.of().formatHex(out);
    }

    /**
     * Adds blocks to all messages.
     *
     * @param held bytes of all
     * @param from the byte at which the next block of each stands
     * @param n how many of each
     */
    void add(MemorySegment held, int[] from, int n) {
        for (int block = 0; block < n; block++) {
            take(held, BLOCK * block, from, words);
            turn(words);
            extend(words);
            mix(words, state);
        }
    }

    /**
     * The words of a block of each message, side by side: rows of words are read as they stand and turned over, square by square,
     * which is quicker than picking each word. Of the stages of turning two are done at once, so that little goes to memory and
     * back; the first two while rows are read.
     */
    private static void take(MemorySegment held, int block, int[] from, int[] words) {
        IntVector upper = at(UPPER, 0);
        IntVector lower = at(LOWER, 0);
        IntVector above = at(UPPER, 1);
        IntVector below = at(LOWER, 1);
        for (int square = 0; square < WORDS; square += COUNT) {
            int at = block + Integer.BYTES * square;
            for (int l = 0; l < COUNT; l += 4) {
                IntVector a = row(held, from[l] + at);
                IntVector b = row(held, from[l + 1] + at);
                IntVector c = row(held, from[l + 2] + at);
                IntVector d = row(held, from[l + 3] + at);
                IntVector p = upper.selectFrom(a, b);
                IntVector q = lower.selectFrom(a, b);
                IntVector r = upper.selectFrom(c, d);
                IntVector s = lower.selectFrom(c, d);
                int to = (square + l) * COUNT;
                above.selectFrom(p, r).intoArray(words, to);
                above.selectFrom(q, s).intoArray(words, to + COUNT);
                below.selectFrom(p, r).intoArray(words, to + 2 * COUNT);
                below.selectFrom(q, s).intoArray(words, to + 3 * COUNT);
            }
        }
    }

    private static IntVector row(MemorySegment held, int from) {
        return IntVector.fromMemorySegment(SPECIES, held, from, ByteOrder.nativeOrder())
                .lanewise(REVERSE_BYTES);
    }

    /** Rows become columns: in each stage what stands off the diagonal changes places, in squares of two sizes smaller. */
    private static void turn(int[] words) {
        for (int square = 0; square < WORDS; square += COUNT) {
            int stage = 2;
            for (; 4 << stage <= COUNT; stage += 2) {
                two(words, square, stage);
            }
            if (1 << stage < COUNT) {
                one(words, square, stage);
            }
        }
    }

    private static void one(int[] words, int square, int stage) {
        IntVector upper = at(UPPER, stage);
        IntVector lower = at(LOWER, stage);
        int size = 1 << stage;
        for (int k = 0; k < COUNT / 2; k++) {
            int row = square + (k >> stage << stage + 1) + (k & size - 1);
            IntVector a = at(words, row);
            IntVector b = at(words, row + size);
            upper.selectFrom(a, b).intoArray(words, row * COUNT);
            lower.selectFrom(a, b).intoArray(words, (row + size) * COUNT);
        }
    }

    private static void two(int[] words, int square, int stage) {
        IntVector upper = at(UPPER, stage);
        IntVector lower = at(LOWER, stage);
        IntVector above = at(UPPER, stage + 1);
        IntVector below = at(LOWER, stage + 1);
        int size = 1 << stage;
        for (int k = 0; k < COUNT / 4; k++) {
            int row = square + (k >> stage << stage + 2) + (k & size - 1);
            IntVector a = at(words, row);
            IntVector b = at(words, row + size);
            IntVector c = at(words, row + 2 * size);
            IntVector d = at(words, row + 3 * size);
            IntVector p = upper.selectFrom(a, b);
            IntVector q = lower.selectFrom(a, b);
            IntVector r = upper.selectFrom(c, d);
            IntVector s = lower.selectFrom(c, d);
            above.selectFrom(p, r).intoArray(words, row * COUNT);
            above.selectFrom(q, s).intoArray(words, (row + size) * COUNT);
            below.selectFrom(p, r).intoArray(words, (row + 2 * size) * COUNT);
            below.selectFrom(q, s).intoArray(words, (row + 3 * size) * COUNT);
        }
    }

    private static IntVector at(int[] from, int row) {
        return IntVector.fromArray(SPECIES, from, row * COUNT);
    }

    /** The message schedule. */
    private static void extend(int[] words) {
        for (int t = WORDS; t < ROUNDS; t++) {
            IntVector a = at(words, t - 15);
            IntVector b = at(words, t - 2);
            IntVector low =
                    a.lanewise(ROR, 7).lanewise(XOR, a.lanewise(ROR, 18)).lanewise(XOR, a.lanewise(LSHR, 3));
            IntVector high =
                    b.lanewise(ROR, 17).lanewise(XOR, b.lanewise(ROR, 19)).lanewise(XOR, b.lanewise(LSHR, 10));
            at(words, t - 16).add(low).add(at(words, t - 7)).add(high).intoArray(words, t * COUNT);
        }
    }

    /** The rounds. */
    private static void mix(int[] words, int[] state) {
        IntVector a = at(state, 0);
        IntVector b = at(state, 1);
        IntVector c = at(state, 2);
        IntVector d = at(state, 3);
        IntVector e = at(state, 4);
        IntVector f = at(state, 5);
        IntVector g = at(state, 6);
        IntVector h = at(state, 7);
        for (int t = 0; t < ROUNDS; t++) {
            IntVector one =
                    e.lanewise(ROR, 6).lanewise(XOR, e.lanewise(ROR, 11)).lanewise(XOR, e.lanewise(ROR, 25));
            IntVector chosen = f.lanewise(XOR, g).and(e).lanewise(XOR, g);
            // What the last round gave comes last, so that the rest can be done before.
            IntVector both = h.add(at(words, t).add(ROUND[t])).add(chosen).add(one);
            IntVector two =
                    a.lanewise(ROR, 2).lanewise(XOR, a.lanewise(ROR, 13)).lanewise(XOR, a.lanewise(ROR, 22));
            IntVector most = a.and(b).or(a.or(b).and(c));
            h = g;
            g = f;
            f = e;
            e = d.add(both);
            d = c;
            c = b;
            b = a;
            a = both.add(two.add(most));
        }
        a.add(at(state, 0)).intoArray(state, 0);
        b.add(at(state, 1)).intoArray(state, COUNT);
        c.add(at(state, 2)).intoArray(state, 2 * COUNT);
        d.add(at(state, 3)).intoArray(state, 3 * COUNT);
        e.add(at(state, 4)).intoArray(state, 4 * COUNT);
        f.add(at(state, 5)).intoArray(state, 5 * COUNT);
        g.add(at(state, 6)).intoArray(state, 6 * COUNT);
        h.add(at(state, 7)).intoArray(state, 7 * COUNT);
    }
}
