package lane.desk.app;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ScrollPane;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import lane.base.Plain;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.formats.study.Drafts;

/** The page of studies that earlier sessions left unsaved: each with its name, its age and a picture, to be opened or thrown away. */
final class Unsaved {
    private static final double WIDE = 168;
    private final Consumer<Drafts.Offer> open;
    private final Runnable fresh;
    private final VBox rows = new VBox(10);
    private final List<Drafts.Offer> offers;
    private final StackPane root = new StackPane();

    /**
     * @param open opens one
     * @param fresh begins a new study; the offers stay for the next start
     */
    Unsaved(List<Drafts.Offer> offers, Consumer<Drafts.Offer> open, Runnable fresh) {
        this.offers = new ArrayList<>(offers);
        this.open = open;
        this.fresh = fresh;
        var title = Ui.label("Studies that were not saved", "title");
        var why = Ui.label(
                "Earlier sessions ended before these were saved. Nothing is lost until you throw it away.", "muted");
        why.setWrapText(true);
        var scroll = new ScrollPane(rows);
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var start = Ui.button("Begin a new study", fresh);
        start.setId("begin");
        var page = new VBox(
                12, Ui.label("Crosscheck Lane", "wordmark"), title, why, scroll, Ui.row(8, Ui.spring(), start));
        page.setMaxWidth(760);
        page.setStyle("-fx-padding: 40 20 24 20;");
        root.getStyleClass().add("root");
        root.getChildren().add(page);
        show();
    }

    Parent root() {
        return root;
    }

    private void show() {
        rows.getChildren().setAll(offers.stream().map(this::row).toList());
    }

    private Node row(Drafts.Offer offer) {
        int number = offers.indexOf(offer);
        var name = Ui.label(Plain.line(offer.name()), "section");
        var age = Ui.label("kept " + offer.age(Instant.now()), "muted");
        String path = offer.placed() ? offer.study().toString() : "never saved to a place of its own";
        var place = Ui.label(path, "small", "muted");
        place.setTextOverrun(javafx.scene.control.OverrunStyle.CENTER_ELLIPSIS);
        Tip.on(place, offer.placed() ? path : "");
        var words = new VBox(3, name, age, place);
        words.setAlignment(Pos.CENTER_LEFT);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        var opens = Ui.button("Open", () -> open.accept(offer), "main");
        opens.setId("open-" + number);
        var throwAway = Ui.button("Throw away", () -> {});
        throwAway.setId("discard-" + number);
        // Asked once more in its own place: there is no way back from it.
        throwAway.setOnAction(e -> {
            if (throwAway.getText().equals("Throw away")) {
                throwAway.setText("Really throw away");
                return;
            }
            offer.discard();
            offers.remove(offer);
            if (offers.isEmpty()) {
                fresh.run();
            } else {
                show();
            }
        });
        var card = new HBox(14, picture(offer), words, opens, throwAway);
        card.setAlignment(Pos.CENTER_LEFT);
        card.getStyleClass().add("card");
        return card;
    }

    private static Node picture(Drafts.Offer offer) {
        var frame = new StackPane();
        frame.setMinSize(WIDE, WIDE * 0.625);
        frame.setMaxSize(WIDE, WIDE * 0.625);
        frame.getStyleClass().add("note");
        offer.picture()
                .ifPresentOrElse(
                        file -> {
                            var view =
                                    new ImageView(new Image(file.toUri().toString(), WIDE, WIDE * 0.625, true, true));
                            frame.getChildren().add(view);
                        },
                        () -> frame.getChildren().add(Ui.label("no picture yet", "small", "muted")));
        return frame;
    }
}
