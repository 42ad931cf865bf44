package lane.reading;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.Supplier;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Memo;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.MeshSpan;
import lane.evaluation.Outside;
import lane.evaluation.PathIntegral;
import lane.evaluation.QuantityTrail;
import lane.evaluation.RegionIntegral;
import lane.evaluation.SurfaceIntegral;
import lane.field.Part;
import lane.field.Run;
import lane.measure.Measure;
import lane.measure.Measured;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.station.Box;
import lane.station.Placement;
import lane.station.Points;
import lane.station.Sampling;
import lane.station.Shape;
import lane.station.Station;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Takes a measure over surfaces, a region or a path, as a tally with its trail. Formulas: docs/METHODS.md. */
public final class TallyReader {
    private static final Method SURFACE =
            new Method("quadrature over faces, on the cylinder where they stand for one", 2);
    private static final Method VOLUME = new Method("quadrature over cells", 1);
    private static final Method PATH = new Method("between samples by the trapezoid rule", 1);

    private TallyReader() {}

    /** @throws LaneException when a field is missing, has the wrong dimension, or is not known on the parts */
    public static Tally read(
            Run run,
            List<Part> parts,
            Measure measure,
            EvaluationContext lens,
            String unit,
            Provenance trail,
            Memo memo) {
        return read(run, parts, measure, lens, unit, Where.UNSAID, trail, memo, false);
    }

    /** @param stations that the parts are, for the trail */
    static Tally read(
            Run run,
            List<Part> parts,
            Measure measure,
            EvaluationContext lens,
            String unit,
            Where stations,
            Provenance trail,
            Memo memo,
            boolean doubts) {
        var over = new SurfaceIntegral(run, parts, lens, memo);
        Measured made = stations.signed(measure.over(over));
        Uncertainty doubt =
                !doubts || !over.inexact() ? Uncertainty.NONE : doubt(made, () -> measure.over(over.finer()));
        int faces = parts.stream().mapToInt(p -> p.surface().cellCount()).sum();
        String where = String.join(" + ", parts.stream().map(Part::name).toList());
        double coverage = parts.stream()
                .mapToDouble(Part::coverage)
                .filter(c -> !Double.isNaN(c))
                .min()
                .orElse(Double.NaN);
        String inside = Part.lacking(coverage) ? ", only " + Part.percent(coverage) + " of it in the run" : "";
        var settings = new LinkedHashMap<String, Object>(stations.definitions());
        settings.put("parts", where);
        settings.put("faces", faces);
        settings.put(
                "faces turned outwards",
                String.valueOf(parts.stream().mapToInt(Part::turned).sum()));
        if (!Double.isNaN(coverage)) {
            settings.put("coverage", coverage);
        }
        settings.put("quadrature degree", String.valueOf(SurfaceIntegral.DEGREE));
        settings.put("quantities computed", measure.asStored() ? "at nodes, or at faces" : "at quadrature points");
        Provenance full = quantities(over::ready, measure, lens, trail)
                .reading(stations.files())
                .then("station", SURFACE, "part {parts}, {faces} faces", settings);
        String note =
                "over " + where + ", " + faces + " faces" + by(measure) + inside + MeshSpan.words(run) + made.place();
        return tally(made, doubt, measure, unit, note, coverage, full);
    }

    /**
     * @param cells numbers of the cells, ascending
     * @param where names of the regions
     */
    public static Tally read(
            Run run,
            int[] cells,
            Measure measure,
            String where,
            EvaluationContext lens,
            String unit,
            Provenance trail) {
        return read(run, cells, measure, where, lens, unit, Where.UNSAID, trail, false, null);
    }

    static Tally read(
            Run run,
            int[] cells,
            Measure measure,
            String where,
            EvaluationContext lens,
            String unit,
            Where stations,
            Provenance trail,
            boolean doubts,
            @Nullable Box box) {
        if (cells.length == 0) {
            throw new LaneException(
                    Fault.OUTSIDE, "Region \"" + where + "\" holds no cell of this run; make it larger or move it.");
        }
        RegionIntegral over = new RegionIntegral(run, cells, lens).in(box);
        Measured made = measure.within(over);
        Uncertainty doubt =
                !doubts || !over.inexact() ? Uncertainty.NONE : doubt(made, () -> measure.within(over.finer()));
        var settings = new LinkedHashMap<String, Object>(stations.definitions());
        settings.put("regions", where);
        settings.put("cells", cells.length);
        if (box != null) {
            settings.put("cells that its sides pass through", "with the part inside");
        }
        settings.put("quadrature degree", String.valueOf(RegionIntegral.DEGREE));
        settings.put("quantities computed", measure.asStored() ? "at nodes, or in cells" : "at quadrature points");
        Provenance full = quantities(k -> BoundQuantity.of(run, lens.quantity(k), lens), measure, lens, trail)
                .then("station", VOLUME, "region \"{regions}\", {cells} cells", settings);
        return tally(
                made,
                doubt,
                measure,
                unit,
                "over " + where + ", " + cells.length + " cells" + by(measure) + share(over) + MeshSpan.words(run)
                        + made.place(),
                Double.NaN,
                full);
    }

    /** @throws LaneException when nothing lies in the run, or the measure has no meaning on a path */
    public static Tally read(
            Run run,
            Placement placement,
            Station station,
            Measure measure,
            EvaluationContext lens,
            String unit,
            Provenance trail) {
        return read(run, placement, station, measure, lens, unit, trail, false);
    }

    static Tally read(
            Run run,
            Placement placement,
            Station station,
            Measure measure,
            EvaluationContext lens,
            String unit,
            Provenance trail,
            boolean doubts) {
        if (placement.found() == 0) {
            throw new LaneException(
                    Fault.OUTSIDE,
                    "The " + station.word() + " \"" + station.name() + "\" lies outside this run; move it.");
        }
        boolean points = station.shape() instanceof Points;
        var over = new PathIntegral(run, placement, points, lens);
        Measured made = measure.along(over);
        // What is cut at every cell is exact for the interpolant, and points stand for nothing between them.
        boolean spaced =
                doubts && station.shape() instanceof Shape.Path p && !(p.sampling() instanceof Sampling.CellExact);
        Uncertainty doubt = spaced ? doubt(made, () -> measure.along(over.halved())) : Uncertainty.NONE;
        Provenance full = quantities(k -> BoundQuantity.of(run, lens.quantity(k), lens), measure, lens, trail)
                .then(
                        "station",
                        station.shape() instanceof Points ? ProfileReader.SAMPLED : PATH,
                        "{word} \"{name}\", {samples} samples",
                        Map.of(
                                "word",
                                station.word(),
                                "name",
                                station.name(),
                                "samples",
                                placement.size(),
                                "geometry",
                                station.shape(),
                                "found",
                                placement.found(),
                                "moved",
                                placement.moved() + ", at most " + placement.largestMove() + " m"));
        String samples = placement.found() + " of " + placement.size() + " samples";
        return tally(
                made, doubt, measure, unit, "over " + station.name() + ", " + samples + made.place(), Double.NaN, full);
    }

    /** Of a run as a whole. */
    static Tally whole(Run run, Measure measure, EvaluationContext lens, String unit, Provenance trail) {
        Measured made = measure.of(run, lens);
        Provenance full = quantities(k -> BoundQuantity.of(run, lens.quantity(k), lens), measure, lens, trail);
        return tally(made, Uncertainty.NONE, measure, unit, "one number a lane" + made.place(), Double.NaN, full);
    }

    /** The trail with the quantities that a measure is taken of, and the files that they reach. */
    private static Provenance quantities(
            Function<String, BoundQuantity> bound, Measure measure, EvaluationContext lens, Provenance trail) {
        Provenance out = trail;
        for (String key : measure.quantities().stream().sorted().toList()) {
            out = QuantityTrail.of(out, bound.apply(key), lens);
        }
        return out;
    }

    /** Whose values were taken, where there is a choice. */
    private static String by(Measure measure) {
        return measure.by().map(b -> ", " + b.note()).orElse("");
    }

    /** How the cells count, where a box cuts them. */
    private static String share(RegionIntegral over) {
        Box box = over.box();
        if (box == null) {
            return "";
        }
        double all = box.volume();
        double have = Double.isInfinite(all) ? all : over.sums(null)[1];
        return ", cut by its sides"
                + (have > (1 - 1e-9) * all ? "" : ", only " + Part.percent(have / all) + " of it in the run");
    }

    /** Differences below this share of a number are round-off. */
    private static final double ROUND_OFF = 1e-12;

    /** How much the number depends on how it was integrated: what another way gives. */
    private static Uncertainty doubt(Measured made, Supplier<Measured> other) {
        double change;
        try {
            // What it meets outside was counted with the number itself.
            change = Math.abs(new Outside().counting(other).value() - made.value());
        } catch (LaneException e) {
            // A number that fewer samples do not have is not made better known by them.
            return Uncertainty.NONE;
        }
        return change > ROUND_OFF * Math.abs(made.value())
                ? Uncertainty.ofHalf(Uncertainty.Source.QUADRATURE, change)
                : Uncertainty.NONE;
    }

    private static Tally tally(
            Measured made,
            Uncertainty doubt,
            Measure measure,
            String unit,
            String note,
            double coverage,
            Provenance trail) {
        Unit shown = Outcome.shown(unit, made.natural(), "Tally");
        Provenance full = trail.then(
                "reading",
                measure.method(),
                "{word}",
                Map.of("word", measure.word(), "measure", measure, "sign", made.sign(), "unit", shown.label()));
        return new Tally(new Estimate(made.value(), shown, doubt), made.pieces(), made.sign(), note, coverage, full);
    }
}
