package lane.desk.ledger;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import javafx.collections.FXCollections;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import lane.base.LaneException;
import lane.cli.Version;
import lane.desk.BuiltFrom;
import lane.desk.Session;
import lane.desk.Ui;
import lane.desk.View;
import lane.formats.io.FileNames;
import lane.formats.ledger.LedgerWriter;
import lane.formats.study.Drafts;
import lane.ledger.Ledger;
import lane.picture.Ticks;
import lane.provenance.Data;
import lane.provenance.Provenance;
import org.jspecify.annotations.Nullable;

/** The preview of the traceable table, the trail of the chosen number, and the export. */
public final class LedgerView implements View {
    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final ListView<Ledger.Line> list = new ListView<>();
    private final VBox detail = new VBox(6);
    private boolean filling;
    private Ledger.@Nullable Line shown;

    public LedgerView(Session session) {
        this.session = session;
        var side = new VBox(10);
        side.getStyleClass().add("side");
        side.setMinWidth(Ui.LANES_AT);
        side.setMaxWidth(Ui.LANES_AT);
        HBox title = Ui.row(8, Ui.label("Ledger", "title"));
        title.getStyleClass().add("toolbar");
        title.setMinHeight(40);
        var text = new VBox(
                8,
                Ui.label("What is written", "small", "muted"),
                Ui.label("ledger.csv", "section"),
                wrap("every number at full precision, one a line"),
                Ui.label("ledger.json", "section"),
                wrap("the trail of each number: files with SHA-256, field, quantity, station, settings, version, time"),
                Ui.label("definitions.json", "section"),
                wrap("the study as it was, so that the numbers can be computed anew"),
                Ui.label("profile-NAME.csv", "section"),
                wrap("the points of each curve, all lanes"),
                write());
        text.setStyle("-fx-padding: 4 16 0 16;");
        side.getChildren().addAll(title, text);
        pane.setLeft(side);
        list.setId("ledger-list");
        list.setFixedCellSize(25);
        list.setCellFactory(v -> new Row());
        list.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> show(is));
        HBox head = Ui.row(
                0,
                Ui.left("", 46),
                Ui.left("Item", 160, "small", "muted"),
                Ui.left("What", 160, "small", "muted"),
                Ui.left("Lane", 66, "small", "muted"),
                Ui.cell("Value", 96, "small", "muted"),
                Ui.left("", 8),
                Ui.left("Unit", 50, "small", "muted"),
                Ui.left("Verdict", 70, "small", "muted"));
        head.getStyleClass().addAll("table-row", "paper");
        head.setMinHeight(40);
        pane.setCenter(new BorderPane(list, head, null, null, null));
        detail.setStyle("-fx-padding: 10 16 16 16;");
        detail.getStyleClass().add("panel");
        var scroll = new javafx.scene.control.ScrollPane(detail);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(javafx.scene.control.ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setMinWidth(338);
        scroll.setMaxWidth(338);
        pane.setRight(scroll);
    }

    private static Node wrap(String text) {
        var label = Ui.label(text, "second", "muted");
        label.setWrapText(true);
        label.setMaxWidth(212);
        label.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        return label;
    }

    private Node write() {
        var main = Ui.button("Write ledger", () -> write(session), "main");
        main.setId("write-ledger");
        var folder = Ui.button("Folder…", () -> {
            var chooser = new DirectoryChooser();
            var chosen = chooser.showDialog(pane.getScene().getWindow());
            if (chosen != null) {
                write(session, chosen.toPath());
            }
        });
        HBox box = Ui.row(8, main, folder);
        box.setStyle("-fx-padding: 14 0 0 0;");
        return box;
    }

    /** Writes the ledger beside the study. */
    public static void write(Session session) {
        if (Drafts.holds(session.file())) {
            session.saveElsewhere();
            if (Drafts.holds(session.file())) {
                session.say(
                        "A ledger is written beside its study, and this one has no place yet; save it first, or choose a folder for"
                                + " the ledger.");
                return;
            }
        }
        write(session, session.file().toAbsolutePath().resolveSibling("ledger"));
    }

    private static void write(Session session, Path folder) {
        try {
            List<Path> files =
                    LedgerWriter.write(session.results(), folder, session.file(), Version.text(), Instant.now());
            java.nio.file.Files.size(files.getFirst());
            session.note("Wrote " + files.size() + " files to " + FileNames.brief(folder) + ".");
        } catch (LaneException e) {
            session.say(e.getMessage());
        } catch (IOException e) {
            session.say("The ledger could not be written: " + e.getMessage() + ".");
        }
    }

    private final BuiltFrom built = new BuiltFrom();

    @Override
    public Node node() {
        return pane;
    }

    @Override
    public void refresh() {
        if (!built.changed(System.identityHashCode(session.results()))) {
            return;
        }
        int at = list.getSelectionModel().getSelectedIndex();
        List<Ledger.Line> lines = Ledger.of(session.results()).lines();
        filling = true;
        list.setItems(FXCollections.observableArrayList(lines));
        list.getSelectionModel().select(Math.max(0, Math.min(at, lines.size() - 1)));
        filling = false;
        show(list.getSelectionModel().getSelectedItem());
    }

    private void show(Ledger.Line line) {
        if (filling || line != null && line.equals(shown)) {
            return;
        }
        shown = line;
        detail.getChildren().clear();
        if (line != null && !line.trail().steps().isEmpty()) {
            session.show("line " + line.id(), line::trail);
        }
        if (line == null) {
            detail.getChildren().add(Ui.label("No numbers yet", "muted"));
            return;
        }
        detail.getChildren()
                .addAll(
                        Ui.label("How the number came about", "title"),
                        Ui.label(line.item() + ", " + line.what(), "second"),
                        Ui.row(
                                8,
                                Ui.label(Ticks.number(line.value(), Double.NaN), "section"),
                                Ui.label(line.unit(), "muted"),
                                Ui.label(line.lane(), "muted")));
        if (!line.remark().isBlank()) {
            detail.getChildren().add(note(line.remark()));
        }
        for (Provenance.Input input : line.trail().inputs()) {
            detail.getChildren()
                    .add(pair(
                            "file",
                            input.path() + "\n" + input.sha256().substring(0, 32) + "\n"
                                    + input.sha256().substring(32) + "\n" + input.bytes() + " bytes"));
        }
        for (Provenance.Step step : line.trail().steps()) {
            var text = new StringBuilder(step.text());
            step.settings().forEach((k, v) -> {
                String value = Data.text(v);
                if (step.text().contains(value)) {
                    // The sentence says it.
                    return;
                }
                text.append('\n').append(k).append(": ");
                text.append(value.length() < 160 ? value : value.substring(0, 159) + "…");
            });
            text.append("\nmethod: ")
                    .append(step.method().name())
                    .append(", version ")
                    .append(step.method().version());
            detail.getChildren().add(pair(step.stop(), text.toString()));
        }
    }

    private static Node note(String text) {
        var label = Ui.label(text, "second");
        label.getStyleClass().add("note");
        label.setWrapText(true);
        label.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        return label;
    }

    private static Node pair(String key, String value) {
        var label = Ui.label(value, "mono");
        label.setWrapText(true);
        label.setMaxWidth(226);
        label.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        HBox row = Ui.row(8, Ui.left(key, 62, "small", "muted"), label);
        row.setAlignment(javafx.geometry.Pos.TOP_LEFT);
        row.getStyleClass().add("rule");
        return row;
    }

    /** One number of the preview. Its labels are made once and filled again, as an edit changes many rows at once. */
    private static final class Row extends ListCell<Ledger.Line> {
        private final Label id = Ui.cell("", 38, "small", "muted");
        private final Label item = Ui.left("", 160, "second");
        private final Label what = Ui.left("", 160, "second", "muted");
        private final Label lane = Ui.left("", 66, "second");
        private final Label value = Ui.cell("", 96, "second");
        private final Label unit = Ui.left("", 50, "small", "muted");
        private final Label verdict = Ui.left("", 70, "second");

        {
            // Long words end before the next column.
            item.setStyle("-fx-padding: 0 10 0 0;");
            what.setStyle("-fx-padding: 0 10 0 0;");
        }

        private final HBox row = Ui.row(0, id, Ui.left("", 8), item, what, lane, value, Ui.left("", 8), unit, verdict);

        @Override
        protected void updateItem(Ledger.Line line, boolean empty) {
            super.updateItem(line, empty);
            paint(isSelected());
            if (empty || line == null) {
                setGraphic(null);
                return;
            }
            id.setText(line.id());
            Ui.fill(item, line.item());
            Ui.fill(what, line.what());
            Ui.fill(lane, line.lane());
            value.setText(Ticks.number(line.value(), line.uncertainty()));
            Ui.fill(unit, line.unit());
            verdict.setText(line.verdict());
            verdict.getStyleClass().setAll("label", "second", verdict(line.verdict()));
            setGraphic(row);
        }

        @Override
        public void updateSelected(boolean selected) {
            super.updateSelected(selected);
            paint(selected);
        }

        private void paint(boolean selected) {
            setStyle("-fx-padding: 0; -fx-background-color: " + (selected ? "-teal-wash" : "-sheet") + ";");
        }
    }

    private static String verdict(String word) {
        return switch (word) {
            case "within" -> "pine";
            case "out" -> "brick";
            case "undecided" -> "ochre";
            default -> "muted";
        };
    }
}
