package lane.reading;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.base.LaneException;
import lane.quantity.Quantity;
import lane.station.CutCurve;
import lane.station.Shape;
import lane.station.Station;

/** A quantity along a line, a cut curve or points. */
public record ProfileOf(String station, String quantity) implements Ask {
    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "profile";
        }

        @Override
        public Class<ProfileOf> type() {
            return ProfileOf.class;
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
        return Set.of(quantity);
    }

    @Override
    public Optional<String> shows() {
        return Optional.of(quantity);
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        Quantity q = on.quantity(quantity);
        Station where = on.station(station, reading);
        return switch (where.shape()) {
            case CutCurve _ -> CutCurveReader.read(on.run(), where, q, on.lens(), reading.unit(), on.trail());
            case Shape.Sampled path ->
                ProfileReader.read(
                        on.run(),
                        on.places().placement(on.run(), path, on.lens().axis(), on.work()),
                        where,
                        q,
                        on.lens(),
                        reading.unit(),
                        on.trail());
            default ->
                throw new LaneException("The " + where.word() + " \"" + where.name()
                        + "\" carries no profile; choose a line, a cut curve or points.");
        };
    }
}
