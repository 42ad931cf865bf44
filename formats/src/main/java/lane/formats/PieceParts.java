package lane.formats;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedSet;
import java.util.stream.IntStream;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Part;
import lane.field.Role;
import lane.mesh.Cell;
import lane.mesh.Mesh;

/**
 * What the pieces of a run have of boundary parts together, so that each of them has all parts, empty where it has no face of
 * one.
 *
 * @param numbers of regions that occur in any piece
 * @param faceCells whether a piece has cells of one dimension less, whose numbers then tell parts
 * @param named names of parts that not every piece may have, in order, each with what its fields are
 * @param boundaryOnly whether no part is told at all, so that the boundary is one
 * @param remarks what the reader wants known of all pieces
 */
record PieceParts(
        SortedSet<Integer> numbers,
        boolean faceCells,
        Map<String, List<Field>> named,
        boolean boundaryOnly,
        List<String> remarks) {
    /** The parts of a piece and those that it lacks, in the order of all pieces. */
    List<Part> of(List<Part> own) {
        List<Part> out = new ArrayList<>(
                own.stream().filter(p -> !named.containsKey(p.name())).toList());
        named.forEach((name, fields) -> out.add(
                own.stream().filter(p -> p.name().equals(name)).findFirst().orElseGet(() -> empty(name, fields))));
        return out;
    }

    private static Part empty(String name, List<Field> fields) {
        return new Part(
                name,
                new Mesh(new double[0], new byte[0], new int[1], new int[0]),
                new int[0],
                new int[0],
                fields.stream().map(f -> f.pick(new int[0])).toList(),
                0,
                0,
                Role.NONE);
    }

    /** The faces of a surface that are this piece's, with the share of the surface that they are. */
    static Part matched(Part placed) {
        if (placed.unmatched() == 0) {
            return placed;
        }
        int[] faces = IntStream.range(0, placed.owner().length)
                .filter(f -> placed.owner()[f] >= 0)
                .toArray();
        Part p = placed.pick(faces);
        double share = area(p.surface()) / area(placed.surface());
        return new Part(
                p.name(), p.surface(), p.node(), p.owner(), p.fields(), p.turned(), 0, p.role(), p.round(), share);
    }

    private static double area(Mesh surface) {
        var sum = new Sum();
        var cell = new Cell(surface);
        for (int c = 0; c < surface.cellCount(); c++) {
            sum.add(cell.load(c).measure());
        }
        return sum.value();
    }
}
