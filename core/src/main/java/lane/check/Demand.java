package lane.check;

import lane.unit.Unit;

/**
 * A measure of a difference and what is allowed of it.
 *
 * @param tolerance a share of the scale, in the reading's unit if the scale is {@link Scale#ABSOLUTE}, or a coverage factor if it is {@link Scale#UNCERTAINTY}
 */
public record Demand(Norm norm, Scale scale, double tolerance) {
    public Demand {
        norm = norm == null ? Norm.L2 : norm;
        scale = scale == null ? Scale.RANGE : scale;
        Tolerance.require(tolerance);
    }

    boolean absolute() {
        return scale == Scale.ABSOLUTE || norm.share();
    }

    String allowance(Unit unit) {
        return scale == Scale.UNCERTAINTY && !norm.share()
                ? Tolerance.plain(tolerance) + " u_val"
                : norm.share() ? Tolerance.plain(tolerance) : Tolerance.words(tolerance, scale != Scale.ABSOLUTE, unit);
    }
}
