package lane.reading;

import lane.base.LaneException;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceValues;
import lane.field.Part;
import lane.field.Run;
import lane.formula.Type;
import lane.measure.Mean;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.unit.Unit;

/**
 * The values of a quantity over a run: of its magnitude where it has several components. SI units.
 *
 * @param mean by volume, or NaN where the quantity lives on parts only
 * @param absent number of places without a finite value
 * @param stand where the values stand, in words
 * @param unit they are shown in
 */
public record Ranges(double least, double mean, double greatest, long absent, String stand, Unit unit) {
    /** @throws LaneException when the run cannot compute it */
    public static Ranges of(Run run, Quantity quantity, EvaluationContext lens) {
        Quantity number = quantity;
        EvaluationContext with = lens;
        Type type = BoundQuantity.type(run, quantity, lens).orElse(null);
        if (type != null && type.components() != 1) {
            number = new Quantity(
                    quantity.id(), quantity.name(), "norm(" + quantity.formula() + ")", quantity.unit(), "");
            with = lens.with(number);
        }
        BoundQuantity ready;
        double[] all;
        try {
            ready = BoundQuantity.of(run, number, with).number();
            all = ready.onMesh()[0];
        } catch (LaneException e) {
            return onParts(run, number, with, e);
        }
        return of(
                java.util.List.of(all),
                mean(run, number, with),
                ready.byNode() ? "at nodes" : "in cells",
                ready.unit());
    }

    /** By volume; NaN where it has no value anywhere. */
    private static double mean(Run run, Quantity number, EvaluationContext lens) {
        int dimension = run.mesh().dimension();
        int[] cells = java.util.stream.IntStream.range(0, run.mesh().cellCount())
                .filter(c -> run.mesh().shape(c).dimension() == dimension)
                .toArray();
        try {
            return TallyReader.read(run, cells, new Mean(number.id()), "run", lens, "", Provenance.EMPTY)
                    .value();
        } catch (LaneException e) {
            return Double.NaN;
        }
    }

    private static Ranges onParts(Run run, Quantity number, EvaluationContext lens, LaneException why) {
        var all = new java.util.ArrayList<double[]>();
        Unit unit = Unit.UNKNOWN;
        for (Part part : run.parts()) {
            try {
                SurfaceValues v = SurfaceValues.of(run, part, number, lens);
                all.add(v.exact());
                unit = v.unit();
            } catch (LaneException e) {
                // Parts without it do not take part.
            }
        }
        if (all.isEmpty()) {
            throw why;
        }
        return of(all, Double.NaN, "on parts", unit);
    }

    private static Ranges of(java.util.List<double[]> all, double mean, String stand, Unit unit) {
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        long absent = 0;
        for (double[] values : all) {
            for (double v : values) {
                if (Double.isFinite(v)) {
                    least = Math.min(least, v);
                    greatest = Math.max(greatest, v);
                } else {
                    absent++;
                }
            }
        }
        boolean none = least > greatest;
        return new Ranges(none ? Double.NaN : least, mean, none ? Double.NaN : greatest, absent, stand, unit);
    }
}
