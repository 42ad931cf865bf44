package lane.reading;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.cut.CurveBranches;
import lane.cut.Cut;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.Station;
import lane.trail.Trail;
import lane.unit.Unit;

/**
 * Reads a quantity along the curves in which a plane meets boundary parts. A closed curve is parted into two branches at
 * its least and greatest coordinate along the stated direction, so that each is single-valued over that coordinate when
 * the body is convex. Branches are ordered by where their middle lies across the direction, the highest first, and named
 * by it.
 */
public final class CutCurveReader {
    private CutCurveReader() {}

    /** A branch: places in order and the values there, NaN where there is none. */
    public record Branch(String name, List<Point> places, double[] values, Unit unit) {}

    /** All branches of a cut curve on a run, each running towards greater coordinates. */
    public static List<Branch> branches(Run run, CutCurve station, Quantity quantity, Lens lens) {
        List<Branch> out = new ArrayList<>();
        List<String> names =
                station.parts().isEmpty() ? run.parts().stream().map(Part::name).toList() : station.parts();
        if (run.mesh().dimension() != 3) {
            throw new LaneException("A cut curve needs a run with volume; this one is plane.");
        }
        Point up = station.normal().cross(station.direction());
        if (up.norm() == 0) {
            throw new LaneException(
                    "The cut curve counts its coordinate along the plane's normal; choose a direction in the plane.");
        }
        Point high = up.unit();
        for (Point plane : station.planes()) {
            List<Branch> here = new ArrayList<>();
            for (String name : names) {
                Part part = run.part(name);
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
    private static SurfaceValues values(Run run, Part part, Cut cut, Quantity quantity, Lens lens) {
        Ready ready = Ready.of(run, part, quantity, lens).number();
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
        double[] exact =
                ready.values(Placed.cut(run, cut.surface().xyz(), cut.stencil(), part.node(), cell, part, face))[0];
        return new SurfaceValues(true, new float[0], exact, ready.unit());
    }

    private static Branch branch(String part, Cut cut, int[] nodes, SurfaceValues on) {
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

    /** The profile over one branch, or over all one after the other with an absent sample between them. */
    public static Profile read(Run run, Station where, Quantity quantity, Lens lens, String unitText, Trail trail) {
        var station = (CutCurve) where.shape();
        List<Branch> all = branches(run, station, quantity, lens);
        if (all.isEmpty()) {
            throw new LaneException(
                    Fault.OUTSIDE, "The plane of cut curve \"" + where.name() + "\" meets none of its parts; move it.");
        }
        if (station.branch() > all.size()) {
            throw new LaneException("Cut curve \"" + where.name() + "\" has " + all.size() + " branches here, not "
                    + station.branch() + "; choose one of them.");
        }
        List<Branch> chosen = station.branch() == 0 ? all : List.of(all.get(station.branch() - 1));
        int n = chosen.stream().mapToInt(b -> b.places().size()).sum() + chosen.size() - 1;
        double[] abscissa = new double[n];
        double[] value = new double[n];
        int at = 0;
        int found = 0;
        for (Branch b : chosen) {
            if (at > 0) {
                abscissa[at] = Double.NaN;
                value[at++] = Double.NaN;
            }
            double[] along = along(station, b);
            for (int i = 0; i < along.length; i++) {
                abscissa[at] = along[i];
                value[at++] = b.values()[i];
                found += Double.isFinite(b.values()[i]) ? 1 : 0;
            }
        }
        Unit shown = Outcome.shown(unitText, chosen.getFirst().unit(), "Reading on \"" + where.name() + "\"");
        String names = String.join("; ", chosen.stream().map(Branch::name).toList());
        Trail full = trail.then("quantity", quantity.name(), Map.of("formula", quantity.formula()))
                .then(
                        "station",
                        "cut curve \"" + where.name() + "\", " + chosen.size() + " of " + all.size() + " branches",
                        Map.of("geometry", station.toString(), "branches", names))
                .then("reading", "profile", Map.of("unit", shown.label()));
        String word =
                switch (station.against()) {
                    case LENGTH -> "length along the curve";
                    case COORDINATE -> "coordinate along the direction";
                    case SHARE -> "share of the piece's extent";
                };
        return new Profile(
                abscissa,
                value,
                java.util.List.of(),
                word,
                Unit.of(station.against() == Extent.SHARE ? "1" : "m"),
                shown,
                false,
                found,
                names,
                full);
    }

    private static double[] along(CutCurve station, Branch b) {
        double[] out = new double[b.places().size()];
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < out.length; i++) {
            if (station.against() == Extent.LENGTH) {
                out[i] = i == 0
                        ? 0
                        : out[i - 1]
                                + b.places().get(i).minus(b.places().get(i - 1)).norm();
            } else {
                out[i] = b.places().get(i).dot(station.direction());
            }
            least = Math.min(least, out[i]);
            greatest = Math.max(greatest, out[i]);
        }
        if (station.against() == Extent.SHARE) {
            for (int i = 0; i < out.length; i++) {
                out[i] = greatest > least ? (out[i] - least) / (greatest - least) : 0;
            }
        }
        return out;
    }
}
