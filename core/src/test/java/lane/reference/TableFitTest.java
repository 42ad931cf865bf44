package lane.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import lane.provenance.Provenance;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TableFitTest {
    private static Table table(List<String> headers, List<String> units, double[]... columns) {
        return new Table(headers, units, List.of(columns), "", new Provenance.Input("t.csv", "0", 1));
    }

    private static final double[] A = {0.1, 0.2, 0.3};
    private static final double[] B = {20, 30, 40};
    private static final double[] NONE = {Double.NaN, Double.NaN, Double.NaN};

    private static TableFit.Wanted wanted(String name, String unit, String along) {
        return new TableFit.Wanted(true, Set.of(name), Unit.of(unit), Unit.of(along), 0, 0.5);
    }

    @Test
    void unitsNamesAndPlacesDecideWhatIsProposedFirst() {
        Table t = table(
                List.of("z", "depth", "speed", "temperature", "words"),
                List.of("m", "cm", "m/s", "degC", ""),
                new double[] {5, 6, 7},
                new double[] {10, 20, 30},
                A,
                B,
                NONE);
        List<TableFit.Fit> fits = TableFit.of(t, wanted("air temperature, line", "K", "m"));
        // Only the temperature has the unit; of the two lengths only the depth lies where the reading does.
        assertThat(fits.getFirst().value()).isEqualTo("temperature");
        assertThat(fits.getFirst().abscissa()).isEqualTo("depth");
        assertThat(fits.getFirst().words()).isEqualTo("3 of 3 rows lie where the reading does");
        assertThat(fits).allMatch(f -> f.value().equals("temperature"));
        assertThat(fits)
                .noneMatch(f -> f.abscissa().equals("words") || f.abscissa().equals("speed"));
    }

    /** A bare u or U is a speed among components or as the only value; behind a value a small one is its uncertainty. */
    @Test
    void aBareUIsASpeedUnlessItStandsBehindAValue() {
        assertThat(Table.role("U", List.of("x", "U", "V"))).isEqualTo(Recipe.Role.VALUE);
        assertThat(Table.role("u", List.of("y", "u", "v", "w"))).isEqualTo(Recipe.Role.VALUE);
        assertThat(Table.role("u", List.of("y", "u"))).isEqualTo(Recipe.Role.VALUE);
        assertThat(Table.role("u", List.of("x", "T", "u"))).isEqualTo(Recipe.Role.UNCERTAINTY);
    }

    @Test
    void whatIsNotSaidIsProposedWithAWord() {
        Table t = table(List.of("s", "U"), List.of("", ""), A, B);
        TableFit.Fit fit = TableFit.of(t, wanted("U", "m/s", "m")).getFirst();
        assertThat(fit.value()).isEqualTo("U");
        assertThat(fit.words()).contains("the unit of U is not said").contains("the unit of s is not said");
        assertThat(TableFit.of(table(List.of("s", "p"), List.of("m", "Pa"), A, B), wanted("U", "m/s", "m")))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "air temperature, temperature, 1",
        "T, temperature, 1",
        "temperature [degC], t, 1",
        "pressure drop, pressure, 0.5",
        "speed, temperature, 0",
        "'', temperature, 0"
    })
    void namesAreLikeByTheirWords(String header, String name, double share) {
        double like = TableFit.like(header, Set.of(name));
        assertThat(like).isEqualTo(header.equals("air temperature") ? 0.5 : share);
    }

    @Test
    void theUncertaintyBehindAColumnIsItsOwn() {
        Table t = table(
                List.of("x", "T", "u_T", "p", "err_low", "err_up"),
                List.of("m", "K", "%", "Pa", "Pa", "Pa"),
                A,
                B,
                A,
                B,
                A,
                A);
        ColumnUncertainty of = TableFit.uncertainty(t, "T");
        assertThat(of.column()).isEqualTo("u_T");
        assertThat(of.kind()).isEqualTo(ColumnUncertainty.Kind.RELATIVE);
        assertThat(TableFit.uncertainty(t, "p"))
                .isEqualTo(new ColumnUncertainty(ColumnUncertainty.Kind.ABSOLUTE, "err_low", "err_up", 0, "", 0));
        // What is called a standard deviation is one, with a coverage factor of 1.
        for (String name : List.of("sd", "T std", "sigma_T", "s.d. [K]")) {
            Table one = table(List.of("x", "T", name), List.of("m", "K", "K"), A, B, A);
            assertThat(TableFit.uncertainty(one, "T").k()).as(name).isEqualTo(1);
        }
        assertThat(TableFit.uncertainty(t, "T").k()).isZero();
        assertThat(TableFit.uncertainty(table(List.of("x", "T"), List.of("m", "K"), A, B), "T"))
                .isEqualTo(ColumnUncertainty.NONE);
    }
}
