package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.table.KeptTables;
import lane.formats.table.TableReader;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.study.Source;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Many logs are read side by side, and each is what it is when it is read alone. */
class TableShelfTest {
    private static final int LOGS = 40;

    @TempDir
    Path folder;

    private final List<String> names = new ArrayList<>();
    private TableShelf shelf;

    @BeforeEach
    void logs() throws IOException {
        for (int i = 0; i < LOGS; i++) {
            names.add("press " + i + ".log");
            write(i, "load (kN)", 1);
        }
        shelf = new TableShelf(f -> folder.resolve(f), KeptTables.NONE);
    }

    private void write(int log, String column, double factor) throws IOException {
        var text = new StringBuilder("# stroke " + log + "\ntime (ms)\t" + column + "\n");
        for (int i = 0; i < 200; i++) {
            text.append(i / 10.0).append('\t').append(factor * (log + i)).append("\r\n");
        }
        Path file = folder.resolve(names.get(log));
        Files.writeString(file, text);
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().minusSeconds((long) (100 - factor))));
    }

    private void same(List<Recipe> recipes, UnaryOperator<Table> as) {
        for (String name : names) {
            Table found = shelf.of(name, recipes);
            Table alone = as.apply(TableReader.read(folder.resolve(name), name));
            assertThat(shelf.of(name, recipes)).as(name).isSameAs(found);
            assertThat(found.headers()).isEqualTo(alone.headers());
            assertThat(found.input()).isEqualTo(alone.input());
            assertThat(found.columns().get(1)).isEqualTo(alone.columns().get(1));
        }
    }

    @Test
    void whoeverReadsThem() {
        shelf.foresee(names, List.of(), Work.QUIET);
        same(List.of(), t -> t);
        // Recipes that hold for other tables change nothing but that the kind of each is asked.
        List<Recipe> others = List.of(Recipe.of("another header").withMissing(List.of("7")));
        shelf.foresee(names, others, Work.QUIET);
        same(others, t -> t);
        List<Recipe> theirs = List.of(Recipe.of("time (ms) load (kN)").withMissing(List.of("50")));
        shelf.foresee(names, theirs, Work.QUIET);
        assertThat(shelf.of(names.get(3), theirs).columns().get(1)[47]).isNaN();
        assertThat(shelf.of(names.get(3), others).columns().get(1)[47]).isEqualTo(50);
    }

    @Test
    void oneThatChangesIsReadAgain() throws IOException {
        Source.Reference press =
                new Source.Reference("p", "press", Source.Kind.MEASUREMENT, List.of(names.get(5)), Map.of(), List.of());
        shelf.foresee(names, List.of(), Work.QUIET);
        Table other = shelf.of(names.get(4), List.of());
        assertThat(shelf.of(names.get(5), List.of()).columns().get(1)[1]).isEqualTo(6);
        assertThat(shelf.changed(press)).isFalse();
        write(5, "load (kN)", 2);
        assertThat(shelf.changed(press)).isTrue();
        assertThat(shelf.of(names.get(5), List.of()).columns().get(1)[1]).isEqualTo(12);
        assertThat(shelf.changed(press)).isFalse();
        assertThat(shelf.of(names.get(4), List.of())).isSameAs(other);
        Files.delete(folder.resolve(names.get(5)));
        assertThat(shelf.changed(press)).isTrue();
    }

    @Test
    void oneThatIsNotThereKeepsNobodyWaiting() throws IOException {
        Files.delete(folder.resolve(names.get(0)));
        Files.writeString(folder.resolve(names.get(1)), "no numbers here\n");
        shelf.foresee(names, List.of(), Work.QUIET);
        assertThatThrownBy(() -> shelf.of(names.get(0), List.of()))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("does not exist");
        assertThatThrownBy(() -> shelf.of(names.get(1), List.of()))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("no row of numbers");
        write(1, "load (kN)", 1);
        assertThat(shelf.of(names.get(1), List.of()).rows()).isEqualTo(200);
        names.removeFirst();
        same(List.of(), t -> t);
    }
}
