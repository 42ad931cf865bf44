package lane.formats.hash;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.Writer;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.CodeSource;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.io.FileHash;
import lane.formats.io.FileStamp;
import lane.provenance.Provenance;
import org.jspecify.annotations.Nullable;

/**
 * Hashes of files that will be asked for soon, found beside the work that asks: by a process, since Java's vectors must be asked
 * for when a program starts, and start-up caches are lost with them. There is none where the processor is quick by itself or the
 * files are few, and whatever goes wrong with it, a file is then hashed by who asks. Thread-safe.
 */
public final class HashesAhead {
    /** Those of this program. */
    public static final HashesAhead SHARED = new HashesAhead(8e8, 1L << 29, 8);

    /** Files that are told at once: twice what fits side by side, with room for what is known already. */
    public static final int MOST = 64;
    /** Seconds in which a process has to answer for the first time. */
    private static final long PATIENT = 10;
    /** Seconds after which it ends when nobody asks. */
    private static final long IDLE = 20;
    /** Below this what is won by a vector is lost again by its process. */
    private static final int FEWEST_LANES = 8;

    private record Asked(FileStamp stamp, CompletableFuture<Optional<String>> sha) {}

    /** A process that was started, and what it was told. */
    private static final class Helper {
        final Process process;
        final Writer to;
        final Map<Integer, Asked> told = new HashMap<>();
        /** When it was told the first time. */
        long began;

        int next;
        /** Whether it has come to itself. */
        boolean awake;

        boolean answered;

        /** Whether an answer can be expected. */
        boolean answers() {
            return answered || next == 0 || System.nanoTime() - began < TimeUnit.SECONDS.toNanos(PATIENT);
        }

        Helper(Process process) {
            this.process = process;
            to = process.outputWriter(StandardCharsets.UTF_8);
        }
    }

    private final double slow;
    private final long worth;
    private final int fewest;
    private final Map<Path, Asked> asked = new LinkedHashMap<>();
    private @Nullable Helper helper;
    private boolean useless;
    private long touched;

    /**
     * @param slow bytes in a second: who hashes quicker needs no help
     * @param worth bytes from which a process pays, of those that were hashed here and those that are told
     * @param fewest files, of which fewer side by side are no quicker than one after the other
     */
    HashesAhead(double slow, long worth, int fewest) {
        this.slow = slow;
        this.worth = worth;
        this.fewest = fewest;
    }

    /**
     * Starts the process where so many bytes are going to be asked for that it pays, and this program hashes slowly: it comes to
     * itself while the first of them are read.
     */
    public synchronized void ready(long bytes) {
        if (helper == null && bytes >= worth && slow(worth / 64)) {
            touched = System.nanoTime();
            helper = start();
            useless = helper == null;
        }
    }

    /**
     * Files that are going to be asked for, the next first. Only the first {@link #MOST} are looked at, so that little is done in
     * vain where nobody asks after all.
     */
    public synchronized void want(List<Path> files) {
        List<Path> fresh =
                files.stream().limit(MOST).filter(f -> !asked.containsKey(f)).toList();
        int beside = fresh.size() + (helper == null ? 0 : helper.told.size());
        if (fresh.isEmpty() || beside < fewest || helper == null && !slow(worth / 8)) {
            return;
        }
        touched = System.nanoTime();
        List<FileStamp> stamps = fresh.stream().flatMap(f -> stamp(f).stream()).toList();
        if (helper == null) {
            long some = stamps.stream().mapToLong(FileStamp::size).sum();
            // The others are likely as large as the first ones.
            long all = files.size() > MOST ? some * files.size() / MOST : some;
            if (FileHash.hashed() + all < worth) {
                return;
            }
            helper = start();
        }
        Helper to = helper;
        if (to == null) {
            useless = true;
            return;
        }
        if (to.next == 0) {
            to.began = System.nanoTime();
        }
        if (to.next == 0 && !to.awake) {
            // It takes a second to come to itself, in which who asks gets through the first ones.
            int own = stamps.size() / 5;
            stamps.subList(0, own)
                    .forEach(s ->
                            asked.put(s.file(), new Asked(s, CompletableFuture.completedFuture(Optional.empty()))));
            stamps = stamps.subList(own, stamps.size());
        }
        try {
            for (FileStamp s : stamps) {
                var one = new Asked(s, new CompletableFuture<>());
                asked.put(s.file(), one);
                to.told.put(to.next++, one);
                to.to.write(s.file() + "\n");
            }
            to.to.flush();
        } catch (IOException e) {
            end(to);
        }
    }

    /** Whether this program hashes slowly, as far as it did; nothing is asked of the disk for that. */
    private boolean slow(long from) {
        double rate = FileHash.rate();
        return !useless && rate > 0 && rate <= slow && FileHash.hashed() >= from;
    }

    /** How it looks; empty for what is no file, or has a name that no line can tell. */
    private static Optional<FileStamp> stamp(Path file) {
        try {
            return file.toString().indexOf('\n') >= 0 ? Optional.empty() : Optional.of(FileStamp.of(file));
        } catch (LaneException e) {
            return Optional.empty();
        }
    }

    /**
     * A file by content, as it was found ahead or as it is found now.
     *
     * @param shown the path as the trail names it
     */
    public Provenance.Input input(FileStamp file, String shown, Work work) {
        return of(file, work)
                .map(sha -> new Provenance.Input(shown, sha, file.size()))
                .orElseGet(() -> FileHash.of(file.file(), shown, work));
    }

    /**
     * The SHA-256 of a file that looks like that and looked so when it was told. Empty where it was not told, or no answer came
     * for too long: who asks then hashes it himself.
     */
    public Optional<String> of(FileStamp stamp, Work work) {
        Asked found;
        synchronized (this) {
            touched = System.nanoTime();
            found = asked.remove(stamp.file());
            if (found == null || !found.stamp.equals(stamp)) {
                return Optional.empty();
            }
        }
        while (true) {
            try {
                return found.sha.get(50, TimeUnit.MILLISECONDS);
            } catch (TimeoutException e) {
                work.poll();
                synchronized (this) {
                    if (helper == null || !helper.answers()) {
                        return found.sha.getNow(Optional.empty());
                    }
                }
            } catch (ExecutionException e) {
                return Optional.empty();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return Optional.empty();
            }
        }
    }

    private @Nullable Helper start() {
        CodeSource own = HashesAhead.class.getProtectionDomain().getCodeSource();
        if (own == null) {
            return null;
        }
        try {
            List<String> words = new ArrayList<>(List.of(
                    Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-Xmx64m", "-XX:+UseSerialGC"));
            words.addAll(List.of("--add-modules", "jdk.incubator.vector", "-XX:CompileCommand=quiet"));
            // In one with the others they become too much for the compiler, which then makes an object of each vector.
            for (String apart : Hasher.APART) {
                words.add("-XX:CompileCommand=dontinline," + apart);
            }
            words.addAll(List.of("-cp", Path.of(own.getLocation().toURI()).toString(), Hasher.class.getName()));
            var command = new ProcessBuilder(words);
            // What is said to this program is not meant for that one.
            command.environment().keySet().removeAll(List.of("JAVA_TOOL_OPTIONS", "JDK_JAVA_OPTIONS", "_JAVA_OPTIONS"));
            command.redirectError(ProcessBuilder.Redirect.DISCARD);
            var made = new Helper(command.start());
            Thread.ofPlatform().daemon().name("hashes").start(() -> listen(made));
            endWhenIdle(made);
            return made;
        } catch (IOException | URISyntaxException e) {
            return null;
        }
    }

    private void listen(Helper from) {
        try (BufferedReader lines = from.process.inputReader(StandardCharsets.UTF_8)) {
            String first = lines.readLine();
            if (first == null || Integer.parseInt(first.strip()) < FEWEST_LANES) {
                synchronized (this) {
                    useless = true;
                }
                return;
            }
            synchronized (this) {
                from.awake = true;
            }
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                answered(from, line.split(" "));
            }
        } catch (IOException | NumberFormatException e) {
            // Others hash themselves.
        } finally {
            end(from);
        }
    }

    private synchronized void answered(Helper from, String[] words) {
        Asked of = from.told.remove(Integer.parseInt(words[0]));
        if (of != null) {
            from.answered = true;
            boolean whole = words.length == 3 && words[2].equals(String.valueOf(of.stamp.size()));
            of.sha.complete(whole ? Optional.of(words[1]) : Optional.empty());
        }
    }

    private synchronized void end(Helper one) {
        one.process.destroy();
        one.told.values().forEach(a -> {
            a.sha.complete(Optional.empty());
            asked.remove(a.stamp.file(), a);
        });
        one.told.clear();
        if (Objects.equals(helper, one)) {
            helper = null;
            // What was found and nobody asked for will not be asked for.
            asked.clear();
        }
    }

    private void endWhenIdle(Helper one) {
        CompletableFuture.delayedExecutor(IDLE, TimeUnit.SECONDS).execute(() -> {
            boolean idle;
            synchronized (this) {
                idle = System.nanoTime() - touched > TimeUnit.SECONDS.toNanos(IDLE);
            }
            if (idle) {
                end(one);
            } else if (one.process.isAlive()) {
                endWhenIdle(one);
            }
        });
    }

    /** Whether a process is at work. */
    synchronized boolean helped() {
        return helper != null;
    }

    /** Ends the process, if there is one. */
    void end() {
        Helper now;
        synchronized (this) {
            now = helper;
        }
        if (now != null) {
            end(now);
        }
    }
}
