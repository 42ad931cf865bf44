package lane.evaluation;

/** Whether all that was integrated so far is integrated exactly, but for round-off. It is set by any thread and read after them. */
public final class Exactness {
    private volatile boolean lost;

    void of(boolean exact) {
        if (!exact) {
            lost = true;
        }
    }

    boolean lost() {
        return lost;
    }
}
