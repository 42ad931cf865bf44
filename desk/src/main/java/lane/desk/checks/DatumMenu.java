package lane.desk.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.MenuButton;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import lane.check.AgainstDatum;
import lane.check.Check;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.study.Source;

/** The datum, chosen where it is named, and which lanes are judged, seen and set beside it. */
public final class DatumMenu {
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
        for (Source s : session.study().sources()) {
            var item = Named.checkItem(s.name());
            item.setSelected(now.contains(s.id()));
            item.setOnAction(e -> {
                var next = new ArrayList<>(now);
                if (!next.remove(s.id())) {
                    next.add(s.id());
                }
                session.edit("Change check", x -> x.with(check.judging(next)));
            });
            menu.getItems().add(item);
        }
        Tip.on(menu, "The lanes that the verdict belongs to");
        return menu;
    }

    private static void lanes(Session session, MenuButton menu, String now, Consumer<String> chosen) {
        for (Source s : session.study().sources()) {
            var item = Named.radioItem(s.name());
            item.setSelected(s.id().equals(now));
            item.setOnAction(e -> chosen.accept(s.id()));
            menu.getItems().add(item);
        }
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
