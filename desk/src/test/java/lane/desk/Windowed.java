package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import javafx.stage.Window;
import lane.desk.app.LaneApp;
import lane.picture.Export;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** A window on the headless platform, driven by mouse and keyboard. */
public abstract class Windowed {
    /** Seconds after which what is waited for is taken to hang; a busy machine may need many of them. */
    private static final long GUARD = Long.getLong("lane.guard", 180);

    protected final FxRobot robot = new Looking();
    protected Session session;
    protected Stage stage;

    @BeforeAll
    static void platform() throws Exception {
        NoScreen.use();
        FxToolkit.registerPrimaryStage();
    }

    /** Shows a session. */
    protected void show(Callable<Session> opened) throws Exception {
        FxToolkit.setupStage(s -> {
            stage = s;
            try {
                session = opened.call();
            } catch (Exception e) {
                throw new AssertionError(e);
            }
            Scene scene = LaneApp.scene(session, 1280, 800);
            s.setScene(scene);
            // A test before may have left the window at another size.
            s.sizeToScene();
            s.show();
            session.evaluate();
        });
        painted();
    }

    /** Waits until the window was laid out twice: before that a key that is pressed reaches nobody. */
    private void painted() throws Exception {
        var twice = new CountDownLatch(2);
        Scene scene = stage.getScene();
        Runnable laid = () -> {
            twice.countDown();
            Platform.requestNextPulse();
        };
        onFx(() -> {
            scene.addPostLayoutPulseListener(laid);
            Platform.requestNextPulse();
            return null;
        });
        assertThat(twice.await(GUARD, TimeUnit.SECONDS))
                .as("the window is laid out")
                .isTrue();
        onFx(() -> {
            scene.removePostLayoutPulseListener(laid);
            return null;
        });
    }

    @AfterEach
    void close() throws Exception {
        FxToolkit.setupStage(s -> {
            s.hide();
            s.setScene(new Scene(new javafx.scene.layout.Pane()));
            session.close();
        });
    }

    protected void await(Callable<Boolean> condition) throws Exception {
        WaitForAsyncUtils.waitFor(GUARD, TimeUnit.SECONDS, () -> onFx(condition));
        events();
    }

    /** What a call on the toolkit's thread looks for is not in the window yet; that thread cannot wait for it. */
    private static final class NotYet extends RuntimeException {
        NotYet(String id) {
            super("there is no #" + id + " in the window");
        }
    }

    /** Calls on the toolkit's thread; again, if what it looks for with {@link #node} is not there yet. */
    protected static <T> T onFx(Callable<T> call) throws Exception {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(GUARD);
        while (true) {
            try {
                return WaitForAsyncUtils.asyncFx(call).get(GUARD, TimeUnit.SECONDS);
            } catch (ExecutionException e) {
                if (!(e.getCause() instanceof NotYet) || Platform.isFxApplicationThread() || System.nanoTime() > end) {
                    throw e;
                }
                Thread.sleep(20);
            }
        }
    }

    /** As onFx, and at once where this is the thread already; what is thrown is thrown as it is. */
    static <T> T onFxNow(Callable<T> call) {
        try {
            return Platform.isFxApplicationThread() ? call.call() : onFx(call);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException thrown) {
                throw thrown;
            }
            throw new AssertionError(e.getCause());
        } catch (RuntimeException e) {
            throw e;
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    protected void press(KeyCode... keys) {
        robot.press(keys);
        robot.release(keys);
        events();
    }

    /** A node by its id; the window has time to show it. */
    protected <T extends Node> T node(String id) {
        return with(id, (T found) -> found);
    }

    /**
     * Does something with a node as soon as the window shows it. Found and used in one go: what is found out behind the
     * window may build a sheet anew at any time.
     */
    private <T extends Node, R> R with(String id, Function<T, R> use) {
        if (Platform.isFxApplicationThread()) {
            return use.apply(robot.lookup("#" + id).<T>tryQuery().orElseThrow(() -> new NotYet(id)));
        }
        var made = new AtomicReference<@Nullable R>();
        try {
            WaitForAsyncUtils.waitFor(
                    GUARD,
                    TimeUnit.SECONDS,
                    () -> onFx(() -> {
                        Optional<T> found = robot.lookup("#" + id).tryQuery();
                        found.ifPresent(f -> made.set(use.apply(f)));
                        return found.isPresent();
                    }));
        } catch (TimeoutException e) {
            throw new AssertionError("there is no #" + id + " in the window", e);
        }
        return Objects.requireNonNull(made.get());
    }

    protected boolean shown(String text) {
        return robot.lookup(n -> n instanceof Label l && l.getText().contains(text) && n.isVisible())
                .tryQuery()
                .isPresent();
    }

    /** Sees to it that the window comes to show a text: it follows the study a frame later. */
    protected void see(String text) throws Exception {
        try {
            await(() -> shown(text));
        } catch (TimeoutException e) {
            throw new AssertionError("the window does not show \"" + text + "\"", e);
        }
    }

    /** Types into a field in place of what stands there, key by key. */
    protected void type(String id, String text) {
        with(id, (TextInputControl field) -> {
            field.requestFocus();
            field.selectAll();
            return field;
        });
        robot.write(text).type(KeyCode.ENTER);
        events();
    }

    /** Puts a text into a field at once in place of what stands there, and ends it by the key. */
    protected void enter(String id, String text) {
        with(id, (TextInputControl field) -> {
            field.requestFocus();
            field.selectAll();
            field.replaceSelection(text);
            return field;
        });
        press(KeyCode.ENTER);
    }

    /** Lets the window do what is asked of it by now. Whoever waits for more than that awaits it. */
    protected static void events() {
        WaitForAsyncUtils.waitForFxEvents(2);
    }

    /** Chooses by the word shown, as the open list would. */
    protected <T> void choose(String id, String word) throws Exception {
        // The words are there once the box was laid out, and it may be built anew meanwhile.
        WaitForAsyncUtils.waitFor(GUARD, TimeUnit.SECONDS, () -> {
            ComboBox<T> box = node(id);
            return onFx(() -> {
                T found = box.getItems().stream()
                        .filter(i -> word.equals(worded(box, i)))
                        .findFirst()
                        .orElse(null);
                if (found != null) {
                    box.setValue(found);
                }
                return found != null;
            });
        });
        settled();
    }

    private static <T> String worded(ComboBox<T> box, T item) {
        T before = box.getValue();
        var handler = box.getOnAction();
        box.setOnAction(null);
        box.setValue(item);
        String text = box.getButtonCell() == null
                ? String.valueOf(item)
                : box.getButtonCell().getText();
        box.setValue(before);
        box.setOnAction(handler);
        return text;
    }

    protected void settled() throws Exception {
        await(() -> session.results().study() == session.study()
                && !session.computing()
                && !session.tables().busy());
        events();
    }

    /** Writes what the window shows, when LANE_LOOK names a folder: for looking at it. */
    protected void look(String name) throws Exception {
        picture(name, () -> stage.getScene());
    }

    /** The same of the last window that opened over the main one. */
    protected void popup(String name) throws Exception {
        picture(name, () -> Window.getWindows().getLast().getScene());
    }

    private static void picture(String name, Callable<Scene> of) throws Exception {
        String folder = System.getenv("LANE_LOOK");
        if (folder == null) {
            return;
        }
        Thread.sleep(600);
        WritableImage image = onFx(() -> of.call().snapshot(null));
        int w = (int) image.getWidth();
        int h = (int) image.getHeight();
        int[] pixels = new int[w * h];
        image.getPixelReader().getPixels(0, 0, w, h, PixelFormat.getIntArgbInstance(), pixels, 0, w);
        try (var out = Files.newOutputStream(Path.of(folder, name + ".png"))) {
            Export.png(Export.image(pixels, w, h), out);
        }
    }
}
