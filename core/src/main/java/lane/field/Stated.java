package lane.field;

import java.util.Map;
import lane.unit.Unit;
import lane.unit.UnitSystem;
import org.jspecify.annotations.Nullable;

/**
 * What was stated about a run and its files do not say.
 *
 * @param system units of fields that have none of their own; null for none
 * @param units of fields in this run alone, by name
 * @param onWall for stored wall stresses, by name, whether they act on the wall (else on the fluid)
 * @param depth of a plane run, in metres
 * @param turn the full turn that its mesh stands for; null for none
 * @param length whether the unit of the coordinates was stated or stands in the file; else metres are assumed
 */
public record Stated(
        @Nullable UnitSystem system,
        Map<String, Unit> units,
        Map<String, Boolean> onWall,
        double depth,
        @Nullable Turn turn,
        boolean length) {
    public static final Stated NOTHING = new Stated(null, Map.of(), Map.of(), 1, null, false);

    public Stated {
        units = Map.copyOf(units);
        onWall = Map.copyOf(onWall);
    }

    /** @param known whether the unit of the coordinates is known */
    public Stated said(boolean known) {
        return new Stated(system, units, onWall, depth, turn, known);
    }
}
