package lane.field;

import java.util.List;
import java.util.Optional;
import lane.base.Fault;
import lane.base.Hashed;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.mesh.CellLocator;
import lane.mesh.Mesh;
import lane.provenance.Provenance;

/**
 * A simulation result at one time: a mesh with fields and boundary parts. What it is known by is its {@link #key}: which files,
 * how they are understood, which time; not the object, so that what was computed on it is found again when it is read anew.
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
    private final Object key;
    private final Gather gather;

    /**
     * @param inputs the files it was read from
     * @param remarks what the reader wants known: what it skipped, turned or could not match
     * @throws LaneException when a field's size does not fit the mesh
     */
    public Run(Mesh mesh, List<Field> fields, List<Part> parts, List<Provenance.Input> inputs, List<String> remarks) {
        this(mesh, fields, parts, inputs, remarks, List.of(), Double.NaN, Stated.NOTHING, new Object());
    }

    /**
     * @param times all that are stored, ascending; empty when the files know none
     * @param time the one that is looked at; NaN when the files know none
     * @param key what decides all of it, by value; an object of its own for a run that is in memory only
     */
    public Run(
            Mesh mesh,
            List<Field> fields,
            List<Part> parts,
            List<Provenance.Input> inputs,
            List<String> remarks,
            List<Double> times,
            double time,
            Stated stated,
            Object key) {
        this(mesh, fields, parts, inputs, remarks, times, time, stated, key, Gather.WHOLE);
    }

    private Run(
            Mesh mesh,
            List<Field> fields,
            List<Part> parts,
            List<Provenance.Input> inputs,
            List<String> remarks,
            List<Double> times,
            double time,
            Stated stated,
            Object key,
            Gather gather) {
        this.gather = gather;
        this.key = Hashed.of(key);
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

    /** A run in memory at one of its times. */
    public Run(
            Mesh mesh,
            List<Field> fields,
            List<Part> parts,
            List<Provenance.Input> inputs,
            List<String> remarks,
            List<Double> times,
            double time,
            Stated stated) {
        this(mesh, fields, parts, inputs, remarks, times, time, stated, new Object());
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
                                                + Plain.names(parts.stream()
                                                        .map(Part::name)
                                                        .toList())
                                                + ".")));
    }

    /** Whether the locator is there already, so that looking up a place costs next to nothing. */
    public boolean located() {
        return mesh.located();
    }

    public CellLocator locator() {
        return mesh.locator(Work.QUIET);
    }

    /** @throws java.util.concurrent.CancellationException when cancelled while it is built */
    public CellLocator locator(Work work) {
        return mesh.locator(work);
    }

    /** Equal for runs that hold the same: the same files, understood in the same way, at the same time. */
    public Object key() {
        return key;
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

    /** What another one is that was made of this one. */
    private record Made(Object of, Object how) {}

    /**
     * This run on its mesh placed elsewhere.
     *
     * @param how what decides the place, by value
     */
    public Run on(Mesh placed, List<Field> otherFields, List<Part> otherParts, Object how) {
        return new Run(
                placed, otherFields, otherParts, inputs, remarks, times, time, stated, new Made(key, how), gather);
    }

    /** This run with other fields and parts on the same mesh, known as nothing but itself. */
    public Run with(List<Field> otherFields, List<Part> otherParts, List<String> otherRemarks, Stated said) {
        return with(otherFields, otherParts, otherRemarks, said, new Object());
    }

    /**
     * This run with other fields and parts on the same mesh.
     *
     * @param how what decides them, by value
     */
    public Run with(
            List<Field> otherFields, List<Part> otherParts, List<String> otherRemarks, Stated said, Object how) {
        return new Run(
                mesh, otherFields, otherParts, inputs, otherRemarks, times, time, said, new Made(key, how), gather);
    }

    /** What this run and the pieces beside it, if it is one of several, give together. */
    public Gather gather() {
        return gather;
    }

    /** This run as a piece of one. */
    public Run piece(Gather of) {
        return new Run(mesh, fields, parts, inputs, remarks, times, time, stated, key, of);
    }
}
