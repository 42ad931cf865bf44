package lane.desk.cluster;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import javafx.stage.Popup;
import lane.desk.Session;
import lane.desk.Ui;
import lane.formats.cluster.Spread;

/** Gives the study to a cluster, and waits for it: into which folder, in how many jobs, and how far it is. */
public final class ClusterForm {
    private static final double WIDE = 490;

    private final Session session;
    private final ClusterRun run;
    private final Popup popup = new Popup();
    private final TextField folder = field("cluster-folder", "", 290);
    private final TextField nodes = field("cluster-nodes", "as many as it lets", 130);
    private final TextField perJob = field("cluster-per-job", "chosen", 130);
    private final TextField block = field("cluster-block", "10", 130);
    private final TextField options = field("cluster-options", "such as --partition=long --time=2:00:00", 330);
    private final Label told = Ui.label("", "second");
    private final Button start = Ui.button("Compute", this::start, "main");
    private final Button attach = Ui.button("Wait for one begun there", this::attach);
    private final Button leave;
    private final Button end;
    private final Button here;

    public ClusterForm(Session session, ClusterRun run) {
        this.session = session;
        this.run = run;
        folder.setText(session.file().toAbsolutePath().resolveSibling("ledger").toString());
        leave = Ui.button("Wait no longer", run::leave);
        end = Ui.button("End its jobs", run::end);
        here = Ui.button("Compute here", run::here);
        start.setId("cluster-start");
        attach.setId("cluster-attach");
        leave.setId("cluster-leave");
        end.setId("cluster-end");
        here.setId("cluster-here");
        told.setId("cluster-told");
        told.setWrapText(true);
        told.setMaxWidth(WIDE);
        told.setMinHeight(Region.USE_PREF_SIZE);
        var note = Ui.label(
                "The study is given to the scheduler Slurm as an array of jobs. The study's folder, its files and the"
                        + " folder of the ledger must lie on a disk that this machine and the cluster share.",
                "second",
                "muted");
        note.setWrapText(true);
        note.setMaxWidth(WIDE);
        note.setMinHeight(Region.USE_PREF_SIZE);
        var box = new VBox(
                10,
                Ui.label("Compute on a cluster", "section"),
                note,
                row("Folder of the ledger", folder, Ui.button("Choose…", this::choose, "small-button")),
                row("Jobs at once", nodes),
                row("Pieces a job", perJob),
                row("Times a piece", block),
                row("Further options", options),
                told,
                Ui.row(8, start, attach, leave, end, here, Ui.spring(), Ui.button("Close", popup::hide)));
        box.getStyleClass().add("tooltip-card");
        box.setStyle("-fx-padding: 14;");
        box.setPrefWidth(WIDE + 28);
        popup.getContent().add(box);
        popup.setAutoHide(false);
        popup.setHideOnEscape(true);
        refresh();
    }

    private static TextField field(String id, String prompt, double wide) {
        var made = new TextField();
        made.setId(id);
        made.setPromptText(prompt);
        made.setPrefWidth(wide);
        return made;
    }

    private static Node row(String word, Node... nodes) {
        var row = Ui.row(8, Ui.left(word, 132, "second"));
        row.getChildren().addAll(nodes);
        return row;
    }

    public void show(Node beside) {
        refresh();
        var at = beside.localToScreen(0, 0);
        var window = beside.getScene().getWindow();
        popup.show(window, Math.max(window.getX() + 8, window.getX() + window.getWidth() - WIDE - 60), at.getY() + 44);
        folder.requestFocus();
    }

    /** Shows what may be done now, and how far it is. */
    public void refresh() {
        boolean waiting = run.waiting();
        told.setText(run.text());
        for (Button b : List.of(start, attach)) {
            b.setVisible(!waiting);
            b.setManaged(!waiting);
        }
        for (Button b : List.of(leave, end)) {
            b.setVisible(waiting);
            b.setManaged(waiting);
        }
        boolean ended = !waiting && run.shown();
        here.setVisible(ended);
        here.setManaged(ended);
        for (TextField f : List.of(folder, nodes, perJob, block, options)) {
            f.setDisable(waiting);
        }
    }

    private void choose() {
        var chooser = new DirectoryChooser();
        chooser.setTitle("Folder of the ledger, on a disk that the cluster shares");
        var chosen = chooser.showDialog(popup.getOwnerWindow());
        if (chosen != null) {
            folder.setText(chosen.getPath());
        }
    }

    private void attach() {
        run.attach(Path.of(folder.getText().strip()));
    }

    private void start() {
        if (session.unsaved() || !Files.exists(session.file())) {
            told.setText("Save the study first: the cluster reads it from its file.");
            return;
        }
        int[] numbers = new int[3];
        List<TextField> fields = List.of(block, nodes, perJob);
        for (int i = 0; i < numbers.length; i++) {
            String text = fields.get(i).getText().strip();
            if (!text.isEmpty() && !text.matches("[1-9]\\d{0,6}")) {
                told.setText("\"" + text + "\" is no whole number from 1.");
                fields.get(i).requestFocus();
                return;
            }
            numbers[i] = text.isEmpty() ? 0 : Integer.parseInt(text);
        }
        String more = options.getText().strip();
        run.begin(new Spread.Asked(
                Objects.requireNonNull(session.file()).toAbsolutePath().normalize(),
                Path.of(folder.getText().strip()),
                Map.of(),
                List.of(),
                numbers[0],
                numbers[1],
                numbers[2],
                more.isEmpty() ? List.of() : Arrays.asList(more.split("\\s+"))));
    }
}
