package lane.formats.study;

import java.util.Locale;

/** How far two words are from one another. */
final class Spelling {
    private Spelling() {}

    /** Letters to be put in, left out, changed or swapped with their neighbour, capitals aside (optimal string alignment). */
    static int distance(String one, String other) {
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
