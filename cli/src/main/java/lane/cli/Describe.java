package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import lane.base.Figures;
import lane.base.Plain;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.RunHealth;
import lane.formats.FileKinds;
import lane.formats.grid.Dataset;
import lane.formats.io.FileNames;
import lane.mesh.Finding;
import lane.mesh.Mesh;
import lane.mesh.MeshHealth;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Says what is in files: runs, tables, studies and ledgers, and what looks wrong. No study is needed. */
@Command(
        name = "describe",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Say what is in files: runs (mesh, parts, fields, times), tables, studies and ledgers, with findings.")
final class Describe implements Callable<Integer> {
    /** Made when it is asked for, since that takes a tenth of the time of a small file. */
    private static final class Json {
        static final ObjectMapper MAPPER = new ObjectMapper();
    }

    @Parameters(arity = "1..*", paramLabel = "FILE")
    List<String> files;

    @Option(names = "--json", description = "one JSON object a line, one line a file, in the order given")
    boolean json;

    @Override
    public Integer call() {
        boolean failed = false;
        for (String file : files) {
            ObjectNode line = JsonNodeFactory.instance.objectNode();
            line.put("file", file);
            try {
                describe(file, line);
            } catch (RuntimeException | OutOfMemoryError | StackOverflowError e) {
                // One file does not keep the others from being described.
                failed = true;
                line.put("error", Lane.sentence(e));
            }
            Console.lines(json ? text(line) : words(line));
        }
        return failed ? 3 : 0;
    }

    private static void describe(String file, ObjectNode line) {
        Path path = OneRun.path(file);
        String ending = FileNames.ending(path);
        if (FileKinds.table(path)) {
            OfTable.describe(path, line);
        } else if (ending.equals("json") || Files.isDirectory(path)) {
            OfStudy.describe(path, line);
        } else {
            line.put("kind", "run");
            describe(OneRun.dataset(file), line);
        }
    }

    private static String text(ObjectNode line) {
        try {
            return Json.MAPPER.writeValueAsString(line);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    private static void describe(Dataset data, ObjectNode line) {
        Mesh mesh = data.mesh();
        line.put("nodes", mesh.nodeCount());
        line.put("cells", mesh.cellCount());
        Map<String, Integer> shapes = new LinkedHashMap<>();
        for (int c = 0; c < mesh.cellCount(); c++) {
            shapes.merge(mesh.shape(c).word(), 1, Integer::sum);
        }
        ObjectNode byShape = line.putObject("cellsByShape");
        shapes.forEach(byShape::put);
        ArrayNode bounds = line.putArray("bounds");
        for (double b : mesh.bounds()) {
            bounds.add(b);
        }
        MeshHealth.Report sheet = MeshHealth.of(mesh);
        // A mesh of volumes has no area of its own, and a surface no volume.
        line.put("volume", mesh.dimension() == 3 ? (Double) sheet.volume() : null);
        line.put("area", mesh.dimension() == 2 ? (Double) sheet.area() : null);
        ArrayNode times = line.putArray("times");
        data.times().forEach(times::add);
        List<Finding> findings = new ArrayList<>(sheet.findings());
        RunHealth.length(mesh, data.metres(), findings);
        parts(data, line.putArray("parts"), findings);
        ArrayNode fields = line.putArray("fields");
        data.fields().forEach(f -> field(f, fields.addObject(), findings));
        ArrayNode list = line.putArray("findings");
        for (Finding f : findings) {
            list.addObject()
                    .put("severity", f.severity().word())
                    .put("text", f.text())
                    .put("count", f.count());
        }
        for (String remark : data.remarks()) {
            list.addObject().put("severity", "note").put("text", remark).put("count", 1);
        }
    }

    private static void parts(Dataset data, ArrayNode out, List<Finding> findings) {
        if (data.groups().isEmpty()) {
            return;
        }
        var builder = data.mesh().dimension() >= 2 ? new PartBuilder(data.mesh()) : null;
        for (Dataset.Group group : data.groups()) {
            ObjectNode part = out.addObject();
            part.put("name", group.name());
            part.put("faces", group.surface().cellCount());
            MeshHealth.Report own = MeshHealth.of(group.surface());
            part.put("area", own.area());
            // A surface file's own groups are cells of it and not its boundary.
            if (builder != null && group.surface().dimension() == data.mesh().dimension() - 1) {
                Part placed = builder.place(group.name(), group.surface(), group.fields());
                RunHealth.part(placed, findings);
            }
        }
    }

    private static void field(Field f, ObjectNode out, List<Finding> findings) {
        out.put("name", f.name());
        out.put("at", f.at() == Field.At.NODE ? "node" : "cell");
        out.put("components", f.components());
        ArrayNode min = out.putArray("min");
        ArrayNode max = out.putArray("max");
        ArrayNode sums = out.putArray("sum");
        for (int c = 0; c < f.components(); c++) {
            double least = Double.POSITIVE_INFINITY;
            double greatest = Double.NEGATIVE_INFINITY;
            var sum = new Sum();
            for (int i = c; i < f.values().length(); i += f.components()) {
                double v = f.values().get(i);
                if (Double.isFinite(v)) {
                    least = Math.min(least, v);
                    greatest = Math.max(greatest, v);
                    sum.add(v);
                }
            }
            boolean any = least <= greatest;
            number(min, any, least);
            number(max, any, greatest);
            number(sums, any, sum.value());
        }
        out.put("nonFinite", f.nonFinite());
        RunHealth.field(f, findings);
        f.unit().doubt().ifPresent(d -> findings.add(new Finding(Finding.Severity.WARNING, d, 1, null)));
    }

    private static void number(ArrayNode out, boolean any, double v) {
        if (any) {
            out.add(v);
        } else {
            out.addNull();
        }
    }

    /** The same for people. */
    private static String words(ObjectNode line) {
        var out = new StringBuilder(line.get("file").asText()).append('\n');
        if (line.has("error")) {
            return out.append("  ")
                    .append(line.get("error").asText())
                    .append('\n')
                    .toString();
        }
        switch (line.get("kind").asText()) {
            case "table" -> OfTable.words(line, out);
            case "study", "ledger" -> OfStudy.words(line, out);
            default -> run(line, out);
        }
        return out.toString();
    }

    private static void run(ObjectNode line, StringBuilder out) {
        out.append(String.format(
                Locale.ROOT,
                "  %d nodes, %d cells: %s%n",
                line.get("nodes").asInt(),
                line.get("cells").asInt(),
                shapes(line)));
        List<String> b = new ArrayList<>();
        line.get("bounds").forEach(v -> b.add(number(v)));
        out.append(String.format(
                Locale.ROOT,
                "  x %s to %s, y %s to %s, z %s to %s%s%n",
                b.get(0),
                b.get(1),
                b.get(2),
                b.get(3),
                b.get(4),
                b.get(5),
                size(line)));
        if (!line.get("times").isEmpty()) {
            out.append("  ").append(times(line.get("times"))).append('\n');
        }
        line.get("parts")
                .forEach(p -> out.append(String.format(
                        Locale.ROOT,
                        "  part %s: %d faces, area %s%n",
                        p.get("name").asText(),
                        p.get("faces").asInt(),
                        number(p.get("area")))));
        line.get("fields")
                .forEach(f -> out.append(String.format(
                        Locale.ROOT,
                        "  field %s at %ss, %s, %s%n",
                        f.get("name").asText(),
                        f.get("at").asText(),
                        Plain.count(f.get("components").asInt(), "component"),
                        range(f.get("min"), f.get("max")))));
        line.get("findings")
                .forEach(f -> out.append(String.format(
                        Locale.ROOT,
                        "  %s: %s%n",
                        f.get("severity").asText(),
                        Finding.told(f.get("text").asText(), f.get("count").asLong()))));
    }

    private static String size(ObjectNode line) {
        for (String what : List.of("volume", "area")) {
            if (!line.get(what).isNull()) {
                return "; " + what + " " + number(line.get(what));
            }
        }
        return "";
    }

    private static String shapes(ObjectNode line) {
        List<String> all = new ArrayList<>();
        line.get("cellsByShape").properties().forEach(e -> all.add(e.getValue().asInt() + " " + e.getKey()));
        return String.join(", ", all);
    }

    /** Of each component. */
    private static String range(JsonNode min, JsonNode max) {
        List<String> all = new ArrayList<>();
        for (int i = 0; i < min.size(); i++) {
            all.add(min.get(i).isNumber() ? number(min.get(i)) + " to " + number(max.get(i)) : "no finite value");
        }
        return String.join("; ", all);
    }

    /** All of a few times, of many the first and the last. */
    private static String times(JsonNode all) {
        List<String> out = new ArrayList<>();
        all.forEach(t -> out.add(number(t)));
        int n = out.size();
        return n == 1
                ? "time " + out.getFirst()
                : n <= SOME
                        ? "times " + String.join(", ", out)
                        : n + " times from " + out.getFirst() + " to " + out.getLast();
    }

    /** Times that a line has room for. */
    private static final int SOME = 8;

    private static String number(JsonNode v) {
        return v.isNumber() ? Figures.of(v.asDouble(), 9).plain(v.asDouble()) : "-";
    }
}
