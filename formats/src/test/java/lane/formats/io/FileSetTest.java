package lane.formats.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lane.base.LaneException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Tables and trails that go together: what is written, what stays when it cannot be, and what an interruption leaves. */
class FileSetTest {
    @TempDir
    Path temp;

    private Path out() {
        return temp.resolve("out");
    }

    private List<Path> write(String table, String trail) {
        return FileSet.write(out(), Map.of("study", "kiln"), set -> {
            set.add("table.csv", table);
            set.add("trail.json", trail);
        });
    }

    /** Every file of the folder, hidden ones too, with what is in it. */
    private Map<String, String> all() throws IOException {
        var found = new TreeMap<String, String>();
        try (var files = Files.walk(out())) {
            for (Path f : files.filter(Files::isRegularFile).toList()) {
                found.put(out().relativize(f).toString(), Files.readString(f));
            }
        }
        return found;
    }

    @Test
    void aSetIsWrittenNamedByItsManifestAndCheckedByIt() throws IOException {
        assertThat(write("1", "a"))
                .extracting(f -> f.getFileName().toString())
                .containsExactly("table.csv", "trail.json", "manifest.json");
        assertThat(all()).containsOnlyKeys("manifest.json", "table.csv", "trail.json");
        assertThat(all().get("manifest.json"))
                .contains("\"study\" : \"kiln\"", FileHash.ofText("1"), FileHash.ofText("a"));
        assertThat(FileSet.check(out())).isEmpty();
        write("2", "b");
        assertThat(all()).containsEntry("table.csv", "2").containsEntry("trail.json", "b");
        // Somebody puts the table of another evaluation in its place.
        Files.writeString(out().resolve("table.csv"), "1");
        assertThat(FileSet.check(out())).containsExactly("table.csv is not the file that was written with the others.");
        Files.delete(out().resolve("trail.json"));
        assertThat(FileSet.check(out())).hasSize(2).contains("trail.json is missing.");
        Files.writeString(out().resolve("manifest.json"), "{\"files\": [{\"name\": \"../x\"}]}");
        assertThatThrownBy(() -> FileSet.check(out())).hasMessageContaining("damaged");
        Files.delete(out().resolve("manifest.json"));
        assertThatThrownBy(() -> FileSet.check(out()))
                .hasMessageContaining("nothing tells which files belong together");
    }

    @Test
    void whateverGoesWrongWhileItIsMadeTheEarlierSetStays() throws IOException {
        write("1", "a");
        Map<String, String> before = all();
        for (int at = 0; at < 40; at++) {
            int full = at;
            assertThatThrownBy(() -> FileSet.write(out(), Map.of(), set -> {
                        set.add("table.csv", "2");
                        set.add("trail.json", out -> {
                            for (int i = 0; i < 40; i++) {
                                if (i == full) {
                                    throw new IOException("No space left on device");
                                }
                                out.write('b');
                            }
                        });
                    }))
                    .isInstanceOf(LaneException.class)
                    .hasMessageContaining("the disk is full")
                    .hasMessageEndingWith("what stood there before is unchanged.");
            assertThat(all()).isEqualTo(before);
        }
        assertThatThrownBy(() -> FileSet.write(out(), Map.of(), set -> set.add("../table.csv", "2")))
                .hasMessageContaining("cannot be called");
        assertThat(all()).isEqualTo(before);
        assertThat(temp.resolve("table.csv")).doesNotExist();
    }

    @Test
    void aSetThatWasInterruptedWhileItWasPutInPlaceIsFinishedByWhoeverLooksNext() throws IOException {
        for (int placed = 0; placed < 3; placed++) {
            write("1", "a");
            Path ready = out().resolve(".lane-ready");
            Files.createDirectory(ready);
            Path elsewhere = temp.resolve("elsewhere" + placed);
            FileSet.write(elsewhere, Map.of("study", "kiln"), set -> {
                set.add("table.csv", "2");
                set.add("trail.json", "b");
            });
            List<String> names = List.of("table.csv", "trail.json", "manifest.json");
            for (int i = 0; i < 3; i++) {
                Path to = (i < placed ? out() : ready).resolve(names.get(i));
                Files.copy(elsewhere.resolve(names.get(i)), to, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
            }
            assertThat(FileSet.check(out())).as("after %d were placed", placed).isEmpty();
            assertThat(all())
                    .containsEntry("table.csv", "2")
                    .containsEntry("trail.json", "b")
                    .hasSize(3);
        }
    }

    @Test
    void whatNoLongerBelongsToTheSetGoesUnlessSomebodyChangedIt() throws IOException {
        FileSet.write(out(), Map.of(), set -> {
            set.add("profile-a.csv", "a");
            set.add("profile-b.csv", "b");
        });
        Files.writeString(out().resolve("profile-b.csv"), "b, with a remark by hand");
        Files.writeString(out().resolve("notes.txt"), "somebody's");
        FileSet.write(out(), Map.of(), set -> set.add("profile-c.csv", "c"));
        assertThat(all()).containsOnlyKeys("manifest.json", "notes.txt", "profile-b.csv", "profile-c.csv");
    }

    @Test
    void oneWritesAtATimeAndTheDeadHoldNothing() throws IOException {
        write("1", "a");
        try (FolderLock mine = FolderLock.of(out())) {
            assertThatThrownBy(() -> write("2", "b")).hasMessageContaining("Somebody else is writing into");
        }
        Files.writeString(out().resolve(".lane-lock"), "left by a process that was killed");
        Path left = Files.createDirectory(out().resolve(".lane-" + Machine.name() + "-999999999-1.part"));
        Files.writeString(left.resolve("table.csv"), "half");
        Path foreign = Files.writeString(out().resolve(".lane-another_machine-1-1.part"), "perhaps at work");
        write("3", "c");
        assertThat(left).doesNotExist();
        assertThat(foreign).exists();
        assertThat(FileSet.check(out())).isEmpty();
    }
}
