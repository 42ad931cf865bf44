package lane.formula;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** Writes a tree as a formula again; what it writes is read back to the same tree. */
public final class Printer {
    private static final List<Set<String>> RANKS = List.of(
            Set.of("or"),
            Set.of("and"),
            Set.of("<", "<=", ">", ">=", "=", "!="),
            Set.of("+", "-"),
            Set.of("*", "/"),
            Set.of("^"));
    private static final int NOT = 2;
    private static final int SIGN = 6;
    private static final int OPERAND = 8;

    private Printer() {}

    public static String text(Node node) {
        return text(node, 0);
    }

    /** A name as it is written: in quotes where it would not be read as one. */
    public static String name(String name) {
        List<Token> tokens = Lexer.tokens(name);
        boolean plain = tokens.size() == 2
                && tokens.getFirst().kind() == Token.Kind.NAME
                && tokens.getFirst().text().equals(name);
        return plain ? name : "\"" + name.replace("\"", "\"\"") + "\"";
    }

    /** @param rank at least this tight, else it stands in brackets */
    private static String text(Node node, int rank) {
        return switch (node) {
            case Node.Num n -> number(n.value()) + (n.unit().isEmpty() ? "" : " \"" + n.unit() + "\"");
            case Node.Name n -> name(n.name());
            case Node.Member m -> text(m.of(), OPERAND) + "." + m.member();
            case Node.Unary u -> {
                boolean not = u.operator().equals("not");
                int own = not ? NOT : SIGN;
                yield bracketed((not ? "not " : "-") + text(u.of(), own), own < rank);
            }
            case Node.Binary b -> binary(b, rank);
            case Node.Call c ->
                c.function() + "(" + c.arguments().stream().map(Printer::text).collect(Collectors.joining(", ")) + ")";
            case Node.Reduction r ->
                r.kind() + "(" + text(r.body()) + " over "
                        + r.over().stream().map(p -> name(p.name())).collect(Collectors.joining(" + "))
                        + (r.weight() == null ? "" : " by " + text(r.weight())) + ")";
            case Node.Vector v -> "[" + v.parts().stream().map(Printer::text).collect(Collectors.joining(", ")) + "]";
            case Node.OfLane o -> text(o.body(), OPERAND) + " of " + name(o.lane());
            case Node.AtTime a -> text(a.body(), OPERAND) + " at " + text(a.time(), OPERAND + 1);
            case Node.InFrame f -> text(f.body(), OPERAND) + " in " + name(f.frame());
        };
    }

    private static String binary(Node.Binary b, int rank) {
        int own = 0;
        while (!RANKS.get(own).contains(b.operator())) {
            own++;
        }
        // Ranks count from 1, with the sign between product and power.
        own = own == 5 ? SIGN + 1 : own + 1;
        boolean power = b.operator().equals("^");
        boolean comparison = own == 3;
        String left = text(b.left(), power ? OPERAND : comparison ? own + 1 : own);
        String right = text(b.right(), power ? SIGN : own + 1);
        return bracketed(left + " " + b.operator() + " " + right, own < rank);
    }

    private static String bracketed(String text, boolean needed) {
        return needed ? "(" + text + ")" : text;
    }

    private static String number(double v) {
        return v == Math.rint(v) && Math.abs(v) < 1e15 ? String.valueOf((long) v) : String.valueOf(v);
    }
}
