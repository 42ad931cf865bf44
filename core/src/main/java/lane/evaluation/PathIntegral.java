package lane.evaluation;

import java.util.HashMap;
import java.util.Map;
import lane.field.Run;
import lane.mesh.Axis;
import lane.quantity.Quantity;
import lane.station.Placement;
import lane.station.Resolver;
import org.jspecify.annotations.Nullable;

/**
 * Sums over the samples of a path, weighted by the length that each stands for (exact for the interpolant when it is cut at
 * every cell), or over points, which weigh the same. Only what lies in the run counts.
 */
public final class PathIntegral {
    private final Run run;
    /** In this run, or in this piece of it. */
    private final Placement own;

    private final boolean points;
    private final EvaluationContext lens;
    /** What the pieces gave of quantities. */
    private final Map<Quantity, PieceSamples> known;
    /** In the run as a whole; null as long as nobody asked. */
    private @Nullable Placement placement;

    public PathIntegral(Run run, Placement own, boolean points, EvaluationContext lens) {
        this(run, own, points, lens, new HashMap<>(), run.gather().whole() ? own : null);
    }

    private PathIntegral(
            Run run,
            Placement own,
            boolean points,
            EvaluationContext lens,
            Map<Quantity, PieceSamples> known,
            @Nullable Placement placement) {
        this.run = run;
        this.own = own;
        this.points = points;
        this.lens = lens;
        this.known = known;
        this.placement = placement;
    }

    public Run run() {
        return run;
    }

    public EvaluationContext lens() {
        return lens;
    }

    /** Whether they are points, which have no length. */
    public boolean points() {
        return points;
    }

    /** Its samples, as they lie in the run. */
    public Placement placement() {
        if (placement == null) {
            placement = PieceSamples.of(run, "places", own, new double[0][]).placement();
        }
        return placement;
    }

    /** The quantity bound to the run. */
    public BoundQuantity bound(Quantity quantity) {
        return BoundQuantity.of(run, quantity, lens).number();
    }

    /**
     * The same with every second sample of each stretch in the run, and its ends, which tells how much the spacing matters.
     */
    public PathIntegral halved() {
        Placement placement = placement();
        int n = placement.size();
        double[] arc = placement.arc();
        double[] weight = new double[n];
        int[] cell = placement.cell().clone();
        for (int from = 0; from < n; from++) {
            if (cell[from] < 0) {
                continue;
            }
            int to = from;
            while (to + 1 < n && placement.cell()[to + 1] >= 0) {
                to++;
            }
            int before = from;
            for (int i = from; i <= to; i++) {
                if ((i - from) % 2 == 1 && i < to) {
                    cell[i] = -1;
                } else if (i > before) {
                    double half = (arc[i] - arc[before]) / 2;
                    weight[i] += half;
                    weight[before] += half;
                    before = i;
                }
            }
            // What the ends stand for beyond the stretch stays theirs.
            weight[from] += placement.weight()[from] - (arc[Math.min(to, from + 1)] - arc[from]) / 2;
            weight[to] += from == to ? 0 : placement.weight()[to] - (arc[to] - arc[to - 1]) / 2;
            from = to;
        }
        var half = new Placement(
                placement.xyz(),
                arc,
                weight,
                cell,
                placement.start(),
                placement.node(),
                placement.share(),
                placement.miss());
        return new PathIntegral(run, own, points, lens, known, half);
    }

    /** Values at the samples in SI units; NaN outside. */
    public double[] values(Quantity quantity) {
        Axis turned = Resolver.meridian(run) ? lens.axis() : null;
        PieceSamples all = known.get(quantity);
        if (all == null) {
            all = PieceSamples.of(run, quantity.name(), own, bound(quantity).at(own, turned));
            known.put(quantity, all);
        }
        placement = placement == null ? all.placement() : placement;
        return all.values()[0];
    }

    /** The values at the samples in the run, with the length that they stand for; points weigh the same. */
    public Weighted weighted(Quantity quantity) {
        BoundQuantity bound = bound(quantity);
        double[] values = values(quantity);
        return new Weighted() {
            @Override
            public double[] sums(Object what, int n, Each each) {
                lane.base.Sum[] sums = lane.base.Sum.fresh(n);
                Placement placement = placement();
                for (int i = 0; i < placement.size(); i++) {
                    if (placement.cell()[i] >= 0) {
                        each.add(values[i], placement.weight()[i], sums);
                    }
                }
                return lane.base.Sum.values(sums);
            }

            @Override
            public BoundQuantity bound() {
                return bound;
            }
        };
    }

    /** Metres within the run, or the number of points. */
    public double length() {
        var sum = new lane.base.Sum();
        Placement placement = placement();
        for (int i = 0; i < placement.size(); i++) {
            if (placement.cell()[i] >= 0) {
                sum.add(placement.weight()[i]);
            }
        }
        return sum.value();
    }

    /** Integral over the length, or the sum over points. */
    public double integral(double[] values) {
        var sum = new lane.base.Sum();
        Placement placement = placement();
        for (int i = 0; i < placement.size(); i++) {
            if (placement.cell()[i] >= 0) {
                sum.add(placement.weight()[i] * values[i]);
            }
        }
        return sum.value();
    }
}
