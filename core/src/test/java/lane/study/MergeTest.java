package lane.study;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import lane.quantity.Quantity;
import org.junit.jupiter.api.Test;

/** Quantities that come to a study which has others of the same name. */
class MergeTest {
    private static Quantity q(String name, String formula, String unit) {
        return new Quantity(name, name, formula, unit, "");
    }

    private static List<String> formulas(List<Quantity> all) {
        return all.stream().map(q -> q.name() + " = " + q.formula()).toList();
    }

    @Test
    void whatIsThereAlreadyIsNotTakenTwice() {
        var have = List.of(q("a", "b * 2", "m"), q("b", "3", "m"));

        assertThat(Merge.quantities(have, have)).isEqualTo(have);
    }

    @Test
    void anotherMeaningComesUnderAFreeNameAndItsUsersFollow() {
        var have = List.of(q("b", "4", ""), q("b 2", "5", ""));
        var come = List.of(q("a", "b * 2", ""), q("b", "3", ""));

        assertThat(formulas(Merge.quantities(have, come)))
                .containsExactly("b = 4", "b 2 = 5", "a = \"b 3\" * 2", "b 3 = 3");
    }

    /** The user looks the same in both studies, but stands before the constant that differs: it must not get lost. */
    @Test
    void aUserOfSomethingElseIsSomethingElse() {
        var have = List.of(q("a", "b * 2", ""), q("b", "4", ""), q("c", "a + 1", ""));
        var come = List.of(q("c", "a + 1", ""), q("a", "b * 2", ""), q("b", "3", ""));

        assertThat(formulas(Merge.quantities(have, come)))
                .containsExactly(
                        "a = b * 2", "b = 4", "c = a + 1", "c 2 = \"a 2\" + 1", "a 2 = \"b 2\" * 2", "b 2 = 3");
    }

    @Test
    void anotherUnitIsAnotherMeaningAndKeysStayUnique() {
        var have = List.of(q("p", "pressure", "Pa"));
        var come = List.of(q("p", "pressure", "kPa"), q("P", "pressure", "bar"));

        var all = Merge.quantities(have, come);

        assertThat(all).extracting(Quantity::name).containsExactly("p", "p 2", "P");
        assertThat(all).extracting(Quantity::unit).containsExactly("Pa", "kPa", "bar");
        assertThat(all).extracting(Quantity::id).doesNotHaveDuplicates();
    }
}
