package lane.evaluation;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lane.field.Part;
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
    public static OpenEdges of(List<Part> parts, MeshSpan span) {
        int most = 0;
        for (Part part : parts) {
            if (part.unmatched() > 0 || part.cut()) {
                return new OpenEdges(0, null);
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
        int free = 0;
        long one = -1;
        for (int i = 0; i < n; ) {
            int end = i;
            while (end < n && edges[end] == edges[i]) {
                end++;
            }
            if ((end - i) % 2 == 1) {
                place = place == null ? places(parts) : place;
                if (!span.goesOn(end(place, edges[i], 32), end(place, edges[i], 0))) {
                    free++;
                    one = edges[i];
                }
            }
            i = end;
        }
        return new OpenEdges(
                free,
                free == 0 || place == null
                        ? null
                        : end(place, one, 32).plus(end(place, one, 0)).times(0.5));
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
