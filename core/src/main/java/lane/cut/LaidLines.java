package lane.cut;

import java.util.List;
import lane.base.Work;
import lane.mesh.CellLocator;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.mesh.Roundness;

/** Lines of a cylinder laid into a plane run: cut where they pass from cell to cell, the ends moved onto the cylinder. */
final class LaidLines {
    private LaidLines() {}

    /** @param ends of the lines, two of each */
    static Cut of(CellLocator locator, List<Point> ends, Roundness round, Work work) {
        var finder = locator.finder();
        double tolerance = 1e-9 * locator.mesh().modelSize();
        var found = new Found();
        double whole = 0;
        double inside = 0;
        for (int i = 0; i < ends.size(); i += 2) {
            work.poll();
            Point a = ends.get(i);
            Point along = ends.get(i + 1).minus(a);
            double[] cuts = LineCuts.of(locator, a, ends.get(i + 1));
            for (int k = 1; k < cuts.length; k++) {
                double length = (cuts[k] - cuts[k - 1]) * along.norm();
                whole += length;
                Point middle = a.plus(along.times((cuts[k] + cuts[k - 1]) / 2));
                int cell = finder.find(middle.x(), middle.y(), middle.z(), tolerance);
                if (cell < 0) {
                    continue;
                }
                inside += length;
                for (int end = k - 1; end <= k; end++) {
                    Point p = a.plus(along.times(cuts[end]));
                    double[] place = {p.x(), p.y(), p.z()};
                    round.onto(place, new double[3]);
                    finder.cell().locate(place[0], place[1], place[2]);
                    found.node(place, finder.cell());
                }
                found.owners.add(cell);
            }
        }
        return found.cut(round, whole == 0 ? 0 : inside / whole);
    }

    private static final class Found {
        private final List<double[]> places = new java.util.ArrayList<>();
        private final List<Integer> owners = new java.util.ArrayList<>();
        private final StencilBuilder stencil = new StencilBuilder(1024);

        void node(double[] place, lane.mesh.Cell cell) {
            places.add(place);
            for (int v = 0; v < cell.size(); v++) {
                stencil.add(cell.node(v), cell.weights()[v]);
            }
            stencil.next();
        }

        Cut cut(Roundness round, double coverage) {
            double[] xyz = new double[3 * places.size()];
            int[] nodes = new int[places.size()];
            for (int i = 0; i < nodes.length; i++) {
                System.arraycopy(places.get(i), 0, xyz, 3 * i, 3);
                nodes[i] = i;
            }
            int[] owner = owners.stream().mapToInt(v -> v).toArray();
            return new Cut(Mesh.uniform(xyz, CellShape.LINE, nodes), owner, stencil.build(), round, coverage);
        }
    }
}
