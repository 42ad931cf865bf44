package lane.formats;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import lane.formats.io.FileNames;

/** What can be told of a run's files without reading them. */
final class StoredSize {
    private StoredSize() {}

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
