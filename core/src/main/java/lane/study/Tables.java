package lane.study;

import java.util.List;
import lane.reference.Recipe;
import lane.reference.Table;

/** Where the tables of a study are read. */
@FunctionalInterface
interface Tables {
    /**
     * A table, read as the recipe of its kind says.
     *
     * @param file relative to the study
     * @throws lane.base.LaneException with one sentence when the file cannot be used
     */
    Table table(String file, List<Recipe> recipes);
}
