package lane.picture;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.CubicCurve2D;
import java.awt.geom.Ellipse2D;
import java.awt.geom.RoundRectangle2D;
import java.awt.image.BufferedImage;
import java.util.List;

/** The application's icon: two curves of different make that agree in one place, which is marked. */
public final class AppIcon {
    /** Sizes that desktops ask for. */
    public static final List<Integer> SIZES = List.of(16, 24, 32, 48, 64, 128, 256);

    private static final double GRID = 64;

    private AppIcon() {}

    /** Drawn at a size in pixels. */
    public static BufferedImage of(int size) {
        var image = new BufferedImage(size, size, BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.scale(size / GRID, size / GRID);
        g.setPaint(Palette.LIGHT.teal());
        g.fill(new RoundRectangle2D.Double(2, 2, 60, 60, 14, 14));
        // Small ones need stouter lines.
        float wide = size < 32 ? 7 : 5;
        g.setStroke(new BasicStroke(wide, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        g.setPaint(new Color(0x9FD8D3));
        g.draw(new CubicCurve2D.Double(11, 17, 26, 17, 38, 47, 53, 47));
        g.setPaint(Color.WHITE);
        g.draw(new CubicCurve2D.Double(11, 47, 26, 47, 38, 17, 53, 17));
        g.setPaint(Palette.MARK);
        g.fill(new Ellipse2D.Double(23.5, 23.5, 17, 17));
        g.setPaint(Color.WHITE);
        g.setStroke(new BasicStroke(3));
        g.draw(new Ellipse2D.Double(23.5, 23.5, 17, 17));
        g.dispose();
        return image;
    }
}
