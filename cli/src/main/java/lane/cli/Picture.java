package lane.cli;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.base.LaneException;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.Run;
import lane.formats.io.AtomicFile;
import lane.mesh.Axis;
import lane.picture.Export;
import lane.picture.Palette;
import lane.picture.field.SurfacePicture;
import lane.quantity.Component;
import lane.quantity.Quantity;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Draws the surface of a file coloured by a field. No study is needed. */
@Command(
        name = "picture",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description = "Draw the surface of a file, coloured by a field, into a PNG file.")
final class Picture implements Callable<Integer> {
    private static final Pattern SIZE = Pattern.compile("(\\d{2,5})\\s*[x×]\\s*(\\d{2,5})");
    private static final Pattern SIDE = Pattern.compile("([+-])([xyz])");

    @Parameters(paramLabel = "FILE", description = "a mesh with fields, in any open format")
    String file;

    @Option(
            names = "--colour",
            paramLabel = "FIELD",
            description = "field, or a component as velocity.x; of a vector else its magnitude")
    String colour = "";

    @Option(
            names = "--from",
            defaultValue = "+x-y+z",
            description = "from where it is seen, such as +x+y+z or -y (${DEFAULT-VALUE})")
    String from;

    @Option(names = "--size", defaultValue = "1280x800", description = "pixels, width x height (${DEFAULT-VALUE})")
    String size;

    @Option(names = "--dark", description = "on a dark ground")
    boolean dark;

    @Option(names = "--out", required = true, paramLabel = "PNG", description = "the file to write")
    String out;

    @Override
    public Integer call() {
        Matcher m = SIZE.matcher(size.strip());
        if (!m.matches()) {
            throw new LaneException("The size \"" + size + "\" is not understood; write it like 1280x800.");
        }
        int width = Integer.parseInt(m.group(1));
        int height = Integer.parseInt(m.group(2));
        if ((long) width * height > 64_000_000L) {
            throw new LaneException("A picture of " + size + " is too large; stay below 64 million pixels.");
        }
        SurfacePicture.View view = view(from);
        Run run = OneRun.read(file);
        Quantity quantity = colour.isBlank() ? null : quantity(run);
        var lens = EvaluationContext.of(quantity == null ? List.of() : List.of(quantity), List.of(), Axis.Z);
        SurfacePicture picture =
                SurfacePicture.of(run, quantity, lens, view, width, height, dark ? Palette.DARK : Palette.LIGHT, true);
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put("Source", file);
        facts.put("Quantity", quantity == null ? "none" : quantity.name());
        facts.put("Range", picture.range().least() + " to " + picture.range().greatest());
        facts.put("View", from);
        AtomicFile.write(Path.of(out), o -> Export.png(picture.image(), 96, facts, o));
        return 0;
    }

    /** Yaw and pitch of a camera that stands on this side. */
    static SurfacePicture.View view(String text) {
        double[] eye = new double[3];
        Matcher m = SIDE.matcher(text);
        int end = 0;
        while (m.find() && m.start() == end) {
            eye["xyz".indexOf(m.group(2))] = m.group(1).equals("+") ? 1 : -1;
            end = m.end();
        }
        if (end != text.length() || end == 0) {
            throw new LaneException("The view from \"" + text + "\" is not understood; write it like +x+y+z or -y.");
        }
        double flat = Math.hypot(eye[0], eye[1]);
        return new SurfacePicture.View(flat == 0 ? 0 : Math.atan2(eye[0], -eye[1]), Math.atan2(eye[2], flat));
    }

    private Quantity quantity(Run run) {
        int dot = colour.lastIndexOf('.');
        String name = run.field(colour).isPresent() || dot < 0 ? colour : colour.substring(0, dot);
        Field field = OneRun.field(run, name);
        if (name.equals(colour)) {
            return new Quantity("q", name, name, field.components() == 1 ? Component.ALL : Component.MAGNITUDE, "");
        }
        Component take =
                switch (colour.substring(dot + 1)) {
                    case "x" -> Component.X;
                    case "y" -> Component.Y;
                    case "z" -> Component.Z;
                    default ->
                        throw new LaneException("\"" + colour + "\" is no component; write " + name + ".x, .y or .z.");
                };
        return new Quantity("q", colour, name, take, "");
    }
}
