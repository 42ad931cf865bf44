package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javax.xml.parsers.DocumentBuilderFactory;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.xml.sax.InputSource;

/** A ledger in every format: its numbers read back, its rules kept, and names that would be taken for something else made harmless. */
class LedgerFormatsTest extends TeaCase {
    private static final String EVIL = "=HYPERLINK(1)|<b>&amp; 5%_$ \\\\end{x}";

    private Path all() throws Exception {
        Path out = folder.resolve("all");
        assertThat(run("evaluate", study.toString(), "--out", out.toString(), "--formats", "all"))
                .as(err)
                .isZero();
        return out;
    }

    private void named(String name) throws Exception {
        Files.writeString(
                study,
                STUDY.replace("\"name\": \"mean\"", "\"name\": \"" + name + "\"")
                        .replace(
                                "\"checks\": [",
                                "\"checks\": [{\"kind\": \"band\", \"id\": \"wide\", \"reading\": \"mean\", \"least\": 0, \"greatest\": 1, \"unit\": \"g/kg\"},"));
    }

    private static Map<String, JsonNode> numbers(Path out) throws Exception {
        var all = new TreeMap<String, JsonNode>();
        new ObjectMapper()
                .readTree(out.resolve("ledger.json").toFile())
                .get("numbers")
                .forEach(n -> all.put(n.get("id").asText(), n));
        return all;
    }

    @Test
    void tablesReadBackAreTheNumbersToTheLastDigit() throws Exception {
        Path out = all();
        Map<String, JsonNode> numbers = numbers(out);
        List<String> lines = Files.readAllLines(out.resolve("ledger.csv"));
        assertThat(lines).hasSize(numbers.size() + 1);
        for (String line : lines.subList(1, lines.size())) {
            String[] cells = line.split(",", -1);
            JsonNode value = numbers.get(cells[0]).get("value");
            assertThat(cells[5]).isEqualTo(value.isNull() ? "" : Double.toString(value.asDouble()));
        }
        try (var book = new XSSFWorkbook(out.resolve("ledger.xlsx").toFile())) {
            Sheet lanes = book.getSheet("Comparison");
            assertThat(lanes.getPaneInformation().getHorizontalSplitTopRow()).isEqualTo((short) 1);
            List<Double> told = new ArrayList<>();
            for (Row row : lanes) {
                for (Cell cell : row) {
                    if (cell.getCellType() == CellType.NUMERIC) {
                        told.add(cell.getNumericCellValue());
                    }
                }
            }
            for (JsonNode n : numbers.values()) {
                if (n.get("stop").asText().equals("reading") && n.get("value").isNumber()) {
                    assertThat(told).contains(n.get("value").asDouble());
                }
            }
            // The curve has a sheet with a chart of both lanes.
            XSSFSheet across = book.getSheet("across");
            assertThat(across.getDrawingPatriarch().getCharts()).hasSize(1);
            assertThat(across.getDrawingPatriarch()
                            .getCharts()
                            .getFirst()
                            .getCTChart()
                            .getPlotArea()
                            .getScatterChartArray(0)
                            .getSerList())
                    .hasSize(2);
            assertThat(across.getLastRowNum()).isEqualTo(14);
        }
    }

    @Test
    void theDifferenceInTheWorkbookIsAFormulaOfTheTwoValues() throws Exception {
        Files.writeString(
                study,
                STUDY.replace(
                                "\"checks\": [",
                                "\"checks\": [{\"kind\": \"datum\", \"id\": \"heavy\", \"reading\": \"mean\", \"scale\": \"ABSOLUTE\", \"tolerance\": 1},")
                        .replace(
                                "\"answers\": [",
                                "\"answers\": [{\"kind\": \"hand\", \"reading\": \"mean\", \"value\": 16.25, \"unit\": \"g/kg\", \"uncertainty\": 0, \"note\": \"\"},"));
        Path out = all();
        try (var book = new XSSFWorkbook(out.resolve("ledger.xlsx").toFile())) {
            Sheet checks = book.getSheet("Checks");
            Row head = checks.getRow(0);
            int at = 0;
            while (!head.getCell(at).getStringCellValue().equals("Difference")) {
                at++;
            }
            Row heavy = checks.getRow(1);
            assertThat(heavy.getCell(at).getCellFormula()).isEqualTo("E2-G2");
            double written = heavy.getCell(at).getNumericCellValue();
            assertThat(written).isCloseTo(0.25, within(1e-6));
            var evaluator = book.getCreationHelper().createFormulaEvaluator();
            assertThat(evaluator.evaluate(heavy.getCell(at)).getNumberValue()).isCloseTo(written, within(1e-13));
        }
    }

    private static Document xml(String text) throws Exception {
        var factory = DocumentBuilderFactory.newInstance();
        factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
        return factory.newDocumentBuilder().parse(new InputSource(new StringReader(text)));
    }

    @Test
    void aBuildServerFindsEachJudgedLaneWithItsReason() throws Exception {
        named("mean");
        Path out = folder.resolve("all");
        assertThat(run("evaluate", study.toString(), "--out", out.toString(), "--formats", "junit"))
                .isEqualTo(1);
        Element suite = xml(Files.readString(out.resolve("checks.xml"))).getDocumentElement();
        assertThat(suite.getTagName()).isEqualTo("testsuite");
        var cases = suite.getElementsByTagName("testcase");
        assertThat(suite.getAttribute("tests")).isEqualTo(String.valueOf(cases.getLength()));
        assertThat(suite.getAttribute("failures"))
                .isEqualTo(String.valueOf(suite.getElementsByTagName("failure").getLength()))
                .isEqualTo("1");
        assertThat(suite.getAttribute("errors"))
                .isEqualTo(String.valueOf(suite.getElementsByTagName("error").getLength()));
        assertThat(suite.getAttribute("skipped"))
                .isEqualTo(String.valueOf(suite.getElementsByTagName("skipped").getLength()));
        assertThat(((Element) suite.getElementsByTagName("failure").item(0)).getAttribute("message"))
                .isNotBlank();
        for (int i = 0; i < cases.getLength(); i++) {
            assertThat(((Element) cases.item(i)).getAttribute("name")).isNotBlank();
            assertThat(((Element) cases.item(i)).getAttribute("classname")).isEqualTo("tea");
        }
    }

    @Test
    void theColumnsOfEveryTableAreSaidWhatTheyMean() throws Exception {
        Path out = all();
        JsonNode root =
                new ObjectMapper().readTree(out.resolve("csv-metadata.json").toFile());
        assertThat(root.at("/@context/0").asText()).isEqualTo("http://www.w3.org/ns/csvw");
        assertThat(root.get("dc:source").toString()).contains("runs/tray.vtu, SHA-256 ", "waage.csv, SHA-256 ");
        // The ledger, its two tables and the points of one curve.
        assertThat(root.get("tables")).hasSize(4);
        for (JsonNode table : root.get("tables")) {
            List<String> lines = Files.readAllLines(out.resolve(table.get("url").asText()));
            List<String> titles = new ArrayList<>();
            List<Boolean> number = new ArrayList<>();
            for (JsonNode c : table.at("/tableSchema/columns")) {
                titles.add(c.get("titles").asText());
                number.add(c.get("datatype").asText().equals("double"));
                assertThat(c.get("name").asText()).matches("[A-Za-z][A-Za-z0-9_]*");
                assertThat(c.get("dc:description").asText()).isNotBlank();
            }
            assertThat(lines.getFirst()).isEqualTo(String.join(",", titles));
            for (String line : lines.subList(1, lines.size())) {
                String[] cells = line.split(",", -1);
                for (int i = 0; i < Math.min(cells.length, 6); i++) {
                    if (number.get(i) && !cells[i].isEmpty()) {
                        assertThat(Double.parseDouble(cells[i])).isFinite();
                    }
                }
            }
        }
    }

    @Test
    void theFolderIsAResearchObjectThatNamesItsFilesAndInputs() throws Exception {
        Path out = all();
        Map<String, JsonNode> byId = new TreeMap<>();
        JsonNode root = new ObjectMapper()
                .readTree(out.resolve("ro-crate-metadata.json").toFile());
        root.get("@graph").forEach(e -> byId.put(e.get("@id").asText(), e));
        assertThat(root.get("@context").asText()).isEqualTo("https://w3id.org/ro/crate/1.1/context");
        assertThat(byId.get("ro-crate-metadata.json").at("/about/@id").asText()).isEqualTo("./");
        for (String needed : List.of("name", "description", "datePublished", "license")) {
            assertThat(byId.get("./").hasNonNull(needed)).as(needed).isTrue();
        }
        try (var files = Files.list(out)) {
            List<String> own = List.of("ro-crate-metadata.json", "manifest.json", ".lane-lock");
            for (Path f : files.toList()) {
                String name = f.getFileName().toString();
                assertThat(own.contains(name) || byId.containsKey(name))
                        .as(name)
                        .isTrue();
            }
        }
        // Whatever is referred to is there.
        for (String list : List.of("/object", "/result")) {
            assertThat(byId.get("#evaluation").at(list)).isNotEmpty();
            byId.get("#evaluation").at(list).forEach(r -> assertThat(byId)
                    .containsKey(r.get("@id").asText()));
        }
        assertThat(byId.get("#input-runs/tray.vtu").get("sha256").asText()).hasSize(64);
    }

    @Test
    void namesThatWouldBeTakenForSomethingElseAreHarmless() throws Exception {
        named(EVIL);
        Path out = folder.resolve("all");
        assertThat(run("evaluate", study.toString(), "--out", out.toString(), "--formats", "all"))
                .as(err)
                .isEqualTo(1);
        assertThat(Files.readString(out.resolve("ledger.csv"))).contains("'=HYPERLINK");
        String html = Files.readString(out.resolve("ledger.html"));
        assertThat(html).doesNotContain("<b>", "<script").contains("=HYPERLINK(1)|&lt;b&gt;&amp;amp; 5%");
        // Nothing is loaded from elsewhere.
        assertThat(html).doesNotContainPattern("(?i)(src|href|xlink:href)\\s*=\\s*[\"'](?!#|data:)");
        assertThat(html).doesNotContain("@import", "url(http");
        String tex = Files.readString(out.resolve("ledger.tex"));
        assertThat(tex)
                .contains("=HYPERLINK(1)\\textbar{}\\textless{}b\\textgreater{}\\&amp; 5\\%\\_\\$ ")
                .doesNotContain(" \\end{x}");
        String md = Files.readString(out.resolve("ledger.md"));
        for (String line : md.lines().filter(l -> l.startsWith("|")).toList()) {
            assertThat(line).doesNotContain("<b>");
        }
        assertThat(md).contains("=HYPERLINK(1)\\|\\<b\\>\\&amp;");
        assertThat(xml(Files.readString(out.resolve("checks.xml")))
                        .getDocumentElement()
                        .getAttribute("failures"))
                .isEqualTo("1");
        try (var book = new XSSFWorkbook(out.resolve("ledger.xlsx").toFile())) {
            for (Sheet sheet : book) {
                for (Row row : sheet) {
                    for (Cell cell : row) {
                        if (cell.getCellType() == CellType.FORMULA) {
                            assertThat(cell.getCellFormula()).matches("[A-Z]+\\d+-[A-Z]+\\d+");
                        }
                    }
                }
            }
        }
        try (var files = Files.list(out)) {
            for (Path svg : files.filter(f -> f.toString().endsWith(".svg")).toList()) {
                String text = Files.readString(svg);
                assertThat(text)
                        .doesNotContainPattern("(?i)href\\s*=\\s*[\"'](?!#|data:)")
                        .doesNotContain("<b>");
            }
        }
    }

    @Test
    void pagesOnPaperHaveContentsNumbersBookmarksAndTheirFonts() throws Exception {
        Path out = all();
        try (PDDocument pages = Loader.loadPDF(out.resolve("ledger.pdf").toFile())) {
            assertThat(pages.getNumberOfPages()).isBetween(5, 9);
            String text = new PDFTextStripper().getText(pages);
            assertThat(text)
                    .contains("Comparison", "Checks", "within", "runs/tray.vtu", "1 of " + pages.getNumberOfPages());
            // The contents say on which page each part begins.
            assertThat(text).containsPattern("Comparison[ .]* 2\\R").containsPattern("Checks[ .]* 3\\R");
            var third = new PDFTextStripper();
            third.setStartPage(3);
            third.setEndPage(3);
            assertThat(third.getText(pages)).contains("Checks", "Tolerance", "3 of " + pages.getNumberOfPages());
            List<String> marks = new ArrayList<>();
            pages.getDocumentCatalog().getDocumentOutline().children().forEach(c -> marks.add(c.getTitle()));
            assertThat(marks).contains("Comparison", "Checks", "Figures", "Input files");
            boolean picture = false;
            for (var page : pages.getPages()) {
                for (var name : page.getResources().getFontNames()) {
                    assertThat(page.getResources().getFont(name).isEmbedded())
                            .as(name.getName())
                            .isTrue();
                }
                picture |= page.getResources().getXObjectNames().iterator().hasNext();
            }
            assertThat(picture).isTrue();
        }
    }

    @Test
    void theSameStudyGivesTheSameBytesButForTheTime() throws Exception {
        Path one = all();
        Path two = folder.resolve("two");
        run("evaluate", study.toString(), "--out", two.toString(), "--formats", "all");
        String first = written(one);
        String second = written(two);
        try (var files = Files.list(one)) {
            for (Path f : files.toList()) {
                String name = f.getFileName().toString();
                Path other = two.resolve(name);
                if (name.matches(".*\\.(html|md|tex)|manifest.json|ro-crate-metadata.json")) {
                    assertThat(timeless(Files.readString(other), second))
                            .as(name)
                            .isEqualTo(timeless(Files.readString(f), first));
                } else if (name.endsWith(".pdf")) {
                    assertThat(timeless(pages(other), second)).isEqualTo(timeless(pages(f), first));
                } else {
                    assertThat(other).as(name).hasSameBinaryContentAs(f);
                }
            }
        }
    }

    private static String written(Path ledger) throws Exception {
        return new ObjectMapper()
                .readTree(ledger.resolve("manifest.json").toFile())
                .get("written")
                .asText();
    }

    /** A text without when it was written, and without hashes of texts that say it. */
    private static String timeless(String text, String written) {
        return text.replace(written, "then")
                .replace(written.replace('T', ' ').replace("Z", " UTC"), "then")
                .replaceAll("\"sha256\" : \"[0-9a-f]{64}\"", "")
                .replaceAll("\"bytes\" : \\d+", "");
    }

    private static String pages(Path pdf) throws Exception {
        try (PDDocument document = Loader.loadPDF(pdf.toFile())) {
            return new PDFTextStripper().getText(document);
        }
    }

    @Test
    void aStudyIsATemplateForOtherRuns() throws Exception {
        tray("tonight.vtu", 3);
        Path out = folder.resolve("night");
        assertThat(run(
                        "evaluate",
                        study.toString(),
                        "--out",
                        out.toString(),
                        "--run",
                        "tray=" + folder.resolve("runs/tonight.vtu"),
                        "--json"))
                .as(err)
                .isEqualTo(1);
        JsonNode told = new ObjectMapper().readTree(this.out);
        assertThat(told.at("/checks/0/verdict").asText()).isEqualTo("out");
        assertThat(told.get("exitCode").asInt()).isEqualTo(1);
        assertThat(told.get("files")).isNotEmpty();
        // It is verified with the file that was given.
        assertThat(run("verify", out.toString())).as(this.out + err).isZero();
        assertThat(this.out).contains("0 different", "definitions the same");
        assertThat(run("evaluate", study.toString(), "--out", out.toString(), "--quiet"))
                .isZero();
        assertThat(this.out + err).isEmpty();
        assertThat(run("evaluate", study.toString(), "--out", out.toString(), "--run", "tary=x.vtu"))
                .isEqualTo(3);
        assertThat(err).contains("tary", "its runs are tray");
        assertThat(run("evaluate", study.toString(), "--out", out.toString(), "--formats", "doc"))
                .isEqualTo(3);
        assertThat(err).contains("doc", "xlsx");
    }
}
