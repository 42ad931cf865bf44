package lane.desk;

import java.nio.file.Path;
import java.util.List;

/** What the window can be turned to. Whatever is open is ended first; what is not saved of it is kept and offered again. */
public interface Openings {
    /** The page of recent studies. */
    void startPage();

    /** A new study with these files in it; none for an empty one. */
    void fresh(List<Path> files);

    void study(Path file);

    /** The demo study, whose files are made first. */
    void demo();

    /** A folder, as the system shows folders. */
    default void folder(Path folder) {}

    /** Of a session without a window of its own, as tests have. */
    Openings NONE = new Openings() {
        @Override
        public void startPage() {}

        @Override
        public void fresh(List<Path> files) {}

        @Override
        public void study(Path file) {}

        @Override
        public void demo() {}
    };
}
