package lane.desk.app;

import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.stage.Stage;
import javafx.util.Duration;
import lane.check.AgainstDatum;
import lane.desk.Session;
import lane.quantity.FieldUnit;
import lane.station.Line;
import lane.station.Sampling;
import lane.study.Study;

/**
 * Measuring and rehearsing the start. {@code -Dlane.timing=true} prints when each milestone was reached, counted from
 * {@code -Dlane.begun} (milliseconds, as the launcher says it: the operating system tells a process its start only to
 * the second). {@code -Dlane.exit=true} closes the window by itself once every stop was seen; with
 * {@code -Dlane.unseen=true} the window is transparent meanwhile, as when the start-up cache is made.
 */
final class StartUp {
    private static final boolean TIMING = Boolean.getBoolean("lane.timing");

    private StartUp() {}

    static void tell(String milestone) {
        if (TIMING) {
            long begun = Long.getLong("lane.begun", System.currentTimeMillis());
            System.out.printf("%s after %d ms%n", milestone, System.currentTimeMillis() - begun);
        }
    }

    static void prepare(Stage stage) {
        if (Boolean.getBoolean("lane.unseen")) {
            stage.setOpacity(0);
        }
    }

    static void watch(Session session) {
        boolean exit = Boolean.getBoolean("lane.exit");
        if (!TIMING && !exit) {
            return;
        }
        boolean[] seen = {false, false};
        session.listen(c -> {
            if (c == Session.Change.RESULTS && !seen[0]) {
                seen[0] = true;
                tell("numbers");
            }
            if (c == Session.Change.RESULTS && !session.computing() && !seen[1]) {
                seen[1] = true;
                tell("all numbers");
                if (exit) {
                    tour(session);
                }
            }
        });
    }

    /** Sees every stop and, with {@code -Dlane.edits=true}, or at the one with the given number, makes an edit of each kind there and tells how long each took. */
    private static void tour(Session session) {
        List<Step> steps = new ArrayList<>();
        String edited = System.getProperty("lane.edits", "");
        for (int stop = 1; stop <= 6; stop++) {
            int next = stop;
            steps.add(new Step("", s -> s.go(next)));
            if (edited.equals("true") || edited.equals(String.valueOf(stop))) {
                edits(session.study()).forEach((name, edit) -> steps.add(new Step(name, s -> s.edit(name, edit))));
                steps.add(new Step("undo", Session::undo));
            }
        }
        next(session, steps.iterator());
    }

    /** Does one step, waits for what follows from it, and goes on. */
    private static void next(Session session, Iterator<Step> steps) {
        if (!steps.hasNext()) {
            while (!session.history().undoes().isBlank()) {
                session.undo();
            }
            Platform.exit();
            return;
        }
        Step step = steps.next();
        var pause = new PauseTransition(Duration.millis(60));
        pause.setOnFinished(e -> next(session, steps));
        if (!step.name.isEmpty()) {
            long begun = System.nanoTime();
            boolean[] answered = {false};
            session.listen(c -> {
                if (c == Session.Change.RESULTS && !answered[0]) {
                    answered[0] = true;
                    // The refresh was asked for before this; what runs after it comes when the new numbers are shown.
                    Platform.runLater(() -> Platform.runLater(() -> {
                        System.out.printf(
                                "stop %d, %s answered after %d ms%n",
                                session.stop(), step.name, (System.nanoTime() - begun) / 1_000_000);
                        pause.play();
                    }));
                }
            });
        } else {
            pause.play();
        }
        step.action.accept(session);
    }

    private record Step(String name, Consumer<Session> action) {}

    private static Map<String, UnaryOperator<Study>> edits(Study study) {
        var all = new LinkedHashMap<String, UnaryOperator<Study>>();
        study.stations().stream()
                .filter(x -> x.shape() instanceof Line)
                .findFirst()
                .ifPresent(line -> {
                    var l = (Line) line.shape();
                    var step = l.b().minus(l.a()).times(0.01);
                    all.put("move line", s -> s.with(line.shaped(l.between(l.a(), l.b().minus(step)))));
                    all.put("rename line", s -> s.with(line.named(line.name() + " again")));
                    all.put(
                            "sample cell-exact",
                            s -> s.with(line.shaped(l.sampled(new Sampling.CellExact(), l.abscissa()))));
                });
        study.units().stream()
                .findFirst()
                .ifPresent(u -> all.put("unit of a field", s -> s.with(new FieldUnit(u.field(), "mm/s", true))));
        all.put("other datum", s -> s.withDatum(study.finest().getFirst()));
        all.put("switch a lane off", s -> s.withOff(List.of(study.finest().getFirst())));
        study.checks().stream()
                .filter(c -> c.rule() instanceof AgainstDatum)
                .findFirst()
                .ifPresent(c -> all.put("tolerance", s -> s.with(c.by(((AgainstDatum) c.rule()).tolerating(0.02)))));
        return all;
    }
}
