package lane.picture.chart;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Line2D;
import java.awt.geom.Rectangle2D;
import java.util.Comparator;
import java.util.List;
import lane.base.Figures;
import lane.ledger.LedgerDiff;
import lane.picture.Fonts;
import lane.picture.Palette;

/**
 * What moved between two ledgers: a bar for each number that is different, as a share of the greater of both, the largest first; a
 * verdict that turned is told beside it.
 *
 * @param rows those that are drawn
 * @param more how many are not
 */
public record MovedPicture(List<Row> rows, int more) {
    /**
     * A number that moved.
     *
     * @param share of the greater magnitude, with the sign of the change; NaN where there was or is no number
     * @param verdict {@code within to out}; blank where it did not turn
     */
    public record Row(String name, double share, String verdict) {}

    /** On a page of its own. */
    public static final int MOST = 24;

    private static final double ROW = 20;
    private static final double TOP = 34;
    private static final double SIDE = 16;

    public MovedPicture {
        rows = List.copyOf(rows);
    }

    /** @param most rows that there is room for */
    public static MovedPicture of(LedgerDiff diff, int most) {
        List<Row> all = diff.different().stream()
                .map(MovedPicture::row)
                .sorted(Comparator.comparing((Row r) -> r.verdict.isEmpty())
                        .thenComparing(r -> -Math.abs(Double.isNaN(r.share) ? 0 : r.share)))
                .toList();
        return new MovedPicture(all.subList(0, Math.min(most, all.size())), Math.max(0, all.size() - most));
    }

    private static Row row(LedgerDiff.Change c) {
        double greater = Math.max(Math.abs(c.before()), Math.abs(c.after()));
        return new Row(
                c.item() + (c.line().lane().isBlank() ? "" : ", " + c.line().lane()),
                greater > 0 ? (c.after() - c.before()) / greater : Double.NaN,
                c.turned() ? word(c.line().verdict()) + " to " + word(c.verdict()) : "");
    }

    private static String word(String verdict) {
        return verdict.isBlank() ? "none" : verdict;
    }

    public double height() {
        return TOP + ROW * (rows.size() + (more > 0 ? 1 : 0)) + 10;
    }

    /** Draws it. */
    public void paint(Graphics2D g, double width, double height, Palette palette) {
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setPaint(palette.sheet());
        g.fill(new Rectangle2D.Double(0, 0, width, height));
        g.setFont(Fonts.semibold(12));
        g.setPaint(palette.ink());
        g.drawString("What moved", (float) SIDE, 20);
        g.setFont(Fonts.sans(11));
        g.setPaint(palette.muted());
        g.drawString("change as a share of the greater of both", (float) SIDE + 84, 20);
        double names = Math.min(0.42 * width, 320);
        double left = SIDE + names + 12;
        double right = width - SIDE - 170;
        boolean rises = rows.stream().noneMatch(r -> r.share < 0);
        boolean falls = rows.stream().noneMatch(r -> r.share > 0);
        // All to one side have the whole width.
        double zero = rises ? left : falls ? right : (left + right) / 2;
        double room = rises || falls ? right - left : (right - left) / 2;
        double most = rows.stream()
                .mapToDouble(r -> Math.abs(r.share))
                .filter(Double::isFinite)
                .max()
                .orElse(1);
        g.setStroke(new BasicStroke(1));
        g.setPaint(palette.line());
        g.draw(new Line2D.Double(zero, TOP - 4, zero, TOP + ROW * rows.size()));
        for (int i = 0; i < rows.size(); i++) {
            row(g, rows.get(i), TOP + ROW * i, names, zero, room / most, right, palette);
        }
        if (more > 0) {
            g.setPaint(palette.muted());
            g.drawString(
                    "and " + more + " more, which moved less", (float) SIDE, (float) (TOP + ROW * rows.size() + 14));
        }
    }

    private static void row(
            Graphics2D g, Row r, double y, double names, double zero, double scale, double right, Palette palette) {
        g.setFont(Fonts.sans(11));
        g.setPaint(palette.ink());
        g.drawString(cut(g, r.name, names), (float) SIDE, (float) y + 14);
        Color tone = r.verdict.isEmpty() ? palette.teal() : palette.brick();
        if (Double.isFinite(r.share)) {
            double length = Math.max(1, Math.abs(r.share) * scale);
            g.setPaint(tone);
            g.fill(new Rectangle2D.Double(r.share < 0 ? zero - length : zero, y + 4, length, ROW - 8));
        }
        g.setPaint(palette.ink());
        String text = Double.isFinite(r.share)
                ? Figures.of(100 * r.share, 3).signed(100 * r.share) + " %"
                : "no number on one side";
        if (Double.isFinite(r.share) && Math.abs(r.share) < 1e-6) {
            text = Figures.of(r.share, 2).plain(r.share);
        }
        g.drawString(text, (float) right + 10, (float) y + 14);
        if (!r.verdict.isEmpty()) {
            g.setFont(Fonts.semibold(11));
            g.setPaint(palette.brick());
            g.drawString(r.verdict, (float) right + 80, (float) y + 14);
        }
    }

    private static String cut(Graphics2D g, String text, double room) {
        if (g.getFontMetrics().getStringBounds(text, g).getWidth() <= room) {
            return text;
        }
        int end = text.length() - 1;
        while (end > 1
                && g.getFontMetrics()
                                .getStringBounds(text.substring(0, end) + "…", g)
                                .getWidth()
                        > room) {
            end--;
        }
        return text.substring(0, end) + "…";
    }
}
