package lane.desk.checks;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import lane.check.CheckResult;
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
}
