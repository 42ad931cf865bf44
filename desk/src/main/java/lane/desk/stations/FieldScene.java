package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import lane.base.LaneException;
import lane.field.Part;
import lane.field.Run;
import lane.picture.field.Annotations;
import lane.picture.field.ColourScale;
import lane.picture.field.Scene;
import lane.quantity.Quantity;
import lane.reading.Lens;
import lane.reading.SurfaceValues;
import lane.unit.Unit;

/**
 * The surfaces of one run coloured by one quantity, ready to draw.
 *
 * @param values one a part, null where the part does not have the quantity
 * @param least and {@code greatest}: ends of the colour scale in SI units
 */
record FieldScene(
        Run run,
        Scene scene,
        List<SurfaceValues> values,
        Unit unit,
        double least,
        double greatest,
        ColourScale scale,
        String trouble) {

    static FieldScene of(Run run, Quantity quantity, Lens lens, Set<String> clear) {
        List<Scene.Surface> surfaces = new ArrayList<>();
        List<SurfaceValues> values = new ArrayList<>();
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        Unit unit = Unit.UNKNOWN;
        String trouble = "";
        for (Part part : run.parts()) {
            SurfaceValues v = null;
            try {
                v = quantity == null ? null : SurfaceValues.of(run, part, quantity, lens);
            } catch (LaneException e) {
                trouble = e.getMessage();
            }
            values.add(v);
            if (v != null) {
                unit = v.unit();
                for (float x : v.value()) {
                    if (Float.isFinite(x)) {
                        least = Math.min(least, x);
                        greatest = Math.max(greatest, x);
                    }
                }
            }
            surfaces.add(Scene.surface(
                    part.name(),
                    part.surface(),
                    v == null ? new float[0] : v.value(),
                    v == null || v.byNode(),
                    clear.contains(part.name()) ? 0.22 : 1));
        }
        if (least > greatest) {
            least = 0;
            greatest = 1;
        }
        // Round-off on a wall at rest must not turn a positive quantity into a signed one.
        boolean signed = least < -1e-3 * greatest && greatest > 0;
        if (signed) {
            greatest = Math.max(greatest, -least);
            least = -greatest;
        }
        return new FieldScene(
                run,
                new Scene(surfaces),
                values,
                unit,
                least,
                greatest,
                signed ? ColourScale.SIGNED : ColourScale.SIZE,
                trouble);
    }

    Annotations.Bar bar(Quantity quantity, boolean shaded) {
        String note =
                (scale == ColourScale.SIGNED ? "signed scale" : "size scale") + (shaded ? ",\nshaded" : ",\nflat");
        return new Annotations.Bar(
                quantity.name(), unit.label(), unit.fromSi(least), unit.fromSi(greatest), scale, note);
    }
}
