package lane.transfer;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Plain;
import lane.base.Work;
import lane.field.Field;
import lane.field.Gradient;
import lane.field.Part;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.Cell;
import lane.mesh.Mesh;
import lane.station.Placement;
import lane.station.Placer;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Brings stored fields of one run onto the mesh of another. */
public final class MeshTransfer {
    /** Name of the field that says which places of the target lie in the source. */
    public static final String MASK = "inside";
    /** Name of the field that says which share of a cell lies in the source. */
    public static final String COVERED = "covered";

    private static final int BLOCK = 1 << 12;

    private MeshTransfer() {}

    /** Where values are wanted. */
    public enum To {
        /** Where each field has them. */
        AS_STORED,
        NODES,
        CELLS
    }

    /**
     * What is wanted.
     *
     * @param conservative by the overlap of cells, so that integrals are kept; else by interpolation at nodes or at the middles of cells
     * @param outside what places outside of the source get
     * @param mean whether a cell that is covered in part takes the mean of what is covered, which does not keep the integral
     * @param common whether it is wanted what both meshes have in common even for an interpolation
     * @param linear of an interpolation, whether what is stored in cells is taken as linear within each, by its gradient there, and
     *     not as constant; exact for linear fields where the cells around span space, and it may reach beyond the stored values
     */
    public record Wanted(boolean conservative, To to, Outside outside, boolean mean, boolean common, boolean linear) {
        public Wanted(boolean conservative, To to, Outside outside, boolean mean, boolean common) {
            this(conservative, to, outside, mean, common, false);
        }

        public Wanted {
            if (conservative && linear) {
                throw new LaneException(
                        "A transfer that keeps integrals takes cells as they are stored; leave linear out.");
            }
            if (conservative && outside instanceof Outside.Nearest) {
                throw new LaneException(
                        "A transfer that keeps integrals takes no nearest values; give a value for what lies"
                                + " outside, or leave it absent.");
            }
        }
    }

    /**
     * What came over.
     *
     * @param common what both meshes have in common; null where it was not asked for
     * @param masks fields that say where there are values
     * @param notes what is to be known of it, one sentence each
     */
    public record Result(List<Numbers> fields, @Nullable Common common, List<Field> masks, List<String> notes) {
        public Result {
            fields = List.copyOf(fields);
            masks = List.copyOf(masks);
            notes = List.copyOf(notes);
        }

        /** What came over, for people: a line of what is common, and for each field its places and integrals. */
        public String words(Mesh target) {
            return Words.of(this, target);
        }

        /** The target with the new fields. */
        public Run run(Run target) {
            List<Field> all = new ArrayList<>();
            fields.forEach(n -> all.add(n.onTarget()));
            all.addAll(masks);
            return new Run(target.mesh(), all, target.parts(), List.of(), notes);
        }
    }

    /**
     * @throws LaneException when the meshes cannot be brought together
     * @throws java.util.concurrent.CancellationException when cancelled
     */
    public static Result of(Run source, Mesh target, List<Field> fields, Wanted wanted, Work work) {
        return wanted.conservative()
                ? conservative(source.mesh(), target, fields, wanted, work)
                : interpolated(source, target, fields, wanted, work);
    }

    private static boolean node(Field field, Wanted wanted) {
        return wanted.to() == To.NODES || wanted.to() == To.AS_STORED && field.at() == Field.At.NODE;
    }

    // ---- by interpolation

    private static Result interpolated(Run source, Mesh target, List<Field> fields, Wanted wanted, Work work) {
        List<Numbers> out = new ArrayList<>();
        List<Field> masks = new ArrayList<>();
        List<String> notes = new ArrayList<>();
        for (boolean node : new boolean[] {true, false}) {
            List<Field> some =
                    fields.stream().filter(f -> node(f, wanted) == node).toList();
            if (some.isEmpty()) {
                continue;
            }
            double[] places = node ? target.xyz() : centres(target);
            Placement placed = Placer.points(source.locator(work), places, work.stretch(0, 0.5));
            if (placed.moved() > 0) {
                notes.add(Plain.count(placed.moved(), "place") + " beside the source by rounding "
                        + (placed.moved() == 1 ? "was" : "were") + " moved onto it.");
            }
            double[] mask = new double[placed.size()];
            Arrays.setAll(mask, i -> placed.cell()[i] >= 0 ? 1 : 0);
            Field.At at = node ? Field.At.NODE : Field.At.CELL;
            masks.add(new Field(free(MASK, fields), at, 1, Unit.UNKNOWN, Values.of(mask)));
            for (Field f : some) {
                double[] values = apply(placed, f, work);
                if (f.at() == Field.At.CELL && wanted.linear()) {
                    linear(source.mesh(), places, placed, f, values, notes, work);
                } else if (f.at() == Field.At.CELL) {
                    notes.add("\"" + f.name() + "\" is taken as stored: constant in each cell of the source.");
                }
                outside(source, places, placed, f, wanted.outside(), values, work);
                out.add(numbers(source.mesh(), target, f, at, values, new double[0], work));
            }
        }
        out.sort(java.util.Comparator.comparingInt(n -> fields.indexOf(n.field())));
        Common common = null;
        if (wanted.common()) {
            var cells = new ToCells(source.mesh(), target, fields);
            cells.run(work.stretch(0.5, 1));
            common = cells.common();
            int k = 0;
            for (int i = 0; i < out.size(); i++) {
                Numbers n = out.get(i);
                double[] overlap = new double[n.field().components()];
                for (int d = 0; d < overlap.length; d++) {
                    overlap[d] = cells.overlap(k++);
                }
                out.set(
                        i,
                        new Numbers(
                                n.field(),
                                n.values(),
                                n.at(),
                                n.outside(),
                                Double.NaN,
                                n.source(),
                                overlap,
                                n.target()));
            }
        }
        return new Result(out, common, masks, notes);
    }

    /** The mean of the nodes of each cell. */
    public static double[] centres(Mesh mesh) {
        double[] out = new double[3 * mesh.cellCount()];
        Parallel.forBlocks(mesh.cellCount(), 1 << 13, (block, from, to) -> {
            var cell = new Cell(mesh);
            double[] c = new double[3];
            for (int i = from; i < to; i++) {
                cell.load(i).centre(c);
                System.arraycopy(c, 0, out, 3 * i, 3);
            }
        });
        return out;
    }

    private static double[] apply(Placement placed, Field f, Work work) {
        int m = f.components();
        double[] out = new double[placed.size() * m];
        Values.Held values = f.values().now();
        boolean cells = f.at() == Field.At.CELL;
        Parallel.forBlocks(placed.size(), BLOCK, (block, from, to) -> {
            work.poll();
            for (int i = from; i < to; i++) {
                int cell = placed.cell()[i];
                for (int d = 0; d < m; d++) {
                    double v = cell < 0 ? Double.NaN : cells ? values.get(cell * m + d) : 0;
                    if (!cells && cell >= 0) {
                        for (int k = placed.start()[i]; k < placed.start()[i + 1]; k++) {
                            v += placed.share()[k] * values.get(placed.node()[k] * m + d);
                        }
                    }
                    out[i * m + d] = v;
                }
            }
        });
        return out;
    }

    /** Adds what a cell's gradient makes of the way from its middle; a cell whose neighbours do not span space stays constant. */
    private static void linear(
            Mesh source, double[] places, Placement placed, Field f, double[] values, List<String> notes, Work work) {
        int m = f.components();
        Values.Held held = f.values().now();
        double[] stored = new double[source.cellCount() * m];
        Arrays.setAll(stored, held::get);
        double[] gradient = Gradient.inCells(source, stored, m, Gradient.OnBoundary.NONE);
        double[] middle = centres(source);
        var flat = new AtomicInteger();
        Parallel.forBlocks(placed.size(), BLOCK, (block, from, to) -> {
            work.poll();
            for (int i = from; i < to; i++) {
                int c = placed.cell()[i];
                if (c < 0) {
                    continue;
                }
                boolean known = true;
                for (int d = 0; d < m; d++) {
                    double more = 0;
                    for (int k = 0; k < 3; k++) {
                        more += gradient[(c * m + d) * 3 + k] * (places[3 * i + k] - middle[3 * c + k]);
                    }
                    known &= !Double.isNaN(more);
                    values[i * m + d] += Double.isNaN(more) ? 0 : more;
                }
                if (!known) {
                    flat.incrementAndGet();
                }
            }
        });
        notes.add("\"" + f.name() + "\" is taken as linear in each cell of the source, by its gradient there"
                + (flat.get() == 0
                        ? "."
                        : "; " + Plain.count(flat.get(), "place") + " in cells without one took the stored value."));
    }

    private static void outside(
            Run source, double[] places, Placement placed, Field f, Outside outside, double[] values, Work work) {
        int m = f.components();
        switch (outside) {
            case Outside.Absent a -> {}
            case Outside.Value v -> {
                for (int i = 0; i < placed.size(); i++) {
                    if (placed.cell()[i] < 0) {
                        Arrays.fill(values, i * m, (i + 1) * m, v.value());
                    }
                }
            }
            case Outside.Nearest n -> {
                Values.Held held = f.values().now();
                Parallel.forBlocks(placed.size(), BLOCK, (block, from, to) -> {
                    work.poll();
                    var finder = source.locator().finder();
                    for (int i = from; i < to; i++) {
                        int cell = placed.cell()[i] >= 0
                                ? -1
                                : finder.find(places[3 * i], places[3 * i + 1], places[3 * i + 2], n.within());
                        for (int d = 0; cell >= 0 && d < m; d++) {
                            double v = 0;
                            if (f.at() == Field.At.CELL) {
                                v = held.get(cell * m + d);
                            } else {
                                for (int k = 0; k < finder.cell().size(); k++) {
                                    v += finder.cell().weights()[k]
                                            * held.get(finder.cell().node(k) * m + d);
                                }
                            }
                            values[i * m + d] = v;
                        }
                    }
                });
            }
        }
    }

    // ---- by overlap

    private static Result conservative(Mesh source, Mesh target, List<Field> fields, Wanted wanted, Work work) {
        List<Field> toNodes = fields.stream().filter(f -> node(f, wanted)).toList();
        List<Field> toCells = fields.stream().filter(f -> !node(f, wanted)).toList();
        List<Numbers> out = new ArrayList<>();
        List<Field> masks = new ArrayList<>();
        List<String> notes = new ArrayList<>();
        Common common = null;
        double fill = wanted.outside() instanceof Outside.Value v ? v.value() : Double.NaN;
        if (!toCells.isEmpty()) {
            var cells = new ToCells(source, target, toCells);
            cells.run(work.stretch(0, toNodes.isEmpty() ? 1 : 0.5));
            common = cells.common();
            int component = 0;
            for (Field f : toCells) {
                double[] overlap = new double[f.components()];
                double[] values = new double[target.cellCount() * f.components()];
                for (int d = 0; d < f.components(); d++, component++) {
                    overlap[d] = cells.overlap(component);
                    for (int c = 0; c < target.cellCount(); c++) {
                        double share = common.share()[c];
                        double v = cells.value(c, component, share, wanted.mean());
                        boolean filled = !Double.isNaN(fill) && share < 1;
                        values[c * f.components() + d] =
                                !filled ? v : share == 0 ? fill : wanted.mean() ? v : v + (1 - share) * fill;
                    }
                }
                out.add(numbers(source, target, f, Field.At.CELL, values, overlap, work));
            }
        }
        if (!toNodes.isEmpty()) {
            var nodes = new ToNodes(source, target, toNodes);
            nodes.run(work.stretch(toCells.isEmpty() ? 0 : 0.5, 0.9));
            common = nodes.common();
            double[] all = nodes.solve(common, work.stretch(0.9, 1));
            int components = toNodes.stream().mapToInt(Field::components).sum();
            int component = 0;
            double[] mask = new double[target.nodeCount()];
            Arrays.setAll(mask, i -> Double.isNaN(all[i * components]) ? 0 : 1);
            masks.add(new Field(free(MASK, fields), Field.At.NODE, 1, Unit.UNKNOWN, Values.of(mask)));
            for (Field f : toNodes) {
                int m = f.components();
                double[] overlap = new double[m];
                double[] values = new double[target.nodeCount() * m];
                for (int d = 0; d < m; d++, component++) {
                    overlap[d] = nodes.overlap(component);
                    for (int v = 0; v < target.nodeCount(); v++) {
                        double x = all[v * components + component];
                        values[v * m + d] = Double.isNaN(x) ? fill : x;
                    }
                }
                out.add(numbers(source, target, f, Field.At.NODE, values, overlap, work));
            }
        }
        out.sort(java.util.Comparator.comparingInt(n -> fields.indexOf(n.field())));
        if (common != null) {
            masks.add(new Field(free(COVERED, fields), Field.At.CELL, 1, Unit.of("1"), Values.of(common.share())));
            if (common.partly() > 0) {
                notes.add(Plain.count(common.partly(), "cell") + " of the target "
                        + (common.partly() == 1 ? "lies" : "lie") + " in the source in part: "
                        + (wanted.mean() && toNodes.isEmpty()
                                ? "each has the mean of that part, so the integral is not kept there."
                                : "what lies outside counts as "
                                        + (Double.isNaN(fill) ? "nothing" : String.valueOf(fill))
                                        + ", so that the integral is kept; the field \"" + free(COVERED, fields)
                                        + "\" says how much of each lies inside."));
            }
        }
        return new Result(out, common, masks, notes);
    }

    private static Numbers numbers(
            Mesh source, Mesh target, Field f, Field.At at, double[] values, double[] overlap, Work work) {
        int m = f.components();
        int outside = 0;
        for (int i = 0; i < values.length / m; i++) {
            boolean absent = false;
            for (int d = 0; d < m; d++) {
                absent |= Double.isNaN(values[i * m + d]);
            }
            outside += absent ? 1 : 0;
        }
        return new Numbers(
                f,
                values,
                at,
                outside,
                Double.NaN,
                FieldIntegral.of(source, f.at(), m, f.values(), work),
                overlap,
                FieldIntegral.of(target, at, m, Values.of(values), work));
    }

    /** A name that no field has. */
    private static String free(String name, List<Field> fields) {
        String out = name;
        for (int k = 2; ; k++) {
            String now = out;
            if (fields.stream().noneMatch(f -> f.name().equals(now))) {
                return out;
            }
            out = name + k;
        }
    }

    /**
     * Sets the nodes of parts of the target to a value afterwards, and says how much that changed.
     *
     * @throws LaneException for values in cells, which have none on a part
     */
    public static Numbers imposed(Numbers of, Mesh target, List<Part> parts, double value, Work work) {
        if (of.at() != Field.At.NODE) {
            throw new LaneException("Values on a part are those of its nodes, but \""
                    + of.field().name() + "\" has its values in cells; transfer it to nodes.");
        }
        int m = of.field().components();
        double[] out = of.values().clone();
        double largest = Double.isNaN(of.largestChange()) ? 0 : of.largestChange();
        for (Part part : parts) {
            for (int node : nodes(part)) {
                double squares = 0;
                for (int d = 0; d < m; d++) {
                    double change = value - out[node * m + d];
                    squares += Double.isNaN(change) ? 0 : change * change;
                    out[node * m + d] = value;
                }
                largest = Math.max(largest, Math.sqrt(squares));
            }
        }
        return of.with(out, largest, FieldIntegral.of(target, of.at(), m, Values.of(out), work));
    }

    /** Numbers in the mesh of the nodes that a part's faces stand on. */
    private static int[] nodes(Part part) {
        return Arrays.stream(part.surface().nodes())
                .map(v -> part.node()[v])
                .filter(v -> v >= 0)
                .sorted()
                .distinct()
                .toArray();
    }
}
