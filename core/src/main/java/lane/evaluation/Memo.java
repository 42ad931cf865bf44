package lane.evaluation;

import java.util.function.Supplier;

/**
 * Keeps parts of a reading that several readings share or that an edit does not touch, such as an integral in the units
 * the file stores. Keys are compared by value and must hold all that the kept thing depends on.
 */
@FunctionalInterface
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
}
