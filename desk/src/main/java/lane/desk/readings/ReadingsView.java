package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.BorderPane;
import lane.desk.Session;
import lane.desk.SideList;
import lane.desk.View;
import lane.reading.Reading;
import org.kordamp.ikonli.feather.Feather;

/** The list of readings, and the selected one as a profile, a tally or a balance. */
public final class ReadingsView implements View {
    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final SideList list;
    private final ProfilePane profile;
    private final TallyPane tally;
    private final BalancePane balance;

    public ReadingsView(Session session) {
        this.session = session;
        profile = new ProfilePane(session);
        tally = new TallyPane(session);
        balance = new BalancePane(session);
        var add = new MenuButton("+ Add");
        add.setId("add-reading");
        add.getStyleClass().add("small-menu");
        add.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        add.getItems()
                .addAll(
                        item("Profile along a line", () -> NewReading.profile(session)),
                        item("Numbers along a sweep", () -> NewReading.sweep(session)),
                        item("Around a shell", () -> NewReading.around(session)),
                        item("Area of a part", () -> NewReading.area(session)),
                        item("Mean over a part", () -> NewReading.mean(session)),
                        item("Flow through a part", () -> NewReading.flow(session)),
                        item("Force on a part", () -> NewReading.force(session)),
                        item("Moment on a part", () -> NewReading.moment(session)),
                        item("Balance of flow over all parts", () -> NewReading.balance(session)));
        list = new SideList("Readings", add);
        pane.setLeft(list.node());
    }

    private static MenuItem item(String text, Runnable action) {
        var item = new MenuItem(text);
        item.setOnAction(e -> action.run());
        return item;
    }

    @Override
    public BorderPane node() {
        return pane;
    }

    @Override
    public void refresh() {
        var study = session.study();
        if (study.reading(session.selected("reading")).isEmpty()
                && !study.readings().isEmpty()) {
            session.select("reading", study.readings().getFirst().id());
        }
        List<SideList.Item> profiles = new ArrayList<>();
        List<SideList.Item> tallies = new ArrayList<>();
        List<SideList.Item> balances = new ArrayList<>();
        for (Reading r : study.readings()) {
            switch (r) {
                case Reading.OfProfile p ->
                    profiles.add(new SideList.Item(p.id(), p.name(), p.unit(), Feather.ACTIVITY));
                case Reading.OfSweep p -> profiles.add(new SideList.Item(p.id(), p.name(), p.unit(), Feather.ACTIVITY));
                case Reading.OfAround p ->
                    profiles.add(new SideList.Item(p.id(), p.name(), p.unit(), Feather.ACTIVITY));
                case Reading.OfTally t ->
                    tallies.add(new SideList.Item(t.id(), t.name(), t.unit(), Feather.BAR_CHART_2));
                case Reading.OfBalance b ->
                    balances.add(new SideList.Item(b.id(), b.name(), b.unit(), Feather.ALIGN_LEFT));
            }
        }
        list.fill(
                List.of(
                        new SideList.Group("Profiles", profiles),
                        new SideList.Group("Tallies", tallies),
                        new SideList.Group("Balances", balances)),
                session.selected("reading"),
                id -> session.select("reading", id));
        Reading reading = study.reading(session.selected("reading")).orElse(null);
        switch (reading) {
            case null ->
                pane.setCenter(lane.desk.Ui.label("No reading yet. Add one, or read a profile at Stations.", "muted"));
            case Reading.OfProfile p -> pane.setCenter(profile.show(p));
            case Reading.OfSweep p -> pane.setCenter(profile.show(p));
            case Reading.OfAround p -> pane.setCenter(profile.show(p));
            case Reading.OfTally t -> pane.setCenter(tally.show(t));
            case Reading.OfBalance b -> pane.setCenter(balance.show(b));
        }
    }
}
