package lane.desk.ledger;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import javafx.application.Platform;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import lane.base.Figures;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Ui;
import lane.formats.io.FaultLog;
import lane.formats.io.FileNames;
import lane.formats.ledger.Reverify;
import lane.formats.ledger.Seal;
import lane.ledger.LedgerDiff;
import org.jspecify.annotations.Nullable;

/** A ledger verified: every number computed anew from the files, and line by line what is not as it was written. */
final class VerifyPane {
    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final VBox told = new VBox(3);
    private final ListView<Line> list = new ListView<>();
    private final Button run = Ui.button("Verify", this::again, "main");
    private final Label where = Ui.label("", "second", "muted");
    private final Label state = Ui.label("", "second");
    private @Nullable Path folder;
    private @Nullable Job job;

    /** What is told in a line, with the way to where it is defined. */
    private record Line(
            String mark, String item, String lane, String what, String why, LedgerDiff.@Nullable Change of) {}

    /** A verification under way. */
    private final class Job implements Work {
        private volatile boolean cancelled;

        @Override
        public boolean cancelled() {
            return cancelled;
        }

        @Override
        public void progress(String what, double fraction) {
            Platform.runLater(() -> {
                if (job == this) {
                    state.setText(what + ", " + Math.round(100 * fraction) + " %");
                }
            });
        }
    }

    VerifyPane(Session session) {
        this.session = session;
        run.setId("verify-run");
        state.setId("verify-state");
        var other = Ui.button("Another ledger…", () -> {
            var chooser = new DirectoryChooser();
            var chosen = chooser.showDialog(pane.getScene().getWindow());
            if (chosen != null) {
                folder = chosen.toPath();
                again();
            }
        });
        state.setWrapText(true);
        state.setMinHeight(Region.USE_PREF_SIZE);
        told.setStyle("-fx-padding: 0 16 8 16;");
        told.setId("verify-told");
        var tools = new FlowPane(10, 6, run, other, where);
        tools.setAlignment(Pos.CENTER_LEFT);
        tools.setStyle("-fx-padding: 10 16 6 16;");
        var box = new HBox(state);
        box.setStyle("-fx-padding: 0 16 6 16;");
        HBox.setHgrow(state, Priority.ALWAYS);
        pane.setTop(new VBox(tools, box, told));
        list.setId("verify-list");
        list.setMinWidth(0);
        list.setPlaceholder(Ui.label(
                "Every number is computed anew from its input files and compared with what the ledger says.",
                "second",
                "muted"));
        list.setCellFactory(v -> new Row());
        pane.setCenter(list);
        pane.setMinWidth(0);
        pane.getStyleClass().add("sheet");
        session.whenClosed(() -> {
            if (job != null) {
                job.cancelled = true;
            }
        });
    }

    Node node() {
        where.setText(FileNames.brief(folder()));
        return pane;
    }

    /** What is told is of a ledger that is no longer there. */
    void forget() {
        if (job == null && !state.getText().isEmpty()) {
            state.getStyleClass().removeAll("pine", "brick", "ochre");
            state.setText("The ledger was written anew since; verify it again.");
            told.getChildren().clear();
            list.getItems().clear();
        }
    }

    private Path folder() {
        return folder == null ? LedgerExport.folder(session) : folder;
    }

    private void again() {
        Job before = job;
        if (before != null) {
            before.cancelled = true;
            return;
        }
        Path at = folder();
        var now = new Job();
        job = now;
        where.setText(FileNames.brief(at));
        run.setText("Cancel");
        state.setText("Looking at the ledger");
        Thread.ofPlatform().daemon().name("verify").start(() -> {
            try {
                Reverify made = Reverify.of(at, Reverify.How.PLAIN, now);
                Seal seal = Seal.of(at);
                Platform.runLater(() -> done(now, () -> show(made, seal)));
            } catch (CancellationException e) {
                Platform.runLater(() -> done(now, () -> state.setText("Given up.")));
            } catch (LaneException e) {
                Platform.runLater(() -> done(now, () -> state.setText(e.getMessage())));
            } catch (RuntimeException | Error e) {
                String sentence = FaultLog.note("Verifying the ledger", e);
                Platform.runLater(() -> done(now, () -> state.setText(sentence)));
            }
        });
    }

    private void done(Job of, Runnable then) {
        if (job == of) {
            job = null;
            run.setText("Verify");
            then.run();
        }
    }

    private void show(Reverify made, @Nullable Seal seal) {
        LedgerDiff n = made.numbers();
        boolean sound = made.code() == 0;
        state.setText(Plain.count(n.same(), "number") + " the same to the bit, "
                + n.different().size() + " different, " + n.missing().size() + " missing"
                + (n.added().isEmpty() ? "" : ", " + n.added().size() + " new"));
        state.getStyleClass().removeAll("pine", "brick", "ochre");
        state.getStyleClass()
                .add(sound ? "pine" : n.different().isEmpty() && made.files().isEmpty() ? "ochre" : "brick");
        var in = made.inputs();
        told.getChildren()
                .setAll(
                        Ui.label(
                                Plain.count(in.same().size(), "input file") + " the same, "
                                        + in.changed().size() + " changed, "
                                        + in.moved().size() + " moved, "
                                        + in.missing().size()
                                        + " missing; "
                                        + (made.definitions().isEmpty()
                                                ? "definitions the same"
                                                : Plain.count(made.definitions().size(), "definition") + " changed"),
                                "second"),
                        Ui.label(
                                seal == null
                                        ? "No seal."
                                        : seal.words()
                                                + (Boolean.TRUE.equals(made.sealed())
                                                        ? " It holds."
                                                        : " It does not hold: the ledger was changed after."),
                                "second",
                                seal == null ? "muted" : Boolean.TRUE.equals(made.sealed()) ? "pine" : "brick"));
        if (session.unsaved() && made.study() != null) {
            told.getChildren()
                    .add(Ui.label(
                            "The window has changes that are not saved; the study was taken as it is on disk.",
                            "second",
                            "ochre"));
        }
        List<Line> lines = new ArrayList<>();
        n.different().forEach(c -> lines.add(line("different", c)));
        n.missing().forEach(c -> lines.add(line("missing", c)));
        made.files().forEach(f -> lines.add(new Line("changed", "the ledger's own file", "", "", f, null)));
        in.changed().forEach(f -> lines.add(new Line("changed", "input file", "", "", f, null)));
        in.moved().forEach((f, to) -> lines.add(new Line("moved", "input file", "", "", f + " to " + to, null)));
        in.missing().forEach(f -> lines.add(new Line("missing", "input file", "", "", f, null)));
        made.definitions().forEach(d -> lines.add(new Line("changed", "definition", "", "", d, null)));
        n.added().forEach(c -> lines.add(line("new", c)));
        list.setItems(FXCollections.observableArrayList(lines));
    }

    private static Line line(String mark, LedgerDiff.Change c) {
        String values = Double.isNaN(c.before()) && Double.isNaN(c.after())
                ? ""
                : number(c.before()) + " → " + number(c.after()) + (c.unit().equals("1") ? "" : " " + c.unit());
        return new Line(mark, c.item(), c.line().lane(), values, c.why(), c);
    }

    private static String number(double v) {
        return Double.isNaN(v) ? "none" : Figures.of(v, 7).plain(v);
    }

    /** To the check or reading that a line is about. */
    private void go(Line line) {
        LedgerDiff.Change c = line.of;
        if (c == null) {
            return;
        }
        boolean check = c.line().stop().equals("check");
        boolean there = check
                ? session.study().checks().find(c.line().of()).isPresent()
                : session.study().reading(c.line().of()).isPresent();
        if (there) {
            session.select(check ? Chosen.CHECK : Chosen.READING, c.line().of());
            session.go(check ? 5 : 4);
        }
    }

    private final class Row extends ListCell<Line> {
        Row() {
            setMinWidth(0);
            setPrefWidth(0);
            setOnMouseClicked(e -> {
                if (getItem() != null) {
                    go(getItem());
                }
            });
        }

        @Override
        protected void updateItem(Line line, boolean empty) {
            super.updateItem(line, empty);
            setText(null);
            if (empty || line == null) {
                setGraphic(null);
                return;
            }
            String tone = line.mark.equals("different") || line.mark.equals("changed")
                    ? "brick"
                    : line.mark.equals("missing") ? "ochre" : "muted";
            var head = Ui.row(
                    8,
                    Ui.left(line.mark, 66, "small", tone),
                    Ui.label(line.item + (line.lane.isBlank() ? "" : ", " + line.lane), "second", "strong"),
                    Ui.spring(),
                    Ui.label(line.what, "second"));
            var why = Ui.label(line.why, "small", "muted");
            why.setWrapText(true);
            why.setStyle("-fx-padding: 0 0 0 74;");
            why.setMinHeight(Region.USE_PREF_SIZE);
            var box = new VBox(2, head, why);
            box.setStyle("-fx-padding: 4 16 4 16;");
            box.maxWidthProperty().bind(list.widthProperty().subtract(20));
            setGraphic(box);
        }
    }
}
