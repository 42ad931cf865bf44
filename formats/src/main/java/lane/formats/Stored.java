package lane.formats;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import lane.formats.io.FileNames;

/** What can be told of a run's files without reading them. */
final class Stored {
    /** Endings of formats that keep a run in pieces. */
    private static final Set<String> PIECES = Set.of(
            "pvtu", "pvti", "pvtr", "pvts", "pvd", "vtm", "vtmb", "vtpd", "vtpc", "vtkhdf", "hdf", "h5", "hdf5", "xdmf",
            "xmf", "cgns");

    private Stored() {}

    static boolean inPieces(Path file) {
        return PIECES.contains(FileNames.ending(file));
    }

    /** How long a file is with those beside it and below that are named alike, or lie in a folder that is. */
    static long bytes(Path file) {
        String stem = FileNames.stem(String.valueOf(file.getFileName())).replace("*", "");
        Path folder = file.toAbsolutePath().getParent();
        if (folder == null) {
            return 0;
        }
        try (var all = Files.find(folder, 3, (p, a) -> a.isRegularFile())) {
            return all.filter(p -> folder.relativize(p).toString().startsWith(stem))
                    .mapToLong(p -> p.toFile().length())
                    .sum();
        } catch (IOException | java.io.UncheckedIOException e) {
            // What cannot be listed is told when it is read.
            return 0;
        }
    }
}
