package lane.desk.intake;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.ManyRows;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.ShownPath;
import lane.desk.TableDesk;
import lane.desk.Ui;
import lane.desk.readings.OverTime;
import lane.formats.table.TableReader;
import lane.reference.Monitors;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/**
 * A table as it was read: what was found out about it, to be corrected, its columns with role and unit, and a chart of what
 * it becomes. Corrections are kept with the study for all tables of the kind.
 */
final class TableSheet {
    private static final int MOST_TOLD = 6;

    private final Session session;
    private final String file;
    private @Nullable LikeBox like;

    TableSheet(Session session, String file) {
        this.session = session;
        this.file = file;
    }

    void addTo(VBox sheet) {
        try {
            Table table = session.tables().of(file, session.study().recipes());
            if (table == null) {
                sheet.getChildren().add(SourceSheet.title(ShownPath.words(session, file, 36), "being read"));
                return;
            }
            Recipe recipe = recipe(table.layout().kind());
            sheet.getChildren().add(SourceSheet.title(ShownPath.words(session, file, 36), table.recipe()));
            sheet.getChildren()
                    .add(TableLines.of(
                            table.layout().places().top(), recipe.lines(), l -> correct(recipe, x -> x.with(l))));
            sheet.getChildren().add(layout(table, recipe));
            sheet.getChildren().add(shared(table, recipe));
            told(table, sheet);
            sheet.getChildren()
                    .addAll(new ColumnRows(session, file, table, recipe, c -> correct(recipe, x -> x.with(c))).nodes());
            monitors(table).ifPresent(sheet.getChildren()::add);
            sheet.getChildren().add(TableChart.of(table, session.palette()));
            SourceSheet.files(session, List.of(table.input()), sheet);
        } catch (LaneException e) {
            sheet.getChildren().add(SourceSheet.title(ShownPath.words(session, file, 36), ""));
            Label text = Ui.label(e.getMessage(), "trouble-text");
            text.setWrapText(true);
            text.setMinHeight(Region.USE_PREF_SIZE);
            sheet.getChildren().add(text);
            unreadable(sheet);
        }
    }

    /** What was left out and what is doubtful. */
    private static void told(Table table, VBox sheet) {
        List<String> all = new java.util.ArrayList<>(table.found().findings());
        List<Table.Dropped> dropped = table.found().dropped();
        for (Table.Dropped d : dropped.subList(0, Math.min(MOST_TOLD, dropped.size()))) {
            all.add("Line " + d.line() + " is left out: " + d.why());
        }
        if (dropped.size() > MOST_TOLD) {
            all.add((dropped.size() - MOST_TOLD) + " more lines are left out.");
        }
        all.forEach(t -> sheet.getChildren().add(RunSection.note(lane.base.Plain.title(t), "small", "ochre")));
    }

    private Recipe recipe(String kind) {
        return Recipe.among(session.study().recipes(), name(), List.of(kind));
    }

    /** What could not be read as it was found may be read as somebody says. */
    private void unreadable(VBox sheet) {
        try {
            String kind = TableReader.kind(session.library().resolve(file), file);
            sheet.getChildren().add(layout(null, recipe(kind)));
        } catch (LaneException e) {
            // The file itself is the trouble, and that was told above.
            return;
        }
    }

    private String name() {
        return java.nio.file.Path.of(file).getFileName().toString();
    }

    private void correct(Recipe recipe, UnaryOperator<Recipe> edit) {
        session.edit("Correct how the table is read", s -> s.with(edit.apply(recipe)));
    }

    private static String found(String said, String value) {
        return said.isBlank() ? "as found" + (value.isBlank() ? "" : ": " + value) : said;
    }

    private Node layout(@Nullable Table table, Recipe r) {
        Table.Layout l = table == null ? null : table.layout();
        var row = new FlowPane(8, 6);
        row.setRowValignment(javafx.geometry.VPos.CENTER);
        boolean book = file.toLowerCase(java.util.Locale.ROOT).endsWith(".xlsx");
        if (book) {
            if (l != null && l.sheets().size() > 1) {
                row.getChildren()
                        .addAll(
                                Ui.label("Sheet", "second"),
                                choice(
                                        "table-sheet",
                                        150,
                                        l.sheets(),
                                        l.sheet(),
                                        s -> s,
                                        s -> r.withLayout(
                                                r.encoding(), r.separator(), r.decimal(), s, r.skip(), r.headers()),
                                        r));
            }
        } else {
            row.getChildren()
                    .addAll(
                            Ui.row(
                                    8,
                                    Ui.label("Between columns", "second"),
                                    choice(
                                            "table-separator",
                                            178,
                                            List.of("", "comma", "semicolon", "tab", "bar", "space"),
                                            r.separator(),
                                            s -> found(s, l == null ? "" : l.separator()),
                                            s -> r.withLayout(
                                                    r.encoding(), s, r.decimal(), r.sheet(), r.skip(), r.headers()),
                                            r)),
                            Ui.row(
                                    8,
                                    Ui.label("Decimal", "second"),
                                    choice(
                                            "table-decimal",
                                            152,
                                            List.of("", "point", "comma"),
                                            r.decimal(),
                                            s -> found(s, l == null ? "" : l.decimal()),
                                            s -> r.withLayout(
                                                    r.encoding(), r.separator(), s, r.sheet(), r.skip(), r.headers()),
                                            r)),
                            Ui.row(
                                    8,
                                    Ui.label("Letters", "second"),
                                    choice(
                                            "table-encoding",
                                            158,
                                            List.of("", "UTF-8", "Latin-1", "UTF-16"),
                                            r.encoding(),
                                            s -> found(s, l == null ? "" : l.encoding()),
                                            s -> r.withLayout(
                                                    s, r.separator(), r.decimal(), r.sheet(), r.skip(), r.headers()),
                                            r)));
            var skip = Ui.number(
                    "table-skip",
                    Math.max(0, r.skip()),
                    v -> correct(
                            r,
                            x -> x.withLayout(
                                    x.encoding(),
                                    x.separator(),
                                    x.decimal(),
                                    x.sheet(),
                                    (int) Math.max(0, v),
                                    x.headers())));
            skip.setPrefWidth(46);
            row.getChildren().add(Ui.row(8, Ui.label("Skip lines", "second"), skip));
        }
        List<Integer> heads = List.of(-1, 0, 1, 2);
        row.getChildren()
                .addAll(Ui.row(
                        8,
                        Ui.label("Header", "second"),
                        choice(
                                "table-header",
                                206,
                                heads,
                                r.headers(),
                                h -> h < 0 ? found("", l == null ? "" : head(l.headers())) : head(h),
                                h -> r.withLayout(r.encoding(), r.separator(), r.decimal(), r.sheet(), r.skip(), h),
                                r)));
        var missing = Ui.text(
                "table-missing",
                String.join("; ", r.missing()),
                v -> correct(
                        r,
                        x -> x.withMissing(java.util.Arrays.stream(v.split(";"))
                                .map(String::strip)
                                .filter(m -> !m.isEmpty())
                                .toList())));
        missing.setPrefWidth(96);
        missing.setPromptText("-999; k.A.");
        row.getChildren().add(Ui.row(8, Ui.label("Also missing", "second"), missing));
        return row;
    }

    private static String head(int rows) {
        return rows == 0 ? "none" : rows == 1 ? "names" : "names and units";
    }

    private <T> ComboBox<T> choice(
            String id,
            double width,
            List<T> items,
            T value,
            java.util.function.Function<T, String> word,
            java.util.function.Function<T, Recipe> made,
            Recipe recipe) {
        ComboBox<T> box = Ui.choice(id, items, value, word, v -> correct(recipe, x -> made.apply(v)));
        box.setPrefWidth(width);
        return box;
    }

    /** That corrections hold for other tables too is said before they are made. */
    private Node shared(Table table, Recipe recipe) {
        String kind = table.layout().kind();
        boolean corrected = !recipe.forHeader(kind).equals(Recipe.of(kind));
        boolean own = !recipe.file().isBlank();
        var label = Ui.label("", "small", "muted");
        Runnable told = new Runnable() {
            @Override
            public void run() {
                label.setText(shared(recipe, own, corrected, alike(kind, this)));
            }
        };
        told.run();
        var row = Ui.row(10, label);
        if (corrected) {
            row.getChildren()
                    .add(Ui.button(
                            own ? "For tables with this header" : "For this file alone",
                            () -> session.edit("Correct how the table is read", s -> s.without(recipe)
                                    .with(own ? recipe.forHeader(kind) : recipe.forFile(name()))),
                            "small-button"));
            row.getChildren().add(Ui.button("As found", () -> forget(recipe), "small-button"));
        }
        return row;
    }

    private static String shared(Recipe recipe, boolean own, boolean corrected, long others) {
        return own
                ? corrected ? "Corrected for the file " + recipe.file() + "." : "As found."
                : (corrected
                                ? "Corrected by hand"
                                : "As found; click a line to say what it is. Corrections are kept with the study")
                        + (others == 0
                                ? corrected
                                        ? "; the next table with this header is read the same."
                                        : " for tables with this header."
                                : " for this and " + Ui.count((int) others, "other table") + " with this header.");
    }

    private void forget(Recipe recipe) {
        session.edit("Read the table as found", s -> s.without(recipe));
    }

    /** How many other tables of the study have the same header, as far as they are read. */
    private long alike(String kind, Runnable then) {
        Map<String, TableDesk.Kind> kinds = Kin.kinds(session, then);
        return kinds == null
                ? 0
                : kinds.entrySet().stream()
                        .filter(e ->
                                !e.getKey().equals(file) && e.getValue().line().equals(kind))
                        .count();
    }

    /** The way from the columns of a log to curves over time. */
    private Optional<Node> monitors(Table table) {
        List<Monitors.One> all = Monitors.of(table);
        Source.Reference source = session.study().sources().stream()
                .filter(s -> s instanceof Source.Reference r && r.files().contains(file))
                .map(Source.Reference.class::cast)
                .findFirst()
                .orElse(null);
        if (source == null || all.isEmpty()) {
            return Optional.empty();
        }
        var menu = Named.menuButton("Read over " + all.getFirst().along());
        menu.setId("monitor-columns");
        menu.getStyleClass().add("small-menu");
        menu.getItems().setAll(monitorItems(source, all));
        // What is searched for may be another by now.
        menu.setOnShowing(e -> menu.getItems().setAll(monitorItems(source, all)));
        like = new LikeBox(session, source, "monitor-like", () -> file, () -> "");
        return Optional.of(new VBox(
                4,
                Ui.row(
                        10,
                        menu,
                        Ui.label(
                                "each column becomes a history among the readings; its Numbers tell its last value and whether it has settled",
                                "small",
                                "muted")),
                like.node()));
    }

    /** All of them, those that are searched for, or one; not a thousand one by one. */
    private List<javafx.scene.control.MenuItem> monitorItems(Source.Reference source, List<Monitors.One> all) {
        List<String> searched = ManyRows.found(
                session,
                ColumnRows.LIST,
                file,
                all.stream().map(Monitors.One::column).toList());
        List<Monitors.One> found =
                all.stream().filter(o -> searched.contains(o.column())).toList();
        List<javafx.scene.control.MenuItem> items = new java.util.ArrayList<>();
        items.add(monitorItem(
                source, all.size() == 1 ? all.getFirst().column() : "All " + Ui.count(all.size(), "column"), all));
        if (found.size() > 1 && found.size() < all.size()) {
            items.add(monitorItem(source, "The " + Ui.count(found.size(), "column") + " found", found));
        }
        if (all.size() > 1) {
            items.add(new javafx.scene.control.SeparatorMenuItem());
            found.stream().limit(MOST_ITEMS).forEach(o -> items.add(monitorItem(source, o.column(), List.of(o))));
        }
        if (found.size() > MOST_ITEMS) {
            var more = Named.item((found.size() - MOST_ITEMS) + " more: search the columns above");
            more.setDisable(true);
            items.add(more);
        }
        return items;
    }

    private static final int MOST_ITEMS = 20;

    private javafx.scene.control.MenuItem monitorItem(
            Source.Reference source, String text, List<Monitors.One> columns) {
        var item = Named.item(text);
        item.setOnAction(e -> monitors(source, columns));
        return item;
    }

    private void monitors(Source.Reference source, List<Monitors.One> all) {
        List<Source.Reference> others = like == null ? List.of() : like.chosen();
        OverTime.monitors(session, source, file, all, others);
        session.go(4);
    }
}
