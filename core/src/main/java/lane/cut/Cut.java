package lane.cut;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import lane.base.Content;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Part;
import lane.field.Role;
import lane.field.Run;
import lane.mesh.Cell;
import lane.mesh.Mesh;
import lane.mesh.Roundness;
import org.jspecify.annotations.Nullable;

/**
 * A surface cut out of a run, or a curve cut out of a surface.
 *
 * @param surface polygons (of a plane run or a surface, lines), each within one cell of the run
 * @param owner the run's cell of each
 * @param stencil from the run's nodes to those of the surface
 * @param round the cylinder that the faces stand for; null where they are what they are
 * @param coverage share of what was asked for that lies in the run; 1 where that has no size of its own and ends where the
 *     run does
 */
public record Cut(
        Mesh surface,
        int[] owner,
        Stencil stencil,
        @Nullable Roundness round,
        double coverage) {
    public Cut(Mesh surface, int[] owner, Stencil stencil) {
        this(surface, owner, stencil, null, 1);
    }

    /** Equal for cuts that give the same surface and the same values on it. */
    public Object key() {
        return List.of(surface.key(), Content.of(owner), stencil.key(), Optional.ofNullable(round), coverage);
    }

    public Cut covering(double share) {
        return new Cut(surface, owner, stencil, round, share);
    }

    /** In square metres, on the cylinder where the faces stand for one; of lines, their length. */
    public double area() {
        if (round != null) {
            return round.area(surface, new double[] {0, 0, 1});
        }
        var cell = new Cell(surface);
        var sum = new Sum();
        for (int f = 0; f < owner.length; f++) {
            sum.add(cell.load(f).measure());
        }
        return sum.value();
    }

    public boolean empty() {
        return owner.length == 0;
    }

    /** The cut as a part of the run that carries these of its node fields; fields in cells come from the owners. */
    public Part part(String name, Run run, List<String> fields) {
        List<Field> own = new ArrayList<>();
        for (String wanted : fields) {
            run.field(wanted)
                    .filter(f -> f.at() == Field.At.NODE)
                    .ifPresent(f -> own.add(new Field(f.name(), f.at(), f.components(), f.unit(), stencil.apply(f))));
        }
        int[] node = new int[surface.nodeCount()];
        Arrays.fill(node, -1);
        return new Part(name, surface, node, owner, own, 0, 0, Role.NONE, round, coverage);
    }

    /** Several of the same run as one. */
    public static Cut join(List<Cut> all) {
        int points = all.stream().mapToInt(c -> c.surface.nodeCount()).sum();
        int faces = all.stream().mapToInt(c -> c.owner.length).sum();
        int corners = all.stream().mapToInt(c -> c.surface.nodes().length).sum();
        double[] xyz = new double[3 * points];
        byte[] shapes = new byte[faces];
        int[] offsets = new int[faces + 1];
        int[] nodes = new int[corners];
        int[] owner = new int[faces];
        var stencil = new StencilBuilder(points);
        int point = 0;
        int face = 0;
        int corner = 0;
        for (Cut c : all) {
            System.arraycopy(c.surface.xyz(), 0, xyz, 3 * point, c.surface.xyz().length);
            for (int f = 0; f < c.owner.length; f++) {
                for (int k = 0; k < c.surface.size(f); k++) {
                    nodes[corner++] = point + c.surface.nodes()[c.surface.begin(f) + k];
                }
                owner[face] = c.owner[f];
                shapes[face] = (byte) c.surface.shape(f).ordinal();
                offsets[++face] = corner;
            }
            for (int i = 0; i < c.surface.nodeCount(); i++) {
                stencil.copy(c.stencil, i, 1).next();
            }
            point += c.surface.nodeCount();
        }
        return new Cut(new Mesh(xyz, shapes, offsets, nodes), owner, stencil.build());
    }

    /** The faces that are told, with the nodes they use. */
    public Cut pick(int[] faces) {
        int[] to = new int[surface.nodeCount()];
        Arrays.fill(to, -1);
        int[] offsets = new int[faces.length + 1];
        byte[] shapes = new byte[faces.length];
        int[] cells = new int[faces.length];
        for (int i = 0; i < faces.length; i++) {
            offsets[i + 1] = offsets[i] + surface.size(faces[i]);
            shapes[i] = (byte) surface.shape(faces[i]).ordinal();
            cells[i] = owner[faces[i]];
        }
        int[] nodes = new int[offsets[faces.length]];
        int[] from = new int[surface.nodeCount()];
        int points = 0;
        for (int i = 0; i < faces.length; i++) {
            for (int k = 0; k < surface.size(faces[i]); k++) {
                int v = surface.nodes()[surface.begin(faces[i]) + k];
                if (to[v] < 0) {
                    from[points] = v;
                    to[v] = points++;
                }
                nodes[offsets[i] + k] = to[v];
            }
        }
        double[] xyz = new double[3 * points];
        var stencils = new StencilBuilder(points);
        for (int i = 0; i < points; i++) {
            System.arraycopy(surface.xyz(), 3 * from[i], xyz, 3 * i, 3);
            stencils.copy(stencil, from[i], 1).next();
        }
        return new Cut(new Mesh(xyz, shapes, offsets, nodes), cells, stencils.build(), round, coverage);
    }

    /** Number of the connected piece of each face, counted from 0 in the order of the faces. */
    public int[] pieces() {
        int[] group = new int[surface.nodeCount()];
        Arrays.setAll(group, i -> i);
        for (int f = 0; f < owner.length; f++) {
            int first = root(group, surface.nodes()[surface.begin(f)]);
            for (int k = 1; k < surface.size(f); k++) {
                int other = root(group, surface.nodes()[surface.begin(f) + k]);
                group[Math.max(first, other)] = Math.min(first, other);
                first = Math.min(first, other);
            }
        }
        int[] number = new int[group.length];
        Arrays.fill(number, -1);
        int[] out = new int[owner.length];
        int made = 0;
        for (int f = 0; f < out.length; f++) {
            int r = root(group, surface.nodes()[surface.begin(f)]);
            if (number[r] < 0) {
                number[r] = made++;
            }
            out[f] = number[r];
        }
        return out;
    }

    private static int root(int[] group, int i) {
        int r = i;
        while (group[r] != r) {
            group[r] = group[group[r]];
            r = group[r];
        }
        return r;
    }
}
