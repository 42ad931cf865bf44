package lane.reading;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import lane.base.LaneException;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.evaluation.SurfaceIntegral;
import lane.field.Gather;
import lane.measure.Force;
import lane.measure.Loads;
import lane.measure.Measure;
import lane.measure.Moment;
import lane.mesh.Axis;
import lane.mesh.Finding;
import lane.mesh.Point;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * All of a load in one reading: the force along the stream, across it and sideways; the moment about a point, along the same three
 * directions; the centre of pressure; and coefficients where reference values are stated.
 *
 * @param stations keys of surfaces, taken together
 * @param about point that moments are taken about
 * @param along direction of the stream, such as that of drag
 * @param across direction of lift; what of it lies along the stream does not count. The third direction is along x across
 * @param reference what coefficients refer to; null for none
 * @param number which of the numbers is the answer
 * @param frame key of the frame that the point, the directions and the centre are in; blank for space
 * @param placed that frame in space, filled in before it is read; null before, and for space
 */
public record LoadOf(
        List<String> stations,
        Loads loads,
        Point about,
        Point along,
        Point across,
        @Nullable Reference reference,
        Which number,
        String frame,
        @Nullable Axis placed)
        implements Ask {
    private static final Method LOAD = new Method("force and moment along three directions", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "load";
        }

        @Override
        public Class<LoadOf> type() {
            return LoadOf.class;
        }
    }

    /**
     * What coefficients refer to: a force over {@code density speed^2 / 2 area}, a moment over that times {@code length}.
     *
     * @param density in kg/m3
     * @param speed in m/s
     * @param area in m2
     * @param length in m
     */
    public record Reference(double density, double speed, double area, double length) {
        public Reference {
            if (!(density > 0 && speed > 0 && area > 0 && length > 0)) {
                throw new LaneException(
                        "Coefficients need a density, a speed, an area and a length that are greater than zero.");
            }
        }

        /** In newton. */
        public double force() {
            return 0.5 * density * speed * speed * area;
        }
    }

    /** One of the numbers. */
    public enum Which {
        ALONG,
        ACROSS,
        SIDE,
        MAGNITUDE,
        MOMENT_ALONG,
        MOMENT_ACROSS,
        MOMENT_SIDE,
        CENTRE_X,
        CENTRE_Y,
        CENTRE_Z,
        COEFFICIENT_ALONG,
        COEFFICIENT_ACROSS,
        COEFFICIENT_SIDE,
        COEFFICIENT_MOMENT;

        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }

        boolean coefficient() {
            return ordinal() >= COEFFICIENT_ALONG.ordinal();
        }
    }

    public LoadOf {
        stations = stations == null ? List.of() : List.copyOf(stations);
        about = about == null ? new Point(0, 0, 0) : about;
        number = number == null ? Which.ALONG : number;
        frame = frame == null ? "" : frame;
        if (along != null && across != null) {
            Point sideways = along.cross(across);
            if (!(sideways.norm() > 1e-9 * along.norm() * across.norm())) {
                throw new LaneException(
                        "The directions along and across the stream lie in one line; give two different ones.");
            }
        }
        if (number.coefficient() && reference == null) {
            throw new LaneException("A coefficient needs the values that it refers to; state density, speed, area and"
                    + " length, or choose another number.");
        }
    }

    public LoadOf(
            List<String> stations,
            Loads loads,
            Point about,
            Point along,
            Point across,
            @Nullable Reference reference,
            Which number) {
        this(stations, loads, about, along, across, reference, number, "", null);
    }

    @Override
    public LoadOf placed(Axis axis) {
        return new LoadOf(stations, loads, about, along, across, reference, number, frame, axis);
    }

    /** That of the force. */
    @Override
    public Optional<Point> arrow(Outcome made) {
        if (!(made instanceof Several all) || !frame.isBlank() && placed == null) {
            return Optional.empty();
        }
        Point force = new Point(0, 0, 0);
        for (int d = 0; d < 3; d++) {
            double f = all.of(Which.values()[d].word()).map(Estimate::value).orElse(0.0);
            force = force.plus(directions().get(d).times(f));
        }
        return force.norm() > 0 ? Optional.of(axes().outDirection(force.unit())) : Optional.empty();
    }

    /** As it acts on the other. */
    @Override
    public Optional<Ask> flipped() {
        return Optional.of(
                new LoadOf(stations, loads.flipped(), about, along, across, reference, number, frame, placed));
    }

    /** The frame of its numbers. */
    private Axis axes() {
        return frame.isBlank() ? Axis.Z : Frames.known(frame, placed);
    }

    @Override
    public Form form() {
        return Form.NUMBER;
    }

    @Override
    public Set<String> quantities() {
        return new Force(loads, along).quantities();
    }

    /** Those that there are. */
    private List<Which> all() {
        List<Which> out = new ArrayList<>();
        for (Which w : Which.values()) {
            if (reference != null || !w.coefficient()) {
                out.add(w);
            }
        }
        return out;
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        all().forEach(w -> out.add(name + " " + w.word()));
        return out;
    }

    /** The three directions, each of unit length and across the others. */
    List<Point> directions() {
        Point a = along.unit();
        Point b = across.minus(a.times(across.dot(a))).unit();
        return List.of(a, b, a.cross(b));
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        List<Point> own = directions();
        Axis axes = axes();
        List<Point> to = own.stream().map(axes::outDirection).toList();
        Point at = axes.out(about);
        List<Supplier<Outcome>> asked = new ArrayList<>();
        for (int d = 0; d < 6; d++) {
            Measure one = d < 3 ? new Force(loads, to.get(d)) : new Moment(loads, new Axis(at, to.get(d - 3)));
            asked.add(() -> new TallyOf(stations, one).read(reading.in(""), on));
        }
        var loaded = new double[1];
        List<Outcome> all = new ArrayList<>();
        Gather gather = on.run().gather();
        gather.each(List.of(() -> all.addAll(gather.all(asked)), () -> loaded[0] = loads.size(surface(reading, on))));
        List<Tally> parts = new ArrayList<>();
        for (Outcome made : all) {
            if (!(made instanceof Tally t)) {
                return made;
            }
            parts.add(t);
        }
        double[] f = new double[3];
        double[] m = new double[3];
        Point force = new Point(0, 0, 0);
        Point moment = force;
        for (int d = 0; d < 3; d++) {
            f[d] = parts.get(d).value();
            m[d] = parts.get(3 + d).value();
            force = force.plus(to.get(d).times(f[d]));
            moment = moment.plus(to.get(d).times(m[d]));
        }
        double size = force.norm();
        boolean line = size > 1e-10 * loaded[0];
        // The point of the resultant's line that is nearest to where moments are taken about.
        Point centre = axes.in(line ? at.plus(force.cross(moment).times(1 / (size * size))) : at);
        double rest = line ? force.dot(moment) / size : Double.NaN;
        List<Scalar> named = new ArrayList<>();
        int answer = 0;
        for (Which w : all()) {
            double value =
                    switch (w) {
                        case ALONG, ACROSS, SIDE -> f[w.ordinal()];
                        case MAGNITUDE -> size;
                        case MOMENT_ALONG, MOMENT_ACROSS, MOMENT_SIDE -> m[w.ordinal() - Which.MOMENT_ALONG.ordinal()];
                        case CENTRE_X -> line ? centre.x() : Double.NaN;
                        case CENTRE_Y -> line ? centre.y() : Double.NaN;
                        case CENTRE_Z -> line ? centre.z() : Double.NaN;
                        case COEFFICIENT_ALONG -> f[0] / scale();
                        case COEFFICIENT_ACROSS -> f[1] / scale();
                        case COEFFICIENT_SIDE -> f[2] / scale();
                        case COEFFICIENT_MOMENT -> m[2] / (scale() * length());
                    };
            Unit natural =
                    switch (w) {
                        case ALONG, ACROSS, SIDE, MAGNITUDE -> Unit.of("N");
                        case MOMENT_ALONG, MOMENT_ACROSS, MOMENT_SIDE -> Unit.of("N m");
                        case CENTRE_X, CENTRE_Y, CENTRE_Z -> Unit.of("m");
                        default -> Unit.ONE;
                    };
            Unit shown = w == number
                    ? Outcome.shown(reading.unit(), natural, "Reading \"" + reading.name() + "\"")
                    : natural;
            answer = w == number ? named.size() : answer;
            Uncertainty doubt =
                    switch (w) {
                        case ALONG, ACROSS, SIDE -> doubt(parts, w.ordinal());
                        case MOMENT_ALONG, MOMENT_ACROSS, MOMENT_SIDE -> doubt(parts, w.ordinal() - 1);
                        case COEFFICIENT_ALONG, COEFFICIENT_ACROSS, COEFFICIENT_SIDE ->
                            doubt(parts, w.ordinal() - Which.COEFFICIENT_ALONG.ordinal())
                                    .times(1 / scale());
                        case COEFFICIENT_MOMENT -> doubt(parts, 5).times(1 / (scale() * length()));
                        case MAGNITUDE, CENTRE_X, CENTRE_Y, CENTRE_Z -> Uncertainty.NONE;
                    };
            named.add(new Scalar(w.word(), new Estimate(value, shown, doubt), remark(w, own, rest)));
        }
        List<Scalar> pieces = new ArrayList<>();
        for (int d = 0; d < 6; d++) {
            String word = Which.values()[d < 3 ? d : d + 1].word();
            Unit unit = Unit.of(d < 3 ? "N" : "N m");
            parts.get(d)
                    .pieces()
                    .forEach((piece, v) ->
                            pieces.add(new Scalar(word + ", " + piece + " part", new Estimate(v, unit), "")));
        }
        Provenance trail = parts.getFirst().trail();
        for (Tally t : parts) {
            trail = trail.with(t.trail());
        }
        Map<String, Object> settings = new LinkedHashMap<>();
        settings.put("number", number.word());
        settings.put("definition", this);
        return new Several(
                named,
                answer,
                pieces,
                parts.getFirst().note(),
                parts.getFirst().coverage(),
                trail.then("reading", LOAD, "{number}", settings));
    }

    private static Uncertainty doubt(List<Tally> parts, int of) {
        return parts.get(of).estimate().uncertainty();
    }

    private SurfaceIntegral surface(Reading reading, ReadingContext on) {
        Set<String> fields = on.fields(quantities());
        return new SurfaceIntegral(
                on.run(),
                stations.stream()
                        .flatMap(s -> on.surface(s, fields, reading).stream())
                        .toList(),
                on.lens(),
                on.memo());
    }

    private double scale() {
        return reference == null ? Double.NaN : reference.force();
    }

    private double length() {
        return reference == null ? Double.NaN : reference.length();
    }

    private String remark(Which w, List<Point> to, double rest) {
        String whom = loads.on().word();
        String in = frame.isBlank() ? "" : " in frame \"" + frame + "\"";
        return switch (w) {
            case ALONG, ACROSS, SIDE -> "positive pushes " + whom + " along " + text(to.get(w.ordinal())) + in;
            case MAGNITUDE -> "square root of the squares of the three";
            case MOMENT_ALONG, MOMENT_ACROSS, MOMENT_SIDE ->
                "positive turns " + whom + " about " + text(to.get(w.ordinal() - Which.MOMENT_ALONG.ordinal()))
                        + " through " + text(about) + " m" + in + ", right-hand rule";
            case CENTRE_X, CENTRE_Y, CENTRE_Z ->
                Double.isNaN(rest)
                        ? "the loads cancel to round-off, so there is no line that a force acts along"
                        : "centre of pressure: of the force's line the point nearest to " + text(about) + " m" + in
                                + "; a moment of " + Finding.number(rest, 5) + " N m along the force remains";
            case COEFFICIENT_ALONG, COEFFICIENT_ACROSS, COEFFICIENT_SIDE ->
                "over " + refers() + " = " + Finding.number(scale(), 6) + " N";
            case COEFFICIENT_MOMENT ->
                "moment side over " + refers() + " " + Finding.number(length(), 6) + " m = "
                        + Finding.number(scale() * length(), 6) + " N m";
        };
    }

    private String refers() {
        Reference r = java.util.Objects.requireNonNull(reference);
        return "1/2 " + Finding.number(r.density(), 6) + " kg/m3 (" + Finding.number(r.speed(), 6) + " m/s)^2 "
                + Finding.number(r.area(), 6) + " m2";
    }

    private static String text(Point p) {
        return "(" + Finding.number(tidy(p.x()), 5) + ", " + Finding.number(tidy(p.y()), 5) + ", "
                + Finding.number(tidy(p.z()), 5) + ")";
    }

    private static double tidy(double v) {
        return Math.abs(v) < 1e-12 ? 0 : v;
    }
}
