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
            double[] f = new double[PARTS + 1];
            double j = j1(root * Jacket.RO);
            double y = y1(root * Jacket.RO);
            for (int i = 0; i <= PARTS; i++) {
                f[i] = mode(root, at(i), j, y);
            }
            // The start is rest: what has to die away is the steady swirl itself.
            double over = integral(f, true);
            double norm = integral(f, false);
            out[n] = new double[] {-over / norm * mode(root, radius, j, y), nu * root * root};
        }
        return out;
    }

    private static final int PARTS = 240;

    private static double at(int i) {
        return Jacket.RI + (Jacket.RO - Jacket.RI) * i / PARTS;
    }

    /**
     * Vanishes at the shell and, for an eigenvalue, at the rotor.
     *
     * @param j and {@code y}: the two functions at the shell
     */
    private static double mode(double k, double r, double j, double y) {
        return j1(k * r) * y - y1(k * r) * j;
    }

    private static double atRotor(double k) {
        return mode(k, Jacket.RI, j1(k * Jacket.RO), y1(k * Jacket.RO));
    }

    private static double root(double low, double high) {
        double a = low;
        double b = high;
        double at = atRotor(a);
        for (int i = 0; i < 52; i++) {
            double m = (a + b) / 2;
            if (Math.signum(atRotor(m)) == Math.signum(at)) {
                a = m;
            } else {
                b = m;
            }
        }
        return (a + b) / 2;
    }

    /** Of a mode with the steady swirl, or with itself, weighted by the radius: Simpson's rule. */
    private static double integral(double[] f, boolean steady) {
        double sum = 0;
        for (int i = 0; i <= PARTS; i++) {
            double weight = i == 0 || i == PARTS ? 1 : i % 2 == 1 ? 4 : 2;
            sum += weight * at(i) * f[i] * (steady ? Jacket.swirl(at(i)) : f[i]);
        }
        return sum * (Jacket.RO - Jacket.RI) / PARTS / 3;
    }

    private static double j1(double x) {
        double[] pq = hankel(x);
        return Math.sqrt(2 / (Math.PI * x)) * (pq[0] * Math.cos(x - PHASE) - pq[1] * Math.sin(x - PHASE));
    }

    private static double y1(double x) {
        double[] pq = hankel(x);
        return Math.sqrt(2 / (Math.PI * x)) * (pq[0] * Math.sin(x - PHASE) + pq[1] * Math.cos(x - PHASE));
    }

    private static final double PHASE = 0.75 * Math.PI;

    /** Hankel's expansion of the first order for large arguments: to round-off above 12, and all here are. */
    private static double[] hankel(double x) {
        double[] pq = {1, 0};
        double term = 1;
        for (int k = 1; k <= 24; k++) {
            double odd = 2 * k - 1;
            term *= (4 - odd * odd) / (k * 8 * x);
            // Of the four signs in turn.
            pq[k % 2] += k % 4 < 2 ? term : -term;
        }
        return pq;
    }
}
