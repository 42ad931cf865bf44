package lane.desk.readings;

import java.util.List;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Measure;
import lane.reading.Reading;
import lane.station.Station;

/** The settings of a tally: its part, its unit, and what its measure needs. */
final class MeasureForm {
    private MeasureForm() {}

    static void add(Session session, Reading.OfTally reading, VBox box) {
        var head = Ui.label("Settings", "title");
        head.setStyle("-fx-padding: 12 0 0 0;");
        box.getChildren().add(head);
        List<Station> parts = session.study().stations().stream()
                .filter(Station.OnPart.class::isInstance)
                .toList();
        if (reading.stations().size() == 1) {
            session.study().station(reading.stations().getFirst()).ifPresent(s -> box.getChildren()
                    .add(Ui.row(
                            8,
                            Ui.left("Part", 70, "second"),
                            Ui.choice(
                                    "tally-part",
                                    parts,
                                    s,
                                    Station::name,
                                    c -> NewReading.change(
                                            session,
                                            new Reading.OfTally(
                                                    reading.id(),
                                                    reading.name(),
                                                    List.of(c.id()),
                                                    reading.measure(),
                                                    reading.unit()))))));
        }
        var unit = Ui.text(
                "tally-unit",
                reading.unit(),
                u -> NewReading.change(
                        session,
                        new Reading.OfTally(reading.id(), reading.name(), reading.stations(), reading.measure(), u)));
        unit.setPromptText("follows");
        unit.setMaxWidth(90);
        box.getChildren().add(Ui.row(8, Ui.left("Unit", 70, "second"), unit));
        switch (reading.measure()) {
            case Measure.Flow f -> flow(session, reading, f, box);
            case Measure.Force f -> loads(session, reading, f.loads(), box);
            case Measure.Moment m -> loads(session, reading, m.loads(), box);
            default -> {}
        }
    }

    private static void change(Session session, Reading.OfTally reading, Measure measure) {
        NewReading.change(
                session,
                new Reading.OfTally(reading.id(), reading.name(), reading.stations(), measure, reading.unit()));
    }

    private static void flow(Session session, Reading.OfTally reading, Measure.Flow f, VBox box) {
        var factor = Ui.number(
                "flow-factor",
                f.factor(),
                v -> change(session, reading, new Measure.Flow(f.vector(), v, f.factorUnit(), f.carried(), f.axis())));
        factor.setMaxWidth(80);
        var unit = Ui.text(
                "flow-factor-unit",
                f.factorUnit(),
                u -> change(session, reading, new Measure.Flow(f.vector(), f.factor(), u, f.carried(), f.axis())));
        unit.setMaxWidth(80);
        box.getChildren().add(Ui.row(8, Ui.left("Density", 70, "second"), factor, unit));
    }

    private static void loads(Session session, Reading.OfTally reading, Measure.Loads l, VBox box) {
        box.getChildren()
                .add(Ui.row(
                        8,
                        Ui.left("Stored shear", 86, "second"),
                        Ui.segments(
                                List.of(Measure.On.values()),
                                l.shearActsOn(),
                                o -> "on " + o.word(),
                                o -> put(
                                        session,
                                        reading,
                                        new Measure.Loads(l.pressure(), l.reference(), l.shear(), o, l.on())))));
        box.getChildren()
                .add(Ui.row(
                        8,
                        Ui.left("Reported", 86, "second"),
                        Ui.segments(
                                List.of(Measure.On.values()),
                                l.on(),
                                o -> "on " + o.word(),
                                o -> put(
                                        session,
                                        reading,
                                        new Measure.Loads(
                                                l.pressure(), l.reference(), l.shear(), l.shearActsOn(), o)))));
    }

    private static void put(Session session, Reading.OfTally reading, Measure.Loads loads) {
        change(
                session,
                reading,
                switch (reading.measure()) {
                    case Measure.Force f -> new Measure.Force(loads, f.direction());
                    case Measure.Moment m -> new Measure.Moment(loads, m.axis());
                    default -> reading.measure();
                });
    }
}
