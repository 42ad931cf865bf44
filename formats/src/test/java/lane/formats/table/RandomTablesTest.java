package lane.formats.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import lane.reference.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Tables that are made up at random and written as spreadsheets, loggers and people write them: whatever can be read in one way
 * alone is read in that way, with every digit, unit and gap where it was.
 */
class RandomTablesTest {
    @TempDir
    Path folder;

    private static final String[] NAMES = {
        "Height",
        "dough temperature",
        "Feuchte",
        "Druck oben",
        "CO2",
        "débit",
        "Probe 3",
        "load, left",
        "flow; net",
        "pH"
    };
    private static final String[][] UNITS = {
        {"mm", "m", "cm"},
        {"degC", "°C", "K"},
        {"%"},
        {"mbar", "kPa", "bar"},
        {"ppm"},
        {"L/min", "m3/h"},
        {"1"},
        {"N", "kN"},
        {"kg/s"},
        {"1"}
    };
    private static final String[] MISSING = {"", "-", "--", "n/a", "NaN", "*"};

    /** How one table is written. */
    private record Dialect(
            char separator,
            boolean comma,
            int unitsWhere,
            int titles,
            int blanks,
            boolean comments,
            String end,
            Charset set,
            boolean mark,
            boolean trailing,
            boolean thousands) {
        static Dialect of(Random r) {
            char separator = ",;\t| ".charAt(r.nextInt(5));
            boolean comma = separator != ',' && r.nextBoolean();
            Charset[] sets = {
                StandardCharsets.UTF_8,
                StandardCharsets.UTF_8,
                StandardCharsets.UTF_16LE,
                Charset.forName("windows-1252")
            };
            Charset set = sets[r.nextInt(4)];
            boolean mark = set == StandardCharsets.UTF_16LE || set == StandardCharsets.UTF_8 && r.nextBoolean();
            return new Dialect(
                    separator,
                    comma,
                    // In brackets behind the name, in a row of their own, or nowhere.
                    r.nextInt(3),
                    r.nextInt(3),
                    r.nextInt(3),
                    r.nextInt(4) == 0,
                    r.nextInt(3) == 0 ? "\r\n" : "\n",
                    set,
                    mark,
                    separator != ' ' && separator != '|' && r.nextInt(4) == 0,
                    separator != ' ' && r.nextInt(4) == 0);
        }
    }

    private record Made(byte[] bytes, String text, List<String> headers, List<String> units, List<double[]> columns) {}

    private static String quoted(String s, Dialect d) {
        boolean must = s.indexOf(d.separator) >= 0 || d.separator != ' ' && s.contains("\"");
        return must ? "\"" + s.replace("\"", "\"\"") + "\"" : s;
    }

    /** A number with as many decimals as its column has, as the dialect writes it. */
    private static String number(BigDecimal v, boolean power, Dialect d) {
        if (power) {
            String text = String.format(java.util.Locale.ROOT, "%.4e", v.doubleValue());
            return d.comma ? text.replace('.', ',') : text;
        }
        String text = v.toPlainString();
        int point = text.indexOf('.');
        if (d.thousands && point > 0 && v.abs().compareTo(new BigDecimal(1000)) >= 0) {
            var grouped = new StringBuilder(text);
            for (int i = point - 3; i > (v.signum() < 0 ? 1 : 0); i -= 3) {
                grouped.insert(i, ',');
            }
            text = grouped.toString();
        }
        if (d.comma) {
            text = text.replace(',', '_').replace('.', ',').replace('_', '.');
        }
        return quoted(text, d);
    }

    private static Made made(Random r) {
        Dialect d = Dialect.of(r);
        int columns = 2 + r.nextInt(4);
        int rows = 4 + r.nextInt(25);
        List<Integer> pick = new ArrayList<>();
        for (int i = 0; i < NAMES.length; i++) {
            pick.add(i);
        }
        java.util.Collections.shuffle(pick, r);
        List<String> headers = new ArrayList<>();
        List<String> units = new ArrayList<>();
        List<double[]> values = new ArrayList<>();
        String[][] cells = new String[rows][columns];
        for (int c = 0; c < columns; c++) {
            String name = NAMES[pick.get(c)];
            String[] may = UNITS[pick.get(c)];
            headers.add(d.separator == ' ' ? name.replaceAll("[ ,;]+", "_") : name);
            units.add(may[r.nextInt(may.length)]);
            int decimals = 1 + r.nextInt(4);
            boolean power = r.nextInt(5) == 0;
            boolean large = r.nextInt(4) == 0;
            double[] column = new double[rows];
            double at = r.nextInt(50) - 20;
            for (int i = 0; i < rows; i++) {
                at += c == 0 ? 0.5 + r.nextDouble() : 10 * r.nextDouble() - 5;
                BigDecimal v =
                        BigDecimal.valueOf(large && c > 0 ? 1000 * at : at).setScale(decimals, RoundingMode.HALF_EVEN);
                cells[i][c] = number(v, power, d);
                column[i] = power
                        ? Double.parseDouble(String.format(java.util.Locale.ROOT, "%.4e", v.doubleValue()))
                        : v.doubleValue();
                // Never a whole row or column, and not the first rows, from which a reader sees what a column holds.
                if (c > 0 && i > 1 && r.nextInt(9) == 0) {
                    String none = MISSING[r.nextInt(MISSING.length)];
                    cells[i][c] = d.separator == ' ' && none.isEmpty() ? "NaN" : none;
                    column[i] = Double.NaN;
                }
            }
            values.add(column);
        }
        if (units.stream().allMatch("1"::equals)) {
            // A row of ones alone could be data as well.
            units.set(0, "m");
        }
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < d.titles; i++) {
            lines.add(new String[] {"Oven test at the mill", "Operator: M. Lund"}[i % 2]);
        }
        if (d.titles > 0) {
            for (int i = 0; i < d.blanks; i++) {
                lines.add("");
            }
        }
        if (d.comments) {
            lines.add("# exported by a logger");
        }
        String separator = String.valueOf(d.separator);
        List<String> head = new ArrayList<>();
        for (int c = 0; c < columns; c++) {
            String unit = units.get(c);
            String bracketed = (r.nextBoolean() ? " [" + unit + "]" : " (" + unit + ")");
            bracketed = d.separator == ' ' ? bracketed.strip() : bracketed;
            head.add(quoted(headers.get(c) + (d.unitsWhere == 0 ? bracketed : ""), d));
        }
        lines.add(String.join(separator, head));
        if (d.unitsWhere == 1) {
            lines.add(String.join(separator, units));
        } else if (d.unitsWhere == 2) {
            units.replaceAll(u -> "");
        }
        for (String[] row : cells) {
            lines.add(String.join(separator, row));
        }
        var text = new StringBuilder();
        for (String line : lines) {
            text.append(line)
                    .append(d.trailing && !line.isEmpty() ? separator : "")
                    .append(d.end);
        }
        var bytes = new ByteArrayOutputStream();
        if (d.mark) {
            bytes.writeBytes("\uFEFF".getBytes(d.set));
        }
        bytes.writeBytes(text.toString().getBytes(d.set));
        return new Made(bytes.toByteArray(), d + "\n" + text, headers, units, values);
    }

    @Test
    void everyTableIsReadAsItWasMeant() throws IOException {
        var random = new Random(2026);
        for (int trial = 0; trial < 700; trial++) {
            Made m = made(random);
            Path file = Files.write(folder.resolve("t.csv"), m.bytes);
            Table t;
            try {
                t = TableReader.read(file, "t.csv");
            } catch (lane.base.LaneException e) {
                throw new AssertionError("trial " + trial + ": " + e.getMessage() + "\n" + m.text, e);
            }
            String what = "trial " + trial + "\n" + m.text + t.layout().words() + t.found();
            assertThat(t.headers()).as(what).isEqualTo(m.headers);
            assertThat(t.units()).as(what).isEqualTo(m.units);
            for (int c = 0; c < m.columns.size(); c++) {
                assertThat(t.columns().get(c)).as("column %d of %s", c, what).containsExactly(m.columns.get(c));
            }
            assertThat(t.found().dropped()).as(what).isEmpty();
        }
    }
}
