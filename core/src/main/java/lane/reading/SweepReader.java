package lane.reading;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.IntFunction;
import lane.base.Fault;
import lane.base.LaneException;
import lane.field.Part;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.station.Station;
import lane.station.Sweep;
import lane.unit.Unit;

/** A number at each place of a sweep, as a profile along its axis: what a one-dimensional theory predicts. */
public final class SweepReader {
    private static final Method SWEPT = new Method("a surface at each place, each as a station of its own", 1);

    private SweepReader() {}

    /** @param tally the number at a place; null where the run has nothing there */
    public static Profile read(
            Station station, SweepOf reading, String unit, IntFunction<Tally> tally, Provenance trail) {
        var sweep = (Sweep) station.shape();
        int n = sweep.count();
        double[] abscissa = new double[n];
        double[] value = new double[n];
        int found = 0;
        double coverage = Double.NaN;
        Unit natural = null;
        String sign = "";
        // Quantities and files are the same at every place; they stand once.
        Provenance first = null;
        for (int i = 0; i < n; i++) {
            abscissa[i] = sweep.place(i);
            Tally t = tally.apply(i);
            value[i] = t == null ? Double.NaN : t.value();
            if (t != null) {
                natural = t.unit();
                sign = t.sign();
                coverage = Double.isNaN(coverage) ? t.coverage() : Math.min(coverage, t.coverage());
                first = first == null ? quantities(trail, t.trail()) : first;
                found++;
            }
        }
        if (natural == null) {
            throw new LaneException(
                    Fault.OUTSIDE, "Sweep \"" + station.name() + "\" lies outside this run everywhere; move it.");
        }
        Unit shown = Outcome.shown(unit, natural, "Reading on \"" + station.name() + "\"");
        String what = reading.measure().word();
        var placed = new LinkedHashMap<String, Object>();
        placed.put("geometry", sweep);
        placed.put("word", sweep.word());
        placed.put("name", station.name());
        placed.put("places", n);
        placed.put("found", found);
        if (!Double.isNaN(coverage)) {
            placed.put("least coverage of a place", coverage);
        }
        Provenance full = (first == null ? trail : first.with(trail))
                .then("station", SWEPT, "{word} \"{name}\", {places} places", placed)
                .then(
                        "reading",
                        reading.measure().method(),
                        "{value} at each place",
                        Map.of("value", what, "measure", reading.measure(), "unit", shown.label(), "sign", sign));
        return new Profile(
                        abscissa,
                        value,
                        java.util.List.of(),
                        "length along the axis",
                        Unit.of("m"),
                        shown,
                        false,
                        found,
                        what
                                + (sign.isEmpty() ? "" : "; " + sign)
                                + (Part.lacking(coverage)
                                        ? "; at one place only " + Part.percent(coverage) + " of the surface in the run"
                                        : ""),
                        full)
                .covering(coverage)
                .at(sweep.samples(sweep.axis()).xyz());
    }

    private static Provenance quantities(Provenance trail, Provenance tally) {
        Provenance out = trail.with(tally);
        for (Provenance.Step step : tally.steps()) {
            if (step.stop().equals("source") || step.stop().equals("quantity")) {
                out = out.then(step);
            }
        }
        return out;
    }
}
