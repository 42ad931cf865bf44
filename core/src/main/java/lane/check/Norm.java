package lane.check;

/** Measures of the difference of two curves. */
public enum Norm {
    L1("L1", "mean magnitude"),
    L2("L2", "root mean square"),
    LINF("Linf", "largest magnitude");

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
}
