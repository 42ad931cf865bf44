package lane.formats.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lane.formats.io.FileStamp;
import lane.reading.Samples;
import lane.reference.Columns;
import lane.reference.Recipe;
import lane.reference.Table;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A table that was read before is what it was when it was read, or is read again. */
class KeptTablesTest {
    @TempDir
    Path folder;

    private Path log;
    private KeptTables kept;

    @BeforeEach
    void begin() throws IOException {
        log = folder.resolve("kiln 3.txt");
        write(1);
        kept = new KeptTables(() -> folder.resolve("kept"), 100, 1 << 20);
    }

    /** Words, marks for missing values, a footer, and a number that no fraction of ten is. */
    private void write(int version) throws IOException {
        var text = new StringBuilder("Brennofen 3, 2026\nZeit [min];Gewölbe [°C];Zug [Pa]\n");
        for (int i = 0; i < 400; i++) {
            text.append(i / 3.0)
                    .append(';')
                    .append(i % 50 == 7 ? "-999" : String.format(Locale.ROOT, "%.4f", 900 + version * Math.sin(i)))
                    .append(';')
                    .append(i == 211 ? "Störung" : String.valueOf(-12.5 - i % 7))
                    .append('\n');
        }
        Files.writeString(log, text.append("Mittel;900;-15\n"));
        // As one that was written a while ago.
        Files.setLastModifiedTime(log, FileTime.from(Instant.now().minusSeconds(60 - version)));
    }

    private Table read(Recipe recipe) throws InterruptedException {
        List<Recipe> recipes = recipe.equals(Recipe.of("")) ? List.of() : List.of(recipe);
        Table made = kept.of(FileStamp.of(log), "kiln 3.txt", recipes, false, Optional::empty)
                .table();
        for (Thread t : Thread.getAllStackTraces().keySet()) {
            if (t.getName().equals("keep table")) {
                t.join();
            }
        }
        return made;
    }

    private static String all(Table t) {
        var out = new StringBuilder(List.of(t.headers(), t.units(), t.roles(), t.layout(), t.found(), t.input())
                .toString());
        t.columns().forEach(c -> out.append('\n').append(Arrays.toString(c)));
        return out.toString();
    }

    private List<Path> files() throws IOException {
        if (!Files.isDirectory(folder.resolve("kept"))) {
            return List.of();
        }
        try (Stream<Path> all = Files.list(folder.resolve("kept"))) {
            return all.sorted().toList();
        }
    }

    /** Keeps other numbers than the file has, so that it can be told where numbers come from. */
    private void forge() throws Exception {
        Table t = TableReader.read(log, "kiln 3.txt");
        double[] other = t.columns().get(1).clone();
        other[5] = 1;
        kept.keep(
                files().getFirst(),
                new Table(
                        t.headers(),
                        t.units(),
                        t.roles(),
                        List.of(t.columns().getFirst(), other, t.columns().get(2)),
                        t.layout(),
                        t.found(),
                        t.input()));
    }

    @Test
    void itIsWhatItWas() throws Exception {
        Table first = read(Recipe.of(""));
        assertThat(first.found().findings()).isNotEmpty();
        assertThat(first.found().dropped()).isNotEmpty();
        assertThat(files()).hasSize(1);
        assertThat(all(read(Recipe.of("")))).isEqualTo(all(first)).isEqualTo(all(TableReader.read(log, "kiln 3.txt")));
        forge();
        assertThat(read(Recipe.of("")).columns().get(1)[5]).isEqualTo(1);
        // A study elsewhere names the file otherwise.
        assertThat(kept.of(FileStamp.of(log), "../kiln 3.txt", List.of(), false, Optional::empty)
                        .table()
                        .input()
                        .path())
                .isEqualTo("../kiln 3.txt");
    }

    /** Columns are looked up when they are wanted, which what becomes of the folder meanwhile does not change. */
    @Test
    void whatIsOpenStaysWhatItIs() throws Exception {
        Table first = read(Recipe.of(""));
        Table again = read(Recipe.of(""));
        assertThat(again.columns()).isInstanceOf(Columns.class);
        for (int c = 0; c < first.columns().size(); c++) {
            assertThat(again.ends(c)).isEqualTo(Samples.Ends.of(first.columns().get(c)));
        }
        assertThat(again.ends(2).places().finite()).isEqualTo(399);
        forge();
        Files.delete(files().getFirst());
        assertThat(all(again)).isEqualTo(all(first));
        assertThat(again.columns().get(1)).isSameAs(again.columns().get(1));
    }

    /** The same numbers in the same places are one array, in whatever file they stand; others with their checksum are not. */
    @Test
    void columnsThatAreAlikeAreHeldOnce() throws Exception {
        read(Recipe.of(""));
        Table first = read(Recipe.of(""));
        Path other = folder.resolve("kiln 4.txt");
        Files.writeString(other, Files.readString(log).replace("Brennofen 3", "Brennofen 4"));
        Files.setLastModifiedTime(other, FileTime.from(Instant.now().minusSeconds(60)));
        log = other;
        read(Recipe.of(""));
        Table second = read(Recipe.of(""));
        assertThat(second.columns()).isInstanceOf(Columns.class);
        for (int c = 0; c < 3; c++) {
            assertThat(second.columns().get(c)).isSameAs(first.columns().get(c));
        }
        write(2);
        read(Recipe.of(""));
        Table third = read(Recipe.of(""));
        assertThat(third.columns().get(0)).isSameAs(first.columns().get(0));
        assertThat(third.columns().get(1)).isNotEqualTo(first.columns().get(1));
        var alike = new AlikeColumns();
        double[] one = alike.of(2, 7, MemorySegment.ofArray(new double[] {1, Double.NaN}), ValueLayout.JAVA_DOUBLE);
        assertThat(alike.of(2, 7, MemorySegment.ofArray(new double[] {1, Double.NaN}), ValueLayout.JAVA_DOUBLE))
                .isSameAs(one);
        assertThat(alike.of(2, 7, MemorySegment.ofArray(new double[] {1, 2}), ValueLayout.JAVA_DOUBLE))
                .containsExactly(1, 2);
    }

    /** What has no least is kept like the others, and so is what is beyond all numbers. */
    @Test
    void aColumnWithoutANumberHasNoEnds() throws Exception {
        var text = new StringBuilder("Zeit [min];Bemerkung;Druck [Pa]\n");
        for (int i = 0; i < 50; i++) {
            text.append(i).append(";-;").append(i == 9 ? "1e999" : "-" + i).append('\n');
        }
        Files.writeString(log, text);
        Files.setLastModifiedTime(log, FileTime.from(Instant.now().minusSeconds(60)));
        Table first = read(Recipe.of(""));
        Table again = read(Recipe.of(""));
        assertThat(again.columns()).isInstanceOf(Columns.class);
        assertThat(all(again)).isEqualTo(all(first));
        for (int c = 0; c < 3; c++) {
            assertThat(again.ends(c)).isEqualTo(first.ends(c));
        }
        assertThat(again.ends(1).places().finite()).isZero();
        assertThat(again.ends(1).least()).isNaN();
        assertThat(again.ends(2).least()).isEqualTo(-49);
    }

    private static Recipe missing() {
        return new Recipe("", "", "", "", "", "", -1, -1, Recipe.Lines.FOUND, List.of("-999"), List.of());
    }

    @Test
    void itsKindIsKnown() throws Exception {
        List<String> kinds = TableReader.kinds(log, "kiln 3.txt");
        Recipe recipe = missing().forHeader(kinds.getFirst());
        Table first = read(recipe);
        assertThat(first.columns().get(1)[7]).isNaN();
        assertThat(files()).hasSize(2);
        FileStamp stamp = FileStamp.of(log);
        var again = kept.of(stamp, "kiln 3.txt", List.of(recipe), false, () -> {
            throw new AssertionError("it is read again");
        });
        assertThat(again.kinds()).isEqualTo(kinds).isNotEmpty();
        assertThat(again.recipe()).isEqualTo(recipe);
        assertThat(all(again.table())).isEqualTo(all(first));
        // Another recipe among several does not count for it, and a damaged kind is found anew.
        assertThat(all(kept.of(stamp, "kiln 3.txt", List.of(missing().forHeader("x"), recipe), false, Optional::empty)
                        .table()))
                .isEqualTo(all(first));
        Path kind = files().stream()
                .filter(f -> f.toString().endsWith(".kinds"))
                .findFirst()
                .orElseThrow();
        for (String damaged : new String[] {"[\"another\"]", "[\"ano"}) {
            Files.writeString(kind, damaged);
            assertThat(all(read(recipe))).isEqualTo(all(first));
            assertThat(Files.readString(kind)).contains(kinds.getFirst());
        }
    }

    /** One of many is kept although it is short, and its hash may be known from elsewhere. */
    @Test
    void oneOfManyIsKept() throws Exception {
        kept = new KeptTables(() -> folder.resolve("kept"), 1 << 20, 1 << 20);
        assertThat(kept.worth(1 << 20)).isTrue();
        assertThat(kept.worth((1 << 20) - 1)).isFalse();
        FileStamp stamp = FileStamp.of(log);
        String sha = "0123456789abcdef".repeat(4);
        assertThat(kept.has(stamp, List.of())).isFalse();
        Table made = kept.of(stamp, "kiln 3.txt", List.of(), true, () -> Optional.of(sha))
                .table();
        assertThat(made.input().sha256()).isEqualTo(sha);
        read(Recipe.of(""));
        assertThat(kept.has(stamp, List.of())).isTrue();
        assertThat(all(kept.of(stamp, "kiln 3.txt", List.of(), true, Optional::empty)
                        .table()))
                .isEqualTo(all(made));
        assertThat(KeptTables.NONE
                        .of(stamp, "kiln 3.txt", List.of(), true, Optional::empty)
                        .table()
                        .input())
                .isEqualTo(TableReader.read(log, "kiln 3.txt").input());
        assertThat(KeptTables.NONE.has(stamp, List.of())).isFalse();
    }

    @Test
    void anotherFileOrRecipeIsReadItself() throws Exception {
        read(Recipe.of(""));
        forge();
        assertThat(read(missing().forFile("kiln*")).columns().get(1)[7]).isNaN();
        assertThat(files()).hasSize(3);
        write(2);
        assertThat(all(read(Recipe.of("")))).isEqualTo(all(TableReader.read(log, "kiln 3.txt")));
        assertThat(files()).hasSize(4);
    }

    /** Whoever wants two columns at once does not wait for a look at all, and is given none that is damaged. */
    @Test
    void someColumnsAreThereBeforeTheOthersAreLookedAt() throws Exception {
        assertThat(kept.some(FileStamp.of(log), "kiln 3.txt", List.of(), Set.of("Zeit")))
                .isEmpty();
        Table all = read(Recipe.of(""));
        Path there = files().getFirst();
        byte[] bytes = Files.readAllBytes(there);
        // In the last column.
        bytes[bytes.length - 9] ^= 1;
        Files.write(there, bytes);

        Table some = kept.some(FileStamp.of(log), "kiln 3.txt", List.of(), Set.of("Zeit", "Gewölbe"))
                .orElseThrow();
        assertThat(some.column("Gewölbe")).containsExactly(all.column("Gewölbe"));
        assertThat(some.input()).isEqualTo(all.input());
        assertThat(kept.some(FileStamp.of(log), "kiln 3.txt", List.of(), Set.of("Zeit", "Zug")))
                .isEmpty();
    }

    @Test
    void whatIsDamagedIsReadAnew() throws Exception {
        String whole = all(read(Recipe.of("")));
        Path file = files().getFirst();
        byte[] bytes = Files.readAllBytes(file);
        for (int at = 0; at < bytes.length; at += at < 600 ? 7 : 611) {
            byte[] other = bytes.clone();
            other[at] ^= 1;
            Files.write(file, other);
            assertThat(all(read(Recipe.of("")))).as("byte %d", at).isEqualTo(whole);
        }
        for (int length : new int[] {0, 3, 100, bytes.length - 1}) {
            Files.write(file, Arrays.copyOf(bytes, length));
            assertThat(all(read(Recipe.of("")))).as("%d bytes", length).isEqualTo(whole);
        }
        assertThat(Files.readAllBytes(file)).isEqualTo(bytes);
    }

    /** Written a moment ago it may be written again and look the same; short ones are read as quickly. */
    @Test
    void whatJustChangedOrIsShortIsNotKept() throws Exception {
        Files.setLastModifiedTime(log, FileTime.from(Instant.now()));
        read(Recipe.of(""));
        assertThat(files()).isEmpty();
        write(1);
        kept = new KeptTables(() -> folder.resolve("kept"), 1 << 20, 1 << 20);
        read(Recipe.of(""));
        assertThat(files()).isEmpty();
    }

    @Test
    void whatIsTooMuchGoesTheOldestFirst() throws Exception {
        kept = new KeptTables(() -> folder.resolve("kept"), 100, 30_000);
        read(Recipe.of(""));
        Path first = files().getFirst();
        Files.setLastModifiedTime(first, FileTime.from(Instant.now().minus(Duration.ofDays(3))));
        write(2);
        read(Recipe.of(""));
        assertThat(files()).hasSize(2).contains(first);
        write(3);
        read(Recipe.of(""));
        assertThat(files()).hasSize(2).doesNotContain(first);
        Files.setLastModifiedTime(
                files().getFirst(), FileTime.from(Instant.now().minus(Duration.ofDays(70))));
        Files.setLastModifiedTime(files().getLast(), FileTime.from(Instant.now().minus(Duration.ofDays(70))));
        kept = new KeptTables(() -> folder.resolve("kept"), 100, 1 << 20);
        write(4);
        read(Recipe.of(""));
        assertThat(files()).hasSize(1);
        // One that is larger than all may be takes no other's place.
        kept = new KeptTables(() -> folder.resolve("kept"), 100, 1000);
        write(5);
        read(Recipe.of(""));
        assertThat(files()).hasSize(1);
    }
}
