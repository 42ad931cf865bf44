package lane.field;

import java.util.List;

/** Stored numbers of a field, kept in the width of the file so that a loaded run is no larger than it must be. */
public sealed interface Values permits Values.Held, Deferred {
    int length();

    /** The numbers in memory: these, or what is read when it is asked for. */
    Held now();

    /** Numbers in memory, of one of three types. */
    sealed interface Held extends Values {
        @Override
        default Held now() {
            return this;
        }
    }

    double get(int i);

    long bytes();

    static Values of(double... values) {
        return new Doubles(values);
    }

    /** @param array shared, not copied; must not change */
    record Doubles(double[] array) implements Held {
        @Override
        public int length() {
            return array.length;
        }

        @Override
        public double get(int i) {
            return array[i];
        }

        @Override
        public long bytes() {
            return 8L * array.length;
        }
    }

    /** @param array shared, not copied; must not change */
    record Floats(float[] array) implements Held {
        @Override
        public int length() {
            return array.length;
        }

        @Override
        public double get(int i) {
            return array[i];
        }

        @Override
        public long bytes() {
            return 4L * array.length;
        }
    }

    /**
     * Whole numbers such as region numbers.
     *
     * @param array shared, not copied; must not change
     */
    record Ints(int[] array) implements Held {
        @Override
        public int length() {
            return array.length;
        }

        @Override
        public double get(int i) {
            return array[i];
        }

        @Override
        public long bytes() {
            return 4L * array.length;
        }
    }

    /**
     * Writes a component of entries that follow each other.
     *
     * @param from first of {@code n} entries
     */
    default void load(int from, int n, int components, int component, double[] into) {
        int at = from * components + component;
        switch (this) {
            case Doubles d -> {
                double[] a = d.array;
                for (int i = 0; i < n; i++) {
                    into[i] = a[at + i * components];
                }
            }
            case Floats f -> {
                float[] a = f.array;
                for (int i = 0; i < n; i++) {
                    into[i] = a[at + i * components];
                }
            }
            case Ints v -> {
                int[] a = v.array;
                for (int i = 0; i < n; i++) {
                    into[i] = a[at + i * components];
                }
            }
            case Deferred d -> d.now().load(from, n, components, component, into);
        }
    }

    /**
     * Writes a component of entries that stand anywhere.
     *
     * @param entries numbers of entries, of which {@code n} from {@code from} on are looked up
     */
    default void gather(int[] entries, int from, int n, int components, int component, double[] into) {
        switch (this) {
            case Doubles d -> {
                double[] a = d.array;
                for (int i = 0; i < n; i++) {
                    into[i] = a[entries[from + i] * components + component];
                }
            }
            case Floats f -> {
                float[] a = f.array;
                for (int i = 0; i < n; i++) {
                    into[i] = a[entries[from + i] * components + component];
                }
            }
            case Ints v -> {
                int[] a = v.array;
                for (int i = 0; i < n; i++) {
                    into[i] = a[entries[from + i] * components + component];
                }
            }
            case Deferred d -> d.now().gather(entries, from, n, components, component, into);
        }
    }

    /**
     * Some entries, in another order, in the same number type.
     *
     * @param components numbers an entry
     * @param from for each new entry the old one
     */
    default Values pick(int components, int[] from) {
        int n = Math.multiplyExact(components, from.length);
        switch (this) {
            case Values.Doubles v -> {
                double[] out = new double[n];
                for (int i = 0; i < from.length; i++) {
                    System.arraycopy(v.array(), from[i] * components, out, i * components, components);
                }
                return new Values.Doubles(out);
            }
            case Values.Floats v -> {
                float[] out = new float[n];
                for (int i = 0; i < from.length; i++) {
                    System.arraycopy(v.array(), from[i] * components, out, i * components, components);
                }
                return new Values.Floats(out);
            }
            case Values.Ints v -> {
                int[] out = new int[n];
                for (int i = 0; i < from.length; i++) {
                    System.arraycopy(v.array(), from[i] * components, out, i * components, components);
                }
                return new Values.Ints(out);
            }
            case Deferred d -> {
                return d.pick(components, from);
            }
        }
    }

    /**
     * Entries of some numbers with those in another order.
     *
     * @param from for each new component the old one, as many as an entry has
     */
    default Values permuted(int[] from) {
        int[] at = new int[length()];
        for (int i = 0; i < at.length; i++) {
            at[i] = i / from.length * from.length + from[i % from.length];
        }
        return pick(1, at);
    }

    /** One after the other, in the widest type needed. */
    static Values join(List<Values> all) {
        if (all.size() == 1) {
            return all.getFirst();
        }
        int n = 0;
        for (Values v : all) {
            n = Math.addExact(n, v.length());
        }
        if (all.stream().anyMatch(Deferred.class::isInstance)) {
            return new Deferred(
                    List.of("joined", all),
                    n,
                    () -> join(all.stream()
                            .map(v -> v instanceof Deferred d ? d.read() : v)
                            .toList()));
        }
        if (all.stream().allMatch(Values.Ints.class::isInstance)) {
            int[] out = new int[n];
            int at = 0;
            for (Values v : all) {
                System.arraycopy(((Values.Ints) v).array(), 0, out, at, v.length());
                at += v.length();
            }
            return new Values.Ints(out);
        }
        if (all.stream().allMatch(Values.Floats.class::isInstance)) {
            float[] out = new float[n];
            int at = 0;
            for (Values v : all) {
                System.arraycopy(((Values.Floats) v).array(), 0, out, at, v.length());
                at += v.length();
            }
            return new Values.Floats(out);
        }
        double[] out = new double[n];
        int at = 0;
        for (Values v : all) {
            for (int i = 0; i < v.length(); i++) {
                out[at++] = v.get(i);
            }
        }
        return new Values.Doubles(out);
    }
}
