package lane.mesh;

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
