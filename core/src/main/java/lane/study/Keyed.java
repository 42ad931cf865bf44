package lane.study;

import java.util.AbstractList;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import lane.base.LaneException;

/**
 * Things of one sort in their order, each under its key. Immutable, and a list for whoever only reads. There is one way to
 * change each of them: {@link #with}, {@link #adding}, {@link #without}, {@link #moved}, or {@link #edited} for several
 * changes at once.
 */
public final class Keyed<T> extends AbstractList<T> {
    private final String what;
    private final Function<T, String> key;
    private final List<T> items;
    private final Map<String, T> byKey = new LinkedHashMap<>();

    /**
     * @param what they are, for sentences
     * @throws LaneException when a key is blank or used twice
     */
    public Keyed(String what, Function<T, String> key, List<? extends T> items) {
        this.what = what;
        this.key = key;
        this.items = List.copyOf(items);
        for (T item : this.items) {
            String id = key.apply(item);
            if (id.isBlank()) {
                throw new LaneException("A " + what + " of the study has no id; give it one.");
            }
            if (byKey.put(id, item) != null) {
                throw new LaneException("The study has two of the " + what + " id \"" + id + "\"; rename one of them.");
            }
        }
    }

    @Override
    public T get(int index) {
        return items.get(index);
    }

    @Override
    public int size() {
        return items.size();
    }

    public Optional<T> find(String id) {
        return Optional.ofNullable(byKey.get(id));
    }

    public List<String> keys() {
        return List.copyOf(byKey.keySet());
    }

    /** With one of them in place of the one of the same key; unchanged where there is none. */
    public Keyed<T> with(T item) {
        String id = key.apply(item);
        return edited(list -> {
            list.replaceAll(x -> key.apply(x).equals(id) ? item : x);
            return list;
        });
    }

    /** With one more at the end. */
    public Keyed<T> adding(T item) {
        return edited(list -> {
            list.add(item);
            return list;
        });
    }

    public Keyed<T> without(String id) {
        return edited(list -> {
            list.removeIf(x -> key.apply(x).equals(id));
            return list;
        });
    }

    /** With one of them at another place in the order; at an end where the place is beyond it. */
    public Keyed<T> moved(String id, int to) {
        T item = byKey.get(id);
        return item == null
                ? this
                : edited(list -> {
                    list.remove(item);
                    list.add(Math.clamp(to, 0, list.size()), item);
                    return list;
                });
    }

    /** After several changes to a list of them. */
    public Keyed<T> edited(UnaryOperator<List<T>> edit) {
        return new Keyed<>(what, key, edit.apply(new ArrayList<>(items)));
    }
}
