package lane.desk;

import atlantafx.base.theme.PrimerLight;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import javafx.application.Application;
import javafx.scene.Scene;
import javafx.scene.text.Font;
import javafx.stage.Stage;
import lane.desk.intake.FileDrop;
import lane.desk.shell.Shell;
import lane.picture.Fonts;
import lane.study.Study;

/** The application with its one window. */
public final class LaneApp extends Application {
    private static Path study;
    private static List<Path> files = List.of();
    private static FutureTask<Session> opened;

    /** Opens the window on a study, or on a new one with the given files. @param studyFile null for a new study */
    static void start(Path studyFile, List<Path> others) {
        study = studyFile;
        files = others;
        if (studyFile != null) {
            // The study and its runs load while the toolkit starts.
            opened = new FutureTask<>(() -> {
                Session session = Session.open(studyFile);
                session.library().prepare(session.study());
                return session;
            });
            Thread.ofPlatform().daemon().name("open study").start(opened);
        }
        Thread.ofPlatform().daemon().name("warm charts").start(() -> lane.picture.Fonts.sans(12));
        Application.launch(LaneApp.class);
    }

    @Override
    public void start(Stage stage) {
        long begun = System.nanoTime();
        Session session =
                study == null ? new Session(Study.empty("New study"), Path.of("new.lane.json")) : Session.open(study);
        stage.setScene(scene(session, 1280, 800));
        if (Boolean.getBoolean("lane.timing")) {
            System.out.printf("scene after %d ms%n", (System.nanoTime() - begun) / 1_000_000);
        }
        stage.setTitle(session.study().name() + " – Crosscheck Lane");
        stage.setMinWidth(1100);
        stage.setMinHeight(700);
        stage.show();
        if (!files.isEmpty()) {
            FileDrop.add(session, files);
        } else {
            session.evaluate();
        }
        if (Boolean.getBoolean("lane.timing")) {
            timing(session, begun);
        }
    }

    private static Session session() {
        try {
            return opened.get();
        } catch (ExecutionException e) {
            throw e.getCause() instanceof RuntimeException r ? r : new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** Prints when the window stood and when the numbers were there, counted from when the launcher began. */
    private static void timing(Session session, long begun) {
        // The launcher says when it began: the operating system tells a process its start only to the second.
        long start = Long.getLong("lane.begun", System.currentTimeMillis());
        System.out.printf(
                "window after %d ms (%d ms in the toolkit)%n",
                System.currentTimeMillis() - start, (System.nanoTime() - begun) / 1_000_000);
        session.listen(c -> {
            if (c == Session.Change.RESULTS) {
                System.out.printf("numbers after %d ms%n", System.currentTimeMillis() - start);
                if (Boolean.getBoolean("lane.exit")) {
                    session.go(2);
                    new Thread(() -> {
                                try {
                                    Thread.sleep(700);
                                } catch (InterruptedException e) {
                                    Thread.currentThread().interrupt();
                                }
                                javafx.application.Platform.exit();
                            })
                            .start();
                }
            }
        });
    }

    /** The scene of a session with the program's looks: for the window, the pictures and the tests. */
    public static Scene scene(Session session, double width, double height) {
        for (String font : List.of(
                "LaneSans-Regular.otf", "LaneSans-Medium.otf", "LaneSans-SemiBold.otf", "LaneMono-Regular.ttf")) {
            try (InputStream in = Fonts.class.getResourceAsStream("fonts/" + font)) {
                Font.loadFont(in, 13);
            } catch (java.io.IOException e) {
                throw new IllegalStateException("the font " + font + " is part of this program", e);
            }
        }
        Application.setUserAgentStylesheet(new PrimerLight().getUserAgentStylesheet());
        var scene = new Scene(new Shell(session).root(), width, height);
        scene.getStylesheets().add(LaneApp.class.getResource("lane.css").toExternalForm());
        return scene;
    }
}
