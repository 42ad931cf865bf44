package lane.base;

/**
 * An input or a definition that cannot be used. The message is one whole sentence for the user: what is wrong, where,
 * and what to do. Programs ask for its {@link Fault}; nobody searches the sentence.
 */
public class LaneException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final Fault fault;

    public LaneException(String sentence) {
        this(Fault.REFUSED, sentence);
    }

    public LaneException(Fault fault, String sentence) {
        super(oneLine(sentence));
        this.fault = fault;
    }

    public LaneException(String sentence, Throwable cause) {
        this(cause instanceof LaneException l ? l.fault() : Fault.REFUSED, sentence, cause);
    }

    public LaneException(Fault fault, String sentence, Throwable cause) {
        super(oneLine(sentence), cause);
        this.fault = fault;
    }

    public final Fault fault() {
        return fault;
    }

    /** What is quoted from a file may hold line ends and worse. */
    private static String oneLine(String message) {
        return message.replaceAll("[\\p{Cntrl}\\u0085\\u2028\\u2029]+", " ");
    }

    /** The sentence. */
    @Override
    public String getMessage() {
        return String.valueOf(super.getMessage());
    }
}
