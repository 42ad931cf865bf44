package lane.formats.surface;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Work;
import lane.formats.grid.CellList;
import lane.formats.grid.Dataset;
import lane.formats.io.Bytes;
import lane.formats.io.FormatError;
import lane.mesh.CellShape;

/**
 * Reads polygons from OBJ text files: vertices and faces, with positive and negative numbers; groups and objects become
 * named surfaces. Textures, normals and materials are left out; curves and free-form surfaces are refused.
 */
public final class ObjReader {
    private ObjReader() {}

    public static Dataset read(Path file, Work work) {
        return Bytes.read(file, bytes -> read(bytes, work));
    }

    private static Dataset read(Bytes bytes, Work work) {
        double[] xyz = new double[300];
        int n = 0;
        var all = new CellList();
        Map<String, CellList> groups = new LinkedHashMap<>();
        String group = "";
        int number = 0;
        StringBuilder held = new StringBuilder();
        for (String raw = bytes.line(); raw != null; raw = bytes.line()) {
            number++;
            if ((number & 0xffff) == 0) {
                work.poll();
            }
            if (raw.endsWith("\\")) {
                held.append(raw, 0, raw.length() - 1).append(' ');
                continue;
            }
            String line = held.append(raw).toString().strip();
            held.setLength(0);
            int hash = line.indexOf('#');
            line = hash >= 0 ? line.substring(0, hash).strip() : line;
            if (line.isEmpty()) {
                continue;
            }
            String[] words = line.split("\\s+");
            switch (words[0]) {
                case "v" -> {
                    if (words.length < 4) {
                        throw new FormatError("line " + number + " gives a vertex with less than three numbers");
                    }
                    if (n + 3 > xyz.length) {
                        xyz = Arrays.copyOf(xyz, 2 * xyz.length);
                    }
                    for (int k = 1; k <= 3; k++) {
                        xyz[n++] = Bytes.real(words[k]);
                    }
                }
                case "f" -> {
                    if (words.length < 4) {
                        throw new FormatError("line " + number + " gives a face with less than three corners");
                    }
                    CellList own = groups.computeIfAbsent(group, k -> new CellList());
                    int[] nodes = new int[words.length - 1];
                    for (int k = 0; k < nodes.length; k++) {
                        nodes[k] = corner(words[k + 1], n / 3, number);
                    }
                    CellShape shape = nodes.length == 3
                            ? CellShape.TRIANGLE
                            : nodes.length == 4 ? CellShape.QUAD : CellShape.POLYGON;
                    all.add(shape, nodes);
                    own.add(shape, nodes);
                }
                case "g", "o" -> group = words.length > 1 ? line.substring(1).strip() : "";
                case "vn", "vt", "vp", "usemtl", "mtllib", "s", "l", "p", "lod", "usemap", "maplib" -> {}
                default -> {
                    if (words[0].matches("cstype|deg|curv2?|surf|parm|trim|hole|end|bmat|step|bzp|bsp|cdc|res")) {
                        throw FormatError.unsupported(
                                "line " + number + " is of a curve or a free-form surface, which are not read");
                    }
                    throw FormatError.unsupported("line " + number + " begins with \""
                            + words[0].substring(0, Math.min(30, words[0].length())) + "\", which OBJ does not know");
                }
            }
        }
        if (n == 0 || all.count() == 0) {
            throw new FormatError("it has no faces");
        }
        double[] places = Arrays.copyOf(xyz, n);
        List<Dataset.Group> named = new ArrayList<>();
        if (groups.size() > 1) {
            groups.forEach((name, faces) ->
                    named.add(new Dataset.Group(name.isEmpty() ? "default" : name, faces.mesh(places), List.of())));
        }
        return new Dataset(all.mesh(places), List.of(), named, List.of(), Double.NaN, List.of());
    }

    private static int corner(String word, int have, int line) {
        int slash = word.indexOf('/');
        int node = Bytes.whole(slash >= 0 ? word.substring(0, slash) : word);
        int at = node > 0 ? node - 1 : have + node;
        if (node == 0 || at < 0 || at >= have) {
            throw new FormatError(
                    "line " + line + " refers to vertex " + node + ", but there are " + have + " before it");
        }
        return at;
    }
}
