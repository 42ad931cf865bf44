package lane.formula;

/** What is known of every place without any field: keys under which a program asks for it, in SI units. */
public enum Spot {
    /** Coordinates, 3 components, in metres. */
    PLACE("position", 3, "m"),
    /** Unit normal of the surface, out of the run or as the station looks. */
    NORMAL("normal", 3, "1"),
    /** Distance from the nearest wall. */
    WALL_DISTANCE("wall_distance", 1, "m"),
    /** Volume of the cell around the place. */
    CELL_VOLUME("cell_volume", 1, "m3"),
    /** Area of the face at the place. */
    FACE_AREA("face_area", 1, "m2");

    private final String word;
    private final int components;
    private final String unit;

    Spot(String word, int components, String unit) {
        this.word = word;
        this.components = components;
        this.unit = unit;
    }

    public String word() {
        return word;
    }

    Meaning.Stored stored() {
        return new Meaning.Stored(this, components, lane.unit.Unit.of(unit));
    }
}
