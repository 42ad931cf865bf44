package lane.station;

import lane.mesh.Axis;
import lane.unit.Unit;

/** What a profile is drawn against. */
public enum Abscissa {
    ARC("distance along the line", "m"),
    FRACTION("fraction of the line", "1"),
    X("x", "m"),
    Y("y", "m"),
    Z("z", "m"),
    RADIUS("radius", "m"),
    AXIAL("length along the axis", "m"),
    ANGLE("angle about the axis", "rad");

    private final String word;
    private final String unit;

    Abscissa(String word, String unit) {
        this.word = word;
        this.unit = unit;
    }

    public String word() {
        return word;
    }

    /** The SI unit of its values. */
    public Unit unit() {
        return Unit.of(unit);
    }

    /** The abscissa of a place: {@code arc} metres along a line of the given length. */
    public double of(double arc, double length, double x, double y, double z, Axis axis) {
        return switch (this) {
            case ARC -> arc;
            case FRACTION -> length == 0 ? 0 : arc / length;
            case X -> x;
            case Y -> y;
            case Z -> z;
            case RADIUS -> axis.radius(x, y, z);
            case AXIAL -> axis.along(x, y, z);
            case ANGLE -> axis.angle(x, y, z);
        };
    }
}
