package lane.provenance;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Where two definitions differ, as data. */
public final class DataDiff {
    private static final int LONG = 60;

    private DataDiff() {}

    /**
     * One phrase for each number, text or flag that differs, such as {@code shape.radius was 0.1 and is 0.12}; empty for the same.
     *
     * @param was as {@link Data} or as read from JSON
     */
    public static List<String> of(@Nullable Object was, @Nullable Object is) {
        List<String> out = new ArrayList<>();
        leaves("", was, is, out);
        return out;
    }

    /** Where two definitions differ, each with what it was and is. */
    private static void leaves(String path, @Nullable Object was, @Nullable Object is, List<String> out) {
        if (alike(was, is)) {
            return;
        }
        if (was instanceof Map<?, ?> a && is instanceof Map<?, ?> b) {
            var keys = new LinkedHashSet<Object>(a.keySet());
            keys.addAll(b.keySet());
            keys.forEach(k -> leaves(path.isEmpty() ? String.valueOf(k) : path + "." + k, a.get(k), b.get(k), out));
        } else if (was instanceof List<?> a && is instanceof List<?> b && a.size() == b.size()) {
            for (int i = 0; i < a.size(); i++) {
                leaves(path + "[" + (i + 1) + "]", a.get(i), b.get(i), out);
            }
        } else {
            out.add(path + " was " + brief(was) + " and is " + brief(is));
        }
    }

    private static String brief(@Nullable Object data) {
        String text = data == null ? "none" : Data.text(data);
        return text.length() <= LONG ? text : text.substring(0, LONG - 1) + "…";
    }

    /** The same data, whichever kind of number it was read as. */
    private static boolean alike(@Nullable Object a, @Nullable Object b) {
        if (a instanceof Number x && b instanceof Number y) {
            return Double.compare(x.doubleValue(), y.doubleValue()) == 0;
        }
        if (a instanceof Map<?, ?> x && b instanceof Map<?, ?> y) {
            return x.keySet().equals(y.keySet()) && x.keySet().stream().allMatch(k -> alike(x.get(k), y.get(k)));
        }
        if (a instanceof List<?> x && b instanceof List<?> y) {
            if (x.size() != y.size()) {
                return false;
            }
            for (int i = 0; i < x.size(); i++) {
                if (!alike(x.get(i), y.get(i))) {
                    return false;
                }
            }
            return true;
        }
        return Objects.equals(a, b);
    }
}
