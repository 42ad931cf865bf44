package lane.picture;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/**
 * How a lane is drawn: colour, dash and marker say the same thing three times. Runs go from light to dark with their
 * place in the family, theory is ink, measurement is hollow circles with error bars.
 *
 * @param corners of the filled marker: 3, 4, 6; 0 a hollow circle, 2 an upright bar
 */
public record LaneStyle(Color colour, float width, float @Nullable [] dash, int corners, boolean line, boolean hollow) {
    private static final float[][] DASHES = {{1.5f, 3f}, {6f, 3f}, {14f, 3f}};
    private static final int[] CORNERS = {3, 4, 6};

    /** Styles of all sources of a study, in order. */
    public static List<LaneStyle> of(List<Source> sources, Palette palette) {
        List<LaneStyle> styles = new ArrayList<>();
        for (Source source : sources) {
            styles.add(
                    switch (source) {
                        case Source.Simulation s -> run(s, sources, palette);
                        case Source.Reference r
                        when r.kind() == Source.Kind.THEORY -> new LaneStyle(palette.ink(), 2.2f, null, 2, true, false);
                        case Source.Reference _ -> new LaneStyle(palette.measured(), 1.5f, null, 0, false, true);
                    });
        }
        return styles;
    }

    private static LaneStyle run(Source.Simulation run, List<Source> sources, Palette palette) {
        List<String> families = sources.stream()
                .filter(Source.Simulation.class::isInstance)
                .map(s -> ((Source.Simulation) s).family())
                .distinct()
                .toList();
        List<Source> members = sources.stream()
                .filter(s -> s instanceof Source.Simulation o && o.family().equals(run.family()))
                .toList();
        int place = members.indexOf(run);
        int n = members.size();
        // Two members take the ends of the scale, one the darkest; more than three are spread between.
        double at = n == 1 ? 2 : 2.0 * place / (n - 1);
        int low = (int) Math.min(1, Math.floor(at));
        Color colour = mix(palette.family()[low], palette.family()[low + 1], at - low);
        int family = families.indexOf(run.family());
        if (family > 0) {
            float[] hsb = Color.RGBtoHSB(colour.getRed(), colour.getGreen(), colour.getBlue(), null);
            // A second family takes another hue: steps of the golden ratio never meet again.
            colour = Color.getHSBColor(hsb[0] + 0.618034f * family, hsb[1], hsb[2]);
        }
        int kind = (int) Math.round(at);
        return new LaneStyle(colour, 2f, DASHES[kind], CORNERS[kind], true, false);
    }

    private static Color mix(Color a, Color b, double f) {
        return new Color(
                (int) Math.round(a.getRed() + f * (b.getRed() - a.getRed())),
                (int) Math.round(a.getGreen() + f * (b.getGreen() - a.getGreen())),
                (int) Math.round(a.getBlue() + f * (b.getBlue() - a.getBlue())));
    }

    public BasicStroke stroke() {
        boolean dots = dash != null && dash[0] < 3;
        return new BasicStroke(
                width, dots ? BasicStroke.CAP_ROUND : BasicStroke.CAP_BUTT, BasicStroke.JOIN_ROUND, 10, dash, 0);
    }

    /** The marker about the origin, about nine pixels across. */
    public Shape marker() {
        return switch (corners) {
            case 0 -> new Ellipse2D.Double(-4, -4, 8, 8);
            case 2 -> new Rectangle2D.Double(-1.1, -5, 2.2, 10);
            default -> polygon(corners, corners == 4 ? 5.4 : 4.9);
        };
    }

    private static Shape polygon(int n, double radius) {
        var path = new Path2D.Double();
        double turn = n == 4 ? Math.PI / 4 : Math.PI / 2;
        for (int i = 0; i < n; i++) {
            double a = turn + 2 * Math.PI * i / n;
            double x = radius * Math.cos(a);
            double y = -radius * Math.sin(a);
            if (i == 0) {
                path.moveTo(x, y);
            } else {
                path.lineTo(x, y);
            }
        }
        path.closePath();
        return path;
    }
}
