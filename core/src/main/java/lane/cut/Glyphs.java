package lane.cut;

import lane.field.Field;
import lane.field.Values;
import lane.mesh.Axis;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/** Bodies that show a vector field: tubes along streamlines, and arrows. Each corner carries the stencil of its place. */
public final class Glyphs {
    private static final int SIDES = 5;

    private Glyphs() {}

    /**
     * Tubes around lines, closed at neither end.
     *
     * @param radius in metres
     */
    public static Cut tubes(Streamlines lines, double radius) {
        int points = lines.cell().length;
        double[] xyz = new double[3 * SIDES * points];
        var stencil = new StencilBuilder(SIDES * points);
        int faces = 0;
        for (int l = 0; l < lines.count(); l++) {
            faces += SIDES * Math.max(0, lines.offsets()[l + 1] - lines.offsets()[l] - 1);
        }
        int[] nodes = new int[4 * faces];
        int[] owner = new int[faces];
        int face = 0;
        for (int l = 0; l < lines.count(); l++) {
            int from = lines.offsets()[l];
            int to = lines.offsets()[l + 1];
            Point side = null;
            for (int i = from; i < to; i++) {
                Point along = at(lines, Math.min(to - 1, i + 1)).minus(at(lines, Math.max(from, i - 1)));
                along = along.norm() > 0 ? along.unit() : new Point(0, 0, 1);
                // The frame is carried along the line, so that the tube does not twist.
                side = side == null ? new Axis(new Point(0, 0, 0), along).zero() : side;
                Point square = side.minus(along.times(side.dot(along)));
                side = square.norm() > 1e-9 ? square.unit() : new Axis(new Point(0, 0, 0), along).zero();
                Point other = along.cross(side);
                for (int k = 0; k < SIDES; k++) {
                    double a = 2 * Math.PI * k / SIDES;
                    Point p =
                            at(lines, i).plus(side.times(radius * Math.cos(a))).plus(other.times(radius * Math.sin(a)));
                    put(xyz, i * SIDES + k, p);
                    stencil.copy(lines.stencil(), i, 1).next();
                }
                for (int k = 0; i + 1 < to && k < SIDES; k++) {
                    nodes[4 * face] = i * SIDES + k;
                    nodes[4 * face + 1] = i * SIDES + (k + 1) % SIDES;
                    nodes[4 * face + 2] = (i + 1) * SIDES + (k + 1) % SIDES;
                    nodes[4 * face + 3] = (i + 1) * SIDES + k;
                    owner[face++] = lines.cell()[i];
                }
            }
        }
        return new Cut(Mesh.uniform(xyz, CellShape.QUAD, nodes), owner, stencil.build());
    }

    /** A value a point of streamlines as one a node of their {@link #tubes}. */
    public static double[] around(double[] atPoints) {
        double[] out = new double[SIDES * atPoints.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = atPoints[i / SIDES];
        }
        return out;
    }

    private static Point at(Streamlines lines, int i) {
        return new Point(lines.xyz()[3 * i], lines.xyz()[3 * i + 1], lines.xyz()[3 * i + 2]);
    }

    private static void put(double[] xyz, int i, Point p) {
        xyz[3 * i] = p.x();
        xyz[3 * i + 1] = p.y();
        xyz[3 * i + 2] = p.z();
    }

    /**
     * Arrows from places, as long as the field there is large.
     *
     * @param xyz places, three numbers each
     * @param cell the cell of each; a place in none gets no arrow
     * @param stencil from the run's nodes to the places
     * @param field three components at nodes, or in cells
     * @param longest length of the arrow of the largest value, in metres
     * @param tangential normals that the component along is taken off, three numbers each; null to keep all of it
     */
    public static Cut arrows(
            double[] xyz, int[] cell, Stencil stencil, Field field, double longest, double @Nullable [] tangential) {
        int n = cell.length;
        double[][] v = new double[n][];
        double most = 0;
        int kept = 0;
        for (int i = 0; i < n; i++) {
            if (cell[i] < 0) {
                continue;
            }
            v[i] = value(i, cell[i], stencil, field);
            if (tangential != null) {
                double dot = 0;
                for (int d = 0; d < 3; d++) {
                    dot += v[i][d] * tangential[3 * i + d];
                }
                for (int d = 0; d < 3; d++) {
                    v[i][d] -= dot * tangential[3 * i + d];
                }
            }
            double size = Math.sqrt(v[i][0] * v[i][0] + v[i][1] * v[i][1] + v[i][2] * v[i][2]);
            if (!Double.isFinite(size)) {
                v[i] = null;
                continue;
            }
            most = Math.max(most, size);
            kept++;
        }
        // A shaft of three sides and a head of four.
        int corners = 11;
        double[] made = new double[3 * corners * kept];
        int[] nodes = new int[3 * 10 * kept];
        int[] owner = new int[10 * kept];
        var stencils = new StencilBuilder(corners * kept);
        int a = 0;
        for (int i = 0; i < n; i++) {
            if (cell[i] < 0 || v[i] == null) {
                continue;
            }
            arrow(
                    new Point(xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]),
                    new Point(v[i][0], v[i][1], v[i][2]).times(most > 0 ? longest / most : 0),
                    longest,
                    made,
                    nodes,
                    a);
            for (int k = 0; k < corners; k++) {
                stencils.copy(stencil, i, 1).next();
            }
            for (int t = 0; t < 10; t++) {
                owner[10 * a + t] = cell[i];
            }
            a++;
        }
        return new Cut(Mesh.uniform(made, CellShape.TRIANGLE, nodes), owner, stencils.build());
    }

    private static double[] value(int i, int cell, Stencil stencil, Field field) {
        double[] v = new double[3];
        Values values = field.values();
        if (field.at() == Field.At.CELL) {
            for (int d = 0; d < 3; d++) {
                v[d] = values.get(3 * cell + d);
            }
            return v;
        }
        for (int k = stencil.start()[i]; k < stencil.start()[i + 1]; k++) {
            for (int d = 0; d < 3; d++) {
                v[d] += stencil.share()[k] * values.get(3 * stencil.node()[k] + d);
            }
        }
        return v;
    }

    private static void arrow(Point from, Point by, double longest, double[] xyz, int[] nodes, int a) {
        double length = by.norm();
        Point along = length > 0 ? by.times(1 / length) : new Point(0, 0, 1);
        var axis = new Axis(new Point(0, 0, 0), along);
        double thick = Math.min(0.02 * longest, 0.1 * length);
        double head = Math.min(0.3 * length, 0.25 * longest);
        Point neck = from.plus(along.times(length - head));
        int c = 11 * a;
        for (int k = 0; k < 3; k++) {
            Point side = axis.place(thick, 2 * Math.PI * k / 3, 0);
            put(xyz, c + k, from.plus(side));
            put(xyz, c + 3 + k, neck.plus(side));
        }
        for (int k = 0; k < 4; k++) {
            put(xyz, c + 6 + k, neck.plus(axis.place(0.35 * head, 2 * Math.PI * k / 4, 0)));
        }
        put(xyz, c + 10, from.plus(by));
        int[] t = {0, 1, 4, 0, 4, 3, 1, 2, 5, 1, 5, 4, 2, 0, 3, 2, 3, 5, 6, 7, 10, 7, 8, 10, 8, 9, 10, 9, 6, 10};
        for (int k = 0; k < 30; k++) {
            nodes[30 * a + k] = c + t[k];
        }
    }

    /**
     * A surface moved along its normals by a value at its nodes.
     *
     * @param value one a node, in any unit; NaN stays in place
     * @param scale metres for one unit of the value
     */
    public static Cut relief(Cut cut, Point normal, double[] value, double scale) {
        double[] xyz = cut.surface().xyz().clone();
        for (int i = 0; i < value.length; i++) {
            double by = Double.isNaN(value[i]) ? 0 : scale * value[i];
            xyz[3 * i] += by * normal.x();
            xyz[3 * i + 1] += by * normal.y();
            xyz[3 * i + 2] += by * normal.z();
        }
        return new Cut(cut.surface().withNodes(xyz), cut.owner(), cut.stencil(), cut.round(), cut.coverage());
    }
}
