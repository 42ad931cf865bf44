package lane.formats.io;

/** What is wrong inside a file; the reader adds the file's name and what to do. */
public final class FormatError extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public FormatError(String what) {
        super(what);
    }

    /** What is wrong. */
    @Override
    public String getMessage() {
        return String.valueOf(super.getMessage());
    }
}
