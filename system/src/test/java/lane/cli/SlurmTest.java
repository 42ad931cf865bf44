package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import lane.demo.DemoFiles;
import lane.field.Field;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Evaluations on a real cluster of one node, which this test starts and ends. */
class SlurmTest {
    @TempDir
    static Path folder;

    private static final Path SCRIPT =
            Path.of("../tools/cluster.sh").toAbsolutePath().normalize();
    private static boolean up;

    @BeforeAll
    static void start() throws Exception {
        boolean there = Stream.of("sbatch", "slurmctld", "slurmd", "munged")
                .allMatch(p -> Arrays.stream(System.getenv("PATH").split(":"))
                        .anyMatch(d -> Files.isExecutable(Path.of(d, p))));
        assumeTrue(there && "root".equals(System.getProperty("user.name")), "no Slurm here, or not root");
        up = true;
        assertThat(call(List.of(
                                SCRIPT.toString(),
                                "start",
                                folder.resolve("cluster").toString()))
                        .code)
                .isZero();
    }

    @AfterAll
    static void stop() throws Exception {
        if (up) {
            call(List.of(SCRIPT.toString(), "stop", folder.resolve("cluster").toString()));
        }
    }

    /** Whatever another test left it as. */
    @BeforeEach
    void ready() throws Exception {
        slurm("scontrol", "update", "nodename=localhost", "state=resume");
    }

    private record Said(int code, String text) {}

    private static Process begin(Path log, List<String> command) throws IOException {
        var builder = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(log.toFile());
        builder.environment()
                .put("SLURM_CONF", folder.resolve("cluster/slurm.conf").toString());
        // Over before the second compiler pays.
        builder.environment().put("LANE_JAVA", "-XX:TieredStopAtLevel=1 -Dlane.state=" + folder.resolve("state"));
        return builder.start();
    }

    private static Said call(List<String> command) throws Exception {
        Path log = Files.createTempFile(folder, "said", ".txt");
        Process p = begin(log, command);
        assertThat(p.waitFor(300, TimeUnit.SECONDS)).as("%s ends", command).isTrue();
        return new Said(p.exitValue(), Files.readString(log));
    }

    private static List<String> lane(String... args) {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-XX:+UseSerialGC",
                "-Dlane.cluster.pause=300",
                "-Dlane.state=" + folder.resolve("state"),
                "-cp",
                System.getProperty("java.class.path"),
                "lane.cli.Lane"));
        command.addAll(List.of(args));
        return command;
    }

    private static Said run(String... args) throws Exception {
        return call(lane(args));
    }

    private static Said slurm(String... command) throws Exception {
        return call(List.of(command));
    }

    /** What of a ledger is the same wherever it was computed: all but where and when. */
    private static TreeMap<String, String> ledger(Path out) throws IOException {
        var all = new TreeMap<String, String>();
        try (Stream<Path> files = Files.list(out)) {
            for (Path p : files.filter(Files::isRegularFile).toList()) {
                if (!Set.of("manifest.json", "ro-crate-metadata.json")
                        .contains(p.getFileName().toString())) {
                    all.put(p.getFileName().toString(), Files.readString(p));
                }
            }
        }
        return all;
    }

    private static void until(String what, BooleanSupplier condition) throws InterruptedException {
        for (int i = 0; i < 1500 && !condition.getAsBoolean(); i++) {
            Thread.sleep(100);
        }
        assertThat(condition.getAsBoolean()).as(what).isTrue();
    }

    private static long pieces(Path out) {
        try (Stream<Path> all = Files.list(out.resolve("spread/pieces"))) {
            return all.filter(p -> p.toString().endsWith(".jsonl")).count();
        } catch (IOException e) {
            return 0;
        }
    }

    /** Programs of tasks of an evaluation, as the system knows them. */
    private static List<ProcessHandle> tasks(Path out) {
        String of = "work\0" + out.resolve("spread") + "\0";
        return ProcessHandle.allProcesses()
                .filter(p -> {
                    try {
                        return Files.readString(Path.of("/proc/" + p.pid() + "/cmdline"))
                                .contains(of);
                    } catch (IOException e) {
                        return false;
                    }
                })
                .toList();
    }

    /** The demo's start from rest, of which one time cannot be read. */
    private static Path startFromRest() throws IOException {
        Path study = DemoFiles.make(folder.resolve("demo"), DemoFiles.SMALL).resolveSibling("spin-up.lane.json");
        Path bad = study.resolveSibling("jacket-spin-up/t17.vtu");
        Files.write(bad, Arrays.copyOf(Files.readAllBytes(bad), 900));
        return study;
    }

    /** On this machine, in this program. */
    private static void here(Path study, Path out) {
        assertThat(Lane.run("evaluate", study.toString(), "--out", out.toString(), "--quiet"))
                .isZero();
    }

    @Test
    void theDemosStartFromRestIsTheSameToTheByteAndWhatCannotBeComputedIsNamed() throws Exception {
        Path study = startFromRest();
        here(study, folder.resolve("here"));
        Path far = folder.resolve("far away");
        Said there = run("evaluate", study.toString(), "--out", far.toString(), "--on", "slurm", "--per-job", "4");
        assertThat(there.code).as(there.text).isZero();
        // A piece for the looked-at time would answer nothing: both readings go over the 40 times.
        assertThat(there.text).contains("of 4 done", "within", "39 of 40 samples");
        assertThat(ledger(far)).isEqualTo(ledger(folder.resolve("here")));
        // The same again finds all of it there.
        assertThat(run("attach", far.toString(), "--quiet")).isEqualTo(new Said(0, ""));

        // The run is gone when the job comes to it.
        Path gone = folder.resolve("gone");
        Process waits = begin(
                folder.resolve("gone.txt"),
                lane(
                        "evaluate",
                        study.toString(),
                        "--out",
                        gone.toString(),
                        "--on",
                        "slurm",
                        "--per-job",
                        "4",
                        "--block",
                        "30",
                        "--slurm",
                        "--begin=now+2"));
        until("the job waits", () -> Files.exists(gone.resolve("spread/tasks.sh")));
        Files.delete(study.resolveSibling("jacket-spin-up.pvd"));
        assertThat(waits.waitFor(200, TimeUnit.SECONDS)).isTrue();
        String told = Files.readString(folder.resolve("gone.txt"));
        assertThat(waits.exitValue()).as(told).isEqualTo(2);
        assertThat(told).contains("2 failed", "Not computed of lane spin-up: times", "jacket-spin-up.pvd", "no data");
    }

    /** A vat whose must warms up, written 1000 times. */
    private static Path vat() throws IOException {
        Path to = Files.createDirectories(folder.resolve("vat"));
        Mesh mesh = BoxMesh.of(CellShape.TETRAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0.1, 3);
        for (int i = 0; i < 1000; i++) {
            double[] warm = new double[mesh.nodeCount()];
            for (int n = 0; n < warm.length; n++) {
                warm[n] = 290 + 0.01 * i + Math.sin(0.05 * i) * mesh.xyz()[3 * n];
            }
            VtkXmlWriter.writeGrid(
                    to.resolve(String.format("most_%04d.vtu", i)),
                    mesh,
                    List.of(new Field("warm", Field.At.NODE, 1, Unit.of("K"), Values.of(warm))),
                    VtkXmlWriter.Options.UNPACKED);
        }
        Path study = to.resolve("vat.lane.json");
        Files.writeString(study, """
                {"version": 3, "name": "Vat", "settings": {"units": [{"field": "warm", "unit": "K", "stated": true}]},
                 "sources": [{"kind": "run", "id": "vat", "name": "vat", "file": "most_*.vtu"}],
                 "stations": [{"kind": "line", "id": "rod", "name": "rod", "a": {"x": 0.1, "y": 0.5, "z": 0.5},
                               "b": {"x": 0.9, "y": 0.5, "z": 0.5}, "sampling": {"kind": "even", "samples": 5}}],
                 "readings": [
                  {"kind": "profile", "id": "p", "name": "along the rod", "station": "rod", "quantity": "warm"},
                  {"kind": "history", "id": "h", "name": "mean", "timeUnit": "min",
                   "of": {"kind": "tally", "stations": ["rod"], "measure": {"kind": "mean", "quantity": "warm"}}},
                  {"kind": "settling", "id": "s", "name": "settled?", "window": 0.2, "tolerance": 0.01, "unitOfTime": "",
                   "of": {"kind": "history", "timeUnit": "min",
                    "of": {"kind": "tally", "stations": ["rod"], "measure": {"kind": "mean", "quantity": "warm"}}}}]}
                """.replace(", \"unitOfTime\": \"\"", ""));
        return study;
    }

    @Test
    void killedDrainedAndCancelledItLosesNothing() throws Exception {
        Path vat = vat();
        String study = vat.toString();
        here(vat, folder.resolve("vat-here"));

        Path out = folder.resolve("vat-far");
        Process waits = begin(
                folder.resolve("waits.txt"),
                lane(
                        "evaluate",
                        study,
                        "--out",
                        out.toString(),
                        "--on",
                        "slurm",
                        "--nodes",
                        "2",
                        "--block",
                        "50",
                        "--per-job",
                        "5",
                        "--slurm",
                        "--cpus-per-task=1"));
        until("the first tasks work", () -> !tasks(out).isEmpty());
        tasks(out).getFirst().destroyForcibly();
        until("some pieces are there", () -> pieces(out) >= 2);
        slurm("scontrol", "update", "nodename=localhost", "state=drain", "reason=test");
        until("what ran is at its end", () -> tasks(out).isEmpty());
        long drained = pieces(out);
        assertThat(drained).isLessThan(21);
        assertThat(run("attach", out.toString(), "--status").text).contains(" of 21 done", "waiting");
        slurm("scontrol", "update", "nodename=localhost", "state=resume");
        until("it goes on", () -> pieces(out) > drained);

        // Somebody ends the job, here when what ran is at its end and the node takes nothing new: who waits does not
        // take
        // that for lost and submit it again, but says so, and whoever attaches goes on from there.
        slurm("scontrol", "update", "nodename=localhost", "state=drain", "reason=test");
        until("what ran is at its end again", () -> tasks(out).isEmpty());
        assertThat(run("attach", out.toString(), "--stop").code).isZero();
        assertThat(waits.waitFor(120, TimeUnit.SECONDS)).isTrue();
        assertThat(waits.exitValue()).isEqualTo(3);
        assertThat(Files.readString(folder.resolve("waits.txt"))).contains("was ended by somebody", "lane attach");
        assertThat(Files.exists(out.resolve("ledger.csv"))).isFalse();
        assertThat(pieces(out)).isLessThan(21);
        slurm("scontrol", "update", "nodename=localhost", "state=resume");
        Said attached = run("attach", out.toString());
        assertThat(attached.code).as(attached.text).isZero();
        assertThat(pieces(out)).isGreaterThanOrEqualTo(21);
        assertThat(ledger(out)).isEqualTo(ledger(folder.resolve("vat-here")));
    }
}
