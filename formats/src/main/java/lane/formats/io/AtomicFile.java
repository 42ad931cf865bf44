package lane.formats.io;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermission;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import lane.base.LaneException;

/**
 * Writes a file whole or not at all: into a temporary file beside it, forced to disk, then renamed, and the folder forced too. A
 * link is followed to what it names; the mode of a file that stands there is kept. What cannot be renamed at one stroke is
 * refused.
 */
public final class AtomicFile {
    private static final String BEGIN = ".lane-";

    /** Short, so that a name as long as the file system allows still has a temporary file. */
    private static final Pattern TEMPORARY =
            Pattern.compile(Pattern.quote(BEGIN) + "([a-z0-9_]+)-(\\d{1,10})-\\d+\\.part");

    private static final AtomicLong COUNT = new AtomicLong();

    private AtomicFile() {}

    /** Writes the content. */
    @FunctionalInterface
    public interface Body {
        void write(OutputStream out) throws IOException;
    }

    /** @throws LaneException with the reason; the old file, if any, is then as it was */
    public static void write(Path file, Body body) {
        Path temporary = null;
        try {
            Path target = target(file);
            Path folder = folder(target);
            Files.createDirectories(folder);
            sweep(folder);
            temporary = folder.resolve(temporary());
            fill(temporary, body);
            keepMode(target, temporary);
            Files.move(temporary, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            temporary = null;
            force(folder);
        } catch (AtomicMoveNotSupportedException e) {
            throw refused(file, "its file system cannot replace a file at one stroke; write it to another place", e);
        } catch (IOException e) {
            throw refused(file, reason(e), e);
        } finally {
            if (temporary != null) {
                temporary.toFile().delete();
            }
        }
    }

    public static void write(Path file, String text) {
        write(file, out -> out.write(text.getBytes(StandardCharsets.UTF_8)));
    }

    /** A name for something that lasts until it is renamed, of this process alone. */
    public static String temporary() {
        return BEGIN + Machine.name() + "-" + ProcessHandle.current().pid() + "-" + COUNT.incrementAndGet() + ".part";
    }

    private static LaneException refused(Path file, String reason, Exception cause) {
        return new LaneException(
                "The file " + file + " could not be written: " + reason + "; what stood there before is unchanged.",
                cause);
    }

    /** Why something could not be written, without the name of the file. */
    public static String reason(IOException e) {
        if (e instanceof java.nio.file.AccessDeniedException) {
            return "it may not be written there";
        }
        if (e instanceof java.nio.file.FileAlreadyExistsException
                || e instanceof java.nio.file.DirectoryNotEmptyException) {
            return "something of another kind stands in its place";
        }
        String said = e instanceof FileSystemException f && f.getReason() != null ? f.getReason() : e.getMessage();
        if (said == null) {
            return "the system gave no reason";
        }
        return said.contains("No space left") || said.contains("quota") ? "the disk is full" : said;
    }

    /** Writes a new file and forces it to disk. */
    static void fill(Path file, Body body) throws IOException {
        try (FileChannel channel = FileChannel.open(
                        file,
                        StandardOpenOption.WRITE,
                        StandardOpenOption.CREATE,
                        StandardOpenOption.TRUNCATE_EXISTING);
                OutputStream out = new BufferedOutputStream(Channels.newOutputStream(channel), 1 << 16)) {
            body.write(out);
            out.flush();
            channel.force(true);
        }
    }

    /** What a path names in the end, whether it is there yet or not. */
    static Path target(Path file) throws IOException {
        Path at = file.toAbsolutePath();
        for (int links = 0; Files.isSymbolicLink(at); links++) {
            if (links == 40) {
                throw new IOException("its links lead in a circle");
            }
            at = folder(at).resolve(Files.readSymbolicLink(at)).normalize();
        }
        return at;
    }

    private static Path folder(Path absolute) {
        return Objects.requireNonNullElse(absolute.getParent(), absolute);
    }

    /** Removes a file, or a folder with what is in it; what cannot be removed stays. */
    static void remove(Path file) {
        if (Files.isDirectory(file, LinkOption.NOFOLLOW_LINKS)) {
            try (Stream<Path> all = Files.list(file)) {
                all.forEach(AtomicFile::remove);
            } catch (IOException | java.io.UncheckedIOException e) {
                return;
            }
        }
        file.toFile().delete();
    }

    static void keepMode(Path old, Path fresh) throws IOException {
        if (!Files.exists(old, LinkOption.NOFOLLOW_LINKS)) {
            return;
        }
        try {
            Set<PosixFilePermission> mode = Files.getPosixFilePermissions(old);
            Files.setPosixFilePermissions(fresh, mode);
        } catch (UnsupportedOperationException e) {
            // The platform keeps no such mode.
        }
    }

    /** Forces a file or folder to disk: a rename lasts once its folder is. Systems that cannot open a folder see to it. */
    public static void force(Path folder) {
        try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        } catch (IOException e) {
            // The file itself is on disk and in its place; there is nothing to take back.
        }
    }

    /** Removes temporary files that programs which were killed have left. Those of living ones stay. */
    static void sweep(Path folder) {
        try (Stream<Path> all = Files.list(folder)) {
            all.filter(AtomicFile::left).forEach(AtomicFile::remove);
        } catch (IOException | java.io.UncheckedIOException e) {
            // What cannot be listed is not cleaned; whether it can be written shows next.
        }
    }

    /** Whether a name is that of something temporary whose process has ended, or of another machine and a day old. */
    static boolean left(Path file) {
        String name = String.valueOf(file.getFileName());
        // Most files are none, in folders of thousands.
        if (!name.startsWith(BEGIN)) {
            return false;
        }
        Matcher m = TEMPORARY.matcher(name);
        return m.matches()
                && (Machine.dead(m.group(1), Long.parseLong(m.group(2)))
                        || !m.group(1).equals(Machine.name())
                                && file.toFile().lastModified() < System.currentTimeMillis() - 86_400_000L);
    }
}
