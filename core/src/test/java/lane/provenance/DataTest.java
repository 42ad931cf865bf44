package lane.provenance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lane.mesh.Axis;
import lane.mesh.Point;
import org.junit.jupiter.api.Test;

/** Definitions of any kind become the same data in every process, and lines that people can read. */
class DataTest {
    private enum Weave {
        PLAIN_TWILL
    }

    private record Loom(String name, int threads, Weave weave, List<Double> gaps, Axis about, Double tension) {}

    private record Bare() {}

    private static final Loom LOOM = new Loom(
            "left",
            40,
            Weave.PLAIN_TWILL,
            List.of(0.5, 2.0),
            new Axis(new Point(1, 0, -2.5), new Point(0, 0, 3)),
            null);

    @Test
    void aRecordIsItsKindAndThenItsComponentsInTheirOrder() {
        Map<?, ?> data = (Map<?, ?>) Data.of(LOOM);
        assertThat(data.keySet().stream().map(String::valueOf))
                .containsExactly("kind", "name", "threads", "weave", "gaps", "about", "tension");
        assertThat(Data.text(data))
                .isEqualTo(
                        "loom (name left, threads 40, weave plain twill, gaps 0.5; 2, about axis (origin (1, 0, -2.5),"
                                + " direction (0, 0, 1), zero (1, 0, 0)), tension none)");
        assertThat(Data.text(Data.of(new Bare()))).isEqualTo("bare");
    }

    @Test
    void whatIsDataAlreadyStaysAsItIs() {
        Object once = Data.of(Map.of("b", LOOM, "a", 1));
        Object twice = Data.of(once);
        assertThat(twice).hasToString(once.toString());
        assertThatThrownBy(() -> ((Map<Object, Object>) once).put("c", 2))
                .isInstanceOf(UnsupportedOperationException.class);
    }

    @Test
    void mapsWithoutAnOrderHaveThatOfTheAlphabet() {
        var settings = new HashMap<String, Object>();
        for (String key : List.of("zeta", "beta", "iota", "alpha", "mu", "Aa", "BB")) {
            settings.put(key, 1);
        }
        assertThat(Data.map(settings).keySet()).containsExactly("Aa", "BB", "alpha", "beta", "iota", "mu", "zeta");
    }
}
