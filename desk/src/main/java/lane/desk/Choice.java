package lane.desk;

import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.Skin;
import javafx.scene.control.skin.ComboBoxListViewSkin;
import javafx.scene.text.Font;
import javafx.scene.text.Text;
import org.jspecify.annotations.Nullable;

/**
 * A box to choose one of a list from. The list joins the window when it is opened first: a form has dozens of such boxes, few of
 * which are opened, and each list would be styled and laid out with the form.
 */
final class Choice<T> extends ComboBox<T> {
    private static final int MEASURED = 100;

    private final Function<T, String> word;

    Choice(Function<T, String> word) {
        this.word = word;
    }

    @Override
    protected Skin<?> createDefaultSkin() {
        return new Late<>(this);
    }

    private static final class Late<T> extends ComboBoxListViewSkin<T> {
        private final Choice<T> box;

        Late(Choice<T> box) {
            super(box);
            this.box = box;
            getChildren().remove(getPopupContent());
        }

        @Override
        public void show() {
            Node list = getPopupContent();
            if (list.getParent() == null && list.getScene() == null) {
                getChildren().add(list);
                // How tall it is decides whether it opens below or above, which its rows tell once they are there.
                list.applyCss();
                list.autosize();
                if (list instanceof Parent rows) {
                    rows.layout();
                }
            }
            super.show();
        }

        /** As wide as its widest word, opened or not: what is chosen moves nothing. */
        @Override
        protected double computePrefWidth(double height, double top, double right, double bottom, double left) {
            Node arrow = box.lookup(".arrow-button");
            double own = left + getDisplayNode().prefWidth(-1) + (arrow == null ? 0 : arrow.prefWidth(-1)) + right;
            Font font = box.getButtonCell() == null
                    ? Font.getDefault()
                    : box.getButtonCell().getFont();
            // What it shows, which may not be its value yet.
            double now = getDisplayNode() instanceof Labeled shown ? width(shown.getText(), font) : 0;
            double most = box.getItems().stream()
                    .limit(MEASURED)
                    .mapToDouble(item -> width(item == null ? "" : box.word.apply(item), font))
                    .max()
                    .orElse(0);
            return own + Math.max(0, Math.ceil(most - now));
        }

        private static double width(@Nullable String word, Font font) {
            var text = new Text(word == null ? "" : word);
            text.setFont(font);
            return text.getLayoutBounds().getWidth();
        }
    }
}
