package lane.reference;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Sum;
import lane.estimate.Band;
import lane.estimate.Estimate;
import lane.history.Series;
import lane.mesh.Axis;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.reading.Ask;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Samples;
import lane.reading.Tally;
import lane.station.CurveAxis;
import lane.station.Station;
import lane.unit.Unit;

/** Turns reference definitions into profiles and tallies. */
public final class ReferenceReader {
    private static final int BATCHES = 10;

    private static final Method FORMULA = new Method("formula at each place", 1);
    private static final Method PLACES = new Method("places of the station, none of a mesh", 1);
    private static final Method TABLE = new Method("table read by its recipe", 1);
    private static final Method COLUMNS = new Method("columns as they stand, in the order of the abscissa", 1);
    private static final Method OVER_TIME = new Method("columns over time, what was written last counts", 1);
    private static final Method WINDOW = new Method("mean over a window, its error by batch means", 2);

    private ReferenceReader() {}

    /** A theory along a line: at the line's even samples, or at 201 of them if the line is cell-exact. */
    public static Profile profile(
            Curve.ByFormula curve,
            Map<String, Double> constants,
            double time,
            Ask ask,
            Station line,
            Axis axis,
            String unitText) {
        Formula formula = Formula.of(curve.formula());
        Unit unit = known(curve.unit(), "formula \"" + curve.formula() + "\"");
        CurveAxis.Samples at = ask.samples(line, axis);
        CurveAxis drawn = ask.drawn(line);
        int n = at.arc().length;
        double[] abscissa = new double[n];
        double[] value = new double[n];
        Map<String, Double> values = at(time, constants, formula);
        for (int i = 0; i < n; i++) {
            abscissa[i] = at.abscissa()[i];
            if (Double.isNaN(abscissa[i])) {
                value[i] = Double.NaN;
                continue;
            }
            double x = at.xyz()[3 * i];
            double y = at.xyz()[3 * i + 1];
            double z = at.xyz()[3 * i + 2];
            values.put("x", x);
            values.put("y", y);
            values.put("z", z);
            values.put("r", axis.radius(x, y, z));
            values.put("s", at.arc()[i]);
            value[i] = unit.toSi(formula.value(values));
        }
        Unit shown = Outcome.shown(unitText, unit, "Theory");
        Provenance trail = Provenance.EMPTY
                .then("source", FORMULA, "formula {formula}", given(curve, unit, constants, time, formula))
                .then(
                        "station",
                        PLACES,
                        "{word} \"{name}\", {points} points",
                        Map.of(
                                "word",
                                line.word(),
                                "name",
                                line.name(),
                                "points",
                                n,
                                "geometry",
                                line.shape(),
                                "axis",
                                axis))
                .then("reading", FORMULA, "profile", Map.of("unit", shown.label()));
        int found = (int) Arrays.stream(value).filter(Double::isFinite).count();
        return new Profile(
                        abscissa,
                        value,
                        java.util.List.of(),
                        drawn.word(),
                        drawn.unit(),
                        shown,
                        true,
                        found,
                        "formula, at any abscissa",
                        trail)
                .at(at.xyz());
    }

    /** Even samples of a theory over time, between its ends. */
    private static final int SAMPLES = 200;

    /**
     * A theory over time: at the stored times, and evenly between the first and the last.
     *
     * @param stored times as files count them, in the unit of the axis
     */
    public static Profile history(
            Curve.ByFormula curve,
            Map<String, Double> constants,
            List<Double> stored,
            CurveAxis axis,
            String unitText) {
        Formula formula = Formula.of(curve.formula());
        Unit unit = known(curve.unit(), "formula \"" + curve.formula() + "\"");
        if (stored.isEmpty()) {
            throw new LaneException("The formula \"" + formula.text()
                    + "\" is taken at the stored times of a run, and no run of the study has several; give a table.");
        }
        double first = stored.getFirst();
        double last = stored.getLast();
        double[] abscissa = java.util.stream.DoubleStream.concat(
                        stored.stream().mapToDouble(t -> t),
                        IntStream.rangeClosed(0, SAMPLES).mapToDouble(i -> first + (last - first) * i / SAMPLES))
                .sorted()
                .distinct()
                .map(axis.unit()::toSi)
                .toArray();
        double[] value = Arrays.stream(abscissa)
                .map(t -> {
                    Map<String, Double> at = new HashMap<>(constants);
                    at.putIfAbsent("time", t);
                    return unit.toSi(formula.value(at));
                })
                .toArray();
        Unit shown = Outcome.shown(unitText, unit, "Theory");
        Map<String, Object> settings = given(curve, unit, constants, Double.NaN, formula);
        settings.put("times", abscissa.length + " from " + first + " to " + last);
        settings.remove("time");
        Provenance trail = Provenance.EMPTY
                .then("source", FORMULA, "formula {formula}", settings)
                .then(
                        "reading",
                        FORMULA,
                        "history",
                        Map.of("unit", shown.label(), "along", axis.unit().label()));
        return new Profile(
                abscissa,
                value,
                List.of(),
                axis.word(),
                axis.unit(),
                shown,
                true,
                (int) Arrays.stream(value).filter(Double::isFinite).count(),
                "formula, at any time",
                trail);
    }

    /**
     * A column over time, in the order of the rows. Where the time goes back, as after a restart, what was written last counts; a
     * row without a value keeps its time.
     *
     * @param clocks of the tables that are read together
     */
    public static Profile history(
            Table table, Curve.Columns c, CurveAxis axis, String name, String unitText, Clocks clocks) {
        Unit alongSaid = Unit.of(table.unit(c.abscissa(), c.abscissaUnit()));
        Unit alongUnit = alongSaid.known() ? alongSaid : axis.unit();
        // Logs hold many a column of which nobody says a unit, and most are looked at by themselves.
        Unit unit = Unit.of(table.unit(c.value(), c.unit()));
        alongUnit.requireComparable(axis.unit(), "Column \"" + c.abscissa() + "\" along \"" + name + "\"");
        Clocks.Clock clock = clocks.of(table.column(c.abscissa()), alongUnit);
        Samples samples = samples(table, c.value(), unit, clock);
        Series.Rows rows = clock.rows();
        int size = samples.size();
        // Here, since whoever lists it asks for its ends on the thread of a window.
        int found = samples.ends().places().finite();
        if (found == 0) {
            throw new LaneException("The table " + table.input().path() + " has no row with numbers in both \""
                    + c.abscissa() + "\" and \"" + c.value() + "\".");
        }
        List<Band> bands = new ArrayList<>();
        if (!c.uncertainty().none()) {
            double[] all = unit.toSi(table.column(c.value()));
            double[] below = clock.of(c.uncertainty().halves(table, false, all, unit));
            double[] above = c.uncertainty().upper().isBlank()
                    ? below
                    : clock.of(c.uncertainty().halves(table, true, all, unit));
            bands.add(new Band(lane.estimate.Uncertainty.Source.MEASURED, below, above, ColumnUncertainty.SHOWN));
        }
        Unit shown = Outcome.shown(unitText, unit, "Table " + table.input().path());
        String note = size + " rows"
                + (alongSaid.known() || axis.unit().equals(Unit.ONE)
                        ? ""
                        : ", " + c.abscissa() + " taken in " + axis.unit().symbol() + ", which the table does not say")
                + (unit.known() ? "" : ", the unit of " + c.value() + " not said")
                + (found < size ? ", " + (size - found) + " of them without a value" : "")
                + (rows.timeless() > 0 ? "; " + rows.timeless() + " more have no " + c.abscissa() : "")
                + (rows.repeated() > 0
                        ? "; " + rows.repeated() + " were overwritten where " + c.abscissa() + " goes back"
                        : "");
        Provenance trail = source(table)
                .then(
                        "reading",
                        OVER_TIME,
                        "columns {along}, {of}",
                        Map.of(
                                "along",
                                c.abscissa(),
                                "of",
                                c.value(),
                                "abscissa",
                                c.abscissa() + ", " + alongUnit.label(),
                                "value",
                                c.value() + ", " + unit.label(),
                                "uncertainty",
                                c.uncertainty().word(),
                                "rows",
                                note));
        return new Profile(clock.times(), samples, bands, axis.word(), axis.unit(), shown, false, found, note, trail);
    }

    /** A column along a clock in SI units: where its rows are as they stand, they become that when somebody looks at them. */
    private static Samples samples(Table table, String column, Unit unit, Clocks.Clock clock) {
        if (!clock.whole()) {
            return Samples.of(clock.of(unit.toSi(table.column(column))));
        }
        Samples.Ends ends = table.ends(column);
        return Samples.later(
                table.rows(),
                new Samples.Ends(ends.places(), unit.toSi(ends.least()), unit.toSi(ends.greatest())),
                () -> unit.toSi(table.column(column)));
    }

    /** What a formula was given: all that decides its value beside the place. */
    private static Map<String, Object> given(
            Curve.ByFormula curve, Unit unit, Map<String, Double> constants, double time, Formula formula) {
        var out = new HashMap<String, Object>(Map.of(
                "formula",
                curve.formula(),
                "unit",
                unit.label(),
                "constants",
                new java.util.TreeMap<>(constants).toString()));
        if (formula.names().contains("time") && !constants.containsKey("time")) {
            out.put("time", time);
        }
        return out;
    }

    /** The constants, and the time where the formula needs it and there is one. */
    private static Map<String, Double> at(double time, Map<String, Double> constants, Formula formula) {
        Map<String, Double> values = new HashMap<>(constants);
        if (!Double.isNaN(time)) {
            values.putIfAbsent("time", time);
        } else if (formula.names().contains("time") && !constants.containsKey("time")) {
            throw new LaneException("The formula \"" + formula.text()
                    + "\" uses the time, but no run of the study has one; state a time at the lanes.");
        }
        return values;
    }

    /** A theory's single number: a formula of the constants and the time alone. */
    public static Tally tally(Curve.ByFormula curve, Map<String, Double> constants, double time, String unitText) {
        Unit unit = known(curve.unit(), "formula \"" + curve.formula() + "\"");
        Formula formula = Formula.of(curve.formula());
        double value = unit.toSi(formula.value(at(time, constants, formula)));
        Unit shown = Outcome.shown(unitText, unit, "Theory");
        Provenance trail = Provenance.EMPTY.then(
                "source", FORMULA, "formula {formula}", given(curve, unit, constants, time, formula));
        return new Tally(value, shown, Map.of(), "", "formula, taken as exact", trail);
    }

    public static Tally tally(Curve.HandValue hand, String unitText) {
        Unit unit = known(hand.unit(), "hand value");
        Unit shown = Outcome.shown(unitText, unit, "Hand value");
        double half = hand.uncertainty() > 0 ? hand.uncertainty() * unit.factor() : Double.NaN;
        var settings = new java.util.LinkedHashMap<String, String>();
        settings.put("note", hand.note());
        double value = unit.toSi(hand.value());
        if (!hand.formula().isBlank()) {
            Map<String, Double> inputs = new HashMap<>();
            for (Curve.Given g : hand.inputs()) {
                Unit in = known(g.unit(), "input \"" + g.name() + "\"");
                inputs.put(g.name(), in.toSi(g.value()));
                settings.put(g.name(), g.value() + " " + in.label() + (g.note().isBlank() ? "" : ", " + g.note()));
            }
            settings.put("formula", hand.formula());
            value = unit.toSi(Formula.of(hand.formula()).value(inputs));
        }
        settings.put("stated", hand.formula().isBlank() ? String.valueOf(hand.value()) : hand.formula());
        settings.put("unit", unit.label());
        return new Tally(
                new Estimate(
                        value,
                        shown,
                        lane.estimate.Uncertainty.ofHalf(lane.estimate.Uncertainty.Source.MEASURED, half)),
                Map.of(),
                "",
                hand.note(),
                Provenance.EMPTY.then("source", Method.TYPED, "hand value {stated} {unit}", settings));
    }

    /** Measured points against the line's abscissa, in the order of the abscissa; rows without a number are left out. */
    public static Profile profile(Table table, Curve.Columns c, Ask ask, Station line, String unitText) {
        CurveAxis drawn = ask.drawn(line);
        Unit alongUnit = known(table.unit(c.abscissa(), c.abscissaUnit()), "column \"" + c.abscissa() + "\"");
        Unit unit = known(table.unit(c.value(), c.unit()), "column \"" + c.value() + "\"");
        alongUnit.requireComparable(drawn.unit(), "Column \"" + c.abscissa() + "\" along \"" + line.name() + "\"");
        double[] along = table.column(c.abscissa());
        double[] value = table.column(c.value());
        double[] si = Arrays.stream(value).map(unit::toSi).toArray();
        double[] half = c.uncertainty().none() ? null : c.uncertainty().halves(table, false, si, unit);
        double[] above =
                c.uncertainty().upper().isBlank() ? null : c.uncertainty().halves(table, true, si, unit);
        int[] rows = IntStream.range(0, table.rows())
                .filter(i -> Double.isFinite(along[i]) && Double.isFinite(value[i]))
                .boxed()
                .sorted(java.util.Comparator.comparingDouble(i -> along[i]))
                .mapToInt(i -> i)
                .toArray();
        if (rows.length == 0) {
            throw new LaneException("The table " + table.input().path() + " has no row with numbers in both \""
                    + c.abscissa() + "\" and \"" + c.value() + "\".");
        }
        double[] abscissa =
                Arrays.stream(rows).mapToDouble(i -> alongUnit.toSi(along[i])).toArray();
        double[] values = Arrays.stream(rows).mapToDouble(i -> si[i]).toArray();
        List<Band> bands = new ArrayList<>();
        if (half != null) {
            double[] below = Arrays.stream(rows).mapToDouble(i -> half[i]).toArray();
            double[] up = above == null
                    ? below
                    : Arrays.stream(rows).mapToDouble(i -> above[i]).toArray();
            bands.add(new Band(lane.estimate.Uncertainty.Source.MEASURED, below, up, ColumnUncertainty.SHOWN));
        }
        Unit shown = Outcome.shown(unitText, unit, "Table " + table.input().path());
        Provenance trail = source(table)
                .then(
                        "reading",
                        COLUMNS,
                        "columns {along}, {of}",
                        Map.of(
                                "along",
                                c.abscissa(),
                                "of",
                                c.value(),
                                "abscissa",
                                c.abscissa() + ", " + alongUnit.label(),
                                "value",
                                c.value() + ", " + unit.label(),
                                "uncertainty",
                                c.uncertainty().word(),
                                "rows",
                                String.valueOf(rows.length)));
        return new Profile(
                abscissa,
                values,
                bands,
                drawn.word(),
                drawn.unit(),
                shown,
                false,
                rows.length,
                rows.length + " points as measured",
                trail);
    }

    public static Tally tally(Table table, Curve.WindowMean w, String unitText) {
        Unit unit = known(table.unit(w.value(), w.unit()), "column \"" + w.value() + "\"");
        double[] along = table.column(w.along());
        double[] value = table.column(w.value());
        double[] kept = IntStream.range(0, table.rows())
                .filter(i -> along[i] >= w.from() && along[i] <= w.to() && Double.isFinite(value[i]))
                .mapToDouble(i -> unit.toSi(value[i]))
                .toArray();
        if (kept.length == 0) {
            throw new LaneException("The table " + table.input().path() + " has no values between " + w.from() + " and "
                    + w.to() + " of \"" + w.along() + "\"; widen the window.");
        }
        double mean = mean(kept, 0, kept.length);
        Unit shown = Outcome.shown(unitText, unit, "Table " + table.input().path());
        Provenance trail = source(table)
                .then(
                        "reading",
                        WINDOW,
                        "mean of {rows} rows of {of}",
                        Map.of(
                                "rows",
                                kept.length,
                                "of",
                                w.value(),
                                "window",
                                w.along() + " " + w.from() + " to " + w.to(),
                                "unit",
                                unit.label(),
                                "uncertainty",
                                String.format(
                                        java.util.Locale.ROOT,
                                        "%.4g standard errors (Student's t, 95 %%) from %d batch means",
                                        lane.estimate.Uncertainty.factor(BATCHES - 1),
                                        BATCHES)));
        var doubt = lane.estimate.Uncertainty.ofStandard(
                lane.estimate.Uncertainty.Source.SAMPLING, standardError(kept), BATCHES - 1);
        return new Tally(new Estimate(mean, shown, doubt), Map.of(), "", "mean of " + kept.length + " rows", trail);
    }

    /** From the scatter of the means of consecutive batches, which allows for autocorrelation; NaN for under 20 values. */
    static double standardError(double[] v) {
        if (v.length < 2 * BATCHES) {
            return Double.NaN;
        }
        double mean = mean(v, 0, v.length);
        double sum = 0;
        for (int b = 0; b < BATCHES; b++) {
            double d = mean(v, b * v.length / BATCHES, (b + 1) * v.length / BATCHES) - mean;
            sum += d * d;
        }
        return Math.sqrt(sum / (BATCHES - 1) / BATCHES);
    }

    private static double mean(double[] v, int from, int to) {
        var sum = new Sum();
        for (int i = from; i < to; i++) {
            sum.add(v[i]);
        }
        return sum.value() / (to - from);
    }

    private static Provenance source(Table table) {
        return new Provenance(java.util.List.of(table.input()), java.util.List.of())
                .then("source", TABLE, "{file}", Map.of("file", table.input().brief(), "recipe", table.recipe()));
    }

    private static Unit known(String text, String what) {
        Unit unit = Unit.of(text);
        if (!unit.known()) {
            throw new LaneException(Fault.UNIT, "The unit of " + what + " is not known; state it at Intake.");
        }
        return unit;
    }
}
