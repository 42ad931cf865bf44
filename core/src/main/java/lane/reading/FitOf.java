package lane.reading;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Plain;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.evaluation.BoundQuantity;
import lane.evaluation.QuantityTrail;
import lane.evaluation.StoredValues;
import lane.fit.Fit;
import lane.fit.LeastSquares;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.station.CurveAxis;
import lane.station.Station;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A polynomial by least squares through a curve, or through the values at nodes or in cells against another quantity: its
 * coefficients with their standard errors, or what it leaves.
 *
 * @param stations one that carries a curve; or regions or surfaces, taken together
 * @param against key of the quantity along which nodes or cells stand; blank for a curve, which has its abscissa
 * @param alongUnit unit of {@code from} and {@code to}; SI where blank
 * @param from and {@code to}: the part of the abscissa that counts; null for all
 * @param number which coefficient is the answer, the constant being 0
 */
public record FitOf(
        List<String> stations,
        String quantity,
        int degree,
        Over over,
        String against,
        String alongUnit,
        @Nullable Double from,
        @Nullable Double to,
        Show show,
        int number)
        implements Ask {
    private static final Method FIT = new Method("polynomial by least squares, in 120 digits", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "fit";
        }

        @Override
        public Class<FitOf> type() {
            return FitOf.class;
        }
    }

    /** Of what samples are taken. */
    public enum Over {
        CURVE("samples of a curve"),
        NODES("nodes"),
        CELLS("cells, one value each");

        private final String word;

        Over(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** What the answer is. */
    public enum Show {
        COEFFICIENTS("coefficients"),
        FITTED("fitted curve"),
        RESIDUALS("value less fit");

        private final String word;

        Show(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public FitOf {
        stations = stations == null ? List.of() : List.copyOf(stations);
        over = over == null ? Over.CURVE : over;
        show = show == null ? Show.COEFFICIENTS : show;
        against = against == null ? "" : against;
        alongUnit = alongUnit == null ? "" : alongUnit;
        if (degree < 0 || degree > LeastSquares.HIGHEST) {
            throw new LaneException("A polynomial of degree " + degree + " is not fitted; give a degree from 0 to "
                    + LeastSquares.HIGHEST + ".");
        }
        if (number < 0 || number > degree) {
            throw new LaneException("A polynomial of degree " + degree + " has the coefficients 0 to " + degree
                    + ", the constant being 0; there is no " + number + ".");
        }
        if (from != null && to != null && !(from < to)) {
            throw new LaneException(
                    "The part of a curve from " + from + " to " + to + " is empty; give the lesser end first.");
        }
    }

    @Override
    public Form form() {
        return show == Show.COEFFICIENTS ? Form.NUMBER : Form.CURVE;
    }

    @Override
    public Set<String> quantities() {
        Set<String> out = new LinkedHashSet<>(Set.of(quantity));
        if (over != Over.CURVE && !against.isBlank()) {
            out.add(against);
        }
        return out;
    }

    @Override
    public List<String> numbers(String name) {
        if (show != Show.COEFFICIENTS) {
            return List.of();
        }
        List<String> out = new ArrayList<>(List.of(name));
        for (int k = 0; k <= degree; k++) {
            out.add(name + " c" + k);
        }
        out.add(name + " deviation");
        out.add(name + " R2");
        return out;
    }

    @Override
    public Optional<Ask> curve() {
        return over == Over.CURVE && show == Show.COEFFICIENTS && stations.size() == 1
                ? Optional.of(new ProfileOf(stations.getFirst(), quantity))
                : Optional.empty();
    }

    @Override
    public Outcome of(Reading reading, Profile p) {
        return made(reading, p, p.note());
    }

    @Override
    public CurveAxis drawn(Station on) {
        return over == Over.CURVE ? CurveAxis.of(on) : new CurveAxis(against, Unit.ONE);
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        if (over == Over.CURVE) {
            if (stations.size() != 1) {
                throw new LaneException("Reading \"" + reading.name()
                        + "\" fits a polynomial through a curve, which has one station; choose one.");
            }
            Outcome curve = new ProfileOf(stations.getFirst(), quantity).read(reading.in(""), on);
            return curve instanceof Profile p ? of(reading, p) : curve;
        }
        if (against.isBlank()) {
            throw new LaneException("A fit over " + over.word() + " needs a quantity to be fitted against, such as x;"
                    + " choose one.");
        }
        var at = over == Over.NODES ? StoredValues.At.NODES : StoredValues.At.CELLS;
        StoredValues x = StoredOver.of(on, reading, stations, at, against, "");
        StoredValues y = StoredOver.of(on, reading, stations, at, quantity, "");
        int[] order = IntStream.range(0, x.value().length)
                .boxed()
                .sorted(Comparator.comparingDouble(i -> x.value()[i]))
                .mapToInt(i -> i)
                .toArray();
        double[] places = new double[3 * order.length];
        for (int i = 0; i < order.length; i++) {
            System.arraycopy(x.place(), 3 * order[i], places, 3 * i, 3);
        }
        Provenance trail = on.trail();
        for (String key : quantities().stream().sorted().toList()) {
            trail = QuantityTrail.of(trail, BoundQuantity.of(on.run(), on.quantity(key), on.lens()), on.lens());
        }
        var all = stations.stream().map(s -> on.station(s, reading)).toList();
        Where where = Where.of(all, on.places().sheets());
        String note = "over the " + over.word() + " of "
                + String.join(" + ", all.stream().map(Station::name).toList()) + ", each counting the same";
        trail = trail.reading(where.files()).then("station", FIT, "{note}", settings(where, note));
        var profile = new Profile(
                        IntStream.of(order).mapToDouble(i -> x.value()[i]).toArray(),
                        IntStream.of(order).mapToDouble(i -> y.value()[i]).toArray(),
                        List.of(),
                        on.quantity(against).name(),
                        x.unit(),
                        y.unit(),
                        false,
                        order.length,
                        note,
                        trail)
                .at(places);
        return made(reading, profile, note);
    }

    private static Map<String, Object> settings(Where where, String note) {
        var out = new java.util.LinkedHashMap<String, Object>(where.definitions());
        out.put("note", note);
        return out;
    }

    private Outcome made(Reading reading, Profile p, String note) {
        Unit along = alongUnit.isBlank() ? p.abscissaUnit().si() : Unit.of(alongUnit);
        along.requireComparable(p.abscissaUnit(), "The abscissa of the fit");
        double least = from == null ? Double.NEGATIVE_INFINITY : along.toSi(from);
        double greatest = to == null ? Double.POSITIVE_INFINITY : along.toSi(to);
        int[] taken = IntStream.range(0, p.size())
                .filter(i -> Double.isFinite(p.value()[i])
                        && Double.isFinite(p.abscissa()[i])
                        && p.abscissa()[i] >= least
                        && p.abscissa()[i] <= greatest)
                .toArray();
        if (taken.length == 0) {
            throw new LaneException(
                    Fault.NO_VALUE,
                    "There is no value to fit " + (from == null && to == null ? "" : "in the part that counts")
                            + "; choose another part.");
        }
        double[] x = IntStream.of(taken).mapToDouble(i -> p.abscissa()[i]).toArray();
        Fit fit = LeastSquares.polynomial(
                x, IntStream.of(taken).mapToDouble(i -> p.value()[i]).toArray(), degree);
        String how = "polynomial of degree " + degree + " through " + Plain.count(taken.length, "sample") + "; " + note;
        if (show != Show.COEFFICIENTS) {
            return curve(reading, p, taken, fit, how);
        }
        Unit[] units = units(p);
        List<Scalar> named = new ArrayList<>();
        for (int k = 0; k <= degree; k++) {
            double error = fit.standardErrors()[k];
            Uncertainty doubt = error > 0
                    ? Uncertainty.ofStandard(Uncertainty.Source.SAMPLING, error, fit.freedom())
                    : Uncertainty.NONE;
            Unit shown = k == number
                    ? Outcome.shown(reading.unit(), units[k], "Reading \"" + reading.name() + "\"")
                    : units[k];
            String word = k == 0 ? "constant" : k == 1 ? "of the abscissa" : "of its power " + k;
            named.add(new Scalar(
                    k == 0 ? "constant" : "coefficient " + k,
                    new Estimate(fit.coefficients()[k], shown, doubt),
                    word + ", " + how));
        }
        named.add(new Scalar(
                "residual deviation",
                new Estimate(fit.residualDeviation(), p.unit().forInterval()),
                "sqrt(SSR / (n - p))"));
        named.add(new Scalar("R2", new Estimate(fit.r2(), Unit.ONE), "share of the variance that the fit explains"));
        return new Several(
                named,
                number,
                List.of(new Scalar("samples", new Estimate(taken.length, Unit.ONE), "")),
                how,
                p.coverage(),
                trail(p, p.unit()));
    }

    private Profile curve(Reading reading, Profile p, int[] taken, Fit fit, String how) {
        boolean residuals = show == Show.RESIDUALS;
        Unit natural = residuals ? p.unit().forInterval() : p.unit();
        Unit shown = Outcome.shown(reading.unit(), natural, "Reading \"" + reading.name() + "\"");
        double[] value = new double[p.size()];
        java.util.Arrays.fill(value, Double.NaN);
        for (int i = 0; i < taken.length; i++) {
            double left = fit.residuals()[i];
            value[taken[i]] = residuals ? left : p.value()[taken[i]] - left;
        }
        return new Profile(
                        p.abscissa(),
                        value,
                        List.of(),
                        p.abscissaName(),
                        p.abscissaUnit(),
                        shown,
                        false,
                        taken.length,
                        how,
                        trail(p, shown))
                .covering(p.coverage())
                .at(p.places());
    }

    private Provenance trail(Profile p, Unit shown) {
        return p.trail()
                .then(
                        "reading",
                        FIT,
                        "degree {degree}",
                        Map.of("degree", degree, "definition", this, "unit", shown.label()));
    }

    /** Of the coefficients. */
    private Unit[] units(Profile p) {
        Unit[] out = new Unit[degree + 1];
        Unit now = p.unit();
        for (int k = 0; k <= degree; k++) {
            out[k] = now;
            now = (k == 0 ? now.difference() : now).over(p.abscissaUnit().difference());
        }
        return out;
    }
}
