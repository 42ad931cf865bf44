package lane.study;

import lane.base.LaneException;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * Words in the field picture at a place, with a number that stays true.
 *
 * @param id stable key within the study
 * @param text what it says; blank for the reading's name
 * @param reading key of the tally or balance whose number of the shown lane stands behind the words; blank for none
 */
public record PictureNote(
        String id, String text, String reading, @Nullable Point at) {
    public PictureNote {
        text = text == null ? "" : text;
        reading = reading == null ? "" : reading;
        if (text.isBlank() && reading.isBlank()) {
            throw new LaneException("A note in the picture needs words or a reading.");
        }
    }
}
