package lane.desk;

import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;

/**
 * The list at the left of a stop: items in groups, one of them selected; arrow keys walk through it. Of many, only what is seen is
 * made, and they can be searched.
 */
public final class SideList {
    /** @param note at the right in muted ink */
    public record Item(String id, String name, String note, Feather icon) {}

    /** A named run of items. */
    public record Group(String name, List<Item> items) {}

    /** From more on they are a list that scrolls by itself; as high as one row. */
    private static final int MANY = 60;

    private static final double ROW = 28;

    /** A line of such a list: an item, or the head of a group. */
    private record Line(Group group, @Nullable Item item) {
        String name() {
            return item == null ? "" : item.name();
        }
    }

    private final Session session;
    private final String id;
    private final String word;
    private final BorderPane pane = new BorderPane();
    private final VBox rows = new VBox();
    private final ScrollPane scroll = new ScrollPane(rows);
    private final BuiltFrom built = new BuiltFrom();
    private Supplier<Node> empty = Region::new;
    private BiConsumer<Node, String> made = (row, id) -> {};

    /** @param word what an item is, such as {@code station} */
    public SideList(Session session, String title, String word, Node... actions) {
        this.session = session;
        this.word = word;
        id = word + "-list";
        pane.getStyleClass().add("side");
        pane.setMinWidth(Ui.LANES_AT);
        pane.setPrefWidth(Ui.LANES_AT);
        pane.setMaxWidth(Ui.LANES_AT);
        HBox top = Ui.row(6, Ui.label(title, "title"), Ui.spring());
        top.getChildren().addAll(actions);
        top.getStyleClass().add("toolbar");
        top.setMinHeight(40);
        pane.setTop(top);
        pane.setAccessibleText(title);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        pane.setCenter(scroll);
    }

    public Region node() {
        return pane;
    }

    /** @param made is asked for what stands here while the list is empty */
    public void whenEmpty(Supplier<Node> made) {
        empty = made;
    }

    /** @param told each row that is made, with its item's key */
    public void whenMade(BiConsumer<Node, String> told) {
        made = told;
    }

    public void fill(List<Group> groups, String selected, Consumer<String> select) {
        boolean none = groups.stream().allMatch(g -> g.items().isEmpty());
        // What an empty list offers depends on more than the list.
        if (!built.changed(groups, selected) && !none) {
            return;
        }
        List<Line> lines = groups.stream()
                .filter(g -> !g.items().isEmpty())
                .flatMap(g -> Stream.concat(
                        Stream.of(new Line(g, null)), g.items().stream().map(i -> new Line(g, i))))
                .toList();
        List<String> ids = lines.stream()
                .flatMap(l -> Stream.ofNullable(l.item))
                .map(Item::id)
                .toList();
        scroll.setFitToHeight(ids.size() > MANY);
        if (ids.size() > MANY) {
            many(lines, selected, select);
            return;
        }
        rows.getChildren().setAll(none ? List.of(empty.get()) : List.of());
        lines.forEach(l -> rows.getChildren().add(line(l, selected, ids, select, true)));
    }

    private void many(List<Line> lines, String selected, Consumer<String> select) {
        List<String> names = lines.stream().map(Line::name).toList();
        rows.getChildren()
                .setAll(ManyRows.tall(
                        session,
                        id,
                        word,
                        names,
                        new Region(),
                        i -> line(lines.get(i), selected, List.of(), select, false),
                        0,
                        ROW));
        var list = (ListView<?>) rows.getChildren().getLast();
        list.setFocusTraversable(true);
        list.setAccessibleText(pane.getAccessibleText() + "; the arrows select one");
        list.setOnKeyPressed(e -> {
            List<String> shown = list.getItems().stream()
                    .map(i -> lines.get((Integer) i))
                    .flatMap(l -> Stream.ofNullable(l.item))
                    .map(Item::id)
                    .toList();
            step(e, shown, selected, select);
        });
        for (int i = 0; i < lines.size(); i++) {
            Item item = lines.get(i).item;
            if (item != null && item.id().equals(selected)) {
                int at = i;
                // It knows what is seen once it is laid out.
                Platform.runLater(() -> ManyRows.show(session, id, at));
            }
        }
    }

    /** @param keys whether a row takes the keys; rows of a list come and go, so the list has them there */
    private Node line(Line line, String selected, List<String> ids, Consumer<String> select, boolean keys) {
        Item item = line.item;
        if (item == null) {
            HBox head = Ui.row(
                    6,
                    Ui.label(line.group.name(), "small", "muted"),
                    Ui.spring(),
                    Ui.label(String.valueOf(line.group.items().size()), "small", "muted"));
            head.setStyle(keys ? "-fx-padding: 10 12 2 16;" : "-fx-padding: 8 12 2 16; -fx-pref-height: " + ROW + ";");
            return head;
        }
        Node row = row(item, item.id().equals(selected), ids, select, keys);
        made.accept(row, item.id());
        return row;
    }

    private Node row(Item item, boolean selected, List<String> ids, Consumer<String> select, boolean keys) {
        var icon = Ui.smallIcon(item.icon());
        var name = Ui.label(item.name(), selected ? "section" : "label");
        name.setMinWidth(0);
        HBox row = Ui.row(9, icon, name, Ui.spring(), note(item.note()));
        row.setId("item-" + item.id());
        row.getStyleClass().add("list-row");
        if (selected) {
            row.getStyleClass().add("selected");
        }
        if (item.name().length() > 24) {
            Tip.on(row, item.name());
        }
        row.setFocusTraversable(keys);
        row.setAccessibleText(item.name() + (selected ? ", selected" : ""));
        row.setOnMouseClicked(e -> {
            (keys ? row : rows.getChildren().getLast()).requestFocus();
            select.accept(item.id());
        });
        row.setOnKeyPressed(e -> step(e, ids, item.id(), select));
        return row;
    }

    private static void step(KeyEvent e, List<String> ids, String from, Consumer<String> select) {
        int at = ids.indexOf(from);
        int to = e.getCode() == KeyCode.DOWN
                ? at + 1
                : e.getCode() == KeyCode.UP
                        ? at - 1
                        : e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE ? at : -1;
        if (to >= 0 && to < ids.size()) {
            select.accept(ids.get(to));
            e.consume();
        }
    }

    private static Node note(String text) {
        var label = Ui.label(text, "small", "muted");
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }
}
