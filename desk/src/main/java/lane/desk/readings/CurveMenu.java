package lane.desk.readings;

import java.util.List;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import lane.base.Plain;
import lane.desk.Named;
import lane.desk.Session;
import lane.reading.FeatureOf;
import lane.reading.Reading;

/** What can be made of a curve: numbers of it, whether it has settled, the same over the times. */
final class CurveMenu {
    private CurveMenu() {}

    static MenuButton of(Session session, Reading curve) {
        var menu = Named.menuButton("Numbers");
        menu.setId("curve-numbers");
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        boolean clocked = curve.ask().clock().isPresent();
        if (clocked) {
            menu.getItems()
                    .addAll(
                            item("Settled or not", () -> OverTime.settling(session, curve)),
                            item("Strongest periods", () -> OverTime.periods(session, curve)),
                            new SeparatorMenuItem());
        } else if (OverTime.times(session) && !curve.ask().overTime()) {
            menu.getItems()
                    .addAll(
                            item("The same at several times", () -> OverTime.profiles(session, curve)),
                            new SeparatorMenuItem());
        }
        List.of(FeatureOf.What.values()).forEach(w -> menu.getItems()
                .add(item(
                        Plain.title(clocked ? w.word().replace("place", "time") : w.word()),
                        () -> OverTime.feature(session, curve, w))));
        return menu;
    }

    private static MenuItem item(String text, Runnable action) {
        var item = Named.item(text);
        item.setOnAction(e -> action.run());
        return item;
    }
}
