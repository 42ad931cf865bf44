package lane.unit;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Units chosen for who reads: a prefix by the size of the numbers, and one unit of length for all of a study. */
public final class ReaderUnits {
    /** A unit that begins with a symbol to which a prefix may be put; not one with a power, where it would act on that too. */
    private static final Pattern PREFIXED =
            Pattern.compile("(Pa|N|J|W|V|A|Hz|m|s)(?![\\p{L}\\d^²³])(.*)", Pattern.DOTALL);

    private static final String[] ABOVE = {"", "k", "M", "G", "T"};
    private static final String[] BELOW = {"", "m", "µ", "n", "p"};

    private ReaderUnits() {}

    /**
     * The unit with a prefix that leaves between one and three digits before the point, where it has more than four of them or
     * begins behind the second decimal. What has a prefix or a scale of its own stays.
     *
     * @param size the greatest number that is shown, in SI units
     */
    public static Unit of(Unit unit, double size) {
        if (!unit.known() || unit.factor() != 1 || unit.offset() != 0 || !(size > 0) || !Double.isFinite(size)) {
            return unit;
        }
        Matcher m = PREFIXED.matcher(unit.symbol());
        if (size >= 0.01 && size < 1e4 || !m.matches()) {
            return unit;
        }
        int thousands = (int) Math.floor(Math.log10(size) / 3 + 1e-12);
        if (m.group(1).equals("s") && thousands > 0) {
            return unit;
        }
        String prefix = thousands > 0
                ? ABOVE[Math.min(thousands, ABOVE.length - 1)]
                : BELOW[Math.min(-thousands, BELOW.length - 1)];
        return Unit.of(prefix + unit.symbol());
    }

    /** The unit in which lengths are told of what is so many metres across. */
    public static Unit length(double across) {
        return Unit.of(
                !(across > 0) || !Double.isFinite(across)
                        ? "mm"
                        : across < 2e-4 ? "µm" : across < 2 ? "mm" : across < 4000 ? "m" : "km");
    }
}
