package lane.desk;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.SimpleDoubleProperty;
import lane.base.LaneException;
import lane.check.CheckResult;
import lane.evaluation.EvaluationContext;
import lane.field.Part;
import lane.field.Run;
import lane.field.RunHealth;
import lane.formats.FileLibrary;
import lane.formats.RunWriter;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileNames;
import lane.formats.study.Drafts;
import lane.formats.study.StudyJson;
import lane.mesh.Point;
import lane.picture.Palette;
import lane.picture.chart.ReadingChart;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.station.Station;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.study.UndoStack;
import org.jspecify.annotations.Nullable;

/**
 * What the window shows, and the one place where views ask and tell: the {@link Document}, its {@link Evaluation}, the
 * {@link FileWatch} and the {@link Selection}. All methods are called on the interface thread.
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
        /** A table was read behind the window, or curves were compared. */
        TABLES,
        BUSY,
        THEME
    }

    private final List<Consumer<Change>> listeners = new CopyOnWriteArrayList<>();
    private final List<Runnable> closing = new ArrayList<>();
    private final ScheduledExecutorService clock =
            Executors.newSingleThreadScheduledExecutor(r -> Evaluation.daemon(r, "autosave"));
    private final FileLibrary library;
    private final Document document;
    private final Evaluation evaluation;
    private final FileWatch watch;
    private final Selection selection = new Selection(() -> tell(Change.SELECTION));
    private final TableDesk tables;
    private final HealthDesk health = new HealthDesk(() -> tell(Change.FACTS));
    private final CompareDesk compared = new CompareDesk(() -> tell(Change.TABLES));
    private final DoubleProperty lanesAt = new SimpleDoubleProperty();
    private final java.util.Map<String, ManyRows.Looked> lists = new java.util.HashMap<>();
    private final Carry carry = new Carry(this);
    private final RecentNote recent = new RecentNote(this);
    private @Nullable Offered offered;
    private final List<Consumer<Boolean>> waiting = new ArrayList<>();
    private Openings openings = Openings.NONE;
    private String message = "";
    private boolean news;
    private Palette palette = Palette.LIGHT;

    /** @param file where the study is kept; it need not exist yet */
    @SuppressWarnings("FutureReturnValueIgnored")
    public Session(Study study, Path file) {
        library = new FileLibrary(Objects.requireNonNull(file.toAbsolutePath().getParent()));
        tables = new TableDesk(library, () -> tell(Change.TABLES));
        document = new Document(study, file, sentence -> Platform.runLater(() -> say(sentence)));
        watch = new FileWatch(library);
        evaluation = new Evaluation(library, document::study, new Evaluation.Listener() {
            @Override
            public void busy(String sentence) {
                message = sentence.isEmpty() ? message : sentence;
                tell(Change.BUSY);
            }

            @Override
            public void results() {
                watch.watch(evaluation.results().study());
                tell(Change.RESULTS);
                recent.picture();
            }

            @Override
            public void finished(boolean whole) {
                List<Consumer<Boolean>> now = List.copyOf(waiting);
                waiting.clear();
                now.forEach(w -> w.accept(whole));
            }
        });
        clock.scheduleWithFixedDelay(document::keepUnsaved, 2, 2, TimeUnit.SECONDS);
        clock.scheduleWithFixedDelay(this::lookAtFiles, 1, 1, TimeUnit.SECONDS);
    }

    private void lookAtFiles() {
        watch.look(
                evaluation.computedWith(),
                () -> Platform.runLater(this::evaluate),
                news -> Platform.runLater(() -> {
                    news.run();
                    tell(Change.FACTS);
                }));
    }

    /**
     * Opens a study file; unsaved work of a session that ended badly is taken up again, also where the file itself is damaged.
     */
    public static Session open(Path file) {
        try {
            return opened(new Session(StudyJson.load(file), file));
        } catch (LaneException e) {
            var session = new Session(Document.rescued(file, e), file);
            session.message =
                    session.document.draft() ? session.document.recover(session::ask) : session.document.standsFor(e);
            return session;
        }
    }

    /** A new study; it is kept in the user's data until it is saved to a place. */
    public static Session fresh() {
        return new Session(Study.empty("New study"), Drafts.folder().resolve(Drafts.STUDY));
    }

    private static Session opened(Session session) {
        session.recent.goBack();
        session.message = session.document.recover(session::ask);
        session.evaluation.foresee(session.selected(Chosen.READING));
        session.document
                .holder()
                .ifPresent(h -> session.ask(new Question(
                        "This study is open by " + h.words()
                                + ", so it is opened to read here. Edits can be saved under another name.",
                        List.of(
                                Question.leave("Read only"),
                                new Question.Answer("Save as…", session::saveElsewhere),
                                new Question.Answer("Take over", () -> {
                                    session.document.takeOver();
                                    session.note("Taken over; whoever had it open is told when they save.");
                                    session.tell(Change.STUDY);
                                })))));
        return session;
    }

    // What only the user can decide.

    private final java.util.ArrayDeque<Question> questions = new java.util.ArrayDeque<>();
    private Supplier<Optional<Path>> place = Optional::empty;

    void ask(Question question) {
        questions.add(question);
        tell(Change.BUSY);
    }

    /** What is to be decided first; null for nothing. */
    public @Nullable Question question() {
        return questions.peek();
    }

    /** The question is gone, then the answer is done. */
    public void answer(Question.Answer answer) {
        questions.poll();
        try {
            answer.act().run();
        } catch (LaneException e) {
            say(e.getMessage());
        }
        tell(Change.BUSY);
    }

    /** @param asked shows a dialog for the place of a study; empty when it was left */
    public void placeIsChosenBy(Supplier<Optional<Path>> asked) {
        place = asked;
    }

    /** Asks for another place and saves there. */
    public void saveElsewhere() {
        place.get().ifPresent(this::saveAs);
    }

    /** How a list of many rows is looked at. */
    ManyRows.Looked looked(String list) {
        return lists.computeIfAbsent(list, l -> new ManyRows.Looked());
    }

    /** How many pixels the columns of lanes are scrolled, where there are more than fit. */
    public DoubleProperty lanesAt() {
        return lanesAt;
    }

    public void listen(Consumer<Change> listener) {
        listeners.add(listener);
    }

    private void tell(Change change) {
        listeners.forEach(l -> l.accept(change));
    }

    // The document.

    public Path file() {
        return document.file();
    }

    public FileLibrary library() {
        return library;
    }

    public Study study() {
        return document.study();
    }

    public UndoStack history() {
        return document.history();
    }

    /** Makes an edit; a wrong one is told in a sentence and changes nothing. */
    public void edit(String name, UnaryOperator<Study> edit) {
        edit(name, edit, false);
    }

    /** @param joins whether it becomes one with an edit of the same name just before, as the steps of a drag do */
    public void edit(String name, UnaryOperator<Study> edit, boolean joins) {
        try {
            document.edit(name, edit, joins);
            message = "";
            changed();
        } catch (LaneException e) {
            say(e.getMessage());
        }
    }

    public void undo() {
        document.undo();
        changed();
    }

    public void redo() {
        document.redo();
        changed();
    }

    private void changed() {
        tell(Change.STUDY);
        evaluate();
    }

    public String saved() {
        return document.saved();
    }

    /** Saves the study; one without a place is asked for it, and what somebody else did to the file is told first. */
    public void save() {
        if (document.draft() || document.holder().isPresent()) {
            saveElsewhere();
            return;
        }
        String file = String.valueOf(document.file().getFileName());
        var elsewhere = new Question.Answer("Save as…", this::saveElsewhere);
        if (document.lost()) {
            ask(new Question(
                    "Somebody has taken over " + file + " since it was opened here; saving would overwrite their work.",
                    List.of(
                            elsewhere,
                            new Question.Answer("Take it back and save", () -> {
                                document.takeOver();
                                written(document::save);
                            }),
                            Question.leave("Not now"))));
            return;
        }
        Optional<String> others = document.changedByOthers();
        if (others.isPresent()) {
            ask(new Question(
                    file + " was changed by somebody else since it was opened here: " + others.get() + ".",
                    List.of(
                            elsewhere,
                            new Question.Answer("Save over it", () -> written(document::save)),
                            new Question.Answer("Take theirs", this::takeTheirs),
                            Question.leave("Not now"))));
            return;
        }
        written(document::save);
    }

    /** Saves to a place that the study has from then on. */
    public void saveAs(Path to) {
        written(() -> {
            document.saveAs(to);
            library.moveTo(
                    Objects.requireNonNull(document.file().toAbsolutePath().getParent()));
        });
        evaluate();
    }

    private void takeTheirs() {
        edit("Take the study as it is on disk", s -> document.theirs());
    }

    /** A way of saving. */
    private interface Saving {
        void save() throws IOException;
    }

    private void written(Saving saving) {
        try {
            saving.save();
            recent.note();
            recent.picture();
            tell(Change.STUDY);
        } catch (LaneException e) {
            say(e.getMessage());
        } catch (IOException e) {
            say("The autosave could not be removed: " + e.getMessage() + ".");
        }
    }

    /** @param ways to leave this study for another */
    public void opensBy(Openings ways) {
        openings = ways;
    }

    public Openings openings() {
        return openings;
    }

    /** Whether there is work that was not saved to the study's own place. */
    public boolean unsaved() {
        return document.unsaved();
    }

    /** Keeps a picture of the window beside unsaved work. */
    public void keepPicture(byte[] png) {
        document.picture(png);
    }

    /** A station as it stands in space; as it is where its frame is missing. */
    public Station placed(Station station) {
        try {
            return study().placed(station);
        } catch (LaneException e) {
            return station;
        }
    }

    // Its evaluation.

    public Results results() {
        return evaluation.results();
    }

    /** Computes the study as it is now, in the background. */
    public void evaluate() {
        evaluation.show(selected(Chosen.READING));
        evaluation.start();
    }

    /**
     * Once all results are those of the study as it is now, which may be at once; what is missing is computed. Until then they may
     * be of the study before an edit, or in part.
     *
     * @param then told whether they are: not where computing was stopped or failed
     */
    public void whenComputed(Consumer<Boolean> then) {
        if (evaluation.whole()) {
            then.accept(true);
            return;
        }
        waiting.add(then);
        if (!computing()) {
            evaluate();
        }
    }

    /** Whether the study is being computed. */
    public boolean computing() {
        return evaluation.computing();
    }

    /** Whether the results are all of those of the study as it is now. */
    public boolean whole() {
        return evaluation.whole();
    }

    /** What is being done, or blank. */
    public String busy() {
        return evaluation.busy();
    }

    public double progress() {
        return evaluation.progress();
    }

    public void cancel() {
        if (evaluation.cancel()) {
            note("Stopped; what is shown is as it was. Any edit, or Read now at Intake, goes on.");
        }
    }

    /** Stations, by key, that are shown: those that were not laid into the runs yet are, behind the window. */
    public void look(Set<String> stations) {
        evaluation.look(stations);
    }

    /** All that can be asked for, as the study defines it now and the last results know it. */
    public Offered offered() {
        offered = offered == null ? Offered.first(study(), results()) : Offered.of(offered, study(), results());
        return offered;
    }

    /** How quantities are seen now: as the study defines them, with what the last results know beyond the place. */
    public EvaluationContext lens() {
        return offered().lens();
    }

    /** Whether some run can compute a quantity, and it has so many components there. */
    public boolean isOf(Quantity quantity, int components) {
        return offered().is(quantity, t -> t.components() == components);
    }

    /** All that can be asked for: what the study defines, then what stands in the files, with components and magnitudes. */
    public List<Quantity> quantities() {
        return offered().quantities();
    }

    /** Quantities that are single numbers in some run. */
    public List<Quantity> numbers() {
        return offered().that(t -> t.components() == 1);
    }

    /** Names of the parts of all runs. */
    public List<String> partNames() {
        return results()
                .known()
                .flatMap(r -> r.parts().stream())
                .map(Part::name)
                .distinct()
                .toList();
    }

    /** What looks wrong in a run; null while it is being looked over, behind the window. */
    public RunHealth.@Nullable Report health(Run run) {
        return health.of(run, study().axis(), results().runs().values());
    }

    /** The differences of long curves, found behind the window; null until they are. */
    public ReadingChart.@Nullable Compared compared(ReadingChart chart) {
        return compared.of(chart);
    }

    /** Tables as they are read, behind the window. */
    public TableDesk tables() {
        return tables;
    }

    /** Keys of sources whose files are no longer as they were read. */
    public Set<String> changedOnDisk() {
        return watch.changed();
    }

    /** Reads runs again and computes what depends on them. */
    public void reload(Set<String> sources) {
        library.reload(study(), sources);
        evaluate();
    }

    // What is looked at.

    /** A number on its way into the picture. */
    public Carry carry() {
        return carry;
    }

    /** The stop that is open, 1 to 6. */
    public int stop() {
        return selection.stop();
    }

    public void go(int number) {
        selection.go(number);
    }

    /** The stop from which a place in the picture was asked for, to go back to; 0 for none. */
    public int cameFrom() {
        return selection.cameFrom();
    }

    /** The key of what is chosen of a kind; blank for none. */
    public String selected(Chosen what) {
        return selection.of(what);
    }

    public void select(Chosen what, String id) {
        selection.choose(what, id);
    }

    /**
     * A place to be shown in the field picture.
     *
     * @param lane key of the run that it is in
     */
    public record Mark(String name, @Nullable Point place, String lane) {}

    /** Shows a place in the field picture, until a station is selected. */
    public void showPlace(Mark wanted) {
        selection.mark(wanted);
    }

    /** The place to be shown; null for none. */
    public @Nullable Mark mark() {
        return selection.mark();
    }

    /** The place in the picture that was picked last; null for none. */
    public @Nullable Point picked() {
        return selection.picked();
    }

    public void pick(Point place) {
        selection.pick(place);
    }

    public Provenance trail() {
        return selection.trail();
    }

    /** What the trail that is shown belongs to; blank for none. */
    public String trailOf() {
        return selection.trailOf();
    }

    /** @param of names what the trail belongs to */
    public void show(String of, Supplier<Provenance> shown) {
        selection.show(of, shown);
    }

    /** Shows how a lane's answer came about, now and after every edit. */
    public void show(String reading, String lane) {
        show("reading " + reading, () -> results().outcome(reading, lane).trail());
    }

    /**
     * Shows the trail of the finest run's answer, as the number that a reader asks about first, or else of the first lane that
     * has one; unless one of the reading is shown. Where that waits for long tables, it is looked up before they are read.
     */
    public void showFinest(String reading) {
        evaluation.show(reading);
        if (!trailOf().equals("reading " + reading)) {
            show("reading " + reading, () -> Stream.concat(
                            study().finest().stream(), study().lanes().stream().map(Source::id))
                    .map(lane -> results().outcome(reading, lane).trail())
                    .filter(t -> !t.steps().isEmpty())
                    .findFirst()
                    .orElse(Provenance.EMPTY));
        }
    }

    /**
     * Shows how a lane's part in a check came about.
     *
     * @param lane blank for the first that is judged
     */
    public void showCheck(String check, String lane) {
        show("check " + check, () -> {
            CheckResult result = results().checks().get(check);
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

    public Palette palette() {
        return palette;
    }

    public void toggleTheme() {
        palette = palette.dark() ? Palette.LIGHT : Palette.DARK;
        tell(Change.THEME);
    }

    /** Whether the message is news and no trouble. */
    public boolean news() {
        return news;
    }

    /** One sentence for the user, until the next edit. */
    public String message() {
        return message;
    }

    /** Tells what went wrong, or cannot be. */
    public void say(String sentence) {
        message = sentence;
        news = false;
        tell(Change.BUSY);
    }

    /** Tells what was done. */
    public void note(String sentence) {
        message = sentence;
        news = true;
        tell(Change.BUSY);
    }

    // Files besides the study's own.

    /** Writes text beside the study or elsewhere, with any trouble told in a sentence. */
    public void write(Path target, AtomicFile.Body body) {
        try {
            AtomicFile.write(target, body);
            note("Wrote " + FileNames.brief(target) + ".");
        } catch (LaneException e) {
            say(e.getMessage());
        }
    }

    /** Saves a run behind the window, with any trouble told in a sentence. */
    public void saveRun(Run run, Path target) {
        note("Saving " + target.getFileName() + "…");
        Thread.ofPlatform().name("save run").start(() -> {
            try {
                RunWriter.write(target, run);
                Platform.runLater(() -> note("Wrote " + FileNames.brief(target) + "."));
            } catch (LaneException e) {
                Platform.runLater(() -> say(e.getMessage()));
            }
        });
    }

    /** What is to be done when the session ends. */
    public void whenClosed(Runnable end) {
        closing.add(end);
    }

    /** Ends the session: computing stops, and what is not saved is kept for the next one. */
    public void close() {
        evaluation.close();
        closing.forEach(Runnable::run);
        health.stop();
        tables.stop();
        compared.stop();
        clock.shutdownNow();
        recent.note();
        document.close();
        listeners.clear();
    }
}
