package lane.reading;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.provenance.Provenance;
import lane.station.CurveAxis;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A curve over the stored times of a run: a family of curves, or their mean between the least and the greatest.
 *
 * @param of what is read at each time; its answer is a curve
 * @param show what is made of them
 * @param most how many curves a family has, evenly chosen among the times, the last always
 * @param timeUnit as in {@link HistoryOf}, as are {@code from} and {@code to}
 */
public record OverTimesOf(
        Ask of,
        Show show,
        int most,
        String timeUnit,
        @Nullable Double from,
        @Nullable Double to) implements OfAnother {
    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "over-times";
        }

        @Override
        public Class<OverTimesOf> type() {
            return OverTimesOf.class;
        }
    }

    /** What is made of the curves. */
    public enum Show {
        FAMILY("curves at some times"),
        MEAN("mean over time, between least and greatest");

        private final String word;

        Show(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public OverTimesOf {
        show = show == null ? Show.FAMILY : show;
        most = most == 0 ? 6 : most;
        timeUnit = timeUnit == null ? "" : timeUnit;
        HistoryOf.axis(timeUnit);
        if (of != null
                && (of.form() != Form.CURVE || of.overTime() || of.clock().isPresent())) {
            throw new LaneException(
                    "Curves over the times are those of a curve in space, such as a profile along a line.");
        }
        if (most < 1 || most > 100) {
            throw new LaneException("A family has from 1 to 100 curves; " + most + " are asked for.");
        }
        if (from != null && to != null && !(from < to)) {
            throw new LaneException("The times from " + from + " to " + to + " are none; give the earlier first.");
        }
    }

    @Override
    public OverTimesOf of(Ask other) {
        return new OverTimesOf(other, show, most, timeUnit, from, to);
    }

    @Override
    public Form form() {
        return Form.CURVE;
    }

    @Override
    public boolean overTime() {
        return true;
    }

    @Override
    public Optional<AtTimes> atTimes(Reading reading, List<Double> stored) {
        return Optional.of(HistoryOf.each(reading, of, kept(stored, reading)));
    }

    private int[] kept(List<Double> times, Reading reading) {
        int[] counted = HistoryOf.counted(times, from, to, reading);
        return show == Show.FAMILY ? chosen(counted, most) : counted;
    }

    @Override
    public Optional<String> shows() {
        return of.shows();
    }

    @Override
    public CurveAxis drawn(lane.station.Station on) {
        return of.drawn(on);
    }

    @Override
    public CurveAxis.Samples samples(lane.station.Station on, lane.mesh.Axis axis) {
        return of.samples(on, axis);
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        List<Double> times = on.moments().times();
        int[] kept = kept(times, reading);
        HistoryOf.Read made = HistoryOf.over(reading, of, kept, on);
        Profile last = made.last().curve().orElseThrow();
        Unit shown = Outcome.shown(reading.unit(), last.unit(), "Reading \"" + reading.name() + "\"");
        int n = last.size();
        List<double[]> rows = new ArrayList<>();
        int moved = 0;
        for (Instant i : made.at()) {
            boolean same = i.value().length == n && Arrays.equals(i.abscissa(), last.abscissa());
            moved += same || i.value().length == 0 ? 0 : 1;
            rows.add(i.value().length == 0 ? null : same ? i.value() : onto(last.abscissa(), i));
        }
        String word = HistoryOf.told(timeUnit, times, kept);
        String note = last.note() + "; " + word + made.lacking(times)
                + (moved == 0
                        ? ""
                        : "; at " + moved + " of them samples lie elsewhere, and are taken straight between these");
        Provenance trail = HistoryOf.trail(
                made, on, Map.of("definition", this, "times", word, "show", show.word(), "unit", shown.label()));
        double[] value = rows.get(IntStream.iterate(rows.size() - 1, k -> k - 1)
                .filter(k -> rows.get(k) != null)
                .findFirst()
                .orElseThrow());
        List<Profile.Beside> beside = new ArrayList<>();
        if (show == Show.MEAN) {
            double[] weights = weights(kept, times, rows);
            double[] mean = new double[n];
            double[] least = new double[n];
            double[] greatest = new double[n];
            for (int s = 0; s < n; s++) {
                double sum = 0;
                double weight = 0;
                least[s] = Double.NaN;
                greatest[s] = Double.NaN;
                for (int k = 0; k < rows.size(); k++) {
                    double[] row = rows.get(k);
                    if (row != null && Double.isFinite(row[s])) {
                        sum += weights[k] * row[s];
                        weight += weights[k];
                        least[s] = row[s] >= least[s] ? least[s] : row[s];
                        greatest[s] = row[s] <= greatest[s] ? greatest[s] : row[s];
                    }
                }
                mean[s] = weight > 0 ? sum / weight : Double.NaN;
            }
            value = mean;
            beside.add(new Profile.Beside("least", least));
            beside.add(new Profile.Beside("greatest", greatest));
        } else {
            for (int k = 0; k < rows.size(); k++) {
                double[] row = rows.get(k);
                if (row != null && row != value) {
                    beside.add(new Profile.Beside(
                            "t = " + HistoryOf.number(times.get(kept[k])) + HistoryOf.in(timeUnit), row));
                }
            }
        }
        int found = (int) Arrays.stream(value).filter(Double::isFinite).count();
        return new Profile(
                        last.abscissa(),
                        value,
                        List.of(),
                        last.abscissaName(),
                        last.abscissaUnit(),
                        shown,
                        false,
                        found,
                        note,
                        trail)
                .covering(last.coverage())
                .at(last.places())
                .with(beside);
    }

    private static int[] chosen(int[] all, int most) {
        int n = Math.min(most, all.length);
        return IntStream.range(0, n)
                .map(k -> all[n == 1 ? all.length - 1 : (int) Math.round((double) k * (all.length - 1) / (n - 1))])
                .distinct()
                .toArray();
    }

    /** How long each time stands for, among those that have an answer. */
    private static double[] weights(int[] kept, List<Double> times, List<double[]> rows) {
        double[] out = new double[kept.length];
        int before = -1;
        for (int k = 0; k < kept.length; k++) {
            if (rows.get(k) == null) {
                continue;
            }
            if (before >= 0) {
                double half = (times.get(kept[k]) - times.get(kept[before])) / 2;
                out[before] += half;
                out[k] += half;
            }
            before = k;
        }
        if (before >= 0 && Arrays.stream(out).sum() == 0) {
            out[before] = 1;
        }
        return out;
    }

    /** Values of another curve at places of this one; absent outside of it. */
    private static double[] onto(double[] abscissa, Instant other) {
        double[] x = other.abscissa();
        double[] out = new double[abscissa.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = Double.NaN;
            for (int k = 0; k + 1 < x.length; k++) {
                double a = x[k];
                double b = x[k + 1];
                if (a != b && (abscissa[i] - a) * (abscissa[i] - b) <= 0) {
                    double f = (abscissa[i] - a) / (b - a);
                    out[i] = (1 - f) * other.value()[k] + f * other.value()[k + 1];
                    break;
                }
            }
        }
        return out;
    }
}
