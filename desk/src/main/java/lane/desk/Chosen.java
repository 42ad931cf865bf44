package lane.desk;

/** Kinds of things of which one at a time is chosen. */
public enum Chosen {
    SOURCE,
    STATION,
    QUANTITY,
    READING,
    /** A term of a balance. */
    TERM,
    CHECK,
    /** A quantity that the picture is asked to be coloured by. */
    COLOUR
}
