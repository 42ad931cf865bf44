package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.util.List;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import lane.base.LaneException;
import lane.formats.FileLibrary;
import lane.reference.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class TableDeskTest {
    private final LinkedBlockingQueue<Runnable> arrived = new LinkedBlockingQueue<>();

    @TempDir
    Path folder;

    private TableDesk desk() {
        return new TableDesk(
                new FileLibrary(folder), new Background("tables", () -> {}, arrived::add, e -> "fault " + e));
    }

    private void wait(TableDesk desk, String file) throws InterruptedException {
        assertThat(desk.of(file, List.of())).isNull();
        arrived.poll(60, TimeUnit.SECONDS).run();
    }

    @Test
    void isReadOnceBehindTheWindowAndAgainWhenTheFileChanged() throws Exception {
        Path file = Files.writeString(folder.resolve("silo.csv"), "depth [m];load [kPa]\n0;1\n2;5\n");
        TableDesk desk = desk();
        wait(desk, "silo.csv");
        Table first = desk.of("silo.csv", List.of());
        assertThat(first.column(first.headers().get(1))).containsExactly(1, 5);
        assertThat(desk.of("silo.csv", List.of())).isSameAs(first);

        Files.writeString(file, "depth [m];load [kPa]\n0;1\n2;5\n4;9\n");
        Files.setLastModifiedTime(file, FileTime.fromMillis(System.currentTimeMillis() + 5000));
        // Until it is read again it stands as it was read last.
        assertThat(desk.of("silo.csv", List.of())).isSameAs(first);
        // What changes meanwhile waits its turn.
        Files.writeString(file, "6;13\n", StandardOpenOption.APPEND);
        Files.setLastModifiedTime(file, FileTime.fromMillis(System.currentTimeMillis() + 9000));
        assertThat(desk.of("silo.csv", List.of())).isSameAs(first);
        arrived.poll(60, TimeUnit.SECONDS).run();
        assertThat(desk.of("silo.csv", List.of())).isNotSameAs(first);
        arrived.poll(60, TimeUnit.SECONDS).run();
        Table second = desk.of("silo.csv", List.of());
        assertThat(second.column(second.headers().get(1))).containsExactly(1, 5, 9, 13);
    }

    @Test
    void whyATableCannotBeReadIsToldEachTimeItIsAskedFor() throws Exception {
        Files.writeString(folder.resolve("empty.csv"), "");
        TableDesk desk = desk();
        wait(desk, "empty.csv");
        for (int i = 0; i < 2; i++) {
            assertThatThrownBy(() -> desk.of("empty.csv", List.of()))
                    .isInstanceOf(LaneException.class)
                    .hasMessageContaining("empty.csv");
        }
        assertThatThrownBy(() -> desk.of("gone.csv", List.of())).isInstanceOf(LaneException.class);
    }
}
