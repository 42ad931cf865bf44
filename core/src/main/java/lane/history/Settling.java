package lane.history;

import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Sum;

/**
 * Whether a series has settled in its last part, and its mean there. Each value counts with the time that it stands for.
 *
 * @param settled whether drift and scatter are at most the allowed share of the scale
 * @param from where the window begins
 * @param to where it ends
 * @param mean over the window
 * @param drift least-squares slope times the length of the window
 * @param scatter standard deviation about that straight line
 * @param standardError of the mean, by the means of batches, which allows for values that depend on those before
 * @param batches how many
 * @param effectiveSamples how many independent values would know the mean as well
 * @param samples in the window
 * @param allowed what drift and scatter may be
 * @param why in a sentence
 */
public record Settling(
        boolean settled,
        double from,
        double to,
        double mean,
        double drift,
        double scatter,
        double standardError,
        int batches,
        double effectiveSamples,
        int samples,
        double allowed,
        String why) {
    /** The last fifth. */
    public static final double WINDOW = 0.2;

    /** A thousandth. */
    public static final double TOLERANCE = 1e-3;

    /** Fewer say nothing of a slope and what lies about it. */
    private static final int FEWEST = 4;

    /** More batches know no mean better, but their length may fall below that over which values depend on each other. */
    private static final int MOST_BATCHES = 30;

    private static final int LEAST_BATCHES = 5;

    /** A batch is so many times as long as values remember. */
    private static final int MEMORIES = 4;

    /**
     * Judges a series.
     *
     * @param window share of the whole at its end
     * @param tolerance share of the scale
     * @param scale NaN for the magnitude of the mean
     * @param batches 0 for a number that suits the memory of the values
     * @throws LaneException when there are too few values
     */
    public static Settling of(Series whole, double window, double tolerance, double scale, int batches) {
        return of(whole, window, tolerance, scale, Double.isNaN(scale) ? "the mean" : "the scale", batches);
    }

    /** @param word what the tolerance is a share of, in words */
    public static Settling of(Series whole, double window, double tolerance, double scale, String word, int batches) {
        if (!(tolerance > 0)) {
            throw new LaneException("A tolerance is a share above 0, such as 0.001; it is " + tolerance + " here.");
        }
        Series s = whole.last(window);
        int n = s.size();
        if (n < FEWEST) {
            throw new LaneException("The window of the last " + percent(window) + " has " + n + " of " + whole.size()
                    + " values; at least " + FEWEST + " are needed, so take a wider one.");
        }
        double[] w = s.weights();
        double[] v = s.value();
        double all = total(w, v, (t, x) -> 1, s);
        double mean = total(w, v, (t, x) -> x, s) / all;
        double middle = total(w, v, (t, x) -> t, s) / all;
        double slope = total(w, v, (t, x) -> (t - middle) * (x - mean), s)
                / total(w, v, (t, x) -> (t - middle) * (t - middle), s);
        double about = total(w, v, (t, x) -> square(x - mean - slope * (t - middle)), s) / all;
        double spread = total(w, v, (t, x) -> square(x - mean), s) / all;
        double reach = s.along()[n - 1] - s.along()[0];
        double drift = slope * reach;
        double scatter = Math.sqrt(about * n / (n - 2));
        int many = batches > 0 ? batches : batches(v, mean);
        if (many < 2 || many > n) {
            throw new LaneException(
                    "The mean of " + n + " values is not judged by " + many + " batches; give from 2 to " + n + ".");
        }
        double error = standardError(w, v, mean, many);
        double variance = spread * n / (n - 1);
        double effective = error > 0 ? variance / (error * error) : n;
        double magnitude = Double.isNaN(scale) ? Math.abs(mean) : Math.abs(scale);
        double allowed = tolerance * magnitude;
        boolean settled = Math.abs(drift) <= allowed && scatter <= allowed;
        return new Settling(
                settled,
                s.along()[0],
                s.along()[n - 1],
                mean,
                drift,
                scatter,
                error,
                many,
                effective,
                n,
                allowed,
                why(drift, scatter, allowed, magnitude, tolerance, Double.isNaN(scale), word, error, mean));
    }

    private static String why(
            double drift,
            double scatter,
            double allowed,
            double magnitude,
            double tolerance,
            boolean ofMean,
            String word,
            double error,
            double mean) {
        String of = " of " + word;
        if (magnitude == 0 && drift == 0 && scatter == 0) {
            return mean == 0 ? "It is zero all through the window." : "It is the same all through the window.";
        }
        if (magnitude == 0 || ofMean && Math.abs(mean) <= 2 * error) {
            return "The mean cannot be told from zero, so a share of it allows next to nothing; state a scale.";
        }
        String d = percent(Math.abs(drift) / magnitude);
        String s = percent(scatter / magnitude);
        String t = percent(tolerance);
        boolean drifts = Math.abs(drift) > allowed;
        boolean scatters = scatter > allowed;
        if (drifts) {
            return "It still drifts by " + d + of + " over the window, which is more than " + t
                    + (scatters
                            ? "; it scatters by " + s + " about that, too."
                            : "; it scatters by " + s + " about that.");
        }
        return scatters
                ? "It scatters by " + s + of + ", which is more than " + t + "; it drifts by " + d + " over the window."
                : "Over the window it drifts by " + d + of + " and scatters by " + s + ", both at most " + t + ".";
    }

    private static String percent(double share) {
        double p = 100 * share;
        return Figures.of(p, 2).plain(p) + " %";
    }

    private interface Term {
        double of(double along, double value);
    }

    private static double total(double[] w, double[] v, Term term, Series s) {
        var sum = new Sum();
        for (int i = 0; i < v.length; i++) {
            sum.add(w[i] * term.of(s.along()[i], v[i]));
        }
        return sum.value();
    }

    private static double square(double x) {
        return x * x;
    }

    /**
     * From the scatter of the means of consecutive batches: independent of each other where a batch is longer than values
     * remember.
     */
    private static double standardError(double[] w, double[] v, double mean, int batches) {
        double sum = 0;
        for (int b = 0; b < batches; b++) {
            int from = (int) ((long) b * v.length / batches);
            int to = (int) ((long) (b + 1) * v.length / batches);
            double weight = 0;
            double part = 0;
            for (int i = from; i < to; i++) {
                weight += w[i];
                part += w[i] * (v[i] - mean);
            }
            sum += square(part / weight);
        }
        return Math.sqrt(sum / (batches - 1) / batches);
    }

    /** As many batches as are some memories long, within what is sensible. */
    private static int batches(double[] v, double mean) {
        int n = v.length;
        int fit = (int) Math.floor(n / (MEMORIES * memory(v, mean)));
        return Math.min(Math.max(fit, Math.min(LEAST_BATCHES, n / 2)), Math.min(MOST_BATCHES, n / 2));
    }

    /**
     * Over how many values they remember: one and twice the sum of the autocorrelations, as long as these, taken in pairs, are
     * positive (Geyer, Stat. Sci. 7, 1992, 473); 1 for independent values, and at least that.
     */
    static double memory(double[] v, double mean) {
        int n = v.length;
        double zero = correlation(v, mean, 0);
        if (zero == 0) {
            return 1;
        }
        double sum = -zero;
        for (int k = 0; k + 1 < n / 2; k += 2) {
            double pair = correlation(v, mean, k) + correlation(v, mean, k + 1);
            // Beyond that the batches are as few as they may be.
            if (pair <= 0 || sum > zero * n / (MEMORIES * LEAST_BATCHES)) {
                break;
            }
            sum += 2 * pair;
        }
        return Math.max(1, sum / zero);
    }

    private static double correlation(double[] v, double mean, int lag) {
        double sum = 0;
        for (int i = 0; i + lag < v.length; i++) {
            sum += (v[i] - mean) * (v[i + lag] - mean);
        }
        return sum / v.length;
    }
}
