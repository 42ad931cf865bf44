package lane.desk.intake;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartEdit;
import lane.field.Role;
import lane.field.Run;
import lane.field.RunHealth;
import lane.field.Treatment;
import lane.field.Turn;
import lane.formats.Series;
import lane.mesh.CellQuality;
import lane.mesh.Finding;
import lane.picture.Ticks;
import lane.quantity.FieldUnit;
import lane.reading.Lens;
import lane.study.FamilyHealth;
import lane.study.Source;
import lane.unit.Unit;
import lane.unit.UnitSystem;

/** The sheet of a run: how its files are understood, what looks wrong, its fields with units, its parts. */
final class RunSheet {
    private static final List<String> LENGTHS = List.of("", "m", "mm", "cm", "um", "in", "ft");
    private static final List<List<Integer>> ORDERS = List.of(
            List.of(0, 1, 2), List.of(0, 2, 1), List.of(1, 0, 2), List.of(1, 2, 0), List.of(2, 0, 1), List.of(2, 1, 0));

    private final Session session;
    private final Source.Simulation source;
    private final Run run;
    private final VBox sheet;
    private final RunHealth.Sheet health;

    RunSheet(Session session, Source.Simulation source, Run run, VBox sheet) {
        this.session = session;
        this.source = source;
        this.run = run;
        this.sheet = sheet;
        health = session.health(run);
    }

    private void treat(String name, UnaryOperator<Treatment> edit) {
        session.edit(
                name,
                s -> s.source(source.id()).orElse(null) instanceof Source.Simulation now
                        ? s.with(now.with(edit.apply(now.treatment())))
                        : s);
    }

    private Treatment treatment() {
        return source.treatment();
    }

    private void add(Node... nodes) {
        sheet.getChildren().addAll(nodes);
    }

    private static Label note(String text, String... styles) {
        Label label = Ui.label(text, styles);
        label.setWrapText(true);
        label.setMinHeight(Region.USE_PREF_SIZE);
        return label;
    }

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
        health();
        family();
        fields();
        parts();
        SourceSheet.files(run.inputs(), sheet);
        series();
    }

    private void understood() {
        ComboBox<String> length = Ui.choice(
                "length",
                LENGTHS,
                treatment().length(),
                l -> !l.isBlank() ? l : treatment().system() != null ? "as the system" : "as the file",
                l -> treat("Unit of length", t -> t.inLength(l)));
        length.setPrefWidth(118);
        List<UnitSystem> systems = new ArrayList<>();
        systems.add(null);
        systems.addAll(UnitSystem.NAMED);
        UnitSystem own = treatment().system();
        if (own != null && !systems.contains(own)) {
            systems.add(own);
        }
        var system = new MenuButton(own == null ? "field by field" : own.name());
        system.setId("system");
        for (UnitSystem s : systems) {
            var item = new MenuItem(
                    s == null
                            ? "field by field"
                            : s.name() + "  (" + s.length() + ", " + s.mass() + ", " + s.time() + ")");
            item.setOnAction(e -> treat("System of units", t -> t.in(s)));
            system.getItems().add(item);
        }
        var custom = new MenuItem("another…");
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
        row.setStyle("-fx-padding: 4 0 0 0;");
        add(row);
        double span = run.mesh().modelSize();
        if (treatment().metres() == 0 && (span > 50 || span < 1e-5)) {
            add(note(
                    "It is " + Ticks.brief(span) + " m across: is that right, or are its coordinates in another unit?",
                    "ochre",
                    "second"));
        }
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
        choice.setTooltip(new Tooltip("About the study's axis; integrals are then those of the full turn"));
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
        var menu = new MenuButton(now + (times.size() > 1 ? ", one of " + times.size() : ""));
        menu.setId("time");
        menu.getItems().addAll(Moments.items(times, true, m -> treat("Time of " + source.name(), t -> t.at(m))));
        return menu;
    }

    /** What was remarked while reading and what looks wrong. @param health null where that is not known yet */
    static int findings(Run run, RunHealth.Sheet health) {
        return run.remarks().size() + (health == null ? 0 : health.findings().size());
    }

    /** Names of fields of the run and of its parts. */
    static long fields(Run run) {
        return Stream.concat(run.fields().stream(), run.parts().stream().flatMap(p -> p.fields().stream()))
                .map(Field::name)
                .distinct()
                .count();
    }

    private void health() {
        add(SourceSheet.title(
                "Health",
                health == null
                        ? "being looked over"
                        : findings(run, health) == 0
                                ? "nothing to report"
                                : Ui.count(findings(run, health), "finding")));
        run.remarks().forEach(r -> add(note(r, "ochre", "second")));
        if (health == null) {
            return;
        }
        health.findings().forEach(f -> add(finding(f)));
        if (run.mesh().dimension() >= 2) {
            add(quality(health.quality()));
        }
    }

    private Node quality(CellQuality q) {
        int most = 1;
        for (int n : q.skewness()) {
            most = Math.max(most, n);
        }
        var bars = new HBox(2);
        bars.setAlignment(Pos.BOTTOM_LEFT);
        bars.setMinHeight(26);
        bars.setMaxHeight(26);
        for (int i = 0; i < q.skewness().length; i++) {
            int n = q.skewness()[i];
            var bar = new Region();
            // A single bad cell among a million must still be seen.
            double h = n == 0 ? 1 : Math.max(3, 26 * Math.log1p(n) / Math.log1p(most));
            bar.setMinSize(16, h);
            bar.setMaxSize(16, h);
            bar.setStyle("-fx-background-color: " + (n == 0 ? "-hair" : i >= 9 ? "-ochre" : "-teal") + ";");
            Tooltip.install(
                    bar,
                    new Tooltip(String.format(
                            Locale.ROOT,
                            "skewness %.1f to %.1f: %s cells",
                            i / 10.0,
                            (i + 1) / 10.0,
                            SourceSheet.count(n))));
            bars.getChildren().add(bar);
        }
        bars.setAccessibleText("Histogram of skewness, worst " + Finding.number(q.worstSkewness(), 2));
        Label caption = Ui.label("Skewness of cells, 0 to 1", "small", "muted");
        caption.setMinWidth(Region.USE_PREF_SIZE);
        bars.setMinWidth(Region.USE_PREF_SIZE);
        var row = Ui.row(
                12,
                caption,
                bars,
                note(
                        "worst " + Ticks.brief(q.worstSkewness()) + "; faces off flat by at most "
                                + Ticks.brief(q.worstWarp() < 1e-6 ? 0 : q.worstWarp())
                                + " of their size; edges at most 1 : " + Ticks.brief(q.worstAspect()),
                        "small",
                        "muted"));
        row.setStyle("-fx-padding: 6 0 0 0;");
        return row;
    }

    private Node finding(Finding f) {
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
        Label text = note(f.text(), "second");
        text.setMinWidth(200);
        text.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(text, javafx.scene.layout.Priority.ALWAYS);
        HBox row = SourceSheet.line(
                false,
                Ui.left(f.severity().word(), 58, "second", tone),
                Ui.cell(SourceSheet.count((int) Math.min(Integer.MAX_VALUE, f.count())), 58, "second"),
                Ui.left("", 12),
                text,
                Ui.left("", 8),
                Ui.left(where, 174, "small", f.worst() == null ? "muted" : "link"));
        if (f.worst() != null) {
            // Click shows the place in the picture.
            String name = f.count() + " " + f.text().split(":")[0];
            row.setOnMouseClicked(e -> session.showPlace(new Session.Mark(name, f.worst(), source.id())));
            row.setAccessibleText(name + ", click shows the place in the picture");
        }
        return row;
    }

    private void family() {
        Map<String, Run> family = new LinkedHashMap<>();
        for (Source s : session.study().sources()) {
            Run r = session.results().runs().get(s.id());
            if (r != null && s instanceof Source.Simulation m && m.family().equals(source.family())) {
                family.put(m.name(), r);
            }
        }
        if (family.size() < 2) {
            return;
        }
        List<Finding> found = FamilyHealth.of(family, session.study().units());
        long odd = found.stream()
                .filter(f -> f.severity() != Finding.Severity.NOTE)
                .count();
        add(SourceSheet.title(
                "Family \"" + source.family() + "\"",
                family.size() + " runs, "
                        + (odd == 0 ? "alike but for their meshes" : Ui.count((int) odd, "difference"))));
        for (Finding f : found) {
            boolean fine = f.severity() == Finding.Severity.NOTE;
            add(note(f.text(), "second", fine ? "muted" : "ochre"));
        }
    }

    private void fields() {
        add(SourceSheet.title("Fields", "as stored; units marked guess want your word"));
        add(SourceSheet.line(
                true,
                Ui.left("Field", 112, "small", "muted"),
                Ui.left("Stored at", 70, "small", "muted"),
                Ui.left("Components", 96, "small", "muted"),
                Ui.cell("Least", 74, "small", "muted"),
                Ui.cell("Greatest", 74, "small", "muted"),
                Ui.left("", 10),
                Ui.left("Unit", 110, "small", "muted")));
        var all = new LinkedHashMap<String, Field>();
        run.fields().forEach(f -> all.putIfAbsent(f.name(), f));
        run.parts().forEach(p -> p.fields().forEach(f -> all.putIfAbsent(f.name(), f)));
        all.values().forEach(f -> {
            add(field(f, run.fields().contains(f)));
            if (health != null && health.stress().containsKey(f.name())) {
                add(acts(f.name(), health.stress().get(f.name())));
            }
        });
    }

    private Node field(Field field, boolean onMesh) {
        double[] range = session.range(field);
        String name = field.name();
        FieldUnit said = session.study().units().stream()
                .filter(u -> u.field().equals(name))
                .findFirst()
                .orElse(null);
        boolean own = treatment().units().containsKey(name);
        Unit unit = Lens.of(List.of(), session.study().units(), session.study().axis())
                .unit(run, field);
        String symbol = unit.known() ? unit.symbol() : "";
        var entry = Ui.text("unit-" + name, symbol, t -> {
            if (own || treatment().system() != null) {
                treat("State unit", x -> x.withUnit(name, t));
            } else {
                session.edit("State unit", s -> s.with(new FieldUnit(name, t, true)));
            }
        });
        entry.setPrefWidth(84);
        entry.setMinWidth(84);
        entry.setMaxWidth(84);
        entry.setPromptText("unit?");
        String word = own
                ? "this run"
                : treatment().system() != null && unit.known()
                        ? treatment().system().name()
                        : said != null && said.stated() ? "stated" : symbol.isBlank() ? "unknown" : "guess";
        var menu = new MenuButton(word);
        menu.setId("unit-of-" + name);
        menu.setMinWidth(Region.USE_PREF_SIZE);
        var confirm = new MenuItem("Confirm for all runs");
        confirm.setOnAction(e -> session.edit("Confirm unit", s -> s.with(new FieldUnit(name, symbol, true))));
        confirm.setDisable(symbol.isBlank());
        var alone = new MenuItem("State for this run alone");
        alone.setOnAction(e -> treat("Unit of this run", t -> t.withUnit(name, symbol)));
        alone.setDisable(symbol.isBlank() || own);
        var follow = new MenuItem("As in the other runs");
        follow.setOnAction(e -> treat("Unit as in the other runs", t -> t.withUnit(name, "")));
        follow.setDisable(!own);
        menu.getItems().addAll(confirm, alone, follow);
        int bad = (int) range[2];
        return SourceSheet.line(
                false,
                Ui.left(name, 112, "second"),
                Ui.left(onMesh ? field.at().word() : "on parts", 70, "second"),
                components(field),
                Ui.cell(Ticks.number(range[0], Double.NaN), 74, "second"),
                Ui.cell(Ticks.number(range[1], Double.NaN), 74, "second"),
                Ui.left("", 10),
                entry,
                Ui.left("", 6),
                menu,
                Ui.label(bad == 0 ? "" : "  " + bad + " not finite", "small", "brick"));
    }

    /** How many components; of three also their order. */
    private Node components(Field field) {
        if (field.components() != 3) {
            return Ui.left(String.valueOf(field.components()), 96, "second");
        }
        List<Integer> now = treatment().order().getOrDefault(field.name(), ORDERS.getFirst());
        ComboBox<List<Integer>> order = Ui.choice(
                "order-" + field.name(),
                ORDERS,
                now,
                RunSheet::letters,
                o -> treat(
                        "Order of components", t -> t.withOrder(field.name(), o.equals(ORDERS.getFirst()) ? null : o)));
        order.setTooltip(new Tooltip("Which direction each stored number stands for"));
        order.setPrefWidth(88);
        order.setMinWidth(88);
        order.setMaxWidth(88);
        HBox box = Ui.row(0, order);
        box.setMinWidth(96);
        box.setMaxWidth(96);
        return box;
    }

    /** What stands first, second and third in the file when x, y and z are taken from these places. */
    private static String letters(List<Integer> from) {
        String[] at = new String[3];
        for (int d = 0; d < 3; d++) {
            at[from.get(d)] = "xyz".substring(d, d + 1);
        }
        return String.join(" ", at);
    }

    /** On whom a stored wall stress acts: asked once, with what the flow next to the wall says. */
    private Node acts(String name, double along) {
        Boolean said = treatment().onWall().get(name);
        List<String> words = List.of("not said", "the wall", "the fluid");
        var choice = Ui.segments(
                words,
                said == null ? words.get(0) : said ? words.get(1) : words.get(2),
                w -> w,
                w -> treat(
                        "Stress acts on",
                        t -> t.withOnWall(name, w.equals(words.get(0)) ? null : (Boolean) w.equals(words.get(1)))));
        choice.setId("acts-" + name);
        String hint = Double.isNaN(along)
                ? "no flow next to the wall to compare with"
                : Math.abs(along) < 0.5
                        ? "it points neither along the flow nor against it"
                        : along > 0
                                ? "it points along the flow next to the wall: so it acts on the wall"
                                : "it points against the flow next to the wall: so it acts on the fluid";
        Label caption = Ui.label("acts on", "second", "muted");
        caption.setMinWidth(Region.USE_PREF_SIZE);
        choice.setMinWidth(Region.USE_PREF_SIZE);
        var box = new HBox(
                10,
                caption,
                choice,
                Double.isNaN(along) ? new Region() : StressSketch.of(along, session.palette()),
                note(hint, "small", said == null && Math.abs(along) >= 0.5 ? "ochre" : "muted"));
        box.setAlignment(Pos.CENTER_LEFT);
        box.setStyle("-fx-padding: 2 0 6 0;");
        return box;
    }

    private void parts() {
        add(SourceSheet.title(
                "Boundary parts", Ui.count(run.parts().size(), "part") + ", faces turned to point out of the run"));
        add(SourceSheet.line(
                true,
                Ui.left("", 24),
                Ui.left("Part", 120, "small", "muted"),
                Ui.left("Role", 98, "small", "muted"),
                Ui.cell("Faces", 58, "small", "muted"),
                Ui.cell("Area in m²", 86, "small", "muted"),
                Ui.left("", 12),
                Ui.left("Mean normal", 112, "small", "muted"),
                Ui.cell("Turned", 52, "small", "muted"),
                Ui.cell("Off", 46, "small", "muted")));
        var chosen = new LinkedHashMap<String, CheckBox>();
        for (int i = 0; i < run.parts().size(); i++) {
            Part p = run.parts().get(i);
            RunHealth.PartSize size = health == null || health.parts().size() <= i
                    ? null
                    : health.parts().get(i);
            add(part(p, size, chosen));
        }
        var angle = Ui.number("split-angle", 30, v -> {});
        angle.setPrefWidth(54);
        var merge = Ui.button("Join", () -> merge(names(chosen)), "small-button");
        merge.setTooltip(new Tooltip("The chosen parts become one, named after the first"));
        var split = Ui.button("Split", () -> split(names(chosen), angle.getText()), "small-button");
        split.setTooltip(new Tooltip("The chosen parts fall into pieces where neighbouring faces bend more than this"));
        var reset = Ui.button("As read", () -> treat("Parts as read", t -> t.withParts(List.of())), "small-button");
        reset.setDisable(treatment().parts().isEmpty());
        HBox tools = Ui.row(
                8,
                Ui.label("Chosen parts", "small", "muted"),
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

    private Node part(Part p, RunHealth.PartSize size, Map<String, CheckBox> chosen) {
        var box = new CheckBox();
        box.setId("choose-" + p.name());
        box.setAccessibleText("Choose part " + p.name());
        box.setMinWidth(24);
        chosen.put(p.name(), box);
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

    private static List<String> names(Map<String, CheckBox> chosen) {
        return chosen.entrySet().stream()
                .filter(e -> e.getValue().isSelected())
                .map(Map.Entry::getKey)
                .toList();
    }

    private void merge(List<String> names) {
        if (names.size() < 2) {
            session.say("Choose the parts to join with the boxes before their names, at least two.");
            return;
        }
        treat("Join parts", t -> t.with(new PartEdit.Merge(names, names.getFirst())));
    }

    private void split(List<String> names, String angle) {
        if (names.isEmpty()) {
            session.say("Choose the part to split with the box before its name.");
            return;
        }
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
        run.fields().stream()
                .filter(f ->
                        f.at() == Field.At.CELL && f.components() == 1 && f.values() instanceof lane.field.Values.Ints)
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
