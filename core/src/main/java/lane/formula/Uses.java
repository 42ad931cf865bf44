package lane.formula;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

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
                    case Node.Call c ->
                        List.of("table", "grad", "div", "curl", "jump").contains(c.function());
                    default -> false;
                };
        return own || node.parts().stream().anyMatch(Uses::beyond);
    }

    /** What a name in a formula is the name of. */
    public enum Kind {
        VALUE,
        STATION,
        LANE,
        FRAME
    }

    /**
     * A formula's text with a name replaced wherever it stands for one of a kind, all else as it was typed.
     *
     * @throws FormulaException when the text cannot be read
     */
    public static String renamed(String text, Kind kind, String from, String to) {
        var spans = new TreeMap<Integer, Span>();
        find(Parser.parse(text), kind, from, spans);
        String out = text;
        for (Span s : spans.descendingMap().values()) {
            out = out.substring(0, s.from()) + Printer.name(to) + out.substring(s.to());
        }
        return out;
    }

    private static void find(Node node, Kind kind, String name, Map<Integer, Span> out) {
        boolean table = node instanceof Node.Call c
                && c.function().equals("table")
                && !c.arguments().isEmpty();
        List<Node> parts = table ? List.of(((Node.Call) node).arguments().getLast()) : node.parts();
        parts.forEach(p -> find(p, kind, name, out));
        List<Span> own =
                switch (node) {
                    case Node.Name n when kind == Kind.VALUE && n.name().equals(name) -> List.of(n.span());
                    case Node.Reduction r
                    when kind == Kind.STATION ->
                        r.over().stream()
                                .filter(p -> p.name().equals(name))
                                .map(Node.Place::span)
                                .toList();
                    case Node.OfLane o when kind == Kind.LANE && o.lane().equals(name) -> List.of(o.laneSpan());
                    // A table may be told by the reference that it belongs to.
                    case Node.Call c
                    when table
                            && kind == Kind.LANE
                            && c.arguments().getFirst() instanceof Node.Name n
                            && n.name().equals(name) -> List.of(n.span());
                    case Node.InFrame f when kind == Kind.FRAME && f.frame().equals(name) -> List.of(f.frameSpan());
                    default -> List.of();
                };
        own.forEach(s -> out.put(s.from(), s));
    }
}
