package lane.desk;

import lane.mesh.Point;
import lane.picture.Ticks;
import lane.unit.Unit;

/** Lengths as the window tells them: all of a study in one unit. */
public record Lengths(Unit unit) {
    public static Lengths of(Session session) {
        return new Lengths(session.results().length());
    }

    public String symbol() {
        return unit.symbol();
    }

    public double shown(double metres) {
        return unit.fromSi(metres);
    }

    public double metres(double shown) {
        return unit.toSi(shown);
    }

    /** How many of it a metre has. */
    public double perMetre() {
        return 1 / unit.factor();
    }

    /** Three digits, with the unit. */
    public String brief(double metres) {
        return Ticks.brief(shown(metres)) + " " + symbol();
    }

    /** To a hundredth, as under a pointer. */
    public String place(Point p) {
        return "x " + hundredth(p.x()) + "  y " + hundredth(p.y()) + "  z " + hundredth(p.z()) + " " + symbol();
    }

    public String hundredth(double metres) {
        return new lane.base.Figures(2, 0).text(shown(metres));
    }

    /** Three numbers of a place, with the unit. */
    public String three(Point p) {
        return Ui.shortest(shown(p.x())) + ", " + Ui.shortest(shown(p.y())) + ", " + Ui.shortest(shown(p.z())) + " "
                + symbol();
    }
}
