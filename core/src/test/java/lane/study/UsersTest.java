package lane.study;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import lane.measure.Mean;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.station.Abscissa;
import lane.station.Isosurface;
import lane.station.Line;
import lane.station.Sampling;
import lane.station.Station;
import org.junit.jupiter.api.Test;

/** A kiln: whoever takes the draught or the heat is found before one of them is deleted. */
class UsersTest {
    private static Study study() {
        return Study.empty("kiln")
                .withQuantities(l -> List.of(
                        new Quantity("heat", "heat", "q.z", "", ""),
                        new Quantity("loss", "loss", "2 * heat", "", ""),
                        new Quantity("T", "T", "temp", "", "")))
                .withStations(l -> List.of(
                        new Station(
                                "rod",
                                "rod",
                                new Line(new Point(0, 0, 0), new Point(0, 0, 1), new Sampling.Even(5), Abscissa.Z)),
                        new Station("flame", "Flame", new Isosurface("heat", List.of(1.0))),
                        new Station("draught", "Draught", new Isosurface("u.x", List.of(0.0)))))
                .withReadings(l -> List.of(
                        new Reading("a", "Speed", "", new ProfileOf("rod", "norm(u)")),
                        new Reading("b", "Loss", "", new ProfileOf("rod", "loss")),
                        new Reading("c", "Heat", "", new TallyOf(List.of("flame"), new Mean("heat"))),
                        new Reading("d", "T", "", new ProfileOf("rod", "T"))));
    }

    private static List<String> names(List<Users.User> users) {
        return users.stream().map(u -> u.kind() + " " + u.name()).toList();
    }

    @Test
    void whoeverTakesAQuantityIsFound() {
        Study s = study();
        assertThat(names(Users.of(s, s.quantities().getFirst())))
                .containsExactly("quantity loss", "reading Heat", "station Flame");
        assertThat(names(Users.of(s, s.quantities().get(1)))).containsExactly("reading Loss");
    }

    @Test
    void aFieldIsTakenWithItsComponentsAndItsMagnitude() {
        assertThat(names(Users.ofField(study(), "u"))).containsExactly("reading Speed", "station Draught");
    }

    @Test
    void aDefinedQuantityGoesBeforeTheFieldOfItsName() {
        assertThat(Users.ofField(study(), "T")).isEmpty();
    }
}
