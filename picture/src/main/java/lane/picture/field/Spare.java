package lane.picture.field;

import java.lang.ref.SoftReference;
import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Arrays kept from one picture to the next, which wants the same again while the view turns: making them anew costs as much
 * as filling them. They are let go when memory is short.
 */
final class Spare {
    private static final int MOST = 64;
    private static final Deque<SoftReference<Object>> KEPT = new ArrayDeque<>();

    private Spare() {}

    /** Of any content. */
    static float[] floats(int length) {
        return find(a -> a instanceof float[] f && f.length == length) instanceof float[] f ? f : new float[length];
    }

    /** Of any content. */
    static int[] ints(int length) {
        return find(a -> a instanceof int[] i && i.length == length) instanceof int[] i ? i : new int[length];
    }

    /** Of any content. */
    static long[] longs(int length) {
        return find(a -> a instanceof long[] l && l.length == length) instanceof long[] l ? l : new long[length];
    }

    private static synchronized Object find(java.util.function.Predicate<Object> fits) {
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
        while (KEPT.size() > MOST) {
            KEPT.removeLast();
        }
    }
}
