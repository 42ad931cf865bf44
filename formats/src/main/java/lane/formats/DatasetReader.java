package lane.formats;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.formats.grid.Opening;
import lane.formats.hdf.CgnsReader;
import lane.formats.hdf.VtkHdfReader;
import lane.formats.hdf.XdmfReader;
import lane.formats.io.FileErrors;
import lane.formats.io.FileNames;
import lane.formats.io.FileStamp;
import lane.formats.surface.ObjReader;
import lane.formats.surface.PlyReader;
import lane.formats.surface.StlReader;
import lane.formats.vtk.LegacyReader;
import lane.formats.vtk.TimeIndex;
import lane.formats.vtk.VtkXmlReader;

/** Reads a mesh with fields from a file of any of the open formats, told by the file's ending. */
public final class DatasetReader {
    /** Endings of files that hold a mesh with fields. */
    public static final List<String> RUNS = List.of(
            "vtu", "vti", "vtr", "vts", "vtm", "vtmb", "vtpd", "vtpc", "pvtu", "pvti", "pvtr", "pvts", "pvtp", "pvd",
            "series", "vtk", "vtkhdf", "hdf", "xdmf", "xmf", "cgns");

    /** Endings of files that hold a surface: a part of a run, or a run of its own. */
    public static final List<String> SURFACES = List.of("vtp", "stl", "ply", "obj");

    /** Endings of formats that keep a run in pieces, which can be read one after the other. */
    private static final List<String> PIECES = List.of(
            "pvtu", "pvti", "pvtr", "pvts", "pvd", "series", "vtm", "vtmb", "vtpd", "vtpc", "vtkhdf", "hdf", "h5",
            "hdf5", "xdmf", "xmf", "cgns");

    private DatasetReader() {}

    /** Whether a file's ending is one of a mesh's. */
    static boolean knows(Path file) {
        String ending = FileNames.ending(file);
        return RUNS.contains(ending) || SURFACES.contains(ending) || PIECES.contains(ending);
    }

    /** Whether a file is of a format that may keep a run in pieces. */
    public static boolean inPieces(Path file) {
        return PIECES.contains(FileNames.ending(file));
    }

    /** The files of each time, of what has files of their own for its times and says so; none for all else. */
    static Map<Double, List<Path>> files(Path file) {
        return switch (FileNames.ending(file)) {
            case "pvd" -> VtkXmlReader.files(file);
            case "series" -> TimeIndex.files(file);
            default -> Map.of();
        };
    }

    /** Endings of files that refer to others by name. */
    private static final List<String> SETS =
            List.of("pvtu", "pvti", "pvtr", "pvts", "pvtp", "pvd", "series", "vtm", "vtmb", "vtpd", "vtpc");

    /** Whether a file is of a format that refers to others by name. */
    public static boolean refers(Path file) {
        return SETS.contains(FileNames.ending(file));
    }

    /** The files that a file refers to, which are read with it; none where it is damaged. */
    public static List<Path> named(Path file) {
        try {
            return FileNames.ending(file).equals("series")
                    ? files(file).values().stream().flatMap(List::stream).toList()
                    : refers(file) ? VtkXmlReader.named(file) : List.of();
        } catch (LaneException e) {
            return List.of();
        }
    }

    /**
     * Reads the last time of what is stored.
     *
     * @throws LaneException with one sentence: what is wrong with the file and what to do
     */
    public static Dataset read(Path file, Work work) {
        return read(file, TimeSelector.LAST, work);
    }

    /**
     * Reads one time of what is stored, and nothing of the others.
     *
     * @param file a file, or a series over time: a path whose file name has one {@code *}
     * @throws LaneException with one sentence: what is wrong with the file and what to do
     */
    public static Dataset read(Path file, TimeSelector moment, Work work) {
        return open(file, moment, Opening.WHOLE, work);
    }

    /**
     * Opens one time of what is stored: its mesh is read, and the numbers of its fields when they are asked for, where the
     * format lets them be found without reading all.
     *
     * @param file a file, or a series over time: a path whose file name has one {@code *}
     * @throws LaneException with one sentence: what is wrong with the file and what to do
     */
    public static Dataset open(Path file, TimeSelector moment, Opening opening, Work work) {
        if (Series.is(file)) {
            return Series.of(file).open(moment, opening, work);
        }
        // What is no file, such as a pipe, might never end.
        FileStamp.of(file);
        if (FileKinds.table(file)) {
            throw new LaneException("The file " + FileNames.brief(file) + " is a table and no run; give a run ("
                    + String.join(", ", RUNS) + "), or use it as a table.");
        }
        Dataset read =
                switch (FileNames.ending(file)) {
                    case "vtk" -> LegacyReader.read(file, work);
                    case "stl" -> StlReader.read(file, work);
                    case "ply" -> PlyReader.read(file, work);
                    case "obj" -> ObjReader.read(file, work);
                    case "xdmf", "xmf" -> XdmfReader.read(file, moment, opening, work);
                    case "cgns" -> CgnsReader.read(file, moment, opening, work);
                    case "vtkhdf", "hdf", "h5", "hdf5" -> VtkHdfReader.read(file, moment, opening, work);
                    case "series" -> TimeIndex.read(file, moment, opening, work, DatasetReader::last);
                    default -> VtkXmlReader.read(file, moment, opening, work, DatasetReader::last);
                };
        if (read.times().size() == 1) {
            FileErrors.of(file, () -> moment.in(read.times()));
        }
        return read;
    }

    /** A file that another one refers to. */
    private static Dataset last(Path file, Opening opening, Work work) {
        return open(file, TimeSelector.LAST, opening, work);
    }
}
