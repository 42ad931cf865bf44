package lane.desk.shell;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import lane.desk.BuiltFrom;
import lane.desk.Chosen;
import lane.desk.LaneColumns;
import lane.desk.LaneStrip;
import lane.desk.Marks;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.desk.View;
import lane.desk.checks.DatumMenu;
import lane.picture.LaneStyle;
import lane.reading.Outcome;
import lane.study.Source;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** One chip a source at a fixed pitch; click switches it, the menu makes it the datum, drag reorders. */
public final class LaneBar implements View {
    private final Session session;
    private final Pane pane = new Pane();
    private static final double GAP = 4;
    private static final double SAMPLE = 16;
    private static final double MENU = 13;
    private final BuiltFrom built = new BuiltFrom();
    /** Lanes whose runs are not read, when this was refreshed last. */
    private Set<String> unread = Set.of();

    public LaneBar(Session session) {
        this.session = session;
        pane.setOnScroll(e -> LaneColumns.move(session, session.lanesAt().get() - e.getDeltaY() - e.getDeltaX()));
        pane.getStyleClass().add("lane-bar");
        pane.setMinHeight(40);
        pane.setPrefHeight(40);
        pane.setMaxHeight(40);
    }

    @Override
    public Node node() {
        return pane;
    }

    @Override
    public void refresh() {
        Study study = session.study();
        unread = session.results().unread().keySet();
        List<String> notes =
                study.sources().stream().map(s -> trouble(s) + "/" + size(s)).toList();
        if (!built.changed(
                study.sources(),
                study.off(),
                study.datum(),
                study.time(),
                session.results().runs().values().stream()
                        .map(lane.field.Run::times)
                        .toList(),
                notes,
                session.palette().dark())) {
            return;
        }
        HBox title = Ui.row(
                8,
                Ui.firm(Ui.label("Lanes", "section")),
                Ui.firm(Ui.label("datum", "small", "muted")),
                Ui.icon(Feather.FLAG),
                DatumMenu.ofStudy(session));
        title.setLayoutX(16);
        title.setPrefHeight(39);
        title.setMaxWidth(226);
        List<LaneStyle> styles = LaneStyle.of(study.sources(), session.palette());
        var seen = new SimpleDoubleProperty();
        var chips = new LaneStrip(study.sources().size(), i -> {
            Node chip = chip(study.sources().get(i), styles.get(i));
            double left = Ui.PITCH * i;
            chip.focusedProperty().addListener((o, was, is) -> {
                // A chip reached by the keyboard comes into sight.
                double most = seen.get() - Ui.PITCH;
                double at = session.lanesAt().get();
                if (is && (left < at || left > at + most)) {
                    LaneColumns.move(session, left < at ? left : left - most);
                }
            });
            return chip;
        });
        var columns = new LaneColumns(session, chips);
        seen.bind(columns.widthProperty());
        LaneColumns.move(session, session.lanesAt().get());
        chips.setStyle("-fx-padding: 6 0 6 0;");
        columns.setLayoutX(Ui.LANES_AT);
        columns.setPrefHeight(39);
        columns.prefWidthProperty().bind(pane.widthProperty().subtract(Ui.LANES_AT + 142));
        HBox time = Ui.row(6, Ui.label("Time", "small", "muted"), time());
        time.setPrefHeight(39);
        time.layoutXProperty()
                .bind(pane.widthProperty().subtract(time.widthProperty()).subtract(10));
        pane.getChildren().setAll(title, columns, time);
    }

    /** Which stored time is looked at, of all that the runs have. */
    private Node time() {
        var all = new java.util.TreeSet<Double>();
        session.results().runs().values().forEach(r -> all.addAll(r.times()));
        var menu = Named.menuButton(session.study().time().word());
        menu.setId("study-time");
        menu.setMaxWidth(96);
        menu.setAccessibleText(
                "Time that is looked at: " + session.study().time().word());
        menu.getItems()
                .addAll(lane.desk.intake.Moments.items(
                        List.copyOf(all), false, m -> session.edit("Choose time", s -> s.withTime(m))));
        return menu;
    }

    private Node chip(Source source, LaneStyle style) {
        Study study = session.study();
        boolean on = !study.off().contains(source.id());
        boolean isDatum = study.datum().equals(source.id());
        var chip = new HBox(GAP);
        chip.setId("chip-" + source.id());
        chip.getStyleClass().add("chip");
        chip.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        chip.setMinSize(Ui.CHIP, 28);
        chip.setPrefSize(Ui.CHIP, 28);
        chip.setMaxSize(Ui.CHIP, 28);
        chip.setFocusTraversable(true);
        var band = new Region();
        band.setMinWidth(isDatum ? 20 : 6);
        band.setMaxWidth(isDatum ? 20 : 6);
        band.setPrefHeight(26);
        band.setStyle("-fx-background-color: " + lane.picture.Palette.css(style.colour())
                + "; -fx-background-radius: 4 0 0 4;");
        javafx.scene.layout.StackPane ends = new javafx.scene.layout.StackPane(band);
        if (isDatum) {
            var flag = Ui.icon(Feather.FLAG);
            flag.getStyleClass().add("flag-icon");
            ends.getChildren().add(flag);
        }
        String trouble = trouble(source);
        chip.getChildren()
                .addAll(ends, Marks.sample(style, Marks.fx(session.palette().sheet()), SAMPLE));
        var name = Ui.label(source.name());
        name.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(name, javafx.scene.layout.Priority.ALWAYS);
        name.setMinWidth(0);
        // Names of one kind often differ at their ends.
        name.setTextOverrun(javafx.scene.control.OverrunStyle.CENTER_ELLIPSIS);
        chip.getChildren().add(name);
        boolean troubled = !trouble.isBlank();
        String note = troubled ? trouble : isDatum ? "" : size(source);
        // The name goes before a note that does not fit beside it; the tooltip tells both.
        double room = Ui.CHIP - (isDatum ? 20 : 6) - SAMPLE - 6 * GAP - MENU;
        if (Marks.wide(source.name(), 13) + Marks.wide(note, 11) < room) {
            chip.getChildren().add(Ui.label(note, "small", troubled ? "ochre" : "muted"));
        }
        if (troubled) {
            chip.getStyleClass().add("trouble");
        }
        chip.getChildren().add(more(source));
        chip.setStyle("-fx-padding: 0 2 0 0;");
        if (!on) {
            chip.getStyleClass().add("off");
        }
        String state = (on ? "on" : "off") + (isDatum ? ", datum" : "") + (trouble.isBlank() ? "" : ", " + trouble);
        chip.setAccessibleText("Lane " + source.name() + ", " + state);
        Tip.on(chip, source.name() + ", " + state + ". Click switches it, its menu makes it the datum, drag moves it.");
        gestures(chip, source);
        return chip;
    }

    private void gestures(HBox chip, Source source) {
        chip.setOnMouseClicked(e -> {
            if (e.getButton() == MouseButton.PRIMARY && e.isStillSincePress()) {
                toggle(source.id());
            }
        });
        chip.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.SPACE || e.getCode() == KeyCode.ENTER) {
                toggle(source.id());
            } else if (e.getCode() == KeyCode.F) {
                session.edit("Choose datum", s -> s.withDatum(source.id()));
            }
        });
        var menu = new ContextMenu();
        menu.getItems().addAll(items(source));
        chip.setOnContextMenuRequested(e -> menu.show(chip, e.getScreenX(), e.getScreenY()));
        chip.setOnDragDetected(e -> {
            var board = chip.startDragAndDrop(TransferMode.MOVE);
            var content = new javafx.scene.input.ClipboardContent();
            content.putString("lane:" + source.id());
            board.setContent(content);
            e.consume();
        });
        chip.setOnDragOver(e -> {
            if (e.getDragboard().hasString() && e.getDragboard().getString().startsWith("lane:")) {
                e.acceptTransferModes(TransferMode.MOVE);
                e.consume();
            }
        });
        chip.setOnDragDropped(e -> {
            String id = e.getDragboard().getString().substring(5);
            session.edit(
                    "Move lane",
                    s -> s.withSources(list -> {
                        Source moved = list.stream()
                                .filter(x -> x.id().equals(id))
                                .findFirst()
                                .orElseThrow();
                        int to = list.stream().map(Source::id).toList().indexOf(source.id());
                        list.remove(moved);
                        list.add(Math.min(to, list.size()), moved);
                        return list;
                    }));
            e.setDropCompleted(true);
            e.consume();
        });
    }

    /** What can be done with a lane, behind a mark that is always seen. */
    private Node more(Source source) {
        var menu = Named.menuButton("");
        menu.setId("chip-menu-" + source.id());
        menu.getStyleClass().add("chip-menu");
        menu.setMinSize(MENU, 22);
        menu.setMaxSize(MENU, 22);
        menu.setAccessibleText("More for lane " + source.name());
        menu.getItems().addAll(items(source));
        // The chip behind it is not clicked.
        menu.setOnMouseClicked(javafx.event.Event::consume);
        return menu;
    }

    private List<MenuItem> items(Source source) {
        return List.of(
                item("Take as datum", () -> session.edit("Choose datum", s -> s.withDatum(source.id()))),
                item("Switch on or off", () -> toggle(source.id())),
                item("Open at Intake", () -> {
                    session.select(Chosen.SOURCE, source.id());
                    session.go(1);
                }),
                item("Move left", () -> move(source.id(), -1)),
                item("Move right", () -> move(source.id(), 1)));
    }

    private static MenuItem item(String text, Runnable action) {
        var item = Named.item(text);
        item.setOnAction(e -> action.run());
        return item;
    }

    private void toggle(String id) {
        session.edit("Switch lane", s -> {
            var off = new ArrayList<>(s.off());
            if (!off.remove(id)) {
                off.add(id);
            }
            return s.withOff(off);
        });
    }

    private void move(String id, int by) {
        session.edit(
                "Move lane",
                s -> s.withSources(list -> {
                    int from = list.stream().map(Source::id).toList().indexOf(id);
                    int to = Math.max(0, Math.min(list.size() - 1, from + by));
                    list.add(to, list.remove(from));
                    return list;
                }));
    }

    /** What a lane cannot answer at the open stop, in two words. */
    private String trouble(Source source) {
        if (unread.contains(source.id())) {
            return "not read";
        }
        if (session.changedOnDisk().contains(source.id()) && source instanceof Source.Simulation) {
            return "changed";
        }
        if (session.stop() == 4
                && !session.selected(Chosen.READING).isBlank()
                && session.results().readings().containsKey(session.selected(Chosen.READING))
                && session.results().outcome(session.selected(Chosen.READING), source.id())
                        instanceof Outcome.Absent a) {
            return a.brief();
        }
        return "";
    }

    private String size(Source source) {
        return switch (source) {
            case Source.Simulation s -> {
                var run = session.results().runs().get(s.id());
                yield run == null ? "" : brief(run.mesh().cellCount());
            }
            case Source.Reference r -> r.answers().size() + " ans.";
        };
    }

    static String brief(int n) {
        return n < 1000
                ? String.valueOf(n)
                : n < 1_000_000 ? Math.round(n / 1000.0) + "k" : String.format(java.util.Locale.ROOT, "%.1fM", n / 1e6);
    }
}
