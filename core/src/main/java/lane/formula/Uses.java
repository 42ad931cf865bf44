package lane.formula;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** Names in a formula, and formulas with other names in it. */
public final class Uses {
    private Uses() {}

    /** All names of values, in the order in which they come. */
    public static Set<String> names(Node node) {
        var out = new LinkedHashSet<String>();
        collect(node, out);
        return out;
    }

    private static void collect(Node node, Set<String> out) {
        if (node instanceof Node.Name n) {
            out.add(n.name());
        }
        // The names of a table and its column are no values.
        List<Node> parts = node instanceof Node.Call c
                        && c.function().equals("table")
                        && !c.arguments().isEmpty()
                ? List.of(c.arguments().getLast())
                : node.parts();
        parts.forEach(p -> collect(p, out));
    }

    /** Names of stations that something is taken over. */
    public static Set<String> stations(Node node) {
        var out = new LinkedHashSet<String>();
        stations(node, out);
        return out;
    }

    private static void stations(Node node, Set<String> out) {
        if (node instanceof Node.Reduction r) {
            r.over().forEach(p -> out.add(p.name()));
        }
        node.parts().forEach(p -> stations(p, out));
    }

    /** Whether it needs more than the place itself: stations, other lanes or times, tables, gradients. */
    public static boolean beyond(Node node) {
        boolean own =
                switch (node) {
                    case Node.Reduction _, Node.OfLane _, Node.AtTime _ -> true;
                    case Node.Call c -> List.of("table", "grad", "div", "curl").contains(c.function());
                    default -> false;
                };
        return own || node.parts().stream().anyMatch(Uses::beyond);
    }

    /**
     * A formula's text with a name of values replaced wherever it stands for one, all else as it was typed.
     *
     * @throws FormulaException when the text cannot be read
     */
    public static String renamed(String text, String from, String to) {
        return replaced(
                text,
                Parser.parse(text),
                n -> n instanceof Node.Name name && name.name().equals(from) ? Printer.name(to) : null);
    }

    /** The same with the name of a station. */
    public static String stationRenamed(String text, String from, String to) {
        Node node = Parser.parse(text);
        var spans = new java.util.TreeMap<Integer, Span>();
        places(node, from, spans);
        String out = text;
        for (Span s : spans.descendingMap().values()) {
            out = out.substring(0, s.from()) + Printer.name(to) + out.substring(s.to());
        }
        return out;
    }

    private static void places(Node node, String name, java.util.Map<Integer, Span> out) {
        if (node instanceof Node.Reduction r) {
            r.over().stream()
                    .filter(p -> p.name().equals(name))
                    .forEach(p -> out.put(p.span().from(), p.span()));
        }
        node.parts().forEach(p -> places(p, name, out));
    }

    private static String replaced(String text, Node node, java.util.function.Function<Node, String> by) {
        var spans = new java.util.TreeMap<Integer, String[]>();
        find(node, by, spans);
        String out = text;
        for (var e : spans.descendingMap().entrySet()) {
            out = out.substring(0, e.getKey()) + e.getValue()[0] + out.substring(Integer.parseInt(e.getValue()[1]));
        }
        return out;
    }

    private static void find(
            Node node, java.util.function.Function<Node, String> by, java.util.Map<Integer, String[]> out) {
        String made = by.apply(node);
        if (made != null) {
            out.put(
                    node.span().from(),
                    new String[] {made, String.valueOf(node.span().to())});
        }
        List<Node> parts = node instanceof Node.Call c
                        && c.function().equals("table")
                        && !c.arguments().isEmpty()
                ? List.of(c.arguments().getLast())
                : node.parts();
        parts.forEach(p -> find(p, by, out));
    }
}
