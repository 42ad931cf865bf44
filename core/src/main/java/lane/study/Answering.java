package lane.study;

import java.util.Map;
import java.util.Optional;
import lane.base.LaneException;
import lane.field.Run;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reference.Curve;
import lane.reference.ReferenceReader;
import lane.station.Station;

/** What a theory, a measurement or hand values answer to the readings of a study. */
record Answering(Study study, Source.Reference reference, Library library, double time) {
    /** The time that theories are taken at: that of the first run in lane order that has one; NaN for none. */
    static double time(Map<String, Run> runs) {
        return runs.values().stream()
                .mapToDouble(Run::time)
                .filter(Double::isFinite)
                .findFirst()
                .orElse(Double.NaN);
    }

    Optional<Curve> curve(Reading reading) {
        return reference.answers().stream()
                .filter(c -> c.reading().equals(reading.id()))
                .findFirst();
    }

    /** The station of a curve reading. */
    Station station(Reading reading) {
        String id = reading.places().getFirst();
        return study.station(id)
                .orElseThrow(() -> new LaneException("Reading \"" + reading.name() + "\" needs the station \"" + id
                        + "\", which is not in the study; choose another."));
    }

    /** @throws LaneException when it cannot be answered so */
    Outcome of(Reading reading, Curve curve) {
        return switch (reading) {
            case Reading.OfTally t ->
                switch (curve) {
                    case Curve.ByFormula f -> ReferenceReader.tally(f, reference.constants(), time, t.unit());
                    case Curve.HandValue h -> ReferenceReader.tally(h, t.unit());
                    case Curve.WindowMean w ->
                        ReferenceReader.tally(library.table(w.file(), study.recipes()), w, t.unit());
                    default ->
                        throw new LaneException("Reading \"" + t.name() + "\" is a single number, but "
                                + reference.name() + " gives a curve; give a formula, a hand value or a mean.");
                };
            case Reading.OfBalance b ->
                new Outcome.Absent("no terms", reference.name() + " does not give the terms of \"" + b.name() + "\".");
            default -> along(reading, curve);
        };
    }

    private Outcome along(Reading reading, Curve curve) {
        Station on = station(reading);
        return switch (curve) {
            case Curve.ByFormula f ->
                ReferenceReader.profile(f, reference.constants(), time, on, study.axis(), reading.unit());
            case Curve.Columns c ->
                ReferenceReader.profile(library.table(c.file(), study.recipes()), c, on, reading.unit());
            default ->
                throw new LaneException("Reading \"" + reading.name() + "\" is a curve, but " + reference.name()
                        + " gives a single number; give a formula or columns.");
        };
    }
}
