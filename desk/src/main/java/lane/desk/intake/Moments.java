package lane.desk.intake;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import lane.desk.Entry;
import lane.desk.Named;
import lane.desk.Ui;
import lane.field.TimeSelector;
import lane.mesh.Finding;
import org.jspecify.annotations.Nullable;

/** Menus of stored times. */
public final class Moments {
    private static final int LISTED = 40;

    private Moments() {}

    static String text(double time) {
        return Double.isNaN(time) ? "no time" : "t = " + Finding.number(time, 6);
    }

    /**
     * Last, first, the stored times (evenly chosen ones, if there are many) and any value with a tolerance.
     *
     * @param follow whether the study's own choice can be followed, told as null
     */
    public static List<MenuItem> items(List<Double> times, boolean follow, Consumer<TimeSelector> chosen) {
        List<MenuItem> out = new ArrayList<>();
        if (follow) {
            out.add(item("as the study", () -> chosen.accept(null)));
        }
        out.add(item("last", () -> chosen.accept(TimeSelector.LAST)));
        out.add(item("first", () -> chosen.accept(new TimeSelector.First())));
        out.add(new SeparatorMenuItem());
        int listed = Math.min(times.size(), LISTED);
        for (int i = 0; i < listed; i++) {
            double t = times.get(listed == 1 ? 0 : (int) ((long) i * (times.size() - 1) / (listed - 1)));
            out.add(item(text(t), () -> chosen.accept(new TimeSelector.At(t, 0))));
        }
        var value = Entry.of(new TextField());
        value.setId("time-value");
        value.setPromptText("time");
        value.setPrefWidth(80);
        var within = Entry.of(new TextField());
        within.setId("time-tolerance");
        within.setPromptText("within");
        within.setPrefWidth(70);
        Runnable take = () -> {
            Double at = number(value);
            Double tolerance = within.getText().isBlank() ? (Double) 0.0 : number(within);
            if (at != null && tolerance != null) {
                chosen.accept(new TimeSelector.At(at, tolerance));
            }
        };
        value.setOnAction(e -> take.run());
        within.setOnAction(e -> take.run());
        var custom = new CustomMenuItem(
                Ui.row(6, value, Ui.label("±", "muted"), within, Ui.button("Take", take, "small-button")));
        custom.setHideOnClick(false);
        out.add(custom);
        return out;
    }

    private static @Nullable Double number(TextField field) {
        try {
            field.setStyle("");
            return Double.valueOf(field.getText().strip().replace(',', '.'));
        } catch (NumberFormatException e) {
            field.setStyle("-fx-border-color: -brick;");
            return null;
        }
    }

    private static MenuItem item(String text, Runnable action) {
        var item = Named.item(text);
        item.setOnAction(e -> action.run());
        return item;
    }
}
