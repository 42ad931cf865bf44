package lane.formats.cluster;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.formats.io.AtomicFile;
import lane.formats.piece.PieceFolder;
import lane.formats.study.StudyJson;
import lane.study.Evaluator;
import lane.study.Piece;
import lane.study.Source;
import lane.study.Study;
import lane.study.StudyFiles;

/**
 * An evaluation on a batch cluster. The plan, its pieces and the logs of tasks stand in the folder {@code spread} of the
 * ledger's folder, which all machines share; whoever has that folder can wait for it, go on with it or end it.
 */
public final class Spread {
    /** How often what was lost, as by a signal or with its machine, is given to the scheduler. */
    private static final int ATTEMPTS = 4;

    private final Path spread;
    private final PieceFolder pieces;
    private final Slurm scheduler = new Slurm();
    private SpreadPlan plan;
    private final long begun = System.nanoTime();
    private int doneAtFirst = -1;

    private Spread(Path spread, SpreadPlan plan) {
        this.spread = spread;
        this.plan = plan;
        pieces = new PieceFolder(spread.resolve("pieces"));
    }

    /**
     * What to spread, and how.
     *
     * @param runs files that were given for runs, by key of the lane
     * @param block stored times that one piece reads at most; 0 to choose
     * @param nodes tasks that run at once at most; 0 for as many as the cluster lets
     * @param perJob pieces that a task makes one after the other; 0 to choose
     * @param options further ones of the scheduler
     */
    public record Asked(
            Path study,
            Path out,
            Map<String, String> runs,
            List<String> formats,
            int block,
            int nodes,
            int perJob,
            List<String> options) {}

    /** Name of the file that says that all of it is to end. */
    private static final String STOPPED = "stopped";

    private static Path folder(Path out) {
        return out.toAbsolutePath().normalize().resolve("spread");
    }

    /** Writes the plan of an evaluation; pieces that were made before are kept, and not made again. */
    public static Spread plan(Asked asked, Work work) {
        Path spread = folder(asked.out);
        idle(spread, asked.out);
        Study study = StudyJson.load(asked.study);
        try {
            Files.createDirectories(spread.resolve("logs"));
        } catch (IOException e) {
            throw new LaneException(
                    "The folder " + spread + " cannot be made: " + AtomicFile.reason(e) + "; choose another for --out.",
                    e);
        }
        Path from = java.util.Objects.requireNonNull(
                asked.study.toAbsolutePath().normalize().getParent());
        // As it is now: whoever edits it meanwhile edits another one.
        Path copy = spread.resolve("study.lane.json");
        StudyJson.save(study, copy);
        Study given = StudyFiles.given(study, asked.runs);
        int block = asked.block > 0 ? asked.block : 10;
        List<SpreadPlan.Named> named = new ArrayList<>();
        for (Evaluator.Planned p : new Evaluator(new FileLibrary(from)).plan(given, block, work)) {
            String lane = given.source(p.piece().lane())
                    .map(Source.Simulation.class::cast)
                    .orElseThrow()
                    .file();
            PieceFolder.key(lane, p.definition())
                    // Two lanes of one file answer alike.
                    .filter(id -> named.stream().noneMatch(n -> n.id().equals(id)))
                    .ifPresent(id -> named.add(new SpreadPlan.Named(id, p.piece())));
        }
        int tasks = Math.max(1, asked.nodes) * 4;
        int perJob = asked.perJob > 0 ? asked.perJob : Math.max(1, Math.ceilDiv(named.size(), tasks));
        var plan = new SpreadPlan(
                copy.toString(),
                asked.study.toString(),
                from.toString(),
                asked.runs,
                asked.formats,
                named,
                new SpreadPlan.Settings(asked.nodes, perJob, asked.options),
                List.of());
        goOn(spread);
        plan.save(spread);
        return new Spread(spread, plan);
    }

    /** @throws LaneException where tasks of another plan are under way in the folder */
    private static void idle(Path spread, Path out) {
        if (Files.exists(SpreadPlan.file(spread))
                && new Spread(spread, SpreadPlan.load(spread)).tasks().all() > 0) {
            throw new LaneException("An evaluation on the cluster is under way in " + out
                    + "; wait for it with \"lane attach " + out + "\", or end it with \"lane attach " + out
                    + " --stop\" first.");
        }
    }

    private Slurm.Tasks tasks() {
        return job().filter(j -> !j.isEmpty()).map(scheduler::tasks).orElse(Slurm.Tasks.NONE);
    }

    /** One that was planned before. */
    public static Spread of(Path out) {
        Path spread = folder(out);
        return new Spread(spread, SpreadPlan.load(spread));
    }

    public PieceFolder pieces() {
        return pieces;
    }

    public Study study() {
        return StudyFiles.given(StudyJson.load(Path.of(plan.study())), plan.runs());
    }

    /** The study's own file. */
    public Path named() {
        return Path.of(plan.named());
    }

    /** Where the study's paths start from. */
    public Path from() {
        return Path.of(plan.folder());
    }

    public Map<String, String> runs() {
        return plan.runs();
    }

    public List<String> formats() {
        return plan.formats();
    }

    /** The job that was submitted last; empty before. */
    public Optional<String> job() {
        return plan.jobs().isEmpty()
                ? Optional.empty()
                : Optional.of(plan.jobs().getLast().job());
    }

    /**
     * How far it is.
     *
     * @param failed pieces that ended with a reason
     * @param running tasks, and tasks that wait, each reason with how many
     * @param cancelled tasks that somebody ended, or more than none where somebody wished all of it to end
     */
    public record State(
            int done, int failed, int all, int running, Map<String, Integer> waiting, int cancelled, String left) {
        /** Whether no task is going to do any more. */
        public boolean still() {
            return running == 0 && waiting.isEmpty();
        }

        public double share() {
            return all == 0 ? 1 : (double) done / all;
        }

        /** In one line, for people. */
        public String text() {
            int more = waiting.values().stream().mapToInt(Integer::intValue).sum();
            return Plain.count(done, "piece") + " of " + all + " done, " + Plain.count(running, "task") + " running"
                    + (more == 0
                            ? ""
                            : ", " + more + " waiting"
                                    + waiting.keySet().stream()
                                            .filter(r -> !r.isEmpty() && !r.equals("None"))
                                            .collect(Collectors.joining(", ", " (", ")"))
                                            .replace(" ()", ""))
                    + (failed == 0 ? "" : ", " + failed + " failed") + (left.isEmpty() ? "" : "; " + left);
        }
    }

    /** How far it is now. */
    public State state() {
        Slurm.Tasks tasks = tasks();
        int done = 0;
        int failed = 0;
        for (SpreadPlan.Named p : plan.pieces()) {
            if (pieces.has(p.id())) {
                done++;
            } else if (pieces.failed(p.id()).isPresent()) {
                failed++;
            }
        }
        if (doneAtFirst < 0) {
            doneAtFirst = done;
        }
        int ended = tasks.cancelled() + (stopped() ? 1 : 0);
        return new State(done, failed, plan.pieces().size(), tasks.running(), tasks.waiting(), ended, left(done));
    }

    private String left(int done) {
        int made = done - doneAtFirst;
        int more = plan.pieces().size() - done;
        if (made == 0 || more == 0) {
            return "";
        }
        double seconds = (System.nanoTime() - begun) * 1e-9 * more / made;
        return "about "
                + (seconds < 90
                        ? Plain.count((long) Math.ceil(seconds), "second")
                        : seconds < 5400
                                ? Plain.count(Math.round(seconds / 60), "minute")
                                : Plain.count(Math.round(seconds / 3600), "hour"))
                + " left";
    }

    private List<String> missing() {
        return plan.pieces().stream()
                .map(SpreadPlan.Named::id)
                .filter(id -> !pieces.has(id))
                .toList();
    }

    /**
     * Sees to it that the scheduler has what is missing: nothing while tasks are under way, and no more where all was tried
     * often enough.
     *
     * @return whether there is something to wait for
     */
    public boolean proceed(State now) {
        List<String> missing = missing();
        if (!now.still()) {
            if (stopped()) {
                // Who wished it to end may have known an earlier job than the one that is there now.
                cancel();
            }
            return true;
        }
        if (now.cancelled() > 0) {
            return false;
        }
        // A reason is told at once by the second task that meets it; what has none was lost and is tried again.
        int tries = plan.jobs().size();
        List<String> again = missing.stream()
                .filter(id -> pieces.failed(id).isEmpty() ? tries < ATTEMPTS : tries < 2)
                .toList();
        if (again.isEmpty()) {
            return false;
        }
        again.forEach(pieces::forgive);
        submit(again);
        return true;
    }

    /** Begins anew with what is missing, after all was ended. */
    public void restart() {
        goOn(spread);
        plan = new SpreadPlan(
                plan.study(),
                plan.named(),
                plan.folder(),
                plan.runs(),
                plan.formats(),
                plan.pieces(),
                plan.settings(),
                List.of());
        plan.save(spread);
    }

    private void submit(List<String> ids) {
        int per = plan.settings().perJob();
        List<List<String>> tasks = new ArrayList<>();
        for (int i = 0; i < ids.size(); i += per) {
            tasks.add(List.copyOf(ids.subList(i, Math.min(ids.size(), i + per))));
        }
        int attempt = plan.jobs().size();
        SpreadPlan.Attempt next = new SpreadPlan.Attempt("", tasks);
        // The tasks read what they make from the plan, so it stands there before they begin.
        plan = plan.with(next);
        plan.save(spread);
        Path script = spread.resolve("tasks.sh");
        AtomicFile.write(script, TaskScript.text(spread, attempt));
        String array = plan.settings().nodes() > 0
                ? "0-" + (tasks.size() - 1) + "%" + plan.settings().nodes()
                : "0-" + (tasks.size() - 1);
        String job = scheduler.submit(
                script, array, spread.resolve("logs"), plan.settings().options());
        List<SpreadPlan.Attempt> all = new ArrayList<>(plan.jobs().subList(0, attempt));
        all.add(new SpreadPlan.Attempt(job, tasks));
        plan = new SpreadPlan(
                plan.study(),
                plan.named(),
                plan.folder(),
                plan.runs(),
                plan.formats(),
                plan.pieces(),
                plan.settings(),
                all);
        plan.save(spread);
    }

    /**
     * Ends the tasks; what they made stays. The wish stands in the folder: whoever waits there would else take tasks that had
     * just ended for lost, and submit what is missing again.
     */
    public void stop() {
        AtomicFile.write(
                spread.resolve(STOPPED), "Ended by somebody's wish; the next evaluation here takes this away.\n");
        cancel();
    }

    private void cancel() {
        job().filter(j -> !j.isEmpty()).ifPresent(scheduler::cancel);
    }

    private boolean stopped() {
        return Files.exists(spread.resolve(STOPPED));
    }

    private static void goOn(Path spread) {
        try {
            Files.deleteIfExists(spread.resolve(STOPPED));
        } catch (IOException e) {
            throw new LaneException(
                    "The file " + spread.resolve(STOPPED) + " cannot be taken away: " + AtomicFile.reason(e)
                            + "; delete it by hand.",
                    e);
        }
    }

    /**
     * Waits until nothing is to be expected any more.
     *
     * @param told how far it is, now and then
     * @return how it was at the end
     * @throws java.util.concurrent.CancellationException when cancelled; the tasks go on
     */
    public State await(Work work, java.util.function.Consumer<State> told) {
        while (true) {
            State now = state();
            told.accept(now);
            work.progress(now.text(), now.share());
            work.poll();
            if (now.done() == now.all() || !proceed(now)) {
                return now;
            }
            pause();
        }
    }

    private static void pause() {
        try {
            Thread.sleep(Long.getLong("lane.cluster.pause", 2000));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new java.util.concurrent.CancellationException("interrupted");
        }
    }

    /** Why pieces could not be made, by key of the lane; what was lost without a word says where its log is. */
    public Map<String, String> lacking() {
        var out = new LinkedHashMap<String, String>();
        for (SpreadPlan.Named p : plan.pieces()) {
            if (!pieces.has(p.id())) {
                String why = pieces.failed(p.id())
                        .orElse("it was lost " + Plain.count(plan.jobs().size(), "time")
                                + " without a word; the logs are in " + spread.resolve("logs"));
                out.merge(
                        p.piece().lane(),
                        told(p.piece()) + ": " + why,
                        (a, b) -> a.contains("; and further pieces") ? a : a + "; and further pieces");
            }
        }
        return out;
    }

    private static String told(Piece piece) {
        return piece.overTime()
                ? "times " + piece.times().getFirst() + " to " + piece.times().getLast()
                : Plain.count(piece.readings().size(), "reading");
    }

    /** The library that evaluates what was made: what is missing is not computed here, and says why. */
    public FileLibrary library() {
        Map<String, String> lacking = lacking();
        var library = new FileLibrary(from());
        library.keeping(pieces, lane -> Optional.ofNullable(lacking.get(lane.id()))
                .map(why -> "It could not be computed on the cluster: " + why));
        return library;
    }
}
