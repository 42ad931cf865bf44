package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import lane.desk.Session;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.reading.Measure;
import lane.reading.Reading;
import lane.station.Station;
import lane.study.Study;

/** Adds readings with sensible first choices, to be changed in their panes. */
final class NewReading {
    private NewReading() {}

    static void profile(Session session) {
        var line = session.study().stations().stream()
                .filter(Station.Line.class::isInstance)
                .findFirst();
        var quantity = session.study().quantities().stream()
                .filter(q -> q.take() != Take.ALL)
                .findFirst()
                .or(() -> session.study().quantities().stream().findFirst());
        if (line.isEmpty() || quantity.isEmpty()) {
            session.say("A profile needs a line and a quantity; add "
                    + (line.isEmpty() ? "a line at Stations" : "a quantity at Quantities") + " first.");
            return;
        }
        String name = quantity.get().name() + ", " + line.get().name();
        add(
                session,
                new Reading.OfProfile(
                        id(session, name), name, line.get().id(), quantity.get().id(), ""));
    }

    static void area(Session session) {
        tally(session, "Area", new Measure.Area());
    }

    static void mean(Session session) {
        var q = session.study().quantities().stream()
                .filter(x -> scalar(session, x))
                .findFirst();
        if (q.isEmpty()) {
            session.say("A mean needs a quantity with one number; add one at Quantities first.");
            return;
        }
        tally(session, "Mean " + q.get().name(), new Measure.Mean(q.get().id()));
    }

    static void flow(Session session) {
        vector(session)
                .ifPresentOrElse(
                        q -> tally(session, "Flow", flowOf(session, q)),
                        () -> session.say(
                                "A flow needs a quantity with three components, taken as stored; add one at Quantities first."));
    }

    private static Measure.Flow flowOf(Session session, Quantity q) {
        return new Measure.Flow(
                q.id(), 1, "1", Measure.Carried.NOTHING, session.study().axis());
    }

    static void force(Session session) {
        loads(session)
                .ifPresentOrElse(
                        l -> tally(session, "Force", new Measure.Force(l, new Point(1, 0, 0))),
                        () -> session.say(
                                "A force needs a pressure or a wall shear among the quantities, in Pa; add one first."));
    }

    static void moment(Session session) {
        loads(session)
                .ifPresentOrElse(
                        l -> tally(
                                session,
                                "Moment",
                                new Measure.Moment(l, session.study().axis())),
                        () -> session.say(
                                "A moment needs a pressure or a wall shear among the quantities, in Pa; add one first."));
    }

    static void balance(Session session) {
        var parts = session.study().stations().stream()
                .filter(Station.OnPart.class::isInstance)
                .toList();
        var q = vector(session);
        if (parts.isEmpty() || q.isEmpty()) {
            session.say(
                    "A balance needs part stations and a vector quantity, such as velocity taken as stored; add them first.");
            return;
        }
        List<Reading.Term> terms = parts.stream()
                .map(p -> new Reading.Term("Through " + p.name(), -1, List.of(p.id()), flowOf(session, q.get())))
                .toList();
        add(
                session,
                new Reading.OfBalance(
                        id(session, "balance"),
                        "Balance of " + q.get().name(),
                        terms,
                        List.of(),
                        "positive flows in",
                        ""));
    }

    private static boolean scalar(Session session, Quantity q) {
        return q.take() != Take.ALL
                || session.results().runs().values().stream()
                        .anyMatch(r ->
                                r.field(q.field()).map(f -> f.components() == 1).orElse(false));
    }

    private static Optional<Quantity> vector(Session session) {
        return session.study().quantities().stream()
                .filter(q -> q.take() == Take.ALL
                        && session.results().runs().values().stream().anyMatch(r -> r.field(q.field())
                                .map(f -> f.components() == 3)
                                .orElse(false)))
                .findFirst();
    }

    /** A pressure and a wall shear, told by their unit and number of components. */
    private static Optional<Measure.Loads> loads(Session session) {
        var pascal = lane.unit.Unit.of("Pa");
        String pressure = "";
        String shear = "";
        for (Quantity q : session.study().quantities()) {
            for (var run : session.results().runs().values()) {
                var field = run.field(q.field()).or(() -> run.parts().stream()
                        .map(p -> p.field(q.field()))
                        .flatMap(Optional::stream)
                        .findFirst());
                if (q.take() == Take.ALL && field.isPresent()) {
                    var lens = lane.reading.Lens.of(
                            List.of(q), session.study().units(), session.study().axis());
                    boolean fits = lens.unit(field.get()).comparable(pascal);
                    pressure = fits && field.get().components() == 1 && pressure.isBlank() ? q.id() : pressure;
                    shear = fits && field.get().components() == 3 && shear.isBlank() ? q.id() : shear;
                }
            }
        }
        return pressure.isBlank() && shear.isBlank()
                ? Optional.empty()
                : Optional.of(new Measure.Loads(pressure, 0, shear, Measure.On.FLUID, Measure.On.WALL));
    }

    private static void tally(Session session, String name, Measure measure) {
        var part = session.study().stations().stream()
                .filter(Station.OnPart.class::isInstance)
                .findFirst();
        if (part.isEmpty()) {
            session.say("A tally is taken over a part; add a part at Stations first.");
            return;
        }
        String full = name + ", " + part.get().name();
        add(
                session,
                new Reading.OfTally(id(session, full), full, List.of(part.get().id()), measure, ""));
    }

    private static String id(Session session, String name) {
        return Study.freshId(
                name, session.study().readings().stream().map(Reading::id).toList());
    }

    private static void add(Session session, Reading reading) {
        session.edit(
                "Add reading",
                s -> s.withReadings(l -> {
                    l.add(reading);
                    return l;
                }));
        session.select("reading", reading.id());
    }

    /** Replaces a reading by another of the same key. */
    static void change(Session session, Reading reading) {
        session.edit(
                "Change reading",
                s -> s.withReadings(l -> {
                    l.replaceAll(r -> r.id().equals(reading.id()) ? reading : r);
                    return l;
                }));
    }

    /** Deletes a reading with the checks that judge it. */
    static void delete(Session session, Reading reading) {
        session.edit("Delete reading", s -> s.withReadings(l -> {
                    l.removeIf(r -> r.id().equals(reading.id()));
                    return l;
                })
                .withChecks(l -> {
                    l.removeIf(c -> c.reading().equals(reading.id()));
                    return l;
                }));
    }
}
