package lane.station;

import java.util.List;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Point;

/** Where to look: the same place in every lane. Lengths in metres, angles in degrees. */
public sealed interface Station {
    /** Stable key within the study. */
    String id();

    /** For people. */
    String name();

    /** The kind, for people. */
    String word();

    Station named(String other);

    /** The same elsewhere in the list. @param key of the new one */
    Station keyed(String key);

    /** The same station moved by a distance; null where moving means nothing. */
    default Station moved(Point by) {
        return null;
    }

    /** The station as it stands in space, its own numbers being those of a frame. */
    Station through(Axis frame);

    /** What its placement depends on: the station without its name and key. */
    default Station geometry() {
        return keyed("").named("");
    }

    /** Key of a quantity that its shape depends on; blank for none. */
    default String shapedBy() {
        return "";
    }

    /** A curve in space that is known by itself, without a run. */
    sealed interface Path extends Station {
        Sampling sampling();

        Abscissa abscissa();

        /** Metres. */
        double length();

        /** The corners between which it is straight, for an arc between which it bends by at most a degree. */
        List<Point> corners();

        Path sampled(Sampling other, Abscissa against);
    }

    /** A surface, or of a plane run a curve, that quantities are integrated over. */
    sealed interface Surface extends Station {}

    /**
     * A straight line from A to B.
     *
     * @param abscissa what profiles on it are drawn against
     */
    record Line(String id, String name, Point a, Point b, Sampling sampling, Abscissa abscissa) implements Path {
        public Line {
            if (a.equals(b)) {
                throw new LaneException("Line \"" + name + "\" has both ends at one place; move one of them.");
            }
        }

        @Override
        public double length() {
            return b.minus(a).norm();
        }

        @Override
        public Station through(Axis frame) {
            return new Line(id, name, frame.out(a), frame.out(b), sampling, abscissa.through(frame));
        }

        @Override
        public String word() {
            return "line";
        }

        @Override
        public List<Point> corners() {
            return List.of(a, b);
        }

        @Override
        public Line named(String other) {
            return new Line(id, other, a, b, sampling, abscissa);
        }

        @Override
        public Line keyed(String key) {
            return new Line(key, name, a, b, sampling, abscissa);
        }

        @Override
        public Line moved(Point by) {
            return between(a.plus(by), b.plus(by));
        }

        @Override
        public Line sampled(Sampling other, Abscissa against) {
            return new Line(id, name, a, b, other, against);
        }

        public Line between(Point newA, Point newB) {
            return new Line(id, name, newA, newB, sampling, abscissa);
        }
    }

    /**
     * A part of a circle about an axis.
     *
     * @param along place of the circle on the axis
     * @param from and {@code to}: angles in degrees
     */
    record Arc(
            String id,
            String name,
            Axis axis,
            double radius,
            double along,
            double from,
            double to,
            Sampling sampling,
            Abscissa abscissa)
            implements Path {
        public Arc {
            if (!(radius > 0) || !(Math.abs(to - from) > 0) || Math.abs(to - from) > 360) {
                throw new LaneException("Arc \"" + name + "\" needs a positive radius and two angles that are at most"
                        + " 360 degrees apart; it has radius " + radius + " m, from " + from + " to " + to + ".");
            }
        }

        @Override
        public Station through(Axis frame) {
            return new Arc(id, name, frame.out(axis), radius, along, from, to, sampling, abscissa.through(frame));
        }

        @Override
        public String word() {
            return "arc";
        }

        @Override
        public double length() {
            return Math.toRadians(Math.abs(to - from)) * radius;
        }

        @Override
        public List<Point> corners() {
            int n = (int) Math.ceil(Math.abs(to - from));
            return java.util.stream.IntStream.rangeClosed(0, n)
                    .mapToObj(i -> axis.place(radius, Math.toRadians(from + (to - from) * i / n), along))
                    .toList();
        }

        @Override
        public Arc named(String other) {
            return new Arc(id, other, axis, radius, along, from, to, sampling, abscissa);
        }

        @Override
        public Arc keyed(String key) {
            return new Arc(key, name, axis, radius, along, from, to, sampling, abscissa);
        }

        @Override
        public Arc moved(Point by) {
            return new Arc(id, name, axis.moved(by), radius, along, from, to, sampling, abscissa);
        }

        @Override
        public Arc sampled(Sampling other, Abscissa against) {
            return new Arc(id, name, axis, radius, along, from, to, other, against);
        }
    }

    /** A chain of straight pieces. */
    record Polyline(String id, String name, List<Point> points, Sampling sampling, Abscissa abscissa) implements Path {
        public Polyline {
            points = List.copyOf(points);
            if (points.size() < 2) {
                throw new LaneException(
                        "Polyline \"" + name + "\" has " + points.size() + " point(s); give at least 2.");
            }
            for (int i = 1; i < points.size(); i++) {
                if (points.get(i).equals(points.get(i - 1))) {
                    throw new LaneException("Points " + i + " and " + (i + 1) + " of polyline \"" + name
                            + "\" are at one place; remove one of them.");
                }
            }
        }

        @Override
        public Station through(Axis frame) {
            return new Polyline(id, name, points.stream().map(frame::out).toList(), sampling, abscissa.through(frame));
        }

        @Override
        public String word() {
            return "polyline";
        }

        @Override
        public double length() {
            double sum = 0;
            for (int i = 1; i < points.size(); i++) {
                sum += points.get(i).minus(points.get(i - 1)).norm();
            }
            return sum;
        }

        @Override
        public List<Point> corners() {
            return points;
        }

        @Override
        public Polyline named(String other) {
            return new Polyline(id, other, points, sampling, abscissa);
        }

        @Override
        public Polyline keyed(String key) {
            return new Polyline(key, name, points, sampling, abscissa);
        }

        @Override
        public Polyline moved(Point by) {
            return new Polyline(id, name, points.stream().map(p -> p.plus(by)).toList(), sampling, abscissa);
        }

        @Override
        public Polyline sampled(Sampling other, Abscissa against) {
            return new Polyline(id, name, points, other, against);
        }
    }

    /** One point or many. */
    record Points(String id, String name, List<Point> points) implements Station {
        public Points {
            points = List.copyOf(points);
            if (points.isEmpty()) {
                throw new LaneException("Station \"" + name + "\" has no point; give at least one.");
            }
        }

        @Override
        public Station through(Axis frame) {
            return new Points(id, name, points.stream().map(frame::out).toList());
        }

        @Override
        public String word() {
            return points.size() == 1 ? "point" : "points";
        }

        @Override
        public Points named(String other) {
            return new Points(id, other, points);
        }

        @Override
        public Points keyed(String key) {
            return new Points(key, name, points);
        }

        @Override
        public Points moved(Point by) {
            return new Points(id, name, points.stream().map(p -> p.plus(by)).toList());
        }
    }

    /** A boundary part that each run has under this name, or what faces a direction or lies in a box of several. */
    record OnPart(String id, String name, String part, List<String> more, Facing facing, Box box) implements Surface {
        public OnPart {
            more = more == null ? List.of() : List.copyOf(more);
        }

        public OnPart(String id, String name, String part) {
            this(id, name, part, List.of(), null, null);
        }

        /** All parts that are taken together. */
        public List<String> parts() {
            return java.util.stream.Stream.concat(java.util.stream.Stream.of(part), more.stream())
                    .distinct()
                    .toList();
        }

        @Override
        public Station through(Axis frame) {
            return new OnPart(
                    id,
                    name,
                    part,
                    more,
                    facing == null ? null : new Facing(frame.outDirection(facing.direction()), facing.within()),
                    box == null ? null : box.through(frame));
        }

        @Override
        public String word() {
            return "part";
        }

        @Override
        public OnPart named(String other) {
            return new OnPart(id, other, part, more, facing, box);
        }

        @Override
        public OnPart keyed(String key) {
            return new OnPart(key, name, part, more, facing, box);
        }
    }

    /** Faces whose outward normal is within an angle of a direction. */
    record Facing(Point direction, double within) {
        public Facing {
            direction = direction.unit();
            if (!(within > 0) || within > 180) {
                throw new LaneException("Faces within " + within + " degrees of a direction are none; give 0 to 180.");
            }
        }
    }

    /** Least and greatest corner. @param in the frame whose directions its edges have; null for those of space */
    record Box(Point least, Point greatest, Axis in) {
        public Box {
            if (least.x() >= greatest.x() || least.y() >= greatest.y() || least.z() >= greatest.z()) {
                throw new LaneException(
                        "A box from " + least + " to " + greatest + " is empty; give its least corner first.");
            }
        }

        public Box(Point least, Point greatest) {
            this(least, greatest, null);
        }

        Box through(Axis frame) {
            return new Box(least, greatest, in == null ? frame : frame.out(in));
        }

        Box moved(Point by) {
            return in == null ? new Box(least.plus(by), greatest.plus(by)) : new Box(least, greatest, in.moved(by));
        }

        /** Least and greatest x, y and z in its frame. */
        public double[] bounds() {
            return new double[] {least.x(), greatest.x(), least.y(), greatest.y(), least.z(), greatest.z()};
        }

        /** The frame that its bounds are in. */
        public Axis frame() {
            return in == null ? Axis.Z : in;
        }

        public boolean holds(double x, double y, double z) {
            if (in != null) {
                Point own = in.in(new Point(x, y, z));
                return inside(own.x(), own.y(), own.z());
            }
            return inside(x, y, z);
        }

        private boolean inside(double x, double y, double z) {
            return x >= least.x()
                    && x <= greatest.x()
                    && y >= least.y()
                    && y <= greatest.y()
                    && z >= least.z()
                    && z <= greatest.z();
        }
    }

    /**
     * A plane section; it looks along the normal.
     *
     * @param box what it is limited to; null for none
     * @param piece only the connected piece nearest to this place; null for all
     */
    record Section(String id, String name, Point point, Point normal, Box box, Point piece) implements Surface {
        public Section {
            normal = normal.unit();
        }

        @Override
        public Station through(Axis frame) {
            return new Section(
                    id,
                    name,
                    frame.out(point),
                    frame.outDirection(normal),
                    box == null ? null : box.through(frame),
                    piece == null ? null : frame.out(piece));
        }

        @Override
        public String word() {
            return "section";
        }

        @Override
        public Section named(String other) {
            return new Section(id, other, point, normal, box, piece);
        }

        @Override
        public Section keyed(String key) {
            return new Section(key, name, point, normal, box, piece);
        }

        @Override
        public Section moved(Point by) {
            return at(point.plus(by), normal);
        }

        /**
         * The same through three points; it looks to where they turn counterclockwise.
         *
         * @throws LaneException when the three lie on one line
         */
        public Section through(Point a, Point b, Point c) {
            Point n = b.minus(a).cross(c.minus(a));
            double reach = Math.max(b.minus(a).norm(), c.minus(a).norm());
            if (!(n.norm() > 1e-12 * reach * reach)) {
                throw new LaneException("The three points of section \"" + name
                        + "\" lie on one line and give no plane; move one of them aside.");
            }
            return at(a, n);
        }

        public Section at(Point newPoint, Point newNormal) {
            return new Section(id, name, newPoint, newNormal, box, piece);
        }
    }

    /** Where a quantity has these values; it looks to where the quantity is greater. */
    record Isosurface(String id, String name, String quantity, List<Double> values) implements Surface {
        public Isosurface {
            values = List.copyOf(values);
            if (values.isEmpty()) {
                throw new LaneException("Isosurface \"" + name + "\" has no value; give at least one.");
            }
        }

        @Override
        public Station through(Axis frame) {
            return this;
        }

        @Override
        public String word() {
            return "isosurface";
        }

        @Override
        public String shapedBy() {
            return quantity;
        }

        @Override
        public Isosurface named(String other) {
            return new Isosurface(id, other, quantity, values);
        }

        @Override
        public Isosurface keyed(String key) {
            return new Isosurface(key, name, quantity, values);
        }
    }

    /**
     * The surface of constant radius about an axis; it looks away from the axis.
     *
     * @param from and {@code to}: ends along the axis; null for all
     * @param seam angle in degrees at which it is cut to be laid flat
     */
    record Shell(String id, String name, Axis axis, double radius, Double from, Double to, double seam)
            implements Surface {
        public Shell {
            if (!(radius > 0)) {
                throw new LaneException("Shell \"" + name + "\" has radius " + radius + " m; give a positive one.");
            }
            if (from != null && to != null && !(from < to)) {
                throw new LaneException("Shell \"" + name + "\" ends at " + to + " m before it begins at " + from
                        + " m; give the lesser length along the axis first.");
            }
        }

        /** The place on the shell that is so far from the seam, as an arc, and so far along the axis, both in metres. */
        public Point inSpace(double arc, double along) {
            return axis.place(radius, arc / radius + Math.toRadians(seam), along);
        }

        @Override
        public Station through(Axis frame) {
            return new Shell(id, name, frame.out(axis), radius, from, to, seam);
        }

        @Override
        public String word() {
            return "shell";
        }

        @Override
        public Shell named(String other) {
            return new Shell(id, other, axis, radius, from, to, seam);
        }

        @Override
        public Shell keyed(String key) {
            return new Shell(key, name, axis, radius, from, to, seam);
        }

        @Override
        public Shell moved(Point by) {
            return new Shell(id, name, axis.moved(by), radius, from, to, seam);
        }
    }

    /**
     * A surface from a file.
     *
     * @param file beside the study
     * @param length unit of the file's coordinates
     * @param by how far it is moved
     * @param turned about x, then y, then z through the file's origin, before it is moved, in degrees
     * @param sampled whether values are taken at its own nodes; else it is cut where it passes from cell to cell
     * @param in the frame that all this is in; null for none
     */
    record Sheet(String id, String name, String file, String length, Point by, Point turned, boolean sampled, Axis in)
            implements Surface {
        public Sheet {
            by = by == null ? new Point(0, 0, 0) : by;
            turned = turned == null ? new Point(0, 0, 0) : turned;
            if (!lane.unit.Unit.of(length).comparable(lane.unit.Unit.of("m"))) {
                throw new LaneException("Sheet \"" + name + "\" cannot have coordinates in \"" + length
                        + "\"; give a unit of length, such as mm.");
            }
        }

        public Sheet(String id, String name, String file, String length, Point by, Point turned, boolean sampled) {
            this(id, name, file, length, by, turned, sampled, null);
        }

        @Override
        public Station through(Axis frame) {
            return new Sheet(id, name, file, length, by, turned, sampled, in == null ? frame : frame.out(in));
        }

        @Override
        public String word() {
            return "sheet";
        }

        @Override
        public Sheet named(String other) {
            return new Sheet(id, other, file, length, by, turned, sampled, in);
        }

        @Override
        public Sheet keyed(String key) {
            return new Sheet(key, name, file, length, by, turned, sampled, in);
        }

        @Override
        public Sheet moved(Point further) {
            return new Sheet(id, name, file, length, by.plus(further), turned, sampled, in);
        }
    }

    /** What a profile over a cut curve is drawn against. */
    enum Extent {
        /** Length along the curve. */
        LENGTH,
        /** Coordinate along a direction, in metres. */
        COORDINATE,
        /** The same from 0 to 1 over the piece's own extent. */
        SHARE
    }

    /**
     * Where a plane meets boundary parts.
     *
     * @param parts names of boundary parts; empty for all
     * @param against what is drawn along the abscissa
     * @param direction of the coordinate, and from which a closed curve starts
     * @param branch number of the piece, from 1; 0 for all, one after the other
     * @param offsets of the planes along the normal, in metres, where there are several; empty for the one at the point
     */
    record CutCurve(
            String id,
            String name,
            Point point,
            Point normal,
            List<String> parts,
            Extent against,
            Point direction,
            int branch,
            List<Double> offsets)
            implements Station {
        public CutCurve {
            offsets = offsets == null ? List.of() : List.copyOf(offsets);
            normal = normal.unit();
            against = against == null ? Extent.LENGTH : against;
            parts = parts == null ? List.of() : List.copyOf(parts);
            direction = direction.unit();
        }

        public CutCurve(
                String id,
                String name,
                Point point,
                Point normal,
                List<String> parts,
                Extent against,
                Point direction,
                int branch) {
            this(id, name, point, normal, parts, against, direction, branch, List.of());
        }

        /** Points of the planes, in order. */
        public List<Point> planes() {
            return offsets.isEmpty()
                    ? List.of(point)
                    : offsets.stream().map(o -> point.plus(normal.times(o))).toList();
        }

        @Override
        public Station through(Axis frame) {
            return new CutCurve(
                    id,
                    name,
                    frame.out(point),
                    frame.outDirection(normal),
                    parts,
                    against,
                    frame.outDirection(direction),
                    branch,
                    offsets);
        }

        @Override
        public String word() {
            return "cut curve";
        }

        @Override
        public CutCurve named(String other) {
            return new CutCurve(id, other, point, normal, parts, against, direction, branch, offsets);
        }

        @Override
        public CutCurve keyed(String key) {
            return new CutCurve(key, name, point, normal, parts, against, direction, branch, offsets);
        }

        @Override
        public CutCurve moved(Point by) {
            return new CutCurve(id, name, point.plus(by), normal, parts, against, direction, branch, offsets);
        }
    }

    /**
     * Sections square to an axis, or rings about it, at even places along it; each gives one number.
     *
     * @param ring radius of the rings; 0 for whole sections
     */
    record Sweep(String id, String name, Axis axis, double from, double to, int count, double ring) implements Station {
        public Sweep {
            if (count < 2 || count > 10_000 || !(from != to) || !(ring >= 0)) {
                throw new LaneException("Sweep \"" + name + "\" needs 2 to 10 000 places between two different lengths"
                        + " along its axis, and a ring radius that is not negative.");
            }
        }

        public double place(int i) {
            return from + (to - from) * i / (count - 1);
        }

        @Override
        public Station through(Axis frame) {
            return new Sweep(id, name, frame.out(axis), from, to, count, ring);
        }

        @Override
        public String word() {
            return ring > 0 ? "sweep of rings" : "sweep of sections";
        }

        @Override
        public Sweep named(String other) {
            return new Sweep(id, other, axis, from, to, count, ring);
        }

        @Override
        public Sweep keyed(String key) {
            return new Sweep(key, name, axis, from, to, count, ring);
        }

        @Override
        public Sweep moved(Point by) {
            return new Sweep(id, name, axis.moved(by), from, to, count, ring);
        }
    }

    /** Cells by the place of their middle, or by a value there. */
    record Region(String id, String name, Within within) implements Station {
        @Override
        public Station through(Axis frame) {
            return new Region(id, name, within.through(frame));
        }

        @Override
        public String word() {
            return "region";
        }

        @Override
        public String shapedBy() {
            return within instanceof Within.Above a ? a.quantity() : "";
        }

        @Override
        public Region named(String other) {
            return new Region(id, other, within);
        }

        @Override
        public Region keyed(String key) {
            return new Region(key, name, within);
        }

        @Override
        public Region moved(Point by) {
            return new Region(id, name, within.moved(by));
        }
    }

    /**
     * The surface around the cells of a region, looking out of it: faces to cells outside it, and of the run's boundary.
     *
     * @param region key of the region
     * @param within its cells, filled in when stations are placed; null before
     */
    record Enclosing(String id, String name, String region, Within within) implements Surface {
        public Enclosing(String id, String name, String region) {
            this(id, name, region, null);
        }

        @Override
        public Station through(Axis frame) {
            return this;
        }

        @Override
        public String word() {
            return "enclosing surface";
        }

        @Override
        public String shapedBy() {
            return within instanceof Within.Above a ? a.quantity() : "";
        }

        @Override
        public Enclosing named(String other) {
            return new Enclosing(id, other, region, within);
        }

        @Override
        public Enclosing keyed(String key) {
            return new Enclosing(key, name, region, within);
        }
    }
}
