package lane.desk.intake;

import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.ShownPath;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.field.Run;
import lane.provenance.Provenance;
import lane.study.Source;

/** The sheet of one source: what was read from its files, with the units to confirm. */
final class SourceSheet {
    private SourceSheet() {}

    static Node of(Session session, Source source) {
        var sheet = new VBox(6);
        sheet.setStyle("-fx-padding: 0 20 16 20; -fx-background-color: -sheet;");
        var name = Ui.text(
                "source-name",
                source.name(),
                t -> session.edit(
                        "Rename source",
                        s -> s.with(s.source(source.id()).orElseThrow().named(t))));
        name.setMaxWidth(180);
        HBox top = Ui.row(
                10,
                name,
                Ui.spring(),
                transfer(session, source),
                saving(session, source),
                Ui.button(
                        "Remove",
                        () -> session.edit(
                                "Remove source",
                                s -> s.withSources(list -> {
                                    list.removeIf(x -> x.id().equals(source.id()));
                                    return list;
                                })),
                        "small-button"));
        top.setMinHeight(40);
        sheet.getChildren().add(top);
        String failure = session.results().failures().get(source.id());
        Run head = session.results().inPieces().get(source.id());
        if (failure != null) {
            var text = head == null ? Ui.label(failure, "trouble-text") : Ui.label(failure, "second");
            text.setWrapText(true);
            sheet.getChildren().add(text);
        }
        if (source instanceof Source.Simulation && session.changedOnDisk().contains(source.id())) {
            var text = Ui.label(
                    "Its files changed on disk after they were read; the numbers are those of the older files.",
                    "ochre",
                    "second");
            text.setWrapText(true);
            sheet.getChildren()
                    .add(Ui.row(
                            10,
                            text,
                            Ui.button("Read again", () -> session.reload(Set.of(source.id())), "small-button")));
        }
        switch (source) {
            case Source.Simulation s -> {
                Run run = session.results().runs().get(s.id());
                if (run == null && failure == null) {
                    sheet.getChildren()
                            .add(Ui.row(
                                    10,
                                    Ui.label("Not read yet.", "second", "muted"),
                                    Ui.button("Read now", session::evaluate, "small-button")));
                }
                if (run != null) {
                    new RunSheet(session, s, run, sheet).show();
                } else if (s.treatment().inPieces() != null || head != null) {
                    sheet.getChildren().add(ReadAs.of(session, s));
                }
                if (head != null) {
                    files(session, head.inputs(), sheet);
                }
            }
            case Source.Reference r -> new ReferenceSheet(session, r).addTo(sheet);
        }
        return sheet;
    }

    static String count(int n) {
        return String.format(Locale.ROOT, "%,d", n).replace(',', ' ');
    }

    private static String size(long bytes) {
        return bytes < 1_000_000
                ? String.format(Locale.ROOT, "%.1f kB", bytes / 1e3)
                : String.format(Locale.ROOT, "%.1f MB", bytes / 1e6);
    }

    static HBox line(boolean head, Node... cells) {
        HBox row = Ui.row(0, cells);
        row.getStyleClass().add("table-row");
        row.setMinHeight(head ? 24 : 28);
        return row;
    }

    static Node title(String name, String note) {
        HBox box = Ui.row(10, Ui.firm(Ui.label(name, "title")), Ui.label(note, "small", "muted"));
        box.setStyle("-fx-padding: 12 0 2 0;");
        return box;
    }

    /** To another run's mesh; where there is none, it says so. */
    private static Node transfer(Session session, Source source) {
        if (!(source instanceof Source.Simulation s)) {
            return new javafx.scene.layout.Region();
        }
        String lacks = TransferForm.lacks(session, s);
        var button = Ui.button("Transfer…", () -> {}, "small-button");
        button.setId("transfer");
        button.setOnAction(e -> new TransferForm(session, s).show(button));
        button.setDisable(!lacks.isBlank());
        var held = new javafx.scene.layout.StackPane(button);
        Tip.on(held, lacks.isBlank() ? "Bring its fields onto the mesh of another run" : lacks);
        return held;
    }

    private static Node saving(Session session, Source source) {
        var button = new javafx.scene.control.Button("Save as…");
        button.getStyleClass().add("small-button");
        Run run = session.results().runs().get(source.id());
        button.setVisible(run != null);
        button.setManaged(run != null);
        button.setOnAction(e -> {
            var chooser = new javafx.stage.FileChooser();
            chooser.setInitialFileName(source.name() + ".vtu");
            chooser.getExtensionFilters()
                    .addAll(
                            new javafx.stage.FileChooser.ExtensionFilter("Run with its fields", "*.vtu", "*.xdmf"),
                            new javafx.stage.FileChooser.ExtensionFilter("Surface", "*.vtp", "*.stl"));
            var file = chooser.showSaveDialog(button.getScene().getWindow());
            if (file != null) {
                session.saveRun(Objects.requireNonNull(run), file.toPath());
            }
        });
        return button;
    }

    static void files(Session session, List<Provenance.Input> inputs, VBox sheet) {
        sheet.getChildren().add(title("Files", ""));
        for (Provenance.Input input : inputs) {
            sheet.getChildren()
                    .add(line(
                            false,
                            ShownPath.of(session, input.path(), 230, "second"),
                            Ui.cell(size(input.bytes()), 90, "second"),
                            Ui.left("", 16),
                            Ui.left(input.sha256().substring(0, 16) + "…", 200, "mono", "muted")));
        }
    }
}
