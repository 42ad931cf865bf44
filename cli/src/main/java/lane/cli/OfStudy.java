package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import lane.base.LaneException;
import lane.base.Plain;
import lane.formats.FileLibrary;
import lane.formats.io.FileHash;
import lane.formats.io.FileSet;
import lane.formats.study.StudyJson;
import lane.study.Source;
import lane.study.Study;

/** What is said of a study, and of a ledger that was written from one. */
final class OfStudy {
    private static final ObjectMapper JSON = new ObjectMapper();

    private OfStudy() {}

    /** @throws LaneException when it is neither */
    static void describe(Path file, ObjectNode line) {
        Path json = Files.isDirectory(file) ? file.resolve("ledger.json") : file;
        if (Files.isDirectory(file) && !Files.isRegularFile(json)) {
            throw new LaneException("\"" + file + "\" is a folder without a ledger; give a file.");
        }
        JsonNode root = null;
        try {
            if (Files.isRegularFile(json) && Files.size(json) < 256L << 20) {
                root = JSON.readTree(json.toFile());
            }
        } catch (JsonProcessingException | CharacterCodingException e) {
            // The reader of studies says what is wrong with it.
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        }
        if (root != null && root.has("ledger") && root.path("numbers").isArray()) {
            ledger(json, root, line);
        } else {
            study(json, line);
        }
    }

    private static void study(Path file, ObjectNode line) {
        Study s = StudyJson.load(file);
        var library =
                new FileLibrary(Objects.requireNonNull(file.toAbsolutePath().getParent()));
        line.put("kind", "study");
        line.put("name", s.name());
        line.put("version", s.version());
        line.put("datum", s.datum());
        ArrayNode sources = line.putArray("sources");
        ArrayNode findings = line.putArray("findings");
        for (Source source : s.sources()) {
            ObjectNode o = sources.addObject();
            o.put("id", source.id());
            o.put("name", source.name());
            o.put("kind", source instanceof Source.Simulation ? "run" : "reference");
            ArrayNode files = o.putArray("files");
            for (String f : files(source)) {
                files.add(f);
                if (f.indexOf('*') < 0 && f.indexOf('?') < 0 && !Files.exists(library.resolve(f))) {
                    finding(findings, "the file " + f + " of the source \"" + source.name() + "\" is not there");
                }
            }
        }
        line.put("quantities", s.quantities().size());
        line.put("frames", s.frames().size());
        line.put("stations", s.stations().size());
        line.put("readings", s.readings().size());
        line.put("checks", s.checks().size());
    }

    private static List<String> files(Source source) {
        return switch (source) {
            case Source.Simulation run -> {
                List<String> all = new ArrayList<>(List.of(run.file()));
                all.addAll(run.partFiles());
                yield all;
            }
            case Source.Reference reference -> reference.files();
        };
    }

    private static void finding(ArrayNode out, String text) {
        out.addObject().put("severity", "warning").put("text", text).put("count", 1);
    }

    private static void ledger(Path file, JsonNode root, ObjectNode line) {
        line.put("kind", "ledger");
        line.put("study", root.path("study").asText());
        line.put("program", root.path("program").asText());
        JsonNode lines = root.path("numbers");
        int without = 0;
        Map<String, String> inputs = new TreeMap<>();
        for (JsonNode l : lines) {
            without += l.path("value").isNull() ? 1 : 0;
            l.path("inputs")
                    .forEach(i ->
                            inputs.put(i.path("path").asText(), i.path("sha256").asText()));
        }
        line.put("lines", lines.size());
        line.put("withoutValue", without);
        ArrayNode files = line.putArray("inputs");
        inputs.forEach((path, hash) -> files.addObject().put("path", path).put("sha256", hash));
        ArrayNode findings = line.putArray("findings");
        Path folder = file.toAbsolutePath().getParent();
        if (folder != null) {
            FileSet.check(folder).forEach(f -> finding(findings, f));
        }
    }

    /** The same for people. */
    static void words(ObjectNode line, StringBuilder out) {
        if (line.get("kind").asText().equals("ledger")) {
            out.append("  ledger of the study \"").append(line.get("study").asText());
            out.append("\", by ").append(line.get("program").asText()).append('\n');
            out.append("  ").append(Plain.count(line.get("lines").asInt(), "line"));
            out.append(", ").append(line.get("withoutValue").asInt()).append(" without a value, from ");
            out.append(Plain.count(line.get("inputs").size(), "file")).append('\n');
        } else {
            out.append("  study \"").append(line.get("name").asText()).append("\", version ");
            out.append(line.get("version").asInt()).append('\n');
            line.get("sources").forEach(s -> {
                List<String> files = new ArrayList<>();
                s.get("files").forEach(f -> files.add(f.asText()));
                out.append("  ")
                        .append(s.get("kind").asText())
                        .append(' ')
                        .append(s.get("name").asText());
                out.append(files.isEmpty() ? "" : ": " + String.join(", ", files))
                        .append('\n');
            });
            List<String> counts = new ArrayList<>();
            for (String what : List.of("quantities", "frames", "stations", "readings", "checks")) {
                counts.add(line.get(what).asInt() + " " + what);
            }
            out.append("  ").append(String.join(", ", counts)).append('\n');
        }
        line.get("findings")
                .forEach(f ->
                        out.append("  note: ").append(f.get("text").asText()).append('\n'));
    }
}
