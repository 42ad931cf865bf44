package lane.check;

/** Measures of the difference of two curves. */
public enum Norm {
    L1("L1", "mean magnitude"),
    L2("L2", "root mean square"),
    LINF("Linf", "largest magnitude"),
    BIAS("bias", "mean, with its sign"),
    CORRELATION("1 - r", "one less the correlation"),
    INSIDE("outside", "share of points outside of the datum's uncertainty");

    private final String symbol;
    private final String word;

    Norm(String symbol, String word) {
        this.symbol = symbol;
        this.word = word;
    }

    public String symbol() {
        return symbol;
    }

    public String word() {
        return word;
    }

    /** Whether it is a share, which has no unit and needs no scale. */
    public boolean share() {
        return this == CORRELATION || this == INSIDE;
    }
}
