package lane.formats.table;

import java.io.IOException;
import java.io.OutputStreamWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import lane.base.Plain;
import lane.formats.io.AtomicFile;

/** Writes rows of text as comma-separated values (RFC 4180), whole or not at all. */
public final class CsvWriter {
    private CsvWriter() {}

    public static void write(Path file, List<List<String>> rows) {
        AtomicFile.write(file, body(rows));
    }

    /** The bytes of such a file. Cells that a spreadsheet would run as a formula are made harmless. */
    public static AtomicFile.Body body(List<List<String>> rows) {
        return out -> {
            try (var csv = de.siegmar.fastcsv.writer.CsvWriter.builder()
                    .lineDelimiter(de.siegmar.fastcsv.writer.LineDelimiter.LF)
                    .build(new OutputStreamWriter(out, StandardCharsets.UTF_8) {
                        @Override
                        public void close() throws IOException {
                            // The atomic file closes the stream once it is forced to disk.
                            flush();
                        }
                    })) {
                rows.forEach(
                        row -> csv.writeRecord(row.stream().map(Plain::cell).toList()));
            }
        };
    }

    /** A number with all its digits, or nothing where it is absent. */
    public static String full(double v) {
        return Double.isNaN(v) ? "" : Double.toString(v);
    }
}
