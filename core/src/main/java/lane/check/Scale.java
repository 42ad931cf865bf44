package lane.check;

/** What differences from a datum are relative to. */
public enum Scale {
    ABSOLUTE("absolute"),
    RANGE("of the datum's range"),
    LARGEST("of the datum's largest magnitude"),
    MEAN("of the datum's mean magnitude"),
    /** A band about the datum: at each point a share of its magnitude there. */
    LOCAL("of the datum's magnitude at each place"),
    /** The tolerance is a coverage factor k: |E| is to stay within k u_val (ASME V&amp;V 20). */
    UNCERTAINTY("times the standard uncertainty of the difference");

    private final String word;

    Scale(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }
}
