package lane.formats.study;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ArrayNode;
import java.util.ArrayList;
import java.util.List;
import lane.base.Fault;
import lane.base.LaneException;
import lane.quantity.Quantity;
import lane.study.Study;

/**
 * Quantities as a text that goes from study to study: JSON, a list of {@code name, formula, unit, note}, or a plain table
 * with these columns parted by tabs, which a spreadsheet reads.
 */
public final class QuantitiesFile {
    private static final ObjectMapper JSON = new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);
    private static final int MOST = 4 << 20;
    private static final String HEAD = "name\tformula\tunit\tnote";

    private QuantitiesFile() {}

    public static String json(List<Quantity> quantities) {
        ArrayNode all = JSON.createArrayNode();
        for (Quantity q : quantities) {
            all.addObject()
                    .put("name", q.name())
                    .put("formula", q.formula())
                    .put("unit", q.unit())
                    .put("note", q.note());
        }
        try {
            return JSON.writeValueAsString(all) + "\n";
        } catch (JacksonException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    public static String table(List<Quantity> quantities) {
        var out = new StringBuilder(HEAD).append('\n');
        for (Quantity q : quantities) {
            out.append(String.join("\t", cell(q.name()), cell(q.formula()), cell(q.unit()), cell(q.note())))
                    .append('\n');
        }
        return out.toString();
    }

    private static String cell(String text) {
        return text.replaceAll("[\\t\\r\\n]+", " ");
    }

    /**
     * Either of both forms, with keys made of the names.
     *
     * @param where named in errors
     * @throws LaneException when it is neither, or an entry lacks its name or formula
     */
    public static List<Quantity> read(String text, String where) {
        if (text.length() > MOST) {
            throw new LaneException(Fault.TOO_LARGE, where + " is longer than 4 MB; a list of quantities is not.");
        }
        String start = text.strip();
        return start.startsWith("[") ? fromJson(start, where) : fromTable(start, where);
    }

    private static List<Quantity> fromJson(String text, String where) {
        JsonNode tree;
        try {
            tree = JSON.readTree(text);
        } catch (JacksonException e) {
            throw new LaneException(Fault.DAMAGED, where + StudyFault.unsound(e), e);
        }
        List<Quantity> out = new ArrayList<>();
        for (JsonNode n : tree) {
            add(
                    out,
                    n.path("name").asText(),
                    n.path("formula").asText(),
                    n.path("unit").asText(),
                    n.path("note").asText(),
                    where);
        }
        return out;
    }

    private static List<Quantity> fromTable(String text, String where) {
        List<Quantity> out = new ArrayList<>();
        for (String line : text.split("\\R")) {
            String[] cells = line.split("\t", -1);
            if (line.isBlank() || line.strip().equalsIgnoreCase(HEAD.strip())) {
                continue;
            }
            if (cells.length < 2) {
                throw new LaneException(
                        where + " is no list of quantities at \"" + line.substring(0, Math.min(40, line.length()))
                                + "\"; give JSON, or lines of name, formula, unit and note parted by tabs.");
            }
            add(
                    out,
                    cells[0].strip(),
                    cells[1].strip(),
                    cells.length > 2 ? cells[2].strip() : "",
                    cells.length > 3 ? cells[3].strip() : "",
                    where);
        }
        return out;
    }

    private static void add(List<Quantity> out, String name, String formula, String unit, String note, String where) {
        if (name.isBlank() || formula.isBlank()) {
            throw new LaneException(where + " has an entry without a name or a formula; give both.");
        }
        String id = Study.freshId(name, out.stream().map(Quantity::id).toList());
        out.add(new Quantity(id, name, formula, unit, note));
    }
}
