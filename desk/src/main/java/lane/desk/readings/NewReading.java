package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.stream.Stream;
import lane.desk.Chosen;
import lane.desk.FirstShapes;
import lane.desk.Session;
import lane.evaluation.StoredValues;
import lane.measure.Area;
import lane.measure.Flow;
import lane.measure.Force;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.measure.Moment;
import lane.measure.Value;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.AroundOf;
import lane.reading.AroundOf.Along;
import lane.reading.Ask;
import lane.reading.BalanceOf;
import lane.reading.BalanceOf.Term;
import lane.reading.ExtentOf;
import lane.reading.FeatureOf;
import lane.reading.FitOf;
import lane.reading.JumpOf;
import lane.reading.LoadOf;
import lane.reading.PairOf;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.SweepOf;
import lane.reading.TallyOf;
import lane.reading.TensorOf;
import lane.reading.VectorOf;
import lane.station.CutCurve;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Region;
import lane.station.Shape;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.station.Within;
import lane.study.Study;

/** Adds readings with sensible first choices, to be changed in their panes. */
public final class NewReading {
    private NewReading() {}

    /** Where a new reading stands: the station that is chosen at Stations if it fits, else the first that does, else a new one. */
    private record At(Station station, boolean made) {
        static At of(Session session, Predicate<Shape> fits, String name, Supplier<Shape> first) {
            Study study = session.study();
            return study.station(session.selected(Chosen.STATION))
                    .filter(s -> fits.test(s.shape()))
                    .or(() -> study.stations().stream()
                            .filter(s -> fits.test(s.shape()))
                            .findFirst())
                    .map(s -> new At(s, false))
                    .orElseGet(() -> fresh(study, name, first.get()));
        }

        static At fresh(Study study, String name, Shape shape) {
            String id = Study.freshId(
                    name, study.stations().stream().map(Station::id).toList());
            return new At(new Station(id, name, shape), true);
        }

        Study in(Study study) {
            return made
                    ? study.withStations(l -> {
                        l.add(station);
                        return l;
                    })
                    : study;
        }
    }

    // What is lacking for a reading, with the way to it; blank for nothing.

    static String lacksNumber(Session session) {
        return MeasureChoices.mean(session).isPresent()
                ? ""
                : lacksRun(session, "no run has a field with numbers to read");
    }

    private static String lacksRun(Session session, String otherwise) {
        return session.results().runs().isEmpty() ? "no run has been read; add one at Intake" : otherwise;
    }

    private static String lacksParts(Session session) {
        return !session.partNames().isEmpty() || parts(session).findFirst().isPresent()
                ? ""
                : lacksRun(session, "the runs have no boundary parts; make them at Intake, on the run's sheet");
    }

    static String lacksArea(Session session) {
        return lacksParts(session);
    }

    static String lacksFlow(Session session) {
        return MeasureChoices.flow(session).isPresent()
                ? lacksParts(session)
                : lacksRun(session, "no run has a vector field that could flow through something");
    }

    static String lacksLoads(Session session) {
        return MeasureChoices.loads(session).isPresent()
                ? lacksParts(session)
                : lacksRun(session, MeasureChoices.needs(false, true).replaceAll("\\.$", ""));
    }

    static void profile(Session session) {
        MeasureChoices.mean(session).ifPresent(mean -> {
            At at = At.of(session, NewReading::holdsCurve, "Line through the middle", () -> FirstShapes.of(session)
                    .line());
            add(session, at, new ProfileOf(at.station.id(), mean.quantity()));
        });
    }

    /** What is lacking for a number over cells. */
    static String lacksCells(Session session) {
        return lacksRun(session, "");
    }

    static void extent(Session session) {
        At at = At.of(session, Region.class::isInstance, "All of it", () -> new Region(new Within.All()));
        String condition = MeasureChoices.conditions(session).stream()
                .findFirst()
                .map(Quantity::id)
                .orElse("");
        add(
                session,
                at,
                new ExtentOf(List.of(at.station.id()), condition, StoredValues.At.CELLS, ExtentOf.Which.COUNT));
    }

    static void jump(Session session) {
        MeasureChoices.mean(session).ifPresent(mean -> {
            At at = At.of(session, Region.class::isInstance, "All of it", () -> new Region(new Within.All()));
            add(
                    session,
                    at,
                    new JumpOf(
                            List.of(at.station.id()),
                            mean.quantity(),
                            JumpOf.Relative.ABSOLUTE,
                            0,
                            "",
                            JumpOf.Which.GREATEST));
        });
    }

    static void fit(Session session) {
        MeasureChoices.mean(session).ifPresent(mean -> {
            At at = At.of(session, shape -> shape instanceof Shape.Sampled, "Line", () -> FirstShapes.of(session)
                    .line());
            add(
                    session,
                    at,
                    new FitOf(
                            List.of(at.station.id()),
                            mean.quantity(),
                            1,
                            FitOf.Over.CURVE,
                            "",
                            "",
                            null,
                            null,
                            FitOf.Show.COEFFICIENTS,
                            1));
        });
    }

    /** The same fit through something else: a curve needs a line, nodes and cells a region and what they stand along. */
    static void fitOver(Session session, Reading reading, FitOf f, FitOf.Over over) {
        if (f.over() == over) {
            return;
        }
        boolean curve = over == FitOf.Over.CURVE;
        boolean fits = f.stations().stream()
                .flatMap(id -> session.study().station(id).stream())
                .anyMatch(s -> curve == (s.shape() instanceof Shape.Sampled));
        At at = At.of(
                session,
                shape -> curve ? shape instanceof Shape.Sampled : shape instanceof Region,
                curve ? "Line" : "All of it",
                () -> curve ? FirstShapes.of(session).line() : new Region(new Within.All()));
        List<String> stations = fits ? f.stations() : List.of(at.station.id());
        String against = curve ? "" : f.against().isBlank() ? "x" : f.against();
        Reading next = reading.in("").asking(FitForm.of(f, stations, f.quantity(), f.degree(), over, against));
        session.edit("Change reading", s -> (fits ? s : at.in(s)).withReadings(l -> {
            l.replaceAll(r -> r.id().equals(next.id()) ? next : r);
            return l;
        }));
    }

    static void load(Session session) {
        MeasureChoices.loads(session).ifPresent(l -> {
            At at = first(session, new Force(l, new Point(1, 0, 0)));
            add(
                    session,
                    at,
                    "Load on " + at.station.name(),
                    new LoadOf(
                            List.of(at.station.id()),
                            l,
                            session.study().axis().origin(),
                            new Point(1, 0, 0),
                            new Point(0, 0, 1),
                            null,
                            LoadOf.Which.ALONG));
        });
    }

    private static List<Station> two(Session session, Predicate<Station> fits) {
        return session.study().stations().stream().filter(fits).limit(2).toList();
    }

    static String lacksPair(Session session) {
        String number = lacksNumber(session);
        return !number.isBlank()
                ? number
                : two(session, FeatureForm::curved).size() == 2
                                || two(session, PairForm::wide).size() == 2
                                || session.partNames().size() > 1
                        ? ""
                        : "two stations are needed; add another line or surface at Stations";
    }

    static void pair(Session session) {
        MeasureChoices.mean(session).ifPresent(mean -> {
            boolean curves = two(session, FeatureForm::curved).size() == 2;
            List<At> at = two(session, curves ? FeatureForm::curved : PairForm::wide).stream()
                    .map(s -> new At(s, false))
                    .toList();
            if (at.size() < 2) {
                At one = At.fresh(
                        session.study(),
                        session.partNames().get(0),
                        new OnPart(session.partNames().get(0)));
                At two = At.fresh(
                        one.in(session.study()),
                        session.partNames().get(1),
                        new OnPart(session.partNames().get(1)));
                at = List.of(one, two);
            }
            add(
                    session,
                    at,
                    "",
                    new PairOf(
                            at.get(0).station.id(),
                            at.get(1).station.id(),
                            mean.quantity(),
                            PairOf.How.DIFFERENCE,
                            curves ? PairOf.Match.SHARE : PairOf.Match.ABSCISSA,
                            curves ? PairOf.As.CURVE : PairOf.As.NUMBER));
        });
    }

    static void feature(Session session) {
        MeasureChoices.mean(session).ifPresent(mean -> {
            At at = At.of(session, shape -> shape instanceof Shape.Sampled, "Line", () -> FirstShapes.of(session)
                    .line());
            add(
                    session,
                    at,
                    new FeatureOf(
                            new ProfileOf(at.station.id(), mean.quantity()),
                            FeatureOf.What.PEAK,
                            0,
                            1,
                            "",
                            "",
                            null,
                            null));
        });
    }

    static void sweep(Session session) {
        MeasureChoices.mean(session).ifPresent(mean -> {
            At at = At.of(session, Sweep.class::isInstance, "Sweep", () -> FirstShapes.of(session)
                    .sweep());
            add(session, at, "Mean along " + at.station.name(), new SweepOf(at.station.id(), mean));
        });
    }

    static void around(Session session) {
        MeasureChoices.mean(session).ifPresent(mean -> {
            At at = At.of(session, Shell.class::isInstance, "Shell", () -> FirstShapes.of(session)
                    .shell());
            add(
                    session,
                    at,
                    "Around " + at.station.name(),
                    new AroundOf(at.station.id(), mean.quantity(), Along.MEAN, 360).angles(List.of(), "deg"));
        });
    }

    static void area(Session session) {
        tally(session, new Area());
    }

    static void mean(Session session) {
        MeasureChoices.mean(session).ifPresent(m -> tally(session, m));
    }

    static void flow(Session session) {
        MeasureChoices.flow(session).ifPresent(f -> tally(session, f));
    }

    static void force(Session session) {
        MeasureChoices.loads(session).ifPresent(l -> tally(session, new Force(l, new Point(1, 0, 0))));
    }

    static void moment(Session session) {
        MeasureChoices.loads(session)
                .ifPresent(l -> tally(session, new Moment(l, session.study().axis())));
    }

    static String lacksSingle(Session session) {
        return MeasureChoices.single(session).isPresent()
                ? ""
                : lacksRun(
                        session, "no quantity is one number a lane; define one at Quantities, as a ratio of two means");
    }

    static String lacksVector(Session session) {
        return MeasureChoices.vectors(session).isEmpty()
                ? lacksRun(session, "no run has a vector field; a formula such as [u, v, 0] at Quantities makes one")
                : "";
    }

    static void forceVector(Session session) {
        MeasureChoices.loads(session).ifPresent(l -> vector(session, new Force(l, new Point(1, 0, 0))));
    }

    static void meanVector(Session session) {
        MeasureChoices.vectors(session).stream().findFirst().ifPresent(q -> vector(session, new Mean(q.id())));
    }

    private static void vector(Session session, Measure measure) {
        At at = first(session, measure);
        add(session, at, new VectorOf(List.of(at.station.id()), measure, VectorOf.Which.MAGNITUDE));
    }

    static String lacksTensor(Session session) {
        return MeasureChoices.tensors(session).isEmpty()
                ? lacksRun(
                        session, "no run has a tensor; a formula such as grad(U) at Quantities makes one of a vector")
                : "";
    }

    static void meanTensor(Session session) {
        MeasureChoices.tensors(session).stream().findFirst().ifPresent(q -> {
            At at = first(session, new Mean(q.id()));
            add(
                    session,
                    at,
                    new TensorOf(List.of(at.station.id()), q.id(), false, TensorOf.Which.EQUIVALENT, "", null));
        });
    }

    static void value(Session session) {
        MeasureChoices.single(session)
                .ifPresent(q -> add(session, List.of(), q.name(), new TallyOf(List.of(), new Value(q.id()))));
    }

    /** The measure over the tally's stations, or over the first that fits where there are none yet. */
    static TallyOf over(Session session, TallyOf now, Measure measure) {
        if (measure.placeless()) {
            return new TallyOf(List.of(), measure);
        }
        List<String> stations = now.stations();
        if (stations.isEmpty()) {
            stations = session.study().stations().stream()
                    .filter(s -> s.shape() instanceof Shape.Surface || s.shape() instanceof Region)
                    .map(Station::id)
                    .limit(1)
                    .toList();
        }
        return new TallyOf(stations, measure);
    }

    static void balance(Session session) {
        MeasureChoices.flow(session).ifPresent(flow -> {
            List<At> all = new ArrayList<>();
            parts(session).forEach(s -> all.add(new At(s, false)));
            if (all.isEmpty()) {
                Study study = session.study();
                for (String part : session.partNames()) {
                    At at = At.fresh(study, part, new OnPart(part));
                    all.add(at);
                    study = at.in(study);
                }
            }
            List<Term> terms = all.stream()
                    .map(p -> new Term("Through " + p.station.name(), -1, List.of(p.station.id()), flow))
                    .toList();
            add(session, all, "Balance", new BalanceOf(terms, List.of(), "positive flows in"));
        });
    }

    private static Stream<Station> parts(Session session) {
        return session.study().stations().stream().filter(x -> x.shape() instanceof OnPart);
    }

    private static void tally(Session session, Measure measure) {
        At at = first(session, measure);
        add(session, at, new TallyOf(List.of(at.station.id()), measure));
    }

    static boolean holdsCurve(Shape shape) {
        return shape instanceof Shape.Path || shape instanceof CutCurve || shape instanceof Points;
    }

    static boolean holdsNumbers(Shape shape) {
        return shape instanceof Shape.Surface || shape instanceof Region || shape instanceof Shape.Sampled;
    }

    /** Makes a reading at the station that is chosen at Stations, and shows it. */
    public static void here(Session session, AskForm.Maker maker) {
        maker.make().accept(session);
        session.go(4);
    }

    /** The station that is chosen while one stands at Stations, where the measure can be taken there. */
    private static Optional<At> chosen(Session session, Measure measure) {
        boolean across = measure instanceof Area
                || measure instanceof Flow
                || measure instanceof Force
                || measure instanceof Moment;
        return session.stop() == 2
                ? session.study()
                        .station(session.selected(Chosen.STATION))
                        .filter(s -> across ? s.shape() instanceof Shape.Surface : holdsNumbers(s.shape()))
                        .map(s -> new At(s, false))
                : Optional.empty();
    }

    /** Where a measure is taken first. */
    private static At first(Session session, Measure measure) {
        Optional<At> here = chosen(session, measure);
        if (here.isPresent()) {
            return here.get();
        }
        // The first part that has what is asked for: a wall shear is stored on walls only.
        Optional<At> part = parts(session)
                .filter(s -> MeasureChoices.on(session, measure, (OnPart) s.shape()))
                .findFirst()
                .map(s -> new At(s, false))
                .or(() -> session.partNames().stream()
                        .filter(n -> MeasureChoices.on(session, measure, new OnPart(n)))
                        .findFirst()
                        .map(n -> At.fresh(session.study(), n, new OnPart(n))));
        return part.orElseGet(
                () -> At.of(session, Region.class::isInstance, "All of it", () -> new Region(new Within.All())));
    }

    private static void add(Session session, At at, String name, Ask ask) {
        add(session, List.of(at), name, ask);
    }

    /** A reading that needs no station of its own. */
    static void add(Session session, String name, String unit, Ask ask) {
        add(session, List.of(), name, unit, ask);
    }

    private static void add(Session session, At at, Ask ask) {
        add(session, List.of(at), "", ask);
    }

    /** @param name blank for that which its kind gives it */
    private static void add(Session session, List<At> at, String name, Ask ask) {
        add(session, at, name, "", ask);
    }

    private static void add(Session session, List<At> at, String name, String unit, Ask ask) {
        Study with = session.study();
        for (At one : at) {
            with = one.in(with);
        }
        String title = name.isBlank() ? AskForm.ALL.of(ask).name(with, ask) : name;
        var reading = new Reading(id(session, title), title, unit, ask);
        session.edit("Add reading", s -> {
            Study next = s;
            for (At one : at) {
                next = one.in(next);
            }
            return next.withReadings(l -> {
                l.add(reading);
                return l;
            });
        });
        session.select(Chosen.READING, reading.id());
    }

    private static String id(Session session, String name) {
        return Study.freshId(
                name, session.study().readings().stream().map(Reading::id).toList());
    }

    /** Replaces a reading by another of the same key; a name that nobody chose goes with what is asked. */
    static void change(Session session, Reading reading) {
        session.edit(
                "Change reading",
                s -> s.withReadings(l -> {
                    l.replaceAll(r -> r.id().equals(reading.id())
                            ? called(s, r, reading.asking(Inside.changed(r.ask(), reading.ask())))
                            : r);
                    return l;
                }));
    }

    private static Reading called(Study study, Reading before, Reading now) {
        boolean ours = before.name().equals(now.name())
                && before.name().equals(AskForm.ALL.of(before.ask()).name(study, before.ask()));
        return ours ? now.named(AskForm.ALL.of(now.ask()).name(study, now.ask())) : now;
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
