package lane.history;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import org.hipparchus.complex.Complex;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.transform.DftNormalization;
import org.hipparchus.transform.FastFourierTransformer;
import org.hipparchus.transform.TransformType;

/**
 * Sinusoids that a series holds, the strongest first. Where the spectrum of what is left has its peak, a sinusoid is fitted by
 * least squares, its period with it, and taken off; then all are fitted again in turn. One that noise of the same size would
 * show as well is none.
 *
 * @param resampled whether rows were uneven, so that the peaks were looked for on even ones
 */
public record Periods(List<Period> strongest, boolean resampled) {
    /**
     * @param amplitude half of the way between least and greatest
     * @param share of the variance about the straight line
     */
    public record Period(double period, double amplitude, double share) {}

    private static final int FEWEST = 8;
    private static final int SWEEPS = 6;
    private static final double GOLDEN = (Math.sqrt(5) - 1) / 2;

    public Periods {
        strongest = List.copyOf(strongest);
    }

    /** Frequency, with the parts along cosine and sine, and the straight line that it was fitted with. */
    private record Wave(double frequency, double cos, double sin, double constant, double slope) {
        double at(double t) {
            double w = 2 * Math.PI * frequency * t;
            return cos * Math.cos(w) + sin * Math.sin(w);
        }

        double amplitude() {
            return Math.hypot(cos, sin);
        }
    }

    /** @throws LaneException for fewer than eight values */
    public static Periods of(Series s, int most) {
        int n = s.size();
        if (n < FEWEST) {
            throw new LaneException(
                    "Periods are looked for in " + FEWEST + " values or more; there are " + n + " here.");
        }
        double middle = (s.along()[0] + s.along()[n - 1]) / 2;
        double[] t = Arrays.stream(s.along()).map(x -> x - middle).toArray();
        double[] rest = s.value();
        double whole = squares(straight(t, rest));
        double reach = t[n - 1] - t[0];
        List<Wave> waves = new ArrayList<>();
        double round = 1e-24 * Arrays.stream(s.value()).map(v -> v * v).sum();
        while (waves.size() < most) {
            double[] bare = straight(t, rest);
            double before = squares(bare);
            if (before <= round) {
                break;
            }
            Wave found = fitted(t, rest, peak(t, bare, reach), 1 / reach);
            double[] next = less(t, rest, found);
            // What the highest of n peaks of pure noise takes off, but for one case in fifty (R. A. Fisher, 1929).
            if (!(before - squares(straight(t, next)) > before * 2 * (Math.log(n) + 4) / n)) {
                break;
            }
            waves.add(found);
            rest = next;
            for (int sweep = 0; waves.size() > 1 && sweep < SWEEPS; sweep++) {
                for (int k = 0; k < waves.size(); k++) {
                    double[] own = more(t, rest, waves.get(k));
                    waves.set(k, fitted(t, own, waves.get(k).frequency, 0.5 / reach));
                    rest = less(t, own, waves.get(k));
                }
            }
        }
        waves.sort((a, b) -> Double.compare(b.amplitude(), a.amplitude()));
        return new Periods(
                waves.stream()
                        .map(w -> new Period(
                                1 / w.frequency,
                                w.amplitude(),
                                Math.min(1, w.amplitude() * w.amplitude() / 2 * n / whole)))
                        .toList(),
                s.uneven());
    }

    /** Less its straight line by least squares. */
    private static double[] straight(double[] t, double[] v) {
        int n = v.length;
        double mean = Arrays.stream(v).sum() / n;
        double middle = Arrays.stream(t).sum() / n;
        double tt = 0;
        double tv = 0;
        for (int i = 0; i < n; i++) {
            tt += (t[i] - middle) * (t[i] - middle);
            tv += (t[i] - middle) * (v[i] - mean);
        }
        double[] out = new double[n];
        for (int i = 0; i < n; i++) {
            out[i] = v[i] - mean - tv / tt * (t[i] - middle);
        }
        return out;
    }

    private static double squares(double[] v) {
        return Arrays.stream(v).map(x -> x * x).sum();
    }

    private static double[] less(double[] t, double[] v, Wave w) {
        double[] out = new double[v.length];
        Arrays.setAll(out, i -> v[i] - w.at(t[i]));
        return out;
    }

    private static double[] more(double[] t, double[] v, Wave w) {
        return less(t, v, new Wave(w.frequency, -w.cos, -w.sin, 0, 0));
    }

    /** The frequency of the highest peak of the spectrum, from one whole period in what there is up. */
    private static double peak(double[] t, double[] v, double reach) {
        int n = v.length;
        int size = Integer.highestOneBit(4 * n - 1) << 1;
        double[] even = new double[size];
        int k = 0;
        for (int i = 0; i < n; i++) {
            double at = t[0] + reach * i / (n - 1);
            while (k + 2 < n && t[k + 1] < at) {
                k++;
            }
            double f = Math.clamp((at - t[k]) / (t[k + 1] - t[k]), 0, 1);
            // The window of Hann keeps a strong period from hiding a weak one far away.
            even[i] = ((1 - f) * v[k] + f * v[k + 1]) * (0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / n));
        }
        Complex[] spectrum =
                new FastFourierTransformer(DftNormalization.STANDARD).transform(even, TransformType.FORWARD);
        double step = (n - 1) / reach / size;
        int best = (int) Math.ceil(1 / reach / step);
        for (int i = best; i <= size / 2; i++) {
            best = spectrum[i].norm() > spectrum[best].norm() ? i : best;
        }
        return best * step;
    }

    /** The sinusoid of least squares with a frequency near one: by golden section in what it takes off. */
    private static Wave fitted(double[] t, double[] v, double near, double within) {
        // No period is longer than what there is.
        double a = Math.max(near - within, 1 / (t[t.length - 1] - t[0]));
        double b = near + within;
        double c = b - GOLDEN * (b - a);
        double d = a + GOLDEN * (b - a);
        double atC = left(t, v, wave(t, v, c));
        double atD = left(t, v, wave(t, v, d));
        while (b - a > 1e-13 * near && c < d) {
            if (atC < atD) {
                b = d;
                d = c;
                atD = atC;
                c = b - GOLDEN * (b - a);
                atC = left(t, v, wave(t, v, c));
            } else {
                a = c;
                c = d;
                atC = atD;
                d = a + GOLDEN * (b - a);
                atD = left(t, v, wave(t, v, d));
            }
        }
        return wave(t, v, (a + b) / 2);
    }

    /** The squares of what a sinusoid and its line leave. */
    private static double left(double[] t, double[] v, Wave w) {
        double sum = 0;
        for (int i = 0; i < v.length; i++) {
            double e = v[i] - w.constant - w.slope * t[i] - w.at(t[i]);
            sum += e * e;
        }
        return sum;
    }

    /** The one of a frequency, by least squares together with a straight line. */
    private static Wave wave(double[] t, double[] v, double frequency) {
        double scale = t[t.length - 1];
        double[][] normal = new double[4][4];
        double[] right = new double[4];
        double[] basis = new double[4];
        for (int i = 0; i < v.length; i++) {
            double w = 2 * Math.PI * frequency * t[i];
            basis[0] = Math.cos(w);
            basis[1] = Math.sin(w);
            basis[2] = 1;
            basis[3] = t[i] / scale;
            for (int r = 0; r < 4; r++) {
                right[r] += basis[r] * v[i];
                for (int c = 0; c <= r; c++) {
                    normal[r][c] += basis[r] * basis[c];
                    normal[c][r] = normal[r][c];
                }
            }
        }
        var solver = new QRDecomposition(new Array2DRowRealMatrix(normal, false), 1e-12 * v.length).getSolver();
        if (!solver.isNonSingular()) {
            return new Wave(frequency, 0, 0, 0, 0);
        }
        double[] x = solver.solve(new ArrayRealVector(right, false)).toArray();
        return new Wave(frequency, x[0], x[1], x[2], x[3] / scale);
    }
}
