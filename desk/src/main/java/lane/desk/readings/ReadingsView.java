package lane.desk.readings;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.BorderPane;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.SideList;
import lane.desk.View;
import lane.reading.Reading;

/** The list of readings, and the selected one as a profile, a tally or a balance. */
public final class ReadingsView implements View {
    private final Session session;
    private final BorderPane pane = new BorderPane();
    private final SideList list;
    private final Panes panes;

    public ReadingsView(Session session) {
        this.session = session;
        panes = new Panes(session);
        var add = new MenuButton("+ Add");
        add.setId("add-reading");
        add.getStyleClass().add("small-menu");
        add.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        AskForm.ALL.all().stream().flatMap(f -> f.makers().stream()).forEach(m -> add.getItems()
                .add(item(m.text(), () -> m.make().accept(session))));
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
        if (study.reading(session.selected(Chosen.READING)).isEmpty()
                && !study.readings().isEmpty()) {
            session.select(Chosen.READING, study.readings().getFirst().id());
        }
        Map<String, List<SideList.Item>> groups = new LinkedHashMap<>();
        AskForm.ALL.all().forEach(f -> groups.putIfAbsent(f.group(), new ArrayList<>()));
        for (Reading r : study.readings()) {
            AskForm form = AskForm.ALL.of(r.ask());
            Objects.requireNonNull(groups.get(form.group()))
                    .add(new SideList.Item(r.id(), r.name(), r.unit(), form.icon()));
        }
        list.fill(
                groups.entrySet().stream()
                        .map(g -> new SideList.Group(g.getKey(), g.getValue()))
                        .toList(),
                session.selected(Chosen.READING),
                id -> session.select(Chosen.READING, id));
        pane.setCenter(study.reading(session.selected(Chosen.READING))
                .map(r -> AskForm.ALL.of(r.ask()).pane(panes, r).show(r))
                .orElseGet(
                        () -> lane.desk.Ui.label("No reading yet. Add one, or read a profile at Stations.", "muted")));
    }
}
