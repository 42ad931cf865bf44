package lane.evaluation;

import lane.field.Part;
import lane.field.Run;
import lane.mesh.Cell;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.unit.Unit;

/**
 * A quantity seen on the surface of a part, for pictures and picking, in SI units.
 *
 * @param byNode true if there is one value a surface node, false if one a face
 * @param value NaN where the field is not known
 * @param exact the same in full precision
 * @param unit as shown
 */
public record SurfaceValues(boolean byNode, float[] value, double[] exact, Unit unit) {
    /** @throws lane.base.LaneException when the run cannot compute it, or it is no single number */
    public static SurfaceValues of(Run run, Part part, Quantity quantity, EvaluationContext lens) {
        BoundQuantity ready = BoundQuantity.of(run, part, quantity, lens).number();
        boolean byNode = ready.byNode();
        double[] exact = ready.values(byNode ? SamplePoints.nodesOf(run, part) : SamplePoints.facesOf(run, part))[0];
        float[] value = new float[exact.length];
        for (int i = 0; i < value.length; i++) {
            value[i] = (float) exact[i];
        }
        return new SurfaceValues(byNode, value, exact, ready.unit());
    }

    /** The value at a place of a face, in SI units. */
    public double at(Part part, int face, Point place) {
        if (!byNode) {
            return value[face];
        }
        var cell = new Cell(part.surface()).load(face);
        cell.locate(place.x(), place.y(), place.z());
        double sum = 0;
        for (int i = 0; i < cell.size(); i++) {
            sum += cell.weights()[i] * value[cell.node(i)];
        }
        return sum;
    }
}
