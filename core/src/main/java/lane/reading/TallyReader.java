package lane.reading;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Fault;
import lane.base.LaneException;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Cell;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.trail.Trail;
import lane.unit.Unit;

/** Computes tallies over boundary parts. Formulas: docs/METHODS.md. */
public final class TallyReader {
    private static final Unit NEWTON = Unit.of("N");
    private static final Unit NEWTON_METRE = Unit.of("N m");
    private static final Unit PASCAL = Unit.of("Pa");

    private TallyReader() {}

    /** A number in SI units with its unit and the pieces it consists of. */
    private record Raw(double value, Unit natural, Map<String, Double> pieces, String place) {
        Raw(double value, Unit natural, Map<String, Double> pieces) {
            this(value, natural, pieces, "");
        }
    }

    /** @throws LaneException when a field is missing, has the wrong dimension, or is not known on the parts */
    public static Tally read(
            Run run, List<Part> parts, Measure measure, Lens lens, String unitText, Trail trail, Memo memo) {
        var over = new SurfaceIntegral(run, parts, lens, memo);
        Raw raw =
                switch (measure) {
                    case Measure.Area _ -> new Raw(geometry(over)[3], Unit.of("m2"), Map.of());
                    case Measure.Mean mean -> mean(over, mean.quantity(), true);
                    case Measure.Integral integral -> mean(over, integral.quantity(), false);
                    case Measure.Extreme extreme -> extreme(over, extreme);
                    case Measure.WeightedMean mean -> weighted(over, mean);
                    case Measure.Flow flow -> flow(over, flow);
                    case Measure.Force force -> force(over, force);
                    case Measure.Moment moment -> moment(over, moment);
                };
        Unit shown = Outcome.shown(unitText, raw.natural, "Tally");
        int faces = parts.stream().mapToInt(p -> p.surface().cellCount()).sum();
        String where = String.join(" + ", parts.stream().map(Part::name).toList());
        String note = "over " + where + ", " + faces + " faces" + raw.place;
        var settings = new LinkedHashMap<String, String>();
        settings.put("parts", where);
        settings.put("faces", String.valueOf(faces));
        settings.put(
                "faces turned outwards",
                String.valueOf(parts.stream().mapToInt(Part::turned).sum()));
        settings.put("quadrature degree", String.valueOf(SurfaceIntegral.DEGREE));
        settings.put(
                "quantities computed",
                measure instanceof Measure.Extreme ? "at nodes, or at faces" : "at quadrature points");
        Trail full = trail.then("station", "part " + where + ", " + faces + " faces", settings)
                .then(
                        "reading",
                        describe(measure),
                        Map.of("measure", measure.toString(), "sign", measure.sign(), "unit", shown.label()));
        return new Tally(raw.value, shown, raw.pieces, measure.sign(), note, full);
    }

    static String describe(Measure measure) {
        return switch (measure) {
            case Measure.Area _ -> "area";
            case Measure.Mean m -> "mean of " + m.quantity();
            case Measure.Integral m -> "integral of " + m.quantity();
            case Measure.Extreme m -> (m.greatest() ? "greatest " : "least ") + m.quantity();
            case Measure.WeightedMean m -> "mean of " + m.quantity() + " by flow of " + m.vector();
            case Measure.Flow m ->
                m.carried() == Measure.Carried.NOTHING
                        ? "flow of " + m.vector()
                        : "flow of angular momentum with " + m.vector();
            case Measure.Force _ -> "force";
            case Measure.Moment _ -> "moment";
        };
    }

    /** The sum of the area vectors and, last, the area. */
    private static double[] geometry(SurfaceIntegral over) {
        return over.of("geometry", List.of(), 4, (at, sums) -> {
            sums[0].add(at.nx);
            sums[1].add(at.ny);
            sums[2].add(at.nz);
            sums[3].add(at.area);
        });
    }

    /** |sum of area vectors| / sum of areas: round-off for a closed surface. */
    static double closure(Run run, List<Part> parts, Lens lens, Memo memo) {
        double[] s = geometry(new SurfaceIntegral(run, parts, lens, memo));
        return s[3] == 0 ? 1 : Math.sqrt(s[0] * s[0] + s[1] * s[1] + s[2] * s[2]) / s[3];
    }

    private static Raw mean(SurfaceIntegral over, String key, boolean divide) {
        Ready ready = over.ready(key).number();
        double[] s = over.of("mean", List.of(key), 2, (at, sums) -> {
            sums[0].add(at.value[0][0] * at.area);
            sums[1].add(at.area);
        });
        double integral = ready.factor() * s[0] + ready.offset() * s[1];
        if (divide) {
            return new Raw(integral / s[1], ready.unit(), Map.of());
        }
        return new Raw(integral, ready.unit().si().times(Unit.of("m2")), Map.of());
    }

    private static Raw extreme(SurfaceIntegral over, Measure.Extreme extreme) {
        Quantity quantity = over.lens().quantity(extreme.quantity());
        double best = Double.NaN;
        Unit unit = Unit.UNKNOWN;
        Point place = null;
        for (Part part : over.parts()) {
            SurfaceValues values = SurfaceValues.of(over.run(), part, quantity, over.lens());
            unit = values.unit();
            double[] x = part.surface().xyz();
            var cell = new Cell(part.surface());
            double[] c = new double[3];
            for (int i = 0; i < values.exact().length; i++) {
                double v = values.exact()[i];
                if (Double.isNaN(v) || !(Double.isNaN(best) || (extreme.greatest() ? v > best : v < best))) {
                    continue;
                }
                best = v;
                if (values.byNode()) {
                    System.arraycopy(x, 3 * i, c, 0, 3);
                } else {
                    cell.load(i).centre(c);
                }
                place = new Point(c[0], c[1], c[2]);
            }
        }
        if (place == null) {
            throw new LaneException("Quantity \"" + quantity.name() + "\" has no value on "
                    + String.join(", ", over.parts().stream().map(Part::name).toList()) + ".");
        }
        return new Raw(best, unit, Map.of(), " at " + at(place));
    }

    static String at(Point p) {
        return String.format(java.util.Locale.ROOT, "(%.5g, %.5g, %.5g) m", p.x(), p.y(), p.z());
    }

    private static Raw weighted(SurfaceIntegral over, Measure.WeightedMean mean) {
        Ready ready = over.ready(mean.quantity()).number();
        over.ready(mean.vector()).vector();
        double[] s = over.of("weighted", List.of(mean.quantity(), mean.vector()), 3, (at, sums) -> {
            double[] u = at.value[1];
            double through = u[0] * at.nx + u[1] * at.ny + u[2] * at.nz;
            sums[0].add(at.value[0][0] * through);
            sums[1].add(through);
            sums[2].add(at.area * Math.sqrt(u[0] * u[0] + u[1] * u[1] + u[2] * u[2]));
        });
        if (!(Math.abs(s[1]) > 1e-9 * s[2])) {
            throw new LaneException("No net flow of \"" + mean.vector() + "\" passes here, so a mean weighted by it has"
                    + " no meaning; take the mean by area.");
        }
        return new Raw(ready.factor() * s[0] / s[1] + ready.offset(), ready.unit(), Map.of());
    }

    private static Raw flow(SurfaceIntegral over, Measure.Flow flow) {
        Ready ready = over.ready(flow.vector()).vector();
        Unit factorUnit = Unit.of(flow.factorUnit());
        double factor = factorUnit.toSi(flow.factor());
        boolean swirl = flow.carried() == Measure.Carried.ANGULAR_MOMENTUM;
        Axis axis = flow.axis();
        List<Object> what = swirl ? List.of("flow", axis) : List.of("flow");
        double[] s = over.of(what, List.of(flow.vector()), 1, (at, sums) -> {
            double[] v = at.value[0];
            double through = v[0] * at.nx + v[1] * at.ny + v[2] * at.nz;
            sums[0].add(swirl ? through * momentOf(axis, at.x, at.y, at.z, v[0], v[1], v[2]) : through);
        });
        Unit si = ready.unit().si();
        Unit unit = factorUnit.si().times(si).times(Unit.of("m2"));
        double toSi = factor * ready.factor();
        return swirl
                ? new Raw(toSi * ready.factor() * s[0], unit.times(si).times(Unit.of("m")), Map.of())
                : new Raw(toSi * s[0], unit, Map.of());
    }

    /** Component along the axis of (place - origin) x (fx, fy, fz). */
    private static double momentOf(Axis axis, double x, double y, double z, double fx, double fy, double fz) {
        Point o = axis.origin();
        Point d = axis.direction();
        double px = x - o.x();
        double py = y - o.y();
        double pz = z - o.z();
        return d.x() * (py * fz - pz * fy) + d.y() * (pz * fx - px * fz) + d.z() * (px * fy - py * fx);
    }

    private static Raw force(SurfaceIntegral over, Measure.Force force) {
        Point d = force.direction().unit();
        return loads(over, force.loads(), NEWTON, d, (at, x, y, z) -> d.x() * x + d.y() * y + d.z() * z);
    }

    private static Raw moment(SurfaceIntegral over, Measure.Moment moment) {
        Axis axis = moment.axis();
        return loads(
                over, moment.loads(), NEWTON_METRE, axis, (at, x, y, z) -> momentOf(axis, at.x, at.y, at.z, x, y, z));
    }

    @FunctionalInterface
    private interface Resolve {
        double of(SurfaceIntegral.At at, double fx, double fy, double fz);
    }

    /**
     * Force of the fluid on the wall is (p - ref) n with n out of the fluid, plus the shear that acts on the wall.
     *
     * @param about tells one way of resolving a force from another
     */
    private static Raw loads(SurfaceIntegral over, Measure.Loads loads, Unit unit, Object about, Resolve resolve) {
        if (loads.pressure().isBlank() && loads.shear().isBlank()) {
            throw new LaneException("A force needs a pressure, a wall shear or both; name at least one quantity.");
        }
        double pressure = 0;
        if (!loads.pressure().isBlank()) {
            Ready p = over.ready(loads.pressure()).number();
            requirePascal(p, "pressure");
            double[] s = over.of(List.of("pressure", about), List.of(loads.pressure()), 2, (at, sums) -> {
                double normal = resolve.of(at, at.nx, at.ny, at.nz);
                sums[0].add(at.value[0][0] * normal);
                sums[1].add(normal);
            });
            pressure = (loads.on() == Measure.On.WALL ? 1 : -1)
                    * (p.factor() * s[0] + (p.offset() - loads.reference()) * s[1]);
        }
        double viscous = 0;
        if (!loads.shear().isBlank()) {
            Ready tau = over.ready(loads.shear()).vector();
            requirePascal(tau, "wall shear");
            double[] s = over.of(List.of("shear", about), List.of(loads.shear()), 1, (at, sums) -> {
                double[] t = at.value[0];
                sums[0].add(resolve.of(at, at.area * t[0], at.area * t[1], at.area * t[2]));
            });
            // What was stated of the run's own field is nearer to the truth than what the measure expects of all runs.
            boolean onWall = tau.fields().stream()
                    .map(f -> over.run().stated().onWall().get(f.name()))
                    .filter(java.util.Objects::nonNull)
                    .findFirst()
                    .orElse(loads.shearActsOn() == Measure.On.WALL);
            viscous = (onWall == (loads.on() == Measure.On.WALL) ? 1 : -1) * tau.factor() * s[0];
        }
        var pieces = new LinkedHashMap<String, Double>();
        pieces.put("pressure", pressure);
        pieces.put("viscous", viscous);
        return new Raw(pressure + viscous, unit, pieces);
    }

    private static void requirePascal(Ready ready, String what) {
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
