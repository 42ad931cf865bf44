package lane.formula;

import java.util.List;
import lane.mesh.Axis;
import org.jspecify.annotations.Nullable;

/** A scope without places, stations, lanes and tables: what formulas of plain numbers see. */
public abstract class Bare implements Scope {
    @Override
    public List<String> names() {
        return List.of();
    }

    @Override
    public @Nullable Axis frame(String name) {
        return name.isEmpty() ? Axis.Z : null;
    }

    @Override
    public double time() {
        return Double.NaN;
    }

    @Override
    public Meaning.Stored step(Step step) {
        throw new Trouble("Gradients, lanes and times are not known here.");
    }

    @Override
    public int extent(String station) {
        return -1;
    }

    @Override
    public double[] reduce(Node.Reduction reduction, Type body, String frame) {
        throw new Trouble("Stations are not known here.");
    }

    @Override
    public Table table(String name, String column) {
        throw new Trouble("Tables are not known here.");
    }
}
