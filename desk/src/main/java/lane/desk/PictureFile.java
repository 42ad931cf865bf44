package lane.desk;

import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.DoubleFunction;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import lane.picture.Export;

/** Asks where a picture goes and writes it: PNG at three pixels a point, or SVG. */
public final class PictureFile {
    private static final double PIXELS_A_POINT = 3;

    private PictureFile() {}

    /** A drawing of lines and text, the same in both formats. */
    public static void save(
            Session session, Window window, String name, int width, int height, Consumer<Graphics2D> paint) {
        ask(window, name + ".svg")
                .ifPresent(file -> write(
                        session,
                        file,
                        width,
                        height,
                        s -> Export.image(width, height, s, paint),
                        paint,
                        facts(session)));
    }

    /**
     * A picture with pixels of its own: asked for at the scale of the format.
     *
     * @param pixels makes the picture at so many pixels a point
     * @param paint draws it for SVG, where its pixels are embedded
     * @param facts what stands in the metadata of a PNG
     */
    public static void write(
            Session session,
            Path file,
            int width,
            int height,
            DoubleFunction<BufferedImage> pixels,
            Consumer<Graphics2D> paint,
            java.util.Map<String, String> facts) {
        // A point is 1/72 inch, so letters of 12 points are as tall on paper as they say.
        write(session, file, width, height, PIXELS_A_POINT, 72 * PIXELS_A_POINT, pixels, paint, facts);
    }

    /**
     * @param scale pixels a point
     * @param dpi pixels an inch, as it stands in a PNG
     */
    public static void write(
            Session session,
            Path file,
            int width,
            int height,
            double scale,
            double dpi,
            DoubleFunction<BufferedImage> pixels,
            Consumer<Graphics2D> paint,
            java.util.Map<String, String> facts) {
        boolean png = file.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".png");
        session.write(file, out -> {
            if (png) {
                Export.png(pixels.apply(scale), dpi, facts, out);
            } else {
                Export.svg(width, height, paint, out);
            }
        });
    }

    /** What a picture says of where it comes from, to begin with: the study, and the hash of its text. */
    public static java.util.Map<String, String> facts(Session session) {
        var out = new java.util.LinkedHashMap<String, String>();
        out.put("Study", session.study().name());
        out.put("Study SHA-256", lane.formats.io.FileHash.ofText(lane.formats.study.StudyJson.text(session.study())));
        return out;
    }

    /** Where to, or nothing when the user thinks better of it. */
    public static java.util.Optional<Path> ask(Window window, String name) {
        var chooser = new FileChooser();
        chooser.setInitialFileName(name);
        chooser.getExtensionFilters()
                .addAll(
                        new FileChooser.ExtensionFilter("SVG", "*.svg"),
                        new FileChooser.ExtensionFilter("PNG", "*.png"));
        return java.util.Optional.ofNullable(chooser.showSaveDialog(window)).map(java.io.File::toPath);
    }
}
