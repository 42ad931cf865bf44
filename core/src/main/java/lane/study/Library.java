package lane.study;

import lane.base.Work;
import lane.field.Run;
import lane.reference.Table;

/** Loads files for the evaluator. It must hand out the same object again as long as the file has not changed. */
public interface Library {
    /** @throws lane.base.LaneException with one sentence when the file cannot be used */
    Run run(Source.Simulation source, Work work);

    /** @param file relative to the study */
    Table table(String file);
}
