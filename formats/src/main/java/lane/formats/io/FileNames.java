package lane.formats.io;

import java.nio.file.Path;
import java.util.Locale;

/** Names of files. */
public final class FileNames {
    private FileNames() {}

    /** A file's name without folder and extension. */
    public static String stem(String path) {
        String name = path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
        int dot = name.lastIndexOf('.');
        String stem = dot > 0 ? name.substring(0, dot) : name;
        // An index is named like what it lists, with its ending.
        return name.endsWith(".series") && stem.indexOf('.') > 0 ? stem(stem) : stem;
    }

    /** What stands behind the last dot of a file's name, in small letters. */
    public static String ending(Path file) {
        String name =
                file.getFileName() == null ? "" : file.getFileName().toString().toLowerCase(Locale.ROOT);
        return name.substring(name.lastIndexOf('.') + 1);
    }

    /** Whether a name is that of a file in its folder and nothing else: no folders, not hidden, nothing that acts. */
    public static boolean plain(String name) {
        return lane.base.Plain.fileName(name).equals(name);
    }

    /** Whether a file is a study by its name. */
    public static boolean study(Path file) {
        return ending(file).equals("json");
    }

    private static final int BRIEF = 64;

    /** A file's place for the eye: from the home folder where it is in there, its middle left out where it is long. */
    public static String brief(Path file) {
        Path whole = file.toAbsolutePath().normalize();
        Path home = Path.of(System.getProperty("user.home")).toAbsolutePath().normalize();
        boolean own = home.getNameCount() > 0 && whole.startsWith(home);
        return middle((own ? "~/" + home.relativize(whole) : whole.toString()).replace('\\', '/'));
    }

    /** As a study in a folder names it, unless that leads further up than it is worth; then from the home folder. */
    public static String brief(Path folder, Path file) {
        String from = relative(folder, file);
        return from.startsWith("../../../") ? brief(file) : middle(from);
    }

    /** The beginning and the end of a path, with the name of the file whole where it fits. */
    private static String middle(String path) {
        if (path.length() <= BRIEF) {
            return path;
        }
        int name = path.length() - path.lastIndexOf('/');
        int end = Math.clamp(name, BRIEF / 2, BRIEF - 12);
        return path.substring(0, BRIEF - 1 - end) + "…" + path.substring(path.length() - end);
    }

    /** How a study in a folder names a file: from there where both stand on one drive, with forward slashes. */
    public static String relative(Path folder, Path file) {
        Path from = folder.toAbsolutePath().normalize();
        Path to = file.toAbsolutePath().normalize();
        boolean together = to.getRoot() != null && to.getRoot().equals(from.getRoot());
        return (together ? from.relativize(to) : to).toString().replace('\\', '/');
    }
}
