package lane.formats.hdf;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import lane.base.Work;
import lane.field.Deferred;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.grid.Blocks;
import lane.formats.grid.CellCodes;
import lane.formats.grid.Dataset;
import lane.formats.grid.Opening;
import lane.formats.grid.Structured;
import lane.formats.io.FileErrors;
import lane.formats.io.FileHash;
import lane.formats.io.FormatError;
import lane.mesh.Mesh;
import lane.quantity.FieldUnit;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Element;
import org.xml.sax.ErrorHandler;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;

/**
 * Reads XDMF files of version 2 and 3: numbers in the XML, in HDF5 or in binary files beside it; uniform grids, spatial
 * collections as blocks, one time of temporal collections; structured and unstructured topologies. References
 * to other elements are followed by their paths.
 */
public final class XdmfReader {
    private static final long MOST_XML = 1L << 30;
    private static final int MOST_AGAIN = 1000;

    private final Path file;
    private final TimeSelector moment;
    private final Work work;
    private final List<String> remarks = new ArrayList<>();
    private final XdmfData data;

    private final Opening opening;
    private final Set<Element> seen = java.util.Collections.newSetFromMap(new java.util.IdentityHashMap<>());
    private int again;

    private XdmfReader(Path file, TimeSelector moment, Opening opening, Work work) {
        this.file = file;
        this.opening = opening;
        this.moment = moment;
        this.work = work;
        data = new XdmfData(file, work);
    }

    public static Dataset read(Path file, TimeSelector moment, Opening opening, Work work) {
        return FileErrors.of(file, () -> new XdmfReader(file, moment, opening, work).whole());
    }

    private Element parse() {
        try {
            if (Files.size(file) > MOST_XML) {
                throw FormatError.tooLarge("its XML is larger than a gigabyte; keep the numbers in HDF5");
            }
            var factory = DocumentBuilderFactory.newInstance(
                    "com.sun.org.apache.xerces.internal.jaxp.DocumentBuilderFactoryImpl", null);
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setFeature("http://xml.org/sax/features/external-general-entities", false);
            factory.setFeature("http://xml.org/sax/features/external-parameter-entities", false);
            factory.setFeature("http://apache.org/xml/features/nonvalidating/load-external-dtd", false);
            factory.setExpandEntityReferences(false);
            factory.setXIncludeAware(false);
            var builder = factory.newDocumentBuilder();
            builder.setEntityResolver((publicId, systemId) -> new InputSource(new java.io.StringReader("")));
            builder.setErrorHandler(new ErrorHandler() {
                @Override
                public void warning(SAXParseException e) {}

                @Override
                public void error(SAXParseException e) {}

                @Override
                public void fatalError(SAXParseException e) throws SAXParseException {
                    throw e;
                }
            });
            try (var in = Files.newInputStream(file)) {
                return builder.parse(in).getDocumentElement();
            }
        } catch (SAXParseException e) {
            throw new FormatError("its XML is damaged at line " + e.getLineNumber());
        } catch (SAXException | ParserConfigurationException e) {
            throw new FormatError("its XML cannot be read");
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        }
    }

    private Dataset whole() {
        Dataset made = all();
        return made.from(data.files()).saying(data.notes());
    }

    private Dataset all() {
        Element root = parse();
        Element domain = root.getTagName().equals("Xdmf") ? XdmfData.child(root, "Domain") : null;
        if (domain == null) {
            throw new FormatError("it begins with <" + root.getTagName() + "> and has no domain of <Xdmf>");
        }
        List<Element> grids = grids(domain);
        if (grids.isEmpty()) {
            throw new FormatError("it has no grid");
        }
        // A mesh that is only referred to stands before the collection that uses it.
        Element chosen = grids.stream()
                .filter(g -> XdmfData.word(g, "CollectionType").equalsIgnoreCase("Temporal"))
                .findFirst()
                .orElse(null);
        if (chosen != null) {
            return grid(chosen, 0);
        }
        return grids.size() == 1 ? grid(grids.getFirst(), 0) : blocks(grids, 0);
    }

    private List<Element> grids(Element parent) {
        return XdmfData.children(parent, "Grid").stream().map(data::referred).toList();
    }

    /** Whether one of several grids is being read, which count as the pieces. */
    private boolean within;

    private Dataset blocks(List<Element> grids, int depth) {
        List<String> names = new ArrayList<>();
        List<Dataset> all = new ArrayList<>();
        boolean before = within;
        for (int k = 0; k < grids.size(); k++) {
            Element g = grids.get(k);
            if (within || grids.size() == 1 || opening.wants(k)) {
                within = before || grids.size() > 1;
                names.add(XdmfData.word(g, "Name").isEmpty() ? "grid " + (k + 1) : XdmfData.word(g, "Name"));
                all.add(grid(g, depth + 1));
                within = before;
            }
        }
        Dataset made =
                Blocks.join(names, all).in(grids.size() == 1 ? all.getFirst().pieces() : grids.size());
        Dataset timed =
                all.stream().filter(d -> !d.times().isEmpty()).findFirst().orElse(null);
        return timed == null ? made : made.at(timed.times(), timed.time());
    }

    private Dataset grid(Element grid, int depth) {
        work.poll();
        // References let a small file ask for one grid a million times.
        if (!seen.add(grid) && ++again > MOST_AGAIN) {
            throw FormatError.tooLarge("it refers to its grids more than " + MOST_AGAIN + " times over");
        }
        if (depth > 20) {
            throw new FormatError("its grids are nested more than twenty deep");
        }
        String type = XdmfData.word(grid, "GridType", "Type");
        if (type.equalsIgnoreCase("Collection") || type.equalsIgnoreCase("Tree")) {
            List<Element> inside = grids(grid);
            if (inside.isEmpty()) {
                throw new FormatError("a collection of it is empty");
            }
            if (!XdmfData.word(grid, "CollectionType").equalsIgnoreCase("Temporal")) {
                return blocks(inside, depth);
            }
            double[] times = times(grid, inside);
            List<Double> sorted = Arrays.stream(times).boxed().sorted().toList();
            double wanted = sorted.get(moment.in(sorted));
            int at = 0;
            while (times[at] != wanted) {
                at++;
            }
            return grid(inside.get(at), depth + 1).at(sorted, wanted);
        }
        return uniform(grid);
    }

    private double[] times(Element collection, List<Element> inside) {
        double[] out = new double[inside.size()];
        Element own = XdmfData.child(collection, "Time");
        Element item = own == null ? null : XdmfData.child(own, "DataItem");
        double[] listed = item == null ? null : data.doubles(item);
        for (int i = 0; i < out.length; i++) {
            Element time = XdmfData.child(inside.get(i), "Time");
            String value = time == null ? "" : XdmfData.word(time, "Value");
            out[i] = value.isEmpty() ? listed(own, listed, i, out.length) : XdmfData.real(value);
        }
        return out;
    }

    /** A time of a collection: of a list, by start and step, or evenly from the first to the last; else its number. */
    private static double listed(@Nullable Element own, double @Nullable [] listed, int i, int count) {
        if (own == null || listed == null) {
            return i;
        }
        String type = XdmfData.word(own, "TimeType", "Type").toLowerCase(Locale.ROOT);
        if (listed.length >= 2 && type.equals("hyperslab")) {
            return listed[0] + i * listed[1];
        }
        if (listed.length == 2 && type.equals("range")) {
            return listed[0] + i * (listed[1] - listed[0]) / Math.max(1, count - 1);
        }
        return i < listed.length ? listed[i] : i;
    }

    private Dataset uniform(Element grid) {
        Element topology = data.childOrIncluded(grid, "Topology");
        Element geometry = data.childOrIncluded(grid, "Geometry");
        if (topology == null || geometry == null) {
            throw new FormatError("grid \"" + XdmfData.word(grid, "Name") + "\" lacks its topology or its geometry");
        }
        Grid made = opening.onDemand()
                ? opening.grids()
                        .of(List.of(data.looks(topology), data.looks(geometry)), () -> grid(grid, topology, geometry))
                : grid(grid, topology, geometry);
        remarks.addAll(made.remarks);
        List<Field> fields = new ArrayList<>();
        for (Element a : XdmfData.children(grid, "Attribute")) {
            attribute(data.referred(a), made.mesh, made.source, fields);
        }
        Element time = XdmfData.child(grid, "Time");
        Dataset out = new Dataset(made.mesh, fields, remarks);
        return time == null || XdmfData.word(time, "Value").isEmpty()
                ? out
                : out.at(
                        List.of(XdmfData.real(XdmfData.word(time, "Value"))),
                        XdmfData.real(XdmfData.word(time, "Value")));
    }

    /**
     * A mesh.
     *
     * @param source for each cell that was made of another, the one in the file; null for none
     */
    private record Grid(Mesh mesh, int @Nullable [] source, List<String> remarks) {}

    private Grid grid(Element grid, Element topology, Element geometry) {
        List<String> said = new ArrayList<>();
        List<String> noted = data.notes();
        String kind = XdmfData.word(topology, "TopologyType", "Type").toLowerCase(Locale.ROOT);
        int[] dims = XdmfData.sizes(XdmfData.word(topology, "Dimensions", "NumberOfElements"));
        double[] xyz = geometry(geometry, kind.contains("mesh") ? dims : null);
        if (kind.contains("mesh")) {
            int[] n = backwards(dims);
            if (xyz.length != 3L * Structured.nodes(new long[] {n[0], n[1], n[2]})) {
                throw new FormatError(
                        "the nodes of grid \"" + XdmfData.word(grid, "Name") + "\" do not fit its dimensions");
            }
            said.addAll(data.notes(noted));
            return new Grid(Structured.mesh(xyz, n), null, said);
        }
        CellCodes.Made made = cells(topology, kind, xyz, said);
        said.addAll(data.notes(noted));
        return new Grid(made.mesh(), made.source(), said);
    }

    /** Slowest first in the file, fastest first here. */
    private static int[] backwards(int[] dims) {
        int[] out = {1, 1, 1};
        for (int d = 0; d < Math.min(3, dims.length); d++) {
            out[d] = dims[dims.length - 1 - d];
        }
        return out;
    }

    private void attribute(Element a, Mesh mesh, int @Nullable [] source, List<Field> out) {
        String name = XdmfData.word(a, "Name").isEmpty() ? "unnamed" : XdmfData.word(a, "Name");
        String centre = XdmfData.word(a, "Center").toLowerCase(Locale.ROOT);
        if (!centre.equals("node") && !centre.equals("cell") && !centre.isEmpty()) {
            remarks.add("Array \"" + name + "\" is stored by " + centre + " and was not read.");
            return;
        }
        Field.At at = centre.equals("cell") ? Field.At.CELL : Field.At.NODE;
        Element item = XdmfData.child(a, "DataItem");
        if (item == null) {
            throw new FormatError("attribute \"" + name + "\" has no numbers");
        }
        Values values = opening.onDemand() ? data.later(item) : data.values(item);
        int count = at == Field.At.NODE
                ? mesh.nodeCount()
                : source == null
                        ? mesh.cellCount()
                        : Arrays.stream(source).max().orElse(-1) + 1;
        if (count == 0 || values.length() % count != 0 || values.length() == 0) {
            throw new FormatError(
                    "attribute \"" + name + "\" has " + values.length() + " numbers for " + count + " " + at.word());
        }
        int components = values.length() / count;
        if (at == Field.At.CELL && source != null) {
            values = values.pick(components, source);
        }
        if (components == 6 && XdmfData.word(a, "AttributeType", "Type").equalsIgnoreCase("Tensor6")) {
            values = later(values, values.length(), "tensor", Tensor6::turned);
        }
        // A vector of a plane gets its third component; two numbers that are no vector stay two.
        if (components == 2 && !XdmfData.word(a, "AttributeType", "Type").equalsIgnoreCase("Matrix")) {
            values = later(values, 3 * (values.length() / 2), "three", XdmfReader::three);
            components = 3;
        }
        out.add(new Field(name, at, components, Unit.of(FieldUnit.guess(name)), values));
    }

    private static Values three(Values two) {
        double[] three = new double[3 * (two.length() / 2)];
        for (int i = 0; i < two.length() / 2; i++) {
            three[3 * i] = two.get(2 * i);
            three[3 * i + 1] = two.get(2 * i + 1);
        }
        return Values.of(three);
    }

    /** What is made of values: now, or when they are read. */
    private static Values later(Values of, int length, String what, java.util.function.UnaryOperator<Values> make) {
        return of instanceof Deferred
                ? new Deferred(List.of(of, what), length, () -> make.apply(of.now()))
                : make.apply(of);
    }

    private double[] geometry(Element geometry, int @Nullable [] dims) {
        String kind = XdmfData.word(geometry, "GeometryType", "Type").toUpperCase(Locale.ROOT);
        List<Element> items = XdmfData.children(geometry, "DataItem");
        switch (kind) {
            case "", "XYZ" -> {
                return data.doubles(need(items, 0));
            }
            case "XY" -> {
                double[] xy = data.doubles(need(items, 0));
                double[] out = new double[Math.multiplyExact(3, xy.length / 2)];
                for (int i = 0; i < xy.length / 2; i++) {
                    out[3 * i] = xy[2 * i];
                    out[3 * i + 1] = xy[2 * i + 1];
                }
                return out;
            }
            case "X_Y_Z", "X_Y" -> {
                double[] x = data.doubles(need(items, 0));
                double[] out = new double[Math.multiplyExact(3, x.length)];
                for (int d = 0; d < (kind.equals("X_Y") ? 2 : 3); d++) {
                    double[] c = data.doubles(need(items, d));
                    for (int i = 0; i < x.length; i++) {
                        out[3 * i + d] = c[i];
                    }
                }
                return out;
            }
            case "VXVYVZ" -> {
                return Structured.product(
                        data.doubles(need(items, 0)), data.doubles(need(items, 1)), data.doubles(need(items, 2)));
            }
            case "VXVY" -> {
                return Structured.product(data.doubles(need(items, 0)), data.doubles(need(items, 1)), new double[1]);
            }
            case "ORIGIN_DXDYDZ", "ORIGIN_DXDY" -> {
                double[] o = data.doubles(need(items, 0));
                double[] s = data.doubles(need(items, 1));
                int n = o.length;
                double[] origin = new double[3];
                double[] step = {1, 1, 1};
                for (int d = 0; d < Math.min(3, n); d++) {
                    origin[d] = o[n - 1 - d];
                    step[d] = s[n - 1 - d];
                }
                int[] size = backwards(dims == null ? new int[0] : dims);
                if (Structured.nodes(new long[] {size[0], size[1], size[2]}) > 500_000_000) {
                    throw FormatError.tooLarge("its grid has more nodes than this program holds");
                }
                return Structured.image(new int[3], size, origin, step, new double[] {1, 0, 0, 0, 1, 0, 0, 0, 1});
            }
            default -> throw FormatError.unsupported("it has the geometry \"" + kind + "\", which is not read");
        }
    }

    private static Element need(List<Element> items, int at) {
        if (at >= items.size()) {
            throw new FormatError("its geometry has " + items.size() + " arrays, and more are needed");
        }
        return items.get(at);
    }

    /** The type number in the VTK formats and the number of nodes (0 where each cell has its own). */
    private static int[] shape(String kind) {
        return switch (kind) {
            case "polyvertex" -> new int[] {1, 1};
            case "polyline" -> new int[] {4, 0};
            case "polygon" -> new int[] {7, 0};
            case "triangle" -> new int[] {5, 3};
            case "quadrilateral" -> new int[] {9, 4};
            case "tetrahedron" -> new int[] {10, 4};
            case "pyramid" -> new int[] {14, 5};
            case "wedge" -> new int[] {13, 6};
            case "hexahedron" -> new int[] {12, 8};
            case "edge_3" -> new int[] {21, 3};
            case "triangle_6", "tri_6" -> new int[] {22, 6};
            case "quadrilateral_8", "quad_8" -> new int[] {23, 8};
            case "quadrilateral_9", "quad_9" -> new int[] {28, 9};
            case "tetrahedron_10", "tet_10" -> new int[] {24, 10};
            case "pyramid_13" -> new int[] {27, 13};
            case "wedge_15" -> new int[] {26, 15};
            case "wedge_18" -> new int[] {32, 18};
            case "hexahedron_20", "hex_20" -> new int[] {25, 20};
            case "hexahedron_24", "hex_24" -> new int[] {33, 24};
            case "hexahedron_27", "hex_27" -> new int[] {29, 27};
            default -> throw FormatError.unsupported("it has the topology \"" + kind + "\", which is not read");
        };
    }

    private static String mixed(int code) {
        return switch (code) {
            case 1 -> "polyvertex";
            case 2 -> "polyline";
            case 3 -> "polygon";
            case 4 -> "triangle";
            case 5 -> "quadrilateral";
            case 6 -> "tetrahedron";
            case 7 -> "pyramid";
            case 8 -> "wedge";
            case 9 -> "hexahedron";
            case 34 -> "edge_3";
            case 35 -> "quadrilateral_9";
            case 36 -> "triangle_6";
            case 37 -> "quadrilateral_8";
            case 38 -> "tetrahedron_10";
            case 39 -> "pyramid_13";
            case 40 -> "wedge_15";
            case 41 -> "wedge_18";
            case 48 -> "hexahedron_20";
            case 49 -> "hexahedron_24";
            case 50 -> "hexahedron_27";
            default ->
                throw FormatError.unsupported("its mixed topology has the number " + code + ", which is not read");
        };
    }

    private CellCodes.Made cells(Element topology, String kind, double[] xyz, List<String> said) {
        Element item = XdmfData.child(topology, "DataItem");
        if (item == null) {
            throw new FormatError("its topology has no numbers");
        }
        int[] all = data.ints(item);
        String base = XdmfData.word(topology, "BaseOffset");
        int first = base.isEmpty() ? 0 : (int) XdmfData.real(base);
        if (!kind.equals("mixed")) {
            int[] shape = shape(kind);
            String own = XdmfData.word(topology, "NodesPerElement");
            int size = shape[1] > 0 && !kind.equals("polyvertex")
                    ? shape[1]
                    : own.isEmpty() ? Math.max(1, shape[1]) : (int) XdmfData.real(own);
            if (size < 1 || all.length % size != 0) {
                throw new FormatError("its topology has " + all.length + " numbers, which is no multiple of " + size);
            }
            int n = all.length / size;
            int[] codes = new int[n];
            int[] offsets = new int[n + 1];
            Arrays.fill(
                    codes,
                    kind.equals("polyvertex") && size > 1 ? 2 : kind.equals("polyline") && size == 2 ? 3 : shape[0]);
            Arrays.setAll(offsets, i -> i * size);
            int[] nodes =
                    first == 0 ? all : Arrays.stream(all).map(v -> v - first).toArray();
            return CellCodes.make(xyz, codes, offsets, nodes, null, null, said);
        }
        int[] codes = new int[all.length];
        int[] offsets = new int[all.length + 1];
        int[] nodes = new int[all.length];
        int[] faceOffsets = new int[all.length + 1];
        int[] stream = new int[all.length];
        int cells = 0;
        int out = 0;
        int face = 0;
        boolean poly = false;
        for (int at = 0; at < all.length; ) {
            int code = all[at++];
            if (code == 16) {
                poly = true;
                codes[cells] = 42;
                int faces = all[at++];
                stream[face++] = faces;
                var own = new java.util.LinkedHashSet<Integer>();
                for (int f = 0; f < faces; f++) {
                    int n = all[at++];
                    stream[face++] = n;
                    for (int k = 0; k < n; k++) {
                        int node = all[at++] - first;
                        own.add(node);
                        stream[face++] = node;
                    }
                }
                for (int node : own) {
                    nodes[out++] = node;
                }
            } else {
                int[] shape = shape(mixed(code));
                int n = code <= 3 ? all[at++] : shape[1];
                if (n < 0 || n > all.length - at) {
                    throw new FormatError("its mixed topology ends in the middle of a cell");
                }
                codes[cells] = code == 1 && n > 1 ? 2 : code == 2 && n == 2 ? 3 : shape[0];
                for (int k = 0; k < n; k++) {
                    nodes[out++] = all[at++] - first;
                }
            }
            offsets[++cells] = out;
            faceOffsets[cells] = face;
        }
        return CellCodes.make(
                xyz,
                Arrays.copyOf(codes, cells),
                Arrays.copyOf(offsets, cells + 1),
                Arrays.copyOf(nodes, out),
                poly ? Arrays.copyOf(faceOffsets, cells + 1) : null,
                poly ? Arrays.copyOf(stream, face) : null,
                said);
    }
}
