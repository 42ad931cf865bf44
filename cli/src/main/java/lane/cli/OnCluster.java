package lane.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.formats.cluster.Spread;
import lane.formats.ledger.LedgerFormat;
import lane.study.Evaluator;
import lane.study.Results;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;

/** Options of an evaluation on a batch cluster, and what waits for one. */
final class OnCluster {
    @Option(
            names = "--on",
            paramLabel = "CLUSTER",
            description =
                    "where it is computed: slurm, as an array of jobs of that scheduler; this machine if left out. The study, its files and DIR must lie on a disk that all machines share")
    private @Nullable String on;

    @Option(
            names = "--nodes",
            paramLabel = "N",
            description = "with --on: how many jobs run at once at most; as many as the cluster lets if left out")
    private @Nullable Integer nodes;

    @Option(
            names = "--per-job",
            paramLabel = "N",
            description = "with --on: how many pieces of the work one job makes; chosen if left out")
    private @Nullable Integer perJob;

    @Option(
            names = "--block",
            paramLabel = "N",
            description = "with --on: how many stored times one piece reads; 10 if left out")
    private @Nullable Integer block;

    @Option(
            names = "--slurm",
            paramLabel = "OPTIONS",
            description =
                    "with --on: further options of sbatch in one word, such as \"--partition=long --time=2:00:00\"")
    private @Nullable String slurm;

    boolean asked() {
        if (on == null) {
            for (Object only : new @Nullable Object[] {nodes, perJob, block, slurm}) {
                if (only != null) {
                    throw new LaneException(
                            "--nodes, --per-job, --block and --slurm say how work is spread over a cluster; add --on slurm.");
                }
            }
            return false;
        }
        if (!on.equals("slurm")) {
            throw new LaneException("\"" + on + "\" is no cluster that is known; --on takes slurm.");
        }
        return true;
    }

    private static int atLeastOne(@Nullable Integer given, String what) {
        if (given != null && given < 1) {
            throw new LaneException(what + " takes a whole number from 1; " + given + " is given.");
        }
        return given == null ? 0 : given;
    }

    /** Plans, submits, waits, merges and judges. */
    int evaluate(
            CommandSpec spec,
            Path study,
            Path out,
            Map<String, String> runs,
            List<String> formats,
            Evaluate.Told told) {
        List<String> options = slurm == null || slurm.isBlank()
                ? List.of()
                : Arrays.asList(slurm.strip().split("\\s+"));
        Spread spread = Spread.plan(
                new Spread.Asked(
                        study.toAbsolutePath().normalize(),
                        out,
                        runs,
                        formats,
                        atLeastOne(block, "--block"),
                        atLeastOne(nodes, "--nodes"),
                        atLeastOne(perJob, "--per-job"),
                        options),
                Work.QUIET);
        return finish(spec, spread, study, out, told);
    }

    /** Waits for an evaluation, merges and judges. */
    static int finish(CommandSpec spec, Spread spread, Path study, Path out, Evaluate.Told told) {
        PrintWriter err = spec.commandLine().getErr();
        var ended = new AtomicBoolean();
        // Ctrl+C ends this program and none of the jobs.
        var leaving = new Thread(() -> {
            if (!ended.get()) {
                err.println();
                spread.job()
                        .ifPresent(j -> err.println("Job " + j + " goes on without this program. \"lane attach " + out
                                + "\" waits for it again, \"lane attach " + out + " --stop\" ends it."));
                err.flush();
            }
        });
        Runtime.getRuntime().addShutdownHook(leaving);
        try {
            Work work = told.quiet() ? Work.QUIET : Progress.on(System.err);
            var last = new String[] {""};
            Spread.State end = spread.await(work.stretch(0, 0.8), state -> {
                // Where there is no terminal, each change is a line.
                String now = state.done() + " " + state.failed() + " " + state.running();
                if (work == Work.QUIET && !told.quiet() && !now.equals(last[0])) {
                    err.println(state.text());
                    err.flush();
                }
                last[0] = now;
            });
            if (end.cancelled() > 0 && end.done() < end.all()) {
                throw new LaneException("Job " + spread.job().orElse("") + " was ended by somebody: " + end.done()
                        + " of " + end.all() + " pieces are done. \"lane attach " + out + "\" goes on from there.");
            }
            Map<String, String> lacking = spread.lacking();
            if (!told.quiet()) {
                Progress.end(work);
                lacking.forEach((lane, why) -> err.println("Not computed of lane " + lane + ": " + Plain.line(why)));
                err.flush();
            }
            Set<LedgerFormat> further = LedgerFormat.of(
                    spread.formats().isEmpty()
                            ? spread.study().pictures().ledger().formats()
                            : spread.formats());
            Results results = new Evaluator(spread.library()).evaluate(spread.study(), work.stretch(0.8, 0.9));
            return Evaluate.written(spec, results, new Evaluate.To(out, study, spread.runs(), further), told, work);
        } finally {
            ended.set(true);
            try {
                Runtime.getRuntime().removeShutdownHook(leaving);
            } catch (IllegalStateException e) {
                // It is ending.
            }
        }
    }
}
