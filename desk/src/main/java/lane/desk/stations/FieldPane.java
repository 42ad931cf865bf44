package lane.desk.stations;

import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferInt;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Rectangle;
import javafx.util.Duration;
import lane.mesh.Point;
import lane.picture.Export;
import lane.picture.Palette;
import lane.picture.field.Annotations;
import lane.picture.field.Camera;
import lane.picture.field.DrawnFrame;
import lane.picture.field.Look;
import lane.picture.field.Rasteriser;
import org.jspecify.annotations.Nullable;

/**
 * The field picture in the window: draws in the background, newest view first; turns by drag, moves by right drag, zooms
 * by wheel about the pointer, picks by hovering, and drags the ends of the selected line.
 */
final class FieldPane extends Pane {
    private static final double GRAB = 10;

    /**
     * What is to be drawn.
     *
     * @param flat the direction that a flat picture is looked along; null for one that turns
     * @param subject of a flat picture: another one is fitted anew
     */
    record Content(
            @Nullable FieldScene field,
            Annotations.Over over,
            List<Grip> grips,
            boolean shaded,
            boolean edges,
            Palette palette,
            @Nullable Point flat,
            String subject) {
        static Content nothing(Palette palette) {
            return new Content(null, Annotations.Over.of(List.of(), null), List.of(), false, false, palette, null, "");
        }
    }

    /**
     * A place of the selected station that can be dragged.
     *
     * @param along the direction that it moves along; null for the plane of the picture
     */
    record Grip(Point at, @Nullable Point along) {}

    private record Drawing(
            @Nullable FieldScene field,
            Camera from,
            int width,
            int height,
            boolean shaded,
            boolean edges,
            Palette palette,
            boolean coarse) {}

    private static final ExecutorService PAINTER = Executors.newSingleThreadExecutor(r -> {
        var thread = new Thread(r, "field picture");
        thread.setDaemon(true);
        return thread;
    });

    private final ImageView view = new ImageView();
    private final AtomicReference<Runnable> next = new AtomicReference<>();
    private BiConsumer<DrawnFrame.Hit, double[]> hover = (h, at) -> {};
    private BiConsumer<Integer, Point> moved = (i, p) -> {};
    private Runnable dropped = () -> {};
    private Consumer<Point> pinned = p -> {};
    private Consumer<Point> clicked = p -> {};
    private Consumer<Camera> looked = c -> {};
    private Runnable resized = () -> {};
    /** The camera that was last fitted to all of the field. */
    private @Nullable Camera whole;
    /** Places are picked for measuring; a drag still turns. */
    private boolean measuring;
    /** The place that the view turns about; null for the middle. */
    private @Nullable Point pivot;

    private final Rectangle box = new Rectangle();
    private boolean boxing;
    private double boxX;
    private double boxY;
    private boolean dragged;
    /** A view that rests for this long is drawn exactly. */
    private final PauseTransition rest = new PauseTransition(Duration.millis(250));

    private boolean moving;
    private @Nullable Content content;
    private @Nullable Camera camera;
    private @Nullable DrawnFrame frame;
    /** Where the pointer rests on the picture; null where it does not. */
    private double @Nullable [] pointer;
    /** What was drawn last, without lines and words; used by the painter's thread only. */
    private @Nullable Drawing lastDrawing;

    private @Nullable DrawnFrame lastFrame;
    private double pressX;
    private double pressY;
    private int grabbed = -1;
    private boolean pressed;

    FieldPane() {
        setId("field");
        setFocusTraversable(true);
        setAccessibleText(
                "Field picture: arrow keys turn, plus and minus zoom, F fits, C turns about the last picked place");
        getChildren().addAll(view, box);
        box.setVisible(false);
        box.setManaged(false);
        box.getStyleClass().add("zoom-box");
        rest.setOnFinished(e -> {
            moving = false;
            paint();
        });
        setMinSize(0, 0);
        widthProperty().addListener((o, was, is) -> resized(was.doubleValue(), getHeight()));
        heightProperty().addListener((o, was, is) -> resized(getWidth(), was.doubleValue()));
        setOnMousePressed(this::press);
        setOnMouseDragged(this::drag);
        setOnMouseReleased(this::release);
        setOnMouseClicked(this::click);
        setOnMouseMoved(this::hovering);
        setOnMouseExited(e -> left());
        setOnScroll(e -> {
            if (camera != null) {
                look(camera.zoomed(Math.exp(e.getDeltaY() / 400), e.getX(), e.getY(), getWidth(), getHeight()));
            }
        });
        setOnKeyPressed(this::key);
    }

    /** @param told the hit under the pointer (null for none) and the pointer's place */
    void onHover(BiConsumer<DrawnFrame.Hit, double[]> told) {
        hover = told;
    }

    /** @param told number and new place of a grip while it is dragged; {@code end} when it is let go */
    void onMove(BiConsumer<Integer, Point> told, Runnable end) {
        moved = told;
        dropped = end;
    }

    /** @param told the place on the surface that was clicked twice */
    void onPin(Consumer<Point> told) {
        pinned = told;
    }

    /** @param told the place on the surface that was clicked once */
    void onClick(Consumer<Point> told) {
        clicked = told;
    }

    /** @param told the camera, whenever the view is changed here */
    void onLook(Consumer<Camera> told) {
        looked = told;
    }

    /** @param told whenever the pane has another size, before it is painted */
    void onResized(Runnable told) {
        resized = told;
    }

    /** @param told the place on the surface where something carried here is let go; null beside it */
    void onDrop(Consumer<@Nullable Point> told) {
        setOnMouseDragReleased(e -> told.accept(
                frame == null
                        ? null
                        : frame.at((int) e.getX(), (int) e.getY())
                                .map(DrawnFrame.Hit::place)
                                .orElse(null)));
    }

    void measure(boolean on) {
        measuring = on;
        setCursor(on ? javafx.scene.Cursor.CROSSHAIR : null);
    }

    /** The place that the view turns about from now on; null for the middle. */
    void turnAbout(@Nullable Point place) {
        pivot = place;
    }

    private void release(MouseEvent e) {
        pressed = false;
        if (boxing) {
            boxing = false;
            box.setVisible(false);
            look(Objects.requireNonNull(camera).boxed(boxX, boxY, e.getX(), e.getY(), getWidth(), getHeight()));
        }
        if (grabbed >= 0) {
            grabbed = -1;
            dropped.run();
        }
    }

    private void click(MouseEvent e) {
        if (frame == null || e.getButton() != MouseButton.PRIMARY || dragged) {
            return;
        }
        frame.at((int) e.getX(), (int) e.getY()).ifPresent(h -> {
            if (e.getClickCount() == 2 && !measuring) {
                pinned.accept(h.place());
            } else if (e.isAltDown()) {
                pivot = h.place();
            } else {
                clicked.accept(h.place());
            }
        });
    }

    Palette palette() {
        return Objects.requireNonNull(content).palette();
    }

    @Nullable
    Camera camera() {
        return camera;
    }

    @Nullable
    DrawnFrame frame() {
        return frame;
    }

    void show(Content shown) {
        boolean first = content == null
                || content.field() == null
                || shown.field() != null
                        && !same(
                                content.field().run().mesh().bounds(),
                                shown.field().run().mesh().bounds());
        boolean flattened = content != null && !content.subject().equals(shown.subject());
        content = shown;
        if (first || flattened) {
            camera = null;
        }
        paint();
    }

    /** Shows what another picture shows, without telling anybody. */
    void follow(Camera other) {
        camera = other;
        moving = true;
        rest.playFromStart();
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

    void look(Camera next) {
        camera = next;
        moving = true;
        rest.playFromStart();
        paint();
        looked.accept(next);
    }

    /** The whole of a box in the picture, from where it is looked now. */
    void fit(double[] bounds) {
        if (camera != null) {
            look(fitted(bounds, camera.yaw(), camera.pitch()));
        }
    }

    private Camera fitted(double[] bounds, double yaw, double pitch) {
        boolean flat = Objects.requireNonNull(content).flat() != null;
        double w = getWidth() - Annotations.BAR_WIDTH - (flat ? 80 : 0);
        Camera fit = Camera.fit(bounds, w, getHeight() - (flat ? 70 : 40), yaw, pitch);
        return fit.moved((flat ? 64 : 0) / 2.0 - Annotations.BAR_WIDTH / 2.0, flat ? -20 : 0);
    }

    void look(double yaw, double pitch) {
        if (content != null && content.field() != null) {
            whole = fitted(content.field().bounds(), yaw, pitch);
            look(whole);
        }
    }

    /** What filled the picture before fills it again; a view of all is one of all still. */
    private void resized(double width, double height) {
        boolean all = camera != null
                && camera.equals(whole)
                && Objects.requireNonNull(content).field() != null;
        double before = Math.min(width - Annotations.BAR_WIDTH, height);
        double now = Math.min(getWidth() - Annotations.BAR_WIDTH, getHeight());
        if (all && now > 20) {
            whole = fitted(
                    Objects.requireNonNull(Objects.requireNonNull(content).field())
                            .bounds(),
                    Objects.requireNonNull(camera).yaw(),
                    camera.pitch());
            camera = whole;
        } else if (camera != null && before > 20 && now > 20) {
            camera = camera.scaled(now / before);
        }
        resized.run();
        paint();
    }

    @SuppressWarnings("ReferenceEquality")
    private void paint() {
        int w = (int) getWidth();
        int h = (int) getHeight();
        if (content == null || content.field() == null || w < 20 || h < 20) {
            view.setImage(null);
            return;
        }
        if (camera == null) {
            double[] angles = content.flat() == null ? new double[] {0.62, 0.42} : Camera.angles(content.flat());
            look(angles[0], angles[1]);
            return;
        }
        boolean coarse = moving && content.field().coarse() != content.field().scene();
        Content shown = content;
        Camera from = camera;
        Runnable job = () -> {
            var wanted = new Drawing(shown.field(), from, w, h, shown.shaded(), shown.edges(), shown.palette(), coarse);
            // What moves or names a station leaves the field as it is.
            if (!wanted.equals(lastDrawing)) {
                lastFrame = draw(shown, from, w, h, coarse);
                lastDrawing = wanted;
            }
            DrawnFrame drawn = lastFrame;
            WritableImage image = image(drawn, shown);
            Platform.runLater(() -> {
                frame = coarse ? null : drawn;
                view.setImage(image);
                tell();
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

    /**
     * Draws what is shown at another scale, for a file.
     *
     * @param scale pixels a point
     */
    BufferedImage picture(double scale) {
        int w = (int) Math.round(getWidth() * scale);
        int h = (int) Math.round(getHeight() * scale);
        DrawnFrame drawn = draw(content, Objects.requireNonNull(camera).scaled(scale), w, h, false);
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
        DrawnFrame drawn = draw(content, Objects.requireNonNull(camera).scaled(2), 2 * w, 2 * h, false);
        g.drawImage(Export.image(drawn.argb(), 2 * w, 2 * h), 0, 0, w, h, null);
        annotate(g);
    }

    private void annotate(Graphics2D g) {
        DrawnFrame seen = frame;
        Annotations.Over over = seen == null
                ? Objects.requireNonNull(content).over()
                : Objects.requireNonNull(content)
                        .over()
                        .with(Objects.requireNonNull(content.field()).bandLabels(seen, content));
        Annotations.paint(
                g, Objects.requireNonNull(camera), (int) getWidth(), (int) getHeight(), over, content.palette());
    }

    private static DrawnFrame draw(@Nullable Content shown, Camera from, int w, int h, boolean coarse) {
        FieldScene f = Objects.requireNonNull(shown).field();
        Look look = Objects.requireNonNull(f)
                .look(
                        shown.shaded() && shown.flat() == null,
                        shown.edges(),
                        shown.palette().dark());
        return Rasteriser.draw(
                coarse ? f.coarse() : f.scene(),
                from,
                look,
                w,
                h,
                shown.palette().ground().getRGB() & 0xffffff);
    }

    private static WritableImage image(@Nullable DrawnFrame drawn, Content shown) {
        var image = new BufferedImage(
                Objects.requireNonNull(drawn).width(), drawn.height(), BufferedImage.TYPE_INT_ARGB_PRE);
        int[] pixels = ((DataBufferInt) image.getRaster().getDataBuffer()).getData();
        System.arraycopy(drawn.argb(), 0, pixels, 0, pixels.length);
        Graphics2D g = image.createGraphics();
        Annotations.paint(
                g,
                drawn.camera(),
                drawn.width(),
                drawn.height(),
                shown.over().with(Objects.requireNonNull(shown.field()).bandLabels(drawn, shown)),
                shown.palette());
        g.dispose();
        return new WritableImage(new PixelBuffer<>(
                drawn.width(), drawn.height(), java.nio.IntBuffer.wrap(pixels), PixelFormat.getIntArgbPreInstance()));
    }

    private void press(MouseEvent e) {
        pointer = null;
        pressed = true;
        requestFocus();
        pressX = e.getX();
        pressY = e.getY();
        grabbed = -1;
        dragged = false;
        boxing = e.isShortcutDown() && e.getButton() == MouseButton.PRIMARY && camera != null;
        if (boxing) {
            boxX = e.getX();
            boxY = e.getY();
            return;
        }
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
        Objects.requireNonNull(camera).project(p.x(), p.y(), p.z(), getWidth(), getHeight(), out);
        return out;
    }

    /** Where a place of the model is in this pane, for tests that drag it. */
    double[] pixel(Point p) {
        return project(p);
    }

    private void drag(MouseEvent e) {
        // What is carried in from elsewhere turns nothing.
        if (camera == null || !pressed) {
            return;
        }
        double dx = e.getX() - pressX;
        double dy = e.getY() - pressY;
        dragged |= Math.hypot(dx, dy) > 2;
        if (boxing) {
            box.setX(Math.min(boxX, e.getX()));
            box.setY(Math.min(boxY, e.getY()));
            box.setWidth(Math.abs(e.getX() - boxX));
            box.setHeight(Math.abs(e.getY() - boxY));
            box.setVisible(true);
            return;
        }
        pressX = e.getX();
        pressY = e.getY();
        if (grabbed >= 0) {
            if (grabbed >= Objects.requireNonNull(content).grips().size()) {
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
        } else if (e.getButton() == MouseButton.PRIMARY
                && Objects.requireNonNull(content).flat() == null) {
            look(turned(-dx / 180, dy / 180));
        } else {
            look(camera.moved(dx, dy));
        }
    }

    private Camera turned(double yaw, double pitch) {
        Camera now = Objects.requireNonNull(camera);
        return pivot == null ? now.turned(yaw, pitch) : now.turnedAbout(pivot, yaw, pitch);
    }

    /** How far a way in space goes that looks like this move of the pointer. */
    private Point along(Grip grip, double dx, double dy) {
        Point d = grip.along();
        double px = Objects.requireNonNull(camera).scale()
                * Objects.requireNonNull(d).dot(camera.right());
        double py = -camera.scale() * d.dot(camera.up());
        double length = px * px + py * py;
        // A way that leads straight into the picture follows the pointer up and down.
        double step =
                length < 1e-3 * camera.scale() * camera.scale() ? -dy / camera.scale() : (dx * px + dy * py) / length;
        return grip.at().plus(d.times(step));
    }

    private void hovering(MouseEvent e) {
        pointer = new double[] {e.getX(), e.getY()};
        tell();
    }

    private void left() {
        pointer = null;
        hover.accept(null, new double[2]);
    }

    /** What lies under the pointer; told again when another picture comes to stand under one that rests. */
    private void tell() {
        if (pointer != null) {
            DrawnFrame.Hit hit = frame == null
                    ? null
                    : frame.at((int) pointer[0], (int) pointer[1]).orElse(null);
            hover.accept(hit, pointer);
        }
    }

    /** Turned, or in a flat picture moved. */
    private Camera step(double yaw, double pitch) {
        return Objects.requireNonNull(content).flat() == null
                ? turned(yaw, pitch)
                : Objects.requireNonNull(camera).moved(400 * yaw, 400 * pitch);
    }

    private void key(KeyEvent e) {
        if (camera == null) {
            return;
        }
        double w = getWidth();
        double h = getHeight();
        switch (e.getCode()) {
            case LEFT -> look(step(0.1, 0));
            case RIGHT -> look(step(-0.1, 0));
            case UP -> look(step(0, 0.1));
            case DOWN -> look(step(0, -0.1));
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
