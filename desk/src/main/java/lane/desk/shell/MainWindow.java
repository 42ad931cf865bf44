package lane.desk.shell;

import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.animation.PauseTransition;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.util.Duration;
import lane.base.Plain;
import lane.desk.Chosen;
import lane.desk.Entry;
import lane.desk.Session;
import lane.desk.View;
import lane.desk.checks.ChecksView;
import lane.desk.intake.FileDrop;
import lane.desk.intake.IntakeView;
import lane.desk.ledger.LedgerView;
import lane.desk.quantities.QuantitiesView;
import lane.desk.readings.ReadingsView;
import lane.desk.stations.ShapeForm;
import lane.desk.stations.StationsView;

/** The window's inside: header and lane bar above, the open stop in the middle, the trail below. */
public final class MainWindow {
    private final Session session;
    private final BorderPane frame = new BorderPane();
    private final StackPane root = new StackPane(frame);
    private final Header header;
    private final LaneBar lanes;
    private final TrailStrip trail;
    private final TimeBar time;
    private final QuestionBar question;
    private final Doing doing;
    private final View[] stops = new View[6];
    private final CommandSearch search;
    private final Held held;
    private boolean pending;
    /** Whether the study was changed since the window was shown last. */
    private boolean edited;
    /** Whether results of such a change are still to come. */
    private boolean owed;

    private List<String> looked = List.of();

    private @org.jspecify.annotations.Nullable Node shown;
    /** Results follow most edits at once, so an edit alone is shown only if they keep us waiting. */
    private final PauseTransition patience = new PauseTransition(Duration.millis(40));

    public MainWindow(Session session) {
        this.session = session;
        search = new CommandSearch(session, actions());
        header = new Header(session, search::open);
        lanes = new LaneBar(session);
        trail = new TrailStrip(session);
        question = new QuestionBar(session);
        frame.setTop(new VBox(header.node(), question.node(), lanes.node()));
        session.placeIsChosenBy(this::place);
        doing = new Doing(session);
        time = new TimeBar(session);
        frame.setBottom(new VBox(time.node(), trail.node()));
        root.getChildren().add(search.node());
        session.carry().over(root);
        held = new Held(root);
        session.listen(this::heard);
        patience.setOnFinished(e -> refresh());
        root.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        root.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        root.setOnDragDropped(e -> {
            FileDrop.add(
                    session,
                    e.getDragboard().getFiles().stream().map(File::toPath).toList());
            e.setDropCompleted(true);
        });
        refresh();
    }

    public Parent root() {
        return root;
    }

    /** Asks where the study is to be kept. */
    private Optional<Path> place() {
        var chooser = new FileChooser();
        chooser.setTitle("Save study");
        chooser.setInitialFileName(Plain.fileName(session.study().name()) + ".lane.json");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Study", "*.lane.json"));
        return Optional.ofNullable(chooser.showSaveDialog(root.getScene().getWindow()))
                .map(File::toPath)
                .map(p -> p.toString().endsWith(".json") ? p : p.resolveSibling(p.getFileName() + ".lane.json"));
    }

    /** Opens a study in place of this one, or takes files into it. */
    private void open() {
        var chooser = new FileChooser();
        chooser.setTitle("Open");
        List<File> chosen = chooser.showOpenMultipleDialog(root.getScene().getWindow());
        if (chosen != null) {
            FileDrop.add(session, chosen.stream().map(File::toPath).toList());
        }
    }

    private List<CommandSearch.Command> actions() {
        List<CommandSearch.Command> all = new ArrayList<>();
        all.add(new CommandSearch.Command("Save study", "Ctrl+S", session::save));
        all.add(new CommandSearch.Command("Save study as…", "Ctrl+Shift+S", session::saveElsewhere));
        all.add(new CommandSearch.Command("Open a study or files…", "Ctrl+O", this::open));
        all.add(new CommandSearch.Command(
                "New study", "Ctrl+N", () -> session.openings().fresh(List.of())));
        all.add(new CommandSearch.Command("Recent studies, the start page", "Ctrl+W", () -> session.openings()
                .startPage()));
        all.add(new CommandSearch.Command("Undo", "Ctrl+Z", session::undo));
        all.add(new CommandSearch.Command("Redo", "Ctrl+Y", session::redo));
        all.add(new CommandSearch.Command("Light or dark", "theme", session::toggleTheme));
        for (String unit : List.of("", "µm", "mm", "cm", "m", "km", "in", "ft")) {
            all.add(new CommandSearch.Command(
                    unit.isEmpty() ? "Tell lengths in the unit that suits their size" : "Tell lengths in " + unit,
                    "lengths",
                    () -> session.edit(
                            "Unit of lengths", s -> s.with(s.settings().withLength(unit)))));
        }
        all.add(new CommandSearch.Command("Write ledger", "ledger", () -> LedgerView.write(session)));
        all.add(new CommandSearch.Command(
                "Read all files again",
                "intake",
                () -> session.reload(session.study().sources().stream()
                        .map(lane.study.Source::id)
                        .collect(java.util.stream.Collectors.toSet()))));
        for (ShapeForm form : ShapeForm.ALL.all()) {
            var maker = form.maker();
            if (maker != null) {
                all.add(new CommandSearch.Command(
                        "Add a station: " + form.word().replace('-', ' '), "station", () -> {
                            session.go(2);
                            maker.accept(session);
                        }));
            }
        }
        String[] names = {"Intake", "Stations", "Quantities", "Readings", "Checks", "Ledger"};
        for (int i = 0; i < 6; i++) {
            int stop = i + 1;
            all.add(new CommandSearch.Command("Go to " + names[i], "key " + stop, () -> session.go(stop)));
        }
        return all;
    }

    private void key(KeyEvent e) {
        boolean typing = e.getTarget() instanceof TextInputControl;
        boolean midWord = e.getTarget() instanceof TextInputControl t && !Entry.handedOver(t);
        if (e.getCode() == KeyCode.ENTER && e.getTarget() instanceof javafx.scene.control.TextField field) {
            Entry.said(field);
        }
        if (match(e, KeyCode.K)) {
            search.open();
        } else if (new javafx.scene.input.KeyCodeCombination(
                        KeyCode.S, KeyCombination.SHORTCUT_DOWN, KeyCombination.SHIFT_DOWN)
                .match(e)) {
            session.saveElsewhere();
        } else if (match(e, KeyCode.S)) {
            session.save();
        } else if (match(e, KeyCode.O)) {
            open();
        } else if (match(e, KeyCode.N)) {
            session.openings().fresh(List.of());
        } else if (match(e, KeyCode.W)) {
            session.openings().startPage();
        } else if (!midWord && match(e, KeyCode.Z)) {
            session.undo();
        } else if (!midWord
                && (match(e, KeyCode.Y)
                        || new javafx.scene.input.KeyCodeCombination(
                                        KeyCode.Z, KeyCombination.SHORTCUT_DOWN, KeyCombination.SHIFT_DOWN)
                                .match(e))) {
            session.redo();
        } else if (!typing
                && !e.isShortcutDown()
                && !e.isAltDown()
                && e.getText().length() == 1
                && e.getText().charAt(0) >= '1'
                && e.getText().charAt(0) <= '6') {
            session.go(e.getText().charAt(0) - '0');
        } else {
            return;
        }
        e.consume();
    }

    private static boolean match(KeyEvent e, KeyCode code) {
        return new javafx.scene.input.KeyCodeCombination(code, KeyCombination.SHORTCUT_DOWN).match(e);
    }

    /** A stop's view is made when it is first opened: the window stands sooner. */
    private View view(int stop) {
        if (stops[stop - 1] == null) {
            stops[stop - 1] = switch (stop) {
                case 1 -> new IntakeView(session);
                case 2 -> new StationsView(session);
                case 3 -> new QuantitiesView(session);
                case 4 -> new ReadingsView(session);
                case 5 -> new ChecksView(session);
                default -> new LedgerView(session);
            };
        }
        return stops[stop - 1];
    }

    /** Many changes within one frame make one refresh. */
    private void heard(Session.Change change) {
        if (change == Session.Change.BUSY) {
            header.refresh();
            trail.refresh();
            time.refresh();
            question.refresh();
            doing.refresh();
            return;
        }
        if (change == Session.Change.FACTS || change == Session.Change.TABLES) {
            lanes.refresh();
            // Only Intake tells facts, and Readings propose tables.
            if (session.stop() == 1 || session.stop() == 4 && change == Session.Change.TABLES) {
                refresh(view(session.stop()));
            }
            return;
        }
        if (change == Session.Change.STUDY) {
            edited = true;
            owed = true;
            patience.playFromStart();
        } else if (!pending) {
            pending = true;
            javafx.application.Platform.runLater(this::refresh);
        }
    }

    private void worn(String styleClass, boolean on) {
        if (!on) {
            root.getStyleClass().remove(styleClass);
        } else if (!root.getStyleClass().contains(styleClass)) {
            root.getStyleClass().add(styleClass);
        }
    }

    /** What is looked at: a field of the same name belongs to another thing where that is another. */
    private List<String> looked() {
        return java.util.Arrays.stream(Chosen.values()).map(session::selected).toList();
    }

    /** What was typed and not handed over stays, and so does the place of the keys, unless another thing is looked at. */
    private void refresh(View view) {
        if (shown != view.node() || !looked.equals(looked())) {
            view.refresh();
            return;
        }
        // What an edit in a form comes to is shown at once, and the form opened again.
        if (!edited && (held.in(view.node()) || KeptEntry.open(view.node(), !owed))) {
            // A list that is open would be gone, and what is dragged; once that is over there is time for this.
            patience.playFromStart();
            return;
        }
        // What was typed beside the field that has the keys belongs to what was before an edit.
        var kept = new KeptEntry(view.node(), !edited);
        Entry.rebuild(() -> {
            view.refresh();
            kept.back();
        });
    }

    private void refresh() {
        pending = false;
        patience.stop();
        // A change of the root's classes styles every node of the window anew, so there is none unless it is meant.
        worn("dark", session.palette().dark());
        worn("root", true);
        header.refresh();
        lanes.refresh();
        trail.refresh();
        time.refresh();
        question.refresh();
        View view = view(session.stop());
        refresh(view);
        edited = false;
        owed &= !session.whole();
        looked = looked();
        doing.refresh();
        if (shown != view.node()) {
            shown = view.node();
            // Intake tells of each source for itself.
            frame.setCenter(session.stop() == 1 ? shown : new StackPane(shown, doing.node()));
        }
    }
}
