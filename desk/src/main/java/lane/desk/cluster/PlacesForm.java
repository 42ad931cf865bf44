package lane.desk.cluster;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.Ui;
import lane.formats.FileLibrary;
import lane.study.Root;
import lane.study.Settings;
import lane.study.Study;
import lane.study.StudyFiles;

/** Where the study's files are on this machine and on a cluster, and where answers lie that were computed elsewhere. */
public final class PlacesForm {
    private static final double WIDE = 560;

    private final Session session;
    private final Popup popup = new Popup();
    private final VBox rows = new VBox(6);
    private final TextField pieces = new TextField();
    private final Label told = Ui.label("", "second");

    /** The fields of a root. */
    private record Row(TextField name, TextField here, TextField cluster, HBox node) {}

    private final List<Row> all = new ArrayList<>();

    public PlacesForm(Session session) {
        this.session = session;
        pieces.setId("places-pieces");
        pieces.setPrefWidth(376);
        pieces.setPromptText("such as ledger/spread/pieces");
        told.setId("places-told");
        told.setWrapText(true);
        told.setMaxWidth(WIDE);
        told.setMinHeight(Region.USE_PREF_SIZE);
        var note = Ui.label(
                "Paths that begin with a root's name in braces, such as {runs}/night/t*.vtu, start from its folder: here"
                        + " on the machine that looks, there on the cluster. Files in such a folder are named so when they are added.",
                "second",
                "muted");
        note.setWrapText(true);
        note.setMaxWidth(WIDE);
        note.setMinHeight(Region.USE_PREF_SIZE);
        var add = Ui.button("+ Root", () -> add(null), "small-button");
        add.setId("places-add");
        var apply = Ui.button("Apply", this::apply, "main");
        apply.setId("places-apply");
        var box = new VBox(
                10,
                Ui.label("Places of files", "section"),
                note,
                Ui.row(
                        8,
                        Ui.left("Name", 100, "second"),
                        Ui.left("Here", 200, "second"),
                        Ui.left("On the cluster", 200, "second")),
                rows,
                add,
                Ui.row(8, Ui.left("Answers computed elsewhere", 176, "second"), pieces),
                told,
                Ui.row(8, apply, Ui.button("Close", popup::hide)));
        box.getStyleClass().add("tooltip-card");
        box.setStyle("-fx-padding: 14;");
        box.setPrefWidth(WIDE + 28);
        popup.getContent().add(box);
        popup.setAutoHide(false);
        popup.setHideOnEscape(true);
    }

    public void show(Node beside) {
        rows.getChildren().clear();
        all.clear();
        Settings settings = session.study().settings();
        settings.roots().forEach(this::add);
        if (settings.roots().isEmpty()) {
            add(null);
        }
        pieces.setText(settings.pieces());
        told.setText("");
        var window = beside.getScene().getWindow();
        var at = beside.localToScreen(0, 0);
        popup.show(window, Math.max(window.getX() + 8, at.getX() - WIDE), at.getY() + 30);
    }

    private void add(@org.jspecify.annotations.Nullable Root root) {
        int n = all.size() + 1;
        var row = new Row(
                field("root-name-" + n, root == null ? "" : root.name(), 100, "runs"),
                field("root-here-" + n, root == null ? "" : root.here(), 200, "folder on this machine"),
                field("root-cluster-" + n, root == null ? "" : root.cluster(), 200, "folder on the cluster"),
                Ui.row(8));
        var remove = Ui.iconButton(org.kordamp.ikonli.feather.Feather.X, "Remove", () -> {
            all.remove(row);
            rows.getChildren().remove(row.node);
        });
        row.node.getChildren().addAll(row.name, row.here, row.cluster, remove);
        all.add(row);
        rows.getChildren().add(row.node);
    }

    private static TextField field(String id, String value, double wide, String prompt) {
        var made = new TextField(value);
        made.setId(id);
        made.setPrefWidth(wide);
        made.setMinWidth(wide);
        made.setPromptText(prompt);
        return made;
    }

    private void apply() {
        try {
            List<Root> roots = new ArrayList<>();
            for (Row row : all) {
                String name = row.name.getText().strip();
                String here = row.here.getText().strip();
                String there = row.cluster.getText().strip();
                if (!(name + here + there).isEmpty()) {
                    roots.add(new Root(name, here, there));
                }
            }
            Study before = session.study();
            Settings settings =
                    before.settings().withPlaces(roots, pieces.getText().strip());
            FileLibrary library = session.library();
            // Where the files are does not change by it: those that lie in a root are named from there.
            var was = new FileLibrary(library.folder());
            was.begin(before);
            var now = new FileLibrary(library.folder());
            now.begin(before.with(settings));
            int[] named = new int[1];
            Study after = StudyFiles.renamed(before, path -> {
                String other = now.named(was.resolve(path));
                named[0] += Root.of(roots, other).isPresent() ? 1 : 0;
                return other;
            });
            session.edit("Places of files", s -> after.with(settings));
            told.setText(
                    named[0] == 0
                            ? "Applied; no file of the study lies in a root."
                            : "Applied; " + Ui.count(named[0], "path") + " of the study "
                                    + (named[0] == 1 ? "starts" : "start") + " from a root.");
        } catch (LaneException e) {
            told.setText(e.getMessage());
        }
    }
}
