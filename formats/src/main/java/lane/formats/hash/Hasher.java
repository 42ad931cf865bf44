package lane.formats.hash;

import java.io.BufferedReader;
import java.io.FileInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Queue;
import org.jspecify.annotations.Nullable;

/**
 * A program of its own: it is told paths, one a line, and answers each with a line of its place among them, its SHA-256 and its
 * size, or {@code -} where it cannot be read. First it tells how many it takes at once. It ends with its input.
 */
final class Hasher {
    private static final int ROOM = 1 << 18;

    /** A file in a lane. */
    private static final class Reading {
        final int place;
        final InputStream in;
        long size;
        boolean closing;

        Reading(int place, InputStream in) {
            this.place = place;
            this.in = in;
        }
    }

    private record Asked(int place, String path) {}

    private final BufferedReader asked;
    private final PrintStream out;
    private final Lanes lanes = new Lanes();
    private final @Nullable Reading[] of = new Reading[Lanes.COUNT];
    /** Bytes of each lane, with room to fill up the last block. */
    private final byte[][] bytes = new byte[Lanes.COUNT][ROOM + 2 * Lanes.BLOCK];

    private final int[] at = new int[Lanes.COUNT];
    private final int[] end = new int[Lanes.COUNT];
    private final Queue<Asked> waiting = new ArrayDeque<>();
    private int told;
    private boolean last;

    Hasher(InputStream in, PrintStream out) {
        asked = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8));
        this.out = out;
    }

    public static void main(String[] none) throws IOException {
        new Hasher(System.in, new PrintStream(System.out, true, StandardCharsets.UTF_8)).run();
    }

    void run() throws IOException {
        out.println(Lanes.COUNT);
        while (fill()) {
            int most = Integer.MAX_VALUE;
            for (int l = 0; l < Lanes.COUNT; l++) {
                if (of[l] != null) {
                    most = Math.min(most, (end[l] - at[l]) / Lanes.BLOCK);
                }
            }
            lanes.add(bytes, at, most);
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
    private boolean fill() throws IOException {
        boolean some = false;
        for (int l = 0; l < Lanes.COUNT; l++) {
            while (true) {
                if (of[l] == null && !begin(l)) {
                    break;
                }
                try {
                    more(l);
                    some = true;
                    break;
                } catch (IOException e) {
                    gone(l);
                }
            }
        }
        return some || !last && ask(true) && fill();
    }

    private void gone(int lane) {
        Reading one = of[lane];
        if (one != null) {
            out.println(one.place + " -");
        }
        free(lane);
    }

    /** Takes the next path that can be opened. */
    private boolean begin(int lane) throws IOException {
        while (ask(false)) {
            Asked next = waiting.remove();
            try {
                of[lane] = new Reading(next.place, new FileInputStream(next.path));
                lanes.begin(lane);
                at[lane] = 0;
                end[lane] = 0;
                return true;
            } catch (IOException e) {
                out.println(next.place + " -");
            }
        }
        return false;
    }

    /** Whether a path waits. @param patient whether to wait for one */
    private boolean ask(boolean patient) throws IOException {
        while (!last && (asked.ready() || patient && waiting.isEmpty())) {
            String line = asked.readLine();
            if (line == null) {
                last = true;
            } else {
                waiting.add(new Asked(told++, line));
            }
        }
        return !waiting.isEmpty();
    }

    private void more(int lane) throws IOException {
        Reading one = of[lane];
        if (one == null || one.closing || end[lane] - at[lane] >= Lanes.BLOCK) {
            return;
        }
        byte[] own = bytes[lane];
        int rest = end[lane] - at[lane];
        System.arraycopy(own, at[lane], own, 0, rest);
        at[lane] = 0;
        int n = one.in.readNBytes(own, rest, ROOM - rest);
        one.size += n;
        end[lane] = rest + n;
        if (end[lane] < ROOM) {
            one.closing = true;
            one.in.close();
            int whole = (end[lane] + 9 + Lanes.BLOCK - 1) / Lanes.BLOCK * Lanes.BLOCK;
            Arrays.fill(own, end[lane], whole, (byte) 0);
            own[end[lane]] = (byte) 0x80;
            ByteBuffer.wrap(own).putLong(whole - 8, 8 * one.size);
            end[lane] = whole;
        }
    }
}
