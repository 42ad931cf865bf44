package lane.study;

import java.util.List;

/**
 * What was kept of the field picture.
 *
 * @param views by name
 */
public record Pictures(List<SavedView> views, List<PictureNote> notes) {
    public static final Pictures NONE = new Pictures(List.of(), List.of());

    public Pictures {
        views = views == null ? List.of() : List.copyOf(views);
        notes = notes == null ? List.of() : List.copyOf(notes);
    }
}
