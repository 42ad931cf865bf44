package lane.cli;

import java.nio.file.Path;
import java.util.List;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Field;
import lane.field.Run;
import lane.formats.DatasetReader;
import lane.formats.grid.Dataset;

/** A file as a run of its own, in its own units, for verbs that need no study. */
final class OneRun {
    private OneRun() {}

    /** @throws LaneException with one sentence when the path or the file cannot be used */
    static Dataset dataset(String file) {
        return DatasetReader.read(path(file), Work.QUIET);
    }

    /** @throws LaneException with one sentence when there can be no such path */
    static Path path(String file) {
        try {
            return Path.of(file);
        } catch (java.nio.file.InvalidPathException e) {
            throw new LaneException("\"" + file + "\" is no path on this machine; correct it.", e);
        }
    }

    static Run read(String file) {
        Dataset d = dataset(file);
        return new Run(d.mesh(), d.fields(), List.of(), List.of(), d.remarks());
    }

    /** @throws LaneException naming the fields there are */
    static Field field(Run run, String name) {
        return run.field(name)
                .orElseThrow(() -> new LaneException("There is no field \"" + name + "\" in the file; it has "
                        + (run.fields().isEmpty()
                                ? "none."
                                : Plain.names(run.fields().stream()
                                                .map(Field::name)
                                                .toList()) + ".")));
    }
}
