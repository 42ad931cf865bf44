package lane.formats.ledger;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.formats.io.AtomicFile;
import lane.formats.study.StudyJson;
import lane.formats.table.CsvWriter;
import lane.ledger.Ledger;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Source;
import lane.unit.Unit;

/**
 * Writes the ledger: {@code ledger.csv} with every number at full precision, {@code ledger.json} with the trail of each
 * line, and one {@code profile-NAME.csv} a profile with the points of all lanes.
 */
public final class LedgerWriter {
    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private LedgerWriter() {}

    /**
     * @param version of this program, for the trail
     * @return the files written
     */
    public static List<Path> write(Results results, Path folder, String version, Instant time) {
        Ledger ledger = Ledger.of(results);
        List<Path> files = new ArrayList<>();
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
        files.add(folder.resolve("ledger.csv"));
        CsvWriter.write(files.getLast(), rows);
        files.add(folder.resolve("ledger.json"));
        AtomicFile.write(files.getLast(), json(results, ledger, version, time));
        for (Reading reading : results.study().readings()) {
            if (reading.curve()) {
                List<List<String>> profile = profile(results, reading);
                if (profile.size() > 1) {
                    files.add(folder.resolve("profile-" + reading.id() + ".csv"));
                    CsvWriter.write(files.getLast(), profile);
                }
            }
        }
        return files;
    }

    private static List<List<String>> profile(Results results, Reading reading) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("lane", "abscissa", "abscissa unit", "value", "unit", "uncertainty", "uncertainty upwards"));
        for (Source source : results.study().sources()) {
            Profile p = results.outcome(reading.id(), source.id()).curve().orElse(null);
            if (p == null) {
                continue;
            }
            Unit unit = results.shown(reading.id(), p.unit());
            double[] below = p.uncertainty();
            double[] above = p.upwards();
            for (int i = 0; i < p.size(); i++) {
                rows.add(List.of(
                        source.name(),
                        CsvWriter.full(p.abscissa()[i]),
                        p.abscissaUnit().symbol(),
                        CsvWriter.full(unit.fromSi(p.value()[i])),
                        unit.label(),
                        CsvWriter.full(below.length == 0 ? Double.NaN : unit.differenceFromSi(below[i])),
                        CsvWriter.full(above.length == 0 ? Double.NaN : unit.differenceFromSi(above[i]))));
            }
        }
        return rows;
    }

    private static String json(Results results, Ledger ledger, String version, Instant time) {
        var root = new LinkedHashMap<String, Object>();
        root.put("ledger", 1);
        root.put("study", results.study().name());
        root.put("studySha256", sha(StudyJson.text(results.study())));
        root.put("program", "Crosscheck Lane " + version);
        root.put("written", time.truncatedTo(ChronoUnit.SECONDS).toString());
        var lines = new ArrayList<Map<String, Object>>();
        for (Ledger.Line l : ledger.lines()) {
            var line = new LinkedHashMap<String, Object>();
            line.put("id", l.id());
            line.put("item", l.item());
            line.put("what", l.what());
            line.put("lane", l.lane());
            line.put("value", Double.isNaN(l.value()) ? null : l.value());
            line.put("unit", l.unit());
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

    private static String sha(String text) {
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(digest);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
