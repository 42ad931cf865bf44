package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.formats.study.StudyJson;
import lane.ledger.Ledger;
import lane.ledger.LedgerTable;
import lane.ledger.LedgerTable.Mark;
import lane.ledger.LedgerTable.Num;
import lane.ledger.LedgerTables;
import lane.reference.Curve;
import lane.study.LedgerLook;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.study.TableTemplate;
import lane.study.TableTemplate.Column;
import lane.study.TableTemplate.Content;
import lane.study.TableTemplate.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Tables set up by hand: which columns in which order, units, digits, order of lines; on the block of {@link LedgerTest}. */
class LedgerTablesTest {
    private static final Ledger LEDGER = Ledger.of(LedgerTest.RESULTS);

    private static LedgerTable one(TableTemplate template) {
        List<LedgerTable> made = LedgerTables.of(LedgerTest.RESULTS, LEDGER, template);
        assertThat(made).hasSize(1);
        return made.getFirst();
    }

    private static List<Column> columns(String... names) {
        return Arrays.stream(names).map(n -> new Column(n, "", 0)).toList();
    }

    private static List<String> texts(LedgerTable table, int row) {
        return table.rows().get(row).cells().stream()
                .map(LedgerTable.Cell::text)
                .toList();
    }

    private static double value(LedgerTable table, int row, String column) {
        return ((Num) table.rows().get(row).cells().get(table.column(column))).value();
    }

    @Test
    void aStudyWithBalancesHasThemInATableOfTheirOwn() {
        List<LedgerTable> usual = LedgerTables.of(LedgerTest.RESULTS, LEDGER);
        assertThat(usual).extracting(LedgerTable::name).containsExactly("Comparison", "Balances", "Checks");
        assertThat(usual.get(0).rows())
                .noneMatch(r -> r.cells().getFirst().text().equals("areas"));
        LedgerTable balances = usual.get(1);
        assertThat(balances.rows()).hasSize(3);
        assertThat(texts(balances, 0)).startsWith("areas", "term all", "cm2", "60000");
        // What is left is told as a share of the largest term, too.
        assertThat(value(balances, 2, "a_relative")).isCloseTo(0, within(1e-12));
    }

    @Test
    void temperaturesInAnotherUnitMoveTheirZeroAndDifferencesDoNot() {
        LedgerTable table = one(TableTemplate.of(Content.TALLIES)
                .in(List.of("K", "mm"))
                .with(columns("what", "theory", "a", "a_difference", "a_apart", "theory_uncertainty"))
                .titled("In kelvins"));
        assertThat(table.title()).isEqualTo("In kelvins");
        int mean = (int) table.rows().stream()
                .takeWhile(r -> !r.cells().getFirst().text().equals("tally"))
                .count();
        assertThat(value(table, mean, "a")).isCloseTo(305, within(1e-9));
        assertThat(value(table, mean, "theory")).isCloseTo(304.15, within(1e-9));
        assertThat(value(table, mean, "theory_uncertainty")).isCloseTo(0.25, within(1e-12));
        assertThat(value(table, mean, "a_difference")).isCloseTo(0.85, within(1e-9));
        assertThat(value(table, mean, "a_apart")).isCloseTo(100 * 0.85 / 304.15, within(1e-9));
        assertThat(table.columns().get(table.column("a_difference")).less())
                .isEqualTo(new LedgerTable.Less("a", "theory"));
        // What somebody typed stands out, with its meaning beneath.
        assertThat(table.rows().get(mean).cells().get(1).mark()).isEqualTo(Mark.TYPED);
        assertThat(table.rows().get(mean).cells().get(1).marked()).endsWith(" †");
        assertThat(table.rows().get(mean).cells().get(2).mark()).isEqualTo(Mark.NONE);
        assertThat(table.notes()).containsExactly("† typed by hand, or resting on a number that was");
        // Percent of degrees Celsius has no meaning.
        LedgerTable celsius = one(TableTemplate.of(Content.TALLIES).with(columns("what", "a_apart")));
        assertThat(value(celsius, mean, "a_apart")).isNaN();
    }

    @Test
    void aDifferenceOfTemperaturesIsNeverToldAsAPointOnAScale() {
        Study risen = LedgerTest.STUDY
                .withSources(l -> List.of(
                        l.getFirst(),
                        new Source.Reference(
                                "theory",
                                "theory",
                                Source.Kind.THEORY,
                                List.of(),
                                Map.of(),
                                List.of(
                                        new Curve.HandValue("mean", 31, "degC", 0.25, ""),
                                        new Curve.HandValue("rise", 4, "K", 0, "")))))
                .withQuantities(l ->
                        List.of(l.getFirst(), new lane.quantity.Quantity("rise", "rise", "T - 300 \"K\"", "K", "")))
                .withReadings(l -> List.of(
                        l.get(1),
                        new lane.reading.Reading(
                                "rise",
                                "rise",
                                "",
                                new lane.reading.TallyOf(List.of("skin"), new lane.measure.Mean("rise")))))
                .withChecks(l -> List.of(new lane.check.Check(
                        "c", "rise", lane.check.Norm.L2, lane.check.Scale.ABSOLUTE, 1, "", List.of("a"))));
        Results results = LedgerTest.evaluated(risen);
        for (Content of : List.of(Content.NUMBERS, Content.CHECKS)) {
            LedgerTable table = LedgerTables.of(
                            results, Ledger.of(results), TableTemplate.of(of).in(List.of("degF", "degC")))
                    .getFirst();
            String column = of == Content.NUMBERS ? "a" : "value";
            List<String> told = new ArrayList<>();
            for (int r = 0; r < table.rows().size(); r++) {
                LedgerTable.Row row = table.rows().get(r);
                told.add(row.cells().get(table.column("reading")).text() + " "
                        + Math.round(100 * value(table, r, column)) + " "
                        + row.cells().get(table.column("unit")).text());
            }
            assertThat(told).contains("rise 500 K");
            if (of == Content.NUMBERS) {
                assertThat(told).contains("mean T " + Math.round(100 * (31.85 * 1.8 + 32)) + " degF");
            }
        }
    }

    @Test
    void columnsHaveTheirNamesDigitsAndOrderAndLinesTheirs() {
        LedgerTable table = one(TableTemplate.of(Content.NUMBERS)
                .to(3)
                .with(List.of(
                        new Column("a", "the fine run", 5), new Column("reading", "", 0), new Column("theory", "", 0)))
                .by(new Order("a", true)));
        assertThat(table.columns())
                .extracting(LedgerTable.Column::title)
                .containsExactly("the fine run", "Reading", "theory");
        List<Double> order = table.rows().stream()
                .map(r -> ((Num) r.cells().getFirst()).value())
                .toList();
        assertThat(order).isSortedAccordingTo((x, y) -> Double.compare(y, x));
        assertThat(texts(table, 0).getFirst()).isEqualTo("60000");
        assertThat(table.rows()).anyMatch(r -> r.cells().getFirst().text().equals("36.850"));
        assertThat(table.rows()).anyMatch(r -> r.cells().getLast().text().equals("31.0"));
        // By name, and a column of a lane that is gone is left out.
        LedgerTable named = one(TableTemplate.of(Content.NUMBERS)
                .with(columns("reading", "gone", "a"))
                .by(new Order("reading", false)));
        assertThat(named.columns()).hasSize(2);
        assertThat(named.rows().stream().map(r -> r.cells().getFirst().text()).toList())
                .isSortedAccordingTo(String.CASE_INSENSITIVE_ORDER);
    }

    @Test
    void aTableTellsOfChosenReadings() {
        var of = new TableTemplate("", Content.NUMBERS, List.of("mean"), List.of(), List.of(), 0, Order.OF_STUDY, 0);
        assertThat(one(of).rows()).hasSize(1);
        var checks =
                new TableTemplate("", Content.CHECKS, List.of("mean"), List.of(), List.of("K"), 0, Order.OF_STUDY, 0);
        LedgerTable table = one(checks);
        assertThat(table.rows())
                .allMatch(r -> r.cells().get(table.column("reading")).text().equals("mean T"));
        assertThat(value(table, 0, "value")).isCloseTo(305, within(1e-9));
        assertThat(value(table, 0, "datum_value")).isCloseTo(304.15, within(1e-9));
        assertThat(value(table, 0, "difference")).isCloseTo(0.85, within(1e-9));
        assertThat(table.rows().getFirst().cells().get(table.column("unit")).text())
                .isEqualTo("K");
    }

    @Test
    void curvesStandBesideEachOtherAtEvenPlaces() {
        LedgerTable table = one(TableTemplate.of(Content.PROFILES)
                .along(3)
                .in(List.of("mm", "K"))
                .with(columns("abscissa", "a", "theory", "a_difference")));
        assertThat(table.title()).isEqualTo("T along x");
        assertThat(table.note()).contains("linear");
        assertThat(table.rows()).hasSize(3);
        for (int i = 0; i < 3; i++) {
            double s = 0.5 * i;
            assertThat(value(table, i, "abscissa")).isCloseTo(1000 * s, within(1e-9));
            assertThat(value(table, i, "a")).isCloseTo(300 + 10 * s, within(1e-9));
            assertThat(value(table, i, "theory")).isCloseTo(300.5 + 9.5 * s, within(1e-9));
            assertThat(value(table, i, "a_difference")).isCloseTo(0.5 * s - 0.5, within(1e-9));
        }
        assertThat(LedgerTables.of(LedgerTest.RESULTS, LEDGER, TableTemplate.of(Content.HISTORIES)))
                .isEmpty();
    }

    @Test
    void aWideTableFallsIntoPartsThatLoseNothing() {
        LedgerTable table = one(TableTemplate.of(Content.TALLIES)
                .with(columns(
                        "reading",
                        "what",
                        "a",
                        "theory",
                        "theory_uncertainty",
                        "a_difference",
                        "a_apart",
                        "a_relative")));
        assertThat(table.within(8)).containsExactly(table);
        List<LedgerTable> parts = table.within(4);
        assertThat(parts).extracting(LedgerTable::title).first().isEqualTo("Comparison, part 1 of 4");
        // A number stays beside its uncertainty.
        assertThat(parts.stream().map(p -> p.columns().stream()
                        .map(LedgerTable.Column::name)
                        .toList()))
                .containsExactly(
                        List.of("reading", "what", "a"),
                        List.of("reading", "what", "theory", "theory_uncertainty"),
                        List.of("reading", "what", "a_difference", "a_apart"),
                        List.of("reading", "what", "a_relative"));
        for (LedgerTable part : parts) {
            assertThat(part.rows()).hasSameSizeAs(table.rows());
            for (int r = 0; r < part.rows().size(); r++) {
                for (LedgerTable.Column c : part.columns()) {
                    assertThat(part.rows().get(r).cells().get(part.column(c.name())))
                            .isEqualTo(table.rows().get(r).cells().get(table.column(c.name())));
                }
            }
        }
    }

    @Test
    void numbersWithoutAKnownUnitAreToldAsTheyAre() {
        Study unknown = LedgerTest.STUDY
                .withUnits(l -> List.of())
                .withQuantities(l -> List.of(new lane.quantity.Quantity("t", "moisture", "feucht", "", "")))
                .withReadings(l -> List.of(l.get(0), l.get(1)))
                .withChecks(l -> List.of());
        Results results = LedgerTest.evaluated(unknown);
        LedgerTable table = LedgerTables.of(
                        results,
                        Ledger.of(results),
                        TableTemplate.of(Content.NUMBERS).in(List.of("K")))
                .getFirst();
        assertThat(value(table, 0, "a")).isCloseTo(300, within(1e-9));
        assertThat(table.rows().getFirst().cells().get(table.column("unit")).text())
                .isEqualTo("unit unknown");
    }

    @Test
    void whatCannotBeATableIsSaid() {
        assertThatThrownBy(() -> TableTemplate.of(Content.NUMBERS).to(18))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("17");
        assertThatThrownBy(() -> TableTemplate.of(Content.NUMBERS).with(columns("a", "a")))
                .hasMessageContaining("twice");
        assertThatThrownBy(() -> TableTemplate.of(Content.PROFILES).along(1)).hasMessageContaining("from 2");
        assertThatThrownBy(() -> TableTemplate.of(Content.NUMBERS).in(List.of("furlongs per")))
                .hasMessageContaining("furlongs");
    }

    @Test
    void templatesAreKeptInTheStudyAndMayBeWrittenByHand(@TempDir Path folder) throws Exception {
        TableTemplate own = TableTemplate.of(Content.CHECKS)
                .titled("For the customer")
                .with(List.of(new Column("verdict", "Result", 0), new Column("difference", "", 2)))
                .in(List.of("mm", "degC"))
                .to(4)
                .by(new Order("difference", true));
        Study with = LedgerTest.STUDY.with(
                LedgerTest.STUDY.pictures().with(new LedgerLook(List.of("pdf", "xlsx"), List.of(own))));
        Path file = folder.resolve("s.lane.json");
        Files.writeString(file, StudyJson.text(with));
        assertThat(StudyJson.load(file).pictures().ledger())
                .isEqualTo(with.pictures().ledger());
        // Nothing is written of what is as usual.
        assertThat(StudyJson.text(LedgerTest.STUDY)).doesNotContain("\"ledger\"");
        Files.writeString(
                file,
                "{\"version\": 3, \"name\": \"s\", \"pictures\": {\"ledger\": {\"tables\": [{\"of\": \"PROFILES\", \"rows\": 5}]}}}");
        assertThat(StudyJson.load(file).pictures().ledger().tables())
                .containsExactly(TableTemplate.of(Content.PROFILES).along(5));
        Files.writeString(
                file,
                "{\"version\": 3, \"name\": \"s\", \"pictures\": {\"ledger\": {\"tables\": [{\"title\": \"x\"}]}}}");
        assertThatThrownBy(() -> StudyJson.load(file)).hasMessageContaining("what it is of");
    }
}
