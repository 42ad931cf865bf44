package lane.measure;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
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
        SIZE_MEAN("mean by size"),
        LEAST("least"),
        GREATEST("greatest");

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

    /** A mean of values taken in a way. */
    static Optional<Measure> mean(String quantity, By values) {
        return switch (values) {
            case QUADRATURE -> Optional.of(new Mean(quantity));
            case SIZE -> Optional.of(new Stored(Take.SIZE_MEAN, At.CELLS, quantity, ""));
            case CELLS, NODES -> Optional.of(new Stored(Take.MEAN, values.at(), quantity, ""));
            case STORED -> Optional.empty();
        };
    }

    static Optional<Measure> integral(String quantity, By values) {
        return switch (values) {
            case QUADRATURE -> Optional.of(new Integral(quantity));
            case SIZE -> Optional.of(new Stored(Take.INTEGRAL, At.CELLS, quantity, ""));
            default -> Optional.empty();
        };
    }

    static Optional<Measure> extreme(String quantity, boolean greatest, By values) {
        return switch (values) {
            case STORED -> Optional.of(new Extreme(quantity, greatest));
            case CELLS, NODES ->
                Optional.of(new Stored(greatest ? Take.GREATEST : Take.LEAST, values.at(), quantity, ""));
            default -> Optional.empty();
        };
    }

    @Override
    public Optional<By> by() {
        return switch (take) {
            case INTEGRAL, SIZE_MEAN -> Optional.of(By.SIZE);
            case COUNT, PIECES -> Optional.empty();
            default -> Optional.of(at == At.NODES ? By.NODES : By.CELLS);
        };
    }

    /** What must hold is kept; where it cannot be, as by quadrature, there is no such number. */
    @Override
    public Optional<Measure> by(By values) {
        Optional<Measure> other =
                switch (take) {
                    case MEAN, SIZE_MEAN -> mean(quantity, values);
                    case INTEGRAL -> integral(quantity, values);
                    case LEAST, GREATEST -> extreme(quantity, take == Take.GREATEST, values);
                    case SUM ->
                        values == By.CELLS || values == By.NODES
                                ? Optional.of(new Stored(take, values.at(), quantity, ""))
                                : Optional.empty();
                    case COUNT, PIECES -> Optional.empty();
                };
        return condition.isBlank()
                ? other
                : other.filter(Stored.class::isInstance)
                        .map(Stored.class::cast)
                        .map(s -> new Stored(s.take, s.at, s.quantity, condition));
    }

    @Override
    public boolean asStored() {
        return true;
    }

    /** Whether each counts the same. */
    private boolean alike() {
        return switch (take) {
            case COUNT, PIECES, SUM, MEAN -> true;
            case INTEGRAL, SIZE_MEAN, LEAST, GREATEST -> false;
        };
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
                StoredValues.of(surface, at, value(surface.lens()), holds(surface.lens()), alike()),
                surface.over().symbol());
    }

    @Override
    public Measured within(RegionIntegral region) {
        return of(StoredValues.of(region, at, value(region.lens()), holds(region.lens())), "m3");
    }

    /** What entries give together. */
    private record Summed(
            double sum,
            double weight,
            double n,
            double entries,
            Optional<RegionIntegral.Located> least,
            Optional<RegionIntegral.Located> greatest) {
        static Summed together(List<Summed> all) {
            return new Summed(
                    Sum.of(all.stream().mapToDouble(Summed::sum).toArray()),
                    Sum.of(all.stream().mapToDouble(Summed::weight).toArray()),
                    all.stream().mapToDouble(Summed::n).sum(),
                    all.stream().mapToDouble(Summed::entries).sum(),
                    RegionIntegral.best(all.stream().map(Summed::least).toList(), false),
                    RegionIntegral.best(all.stream().map(Summed::greatest).toList(), true));
        }
    }

    private Summed here(StoredValues all) {
        var sum = new Sum();
        var weight = new Sum();
        int n = 0;
        int least = -1;
        int greatest = -1;
        double[] value = all.value();
        for (int i = 0; i < value.length; i++) {
            double v = value[i];
            if (!Double.isNaN(v)) {
                double w = take == Take.INTEGRAL || take == Take.SIZE_MEAN ? all.size()[i] : 1;
                sum.add(w * v);
                weight.add(w);
                n++;
                least = least < 0 || v < value[least] ? i : least;
                greatest = greatest < 0 || v > value[greatest] ? i : greatest;
            }
        }
        return new Summed(sum.value(), weight.value(), n, value.length, located(all, least), located(all, greatest));
    }

    private static Optional<RegionIntegral.Located> located(StoredValues all, int i) {
        return i < 0 ? Optional.empty() : Optional.of(new RegionIntegral.Located(all.value()[i], all.at(i)));
    }

    private Measured of(StoredValues all, String size) {
        if (take == Take.PIECES) {
            all.run().gather().needsWhole("What hangs together");
            return new Measured(all.pieces(), Unit.ONE);
        }
        Summed s = all.run().gather().of(this, () -> here(all), Summed::together);
        if (take.ofValues() && s.n == 0) {
            throw new LaneException("There is no value to take a " + take.word + " of here.");
        }
        Unit unit = all.unit();
        Measured made =
                switch (take) {
                    case COUNT, PIECES -> new Measured(s.n, Unit.ONE);
                    // Added up, temperatures are no temperature any more.
                    case SUM -> new Measured(s.sum, unit.forInterval());
                    case MEAN, SIZE_MEAN -> new Measured(s.sum / s.weight, unit);
                    case INTEGRAL ->
                        new Measured(s.sum, unit.known() ? unit.difference().times(Unit.of(size)) : Unit.UNKNOWN);
                    case LEAST -> at(s.least.orElseThrow(), unit);
                    case GREATEST -> at(s.greatest.orElseThrow(), unit);
                };
        return made.also(absent(s));
    }

    private static Measured at(RegionIntegral.Located found, Unit unit) {
        return Measured.at(found.value(), unit, found.place());
    }

    private static String absent(Summed s) {
        return StoredValues.absent(s.entries - s.n, s.entries);
    }
}
