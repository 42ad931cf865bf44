package lane.provenance;

/**
 * How a step of a trail is done. A program that repeats it asks whether it does it in the same way.
 *
 * @param name in words
 * @param version raised whenever the same input may give another number than before, be it by round-off
 */
public record Method(String name, int version) {
    /** The number was typed by somebody, and neither read nor computed. */
    public static final Method TYPED = new Method("typed by hand", 1);
}
