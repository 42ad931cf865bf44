package lane.picture.field;

import java.lang.ref.SoftReference;
import java.util.ArrayDeque;
import java.util.Deque;
import org.jspecify.annotations.Nullable;

/**
 * Arrays kept from one picture to the next, which wants the same again while the view turns: making them anew costs as much
 * as filling them. They are let go when memory is short.
 */
final class Spare {
    private static final int MOST = 64;
    /** Bytes: the scratch of twenty million triangles. */
    private static final long LARGEST = 256L << 20;

    private static final Deque<SoftReference<Object>> KEPT = new ArrayDeque<>();

    private Spare() {}

    /** Of any content. */
    static float[] floats(int length) {
        return find(a -> a instanceof float[] f && f.length == length) instanceof float[] f ? f : new float[length];
    }

    /** Of any content, perhaps longer. */
    static int[] ints(int length) {
        return find(a -> a instanceof int[] i && i.length >= length && i.length / 4 <= length) instanceof int[] i
                ? i
                : new int[length];
    }

    /** Of any content. */
    static long[] longs(int length) {
        return find(a -> a instanceof long[] l && l.length == length) instanceof long[] l ? l : new long[length];
    }

    private static synchronized @Nullable Object find(java.util.function.Predicate<Object> fits) {
        for (var it = KEPT.iterator(); it.hasNext(); ) {
            Object array = it.next().get();
            if (array == null || fits.test(array)) {
                it.remove();
            }
            if (array != null && fits.test(array)) {
                return array;
            }
        }
        return null;
    }

    /** Nobody may use it any more. */
    static synchronized void give(Object array) {
        KEPT.addFirst(new SoftReference<>(array));
        long sum = 0;
        int many = 0;
        for (var it = KEPT.iterator(); it.hasNext(); ) {
            // What has not been asked for for longest stands last.
            sum += bytes(it.next().get());
            if (++many > MOST || sum > LARGEST) {
                it.remove();
            }
        }
    }

    private static long bytes(@Nullable Object array) {
        return switch (array) {
            case float[] f -> 4L * f.length;
            case int[] i -> 4L * i.length;
            case long[] l -> 8L * l.length;
            case null, default -> 0;
        };
    }
}
