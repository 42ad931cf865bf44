package lane.desk.madeup;

import java.util.List;
import java.util.stream.IntStream;
import lane.desk.stations.ShapeForm;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.station.Abscissa;
import lane.station.Sampling;
import lane.station.Shape;
import lane.station.ShapeKind;

/** A made-up kind of station: a wire around the axis, by straight pieces of a degree. */
public record Helix(double radius, double from, double pitch, Sampling sampling, Abscissa abscissa)
        implements Shape.Path {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "helix";
        }

        @Override
        public Class<Helix> type() {
            return Helix.class;
        }
    }

    /** In the window: no more than its word. */
    public static final class InWindow implements ShapeForm {
        @Override
        public String word() {
            return "helix";
        }

        @Override
        public Class<Helix> type() {
            return Helix.class;
        }
    }

    @Override
    public String word() {
        return "helix";
    }

    @Override
    public List<Point> corners() {
        return IntStream.rangeClosed(0, 360)
                .mapToObj(i -> Axis.Z.place(radius, Math.toRadians(i), from + pitch * i / 360))
                .toList();
    }

    @Override
    public double length() {
        List<Point> c = corners();
        return IntStream.range(1, c.size())
                .mapToDouble(i -> c.get(i).minus(c.get(i - 1)).norm())
                .sum();
    }

    @Override
    public Helix sampled(Sampling other, Abscissa against) {
        return new Helix(radius, from, pitch, other, against);
    }

    @Override
    public Shape through(Axis frame) {
        return this;
    }
}
