package lane.desk.checks;

import java.awt.image.BufferedImage;
import java.util.Optional;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.image.ImageView;
import javafx.scene.layout.StackPane;
import lane.check.Check;
import lane.desk.Images;
import lane.desk.Session;
import lane.picture.Export;
import lane.picture.chart.ReadingChart;
import lane.reading.Reading;

/** The curves that a check compares, with their differences from its datum and its tolerance; drawn behind the window. */
final class CheckCurves {
    private static final int WIDE = 396;
    private static final int TALL = 230;

    private CheckCurves() {}

    /** Empty for what has no curve. */
    static Optional<Node> of(Session session, Check check) {
        return session.study()
                .reading(check.reading())
                .filter(Reading::curve)
                .map(r -> ReadingChart.of(session.study(), session.results(), r, check, session.palette()))
                .filter(c -> !c.curves().isEmpty())
                .map(c -> of(session, c));
    }

    private static Node of(Session session, ReadingChart chart) {
        var view = new ImageView();
        view.setFitWidth(WIDE);
        view.setFitHeight(TALL);
        var pane = new StackPane(view);
        pane.setId("check-curves");
        pane.setMinSize(WIDE, TALL);
        pane.setMaxSize(WIDE, TALL);
        pane.setAccessibleText("Curves of " + chart.reading().name() + " and their differences");
        double scale = Images.sharpness();
        var palette = session.palette();
        Thread.ofVirtual().start(() -> {
            BufferedImage image =
                    Export.image(WIDE, TALL, scale, g -> chart.figure(g, Reading::name, WIDE, TALL, palette));
            Platform.runLater(() -> view.setImage(Images.of(image)));
        });
        return pane;
    }
}
