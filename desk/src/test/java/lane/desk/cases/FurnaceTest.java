package lane.desk.cases;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.control.MenuButton;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.desk.intake.FileDrop;
import lane.desk.ledger.LedgerView;
import lane.reading.Outcome;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A glass furnace's log that would take long to read: the curve that is looked at stands before, and is no result yet. */
class FurnaceTest extends Windowed {
    private static final int COLUMNS = 30;
    private static final int ROWS = 3_500;

    @TempDir
    Path folder;

    private Path log() throws Exception {
        Path file = folder.resolve("wanne 3.csv");
        // Long numbers make a long file of few cells.
        String others = IntStream.range(2, COLUMNS)
                .mapToObj(i -> ";12,5" + "0".repeat(48))
                .collect(Collectors.joining("", "", "\r\n"));
        try (Writer out = Files.newBufferedWriter(file)) {
            out.write("Uhr (min)");
            for (int c = 0; c < COLUMNS; c++) {
                out.write(";Feld " + c + " (degC)");
            }
            out.write("\r\n");
            for (int i = 0; i < ROWS; i++) {
                out.write(String.format(Locale.GERMAN, "%.1f;7;%.4f", 0.5 * i, 1500 + 20 * Math.cos(i / 300.0)));
                out.write(others);
            }
        }
        return file;
    }

    private record Shown(boolean proved, double value, int others) {}

    private Shown now(String reading) {
        String lane = session.study().sources().getFirst().id();
        Outcome o = session.results().outcome(reading, lane);
        return new Shown(
                o.trail().proved(),
                o.curve().map(c -> c.value()[1234]).orElse(Double.NaN),
                session.results().readings().size());
    }

    @Test
    void theCurveThatIsLookedAtStandsBeforeTheLogIsRead() throws Exception {
        Path file = log();
        Path study = folder.resolve("wanne.lane.json");
        show(Session::fresh);
        robot.interact(() -> FileDrop.add(session, List.of(file)));
        await(() -> session.study().sources().size() == 1);
        settled();
        robot.interact(() -> {
            session.go(1);
            session.select(Chosen.SOURCE, session.study().sources().getFirst().id());
        });
        MenuButton menu = node("monitor-columns");
        robot.interact(() -> menu.getItems().get(2).fire());
        settled();
        robot.interact(() -> session.go(1));
        MenuButton again = node("monitor-columns");
        robot.interact(() -> again.getItems().get(3).fire());
        settled();
        assertThat(session.study().readings()).hasSize(2);
        robot.interact(() -> session.saveAs(study));
        robot.interact(session::close);
        // Another time on the clock: what was kept of it does not hold.
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().minusSeconds(5000)));
        List<Shown> seen = new ArrayList<>();
        show(() -> {
            Session opened = Session.open(study);
            // The one that was added last is the one that is looked at.
            String first = opened.study().readings().getLast().id();
            opened.listen(c -> {
                if (c == Session.Change.RESULTS) {
                    session = opened;
                    seen.add(now(first));
                    if (seen.size() == 1) {
                        opened.cancel();
                    }
                }
            });
            return opened;
        });
        await(() -> !session.computing());
        assertThat(seen).hasSize(1);
        // A ledger is none of a first look, also where no more is being computed: what is missing is.
        robot.interact(() -> LedgerView.write(session));
        await(() -> session.message().startsWith("Wrote"));

        double value = 1500 + 20 * Math.cos(1234 / 300.0) + 273.15;
        assertThat(seen).hasSizeGreaterThanOrEqualTo(2);
        assertThat(seen.getFirst().proved).isFalse();
        assertThat(seen.getLast().proved).isTrue();
        assertThat(seen.getFirst().others).isEqualTo(1);
        assertThat(seen.getLast().others).isEqualTo(2);
        assertThat(seen)
                .allSatisfy(s -> assertThat(s.value).isCloseTo(value, org.assertj.core.api.Assertions.within(1e-4)));
        assertThat(Files.readString(folder.resolve("ledger/ledger.json")))
                .contains("sha256")
                .doesNotContain("not proved");
    }
}
