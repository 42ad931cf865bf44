package lane.desk.shell;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import javafx.scene.layout.VBox;
import lane.base.Near;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.study.Source;

/** Finds an item of the study or does an action, by typing a part of its words. Ctrl+K opens it, Escape closes it. */
public final class CommandSearch {
    /** Something to find or to do. */
    public record Command(String words, String group, Runnable action) {
        @Override
        public String toString() {
            return words + "   " + group;
        }
    }

    private final Session session;
    private final List<Command> actions;
    private final Pane veil = new Pane();
    private final TextField field = new TextField();
    private final ListView<Command> list = new ListView<>();
    private final Label none = new Label();

    public CommandSearch(Session session, List<Command> actions) {
        this.session = session;
        this.actions = actions;
        var box = new VBox(8, field, list);
        box.getStyleClass().add("search-box");
        box.setStyle("-fx-padding: 10;");
        box.setPrefWidth(460);
        field.setId("search-field");
        field.setPromptText("Find or do");
        list.setPrefHeight(280);
        list.setId("search-list");
        list.setPlaceholder(none);
        none.setWrapText(true);
        none.setId("search-none");
        veil.getChildren().add(box);
        box.layoutXProperty()
                .bind(veil.widthProperty().subtract(box.widthProperty()).divide(2));
        box.setLayoutY(56);
        veil.setVisible(false);
        veil.setOnMousePressed(e -> {
            if (e.getTarget() == veil) {
                close();
            }
        });
        field.textProperty().addListener((o, was, is) -> fill(is));
        field.addEventFilter(javafx.scene.input.KeyEvent.KEY_PRESSED, e -> {
            int at = list.getSelectionModel().getSelectedIndex();
            if (e.getCode() == KeyCode.ESCAPE) {
                close();
            } else if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
                list.getSelectionModel().select(Math.max(0, at + (e.getCode() == KeyCode.DOWN ? 1 : -1)));
                e.consume();
            } else if (e.getCode() == KeyCode.ENTER) {
                run();
            }
        });
        list.setOnMouseClicked(e -> run());
    }

    public Node node() {
        return veil;
    }

    public void open() {
        veil.setVisible(true);
        veil.toFront();
        field.clear();
        fill("");
        field.requestFocus();
    }

    private void close() {
        veil.setVisible(false);
    }

    private void run() {
        Command chosen = list.getSelectionModel().getSelectedItem();
        close();
        if (chosen != null) {
            chosen.action().run();
        }
    }

    private void fill(String typed) {
        List<Command> all = new ArrayList<>(actions);
        var study = session.study();
        study.sources().forEach((Source s) -> all.add(go(s.name(), Chosen.SOURCE, 1, s.id())));
        study.stations().forEach(s -> all.add(go(s.name(), Chosen.STATION, 2, s.id())));
        study.quantities().forEach(q -> all.add(go(q.name(), Chosen.QUANTITY, 3, q.id())));
        study.readings().forEach(r -> all.add(go(r.name(), Chosen.READING, 4, r.id())));
        study.checks()
                .forEach(c -> all.add(go(
                        study.reading(c.reading()).map(r -> r.name()).orElse(c.id()) + ", "
                                + c.rule().measure(),
                        Chosen.CHECK,
                        5,
                        c.id())));
        String[] words = typed.toLowerCase(Locale.ROOT).strip().split("\\s+");
        list.getItems()
                .setAll(all.stream()
                        .filter(c -> {
                            String text = c.toString().toLowerCase(Locale.ROOT);
                            for (String w : words) {
                                if (!text.contains(w)) {
                                    return false;
                                }
                            }
                            return true;
                        })
                        .toList());
        list.getSelectionModel().selectFirst();
        if (list.getItems().isEmpty()) {
            nearest(all, typed);
        }
    }

    /** Nothing was found: what comes near is offered, and told as that. */
    private void nearest(List<Command> all, String typed) {
        List<Command> near = all.stream()
                .filter(c -> Near.distance(typed, c.words())
                        <= Math.max(2, typed.strip().length() / 3))
                .sorted(Comparator.comparingInt(c -> Near.distance(typed, c.words())))
                .limit(5)
                .toList();
        if (near.isEmpty()) {
            none.setText("Nothing is called \"" + typed.strip()
                    + "\". Type a part of the name of a source, a station, a quantity, a"
                    + " reading or a check, or of something to do.");
        } else {
            list.getItems().add(new Command("Nothing is called \"" + typed.strip() + "\"; near it:", "", () -> {}));
            list.getItems().addAll(near);
            list.getSelectionModel().select(1);
        }
    }

    private Command go(String name, Chosen what, int stop, String id) {
        return new Command(name, what.name().toLowerCase(Locale.ROOT), () -> {
            session.select(what, id);
            session.go(stop);
        });
    }
}
