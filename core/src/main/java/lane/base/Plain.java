package lane.base;

import java.text.Normalizer;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * Text that came from files, made harmless for where it goes: names, units and titles are anybody's, and may hold what a
 * terminal, a spreadsheet or a file system would act on.
 */
public final class Plain {
    private static final Set<String> DEVICES = Set.of(
            "con", "prn", "aux", "nul", "com1", "com2", "com3", "com4", "com5", "com6", "com7", "com8", "com9", "lpt1",
            "lpt2", "lpt3", "lpt4", "lpt5", "lpt6", "lpt7", "lpt8", "lpt9");
    private static final int LONGEST = 120;

    private Plain() {}

    /**
     * One line for a terminal, a log or a label: controls, line ends and marks that turn the direction of writing become
     * spaces. Halves of surrogate pairs become the mark for what cannot be shown.
     */
    public static String line(String text) {
        StringBuilder out = null;
        for (int i = 0; i < text.length(); ) {
            int c = text.codePointAt(i);
            int n = Character.charCount(c);
            boolean half = c >= 0xd800 && c <= 0xdfff;
            if (half || acts(c)) {
                if (out == null) {
                    out = new StringBuilder(text.length()).append(text, 0, i);
                }
                out.append(half ? '\ufffd' : ' ');
            } else if (out != null) {
                out.appendCodePoint(c);
            }
            i += n;
        }
        return out == null ? text : out.toString();
    }

    private static boolean acts(int c) {
        int kind = Character.getType(c);
        return kind == Character.CONTROL
                || kind == Character.LINE_SEPARATOR
                || kind == Character.PARAGRAPH_SEPARATOR
                || c >= 0x200e && c <= 0x200f
                || c >= 0x202a && c <= 0x202e
                || c >= 0x2066 && c <= 0x2069
                || c == 0xfeff;
    }

    /** The same over several lines: line ends and tabs stay. */
    public static String lines(String text) {
        return String.join(
                "\n",
                text.lines().map(l -> l.replace("\t", "    ")).map(Plain::line).toList());
    }

    /** Words at the beginning of a sentence, with the article that fits. */
    public static String one(String words) {
        return ("aeiou".indexOf(Character.toLowerCase(words.charAt(0))) >= 0 ? "An " : "A ") + words;
    }

    /** Words with a capital in front. */
    public static String title(String words) {
        return words.isEmpty() ? words : Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }

    /** Names beyond which a sentence tells the first ones and how many others there are. */
    private static final int NAMES = 12;

    /** Names one after the other, for a sentence: of a thousand the first ten. */
    public static String names(Collection<String> all) {
        if (all.size() <= NAMES) {
            return String.join(", ", all);
        }
        List<String> first = all.stream().limit(NAMES - 2).toList();
        return String.join(", ", first) + " and " + (all.size() - first.size()) + " others";
    }

    private static final Pattern SEAM = Pattern.compile("(?<=[a-z])(?=[A-Z])");

    /** The name of a class as words. */
    public static String words(Class<?> named) {
        return SEAM.matcher(named.getSimpleName()).replaceAll(" ").toLowerCase(Locale.ROOT);
    }

    /** A value that a sentence quotes, cut after sixty characters. */
    public static String quoted(String text) {
        String one = line(text);
        return "\"" + (one.length() > 60 ? one.substring(0, 60) + "…" : one) + "\"";
    }

    /** A cell of a table of text: one that a spreadsheet would run as a formula gets an apostrophe in front. */
    public static String cell(String text) {
        String one = line(text);
        if (one.isEmpty() || one.length() == 1) {
            return one;
        }
        char first = one.stripLeading().isEmpty() ? ' ' : one.stripLeading().charAt(0);
        boolean runs = first == '=' || first == '@' || first == '+' || first == '-';
        return runs && !number(one) ? "'" + one : one;
    }

    private static boolean number(String text) {
        return text.matches("[+-]?(\\d+\\.?\\d*|\\.\\d+)([eE][+-]?\\d+)?|-?Infinity");
    }

    /** So many of something, in words. */
    public static String count(long n, String what) {
        return n + " " + what + (n == 1 ? "" : "s");
    }

    /** A name for a file made of a text: letters, digits, hyphens, dots and underlines; never empty, never a device. */
    public static String fileName(String text) {
        String flat = Normalizer.normalize(text, Normalizer.Form.NFKD).replaceAll("\\p{M}+", "");
        String out = flat.replaceAll("[^A-Za-z0-9._-]+", "-").replaceAll("^[.-]+|[.-]+$", "");
        out = out.substring(0, Math.min(LONGEST, out.length()));
        String stem = out.toLowerCase(Locale.ROOT).replaceAll("\\..*", "");
        return out.isEmpty() ? "unnamed" : DEVICES.contains(stem) ? "file-" + out : out;
    }
}
