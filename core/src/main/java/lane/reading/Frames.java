package lane.reading;

import lane.base.Fault;
import lane.base.LaneException;
import lane.mesh.Axis;
import org.jspecify.annotations.Nullable;

/** Frames that readings are in. */
final class Frames {
    private Frames() {}

    /** @throws LaneException for a frame that the study has not */
    static Axis known(String frame, @Nullable Axis placed) {
        if (placed == null) {
            throw new LaneException(
                    Fault.MISSING, "There is no frame \"" + frame + "\" in the study; choose another, or space.");
        }
        return placed;
    }
}
