package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import lane.desk.Marks;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Point;
import lane.picture.LaneStyle;
import lane.picture.Ticks;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.reading.Reading;
import lane.station.Abscissa;
import lane.station.Placement;
import lane.station.Sampling;
import lane.station.Station;
import lane.study.Source;
import lane.study.Study;

/** The selected station by numbers: its ends, its sampling, and how much of it each lane covers. */
final class PlacingCard {
    private final Session session;
    private final VBox box = new VBox(8);
    private final ScrollPane scroll = new ScrollPane(box);
    private final StackPane outer = new StackPane(scroll);

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

    void refresh() {
        Station station = session.study().station(session.selected("station")).orElse(null);
        if (!built.changed(
                station == null ? "none" : station,
                session.study().axis(),
                System.identityHashCode(session.results()),
                session.palette().dark())) {
            return;
        }
        box.getChildren().clear();
        if (station == null) {
            box.getChildren().add(Ui.label("No station yet. Add a line or a part.", "muted"));
            return;
        }
        var name = Ui.text(
                "station-name", station.name(), t -> session.edit("Rename station", s -> s.with(station.named(t))));
        box.getChildren().add(name);
        switch (station) {
            case Station.Line line -> line(line);
            case Station.OnPart part -> part(part);
        }
    }

    private void part(Station.OnPart station) {
        List<String> names = session.results().runs().values().stream()
                .flatMap(r -> r.parts().stream())
                .map(p -> p.name())
                .distinct()
                .toList();
        box.getChildren()
                .add(Ui.row(
                        8,
                        Ui.label("Part in the runs", "second"),
                        Ui.choice(
                                "part",
                                names,
                                station.part(),
                                p -> p,
                                p -> session.edit(
                                        "Choose part",
                                        s -> s.with(new Station.OnPart(station.id(), station.name(), p))))));
        box.getChildren().add(heading("Coverage", "faces in each lane"));
        List<LaneStyle> styles = LaneStyle.of(session.study().sources(), session.palette());
        for (int i = 0; i < styles.size(); i++) {
            Source source = session.study().sources().get(i);
            var run = session.results().runs().get(source.id());
            if (run != null) {
                var part = run.parts().stream()
                        .filter(p -> p.name().equals(station.part()))
                        .findFirst();
                box.getChildren()
                        .add(Ui.row(
                                8,
                                Marks.marker(
                                        styles.get(i),
                                        Marks.fx(session.palette().sheet())),
                                Ui.label(source.name()),
                                Ui.spring(),
                                part.isPresent()
                                        ? Ui.label(part.get().surface().cellCount() + " faces", "second")
                                        : Ui.label("no such part", "ochre", "second")));
            }
        }
        box.getChildren().add(actions(station, false));
    }

    private void line(Station.Line line) {
        box.getChildren().add(end("A", line.a(), p -> move(line, p, line.b())));
        box.getChildren().add(end("B", line.b(), p -> move(line, line.a(), p)));
        box.getChildren().add(heading("Sampling", Ticks.brief(1000 * line.length()) + " mm long"));
        boolean exact = line.sampling() instanceof Sampling.CellExact;
        int n = line.sampling() instanceof Sampling.Even e ? e.samples() : 201;
        HBox kind = Ui.row(
                8,
                Ui.segments(
                        List.of(false, true),
                        exact,
                        b -> b ? "every cell crossed" : "even",
                        b -> session.edit(
                                "Sampling",
                                s -> s.with(new Station.Line(
                                        line.id(),
                                        line.name(),
                                        line.a(),
                                        line.b(),
                                        b ? new Sampling.CellExact() : new Sampling.Even(201),
                                        line.abscissa())))));
        if (!exact) {
            TextField count = Ui.number(
                    "samples",
                    n,
                    v -> session.edit(
                            "Samples",
                            s -> s.with(new Station.Line(
                                    line.id(),
                                    line.name(),
                                    line.a(),
                                    line.b(),
                                    new Sampling.Even((int) Math.round(v)),
                                    line.abscissa()))));
            count.setPrefWidth(70);
            kind.getChildren().addAll(count);
        }
        box.getChildren().add(kind);
        box.getChildren()
                .add(Ui.row(
                        8,
                        Ui.label("Drawn against", "second"),
                        Ui.choice(
                                "abscissa",
                                List.of(Abscissa.values()),
                                line.abscissa(),
                                Abscissa::word,
                                a -> session.edit(
                                        "Abscissa",
                                        s -> s.with(new Station.Line(
                                                line.id(), line.name(), line.a(), line.b(), line.sampling(), a))))));
        box.getChildren().add(heading("Coverage", "samples that found a cell"));
        coverage(line);
        box.getChildren().add(actions(line, true));
    }

    private void move(Station.Line line, Point a, Point b) {
        session.edit("Move line", s -> s.with(line.between(a, b)));
    }

    private Node heading(String name, String note) {
        HBox row = Ui.row(8, Ui.label(name, "title"), Ui.label(note, "small", "muted"));
        row.setStyle("-fx-padding: 10 0 0 0;");
        return row;
    }

    private Node end(String name, Point p, java.util.function.Consumer<Point> moved) {
        var ring = new javafx.scene.shape.Circle(5);
        ring.setFill(javafx.scene.paint.Color.TRANSPARENT);
        ring.setStroke(Marks.fx(lane.picture.Palette.MARK));
        ring.setStrokeWidth(2);
        TextField x = coordinate(name + "x", p.x(), v -> moved.accept(new Point(v, p.y(), p.z())));
        TextField y = coordinate(name + "y", p.y(), v -> moved.accept(new Point(p.x(), v, p.z())));
        TextField z = coordinate(name + "z", p.z(), v -> moved.accept(new Point(p.x(), p.y(), v)));
        double r = session.study().axis().radius(p.x(), p.y(), p.z());
        return new VBox(
                3,
                Ui.row(
                        8,
                        ring,
                        Ui.label("End " + name, "section"),
                        Ui.spring(),
                        Ui.label("radius " + Ticks.number(1000 * r, 0.1) + " mm", "small", "muted")),
                Ui.row(6, field("x, mm", x), field("y, mm", y), field("z, mm", z)));
    }

    private static TextField coordinate(String id, double si, java.util.function.Consumer<Double> changed) {
        return Ui.number("end-" + id, 1000 * si, v -> changed.accept(v / 1000));
    }

    private static Node field(String caption, TextField field) {
        field.setPrefWidth(88);
        return new VBox(1, Ui.label(caption, "small", "muted"), field);
    }

    private void coverage(Station.Line line) {
        Map<String, Placement> placed = session.results().placements().getOrDefault(line.id(), Map.of());
        List<LaneStyle> styles = LaneStyle.of(session.study().sources(), session.palette());
        for (int i = 0; i < styles.size(); i++) {
            Source source = session.study().sources().get(i);
            Placement p = placed.get(source.id());
            if (p == null) {
                continue;
            }
            int found = p.found();
            String moved = p.moved() == 0 ? "" : p.moved() + " moved " + Ticks.brief(1e6 * p.largestMove()) + " µm";
            var row = Ui.row(
                    8,
                    Marks.marker(styles.get(i), Marks.fx(session.palette().sheet())),
                    Ui.label(source.name()),
                    Ui.spring(),
                    Ui.label(moved, "small", "muted"),
                    Ui.label(String.valueOf(found), found < p.size() ? "ochre" : "section"),
                    Ui.label("of " + p.size(), "small", "muted"));
            box.getChildren()
                    .addAll(row, bar(p, lane.picture.Palette.css(styles.get(i).colour())));
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

    private Node actions(Station station, boolean line) {
        HBox row = Ui.row(8);
        if (line) {
            row.getChildren().add(Ui.button("Read a profile", () -> readProfile((Station.Line) station), "main"));
            row.getChildren().add(Ui.button("Duplicate", () -> duplicate((Station.Line) station)));
        }
        row.getChildren().add(Ui.button("Delete", () -> delete(station)));
        row.setStyle("-fx-padding: 12 0 0 0;");
        return row;
    }

    private void readProfile(Station.Line line) {
        List<Quantity> numbers = session.study().quantities().stream()
                .filter(q -> q.take() != Take.ALL
                        || session.results().runs().values().stream().anyMatch(r -> r.field(q.field())
                                .map(f -> f.components() == 1)
                                .orElse(false)))
                .toList();
        if (numbers.isEmpty()) {
            session.say("There is no quantity to read; add one at Quantities first.");
            return;
        }
        Quantity q = numbers.getFirst();
        String id = Study.freshId(
                q.id() + "-" + line.id(),
                session.study().readings().stream().map(Reading::id).toList());
        session.edit(
                "Add profile",
                s -> s.withReadings(l -> {
                    l.add(new Reading.OfProfile(id, q.name() + ", " + line.name(), line.id(), q.id(), ""));
                    return l;
                }));
        session.select("reading", id);
        session.go(4);
    }

    private void duplicate(Station.Line line) {
        String id = Study.freshId(
                line.name(),
                session.study().stations().stream().map(Station::id).toList());
        session.edit(
                "Duplicate line",
                s -> s.withStations(l -> {
                    l.add(
                            l.indexOf(line) + 1,
                            new Station.Line(
                                    id, line.name() + " copy", line.a(), line.b(), line.sampling(), line.abscissa()));
                    return l;
                }));
        session.select("station", id);
    }

    private void delete(Station station) {
        List<String> users = new ArrayList<>();
        for (Reading r : session.study().readings()) {
            boolean uses =
                    switch (r) {
                        case Reading.OfProfile p -> p.station().equals(station.id());
                        case Reading.OfTally t -> t.stations().contains(station.id());
                        case Reading.OfBalance b ->
                            b.closedBy().contains(station.id())
                                    || b.terms().stream()
                                            .anyMatch(t -> t.stations().contains(station.id()));
                    };
            if (uses) {
                users.add(r.name());
            }
        }
        if (!users.isEmpty()) {
            session.say("\"" + station.name() + "\" is used by " + String.join(", ", users)
                    + "; delete or change those first.");
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
