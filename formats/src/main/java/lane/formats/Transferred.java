package lane.formats;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Run;
import lane.formats.io.AtomicFile;
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
        String name = String.valueOf(file.getFileName());
        String stem = name.substring(0, name.lastIndexOf('.'));
        String ending = name.substring(name.lastIndexOf('.'));
        var collection = new StringBuilder(
                "<?xml version=\"1.0\"?>\n<VTKFile type=\"Collection\" version=\"1.0\">\n<Collection>\n");
        List<Path> written = new ArrayList<>();
        for (int i = 0; i < times.size(); i++) {
            double share = 1.0 / times.size();
            Work stretch = work.stretch(i * share, (i + 1) * share);
            Run source = from.at(times.get(i), stretch.stretch(0, 0.1));
            String one = String.format(Locale.ROOT, "%s-%04d%s", stem, i, ending);
            MeshTransfer.Result made = one(file.resolveSibling(one), source, to, unit, how, stretch.stretch(0.1, 1));
            written.add(file.resolveSibling(one));
            collection
                    .append("<DataSet timestep=\"")
                    .append(times.get(i))
                    .append("\" file=\"")
                    .append(one.replace("&", "&amp;").replace("\"", "&quot;").replace("<", "&lt;"))
                    .append("\"/>\n");
            told.made(times.get(i), made);
        }
        collection.append("</Collection>\n</VTKFile>\n");
        if (!ending.toLowerCase(Locale.ROOT).equals(".vtu")) {
            return written.getFirst();
        }
        Path named = file.resolveSibling(stem + ".pvd");
        AtomicFile.write(named, stream -> stream.write(collection.toString().getBytes(StandardCharsets.UTF_8)));
        return named;
    }
}
