package lane.formats.ledger;

import java.util.List;
import lane.base.Plain;
import lane.ledger.LedgerTable;

/** The tables for LaTeX, without any package. Characters that mean something there are escaped. */
final class Latex {
    private static final int COLUMNS = 10;

    /** The last letter that every LaTeX knows in UTF-8. */
    private static final int LATIN = 0x17F;

    private Latex() {}

    static String of(Export export) {
        var out = new StringBuilder("% " + Plain.line(export.results().study().name()) + "\n% "
                + Plain.line(export.made().words()) + "\n");
        // A page is so wide.
        List<LedgerTable> all = export.tables().stream()
                .flatMap(t -> t.within(COLUMNS).stream())
                .toList();
        for (LedgerTable table : all) {
            out.append("\n\\begin{table}[htbp]\n\\centering\n\\caption{")
                    .append(text(table.title() + ", " + export.results().study().name()))
                    .append("}\n\\label{tab:")
                    .append(table.name())
                    .append("}\n\\begin{tabular}{");
            table.columns().forEach(c -> out.append(c.number() ? 'r' : 'l'));
            out.append("}\n\\hline\n");
            line(table.columns().stream().map(LedgerTable.Column::title).toList(), out);
            out.append("\\hline\n");
            for (LedgerTable.Row row : table.rows()) {
                line(row.cells().stream().map(LedgerTable.Cell::marked).toList(), out);
            }
            out.append("\\hline\n\\end{tabular}\n");
            table.notes()
                    .forEach(n -> out.append("\n\\smallskip\n").append(text(n)).append("\n"));
            out.append("\\end{table}\n");
        }
        // Told where it is read first.
        boolean beyond = out.chars().anyMatch(c -> c > LATIN);
        return beyond
                ? "% Letters beyond Latin stand in names: typeset with XeLaTeX or LuaLaTeX and a font that has them.\n"
                        + out
                : out.toString();
    }

    private static void line(List<String> cells, StringBuilder out) {
        for (int i = 0; i < cells.size(); i++) {
            out.append(i == 0 ? "" : " & ").append(text(cells.get(i)));
        }
        out.append(" \\\\\n");
    }

    static String text(String of) {
        var out = new StringBuilder();
        String line = Plain.line(of);
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            switch (c) {
                case '&', '%', '$', '#', '_', '{', '}' -> out.append('\\').append(c);
                case '~' -> out.append("\\textasciitilde{}");
                case '^' -> out.append("\\textasciicircum{}");
                case '\\' -> out.append("\\textbackslash{}");
                case '<' -> out.append("\\textless{}");
                case '>' -> out.append("\\textgreater{}");
                case '|' -> out.append("\\textbar{}");
                case '†' -> out.append("\\ensuremath{^\\dagger}");
                case '±' -> out.append("\\ensuremath{\\pm}");
                case '\u2212' -> out.append("\\ensuremath{-}");
                case '\u2009', '\u202f' -> out.append("\\,");
                case '·' -> out.append("\\ensuremath{\\cdot}");
                case '°' -> out.append("\\ensuremath{^\\circ}");
                case '²' -> out.append("\\ensuremath{^2}");
                case '³' -> out.append("\\ensuremath{^3}");
                case 'µ', 'μ' -> out.append("\\ensuremath{\\mu}");
                case '…' -> out.append("\\ldots{}");
                case '"' -> out.append("''");
                // A bracket after a line's end would be taken for its option.
                case '[', ']' -> out.append('{').append(c).append('}');
                default -> out.append(c);
            }
        }
        return out.toString();
    }
}
