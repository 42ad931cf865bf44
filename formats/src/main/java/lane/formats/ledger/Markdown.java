package lane.formats.ledger;

import java.util.List;
import java.util.stream.Collectors;
import lane.base.Plain;
import lane.ledger.LedgerTable;

/** The tables as Markdown. Whatever in a name would be taken for markup is escaped. */
final class Markdown {
    private Markdown() {}

    static String of(Export export) {
        var out = new StringBuilder("# " + text(export.results().study().name()) + "\n");
        for (LedgerTable table : export.tables()) {
            out.append("\n## ").append(text(table.title())).append("\n\n");
            line(table.columns().stream().map(c -> text(c.title())).toList(), out);
            line(table.columns().stream().map(c -> c.number() ? "---:" : "---").toList(), out);
            for (LedgerTable.Row row : table.rows()) {
                line(row.cells().stream().map(c -> text(c.marked())).toList(), out);
            }
            table.notes().forEach(n -> out.append('\n').append(text(n)).append('\n'));
        }
        return out.append("\n")
                .append(text(export.made().words()))
                .append(".\n")
                .toString();
    }

    private static void line(List<String> cells, StringBuilder out) {
        out.append(cells.stream().collect(Collectors.joining(" | ", "| ", " |")))
                .append('\n');
    }

    /** Plain text, on one line. */
    static String text(String of) {
        var out = new StringBuilder();
        String line = Plain.line(of);
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            if ("\\`*_{}[]<>#|~&$!".indexOf(c) >= 0) {
                out.append('\\');
            }
            out.append(c);
        }
        return out.toString();
    }
}
