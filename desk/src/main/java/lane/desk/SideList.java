package lane.desk;

import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;

/** The list at the left of a stop: items in groups, one of them selected; arrow keys walk through it. */
public final class SideList {
    /** @param note at the right in muted ink */
    public record Item(String id, String name, String note, Feather icon) {}

    /** A named run of items. */
    public record Group(String name, List<Item> items) {}

    private final BorderPane pane = new BorderPane();
    private final VBox rows = new VBox();
    private final BuiltFrom built = new BuiltFrom();
    private Supplier<Node> empty = Region::new;
    private BiConsumer<Node, String> made = (row, id) -> {};

    public SideList(String title, Node... actions) {
        pane.getStyleClass().add("side");
        pane.setMinWidth(Ui.LANES_AT);
        pane.setPrefWidth(Ui.LANES_AT);
        pane.setMaxWidth(Ui.LANES_AT);
        HBox top = Ui.row(6, Ui.label(title, "title"), Ui.spring());
        top.getChildren().addAll(actions);
        top.getStyleClass().add("toolbar");
        top.setMinHeight(40);
        pane.setTop(top);
        var scroll = new ScrollPane(rows);
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
        rows.getChildren().clear();
        if (none) {
            rows.getChildren().add(empty.get());
        }
        List<String> ids =
                groups.stream().flatMap(g -> g.items().stream()).map(Item::id).toList();
        for (Group group : groups) {
            if (group.items().isEmpty()) {
                continue;
            }
            HBox head = Ui.row(
                    6,
                    Ui.label(group.name(), "small", "muted"),
                    Ui.spring(),
                    Ui.label(String.valueOf(group.items().size()), "small", "muted"));
            head.setStyle("-fx-padding: 10 12 2 16;");
            rows.getChildren().add(head);
            for (Item item : group.items()) {
                Node row = row(item, item.id().equals(selected), ids, select);
                made.accept(row, item.id());
                rows.getChildren().add(row);
            }
        }
    }

    private static Node row(Item item, boolean selected, List<String> ids, Consumer<String> select) {
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
        row.setFocusTraversable(true);
        row.setAccessibleText(item.name() + (selected ? ", selected" : ""));
        row.setOnMouseClicked(e -> {
            row.requestFocus();
            select.accept(item.id());
        });
        row.setOnKeyPressed(e -> {
            int at = ids.indexOf(item.id());
            int to = e.getCode() == KeyCode.DOWN
                    ? at + 1
                    : e.getCode() == KeyCode.UP
                            ? at - 1
                            : e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE ? at : -1;
            if (to >= 0 && to < ids.size()) {
                select.accept(ids.get(to));
                e.consume();
            }
        });
        return row;
    }

    private static Node note(String text) {
        var label = Ui.label(text, "small", "muted");
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }
}
