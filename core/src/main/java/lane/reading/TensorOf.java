package lane.reading;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import lane.estimate.Estimate;
import lane.estimate.Uncertainty;
import lane.evaluation.EvaluationContext;
import lane.measure.Integral;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.hipparchus.linear.EigenDecompositionSymmetric;
import org.hipparchus.linear.MatrixUtils;
import org.jspecify.annotations.Nullable;

/**
 * The mean or the integral of a tensor in one reading: its nine components along the axes of space or of a frame, its trace, and
 * of its symmetric part the principal values and the equivalent one, {@code sqrt(3/2 dev : dev)}.
 *
 * @param stations keys of the stations, taken together
 * @param quantity key of a tensor
 * @param integral whether it is the integral; else the mean
 * @param number which of them formulas and checks take
 * @param frame key of the frame that the components are along; blank for space
 * @param placed that frame in space, filled in before it is read; null before, and for space
 */
public record TensorOf(
        List<String> stations,
        String quantity,
        boolean integral,
        Which number,
        String frame,
        @Nullable Axis placed) implements Ask {
    private static final Method COMPONENTS =
            new Method("components along x, y and z, each by itself; principal values of the symmetric part", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "tensor";
        }

        @Override
        public Class<TensorOf> type() {
            return TensorOf.class;
        }
    }

    /** One of the numbers of a tensor; the first index is that of the row. */
    public enum Which {
        XX,
        XY,
        XZ,
        YX,
        YY,
        YZ,
        ZX,
        ZY,
        ZZ,
        TRACE,
        GREATEST_PRINCIPAL,
        MIDDLE_PRINCIPAL,
        LEAST_PRINCIPAL,
        EQUIVALENT;

        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }
    }

    public TensorOf {
        stations = stations == null ? List.of() : List.copyOf(stations);
        number = number == null ? Which.EQUIVALENT : number;
        frame = frame == null ? "" : frame;
    }

    @Override
    public TensorOf placed(Axis axis) {
        return new TensorOf(stations, quantity, integral, number, frame, axis);
    }

    @Override
    public Form form() {
        return Form.NUMBER;
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        for (Which w : Which.values()) {
            out.add(name + " " + w.word());
        }
        return out;
    }

    private static final String[] AXES = {"[1, 0, 0]", "[0, 1, 0]", "[0, 0, 1]"};

    /** A component as a quantity of its own. */
    private Quantity component(EvaluationContext lens, int i, int j) {
        String formula = "dot(" + AXES[i] + ", dot(" + lens.named(quantity) + ", " + AXES[j] + "))";
        String name = Which.values()[3 * i + j].word() + " of " + quantity;
        return new Quantity(name, name, formula, "", "");
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        double[][] space = new double[3][3];
        Provenance trail = on.trail();
        Tally first = null;
        Uncertainty worst = Uncertainty.NONE;
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                Quantity q = component(on.lens(), i, j);
                Measure measure = integral ? new Integral(q.id()) : new Mean(q.id());
                Outcome made = new TallyOf(stations, measure)
                        .read(reading.in(""), on.through(on.lens().with(q)));
                if (!(made instanceof Tally t)) {
                    return made;
                }
                space[i][j] = t.value();
                trail = first == null ? t.trail() : trail.with(t.trail());
                first = first == null ? t : first;
                // Turned into a frame each component takes from all: the worst known one stands for them.
                Uncertainty doubt = t.estimate().uncertainty();
                worst = doubt.known() && !(worst.counted() >= doubt.half()) ? doubt : worst;
            }
        }
        Tally any = java.util.Objects.requireNonNull(first);
        double[] all = numbers(frame.isBlank() ? space : turned(space, Frames.known(frame, placed)));
        Unit shown = Outcome.shown(reading.unit(), any.unit(), "Reading \"" + reading.name() + "\"");
        List<Scalar> named = new ArrayList<>();
        for (Which w : Which.values()) {
            named.add(new Scalar(w.word(), new Estimate(all[w.ordinal()], shown, worst), remark(w)));
        }
        Map<String, Object> settings = new LinkedHashMap<>();
        settings.put("number", number.word());
        settings.put("definition", this);
        String note = (integral ? "integral " : "mean ") + any.note();
        return new Several(
                named,
                number.ordinal(),
                List.of(),
                note,
                any.coverage(),
                trail.then("reading", COMPONENTS, "tensor, {number}", settings));
    }

    /** Components along the axes of a frame: {@code e_i . T e_j}. */
    private static double[][] turned(double[][] t, Axis axes) {
        double[][] to = new double[3][];
        for (int d = 0; d < 3; d++) {
            Point p = axes.outDirection(Point.along(d));
            to[d] = new double[] {p.x(), p.y(), p.z()};
        }
        double[][] out = new double[3][3];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                for (int k = 0; k < 3; k++) {
                    for (int l = 0; l < 3; l++) {
                        out[i][j] += to[i][k] * t[k][l] * to[j][l];
                    }
                }
            }
        }
        return out;
    }

    private static double[] numbers(double[][] t) {
        double[] out = new double[Which.values().length];
        double[][] symmetric = new double[3][3];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                out[3 * i + j] = t[i][j];
                symmetric[i][j] = (t[i][j] + t[j][i]) / 2;
            }
        }
        double trace = t[0][0] + t[1][1] + t[2][2];
        out[Which.TRACE.ordinal()] = trace;
        if (Double.isNaN(Arrays.stream(t).flatMapToDouble(Arrays::stream).sum())) {
            Arrays.fill(out, Which.GREATEST_PRINCIPAL.ordinal(), out.length, Double.NaN);
            return out;
        }
        double[] values = new EigenDecompositionSymmetric(MatrixUtils.createRealMatrix(symmetric)).getEigenvalues();
        Arrays.sort(values);
        out[Which.GREATEST_PRINCIPAL.ordinal()] = values[2];
        out[Which.MIDDLE_PRINCIPAL.ordinal()] = values[1];
        out[Which.LEAST_PRINCIPAL.ordinal()] = values[0];
        double sum = 0;
        for (double v : values) {
            sum += (v - trace / 3) * (v - trace / 3);
        }
        out[Which.EQUIVALENT.ordinal()] = Math.sqrt(1.5 * sum);
        return out;
    }

    private String remark(Which w) {
        String in = frame.isBlank() ? " of space" : " of frame \"" + frame + "\"";
        return switch (w) {
            case TRACE -> "sum of the diagonal";
            case GREATEST_PRINCIPAL, MIDDLE_PRINCIPAL, LEAST_PRINCIPAL ->
                "eigenvalue of the symmetric part of the " + (integral ? "integral" : "mean");
            case EQUIVALENT -> "sqrt(3/2 dev : dev) of the symmetric part of the " + (integral ? "integral" : "mean");
            default -> "row " + w.word().charAt(0) + ", column " + w.word().charAt(1) + in;
        };
    }
}
