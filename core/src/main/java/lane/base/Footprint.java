package lane.base;

import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** How much memory a result holds: arrays, and what stands in records and collections. What it does not know counts little. */
public final class Footprint {
    private static final int OBJECT = 32;
    private static final int DEEP = 12;

    private final Set<Object> seen = Collections.newSetFromMap(new IdentityHashMap<>());

    private Footprint() {}

    /** Bytes that an object and what it is made of hold, near enough to keep memory within bounds. */
    public static long of(Object object) {
        return new Footprint().bytes(object, 0);
    }

    private long bytes(@Nullable Object o, int depth) {
        if (o == null || o instanceof Enum<?> || depth > DEEP || !seen.add(o)) {
            return 0;
        }
        return switch (o) {
            case Sized s -> OBJECT + s.bytes();
            case double[] a -> OBJECT + 8L * a.length;
            case float[] a -> OBJECT + 4L * a.length;
            case long[] a -> OBJECT + 8L * a.length;
            case int[] a -> OBJECT + 4L * a.length;
            case byte[] a -> OBJECT + a.length;
            case boolean[] a -> OBJECT + a.length;
            case String s -> OBJECT + 2L * s.length();
            case Object[] a -> {
                long sum = OBJECT + 4L * a.length;
                for (Object one : a) {
                    sum += bytes(one, depth + 1);
                }
                yield sum;
            }
            case Collection<?> c -> {
                long sum = OBJECT;
                for (Object one : c) {
                    sum += 8 + bytes(one, depth + 1);
                }
                yield sum;
            }
            case Map<?, ?> m -> {
                long sum = OBJECT;
                for (Map.Entry<?, ?> e : m.entrySet()) {
                    sum += OBJECT + bytes(e.getKey(), depth + 1) + bytes(e.getValue(), depth + 1);
                }
                yield sum;
            }
            case Record r -> {
                long sum = OBJECT;
                for (Field part : PARTS.get(r.getClass())) {
                    sum += part.getType().isPrimitive() ? 8 : bytes(part(part, r), depth + 1);
                }
                yield sum;
            }
            default -> OBJECT;
        };
    }

    /** The components of a class of records, looked up once. */
    private static final ClassValue<List<Field>> PARTS = new ClassValue<>() {
        @Override
        protected List<Field> computeValue(Class<?> type) {
            List<Field> out = new ArrayList<>();
            for (Field f : type.getDeclaredFields()) {
                // What a record of somebody else's does not let be seen counts nothing.
                if (!Modifier.isStatic(f.getModifiers()) && f.trySetAccessible()) {
                    out.add(f);
                }
            }
            return out;
        }
    };

    private static @Nullable Object part(Field part, Record of) {
        try {
            return part.get(of);
        } catch (IllegalAccessException e) {
            throw new IllegalStateException("what was made accessible is", e);
        }
    }
}
