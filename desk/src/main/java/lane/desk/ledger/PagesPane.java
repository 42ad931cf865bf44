package lane.desk.ledger;

import java.awt.image.BufferedImage;
import java.time.Instant;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import lane.cli.StudyFigures;
import lane.desk.Images;
import lane.desk.LongWork;
import lane.desk.Session;
import lane.desk.Ui;
import lane.formats.io.Version;
import lane.formats.ledger.Made;
import lane.formats.ledger.PdfPages;
import lane.study.Results;
import org.jspecify.annotations.Nullable;

/** The pages as they will stand on paper, one at a time; set behind the window when they are looked at. */
final class PagesPane {
    private static final float POINTS = 72;
    private static final double WIDEST = 1600;

    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final ImageView view = new ImageView();
    private final Label told = Ui.label("", "second", "muted");
    private final Label number = Ui.label("", "second");
    private final Button back = Ui.button("‹", () -> turn(-1), "small-button");
    private final Button on = Ui.button("›", () -> turn(1), "small-button");
    private final LongWork work;
    private @Nullable Results of;
    private @Nullable PdfPages pages;
    private int page;
    private double wide;

    PagesPane(Session session) {
        this.session = session;
        work = new LongWork("Setting the ledger's pages", told::setText, busy -> {});
        back.setId("page-back");
        on.setId("page-on");
        number.setId("page-number");
        back.setAccessibleText("The page before");
        on.setAccessibleText("The next page");
        told.setWrapText(true);
        HBox tools = Ui.row(8, back, number, on, told);
        tools.setStyle("-fx-padding: 8 16 8 16;");
        pane.setTop(tools);
        var middle = new StackPane(view);
        middle.setAlignment(Pos.TOP_CENTER);
        // Paper lies on a darker ground.
        middle.setStyle("-fx-padding: 14 16 16 16; -fx-background-color: -sunk;");
        view.setStyle("-fx-effect: dropshadow(gaussian, rgba(0,0,0,0.22), 6, 0, 0, 1);");
        var scroll = new ScrollPane(middle);
        scroll.setFitToWidth(true);
        scroll.setFitToHeight(true);
        scroll.setMinWidth(0);
        scroll.getStyleClass().add("sheet");
        pane.setCenter(scroll);
        pane.setMinWidth(0);
        view.setId("page-picture");
        view.setPreserveRatio(true);
        scroll.viewportBoundsProperty().addListener((o, was, is) -> fit(is.getWidth() - 40));
        session.whenClosed(work::cancel);
    }

    private void fit(double room) {
        if (room > 100 && Math.abs(room - wide) > 8) {
            wide = Math.min(WIDEST, room);
            view.setFitWidth(wide);
            if (pages != null) {
                draw();
            }
        }
    }

    Node node() {
        return pane;
    }

    /** Sets pages of the results that are shown, where these are others than before. */
    // Each evaluation gives results of its own, and comparing all numbers of two would take longer than this may.
    @SuppressWarnings("ReferenceEquality")
    void show() {
        Results now = session.results();
        buttons();
        if (now == of || work.running()) {
            return;
        }
        told.setText("Pages are being set");
        work.start(w -> PdfPages.of(now, Made.here(Version.text(), Instant.now()), new StudyFigures(), w), made -> {
            of = now;
            pages = made;
            page = Math.min(page, made.count() - 1);
            told.setText("");
            buttons();
            draw();
            if (session.results() != now) {
                show();
            }
        });
    }

    private void turn(int by) {
        if (pages != null && page + by >= 0 && page + by < pages.count()) {
            page += by;
            buttons();
            draw();
        }
    }

    private void buttons() {
        int count = pages == null ? 0 : pages.count();
        number.setText(count == 0 ? "" : "page " + (page + 1) + " of " + count);
        back.setDisable(page == 0);
        on.setDisable(page + 1 >= count);
    }

    private void draw() {
        PdfPages made = pages;
        if (made == null) {
            return;
        }
        int at = page;
        // A4 on its side, as wide as there is room.
        float dpi = (float) (POINTS * Math.max(400, wide) / 842 * Images.sharpness());
        Thread.ofVirtual().start(() -> {
            BufferedImage drawn = made.page(at, dpi);
            Image image = Images.of(drawn);
            javafx.application.Platform.runLater(() -> {
                if (made == pages && at == page) {
                    view.setImage(image);
                }
            });
        });
    }
}
