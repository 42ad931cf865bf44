package lane.reading;

import java.util.Map;
import lane.base.Fault;
import lane.base.LaneException;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.PieceSamples;
import lane.evaluation.QuantityTrail;
import lane.evaluation.SamplePoints;
import lane.field.Run;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.station.CurveAxis;
import lane.station.Placement;
import lane.station.Shape;
import lane.station.Station;
import lane.unit.Unit;

/** Reads a quantity along a placed line. The components are interpolated first, then the number is taken of them. */
public final class ProfileReader {
    /** How samples find their cells. */
    static final Method SAMPLED = new Method("places found in cells, onto the boundary where they lie just outside", 1);

    static final Method PROFILE = new Method("values within the cells, linear or by their shape functions", 1);

    private ProfileReader() {}

    /**
     * @param own the samples in this run, or in this piece of it
     * @throws lane.base.LaneException when all of it lies outside
     */
    public static Profile read(
            Run run,
            Placement own,
            Station line,
            Quantity quantity,
            EvaluationContext lens,
            String unitText,
            Provenance trail) {
        BoundQuantity ready = BoundQuantity.of(run, quantity, lens).number();
        Unit shown = Outcome.shown(unitText, ready.unit(), "Reading on \"" + line.name() + "\"");
        int n = own.size();
        double[] abscissa = ((Shape.Sampled) line.shape()).abscissas(own, lens.axis());
        // A plane mesh of a full turn holds the values of angle zero; elsewhere vectors are turned along.
        boolean turned = run.stated().turn() != null && run.mesh().dimension() == 2;
        PieceSamples all = PieceSamples.of(
                run, quantity.name(), own, ready.values(SamplePoints.samples(run, own, turned ? lens.axis() : null)));
        Placement placement = all.placement();
        if (placement.found() == 0) {
            throw new LaneException(
                    Fault.OUTSIDE,
                    "The " + line.word() + " \"" + line.name() + "\" lies outside this run everywhere; move it.");
        }
        double[] value = all.values()[0];
        int found = 0;
        for (double v : value) {
            found += Double.isFinite(v) ? 1 : 0;
        }
        CurveAxis axis = CurveAxis.of(line);
        String stand = ready.stand();
        Provenance full = QuantityTrail.of(trail, ready, lens)
                .then(
                        "station",
                        SAMPLED,
                        "{word} \"{name}\", {samples} samples",
                        Map.of(
                                "word",
                                line.word(),
                                "name",
                                line.name(),
                                "samples",
                                n,
                                "geometry",
                                line.shape(),
                                "abscissa",
                                axis.word(),
                                "found",
                                placement.found(),
                                "moved",
                                placement.moved() + ", at most " + placement.largestMove() + " m"))
                .then("reading", PROFILE, "profile", Map.of("interpolation", stand, "unit", shown.label()));
        return new Profile(
                        abscissa,
                        value,
                        java.util.List.of(),
                        axis.word(),
                        axis.unit(),
                        shown,
                        false,
                        found,
                        stand,
                        full)
                .at(placement.xyz());
    }
}
