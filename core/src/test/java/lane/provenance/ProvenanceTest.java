package lane.provenance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** The sentence of a step is made from its data, and the data are the same whoever gives them. */
class ProvenanceTest {
    private static final Method METHOD = new Method("by the yard", 3);

    @Test
    void theSentenceSaysWhatTheSettingsSay() {
        Provenance p = Provenance.EMPTY.then(
                "station",
                METHOD,
                "{word} \"{name}\", {n} places",
                Map.of("word", "belt", "name", "$1 {n}", "n", 12, "more", 4.5));
        Provenance.Step step = p.steps().getFirst();
        assertThat(step.text()).isEqualTo("belt \"$1 {n}\", 12 places");
        assertThat(step.method()).isEqualTo(new Method("by the yard", 3));
        assertThat(step.settings()).containsOnlyKeys("more", "n", "name", "word");
    }

    @Test
    void aSentenceCannotSayWhatIsNoDatum() {
        assertThatThrownBy(() -> Provenance.EMPTY.then("station", METHOD, "{faces} faces", Map.of("cells", 3)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("faces");
    }

    @Test
    void otherTrailsGiveTheirInputsOnceAndTheirStepsAsTheyAre() {
        var a = new Provenance.Input("a.vtu", "00ff00", 10);
        var b = new Provenance.Input("b.vtu", "00ff01", 10);
        Provenance one = new Provenance(List.of(a), List.of()).then("source", METHOD, "one", Map.of());
        Provenance two = new Provenance(List.of(a, b), List.of()).then("quantity", METHOD, "two", Map.of("q", 1));
        Provenance both = one.with(two).then(two.steps().getFirst());
        assertThat(both.inputs()).containsExactly(a, b);
        assertThat(both.steps()).extracting(Provenance.Step::text).containsExactly("one", "two");
        assertThat(both.steps().getLast()).isEqualTo(two.steps().getFirst());
    }

    @Test
    void whatTellsItsFilesAloneKeepsAllOfThemAndNoStep() {
        var a = new Provenance.Input("a.vtu", "00ff00", 10);
        var b = new Provenance.Input("b.vtu", "00ff01", 10);
        var c = new Provenance.Input("c.vtu", "00ff02", 10);
        Provenance two = new Provenance(List.of(b), List.of()).then("quantity", METHOD, "two", Map.of("q", 1));
        Provenance files = Provenance.ofFiles(List.of(a));
        Provenance all = files.then("station", METHOD, "{never} made", Map.of())
                .then(two.steps().getFirst())
                .with(two)
                .and(two)
                .beside("datum", two)
                .reading(List.of(c));
        assertThat(all).isEqualTo(new Provenance(List.of(a, b, c), List.of()));
        assertThat(all.told()).isFalse();
        assertThat(Provenance.EMPTY.told()).isTrue();
        assertThat(two.with(all).then("reading", METHOD, "on", Map.of()).steps())
                .hasSize(2);
    }
}
