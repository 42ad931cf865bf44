package lane.desk.intake;

import java.util.List;
import java.util.Optional;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.HBox;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.study.Source;

/** Whether a run that is stored in pieces is held whole or read one piece after the other. */
final class ReadAs {
    private ReadAs() {}

    static HBox of(Session session, Source.Simulation source) {
        ComboBox<Optional<Boolean>> choice = Ui.choice(
                "read-as",
                List.of(Optional.empty(), Optional.of(false), Optional.of(true)),
                Optional.ofNullable(source.treatment().inPieces()),
                v -> v.map(p -> p ? "piece by piece" : "whole").orElse("as its size decides"),
                v -> session.edit(
                        "How the run is read",
                        s -> s.with(source.with(source.treatment().inPieces(v.orElse(null))))));
        choice.setPrefWidth(150);
        Tip.on(
                choice,
                "Piece by piece takes the memory of the largest piece; there is no picture then, and nothing that looks across"
                        + " pieces, such as a gradient. Runs of 20 million cells and more are read so.");
        return Ui.row(8, Ui.label("Read", "second"), choice);
    }
}
