package lane.formats.hash;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CancellationException;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import lane.base.Work;
import lane.formats.io.FileHash;
import lane.formats.io.FileStamp;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What another process finds about files is what this one would have found. */
class HashesAheadTest {
    @TempDir
    Path folder;

    /** Helps always. */
    private final HashesAhead ahead = new HashesAhead(Double.MAX_VALUE, 0, 1);

    @AfterEach
    void away() {
        ahead.end();
    }

    private Path file(String name, int bytes) throws IOException {
        byte[] content = new byte[bytes];
        new Random(bytes).nextBytes(content);
        return Files.write(folder.resolve(name), content);
    }

    /** The program itself, as it is started, told paths. */
    private Map<String, String> told(List<String> paths) throws Exception {
        Path in = Files.write(folder.resolve("paths"), paths, StandardCharsets.UTF_8);
        var command = new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "--add-modules",
                "jdk.incubator.vector",
                "-cp",
                Path.of(Hasher.class
                                .getProtectionDomain()
                                .getCodeSource()
                                .getLocation()
                                .toURI())
                        .toString(),
                Hasher.class.getName());
        Process run = command.redirectInput(in.toFile())
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        var out = new java.util.HashMap<String, String>();
        try (Stream<String> lines = run.inputReader().lines()) {
            lines.skip(1).map(l -> l.split(" ", 2)).forEach(w -> assertThat(
                            out.put(paths.get(Integer.parseInt(w[0])), w[1]))
                    .isNull());
        }
        assertThat(run.waitFor()).isZero();
        return out;
    }

    @Test
    void everyLengthHasTheHashThatJavaItselfFinds() throws Exception {
        // Around one block, around what is read at once, many for few lanes, and one much longer than the others.
        IntStream lengths = IntStream.concat(
                IntStream.rangeClosed(0, 200),
                IntStream.of((1 << 18) - 64, (1 << 18) - 9, (1 << 18) - 8, (1 << 18) - 1, 1 << 18, (1 << 18) + 1));
        List<String> paths = new ArrayList<>();
        paths.add(file("long", 3_000_001).toString());
        for (int n : IntStream.concat(lengths, IntStream.of(777_777)).toArray()) {
            paths.add(file("of" + n, n).toString());
        }
        paths.add(7, folder.resolve("none").toString());
        paths.add(folder.toString());
        Map<String, String> found = told(paths);
        assertThat(found).hasSize(paths.size());
        for (String path : paths) {
            Path file = Path.of(path);
            assertThat(found.get(path))
                    .as(path)
                    .isEqualTo(
                            Files.isRegularFile(file) ? FileHash.of(file, "").sha256() + " " + Files.size(file) : "-");
        }
    }

    @Test
    void nothingIsAskedOfItForNothing() throws Exception {
        assertThat(told(List.of())).isEmpty();
    }

    /** The first file that was told and is answered, once there is one. */
    private static String answered(HashesAhead by, FileStamp stamp) throws Exception {
        for (int i = 0; i < 1200; i++) {
            var found = by.of(stamp, Work.QUIET);
            if (found.isPresent()) {
                return found.get();
            }
            by.want(List.of(stamp.file()));
            Thread.sleep(50);
        }
        return Assumptions.abort("this processor has no vectors that are worth it");
    }

    @Test
    void aFileIsKnownByWhatItWasWhenItWasTold() throws Exception {
        Path warm = file("warm", 300_000);
        FileHash.of(warm, "");
        List<Path> all = new ArrayList<>(List.of(warm));
        for (int i = 0; i < 20; i++) {
            all.add(file("jar of lentils " + i + " \u00e4.vtu", 1000 * i));
        }
        ahead.want(all);
        assertThat(answered(ahead, FileStamp.of(warm)))
                .isEqualTo(FileHash.of(warm, "").sha256());
        for (Path p : all.subList(1, all.size())) {
            // With or without it: the same.
            assertThat(ahead.input(FileStamp.of(p), "x", Work.QUIET)).isEqualTo(FileHash.of(p, "x"));
        }
        // Another file by now: what was found before is not taken.
        ahead.want(List.of(warm));
        FileStamp before = FileStamp.of(warm);
        Files.write(warm, new byte[] {1, 2, 3});
        assertThat(ahead.of(FileStamp.of(warm), Work.QUIET)).isEmpty();
        assertThat(ahead.of(before, Work.QUIET)).isEmpty();
        assertThat(ahead.input(FileStamp.of(warm), "x", Work.QUIET)).isEqualTo(FileHash.of(warm, "x"));
    }

    @Test
    void fewBytesAndQuickProcessorsNeedNoHelp() throws Exception {
        Path one = file("one", 400_000);
        FileHash.of(one, "");
        assertThat(FileHash.rate()).isPositive();
        var few = new HashesAhead(Double.MAX_VALUE, FileHash.hashed() + 400_001, 1);
        few.want(List.of(one));
        few.ready(FileHash.hashed() + 400_000);
        assertThat(few.helped()).isFalse();
        var quick = new HashesAhead(FileHash.rate() / 2, 0, 1);
        quick.want(List.of(one));
        quick.ready(Long.MAX_VALUE);
        assertThat(quick.helped()).isFalse();
        var alone = new HashesAhead(Double.MAX_VALUE, 0, 2);
        alone.want(List.of(one));
        assertThat(alone.helped()).isFalse();
        ahead.want(List.of(folder.resolve("gone"), one));
        assertThat(ahead.helped()).isTrue();
    }

    /** It may have hashed nothing often before it is told the first file. */
    @Test
    void whoIsReadyEarlyHashesTheSame() throws Exception {
        Path warm = file("warm", 300_000);
        FileHash.of(warm, "");
        ahead.ready(1);
        assertThat(ahead.helped()).isTrue();
        List<Path> all = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            all.add(file("crate of leeks " + i, 20_000 + 777 * i));
        }
        Thread.sleep(700);
        ahead.want(all);
        for (Path p : all) {
            assertThat(ahead.input(FileStamp.of(p), "x", Work.QUIET)).isEqualTo(FileHash.of(p, "x"));
        }
    }

    /** Who waits for an answer is not left waiting. */
    @Test
    void itsEndIsNobodysEnd() throws Exception {
        Path warm = file("warm", 300_000);
        FileHash.of(warm, "");
        ahead.want(List.of(warm));
        answered(ahead, FileStamp.of(warm));
        List<Path> long_ = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            long_.add(file("long" + i, 2_000_000));
        }
        ahead.want(long_);
        Thread.ofVirtual().start(ahead::end);
        for (Path p : long_) {
            assertThat(ahead.input(FileStamp.of(p), "", Work.QUIET).sha256())
                    .isEqualTo(FileHash.of(p, "").sha256());
        }
        // And it begins again.
        ahead.want(long_);
        assertThat(ahead.helped()).isTrue();
    }

    @Test
    void whoWaitsCanBeCancelled() throws Exception {
        Path warm = file("warm", 300_000);
        FileHash.of(warm, "");
        ahead.want(List.of(warm));
        answered(ahead, FileStamp.of(warm));
        Path huge = folder.resolve("huge");
        try (var out = Files.newOutputStream(huge)) {
            byte[] some = new byte[1 << 20];
            Arrays.fill(some, (byte) 7);
            for (int i = 0; i < 300; i++) {
                out.write(some);
            }
        }
        ahead.want(List.of(huge));
        var cancelled = new Work() {
            @Override
            public boolean cancelled() {
                return true;
            }

            @Override
            public void progress(String what, double fraction) {}
        };
        assertThatThrownBy(() -> ahead.of(FileStamp.of(huge), cancelled)).isInstanceOf(CancellationException.class);
    }
}
