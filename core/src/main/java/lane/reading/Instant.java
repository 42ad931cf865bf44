package lane.reading;

import java.util.Arrays;
import java.util.List;
import lane.provenance.Provenance;

/**
 * What was answered at one time, without how.
 *
 * @param abscissa of a curve, in SI units; empty for a number
 * @param value in SI units; one for a number, none where there is no answer
 * @param half half-widths of the values; empty where none is stated
 * @param why there is no answer; blank where there is one
 * @param inputs files that it was read from
 */
public record Instant(double[] abscissa, double[] value, double[] half, String why, List<Provenance.Input> inputs) {
    public Instant {
        inputs = List.copyOf(inputs);
    }

    private static final double[] NONE = new double[0];

    static Instant absent(String why, List<Provenance.Input> inputs) {
        return new Instant(NONE, NONE, NONE, why, inputs);
    }

    /** The numbers of an answer: a curve, or the first of several. */
    public static Instant of(Outcome made) {
        List<Provenance.Input> inputs = made.trail().inputs();
        if (made instanceof Outcome.Absent a) {
            return absent(a.reason(), inputs);
        }
        if (made.curve().isPresent()) {
            Profile p = made.curve().get();
            return new Instant(p.abscissa(), p.value(), p.uncertainty(), "", inputs);
        }
        var first = made.numbers().getFirst();
        double half = first.uncertainty().half();
        return new Instant(NONE, new double[] {first.value()}, half > 0 ? new double[] {half} : NONE, "", inputs);
    }

    /** The number, or NaN. */
    double number() {
        return value.length == 0 ? Double.NaN : value[0];
    }

    /** Of its half-width, 0 where none is stated. */
    double unsure() {
        return half.length == 0 ? 0 : half[0];
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Instant i
                && Arrays.equals(abscissa, i.abscissa)
                && Arrays.equals(value, i.value)
                && Arrays.equals(half, i.half)
                && why.equals(i.why)
                && inputs.equals(i.inputs);
    }

    @Override
    public int hashCode() {
        return 31 * Arrays.hashCode(value) + why.hashCode();
    }
}
