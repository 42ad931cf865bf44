package lane.formats.vtk;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.function.IntFunction;
import lane.field.Treatment;
import org.jspecify.annotations.Nullable;

/** Which stored component is which, by the names that a file gives to components: by the letters that they end with. */
final class ComponentOrder {
    private ComponentOrder() {}

    /**
     * For each component as it is used here the place where it is stored.
     *
     * @param names of a component by its number; null for none
     * @return null where they name none, or not each once
     */
    static int @Nullable [] of(int components, IntFunction<@Nullable String> names) {
        List<String> wanted = Treatment.components(components);
        if (wanted.isEmpty()) {
            return null;
        }
        int letters = wanted.getFirst().length();
        int[] at = new int[components];
        Arrays.fill(at, -1);
        for (int c = 0; c < components; c++) {
            String name = names.apply(c);
            String word = name == null ? "" : name.strip().toLowerCase(Locale.ROOT);
            if (word.length() < letters) {
                return null;
            }
            String last = word.substring(word.length() - letters);
            int which = wanted.indexOf(last);
            if (which < 0 && components == 6) {
                // Of a symmetric tensor yx is xy.
                which = wanted.indexOf(new StringBuilder(last).reverse().toString());
            }
            if (which < 0 || at[which] >= 0) {
                return null;
            }
            at[which] = c;
        }
        return at;
    }
}
