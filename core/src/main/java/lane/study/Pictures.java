package lane.study;

import java.util.List;

/**
 * What was kept of the field picture, and of charts.
 *
 * @param views by name
 * @param charts those that are not drawn as usual
 */
public record Pictures(List<SavedView> views, List<PictureNote> notes, List<ChartLook> charts) {
    public static final Pictures NONE = new Pictures(List.of(), List.of(), List.of());

    public Pictures {
        views = views == null ? List.of() : List.copyOf(views);
        notes = notes == null ? List.of() : List.copyOf(notes);
        charts = charts == null ? List.of() : List.copyOf(charts);
    }
}
