package lane.formats;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import lane.base.Work;
import lane.formats.io.AtomicFile;
import lane.formats.io.XmlText;

/** A file for each stored time, STEM-0000 and so on, and for .vtu STEM.pvd that names them with their times. */
final class FilesOverTime {
    private FilesOverTime() {}

    /** Writes the file of one time. */
    interface Written {
        void at(double time, Path file, Work work);
    }

    /**
     * @param file that the names are made of
     * @return what can be opened: the collection, or the file of the first time
     */
    static Path write(Path file, List<Double> times, Written each, Work work) {
        String name = String.valueOf(file.getFileName());
        String stem = name.substring(0, name.lastIndexOf('.'));
        String ending = name.substring(name.lastIndexOf('.'));
        var collection = new StringBuilder(
                "<?xml version=\"1.0\"?>\n<VTKFile type=\"Collection\" version=\"1.0\">\n<Collection>\n");
        double share = 1.0 / times.size();
        for (int i = 0; i < times.size(); i++) {
            work.poll();
            String one = String.format(Locale.ROOT, "%s-%04d%s", stem, i, ending);
            each.at(times.get(i), file.resolveSibling(one), work.stretch(i * share, (i + 1) * share));
            collection
                    .append("<DataSet timestep=\"")
                    .append(times.get(i))
                    .append("\" file=\"")
                    .append(XmlText.of(one))
                    .append("\"/>\n");
        }
        collection.append("</Collection>\n</VTKFile>\n");
        if (!ending.toLowerCase(Locale.ROOT).equals(".vtu")) {
            return file.resolveSibling(String.format(Locale.ROOT, "%s-%04d%s", stem, 0, ending));
        }
        Path named = file.resolveSibling(stem + ".pvd");
        AtomicFile.write(named, stream -> stream.write(collection.toString().getBytes(StandardCharsets.UTF_8)));
        return named;
    }
}
