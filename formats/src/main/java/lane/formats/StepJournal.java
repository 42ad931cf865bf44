package lane.formats;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.formats.io.FileStamp;
import lane.formats.io.UserFolders;
import lane.formats.piece.PieceFolder;
import lane.provenance.Provenance;
import lane.reading.Instant;
import lane.study.Journal;
import org.jspecify.annotations.Nullable;

/**
 * A file to which each time that was read adds a line, in the user's folder for the state of programs. A line that was cut short,
 * as by a kill, is passed over. What nobody looked at for two months is deleted.
 */
final class StepJournal implements Journal {
    private static final JsonMapper MAPPER = new JsonMapper();
    private static final Duration KEPT = Duration.ofDays(60);

    /**
     * A line.
     *
     * @param files how those that were read looked, in the order of the inputs
     */
    private record Line(
            double time,
            List<String> files,
            double[] abscissa,
            double[] value,
            double[] half,
            String why,
            List<Provenance.Input> inputs) {}

    private record Entry(List<String> files, Instant instant) {}

    private final FileLibrary library;
    private final Path file;
    private @Nullable Map<Double, Entry> known;
    /** Whether its folder is there. */
    private boolean begun;

    private StepJournal(FileLibrary library, Path file) {
        this.library = library;
        this.file = file;
    }

    /**
     * @param run its file or pattern
     * @param definition what all is the same for, by value; a part that is no definition of a study keeps nothing
     */
    static Journal of(FileLibrary library, Path run, List<?> definition) {
        return PieceFolder.key(run.toString(), definition)
                .<Journal>map(name -> new StepJournal(
                        library, UserFolders.state().resolve("steps").resolve(name + ".jsonl")))
                .orElse(NONE);
    }

    @Override
    public synchronized Optional<Instant> of(double time) {
        Entry found = lines().get(time);
        if (found == null || !found.files.equals(looks(found.instant.inputs()))) {
            return Optional.empty();
        }
        library.oneKnown();
        return Optional.of(found.instant);
    }

    /** How files look now; other than any that was noted where one is gone. */
    private List<String> looks(List<Provenance.Input> inputs) {
        try {
            return inputs.stream()
                    .map(i -> FileStamp.of(library.resolve(i.path())).toString())
                    .toList();
        } catch (LaneException e) {
            return List.of("gone");
        }
    }

    private Map<Double, Entry> lines() {
        Map<Double, Entry> all = known;
        if (all == null) {
            all = new HashMap<>();
            try (Stream<String> lines = Files.lines(file)) {
                for (String line : (Iterable<String>) lines::iterator) {
                    read(line, all);
                }
                Files.setLastModifiedTime(file, java.nio.file.attribute.FileTime.from(java.time.Instant.now()));
            } catch (IOException | java.io.UncheckedIOException e) {
                // There is none yet, or it cannot be read: everything is read anew.
            }
            known = all;
        }
        return all;
    }

    private static void read(String line, Map<Double, Entry> to) {
        if (line.isBlank()) {
            return;
        }
        try {
            Line l = MAPPER.readValue(line, Line.class);
            to.put(l.time, new Entry(l.files, new Instant(l.abscissa, l.value, l.half, l.why, l.inputs)));
        } catch (JacksonException | RuntimeException e) {
            // Cut short.
        }
    }

    @Override
    public synchronized void keep(double time, Instant i) {
        // What could not be read at all may be read the next time.
        List<String> files = i.inputs().stream()
                .flatMap(x -> library.hashed(x.path()).stream())
                .map(FileStamp::toString)
                .toList();
        if (files.isEmpty() || files.size() < i.inputs().size()) {
            return;
        }
        lines().put(time, new Entry(files, i));
        try {
            if (!begun && !Files.exists(file)) {
                Path folder = java.util.Objects.requireNonNull(file.getParent());
                Files.createDirectories(folder);
                tidy(folder);
            }
            begun = true;
            Files.write(file, line(time, files, i), StandardOpenOption.CREATE, StandardOpenOption.APPEND);
        } catch (IOException e) {
            // It is a convenience: without it the next start reads all again.
        }
    }

    /** It begins on a line of its own, whatever the last one came to. One of a run of thousands of times is written word by word. */
    private static byte[] line(double time, List<String> files, Instant i) throws IOException {
        var out = new ByteArrayOutputStream();
        out.write('\n');
        try (JsonGenerator to = MAPPER.createGenerator(out)) {
            to.writeStartObject();
            to.writeNumberField("time", time);
            to.writeArrayFieldStart("files");
            for (String f : files) {
                to.writeString(f);
            }
            to.writeEndArray();
            numbers(to, "abscissa", i.abscissa());
            numbers(to, "value", i.value());
            numbers(to, "half", i.half());
            to.writeStringField("why", i.why());
            to.writeArrayFieldStart("inputs");
            for (Provenance.Input input : i.inputs()) {
                to.writeStartObject();
                to.writeStringField("path", input.path());
                to.writeStringField("sha256", input.sha256());
                to.writeNumberField("bytes", input.bytes());
                to.writeEndObject();
            }
            to.writeEndArray();
            to.writeEndObject();
        }
        return out.toByteArray();
    }

    private static void numbers(JsonGenerator to, String name, double[] all) throws IOException {
        to.writeFieldName(name);
        to.writeArray(all, 0, all.length);
    }

    private static void tidy(Path folder) {
        var oldest = java.time.Instant.now().minus(KEPT);
        try (Stream<Path> all = Files.list(folder)) {
            for (Path p : (Iterable<Path>) all::iterator) {
                if (Files.getLastModifiedTime(p).toInstant().isBefore(oldest)) {
                    Files.deleteIfExists(p);
                }
            }
        } catch (IOException e) {
            // Another time.
        }
    }
}
