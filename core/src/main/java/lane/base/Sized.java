package lane.base;

/** What knows how much memory it holds. */
public interface Sized {
    /** Bytes, near enough to keep memory within bounds. */
    long bytes();
}
