package lane.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Arrays;
import java.util.concurrent.Callable;
import lane.base.Figures;
import lane.base.LaneException;
import lane.convergence.AgainstExact;
import lane.convergence.Convergence;
import lane.convergence.Refinement;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** What a number on several meshes or time steps says about its order and its numerical uncertainty. */
@Command(
        name = "converge",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Order, extrapolated value and numerical uncertainty of a number on two or more meshes or time steps.")
final class Converge implements Callable<Integer> {
    @Option(
            names = "--h",
            paramLabel = "H1,H2,...",
            description = "sizes of the cells or time steps in any unit, finest first")
    @Nullable
    String sizes;

    @Option(
            names = "--cells",
            paramLabel = "N1,N2,...",
            description = "numbers of cells in place of sizes; needs --dimension")
    @Nullable
    String cells;

    @Option(names = "--dimension", paramLabel = "1|2|3", description = "of the meshes, for --cells")
    @Nullable
    Integer dimension;

    @Option(names = "--values", required = true, paramLabel = "V1,V2,...", description = "the number on each, likewise")
    String values = "";

    @Option(
            names = "--order",
            paramLabel = "P",
            description = "of the scheme: what two meshes assume (else 2), and no higher one is counted upon")
    @Nullable
    Double order;

    @Option(
            names = "--safety",
            paramLabel = "F",
            description = "safety factor (else 1.25; 3 for two meshes and where nothing converges)")
    @Nullable
    Double safety;

    @Option(names = "--exact", paramLabel = "VALUE", description = "an exact value: the order of the error as well")
    @Nullable
    Double exact;

    @Option(names = "--json", description = "one JSON object in place of words")
    boolean json;

    @Override
    public Integer call() {
        double[] h = sizes();
        double[] v = numbers(values, "--values");
        Convergence c = Refinement.of(
                h, v, new Refinement.Stated(order == null ? Double.NaN : order, safety == null ? Double.NaN : safety));
        AgainstExact against = exact == null ? null : AgainstExact.of(h, v, exact);
        for (int i = 1; i < h.length; i++) {
            if (h[i] < h[i - 1]) {
                System.err.println("The sizes do not come finest first; each is taken with the value at its place.");
                break;
            }
        }
        if (json) {
            // Beside the numbers, which may be read by a program.
            c.notes().forEach(System.err::println);
        }
        Console.lines(json ? json(c, against) : words(c, against, h));
        return 0;
    }

    private double[] sizes() {
        if (sizes == null == (cells == null)) {
            throw new LaneException(
                    sizes == null
                            ? "Give the sizes with --h, or the numbers of cells with --cells and --dimension."
                            : "Give the sizes with --h or the numbers of cells with --cells, not both.");
        }
        if (sizes != null) {
            return numbers(sizes, "--h");
        }
        Integer space = dimension;
        if (space == null || space < 1 || space > 3) {
            throw new LaneException("How the size follows from the number of cells depends on --dimension: 1, 2 or 3.");
        }
        double[] n = numbers(String.valueOf(cells), "--cells");
        for (double many : n) {
            if (!(many > 0)) {
                throw new LaneException("A mesh has one cell or more; --cells says " + number(many) + ".");
            }
        }
        return Arrays.stream(n).map(many -> Math.pow(many, -1.0 / space)).toArray();
    }

    private static double[] numbers(String list, String option) {
        return Arrays.stream(list.strip().split("\\s*[,;]\\s*|\\s+"))
                .mapToDouble(word -> {
                    try {
                        return Double.parseDouble(word);
                    } catch (NumberFormatException e) {
                        throw new LaneException(
                                option + " takes numbers with commas between them, such as 1,1.5,2; \"" + word
                                        + "\" is none.",
                                e);
                    }
                })
                .toArray();
    }

    private static String json(Convergence c, @Nullable AgainstExact against) {
        var mapper = new ObjectMapper();
        ObjectNode line = mapper.createObjectNode();
        line.put("kind", c.kind().word());
        put(line, "order", c.order());
        put(line, "extrapolated", c.extrapolated());
        put(line, "relativeError", c.relativeError());
        put(line, "gci", c.gci());
        put(line, "asymptoticRatio", c.asymptoticRatio());
        put(line, "uncertainty", c.half());
        put(line, "safetyFactor", c.safety());
        put(line, "extrapolatedError", c.extrapolatedError());
        put(line, "standardDeviation", c.deviation());
        if (against != null) {
            put(line, "exactOrder", against.order());
            put(line, "exactOrderStandardError", against.standardError());
            var between = line.putArray("exactOrders");
            Arrays.stream(against.between()).forEach(between::add);
        }
        c.notes().forEach(line.withArray("notes")::add);
        try {
            return mapper.writeValueAsString(line);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree can always be written", e);
        }
    }

    private static void put(ObjectNode line, String name, double v) {
        if (Double.isFinite(v)) {
            line.put(name, v);
        } else {
            line.putNull(name);
        }
    }

    private static String words(Convergence c, @Nullable AgainstExact against, double[] h) {
        var out = new StringBuilder();
        out.append(c.kind().word()).append(", ").append(h.length).append(" sizes\n");
        row(out, "order", c.order(), "");
        row(out, "extrapolated", c.extrapolated(), "");
        row(out, "last change", 100 * c.relativeError(), "% of the finest value");
        row(out, "uncertainty", c.half(), "about 95 %, safety factor " + number(c.safety()));
        row(out, "grid convergence index", 100 * c.gci(), "% of the finest value");
        row(out, "asymptotic ratio", c.asymptoticRatio(), "1 in the asymptotic range");
        row(out, "standard deviation", c.deviation(), "of the fit");
        if (against != null) {
            row(
                    out,
                    "order of the error",
                    against.order(),
                    Double.isNaN(against.standardError())
                            ? ""
                            : "± " + Figures.of(against.standardError(), 2).whole(against.standardError())
                                    + " (standard error)");
        }
        c.notes().forEach(note -> out.append("  ").append(note).append('\n'));
        return out.toString();
    }

    private static void row(StringBuilder out, String name, double v, String remark) {
        if (Double.isFinite(v)) {
            out.append(("  " + name + " ".repeat(24)).substring(0, 26))
                    .append(number(v))
                    .append(remark.isEmpty() ? "" : " " + remark)
                    .append('\n');
        }
    }

    private static String number(double v) {
        return Figures.of(v, 7).plain(v);
    }
}
