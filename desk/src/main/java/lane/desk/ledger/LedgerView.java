package lane.desk.ledger;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
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
import lane.formats.ledger.LedgerFormat;
import lane.ledger.Ledger;
import lane.ledger.LedgerTables;

/** What is written and in which formats; every number with its trail, the tables as a page, and the ledger verified. */
public final class LedgerView implements View {
    private enum Look {
        NUMBERS("numbers"),
        TABLES("tables"),
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
    private final VerifyPane verify;
    private final Set<LedgerFormat> formats = EnumSet.noneOf(LedgerFormat.class);
    private final BuiltFrom built = new BuiltFrom();
    private Look look = Look.NUMBERS;

    public LedgerView(Session session) {
        this.session = session;
        trail = new LedgerTrail(session);
        list = new LedgerList(trail::show);
        verify = new VerifyPane(session);
        pane.setLeft(side());
        middle.setMinWidth(0);
        pane.setCenter(middle);
        pane.setMinWidth(0);
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
                file("profile-NAME.csv", "the points of each curve"),
                Ui.label("And as", "small", "muted"));
        for (LedgerFormat f : LedgerFormat.values()) {
            CheckBox tick = Named.check(f.file());
            tick.setId("format-" + f.word());
            Tip.on(tick, f.what());
            tick.setOnAction(e -> {
                if (tick.isSelected()) {
                    formats.add(f);
                } else {
                    formats.remove(f);
                }
            });
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

    private Node buttons() {
        var main = Ui.button("Write ledger", () -> LedgerExport.beside(session, formats, f -> verify.forget()), "main");
        main.setId("write-ledger");
        var folder = Ui.button("Folder…", () -> {
            var chooser = new DirectoryChooser();
            var chosen = chooser.showDialog(pane.getScene().getWindow());
            if (chosen != null) {
                LedgerExport.into(session, chosen.toPath(), formats, f -> verify.forget());
            }
        });
        var box = new FlowPane(8, 6, main, folder);
        box.setStyle("-fx-padding: 10 0 0 0;");
        return box;
    }

    /** Writes the ledger beside the study. */
    public static void write(Session session) {
        LedgerExport.beside(session, Set.of(), f -> {});
    }

    @Override
    public Node node() {
        return pane;
    }

    @Override
    public void refresh() {
        if (built.changed(System.identityHashCode(session.results()))) {
            show(look);
        }
    }

    private void show(Look now) {
        look = now;
        Ledger ledger = Ledger.of(session.results());
        var choice = Ui.segments(List.of(Look.values()), look, l -> l.word, this::show);
        choice.setId("ledger-look");
        HBox bar =
                Ui.row(10, choice, Ui.spring(), Ui.label(Ui.count(ledger.lines().size(), "number"), "small", "muted"));
        bar.getStyleClass().add("toolbar");
        bar.setMinHeight(40);
        middle.setTop(bar);
        switch (look) {
            case NUMBERS -> {
                middle.setCenter(list.node());
                pane.setRight(trail.node());
                trail.show(list.fill(ledger.lines()));
            }
            case TABLES -> {
                middle.setCenter(TablesPane.of(LedgerTables.of(session.results(), ledger)));
                pane.setRight(null);
            }
            case VERIFY -> {
                middle.setCenter(verify.node());
                pane.setRight(null);
            }
        }
    }
}
