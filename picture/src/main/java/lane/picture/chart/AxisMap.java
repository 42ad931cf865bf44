package lane.picture.chart;

import lane.study.ChartLook.AxisLook;
import lane.study.ChartLook.Scale;
import lane.unit.Unit;

/**
 * How numbers become places along an axis: in the unit shown, then as they are, as powers of ten, or as shares of the range of
 * their curve.
 */
public record AxisMap(Unit unit, Scale scale) {
    AxisMap(Unit usual, AxisLook look) {
        this(look.unit().isBlank() ? usual : Unit.of(look.unit()), look.scale());
    }

    /** A place of an SI value; NaN for what a logarithmic axis has no place for. */
    public double place(double si) {
        return at(unit.fromSi(si));
    }

    /** A place of a value as shown. */
    public double at(double shown) {
        return scale != Scale.LOG ? shown : shown > 0 ? Math.log10(shown) : Double.NaN;
    }

    /** The value as shown at a place. */
    public double shown(double place) {
        return scale == Scale.LOG ? Math.pow(10, place) : place;
    }

    /** The value in SI units at a place; of a share NaN, which is another value for each curve. */
    public double si(double place) {
        return scale == Scale.SHARE ? Double.NaN : unit.toSi(shown(place));
    }
}
