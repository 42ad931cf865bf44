package lane.evaluation;

import java.util.Optional;
import lane.mesh.Mesh;
import lane.provenance.Provenance;

/** Surfaces that stations are made of, by the names of their files. */
public interface SheetFiles {
    /** No files. */
    SheetFiles NONE = file -> {
        throw new lane.base.LaneException(
                "The sheet " + file + " cannot be read here; open the study from its folder.");
    };

    /**
     * A surface as its file has it, in the file's own unit; the same object as long as the file has not changed.
     *
     * @param file relative to the study
     * @throws lane.base.LaneException when it cannot be read, or holds no surface
     */
    Mesh sheet(String file);

    /** The file by content; empty where it has none. */
    default Optional<Provenance.Input> sheetInput(String file) {
        return Optional.empty();
    }
}
