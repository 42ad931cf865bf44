package lane.desk.stations;

import java.util.Objects;
import lane.base.LaneException;
import lane.cut.Cut;
import lane.cut.Glyphs;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceValues;
import lane.field.Part;
import lane.field.Run;
import lane.quantity.Quantity;
import lane.station.Section;
import org.jspecify.annotations.Nullable;

/** A section raised along its normal by the quantity shown, a quarter of its own width for the whole range. */
final class Reliefs {
    private Reliefs() {}

    static Part of(Section station, Cut cut, Part part, Run run, @Nullable Quantity quantity, EvaluationContext lens) {
        try {
            SurfaceValues values = SurfaceValues.of(run, part, Objects.requireNonNull(quantity), lens);
            if (!values.byNode()) {
                return part;
            }
            double most = 0;
            for (double v : values.exact()) {
                most = Double.isNaN(v) ? most : Math.max(most, Math.abs(v));
            }
            if (most == 0) {
                return part;
            }
            double size = 0.25 * cut.surface().modelSize();
            Cut raised = Glyphs.relief(cut, station.normal(), values.exact(), size / most);
            return part.on(raised.surface());
        } catch (LaneException e) {
            // Without values there is nothing to raise; the picture tells why.
            return part;
        }
    }
}
