package lane.base;

/**
 * An input or a definition that cannot be used. The message is one whole sentence for the user: what is wrong, where,
 * and what to do.
 */
public final class LaneException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public LaneException(String sentence) {
        super(sentence);
    }

    public LaneException(String sentence, Throwable cause) {
        super(sentence, cause);
    }
}
