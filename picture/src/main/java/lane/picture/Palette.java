package lane.picture;

import java.awt.Color;

/**
 * The colours of a theme, by what they are for. The same values stand in the window's style sheet; a test compares them.
 */
public record Palette(
        boolean dark,
        Color paper,
        Color sheet,
        Color sunk,
        Color ground,
        Color ink,
        Color muted,
        Color hair,
        Color line,
        Color grid,
        Color teal,
        Color ochre,
        Color brick,
        Color pine,
        Color pineWash,
        Color[] family,
        Color measured) {
    /** Selected station and its handles, on a white halo, in both themes. */
    public static final Color MARK = new Color(0xC2410C);

    public static final Palette LIGHT = new Palette(
            false,
            hex(0xF6F4EE),
            hex(0xFFFFFF),
            hex(0xEEEBE2),
            hex(0xFBFAF6),
            hex(0x1D2730),
            hex(0x5C6771),
            hex(0xDAD6CB),
            hex(0xC3BEB1),
            hex(0xEAE7DE),
            hex(0x0B7170),
            hex(0x96590A),
            hex(0xA63D2F),
            hex(0x2F6B3C),
            hex(0xE4EFE5),
            new Color[] {hex(0x6292D0), hex(0x2F6FB5), hex(0x123C73)},
            hex(0x84397C));
    public static final Palette DARK = new Palette(
            true,
            hex(0x14181B),
            hex(0x1C2226),
            hex(0x101316),
            hex(0x171C20),
            hex(0xE7E3D8),
            hex(0x98A2A9),
            hex(0x2E363B),
            hex(0x465057),
            hex(0x262D32),
            hex(0x4DB6B1),
            hex(0xDDA650),
            hex(0xE58877),
            hex(0x86C491),
            hex(0x1E3325),
            new Color[] {hex(0xC4DBF5), hex(0x86B4EA), hex(0x4B8CDB)},
            hex(0xDB9DD3));

    private static Color hex(int rgb) {
        return new Color(rgb);
    }

    /** For a style sheet, for example {@code #1D2730}. */
    public static String css(Color c) {
        return String.format("#%02X%02X%02X", c.getRed(), c.getGreen(), c.getBlue());
    }
}
