package lane.base;

import java.nio.ByteBuffer;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Collections;
import java.util.Map;
import java.util.WeakHashMap;

/**
 * What arrays hold, as 128 bits of a SHA-256 digest: a key that is equal for equal numbers, whoever read them, and that
 * keeps nothing in memory. Of one array it is computed once.
 */
public record Content(long high, long low) {
    /** By identity of the array, which is how arrays are equal. */
    private static final Map<Object, Content> KNOWN = Collections.synchronizedMap(new WeakHashMap<>());

    public static Content of(double[] array) {
        return known(array, digest -> digest.take(array));
    }

    public static Content of(int[] array) {
        return known(array, digest -> digest.take(array));
    }

    public static Content of(byte[] array) {
        return known(array, digest -> digest.take(array));
    }

    private static Content known(Object array, java.util.function.Consumer<Taker> take) {
        Content there = KNOWN.get(array);
        if (there == null) {
            var taker = new Taker();
            take.accept(taker);
            there = taker.content();
            KNOWN.put(array, there);
        }
        return there;
    }

    /** Takes numbers in, a block at a time. */
    private static final class Taker {
        private static final int BLOCK = 1 << 13;
        private final MessageDigest sha;
        private final ByteBuffer block = ByteBuffer.allocate(8 * BLOCK);

        Taker() {
            try {
                sha = MessageDigest.getInstance("SHA-256");
            } catch (NoSuchAlgorithmException e) {
                throw new IllegalStateException("every Java has SHA-256", e);
            }
        }

        void take(double[] array) {
            for (int at = 0; at < array.length; at += BLOCK) {
                int n = Math.min(BLOCK, array.length - at);
                block.asDoubleBuffer().put(array, at, n);
                sha.update(block.array(), 0, 8 * n);
            }
        }

        void take(int[] array) {
            for (int at = 0; at < array.length; at += 2 * BLOCK) {
                int n = Math.min(2 * BLOCK, array.length - at);
                block.asIntBuffer().put(array, at, n);
                sha.update(block.array(), 0, 4 * n);
            }
        }

        void take(byte[] array) {
            sha.update(array);
        }

        Content content() {
            ByteBuffer out = ByteBuffer.wrap(sha.digest());
            return new Content(out.getLong(), out.getLong());
        }
    }
}
