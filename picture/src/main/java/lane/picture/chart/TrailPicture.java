package lane.picture.chart;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.font.FontRenderContext;
import java.awt.geom.CubicCurve2D;
import java.awt.geom.Line2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.awt.geom.RoundRectangle2D;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import lane.picture.Fonts;
import lane.picture.Palette;
import lane.provenance.TrailGraph;
import org.jspecify.annotations.Nullable;

/** A trail drawn from left to right: files, what was read of them, to the number and its check. Each box stands behind all that it takes. */
public final class TrailPicture {
    private static final double BOX = 184;
    private static final double GAP = 44;
    private static final double APART = 14;
    private static final double MARGIN = 16;
    private static final double PAD = 9;
    private static final double LINE = 14;
    private static final double HEAD = 13;
    /** What a line takes that passes between boxes. */
    private static final double PASS = 4;

    private static final int MOST_LINES = 5;
    private static final FontRenderContext PLAIN = new FontRenderContext(null, true, true);

    /** What stands in a column: a box, or room for a line that passes. */
    private static final class Item {
        private final int layer;
        private final TrailGraph.@Nullable Node node;
        private final List<String> words;
        private final String method;
        private final double tall;
        private final List<Item> taken = new ArrayList<>();
        private double y;

        Item(int layer, TrailGraph.@Nullable Node node) {
            this.layer = layer;
            this.node = node;
            words = node == null ? List.of() : words(node);
            method = node == null ? "" : method(node);
            tall = node == null ? PASS : HEAD + LINE * words.size() + 2 * PAD + (method.isEmpty() ? 0 : LINE);
        }

        double left() {
            return MARGIN + layer * (BOX + GAP);
        }

        double middle() {
            return y + tall / 2;
        }
    }

    private final List<Item> items = new ArrayList<>();
    private final double width;
    private final double height;

    public TrailPicture(TrailGraph graph) {
        int[] layer = layers(graph);
        for (int i = 0; i < graph.nodes().size(); i++) {
            items.add(new Item(layer[i], graph.nodes().get(i)));
        }
        for (TrailGraph.Edge e : graph.edges()) {
            Item from = items.get(e.from());
            Item to = items.get(e.to());
            while (from.layer + 1 < to.layer) {
                var pass = new Item(from.layer + 1, null);
                pass.taken.add(from);
                items.add(pass);
                from = pass;
            }
            to.taken.add(from);
        }
        int columns = 1 + items.stream().mapToInt(i -> i.layer).max().orElse(0);
        double tallest = 0;
        for (int c = 0; c < columns; c++) {
            List<Item> column = column(c);
            double own = column.stream().mapToDouble(i -> i.tall + APART).sum() - APART;
            tallest = Math.max(tallest, own);
        }
        for (int c = 0; c < columns; c++) {
            List<Item> column = column(c);
            List<Item> order = List.copyOf(column);
            column.sort(Comparator.comparingDouble(
                    i -> i.taken.stream().mapToDouble(Item::middle).average().orElse(order.indexOf(i))));
            double own = column.stream().mapToDouble(i -> i.tall + APART).sum() - APART;
            double y = MARGIN + (tallest - own) / 2;
            for (Item i : column) {
                i.y = y;
                y += i.tall + APART;
            }
        }
        width = 2 * MARGIN + columns * (BOX + GAP) - GAP;
        height = 2 * MARGIN + tallest;
    }

    private List<Item> column(int layer) {
        return new ArrayList<>(items.stream().filter(i -> i.layer == layer).toList());
    }

    public double width() {
        return width;
    }

    public double height() {
        return height;
    }

    /** Each node one behind the last that it takes. */
    private static int[] layers(TrailGraph graph) {
        int[] layer = new int[graph.nodes().size()];
        // No trail is longer than its boxes are many.
        for (int pass = 0; pass < layer.length; pass++) {
            boolean moved = false;
            for (TrailGraph.Edge e : graph.edges()) {
                if (layer[e.to()] <= layer[e.from()]) {
                    layer[e.to()] = layer[e.from()] + 1;
                    moved = true;
                }
            }
            if (!moved) {
                break;
            }
        }
        return layer;
    }

    private static String method(TrailGraph.Node node) {
        return node.stop() == TrailGraph.Stop.FILE || node.lines().size() < 2
                ? ""
                : cut(node.lines().get(1), Fonts.sans(10), BOX - 2 * PAD);
    }

    private static List<String> words(TrailGraph.Node node) {
        Font font = Fonts.sans(11);
        List<String> out = new ArrayList<>();
        if (node.stop() == TrailGraph.Stop.FILE) {
            node.lines().forEach(l -> out.add(cut(l, font, BOX - 2 * PAD)));
            return out;
        }
        var line = new StringBuilder();
        for (String word : node.lines().getFirst().split(" ")) {
            String longer = line.isEmpty() ? word : line + " " + word;
            if (!line.isEmpty() && wide(longer, font) > BOX - 2 * PAD) {
                out.add(line.toString());
                line.setLength(0);
                line.append(word);
            } else {
                line.setLength(0);
                line.append(longer);
            }
        }
        out.add(line.toString());
        List<String> told = out.size() > MOST_LINES ? new ArrayList<>(out.subList(0, MOST_LINES)) : out;
        if (out.size() > MOST_LINES) {
            told.set(MOST_LINES - 1, told.get(MOST_LINES - 1) + " …");
        }
        return told.stream().map(l -> cut(l, font, BOX - 2 * PAD)).toList();
    }

    private static double wide(String text, Font font) {
        return font.getStringBounds(text, PLAIN).getWidth();
    }

    private static String cut(String text, Font font, double room) {
        if (wide(text, font) <= room) {
            return text;
        }
        int end = text.length() - 1;
        while (end > 1 && wide(text.substring(0, end) + "…", font) > room) {
            end--;
        }
        return text.substring(0, end) + "…";
    }

    /** Draws it, made smaller where it has less room than it wants. */
    public void paint(Graphics2D g, double wide, double tall, Palette palette) {
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setPaint(palette.sheet());
        g.fill(new Rectangle2D.Double(0, 0, wide, tall));
        var before = g.getTransform();
        double f = Math.min(1, Math.min(wide / width, tall / height));
        g.translate((wide - f * width) / 2, (tall - f * height) / 2);
        g.scale(f, f);
        g.setStroke(new BasicStroke(1.2f));
        for (Item to : items) {
            to.taken.forEach(from -> edge(g, from, to, palette));
        }
        items.forEach(i -> {
            if (i.node != null) {
                box(g, i, i.node, palette);
            }
        });
        g.setTransform(before);
    }

    private static void edge(Graphics2D g, Item from, Item to, Palette palette) {
        double x = from.left() + BOX;
        double y = from.middle();
        double end = to.left() - (to.node == null ? 0 : 6);
        double at = to.middle();
        double bend = Math.max(18, (end - x) / 2);
        g.setPaint(palette.line());
        g.draw(new CubicCurve2D.Double(x, y, x + bend, y, end - bend, at, end, at));
        if (to.node == null) {
            g.draw(new Line2D.Double(end, at, end + BOX, at));
            return;
        }
        var head = new Path2D.Double();
        head.moveTo(end + 6, at);
        head.lineTo(end - 1, at - 3.5);
        head.lineTo(end - 1, at + 3.5);
        head.closePath();
        g.fill(head);
    }

    private static void box(Graphics2D g, Item b, TrailGraph.Node node, Palette palette) {
        var shape = new RoundRectangle2D.Double(b.left(), b.y, BOX, b.tall, 6, 6);
        g.setPaint(palette.paper());
        g.fill(shape);
        g.setPaint(node.typed() ? palette.ochre() : palette.line());
        g.draw(shape);
        double x = b.left() + PAD;
        double y = b.y + PAD + 8;
        g.setFont(Fonts.semibold(9.5));
        g.setPaint(colour(node, palette));
        g.drawString(node.stop().word() + (node.typed() ? ", typed by hand" : ""), (float) x, (float) y);
        y += HEAD;
        g.setFont(Fonts.sans(11));
        g.setPaint(palette.ink());
        for (String line : b.words) {
            g.drawString(line, (float) x, (float) y);
            y += LINE;
        }
        if (!b.method.isEmpty()) {
            g.setFont(Fonts.sans(10));
            g.setPaint(palette.muted());
            g.drawString(b.method, (float) x, (float) y);
        }
    }

    private static Color colour(TrailGraph.Node node, Palette palette) {
        return node.typed()
                ? palette.ochre()
                : node.stop() == TrailGraph.Stop.CHECK || node.stop() == TrailGraph.Stop.READING
                        ? palette.teal()
                        : palette.muted();
    }
}
