package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Values;
import lane.formats.study.StudyJson;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.reading.Balance;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Scalar;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Study;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * A stack of drying timber in millimetres, stored in six uneven pieces: all that is read of it in pieces is what is read of it
 * whole.
 */
class RunInPiecesTest {
    @TempDir
    Path folder;

    private static final int[] CUBES = {6, 5, 4};
    private static final double[] SIZE = {3600, 1400, 900};

    /** Which piece a cell belongs to, by its middle: cut at faces of the cubes, but for the shaking. */
    private static int piece(Mesh mesh, int cell) {
        double[] middle = new double[3];
        for (int k = mesh.begin(cell); k < mesh.begin(cell) + mesh.size(cell); k++) {
            for (int d = 0; d < 3; d++) {
                middle[d] += mesh.xyz()[3 * mesh.nodes()[k] + d] / mesh.size(cell);
            }
        }
        int along = middle[0] < 1200 ? 0 : middle[0] < 2800 ? 1 : 2;
        return 2 * along + (middle[1] < 800 ? 0 : 1);
    }

    private static List<Field> fields(Mesh mesh) {
        int n = mesh.nodeCount();
        double[] moisture = new double[n];
        double[] draught = new double[3 * n];
        double[] load = new double[n];
        for (int i = 0; i < n; i++) {
            double x = mesh.xyz()[3 * i] / 1000;
            double y = mesh.xyz()[3 * i + 1] / 1000;
            double z = mesh.xyz()[3 * i + 2] / 1000;
            moisture[i] = 0.3 - 0.05 * x + 0.02 * Math.sin(3 * y) * z;
            draught[3 * i] = 1 + y * z;
            draught[3 * i + 1] = 0.2 * x * x - 0.1;
            draught[3 * i + 2] = 0.5 * z - 0.3 * x;
            load[i] = 4000 * (1 - z) + 100 * x * y;
        }
        double[] kiln = new double[mesh.cellCount()];
        int[] layer = new int[mesh.cellCount()];
        for (int c = 0; c < kiln.length; c++) {
            double z = mesh.xyz()[3 * mesh.nodes()[mesh.begin(c)] + 2];
            kiln[c] = 60 + c % 13 + 0.01 * z;
            layer[c] = z < 300 ? 4 : 7;
        }
        return List.of(
                new Field("moisture", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(moisture)),
                new Field("draught", Field.At.NODE, 3, Unit.UNKNOWN, Values.of(draught)),
                new Field("load", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(load)),
                new Field("kiln", Field.At.CELL, 1, Unit.UNKNOWN, Values.of(kiln)),
                new Field("layer", Field.At.CELL, 1, Unit.UNKNOWN, new Values.Ints(layer)));
    }

    /** Some cells over nodes of their own. */
    private static Mesh cells(Mesh of, int[] cells, List<Integer> from) {
        Mesh some = of.only(cells);
        Map<Integer, Integer> to = new HashMap<>();
        IntUnaryOperator own = node -> to.computeIfAbsent(node, k -> {
            from.add(node);
            return to.size();
        });
        int[] nodes = Arrays.stream(some.nodes()).map(own).toArray();
        double[] xyz = new double[3 * from.size()];
        for (int i = 0; i < from.size(); i++) {
            System.arraycopy(of.xyz(), 3 * from.get(i), xyz, 3 * i, 3);
            // Another program writes the last digits otherwise.
            xyz[3 * i] += 1e-11 * (from.size() % 3 - 1);
        }
        int[] offsets = IntStream.rangeClosed(0, cells.length)
                .map(i -> i == cells.length ? nodes.length : some.begin(i))
                .toArray();
        byte[] shapes = new byte[cells.length];
        Arrays.setAll(cells.clone(), i -> shapes[i] = (byte) some.shape(i).ordinal());
        return new Mesh(xyz, shapes, offsets, nodes);
    }

    private record Piece(Mesh mesh, List<Field> fields) {
        Field field(String name) {
            return fields.stream()
                    .filter(f -> f.name().equals(name))
                    .findFirst()
                    .orElseThrow();
        }

        double[] values(String name) {
            return numbers(field(name));
        }

        double[][] points() {
            double[][] out = new double[mesh.nodeCount()][3];
            for (int i = 0; i < out.length; i++) {
                System.arraycopy(mesh.xyz(), 3 * i, out[i], 0, 3);
            }
            return out;
        }
    }

    private static double[] numbers(Field f) {
        return IntStream.range(0, f.size() * f.components())
                .mapToDouble(f.values()::get)
                .toArray();
    }

    private List<Piece> pieces(Mesh mesh) throws IOException {
        List<Field> fields = fields(mesh);
        List<Piece> out = new ArrayList<>();
        for (int k = 0; k < 6; k++) {
            int piece = k;
            int[] cells = IntStream.range(0, mesh.cellCount())
                    .filter(c -> piece(mesh, c) == piece)
                    .toArray();
            List<Integer> from = new ArrayList<>();
            Mesh own = cells(mesh, cells, from);
            int[] nodes = from.stream().mapToInt(i -> i).toArray();
            out.add(new Piece(
                    own,
                    fields.stream()
                            .map(f -> f.pick(f.at() == Field.At.NODE ? nodes : cells))
                            .toList()));
        }
        VtkXmlWriter.writeSurface(
                folder.resolve("skin.vtp"), new PartBuilder(mesh).whole("skin").surface(), List.of(), Options.DEFAULT);
        return out;
    }

    private void pvtu(String name, List<Piece> pieces) throws IOException {
        var sources = new StringBuilder();
        for (int k = 0; k < pieces.size(); k++) {
            VtkXmlWriter.writeGrid(
                    folder.resolve(name + "_" + k + ".vtu"),
                    pieces.get(k).mesh,
                    pieces.get(k).fields,
                    k % 2 == 0 ? Options.DEFAULT : Options.UNPACKED);
            sources.append("<Piece Source=\"" + name + "_" + k + ".vtu\"/>");
        }
        Files.writeString(
                folder.resolve(name + ".pvtu"),
                "<VTKFile type=\"PUnstructuredGrid\"><PUnstructuredGrid>" + sources + "</PUnstructuredGrid></VTKFile>");
    }

    private void vtkhdf(List<Piece> pieces) throws IOException {
        try (var hdf = io.jhdf.HdfFile.write(folder.resolve("stack.vtkhdf"))) {
            var root = hdf.putGroup("VTKHDF");
            root.putAttribute("Type", "UnstructuredGrid");
            root.putAttribute("Version", new int[] {2, 1});
            root.putDataset("NumberOfPoints", longs(pieces, p -> p.mesh.nodeCount()));
            root.putDataset("NumberOfCells", longs(pieces, p -> p.mesh.cellCount()));
            root.putDataset("NumberOfConnectivityIds", longs(pieces, p -> p.mesh.nodes().length));
            root.putDataset(
                    "Points",
                    pieces.stream().flatMap(p -> Arrays.stream(p.points())).toArray(double[][]::new));
            root.putDataset(
                    "Connectivity",
                    pieces.stream()
                            .flatMapToLong(p -> Arrays.stream(p.mesh.nodes()).asLongStream())
                            .toArray());
            root.putDataset(
                    "Offsets",
                    pieces.stream()
                            .flatMapToLong(p -> IntStream.rangeClosed(0, p.mesh.cellCount())
                                    .mapToLong(c -> c == p.mesh.cellCount() ? p.mesh.nodes().length : p.mesh.begin(c)))
                            .toArray());
            int cells = pieces.stream().mapToInt(p -> p.mesh.cellCount()).sum();
            byte[] types = new byte[cells];
            Arrays.fill(types, (byte) (pieces.getFirst().mesh.shape(0) == CellShape.HEXAHEDRON ? 12 : 10));
            root.putDataset("Types", types);
            var nodes = root.putGroup("PointData");
            var inCells = root.putGroup("CellData");
            nodes.putDataset("moisture", all(pieces, "moisture"));
            nodes.putDataset("load", all(pieces, "load"));
            double[] draught = all(pieces, "draught");
            double[][] rows = new double[draught.length / 3][];
            Arrays.setAll(rows, i -> Arrays.copyOfRange(draught, 3 * i, 3 * i + 3));
            nodes.putDataset("draught", rows);
            inCells.putDataset("kiln", all(pieces, "kiln"));
            inCells.putDataset(
                    "layer",
                    Arrays.stream(all(pieces, "layer")).mapToInt(v -> (int) v).toArray());
        }
    }

    private static long[] longs(List<Piece> pieces, java.util.function.ToLongFunction<Piece> of) {
        return pieces.stream().mapToLong(of).toArray();
    }

    private static double[] all(List<Piece> pieces, String field) {
        return pieces.stream()
                .flatMapToDouble(p -> Arrays.stream(p.values(field)))
                .toArray();
    }

    private void xdmf(List<Piece> pieces) throws IOException {
        var grids = new StringBuilder();
        for (Piece p : pieces) {
            boolean hex = p.mesh.shape(0) == CellShape.HEXAHEDRON;
            grids.append("<Grid Name=\"a\" GridType=\"Uniform\"><Topology TopologyType=\"")
                    .append(hex ? "Hexahedron" : "Tetrahedron")
                    .append("\" NumberOfElements=\"")
                    .append(p.mesh.cellCount())
                    .append("\">")
                    .append(item(
                            p.mesh.cellCount() + (hex ? " 8" : " 4"),
                            "Int",
                            Arrays.stream(p.mesh.nodes()).mapToObj(String::valueOf)))
                    .append("</Topology><Geometry GeometryType=\"XYZ\">")
                    .append(item(
                            p.mesh.nodeCount() + " 3",
                            "Float",
                            Arrays.stream(p.mesh.xyz()).mapToObj(String::valueOf)))
                    .append("</Geometry>");
            for (Field f : p.fields) {
                boolean whole = f.values() instanceof Values.Ints;
                grids.append("<Attribute Name=\"" + f.name() + "\" AttributeType=\""
                                + (f.components() == 3 ? "Vector" : "Scalar") + "\" Center=\""
                                + (f.at() == Field.At.NODE ? "Node" : "Cell") + "\">")
                        .append(item(
                                f.size() + (f.components() == 3 ? " 3" : ""),
                                whole ? "Int" : "Float",
                                Arrays.stream(numbers(f))
                                        .mapToObj(v -> whole ? String.valueOf((int) v) : String.valueOf(v))))
                        .append("</Attribute>");
            }
            grids.append("</Grid>");
        }
        Files.writeString(
                folder.resolve("stack.xdmf"),
                "<Xdmf><Domain><Grid GridType=\"Collection\" CollectionType=\"Spatial\">" + grids
                        + "</Grid></Domain></Xdmf>");
    }

    private static String item(String dimensions, String type, java.util.stream.Stream<String> numbers) {
        return "<DataItem Format=\"XML\" NumberType=\"" + type + "\" Precision=\"" + (type.equals("Int") ? 4 : 8)
                + "\" Dimensions=\"" + dimensions + "\">"
                + numbers.collect(java.util.stream.Collectors.joining(" ")) + "</DataItem>";
    }

    private static io.jhdf.api.WritableGroup node(
            io.jhdf.api.WritableGroup parent, String name, String label, @Nullable Object data) {
        var group = parent.putGroup(name);
        group.putAttribute("label", label);
        group.putAttribute("type", data == null ? "MT" : "R8");
        if (data != null) {
            group.putDataset(
                    " data", data instanceof String s ? s.getBytes(java.nio.charset.StandardCharsets.US_ASCII) : data);
        }
        return group;
    }

    private void cgns(List<Piece> pieces) throws IOException {
        try (var hdf = io.jhdf.HdfFile.write(folder.resolve("stack.cgns"))) {
            var base = node(hdf, "Base", "CGNSBase_t", new int[] {3, 3});
            for (int k = 0; k < pieces.size(); k++) {
                Piece p = pieces.get(k);
                var zone = node(base, "zone " + k, "Zone_t", new int[] {p.mesh.nodeCount(), p.mesh.cellCount(), 0});
                node(zone, "ZoneType", "ZoneType_t", "Unstructured");
                var grid = node(zone, "GridCoordinates", "GridCoordinates_t", null);
                for (int d = 0; d < 3; d++) {
                    int axis = d;
                    node(
                            grid,
                            "Coordinate" + "XYZ".charAt(d),
                            "DataArray_t",
                            Arrays.stream(p.points()).mapToDouble(x -> x[axis]).toArray());
                }
                boolean hex = p.mesh.shape(0) == CellShape.HEXAHEDRON;
                var cells = node(zone, "cells", "Elements_t", new int[] {hex ? 17 : 10, 0});
                node(cells, "ElementRange", "IndexRange_t", new int[] {1, p.mesh.cellCount()});
                node(
                        cells,
                        "ElementConnectivity",
                        "DataArray_t",
                        Arrays.stream(p.mesh.nodes()).map(n -> n + 1).toArray());
                var atNodes = node(zone, "nodes", "FlowSolution_t", null);
                node(atNodes, "GridLocation", "GridLocation_t", "Vertex");
                node(atNodes, "moisture", "DataArray_t", p.values("moisture"));
                node(atNodes, "load", "DataArray_t", p.values("load"));
                double[] draught = p.values("draught");
                for (int d = 0; d < 3; d++) {
                    int axis = d;
                    node(
                            atNodes,
                            "draught" + "XYZ".charAt(d),
                            "DataArray_t",
                            IntStream.range(0, p.mesh.nodeCount())
                                    .mapToDouble(i -> draught[3 * i + axis])
                                    .toArray());
                }
                var inCells = node(zone, "in cells", "FlowSolution_t", null);
                node(inCells, "GridLocation", "GridLocation_t", "CellCenter");
                node(inCells, "kiln", "DataArray_t", p.values("kiln"));
                node(
                        inCells,
                        "layer",
                        "DataArray_t",
                        Arrays.stream(p.values("layer")).mapToInt(v -> (int) v).toArray());
            }
        }
    }

    private static final String STATIONS = """
            {"kind": "part", "id": "skin", "name": "skin", "part": "skin"},
            {"kind": "part", "id": "low", "name": "low", "part": "layer 4"},
            {"kind": "part", "id": "top", "name": "top", "part": "skin", "facing": {"direction": {"x": 0, "y": 0, "z": 1}, "within": 20}},
            {"kind": "section", "id": "mid", "name": "mid", "point": {"x": 1.7, "y": 0.7, "z": 0.4}, "normal": {"x": 1, "y": 0.3, "z": -0.2}},
            {"kind": "section", "id": "joint", "name": "joint", "point": {"x": 1.2, "y": 0, "z": 0}, "normal": {"x": 1, "y": 0, "z": 0}},
            {"kind": "section", "id": "back", "name": "back", "point": {"x": 1.2, "y": 0, "z": 0}, "normal": {"x": -1, "y": 0, "z": 0}},
            {"kind": "section", "id": "end", "name": "end", "point": {"x": 0, "y": 0, "z": 0}, "normal": {"x": 1, "y": 0, "z": 0}},
            {"kind": "section", "id": "window", "name": "window", "point": {"x": 2, "y": 0, "z": 0.45}, "normal": {"x": 0, "y": 0, "z": 1},
             "box": {"least": {"x": 0.3, "y": -0.2, "z": 0}, "greatest": {"x": 3.1, "y": 1.1, "z": 0.8}}},
            {"kind": "isosurface", "id": "damp", "name": "damp", "quantity": "moisture", "values": [0.2]},
            {"kind": "shell", "id": "log", "name": "log", "axis": {"origin": {"x": 1.3, "y": 0.75, "z": 0}, "direction": {"x": 0, "y": 0, "z": 1}},
             "radius": 0.13, "from": -0.1, "to": 0.7, "seam": 30},
            {"kind": "part", "id": "left", "name": "left", "part": "skin", "box": {"least": {"x": -1, "y": -1, "z": -1}, "greatest": {"x": 1.2, "y": 9, "z": 9}}},
            {"kind": "region", "id": "half", "name": "half", "within": {"kind": "box",
             "box": {"least": {"x": -1, "y": -1, "z": -1}, "greatest": {"x": 1.2, "y": 9, "z": 9}}}},
            {"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}},
            {"kind": "region", "id": "crate", "name": "crate", "within": {"kind": "box", "cut": true,
             "box": {"least": {"x": 0.9, "y": 0.2, "z": 0.1}, "greatest": {"x": 3.0, "y": 1.2, "z": 2}}}},
            {"kind": "region", "id": "ball", "name": "ball", "within": {"kind": "ball", "centre": {"x": 1.2, "y": 0.8, "z": 0.5}, "radius": 0.5}},
            {"kind": "region", "id": "corner", "name": "corner", "within": {"kind": "ball", "centre": {"x": 0, "y": 0, "z": 0}, "radius": 0.4}},
            {"kind": "region", "id": "nowhere", "name": "nowhere", "within": {"kind": "ball", "centre": {"x": 9, "y": 0, "z": 0}, "radius": 0.4}},
            {"kind": "line", "id": "stick", "name": "stick", "a": {"x": -0.2, "y": 0.1, "z": 0.2}, "b": {"x": 3.5, "y": 1.3, "z": 0.7},
             "sampling": {"kind": "even", "samples": 41}},
            {"kind": "line", "id": "far", "name": "far", "a": {"x": -2, "y": 9, "z": 0.2}, "b": {"x": 3.5, "y": 9, "z": 0.7},
             "sampling": {"kind": "even", "samples": 5}},
            {"kind": "line", "id": "exact", "name": "exact", "a": {"x": 0.2, "y": 0.1, "z": 0.2}, "b": {"x": 3.5, "y": 1.3, "z": 0.7},
             "sampling": {"kind": "cell-exact"}},
            {"kind": "points", "id": "pins", "name": "pins", "points": [{"x": 0.2, "y": 0.2, "z": 0.2}, {"x": 3.3, "y": 1.2, "z": 0.3}, {"x": 5, "y": 0, "z": 0}]}
            """;

    private static final String LOADS =
            "\"loads\": {\"pressure\": \"load\", \"reference\": 120, \"shear\": \"\", \"shearActsOn\": \"WALL\", \"on\": \"WALL\"}";

    private static String tally(String id, String stations, String measure) {
        return "{\"kind\": \"tally\", \"id\": \"" + id + "\", \"name\": \"" + id + "\", \"stations\": [" + stations
                + "], \"measure\": {" + measure + "}, \"unit\": \"\"}";
    }

    private static String readings() {
        List<String> all = new ArrayList<>();
        for (String at : List.of(
                "skin", "low", "top", "mid", "joint", "back", "end", "window", "damp", "log", "all", "crate", "ball",
                "corner", "nowhere", "stick", "pins")) {
            String s = "\"" + at + "\"";
            boolean path = at.equals("stick") || at.equals("pins");
            boolean region =
                    List.of("all", "crate", "ball", "corner", "nowhere").contains(at);
            for (String quantity : List.of("moisture", "kiln", "wet")) {
                String q = ", \"quantity\": \"" + quantity + "\"";
                all.add(tally("mean " + quantity + " " + at, s, "\"kind\": \"mean\"" + q));
                all.add(tally("integral " + quantity + " " + at, s, "\"kind\": \"integral\"" + q));
                all.add(tally("top " + quantity + " " + at, s, "\"kind\": \"extreme\", \"greatest\": true" + q));
            }
            if (List.of("top", "mid", "joint", "ball", "stick").contains(at)) {
                String q = ", \"quantity\": \"moisture\"";
                all.add(tally("spread " + at, s, "\"kind\": \"statistic\", \"what\": \"DEVIATION\"" + q));
                all.add(tally(
                        "share " + at, s, "\"kind\": \"statistic\", \"what\": \"PERCENTILE\", \"share\": 0.37" + q));
            }
            all.add(tally("size " + at, s, "\"kind\": \"area\""));
            if (!path) {
                all.add(tally("count " + at, s, "\"kind\": \"stored\", \"take\": \"COUNT\", \"at\": \"CELLS\""));
                all.add(tally(
                        "sum " + at,
                        s,
                        "\"kind\": \"stored\", \"take\": \"SIZE_MEAN\", \"at\": \"CELLS\", \"quantity\": \"kiln\""));
                all.add("{\"kind\": \"extent\", \"id\": \"e" + at + "\", \"name\": \"e" + at + "\", \"stations\": [" + s
                        + "], \"condition\": \"soaked\", \"at\": \"CELLS\", \"number\": \"SIZE\", \"unit\": \"\"}");
            }
            if (!path && !region && !at.equals("log")) {
                all.add(tally("flow " + at, s, "\"kind\": \"flow\", \"vector\": \"draught\", \"factor\": 1"));
                all.add("{\"kind\": \"load\", \"id\": \"l" + at + "\", \"name\": \"l" + at + "\", \"stations\": [" + s
                        + "], "
                        + LOADS
                        + ", \"about\": {\"x\": 0.1, \"y\": 0.2, \"z\": 0}, \"along\": {\"x\": 1, \"y\": 0, \"z\": 0},"
                        + " \"across\": {\"x\": 0, \"y\": 0, \"z\": 1}, \"number\": \"MAGNITUDE\", \"unit\": \"\"}");
            }
        }
        all.add(tally(
                "carried",
                "\"mid\"",
                "\"kind\": \"weighted-mean\", \"quantity\": \"moisture\", \"vector\": \"draught\""));
        for (String at : List.of("skin", "low", "all", "ball")) {
            all.add(tally(
                    "nodes " + at, "\"" + at + "\"", "\"kind\": \"stored\", \"take\": \"COUNT\", \"at\": \"NODES\""));
            all.add(tally(
                    "node mean " + at,
                    "\"" + at + "\"",
                    "\"kind\": \"stored\", \"take\": \"MEAN\", \"at\": \"NODES\", \"quantity\": \"moisture\""));
        }
        all.add(
                "{\"kind\": \"vector\", \"id\": \"wind\", \"name\": \"wind\", \"stations\": [\"mid\"], \"measure\": {\"kind\":"
                        + " \"mean\", \"quantity\": \"draught\"}, \"number\": \"Y\", \"unit\": \"\"}");
        all.add(
                "{\"kind\": \"profile\", \"id\": \"p1\", \"name\": \"p1\", \"station\": \"stick\", \"quantity\": \"wet\","
                        + " \"unit\": \"%\"}");
        all.add(
                "{\"kind\": \"profile\", \"id\": \"p2\", \"name\": \"p2\", \"station\": \"stick\", \"quantity\": \"kiln\","
                        + " \"unit\": \"\"}");
        all.add(
                "{\"kind\": \"profile\", \"id\": \"p3\", \"name\": \"p3\", \"station\": \"far\", \"quantity\": \"kiln\","
                        + " \"unit\": \"\"}");
        all.add("{\"kind\": \"feature\", \"id\": \"f1\", \"name\": \"f1\", \"of\": {\"kind\": \"profile\", \"station\":"
                + " \"stick\", \"quantity\": \"moisture\"}, \"what\": \"CROSSING\", \"at\": 0.2, \"unit\": \"\"}");
        all.add(
                "{\"kind\": \"pair\", \"id\": \"two\", \"name\": \"two\", \"first\": \"mid\", \"second\": \"all\", \"quantity\":"
                        + " \"moisture\", \"how\": \"DIFFERENCE\", \"match\": \"ABSCISSA\", \"as\": \"NUMBER\", \"unit\": \"\"}");
        all.add(
                "{\"kind\": \"balance\", \"id\": \"air\", \"name\": \"air\", \"terms\": [{\"name\": \"out\", \"factor\": 1,"
                        + " \"stations\": [\"skin\"], \"measure\": {\"kind\": \"flow\", \"vector\": \"draught\", \"factor\": 1}}, {\"name\": \"in\","
                        + " \"factor\": -1, \"stations\": [\"all\"], \"measure\": {\"kind\": \"integral\", \"quantity\": \"source\"}}],"
                        + " \"closedBy\": [], \"positive\": \"leaves the stack\", \"unit\": \"\"}");
        all.add(
                "{\"kind\": \"balance\", \"id\": \"part\", \"name\": \"part\", \"terms\": [{\"name\": \"wall\", \"factor\": 1,"
                        + " \"stations\": [\"left\"], \"measure\": {\"kind\": \"flow\", \"vector\": \"draught\", \"factor\": 1}}, {\"name\":"
                        + " \"through\", \"factor\": 1, \"stations\": [\"joint\"], \"measure\": {\"kind\": \"flow\", \"vector\": \"draught\","
                        + " \"factor\": 1}}, {\"name\": \"within\", \"factor\": -1, \"stations\": [\"half\"], \"measure\": {\"kind\":"
                        + " \"integral\", \"quantity\": \"source\"}}], \"closedBy\": [], \"positive\": \"leaves the half\", \"unit\": \"\"}");
        all.add(
                "{\"kind\": \"balance\", \"id\": \"open\", \"name\": \"open\", \"terms\": [{\"name\": \"out\", \"factor\": 1,"
                        + " \"stations\": [\"low\"], \"measure\": {\"kind\": \"flow\", \"vector\": \"draught\", \"factor\": 1}}],"
                        + " \"closedBy\": [], \"positive\": \"leaves the stack\", \"unit\": \"\"}");
        all.addAll(REFUSED);
        return String.join(",\n", all);
    }

    /** What a piece alone does not know. */
    private static final List<String> REFUSED = List.of(
            "{\"kind\": \"profile\", \"id\": \"r1\", \"name\": \"r1\", \"station\": \"exact\", \"quantity\": \"kiln\", \"unit\":"
                    + " \"\"}",
            "{\"kind\": \"jump\", \"id\": \"r2\", \"name\": \"r2\", \"stations\": [\"all\"], \"quantity\": \"kiln\","
                    + " \"relative\": \"ABSOLUTE\", \"number\": \"COUNT\", \"unit\": \"\"}",
            tally("r3", "\"all\"", "\"kind\": \"mean\", \"quantity\": \"steep\""),
            tally("r4", "\"all\"", "\"kind\": \"mean\", \"quantity\": \"above\""),
            tally("r5", "\"all\"", "\"kind\": \"stored\", \"take\": \"PIECES\", \"at\": \"CELLS\""),
            tally("r6", "\"all\"", "\"kind\": \"mean\", \"quantity\": \"beside\""));

    private Study study(String file, boolean inPieces) {
        String quantities = """
                {"id": "wet", "name": "wet", "formula": "moisture * moisture", "unit": "1"},
                {"id": "soaked", "name": "soaked", "formula": "moisture > 0.22", "unit": ""},
                {"id": "source", "name": "source", "formula": "draught.z / 1 \\"m\\"", "unit": "1/s"},
                {"id": "steep", "name": "steep", "formula": "grad(moisture).x", "unit": "1/m"},
                {"id": "above", "name": "above", "formula": "moisture - mean(moisture over \\"all\\")", "unit": "1"},
                {"id": "beside", "name": "beside", "formula": "moisture - (moisture of \\"other\\")", "unit": "1"}
                """;
        String run = "{\"kind\": \"run\", \"id\": \"%s\", \"name\": \"%s\", \"file\": \"" + file
                + "\", \"partFiles\": [\"skin.vtp\"],"
                + " \"regions\": \"layer\", \"family\": \"\", \"treatment\": {\"length\": \"mm\", \"inPieces\": %s}}";
        return StudyJson.of(
                "{\"version\": " + Study.VERSION
                        + ", \"name\": \"stack\", \"settings\": {\"datum\": \"stack\", \"units\": ["
                        + "{\"field\": \"moisture\", \"unit\": \"1\", \"stated\": true},"
                        + "{\"field\": \"draught\", \"unit\": \"m/s\", \"stated\": true},"
                        + "{\"field\": \"load\", \"unit\": \"Pa\", \"stated\": true},"
                        + "{\"field\": \"kiln\", \"unit\": \"degC\", \"stated\": true}]}, \"sources\": ["
                        + String.format(run, "stack", "stack", inPieces) + ", "
                        + String.format(run, "other", "other", false) + "], \"quantities\": [" + quantities
                        + "], \"stations\": [" + STATIONS + "], \"readings\": [" + readings() + "], \"checks\": []}",
                "study");
    }

    private Results evaluate(String file, boolean inPieces) {
        return new Evaluator(new FileLibrary(folder)).evaluate(study(file, inPieces), Work.QUIET);
    }

    /** All but how well it was integrated, which is round-off or not there. */
    private static List<Scalar> told(Outcome of) {
        return of.scalars().stream().filter(s -> !s.what().equals("quadrature")).toList();
    }

    private static void same(String name, Outcome whole, Outcome pieces) {
        if (whole instanceof Outcome.Absent a) {
            assertThat(pieces).as(name).isInstanceOf(Outcome.Absent.class);
            assertThat(((Outcome.Absent) pieces).brief())
                    .as(name + ": " + pieces)
                    .isEqualTo(a.brief());
            return;
        }
        assertThat(pieces).as(name).isNotInstanceOf(Outcome.Absent.class);
        assertThat(pieces.unit()).as(name).isEqualTo(whole.unit());
        List<Scalar> first = told(whole);
        List<Scalar> second = told(pieces);
        assertThat(second).as(name).hasSameSizeAs(first);
        double scale = whole.scalars().stream()
                .mapToDouble(s -> Math.abs(s.estimate().value()))
                .filter(Double::isFinite)
                .max()
                .orElse(1);
        for (int i = 0; i < first.size(); i++) {
            Scalar a = first.get(i);
            Scalar b = second.get(i);
            String what = name + ", " + a.what();
            assertThat(b.what()).as(what).isEqualTo(a.what());
            if (a.what().equals("pieces")) {
                assertThat(b.estimate().value()).isNaN();
                continue;
            }
            // On a cylinder the rule is not exact, and what cells share of it is parted by their size.
            double doubt = name.endsWith("log") ? 1e-7 * scale : 1e-11 * scale;
            assertThat(b.estimate().value()).as(what).isCloseTo(a.estimate().value(), within(doubt));
            if (!name.endsWith("log") && !name.startsWith("l")) {
                assertThat(b.remark().replaceAll("-?\\d+\\.\\d+([eE]-?\\d+)?", "#"))
                        .as(what)
                        .isEqualTo(a.remark().replaceAll("-?\\d+\\.\\d+([eE]-?\\d+)?", "#"));
            }
        }
        if (whole instanceof Profile p) {
            Profile q = (Profile) pieces;
            assertThat(q.found()).isEqualTo(p.found());
            for (int i = 0; i < p.size(); i++) {
                assertThat(q.abscissa()[i]).as(name).isEqualTo(p.abscissa()[i]);
                if (Double.isNaN(p.value()[i])) {
                    assertThat(q.value()[i]).as(name + " at " + i).isNaN();
                } else {
                    assertThat(q.value()[i]).as(name + " at " + i).isCloseTo(p.value()[i], within(1e-9));
                }
            }
        }
    }

    @ParameterizedTest
    @CsvSource({"HEXAHEDRON, pvtu", "TETRAHEDRON, vtkhdf", "HEXAHEDRON, cgns", "TETRAHEDRON, xdmf", "HEXAHEDRON, pvd"})
    void whatIsReadInPiecesIsWhatIsReadWhole(CellShape shape, String format) throws IOException {
        List<Piece> pieces = pieces(BoxMesh.of(shape, CUBES, SIZE, 0, 5));
        switch (format) {
            case "vtkhdf" -> vtkhdf(pieces);
            case "xdmf" -> xdmf(pieces);
            case "cgns" -> cgns(pieces);
            default -> pvtu("stack", pieces);
        }
        if (format.equals("pvd")) {
            Files.writeString(
                    folder.resolve("stack.pvd"),
                    "<VTKFile type=\"Collection\"><Collection><DataSet timestep=\"7\" file=\"stack.pvtu\"/>"
                            + "</Collection></VTKFile>");
        }
        String file = "stack." + format;
        Results whole = evaluate(file, false);
        assertThat(whole.failures()).isEmpty();
        Results parted = evaluate(file, true);
        assertThat(parted.unread()).isEmpty();
        assertThat(parted.inPieces().keySet()).containsExactly("stack");
        assertThat(parted.failures().get("stack")).contains("6 pieces");
        Set<String> refused = new LinkedHashSet<>();
        whole.study().readings().forEach(r -> {
            Outcome a = whole.outcome(r.id(), "stack");
            Outcome b = parted.outcome(r.id(), "stack");
            // Into how many faces a shell falls is not known of pieces, so nothing is counted over them.
            if (r.id().matches("r\\d|(count |e)log")) {
                assertThat(a).as(r.id() + a).isNotInstanceOf(Outcome.Absent.class);
                assertThat(b).as(r.id()).isInstanceOf(Outcome.Absent.class);
                refused.add(((Outcome.Absent) b).reason());
            } else {
                same(r.id(), a, b);
            }
        });
        assertThat(refused).allMatch(s -> s.contains("piece"));
        // What is closed by a plane in the faces where pieces meet.
        assertThat(parted.outcome("part", "stack")).isInstanceOf(Balance.class);
        assertThat(parted.outcome("open", "stack")).isInstanceOf(Outcome.Absent.class);
    }

    @Test
    void historiesPassOnePieceOfOneTimeAfterTheOther() throws IOException {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, CUBES, SIZE, 0, 5);
        var sets = new StringBuilder();
        for (int day = 0; day < 3; day++) {
            int drier = day;
            List<Piece> pieces = pieces(mesh).stream()
                    .map(p -> new Piece(
                            p.mesh,
                            List.of(new Field(
                                    "moisture",
                                    Field.At.NODE,
                                    1,
                                    Unit.UNKNOWN,
                                    Values.of(Arrays.stream(p.values("moisture"))
                                            .map(v -> v - 0.01 * drier)
                                            .toArray())))))
                    .toList();
            pvtu("day" + day, pieces);
            sets.append("<DataSet timestep=\"" + day + "\" file=\"day" + day + ".pvtu\"/>");
        }
        Files.writeString(
                folder.resolve("days.pvd"),
                "<VTKFile type=\"Collection\"><Collection>" + sets + "</Collection></VTKFile>");
        String text = """
                {"version": 3, "name": "days", "sources": [{"kind": "run", "id": "stack", "name": "stack", "file": "days.pvd",
                  "treatment": {"length": "mm", "inPieces": %s}}],
                 "stations": [{"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}},
                  {"kind": "line", "id": "stick", "name": "stick", "a": {"x": 0.2, "y": 0.1, "z": 0.2},
                   "b": {"x": 3.5, "y": 1.3, "z": 0.7}, "sampling": {"kind": "even", "samples": 7}}],
                 "readings": [{"kind": "history", "id": "dry", "name": "dry", "of": {"kind": "tally", "stations": ["all"],
                   "measure": {"kind": "mean", "quantity": "moisture"}}},
                  {"kind": "feature", "id": "rate", "name": "rate", "of": {"kind": "history", "of": {"kind": "tally",
                   "stations": ["all"], "measure": {"kind": "mean", "quantity": "moisture"}}}, "what": "SLOPE"},
                  {"kind": "over-times", "id": "rods", "name": "rods", "of": {"kind": "profile", "station": "stick",
                   "quantity": "moisture"}, "show": "MEAN"}]}
                """;
        Results whole = new Evaluator(new FileLibrary(folder))
                .evaluate(StudyJson.of(String.format(text, false), "study"), Work.QUIET);
        var library = FileLibrary.anew(folder, Map.of());
        Results parted = new Evaluator(library).evaluate(StudyJson.of(String.format(text, true), "study"), Work.QUIET);
        assertThat(parted.unread()).isEmpty();
        assertThat(parted.standing("stack").orElseThrow().times()).containsExactly(0.0, 1.0, 2.0);
        assertThat(parted.standing("stack").orElseThrow().time()).isEqualTo(2);
        for (String r : List.of("dry", "rate", "rods")) {
            assertThat(whole.outcome(r, "stack")).as(r).isNotInstanceOf(Outcome.Absent.class);
            same(r, whole.outcome(r, "stack"), parted.outcome(r, "stack"));
        }
    }
}
