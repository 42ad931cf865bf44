package lane.desk.app;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.function.Supplier;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.image.PixelFormat;
import javafx.scene.text.Font;
import javafx.stage.Stage;
import javafx.util.Duration;
import lane.base.LaneException;
import lane.base.Plain;
import lane.demo.DemoFiles;
import lane.desk.Entry;
import lane.desk.Images;
import lane.desk.Openings;
import lane.desk.Session;
import lane.desk.intake.FileDrop;
import lane.desk.shell.MainWindow;
import lane.formats.io.FaultLog;
import lane.formats.io.UserFolders;
import lane.formats.study.Drafts;
import lane.picture.AppIcon;
import lane.picture.Export;
import lane.picture.Fonts;
import org.jspecify.annotations.Nullable;

/** The application with its one window. */
public final class LaneApp extends Application implements Openings {
    private static @Nullable Path study;
    private static List<Path> files = List.of();
    private static @Nullable FutureTask<Session> opened;
    private @Nullable Session running;
    private @Nullable Stage stage;

    /**
     * Opens the window on a study, or on a new one with the given files.
     *
     * @param studyFile null for a new study
     */
    static void start(@Nullable Path studyFile, List<Path> others) {
        study = studyFile;
        files = others;
        if (studyFile != null) {
            // The study is read while the toolkit starts; its runs wait until the window stands, which they would
            // delay.
            opened = new FutureTask<>(() -> Session.open(studyFile));
            Thread.ofPlatform().daemon().name("open study").start(opened);
        }
        StartUp.tell("launch");
        Application.launch(LaneApp.class);
    }

    @Override
    public void start(Stage stage) {
        for (int size : AppIcon.SIZES) {
            stage.getIcons().add(Images.clear(AppIcon.of(size)));
        }
        StartUp.tell("toolkit ready");
        // Fonts and base style first: the study is being read meanwhile.
        dress();
        this.stage = stage;
        stage.setMinWidth(1100);
        stage.setMinHeight(700);
        StartUp.prepare(stage);
        if (study == null && files.isEmpty()) {
            startPage("");
        } else if (study == null) {
            turnTo(Session::fresh, files);
        } else {
            turnTo(LaneApp::opened, files);
        }
    }

    /** @param told why something could not be opened; blank for none */
    private void startPage(String told) {
        leave();
        Stage window = Objects.requireNonNull(stage);
        show(plain(new StartPage(this, this::takeUp, told, Looks.dark()).root()));
        window.setTitle("Crosscheck Lane");
    }

    @Override
    public void startPage() {
        startPage("");
    }

    @Override
    public void fresh(List<Path> with) {
        turnTo(Session::fresh, with);
    }

    @Override
    public void study(Path file) {
        turnTo(() -> Session.open(file), List.of());
    }

    @Override
    public void folder(Path folder) {
        getHostServices().showDocument(folder.toUri().toString());
    }

    @Override
    public void demo() {
        Path folder = UserFolders.data().resolve("demo-" + DemoFiles.VERSION);
        Thread.ofPlatform().daemon().name("make demo").start(() -> {
            try {
                Path made = DemoFiles.make(folder);
                Platform.runLater(() -> study(made));
            } catch (LaneException e) {
                Platform.runLater(() -> startPage(e.getMessage()));
            }
        });
    }

    private void takeUp(Drafts.Offer offer) {
        turnTo(
                () -> {
                    Session session = Session.open(offer.study());
                    offer.taken();
                    return session;
                },
                List.of());
    }

    /** Ends what is open; what is not saved of it is kept. */
    private void leave() {
        if (running != null) {
            running.close();
            running = null;
        }
    }

    private void show(Scene scene) {
        Stage window = Objects.requireNonNull(stage);
        Scene before = window.getScene();
        if (before != null) {
            // The window keeps its size.
            double width = before.getWidth();
            double height = before.getHeight();
            window.setScene(scene);
            window.setWidth(window.getWidth() + width - scene.getWidth());
            window.setHeight(window.getHeight() + height - scene.getHeight());
        } else {
            window.setScene(scene);
        }
        window.show();
    }

    private void turnTo(Supplier<Session> opening, List<Path> with) {
        // What is open is ended first: the study to be opened may be the same.
        leave();
        Session session;
        try {
            session = opening.get();
        } catch (LaneException e) {
            System.err.println(Plain.line(e.getMessage()));
            startPage(e.getMessage());
            return;
        }
        running = session;
        Looks.give(session);
        session.opensBy(this);
        Thread.setDefaultUncaughtExceptionHandler(
                new LastResort(FaultLog::note, s -> Platform.runLater(() -> tell(session, s))));
        StartUp.tell("study read");
        Stage window = Objects.requireNonNull(stage);
        Scene scene = scene(session, 1280, 800);
        StartUp.tell("scene made");
        window.setTitle(session.study().name() + " – Crosscheck Lane");
        show(scene);
        StartUp.tell("window stands");
        session.library().prepare(session.study());
        Thread.ofPlatform().daemon().name("warm charts").start(() -> lane.picture.Fonts.sans(12));
        StartUp.watch(session);
        if (!with.isEmpty()) {
            FileDrop.add(session, with);
        } else {
            session.evaluate();
        }
        photograph(session, window);
    }

    /** Keeps a picture of the window beside unsaved work, now and then while there is some. */
    private static void photograph(Session session, Stage stage) {
        var every = new Timeline(new KeyFrame(Duration.seconds(30), e -> {
            if (stage.isShowing() && session.unsaved()) {
                var shot = stage.getScene().snapshot(null);
                int w = (int) shot.getWidth();
                int h = (int) shot.getHeight();
                int[] pixels = new int[w * h];
                shot.getPixelReader().getPixels(0, 0, w, h, PixelFormat.getIntArgbInstance(), pixels, 0, w);
                Thread.ofVirtual().start(() -> {
                    var out = new ByteArrayOutputStream();
                    try {
                        Export.png(Export.image(pixels, w, h), out);
                        session.keepPicture(out.toByteArray());
                    } catch (IOException x) {
                        FaultLog.note("Keeping a picture", x);
                    }
                });
            }
        }));
        every.setCycleCount(Animation.INDEFINITE);
        every.play();
        session.whenClosed(every::stop);
    }

    private static void tell(Session session, String sentence) {
        try {
            session.say(sentence);
        } catch (RuntimeException e) {
            FaultLog.note("Telling of a fault", e);
        }
    }

    @Override
    public void stop() {
        leave();
    }

    private static Session opened() {
        try {
            return Objects.requireNonNull(opened).get();
        } catch (ExecutionException e) {
            throw e.getCause() instanceof RuntimeException r ? r : new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** Loads the fonts and the base style, once. */
    private static void dress() {
        if (Application.getUserAgentStylesheet() != null) {
            return;
        }
        for (String font : List.of(
                "LaneSans-Regular.otf", "LaneSans-Medium.otf", "LaneSans-SemiBold.otf", "LaneMono-Regular.ttf")) {
            try (InputStream in = Fonts.class.getResourceAsStream("fonts/" + font)) {
                Font.loadFont(in, 13);
            } catch (java.io.IOException e) {
                throw new IllegalStateException("the font " + font + " is part of this program", e);
            }
        }
        Application.setUserAgentStylesheet(resource("base.css"));
    }

    /** The scene of a session with the program's looks: for the window, the pictures and the tests. */
    public static Scene scene(Session session, double width, double height) {
        dress();
        return dressed(new Scene(new MainWindow(session).root(), width, height));
    }

    /** A scene with the program's looks that is no session's. */
    static Scene plain(javafx.scene.Parent root) {
        dress();
        return dressed(new Scene(root, 1280, 800));
    }

    private static Scene dressed(Scene scene) {
        scene.getStylesheets().add(resource("lane.css"));
        Entry.awake(scene);
        return scene;
    }

    private static String resource(String name) {
        return LaneApp.class.getResource(name).toExternalForm();
    }
}
