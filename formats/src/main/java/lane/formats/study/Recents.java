package lane.formats.study;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.check.Verdict;
import lane.formats.io.AtomicFile;
import lane.formats.io.UserFolders;

/**
 * Studies that were open before, in the user's data folder: each with its verdicts, where it was looked at, and a small picture.
 * It is a comfort: what cannot be read or written here is left out without a word.
 */
public final class Recents {
    /** So many are kept; the oldest go. */
    static final int MOST = 24;

    private static final JsonMapper MAPPER = new JsonMapper();

    private Recents() {}

    /**
     * A study that was open.
     *
     * @param verdicts how many checks ended in which; empty where none were computed
     * @param stop that was looked at last, 1 to 6
     * @param chosen what was chosen there, by what it is
     */
    public record Entry(
            Path study,
            String name,
            Instant when,
            Map<Verdict, Integer> verdicts,
            int stop,
            Map<String, String> chosen) {
        public Entry {
            verdicts = Map.copyOf(verdicts);
            chosen = Map.copyOf(chosen);
        }

        /** A small picture of it; empty where there is none. */
        public Optional<Path> picture() {
            Path file = stem(study, ".png");
            return Files.isRegularFile(file) ? Optional.of(file) : Optional.empty();
        }
    }

    private static Path folder() {
        return UserFolders.data().resolve("recent");
    }

    private static Path stem(Path study, String ending) {
        String key = study.toAbsolutePath().normalize().toString();
        return folder().resolve(UUID.nameUUIDFromBytes(key.getBytes(StandardCharsets.UTF_8)) + ending);
    }

    /** Studies that still stand where they were, the youngest first. */
    public static List<Entry> all() {
        return entries().stream().filter(e -> Files.isRegularFile(e.study)).toList();
    }

    /** What is known of a study; empty for nothing. */
    public static Optional<Entry> of(Path study) {
        return entry(stem(study, ".json"));
    }

    private static List<Entry> entries() {
        List<Entry> out = new ArrayList<>();
        try (Stream<Path> files = Files.list(folder())) {
            files.filter(f -> f.toString().endsWith(".json")).forEach(f -> entry(f).ifPresent(out::add));
        } catch (IOException e) {
            return List.of();
        }
        out.sort(Comparator.comparing(Entry::when).reversed());
        return out;
    }

    private static Optional<Entry> entry(Path file) {
        try {
            JsonNode at = MAPPER.readTree(Files.readString(file, StandardCharsets.UTF_8));
            var verdicts = new EnumMap<Verdict, Integer>(Verdict.class);
            for (Verdict v : Verdict.values()) {
                int n = at.path("verdicts").path(v.name()).asInt();
                if (n > 0) {
                    verdicts.put(v, n);
                }
            }
            var chosen = new LinkedHashMap<String, String>();
            at.path("chosen")
                    .properties()
                    .forEach(e -> chosen.put(e.getKey(), e.getValue().asText()));
            String study = at.path("study").asText();
            return study.isBlank()
                    ? Optional.empty()
                    : Optional.of(new Entry(
                            Path.of(study),
                            at.path("name").asText(),
                            Instant.ofEpochMilli(at.path("when").asLong()),
                            verdicts,
                            Math.clamp(at.path("stop").asInt(1), 1, 6),
                            chosen));
        } catch (IOException | IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** Notes that a study is or was open. */
    public static void note(Entry entry) {
        var at = new LinkedHashMap<String, Object>();
        at.put("study", entry.study.toAbsolutePath().normalize().toString());
        at.put("name", entry.name);
        at.put("when", entry.when.toEpochMilli());
        at.put("verdicts", entry.verdicts);
        at.put("stop", entry.stop);
        at.put("chosen", entry.chosen);
        try {
            Files.createDirectories(folder());
            AtomicFile.write(stem(entry.study, ".json"), MAPPER.writeValueAsString(at));
        } catch (JacksonException e) {
            throw new IllegalStateException("it can always be written", e);
        } catch (IOException | LaneException e) {
            return;
        }
        entries().stream().skip(MOST).forEach(e -> forget(e.study));
    }

    /** Keeps a small picture of a study. */
    public static void picture(Path study, byte[] png) {
        try {
            Files.createDirectories(folder());
            AtomicFile.write(stem(study, ".png"), out -> out.write(png));
        } catch (IOException | LaneException e) {
            // It is shown without one.
        }
    }

    /** Takes a study from the list; the study itself stays. */
    public static void forget(Path study) {
        stem(study, ".json").toFile().delete();
        stem(study, ".png").toFile().delete();
    }
}
