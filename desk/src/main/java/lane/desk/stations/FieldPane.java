package lane.desk.stations;

import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferInt;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BiConsumer;
import javafx.application.Platform;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import lane.mesh.Point;
import lane.picture.Export;
import lane.picture.Palette;
import lane.picture.field.Annotations;
import lane.picture.field.Camera;
import lane.picture.field.Frame;
import lane.picture.field.Look;
import lane.picture.field.Rasteriser;

/**
 * The field picture in the window: draws in the background, newest view first; turns by drag, moves by right drag, zooms
 * by wheel about the pointer, picks by hovering, and drags the ends of the selected line.
 */
final class FieldPane extends Pane {
    private static final double GRAB = 10;

    /** What is to be drawn. */
    record Content(
            FieldScene field,
            Annotations.Bar bar,
            List<Annotations.Line> lines,
            List<Grip> grips,
            boolean shaded,
            boolean edges,
            Palette palette) {}

    /**
     * A place of the selected station that can be dragged.
     *
     * @param along the direction that it moves along; null for the plane of the picture
     */
    record Grip(Point at, Point along) {}

    private record Drawing(
            FieldScene field, Camera from, int width, int height, boolean shaded, boolean edges, Palette palette) {}

    private static final ExecutorService PAINTER = Executors.newSingleThreadExecutor(r -> {
        var thread = new Thread(r, "field picture");
        thread.setDaemon(true);
        return thread;
    });

    private final ImageView view = new ImageView();
    private final AtomicReference<Runnable> next = new AtomicReference<>();
    private BiConsumer<Frame.Hit, double[]> hover = (h, at) -> {};
    private BiConsumer<Integer, Point> moved = (i, p) -> {};
    private Runnable dropped = () -> {};
    private java.util.function.Consumer<Point> pinned = p -> {};
    private Content content;
    private Camera camera;
    private Frame frame;
    /** What was drawn last, without lines and words; used by the painter's thread only. */
    private Drawing lastDrawing;

    private Frame lastFrame;
    private double pressX;
    private double pressY;
    private int grabbed = -1;

    FieldPane() {
        setId("field");
        setFocusTraversable(true);
        setAccessibleText("Field picture: arrow keys turn, plus and minus zoom, F fits");
        getChildren().add(view);
        setMinSize(0, 0);
        widthProperty().addListener((o, was, is) -> paint());
        heightProperty().addListener((o, was, is) -> paint());
        setOnMousePressed(this::press);
        setOnMouseDragged(this::drag);
        setOnMouseReleased(e -> {
            if (grabbed >= 0) {
                grabbed = -1;
                dropped.run();
            }
        });
        setOnMouseClicked(e -> {
            if (e.getClickCount() == 2 && e.getButton() == MouseButton.PRIMARY && frame != null) {
                frame.at((int) e.getX(), (int) e.getY()).ifPresent(h -> pinned.accept(h.place()));
            }
        });
        setOnMouseMoved(this::hovering);
        setOnMouseExited(e -> hover.accept(null, new double[2]));
        setOnScroll(
                e -> look(camera.zoomed(Math.exp(e.getDeltaY() / 400), e.getX(), e.getY(), getWidth(), getHeight())));
        setOnKeyPressed(this::key);
    }

    /** @param told the hit under the pointer (null for none) and the pointer's place */
    void onHover(BiConsumer<Frame.Hit, double[]> told) {
        hover = told;
    }

    /** @param told number and new place of a grip while it is dragged; {@code end} when it is let go */
    void onMove(BiConsumer<Integer, Point> told, Runnable end) {
        moved = told;
        dropped = end;
    }

    /** @param told the place on the surface that was clicked twice */
    void onPin(java.util.function.Consumer<Point> told) {
        pinned = told;
    }

    Camera camera() {
        return camera;
    }

    Frame frame() {
        return frame;
    }

    void show(Content shown) {
        boolean first = content == null
                || content.field() == null
                || shown.field() != null
                        && !same(
                                content.field().run().mesh().bounds(),
                                shown.field().run().mesh().bounds());
        content = shown;
        if (first) {
            camera = null;
        }
        paint();
    }

    private static boolean same(double[] a, double[] b) {
        for (int i = 0; i < a.length; i++) {
            if (Math.abs(a[i] - b[i]) > 0.05 * (Math.abs(a[i]) + Math.abs(b[i]))) {
                return false;
            }
        }
        return true;
    }

    void fit() {
        camera = null;
        paint();
    }

    private void look(Camera next) {
        camera = next;
        paint();
    }

    void look(double yaw, double pitch) {
        if (content != null && content.field() != null) {
            double w = getWidth() - Annotations.BAR_WIDTH;
            Camera fit = Camera.fit(content.field().run().mesh().bounds(), w, getHeight() - 40, yaw, pitch);
            camera = fit.moved(-Annotations.BAR_WIDTH / 2.0, 0);
            paint();
        }
    }

    private void paint() {
        int w = (int) getWidth();
        int h = (int) getHeight();
        if (content == null || content.field() == null || w < 20 || h < 20) {
            view.setImage(null);
            return;
        }
        if (camera == null) {
            look(0.62, 0.42);
            return;
        }
        Content shown = content;
        Camera from = camera;
        Runnable job = () -> {
            var wanted = new Drawing(shown.field(), from, w, h, shown.shaded(), shown.edges(), shown.palette());
            // What moves or names a station leaves the field as it is.
            if (!wanted.equals(lastDrawing)) {
                lastFrame = draw(shown, from, w, h);
                lastDrawing = wanted;
            }
            Frame drawn = lastFrame;
            WritableImage image = image(drawn, shown);
            Platform.runLater(() -> {
                frame = drawn;
                view.setImage(image);
            });
        };
        // Only the newest view is drawn; those that were overtaken are dropped.
        if (next.getAndSet(job) == null) {
            PAINTER.execute(() -> {
                Runnable newest = next.getAndSet(null);
                if (newest != null) {
                    newest.run();
                }
            });
        }
    }

    /** Draws what is shown at another scale, for a file. @param scale pixels a point */
    BufferedImage picture(double scale) {
        int w = (int) Math.round(getWidth() * scale);
        int h = (int) Math.round(getHeight() * scale);
        Frame drawn = draw(content, camera.scaled(scale), w, h);
        var image = Export.image(drawn.argb(), w, h);
        Graphics2D g = image.createGraphics();
        g.scale(scale, scale);
        annotate(g);
        g.dispose();
        return image;
    }

    /** The same into any drawing: the field as pixels at twice the size, lines and text as such. */
    void paint(Graphics2D g) {
        int w = (int) getWidth();
        int h = (int) getHeight();
        Frame drawn = draw(content, camera.scaled(2), 2 * w, 2 * h);
        g.drawImage(Export.image(drawn.argb(), 2 * w, 2 * h), 0, 0, w, h, null);
        annotate(g);
    }

    private void annotate(Graphics2D g) {
        Annotations.paint(
                g, camera, (int) getWidth(), (int) getHeight(), content.lines(), content.bar(), content.palette());
    }

    private static Frame draw(Content shown, Camera from, int w, int h) {
        FieldScene f = shown.field();
        Look look = f.look(shown.shaded(), shown.edges(), shown.palette().dark());
        return Rasteriser.draw(
                f.scene(), from, look, w, h, shown.palette().ground().getRGB() & 0xffffff);
    }

    private static WritableImage image(Frame drawn, Content shown) {
        var image = new BufferedImage(drawn.width(), drawn.height(), BufferedImage.TYPE_INT_ARGB_PRE);
        int[] pixels = ((DataBufferInt) image.getRaster().getDataBuffer()).getData();
        System.arraycopy(drawn.argb(), 0, pixels, 0, pixels.length);
        Graphics2D g = image.createGraphics();
        Annotations.paint(
                g, drawn.camera(), drawn.width(), drawn.height(), shown.lines(), shown.bar(), shown.palette());
        g.dispose();
        return new WritableImage(new PixelBuffer<>(
                drawn.width(), drawn.height(), java.nio.IntBuffer.wrap(pixels), PixelFormat.getIntArgbPreInstance()));
    }

    private void press(MouseEvent e) {
        requestFocus();
        pressX = e.getX();
        pressY = e.getY();
        grabbed = -1;
        if (content != null && camera != null && e.getButton() == MouseButton.PRIMARY) {
            double least = GRAB;
            for (int i = 0; i < content.grips().size(); i++) {
                double[] p = project(content.grips().get(i).at());
                double d = Math.hypot(p[0] - e.getX(), p[1] - e.getY());
                if (d < least) {
                    least = d;
                    grabbed = i;
                }
            }
        }
    }

    private double[] project(Point p) {
        double[] out = new double[3];
        camera.project(p.x(), p.y(), p.z(), getWidth(), getHeight(), out);
        return out;
    }

    /** Where a place of the model is in this pane, for tests that drag it. */
    double[] pixel(Point p) {
        return project(p);
    }

    private void drag(MouseEvent e) {
        if (camera == null) {
            return;
        }
        double dx = e.getX() - pressX;
        double dy = e.getY() - pressY;
        pressX = e.getX();
        pressY = e.getY();
        if (grabbed >= 0) {
            if (grabbed >= content.grips().size()) {
                return;
            }
            Grip grip = content.grips().get(grabbed);
            // Shift puts it on the surface under the pointer; else it moves in the plane of the picture, or along its
            // way.
            Point to = e.isShiftDown()
                            && frame != null
                            && frame.at((int) e.getX(), (int) e.getY()).isPresent()
                    ? frame.at((int) e.getX(), (int) e.getY()).get().place()
                    : grip.along() == null
                            ? camera.place(e.getX(), e.getY(), project(grip.at())[2], getWidth(), getHeight())
                            : along(grip, dx, dy);
            moved.accept(grabbed, to);
        } else if (e.getButton() == MouseButton.PRIMARY) {
            look(camera.turned(-dx / 180, dy / 180));
        } else {
            look(camera.moved(dx, dy));
        }
    }

    /** How far a way in space goes that looks like this move of the pointer. */
    private Point along(Grip grip, double dx, double dy) {
        Point d = grip.along();
        double px = camera.scale() * d.dot(camera.right());
        double py = -camera.scale() * d.dot(camera.up());
        double length = px * px + py * py;
        // A way that leads straight into the picture follows the pointer up and down.
        double step =
                length < 1e-3 * camera.scale() * camera.scale() ? -dy / camera.scale() : (dx * px + dy * py) / length;
        return grip.at().plus(d.times(step));
    }

    private void hovering(MouseEvent e) {
        Frame.Hit hit =
                frame == null ? null : frame.at((int) e.getX(), (int) e.getY()).orElse(null);
        hover.accept(hit, new double[] {e.getX(), e.getY()});
    }

    private void key(KeyEvent e) {
        if (camera == null) {
            return;
        }
        double w = getWidth();
        double h = getHeight();
        switch (e.getCode()) {
            case LEFT -> look(camera.turned(0.1, 0));
            case RIGHT -> look(camera.turned(-0.1, 0));
            case UP -> look(camera.turned(0, 0.1));
            case DOWN -> look(camera.turned(0, -0.1));
            case PLUS, EQUALS, ADD -> look(camera.zoomed(1.2, w / 2, h / 2, w, h));
            case MINUS, SUBTRACT -> look(camera.zoomed(1 / 1.2, w / 2, h / 2, w, h));
            case F -> fit();
            default -> {
                return;
            }
        }
        e.consume();
    }
}
