package lane.demo;

/**
 * The spindle jacket: oil in the annular gap between a turning rotor and a fixed shell, made up for this program.
 * Constants in SI units and the exact developed solution.
 */
public final class Jacket {
    public static final double RI = 0.030;
    public static final double RO = 0.036;
    public static final double LENGTH = 0.120;
    public static final double RHO = 870;
    public static final double MU = 0.10;
    public static final double CP = 1900;
    public static final double K = 0.13;
    public static final double G = 4700;
    public static final double OMEGA = 50;
    public static final double T_IN = 313.15;
    public static final double T_SHELL = 333.15;

    private Jacket() {}

    static final double A = -OMEGA * RI * RI / (RO * RO - RI * RI);
    static final double B = OMEGA * RI * RI * RO * RO / (RO * RO - RI * RI);

    /** Developed swirl speed: A r + B / r. */
    public static double swirl(double r) {
        return A * r + B / r;
    }

    /** Developed axial speed. */
    public static double axial(double r) {
        return G / (4 * MU) * (RO * RO - r * r - (RO * RO - RI * RI) * Math.log(RO / r) / Math.log(RO / RI));
    }

    /** Volume flow of the developed axial profile, m3/s. */
    public static double volumeFlow() {
        double d = RO * RO - RI * RI;
        return Math.PI * G / (8 * MU) * (Math.pow(RO, 4) - Math.pow(RI, 4) - d * d / Math.log(RO / RI));
    }

    /** Torque on the oil by the rotor if the swirl were developed everywhere, N m. */
    public static double developedTorque() {
        return 4 * Math.PI * MU * B * LENGTH;
    }
}
