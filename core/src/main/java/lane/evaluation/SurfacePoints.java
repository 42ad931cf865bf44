package lane.evaluation;

import lane.base.Sum;
import lane.formula.Program;

/** Quadrature points of faces, a block at a time: places, area vectors (their length is the weight in square metres), values. */
public final class SurfacePoints {
    /** How many there are. */
    public int n;

    public final double[] x = new double[Program.BLOCK];
    public final double[] y = new double[Program.BLOCK];
    public final double[] z = new double[Program.BLOCK];
    public final double[] nx = new double[Program.BLOCK];
    public final double[] ny = new double[Program.BLOCK];
    public final double[] nz = new double[Program.BLOCK];

    private final double[] area = new double[Program.BLOCK];
    private boolean sized;
    /** Values of the asked quantities as their programs give them: {@code value[quantity][component][point]}. */
    public final double[][][] value;

    /** For terms that are summed. */
    public final double[] term = new double[Program.BLOCK];

    SurfacePoints(int quantities) {
        value = new double[quantities][][];
    }

    /** Other points stand here from now on. */
    void begin() {
        n = 0;
        sized = false;
    }

    /** The area that each stands for. */
    public double[] area() {
        if (!sized) {
            for (int i = 0; i < n; i++) {
                area[i] = Math.sqrt(nx[i] * nx[i] + ny[i] * ny[i] + nz[i] * nz[i]);
            }
            sized = true;
        }
        return area;
    }

    /** The component of the area vectors along an axis of space, 0 to 2. */
    public double[] along(int axis) {
        return switch (axis) {
            case 0 -> nx;
            case 1 -> ny;
            case 2 -> nz;
            default -> throw new IllegalArgumentException("no axis " + axis);
        };
    }

    /** Where they are along an axis of space, 0 to 2. */
    public double[] place(int axis) {
        return switch (axis) {
            case 0 -> x;
            case 1 -> y;
            case 2 -> z;
            default -> throw new IllegalArgumentException("no axis " + axis);
        };
    }

    /** Adds the area to a sum. */
    public void addArea(Sum to) {
        to.add(area(), n);
    }

    /** Adds a value times the area to a sum. */
    public void addTimesArea(double[] values, Sum to) {
        to.addProducts(values, area(), n);
    }

    /** Writes the component of the area vectors that meets vectors into {@link #term}. */
    public double[] through(double[][] vector) {
        double[] a = vector[0];
        double[] b = vector[1];
        double[] c = vector[2];
        for (int i = 0; i < n; i++) {
            term[i] = a[i] * nx[i] + b[i] * ny[i] + c[i] * nz[i];
        }
        return term;
    }
}
