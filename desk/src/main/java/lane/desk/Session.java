package lane.desk;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.SimpleDoubleProperty;
import lane.base.LaneException;
import lane.base.Work;
import lane.check.CheckResult;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.field.Part;
import lane.field.Run;
import lane.field.RunHealth;
import lane.formats.FileLibrary;
import lane.formats.RunWriter;
import lane.formats.io.AtomicFile;
import lane.formats.io.FaultLog;
import lane.formats.study.StudyJson;
import lane.mesh.Point;
import lane.picture.Palette;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.station.CutCurve;
import lane.station.Region;
import lane.station.Shape;
import lane.station.Station;
import lane.study.Evaluator;
import lane.study.Renames;
import lane.study.Results;
import lane.study.Study;
import lane.study.UndoStack;
import org.jspecify.annotations.Nullable;

/**
 * What the window shows: the study with its way back, the newest results, and what is selected. All methods are called
 * on the interface thread; computing happens behind it, and the newest edit wins.
 */
public final class Session {
    static final String NO_MEMORY =
            "There is not enough memory for this; close other runs or give the program more with LANE_MEMORY.";

    /** What a listener is told. */
    public enum Change {
        STUDY,
        RESULTS,
        SELECTION,
        /** Something was found out behind the window: about files on disk, about a run's health. */
        FACTS,
        BUSY,
        THEME
    }

    private final List<java.util.function.Consumer<Change>> listeners =
            new java.util.concurrent.CopyOnWriteArrayList<>();
    private final Map<String, String> selected = new HashMap<>();
    private final ExecutorService worker = Executors.newSingleThreadExecutor(r -> daemon(r, "evaluate"));
    private final ScheduledExecutorService saver =
            Executors.newSingleThreadScheduledExecutor(r -> daemon(r, "autosave"));
    private final Path file;
    private FileLibrary library;
    private Evaluator evaluator;
    private UndoStack history;
    private Results results;
    private volatile @Nullable Job running;
    private String busy = "";
    private double progress;
    private String message = "";
    private String saved = "";
    private int stop = 1;
    private Palette palette = Palette.LIGHT;
    private Supplier<Provenance> trail = () -> Provenance.EMPTY;
    private String trailOf = "";
    private @Nullable Mark mark;
    private @Nullable Point picked;
    private final Autosave autosave;
    private final List<Runnable> closing = new java.util.ArrayList<>();
    private final HealthDesk health = new HealthDesk(() -> tell(Change.FACTS));
    private volatile Study watched = Study.empty("");
    private volatile Set<String> changedOnDisk = Set.of();
    /** How the tables stood when the study was last computed; null before. */
    private volatile @Nullable Object computedWith;

    private Set<String> looked = Set.of();

    private final DoubleProperty lanesAt = new SimpleDoubleProperty();

    /** @param file where the study is kept; it need not exist yet */
    @SuppressWarnings("FutureReturnValueIgnored")
    public Session(Study study, Path file) {
        this.file = file;
        library = new FileLibrary(Objects.requireNonNull(file.toAbsolutePath().getParent()));
        evaluator = new Evaluator(library);
        history = new UndoStack(study);
        results = Results.none(study);
        autosave = new Autosave(file, sentence -> Platform.runLater(() -> say(sentence)));
        saver.scheduleWithFixedDelay(autosave::write, 20, 20, TimeUnit.SECONDS);
        saver.scheduleWithFixedDelay(this::watch, 1, 1, TimeUnit.SECONDS);
    }

    private static Thread daemon(Runnable r, String name) {
        var thread = new Thread(r, name);
        thread.setDaemon(true);
        return thread;
    }

    /** Opens a study file; unsaved work of a session that ended badly is taken up again. */
    public static Session open(Path file) {
        Path auto = Autosave.of(file);
        var session = new Session(StudyJson.load(file), file);
        if (Files.exists(auto)) {
            try {
                Study kept = StudyJson.load(auto);
                if (!kept.equals(session.study())) {
                    session.history.edit("Recover unsaved work", kept, false);
                    session.message =
                            "Unsaved work of the last session was taken up again; undo brings back the saved study.";
                }
            } catch (LaneException e) {
                session.message = "The autosave beside the study is damaged and was not used.";
            }
        }
        return session;
    }

    /** How many pixels the columns of lanes are scrolled, where there are more than fit. */
    public DoubleProperty lanesAt() {
        return lanesAt;
    }

    public void listen(java.util.function.Consumer<Change> listener) {
        listeners.add(listener);
    }

    private void tell(Change change) {
        listeners.forEach(l -> l.accept(change));
    }

    public Path file() {
        return file;
    }

    public FileLibrary library() {
        return library;
    }

    public Study study() {
        return history.now();
    }

    public Results results() {
        return results;
    }

    /** How quantities are seen now: as the study defines them, with what the last results know beyond the place. */
    public EvaluationContext lens() {
        return EvaluationContext.of(
                study().quantities(),
                study().units(),
                study().axis(),
                results.lens().beyond());
    }

    /** Whether some run can compute a quantity, and it has so many components there. */
    public boolean isOf(Quantity quantity, int components) {
        EvaluationContext lens = lens();
        return results.runs().values().stream().anyMatch(r -> BoundQuantity.type(r, quantity, lens)
                .map(t -> t.components() == components)
                .orElse(false));
    }

    /** Quantities that are single numbers in some run. */
    public List<Quantity> numbers() {
        return study().quantities().stream().filter(q -> isOf(q, 1)).toList();
    }

    /** Names of the parts of all runs. */
    public List<String> partNames() {
        return results().runs().values().stream()
                .flatMap(r -> r.parts().stream())
                .map(Part::name)
                .distinct()
                .toList();
    }

    public UndoStack history() {
        return history;
    }

    public Palette palette() {
        return palette;
    }

    public void toggleTheme() {
        palette = palette.dark() ? Palette.LIGHT : Palette.DARK;
        tell(Change.THEME);
    }

    /** The stop that is open, 1 to 6. */
    public int stop() {
        return stop;
    }

    public void go(int number) {
        stop = number;
        tell(Change.SELECTION);
    }

    /** The selected key among sources, stations, quantities, readings or checks; blank for none. */
    public String selected(String what) {
        return selected.getOrDefault(what, "");
    }

    /**
     * A place to be shown in the field picture.
     *
     * @param lane key of the run that it is in
     */
    public record Mark(String name, @Nullable Point place, String lane) {}

    /** Shows a place in the field picture, until a station is selected. */
    public void showPlace(Mark wanted) {
        mark = wanted;
        stop = 2;
        tell(Change.SELECTION);
    }

    /** The place in the picture that was picked last; null for none. */
    public @Nullable Point picked() {
        return picked;
    }

    public void pick(Point place) {
        picked = place;
    }

    /** A station as it stands in space; as it is where its frame is missing. */
    public Station placed(Station station) {
        try {
            return study().placed(station);
        } catch (LaneException e) {
            return station;
        }
    }

    /** The place to be shown; null for none. */
    public @Nullable Mark mark() {
        return mark;
    }

    public void select(String what, String id) {
        if (what.equals("station") && !selected(what).isEmpty()) {
            mark = null;
        }
        if (!id.equals(selected(what))) {
            selected.put(what, id);
            tell(Change.SELECTION);
        }
    }

    public Provenance trail() {
        return trail.get();
    }

    /** Shows how a lane's answer came about, now and after every edit. */
    public void show(String reading, String lane) {
        show("reading " + reading, () -> results.outcome(reading, lane).trail());
    }

    /** Shows the trail of the finest run's answer, as the number that a reader asks about first, unless one is shown. */
    public void showFinest(String reading) {
        if (!trailOf.equals("reading " + reading)) {
            study().finest().stream().findFirst().ifPresent(lane -> show(reading, lane));
        }
    }

    /**
     * Shows how a lane's part in a check came about.
     *
     * @param lane blank for the first that is judged
     */
    public void showCheck(String check, String lane) {
        show("check " + check, () -> {
            CheckResult result = results.checks().get(check);
            return result == null
                    ? Provenance.EMPTY
                    : result.lanes().entrySet().stream()
                            .filter(e -> lane.isBlank()
                                    ? e.getValue().verdict() != null
                                    : e.getKey().equals(lane))
                            .findFirst()
                            .map(e -> e.getValue().trail())
                            .orElse(Provenance.EMPTY);
        });
    }

    /** @param of names what the trail belongs to */
    public void show(String of, Supplier<Provenance> shown) {
        boolean other = !of.equals(trailOf);
        trailOf = of;
        trail = shown;
        if (other) {
            tell(Change.SELECTION);
        }
    }

    /** What the trail that is shown belongs to; blank for none. */
    public String trailOf() {
        return trailOf;
    }

    /** One sentence for the user, until the next edit. */
    public String message() {
        return message;
    }

    public void say(String sentence) {
        message = sentence;
        tell(Change.BUSY);
    }

    /** Makes an edit; a wrong one is told in a sentence and changes nothing. */
    public void edit(String name, UnaryOperator<Study> edit) {
        edit(name, edit, false);
    }

    /** @param joins whether it becomes one with an edit of the same name just before, as the steps of a drag do */
    public void edit(String name, UnaryOperator<Study> edit, boolean joins) {
        try {
            Study next = Renames.follow(history.now(), edit.apply(history.now()));
            message = "";
            history.edit(name, next, joins);
            changed();
        } catch (LaneException e) {
            say(e.getMessage());
        }
    }

    /** Whether the study is being computed. */
    public boolean computing() {
        return running != null;
    }

    public void undo() {
        history.undo();
        changed();
    }

    public void redo() {
        history.redo();
        changed();
    }

    private void changed() {
        autosave.changed(history.now(), history.changed());
        tell(Change.STUDY);
        evaluate();
    }

    /** Looks whether files changed: tables are followed at once, runs are marked until they are reloaded. */
    private void watch() {
        Set<String> now;
        Object tables;
        try {
            now = library.changed(watched);
            tables = library.tables(watched);
        } catch (RuntimeException e) {
            // Whatever a file system does, the next look comes in a second.
            return;
        }
        // What counts is how a table stood when the study was computed: a view may have read it again since.
        if (running == null && computedWith != null && !tables.equals(computedWith)) {
            Platform.runLater(this::evaluate);
        }
        if (!now.equals(changedOnDisk)) {
            Platform.runLater(() -> {
                changedOnDisk = now;
                tell(Change.FACTS);
            });
        }
    }

    /** What looks wrong in a run; null while it is being looked over, behind the window. */
    public RunHealth.@Nullable Report health(Run run) {
        return health.of(run, study().axis(), results.runs().values());
    }

    /** Keys of sources whose files are no longer as they were read. */
    public Set<String> changedOnDisk() {
        return changedOnDisk;
    }

    /** Reads runs again and computes what depends on them. */
    public void reload(Set<String> sources) {
        library.reload(study(), sources);
        evaluate();
    }

    /** What is to be done when the session ends. */
    public void whenClosed(Runnable end) {
        closing.add(end);
    }

    /** Ends the session: computing stops, and what is not saved is kept for the next one. */
    public void close() {
        cancel();
        closing.forEach(Runnable::run);
        health.stop();
        worker.shutdownNow();
        saver.shutdownNow();
        autosave.write();
        listeners.clear();
    }

    public String saved() {
        return history.changed() ? "not saved" : saved;
    }

    public void save() {
        try {
            Study study = study();
            StudyJson.save(study, file);
            history.wrote(study);
            autosave.saved();
            saved = "saved "
                    + java.time.LocalTime.now(java.time.ZoneId.systemDefault())
                            .format(java.time.format.DateTimeFormatter.ofPattern("HH:mm"));
            tell(Change.STUDY);
        } catch (LaneException e) {
            say(e.getMessage());
        } catch (java.io.IOException e) {
            say("The autosave could not be removed: " + e.getMessage() + ".");
        }
    }

    /** Writes text beside the study or elsewhere, with any trouble told in a sentence. */
    public void write(Path target, AtomicFile.Body body) {
        try {
            AtomicFile.write(target, body);
            say("Wrote " + target + ".");
        } catch (LaneException e) {
            say(e.getMessage());
        }
    }

    /** Saves a run behind the window, with any trouble told in a sentence. */
    public void saveRun(@Nullable Run run, Path target) {
        say("Saving " + target.getFileName() + "…");
        Thread.ofPlatform().name("save run").start(() -> {
            String said;
            try {
                RunWriter.write(target, Objects.requireNonNull(run));
                said = "Wrote " + target + ".";
            } catch (LaneException e) {
                said = e.getMessage();
            }
            String sentence = said;
            Platform.runLater(() -> say(sentence));
        });
    }

    /** Stations, by key, that are shown: those that were not laid into the runs yet are, behind the window. */
    public void look(Set<String> stations) {
        if (!stations.equals(looked)) {
            looked = Set.copyOf(stations);
            evaluator.look(looked);
            boolean missing = stations.stream()
                    .anyMatch(id -> !results.laid().containsKey(id)
                            && study().station(id)
                                    .filter(s -> s.shape() instanceof Shape.Surface
                                            || s.shape() instanceof CutCurve
                                            || s.shape() instanceof Region)
                                    .isPresent());
            if (missing && !results.runs().isEmpty()) {
                evaluate();
            }
        }
    }

    /** What is being done, or blank. */
    public String busy() {
        return busy;
    }

    public double progress() {
        return progress;
    }

    public void cancel() {
        Job job = running;
        if (job != null) {
            job.abandoned = true;
            job.cancelled = true;
            say("Stopped; what is shown is as it was. Any edit, or Read now at Intake, goes on.");
        }
    }

    /** A newer one takes its place; what it was loading goes on for the newer one. */
    private void overtake() {
        Job job = running;
        if (job != null) {
            job.cancelled = true;
        }
    }

    /** Computes the study as it is now, in the background. */
    public void evaluate() {
        overtake();
        Study study = history.now();
        var job = new Job();
        running = job;
        worker.execute(() -> {
            try {
                Object tables = library.tables(study);
                Results made = evaluator.evaluate(study, job);
                computedWith = tables;
                Platform.runLater(() -> finished(job, made, ""));
            } catch (CancellationException e) {
                Platform.runLater(() -> finished(job, null, ""));
            } catch (OutOfMemoryError e) {
                Platform.runLater(() -> finished(job, null, NO_MEMORY));
            } catch (RuntimeException | LinkageError | AssertionError e) {
                // A fault of ours: the window says so and goes on.
                String sentence = FaultLog.note("Computing the study", e);
                Platform.runLater(() -> finished(job, null, sentence));
            }
        });
    }

    // The very document that was computed, not one that equals it.
    @SuppressWarnings("ReferenceEquality")
    private void finished(Job job, @Nullable Results made, String trouble) {
        if (job == running) {
            running = null;
            if (!busy.isEmpty() || !trouble.isEmpty()) {
                busy = "";
                message = trouble.isEmpty() ? message : trouble;
                tell(Change.BUSY);
            }
        }
        if (made != null && made.study() == history.now()) {
            results = made;
            watched = made.study();
            tell(Change.RESULTS);
        }
    }

    /** One evaluation; its progress reaches the window when it takes a while, and then ten times a second. */
    private final class Job implements Work {
        private volatile boolean cancelled;
        private volatile boolean abandoned;
        private volatile long told = System.nanoTime();

        @Override
        public boolean cancelled() {
            return cancelled;
        }

        @Override
        public boolean abandoned() {
            return abandoned;
        }

        @Override
        public void progress(String what, double fraction) {
            long now = System.nanoTime();
            if (now - told > 100_000_000) {
                told = now;
                Platform.runLater(() -> {
                    if (running == this) {
                        busy = what;
                        progress = fraction;
                        tell(Change.BUSY);
                    }
                });
            }
        }
    }
}
