package lane.evaluation;

import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import lane.base.Content;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.cut.Cut;
import lane.cut.CylinderCut;
import lane.cut.LaidSheet;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.Turn;
import lane.field.Values;
import lane.mesh.Axis;
import lane.mesh.Mesh;
import lane.station.CutCurve;
import lane.station.Placement;
import lane.station.Region;
import lane.station.Regions;
import lane.station.Resolver;
import lane.station.Shape;
import lane.station.Sheet;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Within;
import org.jspecify.annotations.Nullable;

/**
 * Stations resolved on runs, each kept under what it depends on: the mesh by its content, the station's shape by value, and the
 * values that shape it. Two times on one mesh share everything but isosurfaces. How a kind is resolved it says itself.
 */
public final class StationResolver {
    private record PlaceKey(
            Mesh.Key mesh, Shape shape, @Nullable Axis turned) {}

    private record TurnKey(Object of, Turn turn, Axis axis) {}

    private record CutKey(Mesh.Key mesh, Shape shape, Axis axis, Object shaped) {}

    private record PartKey(Object cut, String name, List<Values> values) {}

    private record AreaKey(Object cut) {}

    private final SheetFiles sheets;
    private final Memo keep;

    public StationResolver(SheetFiles sheets, Memo keep) {
        this.sheets = sheets;
        this.keep = keep;
    }

    public SheetFiles sheets() {
        return sheets;
    }

    /** What a kind of station looks up while it is resolved. */
    private record On(StationResolver all, String name, EvaluationContext lens, Work work) implements Resolver {
        @Override
        public Axis axis() {
            return lens.axis();
        }

        @Override
        public double[] nodeValues(Run run, String quantity) {
            return NodeValues.of(run, lens.quantity(quantity), lens);
        }

        @Override
        public double toSi(Run run, String quantity, double shown) {
            return BoundQuantity.of(run, lens.quantity(quantity), lens).unit().toSi(shown);
        }

        @Override
        public Mesh sheet(String file) {
            return all.sheets.sheet(file);
        }

        @Override
        public int[] cells(Run run, Within within) {
            return all.cells(run, within, lens);
        }

        @Override
        public Cut cut(Run run, Shape.Cutting surface) {
            return all.cut(run, surface, this);
        }

        @Override
        public Part part(Run run, Cut cut, Set<String> fields) {
            return all.part(run, cut, name, fields);
        }

        @Override
        public <T> T keep(Object key, Supplier<T> make) {
            return all.keep.of(key, make);
        }
    }

    /** A plane run of a full turn stands in the half plane of angle zero of the study's axis. */
    public Run turned(Run run, Axis axis) {
        Turn turn = run.stated().turn();
        if (turn == null || turn.wedge() || run.mesh().dimension() != 2) {
            return run;
        }
        Mesh placed = keep.of(new TurnKey(run.mesh().key(), turn, axis), () -> turn.place(run.mesh(), axis));
        return keep.of(new TurnKey(run.key(), turn, axis), () -> turn.apply(run, placed, axis));
    }

    /** Samples of a path or of points. */
    public Placement placement(Run run, Shape.Sampled shape, Axis axis, Work work) {
        Axis turned = Resolver.meridian(run) ? axis : null;
        return keep.counted(
                new PlaceKey(run.mesh().key(), shape, turned), () -> shape.place(run.locator(work), turned, work));
    }

    /**
     * The parts behind a surface: those of the run, or one that is cut out and carries the fields that are asked.
     *
     * @param name of the station
     * @param fields names of fields whose values at the surface's own nodes are wanted
     */
    public List<Part> parts(
            Run run, String name, Shape.Surface surface, Set<String> fields, EvaluationContext lens, Work work) {
        return surface.parts(run, new On(this, name, lens, work), fields);
    }

    private Part part(Run run, Cut cut, String name, Set<String> fields) {
        List<String> wanted = run.fields().stream()
                .filter(f -> f.at() == Field.At.NODE && fields.contains(f.name()))
                .map(Field::name)
                .toList();
        List<Values> values =
                wanted.stream().map(f -> run.field(f).orElseThrow().stored()).toList();
        return keep.of(new PartKey(cut.key(), name, values), () -> cut.part(name, run, wanted));
    }

    /** The surface that a station cuts out of a run; empty where it lies outside. */
    public Cut cut(Run run, String name, Shape.Cutting surface, EvaluationContext lens, Work work) {
        return cut(run, surface, new On(this, name, lens, work));
    }

    private Cut cut(Run run, Shape.Cutting surface, On on) {
        Object shaped = shaped(run, surface, on.lens);
        return keep.counted(new CutKey(run.mesh().key(), surface, on.lens.axis(), shaped), () -> surface.cut(run, on));
    }

    private Object shaped(Run run, Shape shape, EvaluationContext lens) {
        if (shape.shapedBy().isBlank()) {
            return "";
        }
        BoundQuantity ready = BoundQuantity.of(run, lens.quantity(shape.shapedBy()), lens);
        return List.of(ready.depends(), ready.unit());
    }

    /**
     * A shell laid flat, x the angle from its seam in radians.
     *
     * @param name of the station
     */
    public Cut flat(Run run, String name, Shell h, EvaluationContext lens, Work work) {
        if (Resolver.meridian(run)) {
            throw new LaneException("An axisymmetric run is the same all around; a shell has no unrolled form in it.");
        }
        Cut shell = cut(run, name, h, lens, work);
        if (shell.empty()) {
            throw new LaneException(
                    Fault.OUTSIDE, "The shell \"" + name + "\" lies outside this run; change its radius.");
        }
        return keep.of(new CutKey(run.mesh().key(), h, h.axis(), "flat"), () -> CylinderCut.unrolled(
                        shell, h.axis(), h.radius(), Math.toRadians(h.seam()), false)
                .covering(shell.coverage()));
    }

    /** What a station comes to be in a run, to be drawn; trouble is told and not thrown. */
    public Laid laid(Run run, Station station, EvaluationContext lens, Work work) {
        var on = new On(this, station.name(), lens, work);
        String outside = "The " + station.word() + " lies outside this run; move it.";
        try {
            return switch (station.shape()) {
                case Sheet s -> {
                    LaidSheet sheet = s.laid(run, on);
                    yield new Laid(
                            List.of(),
                            sheet.cut(),
                            area(sheet.cut()),
                            sheet,
                            List.of(),
                            null,
                            sheet.cut().empty() ? outside : "");
                }
                case Shape.Cutting s -> {
                    Cut cut = cut(run, s, on);
                    yield Laid.cut(cut, area(cut), cut.empty() ? outside : "");
                }
                case Shape.Surface s -> Laid.parts(s.parts(run, on, Set.of()));
                case CutCurve c -> curve(run, c, lens);
                case Region r -> {
                    int[] cells = cells(run, r.within(), lens);
                    yield new Laid(
                            List.of(),
                            null,
                            Double.NaN,
                            null,
                            List.of(),
                            cells,
                            cells.length == 0 ? "The region holds no cell of this run." : "");
                }
                default -> Laid.trouble("");
            };
        } catch (LaneException e) {
            return Laid.trouble(e.getMessage());
        }
    }

    private double area(Cut cut) {
        return keep.of(new AreaKey(cut.key()), cut::area);
    }

    private Laid curve(Run run, CutCurve c, EvaluationContext lens) {
        List<CutCurveBranches.Branch> all = keep.counted(
                new CutKey(
                        run.mesh().key(),
                        c,
                        lens.axis(),
                        run.parts().stream().map(p -> p.surface().key()).toList()),
                () -> CutCurveBranches.of(run, c, null, lens));
        return new Laid(
                List.of(),
                null,
                Double.NaN,
                null,
                all,
                null,
                all.isEmpty() ? "The plane meets none of its parts." : "");
    }

    /** The cells of a region. */
    public int[] cells(Run run, Within within, EvaluationContext lens) {
        Object shaped = shaped(run, new Region(within), lens);
        return keep.counted(
                new CutKey(run.mesh().key(), new Region(within), lens.axis(), List.of(shaped, parts(run, within))),
                () -> {
                    if (!(within instanceof Within.Above a)) {
                        return Regions.cells(run, within, null);
                    }
                    var on = new On(this, "", lens, Work.QUIET);
                    double bound = on.toSi(run, a.quantity(), a.value());
                    return Regions.cells(run, new Within.Above(a.quantity(), bound), on.nodeValues(run, a.quantity()));
                });
    }

    private static List<Content> parts(Run run, Within within) {
        return within instanceof Within.Touching t
                ? t.parts().stream().map(p -> Content.of(run.part(p).owner())).toList()
                : List.of();
    }
}
