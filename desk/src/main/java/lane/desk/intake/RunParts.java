package lane.desk.intake;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.desk.ManyRows;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartEdit;
import lane.field.Role;
import lane.field.Run;
import lane.field.RunHealth;
import lane.field.Treatment;
import lane.picture.Ticks;
import lane.study.Source;

/** The parts of a run: renamed, joined, split, with roles. */
final class RunParts extends RunSection {
    private final Set<String> chosen = new HashSet<>();

    RunParts(Session session, Source.Simulation source, Run run, VBox sheet) {
        super(session, source, run, sheet);
    }

    @Override
    void show() {
        add(SourceSheet.title(
                "Boundary parts", Ui.count(run.parts().size(), "part") + ", faces turned to point out of the run"));
        Node head = SourceSheet.line(
                true,
                Ui.left("", 24),
                Ui.left("Part", 120, "small", "muted"),
                Ui.left("Role", 98, "small", "muted"),
                Ui.cell("Faces", 58, "small", "muted"),
                Ui.cell("Area in m²", 86, "small", "muted"),
                Ui.left("", 12),
                Ui.left("Mean normal", 112, "small", "muted"),
                Ui.cell("Turned", 52, "small", "muted"),
                Ui.cell("Off", 46, "small", "muted"));
        List<String> names = run.parts().stream().map(Part::name).toList();
        var angle = Ui.number("split-angle", 30, v -> {});
        angle.setPrefWidth(54);
        var merge = Ui.button("Join", () -> merge(ticked(names)), "small-button");
        Tip.on(merge, "The chosen parts become one, named after the first");
        var split = Ui.button("Split", () -> split(ticked(names), angle.getText()), "small-button");
        Tip.on(split, "The chosen parts fall into pieces where neighbouring faces bend more than this");
        // Greyed until enough boxes are ticked, as their tips say.
        Runnable able = () -> {
            merge.setDisable(chosen.size() < 2);
            split.setDisable(chosen.isEmpty());
        };
        able.run();
        add(ManyRows.of(session, "parts", source.id(), "part", names, head, i -> part(i, able))
                .toArray(Node[]::new));
        var reset = Ui.button("As read", () -> treat("Parts as read", t -> t.withParts(List.of())), "small-button");
        reset.setDisable(treatment().parts().isEmpty());
        HBox tools = Ui.row(
                8,
                Ui.label("Parts ticked above:", "small", "muted"),
                merge,
                split,
                Ui.label("at bends over", "small", "muted"),
                angle,
                Ui.label("degrees", "small", "muted"),
                Ui.spring(),
                reset);
        tools.setStyle("-fx-padding: 6 0 0 0;");
        add(tools);
        regions();
    }

    private Node part(int i, Runnable able) {
        Part p = run.parts().get(i);
        RunHealth.PartSize size = health == null || health.parts().size() <= i
                ? null
                : health.parts().get(i);
        var box = new CheckBox();
        box.setId("choose-" + p.name());
        box.setAccessibleText("Choose part " + p.name());
        box.setMinWidth(24);
        box.setSelected(chosen.contains(p.name()));
        box.selectedProperty().addListener((o, was, is) -> {
            if (is) {
                chosen.add(p.name());
            } else {
                chosen.remove(p.name());
            }
            able.run();
        });
        var name = Ui.text(
                "part-" + p.name(),
                p.name(),
                t -> treat("Rename part", x -> x.with(new PartEdit.Rename(p.name(), t.strip()))));
        name.setPrefWidth(112);
        name.setMinWidth(112);
        name.setMaxWidth(112);
        ComboBox<Role> role = Ui.choice(
                "role-" + p.name(),
                List.of(Role.values()),
                p.role(),
                Role::word,
                r -> treat("Role of part", x -> x.with(new PartEdit.Assign(p.name(), r))));
        role.setPrefWidth(94);
        role.setMinWidth(94);
        role.setMaxWidth(94);
        String normal = size == null
                ? ""
                : size.mean().norm() < 1e-6
                        ? "all round"
                        : String.format(
                                Locale.ROOT,
                                "%.2f, %.2f, %.2f",
                                size.mean().x() + 0.0,
                                size.mean().y() + 0.0,
                                size.mean().z() + 0.0);
        return SourceSheet.line(
                false,
                box,
                name,
                Ui.left("", 8),
                role,
                Ui.left("", 4),
                Ui.cell(SourceSheet.count(p.surface().cellCount()), 58, "second"),
                Ui.cell(size == null ? "" : Ticks.number(size.area(), Double.NaN), 86, "second"),
                Ui.left("", 12),
                Ui.left(normal.replace("-0.00", "0.00").replace('-', '−'), 112, "second"),
                Ui.cell(SourceSheet.count(p.turned()), 52, "second", p.turned() > 0 ? "ochre" : "muted"),
                Ui.cell(SourceSheet.count(p.unmatched()), 46, "second", p.unmatched() > 0 ? "ochre" : "muted"));
    }

    /** In the order of the parts. */
    private List<String> ticked(List<String> names) {
        return names.stream().filter(chosen::contains).toList();
    }

    private void merge(List<String> names) {
        treat("Join parts", t -> t.with(new PartEdit.Merge(names, names.getFirst())));
    }

    private void split(List<String> names, String angle) {
        try {
            double degrees = Double.parseDouble(angle.strip().replace(',', '.'));
            treat("Split part", t -> {
                Treatment next = t;
                for (String n : names) {
                    next = next.with(new PartEdit.Split(n, degrees));
                }
                return next;
            });
        } catch (NumberFormatException e) {
            session.say("\"" + angle + "\" is no angle; write degrees, such as 30.");
        }
    }

    private void regions() {
        List<String> arrays = new ArrayList<>(List.of(""));
        java.util.stream.Stream.concat(
                        run.fields().stream(), run.parts().stream().flatMap(p -> p.fields().stream()))
                .filter(f -> f.at() == Field.At.CELL && f.components() == 1)
                .filter(f -> !arrays.contains(f.name()))
                .filter(f -> source.regions().equals(f.name())
                        || health != null
                                && health.fields().containsKey(f.name())
                                && health.fields().get(f.name()).whole())
                .forEach(f -> arrays.add(f.name()));
        if (arrays.size() > 1) {
            add(Ui.row(
                    8,
                    Ui.label("Parts named by cell array", "second"),
                    Ui.choice(
                            "regions",
                            arrays,
                            source.regions(),
                            a -> a.isBlank() ? "none" : a,
                            a -> session.edit("Parts by array", s -> s.with(source.withRegions(a))))));
        }
    }
}
