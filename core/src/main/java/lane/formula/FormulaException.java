package lane.formula;

import java.util.ArrayList;
import java.util.List;
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
    private final List<String> way;

    FormulaException(Span span, String sentence, boolean unfinished) {
        this(span, sentence, unfinished, Fault.FORMULA);
    }

    FormulaException(Span span, String sentence, boolean unfinished, Fault fault) {
        this(span, sentence, unfinished, fault, List.of());
    }

    private FormulaException(Span span, String sentence, boolean unfinished, Fault fault, List<String> way) {
        super(sentence);
        this.fault = fault;
        this.way = List.copyOf(way);
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

    /** The same trouble as seen from a formula that names the definition which has it. */
    FormulaException within(String definition, Span at) {
        List<String> longer = new ArrayList<>(List.of(definition));
        longer.addAll(way);
        return new FormulaException(at, root(), unfinished, fault, longer);
    }

    /** What is wrong, without where. */
    public String root() {
        return String.valueOf(super.getMessage());
    }

    /** The sentence: what is wrong, once, and through which definitions it is reached. */
    @Override
    public String getMessage() {
        return way.isEmpty() ? root() : told(way);
    }

    /** The same as seen from a quantity. */
    public String of(String quantity) {
        List<String> all = new ArrayList<>(List.of(quantity));
        all.addAll(way);
        return "Quantity " + told(all);
    }

    private String told(List<String> names) {
        List<String> inner = names.subList(1, names.size());
        String because = inner.isEmpty()
                ? ""
                : " because of \"" + inner.getLast() + "\""
                        + (inner.size() == 1
                                ? ""
                                : ", by way of "
                                        + inner.subList(0, inner.size() - 1).stream()
                                                .map(n -> "\"" + n + "\"")
                                                .collect(java.util.stream.Collectors.joining(", ")));
        return "\"" + names.getFirst() + "\" cannot be computed" + because + ": " + root();
    }
}
