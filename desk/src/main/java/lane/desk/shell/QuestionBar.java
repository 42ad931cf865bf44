package lane.desk.shell;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import lane.desk.Question;
import lane.desk.Session;
import lane.desk.Ui;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;

/** What only the user can decide, under the header until it is answered. */
final class QuestionBar {
    private final Session session;
    private final VBox box = new VBox();
    private @Nullable Question shown;

    QuestionBar(Session session) {
        this.session = session;
        box.setId("question");
    }

    Node node() {
        return box;
    }

    void refresh() {
        Question now = session.question();
        if (Objects.equals(now, shown)) {
            return;
        }
        shown = now;
        if (now == null) {
            box.getChildren().clear();
            return;
        }
        var text = Ui.label(now.text());
        text.setWrapText(true);
        text.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        HBox.setHgrow(text, Priority.ALWAYS);
        text.setMaxWidth(Double.MAX_VALUE);
        List<Node> row = new ArrayList<>();
        row.add(Ui.icon(Feather.HELP_CIRCLE));
        row.add(text);
        for (int i = 0; i < now.answers().size(); i++) {
            Question.Answer a = now.answers().get(i);
            Button button =
                    Ui.button(a.word(), () -> session.answer(a), i == 0 ? new String[] {"main"} : new String[0]);
            button.setId("answer-" + i);
            row.add(button);
        }
        var bar = new HBox(10, row.toArray(Node[]::new));
        bar.setAlignment(Pos.CENTER_LEFT);
        bar.getStyleClass().add("question-bar");
        box.getChildren().setAll(bar);
    }
}
