package lane.desk;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What stands where a list or a view has nothing yet: what belongs there, and the steps that make it. */
public final class Nothing {
    /**
     * A step.
     *
     * @param why it cannot be taken now; blank where it can
     */
    public record Step(String word, String why, Runnable act) {
        public Step(String word, Runnable act) {
            this(word, "", act);
        }
    }

    private Nothing() {}

    /** Steps that stand in a narrow column. */
    private static final int FEW = 8;

    /** Instead of a view, which may be lower than all of it. */
    public static Node page(String title, String what, List<Step> steps) {
        var scroll = new ScrollPane(here(title, what, steps));
        scroll.setFitToWidth(true);
        scroll.setFitToHeight(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        return scroll;
    }

    /** In the middle of a view. */
    public static Node here(String title, String what, List<Step> steps) {
        boolean few = steps.size() <= FEW;
        VBox box = box(title, what, steps, few ? 420 : 640);
        box.setAlignment(Pos.TOP_CENTER);
        box.setStyle("-fx-padding: " + (few ? 88 : 40) + " 24 24 24;");
        box.getStyleClass().add("sheet");
        return box;
    }

    /** In a side list. */
    public static Node aside(String what, List<Step> steps) {
        VBox box = box("", what, steps, 210);
        box.setStyle("-fx-padding: 16;");
        return box;
    }

    private static VBox box(String title, String what, List<Step> steps, double wide) {
        var box = new VBox(10);
        if (!title.isBlank()) {
            box.getChildren().add(Ui.label(title, "title"));
        }
        var words = Ui.label(what, "muted");
        words.setWrapText(true);
        words.setMaxWidth(wide);
        words.setMinHeight(Region.USE_PREF_SIZE);
        box.getChildren().add(words);
        var buttons = new FlowPane(8, 8);
        buttons.setMaxWidth(wide);
        buttons.setPrefWrapLength(wide);
        for (int i = 0; i < steps.size(); i++) {
            buttons.getChildren().add(button(steps.get(i), i == 0));
        }
        box.getChildren().add(buttons);
        steps.stream().filter(s -> !s.why.isBlank()).map(Step::why).distinct().forEach(why -> {
            var label = Ui.label(lane.base.Plain.title(why) + (why.endsWith(".") ? "" : "."), "small", "muted");
            label.setWrapText(true);
            label.setMaxWidth(wide);
            label.setMinHeight(Region.USE_PREF_SIZE);
            box.getChildren().add(label);
        });
        return box;
    }

    private static Node button(Step step, boolean first) {
        Button button = Ui.button(step.word, step.act);
        button.setId("step-" + step.word.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "-"));
        if (first) {
            button.getStyleClass().add("main");
        }
        return unless(button, step.why);
    }

    /** A button that cannot act is grey; over it, and for those who hear the window, stands why. */
    public static Node unless(Button button, String why) {
        if (why.isBlank()) {
            return button;
        }
        button.setDisable(true);
        button.setAccessibleHelp(why);
        // A disabled button hears no pointer, so what is around it does.
        var around = new javafx.scene.layout.StackPane(button);
        around.setMaxSize(Region.USE_PREF_SIZE, Region.USE_PREF_SIZE);
        Tip.on(around, why);
        return around;
    }
}
