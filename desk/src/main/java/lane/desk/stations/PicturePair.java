package lane.desk.stations;

import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import lane.desk.Ui;
import lane.picture.field.Annotations;
import lane.picture.field.Camera;
import org.jspecify.annotations.Nullable;

/** One field picture, or two beside one another that are looked at from the same place. */
final class PicturePair extends HBox {
    private final FieldPane first = new FieldPane();
    private final FieldPane second = new FieldPane();
    private final Label firstName = Ui.label("", "picture-name");
    private final Label secondName = Ui.label("", "picture-name");
    private final StackPane right = new StackPane(second, secondName);

    PicturePair() {
        second.setId("field-beside");
        var left = new StackPane(first, firstName);
        for (var pane : List.of(left, right)) {
            HBox.setHgrow(pane, Priority.ALWAYS);
            pane.setMinWidth(0);
            pane.setPrefWidth(0);
        }
        for (Label name : List.of(firstName, secondName)) {
            StackPane.setAlignment(name, javafx.geometry.Pos.TOP_LEFT);
            name.setMouseTransparent(true);
            name.setTranslateX(12);
            name.setTranslateY(10);
            name.setWrapText(true);
        }
        keepLeft(firstName, left);
        keepLeft(secondName, right);
        right.getStyleClass().add("picture-beside");
        getChildren().add(left);
        first.onLook(c -> follow(second, c));
        second.onLook(c -> follow(first, c));
        each(p -> p.onResized(this::align));
        setMinWidth(0);
    }

    /** No wider than its words, nor than what the colour scale's own title leaves. */
    private static void keepLeft(Label name, StackPane pane) {
        javafx.beans.InvalidationListener fit = o ->
                name.setMaxWidth(Math.min(Math.ceil(name.prefWidth(-1)), pane.getWidth() - Annotations.BAR_WIDTH - 18));
        pane.widthProperty().addListener(fit);
        name.textProperty().addListener(fit);
        name.fontProperty().addListener(fit);
    }

    private void follow(FieldPane other, Camera camera) {
        if (two()) {
            other.follow(camera);
        }
    }

    /** The second looks from where the first does, at the same scale. */
    private void align() {
        if (two() && first.camera() != null && !first.camera().equals(second.camera())) {
            second.follow(first.camera());
        }
    }

    boolean two() {
        return getChildren().size() == 2;
    }

    FieldPane first() {
        return first;
    }

    FieldPane second() {
        return second;
    }

    void each(Consumer<FieldPane> what) {
        what.accept(first);
        what.accept(second);
    }

    /** @param beside null for one picture alone */
    void show(FieldPane.Content content, String name, FieldPane.@Nullable Content beside, String besideName) {
        if (beside == null) {
            getChildren().remove(right);
        } else if (!two()) {
            getChildren().add(right);
        }
        firstName.setText(beside == null ? "" : name);
        secondName.setText(besideName);
        firstName.setVisible(beside != null);
        first.show(content);
        if (beside != null) {
            second.show(beside);
            align();
        }
    }

    /** Both pictures at another scale, for a file. */
    BufferedImage picture(double scale) {
        if (!two()) {
            return first.picture(scale);
        }
        BufferedImage a = first.picture(scale);
        BufferedImage b = second.picture(scale);
        var out = new BufferedImage(a.getWidth() + b.getWidth(), Math.max(a.getHeight(), b.getHeight()), a.getType());
        Graphics2D g = out.createGraphics();
        g.drawImage(a, 0, 0, null);
        g.drawImage(b, a.getWidth(), 0, null);
        g.scale(scale, scale);
        names(g);
        g.dispose();
        return out;
    }

    void paint(Graphics2D g) {
        first.paint(g);
        if (two()) {
            g.translate(first.getWidth(), 0);
            second.paint(g);
            g.translate(-first.getWidth(), 0);
            names(g);
        }
    }

    private void names(Graphics2D g) {
        g.setFont(lane.picture.Fonts.semibold(13));
        g.setColor(first.palette().ink());
        g.drawString(firstName.getText(), 12, 24);
        g.drawString(secondName.getText(), (float) first.getWidth() + 12, 24);
    }
}
