package lane.picture;

import java.awt.Font;
import java.awt.FontFormatException;
import java.io.IOException;
import java.io.InputStream;
import java.util.Map;
import java.util.Objects;

/** The shipped fonts, for drawing without a window. */
public final class Fonts {
    private static final Map<String, Font> LOADED = Map.of(
            "LaneSans-Regular.otf", load("LaneSans-Regular.otf"),
            "LaneSans-SemiBold.otf", load("LaneSans-SemiBold.otf"),
            "LaneMono-Regular.ttf", load("LaneMono-Regular.ttf"));

    private Fonts() {}

    private static Font load(String name) {
        try (InputStream in = Fonts.class.getResourceAsStream("fonts/" + name)) {
            return Font.createFont(Font.TRUETYPE_FONT, in);
        } catch (IOException | FontFormatException e) {
            throw new IllegalStateException("the font " + name + " is part of this program", e);
        }
    }

    public static Font sans(double size) {
        return font("LaneSans-Regular.otf").deriveFont((float) size);
    }

    public static Font semibold(double size) {
        return font("LaneSans-SemiBold.otf").deriveFont((float) size);
    }

    public static Font mono(double size) {
        return font("LaneMono-Regular.ttf").deriveFont((float) size);
    }

    private static Font font(String file) {
        return Objects.requireNonNull(LOADED.get(file));
    }
}
