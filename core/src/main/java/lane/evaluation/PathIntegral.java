package lane.evaluation;

import lane.field.Run;
import lane.mesh.Axis;
import lane.quantity.Quantity;
import lane.station.Placement;
import lane.station.Resolver;

/**
 * Sums over the samples of a path, weighted by the length that each stands for (exact for the interpolant when it is cut at
 * every cell), or over points, which weigh the same. Only what lies in the run counts.
 *
 * @param points whether they are points, which have no length
 */
public record PathIntegral(Run run, Placement placement, boolean points, EvaluationContext lens) {
    /** The quantity bound to the run. */
    public BoundQuantity bound(Quantity quantity) {
        return BoundQuantity.of(run, quantity, lens).number();
    }

    /** Values at the samples in SI units; NaN outside. */
    public double[] values(Quantity quantity) {
        Axis turned = Resolver.meridian(run) ? lens.axis() : null;
        return bound(quantity).at(placement, turned)[0];
    }

    /** The values at the samples in the run, with the length that they stand for; points weigh the same. */
    public Weighted weighted(Quantity quantity) {
        BoundQuantity bound = bound(quantity);
        double[] values = values(quantity);
        return new Weighted() {
            @Override
            public double[] sums(Object what, int n, Each each) {
                lane.base.Sum[] sums = lane.base.Sum.fresh(n);
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
        for (int i = 0; i < placement.size(); i++) {
            if (placement.cell()[i] >= 0) {
                sum.add(placement.weight()[i] * values[i]);
            }
        }
        return sum.value();
    }
}
