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
import lane.evaluation.EvaluationContext;
import lane.measure.Force;
import lane.measure.Measure;
import lane.measure.Moment;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.FieldQuantity;
import lane.quantity.Quantity;
import org.jspecify.annotations.Nullable;

/**
 * A force, a moment, or a mean or integral of a vector, in one reading: its components in space, its magnitude and its direction.
 *
 * @param stations keys of the stations, taken together
 * @param measure one that has components; a direction in it plays no part
 * @param number which of them formulas and checks take
 * @param frame key of the frame that the components are along; blank for space
 * @param placed that frame in space, filled in before it is read; null before, and for space
 */
public record VectorOf(
        List<String> stations,
        Measure measure,
        Which number,
        String frame,
        @Nullable Axis placed) implements Ask {
    private static final Method COMPONENTS = new Method("components along x, y and z, each by itself", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "vector";
        }

        @Override
        public Class<VectorOf> type() {
            return VectorOf.class;
        }
    }

    /** One of the numbers of a vector. */
    public enum Which {
        MAGNITUDE,
        X,
        Y,
        Z;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public VectorOf {
        stations = stations == null ? List.of() : List.copyOf(stations);
        number = number == null ? Which.MAGNITUDE : number;
        frame = frame == null ? "" : frame;
        if (measure != null && !measure.directed()) {
            throw new LaneException("A " + measure.word()
                    + " has no components; take a force, a moment, or a mean or integral of a vector.");
        }
    }

    public VectorOf(List<String> stations, Measure measure, Which number) {
        this(stations, measure, number, "", null);
    }

    @Override
    public VectorOf placed(Axis axis) {
        return new VectorOf(stations, measure, number, frame, axis);
    }

    @Override
    public Optional<Point> arrow(Outcome made) {
        if (!(made instanceof Vector v) || !frame.isBlank() && placed == null || !(v.magnitude() > 0)) {
            return Optional.empty();
        }
        List<Tally> c = v.components();
        var own = new Point(c.get(0).value(), c.get(1).value(), c.get(2).value()).unit();
        return Optional.of(placed == null ? own : placed.outDirection(own));
    }

    /** A load is reported as it acts on the other. */
    @Override
    public Optional<Ask> flipped() {
        Measure other =
                switch (measure) {
                    case Force f -> new Force(f.loads().flipped(), f.direction());
                    case Moment m -> new Moment(m.loads().flipped(), m.axis());
                    default -> null;
                };
        return Optional.ofNullable(other).map(m -> new VectorOf(stations, m, number, frame, placed));
    }

    @Override
    public Form form() {
        return Form.NUMBER;
    }

    @Override
    public Set<String> quantities() {
        return measure.quantities();
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        for (Which n : Which.values()) {
            out.add(name + " " + n.word());
        }
        return out;
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        EvaluationContext lens = on.lens();
        List<Supplier<Outcome>> asked = new ArrayList<>();
        for (int d = 0; d < 3; d++) {
            EvaluationContext[] seen = {lens};
            int axis = d;
            Measure part = measure.component(d, key -> {
                Quantity q = FieldQuantity.component(
                        lens.quantity(key), lens.quantities().containsKey(key), axis);
                seen[0] = seen[0].with(q);
                return q.id();
            });
            asked.add(() -> new TallyOf(stations, part).read(reading, on.through(seen[0])));
        }
        List<Tally> parts = new ArrayList<>();
        for (Outcome one : on.run().gather().all(asked)) {
            if (!(one instanceof Tally t)) {
                return one;
            }
            parts.add(t);
        }
        Provenance trail = parts.get(0)
                .trail()
                .with(parts.get(1).trail())
                .with(parts.get(2).trail())
                .then("reading", COMPONENTS, "components of {word}, {number}", settings());
        return new Vector(frame.isBlank() ? parts : turned(parts), number, trail);
    }

    private Map<String, Object> settings() {
        var out = new LinkedHashMap<String, Object>();
        out.put("word", measure.word());
        out.put("measure", measure);
        out.put("number", number.word());
        if (!frame.isBlank()) {
            out.put("frame", frame);
            out.put("axes", Frames.known(frame, placed));
        }
        return out;
    }

    /** Components along the frame's directions out of those of space. */
    private List<Tally> turned(List<Tally> space) {
        Axis axes = Frames.known(frame, placed);
        List<Tally> out = new ArrayList<>();
        for (int d = 0; d < 3; d++) {
            Point to = axes.outDirection(Point.along(d));
            double[] share = {to.x(), to.y(), to.z()};
            var pieces = new LinkedHashMap<String, Double>();
            double value = 0;
            for (int k = 0; k < 3; k++) {
                double part = share[k];
                value += part * space.get(k).value();
                space.get(k).pieces().forEach((piece, v) -> pieces.merge(piece, part * v, Double::sum));
            }
            Tally first = space.getFirst();
            String along = "xyz".charAt(d) + " of frame \"" + frame + "\"";
            String sign = space.get(d).sign().replaceFirst("\\+[xyz]", along);
            out.add(new Tally(
                    new Estimate(value, first.unit()),
                    pieces,
                    sign.isBlank() ? "along " + along : sign,
                    first.note(),
                    first.coverage(),
                    first.trail()));
        }
        return out;
    }
}
