package lane.reading;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.base.LaneException;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.provenance.Provenance;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Sweep;

/** One number at each place of a sweep. */
public record SweepOf(String station, Measure measure) implements Ask {
    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "sweep";
        }

        @Override
        public Class<SweepOf> type() {
            return SweepOf.class;
        }
    }

    @Override
    public Form form() {
        return Form.CURVE;
    }

    @Override
    public List<String> stations() {
        return List.of(station);
    }

    @Override
    public Set<String> quantities() {
        return measure.quantities();
    }

    @Override
    public Optional<String> shows() {
        return measure instanceof Mean m ? Optional.of(m.quantity()) : Optional.empty();
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        Station where = on.station(station, reading);
        if (!(where.shape() instanceof Sweep sweep)) {
            throw new LaneException("Reading \"" + reading.name() + "\" goes along a sweep; choose one.");
        }
        Set<String> fields = on.fields(quantities());
        ReadingContext plain = on.with(Provenance.EMPTY);
        return SweepReader.read(
                where,
                this,
                reading.unit(),
                i -> {
                    on.work().poll();
                    try {
                        return switch (sweep.at(i)) {
                            case Shape.Surface section ->
                                TallyReader.read(
                                        on.run(),
                                        on.places()
                                                .parts(on.run(), where.name(), section, fields, on.lens(), on.work()),
                                        measure,
                                        on.lens(),
                                        "",
                                        Provenance.EMPTY,
                                        on.memo());
                            case Shape ring -> TallyOf.along(where.shaped(ring), reading.name(), measure, "", plain);
                        };
                    } catch (LaneException e) {
                        if (e.fault() == lane.base.Fault.OUTSIDE) {
                            return null;
                        }
                        throw e;
                    }
                },
                on.trail());
    }
}
