package lane.formats.ledger;

import java.nio.charset.StandardCharsets;
import java.util.stream.Collectors;
import lane.base.Plain;
import lane.ledger.Ledger;
import lane.ledger.LedgerTable;
import lane.provenance.Data;
import lane.provenance.Provenance;

/** One page with tables, figures and the trail of each number. It refers to nothing outside, and runs nothing. */
final class Html {
    private static final String STYLE = """
            body{font:14px/1.45 system-ui,sans-serif;color:#1d2528;background:#fff;margin:32px auto;max-width:1100px;padding:0 24px}
            h1{font-size:24px;margin:0 0 4px} h2{font-size:17px;margin:32px 0 8px} p.by{color:#5b676b;margin:0 0 16px}
            table{border-collapse:collapse;width:100%;font-size:13px;font-variant-numeric:tabular-nums}
            th{text-align:left;border-bottom:2px solid #1d2528;padding:4px 10px 4px 0;font-weight:600;vertical-align:bottom}
            td{border-bottom:1px solid #dcdfd9;padding:4px 10px 4px 0;vertical-align:top}
            th.n,td.n{text-align:right} .within{color:#2c6b45;font-weight:600} .out{color:#a83232;font-weight:600}
            .undecided{color:#8a5a00;font-weight:600} .mark{background:#fbf0d9} figure{margin:16px 0} figcaption{color:#5b676b}
            details{border-bottom:1px solid #dcdfd9;padding:4px 0} summary{cursor:pointer} dl{display:grid;
            grid-template-columns:90px 1fr;gap:2px 12px;margin:6px 0 10px;font-size:12px} dt{color:#5b676b} dd{margin:0;
            overflow-wrap:anywhere} code{font-size:12px}
            @media print{body{margin:0;max-width:none} details:not([open])>*{display:none}}
            """;

    private Html() {}

    static String of(Export export) {
        String name = export.results().study().name();
        var out = new StringBuilder("<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n<title>")
                .append(text(name))
                .append("</title>\n<style>\n")
                .append(STYLE)
                .append("</style>\n</head>\n<body>\n<h1>")
                .append(text(name))
                .append("</h1>\n<p class=\"by\">")
                .append(text(export.made().words()))
                .append("</p>\n");
        export.tables().forEach(t -> table(t, out));
        figures(export, out);
        inputs(export, out);
        trails(export, out);
        libraries(export, out);
        return out.append("</body>\n</html>\n").toString();
    }

    private static void table(LedgerTable table, StringBuilder out) {
        out.append("<h2>").append(text(table.title())).append("</h2>\n");
        grid(table, out);
    }

    /** The table alone, well-formed as XML. */
    static void grid(LedgerTable table, StringBuilder out) {
        out.append("<table>\n<thead><tr>");
        for (LedgerTable.Column c : table.columns()) {
            out.append("<th")
                    .append(c.number() ? " class=\"n\"" : "")
                    .append(" title=\"")
                    .append(attribute(c.meaning()))
                    .append("\">")
                    .append(text(c.title()))
                    .append("</th>");
        }
        out.append("</tr></thead>\n<tbody>\n");
        for (LedgerTable.Row row : table.rows()) {
            out.append("<tr>");
            for (int i = 0; i < row.cells().size(); i++) {
                String cell = row.cells().get(i).marked();
                String style = table.columns().get(i).number()
                        ? "n"
                        : table.columns().get(i).name().equals("verdict") ? cell.replace(' ', '-') : "";
                // What somebody typed or accepted stands out.
                if (row.cells().get(i).mark() != LedgerTable.Mark.NONE) {
                    style = style.isEmpty() ? "mark" : style + " mark";
                }
                out.append(style.isEmpty() ? "<td>" : "<td class=\"" + attribute(style) + "\">")
                        .append(text(cell))
                        .append("</td>");
            }
            out.append("</tr>\n");
        }
        out.append("</tbody>\n</table>\n");
        table.notes()
                .forEach(n -> out.append("<p class=\"by\">").append(text(n)).append("</p>\n"));
    }

    private static void libraries(Export export, StringBuilder out) {
        if (!export.made().libraries().isEmpty()) {
            out.append("<h2>Libraries</h2>\n<p>")
                    .append(text(libraries(export)))
                    .append("</p>\n");
        }
    }

    static String libraries(Export export) {
        return export.made().libraries().entrySet().stream()
                .map(e -> e.getKey() + " " + e.getValue())
                .collect(Collectors.joining(", "));
    }

    private static void figures(Export export, StringBuilder out) {
        if (export.drawn().isEmpty()) {
            return;
        }
        out.append("<h2>Figures</h2>\n");
        export.drawn().forEach(f -> figure(f, out));
    }

    private static void figure(Export.Figure f, StringBuilder out) {
        String svg = new String(f.svg().get(), StandardCharsets.UTF_8);
        int at = svg.indexOf("<svg");
        // Names within one drawing must not meet those of another on the page.
        out.append("<figure id=\"")
                .append(attribute(f.name()))
                .append("\">\n")
                .append(own(at < 0 ? "" : svg.substring(at), f.name()))
                .append("\n<figcaption>")
                .append(text(f.caption()))
                .append("</figcaption>\n</figure>\n");
    }

    private static String own(String svg, String name) {
        String prefix = name.replaceAll("[^A-Za-z0-9-]", "-") + "-";
        return svg.replaceAll("\\bid=\"", "id=\"" + prefix)
                .replaceAll("url\\(#", "url(#" + prefix)
                .replaceAll("href=\"#", "href=\"#" + prefix);
    }

    private static void inputs(Export export, StringBuilder out) {
        out.append(
                "<h2>Input files</h2>\n<table>\n<thead><tr><th>File</th><th class=\"n\">Bytes</th><th>SHA-256</th></tr></thead>\n<tbody>\n");
        export.ledger().inputs().values().forEach(i -> out.append("<tr><td>")
                .append(text(i.path()))
                .append("</td><td class=\"n\">")
                .append(i.bytes())
                .append("</td><td><code>")
                .append(text(i.sha256()))
                .append("</code></td></tr>\n"));
        out.append("</tbody>\n</table>\n");
    }

    /** One trail for all numbers that share it. */
    private static void trails(Export export, StringBuilder out) {
        out.append("<h2>How each number came about</h2>\n");
        export.figures().stream().filter(f -> f.shows() == Export.Shows.TRAIL).forEach(f -> {
            out.append("<details><summary>").append(text(f.caption())).append("</summary>\n");
            figure(f, out);
            out.append("</details>\n");
        });
        for (Ledger.Line l : export.ledger().lines()) {
            if (l.trail().steps().isEmpty()) {
                continue;
            }
            out.append("<details><summary>")
                    .append(text(
                            l.id() + "  " + l.item() + (l.what().isBlank() ? "" : ", " + l.what()) + ", " + l.lane()))
                    .append("</summary>\n<dl>\n");
            l.trail().inputs().forEach(i -> pair("file", i.path() + ", SHA-256 " + i.sha256(), out));
            l.trail().steps().forEach(s -> step(s, out));
            for (Provenance.Other o : l.trail().others()) {
                pair("beside", o.as(), out);
                o.steps().forEach(s -> step(s, out));
            }
            out.append("</dl></details>\n");
        }
    }

    private static void step(Provenance.Step s, StringBuilder out) {
        pair(s.stop(), s.text(), out);
        s.settings().forEach((k, v) -> pair("", k + ": " + Data.text(v), out));
        pair("", "method: " + s.method().name() + ", version " + s.method().version(), out);
    }

    private static void pair(String key, String value, StringBuilder out) {
        out.append("<dt>")
                .append(text(key))
                .append("</dt><dd>")
                .append(text(value))
                .append("</dd>\n");
    }

    /** Text between tags. */
    static String text(String of) {
        return Plain.lines(of).replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }

    /** Text between quotes. */
    static String attribute(String of) {
        return text(Plain.line(of)).replace("\"", "&quot;").replace("'", "&#39;");
    }
}
