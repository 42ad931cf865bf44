package lane.evaluation;

import java.util.List;
import java.util.Map;
import lane.field.Field;
import lane.field.Run;
import lane.formula.Meaning;
import lane.formula.Node;
import lane.formula.Scope;
import lane.formula.Type;
import lane.mesh.Axis;
import lane.provenance.Provenance;
import org.jspecify.annotations.Nullable;

/**
 * What a formula on one run sees beyond the place itself: stations, other lanes and times, readings, tables. Two that are
 * equal give equal numbers.
 */
public interface Beyond {
    /** A study without any of that. */
    Beyond NONE = new Beyond() {};

    private static Scope.Trouble nothing(String what) {
        return new Scope.Trouble(what + " are not known here.");
    }

    /** Equal for two that give equal numbers; it holds no run. */
    default Object key() {
        return "nothing beyond";
    }

    /** A step as a field on the run's mesh, in SI units. */
    default Field step(Run run, Scope.Step step, EvaluationContext lens) {
        throw nothing("Gradients, lanes and times");
    }

    /** A step as numbers at any place, where it is taken of a run on another mesh; null for one on the run's own mesh. */
    default @Nullable Anywhere places(Run run, Scope.Step step, EvaluationContext lens) {
        return null;
    }

    /** The run at another of its times; null where none is known. */
    default @Nullable Run at(Run run, double time) {
        return null;
    }

    /**
     * What a reduction over stations gives.
     *
     * @param values its components, in SI units
     * @param coverage share of its surfaces that lies in the run; NaN where they have no size of their own
     * @param trail how it was found
     */
    record Reduced(double[] values, double coverage, Provenance trail) {}

    default Reduced reduce(Run run, Node.Reduction reduction, Type body, String frame, EvaluationContext lens) {
        throw nothing("Stations");
    }

    default Scope.Table table(String name, String column) {
        throw nothing("Tables");
    }

    /** Files that a step reads besides those of the run itself: other lanes, other times. */
    default List<Provenance.Input> inputs(Run run, Scope.Step step, EvaluationContext lens) {
        return List.of();
    }

    /** What a step reaches, by what it is called: times of runs as they are stored, and what its own formula reaches. */
    default Map<String, Object> reached(Run run, Scope.Step step, EvaluationContext lens) {
        return Map.of();
    }

    /** Files of what a lane without a mesh says. */
    default List<Provenance.Input> inputs(String lane) {
        return List.of();
    }

    /** The file of a table. */
    default List<Provenance.Input> tableInputs(String name) {
        return List.of();
    }

    /** Distances of the run's nodes from its walls. */
    default Field wallDistance(Run run) {
        return lane.cut.WallDistance.of(run);
    }

    /**
     * A number that a reading has found.
     *
     * @param remark what is to be known of it; blank for nothing
     * @param trail how it was found, with the files that it came from
     */
    record Found(Meaning.Known number, String remark, Provenance trail) {}

    /** The number of a tally, or of a balance's term or residual; null if there is none of the name. */
    default @Nullable Found reading(Run run, String name, EvaluationContext lens) {
        return null;
    }

    /** The unit of such a number, without computing it; unknown where it is not stated, empty if there is none. */
    default java.util.Optional<lane.unit.Unit> readingUnit(String name) {
        return java.util.Optional.empty();
    }

    /** The run of a lane, by its name or key; null for none. */
    default @Nullable Run run(String lane) {
        return null;
    }

    /** What a lane without a mesh says, a theory or a measurement, at a time; null for no such lane. */
    default @Nullable Scope reference(String lane, double time, EvaluationContext lens) {
        return null;
    }

    /** Names and keys of the lanes there are. */
    default List<String> lanes() {
        return List.of();
    }

    /** Names of stations. */
    default List<String> stations() {
        return List.of();
    }

    /** See {@link Scope#extent}. */
    default int extent(String station) {
        return -1;
    }

    /** A frame as it stands in space; null for none. */
    default @Nullable Axis frame(String name) {
        return null;
    }

    /** Names to suggest besides fields and quantities. */
    default List<String> names() {
        return List.of();
    }
}
