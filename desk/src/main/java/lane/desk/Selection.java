package lane.desk;

import java.util.EnumMap;
import java.util.Map;
import java.util.function.Supplier;
import lane.mesh.Point;
import lane.provenance.Provenance;
import org.jspecify.annotations.Nullable;

/** What is looked at: the open stop, the chosen thing of each kind, the marked place, and whose trail is shown. */
final class Selection {
    private final Runnable told;
    private final Map<Chosen, String> chosen = new EnumMap<>(Chosen.class);
    private int stop = 1;
    private int cameFrom;
    private Session.@Nullable Mark mark;
    private @Nullable Point picked;
    private Supplier<Provenance> trail = () -> Provenance.EMPTY;
    private String trailOf = "";

    /** @param told whenever something else is looked at */
    Selection(Runnable told) {
        this.told = told;
    }

    int stop() {
        return stop;
    }

    void go(int number) {
        stop = number;
        cameFrom = 0;
        told.run();
    }

    /** The stop from which the picture was looked at for once; 0 for none. */
    int cameFrom() {
        return cameFrom;
    }

    String of(Chosen what) {
        return chosen.getOrDefault(what, "");
    }

    void choose(Chosen what, String id) {
        if (what == Chosen.STATION && !of(what).isEmpty()) {
            mark = null;
        }
        if (!id.equals(of(what))) {
            chosen.put(what, id);
            told.run();
        }
    }

    Session.@Nullable Mark mark() {
        return mark;
    }

    void mark(Session.Mark wanted) {
        mark = wanted;
        int from = stop;
        go(2);
        cameFrom = from == 2 ? 0 : from;
        told.run();
    }

    @Nullable
    Point picked() {
        return picked;
    }

    void pick(Point place) {
        picked = place;
    }

    Provenance trail() {
        return trail.get();
    }

    String trailOf() {
        return trailOf;
    }

    /** @param of names what the trail belongs to */
    void show(String of, Supplier<Provenance> shown) {
        boolean other = !of.equals(trailOf);
        trailOf = of;
        trail = shown;
        if (other) {
            told.run();
        }
    }
}
