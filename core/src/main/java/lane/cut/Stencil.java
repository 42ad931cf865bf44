package lane.cut;

import java.util.List;
import lane.base.Content;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.field.Field;
import lane.field.Values;

/**
 * Values at points as weighted sums of values at nodes: made once for a place, applied to any field at any time.
 *
 * @param start where the entries of a point begin; one more than points
 * @param node node of the run, for each entry
 * @param share its weight; those of a point sum to 1
 */
public record Stencil(int[] start, int[] node, double[] share) {
    private static final int BLOCK = 1 << 13;

    /** Equal for equal stencils. */
    public Object key() {
        return List.of(Content.of(start), Content.of(node), Content.of(share));
    }

    public int size() {
        return start.length - 1;
    }

    /** @throws LaneException when the field is not stored at nodes */
    public Values apply(Field field) {
        if (field.at() != Field.At.NODE) {
            throw new LaneException("Field \"" + field.name() + "\" is stored in cells and has no values at nodes.");
        }
        int c = field.components();
        double[] out = new double[c * size()];
        Values.Held now = field.values().now();
        Parallel.forBlocks(size(), BLOCK, (block, from, to) -> {
            switch (now) {
                case Values.Doubles v -> apply(v.array(), c, from, to, out);
                case Values.Floats v -> apply(v.array(), c, from, to, out);
                case Values.Ints v -> {
                    for (int i = from; i < to; i++) {
                        for (int k = start[i]; k < start[i + 1]; k++) {
                            for (int d = 0; d < c; d++) {
                                out[i * c + d] += share[k] * v.get(node[k] * c + d);
                            }
                        }
                    }
                }
            }
        });
        return new Values.Doubles(out);
    }

    private void apply(double[] v, int c, int from, int to, double[] out) {
        for (int i = from; i < to; i++) {
            for (int k = start[i]; k < start[i + 1]; k++) {
                double s = share[k];
                int at = node[k] * c;
                for (int d = 0; d < c; d++) {
                    out[i * c + d] += s * v[at + d];
                }
            }
        }
    }

    private void apply(float[] v, int c, int from, int to, double[] out) {
        for (int i = from; i < to; i++) {
            for (int k = start[i]; k < start[i + 1]; k++) {
                double s = share[k];
                int at = node[k] * c;
                for (int d = 0; d < c; d++) {
                    out[i * c + d] += s * v[at + d];
                }
            }
        }
    }

    /** This stencil's points as those of a run whose nodes the given stencil interpolates. */
    public Stencil after(Stencil first) {
        int[] begin = new int[start.length];
        for (int i = 0; i < size(); i++) {
            int n = 0;
            for (int k = start[i]; k < start[i + 1]; k++) {
                n += first.start[node[k] + 1] - first.start[node[k]];
            }
            begin[i + 1] = Math.addExact(begin[i], n);
        }
        int[] nodes = new int[begin[size()]];
        double[] shares = new double[nodes.length];
        for (int i = 0; i < size(); i++) {
            int at = begin[i];
            for (int k = start[i]; k < start[i + 1]; k++) {
                for (int j = first.start[node[k]]; j < first.start[node[k] + 1]; j++) {
                    nodes[at] = first.node[j];
                    shares[at++] = share[k] * first.share[j];
                }
            }
        }
        return new Stencil(begin, nodes, shares);
    }
}
