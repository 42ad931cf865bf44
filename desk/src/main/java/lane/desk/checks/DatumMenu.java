package lane.desk.checks;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.check.AgainstDatum;
import lane.check.Check;
import lane.desk.ManyRows;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.study.Source;

/**
 * The datum, chosen where it is named, and which lanes are judged, seen and set beside it. Many lanes are a list that is searched,
 * made when somebody looks at it.
 */
public final class DatumMenu {
    private static final int MANY = 40;

    private DatumMenu() {}

    /** The study's datum. */
    public static MenuButton ofStudy(Session session) {
        String now = session.study().datum();
        boolean bare = session.study().sources().isEmpty();
        var menu = menu("study-datum", name(session, now, bare ? "none" : "none yet"));
        menu.setDisable(bare);
        lanes(session, menu, now, id -> session.edit("Choose datum", s -> s.withDatum(id)));
        if (!now.isBlank()) {
            var none = Named.radioItem("none");
            none.setOnAction(e -> session.edit("Choose datum", s -> s.withDatum("")));
            menu.getItems().addAll(new SeparatorMenuItem(), none);
        }
        Tip.on(menu, "The lane that differences are taken against, unless a check names another");
        return menu;
    }

    /** What a reading is compared with, and who is judged: of its check, or of the study where it has none. */
    public static Node of(Session session, String reading) {
        Optional<Check> check = session.study().checks().stream()
                .filter(c -> c.reading().equals(reading))
                .findFirst();
        HBox row = Ui.row(6, Ui.label("Datum", "small", "muted"));
        if (check.isPresent() && check.get().rule() instanceof AgainstDatum rule) {
            row.getChildren().add(ofCheck(session, check.get(), rule));
        } else if (check.isEmpty()) {
            row.getChildren().add(ofStudy(session));
        } else {
            row.getChildren().clear();
        }
        check.ifPresent(c -> row.getChildren().addAll(Ui.label("Judged", "small", "muted"), judged(session, c)));
        return row;
    }

    private static MenuButton ofCheck(Session session, Check check, AgainstDatum rule) {
        String study = session.study().datum();
        String now = rule.datum().isBlank() ? study : rule.datum();
        var menu = menu("reading-datum", name(session, now, "none, choose one"));
        Consumer<String> set = id -> session.edit("Datum of a check", s -> s.with(check.by(rule.from(id))));
        var follows = Named.radioItem("the study's: " + name(session, study, "none"));
        follows.setSelected(rule.datum().isBlank());
        follows.setOnAction(e -> set.accept(""));
        menu.getItems().addAll(follows, new SeparatorMenuItem());
        lanes(session, menu, rule.datum(), set);
        return menu;
    }

    /** Which lanes a check judges. */
    static MenuButton judged(Session session, Check check) {
        List<String> now = check.judged().isEmpty() ? session.study().judged(check) : check.judged();
        String words = now.isEmpty()
                ? "none, choose one"
                : now.size() > 2
                        ? now.size() + " lanes"
                        : String.join(
                                " + ",
                                now.stream().map(id -> name(session, id, id)).toList());
        var menu = menu("judged-lanes", words);
        Consumer<Source> turn = s -> {
            var next = new ArrayList<>(now);
            if (!next.remove(s.id())) {
                next.add(s.id());
            }
            session.edit("Change check", x -> x.with(check.judging(next)));
        };
        if (many(session)) {
            var judged = new HashSet<>(now);
            list(session, menu, now.isEmpty() ? "" : now.getFirst(), s -> {
                CheckBox row = Named.check(s.name());
                row.setSelected(judged.contains(s.id()));
                row.setOnAction(e -> turn.accept(s));
                return row;
            });
        } else {
            for (Source s : session.study().sources()) {
                var item = Named.checkItem(s.name());
                item.setSelected(now.contains(s.id()));
                item.setOnAction(e -> turn.accept(s));
                menu.getItems().add(item);
            }
        }
        Tip.on(menu, "The lanes that the verdict belongs to");
        return menu;
    }

    private static void lanes(Session session, MenuButton menu, String now, Consumer<String> chosen) {
        if (many(session)) {
            list(session, menu, now, s -> {
                CheckBox row = Named.check(s.name());
                row.setId(menu.getId() + "-" + s.id());
                row.setSelected(s.id().equals(now));
                row.setOnAction(e -> {
                    menu.hide();
                    chosen.accept(s.id());
                });
                return row;
            });
            return;
        }
        for (Source s : session.study().sources()) {
            var item = Named.radioItem(s.name());
            item.setSelected(s.id().equals(now));
            item.setOnAction(e -> chosen.accept(s.id()));
            menu.getItems().add(item);
        }
    }

    private static boolean many(Session session) {
        return session.study().sources().size() > MANY;
    }

    /** @param first is brought into sight */
    private static void list(Session session, MenuButton menu, String first, Function<Source, Node> row) {
        List<Source> all = session.study().sources();
        var box = new VBox(6);
        box.setStyle("-fx-padding: 8;");
        box.setMinWidth(300);
        menu.getItems().add(new CustomMenuItem(box, false));
        String id = menu.getId() + "-list";
        menu.setOnShowing(e -> box.getChildren()
                .setAll(ManyRows.of(
                        session,
                        id,
                        "",
                        "lane",
                        all.stream().map(Source::name).toList(),
                        new Region(),
                        i -> row.apply(all.get(i)))));
        int at = all.stream().map(Source::id).toList().indexOf(first);
        menu.setOnShown(e -> Platform.runLater(() -> ManyRows.show(session, id, at)));
    }

    private static MenuButton menu(String id, String text) {
        var menu = Named.menuButton(text);
        menu.setId(id);
        menu.getStyleClass().add("small-menu");
        menu.setMaxWidth(132);
        menu.setMinWidth(Region.USE_PREF_SIZE);
        return menu;
    }

    private static String name(Session session, String id, String otherwise) {
        return session.study().source(id).map(Source::name).orElse(otherwise);
    }
}
