package lane.evaluation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.base.Sum;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Cell;
import lane.mesh.Joints;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Values one by one as meshes hold them: one a node, or one a cell (of a surface: a face), without any interpolation between
 * them.
 *
 * @param value SI values; NaN where absent; all 1 where no quantity was asked for
 * @param size of each in m, m2 or m3; 1 at nodes
 * @param unit of the values
 * @param place where each lies, three numbers: the node, or the middle of the cell
 * @param pieces number of pieces that hang together by nodes, of the entries that were counted
 * @param run that they are of
 */
public record StoredValues(double[] value, double[] size, double[] place, Unit unit, int pieces, Run run) {
    /** What there is one value of. */
    public enum At {
        NODES,
        CELLS
    }

    /** Where an entry lies. */
    public Point at(int i) {
        return new Point(place[3 * i], place[3 * i + 1], place[3 * i + 2]);
    }

    /** How many have no value, in words to stand behind a note; empty for none. */
    public String absent() {
        double[] n = run.gather().sums("absent", () ->
                new double[] {Arrays.stream(value).filter(Double::isNaN).count(), value.length});
        return absent(n[0], n[1]);
    }

    /** The same for so many of so many. */
    public static String absent(double absent, double entries) {
        return absent == 0 ? "" : ", " + (long) absent + " of " + (long) entries + " values absent and left out";
    }

    /**
     * These as values of a quantity with weights, the absent ones left out.
     *
     * @param bound the quantity that they are of
     * @param sized whether each counts with its size, and not like any other
     */
    public Weighted weighted(BoundQuantity bound, boolean sized) {
        return new Weighted() {
            @Override
            public double[] sums(Object what, int n, Each each) {
                return run.gather().sums(List.of("stored", what, sized), () -> {
                    Sum[] sums = Sum.fresh(n);
                    for (int i = 0; i < value.length; i++) {
                        if (!Double.isNaN(value[i])) {
                            each.add(value[i], sized ? size[i] : 1, sums);
                        }
                    }
                    return Sum.values(sums);
                });
            }

            @Override
            public BoundQuantity bound() {
                return bound;
            }
        };
    }

    /** Cells of a mesh with values; those of a surface are its faces. */
    private record Source(
            Mesh mesh,
            int[] cells,
            double[] value,
            boolean @Nullable [] counted,
            Unit unit,
            MeshSpan span,
            Run run,
            @Nullable Part part) {
        /** The run's node behind one of the mesh. */
        int ofRun(int node) {
            return part == null ? node : part.node()[node];
        }
    }

    /**
     * Over a region.
     *
     * @param quantity null for none
     * @param condition what is counted: where it holds; null for all
     */
    public static StoredValues of(
            RegionIntegral region, At at, @Nullable Quantity quantity, @Nullable Quantity condition) {
        Run run = region.run();
        EvaluationContext lens = region.lens();
        double[] value = values(run, null, at, quantity, lens);
        double[] holds = condition == null ? null : values(run, null, at, condition, lens);
        Unit unit = quantity == null
                ? Unit.ONE
                : BoundQuantity.of(run, quantity, lens).number().unit();
        return gather(
                List.of(new Source(
                        run.mesh(),
                        region.cells(),
                        value,
                        truth(holds),
                        unit,
                        MeshSpan.of(run, lens.axis()),
                        run,
                        null)),
                at);
    }

    /**
     * Over parts and other surfaces.
     *
     * @param alike whether each counts the same, whatever its size
     */
    public static StoredValues of(
            SurfaceIntegral surface, At at, @Nullable Quantity quantity, @Nullable Quantity condition, boolean alike) {
        List<Source> all = new ArrayList<>();
        if (alike && surface.parts().stream().anyMatch(p -> p.round() != null)) {
            // Into how many faces a cylinder is laid depends on the size of the cells around.
            surface.run().gather().needsWhole("A number over the faces of a shell in which each counts the same");
        }
        if (at == At.NODES && surface.parts().stream().anyMatch(Part::cut)) {
            surface.run().gather().needsWhole("A number over the nodes of what is cut");
        }
        for (Part part : surface.parts()) {
            double[] value = values(surface.run(), part, at, quantity, surface.lens());
            double[] holds = condition == null ? null : values(surface.run(), part, at, condition, surface.lens());
            int[] faces = new int[part.surface().cellCount()];
            Arrays.setAll(faces, i -> i);
            Unit unit = quantity == null
                    ? Unit.ONE
                    : BoundQuantity.of(surface.run(), part, quantity, surface.lens())
                            .number()
                            .unit();
            all.add(new Source(
                    part.surface(),
                    faces,
                    value,
                    truth(holds),
                    unit,
                    MeshSpan.of(surface.run(), surface.lens().axis()),
                    surface.run(),
                    part));
        }
        return gather(all, at);
    }

    private static boolean @Nullable [] truth(double @Nullable [] holds) {
        if (holds == null) {
            return null;
        }
        boolean[] out = new boolean[holds.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = !Double.isNaN(holds[i]) && holds[i] != 0;
        }
        return out;
    }

    private static double[] values(
            Run run, @Nullable Part part, At at, @Nullable Quantity quantity, EvaluationContext lens) {
        Mesh mesh = part == null ? run.mesh() : part.surface();
        if (quantity == null) {
            double[] ones = new double[at == At.NODES ? mesh.nodeCount() : mesh.cellCount()];
            Arrays.fill(ones, 1);
            return ones;
        }
        BoundQuantity ready = BoundQuantity.of(run, part, quantity, lens).number();
        if (at == At.NODES && !ready.byNode()) {
            throw new LaneException(
                    "Quantity \"" + quantity.name()
                            + "\" has no values of its own at nodes, since something of it is stored in cells; take it over cells.");
        }
        BoundQuantity.Targets targets = at == At.NODES
                ? part == null ? SamplePoints.nodes(run) : SamplePoints.nodesOf(run, part)
                : part == null ? SamplePoints.cells(run) : SamplePoints.facesOf(run, part);
        return ready.values(targets)[0];
    }

    private static StoredValues gather(List<Source> sources, At at) {
        List<double[]> values = new ArrayList<>();
        List<double[]> sizes = new ArrayList<>();
        List<double[]> places = new ArrayList<>();
        int pieces = 0;
        for (int number = 0; number < sources.size(); number++) {
            Source s = sources.get(number);
            int[] taken = at == At.NODES ? first(s, nodes(s), number) : cells(s);
            double[] v = new double[taken.length];
            double[] size = new double[taken.length];
            double[] place = new double[3 * taken.length];
            var cell = new Cell(s.mesh);
            double[] c = new double[3];
            for (int i = 0; i < taken.length; i++) {
                v[i] = s.value[taken[i]];
                if (at == At.NODES) {
                    size[i] = 1;
                    System.arraycopy(s.mesh.xyz(), 3 * taken[i], place, 3 * i, 3);
                } else {
                    cell.load(taken[i]).centre(c);
                    size[i] = cell.measure() * s.span.weight(c[0], c[1], c[2]);
                    System.arraycopy(c, 0, place, 3 * i, 3);
                }
            }
            values.add(v);
            sizes.add(size);
            places.add(place);
            pieces += pieces(s, at, taken);
        }
        return new StoredValues(
                values.stream().flatMapToDouble(Arrays::stream).toArray(),
                sizes.stream().flatMapToDouble(Arrays::stream).toArray(),
                places.stream().flatMapToDouble(Arrays::stream).toArray(),
                sources.getFirst().unit,
                pieces,
                sources.getFirst().run);
    }

    private static int[] cells(Source s) {
        return Arrays.stream(s.cells)
                .filter(c -> s.counted == null || s.counted[c])
                .toArray();
    }

    /** Each node of the cells once. */
    private static int[] nodes(Source s) {
        boolean[] of = new boolean[s.mesh.nodeCount()];
        for (int c : s.cells) {
            for (int k = s.mesh.begin(c); k < s.mesh.begin(c) + s.mesh.size(c); k++) {
                of[s.mesh.nodes()[k]] = true;
            }
        }
        return java.util.stream.IntStream.range(0, of.length)
                .filter(i -> of[i] && (s.counted == null || s.counted[i]))
                .toArray();
    }

    /** Nodes that other pieces of the run have as well, and take of the same station, count in the first of them. */
    private static int[] first(Source s, int[] taken, int number) {
        Joints joints = s.run.mesh().joints();
        if (joints == null) {
            return taken;
        }
        Mesh mesh = s.run.mesh();
        int[] own = Arrays.stream(taken).map(s::ofRun).filter(n -> n >= 0).toArray();
        List<long[][]> all = s.run.gather()
                .of(
                        "nodes taken " + number,
                        () -> {
                            long[][] keys = new long[Joints.GRIDS][];
                            Arrays.setAll(keys, grid -> joints.shared(mesh, own, grid));
                            return keys;
                        },
                        given -> List.copyOf(given));
        return Arrays.stream(taken)
                .filter(i -> {
                    int node = s.ofRun(i);
                    for (int k = 0; k < joints.piece() && node >= 0; k++) {
                        for (int grid = 0; grid < Joints.GRIDS; grid++) {
                            if (joints.among(mesh, node, all.get(k)[grid], grid)) {
                                return false;
                            }
                        }
                    }
                    return true;
                })
                .toArray();
    }

    /** Pieces of cells that share a node; of nodes, those that a cell joins. */
    private static int pieces(Source s, At at, int[] taken) {
        int[] root = new int[s.mesh.nodeCount()];
        Arrays.setAll(root, i -> i);
        boolean[] used = new boolean[root.length];
        if (at == At.NODES) {
            for (int n : taken) {
                used[n] = true;
            }
        }
        for (int c : at == At.NODES ? s.cells : taken) {
            int first = -1;
            for (int k = s.mesh.begin(c); k < s.mesh.begin(c) + s.mesh.size(c); k++) {
                int n = s.mesh.nodes()[k];
                if (at == At.CELLS) {
                    used[n] = true;
                } else if (!used[n]) {
                    continue;
                }
                if (first >= 0) {
                    root[find(root, n)] = find(root, first);
                }
                first = n;
            }
        }
        int pieces = 0;
        for (int i = 0; i < root.length; i++) {
            pieces += used[i] && find(root, i) == i ? 1 : 0;
        }
        return pieces;
    }

    private static int find(int[] root, int i) {
        int at = i;
        while (root[at] != at) {
            root[at] = root[root[at]];
            at = root[at];
        }
        return at;
    }
}
