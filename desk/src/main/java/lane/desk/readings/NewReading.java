package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.measure.Area;
import lane.measure.Force;
import lane.measure.Measure;
import lane.measure.Moment;
import lane.mesh.Point;
import lane.reading.AroundOf;
import lane.reading.AroundOf.Along;
import lane.reading.BalanceOf;
import lane.reading.BalanceOf.Term;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.SweepOf;
import lane.reading.TallyOf;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.study.Study;

/** Adds readings with sensible first choices, to be changed in their panes. */
final class NewReading {
    private NewReading() {}

    static void profile(Session session) {
        var line = session.study().stations().stream()
                .filter(x -> x.shape() instanceof Line)
                .findFirst();
        var quantity = session.numbers().stream().findFirst();
        if (line.isEmpty() || quantity.isEmpty()) {
            session.say("A profile needs a line and a quantity; add "
                    + (line.isEmpty() ? "a line at Stations" : "a quantity at Quantities") + " first.");
            return;
        }
        String name = quantity.get().name() + ", " + line.get().name();
        add(
                session,
                new Reading(
                        id(session, name),
                        name,
                        "",
                        new ProfileOf(line.get().id(), quantity.get().id())));
    }

    static void sweep(Session session) {
        var sweep = session.study().stations().stream()
                .filter(x -> x.shape() instanceof Sweep)
                .findFirst();
        var mean = MeasureChoices.mean(session);
        if (sweep.isEmpty() || mean.isEmpty()) {
            session.say("Numbers along a sweep need a sweep and a quantity with one number; add "
                    + (sweep.isEmpty() ? "a sweep at Stations" : "a quantity at Quantities") + " first.");
            return;
        }
        String name = "Mean along " + sweep.get().name();
        add(
                session,
                new Reading(id(session, name), name, "", new SweepOf(sweep.get().id(), mean.get())));
    }

    static void around(Session session) {
        var shell = session.study().stations().stream()
                .filter(x -> x.shape() instanceof Shell)
                .findFirst();
        var mean = MeasureChoices.mean(session);
        if (shell.isEmpty() || mean.isEmpty()) {
            session.say("A reading around a shell needs a shell and a quantity with one number; add "
                    + (shell.isEmpty() ? "a shell at Stations" : "a quantity at Quantities") + " first.");
            return;
        }
        String name = "Around " + shell.get().name();
        add(
                session,
                new Reading(
                        id(session, name),
                        name,
                        "",
                        new AroundOf(shell.get().id(), mean.get().quantity(), Along.MEAN, 360)));
    }

    static void area(Session session) {
        tally(session, "Area", new Area());
    }

    static void mean(Session session) {
        tally(session, "Mean", "A mean", MeasureChoices.mean(session), MeasureChoices.needs(false, false));
    }

    static void flow(Session session) {
        tally(session, "Flow", "A flow", MeasureChoices.flow(session), MeasureChoices.needs(true, false));
    }

    static void force(Session session) {
        var force = MeasureChoices.loads(session).map(l -> new Force(l, new Point(1, 0, 0)));
        tally(session, "Force", "A force", force, MeasureChoices.needs(false, true));
    }

    static void moment(Session session) {
        var moment = MeasureChoices.loads(session)
                .map(l -> new Moment(l, session.study().axis()));
        tally(session, "Moment", "A moment", moment, MeasureChoices.needs(false, true));
    }

    private static void tally(
            Session session, String name, String what, Optional<? extends Measure> measure, String needs) {
        if (measure.isEmpty()) {
            session.say(what + " needs a quantity that fits; " + needs);
        } else {
            tally(session, name, measure.get());
        }
    }

    static void balance(Session session) {
        var parts = session.study().stations().stream()
                .filter(x -> x.shape() instanceof OnPart)
                .toList();
        var flow = MeasureChoices.flow(session);
        if (parts.isEmpty() || flow.isEmpty()) {
            session.say(
                    "A balance needs part stations and a vector quantity, such as velocity taken as stored; add them first.");
            return;
        }
        List<Term> terms = parts.stream()
                .map(p -> new Term("Through " + p.name(), -1, List.of(p.id()), flow.get()))
                .toList();
        add(
                session,
                new Reading(
                        id(session, "balance"), "Balance", "", new BalanceOf(terms, List.of(), "positive flows in")));
    }

    private static void tally(Session session, String name, Measure measure) {
        // The first part that has what is asked for: a wall shear is stored on walls only.
        List<Station> parts = session.study().stations().stream()
                .filter(x -> x.shape() instanceof OnPart)
                .toList();
        var part = parts.stream()
                .filter(s -> MeasureChoices.on(session, measure, (OnPart) s.shape()))
                .findFirst()
                .or(() -> parts.stream().findFirst());
        if (part.isEmpty()) {
            session.say("A tally is taken over a part; add a part at Stations first.");
            return;
        }
        String full = name + ", " + part.get().name();
        add(
                session,
                new Reading(
                        id(session, full),
                        full,
                        "",
                        new TallyOf(List.of(part.get().id()), measure)));
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
        session.select(Chosen.READING, reading.id());
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
