package lane.reading;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Plain;
import lane.field.Part;
import lane.measure.Measure;
import lane.mesh.Point;
import lane.station.Box;
import lane.station.Region;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Within;

/**
 * One number over surfaces, regions, a path or points, or of a lane as a whole.
 *
 * @param stations keys of the stations, taken together; none for what belongs to the lane as a whole
 */
public record TallyOf(List<String> stations, Measure measure) implements Ask {
    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "tally";
        }

        @Override
        public Class<TallyOf> type() {
            return TallyOf.class;
        }
    }

    public TallyOf {
        stations = stations == null ? List.of() : List.copyOf(stations);
        if (measure != null && measure.placeless() && !stations.isEmpty()) {
            throw new LaneException(Plain.one(measure.word())
                    + " belongs to a lane as a whole; leave the stations out, or take" + " a mean over them.");
        }
    }

    @Override
    public Form form() {
        return Form.NUMBER;
    }

    @Override
    public Set<String> quantities() {
        return measure.quantities();
    }

    @Override
    public Optional<Point> arrow(Outcome made) {
        return made instanceof Tally t
                ? measure.along().map(d -> d.times(Math.signum(t.value()))).filter(d -> d.norm() > 0)
                : Optional.empty();
    }

    @Override
    public Optional<Ask> flipped() {
        return measure.flipped().map(m -> new TallyOf(stations, m));
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        List<Station> all = stations.stream().map(s -> on.station(s, reading)).toList();
        if (measure.placeless()) {
            return TallyReader.whole(on.run(), measure, on.lens(), reading.unit(), on.trail());
        }
        if (all.isEmpty()) {
            throw new LaneException(
                    Fault.MISSING, "Reading \"" + reading.name() + "\" names no station; choose where it is taken.");
        }
        if (all.stream().allMatch(x -> x.shape() instanceof Region)) {
            int[] cells = all.size() == 1
                    ? cells(all.getFirst(), on)
                    : all.stream()
                            .flatMapToInt(s -> Arrays.stream(cells(s, on)))
                            .sorted()
                            .distinct()
                            .toArray();
            List<Box> cut = all.stream()
                    .flatMap(s -> ((Region) s.shape()).within() instanceof Within.InBox b && b.cut()
                            ? java.util.stream.Stream.of(b.box())
                            : java.util.stream.Stream.of())
                    .toList();
            if (!cut.isEmpty() && all.size() > 1) {
                throw new LaneException("Reading \"" + reading.name()
                        + "\" takes a box that cuts cells together with other regions; take it by itself.");
            }
            if (!cut.isEmpty() && on.run().mesh().dimension() != 3) {
                throw new LaneException("Reading \"" + reading.name()
                        + "\" takes a box that cuts cells, which is made of runs with volume; let the cells of this run"
                        + " count whole.");
            }
            String where = String.join(" + ", all.stream().map(Station::name).toList());
            return TallyReader.read(
                    on.run(),
                    cells,
                    measure,
                    where,
                    on.lens(),
                    reading.unit(),
                    Where.of(all, on.places().sheets()),
                    on.trail(),
                    on.doubts(),
                    cut.isEmpty() ? null : cut.getFirst(),
                    on.memo());
        }
        if (all.size() == 1 && !(all.getFirst().shape() instanceof Shape.Surface)) {
            return along(all.getFirst(), reading.name(), measure, reading.unit(), on);
        }
        Set<String> fields = on.fields(quantities());
        List<Part> parts = stations.stream()
                .flatMap(s -> on.surface(s, fields, reading).stream())
                .toList();
        return TallyReader.read(
                on.run(),
                parts,
                measure,
                on.lens(),
                reading.unit(),
                Where.of(all, on.places().sheets()),
                on.trail(),
                on.memo(),
                on.doubts());
    }

    private static int[] cells(Station region, ReadingContext on) {
        return on.places().cells(on.run(), ((Region) region.shape()).within(), on.lens());
    }

    /** A mean, an integral, an extreme or the length along a path, or the mean of points. */
    static Tally along(Station station, String name, Measure measure, String unit, ReadingContext on) {
        if (station.shape() instanceof Shape.Sampled path) {
            return TallyReader.read(
                    on.run(),
                    on.places().placement(on.run(), path, on.lens().axis(), on.work()),
                    station,
                    measure,
                    on.lens(),
                    unit,
                    on.trail(),
                    on.doubts());
        }
        throw new LaneException("Reading \"" + name + "\" takes one number over a surface, a region, a path or points,"
                + " not over the " + station.word() + " \"" + station.name() + "\".");
    }
}
