package lane.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import lane.base.LaneException;
import lane.formats.io.AtomicFile;
import lane.formats.io.Version;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import picocli.CommandLine.Parameters;

/** Writes a page for man of the program and of each verb. */
@Command(
        name = "manual",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Write pages for man into a folder: lane.1, lane-evaluate.1 and so on.")
final class Manual implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", description = "the folder, made if it is not there")
    String folder = "";

    @Override
    public Integer call() {
        Path into = OneRun.path(folder);
        try {
            Files.createDirectories(into);
        } catch (IOException e) {
            throw new LaneException("The folder " + into + " cannot be made: " + AtomicFile.reason(e) + ".", e);
        }
        CommandLine all = Lane.all();
        AtomicFile.write(into.resolve("lane.1"), program(all));
        all.getSubcommands()
                .forEach((name, verb) ->
                        AtomicFile.write(into.resolve("lane-" + name + ".1"), verb(name, verb.getCommandSpec())));
        Console.lines(into.toAbsolutePath().normalize().toString());
        return 0;
    }

    private static String head(String title, String what) {
        return ".TH \"" + title.toUpperCase(java.util.Locale.ROOT) + "\" 1 \"\" \"Crosscheck Lane " + Version.text()
                + "\"\n.SH NAME\n" + title + " \\- " + text(what) + "\n";
    }

    private static String program(CommandLine all) {
        var out = new StringBuilder(head("lane", description(all.getCommandSpec())))
                .append(".SH SYNOPSIS\n.B lane\n.I VERB\n[\\fIOPTION\\fR]...\n.SH VERBS\n");
        for (Map.Entry<String, CommandLine> e : all.getSubcommands().entrySet()) {
            out.append(".TP\n.BR lane\\-")
                    .append(text(e.getKey()))
                    .append(" (1)\n")
                    .append(text(description(e.getValue().getCommandSpec())))
                    .append('\n');
        }
        return out.toString();
    }

    private static String verb(String name, CommandSpec spec) {
        var out = new StringBuilder(head("lane-" + name, description(spec)))
                .append(".SH SYNOPSIS\n.B lane ")
                .append(text(name))
                .append('\n');
        for (PositionalParamSpec p : spec.positionalParameters()) {
            out.append(".I ").append(text(p.paramLabel())).append('\n');
        }
        out.append("[\\fIOPTION\\fR]...\n.SH DESCRIPTION\n")
                .append(text(description(spec)))
                .append("\n.SH OPTIONS\n");
        for (PositionalParamSpec p : spec.positionalParameters()) {
            out.append(".TP\n.I ").append(text(p.paramLabel())).append('\n').append(said(p));
        }
        for (OptionSpec o : spec.options()) {
            out.append(".TP\n.B ")
                    .append(text(String.join(", ", o.names())
                            + (o.arity().max() == 0 || o.paramLabel().isBlank() ? "" : " " + o.paramLabel())))
                    .append('\n')
                    .append(said(o));
        }
        Map<String, String> codes = spec.usageMessage().exitCodeList();
        if (!codes.isEmpty()) {
            out.append(".SH EXIT STATUS\n");
            codes.forEach((code, what) -> out.append(".TP\n.B ")
                    .append(code)
                    .append('\n')
                    .append(text(what))
                    .append('\n'));
        }
        return out.toString();
    }

    private static String description(CommandSpec spec) {
        return String.join(" ", spec.usageMessage().description());
    }

    private static String said(ArgSpec arg) {
        String words = String.join(" ", arg.description())
                .replace("${COMPLETION-CANDIDATES}", candidates(arg))
                .replace("${DEFAULT-VALUE}", String.valueOf(arg.defaultValueString()));
        return text(words) + "\n";
    }

    private static String candidates(ArgSpec arg) {
        Iterable<String> all = arg.completionCandidates();
        return all == null
                ? ""
                : java.util.stream.StreamSupport.stream(all.spliterator(), false)
                        .collect(Collectors.joining(", "));
    }

    /** Nothing in it is taken for a request or an escape. */
    private static String text(String of) {
        String escaped = of.replace("%n", " ").replace("\\", "\\e").replace("-", "\\-");
        return escaped.startsWith(".") || escaped.startsWith("'") ? "\\&" + escaped : escaped;
    }
}
