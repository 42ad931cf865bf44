package lane.desk.ledger;

import java.awt.image.BufferedImage;
import java.util.List;
import java.util.Objects;
import java.util.function.IntConsumer;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import lane.desk.Images;
import lane.desk.Session;
import lane.desk.Ui;
import lane.ledger.Ledger;
import lane.picture.Export;
import lane.picture.Palette;
import lane.picture.chart.TrailPicture;
import lane.provenance.TrailGraph;
import org.jspecify.annotations.Nullable;

/** The trail of the chosen number as a graph, drawn behind the window. */
final class TrailPane {
    private static final double LEAST = 0.75;

    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final Label title = Ui.label("", "title");
    private final ImageView view = new ImageView();
    private final ScrollPane scroll = new ScrollPane(view);
    private final Button back;
    private final Button on;
    private @Nullable Object shown;
    private double wide;

    /** @param step chooses the number that is so many lines on */
    TrailPane(Session session, IntConsumer step) {
        this.session = session;
        back = Ui.button("‹", () -> step.accept(-1), "small-button");
        on = Ui.button("›", () -> step.accept(1), "small-button");
        back.setId("trail-back");
        on.setId("trail-on");
        back.setAccessibleText("The number before");
        on.setAccessibleText("The next number");
        pane.setMinWidth(0);
        pane.getStyleClass().add("sheet");
        title.setMinWidth(0);
        HBox head = Ui.row(8, back, on, title);
        head.setStyle("-fx-padding: 8 16 6 16;");
        pane.setTop(head);
        scroll.viewportBoundsProperty().addListener((o, was, is) -> fit());
        pane.setCenter(scroll);
        scroll.getStyleClass().add("sheet");
        scroll.setPannable(true);
        scroll.setMinWidth(0);
        view.setId("trail-picture");
        view.setPreserveRatio(true);
    }

    Node node() {
        return pane;
    }

    /** As wide as there is room, but never so small that words cannot be read. */
    private void fit() {
        double room = scroll.getViewportBounds().getWidth();
        if (wide > 0 && room > 0) {
            view.setFitWidth(Math.min(wide, Math.max(LEAST * wide, room)));
        }
    }

    void show(Ledger.@Nullable Line line) {
        Palette palette = session.palette();
        Object key = line == null ? palette : List.of(line, palette);
        if (key.equals(shown)) {
            return;
        }
        shown = key;
        view.setImage(null);
        if (line == null || line.trail().steps().isEmpty()) {
            title.setText(line == null ? "No numbers yet" : line.item() + ": there is no number, and so no trail");
            return;
        }
        title.setText(line.id() + "  " + line.item() + (line.what().isBlank() ? "" : ", " + line.what())
                + (line.lane().isBlank() ? "" : ", " + line.lane()));
        double sharp = Images.sharpness();
        Thread.ofVirtual().start(() -> {
            var picture = new TrailPicture(TrailGraph.of(List.of(line.trail())));
            int w = (int) Math.ceil(picture.width());
            int h = (int) Math.ceil(picture.height());
            BufferedImage drawn = Export.image(w, h, sharp, g -> picture.paint(g, w, h, palette));
            Image image = Images.of(drawn);
            Platform.runLater(() -> {
                if (Objects.equals(shown, key)) {
                    view.setImage(image);
                    wide = w;
                    fit();
                }
            });
        });
    }
}
