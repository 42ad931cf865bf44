package lane.formats.vtk;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Stream;
import lane.base.Work;
import lane.field.TimeSelector;
import lane.formats.grid.Blocks;
import lane.formats.grid.Dataset;
import lane.formats.grid.Nested;
import lane.formats.grid.Opening;
import lane.formats.grid.Pieces;
import lane.formats.io.FileNames;
import lane.formats.io.FormatError;

/** Files that hold no numbers themselves but refer to others: pieces of a parallel run, named blocks, times. */
final class VtkSet {
    static final Set<String> KINDS = new TreeSet<>(Set.of(
            "PUnstructuredGrid",
            "PPolyData",
            "PImageData",
            "PRectilinearGrid",
            "PStructuredGrid",
            "vtkMultiBlockDataSet",
            "vtkMultiPieceDataSet",
            "vtkPartitionedDataSet",
            "vtkPartitionedDataSetCollection",
            "Collection"));
    private static final int MOST_FILES = 100_000;
    private static final int MOST_AGAIN = 1000;

    /** The sets that this thread is reading, one in the other, and what they referred to so far. */
    private static final ThreadLocal<Visits> VISITS = ThreadLocal.withInitial(Visits::new);

    private static final class Visits {
        private int depth;
        private final Set<Path> files = new HashSet<>();
        private int all;

        /** Sets that refer to sets let a few small files ask for one of them a million times. */
        void to(Path file) {
            files.add(file);
            if (++all > MOST_FILES || all - files.size() > MOST_AGAIN) {
                throw FormatError.tooLarge("it refers to " + all + " files in all, " + (all - files.size())
                        + " of them again, which is more than is read at once");
            }
        }
    }

    private VtkSet() {}

    static Dataset read(XmlParts xml, Path file, TimeSelector moment, Opening opening, Work work, Nested nested) {
        return xml.fileType.equals("Collection")
                ? overTime(xml.leaves, file, moment, opening, work, nested)
                : within(() -> xml.fileType.startsWith("P")
                        ? parallel(xml, file, opening, work, nested)
                        : blocks(xml.leaves, file, opening, work, nested));
    }

    /** One time of files that are named with their times; several parts at one time are blocks. */
    static Dataset overTime(
            List<XmlParts.Leaf> named, Path file, TimeSelector moment, Opening opening, Work work, Nested nested) {
        return within(() -> series(byTime(named), file, moment, opening, work, nested));
    }

    private static Dataset within(Supplier<Dataset> read) {
        Visits visits = VISITS.get();
        if (visits.depth > 5) {
            throw new FormatError("it refers to files that refer to files, more than five deep");
        }
        visits.depth++;
        try {
            return read.get();
        } finally {
            if (--visits.depth == 0) {
                VISITS.remove();
            }
        }
    }

    /** The place of a referred file: below the folder of the one that refers to it, and nowhere else. */
    private static Path below(Path file, String reference) {
        try {
            Path folder =
                    Objects.requireNonNull(file.toAbsolutePath().normalize().getParent());
            Path there = folder.resolve(reference.replace('\\', '/')).normalize();
            boolean inside = there.startsWith(folder)
                    && (!java.nio.file.Files.exists(there) || there.toRealPath().startsWith(folder.toRealPath()));
            if (!inside) {
                throw new FormatError("it refers to \"" + reference + "\", which is outside its folder");
            }
            return there;
        } catch (java.nio.file.InvalidPathException | IOException e) {
            throw new FormatError("it refers to \"" + reference + "\", which is no file that can be reached");
        }
    }

    private static Dataset parallel(XmlParts xml, Path file, Opening opening, Work work, Nested nested) {
        List<String> remarks = new ArrayList<>();
        var pieces = new Pieces(remarks);
        var files = new LinkedHashSet<Path>();
        int named = 0;
        int nameless = 0;
        for (XmlParts.Piece piece : xml.pieces) {
            String source = piece.attributes.get("Source");
            if (source == null || source.isBlank()) {
                nameless++;
                continue;
            }
            String extent = piece.attributes.get("Extent");
            if (!opening.wants(named++)) {
                if (extent != null) {
                    pieces.elsewhere(GridBuilder.extent(extent));
                }
                continue;
            }
            work.poll();
            work.progress("Reading " + source, (double) named / xml.pieces.size());
            Path there = below(file, source);
            VISITS.get().to(there);
            Dataset one = VtkXmlReader.read(there, TimeSelector.LAST, opening.inside(), work, nested);
            files.add(there);
            files.addAll(one.files());
            one.remarks().stream().filter(r -> !remarks.contains(r)).forEach(remarks::add);
            pieces.add(one.mesh(), one.fields(), extent == null ? null : GridBuilder.extent(extent));
        }
        if (named == 0) {
            throw new FormatError("it refers to no piece");
        }
        if (nameless > 0) {
            remarks.add(nameless + " of its pieces name no file and were not read.");
        }
        return pieces.join().from(files).in(named);
    }

    /** The largest blocks become the mesh; those of one dimension less become named surfaces. */
    private static Dataset blocks(List<XmlParts.Leaf> leaves, Path file, Opening opening, Work work, Nested nested) {
        if (leaves.isEmpty()) {
            throw new FormatError("it refers to no block");
        }
        if (leaves.size() > MOST_FILES) {
            throw FormatError.tooLarge("it refers to " + leaves.size() + " files, more than are read at once");
        }
        List<Dataset> all = new ArrayList<>();
        List<String> names = new ArrayList<>();
        var files = new LinkedHashSet<Path>();
        boolean one = leaves.size() == 1;
        for (int i = 0; i < leaves.size(); i++) {
            if (!one && !opening.wants(i)) {
                continue;
            }
            work.poll();
            work.progress("Reading " + leaves.get(i).file(), (double) i / leaves.size());
            Path there = below(file, leaves.get(i).file());
            VISITS.get().to(there);
            Dataset read = nested.read(there, one ? opening : opening.inside(), work);
            files.add(there);
            files.addAll(read.files());
            all.add(read);
            names.add(name(leaves.get(i)));
        }
        return Blocks.join(names, all).from(files).in(one ? all.getFirst().pieces() : leaves.size());
    }

    private static String name(XmlParts.Leaf leaf) {
        if (!leaf.name().isBlank()) {
            return leaf.name();
        }
        return leaf.blocks().isEmpty()
                ? FileNames.stem(leaf.file())
                : leaf.blocks().getLast();
    }

    private static Map<Double, List<XmlParts.Leaf>> byTime(List<XmlParts.Leaf> named) {
        Map<Double, List<XmlParts.Leaf>> byTime = new HashMap<>();
        for (XmlParts.Leaf leaf : named) {
            byTime.computeIfAbsent(Double.isNaN(leaf.time()) ? 0.0 : leaf.time(), t -> new ArrayList<>())
                    .add(leaf);
        }
        return byTime;
    }

    /** All files that a set refers to; none for what is no set. */
    static List<Path> named(XmlParts xml, Path file) {
        return Stream.concat(
                        xml.leaves.stream().map(XmlParts.Leaf::file),
                        xml.pieces.stream().flatMap(p -> Optional.ofNullable(p.attributes.get("Source")).stream()))
                .filter(name -> !name.isBlank())
                .map(name -> below(file, name))
                .toList();
    }

    /** The files of each time of a collection; none for another kind of set. */
    static Map<Double, List<Path>> files(XmlParts xml, Path file) {
        return xml.fileType.equals("Collection") ? files(xml.leaves, file) : Map.of();
    }

    static Map<Double, List<Path>> files(List<XmlParts.Leaf> named, Path file) {
        var out = new HashMap<Double, List<Path>>();
        byTime(named)
                .forEach((time, leaves) -> out.put(
                        time, leaves.stream().map(l -> below(file, l.file())).toList()));
        return out;
    }

    private static Dataset series(
            Map<Double, List<XmlParts.Leaf>> byTime,
            Path file,
            TimeSelector moment,
            Opening opening,
            Work work,
            Nested nested) {
        if (byTime.isEmpty()) {
            throw new FormatError("it refers to no file");
        }
        List<Double> times = byTime.keySet().stream().sorted().toList();
        double time = times.get(moment.in(times));
        return blocks(Objects.requireNonNull(byTime.get(time)), file, opening, work, nested)
                .at(times, time);
    }
}
