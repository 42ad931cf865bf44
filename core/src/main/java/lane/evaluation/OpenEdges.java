package lane.evaluation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Joints;
import lane.mesh.Mesh;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * The free edges of parts taken together: edges (of a plane run, nodes) that an odd number of faces share. A closed
 * surface has none. The sum of area vectors alone does not see a missing piece that is closed in direction, such as the
 * side of a cylinder.
 *
 * @param edges how many there are; 0 too where a part has faces that are not the run's own, which have no common nodes
 * @param place the middle of one of them, or null
 */
public record OpenEdges(int edges, @Nullable Point place) {
    /** An edge, or of a plane run a node, given twice. */
    record Edge(Point a, Point b) {}

    public static OpenEdges of(List<Part> parts, MeshSpan span) {
        return counted(free(parts, span));
    }

    /** Of the parts of a run: what is free in two of its pieces at one place is not. */
    public static OpenEdges of(Run run, List<Part> parts, MeshSpan span) {
        Joints joints = run.mesh().joints();
        if (joints == null) {
            return of(parts, span);
        }
        return counted(run.gather().of("free edges", () -> free(parts, span), all -> met(all, joints)));
    }

    private static OpenEdges counted(List<Edge> free) {
        if (free.isEmpty()) {
            return new OpenEdges(0, null);
        }
        Edge last = free.getLast();
        return new OpenEdges(free.size(), last.a.plus(last.b).times(0.5));
    }

    /** Edges of which an odd number stand at one place, in any of the grids by which places are told apart. */
    private static List<Edge> met(List<List<Edge>> pieces, Joints joints) {
        List<Edge> left = pieces.stream().flatMap(List::stream).toList();
        for (int grid = 0; grid < Joints.GRIDS; grid++) {
            int g = grid;
            Map<Long, List<Edge>> at = left.stream()
                    .collect(Collectors.groupingBy(
                            e -> joints.edge(e.a, e.b, g), LinkedHashMap::new, Collectors.toList()));
            left = at.values().stream()
                    .filter(e -> e.size() % 2 == 1)
                    .map(List::getFirst)
                    .toList();
        }
        return left;
    }

    private static List<Edge> free(List<Part> parts, MeshSpan span) {
        int most = 0;
        for (Part part : parts) {
            if (part.unmatched() > 0 || part.cut()) {
                return List.of();
            }
            most += part.surface().nodes().length;
        }
        long[] edges = new long[most];
        int n = 0;
        for (Part part : parts) {
            Mesh m = part.surface();
            for (int f = 0; f < m.cellCount(); f++) {
                int size = m.shape(f).rim(m.size(f));
                boolean line = m.shape(f).dimension() == 1;
                // The ends of an edge of a plane run; the middle of a curved one is no end.
                size = line ? 2 : size;
                for (int k = 0; k < size; k++) {
                    long a = part.node()[
                            m.nodes()[m.begin(f) + (line ? k : m.shape(f).around(k))]];
                    long b = line
                            ? a
                            : part.node()[m.nodes()[m.begin(f) + m.shape(f).around((k + 1) % size)]];
                    edges[n++] = Math.min(a, b) << 32 | Math.max(a, b);
                }
            }
        }
        Arrays.parallelSort(edges, 0, n);
        Map<Integer, Point> place = null;
        List<Edge> free = new ArrayList<>();
        for (int i = 0; i < n; ) {
            int end = i;
            while (end < n && edges[end] == edges[i]) {
                end++;
            }
            if ((end - i) % 2 == 1) {
                place = place == null ? places(parts) : place;
                Edge edge = new Edge(end(place, edges[i], 32), end(place, edges[i], 0));
                if (!span.goesOn(edge.a, edge.b)) {
                    free.add(edge);
                }
            }
            i = end;
        }
        return free;
    }

    private static Point end(Map<Integer, Point> place, long edge, int shift) {
        return Objects.requireNonNull(place.get((int) (edge >>> shift)));
    }

    /** Places of the nodes of parts, by the run's numbers. */
    private static Map<Integer, Point> places(List<Part> parts) {
        var out = new HashMap<Integer, Point>();
        for (Part part : parts) {
            double[] x = part.surface().xyz();
            for (int i = 0; i < part.node().length; i++) {
                out.putIfAbsent(part.node()[i], new Point(x[3 * i], x[3 * i + 1], x[3 * i + 2]));
            }
        }
        return out;
    }
}
