package lane.cli;

import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import lane.base.LaneException;
import lane.formats.io.FaultLog;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/**
 * The command line without a window. Exit codes: 0 done, 3 could not be done or not with all inputs; {@code evaluate} has 1 and
 * 2 for what the checks say. After a fault of the program its trace is in the log that the sentence names.
 */
@Command(
        name = "lane",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Crosscheck Lane: simulation results against theory, measurement and other meshes.")
public final class Lane {
    private static final Map<String, Supplier<Object>> VERBS = new LinkedHashMap<>();

    static {
        VERBS.put("evaluate", Evaluate::new);
        VERBS.put("attach", Attach::new);
        VERBS.put("work", MakePieces::new);
        VERBS.put("verify", Verify::new);
        VERBS.put("compare", Compare::new);
        VERBS.put("seal", SealLedger::new);
        VERBS.put("report", WriteReport::new);
        VERBS.put("describe", Describe::new);
        VERBS.put("sample", Sample::new);
        VERBS.put("fit", FitTable::new);
        VERBS.put("converge", Converge::new);
        VERBS.put("settle", Settle::new);
        VERBS.put("integrate", Integrate::new);
        VERBS.put("transfer", TransferFields::new);
        VERBS.put("convert", Convert::new);
        VERBS.put("history", History::new);
        VERBS.put("picture", Picture::new);
        VERBS.put("chart", Chart::new);
        VERBS.put("completion", Completion::new);
        VERBS.put("manual", Manual::new);
    }

    private Lane() {}

    /** The line with the verb that is asked for, or with all where none is: learning a verb's options takes time. */
    private static CommandLine line(String... args) {
        var line = new CommandLine(new Lane());
        Supplier<Object> asked = args.length == 0 ? null : VERBS.get(args[0]);
        if (asked != null) {
            return line.addSubcommand(args[0], asked.get());
        }
        VERBS.forEach((name, verb) -> line.addSubcommand(name, verb.get()));
        return line;
    }

    /** With all its verbs, for whoever tells of them. */
    static CommandLine all() {
        return line().setCommandName("lane");
    }

    public static void main(String[] args) {
        System.exit(run(args));
    }

    /** Runs a command and returns the exit code; a wrong input is one sentence on the error stream. */
    public static int run(String... given) {
        String[] args = given.length == 1 && given[0].equals("help") ? new String[] {"--help"} : given;
        // The streams are the process's own and stay open; what is left in the writers goes out at their end.
        PrintWriter out = Console.writer(System.out);
        PrintWriter err = Console.writer(System.err);
        int code = run(line(args).setOut(out).setErr(err), err, args);
        Console.end(out);
        if (!Console.complete()) {
            err.println("The output could not be written; not all of it has arrived.");
            code = 3;
        }
        Console.end(err);
        return code;
    }

    private static int run(CommandLine line, PrintWriter err, String... args) {
        try {
            // As it was called, so that what it says can be typed.
            line.setCommandName(System.getProperty("lane.called", "./lane"));
            return line.setParameterExceptionHandler((e, a) -> {
                        CommandLine at = e.getCommandLine();
                        err.println(usage(e));
                        err.println(at.getCommandSpec().qualifiedName() + " --help tells how it is used.");
                        return 3;
                    })
                    .setExecutionExceptionHandler((e, l, parsed) -> {
                        err.println(sentence(e));
                        return 3;
                    })
                    .execute(args);
        } catch (OutOfMemoryError | StackOverflowError | LinkageError | AssertionError e) {
            err.println(sentence(e));
            return 3;
        }
    }

    /** What is wrong with the arguments, with the option or verb that comes near. */
    private static String usage(CommandLine.ParameterException e) {
        String said = String.valueOf(e.getMessage());
        if (e instanceof CommandLine.UnmatchedArgumentException u) {
            List<String> near = u.getSuggestions();
            return "\"" + u.getUnmatched().getFirst() + "\" is not known here"
                    + (near.isEmpty()
                            ? "."
                            : "; " + String.join(" or ", near.subList(0, Math.min(3, near.size()))) + " is meant?");
        }
        return said.endsWith(".") ? said : said + ".";
    }

    /** What is told of a failure; of one that nobody foresaw the trace goes to a log. */
    static String sentence(Throwable e) {
        if (e instanceof LaneException) {
            return String.valueOf(e.getMessage());
        }
        return e instanceof OutOfMemoryError
                ? "There is not enough memory for this; give the program more with LANE_MEMORY, for example 8g."
                : FaultLog.note("The command", e);
    }
}
