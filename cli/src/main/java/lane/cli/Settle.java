package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.Callable;
import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Plain;
import lane.estimate.Uncertainty;
import lane.history.Series;
import lane.history.Settling;
import lane.reference.Table;
import lane.unit.Unit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Judges whether a column of a monitor or log file has settled. No study is needed. */
@Command(
        name = "settle",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Judge whether a column of a monitor or log file has settled, and how well its mean is known, in the table's units.")
final class Settle implements Callable<Integer> {
    @Parameters(paramLabel = "TABLE", description = "a table of text or a workbook")
    String file;

    @Option(names = "--column", required = true, paramLabel = "NAME", description = "the column of values")
    String column;

    @Option(
            names = "--over",
            paramLabel = "COLUMN",
            description = "the column of times; rows counted from 1 where there is none")
    String over = "";

    @Option(
            names = "--window",
            paramLabel = "SHARE",
            converter = Share.class,
            description = "share of the times at the end that is judged (0.2)")
    double window = Settling.WINDOW;

    @Option(
            names = "--tolerance",
            paramLabel = "SHARE",
            converter = Share.class,
            description = "what drift and scatter may be, as a share of the mean's magnitude (0.001)")
    double tolerance = Settling.TOLERANCE;

    @Option(
            names = "--scale",
            paramLabel = "VALUE",
            description = "what the tolerance is a share of in place of the mean, in the column's unit")
    Double scale;

    @Option(
            names = "--batches",
            paramLabel = "N",
            description =
                    "number of batches for the standard error; found from how long values remember where it is left out")
    int batches;

    @Option(names = "--json", description = "one JSON object in place of words")
    boolean json;

    @Override
    public Integer call() {
        Table table = OneTable.read(file);
        String of = OneTable.column(table, file, column);
        String along = over.isBlank() ? "" : OneTable.column(table, file, over);
        double[] value = table.column(of);
        Series series = along.isBlank() ? Series.ofRows(value) : Series.of(table.column(along), value);
        told(series, table, of, along);
        table.found().findings().forEach(f -> System.err.println(Plain.line(f) + "."));
        if (series.size() == 0) {
            throw new LaneException("No row has a number in \"" + of + "\""
                    + (along.isBlank() ? "" : " and in \"" + along + "\"") + "; nothing can be judged.");
        }
        Settling made = Settling.of(series, window, tolerance, scale == null ? Double.NaN : scale, batches);
        Unit unit = Unit.of(table.unit(of, ""));
        if (scale == null && unit.known() && !unit.difference().equals(unit)) {
            System.err.println("A share of a mean in " + unit.symbol() + " depends on where the scale of "
                    + unit.symbol() + " begins; state what it is a share of by --scale.");
        }
        Unit time = along.isBlank() ? Unit.UNKNOWN : Unit.of(table.unit(along, ""));
        Console.lines(json ? json(made, unit) : words(made, of, along, unit, time));
        return 0;
    }

    /** What was done to the rows, beside the numbers, which may be read by a program. */
    private static void told(Series series, Table table, String of, String along) {
        int timeless = along.isBlank() ? 0 : missing(table.column(along));
        if (timeless > 0) {
            System.err.println(out(timeless, along));
        }
        // The others have a time.
        if (series.absent() > timeless) {
            System.err.println(out(series.absent() - timeless, of));
        }
        if (series.repeated() > 0) {
            System.err.println("\"" + along + "\" goes back, as after a restart: "
                    + Plain.count(series.repeated(), "row") + " that later ones write again "
                    + (series.repeated() == 1 ? "is" : "are") + " left out.");
        }
        if (!along.isBlank() && series.uneven()) {
            System.err.println(
                    "The steps of \"" + along + "\" differ, so each row counts with the time that it stands for.");
        }
    }

    private static String out(int rows, String column) {
        return Plain.count(rows, "row") + " without a number in \"" + column + "\" " + (rows == 1 ? "was" : "were")
                + " left out.";
    }

    private static int missing(double[] column) {
        return (int) Arrays.stream(column).filter(v -> !Double.isFinite(v)).count();
    }

    private static String json(Settling made, Unit unit) {
        var mapper = new ObjectMapper();
        ObjectNode line = mapper.createObjectNode();
        line.put("settled", made.settled());
        line.put("from", made.from());
        line.put("mean", made.mean());
        line.put("drift", made.drift());
        line.put("scatter", made.scatter());
        line.put("standardError", made.standardError());
        line.put("batches", made.batches());
        line.put("effectiveSamples", made.effectiveSamples());
        line.put("why", made.why());
        line.put("to", made.to());
        line.put("samples", made.samples());
        line.put("allowed", made.allowed());
        line.put("unit", unit.known() ? unit.symbol() : "");
        try {
            return mapper.writeValueAsString(line);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    private static String words(Settling made, String of, String along, Unit unit, Unit time) {
        String u = unit.known() ? " " + unit.symbol() : "";
        String t = time.known() ? " " + time.symbol() : "";
        double factor = Uncertainty.factor(made.batches() - 1);
        return String.format(
                Locale.ROOT,
                "%s has %s%n  %s%n  window          %s to %s%s, %s%n  mean            %s%s ± %s (95 %%)%n  drift           %s%s over the window%n"
                        + "  scatter         %s%s about the straight line%n  standard error  %s%s from %d batches, as of %s independent values%n",
                of,
                made.settled() ? "settled" : "not settled",
                made.why(),
                number(made.from(), 6),
                number(made.to(), 6),
                along.isBlank() ? " (rows)" : t,
                Plain.count(made.samples(), "value"),
                number(made.mean(), 9),
                u,
                number(factor * made.standardError(), 2),
                number(made.drift(), 3),
                u,
                number(made.scatter(), 3),
                u,
                number(made.standardError(), 3),
                u,
                made.batches(),
                number(made.effectiveSamples(), 3));
    }

    private static String number(double v, int digits) {
        return Figures.of(v, digits).plain(v);
    }
}
