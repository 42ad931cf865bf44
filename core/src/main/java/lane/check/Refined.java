package lane.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import lane.convergence.Convergence;
import lane.convergence.CurveRefinement;
import lane.convergence.Refinement;
import lane.reading.Outcome;
import lane.reading.Profile;
import org.jspecify.annotations.Nullable;

/**
 * A number or a curve over the meshes of a family, down to one of them.
 *
 * @param lanes keys of the runs, finest first
 * @param sizes of their cells or time steps
 * @param values in SI units; of curves the norms of their changes, added up from the finest one's largest magnitude
 * @param convergence what they say
 * @param curve the same at each place of the finest curve; null for a number
 */
public record Refined(
        List<String> lanes,
        double[] sizes,
        double[] values,
        Convergence convergence,
        @Nullable CurveRefinement curve) {
    /** Fewer than there must be for it. */
    private static final int LEAST = 2;

    /** What is known of one mesh. */
    private record One(String lane, double size, double value, double @Nullable [] curve) {}

    /**
     * @param lane the finest mesh that counts: those of greater size of its family count with it
     * @return null where there are fewer than two meshes with an answer, or one has no size
     * @throws lane.base.LaneException where sizes say nothing, such as two alike
     */
    static @Nullable Refined of(Crossing on, String lane, Doubts doubts) {
        Outcome finest = on.outcomes().get(lane);
        Double own = on.size(lane);
        if (finest == null || own == null || !on.family().contains(lane)) {
            return null;
        }
        Profile along = finest.curve().orElse(null);
        List<One> all = new ArrayList<>();
        for (String id : on.family()) {
            Outcome o = on.outcomes().get(id);
            Double h = on.size(id);
            if (o == null || h == null || h < own * (1 - 1e-9) || !alike(on, id, lane)) {
                continue;
            }
            if (along != null) {
                double[] there = o.curve().map(p -> values(p, along)).orElse(null);
                if (there != null) {
                    all.add(new One(id, h, Double.NaN, there));
                }
            } else if (!o.numbers().isEmpty()
                    && Double.isFinite(o.numbers().getFirst().value())) {
                all.add(new One(id, h, o.numbers().getFirst().value(), null));
            }
        }
        if (all.size() < LEAST || all.stream().noneMatch(o -> o.lane.equals(lane))) {
            return null;
        }
        all.sort(Comparator.comparingDouble(One::size));
        double[] h = all.stream().mapToDouble(One::size).toArray();
        List<String> lanes = all.stream().map(One::lane).toList();
        if (along == null) {
            double[] v = all.stream().mapToDouble(One::value).toArray();
            return new Refined(lanes, h, v, Refinement.of(h, v, doubts.stated()), null);
        }
        List<double[]> curves =
                all.stream().map(o -> java.util.Objects.requireNonNull(o.curve)).toList();
        Refinement.of(h, new double[h.length], doubts.stated());
        CurveRefinement made = CurveRefinement.of(h, curves, doubts.stated());
        return new Refined(lanes, h, new double[0], made.global(), made);
    }

    /** Runs of one family only, where the judged ones are of several. */
    private static boolean alike(Crossing on, String one, String other) {
        return on.families().getOrDefault(one, "").equals(on.families().getOrDefault(other, ""));
    }

    /** A curve at the places of another; null where it turns back and they do not have the same places. */
    static double @Nullable [] values(Profile p, Profile along) {
        if (Arrays.equals(p.abscissa(), along.abscissa())) {
            return p.value();
        }
        List<Branch> branches = Branch.of(p);
        return branches.size() != 1
                ? null
                : branches.getFirst()
                        .at(along.abscissa(), Meeting.Resampling.LINEAR)
                        .value();
    }

    /** How many meshes there are. */
    public int count() {
        return lanes.size();
    }

    /** In words: {@code monotone over 3 meshes, observed order 1.93}. */
    public String words() {
        Convergence c = convergence;
        return c.kind().word() + (lanes.size() == 2 ? "" : " over " + lanes.size() + " meshes")
                + (Double.isNaN(c.order())
                        ? ""
                        : (lanes.size() == 2 ? ", order " : ", observed order ") + Tolerance.three(c.order()))
                + ", safety factor " + Tolerance.three(c.safety());
    }
}
