package lane.transfer;

import lane.base.Parallel;
import lane.base.Sum;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.Cell;
import lane.mesh.Mesh;

/**
 * The integral of a field over the cells of its mesh that have values: of cells as stored, of nodes by their shape functions, and in cells of
 * bent faces linear in each tetrahedron, as their overlap with others is taken.
 */
public final class FieldIntegral {
    private static final int BLOCK = 1 << 11;

    private FieldIntegral() {}

    /** Takes the integral over one cell. */
    @FunctionalInterface
    interface Each {
        /**
         * @param measure volume or area of the cell
         * @param integral one a component; valid until it returns
         */
        void take(int cell, double measure, double[] integral);
    }

    /**
     * @param values components of the first place, then of the next
     * @return one a component; cells with an absent value are left out
     */
    public static double[] of(Mesh mesh, Field.At at, int components, Values values, Work work) {
        double[][] blocks = new double[Parallel.blocks(mesh.cellCount(), BLOCK)][];
        Parallel.forBlocks(mesh.cellCount(), BLOCK, (block, from, to) -> {
            work.poll();
            var sums = sums(components);
            cells(mesh, at, components, values.now(), from, to, (c, measure, one) -> {
                boolean all = true;
                for (double v : one) {
                    all &= !Double.isNaN(v);
                }
                for (int k = 0; all && k < components; k++) {
                    sums[k].add(one[k]);
                }
            });
            blocks[block] = values(sums);
        });
        var all = sums(components);
        for (double[] b : blocks) {
            for (int k = 0; k < components; k++) {
                all[k].add(b[k]);
            }
        }
        return values(all);
    }

    /** Hands on the integral over each cell of the mesh's highest dimension, on several threads. */
    static void cells(Mesh mesh, Field.At at, int components, Values.Held values, Work work, Each each) {
        Parallel.forBlocks(mesh.cellCount(), BLOCK, (block, from, to) -> {
            work.poll();
            cells(mesh, at, components, values, from, to, each);
        });
    }

    private static void cells(Mesh mesh, Field.At at, int components, Values.Held values, int from, int to, Each each) {
        int dimension = mesh.dimension();
        double[] one = new double[components];
        var rule = new CellIntegral(mesh);
        for (int c = from; c < to; c++) {
            if (mesh.shape(c).dimension() != dimension) {
                continue;
            }
            if (at == Field.At.CELL) {
                double size = rule.measure(c);
                for (int k = 0; k < components; k++) {
                    one[k] = size * values.get(c * components + k);
                }
            } else {
                rule.load(c);
                java.util.Arrays.fill(one, 0);
                Cell cell = rule.cell();
                for (int v = 0; v < cell.size(); v++) {
                    for (int k = 0; k < components; k++) {
                        one[k] += rule.weights()[v] * values.get(cell.node(v) * components + k);
                    }
                }
            }
            each.take(c, rule.measure(), one);
        }
    }

    static Sum[] sums(int n) {
        Sum[] out = new Sum[n];
        for (int k = 0; k < n; k++) {
            out[k] = new Sum();
        }
        return out;
    }

    static double[] values(Sum[] sums) {
        double[] out = new double[sums.length];
        for (int k = 0; k < out.length; k++) {
            out[k] = sums[k].value();
        }
        return out;
    }
}
