package lane.field;

/** Stored numbers of a field, kept in the width of the file so that a loaded run is no larger than it must be. */
public sealed interface Values {
    int length();

    double get(int i);

    long bytes();

    static Values of(double... values) {
        return new Doubles(values);
    }

    /** @param array shared, not copied; must not change */
    record Doubles(double[] array) implements Values {
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
    record Floats(float[] array) implements Values {
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

    /** Whole numbers such as region numbers. @param array shared, not copied; must not change */
    record Ints(int[] array) implements Values {
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
}
