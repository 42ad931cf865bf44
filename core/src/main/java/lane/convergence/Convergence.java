package lane.convergence;

import java.util.List;

/**
 * What a number's sequence over refined meshes or time steps says.
 *
 * @param kind how it behaves
 * @param order observed; of two meshes the order that was assumed; NaN where none can be told
 * @param extrapolated value at a size of zero; NaN where no order is known
 * @param half numerical uncertainty of the finest value, about 95 %, in the values' own unit
 * @param safety factor that is in it
 * @param asymptoticRatio of the two uncertainties of three meshes, each relative to its value, over the refinement to the
 *     observed order: 1 where the values lie in the asymptotic range; NaN where it is not known
 * @param deviation standard deviation of the fit through more than three values; NaN where there is no such fit
 * @param finest the value of the smallest size
 * @param next the value of the size above it
 * @param notes what was assumed or limited, one sentence each
 */
public record Convergence(
        Kind kind,
        double order,
        double extrapolated,
        double half,
        double safety,
        double asymptoticRatio,
        double deviation,
        double finest,
        double next,
        List<String> notes) {
    public Convergence {
        notes = List.copyOf(notes);
    }

    /** The last change over the finest value, as a share; NaN where that value is zero. */
    public double relativeError() {
        return share(finest - next);
    }

    /** The extrapolated value's distance over the extrapolated value, as a share; NaN where there is none, or it is zero. */
    public double extrapolatedError() {
        return extrapolated == 0 ? Double.NaN : Math.abs((extrapolated - finest) / extrapolated);
    }

    /** The grid convergence index: the numerical uncertainty over the finest value, as a share; NaN where that is zero. */
    public double gci() {
        return share(half);
    }

    private double share(double of) {
        return finest == 0 ? Double.NaN : Math.abs(of / finest);
    }
}
