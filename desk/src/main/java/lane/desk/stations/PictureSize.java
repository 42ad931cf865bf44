package lane.desk.stations;

import java.util.Optional;
import javafx.scene.control.ButtonType;
import javafx.scene.control.Dialog;
import javafx.scene.layout.VBox;
import javafx.stage.Window;
import lane.desk.Ui;

/**
 * How large a picture is on paper.
 *
 * @param millimetres its width there; 0 for a point of the window to a point of paper
 * @param resolution pixels an inch
 */
record PictureSize(double millimetres, double resolution) {
    static final PictureSize PLAIN = new PictureSize(0, 216);
    private static final double MOST_PIXELS = 150e6;

    /**
     * Pixels to a point of the window, so that the picture comes out as wide.
     *
     * @param width in points
     */
    double pixelsAPoint(double width) {
        return millimetres == 0 ? resolution / 72 : Math.round(millimetres / 25.4 * resolution) / width;
    }

    double dpi(double width) {
        return resolution;
    }

    /** How tall letters of 12 points of the window come out on paper, in points. */
    double letters(double width) {
        return millimetres == 0 ? 12 : 12 * millimetres / 25.4 * 72 / width;
    }

    /**
     * Asks for width and resolution.
     *
     * @param width and {@code height}: of the window's picture, in points
     */
    static Optional<PictureSize> ask(Window owner, int width, int height) {
        var dialog = new Dialog<PictureSize>();
        dialog.initOwner(owner);
        dialog.setTitle("Save the picture");
        double[] now = {160, 300};
        var said = Ui.label("", "small", "muted");
        Runnable tell = () -> {
            var size = new PictureSize(now[0], now[1]);
            long w = Math.round(width * size.pixelsAPoint(width));
            long h = Math.round(height * size.pixelsAPoint(width));
            said.setText(w + " x " + h + " pixels; letters of "
                    + Ui.shortest(Math.round(10 * size.letters(width)) / 10.0) + " points on paper");
            dialog.getDialogPane().lookupButton(ButtonType.OK).setDisable((double) w * h > MOST_PIXELS || w < 16);
        };
        var wide = Ui.number("picture-width", now[0], "mm", v -> {
            now[0] = v;
            tell.run();
        });
        var dpi = Ui.number("picture-dpi", now[1], v -> {
            now[1] = v;
            tell.run();
        });
        dialog.getDialogPane()
                .setContent(new VBox(
                        8,
                        Ui.row(8, Ui.left("Width on paper", 110, "second"), wide, Ui.label("mm", "small", "muted")),
                        Ui.row(
                                8,
                                Ui.left("Resolution", 110, "second"),
                                dpi,
                                Ui.label("pixels an inch", "small", "muted")),
                        said));
        dialog.getDialogPane().getButtonTypes().addAll(ButtonType.OK, ButtonType.CANCEL);
        tell.run();
        dialog.setResultConverter(b -> b == ButtonType.OK ? new PictureSize(now[0], now[1]) : null);
        return dialog.showAndWait();
    }
}
