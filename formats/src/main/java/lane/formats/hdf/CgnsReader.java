package lane.formats.hdf;

import io.jhdf.HdfFile;
import io.jhdf.api.Group;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Work;
import lane.field.Deferred;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.grid.Blocks;
import lane.formats.grid.CellList;
import lane.formats.grid.Dataset;
import lane.formats.grid.Opening;
import lane.formats.grid.Structured;
import lane.formats.io.FileStamp;
import lane.formats.io.FormatError;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Topology;
import lane.quantity.FieldUnit;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Reads CGNS files on HDF5: unstructured and structured zones with their solutions at vertices and cell centres, boundary
 * conditions as named surfaces, several zones as one run. Components named with X, Y and Z become vectors.
 */
public final class CgnsReader {
    private static final int MIXED = 20;
    private static final int NGON = 22;
    private static final int NFACE = 23;

    private static final Map<String, Double> LENGTHS =
            Map.of("Meter", 1.0, "Centimeter", 0.01, "Millimeter", 0.001, "Foot", 0.3048, "Inch", 0.0254);

    private final TimeSelector moment;
    private final Work work;
    private List<Double> times = List.of();
    private int step;
    private final List<String> remarks = new ArrayList<>();
    /** Words of units of length that the file has. */
    private final List<String> lengths = new ArrayList<>();

    private final Opening opening;
    private final FileStamp stamp;

    private CgnsReader(FileStamp stamp, TimeSelector moment, Opening opening, Work work) {
        this.stamp = stamp;
        this.opening = opening;
        this.moment = moment;
        this.work = work;
    }

    public static Dataset read(Path file, TimeSelector moment, Opening opening, Work work) {
        return Hdf.read(file, hdf -> new CgnsReader(FileStamp.of(file), moment, opening, work).all(hdf));
    }

    private record Element(CellShape shape, int[] order) {}

    private static int[] upTo(int n) {
        int[] out = new int[n];
        Arrays.setAll(out, i -> i);
        return out;
    }

    /** Shape and, for each of its nodes, the place in the element of the file. */
    private static Element element(int type) {
        return switch (type) {
            case 2 -> new Element(CellShape.VERTEX, upTo(1));
            case 3 -> new Element(CellShape.LINE, upTo(2));
            case 4 -> new Element(CellShape.LINE3, upTo(3));
            case 5 -> new Element(CellShape.TRIANGLE, upTo(3));
            case 6 -> new Element(CellShape.TRIANGLE6, upTo(6));
            case 7 -> new Element(CellShape.QUAD, upTo(4));
            case 8 -> new Element(CellShape.QUAD8, upTo(8));
            case 9 -> new Element(CellShape.QUAD9, upTo(9));
            case 10 -> new Element(CellShape.TETRAHEDRON, upTo(4));
            case 11 -> new Element(CellShape.TETRAHEDRON10, upTo(10));
            case 12 -> new Element(CellShape.PYRAMID, upTo(5));
            // The node in the middle of the base is left out.
            case 13, 21 -> new Element(CellShape.PYRAMID13, upTo(13));
            case 14 -> new Element(CellShape.WEDGE, new int[] {0, 2, 1, 3, 5, 4});
            case 15 -> new Element(CellShape.WEDGE15, new int[] {0, 2, 1, 3, 5, 4, 8, 7, 6, 14, 13, 12, 9, 11, 10});
            case 16 ->
                new Element(
                        CellShape.WEDGE18, new int[] {0, 2, 1, 3, 5, 4, 8, 7, 6, 14, 13, 12, 9, 11, 10, 17, 16, 15});
            case 17 -> new Element(CellShape.HEXAHEDRON, upTo(8));
            case 18 ->
                new Element(
                        CellShape.HEXAHEDRON20,
                        new int[] {0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 16, 17, 18, 19, 12, 13, 14, 15});
            case 19 ->
                new Element(CellShape.HEXAHEDRON27, new int[] {
                    0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 16, 17, 18, 19, 12, 13, 14, 15, 24, 22, 21, 23, 20, 25, 26
                });
            default ->
                throw FormatError.unsupported("it has elements of type " + type
                        + ", which are of a higher order than is read; write linear or quadratic ones");
        };
    }

    private static int stored(int type) {
        return type == 13 ? 14 : element(type).order.length;
    }

    private static boolean is(Group g, String label) {
        return Hdf.text(g, "label").equals(label);
    }

    private static List<Group> children(Group parent, String label) {
        List<Group> out = new ArrayList<>();
        for (String name : parent.getChildren().keySet()) {
            if (!name.startsWith(" ")) {
                if (Hdf.optional(parent, name) instanceof Group g && is(g, label)) {
                    out.add(g);
                }
            }
        }
        return out;
    }

    private static int[] ints(Group g) {
        return Hdf.ints(Hdf.need(g, " data"));
    }

    /** The text of a node; empty without one. */
    private static String text(Group parent, String label) {
        for (Group g : children(parent, label)) {
            io.jhdf.api.Dataset d = Hdf.data(g, " data");
            if (d != null) {
                return string(d);
            }
        }
        return "";
    }

    private static String string(io.jhdf.api.Dataset d) {
        Object o = d.getDataFlat();
        if (o instanceof byte[] b) {
            return new String(b, StandardCharsets.ISO_8859_1).replace('\0', ' ').strip();
        }
        return o instanceof String[] s
                ? String.join("", s).strip()
                : String.valueOf(o).strip();
    }

    private Dataset all(HdfFile hdf) {
        List<String> names = new ArrayList<>();
        List<Dataset> zones = new ArrayList<>();
        int count = 0;
        for (Group base : children(hdf, "CGNSBase_t")) {
            int[] dims = ints(base);
            for (Group iterative : children(base, "BaseIterativeData_t")) {
                Group held = Hdf.group(iterative, "TimeValues");
                io.jhdf.api.Dataset values = held == null ? null : Hdf.data(held, " data");
                if (values != null) {
                    double[] stored = Hdf.doubles(Hdf.values(values));
                    times = Arrays.stream(stored).sorted().boxed().toList();
                    double wanted = times.isEmpty() ? Double.NaN : times.get(moment.in(times));
                    for (step = 0; step < stored.length - 1 && stored[step] != wanted; step++) {}
                }
            }
            for (Group zone : children(base, "Zone_t")) {
                if (!opening.wants(count++)) {
                    continue;
                }
                work.poll();
                work.progress("Reading zone " + zone.getName(), 0);
                names.add(zone.getName());
                zones.add(zone(zone, dims[0], base));
            }
        }
        if (zones.isEmpty()) {
            throw new FormatError("it has no zone");
        }
        Dataset joined = Blocks.join(names, zones);
        List<String> all = new ArrayList<>(remarks);
        all.addAll(joined.remarks());
        all.addAll(Hdf.notes(all));
        return new Dataset(
                        joined.mesh(),
                        joined.fields(),
                        joined.groups(),
                        times,
                        times.isEmpty() ? Double.NaN : times.get(moment.in(times)),
                        all)
                .inMetres(lengths.stream().anyMatch(LENGTHS::containsKey))
                .in(count);
    }

    /**
     * Nodes of a zone that belong to the time that is read: those that the zone's pointers over time name at it, else
     * all.
     */
    private List<Group> atThisTime(Group zone, String label, String pointers) {
        List<Group> all = children(zone, label);
        for (Group iterative : children(zone, "ZoneIterativeData_t")) {
            Group g = Hdf.group(iterative, pointers);
            io.jhdf.api.Dataset d = g == null ? null : Hdf.data(g, " data");
            if (d == null || times.isEmpty()) {
                continue;
            }
            String text = string(d);
            String name = text.length() < 32 * step
                    ? ""
                    : text.substring(32 * step, Math.min(text.length(), 32 * step + 32))
                            .strip();
            List<Group> named =
                    all.stream().filter(x -> x.getName().equals(name)).toList();
            if (named.isEmpty()) {
                throw new FormatError(
                        "zone \"" + zone.getName() + "\" names \"" + name + "\" for its time, which it does not have");
            }
            // What no time names (a mean, a distance to the wall) holds for all of them.
            return java.util.stream.Stream.concat(named.stream(), all.stream().filter(x -> !text.contains(x.getName())))
                    .toList();
        }
        return all;
    }

    /** The mesh of a zone with its named surfaces, and what its reader wants known. */
    private record Grid(Mesh mesh, List<Dataset.Group> groups, List<String> remarks) {}

    private Dataset zone(Group zone, int dimension, Group base) {
        int[] size = ints(zone);
        boolean structured = text(zone, "ZoneType_t").equals("Structured");
        List<String> at = atThisTime(zone, "GridCoordinates_t", "GridCoordinatesPointers").stream()
                .map(Group::getName)
                .toList();
        Grid grid = opening.grids()
                .of(List.of(stamp, zone.getPath(), at), () -> grid(zone, dimension, base, size, structured));
        remarks.addAll(grid.remarks);
        List<Field> fields = new ArrayList<>();
        for (Group solution : atThisTime(zone, "FlowSolution_t", "FlowSolutionPointers")) {
            solution(solution, grid.mesh, structured ? nodes(size) : null, fields);
        }
        return new Dataset(grid.mesh, fields, grid.groups, List.of(), Double.NaN, List.of());
    }

    private Grid grid(Group zone, int dimension, Group base, int[] size, boolean structured) {
        int before = remarks.size();
        List<String> noted = Hdf.notes();
        double[] xyz = coordinates(zone, base, structured ? nodes(size) : null);
        Mesh mesh;
        Map<Integer, int[]> faces = new HashMap<>();
        List<Dataset.Group> sections = new ArrayList<>();
        int[] dims = nodes(size);
        if (structured) {
            if (xyz.length != 3L * Structured.nodes(new long[] {dims[0], dims[1], dims[2]})) {
                throw new FormatError("the coordinates of zone \"" + zone.getName() + "\" do not fit its size");
            }
            mesh = Structured.mesh(xyz, dims);
        } else {
            mesh = unstructured(zone, xyz, dimension, faces, sections);
        }
        List<Dataset.Group> groups = conditions(zone, mesh, structured, dims, faces);
        List<String> said = new ArrayList<>(remarks.subList(before, remarks.size()));
        said.addAll(Hdf.notes(noted));
        remarks.subList(before, remarks.size()).clear();
        return new Grid(mesh, groups.isEmpty() ? sections : groups, said);
    }

    /** Nodes along each direction of a structured zone. */
    private static int[] nodes(int[] size) {
        int[] dims = {1, 1, 1};
        System.arraycopy(size, 0, dims, 0, Math.min(3, size.length / 3));
        return dims;
    }

    private double[] coordinates(Group zone, Group base, int @Nullable [] dims) {
        List<Group> grids = atThisTime(zone, "GridCoordinates_t", "GridCoordinatesPointers");
        if (grids.isEmpty()) {
            throw new FormatError("zone \"" + zone.getName() + "\" has no coordinates");
        }
        Group grid = grids.getFirst();
        double[][] c = new double[3][];
        String[][] names = {{"CoordinateX", "CoordinateR"}, {"CoordinateY", "CoordinateTheta"}, {"CoordinateZ"}};
        boolean polar = false;
        double scale = length(zone, length(base, 1));
        int n = -1;
        for (int d = 0; d < 3; d++) {
            for (String name : names[d]) {
                Group g = Hdf.group(grid, name);
                if (g != null) {
                    Values stored = Hdf.values(Hdf.need(g, " data"));
                    c[d] = Hdf.doubles(dims == null ? stored : inside(stored, grid, dims))
                            .clone();
                    polar |= name.endsWith("R") || name.endsWith("Theta");
                    double own = name.endsWith("Theta") ? 1 : length(g, length(grid, scale));
                    for (int i = 0; own != 1 && i < c[d].length; i++) {
                        c[d][i] *= own;
                    }
                    if (n >= 0 && n != c[d].length) {
                        throw new FormatError(
                                "the coordinates of zone \"" + zone.getName() + "\" have different lengths");
                    }
                    n = c[d].length;
                }
            }
        }
        if (n < 0) {
            throw new FormatError("zone \"" + zone.getName() + "\" has no coordinates");
        }
        double[] xyz = new double[Math.multiplyExact(3, n)];
        for (int i = 0; i < n; i++) {
            double a = c[0] == null ? 0 : c[0][i];
            double b = c[1] == null ? 0 : c[1][i];
            xyz[3 * i] = polar ? a * Math.cos(b) : a;
            xyz[3 * i + 1] = polar ? a * Math.sin(b) : b;
            xyz[3 * i + 2] = c[2] == null ? 0 : c[2][i];
        }
        return xyz;
    }

    /** Metres a stored unit of length, where the file says. */
    private double length(Group g, double otherwise) {
        for (Group units : children(g, "DimensionalUnits_t")) {
            io.jhdf.api.Dataset d = Hdf.data(units, " data");
            String all = d == null ? "" : string(d);
            String word = all.length() > 32
                    ? all.substring(32, Math.min(64, all.length())).strip()
                    : "";
            lengths.add(word);
            return LENGTHS.getOrDefault(word, otherwise);
        }
        return otherwise;
    }

    private Mesh unstructured(
            Group zone, double[] xyz, int dimension, Map<Integer, int[]> faces, List<Dataset.Group> surfaces) {
        List<Group> sections = new ArrayList<>(children(zone, "Elements_t"));
        sections.sort(Comparator.comparingInt(s -> ints(Hdf.needGroup(s, "ElementRange"))[0]));
        var cells = new CellList();
        Map<Integer, int[]> polygons = new HashMap<>();
        for (Group section : sections) {
            work.poll();
            int type = ints(section)[0];
            int[] range = ints(Hdf.needGroup(section, "ElementRange"));
            int[] nodes = ints(Hdf.needGroup(section, "ElementConnectivity"));
            Group starts = Hdf.group(section, "ElementStartOffset");
            int[] begin = starts == null ? null : ints(starts);
            int count = range[1] - range[0] + 1;
            if (count < 0 || count > nodes.length) {
                throw new FormatError("section \"" + section.getName() + "\" claims " + count + " elements in "
                        + nodes.length + " numbers");
            }
            var own = new CellList();
            int at = 0;
            for (int i = 0; i < count; i++) {
                int number = range[0] + i;
                if (type == NGON || type == NFACE) {
                    int from = begin == null ? at + 1 : begin[i];
                    int to = begin == null ? at + 1 + nodes[at] : begin[i + 1];
                    int[] list = Arrays.copyOfRange(nodes, from, to);
                    at = to;
                    if (type == NGON) {
                        for (int k = 0; k < list.length; k++) {
                            list[k]--;
                        }
                        polygons.put(number, list);
                        faces.put(number, list);
                        if (dimension == 2) {
                            cells.add(polygon(list.length), list);
                        }
                    } else {
                        cells.polyhedron(list, polygons);
                    }
                    continue;
                }
                int kind = type;
                if (type == MIXED) {
                    at = begin == null ? at : begin[i];
                    kind = nodes[at++];
                }
                Element e = element(kind);
                if (kind == 13 && i == 0) {
                    remarks.add("Pyramids of 14 nodes are read without the node in the middle of their base.");
                }
                int[] list = new int[e.order.length];
                for (int k = 0; k < list.length; k++) {
                    list[k] = nodes[at + e.order[k]] - 1;
                }
                at += stored(kind);
                if (e.shape.dimension() == dimension) {
                    cells.add(e.shape, list);
                } else if (e.shape.dimension() == dimension - 1) {
                    faces.put(number, list);
                    own.add(e.shape, list);
                }
            }
            if (own.count() > 0) {
                surfaces.add(new Dataset.Group(section.getName(), own.mesh(xyz), List.of()));
            }
        }
        if (cells.count() == 0) {
            throw new FormatError("zone \"" + zone.getName() + "\" has no cells of its dimension");
        }
        return cells.mesh(xyz);
    }

    private static CellShape polygon(int n) {
        return n == 3 ? CellShape.TRIANGLE : n == 4 ? CellShape.QUAD : CellShape.POLYGON;
    }

    /** Entries without the layers around a structured zone that belong to its neighbours. */
    private static Values inside(Values all, Group holder, int[] n) {
        for (Group rind : children(holder, "Rind_t")) {
            int[] r = Arrays.copyOf(ints(rind), 6);
            int[] wide = {n[0] + r[0] + r[1], n[1] + r[2] + r[3], n[2] + r[4] + r[5]};
            if (Arrays.stream(r).anyMatch(x -> x < 0) || (long) wide[0] * wide[1] * wide[2] != all.length()) {
                throw new FormatError("the rind of \"" + holder.getName() + "\" does not fit its arrays");
            }
            int[] from = new int[n[0] * n[1] * n[2]];
            int at = 0;
            for (int k = 0; k < n[2]; k++) {
                for (int j = 0; j < n[1]; j++) {
                    for (int i = 0; i < n[0]; i++) {
                        from[at++] = i + r[0] + wide[0] * (j + r[2] + wide[1] * (k + r[4]));
                    }
                }
            }
            return all.pick(1, from);
        }
        return all;
    }

    /** A solution's arrays; X, Y and Z of one name become a vector. */
    private void solution(Group solution, Mesh mesh, int @Nullable [] dims, List<Field> out) {
        String where = text(solution, "GridLocation_t");
        Field.At at = where.equals("CellCenter") ? Field.At.CELL : Field.At.NODE;
        if (!where.isEmpty() && !where.equals("Vertex") && !where.equals("CellCenter")) {
            remarks.add("Solution \"" + solution.getName() + "\" is stored at \"" + where + "\" and was not read.");
            return;
        }
        int count = at == Field.At.NODE ? mesh.nodeCount() : mesh.cellCount();
        Map<String, Values> arrays = new LinkedHashMap<>();
        for (Group g : children(solution, "DataArray_t")) {
            Values v = whole(Hdf.need(g, " data"));
            if (dims != null) {
                int less = at == Field.At.NODE ? 0 : 1;
                v = inside(
                        v, solution, new int[] {dims[0] - less, Math.max(1, dims[1] - less), Math.max(1, dims[2] - less)
                        });
            }
            if (v.length() == count) {
                arrays.put(g.getName(), v);
            } else {
                remarks.add("Array \"" + g.getName() + "\" has " + v.length() + " numbers for " + count + " "
                        + at.word() + " and was not read.");
            }
        }
        for (String name : List.copyOf(arrays.keySet())) {
            String stem = name.endsWith("X") ? name.substring(0, name.length() - 1) : null;
            if (stem != null && arrays.containsKey(stem + "Y")) {
                Values x = arrays.remove(name);
                Values y = arrays.remove(stem + "Y");
                Values z = arrays.remove(stem + "Z");
                List<Values> of = z == null ? List.of(x, y) : List.of(x, y, z);
                add(
                        out,
                        stem,
                        at,
                        3,
                        opening.onDemand()
                                ? new Deferred(
                                        List.of("vector", of), Math.multiplyExact(3, count), () -> vector(of, count))
                                : vector(of, count));
            }
        }
        arrays.forEach((name, v) -> add(out, name, at, 1, v));
    }

    /** All of an array: now, or when it is asked for. */
    private Values whole(io.jhdf.api.Dataset data) {
        return opening.onDemand() && data.getSize() < Integer.MAX_VALUE
                ? Hdf.later(stamp, data, 0, (int) data.getSize(), 1)
                : Hdf.values(data);
    }

    private static Values vector(List<Values> components, int count) {
        double[] all = new double[3 * count];
        for (int d = 0; d < components.size(); d++) {
            Values c = components.get(d).now();
            for (int i = 0; i < count; i++) {
                all[3 * i + d] = c.get(i);
            }
        }
        return Values.of(all);
    }

    private void add(List<Field> out, String name, Field.At at, int components, Values values) {
        if (out.stream().noneMatch(f -> f.name().equals(name) && f.at() == at)) {
            out.add(new Field(name, at, components, Unit.of(FieldUnit.guess(name)), values));
        }
    }

    private List<Dataset.Group> conditions(
            Group zone, Mesh mesh, boolean structured, int[] dims, Map<Integer, int[]> faces) {
        List<Dataset.Group> out = new ArrayList<>();
        Topology.Boundary boundary = null;
        for (Group all : children(zone, "ZoneBC_t")) {
            for (Group bc : children(all, "BC_t")) {
                String where = text(bc, "GridLocation_t");
                int[] list = list(bc, "PointList", "ElementList");
                int[] range = list(bc, "PointRange", "ElementRange");
                boolean elements = !structured
                        && (where.endsWith("FaceCenter")
                                || where.equals("EdgeCenter")
                                || Hdf.group(bc, "ElementList") != null
                                || Hdf.group(bc, "ElementRange") != null);
                var own = new CellList();
                if (elements) {
                    int[] numbers = list != null ? list : range == null ? new int[0] : span(range[0], range[1]);
                    for (int number : numbers) {
                        int[] nodes = faces.get(number);
                        if (nodes != null) {
                            own.add(shape(nodes.length), nodes);
                        }
                    }
                } else {
                    boolean[] in = vertices(mesh, structured, dims, list, range, where);
                    boundary = boundary == null ? Topology.boundary(mesh) : boundary;
                    for (int f = 0; f < boundary.size(); f++) {
                        int[] nodes =
                                Arrays.copyOfRange(boundary.nodes(), boundary.offsets()[f], boundary.offsets()[f + 1]);
                        if (Arrays.stream(nodes).allMatch(v -> in[v])) {
                            own.add(boundary.shape(f), nodes);
                        }
                    }
                }
                if (own.count() > 0) {
                    String family = text(bc, "FamilyName_t");
                    out.add(new Dataset.Group(
                            family.isEmpty() ? bc.getName() : family, own.mesh(mesh.xyz()), List.of()));
                } else {
                    remarks.add("Boundary condition \"" + bc.getName() + "\" has no faces.");
                }
            }
        }
        return out;
    }

    private static CellShape shape(int nodes) {
        return switch (nodes) {
            case 2 -> CellShape.LINE;
            case 3 -> CellShape.TRIANGLE;
            case 4 -> CellShape.QUAD;
            case 6 -> CellShape.TRIANGLE6;
            case 8 -> CellShape.QUAD8;
            case 9 -> CellShape.QUAD9;
            default -> CellShape.POLYGON;
        };
    }

    private static int[] span(int from, int to) {
        int[] out = new int[Math.max(0, to - from + 1)];
        Arrays.setAll(out, i -> from + i);
        return out;
    }

    private static int @Nullable [] list(Group bc, String... names) {
        for (String name : names) {
            Group g = Hdf.group(bc, name);
            if (g != null) {
                return ints(g);
            }
        }
        return null;
    }

    private static boolean[] vertices(
            Mesh mesh, boolean structured, int[] dims, int @Nullable [] list, int @Nullable [] range, String where) {
        boolean[] in = new boolean[mesh.nodeCount()];
        if (!structured) {
            int[] numbers = list != null ? list : range == null ? new int[0] : span(range[0], range[1]);
            for (int v : numbers) {
                if (v >= 1 && v <= in.length) {
                    in[v - 1] = true;
                }
            }
            return in;
        }
        if (range != null) {
            int n = range.length / 2;
            int[] lo = {1, 1, 1};
            int[] hi = {1, 1, 1};
            for (int d = 0; d < Math.min(3, n); d++) {
                lo[d] = Math.min(range[d], range[n + d]);
                hi[d] = Math.max(range[d], range[n + d]);
                // A range of faces ends one short of its vertices in the directions along it.
                if (where.endsWith("FaceCenter") && !where.startsWith("IJK".substring(d, d + 1))) {
                    hi[d]++;
                }
                hi[d] = Math.min(hi[d], dims[d]);
            }
            for (int k = lo[2]; k <= hi[2]; k++) {
                for (int j = lo[1]; j <= hi[1]; j++) {
                    for (int i = lo[0]; i <= hi[0]; i++) {
                        in[i - 1 + dims[0] * (j - 1 + dims[1] * (k - 1))] = true;
                    }
                }
            }
        } else if (list != null) {
            int n = dims[2] > 1 ? 3 : 2;
            for (int p = 0; p + n <= list.length; p += n) {
                in[list[p] - 1 + dims[0] * (list[p + 1] - 1 + dims[1] * (n == 3 ? list[p + 2] - 1 : 0))] = true;
            }
        }
        return in;
    }
}
