package lane.base;

/**
 * An input or a definition that cannot be used. The message is one whole sentence for the user: what is wrong, where,
 * and what to do.
 */
public final class LaneException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public LaneException(String sentence) {
        super(oneLine(sentence));
    }

    public LaneException(String sentence, Throwable cause) {
        super(oneLine(sentence), cause);
    }

    /** What is quoted from a file may hold line ends and worse. */
    private static String oneLine(String message) {
        return message.replaceAll("[\\p{Cntrl}\\u0085\\u2028\\u2029]+", " ");
    }
}
