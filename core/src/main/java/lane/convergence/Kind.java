package lane.convergence;

/** How a sequence of refined values behaves. */
public enum Kind {
    /** The changes have one sign and shrink as an order above zero says. */
    MONOTONE("monotone"),
    /** The changes alternate in sign and shrink. */
    OSCILLATORY("oscillatory"),
    /** The changes do not shrink. */
    DIVERGENT("divergent"),
    /** A change is as small as the round-off of the values, so that no order can be told. */
    TOO_CLOSE("too close to tell"),
    /** Of two meshes only the change is known. */
    TWO("two meshes");

    private final String word;

    Kind(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }
}
