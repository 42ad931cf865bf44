package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import lane.base.Plain;
import lane.desk.Chosen;
import lane.desk.Lengths;
import lane.desk.Marks;
import lane.desk.Named;
import lane.desk.Nothing;
import lane.desk.Session;
import lane.desk.Ui;
import lane.desk.readings.AskForm;
import lane.desk.readings.NewReading;
import lane.evaluation.Laid;
import lane.field.Part;
import lane.measure.Mean;
import lane.mesh.Point;
import lane.picture.LaneStyle;
import lane.picture.Ticks;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.SweepOf;
import lane.reading.TallyOf;
import lane.station.CutCurve;
import lane.station.Frame;
import lane.station.Placement;
import lane.station.Points;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Sweep;
import lane.study.ShapingUnits;
import lane.study.Source;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/** The selected station by numbers, and how much of it each lane covers. */
final class PlacingCard {
    private final Session session;
    private final VBox box = new VBox(8);
    private final ScrollPane scroll = new ScrollPane(box);
    private final StackPane outer = new StackPane(scroll);

    private final VBox coverage = new VBox(8);
    private final lane.desk.BuiltFrom builtForm = new lane.desk.BuiltFrom();
    private final lane.desk.BuiltFrom built = new lane.desk.BuiltFrom();

    PlacingCard(Session session) {
        this.session = session;
        outer.getStyleClass().add("panel");
        outer.setMinWidth(314);
        outer.setPrefWidth(314);
        outer.setMaxWidth(314);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        box.setStyle("-fx-padding: 6 16 16 16;");
    }

    Node node() {
        return outer;
    }

    /** What is typed into and what is clicked stays as it is while results come in: they change the coverage only. */
    void refresh() {
        String key = session.selected(Chosen.STATION);
        Frame frame = key.startsWith(StationsView.FRAME)
                ? session.study()
                        .frame(key.substring(StationsView.FRAME.length()))
                        .orElse(null)
                : null;
        Station station = session.study().station(key).orElse(null);
        List<String> parts = session.partNames();
        if (builtForm.changed(
                station == null ? frame == null ? "none" : frame : station,
                session.study().axis(),
                session.study().frames(),
                session.picked() == null ? "none" : session.picked(),
                session.study().quantities(),
                session.results().length(),
                session.numbers().isEmpty(),
                parts,
                station == null || station.shape().shapedBy().isBlank()
                        ? Map.of()
                        : ShapingUnits.of(session.results(), station.shape().shapedBy()),
                session.palette().dark())) {
            box.getChildren().clear();
            if (frame != null) {
                frame(frame);
                return;
            }
            if (station == null) {
                box.getChildren().add(Ui.label("No station yet. Add one at the left.", "muted"));
                return;
            }
            var name = Ui.text(
                    "station-name", station.name(), t -> session.edit("Rename station", s -> s.with(station.named(t))));
            box.getChildren().addAll(name, StationForm.of(session, station), actions(station), coverage);
        }
        if (station != null
                && built.changed(
                        station,
                        session.study().sources(),
                        System.identityHashCode(session.results()),
                        session.palette().dark())) {
            coverage.getChildren().clear();
            coverage(station);
        }
    }

    private void frame(Frame frame) {
        var name = Ui.text("frame-name", frame.name(), t -> session.edit("Rename frame", s -> s.with(frame.named(t))));
        var delete = Ui.button("Delete", () -> delete(frame));
        box.getChildren().addAll(name, FrameForm.of(session, frame), Ui.row(8, delete));
    }

    private void delete(Frame frame) {
        List<String> users = new ArrayList<>();
        session.study().stations().stream()
                .filter(s -> s.frame().equals(frame.id()))
                .forEach(s -> users.add(s.name()));
        session.study().frames().stream()
                .filter(f -> f.parent().equals(frame.id()))
                .forEach(f -> users.add(f.name()));
        session.study().readings().stream()
                .filter(r -> r.ask().frame().equals(frame.id()))
                .forEach(r -> users.add(r.name()));
        if (!users.isEmpty()) {
            session.say(
                    "\"" + frame.name() + "\" is used by " + Plain.names(users) + "; let them stand elsewhere first.");
            return;
        }
        session.edit(
                "Delete frame",
                s -> s.withFrames(l -> {
                    l.remove(frame);
                    return l;
                }));
    }

    private Node heading(String name, String note) {
        HBox row = Ui.row(8, Ui.label(name, "title"), Ui.label(note, "small", "muted"));
        row.setStyle("-fx-padding: 10 0 0 0;");
        return row;
    }

    private void coverage(Station station) {
        boolean samples = station.shape() instanceof Shape.Path || station.shape() instanceof Points;
        if (station.shape() instanceof Sweep) {
            return;
        }
        coverage.getChildren().add(heading("Coverage", samples ? "samples that found a cell" : "in each lane"));
        Map<String, Placement> placed = session.results().placements().getOrDefault(station.id(), Map.of());
        Map<String, Laid> laid = session.results().laid().getOrDefault(station.id(), Map.of());
        List<LaneStyle> styles = LaneStyle.of(session.study().sources(), session.palette());
        for (int i = 0; i < styles.size(); i++) {
            Source source = session.study().sources().get(i);
            if (placed.get(source.id()) != null) {
                samples(placed.get(source.id()), source, styles.get(i));
            } else if (laid.get(source.id()) != null) {
                laid(laid.get(source.id()), source, styles.get(i));
            }
        }
    }

    private HBox lane(Source source, LaneStyle style) {
        return Ui.row(
                8, Marks.marker(style, Marks.fx(session.palette().sheet())), Ui.label(source.name()), Ui.spring());
    }

    private void samples(Placement p, Source source, LaneStyle style) {
        int found = p.found();
        String moved = p.moved() == 0 ? "" : p.moved() + " moved " + Ticks.brief(1e6 * p.largestMove()) + " µm";
        HBox row = lane(source, style);
        row.getChildren()
                .addAll(
                        Ui.label(moved, "small", "muted"),
                        Ui.label(String.valueOf(found), found < p.size() ? "ochre" : "section"),
                        Ui.label("of " + p.size(), "small", "muted"));
        coverage.getChildren().addAll(row, bar(p, lane.picture.Palette.css(style.colour())));
        if (found < p.size() && found > 0) {
            int first = 0;
            while (p.cell()[first] >= 0) {
                first++;
            }
            coverage.getChildren().add(Ui.label("outside first at " + at(p.place(first)), "small", "muted"));
        }
    }

    private String at(@Nullable Point p) {
        return Lengths.of(session).three(Objects.requireNonNull(p));
    }

    private void laid(Laid laid, Source source, LaneStyle style) {
        HBox row = lane(source, style);
        coverage.getChildren().add(row);
        if (!laid.trouble().isBlank()) {
            var why = Ui.label(laid.trouble(), "small", "ochre");
            why.setWrapText(true);
            row.getChildren().add(Ui.label("none", "ochre"));
            coverage.getChildren().add(why);
            return;
        }
        String said;
        if (laid.cells() != null) {
            said = Ui.count(laid.cells().length, "cell");
        } else if (laid.cut() != null) {
            said = Ui.count(laid.cut().owner().length, "face") + ", " + Ticks.number(1e6 * laid.area(), Double.NaN)
                    + (laid.cut().surface().dimension() == 1 ? "" : " mm²");
            if (laid.cut().surface().dimension() == 1) {
                said = Ui.count(laid.cut().owner().length, "line");
            }
        } else if (!laid.branches().isEmpty()) {
            said = Ui.count(laid.branches().size(), "branch").replace("branchs", "branches");
        } else {
            said = Ui.count(
                    laid.parts().stream().mapToInt(p -> p.surface().cellCount()).sum(), "face");
        }
        row.getChildren().add(Ui.label(said, "second"));
        for (int i = 0; i < laid.branches().size() && laid.branches().size() > 1; i++) {
            coverage.getChildren()
                    .add(Ui.label((i + 1) + "  " + laid.branches().get(i).name(), "small", "muted"));
        }
        if (laid.cut() != null && Part.lacking(laid.cut().coverage())) {
            String most = laid.sheet() == null
                    ? ""
                    : "; outside most at " + at(laid.sheet().place());
            coverage.getChildren()
                    .add(Ui.label(Part.percent(laid.cut().coverage()) + " inside" + most, "small", "ochre"));
        }
    }

    /** Where along the line samples were found: filled, and where not: left open. */
    private static Node bar(Placement p, String colour) {
        var bar = new Pane();
        bar.setMinHeight(4);
        bar.setMaxHeight(4);
        bar.setStyle("-fx-background-color: -hair;");
        double width = 280;
        int n = p.size();
        for (int i = 0; i < n; ) {
            int from = i;
            while (i < n && p.cell()[i] >= 0) {
                i++;
            }
            if (i > from) {
                var piece = new Region();
                piece.setStyle("-fx-background-color: " + colour + ";");
                piece.setMinSize(width * (i - from) / n, 4);
                piece.setLayoutX(width * from / n);
                bar.getChildren().add(piece);
            }
            while (i < n && p.cell()[i] < 0) {
                i++;
            }
        }
        return bar;
    }

    private Node actions(Station station) {
        var row = new javafx.scene.layout.FlowPane(8, 8);
        boolean profile = station.shape() instanceof Shape.Path
                || station.shape() instanceof CutCurve
                || station.shape() instanceof Points;
        String first = profile ? "Read a profile" : station.shape() instanceof Sweep ? "Read along it" : "Read a mean";
        row.getChildren().addAll(reads(first, () -> read(station), "main"), here(station));
        if (station.moved(new Point(0, 0, 0)) != null) {
            row.getChildren().add(Ui.button("Duplicate", () -> duplicate(station)));
            row.getChildren().add(new ArrayForm(session, station).button());
        }
        row.getChildren().add(Ui.button("Delete", () -> delete(station)));
        row.setStyle("-fx-padding: 12 0 0 0;");
        return row;
    }

    /** A button that makes a reading; without anything to read it says so. */
    private Node reads(String word, Runnable act, String... styles) {
        String why = session.results().runs().isEmpty()
                ? "No run has been read; add one at Intake."
                : session.numbers().isEmpty() ? "No run has a field with numbers to read." : "";
        return Nothing.unless(Ui.button(word, act, styles), why);
    }

    /** All readings that make sense at the station. */
    private Node here(Station station) {
        var menu = Named.menuButton("Read here");
        menu.setId("read-here");
        for (AskForm.Maker maker : AskForm.here(station.shape())) {
            String lacks = maker.lacks().apply(session);
            var item = Named.item(maker.text() + (lacks.isBlank() ? "" : ": " + lacks));
            item.setDisable(!lacks.isBlank());
            item.setOnAction(e -> NewReading.here(session, maker));
            menu.getItems().add(item);
        }
        return menu;
    }

    private java.util.Optional<String> number() {
        return session.numbers().stream().map(lane.quantity.Quantity::id).findFirst();
    }

    private void read(Station station) {
        number().ifPresent(q -> {
            String quantity = session.study().quantity(q).orElseThrow().name();
            boolean profile = station.shape() instanceof Shape.Path
                    || station.shape() instanceof CutCurve
                    || station.shape() instanceof Points;
            String name = quantity + ", " + station.name();
            add(
                    q + "-" + station.id(),
                    id -> profile
                            ? new Reading(id, name, "", new ProfileOf(station.id(), q))
                            : station.shape() instanceof Sweep
                                    ? new Reading(id, name, "", new SweepOf(station.id(), new Mean(q)))
                                    : new Reading(
                                            id, "Mean " + name, "", new TallyOf(List.of(station.id()), new Mean(q))));
        });
    }

    private void add(String stem, java.util.function.Function<String, Reading> make) {
        String id = Study.freshId(
                stem, session.study().readings().stream().map(Reading::id).toList());
        session.edit(
                "Add reading",
                s -> s.withReadings(l -> {
                    l.add(make.apply(id));
                    return l;
                }));
        session.select(Chosen.READING, id);
        session.go(4);
    }

    private void duplicate(Station station) {
        String id = Study.freshId(
                station.name(),
                session.study().stations().stream().map(Station::id).toList());
        session.edit(
                "Duplicate " + station.word(),
                s -> s.withStations(l -> {
                    l.add(l.indexOf(station) + 1, station.keyed(id).named(station.name() + " copy"));
                    return l;
                }));
        session.select(Chosen.STATION, id);
    }

    private void delete(Station station) {
        List<String> users = new ArrayList<>();
        for (Reading r : session.study().readings()) {
            if (r.stations().contains(station.id())) {
                users.add(r.name());
            }
        }
        if (!users.isEmpty()) {
            session.say(
                    "\"" + station.name() + "\" is used by " + Plain.names(users) + "; delete or change those first.");
            return;
        }
        session.edit(
                "Delete station",
                s -> s.withStations(l -> {
                    l.removeIf(x -> x.id().equals(station.id()));
                    return l;
                }));
    }
}
