package lane.picture.field;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Line2D;
import java.util.List;
import java.util.Locale;
import lane.mesh.Point;
import lane.picture.Palette;

/** Distances and the angle between picked places. */
public final class Distances {
    private Distances() {}

    /** What two or three places say, in words. */
    public static String words(List<Point> p) {
        if (p.size() < 2) {
            return p.isEmpty() ? "Click two places, or three for an angle." : "Click the second place.";
        }
        Point d = p.get(1).minus(p.get(0));
        String out = String.format(
                Locale.ROOT,
                "%s mm (%s, %s, %s)",
                number(1000 * d.norm()),
                number(1000 * d.x()),
                number(1000 * d.y()),
                number(1000 * d.z()));
        return p.size() < 3 ? out : out + String.format(Locale.ROOT, "; angle %.4g°", angle(p));
    }

    /** The angle at the second of three places, in degrees. */
    public static double angle(List<Point> p) {
        Point a = p.get(0).minus(p.get(1));
        Point b = p.get(2).minus(p.get(1));
        return Math.toDegrees(Math.atan2(a.cross(b).norm(), a.dot(b)));
    }

    private static String number(double v) {
        return String.format(Locale.ROOT, "%.5g", v)
                .replaceAll("(\\.\\d*?)0+$", "$1")
                .replaceAll("\\.$", "");
    }

    static void paint(Graphics2D g, Camera camera, int width, int height, List<Point> places, Palette palette) {
        double[][] at = new double[places.size()][3];
        for (int i = 0; i < at.length; i++) {
            Point p = places.get(i);
            camera.project(p.x(), p.y(), p.z(), width, height, at[i]);
        }
        for (int pass = 0; pass < 2; pass++) {
            g.setStroke(new BasicStroke(pass == 0 ? 4 : 1.6f));
            g.setColor(pass == 0 ? Color.WHITE : Palette.MARK);
            for (int i = 0; i + 1 < at.length; i++) {
                g.draw(new Line2D.Double(at[i][0], at[i][1], at[i + 1][0], at[i + 1][1]));
            }
        }
        g.setColor(Palette.MARK);
        for (double[] p : at) {
            g.fill(new Ellipse2D.Double(p[0] - 3.5, p[1] - 3.5, 7, 7));
        }
        double[] last = at[Math.min(1, at.length - 1)];
        Annotations.text(g, words(places), last[0] + 12, last[1] + 18, palette, true);
    }
}
