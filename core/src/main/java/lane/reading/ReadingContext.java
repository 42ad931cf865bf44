package lane.reading;

import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.evaluation.EvaluationContext;
import lane.evaluation.StationResolver;
import lane.field.Part;
import lane.field.Run;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.station.Shape;
import lane.station.Station;

/**
 * One run with all that a reading may look up to be answered on it.
 *
 * @param stations by key, as they stand in space; null for none
 * @param trail how the run came about
 * @param moments the stored times of the run
 * @param elsewhere what other lanes answered
 * @param doubts whether it is wanted how well numbers are integrated, which takes as long again
 */
public record ReadingContext(
        Run run,
        EvaluationContext lens,
        StationResolver places,
        Function<String, Station> stations,
        Memo memo,
        Work work,
        Provenance trail,
        Moments moments,
        boolean doubts,
        Elsewhere elsewhere) {
    /** One that knows this lane alone. */
    public ReadingContext(
            Run run,
            EvaluationContext lens,
            StationResolver places,
            Function<String, Station> stations,
            Memo memo,
            Work work,
            Provenance trail,
            Moments moments,
            boolean doubts) {
        this(run, lens, places, stations, memo, work, trail, moments, doubts, Elsewhere.NONE);
    }

    /** @throws LaneException when the study has no such station */
    public Station station(String id, Reading reading) {
        Station found = stations.apply(id);
        if (found == null) {
            throw new LaneException(
                    Fault.MISSING,
                    "Reading \"" + reading.name() + "\" needs the station \"" + id
                            + "\", which is not in the study; choose another.");
        }
        return found;
    }

    public Quantity quantity(String id) {
        return lens.quantity(id);
    }

    /** Names of the stored fields that quantities are made of. */
    public Set<String> fields(Set<String> quantities) {
        return quantities.stream()
                .flatMap(q -> lens.fields(lens.quantity(q)).stream())
                .collect(Collectors.toUnmodifiableSet());
    }

    /**
     * The parts behind the key of a surface.
     *
     * @param fields whose values at its own nodes are wanted
     */
    public List<Part> surface(String id, Set<String> fields, Reading reading) {
        Station station = station(id, reading);
        if (station.shape() instanceof Shape.Surface s) {
            return places.parts(run, station.name(), s, fields, lens, work);
        }
        throw new LaneException("Reading \"" + reading.name() + "\" is taken over surfaces; \"" + id
                + "\" is none; choose a part, a section, a shell, a sheet or an isosurface.");
    }

    /** The same on another run, or on a piece of it. */
    public ReadingContext on(Run other) {
        return new ReadingContext(other, lens, places, stations, memo, work, trail, moments, doubts, elsewhere);
    }

    /** The same where the numbers alone are wanted. */
    public ReadingContext plain() {
        return new ReadingContext(run, lens, places, stations, memo, work, trail, moments, false, elsewhere);
    }

    /** The same with another trail so far. */
    public ReadingContext with(Provenance other) {
        return new ReadingContext(run, lens, places, stations, memo, work, other, moments, doubts, elsewhere);
    }

    /** The same seen through another lens. */
    public ReadingContext through(EvaluationContext other) {
        return new ReadingContext(run, other, places, stations, memo, work, trail, moments, doubts, elsewhere);
    }
}
