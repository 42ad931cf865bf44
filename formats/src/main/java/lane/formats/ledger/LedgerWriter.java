package lane.formats.ledger;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.nio.file.Path;
import java.util.AbstractList;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import lane.base.Plain;
import lane.base.Work;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.formats.io.FileSet;
import lane.formats.study.StudyJson;
import lane.formats.table.CsvWriter;
import lane.ledger.Ledger;
import lane.ledger.LedgerTable;
import lane.ledger.LedgerTables;
import lane.ledger.PointRows;
import lane.reading.Reading;
import lane.study.Results;
import org.jspecify.annotations.Nullable;

/**
 * Writes the ledger: {@code ledger.csv} with every number at full precision, {@code ledger.json} with the trail of each
 * line, {@code definitions.json} with the study as it was, one {@code table-NAME.csv} a table of lanes beside each other, and one
 * {@code profile-NAME.csv} a profile with the points of all lanes, as one set with its manifest.
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
        List<Export.Figure> figures(Results results, Work work);
    }

    /**
     * Where and how a ledger is written.
     *
     * @param study its file, so that whoever verifies finds the inputs; it need not exist
     * @param runs files that were taken for runs in place of those that the study's file names, by key of the lane
     * @param formats besides what every ledger has
     * @param drawing asked where a format holds figures
     */
    public record To(
            Path folder, Path study, Map<String, String> runs, Made made, Set<LedgerFormat> formats, Drawing drawing) {
        public To {
            formats = formats.isEmpty() ? Set.of() : EnumSet.copyOf(formats);
        }

        /** Only what every ledger has. */
        public static To plain(Path folder, Path study, Made made) {
            return new To(folder, study, Map.of(), made, Set.of(), (r, w) -> List.of());
        }
    }

    /**
     * @return the files written
     * @throws java.util.concurrent.CancellationException when cancelled; what stood there before is then unchanged
     */
    public static List<Path> write(Results results, To to, Work work) {
        var about = new LinkedHashMap<String, Object>();
        about.put("study", results.study().name());
        about.putAll(to.made.about());
        boolean drawn = to.formats.stream().anyMatch(LedgerFormat::figures);
        Export export = export(results, to.made, drawn ? to.drawing : (r, w) -> List.of(), work.stretch(0, 0.5));
        Ledger ledger = export.ledger();
        List<LedgerTable> curves = export.curves();
        return FileSet.write(to.folder, about, set -> {
            work.progress("Writing " + TABLE, 0.5);
            set.add(TABLE, CsvWriter.body(rows(ledger)));
            Map<String, LedgerTable> points = named(curves);
            set.add(LEDGER, json(results, ledger, to, points));
            set.add(DEFINITIONS, StudyJson.text(results.study()));
            List<Csvw.Of> described = new ArrayList<>();
            for (LedgerTable table : export.tables()) {
                String name = "table-" + table.name() + ".csv";
                set.add(name, CsvWriter.body(rows(table)));
                described.add(new Csvw.Of(name, table));
            }
            points.forEach((name, curve) -> {
                work.poll();
                set.add(name, body(curve, work));
                described.add(new Csvw.Of(name, curve));
            });
            set.add(Csvw.FILE, Csvw.of(export, TABLE, described));
            var more = new LinkedHashMap<String, AtomicFile.Body>();
            to.formats.forEach(f -> f.write(more::put, export));
            set.addAll(more, work.stretch(0.55, 1));
            set.add(RoCrate.FILE, RoCrate.of(export, set.names()));
            work.poll();
        });
    }

    /** All that formats write, collected and drawn. */
    static Export export(Results results, Made made, Drawing drawing, Work work) {
        work.progress("Collecting the numbers", 0);
        Ledger ledger = Ledger.of(results);
        List<LedgerTable> curves = results.study().readings().stream()
                .filter(Reading::curve)
                .map(r -> LedgerTables.curve(results, r))
                .filter(t -> !t.rows().isEmpty())
                .toList();
        return new Export(
                results,
                ledger,
                LedgerTables.of(results, ledger),
                curves,
                drawing.figures(results, work.stretch(0.1, 1)),
                made);
    }

    /** Files of curves; readings whose keys differ in what a file's name cannot hold are told apart by a number. */
    private static Map<String, LedgerTable> named(List<LedgerTable> curves) {
        var out = new LinkedHashMap<String, LedgerTable>();
        var taken = new HashSet<String>();
        for (LedgerTable curve : curves) {
            String stem = Plain.fileName(curve.name());
            String name = stem;
            for (int i = 2; !taken.add(name.toLowerCase(Locale.ROOT)); i++) {
                name = stem + "-" + i;
            }
            out.put(name + ".csv", curve);
        }
        return out;
    }

    private static AtomicFile.Body body(LedgerTable table, Work work) {
        return table.rows() instanceof PointRows points
                ? PointsCsv.body(table, points, work)
                : CsvWriter.body(rows(table));
    }

    /** A table for programs: names of columns, then numbers with all their digits; rows are made when they are looked at. */
    public static List<List<String>> rows(LedgerTable table) {
        List<String> head =
                table.columns().stream().map(LedgerTable.Column::name).toList();
        return new AbstractList<>() {
            @Override
            public List<String> get(int i) {
                return i == 0
                        ? head
                        : table.rows().get(i - 1).cells().stream()
                                .map(c -> c instanceof LedgerTable.Num n ? CsvWriter.full(n.value()) : c.text())
                                .toList();
            }

            @Override
            public int size() {
                return table.rows().size() + 1;
            }
        };
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

    private static String json(Results results, Ledger ledger, To to, Map<String, LedgerTable> curves) {
        var root = new LinkedHashMap<String, Object>();
        root.put("ledger", 1);
        root.put("study", results.study().name());
        root.put("studyFile", FileNames.relative(to.folder, to.study));
        if (!to.runs.isEmpty()) {
            root.put("runs", to.runs);
        }
        root.put("studySha256", FileHash.ofText(StudyJson.text(results.study())));
        root.put("program", to.made.program());
        var points = new LinkedHashMap<String, String>();
        curves.forEach((file, table) -> points.put(file, table.name().substring(LedgerTables.CURVE.length())));
        if (!points.isEmpty()) {
            root.put("curves", points);
        }
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
            if (!l.trail().others().isEmpty()) {
                line.put("others", l.trail().others());
            }
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
