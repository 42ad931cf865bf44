package lane.desk.intake;

import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.field.Run;
import lane.field.RunHealth;
import lane.field.Treatment;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** A section of the sheet of a run. */
abstract class RunSection {
    final Session session;
    final Source.Simulation source;
    final Run run;
    final VBox sheet;
    /** Null where it is not known yet. */
    final RunHealth.@Nullable Report health;

    RunSection(Session session, Source.Simulation source, Run run, VBox sheet) {
        this.session = session;
        this.source = source;
        this.run = run;
        this.sheet = sheet;
        health = session.health(run);
    }

    /** Adds its rows to the sheet. */
    abstract void show();

    void treat(String name, UnaryOperator<Treatment> edit) {
        session.edit(
                name,
                s -> s.source(source.id()).orElse(null) instanceof Source.Simulation now
                        ? s.with(now.with(edit.apply(now.treatment())))
                        : s);
    }

    Treatment treatment() {
        return source.treatment();
    }

    void add(Node... nodes) {
        sheet.getChildren().addAll(nodes);
    }

    static Label note(String text, String... styles) {
        Label label = Ui.label(text, styles);
        label.setWrapText(true);
        label.setMinHeight(Region.USE_PREF_SIZE);
        return label;
    }
}
