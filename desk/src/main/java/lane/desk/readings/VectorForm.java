package lane.desk.readings;

import java.util.List;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.base.Plain;
import lane.desk.Session;
import lane.desk.Ui;
import lane.measure.Measure;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.reading.VectorOf;
import lane.station.Shape;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** Forces, moments and means of vectors with their components, magnitude and direction. */
public final class VectorForm implements AskForm {
    @Override
    public String word() {
        return "vector";
    }

    @Override
    public Class<VectorOf> type() {
        return VectorOf.class;
    }

    @Override
    public String group() {
        return "Tallies";
    }

    @Override
    public Feather icon() {
        return Feather.ARROW_UP_RIGHT;
    }

    @Override
    public String name(Study study, Ask ask) {
        var v = (VectorOf) ask;
        String word = Plain.title(MeasureChoices.word(study, v.measure()));
        return (word.contains(" ") ? word : word + " vector") + ", " + AskForm.places(study, v.stations());
    }

    @Override
    public List<Maker> makers() {
        return List.of(
                new Maker(
                        "Force on a part, as a vector",
                        NewReading::lacksLoads,
                        NewReading::forceVector,
                        Shape.Surface.class::isInstance),
                new Maker(
                        "Mean of a vector", NewReading::lacksVector, NewReading::meanVector, NewReading::holdsNumbers));
    }

    @Override
    public String sign(Reading reading) {
        return "components along x, y and z of space, each positive along its axis";
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var ask = (VectorOf) reading.ask();
        box.getChildren()
                .addAll(
                        Ui.row(
                                6,
                                Ui.left("Parts", 78, "second"),
                                PartsChoice.of(
                                        session,
                                        "vector-parts",
                                        ask.stations(),
                                        1,
                                        ids -> NewReading.change(
                                                session,
                                                reading.asking(new VectorOf(
                                                        ids, ask.measure(), ask.number(), ask.frame(), null))))),
                        MeasureForm.ofVectors(session, "vector", ask.measure(), m -> change(session, reading, ask, m)),
                        Ui.row(
                                6,
                                Ui.left("Judged by", 78, "second"),
                                Ui.choice(
                                        "vector-number",
                                        List.of(VectorOf.Which.values()),
                                        ask.number(),
                                        VectorOf.Which::word,
                                        n -> NewReading.change(
                                                session,
                                                reading.asking(new VectorOf(
                                                        ask.stations(), ask.measure(), n, ask.frame(), null))))));
        Rows.frame(
                        session,
                        "vector-frame",
                        ask.frame(),
                        f -> NewReading.change(
                                session,
                                reading.asking(new VectorOf(ask.stations(), ask.measure(), ask.number(), f, null))))
                .ifPresent(box.getChildren()::add);
    }

    private static void change(Session session, Reading reading, VectorOf ask, Measure measure) {
        try {
            NewReading.change(
                    session,
                    reading.in("").asking(new VectorOf(ask.stations(), measure, ask.number(), ask.frame(), null)));
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
    }
}
