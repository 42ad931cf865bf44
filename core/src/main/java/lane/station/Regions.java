package lane.station;

import java.util.Arrays;
import java.util.Objects;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.cut.BoxedCell;
import lane.field.Run;
import lane.mesh.Cell;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * Which cells a region takes: those of the mesh's highest dimension whose middle (the mean of the nodes) lies in it; of a box that
 * cuts cells those that reach into it.
 */
public final class Regions {
    private Regions() {}

    /** @param values the quantity at nodes for a region by value, in the unit of its bound; else null */
    public static int[] cells(Run run, Within within, double @Nullable [] values) {
        Mesh mesh = run.mesh();
        int dimension = mesh.dimension();
        if (within instanceof Within.Touching t) {
            boolean[] taken = new boolean[mesh.cellCount()];
            for (String name : t.parts()) {
                for (int c : run.part(name).owner()) {
                    if (c >= 0) {
                        taken[c] = true;
                    }
                }
            }
            return IntStream.range(0, taken.length).filter(c -> taken[c]).toArray();
        }
        boolean[] taken = new boolean[mesh.cellCount()];
        lane.base.Parallel.forBlocks(taken.length, 1 << 13, (block, from, to) -> {
            var cell = new Cell(mesh);
            double[] m = new double[3];
            BoxedCell boxed = within instanceof Within.InBox b && b.cut()
                    ? new BoxedCell(b.box().bounds(), b.box().frame())
                    : null;
            for (int c = from; c < to; c++) {
                if (mesh.shape(c).dimension() != dimension) {
                    continue;
                }
                cell.load(c).centre(m);
                if (boxed != null) {
                    taken[c] = boxed.side(cell) != BoxedCell.Side.OUTSIDE;
                    continue;
                }
                taken[c] = switch (within) {
                    case Within.All _ -> true;
                    case Within.InBox b -> b.box().holds(m[0], m[1], m[2]);
                    case Within.Ball b -> {
                        double dx = m[0] - b.centre().x();
                        double dy = m[1] - b.centre().y();
                        double dz = m[2] - b.centre().z();
                        yield dx * dx + dy * dy + dz * dz <= b.radius() * b.radius();
                    }
                    case Within.Cylinder y -> {
                        double h = y.axis().along(m[0], m[1], m[2]);
                        yield h >= y.from() && h <= y.to() && y.axis().radius(m[0], m[1], m[2]) <= y.radius();
                    }
                    case Within.Above a -> mean(mesh, c, Objects.requireNonNull(values)) > a.value();
                    case Within.Touching _ -> throw new LaneException("already taken");
                };
            }
        });
        return IntStream.range(0, taken.length).filter(c -> taken[c]).toArray();
    }

    private static double mean(Mesh mesh, int c, double[] values) {
        return Arrays.stream(mesh.nodes(), mesh.begin(c), mesh.begin(c) + mesh.size(c))
                .mapToDouble(n -> values[n])
                .average()
                .orElse(Double.NaN);
    }
}
