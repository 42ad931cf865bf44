package lane.check;

/** What a comparison says, told by word and shape as well as colour. */
public enum Verdict {
    WITHIN("within"),
    OUT("out"),
    UNDECIDED("undecided"),
    NO_DATA("no data");

    /** In words, for trails. */
    public static final String RULE = "within if d + U <= t, out if d - U > t, else undecided";

    private final String word;

    Verdict(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    /**
     * With difference d, uncertainty U and tolerance t, all of one unit: within if d + U <= t, out if d - U > t, else
     * undecided. No data when the difference is not a number; an unknown uncertainty (NaN) counts as zero.
     */
    public static Verdict of(double difference, double uncertainty, double tolerance) {
        double d = Math.abs(difference);
        double u = Double.isNaN(uncertainty) ? 0 : uncertainty;
        if (Double.isNaN(d)) {
            return NO_DATA;
        }
        return d + u <= tolerance ? WITHIN : d - u > tolerance ? OUT : UNDECIDED;
    }
}
