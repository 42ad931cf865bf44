package lane.reading;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.IntStream;
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
import lane.field.Gather;
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
        var sizes = new double[1][];
        String where = String.join(" + ", parts.stream().map(Part::name).toList());
        Sure sure = sure(
                run.gather(),
                () -> measure.over(over),
                !doubts ? null : () -> measure.over(over.inexact() ? over.finer() : over),
                over::inexact,
                () -> {
                    sizes[0] = run.gather().sums(List.of("faces of", where), () -> sizes(parts));
                    if (sizes[0][0] == 0) {
                        throw new LaneException(
                                Fault.OUTSIDE, "No face of " + where + " lies in this run; move it or widen it.");
                    }
                });
        Measured made = stations.signed(sure.made);
        int faces = (int) sizes[0][0];
        double coverage = IntStream.range(0, parts.size())
                .mapToDouble(i -> coverage(run, parts.get(i), sizes[0][2 + i]))
                .filter(c -> !Double.isNaN(c))
                .min()
                .orElse(Double.NaN);
        String inside = Part.lacking(coverage) ? ", only " + Part.percent(coverage) + " of it in the run" : "";
        var settings = new LinkedHashMap<String, Object>(stations.definitions());
        settings.put("parts", where);
        settings.put("faces", faces);
        settings.put("faces turned outwards", String.valueOf((int) sizes[0][1]));
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
        return tally(made, sure.doubt, measure, unit, note, coverage, full);
    }

    /** How much of a part lies in a run, from what pieces hold of it: all of it is all, but for round-off. */
    private static double coverage(Run run, Part part, double held) {
        if (run.gather().whole()) {
            return held;
        }
        // Of a surface from a file pieces tell which share of it is theirs; whole it needs no word.
        boolean own = run.parts().stream().anyMatch(p -> p.name().equals(part.name()));
        return held < 1 - 1e-9 ? held : own ? Double.NaN : 1;
    }

    /** Number of faces, of those that were turned, and of each part how much of what was asked for lies in the run. */
    private static double[] sizes(List<Part> parts) {
        double[] out = new double[2 + parts.size()];
        for (int i = 0; i < parts.size(); i++) {
            Part p = parts.get(i);
            out[0] += p.surface().cellCount();
            out[1] += p.turned();
            out[2 + i] = p.coverage();
        }
        return out;
    }

    private record Sure(Measured made, Uncertainty doubt) {}

    /**
     * A number with how much it depends on its rule.
     *
     * @param finer the same by another rule; null where nobody asks
     * @param inexact whether the first rule was not exact, after it was taken
     * @param beside what else is asked of the same cells, and whether there are any: that is said first
     */
    private static Sure sure(
            Gather of,
            Supplier<Measured> measure,
            @Nullable Supplier<Measured> finer,
            BooleanSupplier inexact,
            Runnable beside) {
        var made = new Measured[1];
        var doubt = new Uncertainty[] {Uncertainty.NONE};
        var other = new Measured[1];
        var lost = new boolean[1];
        of.each(List.of(
                beside,
                () -> made[0] = measure.get(),
                () -> lost[0] =
                        finer != null && of.sums("inexact", () -> new double[] {inexact.getAsBoolean() ? 1 : 0})[0] > 0,
                () -> {
                    // Whether a rule is exact on all pieces none of them knows; where it is, another gives the same.
                    if (finer != null && (lost[0] || !of.whole())) {
                        other[0] = other(finer);
                    }
                }));
        if (lost[0] && other[0] != null) {
            doubt[0] = doubt(made[0], other[0]);
        }
        return new Sure(made[0], doubt[0]);
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
        return read(run, cells, measure, where, lens, unit, Where.UNSAID, trail, false, null, Memo.NONE);
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
            @Nullable Box box,
            Memo memo) {
        Supplier<LaneException> none = () -> new LaneException(
                Fault.OUTSIDE, "Region \"" + where + "\" holds no cell of this run; make it larger or move it.");
        if (cells.length == 0 && run.gather().whole()) {
            throw none.get();
        }
        RegionIntegral over = new RegionIntegral(run, cells, lens).in(box).keeping(memo);
        var counted = new double[1][];
        var inBox = new String[1];
        Sure sure = sure(
                run.gather(),
                () -> measure.within(over),
                !doubts ? null : () -> measure.within(over.inexact() ? over.finer() : over),
                over::inexact,
                () -> run.gather()
                        .each(List.of(
                                () -> {
                                    counted[0] = run.gather()
                                            .sums(List.of("cells of", where), () -> new double[] {cells.length});
                                    if (counted[0][0] == 0) {
                                        throw none.get();
                                    }
                                },
                                () -> inBox[0] = share(over))));
        Measured made = sure.made;
        int all = (int) counted[0][0];
        var settings = new LinkedHashMap<String, Object>(stations.definitions());
        settings.put("regions", where);
        settings.put("cells", all);
        if (box != null) {
            settings.put("cells that its sides pass through", "with the part inside");
        }
        settings.put("quadrature degree", String.valueOf(RegionIntegral.DEGREE));
        settings.put("quantities computed", measure.asStored() ? "at nodes, or in cells" : "at quadrature points");
        Provenance full = quantities(k -> over.ready(lens.quantity(k)), measure, lens, trail)
                .then("station", VOLUME, "region \"{regions}\", {cells} cells", settings);
        return tally(
                made,
                sure.doubt,
                measure,
                unit,
                "over " + where + ", " + all + " cells" + by(measure) + inBox[0] + MeshSpan.words(run) + made.place(),
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
            Placement own,
            Station station,
            Measure measure,
            EvaluationContext lens,
            String unit,
            Provenance trail,
            boolean doubts) {
        Supplier<LaneException> none = () -> new LaneException(
                Fault.OUTSIDE, "The " + station.word() + " \"" + station.name() + "\" lies outside this run; move it.");
        if (own.found() == 0 && run.gather().whole()) {
            throw none.get();
        }
        boolean points = station.shape() instanceof Points;
        var over = new PathIntegral(run, own, points, lens);
        var taken = new Measured[1];
        run.gather()
                .each(List.of(
                        () -> {
                            if (over.placement().found() == 0) {
                                throw none.get();
                            }
                        },
                        () -> taken[0] = measure.along(over)));
        Measured made = taken[0];
        Placement placement = over.placement();
        // What is cut at every cell is exact for the interpolant, and points stand for nothing between them.
        boolean spaced =
                doubts && station.shape() instanceof Shape.Path p && !(p.sampling() instanceof Sampling.CellExact);
        Uncertainty doubt = spaced ? doubt(made, other(() -> measure.along(over.halved()))) : Uncertainty.NONE;
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

    /** What another way to integrate gives; null for a number that it does not have. */
    private static @Nullable Measured other(Supplier<Measured> other) {
        try {
            // What it meets outside was counted with the number itself.
            return new Outside().counting(other);
        } catch (LaneException e) {
            return null;
        }
    }

    /** How much the number depends on how it was integrated; a number that fewer samples do not have is not made better known. */
    private static Uncertainty doubt(Measured made, @Nullable Measured other) {
        double change = other == null ? 0 : Math.abs(other.value() - made.value());
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
