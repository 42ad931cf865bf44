package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import lane.desk.Session;
import lane.reading.Ask;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.station.CutCurve;
import lane.station.Shape;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** Profiles along lines, cut curves and points. */
public final class ProfileForm implements AskForm {
    @Override
    public String word() {
        return "profile";
    }

    @Override
    public Class<ProfileOf> type() {
        return ProfileOf.class;
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
    public String name(Study study, Ask ask) {
        var p = (ProfileOf) ask;
        return AskForm.quantity(study, p.quantity()) + ", " + AskForm.places(study, List.of(p.station()));
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Profile along a line", NewReading::lacksNumber, NewReading::profile, NewReading::holdsCurve));
    }

    @Override
    public List<Node> tools(Session session, Reading reading) {
        var ask = (ProfileOf) reading.ask();
        List<Node> out = new ArrayList<>(Choices.quantity(
                session,
                ask.quantity(),
                q -> NewReading.change(session, reading.in("").asking(new ProfileOf(ask.station(), q)))));
        out.addAll(Choices.station(
                session,
                ask.station(),
                x -> x.shape() instanceof Shape.Sampled || x.shape() instanceof CutCurve,
                k -> NewReading.change(session, reading.asking(new ProfileOf(k, ask.quantity())))));
        return out;
    }
}
