package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import lane.base.LaneException;
import lane.formats.study.StudyJson;
import lane.formula.Parser;
import lane.formula.Printer;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.Reading;
import lane.station.Station;
import lane.study.Renames;
import lane.study.Source;
import lane.study.Study;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A user who edits, takes back, goes on and saves in any order, on a study with every kind of everything. */
class RandomEditsTest {
    private static final Path EVERY_KIND = Path.of("../system/src/test/resources/lane/demo/every-kind.lane.json");

    @TempDir
    Path folder;

    private String before;

    @BeforeEach
    void ownData() {
        before = System.getProperty("lane.data", "");
        System.setProperty("lane.data", folder.resolve("data").toString());
    }

    @AfterEach
    void data() {
        System.setProperty("lane.data", before);
    }

    private static <T> List<T> moved(List<T> all, Random random) {
        List<T> out = new ArrayList<>(all);
        if (out.size() > 1) {
            out.add(random.nextInt(out.size()), out.remove(random.nextInt(out.size())));
        }
        return out;
    }

    private static <T> T any(List<T> all, Random random) {
        return all.get(random.nextInt(all.size()));
    }

    private static <T> List<T> replaced(List<T> all, T old, T by) {
        return all.stream().map(t -> t.equals(old) ? by : t).toList();
    }

    private static <T> List<T> and(List<T> all, T more) {
        List<T> out = new ArrayList<>(all);
        out.add(more);
        return out;
    }

    private static String name(Random random) {
        String[] words = {"rake", "door", "Höhe", "two words", "p/2", "\"x\"", "über all", "a", "1st"};
        return words[random.nextInt(words.length)] + " " + random.nextInt(1000);
    }

    /** One of the things that are done to a study. */
    private static Study edited(Study s, Random random, int number) {
        return switch (random.nextInt(12)) {
            case 0 -> s.withStations(l -> moved(l, random));
            case 1 -> s.withReadings(l -> moved(l, random));
            case 2 -> {
                Station t = any(s.stations(), random);
                yield s.withStations(l -> replaced(l, t, t.named(name(random))));
            }
            case 3 -> {
                Reading r = any(s.readings(), random);
                yield s.withReadings(l -> replaced(l, r, r.named(name(random))));
            }
            case 4 -> {
                Quantity q = any(s.quantities(), random);
                yield s.withQuantities(l -> replaced(l, q, q.noted("because of " + number)));
            }
            case 5 ->
                s.withQuantities(l -> and(l, new Quantity("new" + number, "new " + number, "x * " + number, "", "")));
            case 6 -> {
                Station t = any(s.stations(), random);
                Station other = t.moved(new Point(0.01 * number, 0, -0.5));
                yield other == null ? s : s.withStations(l -> replaced(l, t, other));
            }
            case 7 -> {
                Station t = any(s.stations(), random);
                yield s.withStations(l -> and(l, new Station("copy" + number, "copy " + number, t.frame(), t.shape())));
            }
            case 8 -> s.withName(name(random));
            case 9 -> {
                Reading r = any(s.readings(), random);
                yield s.withReadings(l -> and(l, new Reading("again" + number, name(random), r.unit(), r.ask())));
            }
            case 10 -> {
                List<Source> runs = s.sources();
                yield s.withOff(List.of(any(runs, random).id()));
            }
            default -> s.withReadings(l -> l.size() < 5 ? l : l.subList(0, l.size() - 1));
        };
    }

    @Test
    void theWayBackAndForthIsWhatWasDone() throws Exception {
        Study first = StudyJson.load(EVERY_KIND);
        Path file = folder.resolve("study.lane.json");
        StudyJson.save(first, file);
        var random = new Random(99);
        var said = new ArrayList<String>();
        var document = new Document(StudyJson.load(file), file, said::add);
        // What it was at each step, and where one stands.
        List<Study> steps = new ArrayList<>(List.of(document.study()));
        int at = 0;
        int refused = 0;
        for (int number = 0; number < 400; number++) {
            int what = random.nextInt(10);
            if (what < 6) {
                int n = number;
                Study now = document.study();
                try {
                    document.edit("Edit " + number, s -> edited(s, new Random(n), n), false);
                } catch (LaneException e) {
                    // A refused edit leaves all as it was.
                    assertThat(document.study()).isEqualTo(now);
                    assertThat(e.getMessage()).endsWith(".");
                    refused++;
                    continue;
                }
                if (!document.study().equals(now)) {
                    steps = new ArrayList<>(steps.subList(0, at + 1));
                    steps.add(document.study());
                    at++;
                }
            } else if (what < 8) {
                document.undo();
                at = Math.max(0, at - 1);
            } else if (what < 9) {
                document.redo();
                at = Math.min(steps.size() - 1, at + 1);
            } else {
                document.save();
                assertThat(StudyJson.load(file)).as("saved after %d", number).isEqualTo(document.study());
                assertThat(document.unsaved()).isFalse();
            }
            assertThat(document.study()).as("after %d", number).isEqualTo(steps.get(at));
        }
        assertThat(steps.size()).isGreaterThan(30);
        assertThat(refused).isLessThan(100);
        while (at > 0) {
            document.undo();
            assertThat(document.study()).isEqualTo(steps.get(--at));
        }
        assertThat(document.study()).isEqualTo(first);
        document.close();
        assertThat(said).isEmpty();
    }

    /** What is autosaved at any moment is the study, whatever the edits were. */
    @Test
    void whatIsKeptBesideIsTheStudy() throws Exception {
        Path file = folder.resolve("kept.lane.json");
        StudyJson.save(StudyJson.load(EVERY_KIND), file);
        var random = new Random(4);
        for (int round = 0; round < 8; round++) {
            var document = new Document(StudyJson.load(file), file, s -> {});
            for (int k = 0; k < 1 + random.nextInt(12); k++) {
                int n = 100 * round + k;
                try {
                    document.edit("Edit " + n, s -> edited(s, new Random(n), n), false);
                } catch (LaneException e) {
                    // Refused.
                }
            }
            document.keepUnsaved();
            Path beside = folder.resolve("kept.lane.json.autosave");
            if (document.unsaved()) {
                assertThat(StudyJson.load(beside)).as("round %d", round).isEqualTo(document.study());
            }
            document.save();
            assertThat(StudyJson.load(file)).isEqualTo(document.study());
            assertThat(beside).doesNotExist();
            document.close();
        }
    }

    /** Names in formulas with quotes only where they need them. */
    private static Study plain(Study s) {
        return s.withQuantities(l -> l.stream()
                .map(q -> q.by(Printer.text(Parser.parse(q.formula()))))
                .toList());
    }

    /** A name and back: formulas that look something up follow both times, and the study is what it was. */
    @Test
    void aRenameAndItsReverseChangeNothing() {
        Study s = StudyJson.load(EVERY_KIND);
        int followed = 0;
        for (Station t : s.stations()) {
            Study other = Renames.follow(s, s.withStations(l -> replaced(l, t, t.named("quite another name"))));
            followed += other.quantities().equals(s.quantities()) ? 0 : 1;
            Station now = other.stations().get(s.stations().indexOf(t));
            Study again = Renames.follow(other, other.withStations(l -> replaced(l, now, t)));
            assertThat(plain(again)).as(t.name()).isEqualTo(plain(s));
        }
        for (Source lane : s.sources()) {
            Study other = Renames.follow(s, s.withSources(l -> replaced(l, lane, lane.named("lane of mine"))));
            followed += other.quantities().equals(s.quantities()) ? 0 : 1;
            Source now = other.sources().get(s.sources().indexOf(lane));
            assertThat(plain(Renames.follow(other, other.withSources(l -> replaced(l, now, lane)))))
                    .as(lane.name())
                    .isEqualTo(plain(s));
        }
        for (Reading r : s.readings()) {
            Study other = Renames.follow(s, s.withReadings(l -> replaced(l, r, r.named("number of mine"))));
            followed += other.quantities().equals(s.quantities()) ? 0 : 1;
            Reading now = other.readings().get(s.readings().indexOf(r));
            assertThat(plain(Renames.follow(other, other.withReadings(l -> replaced(l, now, r)))))
                    .as(r.name())
                    .isEqualTo(plain(s));
        }
        assertThat(followed).as("renames that formulas follow").isPositive();
    }
}
