package lane.study;

import java.util.ArrayList;
import java.util.List;
import lane.base.LaneException;
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
 * @param roots folders that stand elsewhere on other machines
 * @param pieces a folder with answers that were computed elsewhere, as paths of files are written; blank for none
 */
public record Settings(
        String datum,
        List<String> off,
        Axis axis,
        TimeSelector time,
        List<FieldUnit> units,
        List<Recipe> recipes,
        String length,
        List<Root> roots,
        String pieces) {
    public static final Settings NONE =
            new Settings("", List.of(), Axis.Z, TimeSelector.LAST, List.of(), List.of(), "", List.of(), "");

    public Settings {
        // A study written by hand may leave any of it out.
        datum = datum == null ? "" : datum;
        off = off == null ? List.of() : List.copyOf(off);
        axis = axis == null ? Axis.Z : axis;
        time = time == null ? TimeSelector.LAST : time;
        units = units == null ? List.of() : List.copyOf(units);
        recipes = recipes == null ? List.of() : List.copyOf(recipes);
        length = length == null ? "" : length;
        roots = roots == null ? List.of() : List.copyOf(roots);
        pieces = pieces == null ? "" : pieces;
        if (roots.stream().map(Root::name).distinct().count() < roots.size()) {
            throw new LaneException("Two roots have one name; rename one.");
        }
        if (!length.isBlank()) {
            Unit.of(length).requireComparable(Unit.of("m"), "The unit of lengths");
        }
    }

    /** A study's settings without a unit of length set. */
    public Settings(
            String datum, List<String> off, Axis axis, TimeSelector time, List<FieldUnit> units, List<Recipe> recipes) {
        this(datum, off, axis, time, units, recipes, "", List.of(), "");
    }

    public Settings withLength(String unit) {
        return new Settings(datum, off, axis, time, units, recipes, unit, roots, pieces);
    }

    /**
     * With other roots, and another folder of answers that were computed elsewhere.
     *
     * @param folder blank for none
     */
    public Settings withPlaces(List<Root> others, String folder) {
        return new Settings(datum, off, axis, time, units, recipes, length, others, folder);
    }

    public Settings withDatum(String id) {
        return new Settings(id, off, axis, time, units, recipes, length, roots, pieces);
    }

    public Settings withOff(List<String> ids) {
        return new Settings(datum, ids, axis, time, units, recipes, length, roots, pieces);
    }

    public Settings withAxis(Axis other) {
        return new Settings(datum, off, other, time, units, recipes, length, roots, pieces);
    }

    public Settings withTime(TimeSelector moment) {
        return new Settings(datum, off, axis, moment, units, recipes, length, roots, pieces);
    }

    public Settings withUnits(List<FieldUnit> others) {
        return new Settings(datum, off, axis, time, others, recipes, length, roots, pieces);
    }

    public Settings without(Recipe recipe) {
        return new Settings(
                datum,
                off,
                axis,
                time,
                units,
                recipes.stream().filter(r -> !r.equals(recipe)).toList(),
                length,
                roots,
                pieces);
    }

    /** With a recipe in place of the one for the same kind of table or the same file; one for a file goes first. */
    public Settings with(Recipe recipe) {
        List<Recipe> all = new ArrayList<>(recipes);
        all.removeIf(r -> r.file().equals(recipe.file())
                && (!r.file().isBlank() || r.kind().equals(recipe.kind())));
        all.add(recipe.file().isBlank() ? all.size() : 0, recipe);
        return new Settings(datum, off, axis, time, units, all, length, roots, pieces);
    }
}
