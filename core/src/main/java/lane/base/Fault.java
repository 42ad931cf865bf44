package lane.base;

/** What kind of trouble a refusal tells of; its short words stand where there is no room for the sentence. */
public enum Fault {
    /** A definition or an input that cannot be used, for a reason that has no kind of its own. */
    REFUSED("no answer"),
    MISSING_FIELD("no field"),
    MISSING_PART("no part"),
    /** A name that stands for nothing: a station, a quantity, a lane. */
    MISSING("not there"),
    /** The place lies outside of the run. */
    OUTSIDE("outside"),
    UNIT("unit?"),
    /** A region with an opening. */
    NOT_CLOSED("not closed"),
    /** A file that could not be read, or was not read yet. */
    NOT_READ("not read"),
    /** A file whose content contradicts itself or its format. */
    DAMAGED("damaged"),
    /** A file of a format, or a part of one, that is not read here. */
    UNSUPPORTED("not supported"),
    /** A limit that protects the machine. */
    TOO_LARGE("too large"),
    /** A formula with a wrong token. */
    FORMULA("formula"),
    /** A definition that needs itself. */
    LOOP("a loop"),
    /** A reference has nothing to say. */
    NO_VALUE("no value"),
    /** A fault of the program itself. */
    PROGRAM("a fault");

    private final String brief;

    Fault(String brief) {
        this.brief = brief;
    }

    /** Two or three words for a chip. */
    public String brief() {
        return brief;
    }
}
