package lane.station;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.base.Fault;
import lane.base.LaneException;
import lane.formula.Bare;
import lane.formula.Compiler;
import lane.formula.FormulaException;
import lane.formula.Meaning;
import lane.formula.Program;
import lane.formula.Spot;
import lane.mesh.Axis;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * What a profile is drawn against.
 *
 * @param kind what is counted
 * @param formula of {@code s} (the length so far), {@code length} and coordinates, for that kind; else blank
 * @param in the frame that coordinates, radius and angle are those of; null for space and the study's axis
 * @param told unit that it is told in, as deg for an angle; blank for the SI unit, and for a formula
 */
public record Abscissa(Kind kind, String formula, @Nullable Axis in, String told) {
    private static final Pattern WORD = Pattern.compile("(\\w+)(?:\\s*\\[([^\\]]+)])?");

    /** What is counted. */
    public enum Kind {
        ARC("distance along the line", "m"),
        FRACTION("fraction of the line", "1"),
        X("x", "m"),
        Y("y", "m"),
        Z("z", "m"),
        RADIUS("radius", "m"),
        AXIAL("length along the axis", "m"),
        ANGLE("angle about the axis", "rad"),
        FORMULA("formula", "1");

        private final String word;
        private final String unit;

        Kind(String word, String unit) {
            this.word = word;
            this.unit = unit;
        }

        public String word() {
            return word;
        }
    }

    public static final Abscissa ARC = new Abscissa(Kind.ARC);
    public static final Abscissa FRACTION = new Abscissa(Kind.FRACTION);
    public static final Abscissa X = new Abscissa(Kind.X);
    public static final Abscissa Y = new Abscissa(Kind.Y);
    public static final Abscissa Z = new Abscissa(Kind.Z);
    public static final Abscissa RADIUS = new Abscissa(Kind.RADIUS);
    public static final Abscissa AXIAL = new Abscissa(Kind.AXIAL);
    public static final Abscissa ANGLE = new Abscissa(Kind.ANGLE);

    /** @throws LaneException when the formula cannot be used */
    public Abscissa {
        if (kind == null) {
            throw new LaneException("An abscissa is a text, such as \"arc\" or \"= radius\".");
        }
        formula = formula == null ? "" : formula.strip();
        told = told == null ? "" : told.strip();
        if (kind == Kind.FORMULA) {
            compiled(formula, 1, Axis.Z);
        } else if (!told.isEmpty() && !Unit.of(told).comparable(Unit.of(kind.unit))) {
            throw new LaneException(
                    Fault.UNIT,
                    "An abscissa that is " + kind.word + " is not told in \"" + told + "\"; use "
                            + (kind == Kind.ANGLE ? "deg or rad" : kind == Kind.FRACTION ? "%" : "a unit of length")
                            + ".");
        }
    }

    private Abscissa(Kind kind) {
        this(kind, "", null, "");
    }

    /** An abscissa by formula, such as {@code radius / 30 "mm"}. */
    public static Abscissa of(String formula) {
        return new Abscissa(Kind.FORMULA, formula, null, "");
    }

    /** From a kind's name in small letters, with a unit in brackets if it is to be told in that, or a formula after an equals sign. */
    public static Abscissa parse(String text) {
        if (text.strip().startsWith("=")) {
            return of(text.strip().substring(1));
        }
        Matcher parts = WORD.matcher(text.strip());
        for (Kind k : Kind.values()) {
            if (k != Kind.FORMULA && parts.matches() && k.name().equalsIgnoreCase(parts.group(1))) {
                return new Abscissa(k, "", null, parts.group(2) == null ? "" : parts.group(2));
            }
        }
        throw new LaneException(
                "An abscissa \"" + text
                        + "\" is not known; choose arc, fraction, x, y, z, radius, axial, angle or angle [deg], or a formula after =.");
    }

    /** What {@link #parse} reads. */
    public String text() {
        return kind == Kind.FORMULA
                ? "= " + formula
                : kind.name().toLowerCase(java.util.Locale.ROOT) + (told.isEmpty() ? "" : " [" + told + "]");
    }

    Abscissa through(Axis frame) {
        return new Abscissa(kind, formula, in == null ? frame : frame.out(in), told);
    }

    /** The same of whatever frame the path stands in. */
    public Abscissa plain() {
        return in == null ? this : new Abscissa(kind, formula, null, told);
    }

    public String word() {
        return kind == Kind.FORMULA ? formula : kind.word();
    }

    /** The unit that it is told in; its values are in SI units. */
    public Unit unit() {
        if (kind != Kind.FORMULA) {
            return Unit.of(told.isEmpty() ? kind.unit : told);
        }
        Unit unit = compiled(formula, 1, Axis.Z).type().unit();
        return unit.factor() == 1 && unit.offset() == 0 ? unit : unit.si();
    }

    private static Compiler.Compiled compiled(String formula, double length, Axis axis) {
        try {
            Compiler.Compiled made = Compiler.compile(formula, new Bare() {
                @Override
                public @Nullable Meaning meaning(String name) {
                    return switch (name) {
                        case "s" -> new Meaning.Stored("s", 1, Unit.of("m"));
                        case "length" ->
                            new Meaning.Known(new double[] {length}, lane.formula.Type.of(1, Unit.of("m")));
                        default -> null;
                    };
                }

                @Override
                public java.util.List<String> names() {
                    return java.util.List.of("s", "length", "x", "y", "z", "radius", "angle", "axial");
                }

                @Override
                public @Nullable Axis frame(String name) {
                    return name.isEmpty() ? axis : null;
                }
            });
            if (!made.type().number()) {
                throw new LaneException(
                        "The abscissa \"" + formula + "\" is " + made.type().word() + " and no number.");
            }
            boolean known = made.program().leaves().stream()
                    .allMatch(l -> l.key() == Spot.PLACE || l.key().equals("s"));
            if (!known) {
                throw new LaneException("The abscissa \"" + formula
                        + "\" needs what is not known of a line; use s, length, x, y, z, radius, angle and axial.");
            }
            return made;
        } catch (FormulaException e) {
            throw new LaneException("The abscissa \"" + formula + "\" cannot be used: " + e.getMessage(), e);
        }
    }

    /**
     * The abscissas of places in order; an angle goes on over half a turn.
     *
     * @param arc metres along a path of the given length
     * @param xyz three to a place
     * @param axis the study's
     */
    public double[] of(double[] arc, double length, double[] xyz, Axis axis) {
        double[] out = new double[arc.length];
        Axis about = in == null ? axis : in;
        if (kind == Kind.FORMULA) {
            byFormula(arc, length, xyz, about, out);
            return out;
        }
        for (int i = 0; i < out.length; i++) {
            double x = xyz[3 * i];
            double y = xyz[3 * i + 1];
            double z = xyz[3 * i + 2];
            out[i] = switch (kind) {
                case ARC, FORMULA -> arc[i];
                case FRACTION -> length == 0 ? 0 : arc[i] / length;
                case X -> in == null ? x : in.in(new lane.mesh.Point(x, y, z)).x();
                case Y -> in == null ? y : in.in(new lane.mesh.Point(x, y, z)).y();
                case Z -> in == null ? z : in.in(new lane.mesh.Point(x, y, z)).z();
                case RADIUS -> about.radius(x, y, z);
                case AXIAL -> about.along(x, y, z);
                case ANGLE -> {
                    double a = about.angle(x, y, z);
                    yield i == 0 ? a : a + 2 * Math.PI * Math.round((out[i - 1] - a) / (2 * Math.PI));
                }
            };
        }
        return out;
    }

    private void byFormula(double[] arc, double length, double[] xyz, Axis axis, double[] out) {
        // Coordinates in a frame are those of its own directions.
        double[] own = xyz;
        if (in != null) {
            own = new double[xyz.length];
            for (int i = 0; i < out.length; i++) {
                lane.mesh.Point p = in.in(new lane.mesh.Point(xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]));
                own[3 * i] = p.x();
                own[3 * i + 1] = p.y();
                own[3 * i + 2] = p.z();
            }
        }
        Program program = compiled(formula, length, in == null ? axis : Axis.Z).program();
        Program.Bench bench = program.bench(1);
        for (int i = 0; i < out.length; i++) {
            for (int k = 0; k < program.leaves().size(); k++) {
                Program.Leaf leaf = program.leaves().get(k);
                bench.leaf(k)[0] = leaf.key().equals("s") ? arc[i] : own[3 * i + leaf.component()];
            }
            bench.run(1);
            out[i] = bench.result(0)[0];
        }
    }
}
