package lane.evaluation;

import java.util.ArrayList;
import java.util.List;
import lane.base.LaneException;
import lane.base.Work;
import lane.cut.CurveBranches;
import lane.cut.Cut;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.CellMeasures;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.station.CutCurve;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Reads a quantity along the curves in which a plane meets boundary parts. A closed curve is parted into two branches at
 * its least and greatest coordinate along the stated direction, so that each is single-valued over that coordinate when
 * the body is convex. Branches are ordered by where their middle lies across the direction, the highest first, and named
 * by it.
 */
public final class CutCurveBranches {
    private CutCurveBranches() {}

    /** A branch: places in order and the values there, NaN where there is none. */
    public record Branch(String name, List<Point> places, double[] values, Unit unit) {}

    /** All branches of a cut curve on a run, each running towards greater coordinates. */
    public static List<Branch> of(Run run, CutCurve station, @Nullable Quantity quantity, EvaluationContext lens) {
        List<Branch> out = new ArrayList<>();
        if (run.mesh().dimension() < 2 || CellMeasures.flat(run.mesh())) {
            throw new LaneException(
                    "A cut curve needs a run with volume or a curved surface; this one is plane. Take a line in it.");
        }
        boolean surface = run.mesh().dimension() == 2;
        // Of a surface the run itself is cut, not its rims.
        List<Part> parts = surface
                ? List.of(Part.ofCells("surface", run.mesh()))
                : station.parts().isEmpty()
                        ? run.parts()
                        : station.parts().stream().map(run::part).toList();
        Point up = station.normal().cross(station.direction());
        if (up.norm() == 0) {
            throw new LaneException(
                    "The cut curve counts its coordinate along the plane's normal; choose a direction in the plane.");
        }
        Point high = up.unit();
        for (Point plane : station.planes()) {
            List<Branch> here = new ArrayList<>();
            for (Part part : parts) {
                String name = part.name();
                Cut cut = CurveBranches.of(part.surface(), plane, station.normal(), Work.QUIET);
                if (cut.empty()) {
                    continue;
                }
                SurfaceValues on = quantity == null ? null : values(run, part, cut, quantity, lens);
                for (CurveBranches.Branch b : CurveBranches.branches(cut)) {
                    for (int[] piece : pieces(cut, b, station.direction())) {
                        here.add(branch(name, cut, piece, on));
                    }
                }
            }
            here.sort(java.util.Comparator.comparingDouble(
                    (Branch b) -> -middle(b).dot(high)));
            out.addAll(here);
        }
        return out;
    }

    private static Point middle(Branch b) {
        Point sum = new Point(0, 0, 0);
        for (Point p : b.places()) {
            sum = sum.plus(p);
        }
        return sum.times(1.0 / b.places().size());
    }

    /** Values at the cut's nodes; a value a face becomes that of the line's owner at both its ends. */
    private static SurfaceValues values(Run run, Part part, Cut cut, Quantity quantity, EvaluationContext lens) {
        BoundQuantity ready = BoundQuantity.of(run, part, quantity, lens).number();
        int n = cut.surface().nodeCount();
        int[] face = new int[n];
        int[] cell = new int[n];
        for (int f = 0; f < cut.owner().length; f++) {
            for (int k = 0; k < 2; k++) {
                int node = cut.surface().nodes()[cut.surface().begin(f) + k];
                face[node] = cut.owner()[f];
                cell[node] = part.owner()[cut.owner()[f]];
            }
        }
        double[] exact = ready.values(
                        SamplePoints.cut(run, cut.surface().xyz(), cut.stencil(), part.node(), cell, part, face))[0];
        return new SurfaceValues(true, new float[0], exact, ready.unit());
    }

    private static Branch branch(String part, Cut cut, int[] nodes, @Nullable SurfaceValues on) {
        List<Point> places = new ArrayList<>();
        double[] values = new double[nodes.length];
        for (int i = 0; i < nodes.length; i++) {
            places.add(point(cut, nodes[i]));
            values[i] = on == null ? Double.NaN : on.exact()[nodes[i]];
        }
        var b = new Branch(part, places, values, on == null ? Unit.UNKNOWN : on.unit());
        Point m = middle(b);
        double round = 1e-9 * cut.surface().modelSize();
        String name = String.format(
                java.util.Locale.ROOT,
                "%s near (%.4g, %.4g, %.4g) m",
                part,
                plain(m.x(), round),
                plain(m.y(), round),
                plain(m.z(), round));
        return new Branch(name, places, values, b.unit());
    }

    /** Round-off at zero is no place. */
    private static double plain(double v, double round) {
        return Math.abs(v) <= round ? 0 : v;
    }

    private static Point point(Cut cut, int i) {
        double[] x = cut.surface().xyz();
        return new Point(x[3 * i], x[3 * i + 1], x[3 * i + 2]);
    }

    /** An open curve towards greater coordinates; a closed one as its two ways from the least to the greatest. */
    private static List<int[]> pieces(Cut cut, CurveBranches.Branch b, Point direction) {
        int[] nodes = b.nodes();
        if (!b.closed()) {
            boolean turn = point(cut, nodes[0]).dot(direction)
                    > point(cut, nodes[nodes.length - 1]).dot(direction);
            return List.of(turn ? reversed(nodes) : nodes);
        }
        int n = nodes.length - 1;
        int least = 0;
        int greatest = 0;
        for (int i = 1; i < n; i++) {
            double v = point(cut, nodes[i]).dot(direction);
            least = v < point(cut, nodes[least]).dot(direction) ? i : least;
            greatest = v > point(cut, nodes[greatest]).dot(direction) ? i : greatest;
        }
        return List.of(walk(nodes, n, least, greatest, 1), walk(nodes, n, least, greatest, -1));
    }

    private static int[] walk(int[] nodes, int n, int from, int to, int step) {
        int count = Math.floorMod(step * (to - from), n) + 1;
        int[] out = new int[count];
        for (int i = 0; i < count; i++) {
            out[i] = nodes[Math.floorMod(from + step * i, n)];
        }
        return out;
    }

    private static int[] reversed(int[] nodes) {
        int[] out = new int[nodes.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = nodes[out.length - 1 - i];
        }
        return out;
    }
}
