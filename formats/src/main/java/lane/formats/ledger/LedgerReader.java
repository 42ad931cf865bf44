package lane.formats.ledger;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Fault;
import lane.base.LaneException;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.formats.io.FileSet;
import lane.formats.study.StudyJson;
import lane.formats.table.CsvWriter;
import lane.ledger.Ledger;
import lane.ledger.LedgerCurve;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/** Reads a ledger that was written before. */
public final class LedgerReader {
    private static final long MOST_BYTES = 1L << 30;
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final TypeReference<LinkedHashMap<String, Object>> SETTINGS = new TypeReference<>() {};

    private LedgerReader() {}

    /**
     * A ledger as it was written.
     *
     * @param folder where it stands
     * @param study name of the study
     * @param program that wrote it, with its version
     * @param studyFile the study's file as seen from the folder; blank where nobody said
     * @param runs files that were taken for runs in place of those that the study names, by key of the lane
     * @param made by what, where and when; blank where an older program wrote none of it
     * @param curves points of the readings' curves, as their tables have them
     * @param definitions the study as it was; null where it was not kept
     */
    public record Written(
            Path folder,
            Ledger ledger,
            String study,
            String program,
            String studyFile,
            Map<String, String> runs,
            Made made,
            List<LedgerCurve> curves,
            @Nullable Study definitions) {}

    /**
     * What somebody wrote over in the table.
     *
     * @param value that the table gives now; NaN for none
     * @param said what it says and what was written, in a sentence
     */
    public record Edit(double value, String said) {}

    /** @throws LaneException when there is none, or it was written before ledgers kept what a comparison needs */
    public static Written read(Path folder) {
        Path file = folder.resolve(LedgerWriter.LEDGER);
        if (!Files.isRegularFile(file)) {
            throw new LaneException(
                    Fault.MISSING,
                    "There is no " + LedgerWriter.LEDGER + " in " + folder
                            + "; give the folder that a ledger was written into.");
        }
        JsonNode root;
        try {
            if (Files.size(file) > MOST_BYTES) {
                throw new LaneException("The ledger " + file + " is larger than a gigabyte.");
            }
            root = MAPPER.readTree(file.toFile());
        } catch (JacksonException e) {
            throw new LaneException(Fault.DAMAGED, "The ledger " + file + " is damaged: it is no whole JSON.", e);
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        }
        List<Ledger.Line> lines = new ArrayList<>();
        for (JsonNode n : root.path("numbers")) {
            lines.add(line(n, file));
        }
        Map<String, String> runs = new LinkedHashMap<>();
        root.path("runs")
                .properties()
                .forEach(e -> runs.put(e.getKey(), e.getValue().asText()));
        Path kept = folder.resolve(LedgerWriter.DEFINITIONS);
        return new Written(
                folder,
                new Ledger(List.copyOf(lines)),
                root.path("study").asText(),
                root.path("program").asText(),
                root.path("studyFile").asText(),
                runs,
                made(folder),
                curves(folder, root.path("curves")),
                Files.isRegularFile(kept) ? StudyJson.load(kept) : null);
    }

    private static Made made(Path folder) {
        try {
            return Made.of(MAPPER.readTree(folder.resolve(FileSet.MANIFEST).toFile()));
        } catch (IOException e) {
            // What the manifest says of the files is told where they are checked.
            return new Made("", "", Map.of(), Map.of());
        }
    }

    private static List<LedgerCurve> curves(Path folder, JsonNode files) {
        List<LedgerCurve> out = new ArrayList<>();
        files.properties().forEach(e -> {
            Path file = folder.resolve(e.getKey());
            if (FileNames.plain(e.getKey()) && Files.isRegularFile(file)) {
                out.addAll(LedgerCurve.of(e.getValue().asText(), rows(file)));
            }
        });
        return out;
    }

    private static List<LedgerCurve.Row> rows(Path file) {
        List<LedgerCurve.Row> rows = new ArrayList<>();
        try (CsvReader<NamedCsvRecord> csv = CsvReader.builder().ofNamedCsvRecord(file)) {
            for (NamedCsvRecord row : csv) {
                double[] numbers = NUMBERS.stream()
                        .mapToDouble(c -> value(row.findField(c).orElse("")))
                        .toArray();
                rows.add(new LedgerCurve.Row(
                        row.findField("lane").orElse(""),
                        row.findField("abscissa unit").orElse(""),
                        row.findField("unit").orElse(""),
                        numbers));
            }
        } catch (IOException | UncheckedIOException | de.siegmar.fastcsv.reader.CsvParseException e) {
            // That it is another file than was written is told in any case; it has the rows that can be read.
            return rows;
        }
        return rows;
    }

    /** Columns with numbers of a table of points. */
    private static final List<String> NUMBERS =
            List.of("abscissa", "value", "uncertainty", "uncertainty upwards", "x [m]", "y [m]", "z [m]");

    private static Ledger.Line line(JsonNode n, Path file) {
        if (!n.hasNonNull("id") || !n.hasNonNull("stop") || !n.hasNonNull("of")) {
            throw new LaneException(
                    Fault.DAMAGED,
                    "The ledger " + file + " does not say of which reading or check its numbers are; write it again"
                            + " with this version.");
        }
        List<Provenance.Input> inputs = new ArrayList<>();
        for (JsonNode i : n.path("inputs")) {
            inputs.add(new Provenance.Input(
                    i.path("path").asText(),
                    i.path("sha256").asText(),
                    i.path("bytes").asLong()));
        }
        List<Provenance.Other> others = new ArrayList<>();
        for (JsonNode o : n.path("others")) {
            others.add(new Provenance.Other(o.path("as").asText(), o.path("at").asInt(), steps(o.path("steps"))));
        }
        return new Ledger.Line(
                n.path("id").asText(),
                n.path("stop").asText(),
                n.path("of").asText(),
                n.path("item").asText(),
                n.path("what").asText(),
                n.path("source").asText(),
                n.path("lane").asText(),
                number(n.path("value")),
                n.path("unit").asText(),
                number(n.path("relative")),
                number(n.path("uncertainty")),
                n.path("verdict").asText(),
                n.path("remark").asText(),
                new Provenance(inputs, steps(n.path("steps")), others));
    }

    private static List<Provenance.Step> steps(JsonNode all) {
        List<Provenance.Step> steps = new ArrayList<>();
        for (JsonNode s : all) {
            steps.add(new Provenance.Step(
                    s.path("stop").asText(),
                    s.path("text").asText(),
                    new Method(
                            s.path("method").path("name").asText(),
                            s.path("method").path("version").asInt()),
                    MAPPER.convertValue(s.path("settings"), SETTINGS)));
        }
        return steps;
    }

    private static double number(JsonNode n) {
        return n.isNumber() ? n.asDouble() : Double.NaN;
    }

    /** Where the table for people says something else than the ledger itself, by the number's id. */
    public static Map<String, Edit> edited(Written written) {
        Path table = written.folder().resolve(LedgerWriter.TABLE);
        if (!Files.isRegularFile(table)) {
            return Map.of();
        }
        Map<String, Ledger.Line> byId = new LinkedHashMap<>();
        written.ledger().lines().forEach(l -> byId.put(l.id(), l));
        var out = new LinkedHashMap<String, Edit>();
        try (CsvReader<NamedCsvRecord> csv = CsvReader.builder().ofNamedCsvRecord(table)) {
            for (NamedCsvRecord row : csv) {
                Ledger.Line line = byId.get(row.findField("id").orElse(""));
                if (line == null) {
                    continue;
                }
                List<String> said = new ArrayList<>();
                differs(row, "value", CsvWriter.full(line.value()), said);
                differs(row, "uncertainty", CsvWriter.full(line.uncertainty()), said);
                differs(row, "verdict", line.verdict(), said);
                if (!said.isEmpty()) {
                    out.put(
                            line.id(),
                            new Edit(
                                    value(row.findField("value").orElse("")),
                                    "the table was edited: " + LedgerWriter.TABLE + " says "
                                            + String.join(", and ", said)));
                }
            }
        } catch (IOException | UncheckedIOException | de.siegmar.fastcsv.reader.CsvParseException e) {
            // That it is another file than was written is told in any case.
            return Map.of();
        }
        return out;
    }

    private static void differs(NamedCsvRecord row, String column, String written, List<String> into) {
        String now = row.findField(column).orElse("");
        if (!now.equals(written)) {
            into.add(column + " " + (now.isBlank() ? "nothing" : now) + " where "
                    + (written.isBlank() ? "nothing" : written) + " was written");
        }
    }

    private static double value(String cell) {
        try {
            return Double.parseDouble(cell.strip());
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }
}
