package lane.formats.io;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.ZipFile;

/**
 * Which program this is: another one may find other numbers. Archives count by the checksums of what they hold, so that the same
 * release is the same on every machine; folders of a program that is being worked on by how their files look.
 */
public final class ProgramId {
    private ProgramId() {}

    /** The archive or folder that a class is of, by what it holds. */
    public static String of(Class<?> member) {
        try {
            Path from = Path.of(
                    member.getProtectionDomain().getCodeSource().getLocation().toURI());
            if (Files.isDirectory(from)) {
                try (Stream<Path> all = Files.walk(from)) {
                    return FileHash.ofText(all.filter(Files::isRegularFile)
                            .sorted()
                            .map(p -> FileStamp.of(p).size() + " "
                                    + FileStamp.of(p).changed())
                            .collect(Collectors.joining(",")));
                }
            }
            try (var archive = new ZipFile(from.toFile())) {
                return FileHash.ofText(archive.stream()
                        .filter(e -> !e.isDirectory() && !e.getName().startsWith("META-INF/MANIFEST"))
                        .map(e -> e.getName() + " " + e.getCrc())
                        .sorted()
                        .collect(Collectors.joining(",")));
            }
        } catch (java.net.URISyntaxException | IOException | RuntimeException e) {
            // What cannot be told apart from another program keeps nothing beyond this run of it.
            return String.valueOf(System.nanoTime());
        }
    }
}
