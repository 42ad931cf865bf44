package lane.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A number settles over the runs of a family, coarse to fine: its last change is small, and no greater than the one before.
 *
 * @param tolerance a share of the finest value's magnitude, or in the reading's unit
 * @param absolute whether it is in the reading's unit
 */
public record Trend(double tolerance, boolean absolute) implements Rule {
    private static final Method METHOD = new Method("last change from run to run", 1);

    /** In studies. */
    public static final class Kind implements RuleKind {
        @Override
        public String word() {
            return "trend";
        }

        @Override
        public Class<Trend> type() {
            return Trend.class;
        }
    }

    public Trend {
        Tolerance.require(tolerance);
    }

    @Override
    public String measure() {
        return "last change";
    }

    @Override
    public String allowance(Unit unit) {
        return Tolerance.words(tolerance, !absolute, unit);
    }

    @Override
    public boolean countsDoubts() {
        return false;
    }

    @Override
    public CheckResult judge(Crossing on) {
        return CheckEvaluator.byLane(
                on,
                "",
                (lane, value, judged) -> lane(on, lane, judged),
                (lane, value) -> value instanceof Outcome.Absent a
                        ? a.reason()
                        : "A trend needs a number in this lane and in a coarser run of its family.");
    }

    /** @return null where there is no coarser run with a number */
    private CheckResult.@Nullable Lane lane(Crossing on, String lane, boolean judged) {
        List<Estimate> values = new ArrayList<>();
        int at = on.family().indexOf(lane);
        for (int i = 0; i <= at; i++) {
            Outcome o = on.outcomes().get(on.family().get(i));
            if (o != null && !o.numbers().isEmpty()) {
                values.add(o.numbers().getFirst());
            } else if (i == at) {
                return null;
            }
        }
        if (values.size() < 2) {
            return null;
        }
        Estimate last = values.getLast();
        double change = last.value() - values.get(values.size() - 2).value();
        double before = values.size() < 3
                ? Double.NaN
                : values.get(values.size() - 2).value()
                        - values.get(values.size() - 3).value();
        boolean grows = Math.abs(change) > Math.abs(before);
        Unit unit = last.unit();
        double scale = Math.abs(last.value());
        boolean meaningless = !absolute && scale == 0;
        double allowed = absolute ? tolerance * unit.factor() : meaningless ? Double.NaN : tolerance * scale;
        Verdict verdict =
                !judged ? null : meaningless ? Verdict.NO_DATA : grows ? Verdict.OUT : Verdict.of(change, 0, allowed);
        String sentence = meaningless
                ? "The tolerance is a share of the finest value, which is zero; give an absolute tolerance."
                : Tolerance.sentence(
                                        "Last change",
                                        change,
                                        Uncertainty.NONE,
                                        allowed,
                                        absolute ? 1 / unit.factor() : 100 / scale,
                                        absolute ? unit.difference().symbol() : "%")
                                .replace(", no uncertainty stated", ", over " + values.size() + " runs")
                        + (grows ? " It is greater than the change before." : "")
                        + Tolerance.fromZero(unit, !absolute);
        var settings = new LinkedHashMap<String, String>();
        settings.put("runs", String.valueOf(values.size()));
        settings.put("tolerance", String.valueOf(tolerance));
        settings.put("relative to", absolute ? "absolute" : "finest value");
        return new CheckResult.Lane(
                "last change",
                last.value(),
                change,
                scale,
                allowed,
                last.uncertainty(),
                0,
                unit,
                null,
                verdict,
                sentence,
                trail(on, lane, at).then("check", METHOD, "trend over {runs} runs", settings));
    }

    /** That of the lane, with the runs that it is compared with. */
    private static Provenance trail(Crossing on, String lane, int at) {
        Provenance trail = Objects.requireNonNull(on.outcomes().get(lane)).trail();
        for (int i = at - 1; i >= 0; i--) {
            Outcome o = on.outcomes().get(on.family().get(i));
            if (o != null && !o.numbers().isEmpty()) {
                trail = trail.beside("mesh " + on.family().get(i), o.trail());
            }
        }
        return trail;
    }
}
