package lane.cli;

import java.awt.Graphics2D;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.base.LaneException;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceValues;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.formats.io.AtomicFile;
import lane.mesh.Axis;
import lane.picture.Export;
import lane.picture.Palette;
import lane.picture.field.Annotations;
import lane.picture.field.Camera;
import lane.picture.field.ColourScale;
import lane.picture.field.DrawnFrame;
import lane.picture.field.Look;
import lane.picture.field.Range;
import lane.picture.field.Rasteriser;
import lane.picture.field.Scene;
import lane.quantity.Component;
import lane.quantity.Quantity;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Draws the surface of a file coloured by a field. No study is needed. */
@Command(
        name = "picture",
        mixinStandardHelpOptions = true,
        versionProvider = Version.Told.class,
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
        double[] view = view(from);
        Run run = OneRun.read(file);
        Quantity quantity = colour.isBlank() ? null : quantity(run);
        Part part = surface(run);
        var lens = EvaluationContext.of(quantity == null ? List.of() : List.of(quantity), List.of(), Axis.Z);
        SurfaceValues values = quantity == null ? null : SurfaceValues.of(run, part, quantity, lens);
        Scene scene = new Scene(List.of(Scene.surface(
                part.name(),
                part.surface(),
                values == null ? new float[0] : values.value(),
                values == null || values.byNode(),
                1)));
        Range range = values == null
                ? Range.of(List.of(), Range.Kind.WHOLE)
                : Range.of(List.of(values.value()), Range.Kind.WHOLE);
        Palette palette = dark ? Palette.DARK : Palette.LIGHT;
        int bar = values == null ? 0 : Annotations.BAR_WIDTH;
        Camera camera = Camera.fit(run.mesh().bounds(), Math.max(20, width - bar), height - 20, view[0], view[1])
                .moved(-bar / 2.0, 0);
        var look = new Look(
                range.signed() ? ColourScale.SIGNED : ColourScale.SIZE,
                range.least(),
                range.greatest(),
                true,
                false,
                dark);
        DrawnFrame frame = Rasteriser.draw(
                scene, camera, look, width, height, palette.ground().getRGB() & 0xffffff);
        var image = Export.image(frame.argb(), width, height);
        Graphics2D g = image.createGraphics();
        Annotations.Bar scale = values == null || quantity == null
                ? null
                : new Annotations.Bar(
                        quantity.name(),
                        values.unit().label(),
                        values.unit().fromSi(range.least()),
                        values.unit().fromSi(range.greatest()),
                        look.scale(),
                        "");
        Annotations.paint(g, camera, width, height, Annotations.Over.of(List.of(), scale), palette);
        g.dispose();
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put("Source", file);
        facts.put("Quantity", quantity == null ? "none" : quantity.name());
        facts.put("Range", range.least() + " to " + range.greatest());
        facts.put("View", from);
        AtomicFile.write(Path.of(out), o -> Export.png(image, 96, facts, o));
        return 0;
    }

    /** Yaw and pitch of a camera that stands on this side. */
    static double[] view(String text) {
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
        return new double[] {flat == 0 ? 0 : Math.atan2(eye[0], -eye[1]), Math.atan2(eye[2], flat)};
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

    /** The boundary of a solid; the cells of a surface themselves. */
    private static Part surface(Run run) {
        if (run.mesh().dimension() == 3) {
            return new PartBuilder(run.mesh()).whole("surface");
        }
        if (run.mesh().dimension() < 2) {
            throw new LaneException("The file holds no surface and no volume, so there is nothing to draw.");
        }
        return Part.ofCells("surface", run.mesh());
    }
}
