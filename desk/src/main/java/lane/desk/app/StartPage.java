package lane.desk.app;

import java.io.File;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.OverrunStyle;
import javafx.scene.control.ScrollPane;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import lane.base.Plain;
import lane.check.Verdict;
import lane.desk.Marks;
import lane.desk.Named;
import lane.desk.Openings;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.desk.shell.Header;
import lane.formats.io.FileNames;
import lane.formats.study.Drafts;
import lane.formats.study.Recents;
import lane.formats.study.StudyClaim;
import org.kordamp.ikonli.feather.Feather;

/** What is seen without a study: recent ones and what a crash left, as cards; and where to begin. */
final class StartPage {
    private static final double WIDE = 144;
    private static final double HIGH = 90;
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm");

    private final Openings open;
    private final Consumer<Drafts.Offer> takeUp;
    private final BorderPane frame = new BorderPane();
    private final StackPane root = new StackPane(frame);
    private final VBox cards = new VBox(8);
    private final Label trouble = Ui.label("", "brick");
    private List<Drafts.Offer> offers = List.of();
    private List<Recents.Entry> recent = List.of();

    /**
     * @param takeUp opens what was left unsaved
     * @param told a sentence of why something could not be opened; blank for none
     * @param dark how it looks at first
     */
    StartPage(Openings open, Consumer<Drafts.Offer> takeUp, String told, boolean dark) {
        this.open = open;
        this.takeUp = takeUp;
        root.getStyleClass().add("root");
        if (dark) {
            root.getStyleClass().add("dark");
        }
        frame.setTop(new VBox(Header.idle(), idleLanes(), tell(told)));
        var page = new HBox(36, studies(), beginning());
        page.setStyle("-fx-padding: 28 36 24 36;");
        frame.setCenter(page);
        root.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        root.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        root.setOnDragDropped(e -> {
            dropped(e.getDragboard().getFiles().stream().map(File::toPath).toList());
            e.setDropCompleted(true);
        });
        fill();
    }

    Parent root() {
        return root;
    }

    /** A study is opened; everything else begins a new one. */
    void dropped(List<Path> files) {
        files.stream().filter(FileNames::study).findFirst().ifPresentOrElse(open::study, () -> open.fresh(files));
    }

    private void key(KeyEvent e) {
        if (new KeyCodeCombination(KeyCode.O, KeyCombination.SHORTCUT_DOWN).match(e)) {
            choose();
        } else if (new KeyCodeCombination(KeyCode.N, KeyCombination.SHORTCUT_DOWN).match(e)) {
            open.fresh(List.of());
        } else {
            return;
        }
        e.consume();
    }

    private static Node idleLanes() {
        HBox bar = Ui.row(
                10,
                Ui.label("Lanes", "section"),
                Ui.label("one for each run and reference of a study", "small", "muted"));
        bar.getStyleClass().add("lane-bar");
        bar.setMinHeight(40);
        bar.setMaxHeight(40);
        bar.setStyle("-fx-padding: 0 16 0 16;");
        return bar;
    }

    private Node tell(String told) {
        trouble.setText(Plain.line(told));
        trouble.setId("start-trouble");
        trouble.setWrapText(true);
        var box = new HBox(trouble);
        box.setStyle(told.isBlank() ? "" : "-fx-padding: 14 36 0 36;");
        box.setManaged(!told.isBlank());
        return box;
    }

    private Node studies() {
        var scroll = new ScrollPane(cards);
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var box = new VBox(12, Ui.label("Recent studies", "title"), scroll);
        box.setMinWidth(0);
        box.setPrefWidth(720);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private Node beginning() {
        var words = Ui.label("Drop runs, tables or a study here", "section");
        var kinds = Ui.label(
                "A mesh with fields becomes a run, a table becomes a measurement, each a lane of its own.", "muted");
        kinds.setWrapText(true);
        kinds.setMaxWidth(280);
        kinds.setStyle("-fx-text-alignment: center;");
        var area = new VBox(10, Ui.icon(Feather.DOWNLOAD), words, kinds);
        area.setAlignment(Pos.CENTER);
        area.getStyleClass().add("drop");
        area.setMinSize(320, 240);
        VBox.setVgrow(area, Priority.ALWAYS);
        area.setMaxHeight(380);
        var fresh = Ui.button("New study", () -> open.fresh(List.of()), "main");
        fresh.setId("start-new");
        Tip.on(fresh, "An empty study; Ctrl+N");
        var other = Ui.button("Open…", this::choose);
        other.setId("start-open");
        Tip.on(other, "Runs, tables or a study from disk; Ctrl+O");
        var demo = Ui.button("Demo study", open::demo);
        demo.setId("start-demo");
        Tip.on(demo, "A made-up study to look around in; its files are made first");
        for (Region r : List.of(fresh, other, demo)) {
            r.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(r, Priority.ALWAYS);
            r.setMinHeight(32);
        }
        var box = new VBox(12, area, Ui.row(8, fresh, other, demo));
        box.setMinWidth(320);
        box.setMaxWidth(320);
        // As high as the cards' title stands, so that both columns begin on one line.
        box.setStyle("-fx-padding: 30 0 0 0;");
        return box;
    }

    private void choose() {
        var chooser = new FileChooser();
        chooser.setTitle("Open");
        List<File> chosen = chooser.showOpenMultipleDialog(root.getScene().getWindow());
        if (chosen != null && !chosen.isEmpty()) {
            dropped(chosen.stream().map(File::toPath).toList());
        }
    }

    private void fill() {
        offers = Drafts.offers();
        recent = Recents.all().stream()
                .filter(r -> offers.stream().noneMatch(o -> o.study().equals(r.study())))
                .toList();
        List<Node> made = new ArrayList<>();
        for (int i = 0; i < offers.size(); i++) {
            made.add(card(offers.get(i), i));
        }
        for (int i = 0; i < recent.size(); i++) {
            made.add(card(recent.get(i), i));
        }
        if (made.isEmpty()) {
            var none = Ui.label(
                    "Studies that you saved are listed here with their verdicts. Begin with your own files, or look around in the"
                            + " demo study.",
                    "muted");
            none.setWrapText(true);
            made.add(none);
        }
        cards.getChildren().setAll(made);
    }

    private Node card(Recents.Entry e, int number) {
        var card = card(
                e.picture(),
                e.name(),
                "opened " + new Drafts.Offer(e.study(), e.study(), e.name(), e.when()).age(Instant.now()),
                e.study(),
                verdicts(e.verdicts()),
                () -> open.study(e.study()));
        card.setId("recent-" + number);
        StudyClaim.holder(e.study())
                .ifPresent(h -> words(card).getChildren().add(Ui.label("open by " + h.words(), "small", "ochre")));
        var more = Named.menuButton("", Ui.smallIcon(Feather.MORE_HORIZONTAL));
        more.getStyleClass().add("small-menu");
        more.setAccessibleText("More for " + e.name());
        more.getItems()
                .addAll(item("Open", () -> open.study(e.study())), item("Take from this list; the study stays", () -> {
                    Recents.forget(e.study());
                    fill();
                }));
        card.getChildren().add(more);
        return card;
    }

    private Node card(Drafts.Offer offer, int number) {
        var since = LocalTime.ofInstant(offer.when(), ZoneId.systemDefault()).format(CLOCK);
        var words = Ui.row(
                6,
                Ui.label("not saved, from " + since, "ochre"),
                Ui.label(
                        "kept " + offer.age(Instant.now()) + "; nothing is lost until you throw it away",
                        "small",
                        "muted"));
        var card = card(
                offer.picture(),
                offer.name(),
                "",
                offer.placed() ? offer.study() : null,
                words,
                () -> takeUp.accept(offer));
        var opens = Ui.button("Open", () -> takeUp.accept(offer), "main");
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
            fill();
        });
        var buttons = new VBox(6, opens, throwAway);
        buttons.setAlignment(Pos.CENTER_RIGHT);
        card.getChildren().add(buttons);
        return card;
    }

    private static VBox words(HBox card) {
        return (VBox) card.getChildren().get(1);
    }

    private static HBox card(
            Optional<Path> picture,
            String name,
            String age,
            @org.jspecify.annotations.Nullable Path place,
            Node below,
            Runnable opens) {
        var title = Ui.label(Plain.line(name), "section");
        title.setMinWidth(0);
        var head = Ui.row(8, title, Ui.label(age, "small", "muted"));
        String path = place == null ? "never saved to a place of its own" : FileNames.brief(place);
        var where = Ui.label(path, "small", "muted");
        where.setTextOverrun(OverrunStyle.CENTER_ELLIPSIS);
        Tip.on(where, place == null ? "" : place.toString());
        var words = new VBox(4, head, where, below);
        words.setAlignment(Pos.CENTER_LEFT);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        var card = new HBox(14, picture(picture), words);
        card.setAlignment(Pos.CENTER_LEFT);
        card.getStyleClass().addAll("card", "study-card");
        card.setFocusTraversable(true);
        card.setAccessibleText("Study " + name + ", " + age + ", " + path);
        card.setOnMouseClicked(e -> {
            // What is pressed on the card itself acts for itself.
            boolean own = false;
            for (Node n = (Node) e.getTarget(); n != card && n != null; n = n.getParent()) {
                own |= n instanceof javafx.scene.control.ButtonBase;
            }
            if (e.isStillSincePress() && !own) {
                opens.run();
            }
        });
        card.setOnKeyPressed(e -> {
            if (e.getTarget() == card && (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE)) {
                opens.run();
                e.consume();
            }
        });
        return card;
    }

    private static Node verdicts(Map<Verdict, Integer> counts) {
        HBox row = Ui.row(12);
        for (Verdict v : Verdict.values()) {
            if (counts.containsKey(v)) {
                row.getChildren().add(Ui.row(4, Marks.verdict(v), Ui.label(counts.get(v) + " " + v.word(), "small")));
            }
        }
        if (counts.isEmpty()) {
            row.getChildren().add(Ui.label("no checks", "small", "muted"));
        }
        return row;
    }

    private static MenuItem item(String text, Runnable action) {
        var item = Named.item(text);
        item.setOnAction(e -> action.run());
        return item;
    }

    private static Node picture(Optional<Path> picture) {
        var frame = new StackPane();
        frame.setMinSize(WIDE, HIGH);
        frame.setMaxSize(WIDE, HIGH);
        frame.getStyleClass().add("note");
        frame.setStyle("-fx-padding: 0;");
        picture.ifPresentOrElse(
                file -> frame.getChildren()
                        .add(new ImageView(new Image(file.toUri().toString(), WIDE, HIGH, true, true))),
                () -> frame.getChildren().add(Ui.label("no picture yet", "small", "muted")));
        return frame;
    }
}
