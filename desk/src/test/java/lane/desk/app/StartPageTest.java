package lane.desk.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import lane.check.Verdict;
import lane.desk.Looking;
import lane.desk.NoScreen;
import lane.desk.Openings;
import lane.desk.Session;
import lane.formats.study.Autosave;
import lane.formats.study.Drafts;
import lane.formats.study.Recents;
import lane.formats.study.StudyJson;
import lane.picture.Export;
import lane.study.Study;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** The page without a study: what earlier sessions left, recent studies, and where to begin. */
class StartPageTest {
    @TempDir
    Path folder;

    private final Looking robot = new Looking();
    private final List<String> opened = new ArrayList<>();
    private String before;
    private Stage stage;
    private StartPage page;

    @BeforeEach
    void ownData() throws Exception {
        before = System.getProperty("lane.data", "");
        System.setProperty("lane.data", folder.resolve("data").toString());
        NoScreen.use();
        FxToolkit.registerPrimaryStage();
    }

    @AfterEach
    void data() throws Exception {
        System.setProperty("lane.data", before);
        FxToolkit.setupStage(s -> {
            s.hide();
            s.setScene(new Scene(new javafx.scene.layout.Pane()));
        });
    }

    private static void killed(Path draft) throws Exception {
        Path about = draft.resolve("about.json");
        Files.writeString(about, Files.readString(about).replaceAll("\"pid\":\\d+", "\"pid\":999999999"));
    }

    /** A study that was never saved, as a session that was killed leaves it. */
    private Path draft(String name) throws Exception {
        Path draft = Drafts.folder();
        StudyJson.save(Study.empty(name), Autosave.of(draft.resolve(Drafts.STUDY)));
        Drafts.note(draft, draft.resolve(Drafts.STUDY), name);
        var image = new java.awt.image.BufferedImage(1280, 800, java.awt.image.BufferedImage.TYPE_INT_RGB);
        image.createGraphics().fillRect(100, 100, 700, 500);
        var png = new java.io.ByteArrayOutputStream();
        javax.imageio.ImageIO.write(image, "png", png);
        Drafts.picture(draft, png.toByteArray());
        killed(draft);
        return draft;
    }

    private void show(String told) throws Exception {
        Openings ways = new Openings() {
            @Override
            public void startPage() {}

            @Override
            public void fresh(List<Path> files) {
                opened.add("new " + files.stream().map(Path::getFileName).toList());
            }

            @Override
            public void study(Path file) {
                opened.add("study " + file.getFileName());
            }

            @Override
            public void demo() {
                opened.add("demo");
            }
        };
        FxToolkit.setupStage(s -> {
            stage = s;
            page = new StartPage(ways, o -> opened.add(o.name()), told, false);
            var scene = LaneApp.plain(page.root());
            s.setScene(scene);
            s.show();
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private Path study() {
        Path file = folder.resolve("greenhouse.lane.json");
        StudyJson.save(Study.empty("Greenhouse bay 3"), file);
        return file;
    }

    private void fire(String id) throws Exception {
        WaitForAsyncUtils.asyncFx(
                        () -> robot.lookup("#" + id).queryAs(Button.class).fire())
                .get(10, TimeUnit.SECONDS);
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    void everyUnsavedStudyIsOfferedWithItsAgeAndAPicture() throws Exception {
        Path first = draft("Cooling tower fill, \u001b[31mwinter");
        Path placed = Drafts.folder();
        Path file = study();
        StudyJson.save(Study.empty("Greenhouse bay 3, vents open"), Autosave.of(file));
        Drafts.note(placed, file, "Greenhouse bay 3");
        killed(placed);
        show("");
        look("start-unsaved");
        assertThat(robot.lookup("#open-0").tryQuery()).isPresent();
        assertThat(robot.lookup("#open-1").tryQuery()).isPresent();
        int drafted = Drafts.offers().getFirst().placed() ? 1 : 0;
        fire("open-" + drafted);
        assertThat(opened).singleElement().asString().startsWith("Cooling tower fill");
        // Throwing away is asked once more, and leaves the study as it was saved.
        fire("discard-" + (1 - drafted));
        assertThat(Autosave.of(file)).exists();
        fire("discard-" + (1 - drafted));
        assertThat(Autosave.of(file)).doesNotExist();
        assertThat(StudyJson.load(file).name()).isEqualTo("Greenhouse bay 3");
        assertThat(first).exists();
        fire("discard-0");
        fire("discard-0");
        assertThat(first).doesNotExist();
        assertThat(Drafts.offers()).isEmpty();
        assertThat(robot.lookup("#open-0").tryQuery()).isEmpty();
    }

    private void recent(Path file, String name, Map<Verdict, Integer> verdicts, int hoursAgo) {
        Recents.note(
                new Recents.Entry(file, name, Instant.now().minusSeconds(3600L * hoursAgo), verdicts, 4, Map.of()));
    }

    @Test
    void recentStudiesAreCardsWithTheirVerdictsYoungestFirst() throws Exception {
        Path bay = study();
        Path fill = folder.resolve("deep/er/cooling tower fill.lane.json");
        Files.createDirectories(fill.getParent());
        StudyJson.save(Study.empty("Cooling tower fill"), fill);
        recent(bay, "Greenhouse bay 3", Map.of(), 30);
        recent(fill, "Cooling tower fill", Map.of(Verdict.WITHIN, 9, Verdict.OUT, 2), 2);
        recent(folder.resolve("gone.lane.json"), "Taken away meanwhile", Map.of(), 1);
        show("The study harbour.lane.json is no study.");
        look("start-recent");
        assertThat(texts()).contains("Cooling tower fill", "9 within", "2 out", "no checks", "opened 2 hours ago");
        assertThat(texts()).contains("The study harbour.lane.json is no study.").doesNotContain("Taken away meanwhile");
        robot.interact(() -> robot.lookup("#recent-0").query().requestFocus());
        robot.type(KeyCode.ENTER);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(opened).containsExactly("study cooling tower fill.lane.json");
    }

    @Test
    void withoutAnyStudyThePageSaysWhereToBegin() throws Exception {
        show("");
        look("start-first");
        assertThat(texts()).anyMatch(t -> t.startsWith("Studies that you saved are listed here"));
        fire("start-new");
        fire("start-demo");
        Path run = Files.writeString(folder.resolve("weir.vtu"), "");
        robot.interact(() -> page.dropped(List.of(run)));
        robot.interact(() -> page.dropped(List.of(run, folder.resolve("spillway.lane.json"))));
        robot.press(KeyCode.CONTROL, KeyCode.N).release(KeyCode.N, KeyCode.CONTROL);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(opened).containsExactly("new []", "demo", "new [weir.vtu]", "study spillway.lane.json", "new []");
    }

    private List<String> texts() {
        return robot.lookup(n -> n instanceof Label).queryAllAs(Label.class).stream()
                .map(Label::getText)
                .toList();
    }

    private void look(String name) throws Exception {
        String into = System.getenv("LANE_LOOK");
        if (into != null) {
            picture(Path.of(into, name + ".png"));
        }
    }

    private void picture(Path to) throws Exception {
        WritableImage image =
                WaitForAsyncUtils.asyncFx(() -> stage.getScene().snapshot(null)).get(10, TimeUnit.SECONDS);
        int w = (int) image.getWidth();
        int h = (int) image.getHeight();
        int[] pixels = new int[w * h];
        image.getPixelReader().getPixels(0, 0, w, h, PixelFormat.getIntArgbInstance(), pixels, 0, w);
        try (var out = Files.newOutputStream(to)) {
            Export.png(Export.image(pixels, w, h), out);
        }
    }

    /** The window is as dark as it was left, in the next session and on the page before it. */
    @Test
    void theLooksAreKept() throws Exception {
        assertThat(Looks.dark()).isFalse();
        Session first = WaitForAsyncUtils.asyncFx(() -> new Session(Study.empty("s"), study()))
                .get();
        WaitForAsyncUtils.asyncFx(() -> {
                    Looks.give(first);
                    first.toggleTheme();
                    first.close();
                    return null;
                })
                .get();
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(Looks.dark()).isTrue();
        Session next = WaitForAsyncUtils.asyncFx(() -> new Session(Study.empty("s"), study()))
                .get();
        WaitForAsyncUtils.asyncFx(() -> {
                    Looks.give(next);
                    next.close();
                    return null;
                })
                .get();
        assertThat(next.palette().dark()).isTrue();
        Files.writeString(folder.resolve("data/theme"), "no such looks");
        assertThat(Looks.dark()).isFalse();
    }
}
