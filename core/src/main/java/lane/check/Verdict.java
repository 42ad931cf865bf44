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

    /**
     * Of numbers that are each to keep a tolerance, with an uncertainty of their own: the place that decides. Out if one of them
     * is out, within if all are, else undecided; it is the place that is worst in that respect.
     *
     * @param differences how far each is away; NaN for none
     * @param uncertainties half-widths, NaN for unknown
     * @return its index; -1 where there is no number
     */
    public static int deciding(double[] differences, double[] uncertainties, double tolerance) {
        int surely = -1;
        int perhaps = -1;
        for (int i = 0; i < differences.length; i++) {
            if (!Double.isNaN(differences[i])) {
                double u = Double.isNaN(uncertainties[i]) ? 0 : uncertainties[i];
                double u0 = surely < 0 || Double.isNaN(uncertainties[surely]) ? 0 : uncertainties[surely];
                double u1 = perhaps < 0 || Double.isNaN(uncertainties[perhaps]) ? 0 : uncertainties[perhaps];
                surely = surely < 0 || differences[i] - u > differences[surely] - u0 ? i : surely;
                perhaps = perhaps < 0 || differences[i] + u > differences[perhaps] + u1 ? i : perhaps;
            }
        }
        if (surely < 0) {
            return -1;
        }
        double u = Double.isNaN(uncertainties[surely]) ? 0 : uncertainties[surely];
        return differences[surely] - u > tolerance ? surely : perhaps;
    }
}
