package lane.desk;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.base.Plain;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;

/** Small makers for the controls that all views share, so that they look and speak alike. */
public final class Ui {
    /** Where the columns of lanes begin, and how wide each is: the same in the lane bar and in every table. */
    public static final double LANES_AT = 246;

    /** Six lanes stand beside a form in a window of 1280. */
    public static final double PITCH = 116;

    /** How much of it a chip or a number takes. */
    public static final double CHIP = PITCH - 6;

    private Ui() {}

    public static Label label(String text, String... styles) {
        var label = new Label(text);
        label.getStyleClass().addAll(styles);
        return label;
    }

    /** A label that keeps its width where others give way. */
    public static Label firm(Label label) {
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    public static FontIcon icon(Feather kind) {
        var icon = new FontIcon(kind);
        icon.getStyleClass().add("icon");
        return icon;
    }

    /** The same smaller and muted, for lists and captions. */
    public static FontIcon smallIcon(Feather kind) {
        FontIcon icon = icon(kind);
        icon.getStyleClass().add("small-icon");
        return icon;
    }

    public static Button button(String text, Runnable action, String... styles) {
        var button = new Button(text);
        button.setMnemonicParsing(false);
        button.getStyleClass().addAll(styles);
        button.setOnAction(e -> action.run());
        button.setAccessibleText(text);
        button.setMinWidth(Region.USE_PREF_SIZE);
        return button;
    }

    /** A button that is only an icon, with its word as a tooltip. */
    public static Button iconButton(Feather kind, String word, Runnable action) {
        var button = new Button("", icon(kind));
        button.getStyleClass().add("icon-button");
        Tip.on(button, word);
        button.setAccessibleText(word);
        button.setOnAction(e -> action.run());
        return button;
    }

    /** A number field that hands over its number on Enter or when left; what is no number is marked and kept. */
    public static TextField number(String id, double value, Consumer<Double> changed) {
        return number(id, value, "", changed);
    }

    /** A number in a unit; one typed with another unit, as in 1.5 "in", is converted. */
    public static TextField number(String id, double value, String unit, Consumer<Double> changed) {
        return parsed(id, value, Ui::shortest, text -> lane.formula.Amount.of(text, lane.unit.Unit.of(unit)), changed);
    }

    /** Several numbers in a unit, as in 0, 45, 90 or 0 to 345 step 15. */
    public static TextField numbers(String id, List<Double> values, String unit, Consumer<List<Double>> changed) {
        return parsed(
                id,
                values,
                all -> String.join(", ", all.stream().map(Ui::shortest).toList()),
                text -> lane.formula.Amounts.of(text, lane.unit.Unit.of(unit)),
                changed);
    }

    private static <T> TextField parsed(
            String id, T value, Function<T, String> write, Function<String, T> read, Consumer<T> changed) {
        var field = Entry.of(new TextField(write.apply(value)));
        field.setId(id);
        field.getStyleClass().add("number");
        String[] known = {write.apply(value)};
        Runnable commit = () -> {
            try {
                T v = read.apply(field.getText());
                field.pseudoClassStateChanged(WRONG, false);
                Entry.said(field);
                Tip.on(field, "");
                if (!write.apply(v).equals(known[0])) {
                    known[0] = write.apply(v);
                    changed.accept(v);
                }
            } catch (lane.base.LaneException e) {
                field.pseudoClassStateChanged(WRONG, true);
                Tip.on(field, e.getMessage());
            }
        };
        field.setOnAction(e -> commit.run());
        field.focusedProperty().addListener((o, was, is) -> {
            if (!is && !Entry.rebuilding()) {
                commit.run();
            }
        });
        return field;
    }

    private static final javafx.css.PseudoClass WRONG = javafx.css.PseudoClass.getPseudoClass("wrong");

    /** Up to seven significant digits, without trailing zeros. */
    public static String shortest(double v) {
        var text = new java.math.BigDecimal(v, new java.math.MathContext(7)).stripTrailingZeros();
        return Math.abs(v) >= 1e9 || v != 0 && Math.abs(v) < 1e-6 ? text.toString() : text.toPlainString();
    }

    /** A text field that hands over its text on Enter or when left. */
    public static TextField text(String id, String value, Consumer<String> changed) {
        var field = Entry.of(new TextField(value));
        field.setId(id);
        // Enter hands over, and so does leaving: the same text only once.
        String[] known = {value};
        Runnable commit = () -> {
            Entry.said(field);
            if (!field.getText().equals(known[0])) {
                known[0] = field.getText();
                changed.accept(field.getText());
            }
        };
        field.setOnAction(e -> commit.run());
        field.focusedProperty().addListener((o, was, is) -> {
            if (!is && !Entry.rebuilding()) {
                commit.run();
            }
        });
        return field;
    }

    /** A choice among items shown by a word. */
    public static <T> ComboBox<T> choice(
            String id, List<T> items, @Nullable T value, Function<T, String> word, Consumer<T> changed) {
        ComboBox<T> box = new Choice<>(word);
        box.setId(id);
        box.getItems().setAll(items);
        box.setValue(value);
        box.setCellFactory(v -> cell(word));
        // Of a value that is not among the items the box asks the converter and not the cell.
        box.setConverter(new javafx.util.StringConverter<>() {
            @Override
            public String toString(T item) {
                return item == null ? "" : word.apply(item);
            }

            @Override
            public T fromString(String text) {
                throw new UnsupportedOperationException("nothing is typed here");
            }
        });
        box.setButtonCell(cell(word));
        box.setOnAction(e -> {
            if (box.getValue() != null && !box.getValue().equals(value)) {
                changed.accept(box.getValue());
            }
        });
        return box;
    }

    private static <T> ListCell<T> cell(Function<T, String> word) {
        return new ListCell<>() {
            @Override
            protected void updateItem(T item, boolean empty) {
                super.updateItem(item, empty);
                setText(empty || item == null ? "" : word.apply(item));
            }
        };
    }

    /** A row of words of which one is chosen. */
    public static <T> HBox segments(List<T> items, T value, Function<T, String> word, Consumer<T> changed) {
        var group = new ToggleGroup();
        var box = new HBox();
        box.getStyleClass().add("segments");
        for (T item : items) {
            var button = new ToggleButton(word.apply(item));
            button.setMnemonicParsing(false);
            button.setToggleGroup(group);
            button.setSelected(item.equals(value));
            button.setMinWidth(Region.USE_PREF_SIZE);
            button.setOnAction(e -> {
                // A second click on the chosen word keeps it chosen.
                button.setSelected(true);
                if (!item.equals(value)) {
                    changed.accept(item);
                }
            });
            box.getChildren().add(button);
        }
        return box;
    }

    public static HBox row(double gap, Node... nodes) {
        var box = new HBox(gap, nodes);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    /** The panel at the right of a reading: as wide in all of them, and scrolling when it holds more than fits. */
    public static ScrollPane panel(VBox content) {
        content.getStyleClass().add("panel");
        content.setStyle("-fx-padding: 10 16 16 16;");
        var scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.setFitToHeight(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setMinWidth(338);
        scroll.setPrefWidth(338);
        scroll.setMaxWidth(338);
        return scroll;
    }

    /** So many of something, in words. */
    public static String count(int n, String word) {
        return Plain.count(n, word);
    }

    public static Region spring() {
        var region = new Region();
        HBox.setHgrow(region, Priority.ALWAYS);
        return region;
    }

    /** A label of fixed width, right-aligned: a column of numbers. */
    public static Label cell(String text, double width, String... styles) {
        Label label = label(text, styles);
        label.setMinWidth(width);
        label.setPrefWidth(width);
        label.setMaxWidth(width);
        label.setAlignment(Pos.CENTER_RIGHT);
        return label;
    }

    /** The same, left-aligned, with the whole text as a tooltip since it may be cut. */
    public static Label left(String text, double width, String... styles) {
        Label label = cell("", width, styles);
        label.setAlignment(Pos.CENTER_LEFT);
        fill(label, text);
        return label;
    }

    /** The same for the name of a lane: names of one kind often differ at their ends, so a long one is cut in its middle. */
    public static Label lane(String name, double width, String... styles) {
        Label label = left(name, width, styles);
        label.setTextOverrun(javafx.scene.control.OverrunStyle.CENTER_ELLIPSIS);
        return label;
    }

    /** Other text for such a label. */
    public static void fill(Label label, String text) {
        label.setText(text);
        Tip.on(label, text.length() > 12 ? text : "");
    }
}
