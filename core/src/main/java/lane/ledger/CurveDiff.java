package lane.ledger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lane.base.Figures;
import lane.base.LaneException;
import lane.ledger.Ledger.Line;
import lane.provenance.Provenance;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** The curves of two ledgers point by point: each curve counts as one number, told by its point that differs most. */
public final class CurveDiff {
    /** What the numbers of a curve are called in a comparison. */
    public static final String POINTS = "points";

    private final Ledger before;
    private final Ledger after;
    private final double tolerance;

    private CurveDiff(Ledger before, Ledger after, double tolerance) {
        this.before = before;
        this.after = after;
        this.tolerance = tolerance;
    }

    private record Key(String of, String source) {}

    /**
     * @param before curves of the earlier ledger
     * @param was that ledger
     * @param after curves of the later one
     * @param is that one
     * @param tolerance share of the greater magnitude that a number may differ by and still count as the same
     */
    public static LedgerDiff of(
            List<LedgerCurve> before, Ledger was, List<LedgerCurve> after, Ledger is, double tolerance) {
        return new CurveDiff(was, is, tolerance).of(before, after);
    }

    private LedgerDiff of(List<LedgerCurve> earlier, List<LedgerCurve> later) {
        Map<Key, LedgerCurve> now = new LinkedHashMap<>();
        later.forEach(c -> now.put(key(c, after), c));
        int same = 0;
        List<LedgerDiff.Change> within = new ArrayList<>();
        List<LedgerDiff.Change> different = new ArrayList<>();
        List<LedgerDiff.Change> missing = new ArrayList<>();
        for (LedgerCurve was : earlier) {
            LedgerCurve is = now.remove(key(was, before));
            Line line = line(was, before);
            if (is == null) {
                missing.add(new LedgerDiff.Change(
                        line, Double.NaN, Double.NaN, was.unit(), "", LedgerDiff.gone(line, after)));
                continue;
            }
            Worst worst = compare(was, is);
            if (worst == null) {
                same++;
                continue;
            }
            String why = worst.said + (worst.near ? "" : "; " + reasons(line, line(is, after)));
            (worst.near ? within : different).add(new LedgerDiff.Change(line, worst.was, worst.is, is.unit(), "", why));
        }
        List<LedgerDiff.Change> added = new ArrayList<>();
        now.values()
                .forEach(c -> added.add(new LedgerDiff.Change(
                        line(c, after), Double.NaN, Double.NaN, c.unit(), "", "it was not there before")));
        return new LedgerDiff(same, within, different, missing, added);
    }

    private static String reasons(Line was, Line is) {
        List<String> causes = Trails.differ(was.trail(), is.trail());
        return causes.isEmpty() ? LedgerDiff.NO_CAUSE : String.join("; ", causes);
    }

    private static Key key(LedgerCurve c, Ledger of) {
        return new Key(c.of(), line(c, of).source());
    }

    /** A line that stands for the curve, with the trail of its numbers. */
    private static Line line(LedgerCurve c, Ledger of) {
        Line own = of.lines().stream()
                .filter(l -> l.stop().equals("reading")
                        && l.of().equals(c.of())
                        && l.lane().equals(c.lane()))
                .findFirst()
                .orElse(null);
        return new Line(
                own == null ? "" : own.id(),
                "reading",
                c.of(),
                own == null ? c.of() : own.item(),
                POINTS,
                own == null ? c.lane() : own.source(),
                c.lane(),
                Double.NaN,
                c.unit(),
                Double.NaN,
                Double.NaN,
                "",
                "",
                own == null ? Provenance.EMPTY : own.trail());
    }

    /**
     * The point that differs most.
     *
     * @param near whether all differ by no more than the tolerance
     */
    private record Worst(double was, double is, boolean near, String said) {}

    /** Null where every number is the same to the bit. */
    private @Nullable Worst compare(LedgerCurve was, LedgerCurve is) {
        int n = was.points().length;
        if (n != is.points().length) {
            return new Worst(
                    Double.NaN, Double.NaN, false, "there were " + n + " points and are " + is.points().length);
        }
        Unit from = unit(was.unit());
        Unit to = unit(is.unit());
        boolean told = was.unit().equals(is.unit()) || from == null || to == null || !from.comparable(to);
        boolean along = was.along().equals(is.along());
        int differ = 0;
        int worst = -1;
        double most = -1;
        boolean near = true;
        for (int i = 0; i < n; i++) {
            double[] a = was.points()[i].clone();
            double[] b = is.points()[i];
            if (!told) {
                a[LedgerCurve.VALUE] = Objects.requireNonNull(to)
                        .fromSi(Objects.requireNonNull(from).toSi(a[LedgerCurve.VALUE]));
                a[LedgerCurve.BELOW] = to.differenceFromSi(a[LedgerCurve.BELOW] * from.factor());
                a[LedgerCurve.ABOVE] = to.differenceFromSi(a[LedgerCurve.ABOVE] * from.factor());
            }
            boolean same = along && told;
            boolean close = along;
            for (int k = 0; k < LedgerCurve.NUMBERS; k++) {
                same &= LedgerDiff.bits(a[k], b[k]);
                close &= LedgerDiff.near(a[k], b[k], Math.max(tolerance, told ? 0 : LedgerDiff.CONVERTED));
            }
            if (!same) {
                differ++;
                near &= close;
                double apart = Math.abs(a[LedgerCurve.VALUE] - b[LedgerCurve.VALUE]);
                apart = Double.isNaN(apart) ? 0 : apart;
                if (apart > most) {
                    most = apart;
                    worst = i;
                }
            }
        }
        if (differ == 0) {
            return null;
        }
        double[] b = is.points()[worst];
        double at = b[LedgerCurve.ABSCISSA];
        double value = was.points()[worst][LedgerCurve.VALUE];
        return new Worst(
                told
                        ? value
                        : Objects.requireNonNull(to)
                                .fromSi(Objects.requireNonNull(from).toSi(value)),
                b[LedgerCurve.VALUE],
                near,
                differ + " of " + n + " points differ, the most at "
                        + Figures.of(at, 6).plain(at)
                        + (is.along().equals("1") ? "" : " " + is.along())
                        + (along ? "" : "; the abscissa was told in " + was.along()));
    }

    private static @Nullable Unit unit(String label) {
        try {
            return Unit.of(label);
        } catch (LaneException e) {
            // What is no unit is compared as it stands.
            return null;
        }
    }
}
