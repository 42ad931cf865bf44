package lane.demo;

/**
 * The flow in the gap on a grid of (r, z) nodes: second-order finite volumes around the nodes in r, second-order backward
 * differences of variable step along z (the first step is of first order). Diffusion along the axis is left out, as in
 * boundary-layer theory, and there is no secondary flow: the axial profile is developed from the inlet on. So swirl
 * enters by the rotor's shear, leaves by the shell's and with the oil, and nothing else takes part in its balance.
 *
 * <p>At the inlet edge of the rotor the shear grows without bound (the swirl jumps there), so integrals over the rotor
 * converge more slowly than second order: an honest flaw of the scenario, not of the method.
 */
final class JacketSolver {
    final double[] r;
    final double[] z;
    /** Axial speed by radius; swirl, temperature and pressure by {@code [z][r]}. */
    final double[] axial;

    final double[][] swirl;
    final double[][] temperature;
    final double[][] pressure;

    /** The same flow with another swirl, and the pressure that it makes. */
    JacketSolver with(double[][] other) {
        return new JacketSolver(this, other);
    }

    private JacketSolver(JacketSolver of, double[][] swirl) {
        r = of.r;
        z = of.z;
        axial = of.axial;
        temperature = of.temperature;
        this.swirl = swirl;
        pressure = pressure();
    }

    JacketSolver(int radial, int along) {
        r = new double[radial + 1];
        z = new double[along + 1];
        for (int j = 0; j <= radial; j++) {
            r[j] = Jacket.RI + (Jacket.RO - Jacket.RI) * j / radial;
        }
        r[radial] = Jacket.RO;
        for (int i = 0; i <= along; i++) {
            // Finer towards the inlet, where swirl and temperature change fast.
            z[i] = Jacket.LENGTH * Math.pow((double) i / along, 1.5);
        }
        axial = axial();
        swirl = swirl();
        temperature = temperature();
        pressure = pressure();
    }

    private double dr() {
        return (Jacket.RO - Jacket.RI) / (r.length - 1);
    }

    private double half(int j) {
        return (r[j] + r[j + 1]) / 2;
    }

    private double[] axial() {
        int n = r.length - 1;
        double[] low = new double[n + 1];
        double[] mid = new double[n + 1];
        double[] up = new double[n + 1];
        double[] rhs = new double[n + 1];
        mid[0] = 1;
        mid[n] = 1;
        for (int j = 1; j < n; j++) {
            low[j] = half(j - 1) / dr();
            up[j] = half(j) / dr();
            mid[j] = -low[j] - up[j];
            rhs[j] = -Jacket.G / Jacket.MU * r[j] * dr();
        }
        return solve(low, mid, up, rhs);
    }

    private double[][] swirl() {
        double[][] f = new double[z.length][r.length];
        f[0][0] = Jacket.OMEGA * Jacket.RI;
        for (int i = 1; i < z.length; i++) {
            f[i] = swirlAt(i, f, Double.POSITIVE_INFINITY);
        }
        return f;
    }

    /**
     * The swirl at node i of the axis, from that before it along the axis.
     *
     * @param f by node of the axis: up to i - 1 as it is now, at i as it was a step of time before
     * @param dt the step of time, implicit of first order; infinite for the steady flow
     */
    double[] swirlAt(int i, double[][] f, double dt) {
        int n = r.length - 1;
        double[] step = step(i);
        double[] low = new double[n + 1];
        double[] mid = new double[n + 1];
        double[] up = new double[n + 1];
        double[] rhs = new double[n + 1];
        mid[0] = 1;
        rhs[0] = Jacket.OMEGA * Jacket.RI;
        mid[n] = 1;
        for (int j = 1; j < n; j++) {
            // r^2 times the equation: flux of angular momentum is mu r^3 d(f/r)/dr.
            double inner = Jacket.MU * cube(half(j - 1)) / dr();
            double outer = Jacket.MU * cube(half(j)) / dr();
            double carry = Jacket.RHO * axial[j] * r[j] * r[j] * dr();
            double kept = Jacket.RHO * r[j] * r[j] * dr() / dt;
            low[j] = -inner / r[j - 1];
            up[j] = -outer / r[j + 1];
            mid[j] = (inner + outer) / r[j] + carry * step[0] + kept;
            rhs[j] = -carry * (step[1] * f[i - 1][j] + (i > 1 ? step[2] * f[i - 2][j] : 0)) + kept * f[i][j];
        }
        return solve(low, mid, up, rhs);
    }

    private double[][] temperature() {
        int n = r.length - 1;
        double[][] t = new double[z.length][];
        t[0] = new double[n + 1];
        java.util.Arrays.fill(t[0], Jacket.T_IN);
        t[0][n] = Jacket.T_SHELL;
        for (int i = 1; i < z.length; i++) {
            double[] step = step(i);
            double[] low = new double[n + 1];
            double[] mid = new double[n + 1];
            double[] up = new double[n + 1];
            double[] rhs = new double[n + 1];
            mid[n] = 1;
            rhs[n] = Jacket.T_SHELL;
            for (int j = 0; j < n; j++) {
                double inner = j == 0 ? 0 : Jacket.K * half(j - 1) / dr();
                double outer = Jacket.K * half(j) / dr();
                // The rotor is adiabatic: its node has half a volume, whose speed is taken half-way out.
                double speed = j == 0 ? (3 * axial[0] + axial[1]) / 4 : axial[j];
                double carry = Jacket.RHO * Jacket.CP * speed * r[j] * (j == 0 ? dr() / 2 : dr());
                low[j] = -inner;
                up[j] = -outer;
                mid[j] = inner + outer + carry * step[0];
                rhs[j] = -carry * (step[1] * t[i - 1][j] + (i > 1 ? step[2] * t[i - 2][j] : 0));
            }
            t[i] = solve(low, mid, up, rhs);
        }
        return t;
    }

    /** p = G (L - z) + rho integral of swirl^2 / r from the rotor outwards, by the trapezoidal rule. */
    private double[][] pressure() {
        double[][] p = new double[z.length][r.length];
        for (int i = 0; i < z.length; i++) {
            p[i][0] = Jacket.G * (Jacket.LENGTH - z[i]);
            for (int j = 1; j < r.length; j++) {
                double a = swirl[i][j - 1] * swirl[i][j - 1] / r[j - 1];
                double b = swirl[i][j] * swirl[i][j] / r[j];
                p[i][j] = p[i][j - 1] + Jacket.RHO * dr() * (a + b) / 2;
            }
        }
        return p;
    }

    /** Swirl component of the wall's pull on the oil, Pa: from the flux half a cell off the wall. */
    double swirlShear(int i, boolean rotor) {
        int j = rotor ? 0 : r.length - 2;
        double[] f = swirl[i];
        double flux = Jacket.MU * cube(half(j)) * (f[j + 1] / r[j + 1] - f[j] / r[j]) / dr();
        double wall = rotor ? Jacket.RI : Jacket.RO;
        return (rotor ? -1 : 1) * flux / (wall * wall);
    }

    /** Axial component of the wall's pull on the oil, Pa. */
    double axialShear(boolean rotor) {
        int j = rotor ? 0 : r.length - 2;
        double wall = rotor ? Jacket.RI : Jacket.RO;
        double flux = Jacket.MU * half(j) * (axial[j + 1] - axial[j]) / dr();
        // The half volume at the wall is driven by the pressure gradient too.
        double driven = Jacket.G * Math.abs(half(j) * half(j) - wall * wall) / 2;
        return rotor ? -(flux + driven) / wall : (flux - driven) / wall;
    }

    /** Coefficients of d/dz at node i for the values at i, i-1 and i-2. */
    private double[] step(int i) {
        double h = z[i] - z[i - 1];
        if (i == 1) {
            return new double[] {1 / h, -1 / h, 0};
        }
        double w = h / (z[i - 1] - z[i - 2]);
        return new double[] {(1 + 2 * w) / ((1 + w) * h), -(1 + w) / h, w * w / ((1 + w) * h)};
    }

    private static double cube(double v) {
        return v * v * v;
    }

    /** Thomas' algorithm; the arrays are used up. */
    private static double[] solve(double[] low, double[] mid, double[] up, double[] rhs) {
        int n = mid.length;
        for (int j = 1; j < n; j++) {
            double f = low[j] / mid[j - 1];
            mid[j] -= f * up[j - 1];
            rhs[j] -= f * rhs[j - 1];
        }
        rhs[n - 1] /= mid[n - 1];
        for (int j = n - 2; j >= 0; j--) {
            rhs[j] = (rhs[j] - up[j] * rhs[j + 1]) / mid[j];
        }
        return rhs;
    }
}
