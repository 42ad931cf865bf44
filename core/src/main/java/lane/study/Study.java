package lane.study;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import lane.base.LaneException;
import lane.check.Check;
import lane.field.Moment;
import lane.mesh.Axis;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.Reading;
import lane.reference.Recipe;
import lane.station.Frame;
import lane.station.Station;

/**
 * The one document: what is asked of which sources. Immutable; an edit makes a new study.
 *
 * @param version of the study file's format
 * @param datum key of the lane that differences are taken against; blank for none
 * @param off keys of lanes that are switched off
 * @param axis that radius and swirl refer to
 * @param time which stored time of the runs is looked at
 * @param recipes how kinds of tables are read, where what is found out about them is not right
 * @param frames that stations may stand in
 * @param views of the field picture, by name
 * @param notes in the field picture
 * @param inFrame for the key of a station that of the frame its numbers are in; others stand in space
 */
public record Study(
        int version,
        String name,
        String datum,
        List<String> off,
        Axis axis,
        Moment time,
        List<Recipe> recipes,
        List<Source> sources,
        List<FieldUnit> units,
        List<Quantity> quantities,
        List<Frame> frames,
        Map<String, String> inFrame,
        List<Station> stations,
        List<Reading> readings,
        List<Check> checks,
        List<SavedView> views,
        List<PictureNote> notes) {
    public static final int VERSION = 1;

    /** @throws LaneException when a key is used twice within one list */
    public Study {
        // A study written by hand may leave the axis out.
        axis = axis == null ? Axis.Z : axis;
        time = time == null ? Moment.LAST : time;
        recipes = recipes == null ? List.of() : List.copyOf(recipes);
        off = List.copyOf(off);
        sources = List.copyOf(sources);
        units = List.copyOf(units);
        quantities = List.copyOf(quantities);
        frames = frames == null ? List.of() : List.copyOf(frames);
        inFrame = inFrame == null ? Map.of() : Collections.unmodifiableMap(new TreeMap<>(inFrame));
        stations = List.copyOf(stations);
        readings = List.copyOf(readings);
        checks = List.copyOf(checks);
        views = views == null ? List.of() : List.copyOf(views);
        notes = notes == null ? List.of() : List.copyOf(notes);
        unique("source", sources, Source::id);
        unique("quantity", quantities, Quantity::id);
        unique("frame", frames, Frame::id);
        unique("station", stations, Station::id);
        unique("reading", readings, Reading::id);
        unique("check", checks, Check::id);
    }

    /** A study whose stations all stand in space. */
    public Study(
            int version,
            String name,
            String datum,
            List<String> off,
            Axis axis,
            Moment time,
            List<Recipe> recipes,
            List<Source> sources,
            List<FieldUnit> units,
            List<Quantity> quantities,
            List<Station> stations,
            List<Reading> readings,
            List<Check> checks) {
        this(
                version,
                name,
                datum,
                off,
                axis,
                time,
                recipes,
                sources,
                units,
                quantities,
                List.of(),
                Map.of(),
                stations,
                readings,
                checks,
                List.of(),
                List.of());
    }

    public static Study empty(String name) {
        var draft = new Draft();
        draft.name = name;
        return draft.done();
    }

    /** A study while it is changed. */
    private static final class Draft {
        private int version = VERSION;
        private String name = "";
        private String datum = "";
        private List<String> off = List.of();
        private Axis axis = Axis.Z;
        private Moment time = Moment.LAST;
        private List<Recipe> recipes = List.of();
        private List<Source> sources = List.of();
        private List<FieldUnit> units = List.of();
        private List<Quantity> quantities = List.of();
        private List<Frame> frames = List.of();
        private Map<String, String> inFrame = Map.of();
        private List<Station> stations = List.of();
        private List<Reading> readings = List.of();
        private List<Check> checks = List.of();
        private List<SavedView> views = List.of();
        private List<PictureNote> notes = List.of();

        private Draft() {}

        private Draft(Study s) {
            version = s.version;
            name = s.name;
            datum = s.datum;
            off = s.off;
            axis = s.axis;
            time = s.time;
            recipes = s.recipes;
            sources = s.sources;
            units = s.units;
            quantities = s.quantities;
            frames = s.frames;
            inFrame = s.inFrame;
            stations = s.stations;
            readings = s.readings;
            checks = s.checks;
            views = s.views;
            notes = s.notes;
        }

        private Study done() {
            return new Study(
                    version,
                    name,
                    datum,
                    off,
                    axis,
                    time,
                    recipes,
                    sources,
                    units,
                    quantities,
                    frames,
                    inFrame,
                    stations,
                    readings,
                    checks,
                    views,
                    notes);
        }
    }

    private Study changed(Consumer<Draft> change) {
        var draft = new Draft(this);
        change.accept(draft);
        return draft.done();
    }

    private static <T> void unique(String what, List<T> items, Function<T, String> key) {
        var seen = new HashSet<String>();
        for (T item : items) {
            if (key.apply(item).isBlank()) {
                throw new LaneException("A " + what + " of the study has no id; give it one.");
            }
            if (!seen.add(key.apply(item))) {
                throw new LaneException(
                        "The study has two of the " + what + " id \"" + key.apply(item) + "\"; rename one of them.");
            }
        }
    }

    public Optional<Source> source(String id) {
        return sources.stream().filter(s -> s.id().equals(id)).findFirst();
    }

    public Optional<Station> station(String id) {
        return stations.stream().filter(s -> s.id().equals(id)).findFirst();
    }

    public Optional<Reading> reading(String id) {
        return readings.stream().filter(r -> r.id().equals(id)).findFirst();
    }

    public Optional<Quantity> quantity(String id) {
        return quantities.stream().filter(q -> q.id().equals(id)).findFirst();
    }

    /** Sources that are switched on, in lane order. */
    public List<Source> lanes() {
        return sources.stream().filter(s -> !off.contains(s.id())).toList();
    }

    /** The last run of the first family in lane order: runs of a family go from coarse to fine. */
    public List<String> finest() {
        return finest(id -> true);
    }

    private List<String> finest(java.util.function.Predicate<String> among) {
        List<Source.Simulation> runs = sources.stream()
                .filter(Source.Simulation.class::isInstance)
                .map(Source.Simulation.class::cast)
                .filter(s -> among.test(s.id()))
                .toList();
        return runs.stream()
                .filter(s -> s.family().equals(runs.getFirst().family()))
                .reduce((a, b) -> b)
                .map(s -> List.of(s.id()))
                .orElse(List.of());
    }

    /** The lanes that a check judges when it names none: the finest run that is not the datum of the comparison itself. */
    public List<String> judged(Check check) {
        String against = check.datum().isBlank() ? datum : check.datum();
        boolean balance = reading(check.reading()).orElse(null) instanceof Reading.OfBalance;
        return finest(id -> balance || !id.equals(against));
    }

    /** A key made of a name that no item of the list has yet. */
    public static String freshId(String name, List<String> taken) {
        String stem = name.toLowerCase(java.util.Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        stem = stem.isEmpty() ? "item" : stem;
        String id = stem;
        for (int n = 2; taken.contains(id); n++) {
            id = stem + "-" + n;
        }
        return id;
    }

    public Study withName(String other) {
        return changed(d -> d.name = other);
    }

    public Study withDatum(String id) {
        return changed(d -> d.datum = id);
    }

    public Study withOff(List<String> ids) {
        return changed(d -> d.off = ids);
    }

    public Study withAxis(Axis other) {
        return changed(d -> d.axis = other);
    }

    public Study withTime(Moment moment) {
        return changed(d -> d.time = moment);
    }

    /** This study with a recipe in place of the one for the same kind of table. */
    public Study with(Recipe recipe) {
        List<Recipe> all = new ArrayList<>(recipes);
        all.removeIf(r -> r.kind().equals(recipe.kind()));
        all.add(recipe);
        return changed(d -> d.recipes = all);
    }

    /** Which stored time of a run is looked at: its own choice, else the study's. */
    public Moment timeOf(Source.Simulation run) {
        return run.treatment().time() == null ? time : run.treatment().time();
    }

    public Study withSources(UnaryOperator<List<Source>> edit) {
        return changed(d -> d.sources = edited(sources, edit));
    }

    public Study withUnits(UnaryOperator<List<FieldUnit>> edit) {
        return changed(d -> d.units = edited(units, edit));
    }

    public Study withQuantities(UnaryOperator<List<Quantity>> edit) {
        return changed(d -> d.quantities = edited(quantities, edit));
    }

    public Study withFrames(UnaryOperator<List<Frame>> edit) {
        return changed(d -> d.frames = edited(frames, edit));
    }

    public Study withStations(UnaryOperator<List<Station>> edit) {
        return changed(d -> {
            d.stations = edited(stations, edit);
            List<String> left = d.stations.stream().map(Station::id).toList();
            d.inFrame = new TreeMap<>(inFrame);
            d.inFrame.keySet().retainAll(left);
        });
    }

    public Study withReadings(UnaryOperator<List<Reading>> edit) {
        return changed(d -> d.readings = edited(readings, edit));
    }

    public Study withChecks(UnaryOperator<List<Check>> edit) {
        return changed(d -> d.checks = edited(checks, edit));
    }

    public Study withViews(UnaryOperator<List<SavedView>> edit) {
        return changed(d -> d.views = edited(views, edit));
    }

    public Study withNotes(UnaryOperator<List<PictureNote>> edit) {
        return changed(d -> d.notes = edited(notes, edit));
    }

    public Optional<Frame> frame(String id) {
        return frames.stream().filter(f -> f.id().equals(id)).findFirst();
    }

    /** The frame whose coordinates a station's numbers are; none for those of space. */
    public Optional<Frame> frameOf(String station) {
        return frame(inFrame.getOrDefault(station, ""));
    }

    /**
     * A frame as it stands in space.
     *
     * @throws LaneException when it is not there, or stands in itself
     */
    public Axis placed(String frame) {
        Axis out = Axis.Z;
        List<Frame> chain = new ArrayList<>();
        for (String id = frame; !id.isBlank(); ) {
            String wanted = id;
            Frame f = frame(id)
                    .orElseThrow(() ->
                            new LaneException("There is no frame \"" + wanted + "\" in the study; choose another."));
            if (chain.contains(f)) {
                throw new LaneException("Frame \"" + f.name() + "\" stands in itself: "
                        + String.join(" in ", chain.stream().map(Frame::name).toList()) + " in " + f.name()
                        + "; let one of them stand in space.");
            }
            chain.add(f);
            id = f.parent();
        }
        for (Frame f : chain.reversed()) {
            out = out.out(f.axis());
        }
        return out;
    }

    /** A station as it stands in space. */
    public Station placed(Station station) {
        Station s = station;
        if (s instanceof Station.Enclosing e) {
            var region = station(e.region())
                    .filter(Station.Region.class::isInstance)
                    .map(this::placed)
                    .map(Station.Region.class::cast)
                    .orElseThrow(() -> new LaneException(
                            "The region that \"" + e.name() + "\" encloses is not in the study; choose another."));
            return new Station.Enclosing(e.id(), e.name(), e.region(), region.within());
        }
        String frame = inFrame.getOrDefault(s.id(), "");
        return frame.isBlank() ? s : s.through(placed(frame));
    }

    /** A station that stands in space, with its numbers in the frame of the station of the same key. */
    public Station local(Station inSpace) {
        String frame = inFrame.getOrDefault(inSpace.id(), "");
        Station own = frame.isBlank() ? inSpace : inSpace.through(placed(frame).inverse());
        // A path's abscissa is that of the frame which its numbers are in, and that is not written twice.
        return own instanceof Station.Path p
                ? p.sampled(p.sampling(), p.abscissa().plain())
                : own;
    }

    /** This study with a station's numbers in another frame, or in space for the blank key; it stays where it is. */
    public Study inFrame(String station, String frame) {
        Station inSpace = placed(station(station).orElseThrow());
        Study next = changed(d -> {
            d.inFrame = new TreeMap<>(inFrame);
            d.inFrame.remove(station);
            if (!frame.isBlank()) {
                d.inFrame.put(station, frame);
            }
        });
        return next.with(next.local(inSpace));
    }

    /** This study with the numbers of one station in the frame of another, as they are. */
    public Study inSameFrame(String station, String as) {
        String frame = inFrame.getOrDefault(as, "");
        return frame.isBlank()
                ? this
                : changed(d -> {
                    d.inFrame = new TreeMap<>(inFrame);
                    d.inFrame.put(station, frame);
                });
    }

    public Study with(Frame frame) {
        return withFrames(list ->
                list.stream().map(f -> f.id().equals(frame.id()) ? frame : f).toList());
    }

    private static <T> List<T> edited(List<T> items, UnaryOperator<List<T>> edit) {
        return edit.apply(new ArrayList<>(items));
    }

    /** This study with one station replaced by another of the same key. */
    public Study with(Station station) {
        return withStations(list -> list.stream()
                .map(s -> s.id().equals(station.id()) ? station : s)
                .toList());
    }

    public Study with(Quantity quantity) {
        return withQuantities(list -> list.stream()
                .map(q -> q.id().equals(quantity.id()) ? quantity : q)
                .toList());
    }

    public Study with(Check check) {
        return withChecks(list ->
                list.stream().map(c -> c.id().equals(check.id()) ? check : c).toList());
    }

    public Study with(Source source) {
        return withSources(list ->
                list.stream().map(s -> s.id().equals(source.id()) ? source : s).toList());
    }

    /** States the unit of a field in all runs. */
    public Study with(FieldUnit unit) {
        return withUnits(list -> {
            list.removeIf(u -> u.field().equals(unit.field()));
            list.add(unit);
            return list;
        });
    }
}
