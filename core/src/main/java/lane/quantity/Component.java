package lane.quantity;

/** What is taken of a field with several components: short ways to write a formula. */
public enum Component {
    /** All components; a scalar's only one. */
    ALL("as stored", "%s"),
    X("x component", "%s.x"),
    Y("y component", "%s.y"),
    Z("z component", "%s.z"),
    MAGNITUDE("magnitude", "norm(%s)"),
    /** Component away from the axis. */
    RADIAL("radial component", "%s.radial"),
    /** Component around the axis, right-hand rule. */
    SWIRL("component around the axis", "%s.swirl"),
    /** Component along the axis. */
    AXIAL("component along the axis", "%s.axial");

    private final String word;
    private final String formula;

    Component(String word, String formula) {
        this.word = word;
        this.formula = formula;
    }

    public String word() {
        return word;
    }

    /**
     * The formula of it.
     *
     * @param field as it is written in a formula
     */
    public String of(String field) {
        return String.format(formula, field);
    }
}
