package lane.formats.io;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Work;

/**
 * Files that belong together, written into a folder as one: they are made beside, read back and compared, and then put in place
 * at once, with a manifest that names each with its SHA-256. Whatever happens before that, the earlier set stays; what happens
 * while they are put in place is finished by whoever writes or looks next.
 */
public final class FileSet {
    public static final String MANIFEST = "manifest.json";
    /** A set that is whole and is to be put in place; nothing of it is made anew. */
    private static final String READY = ".lane-ready";

    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private final Path stage;
    private final Map<String, String> hashes = new LinkedHashMap<>();

    private FileSet(Path stage) {
        this.stage = stage;
    }

    /** Makes the files of a set. */
    @FunctionalInterface
    public interface Maker {
        void make(FileSet set);
    }

    /**
     * Adds a file to the set.
     *
     * @param name without folders
     */
    public void add(String name, AtomicFile.Body body) {
        check(name);
        hashes.put(name, filled(name, body));
    }

    /**
     * Adds files, written on all cores; the set names them in the order in which they come.
     *
     * @throws java.util.concurrent.CancellationException when cancelled
     */
    public void addAll(Map<String, AtomicFile.Body> files, Work work) {
        files.keySet().forEach(this::check);
        List<String> names = List.copyOf(files.keySet());
        var sums = new String[names.size()];
        var done = new AtomicInteger();
        Parallel.forBlocks(names.size(), 1, (block, from, to) -> {
            work.poll();
            String name = names.get(from);
            work.progress("Writing " + name, (double) done.get() / names.size());
            sums[from] = filled(name, Objects.requireNonNull(files.get(name)));
            done.incrementAndGet();
        });
        for (int i = 0; i < sums.length; i++) {
            hashes.put(names.get(i), sums[i]);
        }
    }

    private void check(String name) {
        if (!FileNames.plain(name) || name.equals(MANIFEST) || hashes.containsKey(name)) {
            throw new LaneException("A file of a set cannot be called \"" + name + "\".");
        }
    }

    /** The SHA-256 of what was written. */
    private String filled(String name, AtomicFile.Body body) {
        var digest = FileHash.digest();
        try {
            AtomicFile.fill(stage.resolve(name), out -> body.write(new java.security.DigestOutputStream(out, digest)));
        } catch (IOException e) {
            throw new LaneException(name + " could not be written: " + AtomicFile.reason(e), e);
        }
        return FileHash.hex(digest);
    }

    /** Names of the files that were added. */
    public List<String> names() {
        return List.copyOf(hashes.keySet());
    }

    public void add(String name, String text) {
        add(name, out -> out.write(text.getBytes(StandardCharsets.UTF_8)));
    }

    /**
     * Writes a set in place of the one that is there.
     *
     * @param about what else the manifest tells, by key
     * @return the files, the manifest last
     * @throws LaneException with the reason; the earlier set is then as it was
     */
    public static List<Path> write(Path folder, Map<String, ?> about, Maker maker) {
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw unwritten(folder, AtomicFile.reason(e), e);
        }
        try (FolderLock lock = FolderLock.of(folder)) {
            Path stage = folder.resolve(AtomicFile.temporary());
            try {
                finish(folder);
                AtomicFile.sweep(folder);
                Files.createDirectory(stage);
                var set = new FileSet(stage);
                maker.make(set);
                set.manifest(about);
                set.compare();
                AtomicFile.force(stage);
                Files.move(stage, folder.resolve(READY), StandardCopyOption.ATOMIC_MOVE);
                AtomicFile.force(folder);
                finish(folder);
                List<Path> files = new ArrayList<>();
                set.hashes.keySet().forEach(n -> files.add(folder.resolve(n)));
                files.add(folder.resolve(MANIFEST));
                return files;
            } catch (IOException e) {
                throw unwritten(folder, AtomicFile.reason(e), e);
            } catch (LaneException e) {
                throw unwritten(folder, e.getMessage(), e);
            } finally {
                AtomicFile.remove(stage);
            }
        }
    }

    private static LaneException unwritten(Path folder, String reason, Exception cause) {
        return new LaneException(
                "Nothing was written into " + folder + ": " + reason + "; what stood there before is unchanged.",
                cause);
    }

    private void manifest(Map<String, ?> about) throws IOException {
        var root = new LinkedHashMap<String, Object>();
        root.put("set", 1);
        root.putAll(about);
        List<Object> files = new ArrayList<>();
        for (var e : hashes.entrySet()) {
            var one = new LinkedHashMap<String, Object>();
            one.put("name", e.getKey());
            one.put("bytes", Files.size(stage.resolve(e.getKey())));
            one.put("sha256", e.getValue());
            files.add(one);
        }
        root.put("files", files);
        String text = MAPPER.writeValueAsString(root) + "\n";
        AtomicFile.fill(stage.resolve(MANIFEST), out -> out.write(text.getBytes(StandardCharsets.UTF_8)));
    }

    /** What the disk gives back is what was written. */
    private void compare() throws IOException {
        for (var e : hashes.entrySet()) {
            if (!FileHash.sha256(stage.resolve(e.getKey())).equals(e.getValue())) {
                throw new IOException("the disk gave back something else than what was written for " + e.getKey());
            }
        }
    }

    /** Puts a set that is ready in place, and takes away what belonged to the one before and not to it. */
    private static void finish(Path folder) throws IOException {
        Path ready = folder.resolve(READY);
        if (!Files.isDirectory(ready, LinkOption.NOFOLLOW_LINKS)) {
            return;
        }
        Path fresh = ready.resolve(MANIFEST);
        if (Files.exists(fresh)) {
            Map<String, String> now = named(fresh);
            Path old = folder.resolve(MANIFEST);
            if (Files.exists(old)) {
                for (var e : earlier(old).entrySet()) {
                    Path file = folder.resolve(e.getKey());
                    // What somebody changed after it was written is theirs.
                    if (!now.containsKey(e.getKey())
                            && Files.isRegularFile(file)
                            && FileHash.sha256(file).equals(e.getValue())) {
                        Files.delete(file);
                    }
                }
            }
            for (String name : now.keySet()) {
                if (Files.exists(ready.resolve(name))) {
                    place(ready.resolve(name), folder.resolve(name));
                }
            }
            place(fresh, old);
            AtomicFile.force(folder);
        }
        AtomicFile.remove(ready);
    }

    private static void place(Path from, Path to) throws IOException {
        AtomicFile.keepMode(to, from);
        Files.move(from, to, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }

    private static Map<String, String> earlier(Path manifest) {
        try {
            return named(manifest);
        } catch (IOException | LaneException e) {
            // A damaged one names nothing that could be taken away.
            return Map.of();
        }
    }

    /** Names and hashes of a manifest. */
    private static Map<String, String> named(Path manifest) throws IOException {
        JsonNode root;
        try {
            root = MAPPER.readTree(Files.readString(manifest));
        } catch (JacksonException | java.nio.charset.CharacterCodingException e) {
            throw new LaneException(Fault.DAMAGED, "The manifest " + manifest + " is damaged.", e);
        }
        var out = new LinkedHashMap<String, String>();
        for (JsonNode f : root.path("files")) {
            String name = f.path("name").asText();
            if (!FileNames.plain(name) || f.path("sha256").asText().length() != 64) {
                throw new LaneException(Fault.DAMAGED, "The manifest " + manifest + " is damaged.");
            }
            out.put(name, f.path("sha256").asText());
        }
        if (out.isEmpty()) {
            throw new LaneException(Fault.DAMAGED, "The manifest " + manifest + " names no files.");
        }
        return out;
    }

    /**
     * Whether the files of a folder are those that were written together. A set that was interrupted while it was put in place is
     * finished first, where the folder can be written.
     *
     * @return one sentence for each that is not; empty when all are
     * @throws LaneException when the folder has no manifest that can be read
     */
    public static List<String> check(Path folder) {
        if (!Files.isDirectory(folder)) {
            throw new LaneException("There is no folder " + folder + ".");
        }
        try {
            if (Files.exists(folder.resolve(READY))) {
                try (FolderLock lock = FolderLock.of(folder)) {
                    finish(folder);
                }
            }
            Path manifest = folder.resolve(MANIFEST);
            if (!Files.exists(manifest)) {
                throw new LaneException("There is no " + MANIFEST + " in " + folder
                        + ", so nothing tells which files belong together; export the ledger again.");
            }
            List<String> out = new ArrayList<>();
            for (var e : named(manifest).entrySet()) {
                Path file = folder.resolve(e.getKey());
                if (!Files.isRegularFile(file)) {
                    out.add(e.getKey() + " is missing.");
                } else if (!FileHash.sha256(file).equals(e.getValue())) {
                    out.add(e.getKey() + " is not the file that was written with the others.");
                }
            }
            return out;
        } catch (IOException e) {
            throw new LaneException("The folder " + folder + " could not be read: " + AtomicFile.reason(e) + ".", e);
        }
    }

    /** Names in a set's manifest. */
    public static Set<String> names(Path folder) {
        try {
            return named(folder.resolve(MANIFEST)).keySet();
        } catch (IOException e) {
            throw new LaneException("The folder " + folder + " could not be read: " + AtomicFile.reason(e) + ".", e);
        }
    }
}
