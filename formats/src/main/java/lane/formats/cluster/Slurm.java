package lane.formats.cluster;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import lane.base.LaneException;

/** The commands of the scheduler Slurm: to submit an array of tasks, to ask for its tasks, to end it. */
final class Slurm {
    /** Seconds that a command may take; a busy controller answers late. */
    private static final long LATEST = 120;

    /**
     * The tasks of a job that the scheduler still knows.
     *
     * @param running begun
     * @param waiting not begun, each reason with how many
     * @param cancelled ended by somebody's wish
     */
    record Tasks(int running, Map<String, Integer> waiting, int cancelled) {
        static final Tasks NONE = new Tasks(0, Map.of(), 0);

        int all() {
            return running
                    + waiting.values().stream().mapToInt(Integer::intValue).sum();
        }
    }

    /**
     * Submits a script as an array of tasks.
     *
     * @param array which tasks, and how many of them at once, as the scheduler writes it
     *
     * @param options further ones of the cluster's own, such as a partition or an account
     * @return the job's number
     * @throws LaneException with what the scheduler says, where it refuses
     */
    String submit(Path script, String array, Path logs, List<String> options) {
        List<String> command = new ArrayList<>(List.of(
                "sbatch",
                "--parsable",
                "--array=" + array,
                "--requeue",
                "--output=" + logs.resolve("%A_%a.log"),
                "--job-name=lane"));
        command.addAll(options);
        command.add(script.toString());
        String said = run(command).strip();
        // On several clusters their name follows.
        String job = said.lines().reduce("", (a, b) -> b).split(";", 2)[0].strip();
        if (!job.matches("\\d+")) {
            throw new LaneException(
                    "The scheduler was given the job and answered \"" + said + "\", which is no number of one.");
        }
        return job;
    }

    /** What of a job has not ended; none where the scheduler knows it no more. */
    Tasks tasks(String job) {
        Said said = call(List.of("squeue", "--noheader", "--array", "--states=all", "--jobs=" + job, "--format=%T|%r"));
        if (said.code != 0) {
            if (said.text.contains("Invalid job id")) {
                return Tasks.NONE;
            }
            throw refused("squeue", said);
        }
        int running = 0;
        int cancelled = 0;
        var waiting = new TreeMap<String, Integer>();
        for (String line :
                said.text.lines().map(String::strip).filter(l -> !l.isEmpty()).toList()) {
            String[] parts = line.split("\\|", 2);
            switch (parts[0]) {
                case "PENDING", "REQUEUED", "REQUEUE_HOLD", "REQUEUE_FED", "SPECIAL_EXIT", "RESV_DEL_HOLD" ->
                    waiting.merge(parts.length > 1 ? parts[1] : "", 1, Integer::sum);
                case "RUNNING",
                        "CONFIGURING",
                        "COMPLETING",
                        "STAGE_OUT",
                        "SIGNALING",
                        "STOPPED",
                        "SUSPENDED",
                        "RESIZING" -> running++;
                case "CANCELLED" -> cancelled++;
                // At its end, well or not: its pieces say which.
                default -> {}
            }
        }
        return new Tasks(running, waiting, cancelled);
    }

    /** Ends a job with all its tasks. */
    void cancel(String job) {
        Said said = call(List.of("scancel", job));
        if (said.code != 0 && !said.text.contains("Invalid job id")) {
            throw refused("scancel", said);
        }
    }

    private static LaneException refused(String what, Said said) {
        return new LaneException("The scheduler's command " + what + " ended with " + said.code + ": "
                + said.text.strip().replace('\n', ' ') + ".");
    }

    private record Said(int code, String text) {}

    private static String run(List<String> command) {
        Said said = call(command);
        if (said.code != 0) {
            throw refused(command.getFirst(), said);
        }
        return said.text;
    }

    private static Said call(List<String> command) {
        Path out = null;
        try {
            out = Files.createTempFile("lane-slurm", ".txt");
            // Into a file: a command that does not end is then not waited for by reading from it.
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectInput(ProcessBuilder.Redirect.from(nothing()))
                    .redirectOutput(out.toFile())
                    .start();
            if (!process.waitFor(LATEST, TimeUnit.SECONDS)) {
                process.destroy();
                throw new LaneException("The scheduler's command " + command.getFirst() + " did not answer within "
                        + LATEST + " seconds; is its controller up?");
            }
            return new Said(process.exitValue(), Files.readString(out, StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new LaneException(
                    "The scheduler's command " + command.getFirst() + " could not be called (" + e.getMessage()
                            + "); run this where the cluster's commands are, as on its login node.",
                    e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new java.util.concurrent.CancellationException("interrupted");
        } finally {
            delete(out);
        }
    }

    private static java.io.File nothing() {
        return new java.io.File(System.getProperty("os.name").startsWith("Windows") ? "NUL" : "/dev/null");
    }

    private static void delete(@org.jspecify.annotations.Nullable Path file) {
        try {
            if (file != null) {
                Files.deleteIfExists(file);
            }
        } catch (IOException e) {
            // It lies among the temporary files.
        }
    }
}
