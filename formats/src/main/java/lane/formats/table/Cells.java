package lane.formats.table;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What a cell is: a number, a missing value, or words.
 *
 * @param comma whether the comma is the decimal mark
 * @param named words and numbers that stand for a missing value besides the usual ones, in small letters
 */
record Cells(boolean comma, Set<String> named) {
    private static final String EXPONENT = "(?:[eEdD][-+]?\\d+)?";
    private static final Pattern POINT = Pattern.compile("[-+]?(?:\\d+(?:\\.\\d*)?|\\.\\d+)" + EXPONENT);
    private static final Pattern COMMA = Pattern.compile("[-+]?(?:\\d+(?:,\\d*)?|,\\d+)" + EXPONENT);
    /** Points, commas, apostrophes or blanks between groups of three digits. */
    private static final Pattern POINT_GROUPS = Pattern.compile("[-+]?\\d{1,3}(?:\\.\\d{3})+(?:,\\d*)?" + EXPONENT);

    private static final Pattern COMMA_GROUPS = Pattern.compile("[-+]?\\d{1,3}(?:,\\d{3})+(?:\\.\\d*)?" + EXPONENT);
    private static final Pattern OTHER_GROUPS =
            Pattern.compile("[-+]?\\d{1,3}(?:(?:'|\u2019|\u00a0|\u202f|\u2009| )\\d{3})+(?:[.,]\\d*)?" + EXPONENT);

    private static final Set<String> MISSING = Set.of(
            "", "-", "--", "---", "\u2013", "\u2014", "n/a", "na", "n.a.", "nan", "#n/a", "null", "none", "*", "**",
            "***", "?", ".", "...", "\u2026");

    /** Whether the decimal mark of a number can be told from it: one way only, both ways, or it has none. */
    enum Mark {
        NONE,
        POINT,
        COMMA,
        EITHER
    }

    static Cells of(boolean comma, List<String> named) {
        return new Cells(
                comma,
                Set.copyOf(named.stream()
                        .map(s -> s.strip().toLowerCase(Locale.ROOT))
                        .toList()));
    }

    boolean missing(String cell) {
        if (named.isEmpty() && plainly(cell)) {
            return false;
        }
        if (MISSING.contains(cell.toLowerCase(Locale.ROOT)) || named.contains(cell.toLowerCase(Locale.ROOT))) {
            return true;
        }
        if (named.isEmpty()) {
            return false;
        }
        Double v = parse(cell);
        return v != null
                && named.stream().map(this::parse).anyMatch(n -> n != null && n.doubleValue() == v.doubleValue());
    }

    private static final Pattern WHOLE = Pattern.compile("[-+]?\\d{1,15}");

    /**
     * The numbers among what stands for a missing value, where it can be told without the decimal mark which they are; null where
     * it cannot.
     */
    static double @Nullable [] marks(List<String> named) {
        List<String> bare = named.stream().map(String::strip).toList();
        boolean told = bare.stream()
                .allMatch(s -> WHOLE.matcher(s).matches() || s.chars().noneMatch(Character::isDigit));
        return told
                ? bare.stream()
                        .filter(s -> WHOLE.matcher(s).matches())
                        .mapToDouble(Double::parseDouble)
                        .toArray()
                : null;
    }

    /** The number of a cell; null where it is missing or no number. */
    @Nullable
    Double number(String cell) {
        return missing(cell) ? null : parse(cell);
    }

    boolean word(String cell) {
        return !isNumber(cell) && !missing(cell);
    }

    /** Whether it is a number, and not missing. */
    boolean isNumber(String cell) {
        return named.isEmpty() && Digits.of(cell, comma ? ',' : '.') != null || number(cell) != null;
    }

    /** Whether it begins as no word for a missing value does. */
    private static boolean plainly(String cell) {
        int at = !cell.isEmpty() && (cell.charAt(0) == '-' || cell.charAt(0) == '+') ? 1 : 0;
        return cell.length() > at && cell.charAt(at) >= '0' && cell.charAt(at) <= '9';
    }

    private @Nullable Double parse(String cell) {
        if (cell.isEmpty() || cell.length() > 60) {
            return null;
        }
        // Most cells are plain numbers, for which no pattern needs to be asked.
        Digits plain = Digits.of(cell, comma ? ',' : '.');
        if (plain != null) {
            return plain.value();
        }
        String s = cell.charAt(0) == '\u2212' ? "-" + cell.substring(1) : cell;
        if ((comma ? POINT_GROUPS : COMMA_GROUPS).matcher(s).matches()) {
            s = s.replace(comma ? "." : ",", "");
        } else if (OTHER_GROUPS.matcher(s).matches()) {
            s = s.replaceAll("['\u2019\u00a0\u202f\u2009 ]", "");
        }
        if (!(comma ? COMMA : POINT).matcher(s).matches()) {
            return null;
        }
        // Some programs write the exponent of double precision with a D.
        return Double.valueOf(s.replace(',', '.').replace('d', 'e').replace('D', 'e'));
    }

    private static final Cells POINTED = new Cells(false, Set.of());
    private static final Cells COMMAED = new Cells(true, Set.of());

    /** What stands in numbers besides digits. */
    private static final String IN_NUMBERS = "+-.,eEdD'\u2019\u2212\u00a0\u202f\u2009 ";

    /** Whether no letter in it stands in no number: most of what is none is told by that, before patterns are asked. */
    private static boolean likely(String cell) {
        for (int i = 0; i < cell.length(); i++) {
            char c = cell.charAt(i);
            if (!Character.isDigit(c) && IN_NUMBERS.indexOf(c) < 0) {
                return false;
            }
        }
        return true;
    }

    /** Whether it is a number by either mark. */
    static boolean loose(String cell) {
        return !cell.isEmpty()
                && (Character.isDigit(cell.charAt(cell.length() - 1))
                        || cell.charAt(cell.length() - 1) == '.'
                        || cell.charAt(cell.length() - 1) == ',')
                && likely(cell)
                && (Digits.of(cell, '.') != null
                        || Digits.of(cell, ',') != null
                        || POINTED.parse(cell) != null
                        || COMMAED.parse(cell) != null);
    }

    private static final Pattern SURE_COMMA = Pattern.compile(
            "[-+]?(?:\\d*,(?:\\d{1,2}|\\d{4,})|0+,\\d+|\\d{4,},\\d+|\\d*,\\d+[eEdD][-+]?\\d+)" + EXPONENT);
    private static final Pattern SURE_POINT = Pattern.compile(
            "[-+]?(?:\\d*\\.(?:\\d{1,2}|\\d{4,})|0+\\.\\d+|\\d{4,}\\.\\d+|\\d*\\.\\d+[eEdD][-+]?\\d+)" + EXPONENT);
    private static final Pattern ONE_GROUP = Pattern.compile("[-+]?[1-9]\\d{0,2},\\d{3}");

    /** What a cell tells about the decimal mark. */
    static Mark mark(String cell) {
        Digits plain = Digits.of(cell, '.');
        if (plain != null) {
            return plain.surelyDecimal() ? Mark.POINT : Mark.NONE;
        }
        String s = cell.startsWith("\u2212") ? "-" + cell.substring(1) : cell;
        if (OTHER_GROUPS.matcher(s).matches()) {
            s = s.replaceAll("['\u2019\u00a0\u202f\u2009 ]", "");
        }
        boolean point = s.indexOf('.') >= 0;
        boolean comma = s.indexOf(',') >= 0;
        if (!point && !comma || !loose(cell)) {
            return Mark.NONE;
        }
        if (point && comma) {
            return s.lastIndexOf(',') > s.lastIndexOf('.') ? Mark.COMMA : Mark.POINT;
        }
        if (comma) {
            return SURE_COMMA.matcher(s).matches()
                    ? Mark.COMMA
                    : ONE_GROUP.matcher(s).matches() ? Mark.EITHER : Mark.POINT;
        }
        // Three digits behind a single point are a decimal to most readers, so alone they tell nothing.
        return SURE_POINT.matcher(s).matches()
                ? Mark.POINT
                : s.indexOf('.') == s.lastIndexOf('.') ? Mark.NONE : Mark.COMMA;
    }
}
