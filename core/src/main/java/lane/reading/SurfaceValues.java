package lane.reading;

import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Cell;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.quantity.Take;
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
    /** @throws lane.base.LaneException when the run has no such field or it has no single number */
    public static SurfaceValues of(Run run, Part part, Quantity quantity, Lens lens) {
        Field field = lens.onPart(run, part, quantity);
        lens.requireNumber(quantity, field);
        boolean own = part.field(field.name()).isPresent();
        boolean byNode = field.at() == Field.At.NODE;
        Mesh mesh = part.surface();
        Unit stored = lens.unit(run, field);
        Unit shown = Outcome.shown(quantity.unit(), stored, "Quantity \"" + quantity.name() + "\"");
        double[] exact = new double[byNode ? mesh.nodeCount() : mesh.cellCount()];
        float[] value = new float[exact.length];
        int components = field.components();
        double[] v = new double[components];
        double[] place = new double[3];
        var cell = new Cell(mesh);
        boolean plain = components == 1 && quantity.take() == Take.ALL;
        for (int i = 0; i < value.length; i++) {
            int at = own ? i : byNode ? part.node()[i] : part.owner()[i];
            if (at < 0) {
                value[i] = Float.NaN;
                exact[i] = Double.NaN;
                continue;
            }
            for (int c = 0; c < components; c++) {
                v[c] = stored.toSi(field.values().get(at * components + c));
            }
            if (byNode) {
                System.arraycopy(mesh.xyz(), 3 * i, place, 0, 3);
            } else if (!plain) {
                cell.load(i).centre(place);
            }
            exact[i] = plain ? v[0] : quantity.take().of(v, place[0], place[1], place[2], lens.axis());
            value[i] = (float) exact[i];
        }
        return new SurfaceValues(byNode, value, exact, shown);
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
