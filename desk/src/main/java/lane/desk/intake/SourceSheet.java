package lane.desk.intake;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Finding;
import lane.picture.Ticks;
import lane.quantity.FieldUnit;
import lane.study.Source;
import lane.trail.Trail;

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
        if (failure != null) {
            var text = Ui.label(failure, "trouble-text");
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
                if (run != null) {
                    run(session, s, run, sheet);
                    regions(session, s, run, sheet);
                }
            }
            case Source.Reference r -> new ReferenceSheet(session, r).addTo(sheet);
        }
        return sheet;
    }

    private static String count(int n) {
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
        HBox box = Ui.row(10, Ui.label(name, "title"), Ui.label(note, "small", "muted"));
        box.setStyle("-fx-padding: 12 0 2 0;");
        return box;
    }

    private static void run(Session session, Source source, Run run, VBox sheet) {
        for (String remark : run.remarks()) {
            var text = Ui.label(remark, "ochre", "second");
            text.setWrapText(true);
            sheet.getChildren().add(text);
        }
        double[] b = run.mesh().bounds();
        sheet.getChildren()
                .add(Ui.label(
                        String.format(
                                Locale.ROOT,
                                "%s cells, %s nodes; x %s to %s m, y %s to %s m, z %s to %s m",
                                count(run.mesh().cellCount()),
                                count(run.mesh().nodeCount()),
                                Ticks.brief(b[0]),
                                Ticks.brief(b[1]),
                                Ticks.brief(b[2]),
                                Ticks.brief(b[3]),
                                Ticks.brief(b[4]),
                                Ticks.brief(b[5])),
                        "second"));
        health(session, source, run, sheet);
        sheet.getChildren().add(title("Fields", "as stored; units marked guess want your word"));
        sheet.getChildren()
                .add(line(
                        true,
                        Ui.left("Field", 130, "small", "muted"),
                        Ui.left("Stored at", 80, "small", "muted"),
                        Ui.cell("Components", 80, "small", "muted"),
                        Ui.cell("Least", 92, "small", "muted"),
                        Ui.cell("Greatest", 92, "small", "muted"),
                        Ui.left("", 18),
                        Ui.left("Unit", 110, "small", "muted")));
        java.util.LinkedHashMap<String, Field> all = new java.util.LinkedHashMap<>();
        run.fields().forEach(f -> all.putIfAbsent(f.name(), f));
        run.parts().forEach(p -> p.fields().forEach(f -> all.putIfAbsent(f.name(), f)));
        all.values().forEach(f -> sheet.getChildren()
                .add(field(session, f, run.fields().contains(f))));
        sheet.getChildren()
                .add(title(
                        "Boundary parts",
                        Ui.count(run.parts().size(), "part") + ", faces turned to point out of the run"));
        sheet.getChildren()
                .add(line(
                        true,
                        Ui.left("Part", 130, "small", "muted"),
                        Ui.cell("Faces", 80, "small", "muted"),
                        Ui.cell("Turned", 80, "small", "muted"),
                        Ui.cell("Not on boundary", 110, "small", "muted")));
        for (Part p : run.parts()) {
            sheet.getChildren()
                    .add(line(
                            false,
                            Ui.left(p.name(), 130, "second"),
                            Ui.cell(count(p.surface().cellCount()), 80, "second"),
                            Ui.cell(count(p.turned()), 80, "second", p.turned() > 0 ? "ochre" : "muted"),
                            Ui.cell(count(p.unmatched()), 110, "second", p.unmatched() > 0 ? "ochre" : "muted")));
        }
        files(run.inputs(), sheet);
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
                            new javafx.stage.FileChooser.ExtensionFilter("Run with its fields", "*.vtu"),
                            new javafx.stage.FileChooser.ExtensionFilter("Surface", "*.vtp", "*.stl"));
            var file = chooser.showSaveDialog(button.getScene().getWindow());
            if (file != null) {
                session.saveRun(run, file.toPath());
            }
        });
        return button;
    }

    private static void health(Session session, Source source, Run run, VBox sheet) {
        List<Finding> findings = session.health(run);
        sheet.getChildren()
                .add(title(
                        "Health",
                        findings == null
                                ? "being looked over"
                                : findings.isEmpty() ? "nothing to report" : Ui.count(findings.size(), "finding")));
        if (findings == null) {
            return;
        }
        for (Finding f : findings) {
            String tone =
                    switch (f.severity()) {
                        case ERROR -> "brick";
                        case WARNING -> "ochre";
                        case NOTE -> "muted";
                    };
            String where = f.worst() == null
                    ? ""
                    : String.format(
                            Locale.ROOT,
                            "at %s, %s, %s m",
                            Ticks.brief(f.worst().x()),
                            Ticks.brief(f.worst().y()),
                            Ticks.brief(f.worst().z()));
            var text = Ui.label(f.text(), "second");
            text.setWrapText(true);
            text.setMaxWidth(470);
            text.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
            HBox row = line(
                    false,
                    Ui.left(f.severity().word(), 64, "second", tone),
                    Ui.cell(count((int) Math.min(Integer.MAX_VALUE, f.count())), 70, "second"),
                    Ui.left("", 12),
                    text,
                    Ui.spring(),
                    Ui.left(where, 190, "small", f.worst() == null ? "muted" : "link"));
            if (f.worst() != null) {
                // Click shows the place in the picture.
                String name = f.count() + " " + f.text().split(":")[0];
                row.setOnMouseClicked(e -> session.showPlace(new Session.Mark(name, f.worst(), source.id())));
                row.setAccessibleText(name + ", click shows the place in the picture");
            }
            sheet.getChildren().add(row);
        }
    }

    private static Node field(Session session, Field field, boolean onMesh) {
        double[] range = session.range(field);
        FieldUnit said = session.study().units().stream()
                .filter(u -> u.field().equals(field.name()))
                .findFirst()
                .orElse(null);
        String unit =
                said != null ? said.unit() : field.unit().known() ? field.unit().symbol() : "";
        var entry = Ui.text(
                "unit-" + field.name(),
                unit,
                t -> session.edit("State unit", s -> s.with(new FieldUnit(field.name(), t, true))));
        entry.setPrefWidth(84);
        entry.setMaxWidth(84);
        entry.setPromptText("unit?");
        boolean guess = said == null || !said.stated();
        Node word = guess
                ? Ui.button(
                        unit.isBlank() ? "unknown" : "guess: confirm",
                        () -> session.edit("Confirm unit", s -> s.with(new FieldUnit(field.name(), unit, true))),
                        "small-button")
                : Ui.label("stated", "small", "muted");
        word.setDisable(guess && unit.isBlank());
        int bad = (int) range[2];
        String where = onMesh ? field.at().word() : "on parts";
        return line(
                false,
                Ui.left(field.name(), 130, "second"),
                Ui.left(where, 80, "second"),
                Ui.cell(String.valueOf(field.components()), 80, "second"),
                Ui.cell(Ticks.number(range[0], Double.NaN), 92, "second"),
                Ui.cell(Ticks.number(range[1], Double.NaN), 92, "second"),
                Ui.left("", 18),
                entry,
                Ui.left("", 8),
                word,
                Ui.left(bad == 0 ? "" : "  " + bad + " not finite", 90, "small", "brick"));
    }

    private static void regions(Session session, Source.Simulation source, Run run, VBox sheet) {
        List<String> arrays = new java.util.ArrayList<>(List.of(""));
        run.fields().stream()
                .filter(f ->
                        f.at() == Field.At.CELL && f.components() == 1 && f.values() instanceof lane.field.Values.Ints)
                .forEach(f -> arrays.add(f.name()));
        if (arrays.size() > 1) {
            sheet.getChildren()
                    .add(Ui.row(
                            8,
                            Ui.label("Parts named by cell array", "second"),
                            Ui.choice(
                                    "regions",
                                    arrays,
                                    source.regions(),
                                    a -> a.isBlank() ? "none" : a,
                                    a -> session.edit(
                                            "Parts by array",
                                            s -> s.with(source.withRegions(a))))));
        }
    }

    static void files(List<Trail.Input> inputs, VBox sheet) {
        sheet.getChildren().add(title("Files", ""));
        for (Trail.Input input : inputs) {
            sheet.getChildren()
                    .add(line(
                            false,
                            Ui.left(input.path(), 230, "second"),
                            Ui.cell(size(input.bytes()), 90, "second"),
                            Ui.left("", 16),
                            Ui.left(input.sha256().substring(0, 16) + "…", 200, "mono", "muted")));
        }
    }
}
