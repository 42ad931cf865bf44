package lane.formats.surface;

import java.lang.foreign.ValueLayout;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import lane.base.Work;
import lane.formats.grid.Dataset;
import lane.formats.io.Bytes;
import lane.formats.io.FormatError;
import lane.mesh.CellShape;
import lane.mesh.Mesh;

/**
 * Reads triangles from STL files, binary and ascii. Corners at exactly one place become one node; the stored normals are
 * left out, the winding tells them. Several named solids become named surfaces.
 */
public final class StlReader {
    private static final ValueLayout.OfFloat FLOAT =
            ValueLayout.JAVA_FLOAT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);
    private static final ValueLayout.OfInt INT = ValueLayout.JAVA_INT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);

    private StlReader() {}

    public static Dataset read(Path file, Work work) {
        return Bytes.read(file, bytes -> {
            long size = bytes.all.byteSize();
            if (size >= 84 && 84 + 50L * (bytes.all.get(INT, 80) & 0xffffffffL) == size) {
                return binary(bytes, work);
            }
            if (bytes.word().equalsIgnoreCase("solid")) {
                return ascii(bytes, work);
            }
            throw new FormatError(
                    "it is neither an ascii STL, which begins with \"solid\", nor a binary one, whose length does not fit its count");
        });
    }

    private static Dataset binary(Bytes bytes, Work work) {
        int n = Math.toIntExact(bytes.all.get(INT, 80) & 0xffffffffL);
        double[] corners = new double[Math.multiplyExact(9, n)];
        for (int f = 0; f < n; f++) {
            if ((f & 0xffff) == 0) {
                work.poll();
            }
            long from = 84 + 50L * f + 12;
            for (int k = 0; k < 9; k++) {
                corners[9 * f + k] = bytes.all.get(FLOAT, from + 4L * k);
            }
        }
        return new Dataset(mesh(corners, 9 * n), List.of(), List.of());
    }

    private static Dataset ascii(Bytes bytes, Work work) {
        List<String> names = new ArrayList<>();
        List<double[]> solids = new ArrayList<>();
        String name = bytes.line();
        double[] corners = new double[900];
        int n = 0;
        boolean open = true;
        long begun = 0;
        long ended = 0;
        for (String word = bytes.word(); !word.isEmpty(); word = bytes.word()) {
            switch (word.toLowerCase(Locale.ROOT)) {
                case "vertex" -> {
                    if (n + 3 > corners.length) {
                        work.poll();
                        corners = Arrays.copyOf(corners, 2 * corners.length);
                    }
                    for (int k = 0; k < 3; k++) {
                        corners[n++] = Bytes.real(bytes.word());
                    }
                }
                case "endsolid" -> {
                    bytes.line();
                    names.add(name == null ? "" : name.strip());
                    solids.add(Arrays.copyOf(corners, n));
                    if (begun != ended || 9L * ended != n) {
                        throw new FormatError("a solid of it has " + begun + " facets that begin, " + ended
                                + " that end and " + n / 3 + " corners");
                    }
                    begun = 0;
                    ended = 0;
                    n = 0;
                    open = false;
                }
                case "solid" -> {
                    name = bytes.line();
                    open = true;
                }
                case "facet" -> {
                    // What stands on the line is a direction, which the corners say better.
                    bytes.line();
                    begun++;
                }
                case "endfacet" -> ended++;
                case "outer", "loop", "endloop" -> {}
                default ->
                    throw FormatError.unsupported("it has the word \"" + word.substring(0, Math.min(40, word.length()))
                            + "\", which STL does not know");
            }
        }
        if (open || n > 0) {
            throw new FormatError("it ends before its last solid does");
        }
        int total = solids.stream().mapToInt(s -> s.length).sum();
        double[] all = new double[total];
        int at = 0;
        List<Dataset.Group> groups = new ArrayList<>();
        for (int i = 0; i < solids.size(); i++) {
            double[] s = solids.get(i);
            if (s.length % 9 != 0) {
                throw new FormatError("a triangle of solid \"" + names.get(i) + "\" has not three corners");
            }
            System.arraycopy(s, 0, all, at, s.length);
            at += s.length;
            if (solids.size() > 1) {
                groups.add(new Dataset.Group(
                        names.get(i).isBlank() ? "solid " + (i + 1) : names.get(i), mesh(s, s.length), List.of()));
            }
        }
        return new Dataset(mesh(all, total), List.of(), groups, List.of(), Double.NaN, List.of());
    }

    private record Place(double x, double y, double z) {}

    private static Mesh mesh(double[] corners, int count) {
        Map<Place, Integer> nodes = new HashMap<>();
        double[] xyz = new double[Math.min(count, 30)];
        int[] ids = new int[count / 3];
        for (int i = 0; i < ids.length; i++) {
            // Adding zero makes one of the two zeros.
            var place = new Place(corners[3 * i] + 0.0, corners[3 * i + 1] + 0.0, corners[3 * i + 2] + 0.0);
            int next = nodes.size();
            Integer there = nodes.putIfAbsent(place, next);
            ids[i] = there == null ? next : there;
            if (there == null) {
                if (3 * next + 3 > xyz.length) {
                    xyz = Arrays.copyOf(xyz, Math.max(3 * next + 3, 2 * xyz.length));
                }
                System.arraycopy(corners, 3 * i, xyz, 3 * next, 3);
            }
        }
        return Mesh.uniform(Arrays.copyOf(xyz, 3 * nodes.size()), CellShape.TRIANGLE, ids);
    }
}
