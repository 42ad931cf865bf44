package lane.formats.cluster;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.formats.io.AtomicFile;
import lane.study.Piece;

/**
 * What is to be computed on the cluster, as it stands in its file.
 *
 * @param study a copy of it as it was when the plan was made, beside the plan
 * @param named its own file
 * @param folder that the study's paths start from
 * @param runs files that were given for runs, by key of the lane
 * @param pieces in the order in which tasks take them
 * @param settings how it is spread
 * @param jobs numbers of the arrays that were submitted, the last one last
 */
record SpreadPlan(
        String study,
        String named,
        String folder,
        Map<String, String> runs,
        List<String> formats,
        List<Named> pieces,
        Settings settings,
        List<Attempt> jobs) {
    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    /** A piece with what it is known by. */
    record Named(String id, Piece piece) {}

    /**
     * How work is spread.
     *
     * @param nodes tasks that run at once at most; 0 for as many as the cluster lets
     * @param perJob pieces that a task makes one after the other
     * @param options of the scheduler
     */
    record Settings(int nodes, int perJob, List<String> options) {
        Settings {
            options = List.copyOf(options);
        }
    }

    /** An array that was submitted: which pieces each of its tasks makes. */
    record Attempt(String job, List<List<String>> tasks) {}

    SpreadPlan {
        pieces = List.copyOf(pieces);
        jobs = List.copyOf(jobs);
    }

    SpreadPlan with(Attempt more) {
        var all = new java.util.ArrayList<>(jobs);
        all.add(more);
        return new SpreadPlan(study, named, folder, runs, formats, pieces, settings, all);
    }

    static Path file(Path spread) {
        return spread.resolve("plan.json");
    }

    void save(Path spread) {
        try {
            AtomicFile.write(file(spread), MAPPER.writeValueAsString(this) + "\n");
        } catch (JacksonException e) {
            throw new IllegalStateException("a plan is plain data", e);
        }
    }

    /** @throws LaneException where there is none */
    static SpreadPlan load(Path spread) {
        Path file = file(spread);
        try {
            return MAPPER.readValue(Files.readString(file), SpreadPlan.class);
        } catch (JacksonException e) {
            throw new LaneException(
                    "The plan " + file + " cannot be read: " + e.getOriginalMessage()
                            + "; evaluate the study on the cluster again.",
                    e);
        } catch (IOException e) {
            throw new LaneException(
                    "There is no plan of an evaluation on a cluster in " + spread.getParent()
                            + "; give the folder that --out named.",
                    e);
        }
    }
}
