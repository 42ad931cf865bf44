package lane.formats.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.check.Accuracy;
import lane.check.AgainstDatum;
import lane.check.Alignment;
import lane.check.Check;
import lane.check.Closure;
import lane.check.Converges;
import lane.check.Decision;
import lane.check.Demand;
import lane.check.Doubts;
import lane.check.Meeting;
import lane.check.Norm;
import lane.check.Scale;
import lane.check.Trend;
import lane.check.WithinBand;
import lane.study.Study;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Checks in studies: written and read again, and written by hand with as little as the schema asks for. */
class ChecksTest {
    private static JsonSchema schema() throws Exception {
        return JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                .getSchema(Files.readString(Path.of("../docs/study.schema.json")));
    }

    @Test
    void everyKindOfCheckComesBackAsItWas() throws Exception {
        var meeting = new Meeting(
                Meeting.Resampling.CUBIC,
                Meeting.At.EVEN,
                40,
                Meeting.Weighting.SAMPLES,
                new Alignment(0.2, 25.4, true, false, true, "gauge moved"));
        var doubts = new Doubts(
                null,
                2.0,
                1.25,
                Map.of("x", 0.1, "y", 0.2),
                List.of(new Doubts.Input("speed", 0.1, 2.5, "", null), new Doubts.Input("glue", 0.2, null, "y", 3.0)),
                3.0);
        Study s = Study.empty("checks").withChecks(l -> {
            l.add(new Check("a", "r", new WithinBand(1.0, null, "kPa"), List.of("x")));
            l.add(new Check("b", "r", new Trend(0.02, true), List.of()));
            l.add(new Check("c", "r", new Closure(0.1, false), List.of()));
            l.add(new Check("d", "r", Norm.L1, Scale.MEAN, 0.3, "rig", List.of()));
            l.add(new Check("e", "r", new Converges(0.01, false), List.of())
                    .doubting(doubts)
                    .under("Drying"));
            l.add(new Check("f", "r", new Accuracy(2, 0.1, "theory"), List.of()));
            l.add(new Check(
                            "g",
                            "r",
                            new AgainstDatum(Norm.LINF, Scale.UNCERTAINTY, 2, "rig")
                                    .also(List.of(new Demand(Norm.BIAS, Scale.ABSOLUTE, 0.1)))
                                    .meeting(meeting)
                                    .with("other"),
                            List.of())
                    .decided(new Decision(true, "known", "N. Odell", "2026-11-30")));
            return l;
        });
        String text = StudyJson.text(s);
        assertThat(StudyJson.of(text, "x")).isEqualTo(s);
        assertThat(schema().validate(new JsonMapper().readTree(text))).isEmpty();
        // What is as usual is not written.
        String plain = StudyJson.text(Study.empty("p")
                .withChecks(l -> List.of(new Check("d", "r", Norm.L1, Scale.MEAN, 0.3, "rig", List.of()))));
        assertThat(plain).doesNotContain("uncertainty").doesNotContain("also").doesNotContain("group");
    }

    @Test
    void byHandLittleIsEnough() throws Exception {
        String text = """
                {"version": 3, "name": "x", "checks": [
                  {"kind": "convergence", "id": "a", "reading": "r", "tolerance": 0.01},
                  {"kind": "closure", "id": "b", "reading": "r", "tolerance": 0.01},
                  {"kind": "datum", "id": "c", "reading": "r", "tolerance": 2, "scale": "UNCERTAINTY",
                   "how": {"align": {"shift": 3}}, "also": [{"norm": "LINF", "tolerance": 0.1}],
                   "uncertainty": {"k": 3, "inputs": [{"name": "speed", "standard": 0.1, "sensitivity": 2}]},
                   "decision": {"because": "seen"}}]}
                """;
        assertThat(schema().validate(new JsonMapper().readTree(text))).isEmpty();
        Study s = StudyJson.of(text, "x");
        assertThat(s.checks().get(0).rule()).isEqualTo(new Converges(0.01, false));
        assertThat(s.checks().get(2).doubts().k()).isEqualTo(3);
        assertThat(((AgainstDatum) s.checks().get(2).rule()).how().align().shift())
                .isEqualTo(3);
        assertThat(s.checks().get(2).decision().accepted()).isFalse();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "\"uncertainty\": {\"k\": -1} | coverage factor",
                "\"uncertainty\": {\"ordre\": 2} | is \"order\" meant",
                "\"uncertainty\": {\"inputs\": [{\"name\": \"speed\", \"standard\": 1}]} | needs a sensitivity",
                "\"how\": {\"at\": \"EVEN\"} | 2 or more",
                "\"how\": {\"align\": {\"factor\": 0}} | not by zero",
                "\"also\": [{\"norm\": \"L3\", \"tolerance\": 1}] | l2",
                "\"decision\": 3 | checks[0].decision"
            })
    void whatIsWrongIsToldWhereItStands(String part, String said) {
        String text =
                "{\"version\": 3, \"name\": \"x\", \"checks\": [{\"kind\": \"datum\", \"id\": \"c\", \"reading\": \"r\","
                        + " \"tolerance\": 1, " + part + "}]}";
        assertThatThrownBy(() -> StudyJson.of(text, "bad.json"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("bad.json")
                .hasMessageContaining("checks[0]")
                .hasMessageContaining(said);
    }
}
