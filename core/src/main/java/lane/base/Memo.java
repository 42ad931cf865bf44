package lane.base;

import java.util.function.Supplier;

/**
 * Keeps what several share or an edit does not touch: a mesh of several times, a placement, an integral. Keys are compared by value and must hold all that the kept thing depends on.
 */
public interface Memo {
    /** Keeps nothing. */
    Memo NONE = new Memo() {
        @Override
        public <T> T of(Object key, Supplier<T> make) {
            return make.get();
        }
    };

    /** What was kept under the key, made first if there is nothing. */
    <T> T of(Object key, Supplier<T> make);

    /** The same, and counted when it is made, where somebody counts. */
    default <T> T counted(Object key, Supplier<T> make) {
        return of(key, make);
    }
}
