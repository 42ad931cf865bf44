package lane.formats.hdf;

import io.jhdf.HdfFile;
import io.jhdf.api.Group;
import io.jhdf.api.Node;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.grid.Blocks;
import lane.formats.grid.CellCodes;
import lane.formats.grid.Dataset;
import lane.formats.grid.Opening;
import lane.formats.grid.Pieces;
import lane.formats.grid.Structured;
import lane.formats.io.FileStamp;
import lane.formats.io.FormatError;
import lane.mesh.Mesh;
import lane.quantity.FieldUnit;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Reads VTKHDF files: unstructured grids, surfaces and images with parts and times, and blocks of them. */
public final class VtkHdfReader {
    private final TimeSelector moment;
    private final Work work;
    private final List<String> remarks = new ArrayList<>();

    private final Opening opening;
    private final FileStamp stamp;

    private VtkHdfReader(FileStamp stamp, TimeSelector moment, Opening opening, Work work) {
        this.stamp = stamp;
        this.moment = moment;
        this.opening = opening;
        this.work = work;
    }

    public static Dataset read(Path file, TimeSelector moment, Opening opening, Work work) {
        return Hdf.read(file, hdf -> new VtkHdfReader(FileStamp.of(file), moment, opening, work).all(hdf));
    }

    private Dataset all(HdfFile hdf) {
        Group root = Hdf.group(hdf, "VTKHDF");
        if (root == null) {
            throw new FormatError(
                    hdf.getChildren().containsKey("CGNSLibraryVersion")
                            ? "it is a CGNS file; name it .cgns"
                            : "it has no group \"VTKHDF\"");
        }
        Dataset made = one(root);
        return made.assuming().saying(Hdf.notes());
    }

    private Dataset one(Group group) {
        work.poll();
        String type = Hdf.text(group, "Type");
        return switch (type) {
            case "UnstructuredGrid", "PolyData" -> grid(group, type.equals("PolyData"));
            case "ImageData" -> image(group);
            case "MultiBlockDataSet", "PartitionedDataSetCollection", "PartitionedDataSet" -> blocks(group);
            default -> throw FormatError.unsupported("it holds a \"" + type + "\", which is not read");
        };
    }

    private Dataset blocks(Group group) {
        List<String> names = new ArrayList<>();
        List<Group> blocks = new ArrayList<>();
        for (String name : group.getChildren().keySet()) {
            if (Hdf.optional(group, name) instanceof Group block
                    && !name.equals("Assembly")
                    && !Hdf.text(block, "Type").isEmpty()) {
                names.add(name);
                blocks.add(block);
            }
        }
        if (blocks.isEmpty()) {
            throw new FormatError("it has no block");
        }
        List<Dataset> all = new ArrayList<>();
        List<String> read = new ArrayList<>();
        boolean before = within;
        for (int k = 0; k < blocks.size(); k++) {
            if (within || blocks.size() == 1 || opening.wants(k)) {
                within = before || blocks.size() > 1;
                all.add(one(blocks.get(k)));
                read.add(names.get(k));
                within = before;
            }
        }
        Dataset made =
                Blocks.join(read, all).in(blocks.size() == 1 ? all.getFirst().pieces() : blocks.size());
        Dataset timed =
                all.stream().filter(d -> !d.times().isEmpty()).findFirst().orElse(null);
        return timed == null ? made : made.at(timed.times(), timed.time());
    }

    /** Which step is read and where it begins in the arrays. */
    private static final class Step {
        List<Double> times = List.of();
        double time = Double.NaN;
        int index = -1;

        @Nullable
        Group steps;

        static Step of(Group group, TimeSelector moment) {
            var s = new Step();
            s.steps = Hdf.group(group, "Steps");
            if (s.steps != null) {
                double[] values = Hdf.doubles(Hdf.values(Hdf.need(s.steps, "Values")));
                if (values.length > 0) {
                    s.times = Arrays.stream(values).boxed().toList();
                    s.index = moment.in(s.times);
                    s.time = values[s.index];
                }
            }
            return s;
        }

        int of(String name, int otherwise) {
            io.jhdf.api.Dataset d = steps == null || index < 0 ? null : Hdf.data(steps, name);
            return d == null ? otherwise : Hdf.ints(d)[row(d)];
        }

        /** Offsets of a surface stand in four columns, one a kind. */
        int of(String name, int column, int otherwise) {
            io.jhdf.api.Dataset d = steps == null || index < 0 ? null : Hdf.data(steps, name);
            if (d == null) {
                return otherwise;
            }
            int wide = d.getDimensions().length > 1 ? d.getDimensions()[1] : 1;
            return Hdf.ints(d)[index * wide + Math.min(column, wide - 1)];
        }

        private int row(io.jhdf.api.Dataset d) {
            int wide = d.getDimensions().length > 1 ? d.getDimensions()[1] : 1;
            return index * wide;
        }

        int field(String kind, String name, int otherwise) {
            Group g = steps == null || index < 0 ? null : Hdf.group(steps, kind);
            io.jhdf.api.Dataset d = g == null ? null : Hdf.data(g, name);
            return d == null ? otherwise : Hdf.ints(d)[index];
        }
    }

    /** Names that a grid's group may have. */
    private static final Set<String> KNOWN = Set.of(
            "PointData",
            "CellData",
            "FieldData",
            "Steps",
            "Points",
            "Connectivity",
            "Offsets",
            "Types",
            "NumberOfPoints",
            "NumberOfCells",
            "NumberOfConnectivityIds",
            "NumberOfParts",
            "FaceConnectivity",
            "FaceOffsets",
            "NumberOfFaces",
            "NumberOfFaceConnectivityIds",
            "NumberOfPolyhedronToFaceIds",
            "PolyhedronOffsets",
            "PolyhedronToFaces",
            "PolyhedronToFaceIdsOffsets",
            "PolyhedronFacesOffsets",
            "Vertices",
            "Lines",
            "Polygons",
            "Strips");

    private void unknown(Group group) {
        group.getChildren().keySet().stream()
                .filter(n -> !KNOWN.contains(n))
                .forEach(n ->
                        remarks.add(Plain.quoted(n) + " beside its arrays is no name that is known and was not read."));
    }

    private Dataset grid(Group group, boolean surface) {
        unknown(group);
        Step step = Step.of(group, moment);
        int[] pointCounts = Hdf.ints(Hdf.need(group, "NumberOfPoints"));
        int parts = step.of(
                "NumberOfParts", step.index < 0 || pointCounts.length < step.times.size() ? pointCounts.length : 1);
        int firstPart = step.of("PartOffsets", 0);
        io.jhdf.api.Dataset points = Hdf.need(group, "Points");
        int pointAt = step.of("PointOffsets", 0);
        String[] kinds = surface ? new String[] {"Vertices", "Lines", "Polygons", "Strips"} : new String[] {""};
        int[] cellAt = new int[kinds.length];
        int[] idAt = new int[kinds.length];
        int[][] cellCounts = new int[kinds.length][];
        int[][] idCounts = new int[kinds.length][];
        var offsets = new io.jhdf.api.Dataset[kinds.length];
        var ids = new io.jhdf.api.Dataset[kinds.length];
        io.jhdf.api.Dataset codes = surface ? null : Hdf.need(group, "Types");
        for (int k = 0; k < kinds.length; k++) {
            Group from = surface ? Hdf.group(group, kinds[k]) : group;
            if (from == null) {
                throw new FormatError("it lacks the group \"" + kinds[k] + "\"");
            }
            cellCounts[k] = Hdf.ints(Hdf.need(from, "NumberOfCells"));
            idCounts[k] = Hdf.ints(Hdf.need(from, "NumberOfConnectivityIds"));
            offsets[k] = Hdf.need(from, "Offsets");
            ids[k] = Hdf.need(from, "Connectivity");
            cellAt[k] = step.of("CellOffsets", k, 0);
            idAt[k] = step.of("ConnectivityIdOffsets", k, 0);
        }
        var pieces = new Pieces(remarks);
        int cellsBefore = 0;
        int pointsBefore = 0;
        for (int p = firstPart; p < firstPart + parts; p++) {
            work.poll();
            int n = pointCounts[p];
            if (n < 0 || pointAt < 0 || n > points.getSize() / 3 - pointAt) {
                throw new FormatError("part " + p + " claims " + n + " points, more than its array holds");
            }
            var part =
                    new Part(p, n, pointAt, cellAt.clone(), idAt.clone(), column(cellCounts, p), column(idCounts, p));
            int cells = Arrays.stream(part.cells).sum();
            for (int k = 0; k < kinds.length; k++) {
                cellAt[k] += part.cells[k];
                idAt[k] += part.ids[k];
            }
            pointAt += n;
            pointsBefore += n;
            cellsBefore += cells;
            if (!within && !opening.wants(p - firstPart)) {
                continue;
            }
            Object looks = List.of(stamp, group.getPath(), part.key());
            Grid grid = opening.grids().of(looks, () -> {
                List<String> before = Hdf.notes();
                Grid made = grid(group, surface, points, offsets, ids, codes, part);
                List<String> said = new ArrayList<>(made.remarks);
                said.addAll(Hdf.notes(before));
                return new Grid(made.made, said);
            });
            remarks.addAll(grid.remarks);
            List<Field> fields = new ArrayList<>();
            fields(fields, group, step, "PointData", Field.At.NODE, pointsBefore - n, n, null);
            fields(fields, group, step, "CellData", Field.At.CELL, cellsBefore - cells, cells, grid.made.source());
            pieces.add(grid.made.mesh(), fields);
        }
        if (step.index < 0) {
            unused("Points", points, pointsBefore);
            if (codes != null) {
                unused("Types", codes, cellsBefore);
            }
        }
        Dataset out = pieces.join().in(parts);
        return step.times.isEmpty() ? out : out.at(step.times, step.time);
    }

    /** Whether one of several blocks is being read, which count as the pieces. */
    private boolean within;

    /** Without steps every entry of an array belongs to a part. */
    private void unused(String name, io.jhdf.api.Dataset array, int used) {
        int held = array.getDimensions()[0];
        if (held > used) {
            remarks.add("Its array \"" + name + "\" has " + held + " entries, of which its counts use " + used + ".");
        }
    }

    /** The mesh of a part, with what its reader wants known. */
    private record Grid(CellCodes.Made made, List<String> remarks) {}

    private static int[] column(int[][] counts, int part) {
        return Arrays.stream(counts).mapToInt(c -> c[part]).toArray();
    }

    /**
     * Where a part stands in the arrays.
     *
     * @param cellAt and {@code idAt}: where its cells and their node numbers begin, for each kind
     */
    private record Part(int number, int points, int pointAt, int[] cellAt, int[] idAt, int[] cells, int[] ids) {
        Object key() {
            return List.of(number, points, pointAt, list(cellAt), list(idAt), list(cells), list(ids));
        }

        private static List<Integer> list(int[] array) {
            return Arrays.stream(array).boxed().toList();
        }
    }

    private Grid grid(
            Group group,
            boolean surface,
            io.jhdf.api.Dataset points,
            io.jhdf.api.Dataset[] offsets,
            io.jhdf.api.Dataset[] ids,
            io.jhdf.api.@Nullable Dataset codes,
            Part part) {
        int p = part.number;
        int n = part.points;
        double[] xyz = Hdf.doubles(Hdf.rows(points, part.pointAt, n, 3));
        int kinds = part.cells.length;
        int cells = 0;
        int size = 0;
        for (int k = 0; k < kinds; k++) {
            cells = Math.addExact(cells, part.cells[k]);
            size = Math.addExact(size, part.ids[k]);
            if (part.cells[k] < 0
                    || part.ids[k] < 0
                    || part.cells[k] >= offsets[k].getSize()
                    || part.ids[k] > ids[k].getSize()) {
                throw new FormatError("part " + p + " claims " + part.cells[k] + " cells and " + part.ids[k]
                        + " node numbers, more than its arrays hold");
            }
        }
        int[] begins = new int[cells + 1];
        int[] nodes = new int[size];
        int[] kind = new int[cells];
        int c = 0;
        int at = 0;
        for (int k = 0; k < kinds; k++) {
            // Each part before this one has one entry more in the offsets than cells.
            int[] begin = part.cells[k] == 0
                    ? new int[1]
                    : Hdf.ints(Hdf.rows(offsets[k], part.cellAt[k] + p, part.cells[k] + 1, 1), offsets[k]);
            int[] own =
                    part.ids[k] == 0 ? new int[0] : Hdf.ints(Hdf.rows(ids[k], part.idAt[k], part.ids[k], 1), ids[k]);
            int[] types = codes == null || part.cells[k] == 0
                    ? new int[0]
                    : Hdf.ints(Hdf.rows(codes, part.cellAt[k], part.cells[k], 1), codes);
            System.arraycopy(own, 0, nodes, at, own.length);
            for (int i = 0; i < part.cells[k]; i++, c++) {
                int length = begin[i + 1] - begin[i];
                begins[c + 1] = at + begin[i + 1];
                if (begins[c + 1] < begins[c] || begins[c + 1] > size) {
                    throw new FormatError("the offsets of its cells go backwards or too far at cell " + i);
                }
                kind[c] = surface
                        ? switch (k) {
                            case 0 -> length == 1 ? 1 : 2;
                            case 1 -> length == 2 ? 3 : 4;
                            case 3 -> 6;
                            default -> length == 3 ? 5 : length == 4 ? 9 : 7;
                        }
                        : types[i];
            }
            at += own.length;
        }
        Solids solids = surface || Hdf.data(group, "PolyhedronToFaces") == null ? null : solids(group, p, cells, n);
        List<String> said = new ArrayList<>();
        CellCodes.Made made = CellCodes.make(
                xyz,
                kind,
                begins,
                nodes,
                solids == null ? null : solids.offsets,
                solids == null ? null : solids.stream,
                said);
        return new Grid(made, said);
    }

    /** Faces of the polyhedra of a part: for each cell where they begin, then how many, and of each its size and nodes. */
    private record Solids(int[] offsets, int[] stream) {}

    /** Parts follow each other in the arrays of faces; those before this one are counted over. */
    private static Solids solids(Group group, int part, int cells, int points) {
        int[] faceCounts = Hdf.ints(Hdf.need(group, "NumberOfFaces"));
        int[] idCounts = Hdf.ints(Hdf.need(group, "NumberOfFaceConnectivityIds"));
        int[] linkCounts = Hdf.ints(Hdf.need(group, "NumberOfPolyhedronToFaceIds"));
        int[] cellCounts = Hdf.ints(Hdf.need(group, "NumberOfCells"));
        int ids = sum(idCounts, part);
        int links = sum(linkCounts, part);
        // Each part has one entry more in the offsets than faces, or cells.
        int faceAt = sum(faceCounts, part) + part;
        int cellAt = sum(cellCounts, part) + part;
        int[] faceEnds = Hdf.ints(Hdf.need(group, "FaceOffsets"));
        int[] faceNodes = Hdf.ints(Hdf.need(group, "FaceConnectivity"));
        int[] ofCell = Hdf.ints(Hdf.need(group, "PolyhedronOffsets"));
        int[] toFace = Hdf.ints(Hdf.need(group, "PolyhedronToFaces"));
        int[] offsets = new int[cells + 1];
        int[] out = new int[Math.addExact(toFace.length * 2, faceNodes.length * 2) + cells];
        int at = 0;
        for (int c = 0; c < cells; c++) {
            int from = ofCell[cellAt + c];
            int to = ofCell[cellAt + c + 1];
            if (to > from) {
                out[at++] = to - from;
                for (int i = from; i < to; i++) {
                    int face = toFace[links + i];
                    if (face < 0 || face >= faceCounts[part]) {
                        throw new FormatError("polyhedron " + c + " names face " + face + " of " + faceCounts[part]);
                    }
                    int a = faceEnds[faceAt + face];
                    int b = faceEnds[faceAt + face + 1];
                    if (b < a || b - a > faceNodes.length) {
                        throw new FormatError("the offsets of its faces go backwards or too far at face " + face);
                    }
                    if (at + 1 + b - a > out.length) {
                        out = Arrays.copyOf(out, Math.addExact(2 * out.length, b - a));
                    }
                    out[at++] = b - a;
                    for (int k = a; k < b; k++) {
                        int node = faceNodes[ids + k];
                        if (node < 0 || node >= points) {
                            throw new FormatError("face " + face + " names node " + node + " of " + points);
                        }
                        out[at++] = node;
                    }
                }
            }
            offsets[c + 1] = at;
        }
        return new Solids(offsets, Arrays.copyOf(out, at));
    }

    private static int sum(int[] counts, int before) {
        int sum = 0;
        for (int i = 0; i < before; i++) {
            sum = Math.addExact(sum, counts[i]);
        }
        return sum;
    }

    private void fields(
            List<Field> out,
            Group group,
            Step step,
            String kind,
            Field.At at,
            int before,
            int count,
            int @Nullable [] source) {
        Group from = Hdf.group(group, kind);
        if (from == null) {
            return;
        }
        for (String name : from.getChildren().keySet()) {
            Node node = Hdf.optional(from, name);
            if (!(node instanceof io.jhdf.api.Dataset d)) {
                if (node != null) {
                    remarks.add("Not read: \"" + name + "\" in " + kind + " is no array.");
                }
                continue;
            }
            int[] dims = d.getDimensions();
            int components = 1;
            for (int i = 1; i < dims.length; i++) {
                components *= dims[i];
            }
            if (!Number.class.isAssignableFrom(boxed(d.getJavaType()))) {
                remarks.add("Array \"" + name + "\" holds text and was not read.");
                continue;
            }
            int start = step.field(kind + "Offsets", name, 0) + before;
            if (start < 0 || (long) components * (start + (long) count) > d.getSize()) {
                throw new FormatError("array \"" + name + "\" has " + d.getSize() + " numbers, too few for " + count
                        + " " + at.word() + " from entry " + start);
            }
            Values values = opening.onDemand()
                    ? Hdf.later(stamp, d, start, count, components)
                    : Hdf.rows(d, start, count, components);
            if (source != null) {
                values = values.pick(components, source);
            }
            out.add(new Field(name, at, components, Unit.of(FieldUnit.guess(name)), values));
        }
    }

    private static Class<?> boxed(Class<?> type) {
        return type.isPrimitive() ? type == boolean.class || type == char.class ? Void.class : Double.class : type;
    }

    private Dataset image(Group group) {
        Step step = Step.of(group, moment);
        double[] e = Hdf.attribute(group, "WholeExtent");
        if (e.length != 6) {
            throw new FormatError("it lacks its extent");
        }
        int[] dims = new int[3];
        for (int d = 0; d < 3; d++) {
            dims[d] = (int) (e[2 * d + 1] - e[2 * d]) + 1;
        }
        int nodes = Structured.nodes(new long[] {dims[0], dims[1], dims[2]});
        int cells = Math.max(1, dims[0] - 1) * Math.max(1, dims[1] - 1) * Math.max(1, dims[2] - 1);
        List<Field> fields = new ArrayList<>();
        for (Field.At at : Field.At.values()) {
            Group from = Hdf.group(group, at == Field.At.NODE ? "PointData" : "CellData");
            int count = at == Field.At.NODE ? nodes : cells;
            for (String name : from == null
                    ? List.<String>of()
                    : List.copyOf(from.getChildren().keySet())) {
                Node node = from == null ? null : Hdf.optional(from, name);
                if (!(node instanceof io.jhdf.api.Dataset d)) {
                    if (node != null) {
                        remarks.add("Not read: \"" + name + "\" is no array.");
                    }
                    continue;
                }
                int[] shape = d.getDimensions();
                int lead = step.times.isEmpty() ? 0 : 1;
                int components = shape.length > 3 + lead ? shape[shape.length - 1] : 1;
                long size = d.getSize();
                int row = lead == 0
                        ? 0
                        : step.field(at == Field.At.NODE ? "PointDataOffsets" : "CellDataOffsets", name, step.index);
                if (row < 0 || size < (row + 1L) * components * count) {
                    throw new FormatError("array \"" + name + "\" has " + size + " numbers, but its extent needs "
                            + (long) components * count);
                }
                int wide = Math.multiplyExact(components, count);
                Values values = opening.onDemand() ? Hdf.later(stamp, d, row, 1, wide) : Hdf.rows(d, row, 1, wide);
                fields.add(new Field(name, at, components, Unit.of(FieldUnit.guess(name)), values));
            }
        }
        if (fields.isEmpty() && nodes > 100_000) {
            throw new FormatError("its extent claims " + nodes + " nodes, but it has no array for them");
        }
        Mesh mesh = Structured.mesh(
                Structured.image(
                        new int[] {(int) e[0], (int) e[2], (int) e[4]},
                        dims,
                        Hdf.attribute(group, "Origin", 0, 0, 0),
                        Hdf.attribute(group, "Spacing", 1, 1, 1),
                        Hdf.attribute(group, "Direction", 1, 0, 0, 0, 1, 0, 0, 0, 1)),
                dims);
        var pieces = new Pieces(remarks);
        pieces.add(mesh, fields);
        Dataset out = pieces.join();
        return step.times.isEmpty() ? out : out.at(step.times, step.time);
    }
}
