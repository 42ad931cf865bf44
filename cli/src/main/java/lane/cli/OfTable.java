package lane.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.Locale;
import lane.base.Plain;
import lane.formats.table.TableReader;
import lane.reference.Table;

/** What is said of a table: where things stand in it, its columns, what was left out and assumed. */
final class OfTable {
    private OfTable() {}

    static void describe(Path file, ObjectNode line) {
        Table t = TableReader.read(file, line.get("file").asText());
        Table.Layout l = t.layout();
        line.put("kind", "table");
        line.put("rows", t.rows());
        line.put("headerLine", l.places().header());
        line.put("unitLine", l.places().units());
        line.put("firstDataLine", l.places().firstData());
        line.put("separator", l.separator());
        line.put("decimal", l.decimal());
        line.put("encoding", l.encoding());
        if (!l.sheet().isBlank()) {
            line.put("sheet", l.sheet());
            ArrayNode sheets = line.putArray("sheets");
            l.sheets().forEach(sheets::add);
        }
        ArrayNode columns = line.putArray("columns");
        for (int c = 0; c < t.headers().size(); c++) {
            column(t, c, columns.addObject());
        }
        ArrayNode dropped = line.putArray("dropped");
        t.found()
                .dropped()
                .forEach(d -> dropped.addObject().put("line", d.line()).put("why", d.why()));
        ArrayNode findings = line.putArray("findings");
        t.found().findings().forEach(f -> findings.addObject()
                .put("severity", "warning")
                .put("text", f)
                .put("count", 1));
    }

    private static void column(Table t, int c, ObjectNode out) {
        double[] v = t.columns().get(c);
        int numbers = 0;
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        double first = Double.NaN;
        double last = Double.NaN;
        for (double x : v) {
            if (!Double.isNaN(x)) {
                first = numbers == 0 ? x : first;
                last = x;
                least = Math.min(least, x);
                greatest = Math.max(greatest, x);
                numbers++;
            }
        }
        int words = t.found().words().get(c);
        out.put("name", t.headers().get(c));
        out.put("unit", t.units().get(c));
        out.put("role", t.roles().get(c).name().toLowerCase(Locale.ROOT));
        out.put("numbers", numbers);
        out.put("missing", v.length - numbers - words);
        out.put("words", words);
        out.put("min", numbers == 0 ? null : (Double) least);
        out.put("max", numbers == 0 ? null : (Double) greatest);
        out.put("first", numbers == 0 ? null : (Double) first);
        out.put("last", numbers == 0 ? null : (Double) last);
    }

    /** The same for people. */
    static void words(ObjectNode line, StringBuilder out) {
        long header = line.get("headerLine").asLong();
        long units = line.get("unitLine").asLong();
        out.append("  table of ")
                .append(Plain.count(line.get("rows").asInt(), "row"))
                .append(" and ")
                .append(Plain.count(line.get("columns").size(), "column"));
        if (line.has("sheet")) {
            out.append(", sheet \"").append(line.get("sheet").asText()).append('"');
        } else {
            out.append("; ").append(line.get("separator").asText()).append(" between columns, decimal ");
            out.append(line.get("decimal").asText())
                    .append(", ")
                    .append(line.get("encoding").asText());
        }
        out.append("\n  ")
                .append(header == 0 ? "no header" : "header in line " + header)
                .append(units == 0 ? "" : ", units in line " + units)
                .append(", data from line ")
                .append(line.get("firstDataLine").asLong())
                .append('\n');
        line.get("columns").forEach(c -> {
            String unit = c.get("unit").asText();
            out.append("  column ").append(c.get("name").asText());
            out.append(unit.isEmpty() ? "" : " [" + unit + "]").append(", ");
            out.append(
                    c.get("role").asText().equals("ignore")
                            ? "not used"
                            : c.get("role").asText());
            out.append(": ").append(Plain.count(c.get("numbers").asInt(), "number"));
            if (c.get("numbers").asInt() > 0) {
                out.append(" from ").append(plain(c.get("min").asDouble()));
                out.append(" to ").append(plain(c.get("max").asDouble()));
            }
            out.append(
                    c.get("missing").asInt() == 0 ? "" : ", " + c.get("missing").asInt() + " missing");
            out.append(
                    c.get("words").asInt() == 0
                            ? ""
                            : ", " + Plain.count(c.get("words").asInt(), "word"));
            out.append('\n');
        });
        line.get("dropped").forEach(d -> out.append("  line ")
                .append(d.get("line").asLong())
                .append(" is left out: ")
                .append(d.get("why").asText())
                .append('\n'));
        line.get("findings")
                .forEach(f ->
                        out.append("  note: ").append(f.get("text").asText()).append('\n'));
    }

    private static String plain(double v) {
        return lane.base.Figures.of(v, 9).plain(v);
    }
}
