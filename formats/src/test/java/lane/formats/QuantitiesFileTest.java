package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import lane.base.LaneException;
import lane.formats.study.QuantitiesFile;
import lane.quantity.Quantity;
import org.junit.jupiter.api.Test;

/** Quantities as text: what is written is read back, what is no list is said in a sentence. */
class QuantitiesFileTest {
    private static final List<Quantity> SOME = List.of(
            new Quantity("dynamic-pressure", "dynamic pressure", "0.5 * rho * dot(U, U)", "Pa", "of the \"flow\", é"),
            new Quantity("rho", "rho", "1.2 kg/m³", "kg/m^3", ""));

    @Test
    void bothFormsComeBackAsTheyWere() {
        assertThat(QuantitiesFile.read(QuantitiesFile.json(SOME), "here")).isEqualTo(SOME);
        assertThat(QuantitiesFile.read(QuantitiesFile.table(SOME), "here")).isEqualTo(SOME);
    }

    @Test
    void aNoteOfSeveralLinesStaysOneRowOfATable() {
        var noted = List.of(new Quantity("a", "a", "1", "", "one\r\ntwo\tthree"));

        assertThat(QuantitiesFile.table(noted)).hasLineCount(2);
        assertThat(QuantitiesFile.read(QuantitiesFile.table(noted), "here")
                        .getFirst()
                        .note())
                .isEqualTo("one two three");
        assertThat(QuantitiesFile.read(QuantitiesFile.json(noted), "here")).isEqualTo(noted);
    }

    @Test
    void aTableMayLackItsHeadAndItsLastColumns() {
        assertThat(QuantitiesFile.read("p0\t101325 Pa\r\n\r\nT0\t293.15 K\tK\n", "here"))
                .containsExactly(
                        new Quantity("p0", "p0", "101325 Pa", "", ""), new Quantity("t0", "T0", "293.15 K", "K", ""));
    }

    @Test
    void namesThatMakeOneKeyGetTwo() {
        assertThat(QuantitiesFile.read("p\t1\nP\t2\n", "here"))
                .extracting(Quantity::id)
                .containsExactly("p", "p-2");
    }

    @Test
    void whatIsNoListIsSaid() {
        assertThatThrownBy(() -> QuantitiesFile.read("just some words", "The clipboard"))
                .isInstanceOf(LaneException.class)
                .hasMessageStartingWith("The clipboard is no list of quantities at \"just some words\"");
        assertThatThrownBy(() -> QuantitiesFile.read("[{\"name\": \"a\",", "q.json"))
                .isInstanceOf(LaneException.class)
                .hasMessageStartingWith("q.json is no sound JSON: line 1");
        assertThatThrownBy(() -> QuantitiesFile.read("[{\"name\": \"a\"}, 3]", "q.json"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("without a name or a formula");
        assertThatThrownBy(() -> QuantitiesFile.read("[".repeat(50_000), "q.json"))
                .isInstanceOf(LaneException.class);
        assertThatThrownBy(() -> QuantitiesFile.read("x".repeat(5 << 20), "q.json"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("4 MB");
    }
}
