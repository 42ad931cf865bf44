package lane.mesh;

import java.util.Arrays;

/**
 * Pairs of neighbours. Of cells: those that share a face (of surface cells: an edge), in the order in which the later cell stands in the mesh. Two faces
 * are the same when they have the same nodes, told by a sum of mixed node numbers, so that a chance match is a matter of 2^-64.
 *
 * @param first and {@code second}: the cells of each pair, the earlier one first
 * @param place the mean of the nodes of the face between them, three numbers each
 */
public record Neighbours(int[] first, int[] second, double[] place) {
    public int size() {
        return first.length;
    }

    /** Of the cells of the mesh's highest dimension; of a mesh of lines and points there are none. */
    public static Neighbours of(Mesh mesh) {
        return mesh.dimension() < 2 ? new Neighbours(new int[0], new int[0], new double[0]) : new Finder(mesh).find();
    }

    /**
     * Pairs of nodes at the ends of the edges of some cells, each edge once, in the order of their node numbers; places are the
     * middles. Of an edge with a node in its middle the ends alone count.
     *
     * @param in cells whose edges count
     */
    public static Neighbours edges(Mesh mesh, boolean[] in) {
        var all = new Longs();
        var cell = new Cell(mesh);
        for (int c = 0; c < mesh.cellCount(); c++) {
            CellShape shape = mesh.shape(c);
            if (!in[c] || shape.dimension() < 1) {
                continue;
            }
            cell.load(c);
            if (shape.dimension() == 1) {
                all.add(cell.node(0), cell.node(1));
                continue;
            }
            boolean tabled = CornerEdges.tabled(shape);
            int corners = tabled ? shape.corners().nodes() : cell.size();
            for (int k = 0; k < corners; k++) {
                int[] ends = tabled ? CornerEdges.of(shape, k) : CornerEdges.of(cell, k);
                for (int i = 0; i < ends.length / 2; i++) {
                    if (ends[i] > k) {
                        all.add(cell.node(k), cell.node(ends[i]));
                    }
                }
            }
        }
        long[] keys = Arrays.stream(all.values, 0, all.used)
                .parallel()
                .sorted()
                .distinct()
                .toArray();
        int[] first = new int[keys.length];
        int[] second = new int[keys.length];
        double[] place = new double[3 * keys.length];
        double[] x = mesh.xyz();
        for (int i = 0; i < keys.length; i++) {
            first[i] = (int) (keys[i] >> 32);
            second[i] = (int) keys[i];
            for (int d = 0; d < 3; d++) {
                place[3 * i + d] = (x[3 * first[i] + d] + x[3 * second[i] + d]) / 2;
            }
        }
        return new Neighbours(first, second, place);
    }

    /** Edges as they are met, the smaller node number before the other. */
    private static final class Longs {
        private long[] values = new long[1 << 12];
        private int used;

        void add(long a, long b) {
            if (used == values.length) {
                values = Arrays.copyOf(values, 2 * used);
            }
            values[used++] = Math.min(a, b) << 32 | Math.max(a, b);
        }
    }

    /** Faces met so far, in a table with open places; a face that was met twice is left in it, so that a third cell makes a pair too. */
    private static final class Finder {
        private final Mesh mesh;
        private final Cell cell;
        private long[] keys = new long[1 << 12];
        private int[] owner = new int[1 << 12];
        private int used;
        private int[] first = new int[64];
        private int[] second = new int[64];
        private double[] place = new double[192];
        private int pairs;

        Finder(Mesh mesh) {
            this.mesh = mesh;
            cell = new Cell(mesh);
        }

        Neighbours find() {
            int dimension = mesh.dimension();
            for (int c = 0; c < mesh.cellCount(); c++) {
                CellShape shape = mesh.shape(c);
                if (shape.dimension() != dimension) {
                    continue;
                }
                cell.load(c);
                if (dimension == 3) {
                    for (int[] face : cell.faces()) {
                        take(c, face, 0, face.length);
                    }
                } else {
                    int n = shape.rim(cell.size());
                    int[] rim = new int[n + 1];
                    for (int i = 0; i <= n; i++) {
                        rim[i] = shape.around(i % n);
                    }
                    int step = shape.quadratic() ? 2 : 1;
                    for (int i = 0; i < n; i += step) {
                        take(c, rim, i, step + 1);
                    }
                }
            }
            return new Neighbours(
                    Arrays.copyOf(first, pairs), Arrays.copyOf(second, pairs), Arrays.copyOf(place, 3 * pairs));
        }

        private void take(int c, int[] loop, int from, int count) {
            long key = 0;
            for (int i = from; i < from + count; i++) {
                key += Topology.mixed(cell.node(loop[i]));
            }
            // Nothing is kept under zero.
            key = key == 0 ? 1 : key;
            int at = slot(key);
            if (keys[at] == key) {
                pair(owner[at], c, loop, from, count);
                return;
            }
            keys[at] = key;
            owner[at] = c;
            if (++used > keys.length / 2) {
                grow();
            }
        }

        private int slot(long key) {
            int at = (int) (key ^ key >>> 32) & keys.length - 1;
            while (keys[at] != 0 && keys[at] != key) {
                at = at + 1 & keys.length - 1;
            }
            return at;
        }

        private void grow() {
            long[] known = keys;
            int[] of = owner;
            keys = new long[2 * known.length];
            owner = new int[keys.length];
            for (int i = 0; i < known.length; i++) {
                if (known[i] != 0) {
                    int at = slot(known[i]);
                    keys[at] = known[i];
                    owner[at] = of[i];
                }
            }
        }

        private void pair(int a, int b, int[] loop, int from, int count) {
            if (pairs == first.length) {
                first = Arrays.copyOf(first, 2 * pairs);
                second = Arrays.copyOf(second, 2 * pairs);
                place = Arrays.copyOf(place, 6 * pairs);
            }
            first[pairs] = a;
            second[pairs] = b;
            for (int d = 0; d < 3; d++) {
                double sum = 0;
                for (int i = from; i < from + count; i++) {
                    sum += cell.x()[3 * loop[i] + d];
                }
                place[3 * pairs + d] = sum / count;
            }
            pairs++;
        }
    }

    /**
     * The greatest difference of a value from those of the cells around.
     *
     * @param value one a cell
     */
    public double[] greatest(double[] value) {
        double[] out = new double[value.length];
        for (int i = 0; i < first.length; i++) {
            double jump = Math.abs(value[first[i]] - value[second[i]]);
            if (jump > out[first[i]]) {
                out[first[i]] = jump;
            }
            if (jump > out[second[i]]) {
                out[second[i]] = jump;
            }
        }
        for (int i = 0; i < out.length; i++) {
            out[i] = Double.isNaN(value[i]) ? Double.NaN : out[i];
        }
        return out;
    }
}
