package lane.study;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import lane.base.Fault;
import lane.base.LaneException;
import lane.check.Check;
import lane.check.Crossing;
import lane.field.TimeSelector;
import lane.mesh.Axis;
import lane.quantity.FieldQuantity;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reference.Recipe;
import lane.station.Enclosing;
import lane.station.Frame;
import lane.station.Region;
import lane.station.Shape;
import lane.station.Station;

/**
 * The one document: what is asked of which sources. Immutable; an edit makes a new study.
 *
 * @param version of the study file's format
 * @param frames that stations may stand in
 */
public record Study(
        int version,
        String name,
        Settings settings,
        Keyed<Source> sources,
        Keyed<Quantity> quantities,
        Keyed<Frame> frames,
        Keyed<Station> stations,
        Keyed<Reading> readings,
        Keyed<Check> checks,
        Pictures pictures) {
    public static final int VERSION = 3;

    public Study {
        name = name == null ? "" : name;
        settings = settings == null ? Settings.NONE : settings;
        pictures = pictures == null ? Pictures.NONE : pictures;
    }

    /** @throws LaneException when a key is used twice within one list */
    public static Study of(
            String name,
            Settings settings,
            List<? extends Source> sources,
            List<Quantity> quantities,
            List<Frame> frames,
            List<Station> stations,
            List<Reading> readings,
            List<Check> checks,
            Pictures pictures) {
        return new Study(
                VERSION,
                name,
                settings,
                new Keyed<>("source", Source::id, sources),
                new Keyed<>("quantity", Quantity::id, quantities),
                new Keyed<>("frame", Frame::id, frames),
                new Keyed<>("station", Station::id, stations),
                new Keyed<>("reading", Reading::id, readings),
                new Keyed<>("check", Check::id, checks),
                pictures);
    }

    public static Study empty(String name) {
        return of(name, Settings.NONE, List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), Pictures.NONE);
    }

    public String datum() {
        return settings.datum();
    }

    public List<String> off() {
        return settings.off();
    }

    public Axis axis() {
        return settings.axis();
    }

    public TimeSelector time() {
        return settings.time();
    }

    public List<FieldUnit> units() {
        return settings.units();
    }

    public List<Recipe> recipes() {
        return settings.recipes();
    }

    public List<SavedView> views() {
        return pictures.views();
    }

    public List<PictureNote> notes() {
        return pictures.notes();
    }

    public Optional<Source> source(String id) {
        return sources.find(id);
    }

    public Optional<Station> station(String id) {
        return stations.find(id);
    }

    public Optional<Reading> reading(String id) {
        return readings.find(id);
    }

    /** What a key of a quantity stands for: a definition, or else a field or what is taken of one; empty for a blank key. */
    public Optional<Quantity> quantity(String id) {
        return id.isBlank() ? Optional.empty() : quantities.find(id).or(() -> Optional.of(FieldQuantity.of(id)));
    }

    /** Sources that are switched on, in lane order. */
    public List<Source> lanes() {
        return sources.stream().filter(s -> !off().contains(s.id())).toList();
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
        String against = check.rule().datum().isBlank() ? datum() : check.rule().datum();
        return finest(id -> !check.rule().comparesWithDatum() || !id.equals(against));
    }

    /** What a check is carried out on. */
    public Crossing crossing(Check check, Map<String, Outcome> outcomes) {
        return crossing(check, outcomes, Map.of(), Map.of());
    }

    /**
     * What a check is carried out on.
     *
     * @param sizes of the cells of runs, in metres
     * @param readings what lanes answered to every reading
     */
    public Crossing crossing(
            Check check,
            Map<String, Outcome> outcomes,
            Map<String, Double> sizes,
            Map<String, Map<String, Outcome>> readings) {
        List<String> judged = check.judged().isEmpty() ? judged(check) : check.judged();
        List<String> family = sources.stream()
                .filter(Source.Simulation.class::isInstance)
                .map(Source.Simulation.class::cast)
                .filter(r -> judged.stream().anyMatch(j -> family(j).equals(r.family())))
                .map(Source.Simulation::id)
                .toList();
        var families = new java.util.LinkedHashMap<String, String>();
        family.forEach(id -> families.put(id, family(id)));
        var own = new java.util.LinkedHashMap<String, Double>();
        family.forEach(id -> {
            Double h = sizes.get(id);
            if (h != null) {
                own.put(id, h);
            }
        });
        var others = new java.util.LinkedHashMap<String, Crossing.Other>();
        check.rule().readings().forEach(id -> reading(id)
                .ifPresent(r -> others.put(id, new Crossing.Other(r.name(), readings.getOrDefault(id, Map.of())))));
        return new Crossing(outcomes, datum(), judged, family, families, own, check.doubts(), others);
    }

    private String family(String lane) {
        return source(lane)
                .map(s -> s instanceof Source.Simulation r ? r.family() : "\0")
                .orElse("\0");
    }

    /** A key made of a name that no item of the list has yet. */
    public static String freshId(String name, Collection<String> taken) {
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
        return new Study(version, other, settings, sources, quantities, frames, stations, readings, checks, pictures);
    }

    public Study with(Settings other) {
        return new Study(version, name, other, sources, quantities, frames, stations, readings, checks, pictures);
    }

    public Study with(Pictures other) {
        return new Study(version, name, settings, sources, quantities, frames, stations, readings, checks, other);
    }

    public Study withDatum(String id) {
        return with(settings.withDatum(id));
    }

    public Study withOff(List<String> ids) {
        return with(settings.withOff(ids));
    }

    public Study withAxis(Axis other) {
        return with(settings.withAxis(other));
    }

    public Study withTime(TimeSelector moment) {
        return with(settings.withTime(moment));
    }

    /** This study with a recipe in place of the one for the same kind of table. */
    public Study with(Recipe recipe) {
        return with(settings.with(recipe));
    }

    /** This study without a recipe. */
    public Study without(Recipe recipe) {
        return with(settings.without(recipe));
    }

    /** Which stored time of a run is looked at: its own choice, else the study's. */
    public TimeSelector timeOf(Source.Simulation run) {
        return run.treatment().time() == null ? time() : run.treatment().time();
    }

    public Study withUnits(UnaryOperator<List<FieldUnit>> edit) {
        return with(settings.withUnits(edit.apply(new ArrayList<>(units()))));
    }

    public Study withViews(UnaryOperator<List<SavedView>> edit) {
        return with(pictures.withViews(edit.apply(new ArrayList<>(views()))));
    }

    public Study withNotes(UnaryOperator<List<PictureNote>> edit) {
        return with(pictures.withNotes(edit.apply(new ArrayList<>(notes()))));
    }

    /** How the chart of a reading is drawn. */
    public ChartLook chart(String reading) {
        return pictures.charts().stream()
                .filter(c -> c.reading().equals(reading))
                .findFirst()
                .orElseGet(() -> ChartLook.of(reading));
    }

    /** With a chart drawn so; one as usual is not kept. */
    public Study with(ChartLook look) {
        List<ChartLook> next = new ArrayList<>(pictures.charts());
        next.removeIf(c -> c.reading().equals(look.reading()));
        if (!look.equals(ChartLook.of(look.reading()))) {
            next.add(look);
        }
        return with(pictures.withCharts(next));
    }

    public Study withSources(UnaryOperator<List<Source>> edit) {
        return new Study(
                version,
                name,
                settings,
                sources.edited(edit),
                quantities,
                frames,
                stations,
                readings,
                checks,
                pictures);
    }

    public Study withQuantities(UnaryOperator<List<Quantity>> edit) {
        return new Study(
                version,
                name,
                settings,
                sources,
                quantities.edited(edit),
                frames,
                stations,
                readings,
                checks,
                pictures);
    }

    public Study withFrames(UnaryOperator<List<Frame>> edit) {
        return new Study(
                version,
                name,
                settings,
                sources,
                quantities,
                frames.edited(edit),
                stations,
                readings,
                checks,
                pictures);
    }

    public Study withStations(UnaryOperator<List<Station>> edit) {
        return new Study(
                version,
                name,
                settings,
                sources,
                quantities,
                frames,
                stations.edited(edit),
                readings,
                checks,
                pictures);
    }

    public Study withReadings(UnaryOperator<List<Reading>> edit) {
        return new Study(
                version,
                name,
                settings,
                sources,
                quantities,
                frames,
                stations,
                readings.edited(edit),
                checks,
                pictures);
    }

    public Study withChecks(UnaryOperator<List<Check>> edit) {
        return new Study(
                version,
                name,
                settings,
                sources,
                quantities,
                frames,
                stations,
                readings,
                checks.edited(edit),
                pictures);
    }

    public Optional<Frame> frame(String id) {
        return frames.find(id);
    }

    /** The frame whose coordinates a station's numbers are; none for those of space. */
    public Optional<Frame> frameOf(String station) {
        return station(station).flatMap(s -> frame(s.frame()));
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
        if (station.shape() instanceof Enclosing e) {
            Shape region =
                    station(e.region()).map(this::placed).map(Station::shape).orElse(null);
            if (!(region instanceof Region r)) {
                throw new LaneException(
                        Fault.MISSING,
                        "The region that \"" + station.name() + "\" encloses is not in the study; choose another.");
            }
            return new Station(station.id(), station.name(), new Enclosing(e.region(), r.within()));
        }
        return station.frame().isBlank()
                ? station
                : station.in("").shaped(station.shape().through(placed(station.frame())));
    }

    /** A station that stands in space, with its numbers in the frame of the station of the same key. */
    public Station local(Station inSpace) {
        String frame = station(inSpace.id()).map(Station::frame).orElse("");
        Shape own = frame.isBlank()
                ? inSpace.shape()
                : inSpace.shape().through(placed(frame).inverse());
        // A path's abscissa is that of the frame which its numbers are in, and that is not written twice.
        Shape plain = own instanceof Shape.Path p
                ? p.sampled(p.sampling(), p.abscissa().plain())
                : own;
        return inSpace.in(frame).shaped(plain);
    }

    /** This study with a station's numbers in another frame, or in space for the blank key; it stays where it is. */
    public Study inFrame(String station, String frame) {
        Station own = station(station).orElseThrow();
        Station inSpace = placed(own);
        Study next = with(own.in(frame));
        return next.with(next.local(inSpace));
    }

    public Study with(Frame frame) {
        return new Study(
                version, name, settings, sources, quantities, frames.with(frame), stations, readings, checks, pictures);
    }

    /** This study with one station replaced by another of the same key. */
    public Study with(Station station) {
        return new Study(
                version,
                name,
                settings,
                sources,
                quantities,
                frames,
                stations.with(station),
                readings,
                checks,
                pictures);
    }

    public Study with(Quantity quantity) {
        return new Study(
                version,
                name,
                settings,
                sources,
                quantities.with(quantity),
                frames,
                stations,
                readings,
                checks,
                pictures);
    }

    public Study with(Reading reading) {
        return new Study(
                version,
                name,
                settings,
                sources,
                quantities,
                frames,
                stations,
                readings.with(reading),
                checks,
                pictures);
    }

    public Study with(Check check) {
        return new Study(
                version, name, settings, sources, quantities, frames, stations, readings, checks.with(check), pictures);
    }

    public Study with(Source source) {
        return new Study(
                version,
                name,
                settings,
                sources.with(source),
                quantities,
                frames,
                stations,
                readings,
                checks,
                pictures);
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
