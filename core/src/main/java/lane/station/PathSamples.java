package lane.station;

import java.util.List;
import lane.mesh.Point;

/**
 * Places along a path at chosen shares of its length.
 *
 * @param xyz places in metres
 * @param arc length from the start in metres
 * @param weight share of the length in metres that each stands for (trapezoidal rule)
 */
public record PathSamples(double[] xyz, double[] arc, double[] weight) {
    public int size() {
        return arc.length;
    }

    /** Samples of a path that is not cell-exact; of a cell-exact one 201 even ones, as a theory takes them. */
    public static PathSamples of(Shape.Path path) {
        double[] share =
                switch (path.sampling()) {
                    case Sampling.Even even -> even.shares();
                    case Sampling.Clustered clustered -> clustered.shares();
                    case Sampling.CellExact _ -> new Sampling.Even(201).shares();
                };
        int n = share.length;
        double length = path.length();
        double[] arc = new double[n];
        double[] weight = new double[n];
        double[] xyz = new double[3 * n];
        for (int i = 0; i < n; i++) {
            arc[i] = share[i] * length;
            Point p = path.at(share[i]);
            xyz[3 * i] = p.x();
            xyz[3 * i + 1] = p.y();
            xyz[3 * i + 2] = p.z();
        }
        for (int i = 0; i < n; i++) {
            weight[i] = (arc[Math.min(n - 1, i + 1)] - arc[Math.max(0, i - 1)]) / 2;
        }
        return new PathSamples(xyz, arc, weight);
    }

    /** The place so far along straight pieces. */
    static Point onCorners(List<Point> corners, double share, double arc) {
        int piece = 0;
        double before = 0;
        double own = corners.get(1).minus(corners.getFirst()).norm();
        while (arc > before + own && piece + 2 < corners.size()) {
            before += own;
            piece++;
            own = corners.get(piece + 1).minus(corners.get(piece)).norm();
        }
        // Written so that the ends of a line are met exactly.
        double f = corners.size() == 2 ? share : Math.clamp((arc - before) / own, 0, 1);
        return Placer.along(corners.get(piece), corners.get(piece + 1), f);
    }
}
