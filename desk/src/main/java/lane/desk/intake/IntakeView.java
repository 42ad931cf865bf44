package lane.desk.intake;

import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import lane.desk.BuiltFrom;
import lane.desk.Chosen;
import lane.desk.ManyRows;
import lane.desk.Marks;
import lane.desk.Session;
import lane.desk.ShownPath;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.desk.View;
import lane.formats.DatasetReader;
import lane.picture.LaneStyle;
import lane.study.Source;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** The sources at the left, the sheet of the selected one at the right. */
public final class IntakeView implements View {
    private final Session session;
    private final BorderPane pane = new BorderPane();
    private static final int MANY = 60;
    /** As tall as a row is by its looks. */
    private static final double ROW = 52;

    private static final String LIST = "source-list";

    private final VBox rows = new VBox();
    private final ScrollPane scroll = new ScrollPane();
    private final ScrollPane right = new ScrollPane();
    private final BuiltFrom built = new BuiltFrom();
    private final BuiltFrom facts = new BuiltFrom();
    private final BuiltFrom counts = new BuiltFrom();
    /** The source that was selected when this was refreshed last. */
    private String looked = "";
    /** Sources whose runs are not read, when the list was made last. */
    private Set<String> unread = Set.of();

    public IntakeView(Session session) {
        this.session = session;
        var left = new BorderPane();
        left.getStyleClass().add("side");
        left.setPrefWidth(436);
        left.setMinWidth(400);
        HBox top = Ui.row(
                8,
                Ui.label("Sources", "title"),
                Ui.spring(),
                Ui.button("Paste", () -> FileDrop.paste(session)),
                Ui.button("+ Theory", this::theory),
                Ui.button("+ Add files", this::choose));
        top.getStyleClass().add("toolbar");
        top.setMinHeight(40);
        rows.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getTarget() instanceof ListView<?>) {
                step(e);
            }
        });
        scroll.setContent(rows);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        left.setTop(top);
        left.setCenter(scroll);
        left.setBottom(drop());
        right.setFitToWidth(true);
        right.getStyleClass().add("sheet");
        pane.setLeft(left);
        pane.setCenter(right);
        pane.setOnKeyPressed(e -> {
            if (new javafx.scene.input.KeyCodeCombination(
                                    javafx.scene.input.KeyCode.V, javafx.scene.input.KeyCombination.SHORTCUT_DOWN)
                            .match(e)
                    && !(e.getTarget() instanceof javafx.scene.control.TextInputControl)) {
                FileDrop.paste(session);
                e.consume();
            }
        });
    }

    private static Node drop() {
        var text = new VBox(
                4,
                Ui.icon(Feather.DOWNLOAD),
                Ui.label("Drop files anywhere in the window", "section"),
                Ui.label("runs with their surfaces, in any open format, or tables", "small", "muted"));
        text.setAlignment(Pos.CENTER);
        text.getStyleClass().add("drop");
        var outer = new VBox(text);
        outer.setStyle("-fx-padding: 12 16 16 16;");
        return outer;
    }

    private static List<String> endings() {
        return java.util.stream.Stream.of(
                        DatasetReader.RUNS, DatasetReader.SURFACES, lane.formats.table.TableReader.ENDINGS)
                .flatMap(List::stream)
                .map(e -> "*." + e)
                .toList();
    }

    /** What is known of the selected run's health. */
    private Object health() {
        var run = session.results().runs().get(session.selected(Chosen.SOURCE));
        var known = run == null ? null : session.health(run);
        return known == null ? "unknown" : known;
    }

    /** How much was found in each run, as far as is known. */
    private List<Integer> found() {
        return session.results().runs().values().stream()
                .map(r -> RunSheet.findings(r, session.health(r)))
                .toList();
    }

    private void theory() {
        String id = Study.freshId(
                "theory", session.study().sources().stream().map(Source::id).toList());
        session.edit(
                "Add theory",
                s -> s.withSources(l -> {
                    l.add(new Source.Reference(id, id, Source.Kind.THEORY, List.of(), Map.of(), List.of()));
                    return l;
                }));
        session.select(Chosen.SOURCE, id);
    }

    private void choose() {
        var chooser = new FileChooser();
        chooser.setTitle("Add runs and tables");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Runs and tables", endings()));
        var files = chooser.showOpenMultipleDialog(pane.getScene().getWindow());
        if (files != null) {
            FileDrop.add(session, files.stream().map(f -> f.toPath()).toList());
        }
    }

    @Override
    public Node node() {
        return pane;
    }

    @Override
    public void refresh() {
        var study = session.study();
        if (study.source(session.selected(Chosen.SOURCE)).isEmpty()
                && !study.sources().isEmpty()) {
            List<String> finest = study.finest();
            session.select(
                    Chosen.SOURCE, finest.isEmpty() ? study.sources().getFirst().id() : finest.getFirst());
        }
        // Built anew only when it shows something else.
        boolean other = built.changed(
                study.sources(),
                study.units(),
                study.recipes(),
                study.readings(),
                session.selected(Chosen.SOURCE),
                session.results().failures(),
                session.results().runs().values().stream()
                        .map(System::identityHashCode)
                        .toList(),
                session.palette().dark());
        boolean more = facts.changed(
                session.changedOnDisk(),
                health(),
                study.source(session.selected(Chosen.SOURCE)).map(this::tables));
        boolean list = counts.changed(found(), session.tables().read());
        if (other || more) {
            build();
        } else if (list) {
            list();
        }
        String selected = session.selected(Chosen.SOURCE);
        if (!selected.equals(looked)) {
            looked = selected;
            // Once the rows are laid out.
            Platform.runLater(this::show);
        }
    }

    private void build() {
        list();
        Node sheet = session.study()
                .source(session.selected(Chosen.SOURCE))
                .map(s -> SourceSheet.of(session, s))
                .orElseGet(() -> Ui.label(""));
        right.setContent(sheet);
    }

    private void list() {
        var study = session.study();
        List<LaneStyle> styles = LaneStyle.of(study.sources(), session.palette());
        HBox head = Ui.row(
                0,
                Ui.left("", 62),
                Ui.left("Lane and file", 164, "small", "muted"),
                Ui.cell("Cells", 70, "small", "muted"),
                Ui.cell("Fields", 48, "small", "muted"),
                Ui.left("", 14),
                Ui.left("State", 78, "small", "muted"));
        head.getStyleClass().add("table-row");
        List<Source> sources = study.sources();
        List<String> names = sources.stream()
                .map(s -> s.name() + " "
                        + (s instanceof Source.Reference r
                                ? String.join(" ", r.files())
                                : ((Source.Simulation) s).file()))
                .toList();
        unread = session.results().unread().keySet();
        rows.getChildren()
                .setAll(ManyRows.tall(
                        session, LIST, "source", names, head, i -> row(sources.get(i), styles.get(i)), MANY, ROW));
        if (rows.getChildren().getLast() instanceof ListView<?> list) {
            list.setFocusTraversable(true);
            list.setAccessibleText("Sources; the arrows select one");
        }
        // A list of its own scrolls by itself.
        scroll.setFitToHeight(sources.size() > MANY);
        if (study.sources().isEmpty()) {
            var empty = Ui.label("No source yet. Drop a run or a table here, or add files.", "muted");
            empty.setStyle("-fx-padding: 20 16 20 16;");
            rows.getChildren().add(empty);
        }
    }

    /** How far the tables of a reference are read. */
    private enum Tables {
        READ,
        LOADING,
        NOT_READ
    }

    private Tables tables(Source.Reference reference) {
        Tables all = Tables.READ;
        for (String file : reference.files()) {
            try {
                if (session.tables().of(file, session.study().recipes()) == null) {
                    all = Tables.LOADING;
                }
            } catch (lane.base.LaneException e) {
                return Tables.NOT_READ;
            }
        }
        return all;
    }

    private Tables tables(Source source) {
        return source instanceof Source.Reference r ? tables(r) : Tables.READ;
    }

    /** Selects the source above or below the selected one, of those that are searched for. */
    private void step(KeyEvent e) {
        int step = e.getCode() == KeyCode.DOWN ? 1 : e.getCode() == KeyCode.UP ? -1 : 0;
        List<Source> all = session.study().sources();
        List<String> ids = e.getTarget() instanceof ListView<?> list
                ? list.getItems().stream().map(i -> all.get((Integer) i).id()).toList()
                : all.stream().map(Source::id).toList();
        int to = ids.indexOf(session.selected(Chosen.SOURCE)) + step;
        if (step != 0 && to >= 0 && to < ids.size()) {
            session.select(Chosen.SOURCE, ids.get(to));
            e.consume();
        }
    }

    /** Of many, the selected one is in sight. */
    private void show() {
        int at = session.study().sources().stream().map(Source::id).toList().indexOf(session.selected(Chosen.SOURCE));
        if (at >= 0 && session.study().sources().size() > MANY) {
            ManyRows.show(session, LIST, at);
        }
    }

    private Node row(Source source, LaneStyle style) {
        boolean selected = source.id().equals(session.selected(Chosen.SOURCE));
        var band = new Region();
        band.setMinSize(6, 38);
        band.setMaxSize(6, 38);
        band.setStyle(
                "-fx-background-radius: 2; -fx-background-color: " + lane.picture.Palette.css(style.colour()) + ";");
        HBox mark =
                Ui.row(8, band, Marks.sample(style, Marks.fx(session.palette().sheet())));
        mark.setMinWidth(49);
        mark.setMaxWidth(49);
        Tables tables = tables(source);
        boolean failed =
                tables == Tables.NOT_READ || source instanceof Source.Simulation && unread.contains(source.id());
        var run = session.results().runs().get(source.id());
        String file =
                switch (source) {
                    case Source.Simulation s -> ShownPath.words(session, s.file());
                    case Source.Reference r ->
                        r.files().isEmpty()
                                ? Ui.count(r.answers().size(), "answer")
                                : String.join(
                                        ", ",
                                        r.files().stream()
                                                .map(p -> ShownPath.words(session, p))
                                                .toList());
                };
        boolean stale =
                source instanceof Source.Simulation && session.changedOnDisk().contains(source.id());
        int findings = run == null ? 0 : RunSheet.findings(run, session.health(run));
        Node state;
        if (failed) {
            state = Ui.left("not read", 78, "brick", "second");
        } else if (stale) {
            state = Ui.left("changed", 78, "ochre", "second");
        } else if (session.results().inPieces().containsKey(source.id())) {
            state = Ui.left("in pieces", 78, "pine", "second");
        } else if (tables == Tables.LOADING || source instanceof Source.Simulation && run == null) {
            state = Ui.left("loading", 78, "muted", "second");
        } else if (findings > 0) {
            state = Ui.left(Ui.count(findings, "finding"), 78, "ochre", "second");
        } else {
            state = Ui.left("read", 78, "pine", "second");
        }
        var place = Ui.left(file, 164, "small", "muted");
        place.setTextOverrun(javafx.scene.control.OverrunStyle.CENTER_ELLIPSIS);
        Tip.on(place, file);
        var names = new VBox(Ui.lane(source.name(), 164, "section"), place);
        names.setAlignment(Pos.CENTER_LEFT);
        HBox row = Ui.row(
                0,
                mark,
                names,
                Ui.cell(
                        run == null
                                ? "–"
                                : String.format(
                                                java.util.Locale.ROOT,
                                                "%,d",
                                                run.mesh().cellCount())
                                        .replace(',', ' '),
                        70,
                        "second"),
                Ui.cell(run == null ? "–" : String.valueOf(RunSheet.fields(run)), 48, "second"),
                Ui.left("", 14),
                state);
        row.setId("source-" + source.id());
        row.getStyleClass().add("source-row");
        if (selected) {
            row.getStyleClass().add("selected");
        }
        row.setAccessibleText("Source " + source.name());
        boolean many = session.study().sources().size() > MANY;
        // Rows of a list come and go, so the list has the keys.
        row.setFocusTraversable(!many);
        row.setOnMouseClicked(e -> {
            Node list = rows.lookup("#" + LIST);
            if (list != null) {
                list.requestFocus();
            }
            session.select(Chosen.SOURCE, source.id());
        });
        row.setOnKeyPressed(this::step);
        return row;
    }
}
