package lane.reading;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lane.estimate.Band;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Provenance;
import lane.unit.Unit;

/**
 * A curve: one value an abscissa, in SI units.
 *
 * @param abscissa in SI units whatever its unit, in the order of the line; NaN between branches
 * @param samples the values; NaN where absent
 * @param bands uncertainties of the values by where they come from; empty when none is stated
 * @param abscissaName and {@code abscissaUnit}: what is drawn along the axis, unit as shown
 * @param unit as shown
 * @param formula true when the curve is known at any abscissa, so that it can be a datum at anybody's points
 * @param found number of samples that have a value
 * @param note how it was made, for people: moved samples, cells as stored
 * @param coverage share of the surfaces that the values were taken over which lies in the run, the least of several; NaN
 *     where there are none, or they have no size of their own
 * @param beside further curves at the same abscissas that belong to this one, such as those of other times
 * @param places where the samples lie in space, three numbers each; empty where a sample has no place
 */
public record Profile(
        double[] abscissa,
        Samples samples,
        List<Band> bands,
        String abscissaName,
        Unit abscissaUnit,
        Unit unit,
        boolean formula,
        int found,
        String note,
        double coverage,
        double[] places,
        List<Beside> beside,
        Provenance trail)
        implements Outcome {
    /** A curve that belongs to another one. */
    public record Beside(String name, double[] value) {}

    public Profile {
        bands = List.copyOf(bands);
        beside = List.copyOf(beside);
    }

    /** A curve of values at places. */
    public Profile(
            double[] abscissa,
            double[] value,
            List<Band> bands,
            String abscissaName,
            Unit abscissaUnit,
            Unit unit,
            boolean formula,
            int found,
            String note,
            Provenance trail) {
        this(abscissa, Samples.of(value), bands, abscissaName, abscissaUnit, unit, formula, found, note, trail);
    }

    /** The same of values that may be made when they are asked for. */
    public Profile(
            double[] abscissa,
            Samples samples,
            List<Band> bands,
            String abscissaName,
            Unit abscissaUnit,
            Unit unit,
            boolean formula,
            int found,
            String note,
            Provenance trail) {
        this(
                abscissa,
                samples,
                bands,
                abscissaName,
                abscissaUnit,
                unit,
                formula,
                found,
                note,
                Double.NaN,
                new double[0],
                List.of(),
                trail);
    }

    private Profile as(double share, double[] xyz, List<Beside> others) {
        return new Profile(
                abscissa,
                samples,
                bands,
                abscissaName,
                abscissaUnit,
                unit,
                formula,
                found,
                note,
                share,
                xyz,
                others,
                trail);
    }

    /** One a sample, in SI units; NaN where absent. */
    public double[] value() {
        return samples.now();
    }

    /** The same with other uncertainties. */
    public Profile banded(List<Band> others) {
        return new Profile(
                abscissa,
                samples,
                others,
                abscissaName,
                abscissaUnit,
                unit,
                formula,
                found,
                note,
                coverage,
                places,
                beside,
                trail);
    }

    @Override
    public Profile in(Unit other) {
        return new Profile(
                abscissa,
                samples,
                bands,
                abscissaName,
                abscissaUnit,
                other,
                formula,
                found,
                note,
                coverage,
                places,
                beside,
                trail);
    }

    /** The same of samples that lie in space. */
    public Profile at(double[] xyz) {
        return as(coverage, xyz, beside);
    }

    /** The same with the share of its surfaces that lies in the run. */
    public Profile covering(double share) {
        return as(share, places, beside);
    }

    /** The same with further curves. */
    public Profile with(List<Beside> others) {
        return as(coverage, places, others);
    }

    /** Half-width of each value in SI units, downwards; empty when none is stated. */
    public double[] uncertainty() {
        return bands.stream().reduce(Band::and).map(Band::below).orElse(new double[0]);
    }

    /** Half-width upwards; empty when none is stated. */
    public double[] upwards() {
        return bands.stream().reduce(Band::and).map(Band::above).orElse(new double[0]);
    }

    @Override
    public Optional<Profile> curve() {
        return Optional.of(this);
    }

    /** Least and greatest value, with what is known of each. */
    @Override
    public List<Scalar> scalars() {
        Samples.Ends ends = samples.ends();
        var out = new ArrayList<Scalar>();
        out.add(new Scalar(
                "least", estimate(ends.places().least(), ends.least()), found + " of " + size() + " samples, " + note));
        out.add(new Scalar("greatest", estimate(ends.places().greatest(), ends.greatest()), note));
        Tally.coverage(coverage).ifPresent(out::add);
        return List.copyOf(out);
    }

    private Estimate estimate(int i, double value) {
        if (i < 0) {
            return new Estimate(Double.NaN, unit);
        }
        Uncertainty doubt = Uncertainty.NONE;
        for (Band b : bands) {
            double half = Math.max(b.below()[i], b.above()[i]);
            doubt = doubt.and(
                    half > 0
                            ? new Uncertainty(
                                    java.util.Map.of(b.source(), half / b.k()), b.k(), Double.POSITIVE_INFINITY)
                            : Uncertainty.NONE);
        }
        return new Estimate(value, unit, doubt);
    }

    public int size() {
        return samples.size();
    }

    /** The greatest size of a finite value; 0 when there is none. */
    public double most() {
        Samples.Ends ends = samples.ends();
        double most = ends.places().least() < 0 ? 0 : Math.max(Math.abs(ends.least()), Math.abs(ends.greatest()));
        if (Double.isFinite(most)) {
            return most;
        }
        double finite = 0;
        for (double v : value()) {
            finite = Double.isFinite(v) ? Math.max(finite, Math.abs(v)) : finite;
        }
        return finite;
    }

    /** Greatest minus least of the finite values; 0 when there is none. */
    public double range() {
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (double v : value()) {
            if (Double.isFinite(v)) {
                least = Math.min(least, v);
                greatest = Math.max(greatest, v);
            }
        }
        return greatest >= least ? greatest - least : 0;
    }
}
