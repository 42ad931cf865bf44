package lane.desk.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import lane.base.LaneException;
import lane.desk.Session;
import lane.formats.io.AtomicFile;
import lane.formats.io.UserFolders;

/** Whether the window is light or dark, kept from one start to the next. What cannot be read or written is light. */
final class Looks {
    private static final String DARK = "dark";

    private Looks() {}

    private static Path file() {
        return UserFolders.data().resolve("theme");
    }

    static boolean dark() {
        try {
            return Files.readString(file()).strip().equals(DARK);
        } catch (IOException e) {
            return false;
        }
    }

    static void keep(boolean dark) {
        try {
            Files.createDirectories(file().getParent());
            AtomicFile.write(file(), dark ? DARK : "light");
        } catch (IOException | LaneException e) {
            // A comfort: the window is light the next time.
        }
    }

    /** Gives a session the looks of the last one, and keeps what it changes. */
    static void give(Session session) {
        if (dark() != session.palette().dark()) {
            session.toggleTheme();
        }
        session.listen(c -> {
            if (c == Session.Change.THEME) {
                keep(session.palette().dark());
            }
        });
    }
}
