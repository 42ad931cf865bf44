package lane.desk.readings;

import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import lane.base.LaneException;
import lane.desk.Chosen;
import lane.desk.Entry;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.evaluation.BoundQuantity;
import lane.formats.io.FileNames;
import lane.formats.table.TableReader;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reference.Curve;
import lane.reference.Table;
import lane.reference.TableFit;
import lane.station.CurveAxis;
import lane.station.Shape;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;

/**
 * Brings a reference to a reading, where the reading is looked at: against a file, a formula or a value. Tables that are at
 * Intake already are proposed where their units and rows fit. The first reference becomes the datum unless there is one.
 */
final class AgainstForm {
    /** What the form shows besides its buttons; kept while the window is built anew. */
    enum Open {
        NOTHING,
        FORMULA,
        VALUE
    }

    private static final int PROPOSED = 3;
    private final Session session;
    private final VBox box = new VBox(6);
    private Open open = Open.NOTHING;
    private String of = "";

    AgainstForm(Session session) {
        this.session = session;
    }

    /** The form for a reading; empty for one that only runs can answer. */
    Node show(Reading reading) {
        if (!reading.id().equals(of)) {
            of = reading.id();
            open = Open.NOTHING;
        }
        box.getChildren().clear();
        if (reading.ask().form() == Ask.Form.TERMS) {
            return box;
        }
        var title = Ui.label("Against", "title");
        title.setStyle("-fx-padding: 12 0 0 0;");
        var file = Ui.button("A file…", () -> file(reading), "small-button");
        var formula = Ui.button("A formula", () -> open(reading, Open.FORMULA), "small-button");
        var value = Ui.button("A value", () -> open(reading, Open.VALUE), "small-button");
        file.setId("against-file");
        formula.setId("against-formula");
        value.setId("against-value");
        var buttons = new FlowPane(6, 6, file, formula);
        if (reading.ask().form() == Ask.Form.NUMBER) {
            buttons.getChildren().add(value);
        }
        box.getChildren().addAll(title, buttons);
        proposals(reading);
        switch (open) {
            case NOTHING -> {}
            case FORMULA -> formula(reading);
            case VALUE -> value(reading);
        }
        return box;
    }

    private void open(Reading reading, Open what) {
        open = open == what ? Open.NOTHING : what;
        show(reading);
    }

    /** What a reading asks of a table, by what the lanes answer now. */
    private TableFit.Wanted wanted(Reading reading) {
        Set<String> names = new HashSet<>();
        names.add(reading.name());
        reading.quantities().forEach(k -> {
            names.add(k);
            session.study().quantity(k).map(Quantity::name).ifPresent(names::add);
        });
        if (reading.ask().curve().isPresent()) {
            return ofCurve(reading, names);
        }
        for (Source s : session.study().sources()) {
            Outcome o = session.results().outcome(reading.id(), s.id());
            if (o instanceof Profile p && p.size() > 0) {
                return new TableFit.Wanted(
                        true, names, p.unit(), p.abscissaUnit(), p.abscissa()[0], p.abscissa()[p.size() - 1]);
            }
            if (!(o instanceof Outcome.Absent)) {
                return new TableFit.Wanted(false, names, o.unit(), Unit.UNKNOWN, Double.NaN, Double.NaN);
            }
        }
        return new TableFit.Wanted(curved(reading), names, Unit.UNKNOWN, Unit.UNKNOWN, Double.NaN, Double.NaN);
    }

    /** Whether it wants a curve, to answer with it or to take a number of it. */
    private static boolean curved(Reading reading) {
        return reading.curve() || reading.ask().curve().isPresent();
    }

    /** For a number of a curve, by what the curve is drawn against and what the runs have. */
    private TableFit.Wanted ofCurve(Reading reading, Set<String> names) {
        Unit along = reading.stations().stream()
                .flatMap(id -> session.study().station(id).stream())
                .filter(s -> s.shape() instanceof Shape.Curved)
                .map(s -> CurveAxis.of(s).unit())
                .findFirst()
                .orElse(Unit.UNKNOWN);
        var lens = session.lens();
        Unit unit = reading.quantities().stream()
                .map(lens::quantity)
                .flatMap(q -> session.results().runs().values().stream()
                        .flatMap(r -> BoundQuantity.type(r, q, lens).stream()))
                .map(lane.formula.Type::unit)
                .findFirst()
                .orElse(Unit.UNKNOWN);
        return new TableFit.Wanted(true, names, unit, along, Double.NaN, Double.NaN);
    }

    private Optional<Table> table(String file) {
        try {
            // One that is still being read is proposed once it is there.
            return Optional.ofNullable(session.tables().of(file, session.study().recipes()));
        } catch (LaneException e) {
            return Optional.empty();
        }
    }

    private void proposals(Reading reading) {
        TableFit.Wanted wanted = wanted(reading);
        List<Node> rows = new ArrayList<>();
        for (Source s : session.study().sources()) {
            if (!(s instanceof Source.Reference r)
                    || r.answer(session.study(), reading).isPresent()) {
                continue;
            }
            for (String file : r.files()) {
                Set<String> means = new HashSet<>();
                table(file).ifPresent(t -> TableFit.of(t, wanted).stream()
                        .filter(f -> f.score() > 1)
                        // A mean of a column is the same whatever stands beside it: the likeliest one stands for all.
                        .filter(f -> curved(reading) || means.add(f.value()))
                        .limit(PROPOSED)
                        .forEach(f -> {
                            var take = Ui.button(
                                    r.name() + ": " + words(f, reading),
                                    () -> answer(reading, r, answer(reading, file, t, f)),
                                    "small-button");
                            take.setMinWidth(0);
                            take.setMaxWidth(300);
                            take.setId("against-" + r.id() + "-" + rows.size());
                            Tip.on(take, f.words());
                            rows.add(take);
                        }));
            }
        }
        if (!rows.isEmpty()) {
            box.getChildren().add(Ui.label("At Intake, and fits:", "small", "muted"));
            box.getChildren().addAll(rows.subList(0, Math.min(rows.size(), 5)));
            if (rows.size() > 5) {
                box.getChildren()
                        .add(Ui.label("and " + (rows.size() - 5) + " more; choose them at Intake", "small", "muted"));
            }
        }
    }

    private static String words(TableFit.Fit fit, Reading reading) {
        return curved(reading) ? fit.value() + " over " + fit.abscissa() : "mean of " + fit.value();
    }

    private static Curve answer(Reading reading, String file, Table table, TableFit.Fit fit) {
        if (curved(reading)) {
            return new Curve.Columns(
                    reading.id(), file, fit.abscissa(), "", fit.value(), "", TableFit.uncertainty(table, fit.value()));
        }
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (double v : table.column(fit.abscissa())) {
            least = Math.min(least, Double.isNaN(v) ? least : v);
            greatest = Math.max(greatest, Double.isNaN(v) ? greatest : v);
        }
        return new Curve.WindowMean(reading.id(), file, fit.value(), "", fit.abscissa(), least, greatest);
    }

    private void answer(Reading reading, Source.Reference source, Curve answer) {
        open = Open.NOTHING;
        session.edit("Bring a reference", s -> datum(s.with(with(source, answer)), source.id()));
        session.note(source.name() + " answers \"" + reading.name()
                + "\" now. Its columns and their units are set at Intake.");
    }

    private static Source.Reference with(Source.Reference r, Curve answer) {
        List<Curve> all = new ArrayList<>(r.answers());
        all.add(answer);
        return new Source.Reference(r.id(), r.name(), r.kind(), r.files(), r.constants(), all);
    }

    /** The first reference is what the others are compared with, unless there is a datum. */
    private static Study datum(Study study, String reference) {
        return study.source(study.datum()).isPresent() ? study : study.withDatum(reference);
    }

    private void file(Reading reading) {
        var chooser = new FileChooser();
        chooser.setTitle("A table to compare with");
        chooser.getExtensionFilters()
                .add(new FileChooser.ExtensionFilter(
                        "Tables",
                        TableReader.ENDINGS.stream().map(e -> "*." + e).toList()));
        File file = chooser.showOpenDialog(box.getScene().getWindow());
        if (file != null) {
            file(reading, file.toPath());
        }
    }

    /** Adds a table as a source that answers the reading by its columns that fit best; without any it waits at Intake. */
    void file(Reading reading, Path file) {
        String path = session.library().named(file);
        Optional<Source.Reference> there = session.study().sources().stream()
                .filter(Source.Reference.class::isInstance)
                .map(Source.Reference.class::cast)
                .filter(r -> r.files().contains(path))
                .findFirst();
        String name = FileNames.stem(path);
        Source.Reference source = there.orElseGet(() ->
                new Source.Reference(id(name), name, Source.Kind.MEASUREMENT, List.of(path), Map.of(), List.of()));
        Table table;
        try {
            table = session.library().table(path, session.study().recipes());
        } catch (LaneException e) {
            session.say(e.getMessage());
            return;
        }
        Optional<TableFit.Fit> fit =
                TableFit.of(table, wanted(reading)).stream().findFirst();
        Source.Reference made =
                fit.map(f -> with(source, answer(reading, path, table, f))).orElse(source);
        session.edit(
                "Bring a reference",
                s -> datum(
                        there.isPresent()
                                ? s.with(made)
                                : s.withSources(l -> {
                                    l.add(made);
                                    return l;
                                }),
                        made.id()));
        if (fit.isEmpty()) {
            session.select(Chosen.SOURCE, made.id());
            session.go(1);
            session.say("No column of " + name + " has a unit that fits \"" + reading.name()
                    + "\"; say here what its columns are, and add an answer.");
        } else {
            session.note(name + " answers by " + words(fit.get(), reading) + ": "
                    + (fit.get().words().isBlank() ? "its units fit" : fit.get().words()) + ".");
        }
    }

    private String id(String name) {
        return Study.freshId(
                name, session.study().sources().stream().map(Source::id).toList());
    }

    private static TextField field(String id, String prompt, double width) {
        var field = Entry.of(new TextField());
        field.setId(id);
        field.setPromptText(prompt);
        field.setPrefWidth(width);
        return field;
    }

    private String unit(Reading reading) {
        return session.results().unit(reading.id()).symbol();
    }

    private void formula(Reading reading) {
        var formula = field("against-formula-text", "such as 20 + 5 * exp(-s / 0.1)", 230);
        var unit = field("against-formula-unit", "unit", 70);
        unit.setText(unit(reading));
        var note = Ui.label(
                "x, y, z, r, s along the line and the time t, all in SI units; constants are kept at Intake.",
                "small",
                "muted");
        note.setWrapText(true);
        note.setMinHeight(Region.USE_PREF_SIZE);
        Runnable add = () -> made(
                reading,
                "theory",
                Source.Kind.THEORY,
                () -> new Curve.ByFormula(
                        reading.id(), formula.getText(), unit.getText().strip()));
        formula.setOnAction(e -> add.run());
        unit.setOnAction(e -> add.run());
        var button = Ui.button("Compare with it", add, "small-button");
        button.setId("against-formula-add");
        box.getChildren().addAll(new FlowPane(6, 6, formula, unit, button), note);
    }

    private void value(Reading reading) {
        var value = field("against-value-number", "value", 84);
        var unit = field("against-value-unit", "unit", 64);
        unit.setText(unit(reading));
        var half = field("against-value-half", "± uncertainty", 104);
        var note = field("against-value-note", "where it comes from", 190);
        Runnable add = () -> made(
                reading,
                "hand value",
                Source.Kind.MEASUREMENT,
                () -> new Curve.HandValue(
                        reading.id(),
                        number(value),
                        unit.getText().strip(),
                        half.getText().isBlank() ? 0 : number(half),
                        note.getText()));
        for (TextField f : List.of(value, unit, half, note)) {
            f.setOnAction(e -> add.run());
        }
        var button = Ui.button("Compare with it", add, "small-button");
        button.setId("against-value-add");
        box.getChildren().add(new FlowPane(6, 6, value, unit, half, note, button));
    }

    private static double number(TextField field) {
        try {
            return Double.parseDouble(
                    field.getText().strip().replace(',', '.').replace('−', '-').toLowerCase(Locale.ROOT));
        } catch (NumberFormatException e) {
            throw new LaneException("\"" + field.getText() + "\" is no number; write it like 36.5.", e);
        }
    }

    /** Puts an answer into the reference of that name and kind that does not answer the reading yet, or into a new one. */
    private void made(Reading reading, String name, Source.Kind kind, Supplier<Curve> make) {
        Curve answer;
        try {
            answer = make.get();
        } catch (LaneException e) {
            session.say(e.getMessage());
            return;
        }
        open = Open.NOTHING;
        Optional<Source.Reference> there = session.study().sources().stream()
                .filter(Source.Reference.class::isInstance)
                .map(Source.Reference.class::cast)
                .filter(r -> r.kind() == kind
                        && r.files().isEmpty()
                        && r.answers().stream().noneMatch(a -> a.reading().equals(reading.id())))
                .findFirst();
        if (there.isPresent()) {
            answer(reading, there.get(), answer);
            return;
        }
        String id = id(name);
        session.edit(
                "Bring a reference",
                s -> datum(
                        s.withSources(l -> {
                            l.add(new Source.Reference(id, id, kind, List.of(), Map.of(), List.of(answer)));
                            return l;
                        }),
                        id));
    }
}
