package lane.desk.stations;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.base.Memo;
import lane.cut.Cut;
import lane.desk.Background;
import lane.desk.Chosen;
import lane.desk.Lengths;
import lane.desk.Session;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.Laid;
import lane.evaluation.StationResolver;
import lane.evaluation.SurfaceValues;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.mesh.Axis;
import lane.mesh.CellMeasures;
import lane.mesh.Point;
import lane.picture.Ticks;
import lane.picture.field.Annotations;
import lane.picture.field.Camera;
import lane.picture.field.Scene;
import lane.quantity.Component;
import lane.quantity.Quantity;
import lane.reading.FieldDifference;
import lane.station.Enclosing;
import lane.station.Placement;
import lane.station.Region;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Within;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Makes what a field picture shows out of the study, its results and how the picture is looked at. */
final class PictureScene {
    private final Session session;
    private final PictureState state;
    private final FlowShapes flow;
    private final Background background;
    /** For the first picture and the one beside it: what its scene was made of, and the scene. */
    private final Object[] keys = new Object[2];

    private final FieldScene[] scenes = new FieldScene[2];

    PictureScene(Session session, PictureState state, Runnable again) {
        this.session = session;
        this.state = state;
        background = new Background("pictures", again);
        flow = new FlowShapes(background, session::say);
        session.whenClosed(background::stop);
    }

    /** The scene last made; null for none. */
    FieldScene scene(int slot) {
        return scenes[slot];
    }

    private Study study() {
        return session.study();
    }

    private @Nullable Run run(String lane) {
        return session.results().runs().get(lane);
    }

    EvaluationContext lens() {
        return session.lens();
    }

    /** The selected station as it stands in space; null for none. */
    @Nullable
    Station chosen() {
        return study().station(session.selected(Chosen.STATION))
                .map(session::placed)
                .orElse(null);
    }

    private static @Nullable Shape shape(@Nullable Station station) {
        return station == null ? null : station.shape();
    }

    /** The shell that is drawn laid flat; null for none. */
    private @Nullable Shell laidFlat(Run run) {
        return state.flat && shape(chosen()) instanceof Shell h && !flatRun(run) ? h : null;
    }

    /** A place of a picture as it is in space, and its words. */
    PlaceTip.Place place(int slot, Point p) {
        Shell h = scenes[slot] == null ? null : laidFlat(scenes[slot].run());
        return h == null
                ? PlaceTip.Place.of(p, Lengths.of(session))
                : PlaceTip.Place.onShell(h, p, Lengths.of(session));
    }

    private record DifferenceKey(Object of, Object datum, Quantity quantity, EvaluationContext lens) {}

    private record TimesKey(
            Source.Simulation source,
            Object run,
            List<Double> times,
            @Nullable Quantity quantity,
            EvaluationContext lens) {}

    /** What a run is shown by: another's values, or a difference of its own. */
    private record Seen(Run run, String lane, @Nullable Quantity quantity, EvaluationContext lens, String name) {
        /** Fields that surfaces of stations carry along. */
        List<String> carried() {
            return quantity == null ? List.of() : List.copyOf(lens.fields(quantity));
        }
    }

    /** Told after both pictures were made: what none of them shows is let go. */
    void settle() {
        background.settle();
    }

    /** What the first picture shows, or the one beside it ({@code slot} 1). */
    FieldPane.Content content(int slot) {
        Quantity q = study().quantity(state.quantity).orElse(null);
        Seen seen = slot == 1 && state.difference ? difference(q) : plain(slot == 0 ? state.lane : state.beside, q);
        if (seen == null) {
            scenes[slot] = null;
            keys[slot] = null;
            return FieldPane.Content.nothing(session.palette());
        }
        Station chosen = chosen();
        boolean unrolled = laidFlat(seen.run) != null;
        boolean alone = unrolled || state.flat && shape(chosen) instanceof Section && !flatRun(seen.run);
        List<Part> extra = new ArrayList<>();
        List<Object> shown = new ArrayList<>();
        List<Scene.Away> away = new ArrayList<>();
        IdentityHashMap<Part, SurfaceValues> own = new IdentityHashMap<>();
        boolean ofLines = q == null && !state.quantity.isEmpty();
        for (Station local : study().stations()) {
            Station s = session.placed(local);
            if (alone && !s.equals(chosen)) {
                continue;
            }
            Laid laid = laid(local, seen.lane);
            if (s.equals(chosen) || state.drawn.contains(s.id())) {
                cut(s, laid, seen, unrolled ? own : null, extra, shown);
            }
            shapes(s, laid, seen, ofLines, extra, shown, own);
            away(s, away);
        }
        Set<String> hidden = new HashSet<>(state.hidden);
        if (alone) {
            seen.run.parts().forEach(p -> hidden.add(p.name()));
        }
        // Parts would hide what stands inside them.
        boolean faint = !extra.isEmpty() && away.isEmpty() && !flatRun(seen.run);
        var how = new FieldScene.Shown(state.clear, hidden, faint);
        List<float[]> others = others(slot, seen);
        Object key = List.of(
                seen.run.key(),
                String.valueOf(seen.quantity),
                seen.lens,
                how,
                shown,
                state.colouring,
                away,
                others.size(),
                ofLines ? state.quantity : "");
        if (!key.equals(keys[slot])) {
            scenes[slot] = FieldScene.of(
                    seen.run,
                    ofLines ? null : seen.quantity,
                    seen.lens,
                    how,
                    extra,
                    state.colouring,
                    others,
                    away,
                    ofLines || unrolled ? own : null);
            keys[slot] = key;
        }
        FieldScene scene = scenes[slot];
        Annotations.Flat flat = state.flat ? flat(seen.run, chosen, unrolled) : null;
        boolean none = scene.values().stream().allMatch(Objects::isNull);
        String name = ofLines ? state.quantity : seen.name;
        Annotations.Bar bar = none ? null : scene.bar(name, state.shaded && flat == null);
        var over = new Annotations.Over(
                unrolled ? List.of() : lines(chosen, seen.lane, alone),
                alone ? List.of() : new NoteMarks(session).labels(seen.run, seen.lane),
                List.of(),
                state.measured == null ? List.of() : state.measured,
                bar,
                flat);
        List<FieldPane.Grip> grips = chosen == null || unrolled ? List.of() : Grips.of(chosen);
        return new FieldPane.Content(
                scene,
                over,
                grips,
                state.shaded,
                state.edges,
                session.palette(),
                flat == null ? null : into(flat),
                flat == null
                        ? ""
                        : alone ? Objects.requireNonNull(chosen).id() + unrolled + extra.isEmpty() : seen.lane);
    }

    private @Nullable Seen plain(String lane, @Nullable Quantity q) {
        Run run = run(lane);
        if (run == null || q != null && waits(run, q)) {
            return null;
        }
        if (q != null && !lens().definitions().beyond(q)) {
            // What the other lanes have at a place is told beside it, and may be part of the range.
            for (Source source : study().lanes()) {
                Run other = run(source.id());
                if (other != null
                        && !numbers(other, lens().fields(q))
                        && state.colouring.ends() == Colouring.Ends.LANES) {
                    return null;
                }
            }
        }
        return new Seen(run, lane, q, lens(), q == null ? "" : q.name());
    }

    /** What looks beyond the place takes long the first time, and is made behind the window. */
    private boolean waits(Run run, Quantity q) {
        EvaluationContext lens = lens();
        if (lens.definitions().beyond(q)) {
            return background.of(new DifferenceKey(run.key(), "", q, lens), w -> BoundQuantity.of(run, q, lens))
                    == null;
        }
        return !numbers(run, lens.fields(q));
    }

    /** Whether the numbers of these fields are in memory; if not, they are read behind the window. */
    private boolean numbers(Run run, Set<String> names) {
        List<Field> waiting = Stream.concat(
                        run.fields().stream(), run.parts().stream().flatMap(p -> p.fields().stream()))
                .filter(f -> names.contains(f.name()) && !f.inMemory())
                .toList();
        if (waiting.isEmpty()) {
            return true;
        }
        return background.of(List.of("numbers", run.key(), names), w -> {
                    waiting.forEach(f -> {
                        w.poll();
                        f.values();
                    });
                    return true;
                })
                != null;
    }

    private @Nullable Seen difference(@Nullable Quantity q) {
        Run of = run(state.lane);
        Run datum = run(state.beside);
        if (of == null || datum == null || q == null) {
            return null;
        }
        EvaluationContext lens = lens();
        Background.Made made = background.of(
                new DifferenceKey(of.key(), datum.key(), q, lens),
                w -> FieldDifference.difference(of, datum, q, lens, w));
        if (made == null) {
            return null;
        }
        if (made.thing() == null) {
            session.say(made.trouble());
            return null;
        }
        var result = (FieldDifference.Result) made.thing();
        String unit;
        try {
            Unit shown = BoundQuantity.of(datum, q, lens).unit();
            unit = shown.known() ? shown.difference().symbol() : "";
        } catch (LaneException e) {
            unit = "";
        }
        var as = new Quantity("difference", q.name(), FieldDifference.DIFFERENCE, Component.ALL, unit);
        String outside = result.outside() > 0 ? ",\n" + Ticks.brief(100 * result.outside()) + " % outside" : "";
        String name = "Δ " + q.name() + outside;
        return new Seen(
                result.run(), state.beside, as, EvaluationContext.of(List.of(as), List.of(), study().axis()), name);
    }

    private static boolean flatRun(Run run) {
        return run.mesh().dimension() == 2;
    }

    private void cut(
            Station s,
            @Nullable Laid laid,
            Seen seen,
            @Nullable Map<Part, SurfaceValues> unrolled,
            List<Part> extra,
            List<Object> shown) {
        if (laid == null || laid.cut() == null || laid.cut().empty()) {
            if (shape(s) instanceof Enclosing && laid != null) {
                extra.addAll(laid.parts());
                shown.add(laid.parts());
            }
            return;
        }
        Cut cut = laid.cut();
        if (unrolled != null && shape(s) instanceof Shell h) {
            extra.add(unrolled(s.name(), h, cut, seen, unrolled));
            shown.add(List.of(System.identityHashCode(cut), "flat"));
            return;
        }
        List<String> carried = seen.carried();
        Part part = cut.part(s.name(), seen.run, carried);
        boolean relief = shape(s) instanceof Section && state.option("relief", s.id()) && seen.quantity != null;
        extra.add(relief ? Reliefs.of((Section) s.shape(), cut, part, seen.run, seen.quantity, seen.lens) : part);
        shown.add(List.of(System.identityHashCode(cut), relief));
    }

    /** A shell laid flat, with the values that it has where it stands in space. */
    private Part unrolled(String name, Shell h, Cut shell, Seen seen, Map<Part, SurfaceValues> own) {
        Cut flat = lane.cut.CylinderCut.unrolled(shell, h.axis(), h.radius(), Math.toRadians(h.seam()), true);
        List<String> carried = seen.carried();
        Part part = flat.part(name, seen.run, carried);
        double[] x = flat.surface().xyz();
        double[] round = new double[x.length];
        for (int i = 0; i < x.length; i += 3) {
            Point p = h.inSpace(x[i], x[i + 1]);
            round[i] = p.x();
            round[i + 1] = p.y();
            round[i + 2] = p.z();
        }
        try {
            Part inSpace = part.on(flat.surface().withNodes(round));
            own.put(part, SurfaceValues.of(seen.run, inSpace, Objects.requireNonNull(seen.quantity), seen.lens));
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
        return part;
    }

    /** Streamlines and arrows of a station. */
    private void shapes(
            Station s,
            @Nullable Laid laid,
            Seen seen,
            boolean ofLines,
            List<Part> extra,
            List<Object> shown,
            Map<Part, SurfaceValues> own) {
        Field v = vector(seen.run);
        // A surface that is not laid into the run yet would give no seeds.
        boolean waiting = shape(s) instanceof Shape.Surface && (laid == null || laid.cut() == null);
        if (v == null || seen.run.mesh().dimension() != 3 || waiting) {
            return;
        }
        for (var kind : FlowShapes.Kind.values()) {
            String what =
                    switch (kind) {
                        case STREAMLINES -> "streams";
                        case ARROWS -> "arrows";
                        case TANGENTIAL_ARROWS -> "within";
                    };
            FlowShapes.Shape made = state.option(what, s.id()) ? flow.of(kind, s, laid, seen.run, v) : null;
            if (made == null) {
                continue;
            }
            List<String> carried = seen.carried();
            Part part = made.cut()
                    .part(
                            s.name() + (kind == FlowShapes.Kind.STREAMLINES ? ", streamlines" : ", arrows"),
                            seen.run,
                            carried);
            extra.add(part);
            shown.add(System.identityHashCode(made));
            if (ofLines && made.time() != null) {
                boolean time = state.quantity.equals(PictureState.TIME);
                own.put(
                        part,
                        numbers(
                                time ? made.time() : made.length(),
                                time ? Unit.of("s") : session.results().length()));
            }
        }
    }

    private static SurfaceValues numbers(double @Nullable [] exact, Unit unit) {
        float[] value = new float[Objects.requireNonNull(exact).length];
        for (int i = 0; i < value.length; i++) {
            value[i] = (float) exact[i];
        }
        return new SurfaceValues(true, value, exact, unit);
    }

    /** The vector field that streamlines and arrows follow: that of the first vector quantity that the run has. */
    private @Nullable Field vector(Run run) {
        EvaluationContext lens = lens();
        return study().quantities().stream()
                .flatMap(q -> lens.fields(q).stream())
                .flatMap(n -> run.field(n).stream())
                .filter(f -> f.components() == 3)
                .findFirst()
                .or(() -> run.fields().stream().filter(f -> f.components() == 3).findFirst())
                .orElse(null);
    }

    private void away(Station s, List<Scene.Away> away) {
        if (shape(s) instanceof Section cut && state.option("away", s.id())) {
            away.add(Scene.Away.before(cut.point(), cut.normal()));
        }
        if (shape(s) instanceof Region r && r.within() instanceof Within.InBox b && state.option("away", s.id())) {
            away.add(Scene.Away.inside(b.box().bounds(), b.box().frame()));
        }
    }

    /** Values that take part in the range besides those of the picture itself. */
    private List<float[]> others(int slot, Seen seen) {
        List<float[]> out = new ArrayList<>();
        if (seen.quantity == null || seen.quantity.id().equals("difference")) {
            return out;
        }
        String other = slot == 0 ? state.beside : state.lane;
        boolean two = !state.beside.isEmpty() && !state.difference && run(other) != null;
        switch (state.colouring.ends()) {
            case LANES ->
                study().lanes().stream()
                        .map(x -> run(x.id()))
                        .filter(r -> r != null && r != seen.run)
                        .forEach(r -> out.addAll(FieldScene.values(r, seen.quantity, seen.lens)));
            case TIMES -> out.addAll(times(seen));
            default -> {
                if (two) {
                    out.addAll(FieldScene.values(Objects.requireNonNull(run(other)), seen.quantity, seen.lens));
                }
            }
        }
        return out;
    }

    /** The least and the greatest value on the boundary at any stored time; nothing until all were looked at. */
    private List<float[]> times(Seen seen) {
        Source.Simulation source = study().source(seen.lane)
                .filter(Source.Simulation.class::isInstance)
                .map(Source.Simulation.class::cast)
                .orElse(null);
        if (source == null || seen.run.times().size() < 2) {
            return List.of();
        }
        var key = new TimesKey(source, seen.run.key(), seen.run.times(), seen.quantity, seen.lens);
        Axis axis = study().axis();
        Background.Made made = background.of(key, w -> {
            float least = Float.POSITIVE_INFINITY;
            float greatest = Float.NEGATIVE_INFINITY;
            var places = new StationResolver(session.library(), Memo.NONE);
            for (double t : key.times()) {
                Run at = places.turned(session.library().run(source, new TimeSelector.At(t, 0), w), axis);
                for (float[] values : FieldScene.values(at, Objects.requireNonNull(key.quantity()), key.lens())) {
                    for (float v : values) {
                        least = v < least ? v : least;
                        greatest = v > greatest ? v : greatest;
                    }
                }
            }
            return new float[] {least, greatest};
        });
        return made == null || made.thing() == null ? List.of() : List.of((float[]) made.thing());
    }

    private List<Annotations.Line> lines(@Nullable Station chosen, String lane, boolean alone) {
        List<Annotations.Line> lines = new ArrayList<>();
        for (Station local : study().stations()) {
            Station s = session.placed(local);
            Annotations.Line line = Drawn.line(s, s.equals(chosen), samples(local, lane), laid(local, lane));
            if (line != null && (!alone || s.equals(chosen))) {
                lines.add(line);
            }
        }
        study().frame(frameKey()).ifPresent(f -> {
            try {
                lines.addAll(Drawn.frame(f, study().placed(f.id()), size()));
            } catch (LaneException e) {
                // Its card tells what is wrong with the frame.
                lines.clear();
            }
        });
        Run of = run(lane);
        if (of != null && !alone) {
            lines.addAll(new NoteMarks(session).arrows(of, lane, size()));
        }
        Session.Mark mark = session.mark();
        if (mark != null && mark.place() != null && mark.lane().equals(lane)) {
            lines.add(Annotations.Line.dot(mark.name(), mark.place()));
        }
        return lines;
    }

    /** Key of the selected frame; blank for none. */
    String frameKey() {
        String selected = session.selected(Chosen.STATION);
        return selected.startsWith(StationsView.FRAME) ? selected.substring(StationsView.FRAME.length()) : "";
    }

    private double size() {
        return session.results().runs().values().stream()
                .mapToDouble(r -> r.mesh().modelSize())
                .max()
                .orElse(1);
    }

    /** What the results know of a station as it stands now in a lane; null for nothing. */
    private @Nullable Laid laid(Station local, String lane) {
        return fresh(local)
                ? session.results().laid().getOrDefault(local.id(), Map.of()).get(lane)
                : null;
    }

    private @Nullable Placement samples(Station local, String lane) {
        return fresh(local)
                ? session.results()
                        .placements()
                        .getOrDefault(local.id(), Map.of())
                        .get(lane)
                : null;
    }

    private boolean fresh(Station local) {
        return session.results().study().station(local.id()).map(local::equals).orElse(false);
    }

    /** The direction that a flat picture is looked along, so that its first axis runs to the right. */
    private static Point into(Annotations.Flat flat) {
        return flat.up().along().cross(flat.right().along());
    }

    /** Axes of a plane run, of a section, or of a shell laid flat; null where nothing is flat. */
    private Annotations.@Nullable Flat flat(Run run, @Nullable Station chosen, boolean unrolled) {
        var lengths = Lengths.of(session);
        if (unrolled && shape(chosen) instanceof Shell h) {
            return new Annotations.Flat(
                    new Point(0, 0, 0),
                    new Annotations.Flat.AxisOf(
                            "angle about the axis", "°", new Point(1, 0, 0), Math.toDegrees(1 / h.radius()), h.seam()),
                    new Annotations.Flat.AxisOf(
                            "along the axis", lengths.symbol(), new Point(0, 1, 0), lengths.perMetre(), 0));
        }
        Point normal;
        Point origin;
        if (flatRun(run)) {
            double[] n = CellMeasures.plane(run.mesh());
            normal = new Point(n[0], n[1], n[2]);
            origin = new Point(0, 0, 0);
        } else if (shape(chosen) instanceof Section s) {
            normal = s.normal();
            origin = main(s.normal()) ? new Point(0, 0, 0) : s.point();
        } else {
            return null;
        }
        // Seen from above, from the front or from the right, as drawings are.
        boolean back = Math.abs(normal.z()) > 0.9 ? normal.z() < 0 : normal.x() - normal.y() < 0;
        Point eye = back ? normal.times(-1) : normal;
        double[] angles = Camera.angles(eye.times(-1));
        var camera = new Camera(origin, angles[0], angles[1], 1);
        return new Annotations.Flat(origin, axis(run, camera.right()), axis(run, camera.up()));
    }

    private static boolean main(Point n) {
        return Math.max(Math.abs(n.x()), Math.max(Math.abs(n.y()), Math.abs(n.z()))) > 1 - 1e-12;
    }

    private Annotations.Flat.AxisOf axis(Run run, Point along) {
        String name = null;
        Axis axis = study().axis();
        if (run.stated().turn() != null && flatRun(run)) {
            name = Math.abs(along.dot(axis.direction())) > 0.999999
                    ? "along the axis"
                    : Math.abs(along.dot(axis.zero())) > 0.999999 ? "radius" : null;
        }
        double sign = 1;
        for (int d = 0; name == null && d < 3; d++) {
            double c = d == 0 ? along.x() : d == 1 ? along.y() : along.z();
            if (Math.abs(c) > 1 - 1e-9) {
                name = "xyz".substring(d, d + 1);
                sign = Math.signum(c);
            }
        }
        var lengths = Lengths.of(session);
        return new Annotations.Flat.AxisOf(
                name == null ? "in the plane, from its point" : name,
                lengths.symbol(),
                along,
                lengths.perMetre() * sign,
                0);
    }
}
