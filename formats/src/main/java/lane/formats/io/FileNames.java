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
        return dot > 0 ? name.substring(0, dot) : name;
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

    /** How a study in a folder names a file: from there where both stand on one drive, with forward slashes. */
    public static String relative(Path folder, Path file) {
        Path from = folder.toAbsolutePath().normalize();
        Path to = file.toAbsolutePath().normalize();
        boolean together = to.getRoot() != null && to.getRoot().equals(from.getRoot());
        return (together ? from.relativize(to) : to).toString().replace('\\', '/');
    }
}
