package lane.reading;

import java.util.ArrayList;
import java.util.List;
import lane.estimate.Estimate;
import lane.provenance.Provenance;
import lane.reading.VectorOf.Which;
import lane.unit.Unit;

/**
 * A vector: components along x, y and z, magnitude and direction.
 *
 * @param components three, each with its sign in words
 * @param number which of its numbers is the answer
 */
public record Vector(List<Tally> components, Which number, Provenance trail) implements Outcome {
    public Vector {
        components = List.copyOf(components);
    }

    @Override
    public Unit unit() {
        return components.getFirst().unit();
    }

    @Override
    public Vector in(Unit other) {
        return new Vector(components.stream().map(t -> t.in(other)).toList(), number, trail);
    }

    public double magnitude() {
        return Math.sqrt(
                components.stream().mapToDouble(t -> t.value() * t.value()).sum());
    }

    private Estimate of(Which which) {
        return which == Which.MAGNITUDE
                ? new Estimate(magnitude(), unit())
                : components.get(which.ordinal() - 1).estimate();
    }

    /** The answer, then all of them. */
    @Override
    public List<Estimate> numbers() {
        List<Estimate> out = new ArrayList<>(List.of(of(number)));
        for (Which n : Which.values()) {
            out.add(of(n));
        }
        return out;
    }

    @Override
    public List<Scalar> scalars() {
        List<Scalar> out = new ArrayList<>();
        double size = magnitude();
        for (int d = 0; d < 3; d++) {
            String axis = Which.values()[d + 1].word();
            Tally t = components.get(d);
            out.add(new Scalar(axis, t.estimate(), t.sign()));
            t.pieces()
                    .forEach((piece, v) ->
                            out.add(new Scalar(axis + ", " + piece + " part", new Estimate(v, unit()), "")));
        }
        out.add(new Scalar("magnitude", of(Which.MAGNITUDE), "square root of the components' squares"));
        for (int d = 0; d < 3; d++) {
            double along = size > 0 ? components.get(d).value() / size : Double.NaN;
            out.add(new Scalar(
                    "direction " + Which.values()[d + 1].word(),
                    new Estimate(along, Unit.ONE),
                    size > 0 ? "component of the unit vector" : "a vector of no size has no direction"));
        }
        Tally.coverage(components.getFirst().coverage()).ifPresent(out::add);
        return List.copyOf(out);
    }
}
