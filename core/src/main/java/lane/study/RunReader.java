package lane.study;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Part;
import lane.field.Run;
import lane.quantity.Quantity;
import lane.reading.AroundReader;
import lane.reading.BalanceReader;
import lane.reading.CutCurveReader;
import lane.reading.Lens;
import lane.reading.Measure;
import lane.reading.Memo;
import lane.reading.Outcome;
import lane.reading.PathTally;
import lane.reading.Profile;
import lane.reading.ProfileReader;
import lane.reading.Reading;
import lane.reading.RegionReader;
import lane.reading.SweepReader;
import lane.reading.Tally;
import lane.reading.TallyReader;
import lane.station.Placement;
import lane.station.Station;
import lane.trail.Trail;

/** Answers readings on one run. */
final class RunReader {
    private final Study study;
    private final Run run;
    private final Lens lens;
    private final Places places;
    private final Memo memo;
    private final Work work;
    private final Trail trail;

    RunReader(Study study, Run run, Lens lens, Places places, Memo memo, Work work, Trail trail) {
        this.study = study;
        this.run = run;
        this.lens = lens;
        this.places = places;
        this.memo = memo;
        this.work = work;
        this.trail = trail;
    }

    /** @throws LaneException with one sentence when the run cannot answer */
    Outcome read(Reading reading) {
        return switch (reading) {
            case Reading.OfProfile p -> profile(p);
            case Reading.OfTally t -> tally(t);
            case Reading.OfBalance b ->
                BalanceReader.read(run, b, s -> surface(s, fields(b.quantities()), b), lens, trail, memo);
            case Reading.OfSweep s -> sweep(s);
            case Reading.OfAround a -> {
                if (!(station(a.station(), a) instanceof Station.Shell shell)) {
                    throw new LaneException("Reading \"" + a.name() + "\" goes around a shell; choose one.");
                }
                yield AroundReader.read(
                        run, shell, places.flat(run, shell, lens, work), a, lens.quantity(a.quantity()), lens, trail);
            }
        };
    }

    private Station station(String id, Reading reading) {
        return study.station(id)
                .orElseThrow(() -> new LaneException("Reading \"" + reading.name() + "\" needs the station \"" + id
                        + "\", which is not in the study; choose another."));
    }

    private Set<String> fields(Set<String> quantities) {
        return quantities.stream()
                .flatMap(q -> lens.fields(lens.quantity(q)).stream())
                .collect(Collectors.toUnmodifiableSet());
    }

    private Outcome profile(Reading.OfProfile p) {
        Quantity quantity = lens.quantity(p.quantity());
        return switch (station(p.station(), p)) {
            case Station.Path path -> {
                Placement placement = places.placement(run, path, lens.axis(), work);
                yield placement.found() == 0
                        ? outside(path)
                        : ProfileReader.read(run, placement, path, quantity, lens, p.unit(), trail);
            }
            case Station.CutCurve curve -> CutCurveReader.read(run, curve, quantity, lens, p.unit(), trail);
            case Station.Points points -> {
                Placement placement = places.placement(run, points, lens.axis(), work);
                yield placement.found() == 0
                        ? outside(points)
                        : ProfileReader.read(run, placement, points, quantity, lens, p.unit(), trail);
            }
            case Station other ->
                throw new LaneException("The " + other.word() + " \"" + other.name()
                        + "\" carries no profile; choose a line, a cut curve or points.");
        };
    }

    private static Outcome outside(Station station) {
        String word = station.word().substring(0, 1).toUpperCase(java.util.Locale.ROOT)
                + station.word().substring(1);
        return new Outcome.Absent(
                "outside", word + " \"" + station.name() + "\" lies outside this run everywhere; move it.");
    }

    private Tally tally(Reading.OfTally t) {
        List<Station> stations = t.stations().stream().map(s -> station(s, t)).toList();
        if (stations.stream().allMatch(Station.Region.class::isInstance) && !stations.isEmpty()) {
            int[] cells = stations.stream()
                    .flatMapToInt(s -> java.util.Arrays.stream(places.cells(run, (Station.Region) s, lens)))
                    .sorted()
                    .distinct()
                    .toArray();
            String where =
                    String.join(" + ", stations.stream().map(Station::name).toList());
            return RegionReader.read(run, cells, t.measure(), where, lens, t.unit(), trail);
        }
        if (stations.size() == 1 && !(stations.getFirst() instanceof Station.Surface)) {
            return along(stations.getFirst(), t.name(), t.measure(), t.unit());
        }
        List<Part> parts = t.stations().stream()
                .flatMap(s -> surface(s, fields(t.measure().quantities()), t).stream())
                .toList();
        return TallyReader.read(run, parts, t.measure(), lens, t.unit(), trail, memo);
    }

    /** A mean, an integral, an extreme or the length along a path, or the mean of points. */
    private Tally along(Station station, String name, Measure measure, String unit) {
        if (station instanceof Station.Path || station instanceof Station.Points) {
            return PathTally.of(
                    run, places.placement(run, station, lens.axis(), work), station, measure, lens, unit, trail);
        }
        throw new LaneException("Reading \"" + name + "\" takes one number over a surface, a region, a path or points,"
                + " not over the " + station.word() + " \"" + station.name() + "\".");
    }

    private List<Part> surface(String id, Set<String> fields, Reading reading) {
        if (station(id, reading) instanceof Station.Surface s) {
            return places.parts(run, s, fields, lens, work);
        }
        throw new LaneException("Reading \"" + reading.name() + "\" is taken over surfaces; \"" + id
                + "\" is none; choose a part, a section, a shell, a sheet or an isosurface.");
    }

    private Profile sweep(Reading.OfSweep s) {
        if (!(station(s.station(), s) instanceof Station.Sweep sweep)) {
            throw new LaneException("Reading \"" + s.name() + "\" goes along a sweep; choose one.");
        }
        Set<String> fields = fields(s.measure().quantities());
        return SweepReader.read(
                sweep,
                s,
                i -> {
                    work.poll();
                    try {
                        return switch (places.at(sweep, i)) {
                            case Station.Surface section ->
                                TallyReader.read(
                                        run,
                                        places.parts(run, section, fields, lens, work),
                                        s.measure(),
                                        lens,
                                        "",
                                        Trail.EMPTY,
                                        memo);
                            case Station ring -> along(ring, s.name(), s.measure(), "");
                        };
                    } catch (LaneException e) {
                        if (e.getMessage().contains("outside this run")) {
                            return null;
                        }
                        throw e;
                    }
                },
                trail);
    }
}
