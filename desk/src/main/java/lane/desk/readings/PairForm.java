package lane.desk.readings;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.PairOf;
import lane.reading.PairOf.As;
import lane.reading.PairOf.How;
import lane.reading.PairOf.Match;
import lane.reading.Reading;
import lane.station.Region;
import lane.station.Shape;
import lane.station.Station;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** Two stations of the same lane against each other, as a curve or as a number of their means. */
public final class PairForm implements AskForm {
    @Override
    public String word() {
        return "pair";
    }

    @Override
    public Class<PairOf> type() {
        return PairOf.class;
    }

    @Override
    public String group() {
        return "Profiles";
    }

    @Override
    public String group(Reading reading) {
        return reading.curve() ? "Profiles" : "Tallies";
    }

    @Override
    public Feather icon() {
        return Feather.COLUMNS;
    }

    @Override
    public String name(Study study, Ask ask) {
        var p = (PairOf) ask;
        String between = p.how() == PairOf.How.DIFFERENCE ? " less " : " over ";
        return AskForm.places(study, List.of(p.first())) + between + AskForm.places(study, List.of(p.second()));
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker("Two stations against each other", NewReading::lacksPair, NewReading::pair));
    }

    @Override
    public String what(Session session, Reading reading) {
        var p = (PairOf) reading.ask();
        String name = session.study().quantity(p.quantity()).map(Quantity::name).orElse(p.quantity());
        return name + ", " + p.how().word();
    }

    @Override
    public String sign(Reading reading) {
        return ((PairOf) reading.ask()).how() == How.DIFFERENCE ? "positive where the first station is greater" : "";
    }

    /** Whether a mean can be taken over a station. */
    static boolean wide(Station station) {
        return station.shape() instanceof Shape.Surface
                || station.shape() instanceof Region
                || station.shape() instanceof Shape.Sampled;
    }

    @Override
    public List<Node> tools(Session session, Reading reading) {
        var p = (PairOf) reading.ask();
        return List.of(
                quantity(session, reading, p),
                station(session, reading, p, true),
                how(session, reading, p),
                station(session, reading, p, false),
                match(session, reading, p),
                as(session, reading, p));
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var p = (PairOf) reading.ask();
        box.getChildren()
                .addAll(
                        Rows.of("Mean of", quantity(session, reading, p)),
                        Rows.of("first", station(session, reading, p, true)),
                        Rows.of("taken", how(session, reading, p)),
                        Rows.of("second", station(session, reading, p, false)),
                        Rows.of("as", as(session, reading, p)));
    }

    private static Node quantity(Session session, Reading reading, PairOf p) {
        Quantity now = session.study().quantity(p.quantity()).orElse(null);
        return Ui.choice(
                "pair-quantity",
                session.numbers(),
                now,
                q -> q == null ? "?" : q.name(),
                q -> Rows.change(
                        session,
                        reading.in(""),
                        () -> new PairOf(p.first(), p.second(), q.id(), p.how(), p.match(), p.as())));
    }

    private static Node station(Session session, Reading reading, PairOf p, boolean first) {
        List<Station> among = session.study().stations().stream()
                .filter(p.as() == As.CURVE ? FeatureForm::curved : PairForm::wide)
                .toList();
        Station now = session.study().station(first ? p.first() : p.second()).orElse(null);
        return Ui.choice(
                first ? "pair-first" : "pair-second",
                among,
                now,
                s -> s == null ? "?" : s.name(),
                s -> Rows.change(
                        session,
                        reading,
                        () -> first
                                ? new PairOf(s.id(), p.second(), p.quantity(), p.how(), p.match(), p.as())
                                : new PairOf(p.first(), s.id(), p.quantity(), p.how(), p.match(), p.as())));
    }

    private static Node how(Session session, Reading reading, PairOf p) {
        return Ui.choice(
                "pair-how",
                List.of(How.values()),
                p.how(),
                h -> h == How.DIFFERENCE ? "less" : "over",
                h -> Rows.change(
                        session,
                        reading.in(""),
                        () -> new PairOf(p.first(), p.second(), p.quantity(), h, p.match(), p.as())));
    }

    private static Node match(Session session, Reading reading, PairOf p) {
        return Ui.choice(
                "pair-match",
                List.of(Match.values()),
                p.match(),
                m -> m == Match.ABSCISSA ? "by abscissa" : "by share of length",
                m -> Rows.change(
                        session, reading, () -> new PairOf(p.first(), p.second(), p.quantity(), p.how(), m, p.as())));
    }

    private static Node as(Session session, Reading reading, PairOf p) {
        return Ui.choice(
                "pair-as",
                List.of(As.values()),
                p.as(),
                As::word,
                a -> Rows.change(
                        session,
                        reading,
                        () -> new PairOf(p.first(), p.second(), p.quantity(), p.how(), p.match(), a)));
    }
}
