package lane.base;

import java.lang.reflect.Method;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A component of a record and how it is asked for. Those of a class are looked up once: to do so anew for each record takes far
 * longer than all else that is done with it.
 *
 * @param optional whether it is annotated as one that may be missing
 */
public record Component(String name, Class<?> type, boolean optional, Method accessor) {
    private static final ClassValue<List<Component>> OF = new ClassValue<>() {
        @Override
        protected List<Component> computeValue(Class<?> record) {
            return Arrays.stream(record.getRecordComponents())
                    .map(c -> {
                        c.getAccessor().setAccessible(true);
                        boolean optional = c.getAnnotatedType().isAnnotationPresent(Nullable.class);
                        return new Component(c.getName(), c.getType(), optional, c.getAccessor());
                    })
                    .toList();
        }
    };

    /** In the order of their declaration. */
    public static List<Component> of(Class<? extends Record> type) {
        return OF.get(type);
    }

    public @Nullable Object in(Record r) {
        try {
            return accessor.invoke(r);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException("the components of " + r.getClass() + " can be read", e);
        }
    }
}
