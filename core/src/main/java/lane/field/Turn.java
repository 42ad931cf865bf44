package lane.field;

import java.util.ArrayList;
import java.util.List;
import lane.base.LaneException;
import lane.mesh.Axis;
import lane.mesh.Mesh;
import lane.mesh.Point;

/**
 * A run whose mesh stands for a full turn about the study's axis: a plane mesh in a half plane of the axis, or a solid
 * wedge of it.
 *
 * @param radius of a plane mesh, which of its file's x, y and z is the radius; blank for a wedge
 * @param along which of them runs along the axis; blank for a wedge
 */
public record Turn(String radius, String along) {
    public static final Turn WEDGE = new Turn("", "");

    /** @throws LaneException when the directions are not two different ones of x, y and z */
    public Turn {
        radius = radius == null ? "" : radius;
        along = along == null ? "" : along;
        boolean wedge = radius.isEmpty() && along.isEmpty();
        if (!wedge && (radius.equals(along) || !List.of("x", "y", "z").containsAll(List.of(radius, along)))) {
            throw new LaneException("A turned run cannot have its radius along \"" + radius + "\" and its axis along \""
                    + along + "\"; give two different ones of x, y and z.");
        }
    }

    public boolean wedge() {
        return radius.isEmpty();
    }

    public String word() {
        return wedge() ? "wedge of a full turn" : "full turn, radius is " + radius + ", axis along " + along;
    }

    /**
     * The nodes of a plane mesh in the half plane of angle zero of the axis.
     *
     * @throws LaneException when a radius is negative
     */
    public Mesh place(Mesh mesh, Axis axis) {
        int r = "xyz".indexOf(radius);
        int h = "xyz".indexOf(along);
        double[] from = mesh.xyz();
        double[] to = new double[from.length];
        double slack = 1e-9 * mesh.modelSize();
        for (int i = 0; i < from.length; i += 3) {
            if (from[i + r] < -slack) {
                throw new LaneException("The radius " + radius + " of an axisymmetric run is " + from[i + r]
                        + " m at a node; choose the direction whose coordinates are not negative.");
            }
            Point p = axis.place(from[i + r], 0, from[i + h]);
            to[i] = p.x();
            to[i + 1] = p.y();
            to[i + 2] = p.z();
        }
        return mesh.withNodes(to);
    }

    /** The run on its mesh as {@link #place} made it, vectors of three and tensors of nine components turned along. */
    public Run apply(Run run, Mesh placed, Axis axis) {
        // The third direction of the file points around the axis, one way or the other.
        int r = "xyz".indexOf(radius);
        int h = "xyz".indexOf(along);
        boolean even = (h + 1) % 3 == r;
        Point[] to = new Point[3];
        to[r] = axis.zero();
        to[h] = axis.direction();
        to[3 - r - h] = axis.quarter().times(even ? 1 : -1);
        List<Part> parts = new ArrayList<>();
        for (Part p : run.parts()) {
            parts.add(p.on(place(p.surface(), axis)).with(turned(p.fields(), to)));
        }
        return run.on(placed, turned(run.fields(), to), parts, List.of(this, axis));
    }

    private static List<Field> turned(List<Field> fields, Point[] to) {
        return fields.stream()
                .map(f -> switch (f.components()) {
                    case 3 -> new Field(f.name(), f.at(), 3, f.unit(), later(f, to, () -> vectors(f.values(), to)));
                    case 9 -> new Field(f.name(), f.at(), 9, f.unit(), later(f, to, () -> tensors(f.values(), to)));
                    default -> f;
                })
                .toList();
    }

    private static Values later(Field f, Point[] to, java.util.function.Supplier<Values> turned) {
        return new Deferred(
                List.of(f.stored(), "turned", List.of(to)), f.stored().length(), turned);
    }

    private static Values vectors(Values values, Point[] to) {
        double[] out = new double[values.length()];
        for (int i = 0; i < out.length; i += 3) {
            for (int d = 0; d < 3; d++) {
                double v = values.get(i + d);
                out[i] += v * to[d].x();
                out[i + 1] += v * to[d].y();
                out[i + 2] += v * to[d].z();
            }
        }
        return new Values.Doubles(out);
    }

    private static Values tensors(Values values, Point[] to) {
        double[] out = new double[values.length()];
        double[][] m = new double[3][];
        for (int d = 0; d < 3; d++) {
            m[d] = new double[] {to[d].x(), to[d].y(), to[d].z()};
        }
        for (int i = 0; i < out.length; i += 9) {
            for (int a = 0; a < 3; a++) {
                for (int b = 0; b < 3; b++) {
                    double v = values.get(i + 3 * a + b);
                    for (int c = 0; c < 3; c++) {
                        for (int d = 0; d < 3; d++) {
                            out[i + 3 * c + d] += m[a][c] * v * m[b][d];
                        }
                    }
                }
            }
        }
        return new Values.Doubles(out);
    }
}
