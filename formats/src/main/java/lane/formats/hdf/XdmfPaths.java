package lane.formats.hdf;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.formats.io.FormatError;
import org.w3c.dom.Element;
import org.w3c.dom.Node;

/**
 * Follows the simple paths by which elements of XDMF refer to each other: names or {@code *} after {@code /} or {@code //},
 * with a number, {@code last()}, {@code @Attribute="value"} or {@code self::Name or self::Name} in brackets. The rest of what
 * a path language can is refused: paths that count or compare can take hours on a small file.
 */
final class XdmfPaths {
    private static final String IN_BRACKETS = "\\[(?:\"[^\"]*+\"|'[^']*+'|[^\\]\"'])*+\\]";
    private static final Pattern STEP =
            Pattern.compile("(//?)([A-Za-z_][\\w.:-]*+|\\*)((?:\\s*+" + IN_BRACKETS + ")*+)\\s*+");
    private static final Pattern BRACKET = Pattern.compile(IN_BRACKETS);
    private static final Pattern NUMBER = Pattern.compile("(?:position\\(\\)\\s*+=\\s*+)?+(\\d{1,9})");
    private static final Pattern ATTRIBUTE = Pattern.compile("@([\\w.:-]++)\\s*+=\\s*+(?:\"([^\"]*+)\"|'([^']*+)')");
    private static final Pattern SELF = Pattern.compile("self::([\\w.:-]++)");

    /** Elements that may be looked at in all for the references of a file. */
    private static final long MOST = 20_000_000;

    private final Map<String, List<Element>> known = new HashMap<>();
    private long looked;

    /**
     * The elements at a path, in the order of the document.
     *
     * @param root the document; the same at every call
     * @throws FormatError for a path that is not simple, or when all of them lead past too many elements
     */
    List<Element> find(String path, Node root) {
        List<Element> found = known.get(path);
        if (found == null) {
            found = search(path, root);
            known.put(path, found);
        }
        return found;
    }

    private List<Element> search(String path, Node root) {
        Matcher step = STEP.matcher(path);
        List<Node> at = new ArrayList<>(List.of(root));
        int end = 0;
        while (end < path.length()) {
            if (!step.find(end) || step.start() != end) {
                throw notSimple(path);
            }
            end = step.end();
            List<Node> next = new ArrayList<>();
            for (Node from : at) {
                step(from, step.group(1).length() == 2, step.group(2), brackets(step.group(3), path), next);
            }
            // Two ways can lead to one element.
            at = new ArrayList<>(new java.util.LinkedHashSet<>(next));
        }
        return at.stream()
                .filter(Element.class::isInstance)
                .map(Element.class::cast)
                .toList();
    }

    private void step(Node from, boolean below, String name, List<Bracket> brackets, List<Node> out) {
        List<Element> here = new ArrayList<>();
        List<Element> all = new ArrayList<>();
        for (Node n = from.getFirstChild(); n != null; n = n.getNextSibling()) {
            if (++looked > MOST) {
                throw FormatError.tooLarge("its references lead past more than " + MOST + " elements");
            }
            if (n instanceof Element e) {
                all.add(e);
                if (name.equals("*") || e.getTagName().equals(name)) {
                    here.add(e);
                }
            }
        }
        for (Bracket b : brackets) {
            here = b.of(here);
        }
        out.addAll(here);
        if (below) {
            all.forEach(e -> step(e, true, name, brackets, out));
        }
    }

    /** Which of the elements that one step finds below one element are meant. */
    private interface Bracket {
        List<Element> of(List<Element> found);
    }

    private static Bracket all(Predicate<Element> test) {
        return found -> found.stream().filter(test).toList();
    }

    private static List<Bracket> brackets(String text, String path) {
        List<Bracket> out = new ArrayList<>();
        Matcher each = BRACKET.matcher(text);
        while (each.find()) {
            String inside = text.substring(each.start() + 1, each.end() - 1).strip();
            Matcher number = NUMBER.matcher(inside);
            Matcher attribute = ATTRIBUTE.matcher(inside);
            if (number.matches()) {
                int n = Integer.parseInt(number.group(1));
                out.add(found -> n >= 1 && n <= found.size() ? List.of(found.get(n - 1)) : List.of());
            } else if (inside.equals("last()")) {
                out.add(found -> found.isEmpty() ? found : List.of(found.getLast()));
            } else if (attribute.matches()) {
                String value = attribute.group(2) == null ? attribute.group(3) : attribute.group(2);
                String key = attribute.group(1);
                out.add(all(e -> e.hasAttribute(key) && e.getAttribute(key).equals(value)));
            } else {
                List<String> names = new ArrayList<>();
                for (String one : inside.split("\\s+or\\s+", -1)) {
                    Matcher self = SELF.matcher(one.strip());
                    if (!self.matches()) {
                        throw notSimple(path);
                    }
                    names.add(self.group(1));
                }
                out.add(all(e -> names.contains(e.getTagName())));
            }
        }
        return out;
    }

    private static FormatError notSimple(String path) {
        return FormatError.unsupported("it refers to \"" + path.substring(0, Math.min(80, path.length()))
                + "\"; only paths of names with a number or an attribute in brackets are followed");
    }
}
