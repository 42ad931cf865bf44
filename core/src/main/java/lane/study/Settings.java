package lane.study;

import java.util.ArrayList;
import java.util.List;
import lane.field.TimeSelector;
import lane.mesh.Axis;
import lane.quantity.FieldUnit;
import lane.reference.Recipe;
import lane.unit.Unit;

/**
 * What holds for all of a study.
 *
 * @param datum key of the lane that differences are taken against; blank for none
 * @param off keys of lanes that are switched off
 * @param axis that radius and swirl refer to
 * @param time which stored time of the runs is looked at
 * @param units that fields are stored in
 * @param length unit in which lengths are told; blank for one that suits the size of the runs
 * @param recipes how kinds of tables are read, where what is found out about them is not right
 */
public record Settings(
        String datum,
        List<String> off,
        Axis axis,
        TimeSelector time,
        List<FieldUnit> units,
        List<Recipe> recipes,
        String length) {
    public static final Settings NONE =
            new Settings("", List.of(), Axis.Z, TimeSelector.LAST, List.of(), List.of(), "");

    public Settings {
        // A study written by hand may leave any of it out.
        datum = datum == null ? "" : datum;
        off = off == null ? List.of() : List.copyOf(off);
        axis = axis == null ? Axis.Z : axis;
        time = time == null ? TimeSelector.LAST : time;
        units = units == null ? List.of() : List.copyOf(units);
        recipes = recipes == null ? List.of() : List.copyOf(recipes);
        length = length == null ? "" : length;
        if (!length.isBlank()) {
            Unit.of(length).requireComparable(Unit.of("m"), "The unit of lengths");
        }
    }

    /** A study's settings without a unit of length set. */
    public Settings(
            String datum, List<String> off, Axis axis, TimeSelector time, List<FieldUnit> units, List<Recipe> recipes) {
        this(datum, off, axis, time, units, recipes, "");
    }

    public Settings withLength(String unit) {
        return new Settings(datum, off, axis, time, units, recipes, unit);
    }

    public Settings withDatum(String id) {
        return new Settings(id, off, axis, time, units, recipes, length);
    }

    public Settings withOff(List<String> ids) {
        return new Settings(datum, ids, axis, time, units, recipes, length);
    }

    public Settings withAxis(Axis other) {
        return new Settings(datum, off, other, time, units, recipes, length);
    }

    public Settings withTime(TimeSelector moment) {
        return new Settings(datum, off, axis, moment, units, recipes, length);
    }

    public Settings withUnits(List<FieldUnit> others) {
        return new Settings(datum, off, axis, time, others, recipes, length);
    }

    public Settings without(Recipe recipe) {
        return new Settings(
                datum,
                off,
                axis,
                time,
                units,
                recipes.stream().filter(r -> !r.equals(recipe)).toList(),
                length);
    }

    /** With a recipe in place of the one for the same kind of table or the same file; one for a file goes first. */
    public Settings with(Recipe recipe) {
        List<Recipe> all = new ArrayList<>(recipes);
        all.removeIf(r -> r.file().equals(recipe.file())
                && (!r.file().isBlank() || r.kind().equals(recipe.kind())));
        all.add(recipe.file().isBlank() ? all.size() : 0, recipe);
        return new Settings(datum, off, axis, time, units, all, length);
    }
}
