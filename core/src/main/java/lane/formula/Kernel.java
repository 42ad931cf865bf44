package lane.formula;

/** One step of a program over a block of places. */
@FunctionalInterface
interface Kernel {
    /** Computes the first {@code n} values of {@code out} from those of the inputs; {@code out} may be an input. */
    void apply(double[][] in, double[] out, int n);
}
