package lane.station;

import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Plain;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Cell;
import lane.mesh.CellMeasures;
import lane.mesh.Mesh;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/** A boundary part that each run has under this name, or what faces a direction or lies in a box of several. */
public record OnPart(
        String part,
        List<String> more,
        @Nullable Facing facing,
        @Nullable Box box) implements Shape.Surface {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "part";
        }

        @Override
        public Class<OnPart> type() {
            return OnPart.class;
        }
    }

    public OnPart {
        more = more == null ? List.of() : List.copyOf(more);
    }

    public OnPart(String part) {
        this(part, List.of(), null, null);
    }

    /** All parts that are taken together. */
    public List<String> parts() {
        return java.util.stream.Stream.concat(java.util.stream.Stream.of(part), more.stream())
                .distinct()
                .toList();
    }

    @Override
    public Shape through(Axis frame) {
        return new OnPart(
                part,
                more,
                facing == null ? null : new Facing(frame.outDirection(facing.direction()), facing.within()),
                box == null ? null : box.through(frame));
    }

    @Override
    public String word() {
        return "part";
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    @Override
    public List<Part> parts(Run run, Resolver on, Set<String> fields) {
        List<Part> all = parts().stream()
                .map(run::part)
                .map(p -> pick(p, on))
                .filter(p -> p.surface().cellCount() > 0 || !run.gather().whole())
                .toList();
        if (all.isEmpty()) {
            throw new LaneException(
                    Fault.OUTSIDE,
                    "No face of " + Plain.names(parts()) + " is left by the direction and box of \"" + on.name()
                            + "\"; widen them.");
        }
        return all;
    }

    /** What a choice of faces depends on. */
    private record Key(Object part, OnPart station) {}

    private Part pick(Part whole, Resolver on) {
        if (facing == null && box == null) {
            return whole;
        }
        return on.keep(new Key(whole.key(), this), () -> whole.pick(faces(whole)));
    }

    private int[] faces(Part whole) {
        Mesh m = whole.surface();
        double least = facing == null ? -1 : Math.cos(Math.toRadians(facing.within()));
        var cell = new Cell(m);
        double[] c = new double[3];
        return IntStream.range(0, m.cellCount())
                .filter(f -> {
                    cell.load(f).centre(c);
                    boolean in = box == null || box.holds(c[0], c[1], c[2]);
                    if (!in || facing == null) {
                        return in;
                    }
                    double[] n = CellMeasures.areaVector(cell);
                    double size = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
                    Point d = facing.direction();
                    return n[0] * d.x() + n[1] * d.y() + n[2] * d.z() >= least * size - 1e-12;
                })
                .toArray();
    }
}
