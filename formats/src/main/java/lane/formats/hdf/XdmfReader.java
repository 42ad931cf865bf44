package lane.formats.hdf;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.StringTokenizer;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.xpath.XPathConstants;
import javax.xml.xpath.XPathExpressionException;
import javax.xml.xpath.XPathFactory;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.formats.FileErrors;
import lane.formats.FileHash;
import lane.formats.FormatError;
import lane.formats.grid.Blocks;
import lane.formats.grid.CellCodes;
import lane.formats.grid.Dataset;
import lane.formats.grid.Structured;
import lane.mesh.Mesh;
import lane.quantity.FieldUnit;
import lane.unit.Unit;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.ErrorHandler;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;

/**
 * Reads XDMF files of version 2 and 3: numbers in the XML, in HDF5 or in binary files beside it; uniform grids, spatial
 * collections as blocks, temporal collections with the last time read; structured and unstructured topologies. References
 * to other elements are followed by their paths.
 */
public final class XdmfReader {
    private static final long MOST_XML = 1L << 30;

    private final Path file;
    private final Work work;
    private final List<String> remarks = new ArrayList<>();
    private final java.util.Set<Path> files = new java.util.LinkedHashSet<>();

    private XdmfReader(Path file, Work work) {
        this.file = file;
        this.work = work;
    }

    public static Dataset read(Path file, Work work) {
        return FileErrors.of(file, () -> new XdmfReader(file, work).whole());
    }

    private Element parse() {
        try {
            if (Files.size(file) > MOST_XML) {
                throw new FormatError("its XML is larger than a gigabyte; keep the numbers in HDF5");
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

    private static List<Element> children(Element parent, String tag) {
        List<Element> out = new ArrayList<>();
        for (Node n = parent.getFirstChild(); n != null; n = n.getNextSibling()) {
            if (n instanceof Element e
                    && e.getLocalName() == null
                    && e.getTagName().equals(tag)) {
                out.add(e);
            }
        }
        return out;
    }

    private static Element child(Element parent, String tag) {
        List<Element> all = children(parent, tag);
        return all.isEmpty() ? null : all.getFirst();
    }

    private static String word(Element e, String... names) {
        for (String name : names) {
            if (e.hasAttribute(name)) {
                return e.getAttribute(name).strip();
            }
        }
        return "";
    }

    private Dataset whole() {
        Dataset made = all();
        return made.from(files);
    }

    private Dataset all() {
        Element root = parse();
        Element domain = root.getTagName().equals("Xdmf") ? child(root, "Domain") : null;
        if (domain == null) {
            throw new FormatError("it begins with <" + root.getTagName() + "> and has no domain of <Xdmf>");
        }
        List<Element> grids = grids(domain);
        if (grids.isEmpty()) {
            throw new FormatError("it has no grid");
        }
        // A mesh that is only referred to stands before the collection that uses it.
        Element chosen = grids.stream()
                .filter(g -> word(g, "CollectionType").equalsIgnoreCase("Temporal"))
                .findFirst()
                .orElse(null);
        if (chosen != null) {
            return grid(chosen, 0);
        }
        return grids.size() == 1 ? grid(grids.getFirst(), 0) : blocks(grids, 0);
    }

    private List<Element> grids(Element parent) {
        return children(parent, "Grid").stream().map(this::referred).toList();
    }

    private Dataset blocks(List<Element> grids, int depth) {
        List<String> names = new ArrayList<>();
        List<Dataset> all = new ArrayList<>();
        for (Element g : grids) {
            names.add(word(g, "Name").isEmpty() ? "grid " + (names.size() + 1) : word(g, "Name"));
            all.add(grid(g, depth + 1));
        }
        Dataset made = Blocks.join(names, all);
        Dataset timed =
                all.stream().filter(d -> !d.times().isEmpty()).findFirst().orElse(null);
        return timed == null ? made : made.at(timed.times(), timed.time());
    }

    private Dataset grid(Element grid, int depth) {
        work.poll();
        if (depth > 20) {
            throw new FormatError("its grids are nested more than twenty deep");
        }
        String type = word(grid, "GridType", "Type");
        if (type.equalsIgnoreCase("Collection") || type.equalsIgnoreCase("Tree")) {
            List<Element> inside = grids(grid);
            if (inside.isEmpty()) {
                throw new FormatError("a collection of it is empty");
            }
            if (!word(grid, "CollectionType").equalsIgnoreCase("Temporal")) {
                return blocks(inside, depth);
            }
            double[] times = times(grid, inside);
            int last = 0;
            for (int i = 1; i < times.length; i++) {
                last = times[i] > times[last] ? i : last;
            }
            List<Double> sorted = Arrays.stream(times).boxed().sorted().toList();
            return grid(inside.get(last), depth + 1).at(sorted, times[last]);
        }
        return uniform(grid);
    }

    private double[] times(Element collection, List<Element> inside) {
        double[] out = new double[inside.size()];
        Element own = child(collection, "Time");
        double[] listed = own != null && child(own, "DataItem") != null ? doubles(child(own, "DataItem")) : null;
        for (int i = 0; i < out.length; i++) {
            Element time = child(inside.get(i), "Time");
            String value = time == null ? "" : word(time, "Value");
            out[i] = !value.isEmpty()
                    ? real(value)
                    : listed != null
                                    && own != null
                                    && word(own, "TimeType", "Type").equalsIgnoreCase("HyperSlab")
                            ? listed[0] + i * listed[1]
                            : listed != null && i < listed.length ? listed[i] : i;
        }
        return out;
    }

    private Dataset uniform(Element grid) {
        Element topology = referred(child(grid, "Topology"));
        Element geometry = referred(child(grid, "Geometry"));
        if (topology == null || geometry == null) {
            throw new FormatError("grid \"" + word(grid, "Name") + "\" lacks its topology or its geometry");
        }
        String kind = word(topology, "TopologyType", "Type").toLowerCase(Locale.ROOT);
        int[] dims = sizes(word(topology, "Dimensions", "NumberOfElements"));
        double[] xyz = geometry(geometry, kind.contains("mesh") ? dims : null);
        Mesh mesh;
        int[] source = null;
        if (kind.contains("mesh")) {
            int[] n = backwards(dims);
            if (xyz.length != 3L * Structured.nodes(new long[] {n[0], n[1], n[2]})) {
                throw new FormatError("the nodes of grid \"" + word(grid, "Name") + "\" do not fit its dimensions");
            }
            mesh = Structured.mesh(xyz, n);
        } else {
            CellCodes.Made made = cells(topology, kind, xyz);
            mesh = made.mesh();
            source = made.source();
        }
        List<Field> fields = new ArrayList<>();
        for (Element a : children(grid, "Attribute")) {
            attribute(referred(a), mesh, source, fields);
        }
        Element time = child(grid, "Time");
        Dataset out = new Dataset(mesh, fields, remarks);
        return time == null || word(time, "Value").isEmpty()
                ? out
                : out.at(List.of(real(word(time, "Value"))), real(word(time, "Value")));
    }

    /** Slowest first in the file, fastest first here. */
    private static int[] backwards(int[] dims) {
        int[] out = {1, 1, 1};
        for (int d = 0; d < Math.min(3, dims.length); d++) {
            out[d] = dims[dims.length - 1 - d];
        }
        return out;
    }

    private void attribute(Element a, Mesh mesh, int[] source, List<Field> out) {
        String name = word(a, "Name").isEmpty() ? "unnamed" : word(a, "Name");
        String centre = word(a, "Center").toLowerCase(Locale.ROOT);
        if (!centre.equals("node") && !centre.equals("cell") && !centre.isEmpty()) {
            remarks.add("Array \"" + name + "\" is stored by " + centre + " and was not read.");
            return;
        }
        Field.At at = centre.equals("cell") ? Field.At.CELL : Field.At.NODE;
        Element item = child(a, "DataItem");
        if (item == null) {
            throw new FormatError("attribute \"" + name + "\" has no numbers");
        }
        Values values = values(item);
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
            values = lane.formats.grid.Pick.values(values, components, source);
        }
        if (components == 2) {
            double[] three = new double[3 * (values.length() / 2)];
            for (int i = 0; i < values.length() / 2; i++) {
                three[3 * i] = values.get(2 * i);
                three[3 * i + 1] = values.get(2 * i + 1);
            }
            values = Values.of(three);
            components = 3;
        }
        out.add(new Field(name, at, components, Unit.of(FieldUnit.guess(name)), values));
    }

    private double[] geometry(Element geometry, int[] dims) {
        String kind = word(geometry, "GeometryType", "Type").toUpperCase(Locale.ROOT);
        List<Element> items = children(geometry, "DataItem");
        switch (kind) {
            case "", "XYZ" -> {
                return doubles(need(items, 0));
            }
            case "XY" -> {
                double[] xy = doubles(need(items, 0));
                double[] out = new double[Math.multiplyExact(3, xy.length / 2)];
                for (int i = 0; i < xy.length / 2; i++) {
                    out[3 * i] = xy[2 * i];
                    out[3 * i + 1] = xy[2 * i + 1];
                }
                return out;
            }
            case "X_Y_Z", "X_Y" -> {
                double[] x = doubles(need(items, 0));
                double[] out = new double[Math.multiplyExact(3, x.length)];
                for (int d = 0; d < (kind.equals("X_Y") ? 2 : 3); d++) {
                    double[] c = doubles(need(items, d));
                    for (int i = 0; i < x.length; i++) {
                        out[3 * i + d] = c[i];
                    }
                }
                return out;
            }
            case "VXVYVZ" -> {
                return Structured.product(doubles(need(items, 0)), doubles(need(items, 1)), doubles(need(items, 2)));
            }
            case "VXVY" -> {
                return Structured.product(doubles(need(items, 0)), doubles(need(items, 1)), new double[1]);
            }
            case "ORIGIN_DXDYDZ", "ORIGIN_DXDY" -> {
                double[] o = doubles(need(items, 0));
                double[] s = doubles(need(items, 1));
                int n = o.length;
                double[] origin = new double[3];
                double[] step = {1, 1, 1};
                for (int d = 0; d < Math.min(3, n); d++) {
                    origin[d] = o[n - 1 - d];
                    step[d] = s[n - 1 - d];
                }
                int[] size = backwards(dims == null ? new int[0] : dims);
                if (Structured.nodes(new long[] {size[0], size[1], size[2]}) > 500_000_000) {
                    throw new FormatError("its grid has more nodes than this program holds");
                }
                return Structured.image(new int[3], size, origin, step, new double[] {1, 0, 0, 0, 1, 0, 0, 0, 1});
            }
            default -> throw new FormatError("it has the geometry \"" + kind + "\", which is not read");
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
            default -> throw new FormatError("it has the topology \"" + kind + "\", which is not read");
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
            default -> throw new FormatError("its mixed topology has the number " + code + ", which is not read");
        };
    }

    private CellCodes.Made cells(Element topology, String kind, double[] xyz) {
        Element item = child(topology, "DataItem");
        if (item == null) {
            throw new FormatError("its topology has no numbers");
        }
        int[] all = ints(item);
        if (!kind.equals("mixed")) {
            int[] shape = shape(kind);
            String own = word(topology, "NodesPerElement");
            int size = shape[1] > 0 && !kind.equals("polyvertex")
                    ? shape[1]
                    : own.isEmpty() ? Math.max(1, shape[1]) : (int) real(own);
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
            return CellCodes.make(xyz, codes, offsets, all, null, null, remarks);
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
                        own.add(all[at]);
                        stream[face++] = all[at++];
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
                System.arraycopy(all, at, nodes, out, n);
                at += n;
                out += n;
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
                remarks);
    }

    /** The element that this one stands for: itself, or the one at its reference. */
    private Element referred(Element e) {
        if (e == null || !e.hasAttribute("Reference")) {
            return e;
        }
        String path = e.getAttribute("Reference").strip();
        if (path.equalsIgnoreCase("XML")) {
            path = e.getTextContent().strip();
        }
        if (path.length() > 500) {
            throw new FormatError("it has a reference of more than 500 characters");
        }
        try {
            var found = (Node)
                    XPathFactory.newInstance().newXPath().evaluate(path, e.getOwnerDocument(), XPathConstants.NODE);
            if (found instanceof Element there && there != e && !there.hasAttribute("Reference")) {
                return there;
            }
        } catch (XPathExpressionException x) {
            // Told below with the path.
        }
        throw new FormatError("it refers to \"" + path + "\", which is not there");
    }

    // Numbers.

    private static double real(String text) {
        try {
            return Double.parseDouble(text.strip());
        } catch (NumberFormatException e) {
            throw new FormatError(
                    "it gives \"" + text.substring(0, Math.min(40, text.length())) + "\" where a number belongs");
        }
    }

    private static int[] sizes(String text) {
        if (text.isBlank()) {
            return new int[0];
        }
        String[] words = text.strip().split("[\\s,]+");
        int[] out = new int[words.length];
        for (int i = 0; i < out.length; i++) {
            double v = real(words[i]);
            if (v < 0 || v > Integer.MAX_VALUE - 16 || v != (int) v) {
                throw new FormatError("it gives \"" + text.substring(0, Math.min(40, text.length())) + "\" as a size");
            }
            out[i] = (int) v;
        }
        return out;
    }

    private double[] doubles(Element item) {
        return Hdf.doubles(values(item));
    }

    private int[] ints(Element item) {
        Values v = values(item);
        if (v instanceof Values.Ints i) {
            return i.array();
        }
        int[] out = new int[v.length()];
        for (int i = 0; i < out.length; i++) {
            out[i] = (int) v.get(i);
            if (out[i] != v.get(i)) {
                throw new FormatError("its topology must hold whole numbers below 2 147 483 648");
            }
        }
        return out;
    }

    private Values values(Element asked) {
        work.poll();
        Element item = referred(asked);
        String type = word(item, "ItemType");
        if (type.equalsIgnoreCase("HyperSlab")) {
            return slab(item);
        }
        if (!type.isEmpty() && !type.equalsIgnoreCase("Uniform")) {
            throw new FormatError("it has a data item of type \"" + type + "\", which is not read");
        }
        long count = 1;
        for (int d : sizes(word(item, "Dimensions"))) {
            count = Math.multiplyExact(count, d);
        }
        String format = word(item, "Format").toUpperCase(Locale.ROOT);
        String text = item.getTextContent();
        Values out =
                switch (format) {
                    case "HDF", "HDF5" -> hdf(text.strip());
                    case "BINARY" -> binary(item, text.strip(), count);
                    case "", "XML" -> inline(item, text);
                    default ->
                        throw new FormatError("it has a data item of format \"" + format + "\", which is not read");
                };
        if (item.hasAttribute("Dimensions") && out.length() != count) {
            throw new FormatError("a data item says it has " + count + " numbers, but holds " + out.length());
        }
        return out;
    }

    private static boolean whole(Element item) {
        String type = word(item, "NumberType", "DataType").toLowerCase(Locale.ROOT);
        return type.equals("int") || type.equals("uint") || type.equals("char") || type.equals("uchar");
    }

    private static Values inline(Element item, String text) {
        var words = new StringTokenizer(text);
        double[] out = new double[64];
        int n = 0;
        while (words.hasMoreTokens()) {
            if (n == out.length) {
                out = Arrays.copyOf(out, 2 * n);
            }
            out[n++] = real(words.nextToken());
        }
        if (!whole(item)) {
            return new Values.Doubles(Arrays.copyOf(out, n));
        }
        int[] ints = new int[n];
        for (int i = 0; i < n; i++) {
            ints[i] = (int) out[i];
            if (ints[i] != out[i]) {
                return new Values.Doubles(Arrays.copyOf(out, n));
            }
        }
        return new Values.Ints(ints);
    }

    /** The place of a referred file: below the folder of this one, and nowhere else. */
    private Path below(String reference) {
        try {
            Path folder = file.toAbsolutePath().normalize().getParent();
            Path there = folder.resolve(reference.replace('\\', '/')).normalize();
            if (there.startsWith(folder)
                    && (!Files.exists(there) || there.toRealPath().startsWith(folder.toRealPath()))) {
                return there;
            }
        } catch (java.nio.file.InvalidPathException | IOException e) {
            // Told below with the path.
        }
        throw new FormatError("it refers to \"" + reference.substring(0, Math.min(80, reference.length()))
                + "\", which is outside its folder");
    }

    private Values hdf(String reference) {
        int colon = reference.lastIndexOf(':');
        if (colon < 1) {
            throw new FormatError("it refers to \"" + reference.substring(0, Math.min(80, reference.length()))
                    + "\", which is no HDF5 file with a path in it");
        }
        Path path = below(reference.substring(0, colon).strip());
        files.add(path);
        String inside = reference.substring(colon + 1).strip();
        return Hdf.read(path, h -> {
            io.jhdf.api.Group at = h;
            String[] names = inside.replaceAll("^/+", "").split("/+");
            for (int i = 0; i + 1 < names.length; i++) {
                at = Hdf.group(at, names[i]);
                if (at == null) {
                    throw new FormatError("it has no group \"" + names[i] + "\"");
                }
            }
            return Hdf.values(Hdf.need(at, names[names.length - 1]));
        });
    }

    private Values binary(Element item, String name, long count) {
        Path path = below(name);
        files.add(path);
        String precision = word(item, "Precision");
        int size = precision.isEmpty() ? 4 : (int) real(precision);
        long seek = word(item, "Seek").isEmpty() ? 0 : (long) real(word(item, "Seek"));
        try {
            long have = Files.size(path);
            if (seek < 0 || count > (have - seek) / Math.max(1, size) || count > Integer.MAX_VALUE / 8 - 16) {
                throw new FormatError("\"" + name + "\" is too short for " + count + " numbers");
            }
            byte[] bytes = new byte[(int) (count * size)];
            try (var in = new java.io.RandomAccessFile(path.toFile(), "r")) {
                in.seek(seek);
                in.readFully(bytes);
            }
            ByteBuffer buffer = ByteBuffer.wrap(bytes)
                    .order(
                            word(item, "Endian").equalsIgnoreCase("Big")
                                    ? ByteOrder.BIG_ENDIAN
                                    : ByteOrder.LITTLE_ENDIAN);
            int n = (int) count;
            if (whole(item)) {
                int[] out = new int[n];
                for (int i = 0; i < n; i++) {
                    long v =
                            switch (size) {
                                case 1 -> buffer.get();
                                case 2 -> buffer.getShort();
                                case 8 -> buffer.getLong();
                                default -> buffer.getInt();
                            };
                    out[i] = (int) v;
                    if (out[i] != v) {
                        throw new FormatError("\"" + name + "\" holds whole numbers beyond 2 147 483 647");
                    }
                }
                return new Values.Ints(out);
            }
            if (size == 8) {
                double[] out = new double[n];
                buffer.asDoubleBuffer().get(out);
                return new Values.Doubles(out);
            }
            float[] out = new float[n];
            buffer.asFloatBuffer().get(out);
            return new Values.Floats(out);
        } catch (IOException e) {
            throw FileHash.unreadable(path, e);
        }
    }

    /** Start, stride and count of a larger array. */
    private Values slab(Element item) {
        List<Element> items = children(item, "DataItem");
        if (items.size() != 2) {
            throw new FormatError("a hyperslab of it needs two data items");
        }
        int[] how = ints(items.get(0));
        Element from = referred(items.get(1));
        int[] dims = sizes(word(from, "Dimensions"));
        int n = dims.length;
        if (how.length != 3 * n || n == 0) {
            throw new FormatError("a hyperslab of it has " + how.length + " numbers for " + n + " dimensions");
        }
        Values all = values(from);
        long count = 1;
        for (int d = 0; d < n; d++) {
            long last = how[d] + (long) how[n + d] * (how[2 * n + d] - 1);
            if (how[d] < 0 || how[n + d] < 1 || how[2 * n + d] < 1 || last >= dims[d]) {
                throw new FormatError("a hyperslab of it reaches beyond its array");
            }
            count *= how[2 * n + d];
        }
        int[] pick = new int[Math.toIntExact(count)];
        int[] at = new int[n];
        for (int i = 0; i < pick.length; i++) {
            long index = 0;
            for (int d = 0; d < n; d++) {
                index = index * dims[d] + how[d] + (long) how[n + d] * at[d];
            }
            pick[i] = Math.toIntExact(index);
            for (int d = n - 1; d >= 0 && ++at[d] == how[2 * n + d]; d--) {
                at[d] = 0;
            }
        }
        return lane.formats.grid.Pick.values(all, 1, pick);
    }
}
