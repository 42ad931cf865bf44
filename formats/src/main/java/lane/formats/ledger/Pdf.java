package lane.formats.ledger;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfBoxRenderer;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.render.DefaultObjectDrawerFactory;
import java.awt.Font;
import java.awt.FontFormatException;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import lane.formats.io.AtomicFile;
import lane.ledger.Ledger;
import lane.ledger.LedgerTable;
import lane.provenance.Provenance;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDDocumentInformation;

/**
 * Pages on paper: contents with page numbers, tables, figures with captions, input files by content, and the way of each number in a
 * line. Fonts are embedded; nothing outside is read; the same numbers give the same bytes.
 */
final class Pdf {
    /** A table of more columns is set smaller. */
    private static final int ROOMY = 10;

    private static final double POINTS = 8;

    /** A table of more is set in parts, one beneath the other. */
    private static final int MOST_COLUMNS = 14;

    /** Of figures, in millimetres. */
    private static final int WIDE = 150;

    private static final String FIGURE = "image/lane-figure";

    private static final String STYLE = """
            @page { size: A4 landscape; margin: 16mm 14mm 16mm 14mm;
              @bottom-right { content: counter(page) " of " counter(pages); font-family: Lane; font-size: 8pt; color: #5b676b }
              @bottom-left { content: "NAME"; font-family: Lane; font-size: 8pt; color: #5b676b } }
            body { font-family: Lane; font-size: 9pt; color: #1d2528 }
            h1 { font-size: 20pt; font-weight: 600; margin: 0 0 2mm 0 } h2 { font-size: 13pt; font-weight: 600; margin: 0 0 3mm 0 }
            h3 { font-size: 9pt; font-weight: 600; margin: 5mm 0 1mm 0 }
            section { page-break-before: always } p.by { color: #5b676b }
            table { -fs-table-paginate: paginate; border-collapse: collapse; width: 100% }
            th { text-align: left; font-weight: 600; border-bottom: 0.7pt solid #1d2528; padding: 1mm 2mm 1mm 0; vertical-align: bottom }
            td { border-bottom: 0.3pt solid #c9cec6; padding: 0.7mm 2mm 0.7mm 0; vertical-align: top } tr { page-break-inside: avoid }
            th.n, td.n { text-align: right } .within { color: #2c6b45; font-weight: 600 } .out { color: #a83232; font-weight: 600 }
            .undecided { color: #8a5a00; font-weight: 600 } .mark { background: #fbf0d9 }
            figure, div.figure { page-break-inside: avoid; margin: 0 0 6mm 0 }
            div.caption { color: #5b676b; font-size: 8pt } ul.contents { list-style: none; padding: 0 }
            ul.contents a { color: #1d2528; text-decoration: none }
            ul.contents a::after { content: leader(dotted) target-counter(attr(href), page) }
            td.hash { font-size: 7pt } td.way { font-size: 7pt }
            """;

    static {
        Quiet.libraries();
    }

    private Pdf() {}

    static AtomicFile.Body body(Export export) {
        return out -> {
            try (var document = new PDDocument()) {
                var builder = new PdfRendererBuilder();
                builder.useFastMode();
                builder.withHtmlContent(page(export), null);
                builder.usePDDocument(document);
                builder.useObjectDrawerFactory(drawn(export.drawn()));
                // Nothing on the page is fetched from anywhere.
                builder.useUriResolver((base, uri) -> uri.startsWith("data:") || uri.startsWith("#") ? uri : null);
                font(builder, "LaneSans-Regular.ttf", 400);
                font(builder, "LaneSans-SemiBold.ttf", 600);
                try (PdfBoxRenderer renderer = builder.buildPdfRenderer()) {
                    renderer.createPDFWithoutClosing();
                }
                var about = new PDDocumentInformation();
                about.setTitle(export.results().study().name());
                about.setCreator(export.program());
                document.setDocumentInformation(about);
                document.setDocumentId(1L);
                document.save(out);
            }
        };
    }

    /** Figures are drawn into the page as lines and not as pixels. */
    private static DefaultObjectDrawerFactory drawn(List<Export.Figure> figures) {
        var factory = new DefaultObjectDrawerFactory();
        factory.registerDrawer(FIGURE, (element, x, y, width, height, device, context, dots) -> {
            Export.Figure f = figures.get(Integer.parseInt(element.getAttribute("data")));
            double wide = width / dots;
            device.drawWithGraphics((float) x, (float) y, (float) wide, (float) (height / dots), g -> {
                g.scale(wide / f.width(), wide / f.width());
                f.paint().accept(g);
            });
            return null;
        });
        return factory;
    }

    private static void font(PdfRendererBuilder builder, String file, int weight) {
        builder.useFont(
                (com.openhtmltopdf.extend.FSSupplier<InputStream>) () -> open(file),
                "Lane",
                weight,
                FontStyle.NORMAL,
                true);
    }

    private static InputStream open(String file) {
        return Objects.requireNonNull(Pdf.class.getResourceAsStream("fonts/" + file));
    }

    /** A stretch of the pages with its name in the contents. */
    private record Part(String id, String title, String content) {}

    private static String page(Export export) {
        List<Part> parts = new ArrayList<>();
        for (LedgerTable table : export.tables()) {
            var grid = new StringBuilder();
            List<LedgerTable> pieces = table.within(MOST_COLUMNS);
            for (int i = 0; i < pieces.size(); i++) {
                LedgerTable piece = pieces.get(i);
                double size =
                        POINTS * Math.min(1, (double) ROOMY / piece.columns().size());
                grid.append(i == 0 ? "" : "<h3>" + Html.text(piece.title()) + "</h3>")
                        .append("<div style=\"font-size:")
                        .append(Math.max(4.5, size))
                        .append("pt\">");
                Html.grid(piece, grid);
                grid.append("</div>");
            }
            parts.add(new Part(table.name(), table.title(), grid.toString()));
        }
        if (!export.drawn().isEmpty()) {
            var figures = new StringBuilder();
            List<Export.Figure> all = export.drawn();
            for (int i = 0; i < all.size(); i++) {
                Export.Figure f = all.get(i);
                double tall = WIDE * f.height() / f.width();
                figures.append("<div class=\"figure\"><object type=\"")
                        .append(FIGURE)
                        .append("\" data=\"")
                        .append(i)
                        .append("\" style=\"width:")
                        .append(WIDE)
                        .append("mm;height:")
                        .append(String.format(Locale.ROOT, "%.2f", tall))
                        .append("mm\"></object><div class=\"caption\">")
                        .append(Html.text(f.caption()))
                        .append("</div></div>\n");
            }
            parts.add(new Part("figures", "Figures", figures.toString()));
        }
        parts.add(new Part("inputs", "Input files", inputs(export.ledger())));
        parts.add(new Part("ways", "How the numbers came about", ways(export.ledger())));
        if (!export.made().libraries().isEmpty()) {
            parts.add(new Part("libraries", "Libraries", "<p>" + Html.text(Html.libraries(export)) + "</p>"));
        }
        String name = export.results().study().name();
        var out = new StringBuilder("<html><head><title>")
                .append(Html.text(name))
                .append("</title><style>")
                .append(STYLE.replace("NAME", css(name)))
                .append("</style><bookmarks>");
        parts.forEach(p -> out.append("<bookmark name=\"")
                .append(Html.attribute(p.title))
                .append("\" href=\"#")
                .append(p.id)
                .append("\"/>"));
        out.append("</bookmarks></head><body><h1>")
                .append(Html.text(name))
                .append("</h1><p class=\"by\">")
                .append(Html.text(export.made().words()))
                .append("</p>")
                .append(lacks(parts) ? "<p class=\"by\">" + LACKS + "</p>" : "")
                .append("<ul class=\"contents\">");
        parts.forEach(p -> out.append("<li><a href=\"#")
                .append(p.id)
                .append("\">")
                .append(Html.text(p.title))
                .append(" </a></li>"));
        out.append("</ul>");
        parts.forEach(p -> out.append("<section id=\"")
                .append(p.id)
                .append("\"><h2>")
                .append(Html.text(p.title))
                .append("</h2>")
                .append(p.content)
                .append("</section>"));
        return out.append("</body></html>").toString();
    }

    private static final String LACKS =
            "Letters that the font of these pages does not have stand as #; the tables, the workbook and the HTML page hold them.";

    /** Whether any letter is one that the font does not have. */
    private static boolean lacks(List<Part> parts) {
        try (InputStream in = open("LaneSans-Regular.ttf")) {
            Font font = Font.createFont(Font.TRUETYPE_FONT, in);
            return parts.stream()
                    .flatMapToInt(p -> (p.title + p.content).codePoints())
                    .distinct()
                    .anyMatch(c -> c > ' ' && !font.canDisplay(c));
        } catch (IOException | FontFormatException e) {
            throw new IllegalStateException("the font is part of this program", e);
        }
    }

    /** A text within quotes of a style sheet that stands in a page. */
    private static String css(String text) {
        return Html.text(lane.base.Plain.line(text).replace("\\", " ").replace("\"", "'"))
                .replace("&", " ");
    }

    private static String inputs(Ledger ledger) {
        return ledger.inputs().values().stream()
                .map(i -> "<tr><td>" + Html.text(i.path()) + "</td><td class=\"n\">" + i.bytes()
                        + "</td><td class=\"hash\">" + Html.text(i.sha256()) + "</td></tr>")
                .collect(Collectors.joining(
                        "\n",
                        "<table><thead><tr><th>File</th><th class=\"n\">Bytes</th><th>SHA-256</th></tr></thead><tbody>",
                        "</tbody></table>"));
    }

    /** One line for all numbers of a reading on a lane that came about alike. */
    private static String ways(Ledger ledger) {
        Map<List<String>, Set<String>> ways = new LinkedHashMap<>();
        for (Ledger.Line l : ledger.lines()) {
            if (!l.trail().steps().isEmpty()) {
                String way = words(l.trail().steps())
                        + l.trail().others().stream()
                                .map(o -> "; " + o.as() + ": " + words(o.steps()))
                                .collect(Collectors.joining());
                ways.computeIfAbsent(List.of(l.item(), l.lane(), way), k -> new LinkedHashSet<>())
                        .add(l.id());
            }
        }
        return ways.entrySet().stream()
                .map(e -> "<tr><td class=\"way\">" + Html.text(numbers(e.getValue())) + "</td><td class=\"way\">"
                        + Html.text(e.getKey().get(0)) + "</td><td class=\"way\">"
                        + Html.text(e.getKey().get(1))
                        + "</td><td class=\"way\">" + Html.text(e.getKey().get(2)) + "</td></tr>")
                .collect(Collectors.joining(
                        "\n",
                        "<table><thead><tr><th>Numbers</th><th>Reading</th><th>Lane</th><th>From the file to the number</th></tr></thead><tbody>",
                        "</tbody></table>"));
    }

    private static String words(List<Provenance.Step> steps) {
        return steps.stream().map(Provenance.Step::text).collect(Collectors.joining(" › "));
    }

    private static String numbers(Set<String> ids) {
        List<String> all = List.copyOf(ids);
        return all.size() <= 2 ? String.join(", ", all) : all.getFirst() + " … " + all.getLast();
    }
}
