package lane.study;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import lane.measure.Mean;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.BalanceOf;
import lane.reading.BalanceOf.Term;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.station.Frame;
import lane.station.OnPart;
import lane.station.Station;
import org.junit.jupiter.api.Test;

/** Formulas follow the names that they use; all else of their text stays as it was typed. */
class RenamesTest {
    private static final Term IN = new Term("in", 1, List.of("inlet"), new Mean("t"));

    private static Study study(String... formulas) {
        List<Quantity> quantities = new ArrayList<>();
        for (String f : formulas) {
            quantities.add(new Quantity("q" + quantities.size(), "q" + quantities.size(), f, "", ""));
        }
        return Study.empty("s")
                .withSources(l -> List.of(
                        new Source.Simulation("a", "fine", "a", List.of(), "", ""),
                        new Source.Reference("r", "rig", Source.Kind.MEASUREMENT, List.of(), Map.of(), List.of())))
                .withStations(l -> List.of(
                        new Station("inlet", "inlet", new OnPart("inlet")),
                        new Station("wall", "wall", new OnPart("wall"))))
                .withFrames(l -> List.of(new Frame("f", "tilted", "", new Point(0, 0, 0), null, false, "")))
                .withReadings(l -> List.of(
                        new Reading("m", "mean T", "", new TallyOf(List.of("inlet"), new Mean("t"))),
                        new Reading("b", "heat", "", new BalanceOf(List.of(IN), List.of(), ""))))
                .withQuantities(l -> quantities);
    }

    private static List<String> after(Study before, UnaryOperator<Study> edit) {
        return Renames.follow(before, edit.apply(before)).quantities().stream()
                .map(Quantity::formula)
                .toList();
    }

    @Test
    void stationsLanesFramesAndReadingsAreFollowed() {
        Study s = study(
                "T  -  mean(inlet over inlet + wall)",
                "T of fine - (T of rig)",
                "table(rig, \"rig\", x) + x in tilted",
                "\"mean T\" + heat + \"heat: in\"");
        assertThat(after(
                        s,
                        x -> x.withStations(l -> {
                            l.set(0, l.get(0).named("way in"));
                            return l;
                        })))
                .startsWith("T  -  mean(inlet over \"way in\" + wall)");
        assertThat(after(s, x -> x.with(x.source("r").orElseThrow().named("rig 2"))))
                .containsExactly(
                        "T  -  mean(inlet over inlet + wall)",
                        "T of fine - (T of \"rig 2\")",
                        "table(\"rig 2\", \"rig\", x) + x in tilted",
                        "\"mean T\" + heat + \"heat: in\"");
        assertThat(after(
                        s,
                        x -> x.withFrames(
                                l -> List.of(new Frame("f", "own", "", new Point(0, 0, 0), null, false, "")))))
                .contains("table(rig, \"rig\", x) + x in own");
        assertThat(after(
                        s,
                        x -> x.withReadings(l -> List.of(
                                l.get(0).named("mean"),
                                new Reading("b", "power", "", new BalanceOf(List.of(IN), List.of(), ""))))))
                .endsWith("mean + power + \"power: in\"");
    }

    @Test
    void whatCannotBeReadOrStillHasItsNameStaysAsItIs() {
        Study s = study("T - mean(T over", "mean(T over inlet)", "inlet of fine");
        UnaryOperator<Study> rename = x -> x.withStations(l -> {
            l.set(0, l.get(0).named("a"));
            return l;
        });
        assertThat(after(s, rename)).containsExactly("T - mean(T over", "mean(T over a)", "inlet of fine");
        // Another station goes on under the old name.
        assertThat(after(
                        s,
                        x -> x.withStations(l -> {
                            l.set(0, l.get(0).named("a"));
                            l.set(1, l.get(1).named("inlet"));
                            return l;
                        })))
                .containsExactly("T - mean(T over", "mean(T over inlet)", "inlet of fine");
        Study same = s.withStations(l -> l);
        assertThat(Renames.follow(s, same)).isSameAs(same);
    }
}
