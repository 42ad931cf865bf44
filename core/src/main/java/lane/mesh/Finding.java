package lane.mesh;

import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Something about a mesh or a field that its user should know.
 *
 * @param text one sentence part: what, and what it means
 * @param count how many cells, nodes, faces or values it concerns
 * @param worst where it is, or is worst; null where it has no place
 */
public record Finding(
        Severity severity,
        String text,
        long count,
        @Nullable Point worst) {
    /** A number for a sentence, to so many significant digits, without trailing zeros. */
    public static String number(double v, int digits) {
        return lane.base.Figures.of(v, digits).plain(v);
    }

    /** What a text may count; one that begins otherwise is a statement about the whole. */
    private static final Set<String> COUNTED = Set.of("cells", "faces", "nodes", "values", "edges", "pieces");

    private static final Map<String, String> ONE =
            Map.of("are", "is", "have", "has", "do", "does", "belong", "belongs");

    /** Whether its text says what so many cells, nodes, faces or values are. */
    public boolean counted() {
        return counted(text);
    }

    private static boolean counted(String text) {
        return COUNTED.contains(text.split(" ", 2)[0]);
    }

    /** As a sentence: the count first where the text goes on from it. */
    public String told() {
        return told(text, count);
    }

    /** The same of a text and its count. */
    public static String told(String text, long count) {
        if (!counted(text)) {
            return text;
        }
        return count + " " + (count == 1 ? one(text) : text);
    }

    /** Nouns and verbs are many in these texts; names in quotes stay as they are. */
    private static String one(String text) {
        String[] quoted = text.split("\"", -1);
        quoted[0] = quoted[0].replaceFirst("^(\\w+)s\\b", "$1");
        for (int i = 0; i < quoted.length; i += 2) {
            Matcher verb = VERB.matcher(quoted[i]);
            if (verb.find()) {
                quoted[i] = verb.replaceFirst(ONE.get(verb.group()));
                break;
            }
        }
        return String.join("\"", quoted);
    }

    private static final Pattern VERB = Pattern.compile("\\b(are|have|do|belong)\\b");

    /** How much it matters. */
    public enum Severity {
        /** Worth knowing. */
        NOTE,
        /** Results may suffer. */
        WARNING,
        /** Results cannot be trusted where it is. */
        ERROR;

        public String word() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }
    }
}
