package lane.desk.checks;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.control.MenuButton;
import javafx.scene.layout.Region;
import lane.desk.Named;
import lane.desk.Session;
import lane.study.CheckTemplates;
import lane.study.Source;

/** The same checks for another family of runs. */
final class Templates {
    private Templates() {}

    static MenuButton menu(Session session) {
        var menu = Named.menuButton("Same checks for ...");
        menu.setId("board-templates");
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(Region.USE_PREF_SIZE);
        Map<String, String> finest = new LinkedHashMap<>();
        for (Source s : session.study().sources()) {
            if (s instanceof Source.Simulation r) {
                finest.put(r.family(), r.id());
            }
        }
        List<String> judged = CheckTemplates.families(session.study());
        finest.forEach((family, lane) -> {
            String name = session.study().source(lane).map(Source::name).orElse(lane);
            var item = Named.item(family.isBlank() ? name : family + ", judging " + name);
            item.setOnAction(e -> session.edit("Same checks for " + name, s -> CheckTemplates.same(s, lane)));
            item.setDisable(judged.size() == 1 && judged.getFirst().equals(family));
            menu.getItems().add(item);
        });
        return menu;
    }
}
