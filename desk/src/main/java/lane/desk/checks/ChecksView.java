package lane.desk.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.check.AgainstDatum;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Closure;
import lane.check.Norm;
import lane.check.Scale;
import lane.desk.Chosen;
import lane.desk.Named;
import lane.desk.Nothing;
import lane.desk.Session;
import lane.desk.Ui;
import lane.desk.View;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.study.Board;
import lane.study.Study;

/** The crossing board: rows are checks, columns are lanes under their chips, then tolerance and verdict. */
public final class ChecksView implements View {
    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final VBox top = new VBox();
    private final HBox tools = Ui.row(10);
    private final Label summary = Ui.label("", "second");
    private final HBox head = new HBox();
    private final ListView<Item> rows = new ListView<>();
    private final TextField search = new TextField();
    private Board.Look look = Board.Look.ALL;
    private String opened = "";

    /** What stands in a line of the list; each line is another one, so that it is drawn anew. */
    private static final class Item {
        private final Supplier<Node> made;

        Item(Supplier<Node> made) {
            this.made = made;
        }
    }

    public ChecksView(Session session) {
        this.session = session;
        tools.getStyleClass().add("toolbar");
        tools.setMinHeight(40);
        summary.setWrapText(true);
        summary.setId("board-summary");
        summary.setMinHeight(Region.USE_PREF_SIZE);
        summary.setStyle("-fx-padding: 7 16 7 16;");
        search.setId("board-search");
        search.setPromptText("search");
        search.setPrefWidth(120);
        search.textProperty().addListener((o, was, now) -> {
            look = look.search(now);
            fill();
        });
        top.getChildren().addAll(tools, summary, head);
        HBox.setHgrow(head, Priority.ALWAYS);
        pane.setTop(top);
        // Only what is seen is made: there may be thousands of checks.
        rows.setId("board");
        rows.getStyleClass().add("board");
        rows.setFocusTraversable(false);
        rows.setCellFactory(v -> new ListCell<>() {
            {
                setStyle("-fx-padding: 0; -fx-background-color: transparent;");
                // Beside the bar that scrolls.
                prefWidthProperty().bind(v.widthProperty().subtract(18));
                setMaxWidth(Region.USE_PREF_SIZE);
            }

            @Override
            protected void updateItem(Item item, boolean empty) {
                super.updateItem(item, empty);
                Node made = empty || item == null ? null : item.made.get();
                if (made instanceof Region r) {
                    r.setMinWidth(0);
                    r.prefWidthProperty().bind(prefWidthProperty());
                    r.setMaxWidth(Region.USE_PREF_SIZE);
                }
                setGraphic(made);
                setText(null);
            }
        });
        pane.setCenter(rows);
        pane.getStyleClass().add("sheet");
    }

    /** Goes to the check of a reading, or makes one. */
    public static void openOrAdd(Session session, String reading) {
        Check found = session.study().checks().stream()
                .filter(c -> c.reading().equals(reading))
                .findFirst()
                .orElse(null);
        if (found == null) {
            String id = Study.freshId(
                    "check-" + reading,
                    session.study().checks().stream().map(Check::id).toList());
            session.study().reading(reading).ifPresent(r -> add(session, id, r));
        } else {
            session.select(Chosen.CHECK, found.id());
        }
        session.go(5);
    }

    @Override
    public Node node() {
        return pane;
    }

    @Override
    public void refresh() {
        tools.getChildren()
                .setAll(
                        Ui.label("Checks", "title"),
                        Ui.label(Ui.count(session.study().checks().size(), "check"), "muted", "small"));
        tools.getChildren().add(Ui.spring());
        tools.getChildren()
                .addAll(
                        search,
                        looked(
                                "board-show",
                                "Show",
                                List.of(Board.Show.values()),
                                look.show(),
                                Board.Show::word,
                                v -> look.show(v)),
                        looked(
                                "board-order",
                                "Order",
                                List.of(Board.Order.values()),
                                look.order(),
                                Board.Order::word,
                                v -> look.order(v)),
                        looked(
                                "board-grouping",
                                "Headings",
                                List.of(Board.Grouping.values()),
                                look.grouping(),
                                Board.Grouping::word,
                                v -> look.grouping(v)),
                        Templates.menu(session),
                        Nothing.unless(Ui.button("+ Add check", this::add, "small-button"), lacks()));
        summary.setText(Board.summary(session.results()));
        boolean any = !session.study().checks().isEmpty();
        summary.setVisible(any);
        summary.setManaged(any);
        Region titles = new BoardRow(session).head();
        HBox.setHgrow(titles, Priority.ALWAYS);
        titles.setStyle("-fx-padding: 0 18 0 0;");
        head.getChildren().setAll(titles);
        fill();
    }

    /** A choice of the board's own, which is no part of the study. */
    private <T> Node looked(
            String id, String title, List<T> all, T now, Function<T, String> word, Function<T, Board.Look> next) {
        var menu = Named.menuButton(title + ": " + word.apply(now));
        menu.setId(id);
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(Region.USE_PREF_SIZE);
        for (T item : all) {
            var one = Named.radioItem(word.apply(item));
            one.setSelected(item.equals(now));
            one.setOnAction(e -> {
                look = next.apply(item);
                refresh();
            });
            menu.getItems().add(one);
        }
        return menu;
    }

    private void fill() {
        List<Item> all = new ArrayList<>();
        var made = new BoardRow(session);
        int at = -1;
        for (Board.Section section : Board.of(session.results(), look)) {
            if (!section.name().isBlank()) {
                all.add(new Item(() -> heading(section)));
            }
            for (Check check : section.checks()) {
                CheckResult result = session.results().checks().get(check.id());
                all.add(new Item(() -> made.row(check, result)));
                if (check.id().equals(session.selected(Chosen.CHECK))) {
                    at = all.size() - 1;
                    if (!session.trailOf().equals("check " + check.id())) {
                        session.showCheck(check.id(), "");
                    }
                    all.add(new Item(() -> new CheckCard(session).show(check, result)));
                }
            }
        }
        if (session.study().checks().isEmpty()) {
            all.add(new Item(this::empty));
        } else if (all.isEmpty() && session.results().checks().isEmpty()) {
            // The first results are on their way.
            all.add(new Item(() -> Ui.label("")));
        } else if (all.isEmpty()) {
            all.add(new Item(() -> Nothing.here(
                    "No check is shown",
                    "None of the " + Ui.count(session.study().checks().size(), "check") + " is like that.",
                    List.of(new Nothing.Step("Show all", () -> {
                        look = Board.Look.ALL;
                        search.clear();
                        refresh();
                    })))));
        }
        rows.getItems().setAll(all);
        String open = session.selected(Chosen.CHECK);
        if (!open.equals(opened)) {
            opened = open;
            if (at >= 0) {
                // What was opened is seen as far as there is room, with the row above it.
                rows.scrollTo(Math.max(0, at - 1));
            }
        }
    }

    private static Node heading(Board.Section section) {
        HBox row = Ui.row(
                8,
                Ui.label(section.name(), "strong"),
                Ui.label(Ui.count(section.checks().size(), "check"), "small", "muted"));
        row.getStyleClass().addAll("table-row", "paper");
        row.setStyle("-fx-padding: 8 16 6 16;");
        return row;
    }

    private Node empty() {
        return session.study().readings().isEmpty()
                ? Nothing.here(
                        "No check yet",
                        "A check judges a reading: against a datum, a band, a closed balance or a trend. There is no reading to judge"
                                + " yet.",
                        List.of(new Nothing.Step("Go to Readings", () -> session.go(4))))
                : Nothing.here(
                        "No check yet",
                        "A check judges a reading: against a datum, a band, a closed balance or a trend. Its verdict is within, out or"
                                + " undecided.",
                        session.study().readings().stream()
                                .limit(6)
                                .map(r -> new Nothing.Step("Check " + r.name(), () -> openOrAdd(session, r.id())))
                                .toList());
    }

    /** What is lacking for a check, with the way to it. */
    private String lacks() {
        return session.study().readings().isEmpty()
                ? "A check judges a reading; there is none yet. Add one at Readings."
                : "";
    }

    private void add() {
        Reading reading = session.study().readings().stream()
                .filter(r -> session.study().checks().stream()
                        .noneMatch(c -> c.reading().equals(r.id())))
                .findFirst()
                .orElse(
                        session.study().readings().isEmpty()
                                ? null
                                : session.study().readings().getFirst());
        if (reading == null) {
            return;
        }
        String id = Study.freshId(
                "check-" + reading.id(),
                session.study().checks().stream().map(Check::id).toList());
        add(session, id, reading);
    }

    /** A check of the kind that suits what the answer is made of. */
    private static void add(Session session, String id, Reading reading) {
        var rule = reading.ask().form() == Ask.Form.TERMS
                ? new Closure(0.01, false)
                : new AgainstDatum(Norm.L2, Scale.RANGE, 0.01, "");
        session.edit(
                "Add check",
                s -> s.withChecks(l -> {
                    l.add(new Check(id, reading.id(), rule, List.of()));
                    return l;
                }));
        session.select(Chosen.CHECK, id);
    }
}
