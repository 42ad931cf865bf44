package lane.formats;

import java.nio.file.Path;
import java.util.List;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Run;
import lane.formats.io.FileNames;
import lane.transfer.Bringing;
import lane.transfer.MeshTransfer;

/** Writes a mesh with the fields of another run: one file, or one a stored time and a collection that names them. */
public final class Transferred {
    private Transferred() {}

    /** The source at a stored time. */
    public interface Opened {
        Run at(double time, Work work);
    }

    /** Is told of each time when its file is written. */
    public interface Told {
        void made(double time, MeshTransfer.Result result);
    }

    /** @throws LaneException when a mesh with fields is not written into a file of that name */
    public static void check(Path file) {
        String ending = FileNames.ending(file);
        if (!ending.equals("vtu") && !ending.equals("xdmf")) {
            throw new LaneException(
                    "The target is written as .vtu or .xdmf; \"" + file.getFileName() + "\" ends otherwise.");
        }
    }

    /**
     * One time: the file itself.
     *
     * @param unit of the coordinates that are written, in that of the target
     */
    public static MeshTransfer.Result one(Path file, Run from, Run to, double unit, Bringing how, Work work) {
        check(file);
        MeshTransfer.Result made = how.of(from, to, work);
        Run run = made.run(to);
        RunWriter.write(
                file,
                unit == 1 ? run : new Run(run.mesh().scaled(1 / unit), run.fields(), List.of(), List.of(), List.of()));
        return made;
    }

    /**
     * Every time: STEM-0000 and so on, and of .vtu STEM.pvd that names them.
     *
     * @param unit of the coordinates that are written, in that of the target
     * @return what can be opened: the collection, or the file of the first time
     */
    public static Path all(
            Path file, List<Double> times, Opened from, Run to, double unit, Bringing how, Told told, Work work) {
        check(file);
        return FilesOverTime.write(
                file,
                times,
                (t, one, w) -> told.made(t, one(one, from.at(t, w.stretch(0, 0.1)), to, unit, how, w.stretch(0.1, 1))),
                work);
    }
}
