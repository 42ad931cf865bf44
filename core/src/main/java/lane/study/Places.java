package lane.study;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import lane.base.LaneException;
import lane.base.Work;
import lane.cut.Cut;
import lane.cut.Level;
import lane.cut.Section;
import lane.cut.Sheet;
import lane.cut.Shell;
import lane.cut.Slicer;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Turn;
import lane.field.Values;
import lane.mesh.Axis;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.CutCurveReader;
import lane.reading.Lens;
import lane.reading.Memo;
import lane.reading.NodeValues;
import lane.reading.Ready;
import lane.station.Placement;
import lane.station.Placer;
import lane.station.Regions;
import lane.station.Station;
import lane.station.Within;
import lane.unit.Unit;

/**
 * Stations resolved on runs, each kept under what it depends on: the mesh by identity, the station's geometry by value,
 * and the values that shape it. Two times on one mesh share everything but isosurfaces.
 */
public final class Places {
    /** Where resolved stations are kept. */
    public interface Keep extends Memo {
        /** Keeps a placement, and counts it when it is made. */
        <T> T counted(Object key, Supplier<T> make);
    }

    /** Keeps nothing. */
    public static final Keep NOTHING = new Keep() {
        @Override
        public <T> T counted(Object key, Supplier<T> make) {
            return make.get();
        }

        @Override
        public <T> T of(Object key, Supplier<T> make) {
            return make.get();
        }
    };

    private record PlaceKey(Mesh mesh, Station geometry, Axis turned) {}

    private record TurnKey(Object of, Turn turn, Axis axis) {}

    private record CutKey(Mesh mesh, Station geometry, Axis axis, Object shaped) {}

    private record PartKey(Cut cut, String name, List<Values> values, Run run) {}

    private record EnclosingKey(Run run, int[] cells, String name) {}

    private record PickKey(Part part, Station geometry) {}

    private final Library library;
    private final Keep keep;

    public Places(Library library, Keep keep) {
        this.library = library;
        this.keep = keep;
    }

    /** A plane run of a full turn stands in the half plane of angle zero of the study's axis. */
    public Run turned(Run run, Axis axis) {
        Turn turn = run.stated().turn();
        if (turn == null || turn.wedge() || run.mesh().dimension() != 2) {
            return run;
        }
        Mesh placed = keep.of(new TurnKey(run.mesh(), turn, axis), () -> turn.place(run.mesh(), axis));
        return keep.of(new TurnKey(run, turn, axis), () -> turn.apply(run, placed, axis));
    }

    private static boolean meridian(Run run) {
        return run.stated().turn() != null && run.mesh().dimension() == 2;
    }

    /** Samples of a path or of points. */
    public Placement placement(Run run, Station station, Axis axis, Work work) {
        Axis turned = meridian(run) ? axis : null;
        return keep.counted(new PlaceKey(run.mesh(), station.geometry(), turned), () -> switch (station) {
            case Station.Path p -> Placer.path(run.locator(work), p, turned, work);
            case Station.Points p -> {
                double[] xyz = new double[3 * p.points().size()];
                for (int i = 0; i < p.points().size(); i++) {
                    xyz[3 * i] = p.points().get(i).x();
                    xyz[3 * i + 1] = p.points().get(i).y();
                    xyz[3 * i + 2] = p.points().get(i).z();
                }
                yield Placer.points(run.locator(work), xyz, turned, work);
            }
            default -> throw new LaneException("A " + station.word() + " has no samples.");
        });
    }

    /**
     * The parts behind a surface station: those of the run, or one that is cut out and carries the fields that are asked.
     *
     * @param fields names of fields whose values at the surface's own nodes are wanted
     */
    public List<Part> parts(Run run, Station.Surface station, Set<String> fields, Lens lens, Work work) {
        if (station instanceof Station.OnPart on) {
            List<Part> all = on.parts().stream()
                    .map(run::part)
                    .map(p -> pick(p, on))
                    .filter(p -> p.surface().cellCount() > 0)
                    .toList();
            if (all.isEmpty()) {
                throw new LaneException("No face of " + String.join(", ", on.parts())
                        + " is left by the direction and box of \"" + on.name() + "\"; widen them.");
            }
            return all;
        }
        if (station instanceof Station.Enclosing e) {
            int[] cells = cells(run, new Station.Region(e.id(), e.name(), e.within()), lens);
            return List.of(keep.of(
                    new EnclosingKey(run, cells, e.name()), () -> PartBuilder.around(run.mesh(), e.name(), cells)));
        }
        Cut cut = cut(run, station, lens, work);
        if (cut.empty()) {
            throw new LaneException(
                    "The " + station.word() + " \"" + station.name() + "\" lies outside this run; move it.");
        }
        // A sheet is cut where it passes from cell to cell, so its values are those within the cells.
        boolean within = station instanceof Station.Sheet s && !s.sampled();
        return List.of(part(run, cut, station.name(), within ? Set.of() : fields));
    }

    /** A cut as a part with values of these fields at its nodes. */
    public Part part(Run run, Cut cut, String name, Set<String> fields) {
        List<String> wanted = run.fields().stream()
                .filter(f -> f.at() == Field.At.NODE && fields.contains(f.name()))
                .map(Field::name)
                .toList();
        List<Values> values =
                wanted.stream().map(f -> run.field(f).orElseThrow().values()).toList();
        return keep.of(new PartKey(cut, name, values, run), () -> cut.part(name, run, wanted));
    }

    private Part pick(Part part, Station.OnPart on) {
        if (on.facing() == null && on.box() == null) {
            return part;
        }
        return keep.of(new PickKey(part, on.geometry()), () -> part.pick(faces(part, on)));
    }

    private static int[] faces(Part part, Station.OnPart on) {
        Mesh m = part.surface();
        double least =
                on.facing() == null ? -1 : Math.cos(Math.toRadians(on.facing().within()));
        var cell = new lane.mesh.Cell(m);
        double[] c = new double[3];
        return java.util.stream.IntStream.range(0, m.cellCount())
                .filter(f -> {
                    cell.load(f).centre(c);
                    boolean in = on.box() == null || on.box().holds(c[0], c[1], c[2]);
                    if (!in || on.facing() == null) {
                        return in;
                    }
                    double[] n = lane.mesh.Measures.areaVector(cell);
                    double size = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
                    Point d = on.facing().direction();
                    return n[0] * d.x() + n[1] * d.y() + n[2] * d.z() >= least * size - 1e-12;
                })
                .toArray();
    }

    /** The surface that a station cuts out of a run; empty where it lies outside. */
    public Cut cut(Run run, Station.Surface station, Lens lens, Work work) {
        if (station instanceof Station.Sheet s) {
            return sheet(run, s, work).cut();
        }
        Object shaped = shaped(run, station, lens);
        return keep.counted(new CutKey(run.mesh(), station.geometry(), lens.axis(), shaped), () -> switch (station) {
            case Station.Section s -> section(run, s, lens.axis(), work);
            case Station.Shell h -> {
                requireAbout(run, h.axis(), lens.axis(), station);
                yield Shell.of(
                        run.mesh(),
                        h.axis(),
                        h.radius(),
                        h.from() == null ? Double.NEGATIVE_INFINITY : h.from(),
                        h.to() == null ? Double.POSITIVE_INFINITY : h.to(),
                        work);
            }
            case Station.Isosurface iso -> isosurface(run, iso, lens, work);
            default -> throw new LaneException("A " + station.word() + " is not cut.");
        });
    }

    private Object shaped(Run run, Station station, Lens lens) {
        if (station.shapedBy().isBlank()) {
            return "";
        }
        Ready ready = Ready.of(run, lens.quantity(station.shapedBy()), lens);
        return List.of(ready.depends(), ready.unit());
    }

    private static Cut section(Run run, Station.Section s, Axis axis, Work work) {
        if (meridian(run) && s.normal().cross(axis.direction()).norm() > 1e-9) {
            throw new LaneException("Section \"" + s.name() + "\" is not square to the axis of this axisymmetric run;"
                    + " turn it, or read a line.");
        }
        Cut cut = Section.of(run.locator(work), s.point(), s.normal(), work);
        if (s.box() != null) {
            cut = Section.within(cut, s.box().bounds(), s.box().frame());
        }
        return s.piece() == null ? cut : Section.nearest(cut, s.piece());
    }

    /** A plane run of a full turn has shells and sweeps about its own axis only. */
    private static void requireAbout(Run run, Axis axis, Axis own, Station station) {
        boolean same = axis.direction().cross(own.direction()).norm() < 1e-9
                && own.radius(
                                axis.origin().x(),
                                axis.origin().y(),
                                axis.origin().z())
                        <= 1e-9 * run.mesh().modelSize();
        if (meridian(run) && !same) {
            throw new LaneException("The axis of " + station.word() + " \"" + station.name()
                    + "\" is not that of this axisymmetric run; use the study's axis.");
        }
    }

    private Cut isosurface(Run run, Station.Isosurface iso, Lens lens, Work work) {
        Quantity q = lens.quantity(iso.quantity());
        double[] values = NodeValues.of(run, q, lens);
        Unit shown = Ready.of(run, q, lens).unit();
        List<Cut> all = new ArrayList<>();
        for (double v : iso.values()) {
            all.add(Slicer.cut(run.mesh(), Level.of(values, shown.toSi(v)), work));
        }
        return all.size() == 1 ? all.getFirst() : Cut.join(all);
    }

    private record SheetKey(Mesh mesh, Mesh sheet, Station geometry) {}

    /** A sheet laid into a run, with what lies outside. */
    public Sheet sheet(Run run, Station.Sheet s, Work work) {
        Mesh file = library.sheet(s.file());
        if (run.mesh().dimension() != 3) {
            throw new LaneException("Sheet \"" + s.name() + "\" needs a run with volume; this one is plane.");
        }
        return keep.counted(new SheetKey(run.mesh(), file, s.geometry()), () -> {
            Mesh placed = placed(file, s);
            return s.sampled()
                    ? Sheet.sampled(
                            run.locator(work),
                            placed,
                            Placer.TOLERANCE * run.mesh().modelSize(),
                            work)
                    : Sheet.conformed(run.locator(work), placed, work);
        });
    }

    /** The sheet's own nodes where the station puts them. */
    public static Mesh placed(Mesh file, Station.Sheet s) {
        double[] x = file.xyz().clone();
        double f = Unit.of(s.length()).factor();
        Axis[] about = {
            new Axis(new Point(0, 0, 0), new Point(1, 0, 0)), new Axis(new Point(0, 0, 0), new Point(0, 1, 0)), Axis.Z
        };
        double[] angles = {s.turned().x(), s.turned().y(), s.turned().z()};
        double[] v = new double[3];
        for (int i = 0; i < x.length; i += 3) {
            for (int d = 0; d < 3; d++) {
                v[d] = f * x[i + d];
            }
            for (int a = 0; a < 3; a++) {
                if (angles[a] != 0) {
                    about[a].turn(Math.toRadians(angles[a]), v, v);
                }
            }
            Point at = new Point(v[0], v[1], v[2]).plus(s.by());
            Point to = s.in() == null ? at : s.in().out(at);
            x[i] = to.x();
            x[i + 1] = to.y();
            x[i + 2] = to.z();
        }
        return file.withNodes(x);
    }

    /** A shell laid flat, x the angle from its seam in radians. */
    public Cut flat(Run run, Station.Shell h, Lens lens, Work work) {
        if (meridian(run)) {
            throw new LaneException("An axisymmetric run is the same all around; a shell has no unrolled form in it.");
        }
        Cut shell = cut(run, h, lens, work);
        if (shell.empty()) {
            throw new LaneException("The shell \"" + h.name() + "\" lies outside this run; change its radius.");
        }
        return keep.of(
                new CutKey(run.mesh(), h.geometry(), h.axis(), "flat"),
                () -> Shell.unrolled(shell, h.axis(), h.radius(), Math.toRadians(h.seam()), false));
    }

    /** What a station comes to be in a run; trouble is told and not thrown. */
    Laid laid(Run run, Station station, Lens lens, Work work) {
        try {
            return switch (station) {
                case Station.OnPart p -> Laid.parts(parts(run, p, Set.of(), lens, work));
                case Station.Enclosing e -> Laid.parts(parts(run, e, Set.of(), lens, work));
                case Station.Sheet s -> {
                    Sheet sheet = sheet(run, s, work);
                    yield new Laid(
                            List.of(),
                            sheet.cut(),
                            sheet,
                            List.of(),
                            null,
                            sheet.cut().empty() ? "The sheet lies outside this run; move it." : "");
                }
                case Station.Surface s -> {
                    Cut cut = cut(run, s, lens, work);
                    yield Laid.cut(cut, cut.empty() ? "The " + s.word() + " lies outside this run; move it." : "");
                }
                case Station.CutCurve c -> {
                    List<CutCurveReader.Branch> all = keep.counted(
                            new CutKey(
                                    run.mesh(),
                                    c.geometry(),
                                    lens.axis(),
                                    run.parts().stream().map(Part::surface).toList()),
                            () -> CutCurveReader.branches(run, c, null, lens));
                    yield new Laid(
                            List.of(),
                            null,
                            null,
                            all,
                            null,
                            all.isEmpty() ? "The plane meets none of its parts." : "");
                }
                case Station.Region r -> {
                    int[] cells = cells(run, r, lens);
                    yield new Laid(
                            List.of(),
                            null,
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

    /** The cells of a region. */
    public int[] cells(Run run, Station.Region region, Lens lens) {
        Object shaped = shaped(run, region, lens);
        return keep.counted(
                new CutKey(run.mesh(), region.geometry(), lens.axis(), List.of(shaped, parts(run, region))), () -> {
                    if (!(region.within() instanceof Within.Above a)) {
                        return Regions.cells(run, region.within(), null);
                    }
                    Quantity q = lens.quantity(a.quantity());
                    double[] values = NodeValues.of(run, q, lens);
                    Unit shown = Ready.of(run, q, lens).unit();
                    return Regions.cells(run, new Within.Above(a.quantity(), shown.toSi(a.value())), values);
                });
    }

    private static List<int[]> parts(Run run, Station.Region region) {
        return region.within() instanceof Within.Touching t
                ? t.parts().stream().map(p -> run.part(p).owner()).toList()
                : List.of();
    }

    /** The section or ring at a place of a sweep. */
    public Station at(Station.Sweep w, int i) {
        Axis a = w.axis();
        Point p = a.origin().plus(a.direction().times(w.place(i)));
        return w.ring() > 0
                ? new Station.Arc(
                        "",
                        w.name(),
                        a,
                        w.ring(),
                        w.place(i),
                        0,
                        360,
                        new lane.station.Sampling.Even(361),
                        lane.station.Abscissa.ANGLE)
                : new Station.Section("", w.name(), p, a.direction(), null, null);
    }
}
