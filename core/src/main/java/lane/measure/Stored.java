package lane.measure;

import java.util.LinkedHashSet;
import java.util.Set;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Sum;
import lane.evaluation.EvaluationContext;
import lane.evaluation.RegionIntegral;
import lane.evaluation.StoredValues;
import lane.evaluation.StoredValues.At;
import lane.evaluation.SurfaceIntegral;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * What is counted or added up over nodes, or over cells with one value a cell (over surfaces: faces), beside the quadrature.
 *
 * @param take what is done with the values
 * @param at what there is one value of
 * @param quantity key; blank for counting
 * @param condition key of what must hold for a value to count; blank for all
 */
public record Stored(Take take, At at, String quantity, String condition) implements Measure {
    /** What is done with values. */
    public enum Take {
        /** How many there are. */
        COUNT("number"),
        /** How many pieces hang together. */
        PIECES("number of pieces"),
        SUM("sum"),
        /** Each value counts the same. */
        MEAN("mean"),
        /** One value a cell, times its size. */
        INTEGRAL("integral"),
        /** That over the size of all. */
        SIZE_MEAN("mean by size");

        private final String word;

        Take(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }

        /** Whether values are asked for. */
        public boolean ofValues() {
            return this != COUNT && this != PIECES;
        }
    }

    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "stored";
        }

        @Override
        public Class<Stored> type() {
            return Stored.class;
        }
    }

    public Stored {
        quantity = quantity == null ? "" : quantity;
        condition = condition == null ? "" : condition;
        if (take.ofValues() && quantity.isBlank()) {
            throw new LaneException(Plain.one(take.word) + " over " + at.name().toLowerCase(java.util.Locale.ROOT)
                    + " needs a quantity; name one.");
        }
        if (at == At.NODES && (take == Take.INTEGRAL || take == Take.SIZE_MEAN)) {
            throw new LaneException("Nodes have no size, so there is no " + take.word + " over them; take cells.");
        }
    }

    @Override
    public String word() {
        return take.word + (take.ofValues() ? " of " + quantity : "") + " over "
                + at.name().toLowerCase(java.util.Locale.ROOT) + (condition.isBlank() ? "" : " where " + condition);
    }

    @Override
    public Set<String> quantities() {
        Set<String> out = new LinkedHashSet<>();
        if (take.ofValues()) {
            out.add(quantity);
        }
        if (!condition.isBlank()) {
            out.add(condition);
        }
        return out;
    }

    @Override
    public boolean asStored() {
        return true;
    }

    private @Nullable Quantity value(EvaluationContext lens) {
        return take.ofValues() ? lens.quantity(quantity) : null;
    }

    private @Nullable Quantity holds(EvaluationContext lens) {
        return condition.isBlank() ? null : lens.quantity(condition);
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        return of(
                StoredValues.of(surface, at, value(surface.lens()), holds(surface.lens())),
                surface.over().symbol());
    }

    @Override
    public Measured within(RegionIntegral region) {
        return of(StoredValues.of(region, at, value(region.lens()), holds(region.lens())), "m3");
    }

    private Measured of(StoredValues all, String size) {
        var sum = new Sum();
        var weight = new Sum();
        int n = 0;
        for (int i = 0; i < all.value().length; i++) {
            double v = all.value()[i];
            if (!Double.isNaN(v)) {
                double w = take == Take.INTEGRAL || take == Take.SIZE_MEAN ? all.size()[i] : 1;
                sum.add(w * v);
                weight.add(w);
                n++;
            }
        }
        if (take.ofValues() && n == 0) {
            throw new LaneException("There is no value to take a " + take.word + " of here.");
        }
        Unit unit = all.unit();
        Measured made =
                switch (take) {
                    case COUNT -> new Measured(n, Unit.ONE);
                    case PIECES -> new Measured(all.pieces(), Unit.ONE);
                    // Added up, temperatures are no temperature any more.
                    case SUM -> new Measured(sum.value(), unit.forInterval());
                    case MEAN, SIZE_MEAN -> new Measured(sum.value() / weight.value(), unit);
                    case INTEGRAL ->
                        new Measured(
                                sum.value(), unit.known() ? unit.difference().times(Unit.of(size)) : Unit.UNKNOWN);
                };
        int absent = all.value().length - n;
        return absent == 0
                ? made
                : made.also(", " + absent + " of " + all.value().length + " values absent and left out");
    }
}
