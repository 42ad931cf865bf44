package lane.provenance;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import lane.provenance.Provenance.Input;
import lane.provenance.TrailGraph.Edge;
import lane.provenance.TrailGraph.Stop;
import org.junit.jupiter.api.Test;

/** Trails as graphs: a kiln's two meshes, a theory and a number that somebody typed. */
class TrailGraphTest {
    private static final Method METHOD = new Method("as it is done", 1);

    private static Input file(String name) {
        return new Input("kiln/" + name, name.hashCode() + "0".repeat(64), 7);
    }

    private static Provenance read(String name, String... parts) {
        Provenance files = Provenance.EMPTY.reading(List.of(file(name)));
        for (String part : parts) {
            files = files.reading(List.of(file(part)));
        }
        return files.then("source", METHOD, "{read}", Map.of("read", file(name).brief()))
                .then("source", METHOD, "field heat", Map.of("of", name))
                .then("quantity", METHOD, "heat", Map.of())
                .then("station", METHOD, "shelf", Map.of())
                .then("reading", METHOD, "mean", Map.of());
    }

    private static int at(TrailGraph graph, Stop stop, String words) {
        for (int i = 0; i < graph.nodes().size(); i++) {
            if (graph.nodes().get(i).stop() == stop
                    && String.join(" ", graph.nodes().get(i).lines()).contains(words)) {
                return i;
            }
        }
        throw new AssertionError("no " + words + " in " + graph);
    }

    @Test
    void aChainGoesFromItsFilesToItsNumber() {
        TrailGraph g = TrailGraph.of(List.of(read("a.vtu", "door.vtp")));
        int files = at(g, Stop.FILE, "door.vtp");
        int run = at(g, Stop.SOURCE, "a.vtu");
        int field = at(g, Stop.SOURCE, "field heat");
        int quantity = at(g, Stop.QUANTITY, "heat");
        int station = at(g, Stop.STATION, "shelf");
        int reading = at(g, Stop.READING, "mean");
        assertThat(g.edges())
                .containsExactlyInAnyOrder(
                        new Edge(files, run),
                        new Edge(run, field),
                        new Edge(field, quantity),
                        new Edge(run, station),
                        new Edge(quantity, reading),
                        new Edge(station, reading));
    }

    @Test
    void whatItIsComparedWithJoinsWhereItIsTakenAndKeepsItsOwnFiles() {
        Provenance typed = Provenance.EMPTY.then("source", Method.TYPED, "900 degC", Map.of());
        Provenance made = read("fine.vtu")
                .beside("mesh coarse", read("coarse.vtu", "wall.vtp"))
                .then("check", METHOD, "numerical uncertainty", Map.of())
                .beside("datum sheet", typed)
                .then("check", METHOD, "against datum", Map.of());
        assertThat(made.inputs()).hasSize(3);
        assertThat(made.typed()).isTrue();
        assertThat(read("fine.vtu").typed()).isFalse();
        TrailGraph g = TrailGraph.of(List.of(made));
        int uncertain = at(g, Stop.CHECK, "numerical");
        int last = at(g, Stop.CHECK, "against");
        int hand = at(g, Stop.SOURCE, "900");
        assertThat(g.nodes().get(hand).typed()).isTrue();
        assertThat(g.edges()).contains(new Edge(uncertain, last), new Edge(hand, last));
        // Both meshes lead to the step that takes them, and the part's file belongs to the coarse one.
        assertThat(g.edges().stream().filter(e -> e.to() == uncertain)).hasSize(2);
        assertThat(g.edges().stream().filter(e -> e.to() == last)).hasSize(2);
        assertThat(g.nodes().get(at(g, Stop.FILE, "coarse.vtu")).lines())
                .hasSize(2)
                .last()
                .asString()
                .startsWith("wall.vtp");
        // Nothing rests on itself, and every node but the last is taken by one.
        for (int i = 0; i < g.nodes().size(); i++) {
            int node = i;
            assertThat(g.edges().stream().anyMatch(e -> e.from() == node)).isEqualTo(node != last);
        }
    }

    @Test
    void lanesShareWhatIsTheSame() {
        Provenance theory = Provenance.EMPTY.then("source", METHOD, "formula 2*s", Map.of());
        Provenance one = read("a.vtu").beside("datum", theory).then("check", METHOD, "against datum: 1 %", Map.of());
        Provenance two = read("b.vtu").beside("datum", theory).then("check", METHOD, "against datum: 2 %", Map.of());
        TrailGraph g = TrailGraph.of(List.of(one, two));
        assertThat(g.nodes().stream().filter(n -> n.lines().getFirst().startsWith("formula")))
                .hasSize(1);
        assertThat(g.nodes().stream().filter(n -> n.stop() == Stop.FILE)).hasSize(2);
        assertThat(g.nodes().stream().filter(n -> n.stop() == Stop.CHECK)).hasSize(2);
    }
}
