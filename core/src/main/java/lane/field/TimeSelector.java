package lane.field;

import java.util.List;
import lane.base.LaneException;

/** Which of a run's stored times is looked at. Nothing is interpolated between times. */
public sealed interface TimeSelector {
    TimeSelector LAST = new Last();

    /** For people. */
    String word();

    /**
     * The place of this moment among stored times.
     *
     * @param times ascending, at least one
     * @throws LaneException naming the nearest stored times when none is within the tolerance
     */
    int in(List<Double> times);

    record Last() implements TimeSelector {
        @Override
        public String word() {
            return "last";
        }

        @Override
        public int in(List<Double> times) {
            return times.size() - 1;
        }
    }

    record First() implements TimeSelector {
        @Override
        public String word() {
            return "first";
        }

        @Override
        public int in(List<Double> times) {
            return 0;
        }
    }

    /**
     * The stored time nearest to a value.
     *
     * @param tolerance how far it may be from the value, in the unit of the stored times
     */
    record At(double value, double tolerance) implements TimeSelector {
        public At {
            if (!Double.isFinite(value) || !(tolerance >= 0)) {
                throw new LaneException("A time of " + value + " within " + tolerance
                        + " is none; give a number and a tolerance that is not negative.");
            }
        }

        @Override
        public String word() {
            return "t = " + text(value);
        }

        @Override
        public int in(List<Double> times) {
            int best = 0;
            for (int i = 1; i < times.size(); i++) {
                best = Math.abs(times.get(i) - value) < Math.abs(times.get(best) - value) ? i : best;
            }
            // What was rounded when it was written down is the same time.
            if (Math.abs(times.get(best) - value) > Math.max(tolerance, 1e-9 * Math.abs(value))) {
                throw new LaneException("There is no time " + text(value) + " within " + text(tolerance)
                        + " here; the nearest of " + times.size() + " stored times is " + text(times.get(best))
                        + ". Choose that, or a wider tolerance.");
            }
            return best;
        }
    }

    /** Up to nine significant digits. */
    static String text(double v) {
        var t = new java.math.BigDecimal(v, new java.math.MathContext(9)).stripTrailingZeros();
        return Math.abs(v) >= 1e9 || v != 0 && Math.abs(v) < 1e-5 ? t.toString() : t.toPlainString();
    }
}
