package lane.formula;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The functions there are, for help and completion; what they do is in {@link Compiler}. */
public final class Functions {
    /**
     * @param signature with its arguments, for people
     * @param meaning one sentence
     */
    public record Function(String name, String signature, String meaning) {}

    private static final Map<String, Function> ALL = new LinkedHashMap<>();

    static {
        add("sqrt(a)", "Square root; of a unit too.");
        add("cbrt(a)", "Cube root; of a unit too.");
        add("abs(a)", "Magnitude of a number.");
        add("sign(a)", "-1, 0 or 1.");
        add("exp(a)", "Exponential function of a number without a unit.");
        add("log(a)", "Natural logarithm of a number without a unit.");
        add("ln(a)", "Natural logarithm of a number without a unit.");
        add("log10(a)", "Logarithm to the base of ten.");
        add("log2(a)", "Logarithm to the base of two.");
        add("sin(angle)", "Sine; a plain number is in radians.");
        add("cos(angle)", "Cosine; a plain number is in radians.");
        add("tan(angle)", "Tangent; a plain number is in radians.");
        add("asin(a)", "Angle whose sine is a.");
        add("acos(a)", "Angle whose cosine is a.");
        add("atan(a)", "Angle whose tangent is a.");
        add("atan2(y, x)", "Angle of the place x, y; both in one unit.");
        add("sinh(a)", "Hyperbolic sine.");
        add("cosh(a)", "Hyperbolic cosine.");
        add("tanh(a)", "Hyperbolic tangent.");
        add("erf(a)", "Error function.");
        add("gamma(a)", "Gamma function.");
        add("floor(a)", "Next whole number below.");
        add("ceil(a)", "Next whole number above.");
        add("round(a)", "Nearest whole number, halves to the even one.");
        add("mod(a, b)", "What is left of a divided by b, with the sign of b.");
        add("hypot(a, b)", "Root of the sum of the squares.");
        add("min(a, b, …)", "Least of several; over a station the least value there.");
        add("max(a, b, …)", "Greatest of several; over a station the greatest value there.");
        add("if(condition, a, b)", "a where the condition holds, else b.");
        add("norm(v)", "Magnitude of a vector or a tensor.");
        add("dot(a, b)", "Scalar product; of a tensor and a vector the vector.");
        add("cross(a, b)", "Vector product.");
        add("outer(a, b)", "Dyadic product, a tensor.");
        add("unit(v)", "Vector of the same direction and length 1.");
        add("transpose(t)", "Transposed tensor.");
        add("symmetric(t)", "Half the sum of a tensor and its transposed.");
        add("trace(t)", "Sum of the diagonal.");
        add("deviator(t)", "Tensor less a third of its trace on the diagonal.");
        add("det(t)", "Determinant.");
        add("invariant(t, k)", "First, second or third principal invariant.");
        add("principal(t, k)", "Principal value of a symmetric tensor; 1 is the greatest.");
        add("equivalent(t)", "Equivalent value: root of 3/2 deviator : deviator.");
        add("double(a, b)", "Double contraction of two tensors.");
        add("identity()", "Unit tensor.");
        add("component(f, k)", "k-th number of a list, from 1.");
        add("grad(f)", "Gradient; of a vector the tensor of d(component)/d(direction).");
        add("div(v)", "Divergence of a vector.");
        add("curl(v)", "Curl of a vector.");
        add("jump(f)", "Greatest difference from the cells around, a value a cell.");
        add(
                "mean(f over station by weight)",
                "Mean over a station; by area, length or volume, times the weight if there is one.");
        add("integral(f over station)", "Integral over a station.");
        add("flow(v over station)", "Integral of the vector's component along the normal.");
        add(
                "table(\"name\", x)",
                "Value of a table at x, linear between its points; table(\"name\", \"column\", x) of another column.");
        add(
                "x()",
                "Coordinate x, also where a field has the name x; so are y, z, radius, angle, axial, time, position, normal.");
    }

    private Functions() {}

    private static void add(String signature, String meaning) {
        String name = signature.substring(0, signature.indexOf('('));
        ALL.put(name, new Function(name, signature, meaning));
    }

    public static List<Function> all() {
        return List.copyOf(ALL.values());
    }

    /** The function of a name; null for none. */
    public static @Nullable Function of(String name) {
        return ALL.get(name);
    }
}
