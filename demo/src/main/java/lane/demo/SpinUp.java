package lane.demo;

/**
 * The swirl in the gap from rest, the rotor turning from the first moment on: the equation of {@link JacketSolver} with its
 * change in time, by backward differences in time of first order and steps that begin small. Long after the start it is the
 * steady solution.
 */
final class SpinUp {
    /** Stored times, and steps between two of them. */
    static final int TIMES = 40;

    private static final int STEPS = 8;
    private static final double END = 0.8;

    private final JacketSolver flow;
    private final double[][] swirl;
    private double time;

    SpinUp(JacketSolver flow) {
        this.flow = flow;
        swirl = new double[flow.z.length][flow.r.length];
        for (double[] row : swirl) {
            row[0] = Jacket.OMEGA * Jacket.RI;
        }
    }

    /** A stored time: they lie closer together at the start. */
    static double time(int i) {
        double s = (i + 1.0) / TIMES;
        return END * s * s;
    }

    double time() {
        return time;
    }

    /** Goes on to a time. */
    void to(double end) {
        double begin = time;
        for (int k = 1; k <= STEPS; k++) {
            double next = begin + (end - begin) * k / STEPS;
            step(next - time);
            time = next;
        }
    }

    private void step(double dt) {
        for (int i = 1; i < swirl.length; i++) {
            swirl[i] = flow.swirlAt(i, swirl, dt);
        }
    }

    /** The flow with its swirl and pressure at the time that was gone to. */
    JacketSolver now() {
        return flow.with(swirl);
    }

    /**
     * The developed swirl from rest between two cylinders, at one radius: the steady one, less what dies away as
     * {@code exp(-nu k^2 t)}, by the method of eigenfunctions. Far enough from the inlet the jacket's swirl is that until the
     * oil from there arrives.
     *
     * @param terms how many eigenfunctions
     * @return pairs of amplitude in m/s and rate in 1/s
     */
    static double[][] series(double radius, int terms) {
        double[][] out = new double[terms][];
        double k = Math.PI / (Jacket.RO - Jacket.RI);
        double nu = Jacket.MU / Jacket.RHO;
        for (int n = 0; n < terms; n++) {
            double root = root(k * (n + 0.8), k * (n + 1.3));
            // The start is rest: what has to die away is the steady swirl itself.
            double over = integral(root, true);
            double norm = integral(root, false);
            out[n] = new double[] {-over / norm * mode(root, radius), nu * root * root};
        }
        return out;
    }

    /** Vanishes at the shell and, for an eigenvalue, at the rotor. */
    private static double mode(double k, double r) {
        return j1(k * r) * y1(k * Jacket.RO) - y1(k * r) * j1(k * Jacket.RO);
    }

    private static double root(double low, double high) {
        double a = low;
        double b = high;
        double at = mode(a, Jacket.RI);
        for (int i = 0; i < 80; i++) {
            double m = (a + b) / 2;
            double now = mode(m, Jacket.RI);
            if (Math.signum(now) == Math.signum(at)) {
                a = m;
            } else {
                b = m;
            }
        }
        return (a + b) / 2;
    }

    /** Of the mode with the steady swirl, or with itself, weighted by the radius: Simpson's rule. */
    private static double integral(double k, boolean steady) {
        int n = 400;
        double h = (Jacket.RO - Jacket.RI) / n;
        double sum = 0;
        for (int i = 0; i <= n; i++) {
            double r = Jacket.RI + i * h;
            double f = mode(k, r);
            double weight = i == 0 || i == n ? 1 : i % 2 == 1 ? 4 : 2;
            sum += weight * r * f * (steady ? Jacket.swirl(r) : f);
        }
        return sum * h / 3;
    }

    /** Bessel's integral; the trapezoidal rule is exact to round-off for what is periodic. */
    private static double j1(double x) {
        int n = 200;
        double sum = 0;
        for (int i = 0; i < n; i++) {
            double t = Math.PI * (i + 0.5) / n;
            sum += Math.cos(t - x * Math.sin(t));
        }
        return sum / n;
    }

    /** Neumann's function by its integrals; for arguments above 5 the second one is done at 8. */
    private static double y1(double x) {
        int n = 4000;
        double first = 0;
        double second = 0;
        for (int i = 0; i < n; i++) {
            double t = Math.PI * (i + 0.5) / n;
            first += Math.sin(x * Math.sin(t) - t);
            double u = 8 * (i + 0.5) / n;
            second += (Math.exp(u) - Math.exp(-u)) * Math.exp(-x * Math.sinh(u));
        }
        return first / n - 8 * second / n / Math.PI;
    }
}
