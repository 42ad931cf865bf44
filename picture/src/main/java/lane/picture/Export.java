package lane.picture;

import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;
import javax.imageio.ImageIO;
import org.jfree.svg.SVGGraphics2D;

/** Pictures as PNG pixels or SVG text. */
public final class Export {
    private Export() {}

    /** Draws into an image of the given size in points, {@code scale} pixels a point. */
    public static BufferedImage image(int width, int height, double scale, Consumer<Graphics2D> paint) {
        var image = new BufferedImage(
                (int) Math.ceil(width * scale), (int) Math.ceil(height * scale), BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = image.createGraphics();
        g.scale(scale, scale);
        paint.accept(g);
        g.dispose();
        return image;
    }

    /** Pixels as an image; the array is shared. */
    public static BufferedImage image(int[] argb, int width, int height) {
        var image = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        image.setRGB(0, 0, width, height, argb, 0, width);
        return image;
    }

    public static void png(BufferedImage image, OutputStream out) throws IOException {
        ImageIO.write(image, "png", out);
    }

    /** The same drawing as SVG; text stays text, a field's pixels are embedded. */
    public static void svg(int width, int height, Consumer<Graphics2D> paint, OutputStream out) throws IOException {
        var g = new SVGGraphics2D(width, height);
        paint.accept(g);
        out.write(g.getSVGElement().getBytes(StandardCharsets.UTF_8));
    }
}
