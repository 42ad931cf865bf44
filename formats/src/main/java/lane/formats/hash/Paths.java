package lane.formats.hash;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import org.jspecify.annotations.Nullable;

/** Paths that a program is told, one a line, as they come. Thread-safe. */
final class Paths {
    /** Milliseconds without another path, after which those that wait are as many as there will be. */
    private static final long PAUSE = 40;

    /** @param place among all that were told, from 0 */
    record Asked(int place, String path) {}

    private final Queue<Asked> waiting = new ArrayDeque<>();
    private int told;
    /** How many are at work. */
    private int busy;

    private boolean last;

    Paths(InputStream from) {
        Thread.ofPlatform().daemon().start(() -> {
            try (var lines = new BufferedReader(new InputStreamReader(from, StandardCharsets.UTF_8))) {
                for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                    add(line);
                }
            } catch (IOException e) {
                // It is told no more.
            }
            end();
        });
    }

    private synchronized void add(String path) {
        waiting.add(new Asked(told++, path));
        notifyAll();
    }

    private synchronized void end() {
        last = true;
        notifyAll();
    }

    /** Whoever had some is through with all of them. */
    synchronized void done() {
        busy--;
        notifyAll();
    }

    /** Whether any was told, or none will be. */
    synchronized boolean some() {
        return told > 0 || last;
    }

    /** The next one where more than so many wait; null for none. */
    synchronized @Nullable Asked next(int more) {
        return waiting.size() > more ? waiting.poll() : null;
    }

    /**
     * So many, or those that wait when no more come for a while and nobody is at work, whose answers who tells may wait for; none
     * when there are none any more.
     */
    synchronized List<Asked> together(int n) {
        try {
            while (waiting.size() < n && !last) {
                int before = told;
                boolean still = busy == 0 && !waiting.isEmpty();
                wait(still ? PAUSE : 0);
                if (still && told == before && busy == 0 && !waiting.isEmpty()) {
                    break;
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return List.of();
        }
        List<Asked> out = new ArrayList<>();
        while (out.size() < n && !waiting.isEmpty()) {
            out.add(waiting.remove());
        }
        busy += out.isEmpty() ? 0 : 1;
        return out;
    }
}
