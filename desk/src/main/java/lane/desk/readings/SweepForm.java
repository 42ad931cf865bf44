package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.CustomMenuItem;
import lane.desk.Named;
import lane.desk.Session;
import lane.reading.Reading;
import lane.reading.SweepOf;
import lane.station.Sweep;
import org.kordamp.ikonli.feather.Feather;

/** Numbers along a sweep. */
public final class SweepForm implements AskForm {
    @Override
    public String word() {
        return "sweep";
    }

    @Override
    public Class<SweepOf> type() {
        return SweepOf.class;
    }

    @Override
    public String group() {
        return "Profiles";
    }

    @Override
    public Feather icon() {
        return Feather.ACTIVITY;
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Numbers along a sweep", NewReading::lacksNumber, NewReading::sweep, Sweep.class::isInstance));
    }

    @Override
    public String what(Session session, Reading reading) {
        return MeasureChoices.word(session.study(), ((SweepOf) reading.ask()).measure());
    }

    @Override
    public List<Node> tools(Session session, Reading reading) {
        var ask = (SweepOf) reading.ask();
        var measure = Named.menuButton(what(session, reading));
        measure.getStyleClass().add("small-menu");
        var form = new CustomMenuItem(
                MeasureForm.of(
                        session,
                        "sweep-measure",
                        ask.measure(),
                        m -> NewReading.change(session, reading.in("").asking(new SweepOf(ask.station(), m)))),
                false);
        form.getContent().setStyle("-fx-padding: 8;");
        measure.getItems().add(form);
        List<Node> out = new ArrayList<>(List.of(measure));
        out.addAll(Choices.station(
                session,
                ask.station(),
                x -> x.shape() instanceof Sweep,
                k -> NewReading.change(session, reading.asking(new SweepOf(k, ask.measure())))));
        return out;
    }
}
