package lane.cut;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.field.Field;
import lane.field.Part;
import lane.field.Role;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * The distance of each node from the nearest face of a wall, exact for the faces as they are: a tree of boxes over all wall
 * faces is searched, the nearer box first.
 */
public final class WallDistance {
    private static final int LEAF = 8;
    private static final int BLOCK = 1 << 10;

    private record FaceOf(Mesh mesh, int face, double[] box) {
        double centre(int d) {
            return box[2 * d] + box[2 * d + 1];
        }
    }

    /** A box over faces {@code from} to {@code to}, or over two boxes. */
    private record Box(
            double[] box,
            int from,
            int to,
            @Nullable Box left,
            @Nullable Box right) {}

    private final FaceOf[] faces;
    private final Box root;

    private WallDistance(List<FaceOf> all) {
        faces = all.toArray(FaceOf[]::new);
        root = build(0, faces.length);
    }

    /**
     * In metres, at the nodes of the run.
     *
     * @throws LaneException when no part has the role of a wall
     */
    public static Field of(Run run) {
        List<FaceOf> all = new ArrayList<>();
        for (Part part : run.parts()) {
            if (part.role() == Role.WALL) {
                Mesh m = part.surface();
                IntStream.range(0, m.cellCount()).forEach(f -> all.add(new FaceOf(m, f, box(m, f))));
            }
        }
        if (all.isEmpty()) {
            throw new LaneException(
                    "The distance from walls needs a part with the role of a wall; give one its role at Intake.");
        }
        var tree = new WallDistance(all);
        double[] x = run.mesh().xyz();
        double[] out = new double[run.mesh().nodeCount()];
        Parallel.forBlocks(out.length, BLOCK, (block, from, to) -> {
            for (int i = from; i < to; i++) {
                var p = new Point(x[3 * i], x[3 * i + 1], x[3 * i + 2]);
                out[i] = tree.nearest(tree.root, p, Double.POSITIVE_INFINITY);
            }
        });
        return new Field("wall_distance", Field.At.NODE, 1, Unit.of("m"), Values.of(out));
    }

    private static double[] box(Mesh m, int f) {
        double[] b = {1e300, -1e300, 1e300, -1e300, 1e300, -1e300};
        for (int k = m.begin(f); k < m.begin(f) + m.size(f); k++) {
            for (int d = 0; d < 3; d++) {
                double v = m.xyz()[3 * m.nodes()[k] + d];
                b[2 * d] = Math.min(b[2 * d], v);
                b[2 * d + 1] = Math.max(b[2 * d + 1], v);
            }
        }
        return b;
    }

    private Box build(int from, int to) {
        double[] b = faces[from].box.clone();
        for (int i = from + 1; i < to; i++) {
            for (int d = 0; d < 3; d++) {
                b[2 * d] = Math.min(b[2 * d], faces[i].box[2 * d]);
                b[2 * d + 1] = Math.max(b[2 * d + 1], faces[i].box[2 * d + 1]);
            }
        }
        if (to - from <= LEAF) {
            return new Box(b, from, to, null, null);
        }
        int longest = 0;
        for (int d = 1; d < 3; d++) {
            longest = b[2 * d + 1] - b[2 * d] > b[2 * longest + 1] - b[2 * longest] ? d : longest;
        }
        int along = longest;
        java.util.Arrays.sort(faces, from, to, Comparator.comparingDouble(f -> f.centre(along)));
        int middle = (from + to) / 2;
        return new Box(b, from, to, build(from, middle), build(middle, to));
    }

    private static double gap(double[] b, Point p) {
        double x = Math.max(0, Math.max(b[0] - p.x(), p.x() - b[1]));
        double y = Math.max(0, Math.max(b[2] - p.y(), p.y() - b[3]));
        double z = Math.max(0, Math.max(b[4] - p.z(), p.z() - b[5]));
        return Math.sqrt(x * x + y * y + z * z);
    }

    private double nearest(Box box, Point p, double best) {
        Box left = box.left;
        Box right = box.right;
        if (left == null || right == null) {
            double least = best;
            for (int i = box.from; i < box.to; i++) {
                if (gap(faces[i].box, p) < least) {
                    least = Math.min(least, Distance.toFace(faces[i].mesh, faces[i].face, p));
                }
            }
            return least;
        }
        double l = gap(left.box, p);
        double r = gap(right.box, p);
        Box first = l <= r ? left : right;
        Box second = l <= r ? right : left;
        double least = Math.min(l, r) < best ? nearest(first, p, best) : best;
        return Math.max(l, r) < least ? nearest(second, p, least) : least;
    }
}
