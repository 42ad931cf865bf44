package lane.unit;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Writes products and quotients of units shortly: {@code kg/m3} times {@code m/s} is {@code kg/(m2 s)}. */
final class Symbols {
    private static final Pattern TOKEN = Pattern.compile("([\\p{L}°%]+)\\^?(-?\\d{1,2})?");

    private Symbols() {}

    static String product(String a, String b) {
        return combined(a, b, 1, a + " " + b);
    }

    static String quotient(String a, String b) {
        return combined(a, b, -1, a + "/(" + b + ")");
    }

    /** @param plain what is written when a symbol is more than names with whole powers */
    private static String combined(String a, String b, int sign, String plain) {
        var powers = new LinkedHashMap<String, Integer>();
        if (!collect(a, 1, powers) || !collect(b, sign, powers)) {
            return plain;
        }
        var above = new StringBuilder();
        var below = new StringBuilder();
        int many = 0;
        for (Map.Entry<String, Integer> e : powers.entrySet()) {
            int p = e.getValue();
            if (p != 0) {
                StringBuilder to = p > 0 ? above : below;
                many += p < 0 ? 1 : 0;
                to.append(to.isEmpty() ? "" : " ").append(e.getKey()).append(Math.abs(p) == 1 ? "" : Math.abs(p));
            }
        }
        String top = above.isEmpty() ? "1" : above.toString();
        return many == 0 ? top : top + "/" + (many == 1 ? below : "(" + below + ")");
    }

    private static boolean collect(String symbol, int sign, Map<String, Integer> powers) {
        String rest = symbol.strip();
        int slash = rest.indexOf('/');
        if (slash >= 0) {
            String below = rest.substring(slash + 1).strip();
            boolean bracket = below.startsWith("(") && below.indexOf(')') == below.length() - 1;
            if (bracket) {
                below = below.substring(1, below.length() - 1);
            } else if (below.contains(" ")) {
                return false;
            }
            return collect(rest.substring(0, slash), sign, powers)
                    && !below.contains("/")
                    && collect(below, -sign, powers);
        }
        for (String token : rest.split("[ .*·]+")) {
            Matcher m = TOKEN.matcher(token);
            if (token.equals("1")) {
                continue;
            }
            if (!m.matches()) {
                return false;
            }
            powers.merge(m.group(1), sign * (m.group(2) == null ? 1 : Integer.parseInt(m.group(2))), Integer::sum);
        }
        return true;
    }
}
