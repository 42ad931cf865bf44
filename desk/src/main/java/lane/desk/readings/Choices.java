package lane.desk.readings;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;
import javafx.scene.Node;
import lane.desk.Session;
import lane.desk.Ui;
import lane.quantity.Quantity;
import lane.station.Station;

/** Choices that the tool bars of several kinds of readings have. */
final class Choices {
    private Choices() {}

    /** Of a quantity; nothing where the one that is set is gone. */
    static List<Node> quantity(Session session, String now, Consumer<String> chosen) {
        return session.study().quantity(now).stream()
                .map(q -> (Node)
                        Ui.choice("reading-quantity", session.numbers(), q, Quantity::name, c -> chosen.accept(c.id())))
                .toList();
    }

    /** Of a station that fits, after the word "on". */
    static List<Node> station(Session session, String now, Predicate<Station> fits, Consumer<String> chosen) {
        List<Station> among = session.study().stations().stream().filter(fits).toList();
        return session.study()
                .station(now)
                .map(s -> List.<Node>of(
                        Ui.label("on", "muted"),
                        Ui.choice("reading-line", among, s, Station::name, c -> chosen.accept(c.id()))))
                .orElse(List.of());
    }
}
