package lane.field;

import java.util.List;
import java.util.Optional;
import lane.base.Content;
import lane.mesh.Mesh;
import lane.mesh.Roundness;
import org.jspecify.annotations.Nullable;

/**
 * A boundary part: a surface of its own whose faces point out of the run, and its place on the run's mesh.
 *
 * @param name for people
 * @param surface faces (or edges, of a surface run) over nodes of their own
 * @param node for each surface node the run's node at the same place, or -1
 * @param owner for each face the run's cell behind it, or -1
 * @param fields stored on the surface itself, such as wall shear
 * @param turned number of faces that were wound inwards in the file and were turned
 * @param unmatched number of faces that are no boundary face of the run
 * @param role what it is to the flow
 * @param round the cylinder that its faces stand for; null where they are what they are
 * @param coverage share of the surface that was asked for which lies in the run; NaN where that has no size of its own
 */
public record Part(
        String name,
        Mesh surface,
        int[] node,
        int[] owner,
        List<Field> fields,
        int turned,
        int unmatched,
        Role role,
        @Nullable Roundness round,
        double coverage) {
    public Part(
            String name,
            Mesh surface,
            int[] node,
            int[] owner,
            List<Field> fields,
            int turned,
            int unmatched,
            Role role) {
        this(name, surface, node, owner, fields, turned, unmatched, role, null, Double.NaN);
    }

    public Part {
        fields = List.copyOf(fields);
    }

    /** Equal for parts that hold the same. */
    public Object key() {
        return List.of(
                name,
                surface.key(),
                Content.of(node),
                Content.of(owner),
                fields,
                role,
                Optional.ofNullable(round),
                coverage);
    }

    /** The cells of a plane or surface run themselves as one part, to be drawn. */
    public static Part ofCells(String name, Mesh mesh) {
        int[] node = new int[mesh.nodeCount()];
        java.util.Arrays.setAll(node, i -> i);
        int[] cell = new int[mesh.cellCount()];
        java.util.Arrays.setAll(cell, i -> i);
        return new Part(name, mesh, node, cell, List.of(), 0, 0, Role.NONE);
    }

    /** Whether it was cut out of the run, so that its nodes are none of the run's. */
    public boolean cut() {
        return node.length > 0 && java.util.Arrays.stream(node).allMatch(v -> v < 0) && unmatched == 0;
    }

    /** Whether a coverage tells of something outside; what is within round-off of 1, or unknown, does not. */
    public static boolean lacking(double coverage) {
        return coverage < 1 - 1e-9;
    }

    /** A coverage in words, {@code 83.12 %}; never rounded up, so that less than all does not read as all. */
    public static String percent(double coverage) {
        return new java.math.BigDecimal(100 * coverage)
                        .round(new java.math.MathContext(4, java.math.RoundingMode.DOWN))
                        .stripTrailingZeros()
                        .toPlainString()
                + " %";
    }

    /** Some of its faces. */
    public Part pick(int[] faces) {
        return PartPieces.pick(this, faces, name);
    }

    public Part named(String other) {
        return new Part(other, surface, node, owner, fields, turned, unmatched, role, round, coverage);
    }

    public Part with(Role other) {
        return new Part(name, surface, node, owner, fields, turned, unmatched, other, round, coverage);
    }

    public Part with(List<Field> others) {
        return new Part(name, surface, node, owner, others, turned, unmatched, role, round, coverage);
    }

    /** The same part on the same surface elsewhere. */
    public Part on(Mesh other) {
        return new Part(name, other, node, owner, fields, turned, unmatched, role, round, coverage);
    }

    public Optional<Field> field(String wanted) {
        return fields.stream().filter(f -> f.name().equals(wanted)).findFirst();
    }
}
