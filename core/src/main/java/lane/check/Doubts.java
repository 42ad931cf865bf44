package lane.check;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.convergence.Refinement;
import lane.estimate.Uncertainty;
import org.jspecify.annotations.Nullable;

/**
 * What a check takes into account of how well its numbers are known, besides what these say themselves.
 *
 * @param family whether the meshes of the judged lane's family tell a numerical uncertainty; yes where it is left out: from three
 *     on, from two where the scheme's order is stated
 * @param order of the scheme; null for not stated
 * @param safety factor of the numerical uncertainty; null for the usual ones
 * @param sizes of cells or time steps by lane, in any unit but the same; where they are left out, (measure / cells)^(1/dimension)
 * @param inputs what runs were given, with how well that is known
 * @param k coverage factor of the half-width that a verdict counts with; null for that of 95 %
 */
public record Doubts(
        @Nullable Boolean family,
        @Nullable Double order,
        @Nullable Double safety,
        Map<String, Double> sizes,
        List<Input> inputs,
        @Nullable Double k) {
    public static final Doubts USUAL = new Doubts(null, null, null, Map.of(), List.of(), null);

    /**
     * Something that runs were given: a property, a boundary value.
     *
     * @param standard uncertainty of it, in its own unit
     * @param sensitivity of the reading's first number to it, in the reading's unit over its own; null to take it from a run
     * @param lane key of a run in which it was changed; blank for none
     * @param change by which it was changed there, in its own unit
     */
    public record Input(
            String name,
            double standard,
            @Nullable Double sensitivity,
            String lane,
            @Nullable Double change) {
        public Input {
            name = name == null ? "" : name;
            lane = lane == null ? "" : lane;
            if (!(standard >= 0) || Double.isInfinite(standard)) {
                throw new LaneException("The standard uncertainty of input \"" + name
                        + "\" is a number of 0 or more; got " + standard + ".");
            }
            if (sensitivity == null && (lane.isBlank() || change == null || change == 0)) {
                throw new LaneException("Input \"" + name
                        + "\" needs a sensitivity, or a run in which it was changed and by how much.");
            }
        }
    }

    public Doubts {
        sizes = sizes == null ? Map.of() : java.util.Collections.unmodifiableMap(new LinkedHashMap<>(sizes));
        inputs = inputs == null ? List.of() : List.copyOf(inputs);
        sizes.forEach((lane, h) -> {
            if (h == null || !(h > 0) || Double.isInfinite(h)) {
                throw new LaneException("The size of \"" + lane + "\" is a positive number; got " + h + ".");
            }
        });
        if (k != null && !(k > 0 && k < 100)) {
            throw new LaneException("A coverage factor is a positive number such as 2; got " + k + ".");
        }
        new Refinement.Stated(order == null ? Double.NaN : order, safety == null ? Double.NaN : safety);
    }

    public boolean usual() {
        return equals(USUAL);
    }

    boolean counts() {
        return family == null || family;
    }

    Refinement.Stated stated() {
        return new Refinement.Stated(order == null ? Double.NaN : order, safety == null ? Double.NaN : safety);
    }

    /** The factor that half-widths are to be told with. */
    double coverage() {
        return k == null ? Uncertainty.USUAL : k;
    }

    /** An uncertainty with the stated factor. */
    Uncertainty covering(Uncertainty u) {
        return k == null || !u.known() ? u : new Uncertainty(u.standard(), k, u.freedom());
    }

    public Doubts counting(boolean family) {
        return new Doubts(family ? null : false, order, safety, sizes, inputs, k);
    }

    public Doubts ofOrder(@Nullable Double other) {
        return new Doubts(family, other, safety, sizes, inputs, k);
    }

    public Doubts covering(@Nullable Double other) {
        return new Doubts(family, order, safety, sizes, inputs, other);
    }

    public Doubts with(List<Input> others) {
        return new Doubts(family, order, safety, sizes, others, k);
    }
}
