package lane.study;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.field.Run;
import lane.reading.Ask;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reference.Clocks;
import lane.reference.Curve;
import lane.reference.Formula;
import lane.reference.ReferenceReader;
import lane.station.CurveAxis;
import lane.station.Station;

/**
 * What a theory, a measurement or hand values answer to the readings of a study.
 *
 * @param clocks of the tables that are read together
 */
record Answering(
        Study study, Source.Reference reference, Tables tables, double time, List<Double> times, Clocks clocks) {
    /** Names by which a formula depends on the place. */
    private static final Set<String> ALONG = Set.of("s", "x", "y", "z", "r");

    /** The time that theories are taken at: that of the first run in lane order that has one; NaN for none. */
    static double time(Map<String, Run> runs) {
        return runs.values().stream()
                .mapToDouble(Run::time)
                .filter(Double::isFinite)
                .findFirst()
                .orElse(Double.NaN);
    }

    /** The stored times of the first run in lane order that has several: at these a theory answers a history. */
    static List<Double> times(Map<String, Run> runs) {
        return runs.values().stream()
                .map(Run::times)
                .filter(t -> t.size() > 1)
                .findFirst()
                .orElse(List.of());
    }

    /** What it says to a reading. */
    Optional<Curve> curve(Reading reading) {
        return reference.answer(study, reading);
    }

    /** The station of a curve reading. */
    Station station(Reading reading) {
        String id = reading.stations().getFirst();
        return study.station(id)
                .orElseThrow(() -> new LaneException(
                        Fault.MISSING,
                        "Reading \"" + reading.name() + "\" needs the station \"" + id
                                + "\", which is not in the study; choose another."));
    }

    /** @throws LaneException when it cannot be answered so */
    Outcome of(Reading reading, Curve curve) {
        return switch (reading.ask().form()) {
            case NUMBER -> number(reading, curve);
            case CURVE -> along(reading, curve);
            case TERMS ->
                new Outcome.Absent(
                        "no terms", reference.name() + " does not give the terms of \"" + reading.name() + "\".");
        };
    }

    private Outcome overTime(Reading reading, Curve curve, CurveAxis axis) {
        return switch (curve) {
            case Curve.ByFormula f -> ReferenceReader.history(f, reference.constants(), times, axis, reading.unit());
            case Curve.Columns c ->
                ReferenceReader.history(
                        tables.table(c.file(), study.recipes()), c, axis, reading.name(), reading.unit(), clocks);
            case Curve.HandValue _, Curve.WindowMean _ ->
                throw new LaneException("Reading \"" + reading.name() + "\" goes over time, but " + reference.name()
                        + " gives a single number; give a formula of the time or columns.");
        };
    }

    private Outcome number(Reading reading, Curve curve) {
        boolean overTime = reading.ask().curve().flatMap(Ask::clock).isPresent();
        boolean curved = curve instanceof Curve.Columns
                || curve instanceof Curve.ByFormula f
                        && Formula.of(f.formula()).names().stream()
                                .anyMatch(n -> (ALONG.contains(n) || overTime && n.equals("time"))
                                        && !reference.constants().containsKey(n));
        Ask behind = reading.ask().curve().orElse(null);
        if (curved && behind != null) {
            // What is a number of a curve is that of theirs.
            return along(reading.in("").asking(behind), curve) instanceof Profile p
                    ? reading.ask().of(reading, p)
                    : new Outcome.Absent("no curve", reference.name() + " gives no curve here.");
        }
        return switch (curve) {
            case Curve.ByFormula f -> ReferenceReader.tally(f, reference.constants(), time, reading.unit());
            case Curve.HandValue h -> ReferenceReader.tally(h, reading.unit());
            case Curve.WindowMean w ->
                ReferenceReader.tally(tables.table(w.file(), study.recipes()), w, reading.unit());
            case Curve.Columns _ ->
                throw new LaneException("Reading \"" + reading.name() + "\" is a single number, but " + reference.name()
                        + " gives a curve; give a formula, a hand value or a mean.");
        };
    }

    private Outcome along(Reading reading, Curve curve) {
        if (reading.ask().clock().isPresent()) {
            return overTime(reading, curve, reading.ask().clock().get());
        }
        Station on = station(reading);
        return switch (curve) {
            case Curve.ByFormula f ->
                ReferenceReader.profile(
                        f, reference.constants(), time, reading.ask(), on, study.axis(), reading.unit());
            case Curve.Columns c ->
                ReferenceReader.profile(tables.table(c.file(), study.recipes()), c, reading.ask(), on, reading.unit());
            case Curve.HandValue _, Curve.WindowMean _ ->
                throw new LaneException("Reading \"" + reading.name() + "\" is a curve, but " + reference.name()
                        + " gives a single number; give a formula or columns.");
        };
    }
}
