package lane.formats.piece;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileHash;
import lane.formats.io.ProgramId;
import lane.formats.study.StudyJson;
import lane.reading.Instant;

/**
 * A folder of answers. Each file is written whole and never changed, so any number of programs on any number of machines may
 * read and write here at once; nothing else connects them.
 */
public final class PieceFolder {
    private static final String END = ".piece.jsonl";
    private static final String FAILED = ".failed.txt";
    private static final String PROGRAM = ProgramId.of(Instant.class) + ProgramId.of(PieceFolder.class);

    private final Path folder;
    private final Set<String> seen = new HashSet<>();
    private final Map<String, List<PieceLine>> answers = new HashMap<>();
    private final Map<String, Map<Double, List<PieceLine>>> instants = new HashMap<>();

    /** @param folder made when something is put there */
    public PieceFolder(Path folder) {
        this.folder = folder;
    }

    public Path folder() {
        return folder;
    }

    /**
     * By what something is known that rests on definitions: the same in the same release on every machine.
     *
     * @return empty for what is no definition of a study
     */
    public static Optional<String> key(String run, List<?> definition) {
        var text = new StringBuilder(run).append('\n').append(PROGRAM);
        for (Object part : definition) {
            Optional<String> told = StudyJson.part(part);
            if (told.isEmpty()) {
                return told;
            }
            text.append('\n').append(told.get());
        }
        return Optional.of(FileHash.ofText(text.toString()).substring(0, 40));
    }

    /** Reads what others have put there since. */
    public synchronized void refresh() {
        try (Stream<Path> all = Files.list(folder)) {
            for (Path p : (Iterable<Path>) all.sorted()::iterator) {
                String name = p.getFileName().toString();
                if (name.endsWith(END) && seen.add(name)) {
                    read(p);
                }
            }
        } catch (IOException | java.io.UncheckedIOException e) {
            // There is none yet, or the disk is away for a moment: then nothing is known.
        }
    }

    private void read(Path file) throws IOException {
        try (Stream<String> lines = Files.lines(file)) {
            lines.flatMap(l -> PieceLine.of(l).stream()).forEach(this::add);
        }
    }

    private void add(PieceLine line) {
        line.answers().keySet().forEach(k -> answers.computeIfAbsent(k, x -> new ArrayList<>())
                .add(line));
        line.instants().keySet().forEach(k -> instants.computeIfAbsent(k, x -> new HashMap<>())
                .computeIfAbsent(line.time(), t -> new ArrayList<>())
                .add(line));
    }

    synchronized List<PieceLine> answers(String key) {
        return List.copyOf(answers.getOrDefault(key, List.of()));
    }

    synchronized List<PieceLine> instants(String key, double time) {
        return List.copyOf(instants.getOrDefault(key, Map.of()).getOrDefault(time, List.of()));
    }

    /** Whether a piece is there. */
    public boolean has(String id) {
        return Files.exists(folder.resolve(id + END));
    }

    /** Why a piece could not be made the last time; empty where it was made or never tried. */
    public Optional<String> failed(String id) {
        try {
            return has(id)
                    ? Optional.empty()
                    : Optional.of(Files.readString(folder.resolve(id + FAILED)).strip());
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    /** Notes why a piece could not be made. */
    public void fail(String id, String why) {
        made();
        AtomicFile.write(folder.resolve(id + FAILED), why + "\n");
    }

    /** Forgets that pieces could not be made, before they are tried anew. */
    public void forgive(String id) {
        try {
            Files.deleteIfExists(folder.resolve(id + FAILED));
        } catch (IOException e) {
            throw new LaneException(
                    "The file " + folder.resolve(id + FAILED) + " cannot be deleted: " + AtomicFile.reason(e) + ".", e);
        }
    }

    /** Puts a piece there. */
    void put(String id, List<PieceLine> lines) {
        made();
        AtomicFile.write(folder.resolve(id + END), out -> {
            for (PieceLine line : lines) {
                out.write(line.text().getBytes(StandardCharsets.UTF_8));
                out.write('\n');
            }
        });
        synchronized (this) {
            if (seen.add(id + END)) {
                lines.forEach(this::add);
            }
        }
        forgive(id);
    }

    private void made() {
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new LaneException(
                    "The folder " + folder + " cannot be made: " + AtomicFile.reason(e) + "; choose another.", e);
        }
    }
}
