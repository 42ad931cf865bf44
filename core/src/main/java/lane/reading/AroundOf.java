package lane.reading;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.base.LaneException;
import lane.station.Shell;
import lane.station.Station;

/**
 * A quantity around a shell: one number an angle.
 *
 * @param samples number of angles, 360 where left out
 */
public record AroundOf(String station, String quantity, Along along, int samples) implements Ask {
    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "around";
        }

        @Override
        public Class<AroundOf> type() {
            return AroundOf.class;
        }
    }

    /** What is taken along the axis at each angle. */
    public enum Along {
        MEAN("mean"),
        LEAST("least value"),
        GREATEST("greatest value");

        private final String word;

        Along(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public AroundOf {
        along = along == null ? Along.MEAN : along;
        samples = samples == 0 ? 360 : samples;
        if (samples < 4 || samples > 100_000) {
            throw new LaneException(
                    "Around a shell go 4 to 100 000 angles, not " + samples + "; give a number in that range.");
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
        return along == Along.MEAN ? Optional.of(quantity) : Optional.empty();
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        Station where = on.station(station, reading);
        if (!(where.shape() instanceof Shell shell)) {
            throw new LaneException("Reading \"" + reading.name() + "\" goes around a shell; choose one.");
        }
        return AroundReader.read(
                on.run(),
                where,
                on.places().flat(on.run(), where.name(), shell, on.lens(), on.work()),
                this,
                reading.unit(),
                on.quantity(quantity),
                on.lens(),
                on.trail());
    }
}
