package lane.desk.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.stage.Stage;
import lane.desk.NoScreen;
import lane.formats.study.Autosave;
import lane.formats.study.Drafts;
import lane.formats.study.StudyJson;
import lane.picture.Export;
import lane.study.Study;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** What the next start shows of work that earlier sessions left. */
class UnsavedTest {
    @TempDir
    Path folder;

    private final FxRobot robot = new FxRobot();
    private final List<String> opened = new ArrayList<>();
    private String before;
    private Stage stage;

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

    private void show() throws Exception {
        List<Drafts.Offer> offers = Drafts.offers();
        FxToolkit.setupStage(s -> {
            stage = s;
            var scene = LaneApp.plain(new Unsaved(offers, o -> opened.add(o.name()), () -> opened.add("new")).root());
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
        show();
        String look = System.getenv("LANE_LOOK");
        if (look != null) {
            picture(Path.of(look, "unsaved.png"));
        }
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
        assertThat(opened).endsWith("new");
        assertThat(Drafts.offers()).isEmpty();
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
}
