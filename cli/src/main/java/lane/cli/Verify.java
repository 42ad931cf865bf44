package lane.cli;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import lane.base.Figures;
import lane.base.Plain;
import lane.base.Work;
import lane.formats.ledger.Reverify;
import lane.formats.ledger.Seal;
import lane.ledger.LedgerDiff;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Computes every number of a ledger anew and says what is the same. */
@Command(
        name = "verify",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Compute every number of a ledger anew from its input files, and say what is the same, different or missing, and why.",
        exitCodeListHeading = "Exit codes:%n",
        exitCodeList = {
            "0:every number is the same, and the ledger is as it was written",
            "1:a number is different, or the ledger was changed after it was written",
            "2:none is different, but a number or an input file is missing",
            "3:it could not run"
        })
final class Verify implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", description = "the folder of the ledger")
    String folder = "";

    @Option(
            names = "--study",
            paramLabel = "STUDY",
            description = "the study to compute with; else the one that the ledger names, or the copy in it")
    @Nullable
    Path study;

    @Option(
            names = "--look-in",
            split = ",",
            paramLabel = "DIR",
            description = "where to look, by content, for input files that are not at their place")
    List<Path> lookIn = List.of();

    @Mixin
    Alike alike = new Alike();

    @Override
    public Integer call() {
        Work work = Progress.on(System.err);
        Path at = OneRun.path(folder);
        Reverify made = Reverify.of(at, new Reverify.How(study, lookIn, alike.tolerance()), work);
        Progress.end(work);
        if (alike.json) {
            Console.lines(node(made).toString());
        } else if (!alike.quiet) {
            Console.lines(words(made, Seal.of(at)));
        }
        return made.code();
    }

    static ObjectNode node(Reverify made) {
        ObjectNode root = new ObjectMapper().createObjectNode();
        ObjectNode numbers = root.putObject("numbers");
        changes(numbers, made.numbers());
        ObjectNode inputs = root.putObject("inputs");
        inputs.put("same", made.inputs().same().size());
        made.inputs().changed().forEach(inputs.putArray("changed")::add);
        ArrayNode moved = inputs.putArray("moved");
        made.inputs().moved().forEach((from, to) -> {
            ObjectNode one = moved.addObject();
            one.put("from", from);
            one.put("to", to.toString());
        });
        made.inputs().missing().forEach(inputs.putArray("missing")::add);
        made.definitions().forEach(root.putObject("definitions").putArray("changed")::add);
        made.files().forEach(root.putObject("files").putArray("changed")::add);
        root.put("sealed", made.sealed());
        return root;
    }

    /** What two ledgers differ in. */
    static void changes(ObjectNode numbers, LedgerDiff diff) {
        numbers.put("same", diff.same());
        numbers.put("within", diff.within().size());
        ArrayNode different = numbers.putArray("different");
        diff.different().forEach(c -> change(different.addObject(), c));
        ArrayNode missing = numbers.putArray("missing");
        diff.missing().forEach(c -> change(missing.addObject(), c));
        ArrayNode added = numbers.putArray("added");
        diff.added().forEach(c -> change(added.addObject(), c));
    }

    private static void change(ObjectNode o, LedgerDiff.Change c) {
        o.put("id", c.line().id());
        o.put("item", c.item());
        o.put("lane", c.line().lane());
        o.put("before", finite(c.before()));
        o.put("after", finite(c.after()));
        o.put("unit", c.unit());
        if (c.turned()) {
            o.put("verdictBefore", c.line().verdict());
            o.put("verdictAfter", c.verdict());
        }
        o.put("why", c.why());
    }

    private static @Nullable Double finite(double v) {
        return Double.isFinite(v) ? v : null;
    }

    private static String words(Reverify made, @Nullable Seal seal) {
        var out = new StringBuilder();
        numbers(made.numbers(), out);
        var in = made.inputs();
        out.append(Plain.count(in.same().size(), "input file")).append(" the same");
        out.append(in.changed().isEmpty() ? "" : ", " + in.changed().size() + " changed");
        out.append(in.moved().isEmpty() ? "" : ", " + in.moved().size() + " moved");
        out.append(in.missing().isEmpty() ? "" : ", " + in.missing().size() + " missing")
                .append('\n');
        in.changed().forEach(p -> out.append("  changed: ").append(p).append('\n'));
        in.moved().forEach((p, to) -> out.append("  moved: ")
                .append(p)
                .append(" to ")
                .append(to)
                .append('\n'));
        in.missing().forEach(p -> out.append("  missing: ").append(p).append('\n'));
        if (made.definitions().isEmpty()) {
            out.append("definitions the same\n");
        } else {
            out.append(Plain.count(made.definitions().size(), "definition")).append(" changed\n");
            made.definitions().forEach(d -> out.append("  ").append(d).append('\n'));
        }
        if (made.files().isEmpty()) {
            out.append("the ledger's own files are as they were written\n");
        } else {
            made.files().forEach(f -> out.append("changed after it was written: ")
                    .append(f)
                    .append('\n'));
        }
        out.append(
                seal == null
                        ? "no seal"
                        : seal.words()
                                + (Boolean.TRUE.equals(made.sealed())
                                        ? " It holds."
                                        : " It does NOT hold: the ledger was changed after it was sealed."));
        return out.append('\n').toString();
    }

    static void numbers(LedgerDiff diff, StringBuilder out) {
        out.append(Plain.count(diff.same(), "number")).append(" the same to the bit");
        out.append(diff.within().isEmpty() ? "" : ", " + diff.within().size() + " within the tolerance");
        out.append(", ").append(diff.different().size()).append(" different");
        out.append(diff.missing().isEmpty() ? "" : ", " + diff.missing().size() + " missing");
        out.append(diff.added().isEmpty() ? "" : ", " + diff.added().size() + " new")
                .append('\n');
        List<LedgerDiff.Change> all = new ArrayList<>(diff.different());
        for (LedgerDiff.Change c : all) {
            out.append("  different: ").append(c.item());
            out.append(c.line().lane().isBlank() ? "" : ", " + c.line().lane());
            out.append(": ")
                    .append(number(c.before(), c.after()))
                    .append(" -> ")
                    .append(number(c.after(), c.before()));
            out.append(c.unit().isBlank() || c.unit().equals("1") ? "" : " " + c.unit());
            out.append("; ").append(c.why()).append('\n');
        }
        diff.missing().forEach(c -> out.append("  missing: ")
                .append(c.item())
                .append(c.line().lane().isBlank() ? "" : ", " + c.line().lane())
                .append("; ")
                .append(c.why())
                .append('\n'));
        diff.added().forEach(c -> out.append("  new: ")
                .append(c.item())
                .append(c.line().lane().isBlank() ? "" : ", " + c.line().lane())
                .append('\n'));
    }

    /** With so many digits that it can be told from the other. */
    private static String number(double v, double other) {
        if (Double.isNaN(v)) {
            return "none";
        }
        double apart = Math.abs(v - other);
        int digits = apart > 0 && Double.isFinite(apart)
                ? (int) Math.clamp(Math.ceil(Math.log10(Math.abs(v) / apart)) + 3, 6, 17)
                : 6;
        return Figures.of(v, digits).plain(v);
    }
}
