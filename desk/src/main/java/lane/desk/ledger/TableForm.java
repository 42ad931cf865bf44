package lane.desk.ledger;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.collections.FXCollections;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.ledger.Ledger;
import lane.ledger.LedgerTable;
import lane.ledger.LedgerTables;
import lane.reading.Reading;
import lane.study.Study;
import lane.study.TableTemplate;
import org.jspecify.annotations.Nullable;

/** A table of the ledger set up: what it holds, its columns in order with their names and digits, units, order of lines. */
final class TableForm {
    private static final double WORD = 76;
    private static final double LIST = 190;

    private final Session session;
    private final int at;
    private final Runnable close;
    private final VBox box = new VBox(8);
    private @Nullable String chosen;

    /** A column that the table can have, and whether it does. */
    private record Line(LedgerTable.Column column, TableTemplate.@Nullable Column shown) {}

    /** @param at place of the table among those of the study */
    TableForm(Session session, int at, Runnable close) {
        this.session = session;
        this.at = at;
        this.close = close;
    }

    Node node() {
        fill();
        return Ui.panel(box);
    }

    private List<TableTemplate> all(Study study) {
        return study.pictures().ledger().of(study);
    }

    private TableTemplate table() {
        List<TableTemplate> all = all(session.study());
        return all.get(Math.min(at, all.size() - 1));
    }

    private void edit(String name, UnaryOperator<TableTemplate> edit) {
        try {
            TableTemplate next = edit.apply(table());
            session.edit(name, s -> {
                List<TableTemplate> all = new ArrayList<>(all(s));
                all.set(Math.min(at, all.size() - 1), next);
                return with(s, all);
            });
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
    }

    static Study with(Study s, List<TableTemplate> all) {
        return s.with(s.pictures().with(s.pictures().ledger().with(all)));
    }

    private static HBox row(String word, Node... nodes) {
        var flow = new FlowPane(8, 5, nodes);
        flow.setPrefWrapLength(214);
        HBox.setHgrow(flow, Priority.ALWAYS);
        return Ui.row(8, Ui.left(word, WORD, "second"), flow);
    }

    private void fill() {
        TableTemplate t = table();
        Ledger ledger = Ledger.of(session.results());
        var done = Ui.button("Done", close, "small-button");
        done.setId("table-done");
        box.getChildren().setAll(Ui.row(8, Ui.label("Set up the table", "title"), Ui.spring(), done));
        var title = Ui.text("table-title", t.name(), v -> edit("Name table", x -> x.titled(v.strip())));
        title.setPrefWidth(200);
        box.getChildren().add(row("Title", title));
        var of = Ui.choice(
                "table-of",
                List.of(TableTemplate.Content.values()),
                t.of(),
                TableTemplate.Content::word,
                v -> edit("Table of " + v.word(), x -> x.of(v, List.of())));
        of.setMaxWidth(210);
        of.setPrefWidth(210);
        box.getChildren().add(row("Holds", of));
        readings(t);
        columns(t, ledger);
        var units = Ui.text(
                "table-units",
                String.join(", ", t.units()),
                v -> edit(
                        "Units of the table",
                        x -> x.in(Arrays.stream(v.split(",", -1))
                                .map(String::strip)
                                .filter(u -> !u.isEmpty())
                                .toList())));
        units.setPrefWidth(120);
        Tip.on(units, "Parted by commas, such as kPa, mm. A number is told in the first that suits it.");
        box.getChildren().add(row("Units", units));
        var digits = Ui.number("table-digits", t.digits(), v -> edit("Digits of the table", x -> x.to(v.intValue())));
        digits.setPrefWidth(48);
        box.getChildren().add(row("Digits", digits, Ui.label("0: as many as it takes", "small", "muted")));
        if (t.of().curves()) {
            var lines =
                    Ui.number("table-rows", t.places(), v -> edit("Lines of the table", x -> x.along(v.intValue())));
            lines.setPrefWidth(60);
            box.getChildren().add(row("Lines", lines, Ui.label("evenly along the curve", "small", "muted")));
        }
        order(t, ledger);
        var remove = Ui.button(
                "Remove this table",
                () -> {
                    close.run();
                    session.edit("Remove table", s -> {
                        List<TableTemplate> all = new ArrayList<>(all(s));
                        all.remove(Math.min(at, all.size() - 1));
                        return with(s, all);
                    });
                },
                "small-button");
        remove.setId("table-remove");
        remove.setDisable(all(session.study()).size() < 2);
        Tip.on(remove, remove.isDisabled() ? "It is the only table; a ledger has at least one." : "");
        var usual = Ui.button(
                "Tables as usual",
                () -> {
                    close.run();
                    session.edit("Tables as usual", s -> with(s, List.of()));
                },
                "small-button");
        usual.setId("tables-usual");
        box.getChildren().add(new FlowPane(8, 6, remove, usual));
    }

    /** Which readings it tells of: ticked, or none for all. */
    private void readings(TableTemplate t) {
        List<Reading> may = LedgerTables.readings(session.study(), t.of());
        if (may.size() < 2) {
            return;
        }
        var list = new ListView<Reading>(FXCollections.observableArrayList(may));
        list.setId("table-readings");
        list.setFixedCellSize(24);
        list.setPrefHeight(Math.min(120, 26.0 * may.size()));
        list.setMinHeight(52);
        list.setCellFactory(v -> new ListCell<>() {
            @Override
            protected void updateItem(Reading r, boolean empty) {
                super.updateItem(r, empty);
                if (empty || r == null) {
                    setGraphic(null);
                    return;
                }
                CheckBox tick = Named.check(r.name());
                tick.setSelected(t.readings().isEmpty() || t.readings().contains(r.id()));
                tick.setOnAction(e -> tell(t, may, r, tick.isSelected()));
                setGraphic(tick);
            }
        });
        box.getChildren()
                .addAll(
                        Ui.label(t.readings().isEmpty() ? "Tells of all readings" : "Tells of", "small", "muted"),
                        list);
    }

    private void tell(TableTemplate t, List<Reading> may, Reading r, boolean on) {
        List<String> next = new ArrayList<>(
                t.readings().isEmpty() ? may.stream().map(Reading::id).toList() : t.readings());
        next.remove(r.id());
        if (on) {
            next.add(r.id());
        }
        boolean whole = next.size() == may.size();
        edit(
                "Readings of the table",
                x -> new TableTemplate(
                        x.title(),
                        x.of(),
                        whole ? List.of() : next,
                        x.columns(),
                        x.units(),
                        x.digits(),
                        x.order(),
                        x.rows()));
    }

    private void columns(TableTemplate t, Ledger ledger) {
        List<LedgerTable.Column> can = LedgerTables.columns(session.results(), ledger, t);
        List<String> usual = LedgerTables.usual(session.results(), ledger, t);
        List<TableTemplate.Column> shown = t.columns().isEmpty()
                ? usual.stream().map(n -> new TableTemplate.Column(n, "", 0)).toList()
                : t.columns();
        List<Line> lines = new ArrayList<>();
        for (TableTemplate.Column c : shown) {
            can.stream().filter(k -> k.name().equals(c.name())).findFirst().ifPresent(k -> lines.add(new Line(k, c)));
        }
        can.stream()
                .filter(k -> shown.stream().noneMatch(c -> c.name().equals(k.name())))
                .forEach(k -> lines.add(new Line(k, null)));
        var list = new ListView<Line>(FXCollections.observableArrayList(lines));
        list.setId("table-columns");
        list.setFixedCellSize(26);
        list.setPrefHeight(LIST);
        list.setMinHeight(110);
        list.setCellFactory(v -> new Cell(shown));
        box.getChildren().addAll(Ui.label("Columns, in order", "small", "muted"), list);
        Line before = lines.stream()
                .filter(l -> l.column.name().equals(chosen))
                .findFirst()
                .orElse(null);
        if (before != null) {
            list.getSelectionModel().select(before);
        }
        var one = new VBox(6);
        box.getChildren().add(one);
        list.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> {
            chosen = is == null ? null : is.column.name();
            column(one, is, shown);
        });
        column(one, before, shown);
    }

    private void column(VBox into, @Nullable Line line, List<TableTemplate.Column> shown) {
        into.getChildren().clear();
        if (line == null || line.shown == null) {
            into.getChildren()
                    .add(Ui.label(
                            line == null ? "Choose a column to name it." : line.column.meaning(), "small", "muted"));
            return;
        }
        TableTemplate.Column own = line.shown;
        var title = Ui.text(
                "column-title",
                own.title().isBlank() ? line.column.title() : own.title(),
                v -> put("Name column", shown, own, new TableTemplate.Column(own.name(), v.strip(), own.digits())));
        title.setPrefWidth(130);
        into.getChildren().add(row("Its name", title));
        if (line.column.number()) {
            var digits = Ui.number("column-digits", own.digits(), v -> {
                if (v >= 0 && v <= TableTemplate.MOST_DIGITS) {
                    put(
                            "Digits of a column",
                            shown,
                            own,
                            new TableTemplate.Column(own.name(), own.title(), v.intValue()));
                } else {
                    session.say("A number is told with up to " + TableTemplate.MOST_DIGITS + " digits.");
                }
            });
            digits.setPrefWidth(48);
            into.getChildren().add(row("Its digits", digits, Ui.label("0: as the table's", "small", "muted")));
        }
        var meaning = Ui.label(line.column.meaning(), "small", "muted");
        meaning.setWrapText(true);
        into.getChildren().add(meaning);
    }

    private void put(
            String name, List<TableTemplate.Column> shown, TableTemplate.Column old, TableTemplate.Column next) {
        edit(name, x -> x.with(shown.stream().map(c -> c.equals(old) ? next : c).toList()));
    }

    private void order(TableTemplate t, Ledger ledger) {
        List<String> names = new ArrayList<>(List.of(""));
        List<LedgerTable.Column> can = LedgerTables.columns(session.results(), ledger, t);
        can.forEach(c -> names.add(c.name()));
        var by = Ui.choice(
                "table-order",
                names,
                t.order().column(),
                n -> n.isEmpty()
                        ? "as in the study"
                        : can.stream()
                                .filter(c -> c.name().equals(n))
                                .map(LedgerTable.Column::title)
                                .findFirst()
                                .orElse(n),
                v -> edit(
                        "Order of lines",
                        x -> x.by(new TableTemplate.Order(v, x.order().descending()))));
        by.setPrefWidth(150);
        CheckBox down = Named.check("greatest first");
        down.setId("table-descending");
        down.setSelected(t.order().descending());
        down.setDisable(t.order().column().isBlank());
        down.setOnAction(e -> edit(
                "Order of lines", x -> x.by(new TableTemplate.Order(x.order().column(), down.isSelected()))));
        box.getChildren().add(row("Order", by, down));
    }

    /** A column: ticked where it is shown, with the ways to move it. */
    private final class Cell extends ListCell<Line> {
        private final List<TableTemplate.Column> shown;

        Cell(List<TableTemplate.Column> shown) {
            this.shown = shown;
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(Line line, boolean empty) {
            super.updateItem(line, empty);
            if (empty || line == null) {
                setGraphic(null);
                return;
            }
            CheckBox tick = Named.check("");
            String name = line.shown == null || line.shown.title().isBlank() ? line.column.title() : line.shown.title();
            tick.setAccessibleText(name);
            tick.setId("column-" + line.column.name());
            tick.setSelected(line.shown != null);
            tick.setOnAction(e -> tick(line));
            Label label = Ui.label(name, "second");
            label.setMinWidth(0);
            label.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(label, Priority.ALWAYS);
            var row = Ui.row(6, tick, label);
            if (line.shown != null) {
                int place = shown.indexOf(line.shown);
                row.getChildren().addAll(mover("↑", line, place, place - 1), mover("↓", line, place, place + 1));
            }
            setGraphic(row);
        }

        private Node mover(String word, Line line, int from, int to) {
            var button = Ui.button(
                    word,
                    () -> {
                        List<TableTemplate.Column> next = new ArrayList<>(shown);
                        next.add(to, next.remove(from));
                        chosen = line.column.name();
                        edit("Move column", x -> x.with(next));
                    },
                    "small-button");
            button.setId("column-" + line.column.name() + (to < from ? "-up" : "-down"));
            button.setAccessibleText((to < from ? "Move up " : "Move down ") + line.column.title());
            button.setDisable(to < 0 || to >= shown.size());
            return button;
        }

        private void tick(Line line) {
            List<TableTemplate.Column> next = new ArrayList<>(shown);
            if (line.shown == null) {
                next.add(new TableTemplate.Column(line.column.name(), "", 0));
            } else if (next.size() > 1) {
                next.remove(line.shown);
            } else {
                session.say("A table has at least one column.");
            }
            chosen = line.column.name();
            edit("Columns of the table", x -> x.with(next));
        }
    }
}
