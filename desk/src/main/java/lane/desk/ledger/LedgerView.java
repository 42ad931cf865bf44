package lane.desk.ledger;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import lane.desk.BuiltFrom;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.desk.View;
import lane.formats.io.FileNames;
import lane.formats.ledger.LedgerFormat;
import lane.ledger.Ledger;
import org.jspecify.annotations.Nullable;

/**
 * What is written and in which formats; every number with its trail in words and as a graph, the tables and how they are set up, the
 * pages as they will stand on paper, and the ledger verified.
 */
public final class LedgerView implements View {
    private enum Look {
        NUMBERS("numbers"),
        TRAIL("trail"),
        TABLES("tables"),
        PAGES("pages"),
        VERIFY("verify");

        private final String word;

        Look(String word) {
            this.word = word;
        }
    }

    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final BorderPane middle = new BorderPane();
    private final LedgerList list;
    private final LedgerTrail trail;
    private final TrailPane graph;
    private final PagesPane pages;
    private final VerifyPane verify;
    private final LedgerExport export;
    private final Label told = Ui.label("", "small", "muted");
    private final Button write = Ui.button("Write ledger", this::write, "main");
    private final Map<LedgerFormat, CheckBox> ticks = new EnumMap<>(LedgerFormat.class);
    private final BuiltFrom built = new BuiltFrom();
    private Look look = Look.NUMBERS;
    /** Place of the table that is being set up; below zero for none. */
    private int setUp = -1;

    private Ledger.@Nullable Line chosen;

    public LedgerView(Session session) {
        this.session = session;
        trail = new LedgerTrail(session);
        pages = new PagesPane(session);
        list = new LedgerList(this::choose);
        graph = new TrailPane(session, list::step);
        verify = new VerifyPane(session);
        export = new LedgerExport(session, told::setText, on -> write.setText(on ? "Cancel" : "Write ledger"));
        pane.setLeft(side());
        middle.setMinWidth(0);
        pane.setCenter(middle);
        pane.setMinWidth(0);
    }

    private void choose(Ledger.@Nullable Line line) {
        chosen = line;
        trail.show(line);
        if (look == Look.TRAIL) {
            graph.show(line);
        }
    }

    private Node side() {
        HBox title = Ui.row(8, Ui.label("Ledger", "title"));
        title.getStyleClass().add("toolbar");
        title.setMinHeight(40);
        var text = new VBox(
                6,
                Ui.label("Always written", "small", "muted"),
                file("ledger.csv", "every number at full precision"),
                file("ledger.json", "the trail of each number"),
                file("definitions.json", "the study, so that all can be computed anew"),
                file("table-NAME.csv", "lanes beside each other, as set up under tables"),
                file("profile-NAME.csv", "the points of each curve"),
                Ui.label("And as", "small", "muted"));
        for (LedgerFormat f : LedgerFormat.values()) {
            CheckBox tick = Named.check(f.file());
            tick.setId("format-" + f.word());
            Tip.on(tick, f.what());
            tick.setOnAction(e -> format(f, tick.isSelected()));
            ticks.put(f, tick);
            text.getChildren().add(tick);
        }
        text.getChildren().add(buttons());
        text.setStyle("-fx-padding: 4 16 12 16;");
        var scroll = new ScrollPane(text);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("side");
        var side = new BorderPane(scroll, title, null, null, null);
        side.getStyleClass().add("side");
        side.setMinWidth(Ui.LANES_AT);
        side.setMaxWidth(Ui.LANES_AT);
        return side;
    }

    private static Node file(String name, String what) {
        var label = Ui.label(what, "small", "muted");
        label.setWrapText(true);
        label.setMaxWidth(206);
        label.setMinHeight(Region.USE_PREF_SIZE);
        return new VBox(Ui.label(name, "second"), label);
    }

    /** Which formats are written is kept in the study. */
    private void format(LedgerFormat f, boolean on) {
        session.edit("Formats of the ledger", s -> {
            List<String> next = new ArrayList<>(s.pictures().ledger().formats());
            next.remove(f.word());
            if (on) {
                next.add(f.word());
            }
            return s.with(s.pictures().with(s.pictures().ledger().as(next)));
        });
    }

    private void write() {
        if (export.running()) {
            export.cancel();
        } else {
            export.beside(this::wrote);
        }
    }

    private void wrote(Path folder) {
        told.setText("");
        verify.forget();
    }

    private Node buttons() {
        write.setId("write-ledger");
        var folder = Ui.button("Folder…", () -> {
            var chooser = new DirectoryChooser();
            chooser.setTitle("Write the ledger into a folder");
            var chosenFolder = chooser.showDialog(pane.getScene().getWindow());
            if (chosenFolder != null) {
                export.into(chosenFolder.toPath(), this::wrote);
            }
        });
        var open = Ui.button("Open folder", () -> {
            if (Files.isDirectory(export.last())) {
                session.openings().folder(export.last());
            } else {
                session.say("There is no ledger in " + FileNames.brief(export.last()) + " yet; write it first.");
            }
        });
        open.setId("open-ledger-folder");
        told.setWrapText(true);
        told.setMaxWidth(206);
        told.setMinHeight(Region.USE_PREF_SIZE);
        told.setId("ledger-told");
        var box = new VBox(6, new FlowPane(8, 6, write, folder, open), told);
        box.setStyle("-fx-padding: 10 0 0 0;");
        return box;
    }

    /** Writes the ledger beside the study. */
    public static void write(Session session) {
        LedgerExport.quietly(session);
    }

    @Override
    public Node node() {
        return pane;
    }

    @Override
    public void refresh() {
        if (built.changed(System.identityHashCode(session.results()), session.palette())) {
            show(look);
        }
    }

    private void show(Look now) {
        if (now != Look.TABLES) {
            setUp = -1;
        }
        look = now;
        List<String> formats = session.study().pictures().ledger().formats();
        ticks.forEach((f, tick) -> tick.setSelected(formats.contains(f.word())));
        Ledger ledger = Ledger.of(session.results());
        var choice = Ui.segments(List.of(Look.values()), look, l -> l.word, this::show);
        choice.setId("ledger-look");
        HBox bar =
                Ui.row(10, choice, Ui.spring(), Ui.label(Ui.count(ledger.lines().size(), "number"), "small", "muted"));
        bar.getStyleClass().add("toolbar");
        bar.setMinHeight(40);
        middle.setTop(bar);
        pane.setRight(null);
        choose(list.fill(ledger.lines()));
        switch (look) {
            case NUMBERS -> {
                middle.setCenter(list.node());
                pane.setRight(trail.node());
            }
            case TRAIL -> {
                graph.show(chosen);
                middle.setCenter(graph.node());
            }
            case TABLES -> tables(ledger);
            case PAGES -> {
                pages.show();
                middle.setCenter(pages.node());
            }
            case VERIFY -> middle.setCenter(verify.node());
        }
    }

    private void tables(Ledger ledger) {
        int count = session.study().pictures().ledger().of(session.study()).size();
        if (setUp >= count) {
            setUp = -1;
        }
        middle.setCenter(TablesPane.of(session, ledger, at -> {
            setUp = at;
            show(Look.TABLES);
        }));
        pane.setRight(
                setUp < 0
                        ? null
                        : new TableForm(session, setUp, () -> {
                                    setUp = -1;
                                    show(Look.TABLES);
                                })
                                .node());
    }
}
