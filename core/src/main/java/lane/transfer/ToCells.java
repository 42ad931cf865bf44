package lane.transfer;

import java.util.Arrays;
import java.util.List;
import lane.base.Sum;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.Mesh;

/**
 * The integral of fields over what each target cell has in common with the source, and from it one value a cell. Fields in cells are
 * constant in each, as stored; fields at nodes are what they are between these.
 */
final class ToCells {
    private final Mesh source;
    private final Mesh target;
    private final List<Field> fields;
    private final int components;
    private final boolean nodal;
    private final Values.Held[] values;
    private final double[] covered;
    private final double[] size;
    /** Integrals, all components of all fields for one cell, then for the next. */
    private final double[] integral;
    /** What target cells have of cells whose integrals over pieces do not add up; null for none. */
    private final Remainder.Pairs[] pairs;

    ToCells(Mesh source, Mesh target, List<Field> fields) {
        this.source = source;
        this.target = target;
        this.fields = fields;
        components = fields.stream().mapToInt(Field::components).sum();
        nodal = fields.stream().anyMatch(f -> f.at() == Field.At.NODE);
        values = fields.stream().map(f -> f.values().now()).toArray(Values.Held[]::new);
        covered = new double[target.cellCount()];
        size = new double[target.cellCount()];
        integral = new double[target.cellCount() * components];
        pairs = new Remainder.Pairs[nodal ? target.cellCount() : 0];
    }

    void run(Work work) {
        new Overlap(source, target).run(nodal, false, (here, there) -> new Taken(here), work);
        if (nodal) {
            new Remainder(source, fields, work).spread(pairs, integral);
        }
    }

    private final class Taken implements Overlap.Taker {
        private final CellBody here;
        private final Basis basis;
        private final double[] sum = new double[components];
        private final double[] one = new double[components];
        private final Remainder.Pairs own = new Remainder.Pairs(components);
        private double volume;

        Taken(CellBody here) {
            this.here = here;
            basis = new Basis(here);
        }

        @Override
        public void begin(double[] origin) {
            if (nodal) {
                basis.load(origin);
            }
        }

        @Override
        public void piece(int s, int body, int targetBody, Piece piece, double sign) {
            double share = sign / here.thickness;
            volume += share * piece.volume;
            if (nodal) {
                basis.over(body, piece);
            }
            int at = 0;
            for (int f = 0; f < values.length; f++) {
                Field field = fields.get(f);
                int m = field.components();
                for (int k = 0; k < m; k++) {
                    double all = 0;
                    if (field.at() == Field.At.CELL) {
                        all = piece.volume * values[f].get(s * m + k);
                    } else {
                        for (int v = 0; v < here.cell.size(); v++) {
                            all += basis.integral[v] * values[f].get(here.cell.node(v) * m + k);
                        }
                    }
                    one[at] = share * all;
                    sum[at] += one[at++];
                }
            }
            if (nodal && !basis.exact()) {
                own.add(s, share * piece.volume, one);
            }
        }

        @Override
        public void end(int c, double measure) {
            covered[c] = volume;
            size[c] = measure;
            System.arraycopy(sum, 0, integral, c * components, components);
            if (nodal) {
                pairs[c] = own.taken();
            }
            volume = 0;
            Arrays.fill(sum, 0);
        }
    }

    Common common() {
        return Common.of(covered, size);
    }

    /** The integral over what is common, of one component of all. */
    double overlap(int component) {
        var sum = new Sum();
        for (int c = 0; c < size.length; c++) {
            double v = integral[c * components + component];
            sum.add(Double.isNaN(v) ? 0 : v);
        }
        return sum.value();
    }

    /** @param mean whether a cell that is covered in part takes the mean of what is covered; else its integral over all of it */
    double value(int c, int component, double share, boolean mean) {
        return share == 0 ? Double.NaN : integral[c * components + component] / (mean ? covered[c] : size[c]);
    }
}
