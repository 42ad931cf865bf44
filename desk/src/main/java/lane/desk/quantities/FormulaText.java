package lane.desk.quantities;

import java.util.List;
import java.util.Set;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import lane.formula.Functions;
import lane.formula.Lexer;
import lane.formula.Token;

/** A formula in colours: functions and words teal, stations purple, numbers and units ochre; the wrong token underlined. */
final class FormulaText {
    private static final Set<String> WORDS = Set.of("over", "by", "of", "at", "in", "and", "or", "not");

    private FormulaText() {}

    /** @param from first and {@code to} one after the last character that is wrong; both 0 for none */
    static TextFlow of(String formula, int from, int to) {
        var flow = new TextFlow();
        flow.getStyleClass().add("formula");
        List<Token> tokens = Lexer.tokens(formula);
        int at = 0;
        boolean place = false;
        for (int i = 0; i < tokens.size(); i++) {
            Token t = tokens.get(i);
            piece(flow, formula, at, t.span().from(), "formula-plain", false);
            Token next = tokens.get(Math.min(i + 1, tokens.size() - 1));
            Token before = tokens.get(Math.max(0, i - 1));
            boolean name = t.kind() == Token.Kind.NAME || t.kind() == Token.Kind.QUOTED;
            boolean afterNumber = i > 0 && before.kind() == Token.Kind.NUMBER;
            String style =
                    switch (t.kind()) {
                        case NUMBER -> "formula-number";
                        case QUOTED -> afterNumber ? "formula-number" : place ? "formula-place" : "formula-plain";
                        case NAME ->
                            next.text().equals("(") && Functions.of(t.text()) != null
                                            || i > 0 && WORDS.contains(t.text())
                                    ? "formula-word"
                                    : place ? "formula-place" : "formula-plain";
                        default -> "formula-plain";
                    };
            // Stations follow "over", and each other with a plus between.
            place = t.text().equals("over") && i > 0
                    || place && (name || t.text().equals("+"));
            boolean wrong = to > from && t.span().from() < to && t.span().to() > from;
            piece(flow, formula, t.span().from(), t.span().to(), style, wrong);
            at = t.span().to();
        }
        if (to > from && from >= formula.length() || to == from && from > 0) {
            piece(flow, " ", 0, 1, "formula-plain", true);
        }
        return flow;
    }

    private static void piece(TextFlow flow, String text, int from, int to, String style, boolean wrong) {
        if (to > from) {
            var piece = new Text(text.substring(from, to));
            piece.getStyleClass().addAll("formula-text", style);
            if (wrong) {
                piece.getStyleClass().add("formula-wrong");
                piece.setUnderline(true);
            }
            flow.getChildren().add(piece);
        }
    }
}
