package lane.check;

/** What differences from a datum are relative to. */
public enum Scale {
    ABSOLUTE("absolute"),
    RANGE("of the datum's range"),
    LARGEST("of the datum's largest magnitude"),
    MEAN("of the datum's mean magnitude");

    private final String word;

    Scale(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }
}
