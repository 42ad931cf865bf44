package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import lane.base.Work;
import lane.cut.Cut;
import lane.cut.Glyphs;
import lane.cut.Stencil;
import lane.cut.Streamlines;
import lane.desk.Background;
import lane.evaluation.Laid;
import lane.field.Field;
import lane.field.Run;
import lane.mesh.Point;
import lane.station.PathSamples;
import lane.station.Placement;
import lane.station.Placer;
import lane.station.Points;
import lane.station.Region;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Within;
import org.jspecify.annotations.Nullable;

/** Streamlines and arrows of a station, made behind the window and kept until what they depend on changes. */
final class FlowShapes {
    /** What is shown of a vector field at a station. */
    enum Kind {
        STREAMLINES,
        ARROWS,
        TANGENTIAL_ARROWS
    }

    /**
     * What is drawn.
     *
     * @param time since the seed at each node of the cut, in seconds; null where it has none
     * @param length along the line from the seed, in metres; null where it has none
     */
    record Shape(Cut cut, double @Nullable [] time, double @Nullable [] length) {}

    private record Key(Kind kind, lane.station.Shape place, Object run, Field field) {}

    private static final int SEEDS = 120;
    private static final int ARROWS = 400;
    private final Background background;
    private final Consumer<String> say;

    /** @param say told why a shape could not be made */
    FlowShapes(Background background, Consumer<String> say) {
        this.background = background;
        this.say = say;
    }

    /** The shape if it is there; else it is begun and null comes back. */
    @Nullable
    Shape of(Kind kind, Station station, @Nullable Laid laid, Run run, Field field) {
        var key = new Key(kind, station.shape(), run.key(), field);
        Background.Made made = background.of(key, w -> make(kind, station, laid, run, field, w));
        if (made != null && made.thing() == null) {
            say.accept(made.trouble());
        }
        return made == null ? null : (Shape) made.thing();
    }

    private static Shape make(Kind kind, Station station, @Nullable Laid laid, Run run, Field field, Work work) {
        double size = run.mesh().modelSize();
        double[] seeds = seeds(station, laid, kind == Kind.STREAMLINES ? SEEDS : ARROWS);
        if (kind == Kind.STREAMLINES) {
            Streamlines lines = Streamlines.of(
                    run.locator(), field, seeds, Streamlines.Way.BOTH, 1e-5 * size, 5 * size, 0.02 * size, work);
            return new Shape(
                    Glyphs.tubes(lines, 0.0025 * size), Glyphs.around(lines.time()), Glyphs.around(lines.length()));
        }
        Placement at = Placer.points(run.locator(), seeds, work);
        double[] normals = kind == Kind.TANGENTIAL_ARROWS && station.shape() instanceof Section s
                ? normals(s.normal(), at.size())
                : null;
        Cut arrows = Glyphs.arrows(
                seeds, at.cell(), new Stencil(at.start(), at.node(), at.share()), field, 0.08 * size, normals);
        return new Shape(arrows, null, null);
    }

    private static double[] normals(Point n, int count) {
        double[] out = new double[3 * count];
        for (int i = 0; i < count; i++) {
            out[3 * i] = n.x();
            out[3 * i + 1] = n.y();
            out[3 * i + 2] = n.z();
        }
        return out;
    }

    /** Places spread over a station, always the same. */
    private static double[] seeds(Station station, @Nullable Laid laid, int most) {
        List<Point> out = new ArrayList<>();
        switch (station.shape()) {
            case Points p -> out.addAll(p.points());
            case lane.station.Shape.Path p -> {
                PathSamples s = PathSamples.of(p.sampled(new lane.station.Sampling.Even(25), p.abscissa()));
                for (int i = 0; i < s.size(); i++) {
                    out.add(new Point(s.xyz()[3 * i], s.xyz()[3 * i + 1], s.xyz()[3 * i + 2]));
                }
            }
            case Region r when r.within() instanceof Within.Ball b -> ball(b, most, out);
            default -> {
                if (laid != null && laid.cut() != null) {
                    over(laid.cut(), most, out);
                }
            }
        }
        double[] xyz = new double[3 * out.size()];
        for (int i = 0; i < out.size(); i++) {
            xyz[3 * i] = out.get(i).x();
            xyz[3 * i + 1] = out.get(i).y();
            xyz[3 * i + 2] = out.get(i).z();
        }
        return xyz;
    }

    /** Places of a body-centred lattice within a ball, about so many, always the same. */
    private static void ball(Within.Ball b, int most, List<Point> out) {
        double step = b.radius() * Math.cbrt(4.0 / 3 * Math.PI * 2 / most);
        int n = (int) Math.ceil(b.radius() / step);
        for (int i = -2 * n; i <= 2 * n; i++) {
            for (int j = -2 * n; j <= 2 * n; j++) {
                for (int k = -2 * n; k <= 2 * n; k++) {
                    boolean lattice = (i & 1) == (j & 1) && (j & 1) == (k & 1);
                    Point d = new Point(i * step / 2, j * step / 2, k * step / 2);
                    if (lattice && d.norm() <= b.radius()) {
                        out.add(b.centre().plus(d));
                    }
                }
            }
        }
    }

    /** Middles of faces, one for each equal share of the area. */
    private static void over(Cut cut, int most, List<Point> out) {
        var cell = new lane.mesh.Cell(cut.surface());
        double[] area = new double[cut.owner().length];
        double sum = 0;
        for (int f = 0; f < area.length; f++) {
            area[f] = cell.load(f).measure();
            sum += area[f];
        }
        double[] c = new double[3];
        double share = sum / most;
        double next = share / 2;
        double at = 0;
        for (int f = 0; f < area.length; f++) {
            at += area[f];
            if (at >= next) {
                cell.load(f).centre(c);
                out.add(new Point(c[0], c[1], c[2]));
                while (next <= at) {
                    next += share;
                }
            }
        }
    }
}
