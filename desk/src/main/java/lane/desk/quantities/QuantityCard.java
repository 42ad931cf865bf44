package lane.desk.quantities;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import lane.base.Plain;
import lane.desk.Background;
import lane.desk.BuiltFrom;
import lane.desk.Entry;
import lane.desk.Marks;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.evaluation.EvaluationContext;
import lane.field.Run;
import lane.formula.Type;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.picture.Ticks;
import lane.quantity.Definitions;
import lane.quantity.Quantity;
import lane.reading.Ranges;
import lane.study.Source;
import lane.study.Users;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** The selected quantity: its values in each lane, its unit, who uses it, where it comes from. */
final class QuantityCard {
    private static final double TRACK = 268;

    private record RangeKey(Object run, Quantity quantity, EvaluationContext lens) {}

    private final Session session;
    private final VBox box = new VBox(8);
    private final StackPane outer;
    private final Background background;
    private final BuiltFrom built = new BuiltFrom();
    private final VBox ranges = new VBox(6);
    private final BuiltFrom builtRanges = new BuiltFrom();
    private boolean asking;

    QuantityCard(Session session, Runnable again) {
        this.session = session;
        background = new Background("ranges", again);
        session.whenClosed(background::stop);
        var scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        outer = new StackPane(scroll);
        outer.getStyleClass().add("panel");
        outer.setMinWidth(314);
        outer.setPrefWidth(314);
        outer.setMaxWidth(314);
        box.setStyle("-fx-padding: 10 16 16 16;");
    }

    Node node() {
        return outer;
    }

    void refresh(@Nullable Quantity q) {
        if (q == null) {
            box.getChildren().setAll(Ui.label("No quantity selected.", "muted"));
            built.changed("none");
            return;
        }
        if (built.changed(
                q,
                session.study().quantities(),
                session.study().readings(),
                asking,
                session.palette().dark())) {
            fill(q);
        }
        ranges(q);
    }

    private void fill(Quantity q) {
        var name = Ui.text("quantity-name-" + q.id(), q.name(), t -> rename(q, t));
        var unit = Ui.text("quantity-unit-" + q.id(), q.unit(), t -> change("Unit", q.in(t)));
        unit.setPromptText("follows");
        unit.setPrefWidth(100);
        Checked checked = Checked.of(session, q.formula(), q.name(), q.unit());
        Type type = checked.type();
        String follows = type == null
                ? ""
                : type.word()
                        + (q.unit().isBlank()
                                ? " in " + type.unit().label()
                                : ", of itself in " + type.unit().label());
        box.getChildren()
                .setAll(
                        name,
                        Ui.row(
                                8,
                                Ui.left("Unit", 50, "second"),
                                unit,
                                Ui.label(q.unit().isBlank() ? "follows" : "set", "small", "muted")),
                        Ui.label(follows, "small", "muted"));
        box.getChildren().add(heading("Range in each lane", ""));
        box.getChildren().add(ranges);
        builtRanges.changed("again");
        usedBy(q);
        box.getChildren().add(heading("Note", "goes into the trail"));
        var note = Entry.of(new TextArea(q.note()));
        note.setId("quantity-note-" + q.id());
        note.setPrefRowCount(3);
        note.setWrapText(true);
        note.focusedProperty().addListener((o, was, is) -> {
            if (!is && !Entry.rebuilding() && !note.getText().equals(q.note())) {
                change("Note", q.noted(note.getText()));
            }
        });
        box.getChildren().add(note);
        delete(q);
    }

    private static Node heading(String name, String note) {
        var row = Ui.row(8, Ui.label(name, "title"), Ui.spring(), Ui.label(note, "small", "muted"));
        row.setStyle("-fx-padding: 8 0 0 0;");
        return row;
    }

    private void change(String what, Quantity q) {
        session.edit(what, s -> s.with(q));
    }

    private void rename(Quantity q, String to) {
        if (to.isBlank()) {
            session.say("A quantity needs a name.");
            return;
        }
        session.edit("Rename quantity", s -> s.withQuantities(l -> new Definitions(l).renamed(q, to.strip())));
    }

    private void usedBy(Quantity q) {
        List<String> users = Users.of(session.study(), q).stream()
                .map(u -> u.kind() + " " + u.name())
                .toList();
        box.getChildren().add(heading("Used by", users.isEmpty() ? "nothing yet" : ""));
        users.stream().limit(12).forEach(u -> box.getChildren().add(Ui.label(u, "second")));
        if (users.size() > 12) {
            box.getChildren().add(Ui.label("and " + (users.size() - 12) + " more", "small", "muted"));
        }
    }

    /** What others use is deleted only when that is said again. */
    private void delete(Quantity q) {
        List<String> users =
                Users.of(session.study(), q).stream().map(Users.User::name).toList();
        if (!asking || users.isEmpty()) {
            var delete = Ui.button("Delete", () -> {
                if (users.isEmpty()) {
                    remove(q);
                } else {
                    asking = true;
                    refresh(q);
                }
            });
            delete.setId("quantity-delete-" + q.id());
            box.getChildren().add(Ui.row(8, delete));
            return;
        }
        var why = Ui.label(
                "\"" + q.name() + "\" is used by " + Plain.names(users) + ", which could not be computed without it.",
                "small",
                "ochre");
        why.setWrapText(true);
        var all = Ui.button("Delete all the same", () -> remove(q));
        all.setId("quantity-delete-anyway");
        box.getChildren().addAll(why, Ui.row(8, all, Ui.button("Keep it", () -> {
            asking = false;
            refresh(q);
        })));
    }

    private void remove(Quantity q) {
        asking = false;
        session.edit(
                "Delete quantity",
                s -> s.withQuantities(list -> {
                    list.removeIf(x -> x.id().equals(q.id()));
                    return list;
                }));
    }

    private void ranges(Quantity q) {
        EvaluationContext lens = session.lens();
        List<Object> state = new ArrayList<>();
        List<LaneStyle> styles = LaneStyle.of(session.study().sources(), session.palette());
        List<Background.Made> made = new ArrayList<>();
        for (Source source : session.study().sources()) {
            Run run = session.results().runs().get(source.id());
            Background.Made one =
                    run == null ? null : background.of(new RangeKey(run.key(), q, lens), w -> Ranges.of(run, q, lens));
            made.add(one);
            state.add(one == null ? "waits" : one);
        }
        background.settle();
        if (!builtRanges.changed(
                q, state, session.study().sources(), session.palette().dark())) {
            return;
        }
        ranges.getChildren().clear();
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (Background.Made m : made) {
            if (m != null && m.thing() instanceof Ranges r && Double.isFinite(r.least())) {
                least = Math.min(least, r.least());
                greatest = Math.max(greatest, r.greatest());
            }
        }
        for (int i = 0; i < made.size(); i++) {
            Source source = session.study().sources().get(i);
            Run run = session.results().runs().get(source.id());
            if (run != null) {
                lane(source, styles.get(i), made.get(i), least, greatest);
            }
        }
    }

    private void lane(Source source, LaneStyle style, Background.Made made, double least, double greatest) {
        var name = Ui.label(source.name());
        Tip.on(name, source.name());
        var head = Ui.row(8, Marks.marker(style, Marks.fx(session.palette().sheet())), name, Ui.spring());
        head.setMaxWidth(TRACK);
        ranges.getChildren().add(head);
        if (made == null) {
            head.getChildren().add(Ui.label("being computed", "small", "muted"));
            return;
        }
        if (!(made.thing() instanceof Ranges r)) {
            head.getChildren().add(Ui.label("cannot answer", "small", "ochre"));
            var why = Ui.label(made.trouble(), "small", "muted");
            why.setWrapText(true);
            ranges.getChildren().add(why);
            return;
        }
        Unit unit = r.unit();
        String text = Ticks.number(unit.fromSi(r.least()), Double.NaN) + "  to  "
                + Ticks.number(unit.fromSi(r.greatest()), Double.NaN)
                + (unit.equals(Unit.ONE) ? "" : " " + unit.label());
        var range = Ui.label(text, "small", "second");
        // A name may be cut, a number or its unit not.
        range.setMinWidth(Region.USE_PREF_SIZE);
        head.getChildren().add(range);
        var track = new Pane();
        track.setMinHeight(6);
        track.setMaxHeight(6);
        track.setMaxWidth(TRACK);
        track.setStyle("-fx-background-color: -hair;");
        double span = greatest > least ? greatest - least : 1;
        var bar = new Region();
        bar.setStyle("-fx-background-color: " + Palette.css(style.colour()) + ";");
        bar.setMinSize(Math.max(2, TRACK * (r.greatest() - r.least()) / span), 6);
        bar.setLayoutX(TRACK * (r.least() - least) / span);
        track.getChildren().add(bar);
        if (Double.isFinite(r.mean())) {
            var mean = new Region();
            mean.setStyle("-fx-background-color: -ink; -fx-border-color: -sheet; -fx-border-width: 0 2 0 2;");
            mean.setMinSize(6, 10);
            mean.setLayoutX(Math.clamp(TRACK * (r.mean() - least) / span - 3, 0, TRACK - 6));
            mean.setLayoutY(-2);
            track.getChildren().add(mean);
        }
        String where = r.stand()
                + (Double.isFinite(r.mean()) ? ", mean " + Ticks.number(unit.fromSi(r.mean()), Double.NaN) : "")
                + (r.absent() > 0 ? ", " + r.absent() + " without a value" : "");
        ranges.getChildren().addAll(track, Ui.label(where, "small", "muted"));
    }
}
