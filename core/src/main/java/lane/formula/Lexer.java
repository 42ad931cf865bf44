package lane.formula;

import java.util.ArrayList;
import java.util.List;

/** Cuts a formula's text into tokens. Every text can be cut; what cannot be read becomes a wrong token. */
public final class Lexer {
    private static final String[] LONG = {"<=", ">=", "!=", "=="};
    private static final String SINGLE = "+-*/^<>=(),.[]";
    /** Other ways to write operators, and their plain form. */
    private static final String[][] SAME = {
        {"−", "-"}, {"–", "-"}, {"·", "*"}, {"×", "*"}, {"⋅", "*"}, {"÷", "/"}, {"≤", "<="}, {"≥", ">="}, {"≠", "!="}
    };

    private final String text;
    private int at;

    private Lexer(String text) {
        this.text = text;
    }

    /** All tokens, the last one the end. */
    public static List<Token> tokens(String text) {
        var lexer = new Lexer(text);
        List<Token> out = new ArrayList<>();
        Token next;
        do {
            next = lexer.next();
            out.add(next);
        } while (next.kind() != Token.Kind.END);
        return out;
    }

    private Token token(Token.Kind kind, String said, int from) {
        return new Token(kind, said, new Span(from, at));
    }

    private Token next() {
        while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
            at++;
        }
        int from = at;
        if (at >= text.length()) {
            return token(Token.Kind.END, "", from);
        }
        char c = text.charAt(at);
        boolean point = c == '.' && at + 1 < text.length() && digit(text.charAt(at + 1));
        if (digit(c) || point) {
            return number(from);
        }
        if (c == '"') {
            return quoted(from);
        }
        int code = text.codePointAt(at);
        if (Character.isLetter(code) || c == '_' || c == '°') {
            while (at < text.length() && part(text.codePointAt(at))) {
                at += Character.charCount(text.codePointAt(at));
            }
            return token(Token.Kind.NAME, text.substring(from, at), from);
        }
        int raised = "²³".indexOf(c);
        if (raised >= 0) {
            at++;
            return token(Token.Kind.OPERATOR, raised == 0 ? "²" : "³", from);
        }
        for (String o : LONG) {
            if (text.startsWith(o, at)) {
                at += o.length();
                return token(Token.Kind.OPERATOR, o.equals("==") ? "=" : o, from);
            }
        }
        for (String[] s : SAME) {
            if (text.startsWith(s[0], at)) {
                at += s[0].length();
                return token(Token.Kind.OPERATOR, s[1], from);
            }
        }
        at += Character.charCount(code);
        boolean known = SINGLE.indexOf(c) >= 0;
        return token(known ? Token.Kind.OPERATOR : Token.Kind.WRONG, text.substring(from, at), from);
    }

    private static boolean digit(char c) {
        return c >= '0' && c <= '9';
    }

    private static boolean part(int code) {
        int type = Character.getType(code);
        return Character.isLetterOrDigit(code)
                || code == '_'
                || code == '°'
                || type == Character.NON_SPACING_MARK
                || type == Character.COMBINING_SPACING_MARK;
    }

    private Token number(int from) {
        digits();
        if (at < text.length() && text.charAt(at) == '.') {
            at++;
            digits();
        }
        if (at < text.length() && (text.charAt(at) == 'e' || text.charAt(at) == 'E')) {
            int mark = at++;
            if (at < text.length() && (text.charAt(at) == '+' || text.charAt(at) == '-' || text.charAt(at) == '−')) {
                at++;
            }
            int first = at;
            digits();
            at = at == first ? mark : at;
        }
        return token(Token.Kind.NUMBER, text.substring(from, at).replace('−', '-'), from);
    }

    private void digits() {
        while (at < text.length() && digit(text.charAt(at))) {
            at++;
        }
    }

    /** A quote within a name is doubled. */
    private Token quoted(int from) {
        var said = new StringBuilder();
        at++;
        while (at < text.length()) {
            char c = text.charAt(at++);
            if (c != '"') {
                said.append(c);
            } else if (at < text.length() && text.charAt(at) == '"') {
                said.append(c);
                at++;
            } else {
                return token(Token.Kind.QUOTED, said.toString(), from);
            }
        }
        return token(Token.Kind.WRONG, text.substring(from, at), from);
    }
}
