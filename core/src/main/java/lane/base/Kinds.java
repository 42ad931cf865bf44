package lane.base;

import java.util.ArrayList;
import java.util.List;
import java.util.ServiceLoader;

/**
 * The kinds of one thing that there are, such as of stations or of readings. Each is a service: whoever adds one names it
 * in a file {@code META-INF/services} and changes nothing else. Kinds stand in the order of those files, which is that of
 * lists in the window.
 */
public final class Kinds<T, K extends Kinds.Kind<T>> {
    /** One kind: the word by which studies name it and the class that holds its definition. */
    public interface Kind<T> {
        /** In studies: small letters, digits and hyphens. */
        String word();

        Class<? extends T> type();
    }

    private final List<K> all;

    private Kinds(List<K> all) {
        this.all = List.copyOf(all);
    }

    /** @throws IllegalStateException when two kinds share a word or a class, or a word is none */
    public static <T, K extends Kind<T>> Kinds<T, K> of(Class<K> service) {
        List<K> found = new ArrayList<>();
        for (K kind : ServiceLoader.load(service, service.getClassLoader())) {
            if (!kind.word().matches("[a-z][a-z0-9-]*")) {
                throw new IllegalStateException(kind.getClass() + " has no word of small letters: " + kind.word());
            }
            for (K other : found) {
                if (other.word().equals(kind.word()) || other.type().equals(kind.type())) {
                    throw new IllegalStateException(kind.getClass() + " and " + other.getClass() + " are one kind");
                }
            }
            found.add(kind);
        }
        return new Kinds<>(found);
    }

    public List<K> all() {
        return all;
    }

    /** The kind of a definition. */
    public K of(T definition) {
        return all.stream()
                .filter(k -> k.type().isInstance(definition))
                .findFirst()
                .orElseThrow(() -> new IllegalStateException(definition.getClass() + " is named in no services file"));
    }
}
