package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.MenuButton;
import lane.desk.Named;
import lane.desk.Session;
import lane.station.Region;
import lane.station.Shape;
import lane.station.Station;

/** A menu of the study's surfaces and regions, of which several can be ticked. */
final class PartsChoice {
    private PartsChoice() {}

    /** @param least how many must stay ticked */
    static MenuButton of(Session session, String id, List<String> chosen, int least, Consumer<List<String>> changed) {
        var menu = Named.menuButton(chosen.isEmpty() ? "none" : words(session, chosen));
        menu.setId(id);
        menu.getStyleClass().add("small-menu");
        menu.setMaxWidth(200);
        for (Station s : session.study().stations()) {
            if (s.shape() instanceof Shape.Surface || s.shape() instanceof Region && !chosen.isEmpty()) {
                var item = Named.checkItem(s.name());
                item.setSelected(chosen.contains(s.id()));
                item.setOnAction(e -> {
                    List<String> next = new ArrayList<>(chosen);
                    if (!next.remove(s.id())) {
                        next.add(s.id());
                    }
                    if (next.size() < least) {
                        item.setSelected(true);
                        session.say("At least one part is needed; tick another before this one is left out.");
                    } else {
                        changed.accept(next);
                    }
                });
                menu.getItems().add(item);
            }
        }
        return menu;
    }

    /** Names of stations, joined. */
    static String words(Session session, List<String> ids) {
        return ids.stream()
                .map(i -> session.study().station(i).map(Station::name).orElse(i + " (missing)"))
                .collect(java.util.stream.Collectors.joining(" + "));
    }
}
