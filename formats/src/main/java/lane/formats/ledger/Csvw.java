package lane.formats.ledger;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.ledger.LedgerTable;

/** What the columns of a ledger's tables mean, as W3C's vocabulary for tables has it (CSV on the Web). */
final class Csvw {
    static final String FILE = "csv-metadata.json";

    private static final ObjectMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    /** At the end of a title, where all of a column is in one unit. */
    private static final Pattern UNIT = Pattern.compile("\\[([^\\]]+)]$");

    private Csvw() {}

    /** A further table and its file. */
    record Of(String file, LedgerTable table) {}

    /** A column of {@code ledger.csv}. */
    private record Meant(String name, boolean number, String meaning) {}

    private static final List<Meant> LEDGER = List.of(
            new Meant("id", false, "Key of the number in this ledger"),
            new Meant("stop", false, "reading or check"),
            new Meant("item", false, "Name of the reading"),
            new Meant("what", false, "Which number of it"),
            new Meant("lane", false, "Name of the lane"),
            new Meant(
                    "value",
                    true,
                    "The number with all its digits, in the unit of the line; empty where there is none"),
            new Meant("unit", false, "Unit of value and uncertainty"),
            new Meant("relative", true, "Of a difference, as a share of its scale"),
            new Meant("uncertainty", true, "Half-width of the expanded uncertainty; empty where none is stated"),
            new Meant("verdict", false, "within, out, undecided or no data"),
            new Meant("remark", false, "Sign convention, what was assumed, or why there is no number"));

    static String of(Export export, String ledger, List<Of> others) {
        ObjectNode root = MAPPER.createObjectNode();
        ArrayNode context = root.putArray("@context");
        context.add("http://www.w3.org/ns/csvw");
        context.addObject().put("@language", "en");
        root.put("dc:title", export.results().study().name());
        root.put("dc:creator", export.program());
        ArrayNode sources = root.putArray("dc:source");
        export.ledger().inputs().values().forEach(i -> sources.add(i.path() + ", SHA-256 " + i.sha256()));
        ArrayNode tables = root.putArray("tables");
        ObjectNode table = table(tables, ledger);
        ObjectNode schema = table.putObject("tableSchema");
        ArrayNode columns = schema.putArray("columns");
        LEDGER.forEach(m -> column(columns, m.name, m.name, m.name, m.number, m.meaning, m.name.equals("id")));
        schema.put("primaryKey", "id");
        for (Of other : others) {
            ObjectNode one = table(tables, other.file);
            one.put("dc:title", other.table.title());
            if (!other.table.note().isBlank()) {
                one.put("dc:description", other.table.note());
            }
            ArrayNode of = one.putObject("tableSchema").putArray("columns");
            Set<String> taken = new HashSet<>();
            for (LedgerTable.Column c : other.table.columns()) {
                column(of, name(c, taken), c.name(), c.title(), c.number(), c.meaning(), false);
            }
        }
        try {
            return MAPPER.writeValueAsString(root) + "\n";
        } catch (JacksonException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    /** As the vocabulary lets a column be called, each once. */
    private static String name(LedgerTable.Column column, Set<String> taken) {
        String stem = column.name().replaceAll("[^A-Za-z0-9]+", "_").replaceAll("^_|_$", "");
        stem = stem.isEmpty() ? "column" : stem;
        String name = stem;
        for (int i = 2; !taken.add(name); i++) {
            name = stem + "_" + i;
        }
        return name;
    }

    private static ObjectNode table(ArrayNode tables, String file) {
        ObjectNode table = tables.addObject();
        table.put("url", URLEncoder.encode(file, StandardCharsets.UTF_8).replace("+", "%20"));
        ObjectNode dialect = table.putObject("dialect");
        dialect.put("encoding", "utf-8");
        dialect.put("header", true);
        dialect.put("delimiter", ",");
        return table;
    }

    private static void column(
            ArrayNode columns,
            String name,
            String head,
            String title,
            boolean number,
            String meaning,
            boolean required) {
        ObjectNode c = columns.addObject();
        c.put("name", name);
        c.put("titles", head);
        c.put("datatype", number ? "double" : "string");
        c.put("dc:description", meaning);
        Matcher unit = UNIT.matcher(title);
        if (unit.find()) {
            c.put("schema:unitText", unit.group(1));
        }
        if (required) {
            c.put("required", true);
        }
    }
}
