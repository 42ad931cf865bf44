package lane.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * Reads a formula's text into a tree, from the loosest operator to the tightest: {@code or}, {@code and}, {@code not},
 * comparison, sum, product, sign, power, what stands behind an operand. Words between operands are no reserved names: at
 * the place of an operand every name is a name.
 */
public final class Parser {
    private static final int LONGEST = 10_000;
    private static final int DEEPEST = 100;
    private static final int MOST_LINKS = 400;
    private static final Set<String> COMPARISONS = Set.of("<", "<=", ">", ">=", "=", "!=");
    /** Functions that may be taken over stations. */
    static final Set<String> REDUCTIONS = Set.of("mean", "integral", "min", "max", "flow");

    private final List<Token> tokens;
    private int at;
    private int depth;

    private Parser(String text) {
        tokens = Lexer.tokens(text);
    }

    /** @throws FormulaException with the wrong token */
    public static Node parse(String text) {
        if (text.length() > LONGEST) {
            throw new FormulaException(
                    new Span(LONGEST, text.length()),
                    "A formula of " + text.length() + " characters is too long; divide it into several of at most "
                            + LONGEST + ".");
        }
        var parser = new Parser(text);
        if (parser.now().kind() == Token.Kind.END) {
            throw new FormulaException(
                    parser.now().span(), "The formula is empty; write what is to be computed.", true);
        }
        Node node = parser.either();
        if (parser.now().kind() != Token.Kind.END) {
            throw parser.misplaced();
        }
        return node;
    }

    private Token now() {
        return tokens.get(at);
    }

    private Token next() {
        return tokens.get(Math.min(at + 1, tokens.size() - 1));
    }

    private Token take() {
        Token t = tokens.get(at);
        at = Math.min(at + 1, tokens.size() - 1);
        return t;
    }

    private boolean accept(String operator) {
        boolean is = now().is(operator);
        if (is) {
            take();
        }
        return is;
    }

    private Token expect(String operator, String after) {
        if (!now().is(operator)) {
            if (now().kind() == Token.Kind.END) {
                throw new FormulaException(
                        now().span(), "A \"" + operator + "\" is missing at the end, after " + after + ".", true);
            }
            throw misplaced();
        }
        return take();
    }

    /** The token that cannot stand where it does, an operand being complete before it. */
    private FormulaException misplaced() {
        Token t = now();
        if (t.kind() == Token.Kind.WRONG) {
            return wrong(t);
        }
        boolean operand = t.kind() == Token.Kind.NUMBER
                || t.kind() == Token.Kind.NAME
                || t.kind() == Token.Kind.QUOTED
                || t.is("(")
                || t.is("[");
        String mend = operand ? "put an operator such as * before it" : "remove it or complete what it belongs to";
        return new FormulaException(t.span(), t.shown() + " does not belong here; " + mend + ".");
    }

    private static FormulaException wrong(Token t) {
        if (t.text().startsWith("\"")) {
            return new FormulaException(t.span(), "The name or unit in quotes is not closed; end it with \".", true);
        }
        return new FormulaException(
                t.span(),
                "The character " + t.text() + " has no meaning in a formula; remove it or put the name in quotes.");
    }

    private void deeper(Span where) {
        if (++depth > DEEPEST) {
            throw new FormulaException(
                    where, "The formula is nested more than " + DEEPEST + " deep; divide it into several.");
        }
    }

    private Node either() {
        Node left = both();
        for (int n = 0; now().word("or"); n++) {
            Token o = link(n);
            Node right = both();
            left = binary("or", left, right, o);
        }
        return left;
    }

    private Node both() {
        Node left = negation();
        for (int n = 0; now().word("and"); n++) {
            Token o = link(n);
            Node right = negation();
            left = binary("and", left, right, o);
        }
        return left;
    }

    /**
     * The operator of a chain of equal rank.
     *
     * @param links so many it has already
     */
    private Token link(int links) {
        if (links >= MOST_LINKS) {
            throw new FormulaException(
                    now().span(),
                    "More than " + MOST_LINKS + " terms follow each other; divide the formula into several.");
        }
        return take();
    }

    private static Node binary(String operator, Node left, Node right, Token at) {
        return new Node.Binary(operator, left, right, left.span().with(right.span()), at.span());
    }

    private Node negation() {
        if (now().word("not") && operandBegins(next())) {
            Token o = take();
            deeper(o.span());
            Node of = negation();
            depth--;
            return new Node.Unary("not", of, o.span().with(of.span()));
        }
        return comparison();
    }

    private static boolean operandBegins(Token t) {
        return t.kind() == Token.Kind.NUMBER
                || t.kind() == Token.Kind.NAME && !INFIX.contains(t.text())
                || t.kind() == Token.Kind.QUOTED
                || t.is("(")
                || t.is("[");
    }

    private static final Set<String> INFIX = Set.of("or", "and", "over", "by", "of", "at", "in");

    private Node comparison() {
        Node left = sum();
        if (now().kind() == Token.Kind.OPERATOR && COMPARISONS.contains(now().text())) {
            Token o = take();
            Node right = sum();
            left = binary(o.text(), left, right, o);
            if (now().kind() == Token.Kind.OPERATOR && COMPARISONS.contains(now().text())) {
                throw new FormulaException(
                        now().span(), "Two comparisons cannot follow each other; join them with \"and\".");
            }
        }
        return left;
    }

    private Node sum() {
        Node left = product();
        for (int n = 0; now().is("+") || now().is("-"); n++) {
            Token o = link(n);
            Node right = product();
            left = binary(o.text(), left, right, o);
        }
        return left;
    }

    private Node product() {
        Node left = sign();
        for (int n = 0; now().is("*") || now().is("/"); n++) {
            Token o = link(n);
            Node right = sign();
            left = binary(o.text(), left, right, o);
        }
        return left;
    }

    private Node sign() {
        if (now().is("-") || now().is("+")) {
            Token o = take();
            deeper(o.span());
            Node of = sign();
            depth--;
            return o.is("+") ? of : new Node.Unary("-", of, o.span().with(of.span()));
        }
        return power();
    }

    private Node power() {
        Node base = behind();
        if (now().is("^")) {
            Token o = take();
            deeper(o.span());
            Node exponent = sign();
            depth--;
            return binary("^", base, exponent, o);
        }
        return base;
    }

    /** An operand and what stands behind it: components, raised digits, lane, time, frame. */
    private Node behind() {
        Node node = operand();
        int own = 0;
        while (true) {
            Token t = now();
            if (t.is(".")) {
                take();
                Token member = now();
                if (member.kind() == Token.Kind.END) {
                    throw new FormulaException(member.span(), "A component is missing after the point.", true);
                }
                if (member.kind() != Token.Kind.NAME) {
                    throw new FormulaException(
                            member.span(), member.shown() + " is no component; write one such as .x, .xy or .radial.");
                }
                take();
                node = new Node.Member(node, member.text(), node.span().with(member.span()), member.span());
            } else if (t.is("²") || t.is("³")) {
                take();
                Node exponent = new Node.Num(t.is("²") ? 2 : 3, "", t.span(), t.span());
                node = new Node.Binary("^", node, exponent, node.span().with(t.span()), t.span());
            } else if (t.word("of")) {
                take();
                Token lane = name("a lane");
                node = new Node.OfLane(node, lane.text(), node.span().with(lane.span()), lane.span());
            } else if (t.word("in")) {
                take();
                Token frame = name("a frame");
                node = new Node.InFrame(node, frame.text(), node.span().with(frame.span()), frame.span());
            } else if (t.word("at")) {
                take();
                deeper(t.span());
                Node time = operand();
                depth--;
                node = new Node.AtTime(node, time, node.span().with(time.span()));
            } else {
                depth -= own;
                return node;
            }
            // Each stands one deeper in the tree.
            own++;
            deeper(node.span());
        }
    }

    private Token name(String what) {
        Token t = now();
        if (t.kind() == Token.Kind.END) {
            throw new FormulaException(t.span(), "The name of " + what + " is missing at the end.", true);
        }
        if (t.kind() != Token.Kind.NAME && t.kind() != Token.Kind.QUOTED) {
            throw t.kind() == Token.Kind.WRONG
                    ? wrong(t)
                    : new FormulaException(
                            t.span(),
                            t.shown() + " is no name of " + what + "; write its name, in quotes if it holds spaces.");
        }
        return take();
    }

    private Node operand() {
        Token t = now();
        switch (t.kind()) {
            case NUMBER -> {
                take();
                return number(t);
            }
            case QUOTED -> {
                take();
                return new Node.Name(t.text(), t.span());
            }
            case NAME -> {
                take();
                return now().is("(") ? call(t) : new Node.Name(t.text(), t.span());
            }
            case END ->
                throw new FormulaException(
                        t.span(), "The formula ends too early: a value is missing" + before() + ".", true);
            case WRONG -> throw wrong(t);
            case OPERATOR -> {
                if (t.is("(") || t.is("[")) {
                    return t.is("(") ? bracketed() : vector();
                }
                throw new FormulaException(
                        t.span(),
                        t.shown() + " cannot stand here: a value is missing" + before()
                                + "; write a number, a name or (.");
            }
        }
        throw new IllegalStateException("a kind of token was forgotten");
    }

    private String before() {
        return at == 0 ? "" : " after " + tokens.get(at - 1).shown();
    }

    private Node bracketed() {
        Token open = take();
        deeper(open.span());
        Node inner = either();
        expect(")", "what is in brackets");
        depth--;
        return inner;
    }

    private Node vector() {
        Token open = take();
        deeper(open.span());
        List<Node> parts = new ArrayList<>();
        do {
            parts.add(either());
        } while (accept(","));
        Token close = expect("]", "the components");
        depth--;
        Span span = open.span().with(close.span());
        if (parts.size() != 3) {
            throw new FormulaException(span, "A vector has 3 components and not " + parts.size() + ".");
        }
        return new Node.Vector(parts, span);
    }

    private Node number(Token t) {
        double value = Double.parseDouble(t.text());
        if (Double.isInfinite(value)) {
            throw new FormulaException(t.span(), t.text() + " is too large a number.");
        }
        if (now().kind() == Token.Kind.QUOTED) {
            Token unit = take();
            return new Node.Num(value, unit.text(), t.span().with(unit.span()), unit.span());
        }
        return new Node.Num(value, "", t.span(), t.span());
    }

    private Node call(Token name) {
        Token open = take();
        deeper(open.span());
        List<Node> arguments = new ArrayList<>();
        if (!now().is(")")) {
            arguments.add(either());
            if (now().word("over") && REDUCTIONS.contains(name.text())) {
                return reduction(name, arguments.getFirst());
            }
            while (accept(",")) {
                arguments.add(either());
            }
            if (now().word("over")) {
                throw new FormulaException(
                        now().span(),
                        "\"" + name.text()
                                + "\" is not taken over a station; that are mean, integral, min, max and flow.");
            }
        }
        Token close = expect(")", "the arguments of " + name.text());
        depth--;
        return new Node.Call(name.text(), arguments, name.span().with(close.span()), name.span());
    }

    private Node reduction(Token name, Node body) {
        List<Node.Place> places = new ArrayList<>();
        do {
            take();
            Token place = name("a station");
            places.add(new Node.Place(place.text(), place.span()));
        } while (now().is("+"));
        Node weight = null;
        if (now().word("by")) {
            take();
            weight = either();
        }
        Token close = expect(")", "the station");
        depth--;
        return new Node.Reduction(name.text(), body, places, weight, name.span().with(close.span()), name.span());
    }
}
