package lane.cut;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.function.IntUnaryOperator;
import lane.mesh.Joints;
import lane.mesh.Mesh;

/**
 * Which faces of a cut stay when some lie exactly in the surface: one that a cell from below gave stays; one that only
 * cells above touch stays where a single cell does, at the rim of the mesh. Where two do, the level only touches zero.
 */
final class Touching {
    private Touching() {}

    interface Corners {
        long[] of(int block, int face);
    }

    interface Flag {
        boolean of(int block, int face);
    }

    private record Face(long a, long b) {
        static Face of(long[] corners) {
            long a = 0;
            long b = 0;
            for (long c : corners) {
                long h = (c + 0x9e3779b97f4a7c15L) * 0xbf58476d1ce4e5b9L;
                h ^= h >>> 31;
                a += h;
                b += h * h;
            }
            return new Face(a, b);
        }
    }

    /** @param mesh that is cut: where it meets other pieces of one mesh, the one below gives the face */
    static boolean[][] keep(Mesh mesh, int blocks, IntUnaryOperator counts, Corners corners, Flag touching) {
        Joints joints = mesh.joints();
        Map<Face, Integer> seen = new HashMap<>();
        boolean[][] keep = new boolean[blocks][];
        for (int b = 0; b < blocks; b++) {
            keep[b] = new boolean[counts.applyAsInt(b)];
            for (int f = 0; f < keep[b].length; f++) {
                long[] c = corners.of(b, f);
                // Only faces between nodes can be met twice.
                if (Arrays.stream(c).allMatch(e -> (int) (e >>> 32) == (int) e)) {
                    seen.merge(Face.of(c), touching.of(b, f) ? 1 : 3, Integer::sum);
                }
            }
        }
        for (int b = 0; b < blocks; b++) {
            for (int f = 0; f < keep[b].length; f++) {
                keep[b][f] = !touching.of(b, f)
                        || Objects.requireNonNull(seen.get(Face.of(corners.of(b, f)))) == 1
                                && (joints == null || !meets(joints, mesh, corners.of(b, f)));
            }
        }
        return keep;
    }

    private static boolean meets(Joints joints, Mesh mesh, long[] corners) {
        int[] nodes = Arrays.stream(corners).mapToInt(c -> (int) c).toArray();
        return joints.face(mesh, nodes, 0, nodes.length);
    }
}
