package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.stream.IntStream;
import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Plain;
import lane.fit.Fit;
import lane.fit.LeastSquares;
import lane.reference.Table;
import lane.unit.Unit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Fits a polynomial through two columns of a table, in the table's own units. No study is needed. */
@Command(
        name = "fit",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Fit a polynomial through two columns of a table, by least squares, in the table's units.")
final class FitTable implements Callable<Integer> {
    @Parameters(paramLabel = "TABLE", description = "a table of text or a workbook")
    String file;

    @Option(names = "--x", required = true, paramLabel = "NAME", description = "the column of abscissas")
    String x;

    @Option(names = "--y", required = true, paramLabel = "NAME", description = "the column of values")
    String y;

    @Option(
            names = "--degree",
            defaultValue = "1",
            paramLabel = "N",
            description = "of the polynomial (${DEFAULT-VALUE})")
    int degree;

    @Option(names = "--from", paramLabel = "A", description = "least abscissa that counts, in the column's unit")
    Double from;

    @Option(names = "--to", paramLabel = "B", description = "greatest abscissa that counts")
    Double to;

    @Option(names = "--json", description = "one JSON object in place of words")
    boolean json;

    @Override
    public Integer call() {
        Table table = OneTable.read(file);
        String along = OneTable.column(table, file, x);
        String of = OneTable.column(table, file, y);
        double[] abscissa = table.column(along);
        double[] value = table.column(of);
        double least = from == null ? Double.NEGATIVE_INFINITY : from;
        double greatest = to == null ? Double.POSITIVE_INFINITY : to;
        if (!(least <= greatest)) {
            throw new LaneException("From " + from + " to " + to + " there is nothing; give the lesser end first.");
        }
        int[] numbers = IntStream.range(0, table.rows())
                .filter(i -> Double.isFinite(abscissa[i]) && Double.isFinite(value[i]))
                .toArray();
        int[] rows = Arrays.stream(numbers)
                .filter(i -> abscissa[i] >= least && abscissa[i] <= greatest)
                .toArray();
        // Beside the numbers, which may be read by a program.
        int without = table.rows() - numbers.length;
        if (without > 0) {
            System.err.println(Plain.count(without, "row") + " without numbers in both \"" + along + "\" and \"" + of
                    + "\" " + (without == 1 ? "was" : "were") + " left out.");
        }
        table.found().findings().forEach(f -> System.err.println(Plain.line(f) + "."));
        if (rows.length == 0) {
            throw new LaneException("No row has numbers in both \"" + along + "\" and \"" + of + "\""
                    + (from == null && to == null ? "" : " in that range") + "; nothing can be fitted.");
        }
        Fit fit = LeastSquares.polynomial(
                Arrays.stream(rows).mapToDouble(i -> abscissa[i]).toArray(),
                Arrays.stream(rows).mapToDouble(i -> value[i]).toArray(),
                degree);
        if (fit.freedom() == 0) {
            System.err.println(
                    "There are no more samples than coefficients, so nothing tells how well they are known.");
        }
        String[] units = units(Unit.of(table.unit(along, "")), Unit.of(table.unit(of, "")));
        Console.lines(json ? json(fit, units) : words(fit, units, along, of));
        return 0;
    }

    /** Those of the coefficients; blank where a column has none. */
    private String[] units(Unit along, Unit of) {
        String[] out = new String[degree + 1];
        Unit now = of;
        for (int k = 0; k <= degree; k++) {
            out[k] = now.known() ? now.symbol() : "";
            now = (k == 0 ? now.difference() : now).over(along.difference());
        }
        return out;
    }

    private static String json(Fit fit, String[] units) {
        var mapper = new ObjectMapper();
        ObjectNode line = mapper.createObjectNode();
        numbers(line.putArray("coefficients"), fit.coefficients());
        numbers(line.putArray("standardErrors"), fit.standardErrors());
        line.put("residualDeviation", Double.isNaN(fit.residualDeviation()) ? null : (Double) fit.residualDeviation());
        line.put("r2", Double.isNaN(fit.r2()) ? null : (Double) fit.r2());
        line.put("samples", fit.samples());
        ArrayNode all = line.putArray("unit");
        Arrays.stream(units).forEach(all::add);
        try {
            return mapper.writeValueAsString(line);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    private static void numbers(ArrayNode out, double[] values) {
        for (double v : values) {
            if (Double.isNaN(v)) {
                out.addNull();
            } else {
                out.add(v);
            }
        }
    }

    private static String words(Fit fit, String[] units, String along, String of) {
        var out = new StringBuilder();
        out.append(String.format(
                Locale.ROOT,
                "%s over %s, degree %d, %s%n",
                of,
                along,
                units.length - 1,
                Plain.count(fit.samples(), "sample")));
        for (int k = 0; k < units.length; k++) {
            double error = fit.standardErrors()[k];
            out.append(String.format(
                    Locale.ROOT,
                    "  %-10s %s%s %s%n",
                    k == 0 ? "constant" : k == 1 ? "of x" : "of x^" + k,
                    number(fit.coefficients()[k]),
                    Double.isNaN(error) ? "" : " ± " + Figures.of(error, 3).plain(error) + " (standard error)",
                    units[k]));
        }
        if (!Double.isNaN(fit.residualDeviation())) {
            out.append("  residual deviation ")
                    .append(number(fit.residualDeviation()))
                    .append(' ')
                    .append(units[0])
                    .append(", sqrt(SSR / (n - p))\n");
        }
        if (!Double.isNaN(fit.r2())) {
            out.append("  R2 ").append(number(fit.r2())).append('\n');
        }
        return out.toString();
    }

    private static String number(double v) {
        return Figures.of(v, 9).plain(v);
    }
}
