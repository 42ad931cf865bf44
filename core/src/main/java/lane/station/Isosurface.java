package lane.station;

import java.util.ArrayList;
import java.util.List;
import lane.base.LaneException;
import lane.cut.Cut;
import lane.cut.Level;
import lane.cut.Slicer;
import lane.field.Run;
import lane.mesh.Axis;

/** Where a quantity has these values; it looks to where the quantity is greater. */
public record Isosurface(String quantity, List<Double> values) implements Shape.Cutting {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "isosurface";
        }

        @Override
        public Class<Isosurface> type() {
            return Isosurface.class;
        }
    }

    public Isosurface {
        values = List.copyOf(values);
        if (values.isEmpty()) {
            throw new LaneException("An isosurface has no value; give at least one.");
        }
    }

    @Override
    public Shape through(Axis frame) {
        return this;
    }

    @Override
    public String word() {
        return "isosurface";
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public String shapedBy() {
        return quantity;
    }

    @Override
    public Cut cut(Run run, Resolver on) {
        double[] at = on.nodeValues(run, quantity);
        List<Cut> all = new ArrayList<>();
        for (double v : values) {
            all.add(Slicer.cut(run.mesh(), Level.of(at, on.toSi(run, quantity, v)), on.work()));
        }
        return all.size() == 1 ? all.getFirst() : Cut.join(all);
    }
}
