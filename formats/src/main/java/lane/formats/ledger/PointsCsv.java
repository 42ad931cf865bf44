package lane.formats.ledger;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import lane.base.Parallel;
import lane.base.Work;
import lane.formats.io.AtomicFile;
import lane.formats.table.CsvWriter;
import lane.ledger.LedgerTable;
import lane.ledger.PointRows;

/** The points of long curves as comma-separated values: the same bytes as by {@link CsvWriter}, made on all cores, some at a time. */
final class PointsCsv {
    private static final int POINTS = 1 << 13;
    /** Blocks that are made before they are written. */
    private static final int AHEAD = 32;

    private PointsCsv() {}

    /** Points from one to before another of a lane, which stands in quoted words. */
    private record Block(PointRows.Lane lane, String name, String along, String unit, int from, int to) {
        byte[] bytes() {
            var text = new StringBuilder(64 * (to - from));
            double[] numbers = lane.numbers(from, to);
            for (int at = 0; at < numbers.length; at += PointRows.NUMBERS) {
                text.append(name).append(',');
                number(text, numbers[at]).append(',').append(along).append(',');
                number(text, numbers[at + 1]).append(',').append(unit);
                for (int k = 2; k < PointRows.NUMBERS; k++) {
                    number(text.append(','), numbers[at + k]);
                }
                text.append('\n');
            }
            return text.toString().getBytes(StandardCharsets.UTF_8);
        }

        private static StringBuilder number(StringBuilder text, double v) {
            return Double.isNaN(v) ? text : text.append(v);
        }
    }

    /** @param work that may be cancelled between some points and the next */
    static AtomicFile.Body body(LedgerTable table, PointRows points, Work work) {
        return out -> {
            CsvWriter.body(List.of(table.columns().stream()
                            .map(LedgerTable.Column::name)
                            .toList()))
                    .write(out);
            List<Block> blocks = new ArrayList<>();
            for (PointRows.Lane lane : points.lanes()) {
                String name = quoted(lane.name());
                String along = quoted(lane.along());
                String unit = quoted(lane.unit().label());
                for (int from = 0; from < lane.size(); from += POINTS) {
                    int to = Math.min(lane.size(), from + POINTS);
                    blocks.add(new Block(lane, name, along, unit, from, to));
                }
            }
            for (int at = 0; at < blocks.size(); at += AHEAD) {
                work.poll();
                write(blocks.subList(at, Math.min(blocks.size(), at + AHEAD)), out);
            }
        };
    }

    private static void write(List<Block> some, OutputStream out) throws IOException {
        var made = new byte[some.size()][];
        Parallel.forBlocks(made.length, 1, (b, i, end) -> made[i] = some.get(i).bytes());
        for (byte[] one : made) {
            out.write(one);
        }
    }

    /** A cell as it stands among others. */
    private static String quoted(String cell) throws IOException {
        var out = new ByteArrayOutputStream();
        CsvWriter.body(List.of(List.of(cell, "x"))).write(out);
        String line = out.toString(StandardCharsets.UTF_8);
        return line.substring(0, line.length() - ",x\n".length());
    }
}
