package lane.formula;

import lane.base.Fault;

/**
 * A formula that cannot be used, with the place in its text. The message is one whole sentence.
 *
 * <p>Wrong is told from unfinished: an unfinished formula may become right by typing on.
 */
public final class FormulaException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final int from;
    private final int to;
    private final boolean unfinished;
    private final Fault fault;

    FormulaException(Span span, String sentence, boolean unfinished) {
        this(span, sentence, unfinished, Fault.FORMULA);
    }

    FormulaException(Span span, String sentence, boolean unfinished, Fault fault) {
        super(sentence);
        this.fault = fault;
        this.from = span.from();
        this.to = span.to();
        this.unfinished = unfinished;
    }

    FormulaException(Span span, String sentence) {
        this(span, sentence, false);
    }

    /** First character of the wrong token. */
    public int from() {
        return from;
    }

    /** One after its last character; the length of the text where something is missing at the end. */
    public int to() {
        return to;
    }

    /** What kind of trouble it is; {@link Fault#FORMULA} where the text itself is wrong. */
    public Fault fault() {
        return fault;
    }

    public boolean unfinished() {
        return unfinished;
    }

    /** The sentence. */
    @Override
    public String getMessage() {
        return String.valueOf(super.getMessage());
    }
}
