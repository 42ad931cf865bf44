package lane.desk;

import java.awt.image.BufferedImage;
import java.nio.IntBuffer;
import javafx.scene.image.Image;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.stage.Window;

/** Drawings made behind the window, as the window shows them. */
public final class Images {
    private static final int OPAQUE = 0xFF000000;

    private Images() {}

    /** A drawing on a ground of its own; nothing of it is seen through. */
    public static Image of(BufferedImage drawn) {
        int w = drawn.getWidth();
        int h = drawn.getHeight();
        int[] pixels = drawn.getRGB(0, 0, w, h, null, 0, w);
        for (int i = 0; i < pixels.length; i++) {
            pixels[i] |= OPAQUE;
        }
        return new WritableImage(new PixelBuffer<>(w, h, IntBuffer.wrap(pixels), PixelFormat.getIntArgbPreInstance()));
    }

    /** A drawing that the ground is seen through where it is empty. */
    public static Image clear(BufferedImage drawn) {
        int w = drawn.getWidth();
        int h = drawn.getHeight();
        var image = new WritableImage(w, h);
        image.getPixelWriter()
                .setPixels(0, 0, w, h, PixelFormat.getIntArgbInstance(), drawn.getRGB(0, 0, w, h, null, 0, w), 0, w);
        return image;
    }

    /** Pixels a point on the sharpest screen that a window is on. */
    public static double sharpness() {
        return Window.getWindows().stream()
                .mapToDouble(Window::getRenderScaleX)
                .max()
                .orElse(1);
    }
}
