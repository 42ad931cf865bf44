package lane.picture;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
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
        List<LaneStyle> styles = new ArrayList<>();
        for (Source source : sources) {
            styles.add(
                    switch (source) {
                        case Source.Simulation s -> run(s, sources, palette);
                        case Source.Reference r
                        when r.kind() == Source.Kind.THEORY -> new LaneStyle(palette.ink(), 2.2f, null, 2, true, false);
                        case Source.Reference r -> measured(r, sources, palette);
                    });
        }
        return styles;
    }

    /** The second measurement takes another hue, and so on. */
    private static LaneStyle measured(Source.Reference one, List<Source> sources, Palette palette) {
        int place = sources.stream()
                .filter(s -> s instanceof Source.Reference r && r.kind() == Source.Kind.MEASUREMENT)
                .toList()
                .indexOf(one);
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
