package lane.picture.chart;

import java.util.List;

/** Names by what they differ in: beside one another, what all begin and end with tells nothing. */
final class Differing {
    /** Fewer letters than these are not worth leaving out. */
    private static final int WORTH = 5;

    private Differing() {}

    /** The names without the words that all begin and end with, where something of each is left; the names themselves else. */
    static List<String> parts(List<String> names) {
        if (names.size() < 2) {
            return names;
        }
        int head = common(names, false);
        int tail = common(names, true);
        if (head + tail < WORTH) {
            return names;
        }
        List<String> out = names.stream()
                .map(n -> n.length() > head + tail
                        ? n.substring(head, n.length() - tail).replaceAll("^[-_.\\s]+|[-_.\\s]+$", "")
                        : "")
                .toList();
        boolean apart = out.stream().noneMatch(String::isBlank)
                && out.stream().distinct().count() == names.size();
        return apart ? out : names;
    }

    /** How many letters all share at one end, up to a place where a word ends. */
    private static int common(List<String> names, boolean fromBack) {
        String first = names.getFirst();
        int n = 0;
        int word = 0;
        while (n < first.length()) {
            char c = at(first, n, fromBack);
            int k = n;
            if (!names.stream().allMatch(s -> k < s.length() && at(s, k, fromBack) == c)) {
                break;
            }
            n++;
            word = "-_. ".indexOf(c) >= 0 ? n : word;
        }
        return word;
    }

    private static char at(String s, int i, boolean fromBack) {
        return s.charAt(fromBack ? s.length() - 1 - i : i);
    }
}
