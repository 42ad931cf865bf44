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
                .ifPresent(
                        file -> write(session, file, width, height, s -> Export.image(width, height, s, paint), paint));
    }

    /**
     * A picture with pixels of its own: asked for at the scale of the format.
     *
     * @param pixels makes the picture at so many pixels a point
     * @param paint draws it for SVG, where its pixels are embedded
     */
    public static void write(
            Session session,
            Path file,
            int width,
            int height,
            DoubleFunction<BufferedImage> pixels,
            Consumer<Graphics2D> paint) {
        boolean png = file.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".png");
        session.write(file, out -> {
            if (png) {
                Export.png(pixels.apply(PIXELS_A_POINT), out);
            } else {
                Export.svg(width, height, paint, out);
            }
        });
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
