package lane.formats.piece;

import lane.formats.io.FileStamp;

/** The files that answers rest on, by the paths that the study names them by. */
public interface InputFiles {
    /** How one looks now. */
    FileStamp stamp(String path);

    /** How one looked when it was read; how it looks now where it was not. */
    FileStamp read(String path);

    /** The hash of its content as it is now. */
    String content(String path);

    /** Told when a time was known from before. */
    void oneKnown();
}
