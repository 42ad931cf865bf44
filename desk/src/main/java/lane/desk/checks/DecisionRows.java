package lane.desk.checks;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.check.Check;
import lane.check.Decision;
import lane.desk.Named;
import lane.desk.Ui;
import org.jspecify.annotations.Nullable;

/** A note on a check, or that its deviation is accepted: by whom, when and why. It goes into the ledger and changes no verdict. */
final class DecisionRows {
    private DecisionRows() {}

    static List<Node> of(Check check, Consumer<@Nullable Decision> changed) {
        Decision now = check.decision() == null ? new Decision(false, "", "", "") : check.decision();
        var because =
                Ui.text("decision-because", now.because(), t -> changed.accept(with(now.accepted(), t, now.by())));
        because.setPromptText("a note, or why the deviation is accepted");
        var accepted = Named.check("accepted");
        accepted.setId("decision-accepted");
        accepted.setSelected(now.accepted());
        accepted.setOnAction(e -> changed.accept(with(accepted.isSelected(), now.because(), now.by())));
        var by = Ui.text("decision-by", now.by(), t -> changed.accept(with(now.accepted(), now.because(), t)));
        by.setPromptText("name");
        by.setPrefWidth(110);
        return List.of(because, Ui.row(8, accepted, by, Ui.label(now.on(), "small", "muted")));
    }

    /** @return null where nothing is said any more */
    private static @Nullable Decision with(boolean accepted, String because, String by) {
        if (!accepted && because.isBlank() && by.isBlank()) {
            return null;
        }
        return new Decision(
                accepted,
                because.strip(),
                by.strip(),
                LocalDate.now(ZoneId.systemDefault()).toString());
    }
}
