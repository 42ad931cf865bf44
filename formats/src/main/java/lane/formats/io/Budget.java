package lane.formats.io;

import java.util.Locale;

/**
 * How much a packed file may unpack to in all. Coordinates of a sound mesh do not shrink a hundredfold, single arrays
 * (a field of zeros, the shapes of equal cells) well may: so the sum over the file counts, not the single array. What
 * looks sound and is not stays within this.
 */
public final class Budget {
    /** Unpacked bytes a byte of the file. */
    public static final int MOST = 100;

    private static final long FREE = 64L << 20;

    private final long file;
    private long taken;

    public Budget(long fileBytes) {
        file = fileBytes;
    }

    /**
     * Says that so many bytes more are to be unpacked.
     *
     * @throws FormatError when that is more than a sound file holds
     */
    public synchronized void take(long bytes) {
        taken = Math.addExact(taken, bytes);
        if (taken > Math.max(FREE, MOST * file)) {
            throw FormatError.tooLarge(String.format(
                    Locale.ROOT,
                    "it has %d bytes and unpacks to more than %.0f MB, over %d times its size, as no sound result does;"
                            + " if it is right, write it again without compression",
                    file,
                    taken / 1e6,
                    MOST));
        }
    }
}
