package lane.measure;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import lane.base.LaneException;
import lane.base.Plain;
import lane.evaluation.PathIntegral;
import lane.evaluation.RegionIntegral;
import lane.evaluation.SurfaceIntegral;
import lane.evaluation.SurfaceValues;
import lane.field.Part;
import lane.mesh.Cell;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.unit.Unit;

/** Least or greatest value of a quantity where it is stored, with its place. */
public record Extreme(String quantity, boolean greatest) implements Measure {
    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "extreme";
        }

        @Override
        public Class<Extreme> type() {
            return Extreme.class;
        }
    }

    @Override
    public String word() {
        return (greatest ? "greatest " : "least ") + quantity;
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public Optional<By> by() {
        return Optional.of(By.STORED);
    }

    @Override
    public Optional<Measure> by(By values) {
        return Stored.extreme(quantity, greatest, values);
    }

    @Override
    public boolean asStored() {
        return true;
    }

    private boolean better(double v, double best) {
        return !Double.isNaN(v) && (Double.isNaN(best) || (greatest ? v > best : v < best));
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        Quantity q = surface.lens().quantity(quantity);
        Unit unit = surface.ready(quantity).number().unit();
        return surface.run()
                .gather()
                .of(
                        List.of("extreme over faces", quantity, greatest),
                        () -> here(surface, q),
                        all -> RegionIntegral.best(all, greatest))
                .map(l -> Measured.at(l.value(), unit, l.place()))
                .orElseThrow(() -> new LaneException("Quantity \"" + q.name() + "\" has no value on "
                        + Plain.names(surface.parts().stream().map(Part::name).toList()) + "."));
    }

    /** Of this run, or of this piece of it. */
    private Optional<RegionIntegral.Located> here(SurfaceIntegral surface, Quantity q) {
        double best = Double.NaN;
        Point place = null;
        for (Part part : surface.parts()) {
            SurfaceValues values = SurfaceValues.of(surface.run(), part, q, surface.lens());
            double[] x = part.surface().xyz();
            var cell = new Cell(part.surface());
            double[] c = new double[3];
            for (int i = 0; i < values.exact().length; i++) {
                if (!better(values.exact()[i], best)) {
                    continue;
                }
                best = values.exact()[i];
                if (values.byNode()) {
                    System.arraycopy(x, 3 * i, c, 0, 3);
                } else {
                    cell.load(i).centre(c);
                }
                place = new Point(c[0], c[1], c[2]);
            }
        }
        return place == null ? Optional.empty() : Optional.of(new RegionIntegral.Located(best, place));
    }

    @Override
    public Measured within(RegionIntegral region) {
        Quantity q = region.lens().quantity(quantity);
        RegionIntegral.Located found = region.extreme(q, greatest);
        return Measured.at(found.value(), region.ready(q).unit(), found.place());
    }

    @Override
    public Measured along(PathIntegral path) {
        Quantity q = path.lens().quantity(quantity);
        double[] values = path.values(q);
        int best = -1;
        for (int i = 0; i < values.length; i++) {
            if (path.placement().cell()[i] >= 0 && better(values[i], best < 0 ? Double.NaN : values[best])) {
                best = i;
            }
        }
        if (best < 0) {
            throw new LaneException("Quantity \"" + q.name() + "\" has no value along the path.");
        }
        return Measured.at(values[best], path.bound(q).unit(), path.placement().place(best));
    }
}
