package lane.formats.study;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.base.Plain;
import lane.formats.io.AtomicFile;
import lane.formats.io.Machine;
import lane.formats.io.UserFolders;

/**
 * What is known of open studies in the user's data folder: one folder a session, with where its study is kept and a picture of
 * the window. A study that has no place yet is kept in its folder whole. A session that ends with nothing unsaved takes its
 * folder away; those that a crash leaves are offered at the next start.
 */
public final class Drafts {
    public static final String STUDY = "study.lane.json";
    private static final String ABOUT = "about.json";
    private static final String PICTURE = "picture.png";
    private static final JsonMapper MAPPER = new JsonMapper();

    private Drafts() {}

    /**
     * Work of a session that has ended without saving it.
     *
     * @param folder in the user's data
     * @param study the file to be opened
     * @param name of the study
     * @param when it was kept last
     */
    public record Offer(Path folder, Path study, String name, Instant when) {
        /** A picture of the window; empty where there was no time for one. */
        public Optional<Path> picture() {
            Path file = folder.resolve(PICTURE);
            return Files.exists(file) ? Optional.of(file) : Optional.empty();
        }

        /** A session has it open now and keeps it; of one that was saved this note is no longer needed. */
        public void taken() {
            if (placed()) {
                Drafts.discard(folder);
            }
        }

        /** Throws the unsaved work away. A study that was saved stays as it was saved. */
        public void discard() {
            if (placed()) {
                Autosave.of(study).toFile().delete();
            }
            Drafts.discard(folder);
        }

        /** Whether it was ever saved to a place of its own. */
        public boolean placed() {
            return !study.startsWith(folder);
        }

        /** How long ago, such as {@code 3 hours ago}. */
        public String age(Instant now) {
            Duration d = Duration.between(when, now);
            return d.toMinutes() < 1
                    ? "just now"
                    : d.toMinutes() < 60
                            ? count(d.toMinutes(), "minute")
                            : d.toHours() < 48 ? count(d.toHours(), "hour") : count(d.toDays(), "day");
        }

        private static String count(long n, String what) {
            return Plain.count(n, what) + " ago";
        }
    }

    private static Path all() {
        return UserFolders.data().resolve("studies");
    }

    /** A folder for a session. @throws LaneException when it cannot be made */
    public static Path folder() {
        Path folder = all().resolve(UUID.randomUUID().toString());
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new LaneException(
                    "The folder " + folder + " for unsaved work could not be made: " + e.getMessage()
                            + "; nothing is kept until the study is saved.",
                    e);
        }
        return folder;
    }

    /** Whether a study is kept here because it has no place yet. */
    public static boolean holds(Path study) {
        return study.toAbsolutePath()
                .normalize()
                .startsWith(all().toAbsolutePath().normalize());
    }

    /** Notes which study a session has open. */
    public static void note(Path folder, Path study, String name) {
        var about = new LinkedHashMap<String, Object>();
        about.put("study", study.toAbsolutePath().toString());
        about.put("name", name);
        about.put("host", Machine.name());
        about.put("pid", ProcessHandle.current().pid());
        try {
            AtomicFile.write(folder.resolve(ABOUT), MAPPER.writeValueAsString(about));
        } catch (JacksonException e) {
            throw new IllegalStateException("it can always be written", e);
        }
    }

    public static void picture(Path folder, byte[] png) {
        AtomicFile.write(folder.resolve(PICTURE), out -> out.write(png));
    }

    /** Takes a folder away with what is in it. */
    public static void discard(Path folder) {
        if (!holds(folder)) {
            throw new IllegalArgumentException(folder + " holds no draft");
        }
        try (Stream<Path> files = Files.walk(folder)) {
            files.sorted(Comparator.reverseOrder()).forEach(f -> f.toFile().delete());
        } catch (IOException e) {
            // It is offered again then.
        }
    }

    /** Work of sessions that have ended, the youngest first. What has nothing unsaved any more is taken away. */
    public static List<Offer> offers() {
        List<Offer> out = new ArrayList<>();
        try (Stream<Path> folders = Files.list(all())) {
            for (Path folder : folders.toList()) {
                offer(folder).ifPresent(out::add);
            }
        } catch (IOException e) {
            return List.of();
        }
        out.sort(Comparator.comparing(Offer::when).reversed());
        return out;
    }

    private static Optional<Offer> offer(Path folder) {
        JsonNode about;
        try {
            about = MAPPER.readTree(Files.readString(folder.resolve(ABOUT), StandardCharsets.UTF_8));
        } catch (IOException e) {
            about = MAPPER.createObjectNode();
        }
        String host = about.path("host").asText();
        if (!host.isEmpty() && !Machine.dead(host, about.path("pid").asLong())) {
            return Optional.empty();
        }
        Path study = Path.of(about.path("study").asText(folder.resolve(STUDY).toString()));
        Path kept = Stream.of(Autosave.of(study), holds(study) ? study : Autosave.of(study))
                .filter(Files::isRegularFile)
                .findFirst()
                .orElse(null);
        if (kept == null) {
            if (!host.isEmpty()) {
                discard(folder);
            }
            return Optional.empty();
        }
        return Optional.of(new Offer(
                folder,
                study,
                about.path("name").asText("Unnamed study"),
                Instant.ofEpochMilli(kept.toFile().lastModified())));
    }
}
