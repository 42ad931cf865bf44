package lane.formats.vtk;

/** What is wrong inside a file; the reader adds the file's name and what to do. */
final class VtkError extends RuntimeException {
    private static final long serialVersionUID = 1L;

    VtkError(String what) {
        super(what);
    }
}
