package lane.station;

import java.util.List;
import java.util.Objects;
import java.util.Set;
import lane.base.Content;
import lane.base.Fault;
import lane.base.LaneException;
import lane.cut.BoxCut;
import lane.cut.Cut;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * The surface around the cells of a region, looking out of it: faces to cells outside it, and of the run's boundary.
 *
 * @param region key of the region
 * @param within its cells, filled in when stations are placed; null before
 */
public record Enclosing(String region, @Nullable Within within) implements Shape.Surface {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "enclosing";
        }

        @Override
        public Class<Enclosing> type() {
            return Enclosing.class;
        }
    }

    public Enclosing(String region) {
        this(region, null);
    }

    @Override
    public Shape through(Axis frame) {
        return this;
    }

    @Override
    public String word() {
        return "enclosing surface";
    }

    @Override
    public String shapedBy() {
        return within instanceof Within.Above a ? a.quantity() : "";
    }

    private record CutKey(Mesh.Key mesh, Box box) {}

    /** A box that cuts cells is bounded by its sides, and where it reaches over the run by the boundary of that. */
    private static Cut cut(Run run, Box box, Resolver on) {
        if (run.mesh().dimension() != 3) {
            throw new LaneException("The box of \"" + on.name()
                    + "\" cuts cells, which is made of runs with volume; let the cells of this run count whole.");
        }
        Cut cut =
                on.keep(new CutKey(run.mesh().key(), box), () -> BoxCut.of(run, box.bounds(), box.frame(), on.work()));
        if (cut.empty()) {
            throw new LaneException(Fault.OUTSIDE, "The box of \"" + on.name() + "\" lies outside this run; move it.");
        }
        return cut;
    }

    private record Key(Mesh.Key mesh, Content cells, String name) {}

    @Override
    public List<Part> parts(Run run, Resolver on, Set<String> fields) {
        if (within instanceof Within.InBox b && b.cut()) {
            return List.of(on.part(run, cut(run, b.box(), on), fields));
        }
        int[] cells = on.cells(run, Objects.requireNonNull(within, "a region is looked up when it is placed"));
        var key = new Key(run.mesh().key(), Content.of(cells), on.name());
        return List.of(on.keep(key, () -> PartBuilder.around(run.mesh(), on.name(), cells)));
    }
}
