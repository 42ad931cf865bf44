package lane.measure;

import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import lane.base.LaneException;
import lane.evaluation.BoundQuantity;
import lane.evaluation.PathIntegral;
import lane.evaluation.RegionIntegral;
import lane.evaluation.StoredValues;
import lane.evaluation.SurfaceIntegral;
import lane.evaluation.Weighted;
import lane.quantity.Quantity;
import lane.unit.Unit;

/**
 * How values are spread, each counting with the area, volume or length that it stands for, or like any other.
 *
 * @param what which number
 * @param share for a percentile: how much of the size lies at or below it, 0 to 1
 * @param values whose; by quadrature where it is not said
 */
public record Statistic(What what, String quantity, double share, By values) implements Measure {
    public Statistic(What what, String quantity, double share) {
        this(what, quantity, share, By.QUADRATURE);
    }

    /** Which number is taken. */
    public enum What {
        DEVIATION("standard deviation"),
        PERCENTILE("percentile"),
        UNIFORMITY("uniformity index"),
        SHARE("share");

        private final String word;

        What(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "statistic";
        }

        @Override
        public Class<Statistic> type() {
            return Statistic.class;
        }
    }

    public Statistic {
        values = values == null ? By.QUADRATURE : values;
        if (values == By.STORED) {
            throw new LaneException("A " + what.word + " is taken by quadrature, over cells or over nodes; name one.");
        }
        if (what == What.PERCENTILE && !(share >= 0 && share <= 1)) {
            throw new LaneException(
                    "A percentile is taken at a share from 0 to 1, such as 0.95; it is " + share + " here.");
        }
    }

    @Override
    public String word() {
        String of = what == What.PERCENTILE
                ? "percentile at " + lane.base.Figures.of(100 * share, 4).plain(100 * share) + " %" + " of " + quantity
                : what == What.SHARE ? "share where " + quantity : what.word + " of " + quantity;
        return values == By.QUADRATURE ? of : of + " " + values.word();
    }

    @Override
    public Optional<By> by() {
        return Optional.of(values);
    }

    @Override
    public Optional<Measure> by(By other) {
        return other == By.STORED ? Optional.empty() : Optional.of(new Statistic(what, quantity, share, other));
    }

    @Override
    public boolean asStored() {
        return values != By.QUADRATURE;
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        return values == By.QUADRATURE
                ? of(surface.weighted(quantity))
                : of(
                        StoredValues.of(
                                surface, values.at(), surface.lens().quantity(quantity), null, values != By.SIZE),
                        surface.ready(quantity).number());
    }

    @Override
    public Measured within(RegionIntegral region) {
        Quantity q = region.lens().quantity(quantity);
        return values == By.QUADRATURE
                ? of(region.weighted(q))
                : of(
                        StoredValues.of(region, values.at(), q, null),
                        region.ready(q).number());
    }

    @Override
    public Measured along(PathIntegral path) {
        if (values != By.QUADRATURE) {
            throw new LaneException("Along a line there are samples, and no "
                    + values.at().name().toLowerCase(Locale.ROOT) + "; take the " + what.word + " by quadrature.");
        }
        return of(path.weighted(path.lens().quantity(quantity)));
    }

    private Measured of(StoredValues stored, BoundQuantity bound) {
        if (stored.weighted(bound, false).sums("number", 1, (v, w, sums) -> sums[0].add(w))[0] == 0) {
            throw new LaneException("There is no value to take a " + what.word + " of here.");
        }
        return of(stored.weighted(bound, values == By.SIZE)).also(stored.absent());
    }

    private Measured of(Weighted all) {
        boolean truth = all.bound().type().truth();
        if (what == What.SHARE != truth) {
            throw new LaneException(
                    truth
                            ? "\"" + all.bound().quantity().name()
                                    + "\" is a condition; of those the share where it holds is taken."
                            : "A share is taken of a condition, such as T > 300 \"K\"; \""
                                    + all.bound().quantity().name() + "\" is a number.");
        }
        return switch (what) {
            case DEVIATION -> {
                double mean = mean(all);
                double[] s = all.sums("about " + mean, 2, (v, w, sums) -> {
                    sums[0].add(w * (v - mean) * (v - mean));
                    sums[1].add(w);
                });
                yield new Measured(Math.sqrt(s[0] / s[1]), all.unit().forInterval());
            }
            case UNIFORMITY -> {
                double mean = mean(all);
                double[] s = all.sums("from " + mean, 3, (v, w, sums) -> {
                    sums[0].add(w * Math.abs(v - mean));
                    sums[1].add(w);
                    sums[2].add(w * Math.abs(v));
                });
                // A mean that is the round-off of values of both signs is none.
                if (Math.abs(mean) * s[1] <= 1e-9 * s[2]) {
                    throw new LaneException(
                            "The mean of \"" + all.bound().quantity().name()
                                    + "\" is zero here, so a uniformity index has no meaning; take its standard deviation.");
                }
                yield new Measured(1 - s[0] / (2 * Math.abs(mean) * s[1]), Unit.ONE);
            }
            case SHARE -> new Measured(mean(all), Unit.ONE);
            case PERCENTILE -> new Measured(percentile(all), all.unit());
        };
    }

    private static double mean(Weighted all) {
        double[] s = all.sums("mean", 2, (v, w, sums) -> {
            sums[0].add(w * v);
            sums[1].add(w);
        });
        return s[0] / s[1];
    }

    /** How many bits of a number are found at a time. */
    private static final int BITS = 8;

    private static final int BINS = 1 << BITS;

    /**
     * The least value at or below which at least the share of the size lies: found bit by bit from the size in bins, so that it is
     * one of the values themselves and nothing has to be kept or sorted.
     */
    private double percentile(Weighted all) {
        double below = 0;
        long prefix = 0;
        double wanted = Double.NaN;
        for (int shift = Long.SIZE - BITS; shift >= 0; shift -= BITS) {
            long known = prefix;
            int at = shift;
            double[] bins = all.sums("bits " + known + " at " + at, BINS + 1, (v, w, sums) -> {
                long key = key(v);
                if (at + BITS == Long.SIZE || (key ^ known) >>> (at + BITS) == 0) {
                    sums[(int) (key >>> at) & BINS - 1].add(w);
                }
                if (Double.isNaN(v)) {
                    sums[BINS].add(Double.NaN);
                }
            });
            if (Double.isNaN(bins[BINS])) {
                return Double.NaN;
            }
            if (Double.isNaN(wanted)) {
                double total = 0;
                for (int i = 0; i < BINS; i++) {
                    total += bins[i];
                }
                // What is lacking by the round-off of the sums is not lacking.
                wanted = share * total * (1 - 1e-12);
            }
            int bin = 0;
            int last = 0;
            while (bin < BINS && (bins[bin] == 0 || below + bins[bin] < wanted)) {
                if (bins[bin] > 0) {
                    last = bin;
                }
                below += bins[bin];
                bin++;
            }
            if (bin == BINS) {
                // The share is all of it: the greatest value.
                bin = last;
                below -= bins[last];
            }
            prefix |= (long) bin << shift;
        }
        return value(prefix);
    }

    /** Bits in the order of the numbers. */
    private static long key(double v) {
        long bits = Double.doubleToLongBits(v + 0.0);
        return bits < 0 ? ~bits : bits | Long.MIN_VALUE;
    }

    private static double value(long key) {
        return Double.longBitsToDouble(key < 0 ? key & Long.MAX_VALUE : ~key);
    }
}
