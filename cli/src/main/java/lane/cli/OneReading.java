package lane.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.base.Plain;
import lane.field.Run;
import lane.field.Treatment;
import lane.measure.Area;
import lane.measure.By;
import lane.measure.Flow;
import lane.measure.Integral;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Region;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Within;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;

/**
 * One number that is taken over a file, as a study of its own.
 *
 * @param over part:NAME, section:"px,py,pz nx,ny,nz", all, or for a value point:"x,y,z"
 * @param of a field or a formula
 * @param by whose values, see {@link By}
 * @param length unit of the coordinates; blank where the file decides, or for metres
 * @param regions array of cells that names parts; blank for none
 */
record OneReading(String over, String of, Kind kind, String by, String length, String regions) {
    /** What is taken. */
    enum Kind {
        mean,
        integral,
        flow,
        value
    }

    /** Where the files of a study of this file stand. */
    static Path folder(Path file) {
        return Objects.requireNonNull(file.toAbsolutePath().normalize().getParent());
    }

    /**
     * A study with the readings "value" and "size" of the one run "run", at its last time.
     *
     * @throws LaneException for what is typed wrong, before anything is read
     */
    Study study(Path file) {
        var station = new Station("where", over, shape());
        Source.Simulation source = source(file, length, regions);
        String name = source.name();
        return Study.empty(name)
                .withSources(l -> List.of(source))
                .withQuantities(l -> List.of(new Quantity("of", "--of", of, "", "")))
                .withStations(l -> List.of(station))
                .withReadings(l -> {
                    List<Reading> all = new ArrayList<>();
                    all.add(new Reading("value", "--kind " + kind, "", new TallyOf(List.of("where"), measure())));
                    if (kind != Kind.value) {
                        all.add(new Reading("size", "size", "", new TallyOf(List.of("where"), new Area())));
                    }
                    return all;
                });
    }

    /** A file as the run "run" with the parts that stand beside it. */
    static Source.Simulation source(Path file, String length, String regions) {
        Path path = file.toAbsolutePath().normalize();
        String name = path.getFileName().toString();
        var treatment = new Treatment(null, length, null, Map.of(), Map.of(), Map.of(), 1.0, null, List.of());
        return new Source.Simulation("run", name, name, parts(path, folder(path)), regions, "", treatment);
    }

    /** Surfaces that stand beside the file as its parts, where there is a folder of them. */
    private static List<String> parts(Path file, Path folder) {
        Path beside = folder.resolve(file.getFileName().toString().replaceFirst("\\.[^.]*$", "") + "-parts");
        List<String> out = new ArrayList<>();
        if (Files.isDirectory(beside)) {
            try (var all = Files.list(beside)) {
                all.filter(f -> f.toString().endsWith(".vtp"))
                        .sorted()
                        .forEach(f -> out.add(folder.relativize(f).toString()));
            } catch (java.io.IOException e) {
                return List.of();
            }
        }
        return out;
    }

    private Measure measure() {
        By values = Arrays.stream(By.values())
                .filter(b -> b != By.STORED && b.name().equalsIgnoreCase(by))
                .findFirst()
                .orElseThrow(() -> new LaneException(
                        "Values by \"" + Plain.line(by) + "\" are not known; write quadrature, size, cells or nodes."));
        Measure plain =
                switch (kind) {
                    case mean, value -> new Mean("of");
                    case integral -> new Integral("of");
                    case flow -> new Flow("of", 1, "1", Flow.Carried.NOTHING, Axis.Z);
                };
        return values == By.QUADRATURE
                ? plain
                : plain.by(values)
                        .orElseThrow(() -> new LaneException("There is no " + kind + " " + values.word() + "; "
                                + (kind == Kind.integral ? "take quadrature or size." : "take quadrature.")));
    }

    private Shape shape() {
        if (over.startsWith("point:") != (kind == Kind.value)) {
            throw new LaneException(
                    kind == Kind.value
                            ? "A value is that of a point; write --over point:\"x,y,z\", or take a mean."
                            : "At a point there is a value and no " + kind + "; write --kind value.");
        }
        if (over.startsWith("part:")) {
            return new OnPart(over.substring("part:".length()));
        }
        if (over.startsWith("section:")) {
            String[] ends = over.substring("section:".length()).strip().split("[\\s;]+");
            if (ends.length != 2) {
                throw new LaneException("The section \"" + Plain.line(over)
                        + "\" is not understood; write a point and the normal, like section:\"0,0,0.5 0,0,1\".");
            }
            double metres = length.isBlank() ? 1 : lane.unit.Unit.of(length).factor();
            return new Section(point(ends[0]).times(metres), point(ends[1]), null, null);
        }
        if (over.equals("all")) {
            if (kind == Kind.flow) {
                throw new LaneException(
                        "A flow passes through a surface, and all of a run is none; give part:NAME or section:\"px,py,pz nx,ny,nz\".");
            }
            return new Region(new Within.All());
        }
        if (over.startsWith("point:")) {
            double metres = length.isBlank() ? 1 : lane.unit.Unit.of(length).factor();
            return new Points(
                    List.of(point(over.substring("point:".length()).strip()).times(metres)));
        }
        throw new LaneException("Where \"" + Plain.line(over)
                + "\" is, is not understood; write part:NAME, section:\"px,py,pz nx,ny,nz\", all"
                + (kind == Kind.value ? " or point:\"x,y,z\"." : "."));
    }

    private static Point point(String text) {
        String[] xyz = text.split(",");
        if (xyz.length == 3
                && IntStream.range(0, 3)
                        .allMatch(i -> xyz[i].strip().matches("[-+]?(\\d+\\.?\\d*|\\.\\d+)([eE][-+]?\\d+)?"))) {
            return new Point(Double.parseDouble(xyz[0]), Double.parseDouble(xyz[1]), Double.parseDouble(xyz[2]));
        }
        throw new LaneException("\"" + Plain.line(text)
                + "\" is no point or direction; write three numbers with commas between, like 0,0.5,1.");
    }

    /** A shell takes quotation marks away. */
    private static final Pattern QUOTED = Pattern.compile("write it in quotation marks: (\"[^\"]*\")\\.$");

    /** What is to be done, as it is typed in a shell. */
    static String typed(String reason) {
        return QUOTED.matcher(reason).replaceFirst("$0 In a shell that is '$1'.");
    }

    static Tally tally(Results results, String reading) {
        return switch (results.outcome(reading, "run")) {
            case Tally t -> t;
            case Outcome.Absent a -> throw new LaneException(typed(a.reason()));
            case Outcome o -> throw new IllegalStateException("a tally is a number and not " + o);
        };
    }

    /** What the number means, in words: how it is taken, which way is positive, and what was assumed. */
    String convention(Tally value, Results results) {
        Run run = results.standing("run").orElseThrow();
        List<String> all = new ArrayList<>();
        all.add(
                switch (kind) {
                    case mean ->
                        by.equalsIgnoreCase("cells") || by.equalsIgnoreCase("nodes") ? "mean" : "mean weighted by size";
                    case integral -> "integral";
                    case value -> "value at the point, interpolated within its cell";
                    case flow -> "integral of the vector's component along the normal";
                });
        all.add(value.note() + (kind == Kind.flow ? ", by quadrature" : ""));
        double error =
                value.unit().differenceFromSi(value.estimate().uncertainty().half());
        if (error > 0) {
            all.add("integrated to ± " + lane.base.Figures.of(error, 2).plain(error) + " "
                    + value.unit().symbol() + ", by the difference to the next rule");
        }
        if (!value.sign().isBlank()) {
            all.add(value.sign());
        }
        var lens = results.lens();
        lens.fields(lens.quantity("of")).stream()
                .filter(FieldUnit::byName)
                .sorted()
                .flatMap(n -> run.field(n).stream())
                .forEach(f -> all.add(
                        "\"" + f.name() + "\" taken in " + lens.unit(run, f).symbol() + ", as its name is usual for"));
        if (length.isBlank() && !run.stated().length()) {
            all.add("coordinates taken as metres, which the file does not say");
        }
        return String.join("; ", all);
    }
}
