package lane.formula;

import java.util.List;
import lane.formula.Compiler.Val;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Unit;

/** Steps for places, components and products of vectors and tensors. Tensors stand row by row. */
final class Vectors {
    private final Compiler to;

    Vectors(Compiler to) {
        this.to = to;
    }

    private int add(int a, int b) {
        if (zero(a)) {
            return b;
        }
        return zero(b) ? a : to.step(Kernels.ADD, "+", a, b);
    }

    private int subtract(int a, int b) {
        return zero(b) ? a : to.step(Kernels.SUBTRACT, "-", a, b);
    }

    private int times(int a, int b) {
        if (zero(a) || zero(b)) {
            return constant(0);
        }
        if (one(a)) {
            return b;
        }
        return one(b) ? a : to.step(Kernels.MULTIPLY, "*", a, b);
    }

    private int over(int a, int b) {
        return to.step(Kernels.DIVIDE, "/", a, b);
    }

    private boolean zero(int a) {
        return to.program.constantIs(a) && to.program.constantOf(a) == 0;
    }

    private boolean one(int a) {
        return to.program.constantIs(a) && to.program.constantOf(a) == 1;
    }

    int constant(double v) {
        return to.program.constant(v);
    }

    /** The way to the place from the origin, or in a frame from the frame's. */
    Val place(Axis axis, boolean framed) {
        Val p = to.stored(Spot.PLACE.stored(), "position");
        if (!framed) {
            return new Val(p.type(), p.at());
        }
        return new Val(p.type(), minus(p.at(), to.constants(axis.origin())));
    }

    int[] minus(int[] a, int[] b) {
        int[] out = new int[a.length];
        for (int c = 0; c < out.length; c++) {
            out[c] = subtract(a[c], b[c]);
        }
        return out;
    }

    /** A vector or tensor as a frame sees it: its components along the frame's directions. Other values have no direction. */
    Val turned(Val v, Axis axis) {
        List<Point> e = directions(axis);
        if (v.type().vector()) {
            return new Val(
                    v.type(), new int[] {along(v.at(), e.get(0)), along(v.at(), e.get(1)), along(v.at(), e.get(2))});
        }
        if (!v.type().tensor()) {
            return v;
        }
        int[] out = new int[9];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                out[3 * i + j] = between(v.at(), to.constants(e.get(i)), to.constants(e.get(j)));
            }
        }
        return new Val(v.type(), out);
    }

    /** Component of a vector along a constant direction. */
    int along(int[] v, Point d) {
        return dot(v, to.constants(d));
    }

    int dot(int[] a, int[] b) {
        int sum = times(a[0], b[0]);
        for (int c = 1; c < a.length; c++) {
            sum = add(sum, times(a[c], b[c]));
        }
        return sum;
    }

    /** The global vector of components along a frame's directions. */
    int[] fromFrame(int[] v, Axis axis) {
        int[] e1 = to.constants(axis.zero());
        int[] e2 = to.constants(axis.quarter());
        int[] e3 = to.constants(axis.direction());
        int[] out = new int[3];
        for (int c = 0; c < 3; c++) {
            out[c] = add(add(times(v[0], e1[c]), times(v[1], e2[c])), times(v[2], e3[c]));
        }
        return out;
    }

    /** The way from the axis to the place, square to the axis. */
    private int[] arm(Axis axis) {
        int[] p = place(axis, true).at();
        int h = along(p, axis.direction());
        int[] d = to.constants(axis.direction());
        int[] out = new int[3];
        for (int c = 0; c < 3; c++) {
            out[c] = subtract(p[c], times(h, d[c]));
        }
        return out;
    }

    Val cylindrical(String name, Axis axis) {
        int[] p = place(axis, true).at();
        int at =
                switch (name) {
                    case "axial" -> along(p, axis.direction());
                    case "radius" -> norm(arm(axis));
                    default -> to.step(Kernels.ATAN2, "atan2", along(p, axis.quarter()), along(p, axis.zero()));
                };
        Unit unit = name.equals("angle") ? Unit.of("rad") : Unit.of("m");
        return new Val(Type.of(1, unit), new int[] {at});
    }

    int norm(int[] v) {
        return to.step(Kernels.SQRT, "sqrt", dot(v, v));
    }

    /** Directions at a place: away from the axis, around it, along it. */
    private int[] direction(String word, Axis axis) {
        int[] d = to.constants(axis.direction());
        if (word.equals("axial")) {
            return d;
        }
        int[] arm = arm(axis);
        int r = norm(arm);
        int[] away = {over(arm[0], r), over(arm[1], r), over(arm[2], r)};
        return word.equals("radial") ? away : cross(d, away);
    }

    int[] cross(int[] a, int[] b) {
        return new int[] {
            subtract(times(a[1], b[2]), times(a[2], b[1])),
            subtract(times(a[2], b[0]), times(a[0], b[2])),
            subtract(times(a[0], b[1]), times(a[1], b[0]))
        };
    }

    Val member(Val of, Node.Member m, Axis axis, boolean framed) {
        String name = m.member();
        Type one = of.type().shaped(1);
        if (of.type().vector()) {
            int d = name.length() == 1 ? "xyz".indexOf(name) : -1;
            if (d >= 0) {
                return new Val(
                        one, new int[] {framed ? along(of.at(), directions(axis).get(d)) : of.at()[d]});
            }
            if (List.of("radial", "swirl", "axial").contains(name)) {
                return new Val(one, new int[] {dot(of.at(), direction(name, axis))});
            }
            throw Compiler.error(
                    m.memberSpan(),
                    "A vector has no component \"" + name
                            + "\"; there are x, y, z and, about the axis, radial, swirl, axial.");
        }
        if (of.type().tensor()) {
            int i = name.length() == 2 ? "xyz".indexOf(name.charAt(0)) : -1;
            int j = name.length() == 2 ? "xyz".indexOf(name.charAt(1)) : -1;
            if (i >= 0 && j >= 0) {
                return new Val(one, new int[] {
                    framed
                            ? between(
                                    of.at(),
                                    to.constants(directions(axis).get(i)),
                                    to.constants(directions(axis).get(j)))
                            : of.at()[3 * i + j]
                });
            }
            if (List.of("radial", "hoop", "axial").contains(name)) {
                int[] d = direction(name.equals("hoop") ? "swirl" : name, axis);
                return new Val(one, new int[] {between(of.at(), d, d)});
            }
            throw Compiler.error(
                    m.memberSpan(),
                    "A tensor has no component \"" + name
                            + "\"; there are xx, xy and so on and, about the axis, radial, hoop, axial.");
        }
        throw Compiler.error(
                m.memberSpan(),
                of.type().components() == 1
                        ? "A number has no component \"" + name + "\"; leave it out."
                        : "A list has no named components; write component(f, 1) and so on.");
    }

    private static List<Point> directions(Axis axis) {
        return List.of(axis.zero(), axis.quarter(), axis.direction());
    }

    /** {@code a . t . b}. */
    private int between(int[] t, int[] a, int[] b) {
        return dot(a, apply(t, b));
    }

    /** {@code t . v}. */
    int[] apply(int[] t, int[] v) {
        return new int[] {dot(row(t, 0), v), dot(row(t, 1), v), dot(row(t, 2), v)};
    }

    private static int[] row(int[] t, int i) {
        return new int[] {t[3 * i], t[3 * i + 1], t[3 * i + 2]};
    }

    int[] transposed(int[] t) {
        return new int[] {t[0], t[3], t[6], t[1], t[4], t[7], t[2], t[5], t[8]};
    }

    int[] times(int[] a, int[] b, boolean tensors) {
        int[] columns = transposed(b);
        int[] out = new int[9];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                out[3 * i + j] = dot(row(a, i), row(columns, j));
            }
        }
        return out;
    }

    int[] outer(int[] a, int[] b) {
        int[] out = new int[9];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                out[3 * i + j] = times(a[i], b[j]);
            }
        }
        return out;
    }

    int trace(int[] t) {
        return add(add(t[0], t[4]), t[8]);
    }

    int[] symmetric(int[] t) {
        int[] s = transposed(t);
        int[] out = new int[9];
        for (int c = 0; c < 9; c++) {
            out[c] =
                    c % 4 == 0 ? t[c] : times(constant(0.5), add(t[Math.min(c, mirror(c))], s[Math.min(c, mirror(c))]));
        }
        return out;
    }

    private static int mirror(int c) {
        return 3 * (c % 3) + c / 3;
    }

    int[] deviator(int[] t) {
        int third = over(trace(t), constant(3));
        int[] out = t.clone();
        for (int c = 0; c < 9; c += 4) {
            out[c] = subtract(t[c], third);
        }
        return out;
    }

    int determinant(int[] t) {
        return dot(row(t, 0), cross(row(t, 1), row(t, 2)));
    }

    /** Second principal invariant: half of trace squared less trace of the square. */
    int second(int[] t) {
        int tr = trace(t);
        return times(constant(0.5), subtract(times(tr, tr), dot(t, transposed(t))));
    }

    int equivalent(int[] t) {
        int[] d = deviator(symmetric(t));
        return to.step(Kernels.SQRT, "sqrt", times(constant(1.5), dot(d, d)));
    }

    int principal(int[] t, int rank) {
        int[] s = symmetric(t);
        return to.step(Kernels.principal(rank), "principal " + rank, s[0], s[4], s[8], s[1], s[5], s[2]);
    }
}
