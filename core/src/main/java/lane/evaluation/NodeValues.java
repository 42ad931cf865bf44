package lane.evaluation;

import lane.base.LaneException;
import lane.field.Run;
import lane.quantity.Quantity;

/** A quantity at all nodes of a run, in SI units: what isosurfaces and regions by value are shaped by. */
public final class NodeValues {
    private NodeValues() {}

    /** @throws LaneException when it is stored in cells, or is no single number */
    public static double[] of(Run run, Quantity quantity, EvaluationContext lens) {
        BoundQuantity ready = BoundQuantity.of(run, quantity, lens).number();
        if (!ready.byNode()) {
            throw new LaneException("Quantity \"" + quantity.name()
                    + "\" is stored in cells; a surface of constant value needs values at nodes.");
        }
        return ready.values(SamplePoints.nodes(run))[0];
    }
}
