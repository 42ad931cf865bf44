package lane.base;

import java.util.Arrays;
import java.util.Collection;
import java.util.Locale;
import java.util.Optional;

/** What somebody may have meant who wrote a name that is none. */
public final class Near {
    private Near() {}

    /** The nearest of some names, where one is near enough to be meant: a third of its letters may differ. */
    public static Optional<String> of(String typed, Collection<String> names) {
        String best = null;
        int least = Math.max(1, typed.length() / 3) + 1;
        for (String name : names) {
            int d = letters(typed, name);
            // Where every letter differs nothing is near.
            if (d < Math.min(least, Math.max(1, typed.length()))) {
                least = d;
                best = name;
            }
        }
        return Optional.ofNullable(best);
    }

    /** How far typed letters are from the nearest run of words of a text that has as many words. */
    public static int distance(String typed, String text) {
        String wanted = typed.toLowerCase(Locale.ROOT).strip();
        String[] words = text.toLowerCase(Locale.ROOT).strip().split("\\s+");
        int many = wanted.split("\\s+").length;
        int least = Integer.MAX_VALUE;
        for (int i = 0; i + many <= words.length; i++) {
            least = Math.min(least, letters(wanted, String.join(" ", Arrays.copyOfRange(words, i, i + many))));
        }
        return least;
    }

    /** Letters to be put in, left out, changed or swapped with their neighbour, capitals aside (optimal string alignment). */
    public static int letters(String one, String other) {
        String a = one.toLowerCase(Locale.ROOT);
        String b = other.toLowerCase(Locale.ROOT);
        if (Math.abs(a.length() - b.length()) > 40 || a.length() > 200) {
            return Integer.MAX_VALUE;
        }
        int[][] d = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) {
            for (int j = 0; j <= b.length(); j++) {
                if (i == 0 || j == 0) {
                    d[i][j] = i + j;
                    continue;
                }
                int same = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
                d[i][j] = Math.min(Math.min(d[i - 1][j], d[i][j - 1]) + 1, d[i - 1][j - 1] + same);
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1)) {
                    d[i][j] = Math.min(d[i][j], d[i - 2][j - 2] + 1);
                }
            }
        }
        return d[a.length()][b.length()];
    }
}
