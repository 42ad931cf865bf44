package lane.formula;

import lane.unit.Unit;

/** What a name stands for. */
public sealed interface Meaning {
    /**
     * Another formula.
     *
     * @param stated the unit that was given to it where its own is not known; unknown for none
     */
    record Defined(String name, Node body, Unit stated) implements Meaning {}

    /**
     * Values that differ from place to place.
     *
     * @param key tells them from all others; the program's user loads them by it
     * @param components as stored: 1, 2 (a plane vector), 3, 6 (a symmetric tensor xx yy zz xy yz xz), 9, or a list
     * @param unit that the values are loaded in
     */
    record Stored(Object key, int components, Unit unit) implements Meaning {}

    /** Numbers that are the same everywhere, in SI units. */
    record Known(double[] values, Type type) implements Meaning {}
}
