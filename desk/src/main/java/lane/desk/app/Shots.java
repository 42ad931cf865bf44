package lane.desk.app;

import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.time.Instant;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.image.WritableImage;
import javafx.stage.Stage;
import lane.base.Work;
import lane.cli.CheckTable;
import lane.demo.DemoFiles;
import lane.desk.Chosen;
import lane.desk.Openings;
import lane.desk.Session;
import lane.formats.io.AtomicFile;
import lane.formats.io.Version;
import lane.formats.ledger.LedgerWriter;
import lane.formats.ledger.Made;
import lane.picture.Export;
import org.jspecify.annotations.Nullable;

/**
 * Without a display: opens the demo in a window that nobody sees, takes one picture of each main view, and, if asked,
 * writes the ledger and prints the table of checks.
 */
final class Shots {
    private Shots() {}

    private record Shot(String name, int stop, @Nullable Chosen what, String id, boolean dark) {}

    private static final Shot[] SHOTS = {
        new Shot("intake", 1, Chosen.SOURCE, "fine", false),
        new Shot("intake-table", 1, Chosen.SOURCE, "rig", false),
        new Shot("stations", 2, Chosen.STATION, "gap-mid", false),
        new Shot("stations-section", 2, Chosen.STATION, "mid", false),
        new Shot("stations-sheet", 2, Chosen.STATION, "cone", false),
        new Shot("quantities", 3, Chosen.QUANTITY, "dynamic-pressure", false),
        new Shot("readings-profile", 4, Chosen.READING, "swirl-gap", false),
        new Shot("readings-sweep", 4, Chosen.READING, "swirl-along", false),
        new Shot("readings-tally", 4, Chosen.READING, "rotor-torque", false),
        new Shot("readings-history", 4, Chosen.READING, "torque-settled", false),
        new Shot("readings-balance", 4, Chosen.READING, "angular-momentum", false),
        new Shot("checks", 5, Chosen.CHECK, "torque-rig", false),
        new Shot("ledger", 6, null, "", false),
        new Shot("stations-dark", 2, Chosen.STATION, "gap-mid", true),
        new Shot("readings-profile-dark", 4, Chosen.READING, "temperature-outlet", true),
        new Shot("checks-dark", 5, Chosen.CHECK, "outlet-temperature", true)
    };

    static void run(Path data, Path out, boolean ledger) {
        Path study = System.getProperty("lane.study") == null
                ? DemoFiles.make(data)
                : Path.of(System.getProperty("lane.study"));
        // What this notes of the study belongs to no user.
        System.setProperty("lane.data", data.resolveSibling("user").toString());
        var done = new CountDownLatch(1);
        var trouble = new Throwable[1];
        Platform.startup(() -> {});
        Thread.ofPlatform().start(() -> {
            try {
                take(study, out, ledger);
            } catch (Throwable t) {
                trouble[0] = t;
            } finally {
                done.countDown();
            }
        });
        try {
            if (!done.await(5, TimeUnit.MINUTES)) {
                throw new lane.base.LaneException("The pictures were not done within five minutes.");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        Platform.exit();
        if (trouble[0] != null) {
            throw new IllegalStateException("the pictures could not be taken", trouble[0]);
        }
        System.exit(0);
    }

    private static void take(Path study, Path out, boolean ledger) throws Exception {
        var session = new Session[1];
        var scene = new Scene[1];
        var ready = new CountDownLatch(1);
        onFx(() -> {
            session[0] = new Session(lane.formats.study.StudyJson.load(study), study);
            var stage = new Stage();
            int width = Integer.getInteger("lane.width", 1280);
            int height = Integer.getInteger("lane.height", 800);
            scene[0] = LaneApp.scene(session[0], width, height);
            stage.setScene(scene[0]);
            stage.show();
            session[0].listen(c -> {
                if (c == Session.Change.RESULTS) {
                    ready.countDown();
                }
            });
            session[0].evaluate();
        });
        if (!ready.await(2, TimeUnit.MINUTES)) {
            throw new lane.base.LaneException("The demo study was not computed within two minutes.");
        }
        for (Shot shot : SHOTS) {
            onFx(() -> {
                if (session[0].palette().dark() != shot.dark()) {
                    session[0].toggleTheme();
                }
                session[0].show("", () -> lane.provenance.Provenance.EMPTY);
                if (shot.what() != null) {
                    session[0].select(shot.what(), shot.id());
                }
                session[0].go(shot.stop());
            });
            if (shot.stop() == 1) {
                looked(session[0]);
            }
            computed(session[0]);
            // Pictures inside the window are drawn behind it: wait until they have arrived.
            Thread.sleep(shot.stop() == 3 ? 4000 : 900);
            keep(scene[0], out, shot.name());
        }
        // The page of recent studies, with the demo as the one that there was.
        onFx(() -> session[0].close());
        for (boolean dark : new boolean[] {false, true}) {
            var page = new Scene[1];
            onFx(() -> {
                page[0] = LaneApp.plain(new StartPage(Openings.NONE, o -> {}, "", dark).root());
                var stage = new Stage();
                stage.setScene(page[0]);
                stage.show();
            });
            Thread.sleep(900);
            keep(page[0], out, dark ? "start-dark" : "start");
        }
        if (ledger) {
            for (Path file : LedgerWriter.write(
                    session[0].results(),
                    LedgerWriter.To.plain(out, session[0].file(), Made.here(Version.text(), Instant.now())),
                    Work.QUIET)) {
                System.out.println(file.toAbsolutePath().normalize());
            }
            System.out.println();
            System.out.print(CheckTable.of(session[0].results()));
        }
    }

    private static void keep(Scene scene, Path out, String name) throws InterruptedException {
        var image = new WritableImage[1];
        onFx(() -> image[0] = scene.snapshot(null));
        int w = (int) image[0].getWidth();
        int h = (int) image[0].getHeight();
        int[] pixels = new int[w * h];
        image[0].getPixelReader()
                .getPixels(0, 0, w, h, javafx.scene.image.PixelFormat.getIntArgbInstance(), pixels, 0, w);
        BufferedImage picture = Export.image(pixels, w, h);
        AtomicFile.write(out.resolve(name + ".png"), o -> Export.png(picture, o));
        System.out.println(out.resolve(name + ".png").toAbsolutePath().normalize());
    }

    /** Waits until nothing is being computed, at most some seconds: what is selected may want a station laid out. */
    private static void computed(Session session) throws InterruptedException {
        var busy = new boolean[] {true};
        for (int i = 0; i < 200 && busy[0]; i++) {
            Thread.sleep(100);
            onFx(() -> busy[0] = session.computing());
        }
    }

    /** Waits until the selected run was looked over, at most some seconds. */
    private static void looked(Session session) throws InterruptedException {
        var known = new boolean[1];
        for (int i = 0; i < 100 && !known[0]; i++) {
            onFx(() -> {
                var run = session.results().runs().get(session.selected(Chosen.SOURCE));
                known[0] = run == null || session.health(run) != null;
            });
            Thread.sleep(100);
        }
    }

    private static void onFx(Runnable action) throws InterruptedException {
        var latch = new CountDownLatch(1);
        var trouble = new RuntimeException[1];
        Platform.runLater(() -> {
            try {
                action.run();
            } catch (RuntimeException e) {
                trouble[0] = e;
            } finally {
                latch.countDown();
            }
        });
        latch.await();
        if (trouble[0] != null) {
            throw trouble[0];
        }
    }
}
