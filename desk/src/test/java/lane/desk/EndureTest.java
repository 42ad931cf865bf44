package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import lane.base.LaneException;
import lane.base.Work;
import lane.cli.StudyFigures;
import lane.formats.FileLibrary;
import lane.formats.io.FileSet;
import lane.formats.ledger.LedgerFormat;
import lane.formats.ledger.LedgerWriter;
import lane.formats.ledger.Made;
import lane.formats.study.Autosave;
import lane.formats.study.StudyJson;
import lane.measure.Area;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.reference.Curve;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Programs that are killed at any moment, while they write a ledger or save a study: nothing is lost and nothing is mixed. A few
 * kills here; {@code ./lane endure} makes two hundred of each.
 */
class EndureTest {
    private static final int KILLS = Integer.getInteger("lane.endure", 3);
    /** Milliseconds within which what is quick is killed. */
    private static final int SOON = 150;

    @TempDir
    Path folder;

    private final Random random = new Random(KILLS);

    /** What is killed: writes on and on, and tells of each thing once it is done. */
    static final class Victim {
        private Victim() {}

        public static void main(String[] args) throws Exception {
            Path folder = Path.of(args[1]);
            if (args[0].equals("export")) {
                export(folder, args.length > 2 ? Set.of(LedgerFormat.values()) : Set.of());
            } else {
                save(folder.resolve("s.lane.json"), Integer.parseInt(args[2]));
            }
        }

        /** Every other ledger in all formats, where they are asked for. */
        private static void export(Path folder, Set<LedgerFormat> formats) {
            for (int i = 0; ; i = 1 - i) {
                LedgerWriter.write(
                        results(100 + i),
                        new LedgerWriter.To(
                                folder,
                                folder.resolve("s.lane.json"),
                                Map.of(),
                                Made.here("9.9", Instant.EPOCH),
                                i == 0 ? Set.of() : formats,
                                new StudyFigures()),
                        Work.QUIET);
                System.out.println(i);
            }
        }

        private static void save(Path file, int from) throws IOException {
            var document = new Document(StudyJson.load(file), file, s -> {});
            document.recover(q -> {});
            for (int i = from; ; i++) {
                String name = "n" + i;
                document.edit("Rename", s -> s.withName(name), false);
                if (i % 3 == 0) {
                    document.save();
                } else {
                    document.keepUnsaved();
                }
                System.out.println(i);
            }
        }
    }

    /** A ledger whose every file says which of two it is. */
    private static Results results(double value) {
        Study s = Study.empty("study " + value)
                .withSources(l -> List.of(new Source.Reference(
                        "hand",
                        "hand",
                        Source.Kind.THEORY,
                        List.of(),
                        Map.of(),
                        List.of(new Curve.HandValue("r", value, "m2", 0, "", "", List.of())))))
                .withReadings(l -> List.of(new Reading("r", "r", "m2", new TallyOf(List.of(), new Area()))));
        return new Evaluator(new FileLibrary(Path.of("."))).evaluate(s, Work.QUIET);
    }

    /** Runs the victim, kills it some time after its first word, and gives its last. */
    private String killed(int within, String... args) throws Exception {
        var command = new java.util.ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-Xshare:auto",
                "-Dlane.data=" + folder.resolve("data"),
                "-cp",
                System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")),
                Victim.class.getName()));
        command.addAll(List.of(args));
        Path told = folder.resolve("told.txt");
        Files.deleteIfExists(told);
        Process process = new ProcessBuilder(command)
                .redirectError(folder.resolve("victim.log").toFile())
                .redirectOutput(told.toFile())
                .start();
        while (Files.size(told) == 0) {
            assertThat(process.isAlive())
                    .as(Files.readString(folder.resolve("victim.log")))
                    .isTrue();
            Thread.sleep(5);
        }
        Thread.sleep(random.nextInt(within), random.nextInt(1_000_000));
        process.destroyForcibly().waitFor();
        // A line that was cut off was not told.
        String whole = Files.readString(told);
        return whole.substring(0, whole.lastIndexOf('\n')).lines().toList().getLast();
    }

    @Test
    void noKillMixesTheTableOfOneLedgerWithTheTrailOfAnother() throws Exception {
        Path out = folder.resolve("out");
        LedgerWriter.write(
                results(100),
                LedgerWriter.To.plain(out, out.resolve("s.lane.json"), Made.here("9.9", Instant.EPOCH)),
                Work.QUIET);
        for (int i = 0; i < KILLS; i++) {
            if (i % 3 == 1) {
                // In the middle of workbook, pages and figures, which take longer.
                killed(2500, "export", out.toString(), "all");
            } else {
                killed(SOON, "export", out.toString());
            }
            assertThat(FileSet.check(out)).as("kill %d", i).isEmpty();
            if (Files.exists(out.resolve("ledger.md"))) {
                assertThat(Files.readString(out.resolve("ledger.md"))).contains("study 101");
                assertThat(Files.readString(out.resolve("ledger.csv"))).contains("101.0");
            }
            String table = Files.readString(out.resolve("ledger.csv"));
            String trail = Files.readString(out.resolve("ledger.json"));
            String which = table.contains("101.0") ? "101.0" : "100.0";
            assertThat(trail).as("kill %d", i).contains("study " + which);
            assertThat(Files.readString(out.resolve("manifest.json"))).contains("study " + which);
        }
        // What the killed have left goes with the next export.
        LedgerWriter.write(
                results(100),
                LedgerWriter.To.plain(out, out.resolve("s.lane.json"), Made.here("9.9", Instant.EPOCH)),
                Work.QUIET);
        try (var files = Files.list(out)) {
            assertThat(files.map(f -> f.getFileName().toString()))
                    .containsExactlyInAnyOrder(
                            "csv-metadata.json",
                            "definitions.json",
                            "ledger.csv",
                            "ledger.json",
                            "manifest.json",
                            "ro-crate-metadata.json",
                            "table-Comparison.csv");
        }
    }

    private static int number(Path file) {
        try {
            return Integer.parseInt(StudyJson.load(file).name().substring(1));
        } catch (LaneException e) {
            throw new AssertionError(file + " is damaged", e);
        }
    }

    @Test
    void noKillLosesAStudyOrWhatWasKeptOfIt() throws Exception {
        Path file = folder.resolve("s.lane.json");
        StudyJson.save(Study.empty("n0"), file);
        int from = 1;
        for (int i = 0; i < KILLS; i++) {
            int last = Integer.parseInt(killed(SOON, "save", folder.toString(), String.valueOf(from)));
            int found = number(file);
            if (Files.exists(Autosave.of(file))) {
                found = Math.max(found, number(Autosave.of(file)));
            }
            assertThat(found).as("kill %d: what was told as kept", i).isBetween(last, last + 1);
            from = found + 1;
        }
    }

    @Test
    void aDiskThatIsFullAtAnySizeLeavesTheEarlierLedgerWhole() throws Exception {
        Path out = folder.resolve("full");
        LedgerWriter.write(
                results(100),
                LedgerWriter.To.plain(out, out.resolve("s.lane.json"), Made.here("9.9", Instant.EPOCH)),
                Work.QUIET);
        String before = Files.readString(out.resolve("manifest.json"));
        int sizes = Math.max(20, KILLS / 2);
        for (int i = 0; i < sizes; i++) {
            int room = i * 40;
            var left = new AtomicInteger(room);
            try {
                FileSet.write(out, Map.of(), set -> {
                    for (String name : List.of("ledger.csv", "ledger.json")) {
                        set.add(name, stream -> {
                            for (int b = 0; b < 20 * sizes; b++) {
                                if (left.getAndDecrement() == 0) {
                                    throw new IOException("No space left on device");
                                }
                                stream.write('x');
                            }
                        });
                    }
                });
                throw new AssertionError("there was room for " + room);
            } catch (LaneException e) {
                assertThat(e.getMessage()).contains("the disk is full");
            }
            assertThat(FileSet.check(out)).as("room for %d bytes", room).isEmpty();
            assertThat(Files.readString(out.resolve("manifest.json"))).isEqualTo(before);
        }
    }
}
