package lane.field;

import lane.base.LaneException;
import lane.unit.Unit;

/**
 * A named quantity stored on a mesh.
 *
 * @param name as in the file
 * @param at where the values are stored
 * @param components numbers a node or cell
 * @param unit of the stored values; {@link Unit#UNKNOWN} until somebody says
 * @param values components of the first node or cell, then of the next; may be read only when they are asked for
 */
public record Field(String name, At at, int components, Unit unit, Values values) {
    /** Where values are stored. */
    public enum At {
        NODE("nodes"),
        CELL("cells");

        private final String word;

        At(String word) {
            this.word = word;
        }

        /** Plural, for people. */
        public String word() {
            return word;
        }
    }

    public Field {
        if (components < 1 || values.length() % components != 0) {
            throw new LaneException("Field \"" + name + "\" has " + values.length()
                    + " values, which is no multiple of its " + components + " components.");
        }
    }

    /** The numbers in memory: read now, if nobody asked for them before. */
    @Override
    public Values values() {
        return values.now();
    }

    /** The numbers without reading them; equal for the same numbers of the same files. */
    public Values stored() {
        return values;
    }

    /** Whether asking for the numbers reads no file. */
    public boolean inMemory() {
        return !(values instanceof Deferred d) || d.inMemory();
    }

    /** The same field with its numbers under a key that says what decides them. */
    public Field named(Object key) {
        return new Field(name, at, components, unit, Deferred.named(key, values));
    }

    public int size() {
        return values.length() / components;
    }

    public Field withUnit(Unit other) {
        return new Field(name, at, components, other, values);
    }

    /**
     * Some entries, in another order.
     *
     * @param from for each new entry the old one
     */
    public Field pick(int[] from) {
        return new Field(name, at, components, unit, values.pick(components, from));
    }

    /** Least, mean and greatest of a component, or of the magnitude where {@code component} is -1; NaN if none is finite. */
    public double[] range(int component) {
        Values values = values();
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        var sum = new lane.base.Sum();
        int finite = 0;
        for (int i = 0; i < size(); i++) {
            double v = component >= 0 ? values.get(i * components + component) : magnitude(values, i);
            if (Double.isFinite(v)) {
                least = Math.min(least, v);
                greatest = Math.max(greatest, v);
                sum.add(v);
                finite++;
            }
        }
        return finite == 0
                ? new double[] {Double.NaN, Double.NaN, Double.NaN}
                : new double[] {least, sum.value() / finite, greatest};
    }

    private double magnitude(Values values, int i) {
        double sum = 0;
        for (int c = 0; c < components; c++) {
            double v = values.get(i * components + c);
            sum += v * v;
        }
        return components == 1 ? values.get(i) : Math.sqrt(sum);
    }

    /** Number of stored values that are not finite. */
    public int nonFinite() {
        Values values = values();
        int count = 0;
        for (int i = 0; i < values.length(); i++) {
            count += Double.isFinite(values.get(i)) ? 0 : 1;
        }
        return count;
    }
}
