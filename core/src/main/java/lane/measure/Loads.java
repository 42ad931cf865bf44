package lane.measure;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.evaluation.BoundQuantity;
import lane.evaluation.Linear;
import lane.evaluation.SurfaceIntegral;
import lane.evaluation.SurfacePoints;
import lane.formula.Program;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Loads on a boundary: pressure and wall shear, each a quantity key or blank for none.
 *
 * @param reference pressure that does no work, in pascal
 * @param shearActsOn whom the stored wall shear acts on
 * @param on whom the reported force acts on
 * @param gradient the viscous part from the gradient of a velocity, in place of a stored wall shear; null for none
 */
public record Loads(
        String pressure,
        double reference,
        String shear,
        On shearActsOn,
        On on,
        @Nullable Newtonian gradient) {
    private static final Unit PASCAL = Unit.of("Pa");

    /** Whom a stored wall stress, or a reported force, acts on. */
    public enum On {
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

    public Loads {
        if (gradient != null && !shear.isBlank()) {
            throw new LaneException("A force takes its viscous part either from a wall shear or from the gradient of a"
                    + " velocity, not from both; leave one out.");
        }
    }

    public Loads(String pressure, double reference, String shear, On shearActsOn, On on) {
        this(pressure, reference, shear, shearActsOn, on, null);
    }

    /** The same, reported as it acts on the other: what the fluid does to the wall, the wall does to it with the other sign. */
    public Loads flipped() {
        return new Loads(pressure, reference, shear, shearActsOn, on == On.WALL ? On.FLUID : On.WALL, gradient);
    }

    Set<String> quantities() {
        Stream<String> stored = Stream.of(pressure, shear).filter(s -> !s.isBlank());
        Stream<String> formed = gradient == null ? Stream.of() : gradient.quantities().stream();
        return Stream.concat(stored, formed).collect(Collectors.toUnmodifiableSet());
    }

    /** What is to be done with stored loads over parts. */
    private interface Over<T> {
        T of(SurfaceIntegral over, Loads stored);
    }

    /** A gradient becomes a wall shear of the parts, known to this integral alone. */
    private <T> T stored(SurfaceIntegral over, Over<T> what) {
        Newtonian formed = gradient;
        if (formed == null) {
            return what.of(over, this);
        }
        Quantity made = formed.onWall(over);
        var as = new Loads(pressure, reference, made.id(), On.WALL, on);
        return what.of(over.through(over.lens().with(made)), as);
    }

    /** A direction in a few characters: {@code +z}, or its components. */
    static String text(Point d) {
        double[] c = {d.x(), d.y(), d.z()};
        for (int i = 0; i < 3; i++) {
            if (Math.abs(c[(i + 1) % 3]) + Math.abs(c[(i + 2) % 3]) <= 1e-12 * Math.abs(c[i])) {
                return (c[i] > 0 ? "+" : "-") + "xyz".charAt(i);
            }
        }
        return String.format(Locale.ROOT, "(%s, %s, %s)", number(c[0]), number(c[1]), number(c[2]));
    }

    private static String number(double v) {
        return lane.mesh.Finding.number(Math.abs(v) < 1e-12 ? 0 : v, 6);
    }

    /** What counts of a resultant. */
    @FunctionalInterface
    interface Resolve {
        /**
         * @param force of all loads
         * @param moment of them about the origin of space
         */
        double of(Point force, Point moment);
    }

    /** Along a direction. */
    record Along(Point direction) implements Resolve {
        @Override
        public double of(Point force, Point moment) {
            return direction.dot(force);
        }
    }

    /** Along an axis, of the moment about its origin. */
    record About(Axis axis) implements Resolve {
        @Override
        public double of(Point force, Point moment) {
            return axis.direction().dot(moment.minus(axis.origin().cross(force)));
        }
    }

    /** The force of a pressure along each axis of space. */
    private record Pushes() implements Linear {
        @Override
        public int sums() {
            return 3;
        }

        @Override
        public int degree(int quantity) {
            return quantity;
        }

        @Override
        public boolean placed() {
            return false;
        }

        @Override
        public double[] counts(SurfacePoints at, int sum, int component) {
            return at.along(sum);
        }
    }

    /** The force of a wall shear along each axis of space. */
    private record Drags() implements Linear {
        @Override
        public int sums() {
            return 3;
        }

        /** On a bent quad the area itself is no polynomial. */
        @Override
        public int degree(int quantity) {
            return Program.NO_POLYNOMIAL;
        }

        @Override
        public boolean placed() {
            return false;
        }

        @Override
        public double @Nullable [] counts(SurfacePoints at, int sum, int component) {
            return sum == component ? at.area() : null;
        }
    }

    /**
     * Forces along each axis of space, then their moments about each, so that all components of both, about whatever axis, come of
     * one pass over the faces.
     */
    private record Resultant(Linear force) implements Linear {
        @Override
        public int sums() {
            return 6;
        }

        @Override
        public int degree(int quantity) {
            return force.degree(quantity) + 1;
        }

        @Override
        public boolean placed() {
            return true;
        }

        @Override
        public boolean placed(int sum) {
            return sum >= 3;
        }

        @Override
        public double @Nullable [] counts(SurfacePoints at, int sum, int component) {
            if (sum < 3) {
                return force.counts(at, sum, component);
            }
            // Of r x f along an axis it is the next of r times the one after that of f, less these two the other way
            // round.
            int next = (sum + 1) % 3;
            int last = (sum + 2) % 3;
            double[] ahead = force.counts(at, last, component);
            double[] behind = force.counts(at, next, component);
            if (ahead == null && behind == null) {
                return null;
            }
            double[] out = at.term;
            double[] r = at.place(next);
            double[] s = at.place(last);
            for (int i = 0; i < at.n; i++) {
                out[i] = (ahead == null ? 0 : r[i] * ahead[i]) - (behind == null ? 0 : s[i] * behind[i]);
            }
            return out;
        }
    }

    private static final Linear OF_PRESSURE = new Resultant(new Pushes());
    private static final Linear OF_SHEAR = new Resultant(new Drags());

    /**
     * Force of the fluid on the wall is (p - ref) n with n out of the fluid, plus the shear that acts on the wall.
     */
    static Measured of(SurfaceIntegral over, Loads loads, Unit unit, Resolve resolve) {
        Newtonian formed = loads.gradient;
        Measured made = loads.stored(over, (o, l) -> ofStored(o, l, unit, resolve));
        return formed == null ? made : made.also(formed.note());
    }

    private static Measured ofStored(SurfaceIntegral over, Loads loads, Unit unit, Resolve resolve) {
        if (loads.pressure().isBlank() && loads.shear().isBlank()) {
            throw new LaneException("A force needs a pressure, a wall shear or both; name at least one quantity.");
        }
        var parts = new double[2];
        over.run()
                .gather()
                .each(List.of(
                        () -> parts[0] = ofPressure(over, loads, resolve),
                        () -> parts[1] = ofShear(over, loads, resolve)));
        double pressure = parts[0];
        double viscous = parts[1];
        var pieces = new LinkedHashMap<String, Double>();
        boolean both = !loads.pressure().isBlank() && !loads.shear().isBlank();
        if (both) {
            pieces.put("pressure", pressure);
            pieces.put("viscous", viscous);
        }
        // What was not asked for is no part of nothing.
        String lacks = both
                ? ""
                : loads.shear().isBlank()
                        ? ", of pressure alone: no wall shear is named"
                        : ", of wall shear alone: no pressure is named";
        return new Measured(pressure + viscous, unit, pieces, "", lacks);
    }

    private static double ofPressure(SurfaceIntegral over, Loads loads, Resolve resolve) {
        if (!loads.pressure().isBlank()) {
            BoundQuantity p = over.ready(loads.pressure()).number();
            requirePascal(p, "pressure");
            // Of no offset there is nothing to add.
            double offset = p.offset() - loads.reference();
            double[] s = over.linear(loads.pressure(), OF_PRESSURE, offset != 0);
            double all = p.factor() * resolved(resolve, s, 0);
            if (offset != 0) {
                all += offset * resolved(resolve, s, 6);
            }
            return (loads.on == On.WALL ? 1 : -1) * all;
        }
        return 0;
    }

    private static double resolved(Resolve resolve, double[] s, int from) {
        return resolve.of(
                new Point(s[from], s[from + 1], s[from + 2]), new Point(s[from + 3], s[from + 4], s[from + 5]));
    }

    private static double ofShear(SurfaceIntegral over, Loads loads, Resolve resolve) {
        if (!loads.shear().isBlank()) {
            BoundQuantity tau = over.ready(loads.shear()).vector();
            requirePascal(tau, "wall shear");
            double along = resolved(resolve, over.linear(loads.shear(), OF_SHEAR, false), 0);
            // What was stated of the run's own field is nearer to the truth than what the measure expects of all runs.
            boolean onWall = tau.fields().stream()
                    .map(f -> over.run().stated().onWall().get(f.name()))
                    .filter(Objects::nonNull)
                    .findFirst()
                    .orElse(loads.shearActsOn() == On.WALL);
            return (onWall == (loads.on == On.WALL) ? 1 : -1) * tau.factor() * along;
        }
        return 0;
    }

    /** The sizes of all loads added up, in newton: what a resultant is small against when loads cancel. */
    public double size(SurfaceIntegral over) {
        return stored(over, (o, l) -> l.sizeOfStored(o));
    }

    private double sizeOfStored(SurfaceIntegral over) {
        return over
                .run()
                .gather()
                .all(List.<java.util.function.Supplier<Double>>of(() -> sizeOfPressure(over), () -> sizeOfShear(over)))
                .stream()
                .mapToDouble(v -> v)
                .sum();
    }

    private double sizeOfPressure(SurfaceIntegral over) {
        return pressure.isBlank() ? 0 : over.size(pressure, reference);
    }

    private double sizeOfShear(SurfaceIntegral over) {
        return shear.isBlank() ? 0 : over.size(shear, 0);
    }

    private static void requirePascal(BoundQuantity ready, String what) {
        Unit unit = ready.unit();
        String name = ready.quantity().name();
        if (unit.known() && unit.dimension().equals(Unit.of("m2/s2").dimension())) {
            throw new LaneException(
                    Fault.UNIT,
                    "Quantity \"" + name + "\" is a kinematic " + what + " in " + unit.symbol()
                            + "; multiply it by the density to get a force.");
        }
        if (!unit.comparable(PASCAL)) {
            throw new LaneException(
                    Fault.UNIT,
                    "Quantity \"" + name + "\" is used as " + what + " but its unit is " + unit.label()
                            + "; state a unit of pressure at Quantities.");
        }
    }
}
