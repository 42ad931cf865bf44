package lane.desk.checks;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import lane.check.Check;
import lane.check.CheckResult;
import lane.desk.Named;
import lane.desk.Ui;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** CheckRows that the settings of several kinds of checks have. */
final class CheckRows {
    private CheckRows() {}

    /** A share is typed in percent, another tolerance in the reading's unit. */
    static TextField tolerance(double now, boolean absolute, Consumer<Double> typed) {
        var field = Ui.number("check-tolerance", absolute ? now : 100 * now, v -> typed.accept(absolute ? v : v / 100));
        field.setPrefWidth(72);
        return field;
    }

    static Node unit(@Nullable CheckResult result, boolean absolute) {
        Unit unit = result == null ? Unit.UNKNOWN : result.unit();
        return Ui.label(absolute ? unit.known() ? unit.difference().symbol() : "" : "%", "muted");
    }

    /**
     * A tolerance that is a share of one thing, or absolute.
     *
     * @param of what it is a share of
     */
    static Node tolerance(
            double now,
            boolean absolute,
            String of,
            @Nullable CheckResult result,
            Consumer<Double> typed,
            Consumer<Boolean> chosen) {
        return Ui.row(
                8,
                Ui.left("Tolerance", 72, "second"),
                tolerance(now, absolute, typed),
                unit(result, absolute),
                Ui.choice("check-scale", List.of(true, false), absolute, a -> a ? "absolute" : of, chosen));
    }

    /**
     * A tolerance on the board: the number, and what it is a share of.
     *
     * @param scales what it may be, {@code word} told in the menu and {@code brief} beside the number
     */
    static <S> Node inPlace(
            Check check,
            double now,
            boolean share,
            List<S> scales,
            S scale,
            Function<S, String> word,
            Function<S, String> brief,
            Consumer<Double> typed,
            Consumer<S> chosen) {
        var field =
                Ui.number("tolerance-" + check.id(), share ? 100 * now : now, v -> typed.accept(share ? v / 100 : v));
        field.getStyleClass().add("in-place");
        field.setPrefWidth(46);
        field.setMinWidth(46);
        var menu = Named.menuButton(brief.apply(scale));
        menu.setId("scale-" + check.id());
        menu.getStyleClass().addAll("small-menu", "in-place");
        menu.setMinWidth(56);
        menu.setMaxWidth(56);
        for (S s : scales) {
            var item = Named.radioItem(word.apply(s));
            item.setSelected(s.equals(scale));
            item.setOnAction(e -> chosen.accept(s));
            menu.getItems().add(item);
        }
        HBox row = Ui.row(1, field, menu);
        row.setAlignment(javafx.geometry.Pos.CENTER_RIGHT);
        // A click here is none on the row.
        row.setOnMouseClicked(javafx.event.Event::consume);
        return row;
    }

    /** A tolerance that is a share or absolute, on the board. */
    static Node inPlace(
            Check check,
            @Nullable CheckResult result,
            double now,
            boolean absolute,
            String of,
            Consumer<Double> typed,
            Consumer<Boolean> chosen) {
        String unit = symbol(result);
        return inPlace(
                check,
                now,
                !absolute,
                List.of(false, true),
                absolute,
                a -> a ? "absolute, in " + (unit.isEmpty() ? "the reading's unit" : unit) : "% " + of,
                a -> a ? unit : "%",
                typed,
                chosen);
    }

    static String symbol(@Nullable CheckResult result) {
        Unit unit = result == null ? Unit.UNKNOWN : result.unit();
        return unit.known() ? unit.difference().symbol() : "";
    }
}
