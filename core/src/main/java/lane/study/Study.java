package lane.study;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
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
        List<Station> stations,
        List<Reading> readings,
        List<Check> checks) {
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
        stations = List.copyOf(stations);
        readings = List.copyOf(readings);
        checks = List.copyOf(checks);
        unique("source", sources, Source::id);
        unique("quantity", quantities, Quantity::id);
        unique("station", stations, Station::id);
        unique("reading", readings, Reading::id);
        unique("check", checks, Check::id);
    }

    public static Study empty(String name) {
        return new Study(
                VERSION,
                name,
                "",
                List.of(),
                Axis.Z,
                Moment.LAST,
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of());
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
        return new Study(
                version,
                other,
                datum,
                off,
                axis,
                time,
                recipes,
                sources,
                units,
                quantities,
                stations,
                readings,
                checks);
    }

    public Study withDatum(String id) {
        return new Study(
                version, name, id, off, axis, time, recipes, sources, units, quantities, stations, readings, checks);
    }

    public Study withOff(List<String> ids) {
        return new Study(
                version, name, datum, ids, axis, time, recipes, sources, units, quantities, stations, readings, checks);
    }

    public Study withTime(Moment moment) {
        return new Study(
                version,
                name,
                datum,
                off,
                axis,
                moment,
                recipes,
                sources,
                units,
                quantities,
                stations,
                readings,
                checks);
    }

    /** This study with a recipe in place of the one for the same kind of table. */
    public Study with(Recipe recipe) {
        List<Recipe> all = new ArrayList<>(recipes);
        all.removeIf(r -> r.kind().equals(recipe.kind()));
        all.add(recipe);
        return new Study(
                version, name, datum, off, axis, time, all, sources, units, quantities, stations, readings, checks);
    }

    /** Which stored time of a run is looked at: its own choice, else the study's. */
    public Moment timeOf(Source.Simulation run) {
        return run.treatment().time() == null ? time : run.treatment().time();
    }

    public Study withSources(UnaryOperator<List<Source>> edit) {
        return new Study(
                version,
                name,
                datum,
                off,
                axis,
                time,
                recipes,
                edited(sources, edit),
                units,
                quantities,
                stations,
                readings,
                checks);
    }

    public Study withUnits(UnaryOperator<List<FieldUnit>> edit) {
        return new Study(
                version,
                name,
                datum,
                off,
                axis,
                time,
                recipes,
                sources,
                edited(units, edit),
                quantities,
                stations,
                readings,
                checks);
    }

    public Study withQuantities(UnaryOperator<List<Quantity>> edit) {
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
                edited(quantities, edit),
                stations,
                readings,
                checks);
    }

    public Study withStations(UnaryOperator<List<Station>> edit) {
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
                edited(stations, edit),
                readings,
                checks);
    }

    public Study withReadings(UnaryOperator<List<Reading>> edit) {
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
                stations,
                edited(readings, edit),
                checks);
    }

    public Study withChecks(UnaryOperator<List<Check>> edit) {
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
                stations,
                readings,
                edited(checks, edit));
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
