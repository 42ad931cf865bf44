package lane.desk.shell;

import java.util.List;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import lane.check.Verdict;
import lane.desk.BuiltFrom;
import lane.desk.Marks;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.desk.View;
import lane.desk.cluster.ClusterForm;
import lane.desk.cluster.ClusterRun;
import lane.desk.cluster.PlacesForm;
import lane.study.Study;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;

/** Study name, the route of six stops, search or what is being done, undo, redo, theme. */
public final class Header implements View {
    /** As wide as the words of the search. */
    private static final double WORDS = 112;

    private static final List<String> STOPS =
            List.of("Intake", "Stations", "Quantities", "Readings", "Checks", "Ledger");
    private static final double FIRST = 306;

    private final Session session;
    private final Runnable search;
    private final ClusterRun cluster;
    private final ClusterForm form;
    private final Pane pane = new Pane();
    private final HBox left = Ui.row(12);
    private final HBox right = Ui.row(4);
    private final Pane route = new Pane();
    private final Region line = new Region();
    private final BuiltFrom builtName = new BuiltFrom();
    private final BuiltFrom builtRoute = new BuiltFrom();
    private final BuiltFrom builtRight = new BuiltFrom();

    public Header(Session session, Runnable search) {
        this.session = session;
        this.search = search;
        cluster = new ClusterRun(session, () -> news());
        form = new ClusterForm(session, cluster);
        pane.getStyleClass().add("header");
        pane.setMinHeight(44);
        pane.setPrefHeight(44);
        pane.setMaxHeight(44);
        line.getStyleClass().add("progress-line");
        pane.getChildren().addAll(left, route, right, line);
        left.setLayoutX(16);
        left.setPrefHeight(44);
        left.setPrefWidth(280);
        right.setPrefHeight(44);
        right.setAlignment(Pos.CENTER_RIGHT);
        pane.widthProperty().addListener((o, was, is) -> refresh());
    }

    /** Distance of the stops: less in a narrow window, so that search, undo and theme keep their place. */
    private double step() {
        return Math.max(92, Math.min(110, (pane.getWidth() - FIRST - 210) / 6));
    }

    private void layout() {
        double w = pane.getWidth();
        right.setPrefWidth(Math.max(0, w - FIRST - 6 * step() - 8));
        right.setLayoutX(w - right.getPrefWidth() - 12);
        line.resizeRelocate(0, 42, session.busy().isBlank() ? 0 : w * Math.max(0.02, session.progress()), 2);
    }

    @Override
    public Node node() {
        return pane;
    }

    @Override
    public void refresh() {
        var study = session.study();
        layout();
        long out = session.results().checks().values().stream()
                .filter(c -> c.verdict() == Verdict.OUT)
                .count();
        boolean dark = session.palette().dark();
        if (builtName.changed(study.name(), session.saved(), dark)) {
            name(study);
        }
        int unread = session.results().unread().size();
        if (builtRoute.changed(counts(study), session.stop(), unread, out, dark, step())) {
            route(study, (int) out);
        }
        if (builtRight.changed(
                session.busy(),
                Math.round(100 * session.progress()),
                session.history().undoes(),
                session.history().redoes(),
                cluster.waiting(),
                cluster.text(),
                dark)) {
            tools();
        }
        layout();
    }

    private void name(Study study) {
        var names = new VBox(
                Ui.label(study.name(), "section"),
                Ui.label(session.saved().isBlank() ? "opened" : session.saved(), "small", "muted"));
        names.setAlignment(Pos.CENTER_LEFT);
        names.setMaxWidth(130);
        left.getChildren().setAll(Ui.label("Crosscheck Lane", "wordmark"), divider(), names);
    }

    private void route(Study study, int out) {
        route.getChildren().clear();
        var rail = new Line(FIRST + 4, 31, FIRST + 5 * step() + 4, 31);
        rail.getStyleClass().add("rail");
        route.getChildren().add(rail);
        for (int i = 0; i < 6; i++) {
            stop(i, counts(study).get(i), out);
        }
    }

    private void tools() {
        right.getChildren().setAll(session.busy().isBlank() ? searchButton() : working());
        Button undo = Ui.iconButton(
                Feather.CORNER_UP_LEFT, "Undo " + session.history().undoes().strip() + "  Ctrl+Z", session::undo);
        undo.setDisable(session.history().undoes().isBlank());
        Button redo = Ui.iconButton(
                Feather.CORNER_UP_RIGHT, "Redo " + session.history().redoes().strip() + "  Ctrl+Y", session::redo);
        redo.setDisable(session.history().redoes().isBlank());
        undo.setId("undo");
        redo.setId("redo");
        Button theme = Ui.iconButton(
                session.palette().dark() ? Feather.SUN : Feather.MOON, "Light or dark", session::toggleTheme);
        theme.setId("theme");
        right.getChildren().addAll(undo, redo, computing(), theme);
    }

    /** Where the study is computed, and where its files are. */
    private Node computing() {
        var menu = Named.menuButton("", Ui.icon(Feather.SERVER));
        menu.setId("computing");
        menu.setMinWidth(Region.USE_PREF_SIZE);
        if (cluster.waiting()) {
            menu.getStyleClass().add("teal");
        }
        menu.setAccessibleText("Where it is computed");
        Tip.on(
                menu,
                cluster.waiting()
                        ? "On the cluster: " + cluster.text()
                        : "Where it is computed, and where its files are");
        var again = Named.item("Compute here");
        again.setOnAction(e -> cluster.here());
        var far = Named.item("On a cluster…");
        far.setId("computing-cluster");
        far.setOnAction(e -> form.show(pane));
        var places = Named.item("Places of files…");
        places.setId("computing-places");
        places.setOnAction(e -> new PlacesForm(session).show(menu));
        menu.getItems().addAll(again, far, places);
        return menu;
    }

    /** There is news of the cluster. */
    private void news() {
        form.refresh();
        refresh();
    }

    /** The header of a window without a study: its route leads nowhere yet. */
    public static Node idle() {
        var pane = new Pane();
        pane.getStyleClass().add("header");
        pane.setMinHeight(44);
        pane.setMaxHeight(44);
        var left = Ui.row(12, Ui.label("Crosscheck Lane", "wordmark"));
        left.setLayoutX(16);
        left.setPrefHeight(44);
        double step = 110;
        var rail = new Line(FIRST + 4, 31, FIRST + 5 * step + 4, 31);
        rail.getStyleClass().add("rail");
        pane.getChildren().addAll(left, rail);
        for (int i = 0; i < STOPS.size(); i++) {
            var word = Ui.label(STOPS.get(i), "muted");
            word.setLayoutX(FIRST + i * step - 2);
            word.setLayoutY(5);
            var dot = new Circle(FIRST + i * step + 4.5, 31, 4.5);
            dot.getStyleClass().add("stop-dot");
            pane.getChildren().addAll(word, dot);
        }
        pane.setOpacity(0.7);
        return pane;
    }

    private static List<Integer> counts(Study study) {
        return List.of(
                study.sources().size(),
                study.stations().size(),
                study.quantities().size(),
                study.readings().size(),
                study.checks().size(),
                -1);
    }

    private static Node divider() {
        var region = new Region();
        region.setMinWidth(1);
        region.setMaxSize(1, 20);
        region.setStyle("-fx-background-color: -hair;");
        return region;
    }

    private void stop(int i, int count, int out) {
        boolean current = session.stop() == i + 1;
        var label =
                Ui.row(5, Ui.firm(Ui.label(STOPS.get(i), current ? "section" : "label", current ? "teal" : "label")));
        if (count >= 0) {
            // A number that is cut short would be another one.
            label.getChildren()
                    .add(Ui.firm(Ui.label(String.valueOf(count), count < 1000 ? "label" : "small", "muted")));
        }
        var button = new StackPane(label);
        button.setId("stop-" + (i + 1));
        button.getStyleClass().add("stop");
        button.setFocusTraversable(true);
        button.setAccessibleText("Stop " + (i + 1) + " " + STOPS.get(i));
        label.setMaxHeight(Region.USE_PREF_SIZE);
        StackPane.setAlignment(label, Pos.TOP_LEFT);
        button.setPrefSize(step() - 6, 40);
        button.setLayoutX(FIRST - 1);
        button.setLayoutX(FIRST + i * step() - 2);
        button.setLayoutY(3);
        button.setOnMouseClicked(e -> session.go(i + 1));
        button.setOnMouseDragEntered(e -> {
            if (session.carry().on()) {
                session.go(i + 1);
            }
        });
        button.setOnKeyPressed(e -> {
            if (e.getCode() == javafx.scene.input.KeyCode.ENTER || e.getCode() == javafx.scene.input.KeyCode.SPACE) {
                session.go(i + 1);
            }
        });
        Tip.on(button, "Key " + (i + 1));
        var dot = new Circle(FIRST + i * step() + 4.5, 31, current ? 5.5 : 4.5);
        dot.getStyleClass().add("stop-dot");
        if (current) {
            dot.getStyleClass().add("current");
        }
        dot.setMouseTransparent(true);
        route.getChildren().addAll(button, dot);
        Node sign = sign(i, out);
        if (sign != null) {
            sign.setMouseTransparent(true);
            sign.setLayoutX(FIRST + i * step() + 16);
            sign.setLayoutY(23);
            route.getChildren().add(sign);
        }
    }

    /** What needs attention at a stop, in two words on the rail. */
    private @Nullable Node sign(int i, int out) {
        var results = session.results();
        if (i == 0 && !results.unread().isEmpty()) {
            return tag(Ui.row(4, Ui.label(results.unread().size() + " not read", "small", "brick")));
        }
        if (i == 4 && out > 0) {
            return tag(Ui.row(3, Marks.verdict(Verdict.OUT), Ui.label(out + " out", "small", "brick")));
        }
        return null;
    }

    private static Node tag(HBox box) {
        box.setStyle("-fx-background-color: -sheet; -fx-padding: 0 3 0 3;");
        return box;
    }

    private Node searchButton() {
        var button = new Button("Find or do", Ui.icon(Feather.SEARCH));
        button.setId("search");
        button.setOnAction(e -> search.run());
        button.setPrefWidth(150);
        button.setMinWidth(40);
        button.setAlignment(Pos.CENTER_LEFT);
        // Where there is no room for its words, the glass says it better than the first of their letters.
        button.contentDisplayProperty()
                .bind(Bindings.when(button.widthProperty().lessThan(WORDS))
                        .then(ContentDisplay.GRAPHIC_ONLY)
                        .otherwise(ContentDisplay.LEFT));
        button.setAccessibleText(button.getText());
        Tip.on(button, "Find a station, reading or check, or do something  Ctrl+K");
        return button;
    }

    private Node working() {
        var what = Ui.label(session.busy(), "small");
        what.setMaxWidth(110);
        var cancel = Ui.button("Cancel", session::cancel, "small-button");
        return Ui.row(6, what, Ui.label(Math.round(100 * session.progress()) + " %", "small", "muted"), cancel);
    }
}
