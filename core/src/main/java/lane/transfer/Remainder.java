package lane.transfer;

import java.util.Arrays;
import java.util.List;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.Mesh;
import org.jspecify.annotations.Nullable;

/**
 * What integrals over pieces of bent cells lack of the integral over the whole cell, by its own rule. It is of the order of the rule's error;
 * of a cell that is covered as a whole it goes to its pieces by their volume, so that nothing is lost.
 */
final class Remainder {
    private final Mesh source;
    private final List<Field> fields;
    private final Work work;

    Remainder(Mesh source, List<Field> fields, Work work) {
        this.source = source;
        this.fields = fields;
        this.work = work;
    }

    /** Source cells with the volumes and integrals of pieces of theirs. */
    static final class Pairs {
        private final int components;
        private int[] cell = new int[8];
        private double[] volume = new double[8];
        private double[] integral;
        private int count;

        Pairs(int components) {
            this.components = components;
            integral = new double[8 * components];
        }

        void add(int s, double size, double[] one) {
            // Pieces of one cell come one after the other.
            if (count == 0 || cell[count - 1] != s) {
                if (count == cell.length) {
                    cell = Arrays.copyOf(cell, 2 * count);
                    volume = Arrays.copyOf(volume, 2 * count);
                    integral = Arrays.copyOf(integral, 2 * count * components);
                }
                cell[count] = s;
                volume[count] = 0;
                Arrays.fill(integral, count * components, (count + 1) * components, 0);
                count++;
            }
            volume[count - 1] += size;
            for (int k = 0; k < components; k++) {
                integral[(count - 1) * components + k] += one[k];
            }
        }

        /** Those so far, after which it is empty; null for none. */
        @Nullable
        Pairs taken() {
            if (count == 0) {
                return null;
            }
            var out = new Pairs(components);
            out.cell = Arrays.copyOf(cell, count);
            out.volume = Arrays.copyOf(volume, count);
            out.integral = Arrays.copyOf(integral, count * components);
            out.count = count;
            count = 0;
            return out;
        }
    }

    /**
     * Adds what is lacking.
     *
     * @param pairs of each target cell
     * @param to all components of one target cell, then of the next
     */
    void spread(@Nullable Pairs[] pairs, double[] to) {
        double[] lacking = lacking(pairs);
        for (int c = 0; c < pairs.length && lacking.length > 0; c++) {
            Pairs p = pairs[c];
            for (int i = 0; p != null && i < p.count; i++) {
                for (int k = 0; k < p.components; k++) {
                    to[c * p.components + k] += lacking[p.cell[i] * p.components + k] * p.volume[i];
                }
            }
        }
    }

    /** What is lacking in all, one a component. */
    double[] total(@Nullable Pairs[] pairs, int components) {
        double[] out = new double[pairs.length == 0 ? 0 : pairs.length * components];
        spread(pairs, out);
        double[] sums = new double[components];
        for (int k = 0; k < components; k++) {
            var sum = new lane.base.Sum();
            for (int c = 0; c < pairs.length; c++) {
                sum.add(out[c * components + k]);
            }
            sums[k] = sum.value();
        }
        return sums;
    }

    /** For each source cell what it lacks, for each volume of it; 0 for one that is covered in part. Empty where there are no pairs. */
    private double[] lacking(@Nullable Pairs[] pairs) {
        int components = fields.stream().mapToInt(Field::components).sum();
        double[] volume = new double[source.cellCount()];
        double[] integral = new double[source.cellCount() * components];
        boolean any = false;
        for (Pairs p : pairs) {
            for (int i = 0; p != null && i < p.count; i++) {
                any = true;
                volume[p.cell[i]] += p.volume[i];
                for (int k = 0; k < components; k++) {
                    integral[p.cell[i] * components + k] += p.integral[i * components + k];
                }
            }
        }
        if (!any) {
            return new double[0];
        }
        double[] out = new double[integral.length];
        int first = 0;
        for (Field f : fields) {
            int m = f.components();
            Values.Held held = f.values().now();
            int at = first;
            FieldIntegral.cells(source, f.at(), m, held, work, (c, measure, one) -> {
                if (volume[c] > (1 - Common.SURE) * measure) {
                    for (int k = 0; k < m; k++) {
                        int i = c * components + at + k;
                        out[i] = (one[k] - integral[i]) / volume[c];
                    }
                }
            });
            first += m;
        }
        return out;
    }
}
