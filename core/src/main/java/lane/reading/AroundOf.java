package lane.reading;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.station.CurveAxis;
import lane.station.Shell;
import lane.station.Station;
import lane.unit.Unit;

/**
 * A quantity around a shell: one number an angle, or on the shell laid flat one at each stated angle and position.
 *
 * @param samples number of even angles, 360 where left out; not used where angles are stated
 * @param angles about the shell's axis, in their unit, in the order asked for; empty for even ones from the seam
 * @param angleUnit {@code rad} or {@code deg}: that of the angles, and of the answer's abscissa
 * @param positions lengths along the axis in metres, for {@link Along#AT}
 */
public record AroundOf(
        String station,
        String quantity,
        Along along,
        int samples,
        List<Double> angles,
        String angleUnit,
        List<Double> positions)
        implements Ask {
    private static final int MOST = 100_000;
    private static final String ANGLE = "angle about the axis";

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "around";
        }

        @Override
        public Class<AroundOf> type() {
            return AroundOf.class;
        }
    }

    /** What is taken along the axis at each angle. */
    public enum Along {
        MEAN("mean"),
        LEAST("least value"),
        GREATEST("greatest value"),
        /** The value at stated positions. */
        AT("value");

        private final String word;

        Along(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public AroundOf {
        along = along == null ? Along.MEAN : along;
        samples = samples == 0 ? 360 : samples;
        angles = angles == null ? List.of() : List.copyOf(angles);
        angleUnit = angleUnit == null || angleUnit.isBlank() ? "rad" : angleUnit;
        positions = positions == null ? List.of() : List.copyOf(positions);
        if (samples < 4 || samples > MOST) {
            throw new LaneException(
                    "Around a shell go 4 to 100 000 angles, not " + samples + "; give a number in that range.");
        }
        if (!angleUnit.equals("rad") && !angleUnit.equals("deg")) {
            throw new LaneException("Angles around a shell are in \"deg\" or \"rad\", not in \"" + angleUnit
                    + "\"; choose one of them.");
        }
        if (along == Along.AT && positions.isEmpty()) {
            throw new LaneException(
                    "The value at positions of a shell needs at least one position along its axis, in m;"
                            + " give one, or take a mean along the axis.");
        }
        if (along != Along.AT && !positions.isEmpty()) {
            throw new LaneException("A " + along.word() + " along the axis goes over all of it and has no positions;"
                    + " leave them out, or take the value at them.");
        }
        if ((long) (angles.isEmpty() ? samples : angles.size()) * Math.max(1, positions.size()) > MOST) {
            throw new LaneException("Around a shell go at most 100 000 places; give fewer angles or positions.");
        }
    }

    /** Around at even angles, in radians. */
    public AroundOf(String station, String quantity, Along along, int samples) {
        this(station, quantity, along, samples, List.of(), "rad", List.of());
    }

    public AroundOf of(String otherStation, String otherQuantity) {
        return new AroundOf(otherStation, otherQuantity, along, samples, angles, angleUnit, positions);
    }

    public AroundOf taking(Along other, List<Double> at) {
        return new AroundOf(station, quantity, other, samples, angles, angleUnit, at);
    }

    /** At these angles; at even ones where there are none. */
    public AroundOf angles(List<Double> stated, String unit) {
        return new AroundOf(station, quantity, along, samples, stated, unit, positions);
    }

    @Override
    public Form form() {
        return Form.CURVE;
    }

    @Override
    public List<String> stations() {
        return List.of(station);
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public Optional<String> shows() {
        return along == Along.MEAN || along == Along.AT ? Optional.of(quantity) : Optional.empty();
    }

    /** The angles in radians, in the order asked for. */
    double[] radians(Shell shell) {
        if (angles.isEmpty()) {
            return IntStream.range(0, samples)
                    .mapToDouble(i -> 2 * Math.PI * i / samples + Math.toRadians(shell.seam()))
                    .toArray();
        }
        Unit unit = Unit.of(angleUnit);
        return angles.stream().mapToDouble(unit::toSi).toArray();
    }

    /** One angle at several positions makes a curve along the axis. */
    private boolean alongAxis() {
        return angles.size() == 1 && positions.size() > 1;
    }

    @Override
    public CurveAxis drawn(Station on) {
        return alongAxis()
                ? new CurveAxis("length along the axis", Unit.of("m"))
                : new CurveAxis(ANGLE, Unit.of(angleUnit));
    }

    @Override
    public CurveAxis.Samples samples(Station on, Axis axis) {
        if (!(on.shape() instanceof Shell shell)) {
            throw new LaneException("The " + on.word() + " \"" + on.name() + "\" is no shell; choose one.");
        }
        double middle = shell.from() != null && shell.to() != null ? (shell.from() + shell.to()) / 2 : 0;
        double[] turns = radians(shell);
        List<Double> rows = along == Along.AT ? positions : List.of(middle);
        List<double[]> places = new ArrayList<>();
        List<Double> at = new ArrayList<>();
        for (double position : rows) {
            if (!alongAxis() && !at.isEmpty()) {
                // From one position to the next the curve does not go on.
                at.add(Double.NaN);
                places.add(new double[] {Double.NaN, Double.NaN, Double.NaN});
            }
            for (double turn : turns) {
                at.add(alongAxis() ? position : turn);
                double[] xyz = new double[3];
                shell.axis().place(shell.radius(), turn, position).into(xyz, 0);
                places.add(xyz);
            }
        }
        double[] abscissa = at.stream().mapToDouble(x -> x).toArray();
        return new CurveAxis.Samples(
                places.stream().flatMapToDouble(Arrays::stream).toArray(), abscissa, abscissa);
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        Station where = on.station(station, reading);
        if (!(where.shape() instanceof Shell shell)) {
            throw new LaneException("Reading \"" + reading.name() + "\" goes around a shell; choose one.");
        }
        if (along == Along.AT) {
            return AroundReader.at(reading, this, where, on);
        }
        return AroundReader.read(
                on.run(),
                where,
                on.places().flat(on.run(), where.name(), shell, on.lens(), on.work()),
                this,
                reading.unit(),
                on.quantity(quantity),
                on.lens(),
                on.trail());
    }
}
