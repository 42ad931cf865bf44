package lane.formats.ledger;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import lane.base.Plain;
import lane.formats.io.AtomicFile;
import lane.ledger.LedgerTable;
import lane.ledger.LedgerTable.Cell;
import lane.ledger.LedgerTable.Num;
import org.apache.poi.ss.usermodel.BorderStyle;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.FillPatternType;
import org.apache.poi.ss.usermodel.Font;
import org.apache.poi.ss.usermodel.HorizontalAlignment;
import org.apache.poi.ss.usermodel.IndexedColors;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.xddf.usermodel.chart.AxisPosition;
import org.apache.poi.xddf.usermodel.chart.ChartTypes;
import org.apache.poi.xddf.usermodel.chart.LegendPosition;
import org.apache.poi.xddf.usermodel.chart.MarkerStyle;
import org.apache.poi.xddf.usermodel.chart.ScatterStyle;
import org.apache.poi.xddf.usermodel.chart.XDDFDataSourcesFactory;
import org.apache.poi.xddf.usermodel.chart.XDDFScatterChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFValueAxis;
import org.apache.poi.xssf.usermodel.XSSFCell;
import org.apache.poi.xssf.usermodel.XSSFChart;
import org.apache.poi.xssf.usermodel.XSSFRow;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/**
 * A workbook: a sheet for each table with a frozen head, one for each reading's curves with a chart. The difference of a check is a
 * formula of the two values beside it, so that a reviewer can follow it. Texts stay texts whatever they begin with.
 */
final class Xlsx {
    /** Rows that a sheet can hold, less its head. */
    private static final int MOST_ROWS = (1 << 20) - 1;
    /** Curves of more points are told by their table alone. */
    private static final int MOST_DRAWN = 20_000;

    /** Letters that a cell can hold. */
    private static final int MOST_LETTERS = 32_767;

    private static final int WIDE = 256;

    static {
        Quiet.libraries();
    }

    private final XSSFWorkbook book = new XSSFWorkbook();
    private final Set<String> names = new HashSet<>();
    private final CellStyle head = book.createCellStyle();
    private final CellStyle number = book.createCellStyle();
    private final CellStyle markedText = book.createCellStyle();
    private final CellStyle markedNumber = book.createCellStyle();

    private Xlsx() {
        Font bold = book.createFont();
        bold.setBold(true);
        head.setFont(bold);
        head.setBorderBottom(BorderStyle.THIN);
        number.setAlignment(HorizontalAlignment.RIGHT);
        markedNumber.setAlignment(HorizontalAlignment.RIGHT);
        for (CellStyle style : List.of(markedText, markedNumber)) {
            style.setFillForegroundColor(IndexedColors.LEMON_CHIFFON.getIndex());
            style.setFillPattern(FillPatternType.SOLID_FOREGROUND);
        }
    }

    static AtomicFile.Body body(Export export) {
        return out -> {
            var made = new Xlsx();
            try (XSSFWorkbook book = made.book) {
                book.getProperties()
                        .getCoreProperties()
                        .setTitle(export.results().study().name());
                book.getProperties().getCoreProperties().setCreator(export.program());
                book.getProperties().getCoreProperties().setCreated(java.util.Optional.empty());
                export.tables().forEach(made::table);
                export.curves().forEach(made::curve);
                var bytes = new ByteArrayOutputStream();
                book.write(bytes);
                again(bytes.toByteArray(), out);
            }
        };
    }

    /** The same archive without the time at which it was made, so that the same numbers give the same bytes. */
    private static void again(byte[] book, OutputStream out) throws IOException {
        var zip = new ZipOutputStream(out);
        try (var in = new ZipInputStream(new ByteArrayInputStream(book))) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                var entry = new ZipEntry(e.getName());
                entry.setTimeLocal(java.time.LocalDateTime.of(1980, 1, 1, 0, 0));
                zip.putNextEntry(entry);
                byte[] content = in.readAllBytes();
                if (e.getName().equals("docProps/core.xml")) {
                    content = new String(content, java.nio.charset.StandardCharsets.UTF_8)
                            .replaceAll("<dcterms:(created|modified)[^>]*>[^<]*</dcterms:(created|modified)>", "")
                            .getBytes(java.nio.charset.StandardCharsets.UTF_8);
                }
                zip.write(content);
                zip.closeEntry();
            }
        }
        zip.finish();
    }

    private String sheetName(String title) {
        String plain = Plain.line(title).replaceAll("[\\\\/*?:\\[\\]']", " ").strip();
        plain = plain.isEmpty() ? "sheet" : plain;
        String name = plain.substring(0, Math.min(31, plain.length()));
        for (int i = 2; !names.add(name.toLowerCase(Locale.ROOT)); i++) {
            String end = " " + i;
            name = plain.substring(0, Math.min(31 - end.length(), plain.length())) + end;
        }
        return name;
    }

    private XSSFSheet table(LedgerTable table) {
        XSSFSheet sheet = book.createSheet(sheetName(table.title()));
        XSSFRow top = sheet.createRow(0);
        for (int i = 0; i < table.columns().size(); i++) {
            XSSFCell cell = top.createCell(i);
            cell.setCellValue(table.columns().get(i).title());
            cell.setCellStyle(head);
        }
        int rows = Math.min(table.rows().size(), MOST_ROWS);
        for (int r = 0; r < rows; r++) {
            XSSFRow row = sheet.createRow(r + 1);
            List<Cell> cells = table.rows().get(r).cells();
            for (int i = 0; i < cells.size(); i++) {
                fill(row.createCell(i), cells.get(i));
                difference(row.getCell(i), table, cells, i);
            }
        }
        for (String note : table.notes()) {
            sheet.createRow(sheet.getLastRowNum() + 2).createCell(0).setCellValue(note);
        }
        for (int i = 0; i < table.columns().size(); i++) {
            int longest = table.columns().get(i).title().length();
            for (int r = 0; r < Math.min(rows, 200); r++) {
                longest = Math.max(
                        longest, table.rows().get(r).cells().get(i).text().length());
            }
            sheet.setColumnWidth(i, WIDE * Math.clamp(longest + 2L, 8, 48));
        }
        sheet.createFreezePane(0, 1);
        if (rows > 0) {
            sheet.setAutoFilter(new CellRangeAddress(0, rows, 0, table.columns().size() - 1));
        }
        return sheet;
    }

    /** What is the difference of two cells beside it is their formula, with the value that it had when it was written. */
    private static void difference(XSSFCell cell, LedgerTable table, List<Cell> cells, int i) {
        LedgerTable.Less less = table.columns().get(i).less();
        if (less == null) {
            return;
        }
        int value = table.column(less.value());
        int from = table.column(less.from());
        if (value >= 0 && from >= 0 && has(cells.get(value)) && has(cells.get(from)) && has(cells.get(i))) {
            int line = cell.getRowIndex() + 1;
            cell.setCellFormula(CellReference.convertNumToColString(value) + line + "-"
                    + CellReference.convertNumToColString(from) + line);
            cell.setCellValue(((Num) cells.get(i)).value());
        }
    }

    private static boolean has(Cell cell) {
        return cell instanceof Num n && Double.isFinite(n.value());
    }

    private void fill(XSSFCell cell, Cell of) {
        switch (of) {
            case Num n -> {
                cell.setCellStyle(n.mark() == LedgerTable.Mark.NONE ? number : markedNumber);
                if (Double.isFinite(n.value())) {
                    cell.setCellValue(n.value());
                }
            }
            case LedgerTable.Text t -> {
                if (t.mark() != LedgerTable.Mark.NONE) {
                    cell.setCellStyle(markedText);
                }
                String text = Plain.lines(t.text());
                cell.setCellValue(text.length() <= MOST_LETTERS ? text : text.substring(0, MOST_LETTERS - 1) + "…");
            }
        }
    }

    /** The points of a reading's curves with their chart at the right. */
    private void curve(LedgerTable table) {
        XSSFSheet sheet = table(table);
        int rows = Math.min(table.rows().size(), MOST_ROWS);
        if (rows == 0 || rows > MOST_DRAWN) {
            return;
        }
        int lane = table.column("lane");
        int along = table.column("abscissa");
        int value = table.column("value");
        int width = table.columns().size();
        XSSFChart chart = sheet.createDrawingPatriarch()
                .createChart(sheet.createDrawingPatriarch().createAnchor(0, 0, 0, 0, width + 1, 1, width + 11, 24));
        chart.setTitleText(table.title());
        chart.setTitleOverlay(false);
        chart.getOrAddLegend().setPosition(LegendPosition.BOTTOM);
        XDDFValueAxis x = chart.createValueAxis(AxisPosition.BOTTOM);
        XDDFValueAxis y = chart.createValueAxis(AxisPosition.LEFT);
        List<Cell> first = table.rows().getFirst().cells();
        x.setTitle("abscissa, " + first.get(table.column("abscissa unit")).text());
        y.setTitle(table.title() + ", " + first.get(table.column("unit")).text());
        var data = (XDDFScatterChartData) chart.createData(ChartTypes.SCATTER, x, y);
        data.setStyle(ScatterStyle.LINE);
        for (int[] part : parts(table, lane, rows)) {
            var series = (XDDFScatterChartData.Series) data.addSeries(
                    XDDFDataSourcesFactory.fromNumericCellRange(
                            sheet, new CellRangeAddress(part[0] + 1, part[1] + 1, along, along)),
                    XDDFDataSourcesFactory.fromNumericCellRange(
                            sheet, new CellRangeAddress(part[0] + 1, part[1] + 1, value, value)));
            series.setTitle(table.rows().get(part[0]).cells().get(lane).text(), null);
            series.setSmooth(false);
            series.setMarkerStyle(MarkerStyle.NONE);
        }
        chart.plot(data);
    }

    /** First and last row of each lane. */
    private static List<int[]> parts(LedgerTable table, int lane, int rows) {
        List<int[]> out = new ArrayList<>();
        int from = 0;
        for (int r = 1; r <= rows; r++) {
            if (r == rows || !text(table, r, lane).equals(text(table, from, lane))) {
                out.add(new int[] {from, r - 1});
                from = r;
            }
        }
        return out;
    }

    private static String text(LedgerTable table, int row, int column) {
        return table.rows().get(row).cells().get(column).text();
    }
}
