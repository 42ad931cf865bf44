package lane.check;

import lane.base.LaneException;
import org.jspecify.annotations.Nullable;

/**
 * What is done to a curve's abscissa before it meets the datum's, each for a stated reason: turned round, scaled, shifted, in this
 * order.
 *
 * @param shift added to the abscissa, in its unit
 * @param factor that it is multiplied by; 1 where it is left out
 * @param reverse whether it is told from its other end
 * @param normalise whether both abscissas go from 0 to 1, each over its own length
 * @param fit whether the shift is found that makes the root mean square of the difference least, beside the stated one
 * @param reason why, for whoever reads the comparison
 */
public record Alignment(
        double shift, @Nullable Double factor, boolean reverse, boolean normalise, boolean fit, String reason) {
    public static final Alignment NONE = new Alignment(0, null, false, false, false, "");

    public Alignment {
        reason = reason == null ? "" : reason;
        if (!Double.isFinite(shift) || factor != null && !(factor != 0 && Double.isFinite(factor))) {
            throw new LaneException("An abscissa is shifted and scaled by numbers, not by zero; got a shift of " + shift
                    + " and a factor of " + factor + ".");
        }
    }

    public boolean none() {
        return shift == 0 && (factor == null || factor == 1) && !reverse && !normalise && !fit;
    }
}
