package lane.desk.readings;

import java.util.List;
import javafx.scene.layout.VBox;
import lane.base.Plain;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.station.Shape;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** Single numbers over parts and other stations. */
public final class TallyForm implements AskForm {
    @Override
    public String word() {
        return "tally";
    }

    @Override
    public Class<TallyOf> type() {
        return TallyOf.class;
    }

    @Override
    public String group() {
        return "Tallies";
    }

    @Override
    public Feather icon() {
        return Feather.BAR_CHART_2;
    }

    @Override
    public String name(Study study, Ask ask) {
        var t = (TallyOf) ask;
        String word = Plain.title(MeasureChoices.word(study, t.measure()));
        return t.stations().isEmpty() ? word : word + ", " + AskForm.places(study, t.stations());
    }

    @Override
    public List<Maker> makers() {
        return List.of(
                new Maker("Area of a part", NewReading::lacksArea, NewReading::area, Shape.Surface.class::isInstance),
                new Maker("Mean over a part", NewReading::lacksNumber, NewReading::mean, NewReading::holdsNumbers),
                new Maker(
                        "Flow through a part",
                        NewReading::lacksFlow,
                        NewReading::flow,
                        Shape.Surface.class::isInstance),
                new Maker(
                        "Force on a part", NewReading::lacksLoads, NewReading::force, Shape.Surface.class::isInstance),
                new Maker(
                        "Moment on a part",
                        NewReading::lacksLoads,
                        NewReading::moment,
                        Shape.Surface.class::isInstance),
                new Maker("Number of a lane", NewReading::lacksSingle, NewReading::value));
    }

    @Override
    public String sign(Reading reading) {
        return ((TallyOf) reading.ask()).measure().sign();
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var ask = (TallyOf) reading.ask();
        if (!ask.measure().placeless()) {
            box.getChildren()
                    .add(Ui.row(
                            6,
                            Ui.left("Parts", 78, "second"),
                            PartsChoice.of(
                                    session,
                                    "tally-parts",
                                    ask.stations(),
                                    1,
                                    ids -> NewReading.change(
                                            session, reading.asking(new TallyOf(ids, ask.measure()))))));
        }
        box.getChildren()
                .add(MeasureForm.of(
                        session,
                        "tally",
                        ask.measure(),
                        m -> NewReading.change(session, reading.asking(NewReading.over(session, ask, m)))));
    }
}
