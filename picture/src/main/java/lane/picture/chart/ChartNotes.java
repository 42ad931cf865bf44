package lane.picture.chart;

import java.awt.BasicStroke;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Line2D;
import java.awt.geom.Rectangle2D;
import java.util.List;
import lane.picture.Fonts;
import lane.picture.Palette;
import lane.study.ChartLook.Note;

/** Words in a chart, each with a line to its place. */
public final class ChartNotes {
    private static final double UP = 26;
    private static final double ASIDE = 14;

    private ChartNotes() {}

    static void paint(Graphics2D g, List<Note> notes, ChartLayout in, Palette palette) {
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        ChartLayout.Plot plot = in.plots().getFirst();
        for (Note note : notes) {
            double x = in.pixel(note.x());
            double y = plot.pixel(note.y());
            if (!plot.area().contains(x, y)) {
                continue;
            }
            g.setFont(Fonts.sans(11));
            Rectangle2D size = g.getFontMetrics().getStringBounds(note.text(), g);
            boolean left = x + ASIDE + size.getWidth() > plot.area().getMaxX() - 4;
            boolean below = y - UP - size.getHeight() < plot.area().getY();
            double tx = left ? x - ASIDE - size.getWidth() : x + ASIDE;
            double ty = below ? y + UP : y - UP;
            g.setPaint(palette.muted());
            g.setStroke(new BasicStroke(1));
            g.draw(new Line2D.Double(x, y, left ? tx + size.getWidth() : tx, ty - (below ? 9 : -3)));
            g.fill(new Ellipse2D.Double(x - 2.5, y - 2.5, 5, 5));
            g.setPaint(palette.sheet());
            g.fill(new Rectangle2D.Double(
                    tx - 3, ty - size.getHeight() + 2, size.getWidth() + 6, size.getHeight() + 3));
            g.setPaint(palette.ink());
            g.drawString(note.text(), (float) tx, (float) ty);
        }
    }
}
