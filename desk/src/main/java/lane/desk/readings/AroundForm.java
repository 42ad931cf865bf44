package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.AroundOf;
import lane.reading.AroundOf.Along;
import lane.reading.Reading;
import lane.station.Shell;
import org.kordamp.ikonli.feather.Feather;

/** Numbers around a shell. */
public final class AroundForm implements AskForm {
    @Override
    public String word() {
        return "around";
    }

    @Override
    public Class<AroundOf> type() {
        return AroundOf.class;
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
        return List.of(new Maker("Around a shell", NewReading::lacksNumber, NewReading::around));
    }

    @Override
    public List<Node> tools(Session session, Reading reading) {
        var ask = (AroundOf) reading.ask();
        List<Node> out = new ArrayList<>();
        out.add(Ui.choice(
                "reading-along",
                List.of(Along.values()),
                ask.along(),
                Along::word,
                x -> NewReading.change(
                        session, reading.asking(new AroundOf(ask.station(), ask.quantity(), x, ask.samples())))));
        out.addAll(Choices.quantity(
                session,
                ask.quantity(),
                q -> NewReading.change(
                        session, reading.in("").asking(new AroundOf(ask.station(), q, ask.along(), ask.samples())))));
        out.addAll(Choices.station(
                session,
                ask.station(),
                x -> x.shape() instanceof Shell,
                k -> NewReading.change(
                        session, reading.asking(new AroundOf(k, ask.quantity(), ask.along(), ask.samples())))));
        return out;
    }
}
