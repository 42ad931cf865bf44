package lane.formula;

/**
 * A stretch of a formula's text.
 *
 * @param to one after the last character
 */
public record Span(int from, int to) {

    Span with(Span other) {
        return new Span(Math.min(from, other.from), Math.max(to, other.to));
    }
}
