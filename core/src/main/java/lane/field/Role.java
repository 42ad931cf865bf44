package lane.field;

import java.util.Locale;

/** What a boundary part is to the flow; it decides what its values are checked for. */
public enum Role {
    NONE("no role"),
    INLET("inlet"),
    OUTLET("outlet"),
    WALL("wall"),
    SYMMETRY("symmetry"),
    CUT("cut");

    private final String word;

    Role(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    public boolean opening() {
        return this == INLET || this == OUTLET;
    }

    /** By the trade's usual names; none where the name does not tell. */
    public static Role guess(String name) {
        String n = name.toLowerCase(Locale.ROOT);
        if (n.contains("inlet") || n.contains("inflow")) {
            return INLET;
        }
        if (n.contains("outlet") || n.contains("outflow")) {
            return OUTLET;
        }
        if (n.contains("symm")) {
            return SYMMETRY;
        }
        return n.contains("wall") ? WALL : NONE;
    }
}
