package lane.study;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.base.Work;
import lane.evaluation.SheetFiles;
import lane.field.Partition;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.reference.Recipe;
import lane.reference.Table;

/** Loads files for the evaluator. It must hand out the same object again as long as the file has not changed. */
public interface Library extends SheetFiles {
    /** Told which study is computed next: it says where its paths start from. */
    default void begin(Study study) {}

    /**
     * A run at a moment, understood as its treatment says.
     *
     * @throws lane.base.LaneException with one sentence when the file cannot be used
     */
    Run run(Source.Simulation source, TimeSelector moment, Work work);

    /**
     * A table, read as the recipe of its kind says.
     *
     * @param file relative to the study
     */
    Table table(String file, List<Recipe> recipes);

    /**
     * Some columns of a table that is long and is not read yet, looked up before all of it is, as far as that is quick and safe;
     * empty otherwise. Where it was never read its file is not proved.
     */
    default Optional<Table> firstLook(String file, List<Recipe> recipes, Set<String> columns, Work work) {
        return Optional.empty();
    }

    @Override
    default lane.mesh.Mesh sheet(String file) {
        return SheetFiles.NONE.sheet(file);
    }

    /**
     * Notes a fault of the program itself for whoever mends it.
     *
     * @param doing what it was about, to complete "… failed"
     * @return one sentence for the user
     */
    default String fault(String doing, Throwable fault) {
        return doing + " failed by a fault of the program (" + fault + "); please report it.";
    }

    /** What all stored times of a run are known by together: equal as long as it is not read again. */
    default Object recorded(Source.Simulation source, Run run) {
        return List.of(run.key(), run.times());
    }

    /** A run at a time that is one of many, passed by one after the other: it is let go of first. */
    default Run passing(Source.Simulation source, TimeSelector moment, Work work) {
        return run(source, moment, work);
    }

    /**
     * A run at a moment that is stored in pieces and is to be read one after the other; empty for one that is held whole. It is
     * asked for before the run.
     */
    default Optional<Partition> partition(Source.Simulation source, TimeSelector moment, Work work) {
        return Optional.empty();
    }

    /** Told which stored times will be passed by after each other, the next first, so that what takes long can begin. */
    default void foresee(Source.Simulation source, double[] times) {}

    /** Told which tables will be asked for, the first first, so that where there are many several are read at once. */
    default void foreseeTables(List<String> tables, List<Recipe> recipes, Work work) {}

    /** Begins to open a time that will be asked for next, on a thread of its own. */
    default void prepare(Source.Simulation source, TimeSelector moment) {}

    /** Where what was read of a run at single times is kept for what is defined so, by value. */
    default Journal journal(Source.Simulation source, List<?> definition) {
        return Journal.NONE;
    }

    /** Where answers are kept beyond the program's end. */
    default Answers answers() {
        return Answers.NONE;
    }

    /** Told after a study was computed: what it does not use can be let go. */
    default void settled(Study study) {}
}
