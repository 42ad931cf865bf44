package lane.desk.quantities;

import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import javafx.geometry.Bounds;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import lane.desk.Session;
import lane.desk.Ui;
import lane.quantity.Quantity;
import org.jspecify.annotations.Nullable;

/** The formula of the selected quantity while it is typed: coloured and checked below it, with proposals. */
final class FormulaEditor extends VBox {
    private final Session session;
    private final Quantity quantity;
    private final TextField field;
    private final VBox said = new VBox(2);
    private final Popup popup = new Popup();
    private final VBox list = new VBox();
    private Completion.@Nullable State state;
    private int chosen;

    /** @param keep hands over a formula that is to be kept */
    FormulaEditor(Session session, Quantity quantity, Consumer<String> keep) {
        super(3);
        this.session = session;
        this.quantity = quantity;
        field = Ui.text("quantity-formula-" + quantity.id(), quantity.formula(), keep);
        field.getStyleClass().add("formula-field");
        field.setAccessibleText("Formula of " + quantity.name());
        list.getStyleClass().add("completion");
        popup.getContent().add(list);
        popup.setAutoHide(true);
        getChildren().addAll(field, said);
        field.textProperty().addListener((o, was, is) -> typed());
        field.caretPositionProperty().addListener((o, was, is) -> propose());
        field.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        field.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                popup.hide();
            }
        });
        tell();
    }

    private void typed() {
        tell();
        propose();
    }

    /** The formula in colours, and what is wrong or should be known. */
    private void tell() {
        Checked now = Checked.of(session, field.getText(), quantity.name(), quantity.unit());
        lane.formula.FormulaException wrong = now.wrong();
        said.getChildren()
                .setAll(FormulaText.of(
                        field.getText(), wrong != null ? wrong.from() : 0, wrong != null ? wrong.to() : 0));
        if (wrong != null) {
            boolean unfinished = wrong.unfinished();
            said.getChildren()
                    .add(line(
                            (unfinished ? "Not whole yet: " : "") + wrong.getMessage(),
                            unfinished ? "ochre" : "brick"));
        } else if (!now.unitTrouble().isEmpty()) {
            said.getChildren().add(line(now.unitTrouble(), "brick"));
        }
        now.notes().forEach(n -> said.getChildren().add(line(n, "ochre")));
    }

    private static Label line(String text, String style) {
        var label = Ui.label(text, "small", style);
        label.setWrapText(true);
        label.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        label.setMaxWidth(420);
        return label;
    }

    private void propose() {
        if (!field.isFocused() || field.getScene() == null) {
            return;
        }
        int caret = Math.min(field.getCaretPosition(), field.getText().length());
        state = Completion.of(session, field.getText(), caret, quantity.name());
        chosen = 0;
        if (state.proposals().isEmpty() && state.inside() == null) {
            popup.hide();
            return;
        }
        fill();
        Bounds b = field.localToScreen(field.getBoundsInLocal());
        if (b != null && !popup.isShowing()) {
            popup.show(field, b.getMinX() + 40, b.getMaxY() + 24);
        }
    }

    private void fill() {
        list.getChildren().clear();
        if (Objects.requireNonNull(state).inside() != null) {
            list.getChildren()
                    .add(new VBox(
                            1,
                            Ui.label(Objects.requireNonNull(state.inside()).signature(), "mono"),
                            Ui.label(state.inside().meaning(), "small", "muted")));
        }
        List<Completion.Proposal> all = state.proposals();
        for (int i = 0; i < all.size(); i++) {
            Completion.Proposal p = all.get(i);
            int at = i;
            HBox row = Ui.row(
                    8,
                    Ui.left(p.text(), 150, "mono"),
                    Ui.left(p.kind(), 60, "small", "muted"),
                    Ui.label(p.note(), "small", p.note().startsWith("not in") ? "ochre" : "muted"));
            row.getStyleClass().add("completion-row");
            if (i == chosen) {
                row.getStyleClass().add("chosen");
            }
            row.setOnMousePressed(e -> take(at));
            list.getChildren().add(row);
        }
        if (!all.isEmpty()) {
            list.getChildren().add(Ui.label("Tab takes it, Esc closes", "small", "muted"));
        }
    }

    private void key(KeyEvent e) {
        boolean open = popup.isShowing() && state != null && !state.proposals().isEmpty();
        if (e.getCode() == KeyCode.ESCAPE && popup.isShowing()) {
            popup.hide();
            e.consume();
        } else if (open && (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP)) {
            int n = Objects.requireNonNull(state).proposals().size();
            chosen = Math.floorMod(chosen + (e.getCode() == KeyCode.DOWN ? 1 : -1), n);
            fill();
            e.consume();
        } else if (open && e.getCode() == KeyCode.TAB) {
            take(chosen);
            e.consume();
        } else if (e.getCode() == KeyCode.ENTER) {
            popup.hide();
        }
    }

    private void take(int i) {
        String text = Objects.requireNonNull(state).proposals().get(i).text();
        int caret = field.getCaretPosition();
        field.replaceText(state.from(), caret, text);
        field.positionCaret(state.from() + text.length());
        popup.hide();
    }
}
