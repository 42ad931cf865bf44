package lane.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lane.base.LaneException;
import lane.estimate.Band;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Scalar;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * An answer with the uncertainties that a check knows of it: numerical from its family, input from sensitivities.
 *
 * @param of the answer itself
 * @param refined what its family says; null for nothing
 * @param inputs what each input adds, as standard uncertainties
 * @param note what is to be told beside the verdict; blank for nothing
 */
record Doubted(
        Outcome of,
        List<Estimate> numbers,
        Optional<Profile> curve,
        @Nullable Refined refined,
        List<Budget.Row> inputs,
        String note,
        Provenance trail)
        implements Outcome {
    private static final Method METHOD = new Method("numerical and input uncertainty", 1);

    static Outcome of(String lane, Outcome value, Crossing on, Doubts doubts) {
        if (value instanceof Absent
                || value.numbers().isEmpty() && value.curve().isEmpty()) {
            return value;
        }
        Refined refined = null;
        String note = "";
        boolean stated = value.numbers().stream()
                .findFirst()
                .filter(e -> e.uncertainty().standard().containsKey(Uncertainty.Source.NUMERICAL))
                .isPresent();
        if (doubts.counts() && !stated) {
            try {
                refined = Refined.of(on, lane, doubts);
            } catch (LaneException e) {
                note = " No numerical uncertainty: " + e.getMessage();
            }
            // An order that nobody stated is nothing for a verdict to rest on.
            if (refined != null && refined.count() == 2 && doubts.order() == null) {
                refined = null;
            }
        }
        Provenance trail = value.trail();
        var settings = new LinkedHashMap<String, String>();
        List<Budget.Row> inputs = new ArrayList<>();
        List<double[]> bands = new ArrayList<>();
        for (Doubts.Input input : doubts.inputs()) {
            double[] each = effect(input, value, on);
            if (each.length > 0) {
                bands.add(each);
                inputs.add(
                        new Budget.Row(input.name(), from(input), value.curve().isPresent() ? Double.NaN : each[0]));
                settings.put("input " + input.name(), from(input) + ", standard uncertainty " + input.standard());
                Outcome other = on.outcomes().get(input.lane());
                trail = other == null ? trail : trail.beside("changed input " + input.name(), other.trail());
            }
        }
        if (refined == null && inputs.isEmpty() && doubts.k() == null) {
            return note.isEmpty()
                    ? value
                    : new Doubted(value, value.numbers(), value.curve(), null, inputs, note, trail);
        }
        if (refined != null) {
            for (String id : refined.lanes()) {
                Outcome other = on.outcomes().get(id);
                trail = id.equals(lane) || other == null ? trail : trail.beside("mesh " + id, other.trail());
            }
            settings.put("meshes", String.join(", ", refined.lanes()));
            settings.put("sizes", Arrays.toString(refined.sizes()));
            settings.put("says", refined.words());
            note += note(refined, value);
        }
        settings.put("k", doubts.k() == null ? "of 95 %" : doubts.k().toString());
        trail = trail.then(
                "check", METHOD, refined == null ? "uncertainty of inputs" : "numerical uncertainty: {says}", settings);
        List<Estimate> numbers = new ArrayList<>(value.numbers());
        if (!numbers.isEmpty()) {
            Estimate first = numbers.getFirst();
            Uncertainty all = first.uncertainty();
            if (refined != null && refined.curve() == null) {
                all = all.and(Uncertainty.ofHalf(
                        Uncertainty.Source.NUMERICAL, refined.convergence().half()));
            }
            for (double[] each : bands) {
                all = all.and(Uncertainty.ofStandard(Uncertainty.Source.INPUT, each[0], Double.POSITIVE_INFINITY));
            }
            numbers.set(0, new Estimate(first.value(), first.unit(), doubts.covering(all)));
        }
        Refined made = refined;
        Optional<Profile> curve = value.curve().map(p -> banded(p, made, bands, doubts.k()));
        return new Doubted(value, numbers, curve, refined, inputs, note, trail);
    }

    private static String from(Doubts.Input input) {
        return input.sensitivity() != null
                ? "sensitivity " + Tolerance.plain(input.sensitivity())
                : "changed by " + Tolerance.plain(input.change() == null ? Double.NaN : input.change()) + " in "
                        + input.lane();
    }

    private static String note(Refined refined, Outcome value) {
        Unit unit = value.unit().difference();
        double half = refined.convergence().half();
        String size = refined.curve() == null ? Tolerance.three(unit.fromSi(half)) + " " + unit.symbol() + ", " : "";
        return " Numerical uncertainty: " + size + refined.words() + ". "
                + String.join(" ", refined.convergence().notes());
    }

    /** The same with the half-widths that a stated factor makes of them, and no more. */
    static Outcome covered(Outcome value, Doubts doubts) {
        Double k = doubts.k();
        if (k == null || value instanceof Absent) {
            return value;
        }
        List<Estimate> numbers = value.numbers().stream()
                .map(e -> new Estimate(e.value(), e.unit(), doubts.covering(e.uncertainty())))
                .toList();
        return new Doubted(
                value,
                numbers,
                value.curve().map(p -> banded(p, null, List.of(), k)),
                null,
                List.of(),
                "",
                value.trail());
    }

    /** What an input adds to a number, or at each place of a curve, as standard uncertainty in SI units; empty where that is not known. */
    private static double[] effect(Doubts.Input input, Outcome value, Crossing on) {
        Double sensitivity = input.sensitivity();
        int n = value.curve().map(Profile::size).orElse(1);
        double[] out = new double[n];
        if (sensitivity != null) {
            Arrays.fill(
                    out,
                    Math.abs(sensitivity)
                            * input.standard()
                            * value.unit().difference().factor());
            return out;
        }
        Outcome other = on.outcomes().get(input.lane());
        Double change = input.change();
        if (other == null || change == null) {
            throw new LaneException("Input \"" + input.name() + "\" was changed in \"" + input.lane()
                    + "\", which is no lane of the study; choose another.");
        }
        if (value.curve().isPresent() && other.curve().isPresent()) {
            Profile p = value.curve().get();
            double[] there = Refined.values(other.curve().get(), p);
            for (int i = 0; there != null && i < n; i++) {
                out[i] = Math.abs((there[i] - p.value()[i]) / change) * input.standard();
            }
            return there == null ? new double[0] : out;
        }
        if (value.numbers().isEmpty() || other.numbers().isEmpty()) {
            return new double[0];
        }
        double d =
                other.numbers().getFirst().value() - value.numbers().getFirst().value();
        out[0] = Math.abs(d / change) * input.standard();
        return out;
    }

    private static Profile banded(Profile p, @Nullable Refined refined, List<double[]> inputs, @Nullable Double k) {
        List<Band> bands = new ArrayList<>();
        double wide = k == null ? Uncertainty.USUAL : k;
        for (Band b : p.bands()) {
            bands.add(
                    k == null ? b : new Band(b.source(), times(b.below(), k / b.k()), times(b.above(), k / b.k()), k));
        }
        if (refined != null && refined.curve() != null) {
            bands.add(
                    band(Uncertainty.Source.NUMERICAL, times(refined.curve().half(), wide / Uncertainty.USUAL), wide));
        }
        for (double[] each : inputs) {
            bands.add(band(Uncertainty.Source.INPUT, times(each, wide), wide));
        }
        return p.banded(bands);
    }

    private static Band band(Uncertainty.Source source, double[] half, double k) {
        return new Band(source, half, half, k);
    }

    private static double[] times(double[] v, double factor) {
        return Arrays.stream(v).map(x -> x * factor).toArray();
    }

    @Override
    public Unit unit() {
        return of.unit();
    }

    @Override
    public List<Scalar> scalars() {
        return of.scalars();
    }

    @Override
    public double scale() {
        return of.scale();
    }

    @Override
    public String scaledBy() {
        return of.scaledBy();
    }

    /** Rows of a budget for the first number, or for a place of the curve. */
    static List<Budget.Row> rows(String lane, Outcome value, double at) {
        List<Budget.Row> out = new ArrayList<>();
        List<Budget.Row> named = value instanceof Doubted d ? d.inputs : List.of();
        Profile p = value.curve().orElse(null);
        if (p == null) {
            if (value.numbers().isEmpty()) {
                return out;
            }
            Map<Uncertainty.Source, Double> all =
                    value.numbers().getFirst().uncertainty().standard();
            all.forEach((source, u) -> {
                if (source != Uncertainty.Source.INPUT || named.isEmpty()) {
                    out.add(new Budget.Row(source.word(), lane, u));
                }
            });
            out.addAll(named);
            return out;
        }
        int i = nearest(p.abscissa(), at);
        int input = 0;
        for (Band b : p.bands()) {
            double half = i < 0 ? Double.NaN : Math.max(b.below()[i], b.above()[i]);
            boolean own = b.source() == Uncertainty.Source.INPUT && input < named.size();
            Budget.Row name = own ? named.get(input++) : null;
            if (half > 0) {
                out.add(new Budget.Row(
                        name == null ? b.source().word() : name.component(),
                        name == null ? lane : name.from(),
                        half / b.k()));
            }
        }
        return out;
    }

    private static int nearest(double[] x, double at) {
        int best = -1;
        for (int i = 0; i < x.length; i++) {
            if (!Double.isNaN(x[i]) && (best < 0 || Math.abs(x[i] - at) < Math.abs(x[best] - at))) {
                best = i;
            }
        }
        return best;
    }
}
