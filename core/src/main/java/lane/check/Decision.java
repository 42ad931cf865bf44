package lane.check;

/**
 * What somebody says of a check: a note, or that a deviation is accepted. It stands beside the verdict and changes it nowhere.
 *
 * @param accepted whether the deviation is accepted
 * @param because why
 * @param by who says so
 * @param on the day, as {@code 2026-11-30}
 */
public record Decision(boolean accepted, String because, String by, String on) {
    public Decision {
        because = because == null ? "" : because;
        by = by == null ? "" : by;
        on = on == null ? "" : on;
    }

    /** As it stands in the ledger. */
    public String words() {
        return (accepted ? "Accepted" : "Noted")
                + (by.isBlank() ? "" : " by " + by)
                + (on.isBlank() ? "" : ", " + on)
                + (because.isBlank() ? "." : ": " + because);
    }
}
