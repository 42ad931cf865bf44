package lane.formula;

/**
 * A piece of a formula's text.
 *
 * @param text what it says: without quotes, operators in their plain form
 */
public record Token(Kind kind, String text, Span span) {
    /** What a piece is, also for colouring. */
    public enum Kind {
        NUMBER,
        NAME,
        /** In double quotes: a unit behind a number, else a name. */
        QUOTED,
        OPERATOR,
        /** One character that cannot be read. */
        WRONG,
        END
    }

    boolean is(String operator) {
        return kind == Kind.OPERATOR && text.equals(operator);
    }

    /** Whether it is this word, written without quotes. */
    boolean word(String word) {
        return kind == Kind.NAME && text.equals(word);
    }

    String shown() {
        return kind == Kind.END ? "the end" : "\"" + text + "\"";
    }
}
