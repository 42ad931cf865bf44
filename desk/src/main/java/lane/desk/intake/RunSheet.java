package lane.desk.intake;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.field.Field;
import lane.field.Run;
import lane.field.RunHealth;
import lane.field.Turn;
import lane.formats.DatasetReader;
import lane.formats.Series;
import lane.picture.Ticks;
import lane.study.Source;
import lane.unit.UnitSystem;
import org.jspecify.annotations.Nullable;

/** The sheet of a run: how its files are understood, what looks wrong, its fields with units, its parts. */
final class RunSheet extends RunSection {
    private static final List<String> LENGTHS = List.of("", "m", "mm", "cm", "km", "um", "nm", "in", "ft");

    RunSheet(Session session, Source.Simulation source, Run run, VBox sheet) {
        super(session, source, run, sheet);
    }

    @Override
    void show() {
        double[] b = run.mesh().bounds();
        add(Ui.label(
                String.format(
                        Locale.ROOT,
                        "%s cells, %s nodes; x %s to %s m, y %s to %s m, z %s to %s m",
                        SourceSheet.count(run.mesh().cellCount()),
                        SourceSheet.count(run.mesh().nodeCount()),
                        Ticks.brief(b[0]),
                        Ticks.brief(b[1]),
                        Ticks.brief(b[2]),
                        Ticks.brief(b[3]),
                        Ticks.brief(b[4]),
                        Ticks.brief(b[5])),
                "second"));
        understood();
        new RunHealthRows(session, source, run, sheet).show();
        new RunFields(session, source, run, sheet).show();
        new RunParts(session, source, run, sheet).show();
        SourceSheet.files(session, run.inputs(), sheet);
        series();
    }

    private void understood() {
        ComboBox<String> length = Ui.choice(
                "length",
                LENGTHS,
                treatment().length(),
                l -> !l.isBlank()
                        ? l
                        : treatment().system() != null
                                ? "as the system"
                                : treatment().length().isBlank()
                                                && !run.stated().length()
                                        ? "m, assumed"
                                        : "as the file",
                l -> treat("Unit of length", t -> t.inLength(l)));
        length.setPrefWidth(118);
        List<UnitSystem> systems = new ArrayList<>();
        systems.add(null);
        systems.addAll(UnitSystem.NAMED);
        UnitSystem own = treatment().system();
        if (own != null && !systems.contains(own)) {
            systems.add(own);
        }
        var system = Named.menuButton(own == null ? "field by field" : own.name());
        system.setId("system");
        for (UnitSystem s : systems) {
            var item = Named.item(
                    s == null
                            ? "field by field"
                            : s.name() + "  (" + s.length() + ", " + s.mass() + ", " + s.time() + ")");
            item.setOnAction(e -> treat("System of units", t -> t.in(s)));
            system.getItems().add(item);
        }
        var custom = Named.item("another…");
        custom.setOnAction(e -> new SystemForm(
                        own == null ? UnitSystem.SI : own, made -> treat("System of units", t -> t.in(made)))
                .show(system));
        system.getItems().add(custom);
        var row = new FlowPane(8, 6, Ui.label("Coordinates in", "second"), length, Ui.label("Units", "second"), system);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setRowValignment(javafx.geometry.VPos.CENTER);
        if (!run.times().isEmpty()) {
            row.getChildren().addAll(Ui.label("Time", "second"), time());
        }
        standsFor(row);
        if (run.mesh().dimension() == 3
                && (treatment().inPieces() != null || DatasetReader.inPieces(java.nio.file.Path.of(source.file())))) {
            row.getChildren().add(ReadAs.of(session, source));
        }
        row.setStyle("-fx-padding: 4 0 0 0;");
        add(row);
    }

    /** What a plane run, or one that may be a wedge, stands for. */
    private void standsFor(FlowPane row) {
        boolean plane = run.mesh().dimension() == 2;
        boolean wedge = run.mesh().dimension() == 3
                && (treatment().turn() != null
                        || health != null
                                && health.findings().stream()
                                        .anyMatch(f -> f.text().contains("full turn")));
        if (!plane && !wedge) {
            return;
        }
        List<java.util.Optional<Turn>> turns = new ArrayList<>();
        turns.add(java.util.Optional.empty());
        if (wedge) {
            turns.add(java.util.Optional.of(Turn.WEDGE));
        } else {
            for (String r : List.of("x", "y", "z")) {
                for (String h : List.of("x", "y", "z")) {
                    if (!r.equals(h) && width(r) > 0 && width(h) > 0) {
                        turns.add(java.util.Optional.of(new Turn(r, h)));
                    }
                }
            }
        }
        var choice = Ui.choice(
                "stands-for",
                turns,
                java.util.Optional.ofNullable(treatment().turn()),
                t -> t.isEmpty()
                        ? plane ? "a depth" : "itself"
                        : t.get().wedge()
                                ? "a full turn"
                                : "a full turn, radius " + t.get().radius() + ", axis "
                                        + t.get().along(),
                t -> treat("What the run stands for", x -> x.withTurn(t.orElse(null))));
        Tip.on(choice, "About the study's axis; integrals are then those of the full turn");
        row.getChildren().addAll(Ui.label("Stands for", "second"), choice);
        if (plane && treatment().turn() == null) {
            var depth = Ui.number("depth", treatment().depth(), v -> treat("Depth", t -> t.withDepth(v)));
            depth.setPrefWidth(64);
            row.getChildren().addAll(depth, Ui.label("m", "second", "muted"));
        }
    }

    /** How far the run reaches along a direction of its file; once it stands around an axis, any may be chosen. */
    private double width(String direction) {
        double[] b = run.mesh().bounds();
        int d = 2 * "xyz".indexOf(direction);
        return treatment().turn() != null ? 1 : b[d + 1] - b[d];
    }

    private MenuButton time() {
        List<Double> times = run.times();
        String now = treatment().time() == null
                ? "as the study: " + Moments.text(run.time())
                : treatment().time().word();
        var menu = Named.menuButton(now + (times.size() > 1 ? ", one of " + times.size() : ""));
        menu.setId("time");
        menu.getItems().addAll(Moments.items(times, true, m -> treat("Time of " + source.name(), t -> t.at(m))));
        return menu;
    }

    /**
     * What was remarked while reading and what looks wrong.
     *
     * @param health null where that is not known yet
     */
    static int findings(Run run, RunHealth.@Nullable Report health) {
        return run.remarks().size() + (health == null ? 0 : health.findings().size());
    }

    /** Names of fields of the run and of its parts. */
    static long fields(Run run) {
        return Stream.concat(run.fields().stream(), run.parts().stream().flatMap(p -> p.fields().stream()))
                .map(Field::name)
                .distinct()
                .count();
    }

    /** Files beside this one that differ by a number are likely other times of it. */
    private void series() {
        java.nio.file.Path file = session.library().resolve(source.file());
        if (Series.is(file)) {
            return;
        }
        Series.around(file).ifPresent(pattern -> {
            String folder = source.file().contains("/")
                    ? source.file().substring(0, source.file().lastIndexOf('/') + 1)
                    : "";
            add(Ui.row(
                    10,
                    note("Beside it stand other files " + pattern + ".", "second", "muted"),
                    Ui.button(
                            "Read them as one run over time",
                            () -> session.edit("Series over time", s -> s.with(source.withFile(folder + pattern))),
                            "small-button")));
        });
    }
}
