package lane.formats.io;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.concurrent.atomic.LongAdder;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.provenance.Provenance;

/** The identity of a file by content. */
public final class FileHash {
    private static final int SLICE = 1 << 13;
    private static final int BLOCK = 1 << 18;

    /** The most bytes in a second that were hashed here so far; two threads at once may lose one of two numbers. */
    private static volatile double rate;

    private static final LongAdder HASHED = new LongAdder();

    private FileHash() {}

    /** How many bytes it hashed so far. */
    public static long hashed() {
        return HASHED.sum();
    }

    /** How many bytes in a second this program hashes at its best, without reading them; 0 as long as it hashed none. */
    public static double rate() {
        return rate;
    }

    /**
     * Size and SHA-256 of a file.
     *
     * @param shown the path as the trail names it
     */
    public static Provenance.Input of(Path file, String shown) {
        return of(file, shown, Work.QUIET);
    }

    /** The same, to be cancelled between megabytes. */
    public static Provenance.Input of(Path file, String shown, Work work) {
        try (InputStream in = Files.newInputStream(file)) {
            var digest = digest();
            byte[] block = new byte[BLOCK];
            long size = 0;
            for (int n = in.read(block); n >= 0; n = in.read(block)) {
                // In small slices: what is called often is soon compiled to the processor's own instructions for many
                // blocks.
                long began = System.nanoTime();
                for (int at = 0; at < n; at += SLICE) {
                    digest.update(block, at, Math.min(SLICE, n - at));
                }
                if (n == block.length) {
                    rate = Math.max(rate, 1e9 * n / Math.max(1, System.nanoTime() - began));
                }
                size += n;
                HASHED.add(n);
                work.poll();
            }
            return new Provenance.Input(shown, hex(digest), size);
        } catch (IOException e) {
            throw unreadable(file, e);
        }
    }

    /** The same of bytes that were read from it. */
    public static Provenance.Input of(byte[] bytes, String shown) {
        var digest = digest();
        long began = System.nanoTime();
        for (int at = 0; at < bytes.length; at += SLICE) {
            digest.update(bytes, at, Math.min(SLICE, bytes.length - at));
        }
        if (bytes.length >= BLOCK) {
            rate = Math.max(rate, 1e9 * bytes.length / Math.max(1, System.nanoTime() - began));
        }
        HASHED.add(bytes.length);
        return new Provenance.Input(shown, hex(digest), bytes.length);
    }

    /** SHA-256 of a file's bytes. */
    public static String sha256(Path file) throws IOException {
        var digest = digest();
        try (InputStream in = new java.security.DigestInputStream(Files.newInputStream(file), digest)) {
            in.transferTo(java.io.OutputStream.nullOutputStream());
        }
        return hex(digest);
    }

    static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    static String hex(MessageDigest digest) {
        return HexFormat.of().formatHex(digest.digest());
    }

    /** SHA-256 of a text, in UTF-8. */
    public static String ofText(String text) {
        var digest = digest();
        digest.update(text.getBytes(java.nio.charset.StandardCharsets.UTF_8));
        return hex(digest);
    }

    /** The sentence for a file that cannot be opened. */
    public static LaneException unreadable(Path file, IOException cause) {
        String why =
                switch (cause) {
                    case java.nio.file.NoSuchFileException _ -> "it does not exist; check the path";
                    case java.nio.file.AccessDeniedException _ -> "reading it is not allowed; check its permissions";
                    case java.nio.charset.CharacterCodingException _ ->
                        "it is no text in UTF-8; it is damaged, or of another kind than its ending says";
                    default -> Files.isDirectory(file) ? "it is a folder; give a file" : cause.getMessage();
                };
        return new FileException(file, Fault.NOT_READ, "The file " + file + " cannot be read: " + why + ".", cause);
    }
}
