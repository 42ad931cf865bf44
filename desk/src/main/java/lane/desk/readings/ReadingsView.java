package lane.desk.readings;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.BorderPane;
import lane.desk.Chosen;
import lane.desk.Named;
import lane.desk.Nothing;
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
        var add = Named.menuButton("+ Add");
        add.setId("add-reading");
        add.getStyleClass().add("small-menu");
        add.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        add.setOnShowing(e -> add.getItems().setAll(makers().map(this::item).toList()));
        // A menu without items does not open.
        add.getItems().setAll(makers().map(this::item).toList());
        list = new SideList(session, "Readings", "reading", add);
        list.whenMade(session.carry()::from);
        pane.setLeft(list.node());
    }

    private static Stream<AskForm.Maker> makers() {
        return AskForm.ALL.all().stream().flatMap(f -> f.makers().stream());
    }

    private MenuItem item(AskForm.Maker maker) {
        String lacks = maker.lacks().apply(session);
        var item = Named.item(lacks.isBlank() ? maker.text() : maker.text() + ": " + lacks);
        item.setDisable(!lacks.isBlank());
        item.setOnAction(e -> maker.make().accept(session));
        return item;
    }

    /** What a reading is, and the ways to one. */
    private Node nothing() {
        List<Nothing.Step> steps = new ArrayList<>();
        if (session.results().runs().isEmpty()) {
            steps.add(new Nothing.Step("Go to Intake", () -> session.go(1)));
        }
        makers().forEach(m -> steps.add(new Nothing.Step(
                m.text(), m.lacks().apply(session), () -> m.make().accept(session))));
        return Nothing.page(
                "No reading yet",
                "A reading is a curve or a number that every lane answers. Begin with one of these, then set where it is taken and of"
                        + " what; or go to Stations, place a line, and read it there.",
                steps);
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
            Objects.requireNonNull(groups.get(form.group(r)))
                    .add(new SideList.Item(r.id(), r.name(), r.unit(), form.icon()));
        }
        list.fill(
                groups.entrySet().stream()
                        .map(g -> new SideList.Group(g.getKey(), g.getValue()))
                        .toList(),
                session.selected(Chosen.READING),
                id -> session.select(Chosen.READING, id));
        study.reading(session.selected(Chosen.READING)).ifPresent(r -> session.showFinest(r.id()));
        pane.setCenter(study.reading(session.selected(Chosen.READING))
                .map(r -> AskForm.ALL.of(r.ask()).pane(panes, r).show(r))
                .orElseGet(this::nothing));
    }
}
