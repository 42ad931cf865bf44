package lane.study;

import java.util.List;
import lane.base.Work;
import lane.evaluation.SheetFiles;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.reference.Recipe;
import lane.reference.Table;

/** Loads files for the evaluator. It must hand out the same object again as long as the file has not changed. */
public interface Library extends SheetFiles {
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

    /** Told after a study was computed: what it does not use can be let go. */
    default void settled(Study study) {}
}
