package lane.check;

import lane.base.Figures;
import lane.base.LaneException;
import lane.estimate.Uncertainty;
import lane.unit.Unit;

/** Numbers and words that kinds of checks share. */
final class Tolerance {
    private Tolerance() {}

    static void require(double tolerance) {
        if (!(tolerance >= 0) || Double.isInfinite(tolerance)) {
            throw new LaneException("A tolerance must be 0 or more; got " + tolerance + ".");
        }
    }

    /** A tolerance in words: a share of a scale, or a number in the unit shown. */
    static String words(double tolerance, boolean share, Unit unit) {
        return share
                ? plain(100 * tolerance) + " %"
                : plain(tolerance) + (unit.known() ? " " + unit.difference().symbol() : "");
    }

    /** Said where a share is one of a temperature, which depends on where its scale begins. */
    static String fromZero(Unit unit, boolean share) {
        return share && !unit.interval() && unit.comparable(KELVIN)
                ? " A share of a temperature is one of it above absolute zero."
                : "";
    }

    private static final Unit KELVIN = Unit.of("K");

    static String plain(double v) {
        return Figures.of(v, 7).whole(v);
    }

    /** Three digits, with a minus sign that is no hyphen. */
    static String three(double v) {
        return Figures.of(v, 3).whole(v);
    }

    /**
     * The numbers that a verdict rests on, in one sentence.
     *
     * @param what is judged, such as {@code Difference}
     * @param factor that makes numbers in SI units those that are told
     * @param unit of what is told
     */
    static String sentence(String what, double difference, Uncertainty of, double allowed, double factor, String unit) {
        double half = of.counted();
        String width = Figures.of(half * factor, 2).whole(half * factor) + " " + unit;
        String doubt = of.stated() && half > 0
                ? "uncertainty " + width
                : "no uncertainty stated" + (half > 0 ? ", that of the integration is " + width : "");
        return what + " " + three(difference * factor) + " " + unit + ", " + doubt + ", tolerance "
                + three(allowed * factor) + " " + unit + ".";
    }
}
