package lane.formats.io;

import java.nio.file.Path;
import java.util.Locale;
import java.util.function.UnaryOperator;

/** The user's own folders, as each platform has them. A build or an update of the program never touches them. */
public final class UserFolders {
    private static final String NAME = "crosscheck-lane";

    private UserFolders() {}

    /** For what a program keeps between runs and may lose: logs, what was read half-way. {@code -Dlane.state} names another. */
    public static Path state() {
        String named = System.getProperty("lane.state", "");
        return !named.isBlank()
                ? Path.of(named).toAbsolutePath()
                : state(System.getProperty("os.name"), System::getenv, home());
    }

    /** For what is the user's work. {@code -Dlane.data} names another. */
    public static Path data() {
        String named = System.getProperty("lane.data", "");
        return named.isBlank()
                ? data(System.getProperty("os.name"), System::getenv, home())
                : Path.of(named).toAbsolutePath();
    }

    private static Path home() {
        return Path.of(System.getProperty("user.home"));
    }

    static Path state(String system, UnaryOperator<String> environment, Path home) {
        return of(
                system,
                environment,
                home,
                "XDG_STATE_HOME",
                "LOCALAPPDATA",
                ".local/state",
                "Library/Logs",
                "AppData/Local");
    }

    static Path data(String system, UnaryOperator<String> environment, Path home) {
        return of(
                system,
                environment,
                home,
                "XDG_DATA_HOME",
                "APPDATA",
                ".local/share",
                "Library/Application Support",
                "AppData/Roaming");
    }

    private static Path of(
            String system,
            UnaryOperator<String> environment,
            Path home,
            String variable,
            String windowsVariable,
            String linux,
            String mac,
            String windows) {
        String os = system.toLowerCase(Locale.ROOT);
        // "Darwin" ends in "win".
        boolean isMac = os.contains("mac") || os.contains("darwin");
        boolean isWindows = !isMac && os.contains("win");
        String named = environment.apply(isWindows ? windowsVariable : variable);
        if (named != null && !named.isBlank() && Path.of(named).isAbsolute()) {
            return Path.of(named).resolve(NAME);
        }
        return home.resolve(isMac ? mac : isWindows ? windows : linux).resolve(NAME);
    }
}
