package lane.reading;

import lane.base.LaneException;
import lane.base.Parallel;
import lane.field.Field;
import lane.field.Run;
import lane.mesh.Mesh;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.unit.Unit;

/** A quantity at all nodes of a run, in SI units: what isosurfaces and regions by value are shaped by. */
public final class NodeValues {
    private static final int BLOCK = 1 << 14;

    private NodeValues() {}

    /** @throws LaneException when it is stored in cells, or is no single number */
    public static double[] of(Run run, Quantity quantity, Lens lens) {
        Field field = lens.onMesh(run, quantity);
        lens.requireNumber(quantity, field);
        if (field.at() != Field.At.NODE) {
            throw new LaneException("Field \"" + field.name()
                    + "\" is stored in cells; a surface of constant value needs values at nodes.");
        }
        Unit stored = lens.unit(run, field);
        Mesh mesh = run.mesh();
        int c = field.components();
        boolean plain = c == 1 && quantity.take() == Take.ALL;
        double[] out = new double[mesh.nodeCount()];
        Parallel.forBlocks(out.length, BLOCK, (block, from, to) -> {
            double[] v = new double[c];
            double[] x = mesh.xyz();
            for (int i = from; i < to; i++) {
                for (int d = 0; d < c; d++) {
                    v[d] = stored.toSi(field.values().get(i * c + d));
                }
                out[i] = plain ? v[0] : quantity.take().of(v, x[3 * i], x[3 * i + 1], x[3 * i + 2], lens.axis());
            }
        });
        return out;
    }
}
