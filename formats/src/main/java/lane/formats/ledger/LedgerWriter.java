package lane.formats.ledger;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import lane.base.Plain;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.formats.io.FileSet;
import lane.formats.study.StudyJson;
import lane.formats.table.CsvWriter;
import lane.ledger.Ledger;
import lane.ledger.LedgerTable;
import lane.ledger.LedgerTables;
import lane.reading.Reading;
import lane.study.Results;
import org.jspecify.annotations.Nullable;

/**
 * Writes the ledger: {@code ledger.csv} with every number at full precision, {@code ledger.json} with the trail of each
 * line, {@code definitions.json} with the study as it was, and one {@code profile-NAME.csv} a profile with the points of all
 * lanes, as one set with its manifest.
 */
public final class LedgerWriter {
    static final String TABLE = "ledger.csv";
    static final String LEDGER = "ledger.json";
    static final String DEFINITIONS = "definitions.json";

    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private LedgerWriter() {}

    /** Draws the readings, for formats that hold figures. */
    @FunctionalInterface
    public interface Drawing {
        List<Export.Figure> figures(Results results);
    }

    /**
     * @param study its file, so that whoever verifies finds the inputs; it need not exist
     * @param version of this program, for the trail
     * @return the files written
     */
    public static List<Path> write(Results results, Path folder, Path study, String version, Instant time) {
        return write(results, folder, study, Map.of(), version, time, Set.of(), r -> List.of());
    }

    /**
     * The same in further formats.
     *
     * @param runs files that were taken for runs in place of those that the study's file names, by key of the lane
     * @param drawing asked where a format holds figures
     */
    public static List<Path> write(
            Results results,
            Path folder,
            Path study,
            Map<String, String> runs,
            String version,
            Instant time,
            Set<LedgerFormat> formats,
            Drawing drawing) {
        Ledger ledger = Ledger.of(results);
        var about = new LinkedHashMap<String, Object>();
        about.put("study", results.study().name());
        about.put("program", program(version));
        about.put("written", time.truncatedTo(ChronoUnit.SECONDS).toString());
        List<LedgerTable> curves = results.study().readings().stream()
                .filter(Reading::curve)
                .map(r -> LedgerTables.curve(results, r))
                .filter(t -> !t.rows().isEmpty())
                .toList();
        boolean drawn = formats.stream().anyMatch(LedgerFormat::figures);
        var export = new Export(
                results,
                ledger,
                LedgerTables.of(results, ledger),
                curves,
                drawn ? drawing.figures(results) : List.of(),
                program(version));
        return FileSet.write(folder, about, set -> {
            set.add(TABLE, CsvWriter.body(rows(ledger)));
            set.add(LEDGER, json(results, ledger, version, FileNames.relative(folder, study), runs));
            set.add(DEFINITIONS, StudyJson.text(results.study()));
            var taken = new HashSet<String>();
            List<String> files = new ArrayList<>();
            for (LedgerTable curve : curves) {
                String name = name(curve, taken);
                files.add(name);
                set.add(name, CsvWriter.body(rows(curve)));
            }
            set.add(Csvw.FILE, Csvw.of(export, TABLE, files));
            formats.forEach(f -> f.write(set, export));
            set.add(RoCrate.FILE, RoCrate.of(export, set.names(), time));
        });
    }

    /** Readings whose keys differ in what a file's name cannot hold are told apart by a number. */
    private static String name(LedgerTable curve, Set<String> taken) {
        String stem = Plain.fileName(curve.name());
        String name = stem;
        for (int i = 2; !taken.add(name.toLowerCase(Locale.ROOT)); i++) {
            name = stem + "-" + i;
        }
        return name + ".csv";
    }

    private static List<List<String>> rows(LedgerTable table) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(table.columns().stream().map(LedgerTable.Column::name).toList());
        table.rows()
                .forEach(r -> rows.add(r.cells().stream()
                        .map(c -> c instanceof LedgerTable.Num n ? CsvWriter.full(n.value()) : c.text())
                        .toList()));
        return rows;
    }

    private static List<List<String>> rows(Ledger ledger) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(Ledger.COLUMNS);
        for (Ledger.Line l : ledger.lines()) {
            rows.add(List.of(
                    l.id(),
                    l.stop(),
                    l.item(),
                    l.what(),
                    l.lane(),
                    CsvWriter.full(l.value()),
                    l.unit(),
                    CsvWriter.full(l.relative()),
                    CsvWriter.full(l.uncertainty()),
                    l.verdict(),
                    l.remark()));
        }
        return rows;
    }

    private static String program(String version) {
        return "Crosscheck Lane " + version;
    }

    private static String json(Results results, Ledger ledger, String version, String study, Map<String, String> runs) {
        var root = new LinkedHashMap<String, Object>();
        root.put("ledger", 1);
        root.put("study", results.study().name());
        root.put("studyFile", study);
        if (!runs.isEmpty()) {
            root.put("runs", runs);
        }
        root.put("studySha256", FileHash.ofText(StudyJson.text(results.study())));
        root.put("program", program(version));
        var lines = new ArrayList<Map<String, Object>>();
        for (Ledger.Line l : ledger.lines()) {
            var line = new LinkedHashMap<String, Object>();
            line.put("id", l.id());
            line.put("stop", l.stop());
            line.put("of", l.of());
            line.put("item", l.item());
            line.put("what", l.what());
            line.put("source", l.source());
            line.put("lane", l.lane());
            boolean there = Double.isFinite(l.value());
            line.put("value", there ? l.value() : null);
            if (!there) {
                // JSON has no other numbers, and none is missing without a reason.
                line.put("reason", l.remark().isBlank() ? "the value is " + l.value() : l.remark());
            }
            line.put("unit", l.unit());
            line.put("relative", finite(l.relative()));
            line.put("uncertainty", finite(l.uncertainty()));
            line.put("verdict", l.verdict());
            line.put("remark", l.remark());
            line.put("inputs", l.trail().inputs());
            line.put("steps", l.trail().steps());
            lines.add(line);
        }
        root.put("numbers", lines);
        try {
            return MAPPER.writeValueAsString(root) + "\n";
        } catch (JacksonException e) {
            throw new IllegalStateException("a ledger can always be written", e);
        }
    }

    private static @Nullable Double finite(double v) {
        return Double.isFinite(v) ? v : null;
    }
}
