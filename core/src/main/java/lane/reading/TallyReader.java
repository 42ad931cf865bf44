package lane.reading;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.trail.Trail;
import lane.unit.Unit;

/** Computes tallies over boundary parts. Formulas: docs/METHODS.md. */
public final class TallyReader {
    private static final Unit NEWTON = Unit.of("N");
    private static final Unit NEWTON_METRE = Unit.of("N m");
    private static final Unit PASCAL = Unit.of("Pa");

    private TallyReader() {}

    /** A number in SI units with its unit and the pieces it consists of. */
    private record Raw(double value, Unit natural, Map<String, Double> pieces) {}

    /** @throws LaneException when a field is missing, has the wrong dimension, or is not known on the parts */
    public static Tally read(Run run, List<Part> parts, Measure measure, Lens lens, String unitText, Trail trail) {
        Raw raw =
                switch (measure) {
                    case Measure.Area _ -> new Raw(area(run, parts, lens), Unit.of("m2"), Map.of());
                    case Measure.Mean mean -> mean(run, parts, mean.quantity(), lens, true);
                    case Measure.Integral integral -> mean(run, parts, integral.quantity(), lens, false);
                    case Measure.Flow flow -> flow(run, parts, flow, lens);
                    case Measure.Force force -> force(run, parts, force, lens);
                    case Measure.Moment moment -> moment(run, parts, moment, lens);
                };
        Unit shown = Outcome.shown(unitText, raw.natural, "Tally");
        int faces = parts.stream().mapToInt(p -> p.surface().cellCount()).sum();
        String over = String.join(" + ", parts.stream().map(Part::name).toList());
        String note = "over " + over + ", " + faces + " faces";
        var settings = new LinkedHashMap<String, String>();
        settings.put("parts", over);
        settings.put("faces", String.valueOf(faces));
        settings.put(
                "faces turned outwards",
                String.valueOf(parts.stream().mapToInt(Part::turned).sum()));
        settings.put("quadrature degree", String.valueOf(SurfaceIntegral.DEGREE));
        Trail full = trail.then("station", "part " + over + ", " + faces + " faces", settings)
                .then(
                        "reading",
                        describe(measure),
                        Map.of("measure", measure.toString(), "sign", measure.sign(), "unit", shown.label()));
        return new Tally(raw.value, Double.NaN, shown, raw.pieces, measure.sign(), note, full);
    }

    static String describe(Measure measure) {
        return switch (measure) {
            case Measure.Area _ -> "area";
            case Measure.Mean m -> "mean of " + m.quantity();
            case Measure.Integral m -> "integral of " + m.quantity();
            case Measure.Flow m ->
                m.carried() == Measure.Carried.NOTHING
                        ? "flow of " + m.vector()
                        : "flow of angular momentum with " + m.vector();
            case Measure.Force _ -> "force";
            case Measure.Moment _ -> "moment";
        };
    }

    private static double area(Run run, List<Part> parts, Lens lens) {
        return SurfaceIntegral.over(run, parts, List.of(), lens, 1, (at, sums) -> sums[0].add(at.area))[0];
    }

    /** |sum of area vectors| / sum of areas: round-off for a closed surface. */
    static double closure(Run run, List<Part> parts, Lens lens) {
        double[] s = SurfaceIntegral.over(run, parts, List.of(), lens, 4, (at, sums) -> {
            sums[0].add(at.nx);
            sums[1].add(at.ny);
            sums[2].add(at.nz);
            sums[3].add(at.area);
        });
        return s[3] == 0 ? 1 : Math.sqrt(s[0] * s[0] + s[1] * s[1] + s[2] * s[2]) / s[3];
    }

    private static Raw mean(Run run, List<Part> parts, String key, Lens lens, boolean divide) {
        Quantity quantity = lens.quantity(key);
        Field field = lens.onPart(run, parts.getFirst(), quantity);
        lens.requireNumber(quantity, field);
        Take take = quantity.take();
        boolean plain = field.components() == 1 && take == Take.ALL;
        double[] s = SurfaceIntegral.over(run, parts, List.of(key), lens, 2, (at, sums) -> {
            double v = plain ? at.value[0][0] : take.of(at.value[0], at.x, at.y, at.z, lens.axis());
            sums[0].add(v * at.area);
            sums[1].add(at.area);
        });
        Unit stored = Outcome.shown(quantity.unit(), lens.unit(field), "Quantity \"" + quantity.name() + "\"");
        if (divide) {
            return new Raw(s[0] / s[1], stored, Map.of());
        }
        return new Raw(s[0], stored.si().times(Unit.of("m2")), Map.of());
    }

    private static Raw flow(Run run, List<Part> parts, Measure.Flow flow, Lens lens) {
        Quantity quantity = lens.quantity(flow.vector());
        Field field = vector(run, parts, flow.vector(), lens);
        Unit factorUnit = Unit.of(flow.factorUnit());
        double factor = factorUnit.toSi(flow.factor());
        boolean swirl = flow.carried() == Measure.Carried.ANGULAR_MOMENTUM;
        Axis axis = flow.axis();
        double[] s = SurfaceIntegral.over(run, parts, List.of(quantity.id()), lens, 1, (at, sums) -> {
            double[] v = at.value[0];
            double through = v[0] * at.nx + v[1] * at.ny + v[2] * at.nz;
            double carried = swirl ? momentOf(axis, at.x, at.y, at.z, v[0], v[1], v[2]) : 1;
            sums[0].add(factor * through * carried);
        });
        Unit stored = lens.unit(field).si();
        Unit unit = factorUnit.si().times(stored).times(Unit.of("m2"));
        return new Raw(s[0], swirl ? unit.times(stored).times(Unit.of("m")) : unit, Map.of());
    }

    private static Field vector(Run run, List<Part> parts, String key, Lens lens) {
        Quantity quantity = lens.quantity(key);
        Field field = lens.onPart(run, parts.getFirst(), quantity);
        if (field.components() != 3) {
            throw new LaneException("Field \"" + field.name() + "\" has " + field.components()
                    + " component(s); a flow or a wall shear needs a vector of 3.");
        }
        return field;
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

    private static Raw force(Run run, List<Part> parts, Measure.Force force, Lens lens) {
        Point d = force.direction().unit();
        return loads(run, parts, force.loads(), lens, NEWTON, (at, f) -> d.x() * f[0] + d.y() * f[1] + d.z() * f[2]);
    }

    private static Raw moment(Run run, List<Part> parts, Measure.Moment moment, Lens lens) {
        Axis axis = moment.axis();
        return loads(
                run,
                parts,
                moment.loads(),
                lens,
                NEWTON_METRE,
                (at, f) -> momentOf(axis, at.x, at.y, at.z, f[0], f[1], f[2]));
    }

    @FunctionalInterface
    private interface Resolve {
        double of(SurfaceIntegral.At at, double[] force);
    }

    /** Force of the fluid on the wall is (p - ref) n with n out of the fluid, plus the shear that acts on the wall. */
    private static Raw loads(Run run, List<Part> parts, Measure.Loads loads, Lens lens, Unit unit, Resolve resolve) {
        boolean hasPressure = !loads.pressure().isBlank();
        boolean hasShear = !loads.shear().isBlank();
        if (!hasPressure && !hasShear) {
            throw new LaneException("A force needs a pressure, a wall shear or both; name at least one quantity.");
        }
        List<String> asked = new ArrayList<>();
        if (hasPressure) {
            asked.add(loads.pressure());
            Field p = lens.onPart(run, parts.getFirst(), lens.quantity(loads.pressure()));
            requirePascal(lens, p, "pressure");
            lens.requireNumber(lens.quantity(loads.pressure()), p);
        }
        if (hasShear) {
            asked.add(loads.shear());
            requirePascal(lens, vector(run, parts, loads.shear(), lens), "wall shear");
        }
        double onWall = loads.on() == Measure.On.WALL ? 1 : -1;
        double shearSign = loads.on() == loads.shearActsOn() ? 1 : -1;
        double[] s = SurfaceIntegral.over(run, parts, asked, lens, 2, (at, sums) -> {
            if (hasPressure) {
                double p = onWall * (at.value[0][0] - loads.reference());
                sums[0].add(resolve.of(at, new double[] {p * at.nx, p * at.ny, p * at.nz}));
            }
            if (hasShear) {
                double[] t = at.value[asked.size() - 1];
                double w = shearSign * at.area;
                sums[1].add(resolve.of(at, new double[] {w * t[0], w * t[1], w * t[2]}));
            }
        });
        var pieces = new LinkedHashMap<String, Double>();
        pieces.put("pressure", s[0]);
        pieces.put("viscous", s[1]);
        return new Raw(s[0] + s[1], unit, pieces);
    }

    private static void requirePascal(Lens lens, Field field, String what) {
        Unit unit = lens.unit(field);
        if (unit.known() && unit.dimension().equals(Unit.of("m2/s2").dimension())) {
            throw new LaneException("Field \"" + field.name() + "\" is a kinematic " + what + " in " + unit.symbol()
                    + "; multiply it by the density to get a force.");
        }
        if (!unit.comparable(PASCAL)) {
            throw new LaneException("Field \"" + field.name() + "\" is used as " + what + " but its unit is "
                    + unit.label() + "; state a unit of pressure at Quantities.");
        }
    }
}
