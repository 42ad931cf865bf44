package lane.reading;

import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.mesh.Axis;
import lane.mesh.Point;

/** What a tally computes over boundary parts. Every number keeps its sign convention in words. */
public sealed interface Measure {
    /** Which way is positive; empty where a sign has no meaning. */
    String sign();

    /** Keys of the quantities it needs. */
    default Set<String> quantities() {
        return switch (this) {
            case Area _ -> Set.of();
            case Mean m -> Set.of(m.quantity());
            case Integral m -> Set.of(m.quantity());
            case Extreme m -> Set.of(m.quantity());
            case WeightedMean m -> Set.of(m.quantity(), m.vector());
            case Flow m -> Set.of(m.vector());
            case Force m -> m.loads().quantities();
            case Moment m -> m.loads().quantities();
        };
    }

    /** Area of the parts. */
    record Area() implements Measure {
        @Override
        public String sign() {
            return "";
        }
    }

    /** Mean of a quantity, weighted by area. */
    record Mean(String quantity) implements Measure {
        @Override
        public String sign() {
            return "";
        }
    }

    /** Least or greatest value of a quantity, with its place. */
    record Extreme(String quantity, boolean greatest) implements Measure {
        @Override
        public String sign() {
            return "";
        }
    }

    /** Mean of a quantity, weighted by the flow of a vector through the surface: what a stirred cup would hold. */
    record WeightedMean(String quantity, String vector) implements Measure {
        @Override
        public String sign() {
            return "";
        }
    }

    /** Integral of a quantity over the area. */
    record Integral(String quantity) implements Measure {
        @Override
        public String sign() {
            return "positive where the quantity is";
        }
    }

    /** What a flow carries along. */
    enum Carried {
        /** The flux vector alone. */
        NOTHING,
        /** Angular momentum about the axis: the flux times radius times the component around the axis. */
        ANGULAR_MOMENTUM
    }

    /**
     * Flow of a vector quantity through parts: the integral of {@code factor * (v . n)}, n out of the run, or of that
     * times {@code r * (v around the axis)} when it carries angular momentum.
     *
     * @param vector key of a quantity with three components, taken whole
     * @param factor a constant, for example a density
     * @param factorUnit its unit
     */
    record Flow(String vector, double factor, String factorUnit, Carried carried, Axis axis) implements Measure {
        @Override
        public String sign() {
            return "positive leaves the run";
        }
    }

    /** Whom a stored wall stress, or a reported force, acts on. */
    enum On {
        WALL("the wall"),
        FLUID("the fluid");

        private final String word;

        On(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /**
     * Stored loads on a boundary: pressure and wall shear, each a quantity key or blank for none.
     *
     * @param reference pressure that does no work, in pascal
     * @param shearActsOn whom the stored wall shear acts on
     * @param on whom the reported force acts on
     */
    record Loads(String pressure, double reference, String shear, On shearActsOn, On on) {
        Set<String> quantities() {
            return Stream.of(pressure, shear).filter(s -> !s.isBlank()).collect(Collectors.toUnmodifiableSet());
        }
    }

    /** Component of the force along a direction: {@code (p - ref) n} and the wall shear, apart and together. */
    record Force(Loads loads, Point direction) implements Measure {
        @Override
        public String sign() {
            return "positive pushes " + loads.on().word() + " along " + text(direction);
        }
    }

    /** Component of the moment along an axis, about a point of it, right-hand rule. */
    record Moment(Loads loads, Axis axis) implements Measure {
        @Override
        public String sign() {
            return "positive turns " + loads.on().word() + " about " + text(axis.direction()) + ", right-hand rule";
        }
    }

    private static String text(Point d) {
        if (Math.abs(d.x()) + Math.abs(d.y()) == 0) {
            return d.z() > 0 ? "+z" : "-z";
        }
        if (Math.abs(d.y()) + Math.abs(d.z()) == 0) {
            return d.x() > 0 ? "+x" : "-x";
        }
        if (Math.abs(d.x()) + Math.abs(d.z()) == 0) {
            return d.y() > 0 ? "+y" : "-y";
        }
        return "(" + d.x() + ", " + d.y() + ", " + d.z() + ")";
    }
}
