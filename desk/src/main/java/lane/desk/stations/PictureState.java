package lane.desk.stations;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/** How the field picture is looked at: what a person chose, and nothing that is computed. */
final class PictureState {
    /** Numbers of streamlines that stand beside the quantities. */
    static final String TIME = "time along streamlines";

    static final String LENGTH = "length along streamlines";

    /** Keys of the shown lane and of one beside it, blank for none. */
    String lane = "";

    String beside = "";
    /** Whether the second picture shows the difference of the lane to the one beside it. */
    boolean difference;

    String quantity = "";
    boolean shaded = true;
    boolean edges;
    boolean flat;
    Colouring colouring = Colouring.FIRST;
    /** Parts that are see-through, and parts that are not shown. */
    final Set<String> clear = new HashSet<>(Set.of("shell"));

    final Set<String> hidden = new HashSet<>();
    /** What is drawn besides, as a word and the key of the station. */
    final Set<String> options = new HashSet<>();
    /** Stations whose surfaces are shown besides the selected one. */
    final Set<String> drawn = new HashSet<>();
    /** Places that are measured between; null when nothing is measured. */
    @Nullable
    List<Point> measured;

    boolean option(String what, String station) {
        return options.contains(what + " " + station);
    }

    static <T> void toggle(Set<T> set, T item) {
        if (!set.remove(item)) {
            set.add(item);
        }
    }

    /** The fourth place begins anew. */
    void measure(Point place) {
        if (measured == null || measured.size() == 3) {
            measured = new ArrayList<>();
        }
        measured.add(place);
    }
}
