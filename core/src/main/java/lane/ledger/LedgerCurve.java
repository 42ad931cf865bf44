package lane.ledger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The points of a lane's curve as a ledger holds them.
 *
 * @param of key of the reading
 * @param lane name of the source
 * @param along unit of the abscissas, as they are told
 * @param unit of the values, as they are told
 * @param points one row a point: abscissa, value, uncertainty downwards and upwards, place; NaN for what is absent
 */
public record LedgerCurve(String of, String lane, String along, String unit, double[][] points) {
    static final int ABSCISSA = 0;
    static final int VALUE = 1;
    static final int BELOW = 2;
    static final int ABOVE = 3;
    static final int NUMBERS = 7;

    /** A row of the table of a reading's curves: its texts and numbers. */
    public record Row(String lane, String along, String unit, double[] numbers) {}

    /** The curves of a reading, of the rows of its table in their order. */
    public static List<LedgerCurve> of(String reading, List<Row> rows) {
        Map<String, List<Row>> lanes = new LinkedHashMap<>();
        rows.forEach(r -> lanes.computeIfAbsent(r.lane, k -> new ArrayList<>()).add(r));
        List<LedgerCurve> out = new ArrayList<>();
        lanes.forEach((lane, all) -> out.add(new LedgerCurve(
                reading,
                lane,
                all.getFirst().along,
                all.getFirst().unit,
                all.stream().map(Row::numbers).toArray(double[][]::new))));
        return out;
    }

    /** The same of such a table itself. */
    public static List<LedgerCurve> of(String reading, LedgerTable table) {
        return of(
                reading,
                table.rows().stream()
                        .map(r -> {
                            double[] numbers = r.cells().stream()
                                    .filter(LedgerTable.Num.class::isInstance)
                                    .mapToDouble(c -> ((LedgerTable.Num) c).value())
                                    .toArray();
                            List<String> texts = r.cells().stream()
                                    .filter(LedgerTable.Text.class::isInstance)
                                    .map(LedgerTable.Cell::text)
                                    .toList();
                            return new Row(texts.get(0), texts.get(1), texts.get(2), numbers);
                        })
                        .toList());
    }
}
