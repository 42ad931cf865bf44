package lane.formula;

import java.util.Arrays;
import lane.formula.Compiler.Val;
import lane.unit.Unit;

/** Signs, sums, products, powers and comparisons: what their units are, and the steps that compute them. */
final class Operators {
    private final Compiler compiler;

    Operators(Compiler compiler) {
        this.compiler = compiler;
    }

    Val unary(Node.Unary u, String frame) {
        // The sign of -18 "degC" belongs to the number: eighteen below zero on that scale, not the negative of 291.15
        // K.
        if (u.operator().equals("-")
                && u.of() instanceof Node.Num n
                && Unit.of(n.unit()).offset() != 0) {
            return compiler.value(new Node.Num(-n.value(), n.unit(), n.span(), n.unitSpan()), frame);
        }
        Val v = compiler.value(u.of(), frame);
        if (u.operator().equals("not")) {
            compiler.condition(v, u.of());
            return new Val(Type.TRUTH, new int[] {compiler.step(Kernels.NOT, "not", v.at())});
        }
        compiler.noTruth(v, u.of());
        double points = -v.type().points();
        if (v.type().temperature() && v.type().points() != 0) {
            compiler.odd(u.span());
        }
        int[] at = Arrays.stream(v.at())
                .map(i -> compiler.step(Kernels.NEGATE, "neg", i))
                .toArray();
        return new Val(v.type().in(v.type().unit(), points == 0 ? 0 : points), at);
    }

    Val binary(Node.Binary b, String frame) {
        Val left = compiler.value(b.left(), frame);
        Val right = compiler.value(b.right(), frame);
        return switch (b.operator()) {
            case "and", "or" -> {
                compiler.condition(left, b.left());
                compiler.condition(right, b.right());
                boolean and = b.operator().equals("and");
                yield new Val(Type.TRUTH, new int[] {
                    compiler.step(and ? Kernels.LEAST : Kernels.GREATEST, b.operator(), left.at()[0], right.at()[0])
                });
            }
            case "+", "-" -> sum(b, left, right);
            case "*" -> product(b, left, right);
            case "/" -> quotient(b, left, right);
            case "^" -> power(b, left, right);
            default -> comparison(b, left, right);
        };
    }

    private Val sum(Node.Binary b, Val left, Val right) {
        compiler.noTruth(left, b.left());
        compiler.noTruth(right, b.right());
        boolean plus = b.operator().equals("+");
        compiler.alike(plus ? "added" : "subtracted", b.at(), b.left(), left, b.right(), right);
        Type type;
        if (!left.type().known() || !right.type().known()) {
            type = compiler.zero(left)
                    ? right.type()
                    : compiler.zero(right) ? left.type() : left.type().in(Unit.UNKNOWN, 0);
        } else {
            type = compiler.zero(left) && !right.type().temperature()
                    ? right.type()
                    : compiler.zero(right) && !left.type().temperature()
                            ? left.type()
                            : Rules.sum(left.type(), right.type(), plus ? 1 : -1);
        }
        if (type.temperature() && type.points() != 0 && type.points() != 1 && !Rules.either(type)) {
            compiler.odd(b.span());
        }
        int[] at = new int[left.at().length];
        for (int c = 0; c < at.length; c++) {
            at[c] = plus
                    ? compiler.step(Kernels.ADD, "+", left.at()[c], right.at()[c])
                    : compiler.step(Kernels.SUBTRACT, "-", left.at()[c], right.at()[c]);
        }
        return new Val(type, at);
    }

    /** A constant number without a unit scales temperature points; in any other product the absolute value counts. */
    private double scaled(Val factor, Val of, boolean divide) {
        boolean constant =
                factor.type().number() && factor.type().plain() && compiler.program.constantIs(factor.at()[0]);
        if (!of.type().temperature() || !constant) {
            return 0;
        }
        double f = compiler.program.constantOf(factor.at()[0]);
        double points = of.type().points() * (divide ? 1 / f : f);
        return Math.abs(points - Math.rint(points)) < 1e-12 ? Math.rint(points) : points;
    }

    private Val product(Node.Binary b, Val left, Val right) {
        compiler.noTruth(left, b.left());
        compiler.noTruth(right, b.right());
        if (left.type().components() > 1 && right.type().components() > 1) {
            throw Compiler.error(
                    b.at(),
                    "A product of " + left.type().word() + " and "
                            + right.type().word()
                            + " can mean several things; write dot(a, b), cross(a, b) or double(a, b).");
        }
        boolean leftNumber = left.type().components() == 1;
        Val number = leftNumber ? left : right;
        Val other = leftNumber ? right : left;
        double points = right.type().temperature() ? scaled(left, right, false) : scaled(right, left, false);
        Unit unit = points == 1
                ? (right.type().temperature() ? right : left).type().unit()
                : Rules.product(left.type(), right.type());
        if (points != 0 && points != 1 && !Double.isNaN(points)) {
            compiler.odd(b.span());
        }
        int[] at = Arrays.stream(other.at())
                .map(i -> times(leftNumber ? number.at()[0] : i, leftNumber ? i : number.at()[0]))
                .toArray();
        return new Val(new Type(other.type().components(), false, unit, points), at);
    }

    private int times(int a, int b) {
        if (compiler.program.constantIs(a) && compiler.program.constantOf(a) == 1) {
            return b;
        }
        return compiler.program.constantIs(b) && compiler.program.constantOf(b) == 1
                ? a
                : compiler.step(Kernels.MULTIPLY, "*", a, b);
    }

    private Val quotient(Node.Binary b, Val left, Val right) {
        compiler.noTruth(left, b.left());
        compiler.noTruth(right, b.right());
        if (right.type().components() > 1) {
            throw Compiler.error(
                    b.at(),
                    "Nothing can be divided by " + right.type().word() + "; divide by its norm or a component.");
        }
        double points = left.type().temperature() && right.type().plain() ? scaled(right, left, true) : 0;
        if (points != 0 && points != 1 && !Double.isNaN(points)) {
            compiler.odd(b.span());
        }
        Unit unit = points == 1 ? left.type().unit() : Rules.quotient(left.type(), right.type());
        int[] at = Arrays.stream(left.at())
                .map(i -> compiler.step(Kernels.DIVIDE, "/", i, right.at()[0]))
                .toArray();
        return new Val(new Type(left.type().components(), false, unit, points), at);
    }

    private Val power(Node.Binary b, Val base, Val exponent) {
        if (!base.type().number()) {
            throw Compiler.error(
                    b.left().span(),
                    base.type().truth()
                            ? "A condition has no powers."
                            : "A power of " + base.type().word()
                                    + " can mean several things; write dot(a, a) or norm(a) ^ 2.");
        }
        if (!exponent.type().number()
                || exponent.type().known() && !exponent.type().plain()) {
            throw Compiler.error(
                    b.right().span(),
                    "An exponent is a number without a unit, not "
                            + exponent.type().word() + " in " + Compiler.unit(exponent) + ".");
        }
        boolean constant = compiler.program.constantIs(exponent.at()[0]);
        double e = constant ? compiler.program.constantOf(exponent.at()[0]) : Double.NaN;
        Unit unit;
        if (!base.type().known()) {
            unit = Unit.UNKNOWN;
        } else if (base.type().plain()) {
            unit = Unit.ONE;
        } else if (constant) {
            unit = compiler.raised(base.type().dimension(), e, b.right().span());
        } else {
            throw Compiler.error(
                    b.right().span(),
                    "The exponent differs from place to place, but " + Compiler.named(b.left()) + " has the unit "
                            + Compiler.unit(base) + "; divide the base by a reference first.");
        }
        return new Val(new Type(1, false, unit, 0), new int[] {raise(base.at()[0], exponent.at()[0], e)});
    }

    /** Small whole powers are products; x ^ 0.5 is the root. */
    private int raise(int base, int exponent, double e) {
        if (e == 0.5) {
            return compiler.step(Kernels.SQRT, "sqrt", base);
        }
        if (e == 1) {
            return base;
        }
        if (e == -1) {
            return compiler.step(Kernels.DIVIDE, "/", compiler.program.constant(1), base);
        }
        if (e == 2 || e == 3 || e == 4) {
            int square = compiler.step(Kernels.MULTIPLY, "*", base, base);
            return e == 2 ? square : compiler.step(Kernels.MULTIPLY, "*", square, e == 3 ? base : square);
        }
        return compiler.step(Kernels.POWER, "^", base, exponent);
    }

    private Val comparison(Node.Binary b, Val left, Val right) {
        compiler.noTruth(left, b.left());
        compiler.noTruth(right, b.right());
        compiler.settled(left, b.left());
        compiler.settled(right, b.right());
        if (left.type().components() > 1 || right.type().components() > 1) {
            throw Compiler.error(b.at(), "Vectors and tensors cannot be compared; compare components or norms.");
        }
        compiler.alike("compared", b.at(), b.left(), left, b.right(), right);
        compiler.sameKind(b.at(), left, right, "compared");
        int l = left.at()[0];
        int r = right.at()[0];
        int at =
                switch (b.operator()) {
                    case "<" -> compiler.step(Kernels.LESS, "<", l, r);
                    case "<=" -> compiler.step(Kernels.AT_MOST, "<=", l, r);
                    case ">" -> compiler.step(Kernels.LESS, "<", r, l);
                    case ">=" -> compiler.step(Kernels.AT_MOST, "<=", r, l);
                    case "=" -> compiler.step(Kernels.EQUAL, "=", l, r);
                    default -> compiler.step(Kernels.NOT, "not", compiler.step(Kernels.EQUAL, "=", l, r));
                };
        return new Val(Type.TRUTH, new int[] {at});
    }
}
