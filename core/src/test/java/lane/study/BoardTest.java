package lane.study;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Decision;
import lane.check.Norm;
import lane.check.Scale;
import lane.check.Verdict;
import lane.estimate.Uncertainty;
import lane.measure.Mean;
import lane.provenance.Provenance;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.station.OnPart;
import lane.station.Station;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** What stands on the board, and the line that sums it up: a brewing copper's temperatures. */
class BoardTest {
    private static Check check(String id) {
        return new Check(id, id, Norm.L2, Scale.ABSOLUTE, 1, "", List.of("fine"));
    }

    private static CheckResult result(Verdict v, double difference) {
        var lane = new CheckResult.Lane(
                "difference",
                300,
                difference,
                300,
                1,
                Uncertainty.NONE,
                0,
                Unit.of("K"),
                null,
                v,
                "",
                Provenance.EMPTY);
        return new CheckResult("", v == Verdict.NO_DATA ? Map.of() : Map.of("fine", lane), v, "");
    }

    private static Results results(Check... more) {
        List<Check> checks = new java.util.ArrayList<>(List.of(
                check("wort").under("Kettle"), check("lid"), check("base").under("Kettle"), check("flue")));
        checks.addAll(List.of(more));
        Study s = Study.empty("copper")
                .withStations(l -> List.of(new Station("wall", "Wall", new OnPart("wall"))))
                .withReadings(l -> checks.stream()
                        .map(c -> new Reading(
                                c.id(), "Mean at the " + c.id(), "", new TallyOf(List.of("wall"), new Mean("t"))))
                        .distinct()
                        .toList())
                .withChecks(l -> checks);
        Map<String, CheckResult> all = new LinkedHashMap<>();
        all.put("wort", result(Verdict.WITHIN, 0.5));
        all.put("lid", result(Verdict.OUT, -1.5));
        all.put("base", result(Verdict.OUT, 3));
        all.put("flue", result(Verdict.NO_DATA, 0));
        for (Check c : more) {
            all.put(c.id(), result(Verdict.OUT, 1.1));
        }
        return new Results(
                s,
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                all,
                Results.none(s).lens());
    }

    private static List<String> ids(List<Board.Section> sections) {
        return sections.stream()
                .flatMap(x -> x.checks().stream())
                .map(Check::id)
                .toList();
    }

    @Test
    void oneSeesAllOrSomeInAnyOrder() {
        Results r = results();
        assertThat(ids(Board.of(r, Board.Look.ALL))).containsExactly("wort", "lid", "base", "flue");
        assertThat(ids(Board.of(r, Board.Look.ALL.show(Board.Show.OUT)))).containsExactly("lid", "base");
        assertThat(ids(Board.of(r, Board.Look.ALL.show(Board.Show.OPEN)))).containsExactly("lid", "base", "flue");
        assertThat(ids(Board.of(r, Board.Look.ALL.show(Board.Show.NO_DATA)))).containsExactly("flue");
        assertThat(ids(Board.of(r, Board.Look.ALL.order(Board.Order.WORST))))
                .containsExactly("base", "lid", "flue", "wort");
        assertThat(ids(Board.of(r, Board.Look.ALL.order(Board.Order.NAME))))
                .containsExactly("base", "flue", "lid", "wort");
        assertThat(ids(Board.of(r, Board.Look.ALL.search("the L")))).containsExactly("lid");
        assertThat(ids(Board.of(r, Board.Look.ALL.search("kettle")))).containsExactly("wort", "base");
        assertThat(ids(Board.of(r, Board.Look.ALL.search("undecided")))).isEmpty();
        List<Board.Section> groups = Board.of(r, Board.Look.ALL.grouping(Board.Grouping.GROUP));
        assertThat(groups).extracting(Board.Section::name).containsExactly("Kettle", "Without a group");
        assertThat(Board.of(r, Board.Look.ALL.grouping(Board.Grouping.STATION)))
                .singleElement()
                .extracting(Board.Section::name)
                .isEqualTo("Wall");
        assertThat(Board.of(r, Board.Look.ALL.grouping(Board.Grouping.KIND))).hasSize(1);
    }

    @Test
    void theSummaryNamesWhatIsOutAndByHowMuch() {
        assertThat(Board.summary(results()))
                .isEqualTo(
                        "4 checks: 1 within, 2 out, 1 no data. Out: Mean at the base by 3 K (allowed 1 K); Mean at the lid by 1.5"
                                + " K (allowed 1 K).");
        Check known = check("vent").decided(new Decision(true, "known", "", ""));
        assertThat(Board.summary(results(known, check("tap"))))
                .contains("4 out")
                .contains("and 1 more.")
                .endsWith("1 is accepted.");
        // Of two measures the second is out.
        var second = new CheckResult.Measured(Norm.BIAS, 2, 300, "1.5 K", Verdict.OUT, "");
        Results r = results();
        CheckResult.Lane lane = result(Verdict.OUT, 0.4).lanes().get("fine");
        Map<String, CheckResult> all = new LinkedHashMap<>(r.checks());
        all.put(
                "lid",
                new CheckResult(
                        "",
                        Map.of(
                                "fine",
                                lane.with(
                                        new CheckResult.Evidence(
                                                List.of(second),
                                                null,
                                                lane.evidence().budget()),
                                        "")),
                        Verdict.OUT,
                        ""));
        Results more = new Results(
                r.study(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), all, r.lens());
        assertThat(Board.summary(more)).contains("Mean at the lid by bias 2 K (allowed 1.5 K)");
        Study none = Study.empty("none");
        assertThat(Board.summary(Results.none(none))).isEqualTo("No checks.");
    }
}
