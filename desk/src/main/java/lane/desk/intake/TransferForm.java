package lane.desk.intake;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.stage.Popup;
import lane.base.LaneException;
import lane.base.Work;
import lane.desk.Chosen;
import lane.desk.LongWork;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.formats.Transferred;
import lane.study.Source;
import lane.study.Study;
import lane.transfer.Bringing;
import lane.transfer.MeshTransfer;
import lane.transfer.Outside;

/** Brings fields of a run onto the mesh of another one, writes that, and adds it to the study as a run of its own. */
final class TransferForm {
    private static final double WIDE = 430;

    private final Session session;
    private final Source.Simulation source;
    private final Run run;
    private final List<Source.Simulation> others;
    private final Popup popup = new Popup();
    private final VBox rows = new VBox(8);
    private final Label told = Ui.label("", "second");
    private final Button go = Ui.button("Transfer into a file…", this::ask, "main");
    private final Button close = Ui.button("Close", this::close);

    private Source.Simulation target;
    private final Set<String> fields = new LinkedHashSet<>();
    private boolean conservative;
    private MeshTransfer.To to = MeshTransfer.To.AS_STORED;
    private Beyond beyond = Beyond.ABSENT;
    private double number;
    private boolean mean;
    private boolean linear;
    private final Set<String> imposedOn = new LinkedHashSet<>();
    private double imposed;
    private boolean all;
    private final LongWork work;

    private enum Beyond {
        ABSENT("no value"),
        NEAREST("the nearest within"),
        VALUE("the value");

        private final String word;

        Beyond(String word) {
            this.word = word;
        }
    }

    /** @return why there is nothing to transfer to; blank where there is */
    static String lacks(Session session, Source.Simulation source) {
        Run run = session.results().runs().get(source.id());
        return run == null
                ? "This run is not read yet."
                : run.fields().isEmpty()
                        ? "This run has no fields."
                        : targets(session, source).isEmpty()
                                ? "A transfer goes to the mesh of another run of the study; add one."
                                : "";
    }

    private static List<Source.Simulation> targets(Session session, Source.Simulation source) {
        return session.study().sources().stream()
                .filter(s ->
                        !s.id().equals(source.id()) && session.results().runs().containsKey(s.id()))
                .map(Source.Simulation.class::cast)
                .toList();
    }

    /** There must be another run. */
    TransferForm(Session session, Source.Simulation source) {
        this.session = session;
        this.source = source;
        run = Objects.requireNonNull(session.results().runs().get(source.id()));
        others = targets(session, source);
        target = others.getFirst();
        run.fields().forEach(f -> fields.add(f.name()));
        work = new LongWork("Transferring fields", told::setText, on -> {
            go.setDisable(on);
            close.setText(on ? "Cancel" : "Close");
        });
        go.setId("transfer-go");
        close.setId("transfer-close");
        told.setId("transfer-told");
        told.setWrapText(true);
        told.setMaxWidth(WIDE);
        told.setMinHeight(Region.USE_PREF_SIZE);
        var box = new VBox(
                10,
                Ui.label("Transfer fields of " + source.name() + " to another mesh", "section"),
                rows,
                told,
                Ui.row(8, go, close));
        box.getStyleClass().add("tooltip-card");
        box.setStyle("-fx-padding: 14;");
        box.setPrefWidth(WIDE + 28);
        fill();
        popup.setAutoHide(false);
        popup.getContent().add(box);
        session.whenClosed(this::stop);
    }

    void show(Node below) {
        var at = below.localToScreen(0, below.getBoundsInLocal().getHeight() + 4);
        // Of the window and not of the button, which is made anew when the study gets the new run.
        popup.show(below.getScene().getWindow(), at.getX(), at.getY());
    }

    private void close() {
        stop();
        popup.hide();
    }

    private void stop() {
        work.cancel();
    }

    private static Node row(String word, Node... nodes) {
        var flow = new FlowPane(8, 5, nodes);
        flow.setPrefWrapLength(WIDE - 100);
        flow.setMaxWidth(WIDE - 100);
        var label = Ui.left(word, 92, "second");
        label.setMinHeight(26);
        var row = Ui.row(8, label, flow);
        row.setAlignment(javafx.geometry.Pos.TOP_LEFT);
        return row;
    }

    private void fill() {
        rows.getChildren()
                .setAll(
                        row("Mesh of", Ui.choice("transfer-to", others, target, Source::name, s -> {
                            target = s;
                            imposedOn.clear();
                            fill();
                        })),
                        row("Fields", scrolled(ticks("transfer-field-", names(), fields))),
                        row(
                                "How",
                                Ui.segments(
                                        List.of(false, true),
                                        conservative,
                                        c -> c ? "by overlap, integrals kept" : "interpolated",
                                        c -> {
                                            conservative = c;
                                            if (c && beyond == Beyond.NEAREST) {
                                                beyond = Beyond.ABSENT;
                                            }
                                            fill();
                                        })),
                        row(
                                "Values at",
                                Ui.segments(
                                        List.of(MeshTransfer.To.values()),
                                        to,
                                        t -> switch (t) {
                                            case AS_STORED -> "where they are stored";
                                            case NODES -> "nodes";
                                            case CELLS -> "cells";
                                        },
                                        t -> {
                                            to = t;
                                            fill();
                                        })),
                        outside());
        if (conservative && to != MeshTransfer.To.NODES) {
            CheckBox tick = Named.check("cells covered in part take the mean of that part (keeps no integral)");
            tick.setSelected(mean);
            tick.setOnAction(e -> mean = tick.isSelected());
            rows.getChildren().add(row("", tick));
        }
        if (!conservative && run.fields().stream().anyMatch(f -> f.at() == Field.At.CELL)) {
            CheckBox tick = Named.check("what is stored in cells is linear in each, by its gradient (else constant)");
            tick.setId("transfer-linear");
            tick.setSelected(linear);
            tick.setOnAction(e -> linear = tick.isSelected());
            rows.getChildren().add(row("", tick));
        }
        List<String> parts = session.results().runs().get(target.id()) instanceof Run r
                ? r.parts().stream().map(Part::name).toList()
                : List.of();
        if (!parts.isEmpty()) {
            var value = Ui.number("transfer-imposed", imposed, v -> imposed = v);
            value.setPrefWidth(76);
            rows.getChildren()
                    .add(row("Afterwards", value, Ui.label("at the nodes of these parts of the target", "second")));
            rows.getChildren().add(row("", scrolled(ticks("transfer-on-", parts, imposedOn))));
        }
        if (run.times().size() > 1) {
            CheckBox tick = Named.check("all " + run.times().size() + " stored times, a file each");
            tick.setId("transfer-all");
            tick.setSelected(all);
            tick.setOnAction(e -> all = tick.isSelected());
            rows.getChildren().add(row("Times", tick));
        }
    }

    private List<String> names() {
        return run.fields().stream().map(Field::name).distinct().toList();
    }

    private static FlowPane ticks(String id, List<String> names, Set<String> chosen) {
        var flow = new FlowPane(12, 5);
        flow.setPrefWrapLength(WIDE - 120);
        for (String name : names) {
            CheckBox tick = Named.check(name);
            tick.setId(id + name);
            tick.setSelected(chosen.contains(name));
            tick.setMaxWidth(WIDE - 130);
            tick.setOnAction(e -> {
                if (tick.isSelected()) {
                    chosen.add(name);
                } else {
                    chosen.remove(name);
                }
            });
            flow.getChildren().add(tick);
        }
        return flow;
    }

    /** Forty names scroll. */
    private static Node scrolled(FlowPane flow) {
        if (flow.getChildren().size() < 16) {
            return flow;
        }
        var scroll = new ScrollPane(flow);
        scroll.setFitToWidth(true);
        scroll.setPrefHeight(110);
        scroll.setPrefWidth(WIDE - 100);
        return scroll;
    }

    private Node outside() {
        List<Beyond> choices = conservative ? List.of(Beyond.ABSENT, Beyond.VALUE) : List.of(Beyond.values());
        List<Node> nodes = new ArrayList<>();
        nodes.add(Ui.segments(choices, beyond, b -> b.word, b -> {
            beyond = b;
            fill();
        }));
        if (beyond != Beyond.ABSENT) {
            var field = Ui.number("transfer-outside", number, v -> number = v);
            field.setPrefWidth(76);
            nodes.add(field);
            if (beyond == Beyond.NEAREST) {
                nodes.add(Ui.label("m", "second", "muted"));
            }
        }
        return row("Outside gets", nodes.toArray(Node[]::new));
    }

    private Bringing how() {
        if (fields.isEmpty()) {
            throw new LaneException("No field is chosen; tick at least one.");
        }
        Outside outside =
                switch (beyond) {
                    case ABSENT -> new Outside.Absent();
                    case NEAREST -> new Outside.Nearest(number);
                    case VALUE -> new Outside.Value(number);
                };
        Map<String, Double> values = new LinkedHashMap<>();
        imposedOn.forEach(part -> values.put(part, imposed));
        return new Bringing(
                List.copyOf(fields), conservative, to, outside, mean, false, values, linear && !conservative);
    }

    private void ask() {
        try {
            how();
        } catch (LaneException e) {
            told.setText(e.getMessage());
            return;
        }
        var chooser = new FileChooser();
        chooser.setInitialFileName(lane.base.Plain.fileName(name()) + ".vtu");
        chooser.setInitialDirectory(
                Objects.requireNonNull(session.file().toAbsolutePath().getParent())
                        .toFile());
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Run with its fields", "*.vtu", "*.xdmf"));
        var file = chooser.showSaveDialog(popup.getOwnerWindow());
        if (file != null) {
            into(file.toPath());
        }
    }

    private String name() {
        return source.name() + " on " + target.name();
    }

    /** Transfers behind the window into a file, and adds that to the study. */
    void into(Path file) {
        Run mesh = session.results().runs().get(target.id());
        if (mesh == null) {
            told.setText(target.name() + " is not read any more; choose another mesh.");
            return;
        }
        told.setText("Being transferred");
        Source.Simulation onto = target;
        boolean series = all && run.times().size() > 1;
        work.start(now -> transferred(file, mesh, onto, series, now), made -> {
            told.setText(made.words.strip());
            add(made.file, onto);
        });
    }

    /** What was written, and what is said of it. */
    private record Written(Path file, String words) {}

    private Written transferred(Path file, Run to, Source.Simulation onto, boolean series, Work now) {
        Bringing how = how();
        // Written in the unit of the target's files, so that its surfaces fit to it as they are.
        double metres = onto.treatment().metres();
        double unit = metres == 0 ? 1 : metres;
        if (!series) {
            return new Written(
                    file, Transferred.one(file, run, to, unit, how, now).words(to.mesh()));
        }
        var words = new StringBuilder();
        Path made = Transferred.all(
                file,
                run.times(),
                (t, w) -> session.library().run(source, new TimeSelector.At(t, 0), w),
                to,
                unit,
                how,
                (t, r) -> {
                    words.setLength(0);
                    words.append("At the last time:\n").append(r.words(to.mesh()));
                },
                now);
        return new Written(made, words.toString());
    }

    private void add(Path file, Source.Simulation onto) {
        Treatment mine = source.treatment();
        Treatment its = onto.treatment();
        String length = !its.length().isBlank()
                ? its.length()
                : its.system() != null ? its.system().length() : "m";
        var treated = new Treatment(
                null,
                length,
                mine.system(),
                mine.units(),
                Map.of(),
                mine.onWall(),
                its.depth(),
                its.turn(),
                its.parts());
        List<String> ids = session.study().sources().stream().map(Source::id).toList();
        String id = Study.freshId(name(), ids);
        String path = session.library().named(file);
        session.edit(
                "Transferred run",
                s -> s.withSources(l -> {
                    l.add(new Source.Simulation(id, name(), path, onto.partFiles(), "", "transferred", treated));
                    return l;
                }));
        session.select(Chosen.SOURCE, id);
    }
}
