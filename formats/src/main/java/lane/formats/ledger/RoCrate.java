package lane.formats.ledger;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import lane.provenance.Provenance;

/**
 * What the exported folder holds and how it came about, as a research object (RO-Crate 1.1, JSON-LD): its files, the input files by
 * content, and the program's run as the action that made the one of the other.
 */
final class RoCrate {
    static final String FILE = "ro-crate-metadata.json";

    private static final ObjectMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private RoCrate() {}

    /** @param files of the folder, by name */
    static String of(Export export, List<String> files) {
        ObjectNode root = MAPPER.createObjectNode();
        root.put("@context", "https://w3id.org/ro/crate/1.1/context");
        ArrayNode graph = root.putArray("@graph");
        ObjectNode self = graph.addObject();
        self.put("@id", FILE);
        self.put("@type", "CreativeWork");
        self.putObject("conformsTo").put("@id", "https://w3id.org/ro/crate/1.1");
        self.putObject("about").put("@id", "./");
        ObjectNode data = graph.addObject();
        data.put("@id", "./");
        data.put("@type", "Dataset");
        data.put("name", export.results().study().name());
        data.put("description", "Comparison tables with the trail of every number");
        data.put("datePublished", export.made().time());
        data.put("license", "Not stated; ask who made it.");
        ArrayNode parts = data.putArray("hasPart");
        for (String file : files) {
            parts.addObject().put("@id", id(file));
        }
        data.putObject("mentions").put("@id", "#evaluation");
        for (String file : files) {
            ObjectNode one = graph.addObject();
            one.put("@id", id(file));
            one.put("@type", "File");
            one.put("name", file);
            one.put("encodingFormat", format(file));
        }
        Map<String, Provenance.Input> inputs = export.ledger().inputs();
        ObjectNode action = graph.addObject();
        action.put("@id", "#evaluation");
        action.put("@type", "CreateAction");
        action.put("name", "Evaluation of the study " + export.results().study().name());
        action.putObject("instrument").put("@id", "#program");
        action.put("endTime", export.made().time());
        action.put(
                "description",
                export.made().machine().entrySet().stream()
                        .map(e -> e.getKey() + ": " + e.getValue())
                        .collect(java.util.stream.Collectors.joining("; ")));
        ArrayNode object = action.putArray("object");
        inputs.keySet().forEach(p -> object.addObject().put("@id", input(p)));
        object.addObject().put("@id", id(LedgerWriter.DEFINITIONS));
        ArrayNode result = action.putArray("result");
        files.stream().filter(f -> !f.equals(LedgerWriter.DEFINITIONS)).forEach(f -> result.addObject()
                .put("@id", id(f)));
        ObjectNode program = graph.addObject();
        program.put("@id", "#program");
        program.put("@type", "SoftwareApplication");
        program.put("name", export.program());
        program.put("softwareRequirements", export.made().machine().getOrDefault("java", ""));
        ArrayNode needs = program.putArray("hasPart");
        export.made().libraries().forEach((name, version) -> needs.addObject().put("@id", "#library-" + id(name)));
        export.made().libraries().forEach((name, version) -> {
            ObjectNode one = graph.addObject();
            one.put("@id", "#library-" + id(name));
            one.put("@type", "SoftwareApplication");
            one.put("name", name);
            one.put("version", version);
        });
        for (Provenance.Input i : inputs.values()) {
            ObjectNode one = graph.addObject();
            one.put("@id", input(i.path()));
            one.put("@type", "CreativeWork");
            one.put("name", i.path());
            one.put("description", "Input file, as the study names it; not part of this folder");
            one.put("sha256", i.sha256());
            one.put("contentSize", String.valueOf(i.bytes()));
        }
        try {
            return MAPPER.writeValueAsString(root) + "\n";
        } catch (JacksonException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    private static String id(String file) {
        try {
            return new URI(null, null, file, null).toASCIIString();
        } catch (URISyntaxException e) {
            throw new IllegalStateException("a plain name is a path", e);
        }
    }

    private static String input(String path) {
        return "#input-" + id(path.replace('\\', '/'));
    }

    private static String format(String file) {
        return switch (file.substring(file.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT)) {
            case "csv" -> "text/csv";
            case "json" -> "application/json";
            case "html" -> "text/html";
            case "md" -> "text/markdown";
            case "tex" -> "application/x-tex";
            case "xml" -> "application/xml";
            case "svg" -> "image/svg+xml";
            case "png" -> "image/png";
            case "pdf" -> "application/pdf";
            case "xlsx" -> "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";
            default -> "application/octet-stream";
        };
    }
}
