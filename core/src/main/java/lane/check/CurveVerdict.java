package lane.check;

import lane.estimate.Uncertainty;
import lane.unit.Unit;

/** One measure of the difference of two curves, judged. */
final class CurveVerdict {
    private final Demand demand;
    private final Difference curve;
    private final Unit unit;
    private final double difference;
    private final double scale;
    private final double allowed;
    private final Uncertainty doubt;
    private final int deciding;
    private final boolean meaningless;
    private final double[] each;

    /** @param k factor of the half-widths along the curves */
    CurveVerdict(Demand demand, Difference curve, Unit unit, double k) {
        this.demand = demand;
        this.curve = curve;
        this.unit = unit;
        Norm norm = demand.norm();
        boolean covered = demand.scale() == Scale.UNCERTAINTY;
        boolean pointwise = norm == Norm.LINF;
        difference = curve.norm(norm);
        double standard = curve.uncertaintyNorm(norm) / k;
        // A band about the datum, or its uncertainty, is another one at each place.
        each = new double[curve.value().length];
        double[] own = curve.uncertainty();
        for (int i = 0; i < each.length; i++) {
            each[i] = covered
                    ? demand.tolerance() * own[i] / k
                    : demand.scale() == Scale.LOCAL ? demand.tolerance() * Math.abs(curve.datum()[i]) : Double.NaN;
        }
        int at = curve.largest();
        scale = demand.absolute()
                ? norm.share() ? Double.NaN : curve.datumRange()
                : covered
                        ? standard
                        : demand.scale() == Scale.LOCAL && pointwise
                                ? Math.abs(curve.datum()[at])
                                : demand.scale() == Scale.LOCAL && norm == Norm.L2
                                        ? rms()
                                        : curve.scale(demand.scale());
        meaningless = Double.isNaN(difference) || !demand.absolute() && !(scale > 0);
        allowed = norm.share()
                ? demand.tolerance()
                : demand.absolute()
                        ? demand.tolerance() * unit.factor()
                        : meaningless ? Double.NaN : demand.tolerance() * scale;
        boolean local = pointwise && (covered || demand.scale() == Scale.LOCAL);
        deciding = !pointwise || meaningless ? -1 : local ? curve.deciding(each) : curve.deciding(allowed);
        double half = norm.share() || covered ? 0 : deciding < 0 ? curve.uncertaintyNorm(norm) : own[at];
        doubt = Uncertainty.ofHalf(Uncertainty.Source.MEASURED, half);
    }

    private double rms() {
        double sum = 0;
        for (int i = 0; i < each.length; i++) {
            sum += curve.weight()[i] * curve.datum()[i] * curve.datum()[i];
        }
        return Math.sqrt(sum);
    }

    double difference() {
        return difference;
    }

    double scale() {
        return scale;
    }

    double allowed() {
        return allowed;
    }

    Uncertainty doubt() {
        return doubt;
    }

    /** Whether the tolerance is another one at each place. */
    private boolean local() {
        return deciding >= 0 && (demand.scale() == Scale.UNCERTAINTY || demand.scale() == Scale.LOCAL);
    }

    Verdict verdict() {
        if (meaningless) {
            return Verdict.NO_DATA;
        }
        if (local()) {
            double half = demand.scale() == Scale.UNCERTAINTY ? 0 : curve.uncertainty()[deciding];
            return Verdict.of(curve.value()[deciding], half, each[deciding]);
        }
        boolean elsewhere = deciding >= 0 && deciding != curve.largest();
        return elsewhere
                ? Verdict.of(curve.value()[deciding], curve.uncertainty()[deciding], allowed)
                : Verdict.of(difference, doubt.counted(), allowed);
    }

    String sentence() {
        Norm norm = demand.norm();
        if (norm.share()) {
            return Double.isNaN(difference)
                    ? norm == Norm.INSIDE
                            ? "The datum states no uncertainty, so no point lies inside of it or outside."
                            : "A curve that does not vary correlates with nothing."
                    : norm == Norm.INSIDE
                            ? "Outside of the datum's uncertainty lie " + Tolerance.three(100 * difference)
                                    + " % of its points, allowed are " + Tolerance.three(100 * allowed) + " %."
                            : "Correlation " + Tolerance.plain(1 - difference) + ", at least "
                                    + Tolerance.plain(1 - allowed) + " is asked for.";
        }
        if (meaningless) {
            return demand.scale() == Scale.UNCERTAINTY
                    ? AgainstDatum.NOTHING_KNOWN
                    : "The tolerance is a share " + demand.scale().word()
                            + ", which is zero here, so it has no meaning; give an absolute tolerance.";
        }
        double shown = demand.absolute() ? 1 / unit.factor() : 100 / scale;
        String symbol = demand.absolute() ? unit.difference().symbol() : "%";
        if (local()) {
            Unit own = unit.difference();
            double d = curve.value()[deciding];
            if (demand.scale() == Scale.UNCERTAINTY) {
                return "At the place that decides: "
                        + validation(d, each[deciding] / demand.tolerance(), demand.tolerance(), unit);
            }
            double half = curve.uncertainty()[deciding];
            return "At the place that decides the difference is " + Tolerance.three(own.fromSi(Math.abs(d))) + " "
                    + own.symbol()
                    + (half > 0
                            ? ", uncertainty " + Tolerance.three(own.fromSi(half)) + " " + own.symbol()
                            : ", no uncertainty stated")
                    + ", tolerance there " + Tolerance.three(own.fromSi(each[deciding])) + " " + own.symbol() + ".";
        }
        if (demand.scale() == Scale.UNCERTAINTY) {
            return validation(difference, scale, demand.tolerance(), unit);
        }
        boolean elsewhere = deciding >= 0 && deciding != curve.largest();
        String what = norm == Norm.BIAS ? "Bias" : "Difference";
        return Tolerance.sentence(what, difference, doubt, allowed, shown, symbol)
                + (elsewhere
                        ? " Another place decides: " + Tolerance.three(Math.abs(curve.value()[deciding]) * shown) + " "
                                + symbol
                                + " with an uncertainty of " + Tolerance.three(curve.uncertainty()[deciding] * shown)
                                + " "
                                + symbol + " there."
                        : "");
    }

    /** The statement of a validation is one about E and u_val. */
    static String validation(double e, double standard, double k, Unit unit) {
        Unit own = unit.difference();
        boolean within = Math.abs(e) <= k * standard;
        return "E = " + Tolerance.three(own.fromSi(e)) + " " + own.symbol() + ", u_val = "
                + Tolerance.three(own.fromSi(standard)) + " " + own.symbol() + "; |E| is "
                + (within ? "within " : "greater than ") + Tolerance.plain(k) + " u_val.";
    }
}
