package lane.desk.readings;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.TableDesk;
import lane.desk.Ui;
import lane.history.Settling;
import lane.reading.Ask;
import lane.reading.FeatureOf;
import lane.reading.HistoryOf;
import lane.reading.MonitorOf;
import lane.reading.OfAnother;
import lane.reading.OverTimesOf;
import lane.reading.PeriodsOf;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.SettlingOf;
import lane.reference.Monitors;
import lane.reference.Table;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** Makes readings over time, and numbers of curves. */
public final class OverTime {
    static final String GROUP = "Histories";
    /** So many values are in the window at first. */
    private static final int ENOUGH = 6;

    private OverTime() {}

    /** Whether a run has several stored times. */
    static boolean times(Session session) {
        return session.results().runs().values().stream()
                .anyMatch(r -> r.times().size() > 1);
    }

    static String lacksTimes(Session session) {
        return session.results().runs().isEmpty()
                ? "no run has been read; add one at Intake"
                : times(session)
                        ? NewReading.lacksNumber(session)
                        : "no run has several stored times; give a series of files at Intake, one with a * for the number";
    }

    static String lacksTables(Session session) {
        return tables(session).findAny().isPresent()
                ? ""
                : "no table of numbers has been added; drop a log or a monitor file at Intake";
    }

    static String lacksHistory(Session session) {
        return session.study().readings().stream().anyMatch(r -> clocked(r.ask()))
                ? ""
                : "there is no history yet; make one of a number, or of the columns of a log";
    }

    private static boolean clocked(Ask ask) {
        return ask.form() == Ask.Form.CURVE && ask.clock().isPresent();
    }

    private static Optional<Reading> chosen(Session session, java.util.function.Predicate<Ask> fits) {
        return session.study()
                .reading(session.selected(Chosen.READING))
                .filter(r -> fits.test(r.ask()))
                .or(() -> session.study().readings().stream()
                        .filter(r -> fits.test(r.ask()))
                        .findFirst());
    }

    /** The number that is chosen, or else the first, or else a mean, over time. */
    static void history(Session session) {
        Optional<Reading> number = chosen(
                session,
                a -> a.form() == Ask.Form.NUMBER && !a.overTime() && !(a instanceof OfAnother o && clocked(o.of())));
        if (number.isEmpty()) {
            NewReading.mean(session);
            number = chosen(session, a -> a.form() == Ask.Form.NUMBER && !a.overTime());
        }
        number.ifPresent(r -> history(session, r));
    }

    static void history(Session session, Reading number) {
        make(
                session,
                number.name() + " over time",
                number.unit(),
                () -> new HistoryOf(number.ask(), counted(session), null, null));
    }

    static void profiles(Session session) {
        Optional<Reading> curve = chosen(
                session,
                a -> a.form() == Ask.Form.CURVE && !a.overTime() && a.clock().isEmpty());
        if (curve.isEmpty()) {
            NewReading.profile(session);
            curve = chosen(
                    session,
                    a -> a.form() == Ask.Form.CURVE
                            && !a.overTime()
                            && a.clock().isEmpty());
        }
        curve.ifPresent(r -> profiles(session, r));
    }

    static void profiles(Session session, Reading curve) {
        make(
                session,
                curve.name() + " at several times",
                curve.unit(),
                () -> new OverTimesOf(curve.ask(), OverTimesOf.Show.FAMILY, 6, counted(session), null, null));
    }

    /** What times are counted in, as it was said for another reading over times last; blank where nobody said it. */
    private static String counted(Session session) {
        return session.study().readings().reversed().stream()
                .map(r -> switch (r.ask()) {
                    case HistoryOf h -> h.timeUnit();
                    case OverTimesOf o -> o.timeUnit();
                    default -> "";
                })
                .filter(u -> !u.isBlank())
                .findFirst()
                .orElse("");
    }

    static void settling(Session session) {
        chosen(session, OverTime::clocked).ifPresent(r -> settling(session, r));
    }

    static void settling(Session session, Reading curve) {
        int most = session.study().sources().stream()
                .mapToInt(x -> session.results()
                        .outcome(curve.id(), x.id())
                        .curve()
                        .map(Profile::size)
                        .orElse(0))
                .max()
                .orElse(0);
        // The last fifth of few values holds too few to judge by.
        double window = most <= 1 || most * Settling.WINDOW >= ENOUGH
                ? Settling.WINDOW
                : Math.min(1, Math.ceil(20.0 * ENOUGH / most) / 20);
        make(
                session,
                "Settled " + curve.name(),
                curve.unit(),
                () -> new SettlingOf(curve.ask(), window, 0, null, "", 0));
    }

    static void periods(Session session) {
        chosen(session, OverTime::clocked).ifPresent(r -> periods(session, r));
    }

    static void periods(Session session, Reading curve) {
        make(session, "Periods of " + curve.name(), "", () -> new PeriodsOf(curve.ask(), 0, "", null, null));
    }

    static void feature(Session session, Reading curve, FeatureOf.What what) {
        double at = what.level() ? 1 : what == FeatureOf.What.WIDTH ? 0.5 : 0;
        make(
                session,
                lane.base.Plain.title(what.word()) + ", " + curve.name(),
                "",
                () -> new FeatureOf(curve.ask(), what, at, 1, "", "", null, null));
    }

    private static void make(Session session, String name, String unit, java.util.function.Supplier<Ask> ask) {
        try {
            NewReading.add(session, name, unit, ask.get());
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
    }

    /** The choice of the curve that a number is taken of, among the readings that are one. */
    static void of(Session session, Reading reading, OfAnother ask, VBox box) {
        List<Reading> curves = new java.util.ArrayList<>(session.study().readings().stream()
                .filter(r -> clocked(r.ask()))
                .toList());
        Optional<Reading> now =
                curves.stream().filter(r -> r.ask().equals(ask.of())).findFirst();
        var own = new Reading("", Inside.name(session, ask.of()), "", ask.of());
        if (now.isEmpty()) {
            curves.addFirst(own);
        }
        box.getChildren()
                .add(Rows.of(
                        "Of",
                        Ui.choice(
                                "of-curve",
                                curves,
                                now.orElse(own),
                                Reading::name,
                                r -> Rows.change(session, reading, () -> ask.of(r.ask())))));
    }

    private record InFile(Source.Reference source, String file) {}

    private static Stream<InFile> tables(Session session) {
        return session.study().sources().stream()
                .filter(Source.Reference.class::isInstance)
                .map(Source.Reference.class::cast)
                .flatMap(s -> s.files().stream().map(f -> new InFile(s, f)));
    }

    /** Of the first table over time, or else over anything that grows. */
    static void monitors(Session session) {
        List<InFile> all = tables(session).toList();
        if (all.stream().anyMatch(in -> reading(session, in.file))) {
            session.tables().onceRead(() -> monitors(session));
            return;
        }
        InFile first = null;
        for (InFile in : all) {
            List<Monitors.One> found = found(session, in);
            boolean timed = !found.isEmpty() && found.getFirst().ask().along().equals("time");
            if (timed || first == null && !found.isEmpty()) {
                first = in;
                if (timed) {
                    break;
                }
            }
        }
        if (first == null) {
            session.say(
                    "No table has a column that grows from row to row, such as a time; say at Intake which is the abscissa.");
        } else {
            monitors(session, first);
        }
    }

    /** Of a table and of all others of its kind; once it is known which these are, what there is then is looked at anew. */
    private static void monitors(Session session, InFile of) {
        Map<String, TableDesk.Kind> kinds =
                session.tables().kinds(session.study(), session.results(), () -> monitors(session));
        if (kinds == null) {
            return;
        }
        TableDesk.Kind own = kinds.get(of.file);
        List<Source.Reference> like = session.study().sources().stream()
                .filter(s -> s instanceof Source.Reference && !s.id().equals(of.source.id()))
                .map(Source.Reference.class::cast)
                .filter(r -> own != null
                        && r.files().size() == 1
                        && own.equals(kinds.get(r.files().getFirst())))
                .toList();
        monitors(session, of.source, of.file, found(session, of), like);
        if (!like.isEmpty()) {
            session.note("Read over time of \"" + of.source.name() + "\" and of " + Ui.count(like.size(), "other table")
                    + " of this kind; what a table answers is changed at Intake.");
        }
    }

    private static Source.Reference with(
            Source.Reference source, String file, java.util.Map<String, Monitors.One> answers) {
        var all = new java.util.ArrayList<>(source.answers());
        all.removeIf(c -> answers.containsKey(c.reading()));
        answers.forEach((id, one) -> all.add(one.answer(id, file)));
        return new Source.Reference(source.id(), source.name(), source.kind(), source.files(), source.constants(), all);
    }

    private static List<Monitors.One> found(Session session, InFile in) {
        Table table = table(session, in.file);
        return table == null ? List.of() : Monitors.of(table);
    }

    private static boolean reading(Session session, String file) {
        try {
            return session.tables().of(file, session.study().recipes()) == null;
        } catch (LaneException e) {
            return false;
        }
    }

    private static @Nullable Table table(Session session, String file) {
        try {
            return session.tables().of(file, session.study().recipes());
        } catch (LaneException e) {
            return null;
        }
    }

    /**
     * Each of these columns as a reading, or as another lane of the reading that there is of the same name.
     *
     * @param like other references, of one table with the same columns each
     */
    public static void monitors(
            Session session,
            Source.Reference source,
            String file,
            List<Monitors.One> all,
            List<Source.Reference> like) {
        session.edit("Read columns over time", study -> {
            List<Reading> readings = new java.util.ArrayList<>(study.readings());
            var taken = new java.util.HashSet<String>();
            readings.forEach(r -> taken.add(r.id()));
            var answers = new java.util.LinkedHashMap<String, Monitors.One>();
            for (Monitors.One one : all) {
                String id = readings.stream()
                        .filter(r -> r.ask() instanceof MonitorOf m && m.alike(one.ask()))
                        .findFirst()
                        .map(Reading::id)
                        .orElse("");
                if (id.isEmpty()) {
                    id = lane.study.Study.freshId(one.ask().what(), taken);
                    taken.add(id);
                    readings.add(new Reading(id, one.ask().what(), "", one.ask()));
                }
                answers.put(id, one);
            }
            var next = study.withReadings(l -> readings);
            var changed = new java.util.HashMap<String, Source>();
            changed.put(source.id(), with(source, file, answers));
            for (Source.Reference r : like) {
                // What was said of another one before holds.
                var open = new java.util.LinkedHashMap<>(answers);
                r.answers().forEach(a -> open.remove(a.reading()));
                changed.put(r.id(), with(r, r.files().getFirst(), open));
            }
            return next.withSources(l -> {
                l.replaceAll(s -> changed.getOrDefault(s.id(), s));
                return l;
            });
        });
        session.study().readings().stream()
                .filter(r ->
                        r.ask() instanceof MonitorOf m && m.alike(all.getFirst().ask()))
                .findFirst()
                .ifPresent(r -> session.select(Chosen.READING, r.id()));
    }
}
