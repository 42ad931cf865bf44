package lane.formula;

/** The loops behind operators and elementary functions. Conditions are 1 for yes and 0 for no. */
final class Kernels {
    private Kernels() {}

    static final Kernel ADD = (in, out, n) -> {
        double[] a = in[0];
        double[] b = in[1];
        for (int i = 0; i < n; i++) {
            out[i] = a[i] + b[i];
        }
    };
    static final Kernel SUBTRACT = (in, out, n) -> {
        double[] a = in[0];
        double[] b = in[1];
        for (int i = 0; i < n; i++) {
            out[i] = a[i] - b[i];
        }
    };
    static final Kernel MULTIPLY = (in, out, n) -> {
        double[] a = in[0];
        double[] b = in[1];
        for (int i = 0; i < n; i++) {
            out[i] = a[i] * b[i];
        }
    };
    static final Kernel DIVIDE = (in, out, n) -> {
        double[] a = in[0];
        double[] b = in[1];
        for (int i = 0; i < n; i++) {
            out[i] = a[i] / b[i];
        }
    };
    static final Kernel NEGATE = (in, out, n) -> {
        double[] a = in[0];
        for (int i = 0; i < n; i++) {
            out[i] = -a[i];
        }
    };
    static final Kernel SQRT = (in, out, n) -> {
        double[] a = in[0];
        for (int i = 0; i < n; i++) {
            out[i] = Math.sqrt(a[i]);
        }
    };
    static final Kernel ABS = (in, out, n) -> {
        double[] a = in[0];
        for (int i = 0; i < n; i++) {
            out[i] = Math.abs(a[i]);
        }
    };
    static final Kernel LEAST = (in, out, n) -> {
        double[] a = in[0];
        double[] b = in[1];
        for (int i = 0; i < n; i++) {
            out[i] = Math.min(a[i], b[i]);
        }
    };
    static final Kernel GREATEST = (in, out, n) -> {
        double[] a = in[0];
        double[] b = in[1];
        for (int i = 0; i < n; i++) {
            out[i] = Math.max(a[i], b[i]);
        }
    };
    static final Kernel LESS = (in, out, n) -> {
        double[] a = in[0];
        double[] b = in[1];
        for (int i = 0; i < n; i++) {
            out[i] = a[i] < b[i] ? 1 : 0;
        }
    };
    static final Kernel AT_MOST = (in, out, n) -> {
        double[] a = in[0];
        double[] b = in[1];
        for (int i = 0; i < n; i++) {
            out[i] = a[i] <= b[i] ? 1 : 0;
        }
    };
    static final Kernel EQUAL = (in, out, n) -> {
        double[] a = in[0];
        double[] b = in[1];
        for (int i = 0; i < n; i++) {
            out[i] = a[i] == b[i] ? 1 : 0;
        }
    };
    static final Kernel NOT = (in, out, n) -> {
        double[] a = in[0];
        for (int i = 0; i < n; i++) {
            out[i] = a[i] == 0 ? 1 : 0;
        }
    };
    /** Where the condition is not known, because a value in it is none, its branch is the second. */
    static final Kernel CHOOSE = (in, out, n) -> {
        double[] c = in[0];
        double[] a = in[1];
        double[] b = in[2];
        for (int i = 0; i < n; i++) {
            out[i] = c[i] != 0 ? a[i] : b[i];
        }
    };

    static final Kernel POWER = two(Math::pow);
    static final Kernel ATAN2 = two(Math::atan2);
    static final Kernel HYPOT = two(Math::hypot);
    /** What is left of a division, with the sign of the divisor. */
    static final Kernel MODULO = two((a, b) -> a - b * Math.floor(a / b));

    /** A function of one number, as a loop. */
    static Kernel one(java.util.function.DoubleUnaryOperator f) {
        return (in, out, n) -> {
            double[] a = in[0];
            for (int i = 0; i < n; i++) {
                out[i] = f.applyAsDouble(a[i]);
            }
        };
    }

    static Kernel two(java.util.function.DoubleBinaryOperator f) {
        return (in, out, n) -> {
            double[] a = in[0];
            double[] b = in[1];
            for (int i = 0; i < n; i++) {
                out[i] = f.applyAsDouble(a[i], b[i]);
            }
        };
    }

    /** Piecewise linear between ascending points; none outside them. */
    static Kernel table(double[] x, double[] y) {
        return one(v -> {
            int n = x.length;
            if (!(v >= x[0] && v <= x[n - 1])) {
                return Double.NaN;
            }
            int at = java.util.Arrays.binarySearch(x, v);
            if (at >= 0) {
                return y[at];
            }
            int above = -at - 1;
            double share = (v - x[above - 1]) / (x[above] - x[above - 1]);
            return y[above - 1] + share * (y[above] - y[above - 1]);
        });
    }

    /**
     * Principal value of the symmetric tensor xx yy zz xy yz xz, by Jacobi rotations to round-off.
     *
     * @param rank 0 for the greatest, 2 for the least
     */
    static Kernel principal(int rank) {
        return (in, out, n) -> {
            double[] w = new double[3];
            for (int i = 0; i < n; i++) {
                eigenvalues(in[0][i], in[1][i], in[2][i], in[3][i], in[4][i], in[5][i], w);
                out[i] = w[rank];
            }
        };
    }

    private static void eigenvalues(double xx, double yy, double zz, double xy, double yz, double xz, double[] w) {
        double[][] a = {{xx, xy, xz}, {xy, yy, yz}, {xz, yz, zz}};
        for (int sweep = 0; sweep < 12; sweep++) {
            double off = Math.abs(a[0][1]) + Math.abs(a[0][2]) + Math.abs(a[1][2]);
            double size = Math.abs(a[0][0]) + Math.abs(a[1][1]) + Math.abs(a[2][2]);
            if (!(off > 1e-300 + 1e-17 * size)) {
                break;
            }
            rotate(a, 0, 1, 2);
            rotate(a, 0, 2, 1);
            rotate(a, 1, 2, 0);
        }
        double p = a[0][0];
        double q = a[1][1];
        double r = a[2][2];
        w[0] = Math.max(p, Math.max(q, r));
        w[2] = Math.min(p, Math.min(q, r));
        w[1] = Math.max(Math.min(p, q), Math.min(Math.max(p, q), r));
    }

    private static void rotate(double[][] a, int p, int q, int k) {
        if (a[p][q] == 0) {
            return;
        }
        double theta = (a[q][q] - a[p][p]) / (2 * a[p][q]);
        double t = Math.signum(theta == 0 ? 1 : theta) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
        double c = 1 / Math.sqrt(t * t + 1);
        double s = t * c;
        double off = a[p][q];
        a[p][p] -= t * off;
        a[q][q] += t * off;
        a[p][q] = 0;
        a[q][p] = 0;
        double kp = a[k][p];
        double kq = a[k][q];
        a[k][p] = c * kp - s * kq;
        a[p][k] = a[k][p];
        a[k][q] = s * kp + c * kq;
        a[q][k] = a[k][q];
    }
}
