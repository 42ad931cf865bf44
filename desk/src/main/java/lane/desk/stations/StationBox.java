package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import lane.desk.Session;
import lane.evaluation.Laid;
import lane.field.Part;
import lane.mesh.Point;
import lane.station.Points;
import lane.station.Shape;
import lane.station.Station;
import org.jspecify.annotations.Nullable;

/** The box around a station in a lane. */
final class StationBox {
    private StationBox() {}

    /** Least and greatest x, y and z; null for none. */
    static double @Nullable [] of(Session session, String id, String lane) {
        Station s = session.study().station(id).map(session::placed).orElse(null);
        List<Point> points = new ArrayList<>();
        switch (s == null ? null : s.shape()) {
            case null -> {
                return null;
            }
            case Shape.Path p -> points.addAll(p.corners());
            case Points p -> points.addAll(p.points());
            default -> {
                Laid laid = session.results()
                        .laid()
                        .getOrDefault(id, java.util.Map.of())
                        .get(lane);
                if (laid == null) {
                    return null;
                }
                if (laid.cut() != null) {
                    corners(laid.cut().surface().bounds(), points);
                }
                for (Part part : laid.parts()) {
                    corners(part.surface().bounds(), points);
                }
                laid.branches().forEach(b -> points.addAll(b.places()));
            }
        }
        if (points.isEmpty()) {
            return null;
        }
        double[] b = {
            Double.MAX_VALUE,
            -Double.MAX_VALUE,
            Double.MAX_VALUE,
            -Double.MAX_VALUE,
            Double.MAX_VALUE,
            -Double.MAX_VALUE
        };
        for (Point p : points) {
            double[] x = {p.x(), p.y(), p.z()};
            for (int d = 0; d < 3; d++) {
                b[2 * d] = Math.min(b[2 * d], x[d]);
                b[2 * d + 1] = Math.max(b[2 * d + 1], x[d]);
            }
        }
        // A point alone is shown with something around it.
        double least = 0.02
                * session.results().runs().values().stream()
                        .mapToDouble(r -> r.mesh().modelSize())
                        .max()
                        .orElse(1);
        for (int d = 0; d < 3; d++) {
            double grow = Math.max(0, least - (b[2 * d + 1] - b[2 * d])) / 2;
            b[2 * d] -= grow;
            b[2 * d + 1] += grow;
        }
        return b;
    }

    private static void corners(double[] b, List<Point> out) {
        out.add(new Point(b[0], b[2], b[4]));
        out.add(new Point(b[1], b[3], b[5]));
    }
}
