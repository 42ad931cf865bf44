package lane.desk.ledger;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import lane.base.Figures;
import lane.base.Plain;
import lane.desk.Chosen;
import lane.desk.Images;
import lane.desk.LongWork;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.formats.io.FileNames;
import lane.formats.ledger.LedgersCompared;
import lane.formats.ledger.Reverify;
import lane.formats.ledger.Seal;
import lane.ledger.LedgerDiff;
import lane.picture.Export;
import lane.picture.chart.MovedPicture;
import org.jspecify.annotations.Nullable;

/** A ledger verified: every number computed anew from the files, and line by line what is not as it was written. */
final class VerifyPane {
    /** The picture tells of no more than these; the list tells of all. */
    private static final int DRAWN = 8;

    private static final int WIDE = 640;

    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final VBox told = new VBox(3);
    private final ListView<Line> list = new ListView<>();
    private final Button run = Ui.button("Verify", this::again, "main");
    private final Label where = Ui.label("", "second", "muted");
    private final Label state = Ui.label("", "second");
    private final ImageView moved = new ImageView();
    private final LongWork work;
    private final List<Path> lookIn = new ArrayList<>();
    private @Nullable Path folder;
    private double tolerance;
    /** Counts what was drawn, so that a late picture is not shown for something else. */
    private int drawing;

    /** What is told in a line, with the way to where it is defined. */
    private record Line(
            String mark, String item, String lane, String what, String why, LedgerDiff.@Nullable Change of) {}

    VerifyPane(Session session) {
        this.session = session;
        work = new LongWork("Verifying the ledger", state::setText, on -> run.setText(on ? "Cancel" : "Verify"));
        run.setId("verify-run");
        state.setId("verify-state");
        var other = Ui.button("Another ledger…", () -> choose("Verify a ledger", this::another));
        var compare = Ui.button("Compare with…", () -> choose("Compare with a later ledger", this::compare));
        var seal = Ui.button("Seal…", () -> new SealForm(folder(), this::sealed).show(pane));
        seal.setId("ledger-seal");
        var look = Ui.button(
                "Look in…",
                () -> choose("Where files may have moved to", f -> {
                    lookIn.add(f);
                    where();
                }));
        Tip.on(look, "Files that are not at their place are looked for by content in this folder, too");
        var share = Ui.number("verify-tolerance", tolerance, v -> {
            if (v >= 0 && v < 1) {
                tolerance = v;
            } else {
                state.setText("A tolerance is a share from 0 to below 1, such as 1e-9.");
            }
        });
        share.setPrefWidth(64);
        Tip.on(
                share,
                "Share of its magnitude that a number may differ by and still count as the same; 0 for the same to the bit");
        state.setWrapText(true);
        state.setMinHeight(Region.USE_PREF_SIZE);
        told.setStyle("-fx-padding: 0 16 8 16;");
        told.setId("verify-told");
        moved.setId("verify-moved");
        var tools = new FlowPane(10, 6, run, other, compare, seal, look, Ui.label("tolerance", "second"), share);
        tools.setAlignment(Pos.CENTER_LEFT);
        tools.setStyle("-fx-padding: 10 16 6 16;");
        where.setStyle("-fx-padding: 0 16 4 16;");
        where.setMinWidth(0);
        var box = new HBox(state);
        box.setStyle("-fx-padding: 0 16 6 16;");
        HBox.setHgrow(state, Priority.ALWAYS);
        pane.setTop(new VBox(tools, where, box, told, moved));
        list.setId("verify-list");
        list.getProperties().put("pane", this);
        list.setMinWidth(0);
        list.setPlaceholder(Ui.label(
                "Every number is computed anew from its input files and compared with what the ledger says.",
                "second",
                "muted"));
        list.setCellFactory(v -> new Row());
        pane.setCenter(list);
        pane.setMinWidth(0);
        pane.getStyleClass().add("sheet");
        session.whenClosed(work::cancel);
    }

    private void choose(String title, Consumer<Path> then) {
        var chooser = new DirectoryChooser();
        chooser.setTitle(title);
        var chosen = chooser.showDialog(pane.getScene().getWindow());
        if (chosen != null) {
            then.accept(chosen.toPath());
        }
    }

    private void another(Path other) {
        folder = other;
        again();
    }

    Node node() {
        where();
        return pane;
    }

    private void where() {
        where.setText(FileNames.brief(folder())
                + (lookIn.isEmpty()
                        ? ""
                        : "; files are looked for in "
                                + String.join(
                                        ", ",
                                        lookIn.stream().map(FileNames::brief).toList())));
    }

    /** What is told is of a ledger that is no longer there. */
    void forget() {
        if (!work.running() && !state.getText().isEmpty()) {
            clear("The ledger was written anew since; verify it again.");
        }
    }

    private void clear(String sentence) {
        state.getStyleClass().removeAll("pine", "brick", "ochre");
        state.setText(sentence);
        told.getChildren().clear();
        list.getItems().clear();
        moved.setImage(null);
        drawing++;
    }

    private void sealed(Seal seal) {
        clear(seal.words());
    }

    private Path folder() {
        return folder == null ? LedgerExport.folder(session) : folder;
    }

    /** What a ledger and its files say now. */
    private record Found(Reverify made, @Nullable Seal seal) {}

    private void again() {
        if (work.running()) {
            work.cancel();
            return;
        }
        Path at = folder();
        where();
        clear("Looking at the ledger");
        var how = new Reverify.How(null, List.copyOf(lookIn), tolerance);
        work.start(w -> new Found(Reverify.of(at, how, w), Seal.of(at)), f -> show(f.made, f.seal));
    }

    /** This ledger and a later one, line by line. */
    void compare(Path later) {
        if (work.running()) {
            session.say("A ledger is being verified; cancel that, or wait for it.");
            return;
        }
        Path at = folder();
        clear("Comparing with " + FileNames.brief(later));
        work.start(w -> LedgersCompared.of(at, later, tolerance), made -> {
            LedgerDiff n = made.numbers();
            counts(
                    n,
                    "Against " + FileNames.brief(later) + ": ",
                    n.different().isEmpty() && n.missing().isEmpty());
            told.getChildren()
                    .setAll(Ui.label(
                            made.definitions().isEmpty()
                                    ? "definitions the same"
                                    : Plain.count(made.definitions().size(), "definition") + " changed",
                            "second"));
            made.programs().forEach(p -> told.getChildren().add(Ui.label(p, "second")));
            List<Line> lines = new ArrayList<>(lines(n));
            made.definitions().forEach(d -> lines.add(new Line("changed", "definition", "", "", d, null)));
            n.added().forEach(c -> lines.add(line("new", c)));
            list.setItems(FXCollections.observableArrayList(lines));
        });
    }

    private void counts(LedgerDiff n, String before, boolean sound) {
        state.setText(before + Plain.count(n.same(), "number") + " the same to the bit, "
                + (n.within().isEmpty() ? "" : n.within().size() + " within the tolerance, ")
                + n.different().size() + " different, " + n.missing().size() + " missing"
                + (n.added().isEmpty() ? "" : ", " + n.added().size() + " new"));
        state.getStyleClass().removeAll("pine", "brick", "ochre");
        state.getStyleClass().add(sound ? "pine" : n.different().isEmpty() ? "ochre" : "brick");
        draw(n);
    }

    private void draw(LedgerDiff n) {
        var picture = MovedPicture.of(n, DRAWN);
        if (picture.rows().isEmpty()) {
            moved.setImage(null);
            return;
        }
        var palette = session.palette();
        double sharp = Images.sharpness();
        int tall = (int) Math.ceil(picture.height());
        int number = ++drawing;
        Thread.ofVirtual().start(() -> {
            Image image = Images.of(Export.image(WIDE, tall, sharp, g -> picture.paint(g, WIDE, tall, palette)));
            Platform.runLater(() -> {
                // What is told by now may be another ledger.
                if (number == drawing) {
                    moved.setImage(image);
                    moved.setFitWidth(WIDE);
                    moved.setFitHeight(tall);
                }
            });
        });
    }

    private static List<Line> lines(LedgerDiff n) {
        List<Line> lines = new ArrayList<>();
        n.different().forEach(c -> lines.add(line("different", c)));
        n.missing().forEach(c -> lines.add(line("missing", c)));
        return lines;
    }

    private void show(Reverify made, @Nullable Seal seal) {
        LedgerDiff n = made.numbers();
        boolean sound = made.code() == 0;
        counts(n, "", sound);
        if (!sound && n.different().isEmpty() && !made.files().isEmpty()) {
            state.getStyleClass().remove("ochre");
            state.getStyleClass().add("brick");
        }
        var in = made.inputs();
        told.getChildren()
                .setAll(
                        Ui.label(
                                Plain.count(in.same().size(), "input file") + " the same, "
                                        + in.changed().size() + " changed, "
                                        + in.moved().size() + " moved, "
                                        + in.missing().size()
                                        + " missing; "
                                        + (made.definitions().isEmpty()
                                                ? "definitions the same"
                                                : Plain.count(made.definitions().size(), "definition") + " changed"),
                                "second"),
                        Ui.label(
                                seal == null
                                        ? "No seal."
                                        : seal.words()
                                                + (Boolean.TRUE.equals(made.sealed())
                                                        ? " It holds."
                                                        : " It does not hold: the ledger was changed after."),
                                "second",
                                seal == null ? "muted" : Boolean.TRUE.equals(made.sealed()) ? "pine" : "brick"));
        if (session.unsaved() && made.study() != null) {
            told.getChildren()
                    .add(Ui.label(
                            "The window has changes that are not saved; the study was taken as it is on disk.",
                            "second",
                            "ochre"));
        }
        List<Line> lines = lines(n);
        made.files().forEach(f -> lines.add(new Line("changed", "the ledger's own file", "", "", f, null)));
        in.changed().forEach(f -> lines.add(new Line("changed", "input file", "", "", f, null)));
        in.moved().forEach((f, to) -> lines.add(new Line("moved", "input file", "", "", f + " to " + to, null)));
        in.missing().forEach(f -> lines.add(new Line("missing", "input file", "", "", f, null)));
        made.definitions().forEach(d -> lines.add(new Line("changed", "definition", "", "", d, null)));
        n.added().forEach(c -> lines.add(line("new", c)));
        list.setItems(FXCollections.observableArrayList(lines));
    }

    private static Line line(String mark, LedgerDiff.Change c) {
        String values = Double.isNaN(c.before()) && Double.isNaN(c.after())
                ? ""
                : number(c.before()) + " → " + number(c.after()) + (c.unit().equals("1") ? "" : " " + c.unit());
        return new Line(mark, c.item(), c.line().lane(), values, c.why(), c);
    }

    private static String number(double v) {
        return Double.isNaN(v) ? "none" : Figures.of(v, 7).plain(v);
    }

    /** To the check or reading that a line is about. */
    private void go(Line line) {
        LedgerDiff.Change c = line.of;
        if (c == null) {
            return;
        }
        boolean check = c.line().stop().equals("check");
        boolean there = check
                ? session.study().checks().find(c.line().of()).isPresent()
                : session.study().reading(c.line().of()).isPresent();
        if (there) {
            session.select(check ? Chosen.CHECK : Chosen.READING, c.line().of());
            session.go(check ? 5 : 4);
        }
    }

    private final class Row extends ListCell<Line> {
        Row() {
            setMinWidth(0);
            setPrefWidth(0);
            setOnMouseClicked(e -> {
                if (getItem() != null) {
                    go(getItem());
                }
            });
        }

        @Override
        protected void updateItem(Line line, boolean empty) {
            super.updateItem(line, empty);
            setText(null);
            if (empty || line == null) {
                setGraphic(null);
                return;
            }
            String tone = line.mark.equals("different") || line.mark.equals("changed")
                    ? "brick"
                    : line.mark.equals("missing") ? "ochre" : "muted";
            var head = Ui.row(
                    8,
                    Ui.left(line.mark, 66, "small", tone),
                    Ui.label(line.item + (line.lane.isBlank() ? "" : ", " + line.lane), "second", "strong"),
                    Ui.spring(),
                    Ui.label(line.what, "second"));
            var why = Ui.label(line.why, "small", "muted");
            why.setWrapText(true);
            why.setStyle("-fx-padding: 0 0 0 74;");
            why.setMinHeight(Region.USE_PREF_SIZE);
            var box = new VBox(2, head, why);
            box.setStyle("-fx-padding: 4 16 4 16;");
            box.maxWidthProperty().bind(list.widthProperty().subtract(20));
            setGraphic(box);
        }
    }
}
