package lane.check;

import java.util.List;
import java.util.Map;
import lane.base.Sized;
import lane.estimate.Uncertainty;
import lane.provenance.Provenance;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * What a check found.
 *
 * @param datum key of the lane compared with; blank where the datum is zero, missing, or there is none
 * @param lanes by lane key
 * @param verdict the worst of the judged lanes
 * @param why one sentence: the numbers behind the verdict, or what is missing
 */
public record CheckResult(String datum, Map<String, Lane> lanes, Verdict verdict, String why) implements Sized {
    /** What a lane holds besides curves, near enough. */
    private static final long LANE = 2048;

    /** Arrays along a curve: places, differences, uncertainties, datum, weights. */
    private static final long ARRAYS = 5 * 8L;

    public CheckResult {
        lanes = java.util.Collections.unmodifiableMap(new java.util.LinkedHashMap<>(lanes));
    }

    @Override
    public long bytes() {
        long sum = 0;
        for (Lane l : lanes.values()) {
            sum += LANE + (l.curve == null ? 0 : ARRAYS * l.curve.value().length);
        }
        return sum;
    }

    /** The unit that numbers of the check are shown in. */
    public Unit unit() {
        return lanes.values().stream().map(Lane::unit).findFirst().orElse(Unit.UNKNOWN);
    }

    /**
     * What a lane's verdict rests on.
     *
     * @param measures further measures of the difference that were asked for
     * @param refined what the meshes of its family say; null for nothing
     * @param budget what the uncertainty is made of
     */
    public record Evidence(
            List<Measured> measures, @Nullable Refined refined, Budget budget) {
        public static final Evidence NONE = new Evidence(List.of(), null, Budget.EMPTY);

        public Evidence {
            measures = List.copyOf(measures);
        }
    }

    /**
     * A further measure.
     *
     * @param difference in SI units, or a share
     * @param scale that it is relative to; NaN for none
     * @param allowance in words
     * @param verdict only for a judged lane
     */
    public record Measured(
            Norm norm,
            double difference,
            double scale,
            String allowance,
            @Nullable Verdict verdict,
            String sentence) {}

    /**
     * One lane with all that its verdict rests on, in SI units.
     *
     * @param what the difference is, for the ledger: {@code difference}, {@code L2 of difference}
     * @param value the judged number itself; NaN for a profile
     * @param difference value minus datum, the profile's norm, or how far it is out of a band
     * @param scale that relative numbers refer to; NaN where it has no meaning
     * @param allowed the greatest difference within tolerance; NaN where it has no meaning
     * @param uncertainty of the difference
     * @param half its half-width; 0 where none is stated
     * @param unit as shown
     * @param curve the whole difference of a profile, else null
     * @param verdict only for a judged lane, else null
     * @param sentence the numbers behind it
     * @param evidence what it rests on besides
     */
    public record Lane(
            String what,
            double value,
            double difference,
            double scale,
            double allowed,
            Uncertainty uncertainty,
            double half,
            Unit unit,
            @Nullable Difference curve,
            @Nullable Verdict verdict,
            String sentence,
            Provenance trail,
            Evidence evidence) {
        public Lane(
                String what,
                double value,
                double difference,
                double scale,
                double allowed,
                Uncertainty uncertainty,
                double half,
                Unit unit,
                @Nullable Difference curve,
                @Nullable Verdict verdict,
                String sentence,
                Provenance trail) {
            this(
                    what,
                    value,
                    difference,
                    scale,
                    allowed,
                    uncertainty,
                    half,
                    unit,
                    curve,
                    verdict,
                    sentence,
                    trail,
                    Evidence.NONE);
        }

        /** The same with more evidence, and with what is to be told of it behind the sentence. */
        public Lane with(Evidence other, String note) {
            return new Lane(
                    what,
                    value,
                    difference,
                    scale,
                    allowed,
                    uncertainty,
                    half,
                    unit,
                    curve,
                    verdict,
                    (sentence + " " + note.strip()).strip(),
                    trail,
                    other);
        }

        /** Difference over the scale; NaN where it is not defined. */
        public double relative() {
            return scale > 0 ? difference / scale : Double.NaN;
        }
    }
}
