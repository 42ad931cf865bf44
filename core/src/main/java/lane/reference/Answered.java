package lane.reference;

import java.nio.DoubleBuffer;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lane.evaluation.Anywhere;
import lane.mesh.Axis;
import lane.station.Locus;
import lane.station.Station;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * Curves of a theory or a measurement as numbers at places: the first that knows the place counts.
 *
 * @param of whose they are
 */
public record Answered(String of, List<Piece> pieces) implements Anywhere {
    public Answered {
        pieces = List.copyOf(pieces);
    }

    /** One curve. */
    public sealed interface Piece {
        String word();

        void at(double[] x, double[] y, double[] z, int n, double[] into);
    }

    /** Whether a formula counts along the station that it answers. */
    public static boolean alongTheLine(Curve.ByFormula f) {
        return Formula.of(f.formula()).names().contains("s");
    }

    /** @param on the station that it is meant for; null for any place */
    public static Piece formula(
            Curve.ByFormula f, Map<String, Double> constants, double time, @Nullable Station on, Axis axis) {
        Formula formula = Formula.of(f.formula());
        Map<String, Double> known = new HashMap<>(constants);
        known.keySet().retainAll(formula.names());
        known.keySet().removeAll(List.of("x", "y", "z", "r", "s"));
        if (formula.names().contains("time") && !Double.isNaN(time)) {
            known.putIfAbsent("time", time);
        }
        return new ByFormula(formula, f.unit(), known, on, axis);
    }

    private record ByFormula(
            Formula formula,
            String unit,
            Map<String, Double> known,
            @Nullable Station on,
            Axis axis) implements Piece {
        @Override
        public String word() {
            return "formula " + formula.text();
        }

        @Override
        public void at(double[] x, double[] y, double[] z, int n, double[] into) {
            var columns = new HashMap<String, double[]>(Map.of("x", x, "y", y, "z", z));
            if (formula.names().contains("r")) {
                double[] r = new double[n];
                Arrays.setAll(r, i -> axis.radius(x[i], y[i], z[i]));
                columns.put("r", r);
            }
            double[] arc =
                    on == null ? null : Locus.of(on, axis).find(x, y, z, n).arc();
            if (arc != null) {
                columns.put("s", arc);
            }
            formula.values(known, columns, n, into);
            Unit in = Unit.of(unit);
            for (int i = 0; i < n; i++) {
                into[i] = arc != null && Double.isNaN(arc[i]) ? Double.NaN : in.toSi(into[i]);
            }
        }
    }

    /**
     * Points of a table along a station, with straight lines between them and nothing outside.
     *
     * @param abscissa ascending, in SI units, as the values are
     */
    public record Points(String file, Station on, Axis axis, double[] abscissa, double[] value) implements Piece {
        @Override
        public String word() {
            return "table " + file + ", straight between its points";
        }

        @Override
        public void at(double[] x, double[] y, double[] z, int n, double[] into) {
            double[] at = Locus.of(on, axis).find(x, y, z, n).abscissa();
            for (int i = 0; i < n; i++) {
                into[i] = between(at[i]);
            }
        }

        private double between(double a) {
            int last = abscissa.length - 1;
            // Round-off must not lose the ends.
            double slack = 1e-9 * (abscissa[last] - abscissa[0]);
            if (!(a >= abscissa[0] - slack) || !(a <= abscissa[last] + slack)) {
                return Double.NaN;
            }
            int i = Arrays.binarySearch(abscissa, a);
            if (i >= 0) {
                return value[i];
            }
            int right = -i - 1;
            if (right == 0 || right > last) {
                return value[right == 0 ? 0 : last];
            }
            double f = (a - abscissa[right - 1]) / (abscissa[right] - abscissa[right - 1]);
            return value[right - 1] + f * (value[right] - value[right - 1]);
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Points p
                    && file.equals(p.file)
                    && on.equals(p.on)
                    && axis.equals(p.axis)
                    && Arrays.equals(abscissa, p.abscissa)
                    && Arrays.equals(value, p.value);
        }

        @Override
        public int hashCode() {
            return 31 * DoubleBuffer.wrap(abscissa).hashCode()
                    + DoubleBuffer.wrap(value).hashCode();
        }
    }

    @Override
    public String word() {
        return String.join("; ", pieces.stream().map(p -> of + ": " + p.word()).toList());
    }

    @Override
    public void at(double[] x, double[] y, double[] z, int n, double[] into) {
        pieces.getFirst().at(x, y, z, n, into);
        double[] next = new double[n];
        for (Piece piece : pieces.subList(1, pieces.size())) {
            piece.at(x, y, z, n, next);
            for (int i = 0; i < n; i++) {
                into[i] = Double.isNaN(into[i]) ? next[i] : into[i];
            }
        }
    }
}
