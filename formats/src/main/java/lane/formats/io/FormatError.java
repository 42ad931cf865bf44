package lane.formats.io;

import lane.base.Fault;

/** What is wrong inside a file; the reader adds the file's name and what to do. */
public final class FormatError extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final Fault fault;

    /** A content that contradicts itself or its format. */
    public FormatError(String what) {
        this(Fault.DAMAGED, what);
    }

    private FormatError(Fault fault, String what) {
        super(what);
        this.fault = fault;
    }

    /** A sound content of a kind that is not read here. */
    public static FormatError unsupported(String what) {
        return new FormatError(Fault.UNSUPPORTED, what);
    }

    /** More than the machine is to be burdened with. */
    public static FormatError tooLarge(String what) {
        return new FormatError(Fault.TOO_LARGE, what);
    }

    Fault fault() {
        return fault;
    }

    /** What is wrong. */
    @Override
    public String getMessage() {
        return String.valueOf(super.getMessage());
    }
}
