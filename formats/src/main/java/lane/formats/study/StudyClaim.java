package lane.formats.study;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import lane.formats.io.AtomicFile;
import lane.formats.io.Machine;

/**
 * Who has a study open for writing: a small file {@code .NAME.lock} beside it. One whose process has ended counts for nothing;
 * of another machine's processes nothing can be known, so their claims stand until somebody takes over.
 */
public final class StudyClaim implements AutoCloseable {
    private static final JsonMapper MAPPER = new JsonMapper();
    private final Path file;
    private final String mark = UUID.randomUUID().toString();

    /**
     * Somebody who has a study open.
     *
     * @param since when they opened it
     */
    public record Holder(String user, String host, long pid, Instant since) {
        /** Such as {@code lena on bench-3 since 14:02}. */
        public String words() {
            return user + " on " + host + " since "
                    + DateTimeFormatter.ofPattern(
                                    since.isBefore(Instant.now().minus(20, ChronoUnit.HOURS)) ? "d MMM HH:mm" : "HH:mm",
                                    java.util.Locale.ENGLISH)
                            .format(since.atZone(ZoneId.systemDefault()));
        }
    }

    private StudyClaim(Path file) {
        this.file = file;
    }

    private static Path of(Path study) {
        String name = String.valueOf(study.getFileName());
        // A name as long as the file system allows has no room for more.
        String brief = name.getBytes(StandardCharsets.UTF_8).length > 200 ? name.hashCode() + "" : name;
        return study.toAbsolutePath().resolveSibling("." + brief + ".lock");
    }

    /** Who else has a study open; empty for nobody. */
    public static Optional<Holder> holder(Path study) {
        return read(of(study)).filter(h -> !Machine.dead(h.host(), h.pid()));
    }

    private static Optional<Holder> read(Path file) {
        try {
            JsonNode n = MAPPER.readTree(Files.readString(file));
            return n == null || !n.has("pid")
                    ? Optional.empty()
                    : Optional.of(new Holder(
                            n.path("user").asText("somebody"),
                            n.path("host").asText(),
                            n.path("pid").asLong(),
                            Instant.parse(n.path("since").asText())));
        } catch (IOException | java.time.DateTimeException e) {
            return Optional.empty();
        }
    }

    /**
     * Claims a study, if nobody has.
     *
     * @return empty where somebody else has it; see {@link #holder}
     */
    public static Optional<StudyClaim> claim(Path study) {
        var claim = new StudyClaim(of(study));
        for (int i = 0; i < 3; i++) {
            try {
                Files.writeString(claim.file, claim.text(), StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
                return Optional.of(claim);
            } catch (FileAlreadyExistsException e) {
                if (holder(study).isPresent()) {
                    return Optional.empty();
                }
                claim.file.toFile().delete();
            } catch (IOException e) {
                // Where nothing can be written no other can be kept from writing either; saving will say why.
                return Optional.of(claim);
            }
        }
        return Optional.empty();
    }

    /** Takes a study over from whoever has it; they are told when they save. */
    public static StudyClaim takeOver(Path study) {
        var claim = new StudyClaim(of(study));
        AtomicFile.write(claim.file, claim.text());
        return claim;
    }

    private String text() {
        try {
            return MAPPER.writeValueAsString(Map.of(
                    "user", System.getProperty("user.name", "somebody"),
                    "host", Machine.name(),
                    "pid", ProcessHandle.current().pid(),
                    "since", Instant.now().truncatedTo(ChronoUnit.SECONDS).toString(),
                    "mark", mark));
        } catch (JacksonException e) {
            throw new IllegalStateException("a claim can always be written", e);
        }
    }

    /** Whether it still holds: nobody has taken over. One that could never be written holds. */
    public boolean holds() {
        try {
            return !Files.exists(file) || Files.readString(file).contains(mark);
        } catch (IOException e) {
            return true;
        }
    }

    /** Gives it up, unless somebody has taken over. */
    @Override
    public void close() {
        if (holds()) {
            file.toFile().delete();
        }
    }
}
