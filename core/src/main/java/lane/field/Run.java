package lane.field;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.mesh.CellLocator;
import lane.mesh.Mesh;
import lane.provenance.Provenance;

/**
 * A simulation result: a mesh with fields and boundary parts. The cell locator is built when first asked for.
 */
public final class Run {
    private final Mesh mesh;
    private final List<Field> fields;
    private final List<Part> parts;
    private final List<Provenance.Input> inputs;
    private final List<String> remarks;
    private final List<Double> times;
    private final double time;
    private final Stated stated;
    private volatile CellLocator locator;
    /** The run on the same mesh that keeps the locator; null for this one. */
    private Run source;

    /**
     * @param inputs the files it was read from
     * @param remarks what the reader wants known: what it skipped, turned or could not match
     * @throws LaneException when a field's size does not fit the mesh
     */
    public Run(Mesh mesh, List<Field> fields, List<Part> parts, List<Provenance.Input> inputs, List<String> remarks) {
        this(mesh, fields, parts, inputs, remarks, List.of(), Double.NaN, Stated.NOTHING);
    }

    /**
     * @param times all that are stored, ascending; empty when the files know none
     * @param time the one that is looked at; NaN when the files know none
     */
    public Run(
            Mesh mesh,
            List<Field> fields,
            List<Part> parts,
            List<Provenance.Input> inputs,
            List<String> remarks,
            List<Double> times,
            double time,
            Stated stated) {
        this.times = List.copyOf(times);
        this.time = time;
        this.stated = stated;
        this.mesh = mesh;
        this.fields = List.copyOf(fields);
        this.parts = List.copyOf(parts);
        this.inputs = List.copyOf(inputs);
        this.remarks = List.copyOf(remarks);
        for (Field field : fields) {
            int expected = field.at() == Field.At.NODE ? mesh.nodeCount() : mesh.cellCount();
            if (field.size() != expected) {
                throw new LaneException("Field \"" + field.name() + "\" has " + field.size() + " entries for "
                        + expected + " " + field.at().word() + "; write the file again.");
            }
        }
    }

    public Mesh mesh() {
        return mesh;
    }

    public List<Field> fields() {
        return fields;
    }

    public List<Part> parts() {
        return parts;
    }

    public List<Provenance.Input> inputs() {
        return inputs;
    }

    public List<String> remarks() {
        return remarks;
    }

    public Optional<Field> field(String name) {
        return fields.stream().filter(f -> f.name().equals(name)).findFirst();
    }

    /** @throws LaneException naming the parts there are when there is none of this name */
    public Part part(String name) {
        return parts.stream()
                .filter(p -> p.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new LaneException(
                        Fault.MISSING_PART,
                        "There is no part \"" + name + "\" here; "
                                + (parts.isEmpty()
                                        ? "the run has no boundary parts."
                                        : "its parts are "
                                                + parts.stream().map(Part::name).collect(Collectors.joining(", "))
                                                + ".")));
    }

    /** Whether the locator is there already, so that looking up a place costs next to nothing. */
    public boolean located() {
        return source != null ? source.located() : locator != null;
    }

    public CellLocator locator() {
        return locator(Work.QUIET);
    }

    /** @throws java.util.concurrent.CancellationException when cancelled while it is built */
    public CellLocator locator(Work work) {
        if (source != null) {
            return source.locator(work);
        }
        CellLocator made = locator;
        if (made == null) {
            synchronized (this) {
                made = locator;
                if (made == null) {
                    made = new CellLocator(mesh, work);
                    locator = made;
                }
            }
        }
        return made;
    }

    /** All stored times, ascending; empty when the files know none. */
    public List<Double> times() {
        return times;
    }

    /** The time that is looked at; NaN when the files know none. */
    public double time() {
        return time;
    }

    public Stated stated() {
        return stated;
    }

    /** This run, with the cell locator of another one on the same mesh. */
    public Run sharing(Run other) {
        source = other.source == null ? other : other.source;
        return this;
    }

    /** This run on its mesh placed elsewhere, which has a cell locator of its own. */
    public Run on(Mesh placed, List<Field> otherFields, List<Part> otherParts) {
        return new Run(placed, otherFields, otherParts, inputs, remarks, times, time, stated);
    }

    /** This run with other fields and parts on the same mesh. */
    public Run with(List<Field> otherFields, List<Part> otherParts, List<String> otherRemarks, Stated said) {
        var run = new Run(mesh, otherFields, otherParts, inputs, otherRemarks, times, time, said);
        run.source = source == null ? this : source;
        return run;
    }
}
