package lane.ledger;

import java.util.AbstractList;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.RandomAccess;
import lane.ledger.LedgerTable.Cell;
import lane.ledger.LedgerTable.Num;
import lane.ledger.LedgerTable.Row;
import lane.ledger.LedgerTable.Text;
import lane.reading.Profile;
import lane.unit.Unit;

/** The points of curves, one lane after the other, as rows that are made when somebody looks at them: of long curves there are millions. */
public final class PointRows extends AbstractList<Row> implements RandomAccess {
    /** Numbers of a point: abscissa, value, its uncertainty downwards and upwards, its place. */
    public static final int NUMBERS = 7;

    /**
     * A lane's curve as it is told.
     *
     * @param unit of the values
     */
    public record Lane(String name, Profile curve, Unit unit) {
        public int size() {
            return curve.size();
        }

        public String along() {
            return curve.abscissaUnit().symbol();
        }

        /**
         * The numbers of some points.
         *
         * @return {@link #NUMBERS} a point, NaN where there is none
         */
        public double[] numbers(int from, int to) {
            double[] x = curve.abscissa();
            double[] value = curve.value();
            double[] below = curve.uncertainty();
            double[] above = curve.upwards();
            double[] xyz = curve.places();
            double[] out = new double[NUMBERS * (to - from)];
            for (int i = from; i < to; i++) {
                int at = NUMBERS * (i - from);
                out[at] = curve.abscissaUnit().fromSi(x[i]);
                out[at + 1] = unit.fromSi(value[i]);
                out[at + 2] = below.length == 0 ? Double.NaN : unit.differenceFromSi(below[i]);
                out[at + 3] = above.length == 0 ? Double.NaN : unit.differenceFromSi(above[i]);
                for (int d = 0; d < 3; d++) {
                    out[at + 4 + d] = xyz.length == 0 ? Double.NaN : xyz[3 * i + d];
                }
            }
            return out;
        }
    }

    private final List<Lane> lanes;
    private final int[] first;

    PointRows(List<Lane> lanes) {
        this.lanes = List.copyOf(lanes);
        first = new int[lanes.size() + 1];
        for (int l = 0; l < lanes.size(); l++) {
            first[l + 1] = Math.addExact(first[l], lanes.get(l).size());
        }
    }

    public List<Lane> lanes() {
        return lanes;
    }

    @Override
    public int size() {
        return first[lanes.size()];
    }

    @Override
    public Row get(int i) {
        Objects.checkIndex(i, size());
        int l = java.util.Arrays.binarySearch(first, i);
        l = l < 0 ? -l - 2 : l;
        while (first[l + 1] == i) {
            // Lanes without a point begin where the next one does.
            l++;
        }
        Lane lane = lanes.get(l);
        double[] n = lane.numbers(i - first[l], i - first[l] + 1);
        List<Cell> row = new ArrayList<>(List.of(
                new Text(lane.name()),
                whole(n[0]),
                new Text(lane.along()),
                whole(n[1]),
                new Text(lane.unit().label())));
        for (int k = 2; k < NUMBERS; k++) {
            row.add(whole(n[k]));
        }
        return new Row(row);
    }

    /** Points are for programs. */
    private static Num whole(double v) {
        return new Num(v, Double.isNaN(v) ? "" : Double.toString(v));
    }
}
