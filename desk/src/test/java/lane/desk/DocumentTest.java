package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CyclicBarrier;
import lane.base.LaneException;
import lane.formats.io.Machine;
import lane.formats.study.Autosave;
import lane.formats.study.Drafts;
import lane.formats.study.StudyClaim;
import lane.formats.study.StudyJson;
import lane.mesh.Point;
import lane.station.Line;
import lane.station.Sampling;
import lane.station.Sheet;
import lane.station.Station;
import lane.study.Source;
import lane.study.Study;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What becomes of a user's work: when it has no place yet, when the program is killed, when two have it open. */
class DocumentTest {
    /** What a session holds for its window is made with it. */
    @BeforeAll
    static void platform() throws Exception {
        Windowed.platform();
    }

    @TempDir
    Path folder;

    private final List<String> said = new ArrayList<>();
    private final List<Question> asked = new ArrayList<>();
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

    private Document open(Study study, Path file) {
        return new Document(study, file, said::add);
    }

    private Document open(Path file) {
        return open(StudyJson.load(file), file);
    }

    private static Station line(String id) {
        return new Station(
                id,
                id,
                new Line(new Point(0, 0, 0), new Point(1, 0, 0), new Sampling.Even(11), lane.station.Abscissa.ARC));
    }

    private static void add(Document d, String id) {
        d.edit(
                "Add " + id,
                s -> s.withStations(l -> {
                    List<Station> all = new ArrayList<>(l);
                    all.add(line(id));
                    return all;
                }),
                false);
    }

    private Path saved(String name, Study study) {
        Path file = folder.resolve(name);
        StudyJson.save(study, file);
        return file;
    }

    /** As if the process that wrote it had been killed. */
    private static void killed(Path draft) throws Exception {
        Path about = draft.resolve("about.json");
        Files.writeString(about, Files.readString(about).replaceAll("\"pid\":\\d+", "\"pid\":999999999"));
    }

    private static void old(Path file, int minutes) throws Exception {
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().minus(Duration.ofMinutes(minutes))));
    }

    @Test
    void aNewStudyIsKeptWithItsWayBackUntilItHasAPlace() throws Exception {
        Path draft = Drafts.folder();
        Document d = open(Study.empty("Duct"), draft.resolve(Drafts.STUDY));
        assertThat(d.draft()).isTrue();
        assertThat(d.saved()).isEqualTo("not saved yet");
        add(d, "a");
        add(d, "b");
        d.keepUnsaved();
        d.picture(new byte[] {1});
        assertThat(Drafts.offers()).as("it is open").isEmpty();
        // Killed.
        killed(draft);
        old(Autosave.of(draft.resolve(Drafts.STUDY)), 130);
        assertThat(Drafts.offers()).singleElement().satisfies(o -> {
            assertThat(o.name()).isEqualTo("Duct");
            assertThat(o.age(Instant.now())).isEqualTo("2 hours ago");
            assertThat(o.picture()).isPresent();
            assertThat(o.placed()).isFalse();
        });
        Files.deleteIfExists(draft.resolve(".study.lane.json.lock"));
        Path file = Drafts.offers().getFirst().study();
        Document again = open(Document.rescued(file, new LaneException("not there")), file);
        assertThat(again.recover(asked::add)).isBlank();
        assertThat(again.study().stations()).extracting(Station::id).containsExactly("a", "b");
        assertThat(again.history().undoes()).isEqualTo("Add b");
        again.undo();
        again.undo();
        assertThat(again.study()).isEqualTo(Study.empty("Duct"));
        again.redo();
        Path place = folder.resolve("work/duct.lane.json");
        again.saveAs(place);
        assertThat(again.saved()).startsWith("saved");
        assertThat(StudyJson.load(place).stations()).extracting(Station::id).containsExactly("a");
        assertThat(draft).as("it has a place now").doesNotExist();
        again.close();
        assertThat(Drafts.offers()).isEmpty();
        try (var left = Files.list(folder.resolve("work"))) {
            assertThat(left).containsExactly(place);
        }
        assertThat(said).isEmpty();
        assertThat(asked).isEmpty();
    }

    /** A table that was pasted before the study had a place goes along with it, and takes no other file's name. */
    @Test
    void whatStandsOnlyWithADraftGoesAlongToItsPlace() throws Exception {
        Path draft = Drafts.folder().resolve(Drafts.STUDY);
        Document d = new Document(Study.empty("Kiln"), draft, said::add);
        Files.writeString(draft.resolveSibling("pasted-1.txt"), "x y\n1 2\n");
        Files.createDirectories(folder.resolve("kiln"));
        Files.writeString(folder.resolve("kiln/pasted-1.txt"), "another table\n");
        d.edit(
                "Paste",
                s -> s.withSources(l -> List.of(new Source.Reference(
                        "t", "t", Source.Kind.MEASUREMENT, List.of("pasted-1.txt"), java.util.Map.of(), List.of()))),
                false);
        d.saveAs(folder.resolve("kiln/kiln.lane.json"));
        assertThat(((Source.Reference) d.study().sources().getFirst()).files()).containsExactly("pasted-1-2.txt");
        assertThat(folder.resolve("kiln/pasted-1-2.txt")).hasContent("x y\n1 2\n");
        assertThat(folder.resolve("kiln/pasted-1.txt")).hasContent("another table\n");
        d.close();
        assertThat(said).isEmpty();
    }

    @Test
    void pathsFollowAStudyThatIsSavedElsewhere() throws Exception {
        Files.createDirectories(folder.resolve("a"));
        Study s = Study.empty("s")
                .withSources(l -> List.of(
                        new Source.Simulation("r", "r", "runs/fine_*.vtu", List.of("parts/lid.vtp"), "", "f"),
                        new Source.Reference(
                                "t",
                                "t",
                                Source.Kind.MEASUREMENT,
                                List.of("../rig.csv"),
                                java.util.Map.of(),
                                List.of(new lane.reference.Curve.WindowMean("x", "../rig.csv", "T", "K", "t", 0, 1)))))
                .withStations(l -> List.of(new Station("h", "h", new Sheet("skin.stl", "mm", null, null, false))));
        Path file = folder.resolve("a/s.lane.json");
        StudyJson.save(s, file);
        Document d = open(file);
        d.saveAs(folder.resolve("b/c/s2.lane.json"));
        Study moved = StudyJson.load(folder.resolve("b/c/s2.lane.json"));
        assertThat(((Source.Simulation) moved.sources().get(0)).file()).isEqualTo("../../a/runs/fine_*.vtu");
        assertThat(((Source.Simulation) moved.sources().get(0)).partFiles()).containsExactly("../../a/parts/lid.vtp");
        assertThat(((Source.Reference) moved.sources().get(1)).files()).containsExactly("../../rig.csv");
        assertThat(((lane.reference.Curve.WindowMean)
                                ((Source.Reference) moved.sources().get(1))
                                        .answers()
                                        .getFirst())
                        .file())
                .isEqualTo("../../rig.csv");
        assertThat(((Sheet) moved.stations().getFirst().shape()).file()).isEqualTo("../../a/skin.stl");
        assertThat(StudyJson.load(file)).as("the one before stays as it was").isEqualTo(s);
        d.close();
    }

    @Test
    void anAutosaveIsTakenUpWhenItIsYoungerAndAskedAboutWhenItIsOlder() throws Exception {
        Path file = saved("s.lane.json", Study.empty("s"));
        StudyJson.save(Study.empty("s").withStations(l -> List.of(line("new"))), Autosave.of(file));
        old(file, 10);
        Document d = open(file);
        assertThat(d.recover(asked::add)).contains("taken up again").contains("undo");
        assertThat(d.study().stations()).hasSize(1);
        d.undo();
        assertThat(d.study()).isEqualTo(Study.empty("s"));
        d.save();
        d.close();

        StudyJson.save(Study.empty("s").withStations(l -> List.of(line("old"))), Autosave.of(file));
        old(Autosave.of(file), 100);
        Document later = open(file);
        assertThat(later.recover(asked::add)).isBlank();
        assertThat(later.study()).as("not in silence").isEqualTo(Study.empty("s"));
        assertThat(asked)
                .singleElement()
                .satisfies(q -> assertThat(q.text()).contains("older").contains("station \"old\" added"));
        add(later, "x");
        later.keepUnsaved();
        asked.getFirst().answers().get(1).act().run();
        assertThat(later.study().stations()).extracting(Station::id).containsExactly("old");
        later.close();
    }

    @Test
    void aDamagedStudyIsOpenedFromItsAutosaveAndNeverDeleted() throws Exception {
        Path file = folder.resolve("s.lane.json");
        Files.writeString(file, "{\"version\": 2, \"name\": \"s\", \"stat");
        assertThatThrownBy(() -> Session.open(file))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("no sound JSON");
        StudyJson.save(Study.empty("s").withStations(l -> List.of(line("kept"))), Autosave.of(file));
        var why = new LaneException("cut off");
        Document d = open(Document.rescued(file, why), file);
        assertThat(d.standsFor(why)).contains("damaged").contains("cut off");
        assertThat(d.saved()).isEqualTo("not saved");
        d.close();
        assertThat(file).content().endsWith("\"stat");
        assertThat(Autosave.of(file)).exists();
        Document again = open(Document.rescued(file, why), file);
        again.standsFor(why);
        again.save();
        assertThat(StudyJson.load(file).stations()).hasSize(1);
        assertThat(folder.resolve("s.lane.json.damaged")).content().endsWith("\"stat");
        again.close();
        // The other way round: the autosave is damaged.
        Files.writeString(Autosave.of(file), "half");
        Document third = open(file);
        assertThat(third.recover(asked::add)).contains("s.lane.json.autosave.damaged");
        add(third, "more");
        third.keepUnsaved();
        assertThat(folder.resolve("s.lane.json.autosave.damaged")).hasContent("half");
        third.close();
    }

    @Test
    void theSecondWhoOpensReadsOrTakesOverAndTheFirstIsTold() throws Exception {
        Path file = saved("s.lane.json", Study.empty("s"));
        Document first = open(file);
        Document second = open(file);
        assertThat(first.holder()).isEmpty();
        assertThat(second.holder()).hasValueSatisfying(h -> {
            assertThat(h.user()).isEqualTo(System.getProperty("user.name"));
            assertThat(h.words()).contains("on " + Machine.name() + " since ");
        });
        assertThat(second.saved()).isEqualTo("open to read");
        add(second, "b");
        second.keepUnsaved();
        assertThat(Autosave.of(file))
                .as("whoever reads writes nothing beside it")
                .doesNotExist();
        assertThatThrownBy(() -> {
                    Document third = open(saved("t.lane.json", Study.empty("t")));
                    third.saveAs(file);
                })
                .hasMessageContaining("save under another name");
        assertThat(first.lost()).isFalse();
        second.takeOver();
        assertThat(first.lost()).isTrue();
        second.save();
        assertThat(first.changedByOthers()).hasValue("station \"b\" added");
        first.close();
        assertThat(StudyClaim.holder(file)).as("the second still has it").isPresent();
        second.close();
        assertThat(StudyClaim.holder(file)).isEmpty();
        // A claim of a process that ended counts for nothing, one of another machine does.
        Path lock = folder.resolve(".s.lane.json.lock");
        String text = "{\"user\":\"lena\",\"host\":\"%s\",\"pid\":999999999,\"since\":\"2020-01-02T03:04:05Z\"}";
        Files.writeString(lock, String.format(text, Machine.name()));
        Document fourth = open(file);
        assertThat(fourth.holder()).isEmpty();
        fourth.close();
        Files.writeString(lock, String.format(text, "bench_3"));
        Document fifth = open(file);
        assertThat(fifth.holder())
                .hasValueSatisfying(h -> assertThat(h.words()).startsWith("lena on bench_3 since 2 Jan"));
        fifth.close();
        assertThat(lock).exists();
    }

    @Test
    void whatIsMadeOfAStudyThatIsOpenToReadIsOfferedAfterACrashAndItsOwnerSeesNothingOfIt() throws Exception {
        Path file = saved(
                "shared.lane.json",
                Study.empty("shared")
                        .withSources(l ->
                                List.of(new Source.Simulation("kiln", "kiln", "runs/kiln.vtu", List.of(), "", "f"))));
        Document owner = open(file);
        Document reader = open(file);
        assertThat(reader.saved()).isEqualTo("open to read");
        add(reader, "mine");
        reader.keepUnsaved();
        assertThat(Autosave.of(file)).doesNotExist();
        assertThat(StudyJson.load(file).stations()).isEmpty();
        try (var kept = Files.walk(folder.resolve("data"))) {
            killed(kept.filter(f -> f.endsWith(Drafts.STUDY))
                    .findFirst()
                    .orElseThrow()
                    .getParent());
        }
        Drafts.Offer offer = Drafts.offers().getFirst();
        assertThat(offer.placed()).isFalse();
        Study found = StudyJson.load(offer.study());
        assertThat(found.stations()).extracting(Station::id).containsExactly("mine");
        // The run is found from where the copy stands.
        var run = (Source.Simulation) found.sources().getFirst();
        assertThat(offer.study().resolveSibling(run.file()).normalize()).isEqualTo(folder.resolve("runs/kiln.vtu"));
        owner.close();
    }

    @Test
    void whatWasMadeWhileReadingIsTheStudysOnceItIsTakenOver() throws Exception {
        Path file = saved("shared.lane.json", Study.empty("shared"));
        Document owner = open(file);
        Document reader = open(file);
        add(reader, "mine");
        reader.keepUnsaved();
        reader.takeOver();
        reader.keepUnsaved();
        assertThat(StudyJson.load(Autosave.of(file)).stations()).hasSize(1);
        reader.save();
        reader.close();
        owner.close();
        try (var left = Files.walk(folder.resolve("data"))) {
            assertThat(left.filter(f -> f.endsWith(Drafts.STUDY))).isEmpty();
        }
    }

    @Test
    void whatSomebodyElseWroteIsToldBeforeItIsSavedOver() throws Exception {
        Path file = saved("s.lane.json", Study.empty("s"));
        Document d = open(file);
        assertThat(d.changedByOthers()).isEmpty();
        Files.setLastModifiedTime(file, FileTime.from(Instant.now()));
        assertThat(d.changedByOthers()).as("touched only").isEmpty();
        StudyJson.save(Study.empty("theirs").withStations(l -> List.of(line("a"), line("b"), line("c"))), file);
        assertThat(d.changedByOthers())
                .hasValue("name \"theirs\", station \"a\" added, station \"b\" added and 1 more");
        Files.writeString(file, "half");
        assertThat(d.changedByOthers()).hasValue("it cannot be read any more");
        d.save();
        assertThat(d.changedByOthers()).isEmpty();
        d.close();
    }

    @Test
    void noRaceOfSavingAndKeepingLeavesAnAutosaveBesideASavedStudy() throws Exception {
        Path file = saved("s.lane.json", Study.empty("s"));
        Document d = open(file);
        var start = new CyclicBarrier(2);
        Thread keeper = Thread.ofPlatform().start(() -> {
            try {
                for (int i = 0; i < 400; i++) {
                    start.await();
                    d.keepUnsaved();
                }
            } catch (Exception e) {
                said.add(e.toString());
            }
        });
        for (int i = 0; i < 400; i++) {
            add(d, "s" + i % 7 + "-" + i);
            start.await();
            d.save();
            if (i % 40 == 39) {
                d.edit("Clear", s -> s.withStations(l -> List.of()), false);
                d.save();
            }
            assertThat(StudyJson.load(file)).as("race %d", i).isEqualTo(d.study());
        }
        keeper.join();
        assertThat(Autosave.of(file)).doesNotExist();
        assertThat(said).isEmpty();
        d.close();
    }

    @Test
    void aStudyThatCannotBeSavedElsewhereStaysWhereItWas() throws Exception {
        Path file = saved("s.lane.json", Study.empty("s"));
        Document d = open(file);
        add(d, "a");
        d.keepUnsaved();
        Path taken = Files.createDirectories(folder.resolve("taken.lane.json"));
        Files.writeString(taken.resolve("x"), "");
        assertThatThrownBy(() -> d.saveAs(taken)).isInstanceOf(LaneException.class);
        assertThat(d.file()).isEqualTo(file);
        assertThat(d.saved()).isEqualTo("not saved");
        assertThat(Autosave.of(file)).exists();
        assertThat(StudyClaim.holder(taken)).isEmpty();
        // Theirs, once taken, are no news when it is saved later.
        StudyJson.save(Study.empty("theirs"), file);
        d.edit("Take theirs", s -> d.theirs(), false);
        add(d, "b");
        assertThat(d.changedByOthers()).isEmpty();
        d.save();
        d.close();
    }

    @Test
    void whatACrashLeftIsOpenedAsASession() throws Exception {
        Path draft = Drafts.folder();
        Path file = draft.resolve(Drafts.STUDY);
        StudyJson.save(Study.empty("Duct").withStations(l -> List.of(line("a"))), Autosave.of(file));
        Session session = Session.open(file);
        assertThat(session.study().stations()).hasSize(1);
        assertThat(session.unsaved()).isTrue();
        assertThat(session.question()).isNull();
        session.close();
        assertThat(Autosave.of(file)).as("still not saved").exists();
        Session fresh = Session.fresh();
        Path empty = fresh.file().getParent();
        assertThat(empty).exists();
        fresh.close();
        assertThat(empty).as("nothing was done in it").doesNotExist();
    }
}
