package lane.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.base.LaneException;
import lane.base.Near;
import lane.base.Plain;
import lane.formats.io.AtomicFile;
import lane.picture.Export;
import lane.picture.Palette;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Study;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Draws a reading of a study as the window does, without one. */
@Command(
        name = "chart",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Draw a reading of a study: the curves of its lanes with their differences from the datum, or a mark for each lane's number.")
final class Chart implements Callable<Integer> {
    private static final Pattern SIZE = Pattern.compile("(\\d{2,5})x(\\d{2,5})");

    @Parameters(index = "0", paramLabel = "STUDY", description = "a study file, *.lane.json")
    String study;

    @Parameters(index = "1", paramLabel = "READING", description = "name or key of a reading")
    String reading;

    @Option(names = "--out", required = true, paramLabel = "FILE", description = "a .png or .svg to write")
    String out;

    @Option(names = "--size", paramLabel = "WxH", description = "in pixels (720x560)")
    String size = "720x560";

    @Option(names = "--dark", description = "on a dark ground")
    boolean dark;

    @Override
    public Integer call() {
        Matcher m = SIZE.matcher(size.strip());
        if (!m.matches() || Long.parseLong(m.group(1)) * Long.parseLong(m.group(2)) > 64_000_000L) {
            throw new LaneException("The size \"" + Plain.line(size)
                    + "\" is not understood; write it like 720x560, below 64 million pixels.");
        }
        int width = Integer.parseInt(m.group(1));
        int height = Integer.parseInt(m.group(2));
        String ending = out.substring(out.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        if (!ending.equals("png") && !ending.equals("svg")) {
            throw new LaneException("A chart is written as .png or .svg; \"" + Plain.line(out) + "\" is neither.");
        }
        Results results = Evaluate.results(OneRun.path(study), lane.base.Work.QUIET);
        Reading asked = asked(results.study());
        Palette palette = dark ? Palette.DARK : Palette.LIGHT;
        Drawn drawn = Drawn.of(results, asked, palette)
                .orElseThrow(() -> new LaneException(none(results, asked, asked.curve() ? "curve" : "number")));
        Path to = OneRun.path(out);
        if (ending.equals("svg")) {
            AtomicFile.write(to, o -> Export.svg(width, height, g -> drawn.on(g, width, height), o));
        } else {
            AtomicFile.write(to, o -> Export.png(Export.image(width, height, 2, g -> drawn.on(g, width, height)), o));
        }
        return 0;
    }

    private Reading asked(Study from) {
        List<Reading> all = from.readings().stream().toList();
        return all.stream()
                .filter(r -> r.name().equals(reading) || r.id().equals(reading))
                .findFirst()
                .or(() -> all.stream()
                        .filter(r -> r.name().equalsIgnoreCase(reading.strip()))
                        .findFirst())
                .orElseThrow(() -> {
                    List<String> names = all.stream().map(Reading::name).toList();
                    return new LaneException("The study has no reading \"" + Plain.line(reading) + "\""
                            + Near.of(reading, names)
                                    .map(n -> " (\"" + n + "\" is meant?)")
                                    .orElse("")
                            + "; it has " + (names.isEmpty() ? "none." : Plain.names(names) + "."));
                });
    }

    /** Why nothing can be drawn. */
    private static String none(Results results, Reading asked, String what) {
        String why = results.study().sources().stream()
                .map(s -> results.outcome(asked.id(), s.id()))
                .filter(Outcome.Absent.class::isInstance)
                .map(o -> ((Outcome.Absent) o).reason())
                .findFirst()
                .orElse("no lane answers it");
        return "There is no " + what + " of \"" + asked.name() + "\": " + why;
    }
}
