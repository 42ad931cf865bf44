package lane.station;

import java.util.List;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * Where coordinates are counted from and along which directions.
 *
 * @param id stable key within the study
 * @param parent key of the frame that its own numbers are in; blank for space
 * @param origin in the parent's coordinates, in metres
 * @param stands how its directions stand in the parent
 * @param cylindrical whether places in it are told by radius, angle and length along its z
 * @param note where its numbers come from
 */
public record Frame(
        String id, String name, String parent, Point origin, Attitude stands, boolean cylindrical, String note) {
    public Frame {
        parent = parent == null ? "" : parent;
        note = note == null ? "" : note;
        origin = origin == null ? new Point(0, 0, 0) : origin;
        stands = stands == null ? new Attitude.Turned(List.of(), false) : stands;
        if (name.isBlank()) {
            throw new LaneException("A frame needs a name.");
        }
    }

    /** A frame that stands as its parent does. */
    public Frame(String id, String name, String parent, Point origin) {
        this(id, name, parent, origin, new Attitude.Turned(List.of(), false), false, "");
    }

    /** How a frame's directions stand in its parent's. */
    public sealed interface Attitude {
        /**
         * Turned step by step.
         *
         * @param own whether each step turns about the frame's own directions as they stand then; else about the parent's
         */
        record Turned(List<Rotation> steps, boolean own) implements Attitude {
            public Turned {
                steps = steps == null ? List.of() : List.copyOf(steps);
            }
        }

        /**
         * By two directions.
         *
         * @param along its z
         * @param zero its x, made square to z; angles about z are counted from it
         */
        record Directed(Point along, Point zero) implements Attitude {
            /**
             * @param zero null for the direction nearest to the parent's x
             * @throws LaneException when one is zero or both are on one line
             */
            public Directed(Point along, @Nullable Point zero) {
                var axis = new Axis(new Point(0, 0, 0), along, zero);
                this.along = axis.direction();
                this.zero = axis.zero();
            }
        }
    }

    /**
     * A step.
     *
     * @param about x, y or z
     */
    public record Rotation(String about, double degrees) {
        public Rotation {
            if (!List.of("x", "y", "z").contains(about) || !Double.isFinite(degrees)) {
                throw new LaneException("A frame cannot be turned by " + degrees + " degrees about \"" + about
                        + "\"; give x, y or z and a number.");
            }
        }
    }

    /** This frame in its parent's coordinates. */
    public Axis axis() {
        return switch (stands) {
            case Attitude.Directed d -> new Axis(origin, d.along(), d.zero());
            case Attitude.Turned t -> {
                double[][] e = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
                for (Rotation r : t.steps()) {
                    int d = "xyz".indexOf(r.about());
                    double[] about =
                            t.own() ? e[d].clone() : new double[] {d == 0 ? 1 : 0, d == 1 ? 1 : 0, d == 2 ? 1 : 0};
                    var axis = new Axis(new Point(0, 0, 0), new Point(about[0], about[1], about[2]));
                    for (double[] v : e) {
                        axis.turn(Math.toRadians(r.degrees()), v, v);
                    }
                }
                yield new Axis(origin, new Point(e[2][0], e[2][1], e[2][2]), new Point(e[0][0], e[0][1], e[0][2]));
            }
        };
    }

    /** What the turns do, in words. */
    public String words() {
        return switch (stands) {
            case Attitude.Directed d -> "z along " + text(d.along()) + ", x towards " + text(d.zero());
            case Attitude.Turned t when t.steps().isEmpty() -> "not turned";
            case Attitude.Turned t -> {
                var out = new StringBuilder();
                for (Rotation r : t.steps()) {
                    out.append(out.isEmpty() ? "turned by " : ", then by ")
                            .append(number(r.degrees()))
                            .append("° about ")
                            .append(r.about());
                }
                yield out.append(t.own() ? ", each of the frame itself" : ", each of the frame it stands in")
                        .toString();
            }
        };
    }

    private static String text(Point p) {
        return "(" + number(p.x()) + ", " + number(p.y()) + ", " + number(p.z()) + ")";
    }

    private static String number(double v) {
        return new java.math.BigDecimal(v)
                .round(new java.math.MathContext(4))
                .stripTrailingZeros()
                .toPlainString();
    }

    /** A frame whose origin is the first point, whose x goes to the second, and in whose x-y plane the third lies. */
    public static Attitude through(Point a, Point b, Point c) {
        Point x = b.minus(a);
        Point z = x.cross(c.minus(a));
        if (!(z.norm() > 1e-12 * x.norm() * Math.max(x.norm(), c.minus(a).norm()))) {
            throw new LaneException("The three points lie on one line and give no frame; move one of them aside.");
        }
        return new Attitude.Directed(z, x);
    }

    public Frame named(String other) {
        return new Frame(id, other, parent, origin, stands, cylindrical, note);
    }

    public Frame at(Point other) {
        return new Frame(id, name, parent, other, stands, cylindrical, note);
    }

    public Frame standing(Attitude other) {
        return new Frame(id, name, parent, origin, other, cylindrical, note);
    }
}
