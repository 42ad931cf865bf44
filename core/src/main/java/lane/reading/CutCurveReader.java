package lane.reading;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import lane.base.Fault;
import lane.base.LaneException;
import lane.evaluation.BoundQuantity;
import lane.evaluation.CutCurveBranches;
import lane.evaluation.EvaluationContext;
import lane.evaluation.QuantityTrail;
import lane.field.Run;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.Station;
import lane.unit.Unit;

/** Reads a quantity along the branches of a cut curve. */
public final class CutCurveReader {
    private static final Method CUT = new Method("faces cut by a plane, edge by edge", 1);

    private CutCurveReader() {}

    /** The profile over one branch, or over all one after the other with an absent sample between them. */
    public static Profile read(
            Run run, Station where, Quantity quantity, EvaluationContext lens, String unitText, Provenance trail) {
        var station = (CutCurve) where.shape();
        List<CutCurveBranches.Branch> all = CutCurveBranches.of(run, station, quantity, lens);
        if (all.isEmpty()) {
            throw new LaneException(
                    Fault.OUTSIDE, "The plane of cut curve \"" + where.name() + "\" meets none of its parts; move it.");
        }
        if (station.branch() > all.size()) {
            throw new LaneException("Cut curve \"" + where.name() + "\" has " + all.size() + " branches here, not "
                    + station.branch() + "; choose one of them.");
        }
        List<CutCurveBranches.Branch> chosen = station.branch() == 0 ? all : List.of(all.get(station.branch() - 1));
        int n = chosen.stream().mapToInt(b -> b.places().size()).sum() + chosen.size() - 1;
        double[] abscissa = new double[n];
        double[] value = new double[n];
        double[] places = new double[3 * n];
        int at = 0;
        int found = 0;
        for (CutCurveBranches.Branch b : chosen) {
            if (at > 0) {
                abscissa[at] = Double.NaN;
                Arrays.fill(places, 3 * at, 3 * at + 3, Double.NaN);
                value[at++] = Double.NaN;
            }
            double[] along = along(station, b);
            for (int i = 0; i < along.length; i++) {
                abscissa[at] = along[i];
                b.places().get(i).into(places, 3 * at);
                value[at++] = b.values()[i];
                found += Double.isFinite(b.values()[i]) ? 1 : 0;
            }
        }
        Unit shown = Outcome.shown(unitText, chosen.getFirst().unit(), "Reading on \"" + where.name() + "\"");
        String names = String.join(
                "; ", chosen.stream().map(CutCurveBranches.Branch::name).toList());
        Provenance full = QuantityTrail.of(trail, BoundQuantity.of(run, quantity, lens), lens)
                .then(
                        "station",
                        CUT,
                        "cut curve \"{name}\", {chosen} of {all} branches",
                        Map.of(
                                "name",
                                where.name(),
                                "chosen",
                                chosen.size(),
                                "all",
                                all.size(),
                                "geometry",
                                station,
                                "branches",
                                names))
                .then("reading", ProfileReader.PROFILE, "profile", Map.of("unit", shown.label()));
        String word =
                switch (station.against()) {
                    case LENGTH -> "length along the curve";
                    case COORDINATE -> "coordinate along the direction";
                    case SHARE -> "share of the piece's extent";
                };
        return new Profile(
                        abscissa,
                        value,
                        List.of(),
                        word,
                        Unit.of(station.against() == Extent.SHARE ? "1" : "m"),
                        shown,
                        false,
                        found,
                        names,
                        full)
                .at(places);
    }

    private static double[] along(CutCurve station, CutCurveBranches.Branch b) {
        double[] out = new double[b.places().size()];
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < out.length; i++) {
            if (station.against() == Extent.LENGTH) {
                out[i] = i == 0
                        ? 0
                        : out[i - 1]
                                + b.places().get(i).minus(b.places().get(i - 1)).norm();
            } else {
                out[i] = b.places().get(i).dot(station.direction());
            }
            least = Math.min(least, out[i]);
            greatest = Math.max(greatest, out[i]);
        }
        if (station.against() == Extent.SHARE) {
            for (int i = 0; i < out.length; i++) {
                out[i] = greatest > least ? (out[i] - least) / (greatest - least) : 0;
            }
        }
        return out;
    }
}
