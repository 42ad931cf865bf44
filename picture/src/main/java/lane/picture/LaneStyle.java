package lane.picture;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.study.ChartLook;
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
        Map<String, Integer> members = new LinkedHashMap<>();
        for (Source source : sources) {
            if (source instanceof Source.Simulation s) {
                members.merge(s.family(), 1, Integer::sum);
            }
        }
        List<String> families = List.copyOf(members.keySet());
        Map<String, Integer> seen = new HashMap<>();
        int measured = 0;
        List<LaneStyle> styles = new ArrayList<>();
        for (Source source : sources) {
            styles.add(
                    switch (source) {
                        case Source.Simulation s ->
                            run(
                                    seen.merge(s.family(), 1, Integer::sum) - 1,
                                    members.getOrDefault(s.family(), 1),
                                    families.indexOf(s.family()),
                                    palette);
                        case Source.Reference r
                        when r.kind() == Source.Kind.THEORY -> new LaneStyle(palette.ink(), 2.2f, null, 2, true, false);
                        case Source.Reference _ -> measured(measured++, palette);
                    });
        }
        return styles;
    }

    /** The second measurement takes another hue, and so on. */
    private static LaneStyle measured(int place, Palette palette) {
        return new LaneStyle(turned(palette.measured(), place), 1.5f, null, 0, false, true);
    }

    /** Steps of the golden ratio never meet again. */
    private static Color turned(Color colour, int steps) {
        if (steps == 0) {
            return colour;
        }
        float[] hsb = Color.RGBtoHSB(colour.getRed(), colour.getGreen(), colour.getBlue(), null);
        return Color.getHSBColor(hsb[0] + 0.618034f * steps, hsb[1], hsb[2]);
    }

    /**
     * @param place of the run among the n of its family
     * @param family its place among the families
     */
    private static LaneStyle run(int place, int n, int family, Palette palette) {
        // Two members take the ends of the scale, one the darkest; more than three are spread between.
        double at = n == 1 ? 2 : 2.0 * place / (n - 1);
        int low = (int) Math.min(1, Math.floor(at));
        Color colour = mix(palette.family()[low], palette.family()[low + 1], at - low);
        // A second family takes another hue.
        colour = turned(colour, family);
        int kind = (int) Math.round(at);
        return new LaneStyle(colour, 2f, DASHES[kind], CORNERS[kind], true, false);
    }

    private static Color mix(Color a, Color b, double f) {
        return new Color(
                (int) Math.round(a.getRed() + f * (b.getRed() - a.getRed())),
                (int) Math.round(a.getGreen() + f * (b.getGreen() - a.getGreen())),
                (int) Math.round(a.getBlue() + f * (b.getBlue() - a.getBlue())));
    }

    /** This style as somebody chose to change it; itself where nobody did. */
    public LaneStyle looking(ChartLook.@Nullable LaneLook look) {
        if (look == null) {
            return this;
        }
        boolean line = this.line || look.dash() != null;
        return new LaneStyle(
                look.colour().isBlank() ? colour : Color.decode(look.colour()),
                look.width() > 0 ? (float) look.width() : width,
                look.dash() == null
                        ? dash
                        : switch (look.dash()) {
                            case SOLID -> null;
                            case DASHED -> DASHES[1];
                            case DOTTED -> DASHES[0];
                            case LONG -> DASHES[2];
                        },
                corners,
                line,
                hollow);
    }

    /** Points as a line. */
    public LaneStyle drawn() {
        return new LaneStyle(colour, 1.4f, dash, 2, true, false);
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
