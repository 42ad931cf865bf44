package lane.desk;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * Rows under a head. Of many only those that are seen are made, in a list of its own that can be searched. The list itself stays
 * when what is around it is built anew, and with it what is searched for and where it was scrolled to; only its rows are made
 * anew.
 */
public final class ManyRows {
    private static final int MANY = 30;
    private static final int FEW = 12;
    private static final double SHOWN = 12 * 35.0;

    /** What a user looks at in a list. */
    static final class Looked {
        String search = "";
        final ListView<Integer> rows = new ListView<>();
    }

    private ManyRows() {}

    /**
     * @param id of the list, from which that of the search is made
     * @param of what the rows belong to, so that a list of another thing is looked at from its beginning
     * @param word what a row is, such as {@code column}
     * @param names that are searched; blank for a line between the rows that is none of them
     * @param row makes the row of one
     */
    public static List<Node> of(
            Session session, String id, String of, String word, List<String> names, Node head, IntFunction<Node> row) {
        return of(session, id, of, word, names, head, row, MANY);
    }

    /**
     * The list of a whole side: as tall as there is room, and many only beyond so many.
     *
     * @param most rows that are all made
     * @param height of a row
     */
    public static List<Node> tall(
            Session session,
            String id,
            String word,
            List<String> names,
            Node head,
            IntFunction<Node> row,
            int most,
            double height) {
        List<Node> all = of(session, id, "", word, names, head, row, most);
        if (names.size() > most && all.getLast() instanceof ListView<?> list) {
            var top = (HBox) all.getFirst();
            top.setStyle("-fx-padding: 8 16 6 16;");
            // The search takes what the count leaves.
            var search = (TextField) top.getChildren().getFirst();
            search.setPrefWidth(80);
            HBox.setHgrow(search, Priority.ALWAYS);
            ((Label) top.getChildren().getLast()).setMinWidth(Region.USE_PREF_SIZE);
            // Else many more rows are made than are seen, to find out how tall all of them are.
            list.setFixedCellSize(height);
            list.setMinHeight(0);
            list.setPrefHeight(Region.USE_COMPUTED_SIZE);
            VBox.setVgrow(list, Priority.ALWAYS);
        }
        return all;
    }

    /** Brings a row into sight, where it is not. */
    public static void show(Session session, String id, int one) {
        ListView<Integer> rows = session.looked(id + " ").rows;
        int at = rows.getItems().indexOf(one);
        boolean seen = rows.lookupAll(".list-cell").stream()
                .anyMatch(c -> c instanceof ListCell<?> cell
                        && Integer.valueOf(one).equals(cell.getItem())
                        && cell.getBoundsInParent().getMinY() >= 0
                        && cell.getBoundsInParent().getMaxY() <= rows.getHeight());
        if (at >= 0 && !seen) {
            rows.scrollTo(at);
        }
    }

    private static List<Node> of(
            Session session,
            String id,
            String of,
            String word,
            List<String> names,
            Node head,
            IntFunction<Node> row,
            int most) {
        if (names.size() <= most) {
            var all = new ArrayList<Node>(List.of(head));
            IntStream.range(0, names.size()).mapToObj(row).forEach(all::add);
            return all;
        }
        Looked looked = session.looked(id + " " + of);
        ListView<Integer> rows = looked.rows;
        rows.setId(id);
        rows.getStyleClass().setAll("list-view", "board");
        rows.setFocusTraversable(false);
        rows.setPrefHeight(SHOWN);
        rows.setMinHeight(SHOWN);
        rows.setCellFactory(v -> new ListCell<>() {
            {
                setStyle("-fx-padding: 0; -fx-background-color: transparent;");
                // As wide as there is room, and no wider.
                setPrefWidth(0);
            }

            @Override
            protected void updateItem(@Nullable Integer one, boolean empty) {
                super.updateItem(one, empty);
                setGraphic(empty || one == null ? null : row.apply(one));
            }
        });
        Label count = Ui.label("", "small", "muted");
        var search = new TextField(looked.search);
        search.setId(id + "-search");
        search.setPromptText("search " + word + "s");
        search.setPrefWidth(200);
        Runnable fill = () -> {
            List<Integer> found = IntStream.range(0, names.size())
                    .filter(i -> found(names.get(i), search.getText()))
                    .boxed()
                    .toList();
            if (!rows.getItems().equals(found)) {
                rows.getItems().setAll(found);
            }
            int all = (int) names.stream().filter(n -> !n.isBlank()).count();
            int some = (int) found.stream().filter(i -> !names.get(i).isBlank()).count();
            count.setText(some == all ? Ui.count(all, word) : some + " of " + Ui.count(all, word));
        };
        search.textProperty().addListener((o, was, is) -> {
            looked.search = is;
            fill.run();
        });
        fill.run();
        return List.of(Ui.row(10, search, count), head, rows);
    }

    /** Of many notes the first ones, and how many others there are. */
    public static List<Node> few(List<? extends Node> all, String word) {
        if (all.size() <= FEW) {
            return List.copyOf(all);
        }
        var out = new ArrayList<Node>(all.subList(0, FEW - 2));
        out.add(Ui.label("and " + Ui.count(all.size() - out.size(), "more " + word), "small", "muted"));
        return out;
    }

    /** Which names are searched for in a list. */
    public static List<String> found(Session session, String id, String of, List<String> names) {
        String search = session.looked(id + " " + of).search;
        return names.stream().filter(n -> found(n, search)).toList();
    }

    private static boolean found(String name, String wanted) {
        return name.toLowerCase(Locale.ROOT).contains(wanted.strip().toLowerCase(Locale.ROOT));
    }
}
