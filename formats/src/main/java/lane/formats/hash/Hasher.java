package lane.formats.hash;

import java.io.IOException;
import java.io.PrintStream;
import java.lang.foreign.MemorySegment;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Queue;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A program of its own: it is told paths, one a line, and answers each with a line of its place among them, its SHA-256 and its
 * size, or {@code -} where it cannot be read. First it tells how many it takes at once. It ends with its input. Two take files side
 * by side, so that who waits for them does not wait beside an idle processor.
 */
final class Hasher {
    /** Methods that are compiled each by itself. */
    static final List<String> APART = Stream.of("take", "turn", "extend", "mix")
            .map(m -> "lane.formats.hash.Lanes::" + m)
            .toList();

    /** Bytes of a file that are held, with room to fill up the last block. */
    private static final int ROOM = 1 << 15;

    private static final int STRIDE = ROOM + 2 * Lanes.BLOCK;

    /** A file in a lane. */
    private static final class Reading {
        final int place;
        final FileChannel in;
        long size;
        boolean closing;

        Reading(int place, FileChannel in) {
            this.place = place;
            this.in = in;
        }
    }

    private static final int SIDE_BY_SIDE = 2;

    private final Paths paths;
    /** Whether it has taken some that it is not through with. */
    private boolean begun;

    private final PrintStream out;
    private final Lanes lanes = new Lanes();
    private final @Nullable Reading[] of = new Reading[Lanes.COUNT];
    /** Bytes of all lanes, one after the other, and the share of each. */
    private final ByteBuffer held = ByteBuffer.allocateDirect(Lanes.COUNT * STRIDE);

    private final MemorySegment whole = MemorySegment.ofBuffer(held);
    private final List<ByteBuffer> share = IntStream.range(0, Lanes.COUNT)
            .mapToObj(l -> held.slice(l * STRIDE, STRIDE))
            .toList();

    /** Where in all of it the next block of each lane stands, and where in its own share, and up to where there is something. */
    private final int[] next = new int[Lanes.COUNT];

    private final int[] at = new int[Lanes.COUNT];
    private final int[] end = new int[Lanes.COUNT];

    private Hasher(Paths paths, PrintStream out) {
        this.paths = paths;
        this.out = out;
    }

    public static void main(String[] none) throws InterruptedException {
        // One alone would leave files unanswered: who told them hashes them when it is gone.
        Thread.setDefaultUncaughtExceptionHandler(
                (thread, e) -> Runtime.getRuntime().halt(1));
        var out = new PrintStream(System.out, true, StandardCharsets.UTF_8);
        out.println(Lanes.COUNT);
        var paths = new Paths(System.in);
        List<Thread> all = new ArrayList<>();
        for (int i = 0; i < SIDE_BY_SIDE; i++) {
            boolean first = i == 0;
            all.add(Thread.ofPlatform().start(() -> {
                var one = new Hasher(paths, out);
                if (first) {
                    one.warm();
                }
                one.run();
            }));
        }
        for (Thread one : all) {
            one.join();
        }
    }

    /** Nanoseconds that one gets ready for at most. */
    private static final long READY = 1_500_000_000L;

    /** In which one that is compiled adds {@link #SOME} blocks, and one that is not never does. */
    private static final long QUICK = 200_000;

    private static final int SOME = 16;

    /** Hashes nothing until there is something, or that is compiled. */
    private void warm() {
        int[] none = new int[Lanes.COUNT];
        long began = System.nanoTime();
        long before = began;
        for (int quick = 0; quick < 3 && !paths.some() && before - began < READY; ) {
            lanes.add(whole, none, SOME);
            long now = System.nanoTime();
            quick = now - before < QUICK ? quick + 1 : 0;
            before = now;
        }
    }

    private void run() {
        while (fill()) {
            int most = Integer.MAX_VALUE;
            for (int l = 0; l < Lanes.COUNT; l++) {
                if (of[l] != null) {
                    most = Math.min(most, (end[l] - at[l]) / Lanes.BLOCK);
                }
            }
            for (int l = 0; l < Lanes.COUNT; l++) {
                next[l] = l * STRIDE + at[l];
            }
            lanes.add(whole, next, most);
            for (int l = 0; l < Lanes.COUNT; l++) {
                Reading one = of[l];
                if (one == null) {
                    continue;
                }
                at[l] += most * Lanes.BLOCK;
                if (one.closing && at[l] == end[l]) {
                    out.println(one.place + " " + lanes.end(l) + " " + one.size);
                    free(l);
                }
            }
        }
    }

    private void free(int lane) {
        of[lane] = null;
        // What runs along in an empty lane is nobody's.
        at[lane] = 0;
    }

    /** Gives each lane a block at least; false when there is nothing any more. */
    private boolean fill() {
        Queue<Paths.Asked> next = new ArrayDeque<>();
        fill(next);
        while (idle()) {
            if (begun) {
                paths.done();
            }
            // An empty lane costs what a full one does.
            next.addAll(paths.together(Lanes.COUNT));
            begun = !next.isEmpty();
            if (!begun) {
                return false;
            }
            fill(next);
        }
        return true;
    }

    /** For a lane that is empty before others: only where enough wait for these, too, so that all go on side by side. */
    private Paths.@Nullable Asked next() {
        return paths.next(Lanes.COUNT);
    }

    private boolean idle() {
        return Arrays.stream(of).allMatch(Objects::isNull);
    }

    private void fill(Queue<Paths.Asked> next) {
        for (int l = 0; l < Lanes.COUNT; l++) {
            while (of[l] != null || begin(l, next.isEmpty() ? next() : next.remove())) {
                try {
                    more(l);
                    break;
                } catch (IOException e) {
                    gone(l);
                }
            }
        }
    }

    private void gone(int lane) {
        Reading one = of[lane];
        if (one != null) {
            out.println(one.place + " -");
            try {
                one.in.close();
            } catch (IOException e) {
                // It was given up anyway.
            }
        }
        free(lane);
    }

    /** Takes the next path that can be opened; false for none. */
    private boolean begin(int lane, Paths.@Nullable Asked first) {
        for (Paths.Asked next = first; next != null; next = next()) {
            try {
                of[lane] = new Reading(next.place(), FileChannel.open(Path.of(next.path())));
                lanes.begin(lane);
                at[lane] = 0;
                end[lane] = 0;
                return true;
            } catch (IOException | InvalidPathException e) {
                out.println(next.place() + " -");
            }
        }
        return false;
    }

    /** Of whole blocks none is left over: a lane is empty, or has one at least. */
    private void more(int lane) throws IOException {
        Reading one = of[lane];
        if (one == null || at[lane] < end[lane]) {
            return;
        }
        ByteBuffer bytes = share.get(lane).clear().limit(ROOM);
        while (bytes.hasRemaining() && one.in.read(bytes) >= 0) {
            // It may give less than there is room for.
        }
        int n = bytes.position();
        one.size += n;
        if (n < ROOM) {
            one.closing = true;
            one.in.close();
            n = (n + 1 + Long.BYTES + Lanes.BLOCK - 1) / Lanes.BLOCK * Lanes.BLOCK;
            bytes.limit(n).put((byte) 0x80);
            while (bytes.hasRemaining()) {
                bytes.put((byte) 0);
            }
            bytes.putLong(n - Long.BYTES, 8 * one.size);
        }
        at[lane] = 0;
        end[lane] = n;
    }
}
