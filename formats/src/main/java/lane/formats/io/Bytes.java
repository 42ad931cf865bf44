package lane.formats.io;

import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** A mapped file read from front to back, as words, lines or numbers. */
public final class Bytes {
    public final MemorySegment all;
    public long at;

    private Bytes(MemorySegment all) {
        this.all = all;
    }

    public static <T> T read(Path file, Function<Bytes, T> reader) {
        return FileErrors.of(file, () -> {
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ);
                    Arena arena = Arena.ofConfined()) {
                return reader.apply(new Bytes(channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size(), arena)));
            } catch (IOException e) {
                throw FileHash.unreadable(file, e);
            }
        });
    }

    public long left() {
        return all.byteSize() - at;
    }

    /** The byte read last; -1 at the beginning. */
    public int before() {
        return at > 0 ? all.get(ValueLayout.JAVA_BYTE, at - 1) & 0xff : -1;
    }

    /** The byte to be read next; -1 at the end. */
    public int peek() {
        return at < all.byteSize() ? all.get(ValueLayout.JAVA_BYTE, at) & 0xff : -1;
    }

    /** The next line without its end; null at the end of the file. */
    public @Nullable String line() {
        if (left() == 0) {
            return null;
        }
        var out = new StringBuilder();
        for (int c = peek(); c >= 0; c = peek()) {
            at++;
            if (c == '\n') {
                break;
            }
            if (c != '\r') {
                out.append((char) c);
            }
            if (out.length() > 1 << 20) {
                throw new FormatError("it has a line of more than a million characters");
            }
        }
        return out.toString();
    }

    /** Passes blanks; whether a line ended among them, or the file. */
    public boolean endsLine() {
        boolean ended = false;
        while (peek() >= 0 && peek() <= ' ') {
            ended |= peek() == '\n' || peek() == '\r';
            at++;
        }
        return ended || peek() < 0;
    }

    /** The next word; empty at the end. */
    public String word() {
        while (peek() >= 0 && peek() <= ' ') {
            at++;
        }
        var out = new StringBuilder();
        while (peek() > ' ' && out.length() < 400) {
            out.append((char) peek());
            at++;
        }
        return out.toString();
    }

    public static double real(String text) {
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException e) {
            throw new FormatError("it gives \"" + (text.length() > 40 ? text.substring(0, 40) + "…" : text)
                    + "\" where a number belongs");
        }
    }

    public static int whole(String text) {
        try {
            return Integer.parseInt(text);
        } catch (NumberFormatException e) {
            throw new FormatError("it gives \"" + (text.length() > 40 ? text.substring(0, 40) + "…" : text)
                    + "\" where a whole number belongs");
        }
    }
}
