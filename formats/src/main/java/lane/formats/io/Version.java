package lane.formats.io;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Objects;

/** The program's version, as the build wrote it. */
public final class Version {
    private static final String TEXT = read();

    private Version() {}

    public static String text() {
        return TEXT;
    }

    private static String read() {
        try (InputStream in = Objects.requireNonNull(Version.class.getResourceAsStream("version.txt"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).strip();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
